package rueda.drive;

import static rueda.drive.DriveObject.FOLLOW_DEVIATION;
import static rueda.drive.DriveObject.FOLLOW_IN;
import static rueda.drive.DriveObject.FOLLOW_OUT;
import static rueda.drive.DriveObject.FOLLOW_STATUS;
import static rueda.drive.DriveObject.FOLLOW_TAKE;
import static rueda.drive.DriveObject.FOLLOW_TRIMMED;
import static rueda.drive.DriveObject.MASTER_LOST;
import static rueda.drive.DriveObject.TRIM_ORDER;
import static rueda.drive.DriveObject.TRIM_SPEED;
import static rueda.drive.DriveObject.TRIM_WAY;

import rueda.machine.Axis;
import rueda.machine.Following;
import rueda.machine.FollowWatch;
import rueda.machine.FollowWatch.Event;
import rueda.machine.FollowWatch.Reaction;
import rueda.machine.Following.FollowRatio;
import rueda.machine.Following.Lock;
import rueda.machine.Following.Release;
import rueda.machine.Following.Source;
import rueda.machine.Terminal.Function;
import rueda.plant.MasterShaft;
import rueda.profile.FollowerLock;
import rueda.profile.MasterSpeed;
import rueda.profile.PhaseTrim;
import rueda.quantity.CountScaler;
import rueda.quantity.InvalidEntry;
import rueda.quantity.Ratio;

/**
 * Follows the encoder at the second input, count by count, without the PLC: the master's counts times the ratio, in whole counts of the drive
 * so that nothing is lost however long it follows, and what the lock adds ({@link FollowerLock}). Tied by a bit of the bus or an input; let go,
 * it ramps down or keeps its speed. An axis with ends that knows where it is stops within its soft limits. No allocation in a step; not
 * thread-safe.
 */
public final class FollowingSource implements SetpointSource {

    private final ObjectDictionary dictionary;
    private final Setpoint setpoint;
    private final Reference reference;
    private final DriveUnits units;
    private final ProfileObjects objects;
    private final DigitalInputs inputs;
    private final RampedSetpoint ramped;
    private final ProfiledSetpoint motion;
    /** null where nothing is followed here */
    private final MasterShaft shaft;
    private final FollowerLock lock;
    private final MasterSpeed masterSpeed;
    private final PhaseTrim trim;
    private final boolean wired;
    private final FollowMonitor monitor;
    private Axis axis;
    private Following rules;
    /** the ratio was taken over the bus, and holds until the parameters bring another one */
    private FollowRatio busRatio;
    private boolean takeBefore;
    private boolean ratioRefused;
    /** a bit for each event since it was tied */
    private int events;
    /** a line broke while it followed, and it did something else than to fault */
    private boolean brokenKnown;
    private DriveFault fault;
    private double accelerationShare;
    private double trimDistance;
    private int trimBefore;
    private long countsBefore;
    private double trimTold;
    /** the place is worked out though nothing has been counted: the ratio, or where it counts from, is another */
    private boolean anew;
    private double fastestTrim;
    private CountScaler scaler = new CountScaler(Ratio.ONE);
    private double ratio = 1;
    private double trimSpeed;
    private double trimAcceleration;
    private double deceleration;
    private boolean tied;
    private boolean tieBefore;
    private boolean refused;
    private boolean lockedOnce;
    private long base;
    private long place;
    private long readBefore;
    /** counts of the master in the last sub-step, and its speed, counts/s */
    private long counted;
    private double masterRate;
    private double moved;
    private double prediction;
    private final double perSubStep;
    private int trimming;
    private int trimByHand;

    FollowingSource(Axis axis, ObjectDictionary dictionary, Setpoint setpoint, Reference reference, DriveUnits units, ProfileObjects objects, DigitalInputs inputs, RampedSetpoint ramped, ProfiledSetpoint motion, MasterShaft shaft) {
        this.dictionary = dictionary;
        this.setpoint = setpoint;
        this.reference = reference;
        this.units = units;
        this.objects = objects;
        this.inputs = inputs;
        this.ramped = ramped;
        this.motion = motion;
        this.shaft = shaft;
        wired = shaft != null && axis.wiring().terminal(Function.MASTER_ENCODER).isPresent();
        perSubStep = 1 / units.subStep;
        lock = new FollowerLock(units.subStep);
        masterSpeed = new MasterSpeed(units.subStep);
        trim = new PhaseTrim(units.subStep);
        monitor = new FollowMonitor(shaft, axis.following().encoder().countsPerTurn(), axis.following().encoder().indexed());
        take(axis);
    }

    /** The parameters have been written: a follower that is tied goes on from where it is. */
    void take(Axis written) {
        axis = written;
        busRatio = rules == null || rules.ratio().equals(written.following().ratio()) ? busRatio : null;
        rules = written.following();
        double perUnit = 1 / units.unitsPerCount;
        lock.limits(rules.speedOr(axis.limits()) * perUnit, rules.accelerationOr(axis.limits()) * perUnit, rules.decelerationOr(axis.limits()) * perUnit, rules.catchUp() * perUnit);
        lock.control(rules.gain(), rules.feedForward() / 100, rules.phaseWindow() * perUnit);
        masterSpeed.filter(rules.filter() * 1e-3);
        prediction = rules.prediction() * 1e-3;
        trimSpeed = rules.trimSpeed() * perUnit;
        fastestTrim = axis.limits().max().speed() * perUnit;
        trimAcceleration = rules.trimAccelerationOr(axis.limits()) * perUnit;
        trimDistance = rules.trimDistance() * perUnit;
        accelerationShare = rules.accelerationForward() / 100;
        monitor.take(rules.watch(), rules.speedOr(axis.limits()) * perUnit, perUnit, units.subStep);
        deceleration = rules.decelerationOr(axis.limits()) * perUnit;
        if (rules.source() != Source.ENCODER) {
            return;
        }
        if (busRatio == null) {
            offer(rules.turns(axis));
        }
        follow(busRatio == null ? rules.countsPerCount(axis) : rules.withRatio(busRatio).countsPerCount(axis));
    }

    /** The objects of the ratio show the one that holds. @param turns null where 32 bits do not hold it */
    private void offer(Ratio turns) {
        boolean fits = turns != null && turns.denominator() <= 0xFFFF_FFFFL && Math.abs(turns.numerator()) <= Integer.MAX_VALUE;
        dictionary.set(FOLLOW_OUT, fits ? turns.numerator() : 0);
        dictionary.set(FOLLOW_IN, fits ? turns.denominator() : 0);
    }

    /** Takes the ratio of the objects at the edge of its bit. */
    private void takeRatio() {
        boolean now = (dictionary.get(FOLLOW_TAKE) & 1) != 0;
        if (now && !takeBefore) {
            long out = dictionary.get(FOLLOW_OUT);
            long in = dictionary.get(FOLLOW_IN);
            ratioRefused = out == 0 || in == 0;
            if (!ratioRefused) {
                FollowRatio asked = FollowRatio.of(out, in);
                try {
                    follow(rules.withRatio(asked).countsPerCount(axis));
                    busRatio = asked;
                } catch (InvalidEntry tooLarge) {
                    ratioRefused = true;
                }
            }
        }
        takeBefore = now;
    }

    private void follow(Ratio counts) {
        CountScaler changed = new CountScaler(counts);
        if (tied && counts.toDouble() != ratio) {
            /* from here on the other ratio holds: the place goes on without a step */
            long there = changed.scale(0);
            lock.engageAgain(kind(), there, place);
            base = shaft.read();
            place = there;
            monitor.placeAnew(there);
        }
        anew = true;
        scaler = changed;
        ratio = counts.toDouble();
    }

    private FollowerLock.Kind kind() {
        return rules.lock() == Lock.SPEED ? FollowerLock.Kind.SPEED : rules.lock() == Lock.LOOSE ? FollowerLock.Kind.LOOSE : FollowerLock.Kind.POSITION;
    }

    /** There is an encoder at the second input that is followed. */
    boolean fitted() {
        return wired && rules.source() == Source.ENCODER;
    }

    /** The encoder is read, and a line of it is broken: a fault, unless it followed then and is to do something else. */
    boolean broken() {
        boolean now = fitted() && shaft.broken();
        brokenKnown &= now;
        return now && !brokenKnown;
    }

    /** What the drive is to fault with, once. */
    DriveFault takeFault() {
        DriveFault now = fault;
        fault = null;
        return now;
    }

    /** The mode is chosen, or torque has come: nothing is followed until it is told to. */
    void enter() {
        tied = false;
        tieBefore = false;
        refused = false;
        motion.run(0, deceleration, 0);
        if (setpoint.speed == 0) {
            motion.stand();
        }
    }

    /** Torque has come: what asks for following already must go and come again, so that no axis moves because it was enabled. */
    void awaitEdge() {
        tieBefore = true;
    }

    /** A person asks anew. */
    void askAnew() {
        tieBefore = false;
    }

    /** Another mode leads, or torque goes. */
    void leave() {
        tied = false;
    }

    /** Once a bus cycle while it leads. @param wanted it is to follow: the bit of the bus, the input, or a person */
    void latch(boolean wanted) {
        takeRatio();
        trimOrders();
        if (wanted && !tieBefore) {
            refused = !fitted() || shaft.broken();
            if (!refused) {
                engage();
            }
        } else if (!wanted && tied) {
            letGo();
        }
        tieBefore = wanted;
    }

    private void engage() {
        tied = true;
        lockedOnce = false;
        anew = true;
        base = shaft.read();
        place = 0;
        moved = 0;
        trim.begin(rules.trimKept());
        trimming = 0;
        events = 0;
        monitor.begin(0);
        lock.engage(kind(), setpoint.position, 0, setpoint.speed / units.radiansPerCount);
    }

    private void letGo() {
        letGo(rules.release() == Release.HOLD_SPEED);
    }

    private void letGo(boolean holdSpeed) {
        tied = false;
        if (holdSpeed) {
            motion.run(setpoint.speed / units.radiansPerCount, deceleration, 0);
        } else {
            motion.run(0, deceleration, 0);
        }
    }

    /** A person trims. @param direction −1, 1, or 0 to end */
    void trimByHand(int direction) {
        trimByHand = direction;
    }

    /** Reads the master at the beginning of a sub-step, whatever leads: its speed is known before it is followed. */
    void readMaster() {
        if (shaft == null) {
            return;
        }
        long read = shaft.read();
        counted = read - readBefore;
        readBefore = read;
        masterRate = masterSpeed.read(counted);
    }

    @Override
    public void step(int number) {
        ramped.release();
        double speed = masterRate * ratio;
        if (!tied) {
            if (fitted()) {
                note(monitor.step(false, place, 0, false));
            }
            rampDown();
            return;
        }
        /* a coarse encoder does not count in every sub-step */
        long there = counted == 0 && !anew ? place : scaler.scale(readBefore - base);
        anew = false;
        long way = there - place;
        place = there;
        trim();
        double before = moved;
        moved = trim.value() + prediction * speed;
        double speedBefore = setpoint.speed;
        lock.step(way + moved - before, speed + trim.rate());
        lockedOnce |= lock.state() == FollowerLock.State.LOCKED;
        setpoint.position = place + lock.offset() + (long) Math.rint(moved + lock.deviation());
        setpoint.speed = lock.speed() * units.radiansPerCount;
        setpoint.acceleration = (setpoint.speed - speedBefore) * perSubStep * accelerationShare;
        Event seen = monitor.step(true, there, lock.deviation() - lock.expected(), lockedOnce);
        if (seen != null) {
            react(seen);
        }
        if (tied && nearsSoftLimit(lock.speed())) {
            refused = true;
            stopQuickly();
        }
    }

    private void note(Event seen) {
        events |= seen == null ? 0 : 1 << seen.ordinal();
    }

    private void react(Event seen) {
        note(seen);
        Reaction reaction = rules.watch().reaction(seen);
        brokenKnown |= seen == Event.LINE_BROKEN && reaction != Reaction.QUICK_STOP;
        switch (reaction) {
            case WARN -> { }
            case RAMP -> {
                letGo(false);
                refused = true;
            }
            case HOLD_SPEED -> {
                letGo(true);
                refused = true;
            }
            case QUICK_STOP -> fault = switch (seen) {
                case LINE_BROKEN -> DriveFault.MASTER_ENCODER;
                case INDEX_MISSING -> DriveFault.MASTER_INDEX;
                case COUNTS_LOST -> DriveFault.MASTER_COUNTS;
                case PHASE_LEFT -> DriveFault.PHASE;
                case TOO_FAST -> DriveFault.MASTER_TOO_FAST;
            };
        }
    }

    private void stopQuickly() {
        tied = false;
        motion.run(0, objects.quickStop(), 0);
    }

    /** On its ramp, or at the speed that it has kept: an axis with ends stops within its soft limits. */
    private void rampDown() {
        if (setpoint.speed == 0 && motion.ended()) {
            return;
        }
        motion.step();
        if (motion.ended() && setpoint.speed != 0 && nearsSoftLimit(setpoint.speed / units.radiansPerCount)) {
            refused = true;
            stopQuickly();
        }
    }

    /* ---- trim ---- */

    private int trimInputs() {
        long active = inputs.activeFunctions();
        long bits = dictionary.get(TRIM_ORDER);
        boolean forward = (active >> Function.TRIM_FORWARD.ordinal() & 1) != 0 || (bits & 1) != 0;
        boolean back = (active >> Function.TRIM_BACK.ordinal() & 1) != 0 || (bits & 2) != 0;
        return trimByHand != 0 ? trimByHand : (forward ? 1 : 0) - (back ? 1 : 0);
    }

    /** Once a bus cycle: orders over the bus that come with an edge. */
    private void trimOrders() {
        int bits = (int) dictionary.get(TRIM_ORDER);
        int edges = bits & ~trimBefore;
        trimBefore = bits;
        if (!tied) {
            return;
        }
        if ((edges & 4) != 0) {
            trimTo(trim.target() + dictionary.get(TRIM_WAY) * units.countsPerWireUnit);
        }
        if ((edges & 8) != 0) {
            trimTo(0);
        }
    }

    private double trimSpeedNow() {
        double bus = dictionary.get(TRIM_SPEED) * units.countsPerWireUnit;
        return bus > 0 ? Math.min(bus, fastestTrim) : trimSpeed;
    }

    private void trimTo(double place) {
        double speed = trimSpeedNow();
        if (speed > 0) {
            trim.to(place, speed, trimAcceleration, trimAcceleration, 0);
        }
    }

    private void trim() {
        int wanted = trimInputs();
        if (wanted != trimming) {
            trimming = wanted;
            if (trimDistance == 0) {
                trim.at(wanted * trimSpeedNow(), trimAcceleration);
            } else if (wanted != 0) {
                trimTo(trim.target() + wanted * trimDistance);
            }
        }
        trim.step();
    }

    /** Braking as hard as the quick stop it would just stop within its soft limits: v²/(2a) + v·T. */
    private boolean nearsSoftLimit(double speed) {
        if (!objects.bounded() || speed == 0) {
            return false;
        }
        double rest = setpoint.position + speed * Math.abs(speed) / (2 * objects.quickStop()) + speed * units.subStep;
        long limit = reference.countsAt(objects.softLimit(speed));
        return speed > 0 ? rest > limit && setpoint.position <= limit + 1 : rest < limit && setpoint.position >= limit - 1;
    }

    /** Once a bus cycle: what the drive tells of it over the bus. @param cycleSeconds s */
    void publish(double cycleSeconds) {
        if (!fitted()) {
            return;
        }
        boolean making = tied && lock.state() == FollowerLock.State.CATCHING_UP;
        dictionary.set(FOLLOW_STATUS, (tied ? FollowStatus.TIED : 0) | (locked() ? FollowStatus.LOCKED : 0) | (making ? FollowStatus.CATCHING_UP : 0) | (refused ? FollowStatus.REFUSED : 0)
                | (tied && trim.moves() ? FollowStatus.TRIMMING : 0) | (ratioRefused ? FollowStatus.RATIO_REFUSED : 0) | events << FollowStatus.FIRST_EVENT);
        dictionary.set(FOLLOW_DEVIATION, tied ? units.wire(Math.round(lock.deviation())) : 0);
        if (trim.value() != trimTold) {
            trimTold = trim.value();
            dictionary.set(FOLLOW_TRIMMED, units.wire(Math.round(trimTold)));
        }
        long counts = shaft.read();
        dictionary.set(DriveObject.MASTER_SPEED, Math.round((counts - countsBefore) / cycleSeconds));
        dictionary.set(DriveObject.MASTER_COUNTS, counts);
        dictionary.set(MASTER_LOST, monitor.lost());
        countsBefore = counts;
    }

    /* ---- what can be read ---- */

    /** What has come about since it was tied, in words; empty for nothing. */
    public String warnings() {
        return FollowWatch.words(events);
    }

    /** Something has come about since it was tied. */
    boolean warns() {
        return tied && events != 0;
    }

    /** It is tied to its master. */
    public boolean tied() {
        return tied;
    }

    /** Tied, and within the phase window. */
    public boolean locked() {
        return tied && lock.state() == FollowerLock.State.LOCKED;
    }

    /** It is tied, and has been locked since. */
    public boolean lockedOnce() {
        return tied && lockedOnce;
    }

    /** It was to follow and does not: there is no encoder to follow, or a soft limit was in the way. */
    public boolean refused() {
        return refused;
    }

    /** The setpoint moves. */
    boolean moves() {
        return setpoint.speed != 0;
    }

    /** What it does, in words. */
    public String words() {
        return !tied ? "does not follow" : switch (lock.state()) {
            case COMING_UP -> "comes up to speed";
            case CATCHING_UP -> "makes up lost way";
            case LOCKED -> "locked";
        };
    }

    /** Setpoint minus the place that the master gives it, user units. */
    public double deviation() {
        return lock.deviation() * units.unitsPerCount;
    }

    /** Way that stays lost, user units. */
    public double lost() {
        return lock.lost() * units.unitsPerCount;
    }

    /** By how much its phase has been moved, user units. */
    public double trimmed() {
        return trim.value() * units.unitsPerCount;
    }

    /** How far its place has gone since it was tied, user units. */
    public double way() {
        return place * units.unitsPerCount;
    }
}
