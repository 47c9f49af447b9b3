package rueda.bench;

import java.util.ArrayList;
import java.util.List;
import rueda.bus.ProcessDataLayout;
import rueda.drive.Drive;
import rueda.drive.DriveObject;
import rueda.machine.Axis;
import rueda.machine.Machine;
import rueda.machine.Station;
import rueda.plant.ServoPlant;
import rueda.plc.CompiledProgram;
import rueda.plc.Environment;
import rueda.plc.FunctionBlock;
import rueda.plc.StandardBlocks;
import rueda.plc.StructuredTextCompiler;
import rueda.plc.Task;
import rueda.plc.Type;
import rueda.plc.Variable;
import rueda.plcopen.CommandLog;
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

    /** What the outputs fall to when the task has stopped. */
    private static final int QUICK_STOP = 0x02;
    private static final int SIGNALS_PER_AXIS = 10;

    private final Machine machine;
    private final CompiledProgram program;
    private final Task task;
    private final CommandLog log = new CommandLog();
    private final MotionAxis[] axes;
    private final Drive[] drives;
    private final ServoPlant[] plants;
    private final byte[][] outputs;
    private final byte[][] inputs;
    private final int[] controlwordEntry;
    private final int[] targetEntry;
    private final int[] modeEntry;
    private final int[] statusEntry;
    private final int[] positionEntry;
    private final int[] displayEntry;
    private final Type[][] inputTagTypes;
    private final Type[][] outputTagTypes;
    private final int[][] inputTagSlots;
    private final int[][] outputTagSlots;
    private final Variable[] recorded;
    private final Recording recording;
    private final long cycleNanos;
    private final int subSteps;
    private final int cyclesPerTask;
    private long cycles;
    private boolean stopped;

    /**
     * @param machine  a machine without refused entries
     * @param source   the program to run, which may be another than the machine's own
     * @param capacity bus cycles the recording keeps
     * @throws IllegalArgumentException when the program has faults
     */
    public Bench(Machine machine, String source, int capacity) {
        this.machine = machine;
        int count = machine.axes().size();
        axes = new MotionAxis[count];
        program = StructuredTextCompiler.compile(source, environment(machine, axes));
        task = new Task(program, machine.plc().instructionBudget());
        cycleNanos = machine.bus().cycleMicros() * 1000L;
        subSteps = (int) (cycleNanos / SUB_STEP_NANOS);
        cyclesPerTask = machine.plc().taskIntervalMicros() / machine.bus().cycleMicros();
        drives = new Drive[count];
        plants = new ServoPlant[count];
        outputs = new byte[count][];
        inputs = new byte[count][];
        controlwordEntry = new int[count];
        targetEntry = new int[count];
        modeEntry = new int[count];
        statusEntry = new int[count];
        positionEntry = new int[count];
        displayEntry = new int[count];
        inputTagTypes = new Type[count][];
        outputTagTypes = new Type[count][];
        inputTagSlots = new int[count][];
        outputTagSlots = new int[count][];
        int tag = 0;
        for (int i = 0; i < count; i++) {
            Axis axis = machine.axes().get(i);
            plants[i] = new ServoPlant(axis, SUB_STEP_NANOS * 1e-9);
            drives[i] = new Drive(axis, plants[i], SUB_STEP_NANOS, subSteps);
            axes[i] = MotionAxis.of(i, axis, drives[i].dictionary(), log, cycleNanos);
            outputs[i] = new byte[drives[i].outputs().bytes()];
            inputs[i] = new byte[drives[i].inputs().bytes()];
            controlwordEntry[i] = entry(drives[i].outputs(), DriveObject.CONTROLWORD);
            targetEntry[i] = entry(drives[i].outputs(), DriveObject.TARGET_POSITION);
            modeEntry[i] = entry(drives[i].outputs(), DriveObject.MODE);
            statusEntry[i] = entry(drives[i].inputs(), DriveObject.STATUSWORD);
            positionEntry[i] = entry(drives[i].inputs(), DriveObject.POSITION_ACTUAL);
            displayEntry[i] = entry(drives[i].inputs(), DriveObject.MODE_DISPLAY);
            outputTagSlots[i] = new int[axis.station().outputs().size()];
            inputTagSlots[i] = new int[axis.station().inputs().size()];
            outputTagTypes[i] = tagTypes(axis.station().outputs());
            inputTagTypes[i] = tagTypes(axis.station().inputs());
            tag = tagSlots(axis.station().outputs(), outputTagSlots[i], tag);
            tag = tagSlots(axis.station().inputs(), inputTagSlots[i], tag);
            drives[i].sample(inputs[i]);
        }
        recorded = program.variables().stream().filter(v -> v.type() != Type.AXIS_REF).toArray(Variable[]::new);
        recording = new Recording(signals(), cycleNanos, capacity);
    }

    public Bench(Machine machine, int capacity) {
        this(machine, machine.plc().program(), capacity);
    }

    private static int entry(ProcessDataLayout layout, DriveObject object) {
        return layout.indexOf(object.index(), object.subIndex());
    }

    private int tagSlots(List<Station.Entry> entries, int[] slots, int tag) {
        for (int i = 0; i < slots.length; i++) {
            slots[i] = entries.get(i).isBound() ? program.tagSlot(tag++) : -1;
        }
        return tag;
    }

    private static Type[] tagTypes(List<Station.Entry> entries) {
        return entries.stream().map(e -> e.isBound() ? Type.named(e.tagType()) : null).toArray(Type[]::new);
    }

    /** What programs of this machine may name: its axes, its tags, standard and motion blocks. */
    public static Environment environment(Machine machine) {
        return environment(machine, new MotionAxis[machine.axes().size()]);
    }

    private static Environment environment(Machine machine, MotionAxis[] axes) {
        List<Environment.Tag> tags = new ArrayList<>();
        for (Axis axis : machine.axes()) {
            for (List<Station.Entry> direction : List.of(axis.station().outputs(), axis.station().inputs())) {
                direction.stream().filter(Station.Entry::isBound)
                        .forEach(e -> tags.add(new Environment.Tag(e.tag(), Type.named(e.tagType()))));
            }
        }
        List<FunctionBlock.Kind> blocks = new ArrayList<>(StandardBlocks.ALL);
        blocks.addAll(MotionBlocks.kinds(axes));
        return new Environment(machine.axes().stream().map(Axis::name).toList(), tags, blocks);
    }

    private List<Signal> signals() {
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
        }
        for (Variable variable : recorded) {
            signals.add(new Signal(variable.name(), variable.type() == Type.TIME ? "s" : ""));
        }
        return signals;
    }

    /** One bus cycle. */
    public void cycle() {
        long now = now();
        for (int i = 0; i < axes.length; i++) {
            ProcessDataLayout in = drives[i].inputs();
            axes[i].read(read(in, inputs[i], statusEntry[i]), readSigned(in, inputs[i], positionEntry[i]),
                    (int) readSigned(in, inputs[i], displayEntry[i]));
        }
        if (cycles % cyclesPerTask == 0) {
            for (int i = 0; i < axes.length; i++) {
                readTags(drives[i].inputs(), inputs[i], inputTagSlots[i], inputTagTypes[i]);
            }
            task.cycle(now);
        }
        for (int i = 0; i < axes.length; i++) {
            MotionAxis axis = axes[i];
            axis.update();
            write(i, controlwordEntry[i], task.fault() == null && !stopped ? axis.controlword() : QUICK_STOP);
            write(i, targetEntry[i], axis.targetWire());
            write(i, modeEntry[i], axis.mode());
            readTags(drives[i].outputs(), outputs[i], outputTagSlots[i], outputTagTypes[i]);
            drives[i].sync(outputs[i]);
            for (int k = 0; k < subSteps; k++) {
                drives[i].subStep(k);
            }
            drives[i].sample(inputs[i]);
        }
        record();
        cycles++;
    }

    private void write(int axis, int entry, long value) {
        if (entry >= 0) {
            drives[axis].outputs().write(outputs[axis], entry, value);
        }
    }

    private static int read(ProcessDataLayout layout, byte[] image, int entry) {
        return entry < 0 ? 0 : (int) layout.read(image, entry);
    }

    private static long readSigned(ProcessDataLayout layout, byte[] image, int entry) {
        return entry < 0 ? 0 : layout.readSigned(image, entry);
    }

    private void readTags(ProcessDataLayout layout, byte[] image, int[] slots, Type[] types) {
        long[] memory = task.memory();
        for (int i = 0; i < slots.length; i++) {
            if (slots[i] >= 0) {
                Type type = types[i];
                memory[slots[i]] = type.wrap(type.family() == Type.Family.SIGNED ? layout.readSigned(image, i) : layout.read(image, i));
            }
        }
    }

    private void record() {
        int signal = 0;
        for (int i = 0; i < drives.length; i++, signal += SIGNALS_PER_AXIS) {
            Drive drive = drives[i];
            recording.put(signal, drive.demandPosition());
            recording.put(signal + 1, drive.position());
            recording.put(signal + 2, drive.demandSpeed());
            recording.put(signal + 3, plants[i].speed());
            recording.put(signal + 4, drive.torque());
            recording.put(signal + 5, drive.followingError());
            recording.put(signal + 6, plants[i].negativeLimitReached() ? 1 : 0);
            recording.put(signal + 7, plants[i].positiveLimitReached() ? 1 : 0);
            recording.put(signal + 8, plants[i].onReferenceCam() ? 1 : 0);
            recording.put(signal + 9, drive.dictionary().get(DriveObject.ERROR_CODE));
        }
        long[] memory = task.memory();
        for (Variable variable : recorded) {
            recording.put(signal++, variable.number(memory));
        }
        recording.next();
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
        return drives[axis];
    }

    public MotionAxis axis(int axis) {
        return axes[axis];
    }

    public CommandLog log() {
        return log;
    }

    public Recording recording() {
        return recording;
    }

    /** The bytes that went to a drive in the last cycle. */
    public byte[] outputBytes(int axis) {
        return outputs[axis];
    }

    /** The bytes that came from a drive in the last cycle. */
    public byte[] inputBytes(int axis) {
        return inputs[axis];
    }
}
