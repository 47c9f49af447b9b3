package rueda.bench;

import java.util.List;
import java.util.function.LongSupplier;
import java.util.function.Predicate;
import java.util.stream.IntStream;
import rueda.bus.BusFamily;
import rueda.bus.BusFamily.DriveProfile;
import rueda.bus.ProcessDataLayout;
import rueda.drive.ControlWord;
import rueda.drive.CyclicItem;
import rueda.drive.Drive;
import rueda.drive.DriveObject;
import rueda.machine.Axis;
import rueda.machine.Bus;
import rueda.machine.Station;
import rueda.machine.Mistake;
import rueda.plant.Mistakes;
import rueda.plant.ServoPlant;
import rueda.plc.CompiledProgram;
import rueda.plc.Resource;
import rueda.plc.type.Type;
import rueda.plcopen.HandControl;
import rueda.plcopen.MotionAxis;

/**
 * One axis from the PLC to the load: the PLC's side of it, the bytes of one cycle each way, the drive and its plant.
 * Warm use allocates nothing. Not thread-safe.
 */
final class AxisLine {

    final MotionAxis motion;
    final HandControl hand;
    /** the program writes the process data, not its motion blocks */
    private final boolean programmed;
    private boolean byHand;
    /** deviation of a follower from its place, user units, as it is recorded */
    double phase;
    final Drive drive;
    final ServoPlant plant;
    /** Bytes from the PLC to the drive. */
    final byte[] outputs;
    /** Bytes from the drive to the PLC. */
    final byte[] inputs;
    /** what the drive got last, and where its answer goes when no frame comes */
    private final byte[] arrived;
    private final byte[] lost;
    /** null where the axis has none */
    final GuardDevice guard;
    private final LongSupplier clock;
    /** null where every cycle is worked out */
    private Rest rest;
    private boolean rested;
    /** sub-steps from when its current goes until the brake holds, and those since the device went off */
    private final long brakeCloses;
    private long off;
    private final ProcessDataLayout outputLayout;
    private final ProcessDataLayout inputLayout;
    private final AxisWords words;
    private final DelayedMailbox mailbox;
    private final Mistakes mistakes;
    final ForcedBits forcedControl = new ForcedBits();
    final ForcedBits forcedStatus = new ForcedBits();
    private final TagCopy outputTags;
    private final TagCopy programTags;
    private final TagCopy inputTags;

    /** @param firstTag number of the first tag of this axis among the tags of the environment  @param guard null where it has none  @param clock ns at the begin of the bus cycle */
    AxisLine(Bus bus, Axis axis, MotionAxis motion, Drive drive, CompiledProgram program, int firstTag, DelayedMailbox mailbox, Mistakes mistakes, GuardDevice guard, LongSupplier clock) {
        this.guard = guard;
        this.clock = clock;
        this.motion = motion;
        this.mailbox = mailbox;
        this.mistakes = mistakes;
        this.hand = new HandControl(motion, axis, drive.listByHand(), drive.followByHand());
        programmed = axis.commandedBy() == Axis.Commander.PROGRAM;
        this.drive = drive;
        this.plant = drive.plant();
        outputLayout = drive.outputs();
        inputLayout = drive.inputs();
        outputs = new byte[outputLayout.bytes()];
        inputs = new byte[inputLayout.bytes()];
        arrived = new byte[outputs.length];
        lost = new byte[inputs.length];
        brakeCloses = axis.brake().closeMillis() * 1_000_000L / Bench.SUB_STEP_NANOS;
        words = BusFamily.of(bus).profile() == DriveProfile.PROFIDRIVE
                ? new TelegramWords(bus, axis, motion, outputLayout, inputLayout)
                : new ObjectWords(motion, outputLayout, inputLayout, mistakes);
        DriveProfile profile = BusFamily.of(bus).profile();
        int probes = outputLayout.indexOf(DriveObject.PROBE_FUNCTION.index(), DriveObject.PROBE_FUNCTION.subIndex());
        motion.probeFunctionTravels(profile != DriveProfile.PROFIDRIVE && probes >= 0, programmed || probes >= 0 && outputLayout.entries().get(probes).hasTag());
        outputTags = new TagCopy(profile, outputLayout, program, firstTag, e -> !programWrites(axis, e));
        programTags = new TagCopy(profile, outputLayout, program, firstTag, e -> programWrites(axis, e));
        inputTags = new TagCopy(profile, inputLayout, program, firstTag + boundTags(axis.station().outputs()), e -> true);
        tellDrive();
        drive.sample(inputs);
        for (int i = 0; i < outputLayout.entries().size(); i++) {
            DriveObject object = DriveObject.find(outputLayout.entries().get(i).object(), outputLayout.entries().get(i).subIndex());
            if (object != null && object.writable()) {
                outputLayout.write(outputs, i, drive.dictionary().get(object));
            }
        }
    }

    /** The program gives the value: every output where it commands the axis by its own words, else what motion control does not make. */
    static boolean programWrites(Axis axis, Station.Entry entry) {
        if (axis.commandedBy() == Axis.Commander.PROGRAM) {
            return true;
        }
        DriveObject object = DriveObject.find(entry.object(), entry.subIndex());
        return object != null && object.writable() && object != DriveObject.CONTROLWORD && object != DriveObject.TARGET_POSITION
                && object != DriveObject.MODE && object != DriveObject.TARGET_TORQUE;
    }

    /** Tags that the program writes begin with what the drive holds. */
    void presetTags(long[] memory) {
        programTags.copy(outputs, memory);
    }

    static int boundTags(List<Station.Entry> entries) {
        return (int) entries.stream().filter(Station.Entry::hasTag).count();
    }

    /** The PLC takes its input image. */
    void readInputs() {
        words.read(inputs);
    }

    /** Makes and packs the output image. @param now ns on the bench's clock  @param halted the controlword is replaced by a quick stop */
    void writeOutputs(long now, boolean halted) {
        motion.update(now);
        if (!programmed || byHand) {
            words.write(outputs, halted);
        } else if (halted) {
            words.stop(outputs);
        }
        if (!halted && words.controlEntry() >= 0 && mistakes.has(Mistake.SWITCH_ON_BIT_HELD)) {
            outputLayout.write(outputs, words.controlEntry(), outputLayout.read(outputs, words.controlEntry()) | ControlWord.SWITCH_ON);
        }
        forcedControl.apply(outputLayout, outputs, words.controlEntry());
    }

    /** Takes values that act at once, on the PLC's side and the drive's. */
    void take(Axis parameters) {
        drive.take(parameters);
        motion.take(parameters);
        hand.take(parameters);
        words.take(parameters);
    }

    /** One bus cycle in which the frame does not arrive: the drive goes on with what it has, and the PLC sees what it saw before. */
    void exchangeNothing(int subSteps) {
        rested = false;
        mailbox.cycle();
        advance(arrived, lost, subSteps);
    }

    private void advance(byte[] to, byte[] from, int subSteps) {
        if (guard == null) {
            drive.advance(to, from, subSteps);
            return;
        }
        /* in stretches from one cycle of the guard to the next: what it decides acts from there on */
        for (int done = 0; done < subSteps; ) {
            int many = Math.min(subSteps - done, guard.untilCycle());
            drive.advance(to, from, many);
            done += many;
            watch(many, done);
        }
    }

    /** @param many sub-steps that have passed  @param done of them in this bus cycle */
    private void watch(int many, int done) {
        if (guard.passed(many) && guard.cycle(plant, clock.getAsLong() + done * Bench.SUB_STEP_NANOS)) {
            tellDrive();
        }
    }

    private void tellDrive() {
        if (guard != null) {
            drive.guarded(guard.torque(), guard.stops(), guard.brakeMayOpen());
            drive.guardWords(guard.watch().phase().ordinal(), guard.watch().leading() == null ? 0 : guard.watch().leading().ordinal() + 1, guard.watch().breach().ordinal());
        }
    }

    /** Keeps what arrives, for a cycle in which nothing does. */
    void keepArrived() {
        System.arraycopy(outputs, 0, arrived, 0, outputs.length);
    }

    /** From now on cycles that change nothing are not worked out. */
    void restWhileStill(long cycleNanos) {
        rest = new Rest(outputs, inputs, mailbox, guard, (int) (cycleNanos / Bench.SUB_STEP_NANOS), drive, mailbox, forcedStatus);
    }

    /** Somebody touches drive or plant. */
    void wake() {
        rested = false;
        if (rest != null) {
            rest.wake();
        }
    }

    /** The last cycle was not worked out: nothing in drive and plant has changed. */
    boolean restedNow() {
        return rested;
    }

    /** Cycles that were not worked out. */
    long rested() {
        return rest == null ? 0 : rest.rested();
    }

    /** One bus cycle of a drive whose clock is that of the bus. @param subSteps in it */
    void exchangeInTime(int subSteps) {
        rested = rest != null && rest.goesOn();
        if (rested) {
            if (guard != null) {
                guard.passed(subSteps);
            }
            return;
        }
        exchange(subSteps);
        if (rest != null) {
            rest.worked();
        }
    }

    /** One bus cycle of the drive. @param subSteps as many as it takes by its clock */
    void exchange(int subSteps) {
        mailbox.cycle();
        advance(outputs, inputs, subSteps);
        forcedStatus.apply(inputLayout, inputs, words.statusEntry());
    }

    /** The device is off: no torque, no answer on the bus, and the brake closes in the time that it takes. */
    void coast(int subSteps) {
        rested = false;
        java.util.Arrays.fill(inputs, (byte) 0);
        for (int i = 0; i < subSteps; i++) {
            if (off++ >= brakeCloses) {
                plant.mechanics().brake(true);
            }
            plant.step(0);
            if (guard != null) {
                watch(1, i + 1);
            }
        }
    }

    void copyInputTags(long[] memory) {
        inputTags.copy(inputs, memory);
    }

    /** A drive that is commanded by nobody on the bus hears what the bus orders: all axes are to stop. */
    void listenToBus() {
        drive.listenToBus();
    }

    /** A person commands the axis from now on, whoever did before. */
    void takeByHand() {
        byHand = true;
        motion.takeByHand();
        drive.listenToBus();
    }

    /** What the program has written travels with this cycle. */
    void copyProgramTags(Resource resource) {
        if (!programmed || !byHand) {
            programTags.write(resource, outputs);
        }
    }

    void copyOutputTags(long[] memory) {
        outputTags.copy(outputs, memory);
    }

    /** The bound entries of one direction and where their values go. */
    private static final class TagCopy {
        private final ProcessDataLayout layout;
        private final int[] entries;
        private final int[] slots;
        private final Type[] types;
        private final boolean[] signed;
        /** wire value per tag value; 0 when the bits go as they are */
        private final double[] factors;

        /** @param firstTag number of the first bound entry among the tags  @param which entries to copy */
        TagCopy(DriveProfile profile, ProcessDataLayout layout, CompiledProgram program, int firstTag, Predicate<Station.Entry> which) {
            this.layout = layout;
            List<Station.Entry> all = layout.entries();
            entries = IntStream.range(0, all.size()).filter(i -> all.get(i).hasTag() && which.test(all.get(i))).toArray();
            slots = IntStream.of(entries).map(i -> program.tagSlot(firstTag + boundTags(all.subList(0, i)))).toArray();
            types = java.util.Arrays.stream(entries).mapToObj(i -> Type.named(all.get(i).tagType())).toArray(Type[]::new);
            signed = new boolean[entries.length];
            factors = new double[entries.length];
            for (int i = 0; i < entries.length; i++) {
                Station.Entry entry = all.get(entries[i]);
                CyclicItem item = CyclicItem.find(profile, entry.object(), entry.subIndex());
                boolean converted = types[i].isReal() || entry.scales();
                factors[i] = converted ? entry.factor().doubleValue() : 0;
                signed[i] = converted && item != null ? item.signed() : types[i].family() == Type.Family.SIGNED;
            }
        }

        void write(Resource resource, byte[] image) {
            boolean behind = resource.behind();
            for (int i = 0; i < entries.length; i++) {
                if (behind && resource.holds(slots[i])) {
                    continue;
                }
                long value = resource.memory()[slots[i]];
                layout.write(image, entries[i], factors[i] == 0 ? value : Math.round((types[i].isReal() ? Double.longBitsToDouble(value) : value) * factors[i]));
            }
        }

        void copy(byte[] image, long[] memory) {
            for (int i = 0; i < entries.length; i++) {
                Type type = types[i];
                long raw = signed[i] ? layout.readSigned(image, entries[i]) : layout.read(image, entries[i]);
                if (factors[i] == 0) {
                    memory[slots[i]] = type.wrap(raw);
                } else {
                    double value = raw / factors[i];
                    memory[slots[i]] = type.isReal() ? Double.doubleToRawLongBits(type == Type.REAL ? (float) value : value) : type.wrap(Math.round(value));
                }
            }
        }
    }
}
