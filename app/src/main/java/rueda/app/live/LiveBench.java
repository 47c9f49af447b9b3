package rueda.app.live;

import java.nio.ByteBuffer;
import java.util.ArrayList;
import java.util.HexFormat;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import rueda.bench.Bench;
import rueda.bench.HomingTrial;
import rueda.bench.Recording;
import rueda.app.web.Refusals.NotFound;
import rueda.drive.Drive;
import rueda.drive.DriveError;
import rueda.drive.DriveObject;
import rueda.machine.Machine;
import rueda.machine.Terminal;
import rueda.plant.ServoPlant;
import rueda.plant.Mistake;
import rueda.plc.ProgramFault;
import rueda.plc.Type;
import rueda.plc.Variable;
import rueda.plcopen.HandControl;

/** A bench that runs on the wall clock. Guarded by its own lock: every public method is synchronized. */
final class LiveBench {

    /** Signals streamed per axis, in this order. */
    static final List<String> STREAMED = List.of("commandedPosition", "position", "commandedSpeed", "speed", "torque", "followingError", "referenceCam");
    private static final int KEPT_CYCLES = 2_000;
    private static final int MOST_SAMPLES_PER_BLOCK = 64;
    /** Longest stretch made up for in one go, s: after a hold-up of the machine the clock does not race. */
    private static final double LONGEST_STEP = 0.2;

    enum Kind { PROGRAM, HOMING, BY_HAND }

    private static final String NO_PROGRAM = "PROGRAM ByHand\nEND_PROGRAM\n";

    private final Machine machine;
    private final long revision;
    private final Kind kind;
    private final String homingAxis;
    private final Map<String, Set<Mistake>> condition;
    private final Bench bench;
    private boolean running;
    private boolean ending;
    private double speed = 1;
    private double owed;
    private long sent;

    LiveBench(Machine machine, long revision, Kind kind, String axis, Map<String, Set<Mistake>> condition) {
        this.condition = condition;
        this.homingAxis = axis;
        this.machine = machine;
        this.revision = revision;
        this.kind = kind;
        this.bench = new Bench(machine, switch (kind) {
            case PROGRAM -> machine.plc().program();
            case HOMING -> HomingTrial.program(axis);
            case BY_HAND -> NO_PROGRAM;
        }, KEPT_CYCLES, condition);
    }

    synchronized void running(boolean wanted) {
        running = wanted;
        owed = 0;
    }

    synchronized void speed(double factor) {
        speed = factor;
    }

    synchronized void oneCycle() {
        running = false;
        int cycles = machine.plc().taskIntervalMicros() / machine.bus().cycleMicros();
        for (int i = 0; i < cycles; i++) {
            bench.cycle();
        }
    }

    synchronized void stopAllAxes() {
        bench.stopAllAxes();
    }

    long revision() {
        return revision;
    }

    synchronized boolean stopped() {
        return bench.stopped();
    }

    synchronized void takeByHand() {
        ending = false;
        bench.takeByHand();
    }

    /** The same bench in another condition, held at its start. */
    LiveBench in(Map<String, Set<Mistake>> changed) {
        return new LiveBench(machine, revision, kind, homingAxis, changed);
    }

    /** Control ends: every axis ramps down, and is disabled when it stands. The clock runs on until then. */
    synchronized void endByHand() {
        ending = true;
        running = true;
        for (int i = 0; i < machine.axes().size(); i++) {
            bench.hand(i).halt(bench.now());
            bench.drive(i).digitalInputs().releaseForces();
        }
    }

    private void disableWhatStands() {
        for (int i = 0; i < machine.axes().size(); i++) {
            if (bench.hand(i).stands()) {
                bench.hand(i).enable(false);
            }
        }
    }

    /** @return why it was refused, or null */
    synchronized String order(String axisName, HandController.Order order, double value, boolean fast, String terminal) {
        int axis = 0;
        while (axis < machine.axes().size() && !machine.axes().get(axis).name().equals(axisName)) {
            axis++;
        }
        if (axis == machine.axes().size()) {
            throw new NotFound("axis " + axisName);
        }
        HandControl hand = bench.hand(axis);
        long now = bench.now();
        return switch (order) {
            case ENABLE -> hand.enable(true);
            case DISABLE -> hand.enable(false);
            case JOG -> hand.jog(value < 0 ? -1 : 1, fast, now);
            case STEP -> hand.step(value, now);
            case GO_TO -> hand.goTo(value, now);
            case HOME -> hand.home(now);
            case STOP -> hand.halt(now);
            case RESET -> hand.reset();
            case OVERRIDE -> hand.override(value);
            case FORCE -> bench.drive(axis).digitalInputs().force(terminal, Double.isNaN(value) ? null : value != 0) ? null : "There is no input " + terminal + ".";
            case RELEASE_FORCES -> {
                bench.drive(axis).digitalInputs().releaseForces();
                yield null;
            }
        };
    }

    /** Moves on by the time that has passed. @return whether anything moved */
    synchronized boolean advance(double seconds) {
        if (!running) {
            return false;
        }
        if (ending) {
            disableWhatStands();
        }
        double cycle = machine.bus().cycleMicros() * 1e-6;
        owed += Math.min(seconds, LONGEST_STEP) * speed;
        while (owed >= cycle) {
            bench.cycle();
            owed -= cycle;
        }
        return true;
    }

    /** Live state of one axis, as the page shows it. */
    record AxisState(String name, double position, double commandedPosition, double speed, double torque, double followingError,
                     String state, String driveState, boolean referenced, int controlword, int statusword, String errorCode, String errorWords, double place,
                     boolean negativeLimit, boolean positiveLimit, boolean referenceCam, int homingLeg, int mode, double override, int inputLevels, int activeInputs, int forcedInputs, int outputLevels, String outputBytes, String inputBytes) {
    }

    record Value(String name, String type, String value) {
    }

    record Fault(int line, String message) {
    }

    /** @param type always "state", so that a page can tell messages apart */
    record State(String type, long revision, String program, boolean running, boolean stopped, boolean byHand, boolean programHeld, int forced, Map<String, Set<Mistake>> condition, double time, double speed, int line, List<Integer> lines, int statements,
                 Fault fault, List<AxisState> axes, List<Value> values) {
    }

    synchronized State state() {
        List<AxisState> axes = new ArrayList<>();
        for (int i = 0; i < machine.axes().size(); i++) {
            Drive drive = bench.drive(i);
            ServoPlant plant = drive.plant();
            long error = drive.dictionary().get(DriveObject.ERROR_CODE);
            axes.add(new AxisState(machine.axes().get(i).name(), drive.position(), drive.demandPosition(), plant.speed(), drive.torque(),
                    drive.followingError(), words(i), drive.state().words(), drive.referenced(), (int) drive.dictionary().get(DriveObject.CONTROLWORD),
                    (int) drive.dictionary().get(DriveObject.STATUSWORD), error == 0 ? "" : String.format(Locale.ROOT, "%04Xh", error), DriveError.words((int) error), plant.place(),
                    plant.negativeLimitReached(), plant.positiveLimitReached(), plant.onReferenceCam(), drive.homingLeg(),
                    (int) drive.dictionary().get(DriveObject.MODE_DISPLAY), bench.hand(i).override(),
                    drive.digitalInputs().levels(false), drive.digitalInputs().activeTerminals(), drive.digitalInputs().forced(), outputLevels(i),
                    hex(bench.outputBytes(i)), hex(bench.inputBytes(i))));
        }
        ProgramFault fault = bench.task().fault();
        List<Value> values = bench.task().program().variables().stream().filter(v -> v.type() != Type.AXIS_REF)
                .sorted(java.util.Comparator.comparingInt(this::order))
                .map((Variable v) -> new Value(v.name(), v.type().name(), bench.task().text(v))).toList();
        return new State("state", revision, kind.name().toLowerCase(Locale.ROOT), running, bench.stopped(), bench.byHand() && !ending, bench.byHand(), axes.stream().mapToInt(a -> Integer.bitCount(a.forcedInputs())).sum(), condition,
                bench.now() * 1e-9, speed, bench.task().line(), bench.task().lines(),
                bench.task().statements(), fault == null ? null : new Fault(fault.line(), fault.getMessage()), axes, values);
    }

    /** Variables of the program first, then the pins of its blocks, then the tags. */
    private int order(Variable variable) {
        boolean tag = machine.axes().stream().flatMap(a -> java.util.stream.Stream.concat(a.station().outputs().stream(), a.station().inputs().stream()))
                .anyMatch(e -> variable.name().equals(e.tag()));
        return tag ? 2 : variable.name().indexOf('.') >= 0 ? 1 : 0;
    }

    /** Levels of the output terminals, bit 0 the first output. */
    private int outputLevels(int axis) {
        int levels = 0;
        int bit = 1;
        for (Terminal terminal : machine.axes().get(axis).wiring().terminals()) {
            if (terminal.kind() == Terminal.Kind.OUTPUT) {
                levels |= bench.drive(axis).output(terminal.function()) ? bit : 0;
                bit <<= 1;
            }
        }
        return levels;
    }

    private String words(int axis) {
        if (bench.drive(axis).homingLeg() >= 0) {
            return "searching";
        }
        return bench.axis(axis).state().words();
    }

    private static String hex(byte[] bytes) {
        return HexFormat.ofDelimiter(" ").withUpperCase().formatHex(bytes);
    }

    /**
     * Samples since the last call: per sample the time as float64, then for every axis the streamed signals as
     * float32, big-endian. Thinned so that a block has at most 64 samples; null when there are none.
     */
    synchronized ByteBuffer samples() {
        Recording recording = bench.recording();
        long from = Math.max(sent, recording.first());
        long count = recording.count() - from;
        if (count <= 0) {
            return null;
        }
        long stride = Math.max(1, (count + MOST_SAMPLES_PER_BLOCK - 1) / MOST_SAMPLES_PER_BLOCK);
        int axes = machine.axes().size();
        List<Integer> columns = new ArrayList<>();
        for (int i = 0; i < axes; i++) {
            for (String signal : STREAMED) {
                columns.add(recording.indexOf(machine.axes().get(i).name() + "." + signal));
            }
        }
        int rows = (int) ((count + stride - 1) / stride);
        ByteBuffer block = ByteBuffer.allocate(rows * (Double.BYTES + columns.size() * Float.BYTES));
        for (long k = from; k < recording.count(); k += stride) {
            block.putDouble(recording.time(k));
            for (int column : columns) {
                block.putFloat((float) recording.value(column, k));
            }
        }
        sent = recording.count();
        return block.flip();
    }
}
