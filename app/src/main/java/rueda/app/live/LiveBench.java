package rueda.app.live;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.math.BigDecimal;
import java.math.MathContext;
import java.nio.ByteBuffer;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashSet;
import java.util.HexFormat;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.concurrent.atomic.AtomicLong;
import java.util.stream.Stream;
import rueda.bench.ValueChanges;
import rueda.bench.VirtualLine;
import rueda.bench.AxisSignal;
import rueda.bench.Bench;
import rueda.bench.BenchCondition;
import rueda.trial.HomingTrial;
import rueda.bench.Recording;
import rueda.app.web.Refusals.NotFound;
import rueda.bus.wire.BusCapture;
import rueda.bus.BusFamily;
import rueda.bus.BusFamily.DriveProfile;
import rueda.drive.CyclicItem;
import rueda.drive.CyclicWords;
import rueda.drive.DeviceMemory;
import rueda.drive.Drive;
import rueda.drive.FollowingSource;
import rueda.drive.DriveError;
import rueda.drive.DriveObject;
import rueda.drive.ListError;
import rueda.drive.MoveListSource;
import rueda.drive.ObjectDictionary;
import rueda.drive.OperationMode;
import rueda.drive.ParameterGroup;
import rueda.drive.PowerState;
import rueda.drive.WordBits;
import rueda.format.pcapng.PcapngWriter;
import rueda.machine.Axis;
import rueda.machine.Bus.Family;
import rueda.machine.Machine;
import rueda.machine.MoveList;
import rueda.machine.NewAxis;
import rueda.plant.MasterShaft;
import rueda.plant.ServoPlant;
import rueda.machine.Mistake;
import rueda.plc.Inspector;
import rueda.plc.Resource;
import rueda.plc.run.ProgramFault;
import rueda.plc.run.Tracer;
import rueda.plc.type.Type;
import rueda.plc.CompiledProgram;
import rueda.plc.StructuredTextCompiler.Text;
import rueda.plc.Variable;
import rueda.plcopen.FollowState;
import rueda.plcopen.HandControl;
import rueda.plcopen.StateChange;

/** A bench that runs on the wall clock. Guarded by its own lock: every public method is synchronized. */
final class LiveBench {

    /** Signals streamed per axis, in this order. */
    static final List<AxisSignal> STREAMED = List.of(AxisSignal.COMMANDED_POSITION, AxisSignal.POSITION, AxisSignal.COMMANDED_SPEED, AxisSignal.SPEED, AxisSignal.TORQUE, AxisSignal.FOLLOWING_ERROR,
            AxisSignal.REFERENCE_CAM, AxisSignal.IN_POSITION, AxisSignal.STANDSTILL, AxisSignal.ALLOWED_FOLLOWING_ERROR, AxisSignal.TORQUE_LIMITED, AxisSignal.BRAKE_OPEN);
    private static final AtomicInteger KEYS = new AtomicInteger();
    /** Numbers of states, also beyond a restart of the server: it begins with the time of day. */
    private static final AtomicLong STATES = new AtomicLong(System.currentTimeMillis() * 1000);
    private static final int KEPT_CYCLES = 2_000;
    private static final int MOST_SAMPLES_PER_BLOCK = 64;
    /** Longest stretch made up for in one go, s: after a hold-up of the machine the clock does not race. */
    private static final double LONGEST_STEP = 0.2;
    private static final long ACKNOWLEDGE_NANOS = 100_000_000;
    /** Longest computing in one go, ns. */
    private static final long LONGEST_COMPUTING_NANOS = 30_000_000;

    enum Kind { PROGRAM, HOMING, BY_HAND }

    private static final String NO_PROGRAM = "PROGRAM ByHand\nEND_PROGRAM\n";

    private final Machine machine;
    private long revision;
    private final Kind kind;
    private final String homingAxis;
    private Map<String, Set<Mistake>> condition;
    private final Bench bench;
    private final ProgramWatch watch;
    private final BusCapture traffic;
    /** Values that are sent ten times a second; a program may have many thousands. */
    private static final int MOST_SHOWN = 2_000;

    /** variables in the order of the page */
    private final List<Variable> shown;
    private final int leftOut;
    /** tells the columns of this bench from those of others */
    private int key;
    /** names of the signals that are streamed, and their numbers in the recording */
    private List<String> columnNames = List.of();
    private int[] columnNumbers = new int[0];
    private boolean running;
    private boolean ending;
    /** ns of the bench: then the button that acknowledges the guards is let go */
    private long acknowledgedUntil = Long.MAX_VALUE;
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
            case PROGRAM -> Text.of(machine.plc());
            case HOMING -> List.of(new Text("", HomingTrial.program(axis)));
            case BY_HAND -> List.of(new Text("", NO_PROGRAM));
        }, KEPT_CYCLES, BenchCondition.throughout(condition), true);
        watch = new ProgramWatch(bench.resource());
        List<Variable> all = inOrder(machine, bench.resource().program().variables());
        shown = List.copyOf(all.subList(0, Math.min(MOST_SHOWN, all.size())));
        leftOut = all.size() - shown.size();
        columnsChanged();
        traffic = new BusCapture(machine, KEPT_CYCLES);
        bench.capture(traffic);
    }

    /** The frames of the last bus cycles, as pcapng. @param startEpochNanos wall-clock time of the bench's time 0, ns since 1970 */
    synchronized byte[] traffic(long startEpochNanos) {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try {
            PcapngWriter.write(traffic, out, startEpochNanos);
        } catch (IOException impossible) {
            throw new UncheckedIOException(impossible);
        }
        return out.toByteArray();
    }

    synchronized void running(boolean wanted) {
        running = wanted;
        owed = 0;
        bench.resource().tracer().goOn();
    }

    /** What a person looks at in the program. */
    synchronized void want(ProgramWatch.Wanted wanted) {
        List<ProgramWatch.TracedValue> before = watch.traced();
        watch.want(wanted);
        if (!before.equals(watch.traced())) {
            columnsChanged();
        }
    }

    /** @param name of a value of the program  @return its latest changes; empty when there is none of this name */
    synchronized Optional<List<ValueChanges.ValueChange>> history(String name) {
        return bench.changes().of(name);
    }

    private void columnsChanged() {
        List<String> names = new ArrayList<>();
        machine.axes().forEach(axis -> STREAMED.forEach(signal -> names.add(signal.of(axis.name()))));
        watch.traced().forEach(value -> names.add(value.name()));
        columnNames = List.copyOf(names);
        columnNumbers = names.stream().mapToInt(bench.recording()::indexOf).toArray();
        key = KEYS.incrementAndGet();
    }

    synchronized void step(Tracer.Step how) {
        bench.resource().tracer().step(how);
        running = true;
        owed = 0;
    }

    /** @return false when no statement stands there or behind it */
    synchronized boolean toLine(String file, int line) {
        running(true);
        boolean there = bench.resource().tracer().toLine(file, line);
        running = there;
        return there;
    }

    /** @return why it cannot be, or null */
    synchronized String write(String name, String value, boolean force) {
        Inspector inspector = bench.resource().inspector();
        return force ? inspector.force(name, value) : inspector.write(name, value);
    }

    /** @param name empty for all */
    synchronized void release(String name) {
        if (name.isEmpty()) {
            bench.resource().inspector().releaseAll();
        } else {
            bench.resource().inspector().release(name);
        }
    }

    /** What the controller of another bench keeps while it is off is there. */
    synchronized void restore(LiveBench before) {
        bench.resource().restore(before.retained());
    }

    private synchronized List<Resource.Retained> retained() {
        return bench.resource().retained();
    }

    /** A program that is held in its middle is given up. The bench is not to be used any more. */
    synchronized void close() {
        running = false;
        bench.resource().close();
    }

    /** A program that is held in its middle ends its cycle. */
    private void endHeldCycle() {
        if (bench.resource().held()) {
            watch.want(ProgramWatch.Wanted.NOTHING);
            bench.resource().tracer().goOn();
            bench.cycle();
        }
    }

    /** @return whether it ran */
    synchronized boolean hold() {
        boolean ran = running;
        running = false;
        return ran;
    }

    synchronized void speed(double factor) {
        speed = factor;
    }

    synchronized void oneCycle() {
        running = false;
        int cycles = machine.plc().taskIntervalMicros() / machine.bus().cycleMicros();
        bench.resource().tracer().goOn();
        for (int i = 0; i < cycles; i++) {
            cycle();
            if (bench.resource().held()) {
                return;
            }
        }
    }

    synchronized void stopAllAxes() {
        bench.stopAllAxes();
    }

    Machine machine() {
        return machine;
    }

    synchronized long revision() {
        return revision;
    }

    synchronized boolean stopped() {
        return bench.stopped();
    }

    synchronized void takeByHand() {
        ending = false;
        endHeldCycle();
        bench.takeByHand();
    }

    /** From now on this is wrong on the stand. */
    synchronized void condition(Map<String, Set<Mistake>> changed) {
        condition = changed;
        bench.condition(BenchCondition.throughout(changed));
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
            bench.releaseForces(i);
            bench.drive(i).analogue(0);
        }
        bench.virtualMasters().forEach(master -> {
            master.run(0, bench.now());
            master.enable(false);
        });
    }

    private void disableWhatStands() {
        for (int i = 0; i < machine.axes().size(); i++) {
            if (bench.hand(i).stands()) {
                bench.hand(i).enable(false);
            }
        }
    }

    private int number(String axisName) {
        for (int i = 0; i < machine.axes().size(); i++) {
            if (machine.axes().get(i).name().equals(axisName)) {
                return i;
            }
        }
        throw new NotFound("axis " + axisName);
    }

    /**
     * Writes the parameters of every axis that the bench has into its device. When the bench then is what the project
     * says, it carries the project's revision.
     */
    synchronized void write(Machine project, long projectRevision) {
        Machine taken = machine;
        for (int i = 0; i < machine.axes().size(); i++) {
            Axis written = project.axis(machine.axes().get(i).name()).orElse(null);
            if (written != null) {
                bench.writeDevice(i, written);
                taken = taken.withAxis(i, bench.device(i).working());
            }
        }
        if (taken.equals(project)) {
            revision = projectRevision;
        }
    }

    synchronized void keep(String axisName) {
        bench.device(number(axisName)).keep();
    }

    synchronized void restart(String axisName) {
        bench.restartDevice(number(axisName));
        running = true;
    }

    /** Stations that the PLC does not bring into operation. */
    synchronized void disconnect(List<String> axisNames) {
        axisNames.forEach(name -> bench.disconnect(number(name)));
    }

    /** A device that arrives with parameters of its own. */
    synchronized void holds(String axisName, Axis parameters) {
        bench.writeDevice(number(axisName), parameters);
        bench.device(number(axisName)).keep();
    }

    /** @param reached groups that get there before the connection breaks */
    synchronized void writeDevice(String axisName, Axis source, Set<ParameterGroup> groups, int reached) {
        bench.writeDevice(number(axisName), source, groups, reached);
    }

    synchronized void endWriting(String axisName, boolean finish) {
        bench.endWriting(number(axisName), finish);
    }

    synchronized void factoryReset(String axisName) {
        bench.device(number(axisName)).factoryReset(NewAxis.named(axisName));
        bench.restartDevice(number(axisName));
        running = true;
    }

    synchronized DeviceMemory device(String axisName) {
        return bench.device(number(axisName));
    }

    /** @return why it was refused, or null */
    synchronized String order(HandController.HandOrder wanted) {
        VirtualLine master = bench.virtualMaster(wanted.axis());
        if (master != null) {
            return orderVirtual(master, wanted);
        }
        int axis = number(wanted.axis());
        double value = wanted.value() == null ? Double.NaN : wanted.value();
        String terminal = wanted.terminal();
        if (bench.restarting(axis)) {
            return bench.connected(axis) ? "The device restarts. Wait a moment." : "The PLC does not reach this station. Look for devices in Connect.";
        }
        HandControl hand = bench.hand(axis);
        long now = bench.now();
        return switch (wanted.order()) {
            case ENABLE -> hand.enable(true);
            case DISABLE -> hand.enable(false);
            case JOG -> hand.jog(value < 0 ? -1 : 1, Boolean.TRUE.equals(wanted.fast()), now);
            case STEP -> hand.step(value, now);
            case GO_TO -> hand.goTo(value, now);
            case HOME -> hand.home(now);
            case STOP -> hand.halt(now);
            case RESET -> hand.reset();
            case OVERRIDE -> hand.override(value);
            case TORQUE -> machine.bus().family() == Family.PROFINET ? "The telegrams of PROFINET carry no torque operation. Move the axis by position." : hand.torque(value, wanted.speedLimit() == null ? 0 : wanted.speedLimit(), now);
            case FORCE -> {
                Boolean level = Double.isNaN(value) ? null : value != 0;
                yield bench.drive(axis).digitalInputs().force(terminal, level) || bench.drive(axis).digitalOutputs().force(terminal, level) ? null : "There is no terminal " + terminal + " to force.";
            }
            case VOLTAGE -> {
                if (Math.abs(value) > 10) {
                    yield "The analogue input takes \u221210 to 10 V.";
                }
                bench.drive(axis).analogue(value);
                yield null;
            }
            case START_ENTRY -> value == Math.rint(value) ? hand.startEntry((int) value) : "An entry has a whole number.";
            case GO_ON -> hand.goOn();
            case STEPWISE -> hand.stepwise(value != 0);
            case FOLLOW -> bench.followByHand(axis);
            case LET_GO -> hand.letGo(now);
            case TRIM -> hand.trim((int) Math.signum(value));
            case RUN_SHAFT -> {
                MasterShaft shaft = bench.drive(axis).plant().masterShaft();
                if (shaft != null) {
                    shaft.run(value);
                }
                yield shaft == null ? "This axis follows no encoder." : null;
            }
            case RELEASE_FORCES -> {
                bench.releaseForces(axis);
                yield null;
            }
            case FORCE_CONTROL_BIT, FORCE_STATUS_BIT -> {
                if (value != Math.rint(value) || value < 0 || value > 15) {
                    yield "A word has bits 0 to 15.";
                }
                bench.forceBit(axis, wanted.order() == HandController.Order.FORCE_CONTROL_BIT, (int) value, wanted.fast());
                yield null;
            }
        };
    }

    private String orderVirtual(VirtualLine master, HandController.HandOrder wanted) {
        double value = wanted.value() == null ? 0 : wanted.value();
        return switch (wanted.order()) {
            case ENABLE, DISABLE -> {
                master.enable(wanted.order() == HandController.Order.ENABLE);
                yield null;
            }
            case JOG -> master.run(Math.signum(value) * master.master().speed(), bench.now());
            case STOP -> master.run(0, bench.now());
            default -> "A virtual master can be enabled, run and stopped.";
        };
    }

    /** @throws NotFound when the machine that runs has no such request */
    synchronized void ask(String request, boolean firstOpen, boolean secondOpen) {
        for (int i = 0; i < machine.safetyRequests().size(); i++) {
            if (machine.safetyRequests().get(i).name().equals(request)) {
                bench.ask(i, !firstOpen, !secondOpen);
                return;
            }
        }
        throw new NotFound("request " + request + " on the bench");
    }

    private void cycle() {
        if (bench.now() >= acknowledgedUntil) {
            acknowledgedUntil = Long.MAX_VALUE;
            bench.acknowledge(false);
        }
        bench.cycle();
    }

    /** Presses the button; a later cycle lets it go. */
    synchronized void acknowledge() {
        bench.acknowledge(true);
        acknowledgedUntil = bench.now() + ACKNOWLEDGE_NANOS;
    }

    synchronized List<GuardsNow.Told> guardLog() {
        return GuardsNow.log(bench);
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
        // On a machine that is too slow for the speed asked for the clock falls behind; orders and the watch over control never wait long.
        long until = System.nanoTime() + LONGEST_COMPUTING_NANOS;
        while (owed >= cycle) {
            cycle();
            if (bench.resource().held()) {
                running = false;
                return true;
            }
            owed -= cycle;
            if (System.nanoTime() > until) {
                owed = Math.min(owed, cycle);
                break;
            }
        }
        for (int i = 0; i < machine.axes().size(); i++) {
            bench.letAct(i);
        }
        return true;
    }

    /** Live state of one axis, as the page shows it. */
    record AxisState(String name, double position, double commandedPosition, double speed, double torque, double followingError,
                     String state, String driveState, PowerState power, boolean referenced, int controlword, int statusword, String errorCode, String errorWords, double place,
                     boolean negativeLimit, boolean positiveLimit, boolean referenceCam, int homingLeg, int mode, double override, int inputLevels, int activeInputs, int forcedInputs, int outputLevels, int forcedOutputs,
                     boolean inPosition, boolean standsStill, double allowedFollowingError, int millivolts, int loadCounts, Double probe1, Double probe2, int forcedControlBits, int forcedStatusBits, MovesNow moves, FollowNow following, MotionNow motion, DeviceState device, String outputBytes, String inputBytes) {
    }

    /**
     * State of the axis as motion blocks have it, and how it came about.
     *
     * @param state of PLCopen Motion Control part 1
     * @param from  the state before
     * @param since s on the bench's clock
     * @param block instance that ordered it; empty where the drive did it, or an order came to its end
     * @param file  where that is called  @param line from 1, 0 outside of a program
     */
    record MotionNow(rueda.plcopen.AxisState state, rueda.plcopen.AxisState from, double since, String block, String file, int line) {
    }

    private MotionNow motionNow(int axis) {
        StateChange change = bench.axis(axis).lastChange();
        return new MotionNow(bench.axis(axis).state(), change.from(), change.at() * 1e-9, change.block(), change.call().file(), change.call().line());
    }

    /**
     * What the move list of an axis does.
     *
     * @param entry    number of the entry that runs or ran last, −1 for none
     * @param phase    in words
     * @param running  an entry moves, rests, awaits or is held
     * @param held     it goes on when it is told to
     * @param leads    it makes the setpoint
     * @param stepwise it holds after each entry
     * @param inEntry  time since the entry was begun, s
     * @param turn     how often it has been begun in this round
     * @param rounds   how often the entry with which it was started has been begun
     * @param error    why it cannot go on, empty when it can
     * @param zones    zones that the position is in, bit 0 the first
     * @param changed  entries that the bus has changed since the list was written
     */
    record MovesNow(int entry, String phase, boolean running, boolean held, boolean leads, boolean stepwise, double inEntry, int turn, long rounds, String error, int zones, List<ChangedEntry> changed) {
    }

    /** @param entry its number  @param words what it does otherwise than it was written */
    record ChangedEntry(int entry, String words) {
    }

    /** @param unit of the axis */
    private static ChangedEntry changed(MoveListSource.BusChange change, String unit) {
        String speed = Double.isNaN(change.speed()) ? "" : plain(change.speed()) + " " + unit + "/s";
        String way = Double.isNaN(change.way()) ? "" : plain(change.way()) + " " + unit;
        return new ChangedEntry(change.entry(), "over the bus: " + way + (way.isEmpty() || speed.isEmpty() ? "" : ", ") + speed);
    }

    private static String plain(double value) {
        return new BigDecimal(value).round(new MathContext(7)).stripTrailingZeros().toPlainString();
    }

    private static MovesNow movesNow(Drive drive, String unit) {
        MoveListSource list = drive.moveList();
        int zones = 0;
        for (int i = 0; i < MoveList.MOST_ZONES; i++) {
            zones |= drive.inZone(i) ? 1 << i : 0;
        }
        boolean leads = drive.dictionary().get(DriveObject.MODE_DISPLAY) == OperationMode.MOVE_LIST;
        return new MovesNow(list.entry(), list.phase().words(), list.running(), list.phase() == MoveListSource.Phase.HELD, leads, list.stepwise(), list.inEntry(), list.turn(), list.rounds(), list.error() == ListError.NONE ? "" : list.error().words(), zones,
                list.busChanges().stream().map(change -> changed(change, unit)).toList());
    }

    /**
     * How an axis follows.
     *
     * @param follows    it is tied, or on its way to be
     * @param locked     within its phase window
     * @param phase      what it does, in words
     * @param deviation  of its load from the place that the load of its master gives it, as the encoders say, units
     * @param lost       way that stays lost, units
     * @param trimmed    by how much its phase has been moved, units
     * @param place      of the pitch that goes by, share of a pitch, 0 to 1
     * @param shift      of its pitch against the master's: deviation, trim and what was lost, share of a pitch
     * @param lostShare  the lost way as share of a pitch
     * @param shaft      speed of the shaft under the encoder that is followed, units/s of it; null where an axis is followed
     * @param warning    what has come about since it was tied, in words; empty for nothing
     */
    record FollowNow(boolean follows, boolean locked, String phase, double deviation, double lost, double trimmed, double place, double shift, double lostShare, Double shaft, String warning) {
    }

    private FollowNow followNow(int axis) {
        FollowState state = bench.axis(axis).followState();
        FollowingSource encoder = bench.drive(axis).following();
        MasterShaft shaft = bench.drive(axis).plant().masterShaft();
        Double speed = shaft == null ? null : shaft.speed();
        double error = bench.drive(axis).followingError();
        double pitch = Math.abs(bench.device(axis).acting().following().ratio().followerPitch().doubleValue());
        if (state.follows()) {
            return following(state.locked(), state.words(), state.deviation() - error + state.ratio() * bench.followingErrorOf(state.master()), state.lost(), state.trimmed(), state.way(), pitch, speed, state.warning());
        }
        return encoder.tied() ? following(encoder.locked(), encoder.words(), encoder.deviation() - error, encoder.lost(), encoder.trimmed(), encoder.way(), pitch, speed, encoder.warnings())
                : new FollowNow(false, false, state.words(), 0, 0, 0, 0, 0, 0, speed, encoder.warnings());
    }

    private static FollowNow following(boolean locked, String words, double deviation, double lost, double trimmed, double way, double pitch, Double shaft, String warning) {
        double place = way / pitch;
        return new FollowNow(true, locked, words, deviation, lost, trimmed, place - Math.floor(place), (deviation + trimmed - lost) / pitch, lost / pitch, shaft, warning);
    }

    /**
     * @param restarting it is off and does not answer
     * @param pending    what is written and does not act yet
     * @param connected  the PLC brought it into operation
     * @param unkept     what a restart would lose
     * @param missing    what an interrupted writing has not reached
     */
    record DeviceState(boolean restarting, boolean connected, List<String> pending, List<String> unkept, List<String> missing) {
    }

    private DeviceState deviceState(int axis) {
        DeviceMemory memory = bench.device(axis);
        return new DeviceState(bench.restarting(axis) && bench.connected(axis), bench.connected(axis), memory.pending().stream().map(ParameterGroup::words).toList(), memory.unkept().stream().map(ParameterGroup::words).toList(), memory.missing().stream().map(ParameterGroup::words).toList());
    }

    /** Position that a probe holds, user units, or null. @param bit of 60B9h that says so */
    private Double probed(int axis, int bit, DriveObject position) {
        ObjectDictionary dictionary = bench.drive(axis).dictionary();
        return (dictionary.get(DriveObject.PROBE_STATUS) >> bit & 1) == 0 ? null : bench.device(axis).acting().scale().unitsFromWire(dictionary.get(position));
    }

    /**
     * A virtual master now.
     *
     * @param position where it is, units  @param speed units/s  @param enabled it takes orders  @param state what it does, in words
     */
    record VirtualState(String name, double position, double speed, boolean enabled, String state) {
    }

    record Value(String name, String type, String value) {
    }

    record Fault(String file, int line, String message) {
    }

    /** Lines of one file of the program in which a statement ran in the last cycle. */
    record RanLines(String file, List<Integer> lines) {
    }

    /**
     * @param type          always "state", so that a page can tell messages apart
     * @param number        of a later state it is greater: an answer can come behind a message of the stream that is younger
     * @param valuesLeftOut values that a program has beyond those that are sent
     */
    record State(String type, long number, long revision, String program, boolean running, boolean stopped, boolean byHand, boolean programHeld, int forced, Map<String, Set<Mistake>> condition, double time, double speed, List<RanLines> ran, int statements,
                 Fault fault, ProgramWatch.ProgramNow now, List<AxisState> axes, List<VirtualState> virtualMasters, GuardsNow guards, List<Value> values, int valuesLeftOut) {
    }

    /** Which values stand in which lines of the program that runs. */
    List<CompiledProgram.LineValues> lineValues() {
        return kind == Kind.PROGRAM ? bench.resource().program().lineValues() : List.of();
    }

    synchronized State state() {
        List<AxisState> axes = new ArrayList<>();
        for (int i = 0; i < machine.axes().size(); i++) {
            Drive drive = bench.drive(i);
            ServoPlant plant = drive.plant();
            long error = drive.dictionary().get(DriveObject.ERROR_CODE);
            axes.add(new AxisState(machine.axes().get(i).name(), drive.position(), drive.demandPosition(), plant.speed(), drive.torque(),
                    drive.followingError(), words(i), bench.restarting(i) ? "does not answer" : drive.stateWords(), drive.state(), drive.referenced() && !bench.restarting(i), (int) drive.dictionary().get(DriveObject.CONTROLWORD),
                    (int) drive.dictionary().get(DriveObject.STATUSWORD), error == 0 ? "" : String.format(Locale.ROOT, "%04Xh", error), DriveError.words((int) error), plant.place(),
                    plant.negativeLimitReached(), plant.positiveLimitReached(), plant.onReferenceCam(), drive.homingLeg(),
                    (int) drive.dictionary().get(DriveObject.MODE_DISPLAY), bench.hand(i).override(),
                    drive.digitalInputs().levels(false), drive.digitalInputs().activeTerminals(), drive.digitalInputs().forced(), drive.outputLevels(), drive.digitalOutputs().forced(),
                    drive.inPosition(), drive.standsStill(), drive.allowedFollowingError(), (int) drive.dictionary().get(DriveObject.ANALOGUE_INPUT), (int) drive.dictionary().get(DriveObject.LOAD_POSITION),
                    probed(i, 1, DriveObject.PROBE_1_POSITION), probed(i, 9, DriveObject.PROBE_2_POSITION), bench.forcedBits(i, true), bench.forcedBits(i, false), movesNow(drive, machine.axes().get(i).unit().symbol()), followNow(i), motionNow(i), deviceState(i),
                    hex(bench.outputBytes(i)), hex(bench.inputBytes(i))));
        }
        List<VirtualState> virtual = bench.virtualMasters().stream().map(m -> new VirtualState(m.master().name(), m.position(), m.speed(), m.power() == PowerState.OPERATION_ENABLED, m.words())).toList();
        ProgramFault fault = bench.resource().fault();
        List<Value> values = shown.stream().map((Variable v) -> new Value(v.name(), v.declared().written(), bench.resource().text(v))).toList();
        return new State("state", STATES.incrementAndGet(), revision, kind.name().toLowerCase(Locale.ROOT), running, bench.stopped(), bench.byHand() && !ending, bench.byHand(), axes.stream().mapToInt(a -> Integer.bitCount(a.forcedInputs()) + Integer.bitCount(a.forcedOutputs()) + Integer.bitCount(a.forcedControlBits()) + Integer.bitCount(a.forcedStatusBits())).sum(), condition,
                bench.now() * 1e-9, speed, ran(),
                bench.resource().statements(), fault == null ? null : new Fault(fault.file(), fault.line(), fault.getMessage()), watch.now(), axes, virtual, GuardsNow.of(bench), values, leftOut);
    }

    private List<RanLines> ran() {
        Map<String, TreeSet<Integer>> lines = new LinkedHashMap<>();
        bench.resource().tracer().ran().forEach(place -> lines.computeIfAbsent(place.file(), file -> new TreeSet<>()).add(place.line()));
        return lines.entrySet().stream().map(e -> new RanLines(e.getKey(), List.copyOf(e.getValue()))).toList();
    }

    /** Variables of the program first, then the pins of its blocks, then the tags. */
    private static List<Variable> inOrder(Machine machine, List<Variable> variables) {
        Set<String> tags = new HashSet<>();
        machine.axes().forEach(a -> Stream.concat(a.station().outputs().stream(), a.station().inputs().stream()).forEach(e -> tags.add(e.tag())));
        return variables.stream().filter(v -> v.type() != Type.AXIS_REF)
                .sorted(Comparator.comparingInt(v -> tags.contains(v.name()) ? 2 : v.name().indexOf('.') >= 0 ? 1 : 0)).toList();
    }

    private String words(int axis) {
        if (bench.restarting(axis)) {
            return bench.connected(axis) ? "restarting" : "not on the bus";
        }
        MoveListSource list = bench.drive(axis).moveList();
        if (bench.drive(axis).enabled() && list.entry() >= 0 && (list.running() || list.error() != ListError.NONE)) {
            return "entry " + list.entry() + " " + list.phase().words();
        }
        if (bench.drive(axis).homingLeg() >= 0) {
            return "searching";
        }
        return bench.drive(axis).following().tied() ? "following" : bench.axis(axis).state().words();
    }

    private static String hex(byte[] bytes) {
        return HexFormat.ofDelimiter(" ").withUpperCase().formatHex(bytes);
    }

    /**
     * What the columns of the blocks of samples are, told before the first of them.
     *
     * @param type  always "columns"
     * @param key   with which those blocks begin
     * @param names of the signals, behind the time
     */
    record Columns(String type, int key, List<String> names) {
    }

    synchronized Columns columns() {
        return new Columns("columns", key, columnNames);
    }

    /**
     * What travels to and from an axis that somebody looks at.
     *
     * @param type          always "process-data"
     * @param outputs       PLC to drive, an entry each
     * @param inputs        drive to PLC, an entry each
     * @param control       the control word as it travels, null where none does
     * @param status        the status word as it travels, null where none does
     * @param state         that it shows, null where none travels
     * @param controlword   object 6040h in the drive
     * @param statusword    object 6041h in the drive
     */
    record ProcessData(String type, String axis, List<CyclicWords.Now> outputs, List<CyclicWords.Now> inputs, WordBits.Word control, WordBits.Word status, PowerState state, WordBits.Word controlword, WordBits.Word statusword) {
    }

    /** @return nothing when there is no such axis */
    synchronized Optional<ProcessData> processData(String axisName) {
        for (int i = 0; i < machine.axes().size(); i++) {
            if (machine.axes().get(i).name().equals(axisName)) {
                return Optional.of(processData(i));
            }
        }
        return Optional.empty();
    }

    private ProcessData processData(int i) {
        DriveProfile profile = BusFamily.of(machine.bus()).profile();
        Axis axis = bench.device(i).acting();
        Drive drive = bench.drive(i);
        List<CyclicWords.Now> outputs = CyclicWords.now(profile, drive.outputs(), bench.outputBytes(i), axis.unit());
        List<CyclicWords.Now> inputs = CyclicWords.now(profile, drive.inputs(), bench.inputBytes(i), axis.unit());
        int control = CyclicItem.place(profile, drive.outputs().entries(), CyclicItem.Meaning.CONTROLWORD);
        int status = CyclicItem.place(profile, drive.inputs().entries(), CyclicItem.Meaning.STATUSWORD);
        int mode = (int) drive.dictionary().get(DriveObject.MODE_DISPLAY);
        return new ProcessData("process-data", axis.name(), outputs, inputs,
                control < 0 ? null : WordBits.controlWord(profile, mode, (int) outputs.get(control).raw(), bench.forcedBits(i, true)),
                status < 0 ? null : WordBits.statusWord(profile, mode, (int) inputs.get(status).raw(), bench.forcedBits(i, false)),
                status < 0 ? null : CyclicWords.state(profile, (int) inputs.get(status).raw()),
                WordBits.controlWord(mode, (int) drive.dictionary().get(DriveObject.CONTROLWORD)), WordBits.statusWord(mode, (int) drive.dictionary().get(DriveObject.STATUSWORD)));
    }

    /**
     * Samples since the last call: the key of {@link #columns} as int32, then per sample the time as float64 and for every axis the streamed
     * signals as float32, big-endian. Thinned so that a block has at most 64 samples; null when there are none.
     */
    synchronized ByteBuffer samples() {
        Recording recording = bench.recording();
        long from = Math.max(sent, recording.first());
        long count = recording.count() - from;
        if (count <= 0) {
            return null;
        }
        long stride = Math.max(1, (count + MOST_SAMPLES_PER_BLOCK - 1) / MOST_SAMPLES_PER_BLOCK);
        int rows = (int) ((count + stride - 1) / stride);
        ByteBuffer block = ByteBuffer.allocate(Integer.BYTES + rows * (Double.BYTES + columnNumbers.length * Float.BYTES));
        block.putInt(key);
        for (long k = from; k < recording.count(); k += stride) {
            block.putDouble(recording.time(k));
            for (int column : columnNumbers) {
                block.putFloat((float) recording.value(column, k));
            }
        }
        sent = recording.count();
        return block.flip();
    }
}
