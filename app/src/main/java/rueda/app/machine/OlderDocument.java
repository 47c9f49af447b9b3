package rueda.app.machine;

import java.util.List;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/**
 * Brings documents of the first shape (one reducer, rack and pinion, axes with ends only) into the present one, so that
 * what was saved before still opens. Values that did not exist take what made no difference then.
 */
final class OlderDocument {

    private OlderDocument() {
    }

    /** Changes the tree in place; a document of the present shape stays as it is. */
    static void upgrade(JsonNode document) {
        if (document.path("axes") instanceof ArrayNode axes) {
            axes.forEach(axis -> {
                if (axis instanceof ObjectNode object && object.has("reducer")) {
                    axis(object);
                }
            });
        }
    }

    private static void axis(ObjectNode axis) {
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

    private static void encoder(ObjectNode encoder) {
        long counts = encoder.remove("countsPerTurn").asLong();
        boolean powerOfTwo = Long.bitCount(counts) == 1;
        encoder.put("kind", powerOfTwo ? "ABSOLUTE" : "INCREMENTAL").put("lines", powerOfTwo ? 0 : counts / 4)
                .put("singleTurnBits", powerOfTwo ? Long.numberOfTrailingZeros(counts) : 0).put("multiTurnBits", 0);
    }
}
