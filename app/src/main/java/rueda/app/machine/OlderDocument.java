package rueda.app.machine;

import java.util.List;
import java.util.stream.Stream;
import rueda.machine.Axis;
import rueda.machine.AxisGuard;
import rueda.machine.Bus;
import rueda.machine.Expectation;
import rueda.machine.Following;
import rueda.machine.MoveList;
import rueda.machine.Plan;
import rueda.machine.Plc;
import rueda.machine.Station;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/**
 * Brings documents of the first shape (one reducer, rack and pinion, axes with ends only), of the second (no
 * supervision, no encoder on the load), of the third (EtherCAT only, stations without address), of the fourth (one program, one task,
 * one proof), of the fifth (no move list) and those after it into the present one, so that what was saved before still opens. Values that did not exist take what made no difference then.
 */
final class OlderDocument {

    private OlderDocument() {
    }

    /** Changes the tree in place; a document of the present shape stays as it is. */
    static void upgrade(JsonNode document) {
        if (document.path("bus") instanceof ObjectNode bus && !bus.has("family")) {
            bus.setAll((ObjectNode) MachineJson.tree(new Bus(bus.path("cycleMicros").asInt(1000))));
            int number = 1;
            for (JsonNode axis : document.path("axes")) {
                if (axis.path("station") instanceof ObjectNode station) {
                    station.set("address", MachineJson.tree(Station.Address.of(number, Station.nameOf(axis.path("name").asString("")))));
                    station.set("identity", MachineJson.tree(Station.Identity.USUAL));
                    number++;
                }
            }
        }
        boolean oneProgram = oneProgram(document);
        virtualMasters(document);
        oneTask(document);
        proofsWithoutScript(document);
        withoutGuards(document);
        if (document.path("axes") instanceof ArrayNode axes) {
            axes.forEach(axis -> {
                axis(axis);
                if (oneProgram) {
                    commanded(axis);
                }
            });
        }
    }

    /** No masters were virtual before the eighth shape. */
    private static void virtualMasters(JsonNode document) {
        if (document.path("plc") instanceof ObjectNode plc && plc.has("files") && !plc.has("virtualMasters")) {
            plc.putArray("virtualMasters");
        }
    }

    /** The ninth shape: one task with an interval ran everything, and no time was counted for its statements. */
    private static void oneTask(JsonNode document) {
        if (document.path("plc") instanceof ObjectNode plc && plc.has("virtualMasters")) {
            for (JsonNode task : plc.path("tasks")) {
                if (task instanceof ObjectNode object && Stream.of("onTag", "priority", "watchdogMicros", "programs").noneMatch(object::has)) {
                    if (!plc.has("statementNanos")) {
                        plc.put("statementNanos", 0);
                    }
                    object.put("onTag", "").put("priority", 0).put("watchdogMicros", 0).putArray("programs");
                }
            }
        }
    }

    /** The tenth shape: a proof ran the program and nothing else happened; nothing was varied, and a bound held all the time. */
    private static void proofsWithoutScript(JsonNode document) {
        for (JsonNode proof : document.path("proofs")) {
            if (proof instanceof ObjectNode object && Stream.of("purpose", "on", "script", "conditions", "plan").noneMatch(object::has)) {
                object.put("purpose", "").put("on", true).putArray("script");
                object.putArray("conditions");
                object.set("plan", MachineJson.tree(Plan.USUAL));
                for (JsonNode expectation : object.path("expectations")) {
                    if (expectation instanceof ObjectNode sentence && sentence.path("kind").asString("").equals(Expectation.Kind.BOUND.name()) && !sentence.hasNonNull("span")) {
                        sentence.put("span", Expectation.Span.ALWAYS.name());
                    }
                }
            }
        }
    }

    /** The eleventh shape: nobody asked a guard, and no axis had one. */
    private static void withoutGuards(JsonNode document) {
        if (document instanceof ObjectNode machine && machine.has("proofs") && !machine.has("safetyRequests")) {
            machine.putArray("safetyRequests");
        }
        /* the twelfth: nobody had measured how long stopping takes */
        for (JsonNode request : document.path("safetyRequests")) {
            if (request instanceof ObjectNode object && object.has("protection") && !object.has("stopping")) {
                object.put("stopping", 0.0);
            }
        }
    }

    /** An axis that was kept alone, as what a device held. */
    static void upgradeHeld(JsonNode axis) {
        axis(axis);
        commanded(axis);
    }

    private static void axis(JsonNode axis) {
        if (axis instanceof ObjectNode object && object.has("reducer")) {
            oneReducer(object);
        }
        if (axis instanceof ObjectNode object && object.path("limits").has("followingError")) {
            supervision(object);
        }
        if (axis instanceof ObjectNode object && object.path("wiring") instanceof ObjectNode wiring && wiring.has("zoneFrom")) {
            oneZone(object, wiring);
        }
        if (axis instanceof ObjectNode object && object.has("moves") && !object.has("following")) {
            /* the sixth shape: no axis followed another one */
            object.set("following", MachineJson.tree(Following.NONE));
        }
        if (axis instanceof ObjectNode object && object.path("following") instanceof ObjectNode following && following.has("phaseWindow") && !following.has("watch")) {
            moreOfFollowing(following);
        }
        if (axis instanceof ObjectNode object && object.has("following") && !object.has("guard")) {
            object.set("guard", MachineJson.tree(AxisGuard.NONE));
        }
    }

    /** The seventh shape: nothing was watched while an axis followed, a trim went on as long as its input was on and was forgotten, and no index pulse was named. */
    private static void moreOfFollowing(ObjectNode following) {
        ObjectNode none = (ObjectNode) MachineJson.tree(Following.NONE);
        for (String entry : List.of("accelerationForward", "trimAcceleration", "trimDistance", "trimKept", "watch")) {
            following.set(entry, none.get(entry));
        }
        if (following.path("encoder") instanceof ObjectNode encoder) {
            encoder.put("index", false);
        }
    }

    /** The fourth shape: the program and its interval stood in the PLC, and the machine had one proof. @return whether it was of this shape */
    private static boolean oneProgram(JsonNode document) {
        if (!(document instanceof ObjectNode machine) || !(machine.path("plc") instanceof ObjectNode plc) || !plc.has("program")) {
            return false;
        }
        plc.putArray("files").addObject().put("name", Plc.SourceFile.USUAL).set("source", plc.remove("program"));
        JsonNode interval = plc.remove("taskIntervalMicros");
        ObjectNode task = plc.putArray("tasks").addObject().put("name", Plc.Task.USUAL);
        if (interval != null) {
            task.set("intervalMicros", interval);
        }
        ArrayNode proofs = machine.putArray("proofs");
        if (machine.remove("proof") instanceof ObjectNode proof) {
            proofs.add(proof.put("group", ""));
        }
        return true;
    }

    /** Who commands an axis and what a station is was not said yet: there was one of each. */
    private static void commanded(JsonNode axis) {
        if (axis instanceof ObjectNode object) {
            if (!object.has("commandedBy")) {
                object.put("commandedBy", Axis.Commander.MOTION_BLOCKS.name());
            }
            if (object.path("station") instanceof ObjectNode station && !station.has("kind")) {
                station.put("kind", Station.Kind.SERVO_DRIVE.name());
            }
        }
    }

    private static void oneReducer(ObjectNode axis) {
        axis.put("kind", "LINEAR").put("modulo", 0).put("gearBits", 32);
        axis.withObject("/unit").remove("metres");
        ObjectNode motor = axis.withObject("/motor");
        motor.set("ratedSpeed", motor.get("maxSpeed"));
        motor.set("torqueAtMaxSpeed", motor.get("peakTorque"));
        encoder(axis.withObject("/encoder"));
        ObjectNode feed = (ObjectNode) axis.remove("feed");
        feed.put("kind", "RACK").put("unit", axis.path("unit").path("symbol").asString());
        feed.set("amount", feed.remove("pitch"));
        ObjectNode train = axis.putObject("train");
        train.putArray("reducers").add(axis.remove("reducer"));
        train.set("feed", feed);
        ObjectNode load = axis.withObject("/load");
        List.of("inertia", "slope", "stiffness", "damping", "backlash").forEach(name -> load.put(name, 0));
        axis.putObject("brake").put("torque", 0).put("releaseMillis", 0).put("closeMillis", 0);
        ObjectNode limits = axis.withObject("/limits");
        axis.putObject("duty").put("distance", 0.75 * (limits.path("softMax").asDouble() - limits.path("softMin").asDouble())).put("pause", 2);
        double torque = 100 * motor.path("peakTorque").asDouble() / motor.path("ratedTorque").asDouble();
        JsonNode speed = limits.remove("maxSpeed");
        JsonNode acceleration = limits.remove("maxAcceleration");
        JsonNode jerk = limits.remove("maxJerk");
        for (String which : List.of("normal", "max")) {
            ObjectNode dynamics = limits.putObject(which).put("torque", Math.min(1000, torque));
            dynamics.set("speed", speed);
            dynamics.set("acceleration", acceleration);
            dynamics.set("deceleration", acceleration);
            dynamics.set("jerk", jerk);
        }
        ArrayNode terminals = axis.putObject("wiring").putArray("terminals");
        List<String> functions = List.of("NEGATIVE_LIMIT", "POSITIVE_LIMIT", "REFERENCE_CAM", "NONE");
        for (int i = 0; i < functions.size(); i++) {
            terminals.addObject().put("name", "I" + (i + 1)).put("kind", "INPUT").put("function", functions.get(i)).put("normallyClosed", i < 2).put("filterMicros", 0);
        }
        axis.withObject("/homing").put("stopTorque", 40).put("stopTime", 200).put("timeLimit", 300).put("thenToZero", false);
    }

    /** The second shape: the following error stood in the limits, the station had digital terminals only. */
    private static void supervision(ObjectNode axis) {
        ObjectNode limits = axis.withObject("/limits");
        JsonNode error = limits.remove("followingError");
        double window = 0.01 * error.asDouble();
        axis.putObject("supervision").put("positionWindow", window).put("positionDwell", 0).put("positionTolerance", 0).put("followingErrorAtSpeed", error.asDouble())
                .put("followingFrom", 0).put("standstillWindow", window).put("standstillDwell", 50)
                .<ObjectNode>set("followingError", error).set("followingErrorTime", limits.remove("followingErrorTime"));
        axis.withObject("/encoder").put("reversed", false);
        ObjectNode loadEncoder = axis.putObject("loadEncoder").put("use", "NONE");
        loadEncoder.putObject("encoder").put("kind", "ABSOLUTE").put("lines", 0).put("singleTurnBits", 14).put("multiTurnBits", 0).put("reversed", false);
        axis.withObject("/homing").put("onFirstEnable", false).put("atPowerUp", "NOTHING").put("encoderOffset", 0);
        ObjectNode wiring = axis.withObject("/wiring").put("zoneFrom", 0).put("zoneTo", 0).put("analogueTorque", 100);
        if (wiring.path("terminals") instanceof ArrayNode terminals) {
            terminals.addObject().put("name", "STO").put("kind", "SAFE_TORQUE_OFF").put("function", "SAFE_TORQUE_OFF").put("normallyClosed", true).put("filterMicros", 0);
            terminals.addObject().put("name", "A1").put("kind", "ANALOGUE_INPUT").put("function", "NONE").put("normallyClosed", false).put("filterMicros", 0);
            terminals.addObject().put("name", "X2").put("kind", "SECOND_ENCODER").put("function", "NONE").put("normallyClosed", false).put("filterMicros", 0);
        }
    }

    /** The fifth shape: no move list, and one zone that stood in the wiring. */
    private static void oneZone(ObjectNode axis, ObjectNode wiring) {
        JsonNode from = wiring.remove("zoneFrom");
        JsonNode to = wiring.remove("zoneTo");
        boolean used = false;
        for (JsonNode terminal : wiring.path("terminals")) {
            if (terminal instanceof ObjectNode object && object.path("function").asString("").equals("IN_ZONE")) {
                object.put("function", "ZONE_1");
                used = true;
            }
        }
        ObjectNode moves = (ObjectNode) MachineJson.tree(MoveList.EMPTY);
        if (used && from != null && to != null) {
            ObjectNode zone = moves.withArray("/zones").addObject().put("hysteresis", 0).put("passing", MoveList.Passing.BOTH.name()).put("onlyReferenced", true);
            zone.set("from", from);
            zone.set("to", to);
        }
        axis.set("moves", moves);
    }

    private static void encoder(ObjectNode encoder) {
        long counts = encoder.remove("countsPerTurn").asLong();
        boolean powerOfTwo = Long.bitCount(counts) == 1;
        encoder.put("kind", powerOfTwo ? "ABSOLUTE" : "INCREMENTAL").put("lines", powerOfTwo ? 0 : counts / 4)
                .put("singleTurnBits", powerOfTwo ? Long.numberOfTrailingZeros(counts) : 0).put("multiTurnBits", 0);
    }
}
