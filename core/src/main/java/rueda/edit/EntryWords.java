package rueda.edit;

import java.lang.reflect.RecordComponent;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import rueda.machine.Axis;
import rueda.machine.MoveEntry;
import rueda.machine.Terminal;

/**
 * What the entries of the document are called, with their units: a line for each component of each record. In a unit {@code u} stands for
 * the user unit of the axis.
 */
public final class EntryWords {

    /** @param words as a person calls it  @param unit after the value, empty for none */
    public record Named(String words, String unit) {
    }

    private static final Map<String, Named> NAMES = new LinkedHashMap<>();

    static {
        of("Machine", "name: Machine name", "bus: Bus", "plc: PLC", "axes: Axes", "proofs: Proofs", "safetyRequests: Requests");
        of("SafetyRequest", "name: Name", "reaction: Reaction time of the sensor | ms", "filter: Filter | ms", "discrepancy: Discrepancy time | ms", "protection: Protection", "stopping: Measured stopping time | ms");
        of("Protection", "kind: Kind", "resolution: Resolution | mm", "height: Height | mm", "reach: Reach | mm", "shrouded: Hands cannot reach past it");
        of("Bus", "family: Bus family", "cycleMicros: Bus cycle | µs", "kiloBits: Bit rate | kbit/s", "lowWordFirst: Low word first", "plc: PLC", "clock: Distributed clocks");
        of("IpNetwork", "address: IP address", "mask: Network mask", "gateway: Gateway");
        of("Clock", "reference: Reference station", "shiftMicros: Shift | µs", "windowNanos: Window | ns");
        of("Plc", "instructionBudget: Instruction budget | statements", "statementNanos: Time of a statement | ns", "files: Program files", "tasks: Tasks", "tags: Declared tags", "virtualMasters: Virtual masters");
        of("SourceFile", "name: Name of the file", "source: Program");
        of("Task", "name: Name of the task", "intervalMicros: Task interval | µs", "onTag: Tag that starts the task", "priority: Priority", "watchdogMicros: Watchdog | µs", "programs: Programs of the task");
        of("DeclaredTag", "name: Name", "type: Type");
        of("Proof", "name: Name", "group: Group", "purpose: Purpose", "on: Runs with the others", "duration: Duration | s", "script: Script", "expectations: Expectations", "conditions: Conditions", "plan: Plan");
        of("ScriptStep", "start: Begin", "time: Time | s", "when: When", "does: What happens", "target: What is set", "value: Value", "axis: Axis", "amount: How much", "mistake: What breaks", "ending: For how long", "lasts: Lasts | s", "until: Until", "request: Request");
        of("Expectation", "kind: Kind", "axis: Axis", "after: After", "position: Position | u", "tolerance: Tolerance | u", "within: Within | s", "stays: Stays | s", "quantity: Quantity", "limit: Limit", "text: Sentence", "signal: Value", "low: Lower bound", "high: Upper bound",
                "span: While", "when: Condition", "then: Later event", "atLeast: Shortest time | s", "other: Other axis", "otherLow: Lower bound of the other axis", "otherHigh: Upper bound of the other axis", "distance: Distance | u", "end: End", "recording: Recording", "alignment: How it is laid over the run");
        of("Condition", "of: What is varied", "axis: Axis", "sentence: Sentence of the script", "values: Values", "mistakes: What is wrong", "from: Range from", "to: Range to", "steps: Values of the range");
        of("Plan", "kind: Plan", "runs: Runs", "seed: Seed", "every: Time between moments | s");
        of("Axis", "name: Axis name", "kind: Kind of axis", "modulo: Modulo | u", "unit: User unit", "motor: Motor", "encoder: Encoder", "loadEncoder: Encoder on the load", "train: Drive train", "load: Load",
                "brake: Holding brake", "travel: Travel", "limits: Limits", "supervision: Supervision", "gearBits: Width of the electronic gear | bit", "duty: Duty", "homing: Homing", "control: Control", "station: Station", "wiring: Wiring", "moves: Move list", "following: Following", "guard: Guard", "commandedBy: Commanded by");
        of("AxisGuard", "fitted: Fitted", "cycle: Cycle of the guard | ms", "countsPerTurn: Resolution of the guard's encoder | counts per turn", "unitsPerTurn: Way per turn of the guard's encoder | u", "slowing: Slowed down by", "brake: Closes the brake", "stop1: Safe stop 1", "stop2: Safe stop 2",
                "stop2Second: Second safe stop 2", "speed: Safely limited speed", "asks: What requests ask for");
        of("Ask", "request: Request", "function: Safety function");
        of("StopRules", "watch: What is watched", "delay: Delay | ms", "steepest: Steepest ramp | u/s²", "flattest: Flattest ramp | u/s²", "time: Time to stand | ms", "standstillSpeed: Standstill speed | u/s", "filterDistance: Filter distance | u", "window: Standstill window | u",
                "brakeDelay: Delay of the brake | ms", "torqueDelay: Delay of the torque | ms", "restart: Motion is allowed again");
        of("SpeedRules", "delay: Delay | ms", "limit: Limit | u/s", "filterDistance: Filter distance | u");
        of("Unit", "symbol: Unit symbol", "decimals: Decimals");
        of("Motor", "inertia: Rotor inertia | kg·m²", "ratedTorque: Rated torque | N·m", "peakTorque: Peak torque | N·m", "ratedSpeed: Rated speed | 1/min", "maxSpeed: Highest motor speed | 1/min", "torqueAtMaxSpeed: Peak torque at highest speed | N·m");
        of("Encoder", "kind: Encoder kind", "lines: Encoder lines", "singleTurnBits: Bits within a turn | bit", "multiTurnBits: Bits of turns | bit", "reversed: Counts backward");
        of("LoadEncoder", "use: Use", "encoder: Encoder");
        of("Train", "reducers: Reducers", "feed: Feed");
        of("Reducer", "motorTurns: Motor turns", "outputTurns: Output turns");
        of("Feed", "kind: Kind of feed", "teeth: Teeth or starts", "amount: Pitch, lead or amount", "unit: Unit of the feed");
        of("Load", "mass: Mass | kg", "inertia: Load inertia | kg·m²", "coulomb: Friction, constant part", "viscous: Friction with speed", "slope: Slope | °", "stiffness: Stiffness", "damping: Damping", "backlash: Backlash | u");
        of("Brake", "torque: Brake torque | N·m", "releaseMillis: Time to release | ms", "closeMillis: Time to close | ms");
        of("Travel", "length: Length of the travel | u", "negativeLimit: Negative limit switch | u", "positiveLimit: Positive limit switch | u", "camFrom: Reference cam from | u", "camTo: Reference cam to | u", "parkedAt: Parked at | u");
        of("Limits", "softMin: Negative soft limit | u", "softMax: Positive soft limit | u", "normal: Default", "max: Highest", "quickStop: Deceleration of the quick stop | u/s²");
        of("Dynamics", "speed: Speed | u/s", "acceleration: Acceleration | u/s²", "deceleration: Deceleration | u/s²", "jerk: Jerk | u/s³", "torque: Torque | %");
        of("Supervision", "positionWindow: Position window | u", "positionDwell: Time in the position window | ms", "positionTolerance: Tolerance time of the position | ms", "followingError: Following error allowed | u",
                "followingErrorAtSpeed: Following error allowed at speed | u", "followingFrom: Share of speed from which it grows", "followingErrorTime: Time of the following error | ms", "standstillWindow: Standstill window | u/s", "standstillDwell: Time in the standstill window | ms");
        of("Duty", "distance: Way of a move | u", "pause: Pause | s");
        of("Homing", "method: Homing method", "searchSpeed: Search speed | u/s", "creepSpeed: Creep speed | u/s", "acceleration: Acceleration of the search | u/s²", "zeroOffset: Zero offset | u", "stopTorque: Torque at the stop | %", "stopTime: Time at the stop | ms",
                "timeLimit: Time limit of the search | s", "thenToZero: Then to zero", "onFirstEnable: On the first enable", "atPowerUp: At power-up", "encoderOffset: Offset of the encoder | u");
        of("Control", "positionGain: Position gain | 1/s", "velocityGain: Velocity gain | N·m·s/rad", "integralTime: Integral time | ms", "feedForward: Speed feed-forward", "torqueForward: Torque feed-forward");
        of("VirtualMaster", "name: Name", "unit: Unit", "modulo: Modulo", "speed: Speed", "highestSpeed: Highest speed", "acceleration: Acceleration", "jerk: Jerk");
        of("Station", "kind: Kind of station", "address: Address", "identity: Device", "outputs: Process data to the drive", "inputs: Process data from the drive", "startWrites: Start-up writes");
        of("Address", "number: Number", "name: Station name", "ip: Network");
        of("Identity", "device: Device name", "vendor: Vendor", "product: Product", "revision: Revision");
        of("Entry", "pdo: Message", "object: Object", "subIndex: Sub-index", "bits: Width | bit", "name: Name", "tag: Tag", "tagType: Type of the tag", "unit: Unit of the tag", "factor: Factor of the tag");
        of("StartWrite", "object: Object", "subIndex: Sub-index", "bits: Width | bit", "value: Value", "transition: Transition", "comment: Comment", "enabled: Written");
        of("Wiring", "terminals: Terminals", "analogueTorque: Torque at 10 V | %");
        of("MoveList", "entries: Entries", "firstEntry: Entry of the first start", "onFirstEnable: Start on the first enable", "starters: Starters", "exceptions: List, exceptions", "zones: Zones");
        of("MoveEntry", "name: Name", "kind: What it does", "position: Position | u", "distance: Distance | u", "way: Way", "speed: Speed | u/s", "acceleration: Acceleration | u/s²", "deceleration: Deceleration | u/s²", "jerk: Jerk | u/s³",
                "cue: Cue", "windowFrom: Window from | u", "windowTo: Window to | u", "output: Output", "on: On", "entry: Entry", "times: Times", "end: End", "rest: Rest | s", "next: Goes on to", "awaits: Awaits");
        of("Cue", "input: Input", "edge: Edge", "taken: Taken", "millis: Time of the input | ms");
        of("Starter", "by: Started by", "cue: Cue", "entry: Entry", "otherEntry: Other entry");
        of("MoveException", "cue: Cue", "does: What it does", "entry: Entry", "speed: Speed | u/s", "from: From entry", "to: To entry");
        of("Zone", "from: From | u", "to: To | u", "hysteresis: Hysteresis | u", "passing: Direction", "onlyReferenced: Only with a reference");
        of("Following", "source: What it follows", "master: Master", "encoder: Master encoder", "ratio: Ratio", "lock: Lock", "meeting: Meeting point", "release: When released", "catchUp: Catch-up limit | u/s", "speed: Highest speed while following | u/s",
                "acceleration: Highest acceleration while following | u/s²", "deceleration: Highest deceleration while following | u/s²", "gain: Gain of the lock | 1/s", "feedForward: Feed-forward of the master's speed | %", "filter: Filter of the master | ms",
                "prediction: Prediction of the master | ms", "trimSpeed: Trim speed | u/s", "phaseWindow: Phase window | u", "accelerationForward: Feed-forward of the acceleration | %", "trimAcceleration: Trim acceleration | u/s²", "trimDistance: Trim distance | u",
                "trimKept: Trim is kept", "watch: Watch while following");
        of("FollowWatch", "line: When a line breaks", "index: When the index pulse is missing", "lostCounts: Counts that may be lost", "lost: When counts are lost", "phaseLimit: Limit of the phase | u", "phase: When the phase leaves its limit", "tooFast: When the master is too fast");
        of("MasterEncoder", "signal: Signal", "countsPerTurn: Counts per turn", "reversed: Counts backward", "unit: Unit of the way", "turns: Turns", "way: Way of those turns", "speed: Speed of the master", "acceleration: Acceleration of the master", "index: Index pulse");
        of("FollowRatio", "form: Ratio given by", "in: Turns of the master", "out: Turns of the follower", "decimal: Ratio as a decimal", "masterPitch: Pitch of the master", "followerPitch: Pitch of the follower | u");
        of("Meeting", "master: Meeting point of the master", "follower: Meeting point of the follower | u", "way: Way of the master to the meeting point");
        of("Terminal", "name: Terminal", "kind: Kind of terminal", "function: Function", "normallyClosed: Normally closed", "filterMicros: Filter | µs");
    }

    private EntryWords() {
    }

    private static void of(String type, String... components) {
        for (String component : components) {
            String[] parts = component.split(": | \\| ");
            NAMES.put(type + "." + parts[0], new Named(parts[1], parts.length > 2 ? parts[2] : ""));
        }
    }

    /**
     * An entry of an axis by its place.
     *
     * @param pointer JSON pointer inside of the axis, such as /wiring/terminals/3/filterMicros, which is "I4, filter" in µs
     * @return its words, the pointer itself where there is no such entry; and its unit
     */
    public static Named at(Axis axis, String pointer) {
        StringBuilder words = new StringBuilder();
        String unit = "";
        Object now = axis;
        for (String part : pointer.substring(1).split("/")) {
            if (now instanceof List<?> list && part.matches("\\d{1,6}") && Integer.parseInt(part) < list.size()) {
                now = list.get(Integer.parseInt(part));
                if (now instanceof Terminal terminal) {
                    words.setLength(0);
                    words.append(terminal.name());
                } else if (now instanceof MoveEntry) {
                    /* entries of a move list are known by their numbers, from 0 */
                    words.setLength(0);
                    words.append("Entry ").append(part);
                } else {
                    words.append(' ').append(Integer.parseInt(part) + 1);
                }
                continue;
            }
            RecordComponent component = now instanceof Record record ? component(record, part) : null;
            if (component == null) {
                return new Named(pointer, "");
            }
            Named named = of(component);
            /* the group says already where it stands */
            if (words.length() > 0) {
                words.append(", ").append(named.words().substring(0, 1).toLowerCase(Locale.ROOT)).append(named.words().substring(1));
            } else if (now != axis || !(value(component, (Record) now) instanceof Record)) {
                words.append(named.words());
            }
            unit = unit(axis, part, named.unit());
            now = value(component, (Record) now);
        }
        return new Named(words.toString(), unit);
    }

    private static RecordComponent component(Record record, String name) {
        return Arrays.stream(record.getClass().getRecordComponents()).filter(c -> c.getName().equals(name)).findFirst().orElse(null);
    }

    private static Object value(RecordComponent component, Record of) {
        try {
            return component.getAccessor().invoke(of);
        } catch (ReflectiveOperationException impossible) {
            throw new IllegalStateException(impossible);
        }
    }

    /** A unit with the user unit of the axis in it; friction and stiffness have those of a force or of a torque. */
    private static String unit(Axis axis, String component, String unit) {
        boolean linear = axis.train().feed().linear();
        return switch (component) {
            case "coulomb" -> linear ? "N" : "N·m";
            case "viscous" -> linear ? "N·s/m" : "N·m·s/rad";
            case "stiffness" -> "N·m/rad";
            case "damping" -> "N·m·s/rad";
            default -> unit.startsWith("u") ? axis.unit().symbol() + unit.substring(1) : unit;
        };
    }

    /** @throws IllegalStateException when a component has no words yet */
    static Named of(RecordComponent component) {
        Named named = NAMES.get(component.getDeclaringRecord().getSimpleName() + "." + component.getName());
        if (named == null) {
            throw new IllegalStateException("no words for " + component.getDeclaringRecord().getSimpleName() + "." + component.getName());
        }
        return named;
    }
}
