package rueda.app;

import java.util.TreeMap;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/** The JSON Schema of the machine file, made from the description of the interface: the same records are behind both. */
final class MachineSchema {

    private static final JsonMapper JSON = JsonMapper.builder().build();

    /** Numbers by record and property: lowest, highest, and whether the lowest itself is not allowed. What the rules hold is held against them by a test. */
    record Range(double low, double high, boolean open) {
        static Range of(double low, double high) {
            return new Range(low, high, false);
        }

        static Range above0(double high) {
            return new Range(0, high, true);
        }
    }

    private static final double MOST = 1e12;
    static final java.util.Map<String, Range> RANGES = new TreeMap<>(java.util.Map.ofEntries(
            java.util.Map.entry("Unit.decimals", Range.of(0, 6)), java.util.Map.entry("Axis.gearBits", Range.of(8, 32)),
            java.util.Map.entry("Reducer.motorTurns", Range.of(1, Integer.MAX_VALUE)), java.util.Map.entry("Reducer.outputTurns", Range.of(1, Integer.MAX_VALUE)),
            java.util.Map.entry("Motor.inertia", Range.above0(MOST)), java.util.Map.entry("Motor.ratedTorque", Range.above0(MOST)), java.util.Map.entry("Motor.ratedSpeed", Range.above0(MOST)),
            java.util.Map.entry("Load.mass", Range.of(0, MOST)), java.util.Map.entry("Load.coulomb", Range.of(0, MOST)), java.util.Map.entry("Load.viscous", Range.of(0, MOST)), java.util.Map.entry("Load.slope", Range.of(-90, 90)),
            java.util.Map.entry("Brake.torque", Range.of(0, MOST)), java.util.Map.entry("Brake.releaseMillis", Range.of(0, 2000)), java.util.Map.entry("Brake.closeMillis", Range.of(0, 2000)),
            java.util.Map.entry("Dynamics.speed", Range.above0(MOST)), java.util.Map.entry("Dynamics.acceleration", Range.above0(MOST)), java.util.Map.entry("Dynamics.deceleration", Range.above0(MOST)),
            java.util.Map.entry("Dynamics.jerk", Range.of(0, MOST)), java.util.Map.entry("Dynamics.torque", Range.above0(1000)), java.util.Map.entry("Limits.quickStop", Range.above0(MOST)),
            java.util.Map.entry("Duty.distance", Range.above0(MOST)), java.util.Map.entry("Duty.pause", Range.of(0, MOST)), java.util.Map.entry("Control.positionGain", Range.above0(MOST)),
            java.util.Map.entry("Control.velocityGain", Range.above0(MOST)), java.util.Map.entry("Control.integralTime", Range.above0(MOST)), java.util.Map.entry("Control.feedForward", Range.of(0, 1)),
            java.util.Map.entry("Control.torqueForward", Range.of(0, 1)), java.util.Map.entry("Homing.searchSpeed", Range.above0(MOST)), java.util.Map.entry("Homing.creepSpeed", Range.above0(MOST)),
            java.util.Map.entry("Homing.acceleration", Range.above0(MOST)), java.util.Map.entry("Homing.zeroOffset", Range.of(-1e9, 1e9)), java.util.Map.entry("Homing.stopTorque", Range.above0(1000)),
            java.util.Map.entry("Homing.stopTime", Range.of(1, 10_000)), java.util.Map.entry("Homing.timeLimit", Range.above0(3600)), java.util.Map.entry("Homing.encoderOffset", Range.of(-1e9, 1e9)),
            java.util.Map.entry("Supervision.followingError", Range.above0(MOST)), java.util.Map.entry("Supervision.followingErrorTime", Range.of(0, 10_000)), java.util.Map.entry("Supervision.positionWindow", Range.above0(MOST)),
            java.util.Map.entry("Supervision.positionDwell", Range.of(0, 10_000)), java.util.Map.entry("Supervision.positionTolerance", Range.of(0, 60_000)), java.util.Map.entry("Supervision.standstillWindow", Range.above0(MOST)),
            java.util.Map.entry("Supervision.standstillDwell", Range.of(0, 10_000)), java.util.Map.entry("Plc.instructionBudget", Range.of(1000, 10_000_000)), java.util.Map.entry("Plc.statementNanos", Range.of(0, 100_000)), java.util.Map.entry("Task.priority", Range.of(0, 31)), java.util.Map.entry("Task.watchdogMicros", Range.of(0, 10_000_000)), java.util.Map.entry("Wiring.analogueTorque", Range.of(0, 1000)),
            java.util.Map.entry("MoveEntry.times", Range.of(1, 1_000_000)), java.util.Map.entry("MoveEntry.rest", Range.of(0, 86_400)), java.util.Map.entry("MoveEntry.output", Range.of(1, 4)), java.util.Map.entry("MoveEntry.windowFrom", Range.of(-1e9, 1e9)),
            java.util.Map.entry("Following.gain", Range.of(1, 1000)), java.util.Map.entry("Following.feedForward", Range.of(0, 100)), java.util.Map.entry("Following.filter", Range.of(0, 1000)), java.util.Map.entry("Following.prediction", Range.of(0, 100)),
            java.util.Map.entry("Following.phaseWindow", Range.of(0, 1e9)), java.util.Map.entry("Following.accelerationForward", Range.of(0, 100)), java.util.Map.entry("Following.trimDistance", Range.of(0, 1e9)),
            java.util.Map.entry("FollowWatch.lostCounts", Range.of(0, 1_000_000)), java.util.Map.entry("FollowWatch.phaseLimit", Range.of(0, 1e9)), java.util.Map.entry("FollowRatio.in", Range.of(1, Integer.MAX_VALUE)),
            java.util.Map.entry("Meeting.master", Range.of(-1e9, 1e9)), java.util.Map.entry("Meeting.follower", Range.of(-1e9, 1e9)), java.util.Map.entry("Meeting.way", Range.of(0, 1e9)),
            java.util.Map.entry("SafetyRequest.reaction", Range.of(0, 1000)), java.util.Map.entry("Protection.resolution", Range.of(0, 116)), java.util.Map.entry("Protection.height", Range.of(0, 1000)), java.util.Map.entry("Protection.reach", Range.of(0, 850)), java.util.Map.entry("SafetyRequest.filter", Range.of(0, 1000)), java.util.Map.entry("SafetyRequest.discrepancy", Range.of(0, 10_000)), java.util.Map.entry("SafetyRequest.stopping", Range.of(0, 60_000)), java.util.Map.entry("AxisGuard.cycle", Range.of(0.25, 20)), java.util.Map.entry("AxisGuard.countsPerTurn", Range.of(1, Integer.MAX_VALUE)), java.util.Map.entry("StopRules.delay", Range.of(0, 60_000)), java.util.Map.entry("StopRules.steepest", Range.of(0, 1e9)),
            java.util.Map.entry("StopRules.time", Range.of(0, 60_000)), java.util.Map.entry("StopRules.standstillSpeed", Range.of(0, 1e9)), java.util.Map.entry("StopRules.filterDistance", Range.of(0, 1e9)), java.util.Map.entry("StopRules.brakeDelay", Range.of(0, 60_000)), java.util.Map.entry("StopRules.torqueDelay", Range.of(0, 60_000)),
            java.util.Map.entry("StopRules.flattest", Range.above0(1e9)), java.util.Map.entry("StopRules.window", Range.above0(1e9)), java.util.Map.entry("SpeedRules.delay", Range.of(0, 60_000)), java.util.Map.entry("SpeedRules.limit", Range.above0(1e9)), java.util.Map.entry("SpeedRules.filterDistance", Range.of(0, 1e9)),
            java.util.Map.entry("Cue.millis", Range.of(0, 60_000)), java.util.Map.entry("Zone.from", Range.of(-1e9, 1e9)), java.util.Map.entry("Zone.to", Range.of(-1e9, 1e9)), java.util.Map.entry("Zone.hysteresis", Range.of(0, 1e9)),
            java.util.Map.entry("MoveException.from", Range.of(0, 255)), java.util.Map.entry("Plan.runs", Range.of(1, 100_000)), java.util.Map.entry("Plan.every", Range.of(0.001, 7200)), java.util.Map.entry("Proof.duration", Range.of(0.1, 7200))));

    private MachineSchema() {
    }

    /** Ranges of numbers, lengths of texts and lists; nothing but what is named. */
    private static void strict(String name, ObjectNode node) {
        if (!node.path("type").asString("").equals("object")) {
            return;
        }
        node.put("additionalProperties", false);
        node.path("properties").properties().forEach(property -> {
            ObjectNode value = (ObjectNode) property.getValue();
            Range range = RANGES.get(name + "." + property.getKey());
            if (range != null) {
                value.put(range.open() ? "exclusiveMinimum" : "minimum", range.low());
                value.put(range.high() == MOST ? "exclusiveMaximum" : "maximum", range.high());
            } else if (value.path("format").asString("").equals("int32")) {
                value.put("minimum", Integer.MIN_VALUE).put("maximum", Integer.MAX_VALUE);
            }
        });
        if (name.equals("Machine")) {
            ((ObjectNode) node.at("/properties/name")).put("minLength", 1).put("maxLength", 80);
            ((ObjectNode) node.at("/properties/axes")).put("maxItems", 128);
            ((ObjectNode) node.at("/properties/proofs")).put("maxItems", 64);
            ((ObjectNode) node.at("/properties/safetyRequests")).put("maxItems", 32);
        } else if (name.equals("SafetyRequest")) {
            ((ObjectNode) node.at("/properties/name")).put("minLength", 1).put("maxLength", 80);
        } else if (name.equals("AxisGuard")) {
            ((ObjectNode) node.at("/properties/asks")).put("maxItems", 256);
        } else if (name.equals("Proof")) {
            ((ObjectNode) node.at("/properties/script")).put("maxItems", 500);
            ((ObjectNode) node.at("/properties/expectations")).put("maxItems", 1000);
            ((ObjectNode) node.at("/properties/conditions")).put("maxItems", 100);
        } else if (name.equals("Axis")) {
            ((ObjectNode) node.at("/properties/name")).put("pattern", "^[A-Za-z_][A-Za-z0-9_]*$");
        } else if (name.equals("Plc")) {
            ((ObjectNode) node.at("/properties/files")).put("minItems", 1).put("maxItems", 100);
            ((ObjectNode) node.at("/properties/tasks")).put("minItems", 1).put("maxItems", 16);
            ((ObjectNode) node.at("/properties/virtualMasters")).put("maxItems", 16);
        } else if (name.equals("SourceFile")) {
            ((ObjectNode) node.at("/properties/source")).put("maxLength", 200_000);
        } else if (name.equals("Train")) {
            ((ObjectNode) node.at("/properties/reducers")).put("maxItems", 6);
        } else if (name.equals("MoveList")) {
            ((ObjectNode) node.at("/properties/entries")).put("maxItems", 256);
            ((ObjectNode) node.at("/properties/starters")).put("maxItems", 16);
            ((ObjectNode) node.at("/properties/exceptions")).put("maxItems", 16);
            ((ObjectNode) node.at("/properties/zones")).put("maxItems", 8);
        } else if (name.equals("MoveEntry")) {
            ((ObjectNode) node.at("/properties/name")).put("maxLength", 80);
        } else if (name.equals("Unit")) {
            ((ObjectNode) node.at("/properties/symbol")).put("minLength", 1).put("maxLength", 12);
        }
    }

    static JsonNode of(JsonNode openApi) {
        TreeMap<String, JsonNode> found = new TreeMap<>();
        collect("Machine", openApi, found);
        ObjectNode schema = JSON.createObjectNode();
        schema.put("$schema", "https://json-schema.org/draft/2020-12/schema");
        schema.put("title", "Rueda machine file");
        schema.put("$ref", "#/$defs/Machine");
        ObjectNode definitions = schema.putObject("$defs");
        found.forEach((name, node) -> {
            strict(name, (ObjectNode) node);
            definitions.set(name, node);
        });
        return JSON.readTree(schema.toString().replace("#/components/schemas/", "#/$defs/"));
    }

    private static void collect(String name, JsonNode openApi, TreeMap<String, JsonNode> into) {
        if (into.containsKey(name)) {
            return;
        }
        ObjectNode node = (ObjectNode) openApi.at("/components/schemas/" + name).deepCopy();
        into.put(name, node);
        java.util.Set<String> required = new java.util.HashSet<>();
        node.path("required").forEach(r -> required.add(r.asString()));
        node.path("properties").properties().forEach(property -> {
            if (!required.contains(property.getKey()) && property.getValue() instanceof ObjectNode open && open.has("type")) {
                ArrayNode types = JSON.createArrayNode().add(open.get("type")).add("null");
                open.set("type", types);
                if (open.get("enum") instanceof ArrayNode values) {
                    values.addNull();
                }
            }
        });
        java.util.regex.Pattern.compile("#/components/schemas/(\\w+)").matcher(node.toString()).results().forEach(r -> collect(r.group(1), openApi, into));
    }
}
