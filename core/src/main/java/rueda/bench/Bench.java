package rueda.bench;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import rueda.bus.wire.BusCapture;
import rueda.drive.DeviceMemory;
import rueda.drive.Drive;
import rueda.drive.DriveObject;
import rueda.drive.ParameterGroup;
import rueda.machine.Axis;
import rueda.machine.Machine;
import rueda.machine.Station;
import rueda.plant.ServoPlant;
import rueda.plant.Mistake;
import rueda.plc.CompiledProgram;
import rueda.plc.Environment;
import rueda.plc.FunctionBlock;
import rueda.plc.StandardBlocks;
import rueda.plc.StructuredTextCompiler;
import rueda.plc.Task;
import rueda.plc.Type;
import rueda.plc.Variable;
import rueda.plcopen.CommandLog;
import rueda.plcopen.Direction;
import rueda.plcopen.HandControl;
import rueda.plcopen.MotionAxis;
import rueda.plcopen.MotionBlocks;

/**
 * PLC, bus, drives and plants of one machine, stepped together.
 *
 * <p>The same machine, program and start give the same recording bit for bit. A warm {@link #cycle} allocates
 * nothing. Not thread-safe.
 */
public final class Bench {

    /** Sub-step of drive and plant. */
    public static final long SUB_STEP_NANOS = 125_000;

    /** A device takes so long to restart (our choice). */
    private static final long RESTART_NANOS = 2_000_000_000L;
    private static final int SIGNALS_PER_AXIS = 15;

    private final Machine machine;
    private final Task task;
    private final CommandLog log = new CommandLog();
    private final AxisLine[] lines;
    private final DeviceMemory[] devices;
    private final MotionAxis[] axes;
    private final int[] firstTags;
    private final List<Set<Mistake>> mistakes = new ArrayList<>();
    /** bus cycles until a restarting device answers again */
    private final int[] silent;
    private final int subSteps;
    private final Recording recording;
    private final long cycleNanos;
    private final int cyclesPerTask;
    private int cyclesUntilTask;
    private long cycles;
    private boolean stopped;
    private boolean byHand;
    private BusCapture capture;
    /** who waits for what is computed here; null for the thread that computes */
    private Thread waiting;

    /**
     * @param machine  a machine without refused entries
     * @param source   the program to run, which may be another than the machine's own
     * @param capacity bus cycles the recording keeps
     * @throws IllegalArgumentException when the program has faults
     */
    public Bench(Machine machine, String source, int capacity) {
        this(machine, source, capacity, Map.of());
    }

    /** @param faults what is wrong with the wiring, by name of the axis */
    public Bench(Machine machine, String source, int capacity, Map<String, Set<Mistake>> faults) {
        this.machine = machine;
        int count = machine.axes().size();
        axes = new MotionAxis[count];
        devices = new DeviceMemory[count];
        firstTags = new int[count];
        silent = new int[count];
        CompiledProgram program = StructuredTextCompiler.compile(source, environment(machine, axes));
        task = new Task(program, machine.plc().instructionBudget());
        cycleNanos = machine.bus().cycleMicros() * 1000L;
        subSteps = (int) (cycleNanos / SUB_STEP_NANOS);
        cyclesPerTask = machine.plc().taskIntervalMicros() / machine.bus().cycleMicros();
        lines = new AxisLine[count];
        int tag = 0;
        for (int i = 0; i < count; i++) {
            Axis axis = machine.axes().get(i);
            Set<Mistake> wrong = faults.getOrDefault(axis.name(), Set.of());
            devices[i] = new DeviceMemory(axis);
            firstTags[i] = tag;
            mistakes.add(wrong);
            lines[i] = line(i, new ServoPlant(axis, SUB_STEP_NANOS * 1e-9, wrong));
            lines[i].presetTags(task.memory());
            tag += AxisLine.boundTags(axis.station().outputs()) + AxisLine.boundTags(axis.station().inputs());
        }
        Variable[] recorded = program.variables().stream().filter(v -> v.type() != Type.AXIS_REF && !v.type().isText()).toArray(Variable[]::new);
        recording = new Recording(signals(recorded), recorded, task.memory().length, cyclesPerTask, cycleNanos, capacity);
    }

    public Bench(Machine machine, int capacity) {
        this(machine, machine.plc().program(), capacity);
    }

    /** A device that has just been switched on, and the PLC's side of its axis. */
    private AxisLine line(int number, ServoPlant plant) {
        Axis axis = devices[number].acting();
        Drive drive = new Drive(machine.bus(), axis, plant, mistakes.get(number), SUB_STEP_NANOS, subSteps);
        MotionAxis motion = new MotionAxis(number, axis, drive.dictionary(), log, cycleNanos);
        if (axes[number] != null) {
            motion.restarted(axes[number]);
        }
        axes[number] = motion;
        return new AxisLine(machine.bus(), axis, motion, drive, task.program(), firstTags[number], mistakes.get(number));
    }

    /** What programs of this machine may name: its axes, its tags, standard and motion blocks. */
    public static Environment environment(Machine machine) {
        return environment(machine, new MotionAxis[machine.axes().size()]);
    }

    private static Environment environment(Machine machine, MotionAxis[] axes) {
        List<Environment.Tag> tags = new ArrayList<>();
        for (Axis axis : machine.axes()) {
            axis.station().outputs().stream().filter(Station.Entry::hasTag).forEach(e -> tags.add(new Environment.Tag(e.tag(), Type.named(e.tagType()), AxisLine.programWrites(e))));
            axis.station().inputs().stream().filter(Station.Entry::hasTag).forEach(e -> tags.add(new Environment.Tag(e.tag(), Type.named(e.tagType()), false)));
        }
        Set<String> bound = tags.stream().map(t -> t.name().toUpperCase(Locale.ROOT)).collect(Collectors.toSet());
        machine.plc().tags().stream().filter(t -> !bound.contains(t.name().toUpperCase(Locale.ROOT))).forEach(t -> tags.add(new Environment.Tag(t.name(), Type.named(t.type()), true)));
        List<FunctionBlock.Kind> blocks = new ArrayList<>(StandardBlocks.ALL);
        blocks.addAll(MotionBlocks.kinds(axes));
        return new Environment(machine.axes().stream().map(Axis::name).toList(), tags, blocks,
                Arrays.stream(Direction.values()).map(d -> new Environment.Constant(d.constant(), d.value())).toList());
    }

    private List<Signal> signals(Variable[] recorded) {
        List<Signal> signals = new ArrayList<>();
        for (Axis axis : machine.axes()) {
            String unit = axis.unit().symbol();
            String name = axis.name();
            signals.add(new Signal(name + ".commandedPosition", unit));
            signals.add(new Signal(name + ".position", unit));
            signals.add(new Signal(name + ".commandedSpeed", unit + "/s"));
            signals.add(new Signal(name + ".speed", unit + "/s"));
            signals.add(new Signal(name + ".torque", "N·m"));
            signals.add(new Signal(name + ".followingError", unit));
            signals.add(new Signal(name + ".negativeLimit", ""));
            signals.add(new Signal(name + ".positiveLimit", ""));
            signals.add(new Signal(name + ".referenceCam", ""));
            signals.add(new Signal(name + ".errorCode", ""));
            signals.add(new Signal(name + ".inPosition", ""));
            signals.add(new Signal(name + ".standstill", ""));
            signals.add(new Signal(name + ".allowedFollowingError", unit));
            signals.add(new Signal(name + ".torqueLimited", ""));
            signals.add(new Signal(name + ".brakeOpen", ""));
        }
        for (Variable variable : recorded) {
            signals.add(new Signal(variable.name(), variable.type().isDuration() ? "s" : ""));
        }
        return signals;
    }

    /** Another thread than the one that computes waits for the outcome: when that one is interrupted, computing ends. */
    void computedFor(Thread asker) {
        waiting = asker;
    }

    /**
     * One bus cycle.
     *
     * @throws CalculationCancelled when the thread that waits for this has been interrupted; the bench stands after a whole cycle
     */
    public void cycle() {
        if ((waiting == null ? Thread.currentThread() : waiting).isInterrupted()) {
            throw new CalculationCancelled();
        }
        long[] memory = task.memory();
        for (AxisLine line : lines) {
            line.readInputs();
        }
        boolean taskRuns = cyclesUntilTask == 0;
        if (taskRuns) {
            cyclesUntilTask = cyclesPerTask;
            for (AxisLine line : lines) {
                line.copyInputTags(memory);
            }
            if (!byHand) {
                task.cycle(now());
            }
        }
        if (byHand) {
            for (AxisLine line : lines) {
                line.hand.update(now());
            }
        }
        cyclesUntilTask--;
        boolean halted = stopped || task.fault() != null;
        int signal = 0;
        if (capture != null) {
            capture.cycle(now());
        }
        for (int i = 0; i < lines.length; i++) {
            AxisLine line = lines[i];
            if (taskRuns) {
                line.copyProgramTags(memory);
            }
            line.writeOutputs(halted);
            if (taskRuns) {
                line.copyOutputTags(memory);
            }
            if (silent[i] > 0) {
                line = booting(i);
            } else {
                line.exchange();
            }
            if (capture != null) {
                capture.axis(line.outputs, line.inputs);
            }
            record(line, signal);
            signal += SIGNALS_PER_AXIS;
        }
        if (taskRuns) {
            recording.program(memory);
        }
        recording.next();
        cycles++;
    }

    /** A restarting device gives no torque and does not answer; at the end of that it begins anew. */
    private AxisLine booting(int number) {
        AxisLine line = lines[number];
        line.coast(subSteps);
        if (--silent[number] == 0) {
            line.plant.powerUpEncoders();
            lines[number] = line(number, line.plant);
        }
        return lines[number];
    }

    /**
     * Puts a bit of the control word (PLC to drive) or of the status word (drive to PLC) to a level.
     *
     * @param bit 0 to 15  @param level null to let it go
     */
    public void forceBit(int axis, boolean control, int bit, Boolean level) {
        (control ? lines[axis].forcedControl : lines[axis].forcedStatus).force(bit, level);
    }

    /** Which bits of the control or the status word are forced. */
    public int forcedBits(int axis, boolean control) {
        return (control ? lines[axis].forcedControl : lines[axis].forcedStatus).mask();
    }

    /** Bits, inputs and outputs of an axis show again what they are. */
    public void releaseForces(int axis) {
        lines[axis].forcedControl.release();
        lines[axis].forcedStatus.release();
        lines[axis].drive.releaseForces();
    }

    /** Keeps the process images of every bus cycle from now on. @param into made for this machine, null to end it */
    public void capture(BusCapture into) {
        capture = into;
    }

    /** What a device holds. @param axis number of the axis */
    public DeviceMemory device(int axis) {
        return devices[axis];
    }

    /** Writes parameters into a device; what acts at once acts from the next bus cycle. */
    public void writeDevice(int axis, Axis parameters) {
        devices[axis].write(parameters);
        letAct(axis);
    }

    /** Lets act what waited for the axis to be disabled. Call when it may have been. */
    public void letAct(int axis) {
        if (silent[axis] == 0 && !devices[axis].incomplete() && devices[axis].act(lines[axis].drive.enabled())) {
            lines[axis].take(devices[axis].acting());
        }
    }

    /** Switches a device off and on: its torque goes at once, and it answers again after a while with what it had kept. */
    public void restartDevice(int axis) {
        devices[axis].restart();
        silent[axis] = (int) (RESTART_NANOS / cycleNanos);
    }

    /** The device is restarting and does not answer. */
    public boolean restarting(int axis) {
        return silent[axis] > 0;
    }

    /** The PLC does not bring the station into operation: it stays silent for good. */
    public void disconnect(int axis) {
        silent[axis] = Integer.MAX_VALUE;
    }

    public boolean connected(int axis) {
        return silent[axis] < Integer.MAX_VALUE / 2;
    }

    /** Writes a part of the parameters into a device, as far as the connection holds. See {@link DeviceMemory#write}. */
    public void writeDevice(int axis, Axis parameters, Set<ParameterGroup> groups, int reached) {
        devices[axis].write(parameters, groups, reached);
        lines[axis].drive.parametersIncomplete(devices[axis].incomplete());
        if (!devices[axis].incomplete()) {
            letAct(axis);
        }
    }

    /** Finishes or undoes a writing that was interrupted. */
    public void endWriting(int axis, boolean finish) {
        if (finish) {
            devices[axis].finish();
        } else {
            devices[axis].undo();
        }
        lines[axis].drive.parametersIncomplete(devices[axis].incomplete());
        letAct(axis);
    }

    private void record(AxisLine line, int first) {
        Drive drive = line.drive;
        ServoPlant plant = line.plant;
        double[] present = recording.present();
        present[first] = drive.demandPosition();
        present[first + 1] = drive.position();
        present[first + 2] = drive.demandSpeed();
        present[first + 3] = plant.speed();
        present[first + 4] = drive.torque();
        present[first + 5] = drive.followingError();
        present[first + 6] = plant.negativeLimitReached() ? 1 : 0;
        present[first + 7] = plant.positiveLimitReached() ? 1 : 0;
        present[first + 8] = plant.onReferenceCam() ? 1 : 0;
        present[first + 9] = drive.dictionary().get(DriveObject.ERROR_CODE);
        present[first + 10] = drive.inPosition() ? 1 : 0;
        present[first + 11] = drive.standsStill() ? 1 : 0;
        present[first + 12] = drive.allowedFollowingError();
        present[first + 13] = drive.torqueLimited() ? 1 : 0;
        present[first + 14] = drive.brakeLifted() ? 1 : 0;
    }

    /** Runs for a time. @param seconds at least one cycle */
    public void run(double seconds) {
        long until = cycles + Math.max(1, Math.round(seconds * 1e9 / cycleNanos));
        while (cycles < until) {
            cycle();
        }
    }

    /** Every drive makes a quick stop and stays off until the bench is made anew. */
    public void stopAllAxes() {
        stopped = true;
    }

    /** A person has control: the program is held, and the axes do what {@link #hand} is told. */
    public void takeByHand() {
        byHand = true;
    }

    public boolean byHand() {
        return byHand;
    }

    /** Orders by hand; they act once control has been taken. */
    public HandControl hand(int axis) {
        return lines[axis].hand;
    }

    public boolean stopped() {
        return stopped;
    }

    /** The bench's clock, ns. */
    public long now() {
        return cycles * cycleNanos;
    }

    public Machine machine() {
        return machine;
    }

    public Task task() {
        return task;
    }

    public Drive drive(int axis) {
        return lines[axis].drive;
    }

    public MotionAxis axis(int axis) {
        return lines[axis].motion;
    }

    public CommandLog log() {
        return log;
    }

    public Recording recording() {
        return recording;
    }

    /** The bytes that went to a drive in the last cycle. */
    public byte[] outputBytes(int axis) {
        return lines[axis].outputs;
    }

    /** The bytes that came from a drive in the last cycle. */
    public byte[] inputBytes(int axis) {
        return lines[axis].inputs;
    }
}
