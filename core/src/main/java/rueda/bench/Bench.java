package rueda.bench;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import rueda.bus.wire.BusCapture;
import rueda.drive.DeviceMemory;
import rueda.drive.Drive;
import rueda.guard.AxisWatch;
import rueda.guard.GuardLog;
import rueda.drive.ParameterGroup;
import rueda.machine.Axis;
import rueda.machine.Following;
import rueda.machine.Machine;
import rueda.machine.Station;
import rueda.machine.VirtualMaster;
import rueda.plant.EncoderNoise;
import rueda.plant.ServoPlant;
import rueda.machine.Mistake;
import rueda.plant.Mistakes;
import rueda.plc.BoundTags;
import rueda.plc.CompiledProgram;
import rueda.plc.Environment;
import rueda.plc.TagRow;
import rueda.plc.run.FunctionBlock;
import rueda.plc.StandardBlocks;
import rueda.plc.StructuredTextCompiler.Text;
import rueda.plc.Resource;
import rueda.plc.type.EnumType;
import rueda.plc.type.Type;
import rueda.plc.Variable;
import rueda.plcopen.CommandLog;
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

    private final Machine machine;
    private final Resource resource;
    private final CommandLog log = new CommandLog();
    private final AxisNode[] nodes;
    private final AxisNode[] recordedNodes;
    private final VirtualLine[] virtualMasters;
    private final SafetyContacts contacts;
    /** the PLC's side of every axis, then of every virtual master, as its function blocks have them */
    private final MotionAxis[] axes;
    private final int subSteps;
    private final Recording recording;
    /** null where nobody looks into the program */
    private final ValueChanges changes;
    private final long cycleNanos;
    /** bus cycles from one look at the values of the program to the next */
    private final int cyclesPerLook;
    private long cycles;
    private boolean stopped;
    private boolean byHand;
    private boolean resting;
    private BusCapture capture;
    private BenchCondition condition;
    /** when something on the stand changes next, ns */
    private long nextChange;
    /** who waits for what is computed here; null for the thread that computes */
    private Thread waiting;

    /**
     * @param machine  a machine without refused entries
     * @param source   the program to run, which may be another than the machine's own
     * @param capacity bus cycles the recording keeps
     * @throws IllegalArgumentException when the program has faults
     */
    public Bench(Machine machine, String source, int capacity) {
        this(machine, source, capacity, BenchCondition.SOUND);
    }

    /** @param condition what is wrong on the stand */
    public Bench(Machine machine, String source, int capacity, BenchCondition condition) {
        this(machine, List.of(new Text(machine.plc().files().isEmpty() ? "" : machine.plc().files().get(0).name(), source)), capacity, condition);
    }

    /** @param texts the texts of the program to run */
    public Bench(Machine machine, List<Text> texts, int capacity, BenchCondition condition) {
        this(machine, texts, capacity, condition, false);
    }

    /** @param traced the program can be held in a line, and tells which lines ran and when its values changed */
    public Bench(Machine machine, List<Text> texts, int capacity, BenchCondition condition, boolean traced) {
        this(machine, texts, capacity, condition, traced, Stand.of(machine));
    }

    /** @param stand what really stands there */
    public Bench(Machine machine, int capacity, Stand stand) {
        this(machine, Text.of(machine.plc()), capacity, BenchCondition.SOUND, false, stand);
    }

    /** @param traced the program tells which lines ran  @param stand what really stands there */
    public Bench(Machine machine, List<Text> texts, int capacity, BenchCondition condition, boolean traced, Stand stand) {
        this(machine, ReadyProgram.of(machine, texts, traced), capacity, condition, traced, stand, Recorded.ALL);
    }

    /**
     * With a program that has been compiled before.
     *
     * @param ready    of a machine that has the same axes, tags and programs; no other bench uses it any more. Axes that begin as they did in one of those take what
     *                 became of them there as long as they get the same, which no recording can tell
     * @param recorded what is recorded
     */
    public Bench(Machine machine, ReadyProgram ready, int capacity, Stand stand, Recorded recorded) {
        this(machine, ready, capacity, BenchCondition.SOUND, false, stand, recorded);
        for (AxisNode node : nodes) {
            if (node.inTime()) {
                takeKnownCourse(node, ready.courses(), stand, recorded.axis(machine.axes().get(node.number)));
            }
        }
    }

    /** An axis that begins as one of an earlier bench did does the same as long as it gets the same. */
    private void takeKnownCourse(AxisNode node, Courses courses, Stand stand, boolean recorded) {
        int i = node.number;
        Courses.Beginning beginning = new Courses.Beginning(i, machine.bus(), machine.axes().get(i), stand.axes().get(i), stand.disturbed().get(i), stand.disturbed().get(i).encoderNoise() > 0 ? stand.seed(i, 2) : 0, machine.safetyRequests(), recorded);
        Course course = courses.of(beginning);
        if (course != null) {
            node.line.follow(course, subSteps);
        } else {
            node.line.keep(courses, beginning);
        }
    }

    private Bench(Machine machine, ReadyProgram ready, int capacity, BenchCondition condition, boolean traced, Stand stand, Recorded recorded) {
        this.machine = machine;
        this.condition = condition;
        nextChange = condition.nextChange(0);
        int count = machine.axes().size();
        axes = ready.axes();
        Arrays.fill(axes, null);
        nodes = new AxisNode[count];
        contacts = new SafetyContacts(machine.safetyRequests().size());
        virtualMasters = new VirtualLine[axes.length - count];
        CompiledProgram program = ready.program();
        cycleNanos = machine.bus().cycleMicros() * 1000L;
        resource = new Resource(program, machine.plc().tasks(), machine.plc().instructionBudget(), machine.plc().statementNanos(), cycleNanos);
        resource.jitter(stand.taskJitter(), stand.seed(count, 3));
        subSteps = (int) (cycleNanos / SUB_STEP_NANOS);
        cyclesPerLook = cyclesPerLook(machine);
        int tag = 0;
        for (int i = 0; i < count; i++) {
            Axis axis = machine.axes().get(i);
            Stand.Disturbance disturbance = stand.disturbed().get(i);
            AxisNode node = new AxisNode(i, tag, new DeviceMemory(axis), Mistakes.none(), new StationClock(i, subSteps, disturbance.clock()), disturbance.framesLost() > 0 ? new FrameLoss(disturbance.framesLost(), stand.seed(i, 1)) : null,
                    axis.guard().fitted() ? new GuardDevice(i, axis, machine.safetyRequests(), contacts) : null);
            node.mistakes.make(condition.mask(axis.name(), 0));
            nodes[i] = node;
            EncoderNoise noise = disturbance.encoderNoise() > 0 ? new EncoderNoise(disturbance.encoderNoise(), stand.seed(i, 2)) : null;
            begin(node, new ServoPlant(stand.axes().get(i), SUB_STEP_NANOS * 1e-9, node.mistakes, disturbance.encoderTurned(), noise));
            node.line.presetTags(resource.memory());
            tag += AxisLine.boundTags(axis.station().outputs()) + AxisLine.boundTags(axis.station().inputs());
        }
        for (int i = 0; i < virtualMasters.length; i++) {
            virtualMasters[i] = new VirtualLine(count + i, machine.plc().virtualMasters().get(i), log, cycleNanos);
            axes[count + i] = virtualMasters[i].motion();
        }
        Variable[] variables = recorded(program, recorded);
        recordedNodes = Arrays.stream(nodes).filter(node -> recorded.axis(machine.axes().get(node.number))).toArray(AxisNode[]::new);
        recording = new Recording(signals(machine, variables, recorded), variables, cyclesPerLook, cycleNanos, capacity, ready.takeSpare());
        changes = traced ? new ValueChanges(variables) : null;
    }

    public Bench(Machine machine, int capacity) {
        this(machine, Text.of(machine.plc()), capacity, BenchCondition.SOUND);
    }

    /** A device that has just been switched on, and the PLC's side of its axis. */
    private void begin(AxisNode node, ServoPlant plant) {
        Axis axis = node.device.acting();
        Drive drive = new Drive(machine.bus(), axis, plant, node.mistakes, SUB_STEP_NANOS, subSteps);
        DelayedMailbox mailbox = new DelayedMailbox(drive.dictionary(), cycleNanos);
        MotionAxis motion = new MotionAxis(node.number, axis, mailbox, log, cycleNanos);
        if (axes[node.number] != null) {
            motion.restarted(axes[node.number]);
        }
        axes[node.number] = motion;
        node.line = new AxisLine(machine.bus(), axis, motion, drive, resource.program(), node.firstTag, mailbox, node.mistakes, node.guard, this::now);
        if (stopped) {
            node.line.listenToBus();
        }
        if (resting) {
            node.line.restWhileStill(cycleNanos);
        }
        node.forceInputs();
    }

    /**
     * From now on cycles in which an axis stands, and which change nothing in it, are not worked out. The recording is the same, bit for bit. Drives and plants
     * are to be asked for by this bench each time, and not kept.
     */
    public void restWhileStill() {
        resting = true;
        for (AxisNode node : nodes) {
            node.line.restWhileStill(cycleNanos);
        }
    }

    /** Cycles of an axis, since its device began last, that were not worked out. */
    public long rested(int axis) {
        return nodes[axis].line.rested();
    }

    /** What programs of this machine may name: its axes and virtual masters, its tags, standard and motion blocks. */
    public static Environment environment(Machine machine) {
        return environment(machine, new MotionAxis[machine.axes().size() + machine.plc().virtualMasters().size()]);
    }

    private static Environment.Tag bound(Station.Entry entry, boolean writable, Map<String, TagRow> addresses) {
        TagRow row = addresses.get(entry.tag().toUpperCase(Locale.ROOT));
        return new Environment.Tag(entry.tag(), Type.named(entry.tagType()), writable, row.output(), row.bitOffset());
    }

    static Environment environment(Machine machine, MotionAxis[] axes) {
        List<Environment.Tag> tags = new ArrayList<>();
        Map<String, TagRow> addresses = BoundTags.all(machine).stream().collect(Collectors.toMap(row -> row.name().toUpperCase(Locale.ROOT), row -> row, (first, again) -> first));
        for (Axis axis : machine.axes()) {
            axis.station().outputs().stream().filter(Station.Entry::hasTag).forEach(e -> tags.add(bound(e, AxisLine.programWrites(axis, e), addresses)));
            axis.station().inputs().stream().filter(Station.Entry::hasTag).forEach(e -> tags.add(bound(e, false, addresses)));
        }
        Set<String> bound = tags.stream().map(t -> t.name().toUpperCase(Locale.ROOT)).collect(Collectors.toSet());
        machine.plc().tags().stream().filter(t -> !bound.contains(t.name().toUpperCase(Locale.ROOT))).forEach(t -> tags.add(new Environment.Tag(t.name(), Type.named(t.type()), true)));
        List<FunctionBlock.Kind> blocks = new ArrayList<>(StandardBlocks.ALL);
        blocks.addAll(MotionBlocks.kinds(axes));
        List<String> names = Stream.concat(machine.axes().stream().map(Axis::name), machine.plc().virtualMasters().stream().map(VirtualMaster::name)).toList();
        return new Environment(names, tags, blocks, MotionBlocks.constants(), MotionBlocks.types());
    }

    private static Variable[] recorded(CompiledProgram program, Recorded recorded) {
        return program.variables().stream().filter(v -> v.type() != Type.AXIS_REF && !v.type().isText() && recorded.value(v.name())).toArray(Variable[]::new);
    }

    private static List<Signal> signals(Machine machine, Variable[] variables, Recorded recorded) {
        List<Signal> signals = new ArrayList<>();
        for (Axis axis : machine.axes()) {
            for (AxisSignal signal : recorded.axis(axis) ? AxisSignal.values() : new AxisSignal[0]) {
                signals.add(signal.of(axis));
            }
        }
        for (VirtualMaster master : machine.plc().virtualMasters()) {
            signals.add(AxisSignal.COMMANDED_POSITION.of(master.asAxis()));
            signals.add(AxisSignal.COMMANDED_SPEED.of(master.asAxis()));
        }
        for (Variable variable : variables) {
            Map<String, Long> names = variable.declared() instanceof EnumType type ? type.values().stream().collect(Collectors.toMap(EnumType.Value::name, EnumType.Value::number, (first, again) -> first)) : Map.of();
            signals.add(new Signal(variable.name(), variable.type().isDuration() ? "s" : "", variable.type() == Type.BOOL, names));
        }
        return signals;
    }

    /** Another thread than the one that computes waits for the outcome: when that one is interrupted, computing ends. */
    public void computedFor(Thread asker) {
        waiting = asker;
    }

    /**
     * One bus cycle. Where the program is held in its middle it ends there, and the next call goes on with it.
     *
     * @throws CalculationCancelled when the thread that waits for this has been interrupted; the bench stands after a whole cycle
     */
    public void cycle() {
        if ((waiting == null ? Thread.currentThread() : waiting).isInterrupted()) {
            throw new CalculationCancelled();
        }
        if (!resource.held()) {
            if (now() >= nextChange) {
                change();
            }
            readInputs();
        }
        if (!decide()) {
            return;
        }
        writeOutputs();
        exchange();
        record();
        cycles++;
    }

    /** The greatest number of bus cycles of which every interval is a multiple: values of the program change at no other time. */
    private static int cyclesPerLook(Machine machine) {
        int bus = machine.bus().cycleMicros();
        return machine.plc().tasks().stream().mapToInt(t -> t.onTag().isEmpty() ? t.intervalMicros() / bus : 1).reduce(0, Bench::common);
    }

    /** Euclid. */
    private static int common(int a, int b) {
        return b == 0 ? a : common(b, a % b);
    }

    private boolean looks() {
        return cycles % cyclesPerLook == 0;
    }

    /** From now on this is wrong on the stand, by the clock of the bench. */
    public void condition(BenchCondition changed) {
        condition = changed;
        change();
    }

    private void change() {
        nextChange = condition.nextChange(now());
        for (AxisNode node : nodes) {
            node.line.wake();
            node.mistakes.make(condition.mask(machine.axes().get(node.number).name(), now()) | node.broken);
        }
    }

    /** The PLC takes its input image, and tasks that begin their tags. */
    private void readInputs() {
        boolean taken = byHand ? looks() : resource.takesInputs(now());
        for (AxisNode node : nodes) {
            node.line.readInputs();
            if (taken) {
                node.line.copyInputTags(resource.memory());
            }
        }
        if (!byHand) {
            resource.look(now());
        }
        for (VirtualLine master : virtualMasters) {
            master.readInputs();
        }
    }

    /** Programs run when they are due, or a hand gives its orders. @return false when a program is held in its middle */
    private boolean decide() {
        if (!byHand) {
            return resource.cycle();
        }
        for (AxisNode node : nodes) {
            node.line.hand.update(now());
        }
        return true;
    }

    /** Every axis makes its setpoint and packs its output image. */
    private void writeOutputs() {
        boolean halted = stopped || resource.fault() != null;
        boolean worked = byHand ? looks() : resource.worked();
        for (AxisNode node : nodes) {
            if (worked) {
                node.line.copyProgramTags(resource);
            }
            node.line.writeOutputs(now(), halted);
            if (worked) {
                node.line.copyOutputTags(resource.memory());
            }
        }
        for (VirtualLine master : virtualMasters) {
            master.cycle(now(), halted);
        }
    }

    /** Every device takes its part of the cycle. */
    private void exchange() {
        for (AxisNode node : nodes) {
            if (node.line.exchangeAsKnown()) {
                continue;
            }
            if (node.life.answers()) {
                int steps = node.clock.subSteps(node.mistakes.has(Mistake.OWN_CLOCK), node.line.drive.cyclePlace());
                if (node.frames == null && !node.clock.own() && steps == subSteps) {
                    node.line.exchangeInTime(steps);
                } else if (node.frames == null) {
                    node.line.wake();
                    node.line.exchange(steps);
                } else if (node.frames.loses()) {
                    node.line.exchangeNothing(steps);
                } else {
                    node.line.exchange(steps);
                    node.line.keepArrived();
                }
                continue;
            }
            // Without torque, and without an answer; at the end of a restart it begins anew.
            node.line.coast(subSteps);
            if (node.life.cycle()) {
                ServoPlant plant = node.line.plant;
                plant.powerUpEncoders();
                begin(node, plant);
            }
        }
    }

    private void record() {
        if (capture != null) {
            capture.cycle(now());
        }
        for (AxisNode node : nodes) {
            if (capture != null) {
                capture.axis(node.line.outputs, node.line.inputs);
            }
        }
        int place = 0;
        for (AxisNode node : recordedNodes) {
            node.line.phase = phase(node);
            node.line.read(recording.present(), place);
            place += AxisSignal.COUNT;
        }
        for (VirtualLine master : virtualMasters) {
            recording.present()[place++] = master.position();
            recording.present()[place++] = master.speed();
        }
        if (looks()) {
            recording.program(resource.memory());
            if (changes != null) {
                changes.look(resource.memory(), (recording.count() + 1) * cycleNanos);
            }
        }
        recording.next();
    }

    /** Of loads, as the encoders say: what the lock leaves, less the follower's own following error and with the master's. */
    private double phase(AxisNode node) {
        AxisLine line = node.line;
        int master = line.motion.lockedTo();
        if (master >= 0) {
            double clocks = line.motion.followRatio() * (master < nodes.length ? nodes[master].line.toTarget() : 0) - line.toTarget();
            return clocks + line.motion.lockDeviation() - line.followingError() + line.motion.followRatio() * followingErrorOf(master);
        }
        return line.deviation();
    }

    /** What an axis is behind its setpoint, units; a virtual master never is. @param number of the axis, or beyond them of the virtual master */
    public double followingErrorOf(int number) {
        return number < nodes.length ? nodes[number].line.followingError() : 0;
    }

    /** A virtual master by its name in any case, or null. */
    public VirtualLine virtualMaster(String name) {
        for (VirtualLine master : virtualMasters) {
            if (master.master().name().equalsIgnoreCase(name)) {
                return master;
            }
        }
        return null;
    }

    /** The virtual masters, as the document has them. */
    public List<VirtualLine> virtualMasters() {
        return List.of(virtualMasters);
    }

    /**
     * Puts a bit of the control word (PLC to drive) or of the status word (drive to PLC) to a level.
     *
     * @param bit 0 to 15  @param level null to let it go
     */
    public void forceBit(int axis, boolean control, int bit, Boolean level) {
        nodes[axis].line.wake();
        (control ? nodes[axis].line.forcedControl : nodes[axis].line.forcedStatus).force(bit, level);
    }

    /** Which bits of the control or the status word are forced. */
    public int forcedBits(int axis, boolean control) {
        return (control ? nodes[axis].line.forcedControl : nodes[axis].line.forcedStatus).mask();
    }

    /** Bits, inputs and outputs of an axis show again what they are. */
    public void releaseForces(int axis) {
        nodes[axis].line.wake();
        nodes[axis].line.forcedControl.release();
        nodes[axis].line.forcedStatus.release();
        nodes[axis].line.drive.releaseForces();
    }

    /** Keeps the process images of every bus cycle from now on. @param into made for this machine, null to end it */
    public void capture(BusCapture into) {
        capture = into;
    }

    /** What a device holds. @param axis number of the axis */
    public DeviceMemory device(int axis) {
        return nodes[axis].device;
    }

    /** Writes parameters into a device; what acts at once acts from the next bus cycle. */
    public void writeDevice(int axis, Axis parameters) {
        nodes[axis].device.write(parameters);
        letAct(axis);
    }

    /** Lets act what waited for the axis to be disabled. Call when it may have been. */
    public void letAct(int axis) {
        nodes[axis].line.workOut();
        if (nodes[axis].life.answers() && !nodes[axis].device.incomplete() && nodes[axis].device.act(nodes[axis].line.drive.enabled())) {
            nodes[axis].line.wake();
            nodes[axis].line.take(nodes[axis].device.acting());
        }
    }

    /** Switches a device off and on: its torque goes at once, and it answers again after a while with what it had kept. */
    public void restartDevice(int axis) {
        nodes[axis].line.wake();
        nodes[axis].device.restart();
        nodes[axis].life.restart((int) (RESTART_NANOS / cycleNanos));
    }

    /** The device loses its power: no torque, the brake closed, no answer, until it is restarted. */
    public void switchOff(int axis) {
        nodes[axis].line.wake();
        nodes[axis].life.switchOff();
    }

    /** An input of a device shows a level from now on, also once the device begins anew. @param terminal its name  @param level null to let it go */
    public void forceInput(int axis, String terminal, Boolean level) {
        nodes[axis].line.wake();
        nodes[axis].forceInput(terminal, level);
    }

    /** Something pushes the load from now on. @param force N along the line, or N·m at the last shaft; 0 ends it */
    public void push(int axis, double force) {
        nodes[axis].line.wake();
        nodes[axis].line.plant.push(force);
    }

    /** The load becomes another one. @param mass kg along the line, or kg·m² at the last shaft where there is no line */
    public void load(int axis, double mass) {
        nodes[axis].line.wake();
        nodes[axis].line.plant.load(mass);
    }

    /** The load as it is now, in the same. */
    public double load(int axis) {
        return nodes[axis].line.plant.load();
    }

    /** A hand turns the shaft, as far as nothing holds it. @param way user units */
    public void turnByHand(int axis, double way) {
        nodes[axis].line.wake();
        nodes[axis].line.plant.turnByHand(way / machine.axes().get(axis).motorSide().unitsPerRadian());
    }

    /** Something breaks at the machine, or is whole again. */
    public void breakSomething(int axis, Mistake mistake, boolean broken) {
        int bit = 1 << mistake.ordinal();
        nodes[axis].broken = broken ? nodes[axis].broken | bit : nodes[axis].broken & ~bit;
        change();
    }

    /** Contacts of a request open or close: open ones ask the guards. @param request its number  @param firstClosed channel 1  @param secondClosed channel 2 */
    public void ask(int request, boolean firstClosed, boolean secondClosed) {
        wakeGuarded();
        contacts.put(request, firstClosed, secondClosed);
    }

    /** A channel of a request is closed: it does not ask. @param first of the two */
    public boolean closed(int request, boolean first) {
        return first ? contacts.first(request) : contacts.second(request);
    }

    /** The button that acknowledges, of all guards. */
    public void acknowledge(boolean pressed) {
        wakeGuarded();
        contacts.acknowledge(pressed);
    }

    private void wakeGuarded() {
        for (AxisNode node : nodes) {
            if (node.guard != null) {
                node.line.wake();
            }
        }
    }

    /** What the guard of an axis did, oldest first: its last {@value GuardLog#KEPT} changes; nothing without a guard. */
    public List<GuardLog.Entry> guardLog(int axis) {
        nodes[axis].line.workOut();
        return nodes[axis].guard == null ? List.of() : nodes[axis].guard.log().entries();
    }

    /** What the guards of all axes did, oldest first: the last {@value GuardLog#KEPT} changes. */
    public List<GuardLog.Entry> guardLog() {
        List<GuardLog.Entry> all = IntStream.range(0, nodes.length).boxed().flatMap(i -> guardLog(i).stream()).sorted(Comparator.comparingLong(GuardLog.Entry::time)).toList();
        return all.subList(Math.max(0, all.size() - GuardLog.KEPT), all.size());
    }

    /** How often guards have changed. */
    public long guardChanges() {
        long changes = 0;
        for (AxisNode node : nodes) {
            if (node.guard != null) {
                node.line.workOut();
                changes += node.guard.log().added();
            }
        }
        return changes;
    }

    /** The watch over an axis, or null. */
    public AxisWatch watch(int axis) {
        nodes[axis].line.workOut();
        return nodes[axis].guard == null ? null : nodes[axis].guard.watch();
    }

    /** When a request last came to the guard of an axis, step by step. @param axis one that has a guard */
    public Heard heard(int axis, int request) {
        nodes[axis].line.workOut();
        return nodes[axis].guard.heard(request);
    }

    /** The holding brake of an axis has closed. */
    public boolean brakeHolds(int axis) {
        nodes[axis].line.workOut();
        return nodes[axis].line.plant.mechanics().braked();
    }

    /** The device does not answer: it restarts, or is not reached. */
    public boolean restarting(int axis) {
        return !nodes[axis].life.answers();
    }

    /** The PLC does not bring the station into operation: it stays silent for good. */
    public void disconnect(int axis) {
        nodes[axis].line.wake();
        nodes[axis].life.disconnect();
    }

    public boolean connected(int axis) {
        return nodes[axis].life.state() != DeviceLife.State.NOT_REACHED;
    }

    /** Writes a part of the parameters into a device, as far as the connection holds. See {@link DeviceMemory#write}. */
    public void writeDevice(int axis, Axis parameters, Set<ParameterGroup> groups, int reached) {
        nodes[axis].device.write(parameters, groups, reached);
        nodes[axis].line.wake();
        nodes[axis].line.drive.parametersIncomplete(nodes[axis].device.incomplete());
        if (!nodes[axis].device.incomplete()) {
            letAct(axis);
        }
    }

    /** Finishes or undoes a writing that was interrupted. */
    public void endWriting(int axis, boolean finish) {
        if (finish) {
            nodes[axis].device.finish();
        } else {
            nodes[axis].device.undo();
        }
        nodes[axis].line.wake();
        nodes[axis].line.drive.parametersIncomplete(nodes[axis].device.incomplete());
        letAct(axis);
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
        for (AxisNode node : nodes) {
            node.line.wake();
            node.line.listenToBus();
        }
    }

    /** A person has control: the program is held, and the axes do what {@link #hand} is told. */
    public void takeByHand() {
        byHand = true;
        for (AxisNode node : nodes) {
            node.line.wake();
            node.line.takeByHand();
        }
    }

    public boolean byHand() {
        return byHand;
    }

    /** Orders by hand; they act once control has been taken. */
    public HandControl hand(int axis) {
        return nodes[axis].line.hand;
    }

    /** An axis follows its master as the document says, by hand. @return why not, or null */
    public String followByHand(int axis) {
        Axis follower = machine.axes().get(axis);
        if (!follower.following().follows()) {
            return "The axis follows nothing. Choose its master in the stage Follow.";
        }
        if (follower.following().source() == Following.Source.ENCODER) {
            return hand(axis).followEncoder();
        }
        for (int i = 0; i < nodes.length; i++) {
            if (machine.axes().get(i).name().equalsIgnoreCase(follower.following().master())) {
                return hand(axis).follow(axes[i], machine.axes().get(i), now());
            }
        }
        VirtualLine master = virtualMaster(follower.following().master());
        if (master != null) {
            return hand(axis).follow(master.motion(), master.master().asAxis(), now());
        }
        return "There is no axis " + follower.following().master() + ".";
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

    /** What runs the program. */
    public Resource resource() {
        return resource;
    }

    public Drive drive(int axis) {
        nodes[axis].line.wake();
        return nodes[axis].line.drive;
    }

    public MotionAxis axis(int axis) {
        return nodes[axis].line.motion;
    }

    public CommandLog log() {
        return log;
    }

    /** When values of the program changed; null where it is not traced. */
    public ValueChanges changes() {
        return changes;
    }

    public Recording recording() {
        return recording;
    }

    /** The bytes that went to a drive in the last cycle. */
    public byte[] outputBytes(int axis) {
        return nodes[axis].line.outputs;
    }

    /** The bytes that came from a drive in the last cycle. */
    public byte[] inputBytes(int axis) {
        return nodes[axis].line.inputs;
    }
}
