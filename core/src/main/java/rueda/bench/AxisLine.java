package rueda.bench;

import java.util.Arrays;
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

    /** places of what is seen of an axis whose course is known */
    private static final int ERROR_SEEN = 0;
    private static final int DEVIATION_SEEN = 1;
    private static final int SIGNALS_SEEN = 2;

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
    /** the course that it takes as it did in an earlier bench, as long as it gets the same; null where it is worked out */
    private Course known;
    /** takes what is worked out, for later benches; null where nobody wants it */
    private Course kept;
    private double[] seen;
    /** bus cycles of the known course, and answers of the mailbox in it, that have passed; and cycles that it has been taken for: it stands still for longer, or shorter */
    private int passed;
    private int answered;
    private int gone;
    /** row of the known course that is shown, −1 for none yet */
    private int shown = -1;
    /** it stands there, and goes on standing as long as it gets these bytes */
    private boolean stands;
    private final byte[] expected;
    private int stepsOfCycle;
    /** the drive's answer has not changed since it was read, and the output image is what motion control says and nothing else */
    private boolean sameAnswer;
    private boolean sound;
    /** the answer has changed since its tags were copied */
    private boolean fresh = true;
    /** ns on the clock of the bench at the begin of the bus cycle that is worked out */
    private long began;
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
        expected = new byte[outputs.length];
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
        programTags.copy(outputs, true, memory);
    }

    static int boundTags(List<Station.Entry> entries) {
        return (int) entries.stream().filter(Station.Entry::hasTag).count();
    }

    /** The PLC takes its input image. */
    void readInputs() {
        fresh |= !sameAnswer;
        if (sameAnswer && words.onlyOfThisCycle()) {
            motion.readAgain();
        } else {
            words.read(inputs);
        }
    }

    /** Makes and packs the output image. @param now ns on the bench's clock  @param halted the controlword is replaced by a quick stop */
    void writeOutputs(long now, boolean halted) {
        motion.update(now);
        if (!programmed || byHand) {
            boolean soundBefore = sound;
            sound = !halted && forcedControl.mask() == 0 && mistakes.mask() == 0 && words.onlyOfThisCycle();
            if (!sound || !soundBefore || !motion.stands()) {
                words.write(outputs, halted);
            }
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
        workOut();
        rested = false;
        sameAnswer = false;
        mailbox.cycle();
        began = clock.getAsLong();
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
        if (guard.passed(many) && guard.cycle(plant, began + done * Bench.SUB_STEP_NANOS)) {
            tellDrive();
        }
    }

    private void tellDrive() {
        if (guard != null) {
            drive.guarded(guard.torque(), guard.stops(), guard.brakeMayOpen());
            drive.guardWords(guard.watch().phase().ordinal(), guard.watch().leading() == null ? 0 : guard.watch().leading().ordinal() + 1, guard.watch().breach().ordinal(),
                    guard.requests(), guard.watch().inForce());
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

    /** Takes this course as long as it gets the same as there. Call before the first cycle. @param subSteps in a bus cycle */
    void follow(Course course, int subSteps) {
        known = course;
        stepsOfCycle = subSteps;
    }

    /** Keeps its course from the first cycle on until somebody touches it. @param begins as what  @param in where */
    void keep(Courses in, Courses.Beginning begins) {
        seen = new double[SIGNALS_SEEN + (begins.recorded() ? AxisSignal.COUNT : 0)];
        kept = in.begun(begins, outputs.length, inputs.length, seen.length);
    }

    /** From here on it does not do, or may not do, what it did in the earlier bench: drive and plant are brought to where they are now. */
    void workOut() {
        if (known == null) {
            return;
        }
        Course course = known;
        known = null;
        byte[] now = outputs.clone();
        /* where it stood for another time than in the course a guard's clock may be somewhere else in its cycle */
        int more = Math.floorMod(gone - passed, Rest.period(guard, stepsOfCycle));
        int answers = 0;
        for (int k = 0; k < passed + more; k++) {
            int answer = course.answerIn(k, answers);
            if (answer >= 0 && k < passed) {
                answers++;
                DelayedMailbox.write(drive.dictionary(), course.request(answer), course.content(answer));
                wakeRest();
            }
            course.outputs(Math.min(k, passed - 1), outputs);
            began = (k + gone - passed - more) * (stepsOfCycle * Bench.SUB_STEP_NANOS);
            if (rest == null || !restsOn(stepsOfCycle)) {
                advance(outputs, inputs, stepsOfCycle);
                if (rest != null) {
                    rest.worked();
                }
            }
        }
        System.arraycopy(now, 0, outputs, 0, now.length);
    }

    /** One bus cycle as in the earlier bench. @return false when nothing is known of this one: it is to be worked out */
    boolean exchangeAsKnown() {
        return known != null && goesOnAsKnown();
    }

    private boolean goesOnAsKnown() {
        if (stands && mailbox.idle() && Arrays.equals(outputs, expected)) {
            passed += known.stands(passed) ? 1 : 0;
            gone++;
            sameAnswer = true;
            return true;
        }
        sameAnswer = false;
        if (stands) {
            int end = known.standsUntil(passed);
            if ((gone - end) % Rest.period(guard, stepsOfCycle) != 0) {
                return false;
            }
            passed = end;
        }
        if (passed == known.cycles() || !known.got(passed, outputs)) {
            return false;
        }
        int answer = known.answerIn(passed, answered);
        int request = mailbox.due();
        if (answer < 0 ? request >= 0 : request != known.request(answer) || DelayedMailbox.writes(request) && mailbox.content(request) != known.content(answer)) {
            return false;
        }
        mailbox.cycleKnown(answer < 0 ? 0 : known.content(answer));
        answered += answer < 0 ? 0 : 1;
        sameAnswer = known.gave(passed, inputs);
        if (!sameAnswer) {
            known.inputs(passed, inputs);
        }
        passed++;
        gone++;
        stands = known.stood(passed);
        if (stands) {
            System.arraycopy(outputs, 0, expected, 0, outputs.length);
        }
        return true;
    }

    /** Somebody touches drive or plant. */
    void wake() {
        workOut();
        kept = null;
        wakeRest();
    }

    private void wakeRest() {
        rested = false;
        if (rest != null) {
            rest.wake();
        }
    }

    /** Drive and plant stand where they began: what they would have come to is in the course. */
    private boolean takesKnown() {
        return known != null && passed > 0;
    }

    /** Reads all signals of the axis. @param into has them as they were after the cycle before, from the place on */
    void read(double[] into, int place) {
        if (takesKnown()) {
            if (known.row(passed - 1) != shown) {
                shown = known.row(passed - 1);
                known.seen(passed - 1, SIGNALS_SEEN, into, place, AxisSignal.COUNT);
            }
        } else if (!rested) {
            AxisSignal.read(this, into, place);
            return;
        }
        AxisSignal.readBesideTheDrive(this, into, place);
    }

    /** What it is behind its setpoint, user units. */
    double followingError() {
        return takesKnown() ? known.seen(passed - 1, ERROR_SEEN) : drive.followingError();
    }

    /** Of a drive that follows an encoder by itself: deviation from its place, user units; 0 before it has been locked. */
    double deviation() {
        return takesKnown() ? known.seen(passed - 1, DEVIATION_SEEN) : deviationOfDrive();
    }

    private double deviationOfDrive() {
        return drive.following().lockedOnce() ? drive.following().deviation() - drive.followingError() : 0;
    }

    /** Way to the target that the drive took last, user units: 0 where its cycle ends with the bus cycle. */
    double toTarget() {
        return takesKnown() ? 0 : drive.toTarget();
    }

    /** Cycles that were not worked out. */
    long rested() {
        return known != null ? gone : rest == null ? 0 : rest.rested();
    }

    /** One bus cycle of a drive whose clock is that of the bus. @param subSteps in it */
    void exchangeInTime(int subSteps) {
        workOut();
        int request = kept == null ? -1 : mailbox.due();
        if (rest == null || !restsOn(subSteps)) {
            exchange(subSteps);
            if (rest != null) {
                rest.worked();
            }
        } else {
            sameAnswer = true;
        }
        if (kept != null) {
            keep(request);
        }
    }

    /** @return whether the cycle need not be worked out, since nothing would change */
    private boolean restsOn(int subSteps) {
        rested = rest.goesOn();
        if (rested && guard != null) {
            guard.passed(subSteps);
        }
        return rested;
    }

    /** @param request that the mailbox has answered in the cycle, or −1 */
    private void keep(int request) {
        if (request >= 0) {
            kept.answer(request, mailbox.content(request));
        }
        if (!keepCycle()) {
            kept = null;
        }
    }

    private boolean keepCycle() {
        if (rested) {
            return kept.addSame();
        }
        seen[ERROR_SEEN] = drive.followingError();
        seen[DEVIATION_SEEN] = deviationOfDrive();
        if (seen.length > SIGNALS_SEEN) {
            AxisSignal.read(this, seen, SIGNALS_SEEN);
        }
        return kept.add(outputs, inputs, seen);
    }

    /** One bus cycle of the drive. @param subSteps as many as it takes by its clock */
    void exchange(int subSteps) {
        workOut();
        sameAnswer = false;
        mailbox.cycle();
        began = clock.getAsLong();
        advance(outputs, inputs, subSteps);
        forcedStatus.apply(inputLayout, inputs, words.statusEntry());
    }

    /** The device is off: no torque, no answer on the bus, and the brake closes in the time that it takes. */
    void coast(int subSteps) {
        wake();
        sameAnswer = false;
        began = clock.getAsLong();
        Arrays.fill(inputs, (byte) 0);
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
        inputTags.copy(inputs, fresh, memory);
        fresh = false;
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
        outputTags.copy(outputs, true, memory);
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
        /** the image that was copied last, and what its tags have got */
        private final byte[] before;
        private final long[] copied;

        /** @param firstTag number of the first bound entry among the tags  @param which entries to copy */
        TagCopy(DriveProfile profile, ProcessDataLayout layout, CompiledProgram program, int firstTag, Predicate<Station.Entry> which) {
            this.layout = layout;
            List<Station.Entry> all = layout.entries();
            entries = IntStream.range(0, all.size()).filter(i -> all.get(i).hasTag() && which.test(all.get(i))).toArray();
            slots = IntStream.of(entries).map(i -> program.tagSlot(firstTag + boundTags(all.subList(0, i)))).toArray();
            types = Arrays.stream(entries).mapToObj(i -> Type.named(all.get(i).tagType())).toArray(Type[]::new);
            signed = new boolean[entries.length];
            factors = new double[entries.length];
            before = new byte[layout.bytes()];
            copied = new long[entries.length];
            for (int i = 0; i < entries.length; i++) {
                Station.Entry entry = all.get(entries[i]);
                CyclicItem item = CyclicItem.find(profile, entry.object(), entry.subIndex());
                boolean converted = types[i].isReal() || entry.scales();
                factors[i] = converted ? entry.factor().doubleValue() : 0;
                signed[i] = converted && item != null ? item.signed() : types[i].family() == Type.Family.SIGNED;
            }
            convert(before);
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

        /** @param fresh the image may be another one than that which was copied last */
        void copy(byte[] image, boolean fresh, long[] memory) {
            if (fresh && entries.length > 0 && !Arrays.equals(image, before)) {
                convert(image);
            }
            for (int i = 0; i < entries.length; i++) {
                memory[slots[i]] = copied[i];
            }
        }

        private void convert(byte[] image) {
            System.arraycopy(image, 0, before, 0, before.length);
            for (int i = 0; i < entries.length; i++) {
                Type type = types[i];
                long raw = signed[i] ? layout.readSigned(image, entries[i]) : layout.read(image, entries[i]);
                if (factors[i] == 0) {
                    copied[i] = type.wrap(raw);
                } else {
                    double value = raw / factors[i];
                    copied[i] = type.isReal() ? Double.doubleToRawLongBits(type == Type.REAL ? (float) value : value) : type.wrap(Math.round(value));
                }
            }
        }
    }
}
