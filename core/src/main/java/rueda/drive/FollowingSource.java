package rueda.drive;

import rueda.machine.Axis;
import rueda.machine.Following;
import rueda.machine.Following.Lock;
import rueda.machine.Following.Release;
import rueda.machine.Following.Source;
import rueda.machine.Terminal.Function;
import rueda.plant.MasterShaft;
import rueda.profile.FollowerLock;
import rueda.profile.MasterSpeed;
import rueda.profile.MotionProfile;
import rueda.quantity.CountScaler;
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
    private final MotionProfile trim = new MotionProfile();
    private final double[] sample = new double[3];
    private final boolean wired;
    private Following rules;
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
    private double moved;
    private double trimTime;
    private double trimmed;
    private double trimRate;
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
        take(axis);
    }

    /** The parameters have been written: a follower that is tied goes on from where it is. */
    void take(Axis axis) {
        rules = axis.following();
        double perUnit = 1 / units.unitsPerCount;
        lock.limits(rules.speedOr(axis.limits()) * perUnit, rules.accelerationOr(axis.limits()) * perUnit, rules.decelerationOr(axis.limits()) * perUnit, rules.catchUp() * perUnit);
        lock.control(rules.gain(), rules.feedForward() / 100, rules.phaseWindow() * perUnit);
        masterSpeed.filter(rules.filter() * 1e-3);
        prediction = rules.prediction() * 1e-3;
        trimSpeed = rules.trimSpeed() * perUnit;
        trimAcceleration = axis.limits().normal().acceleration() * perUnit;
        deceleration = rules.decelerationOr(axis.limits()) * perUnit;
        if (rules.source() != Source.ENCODER) {
            return;
        }
        Ratio counts = rules.countsPerCount(axis);
        CountScaler changed = new CountScaler(counts);
        if (tied && counts.toDouble() != ratio) {
            /* from here on the other ratio holds: the place goes on without a step */
            long there = changed.scale(0);
            lock.engageAgain(kind(), there, place);
            base = shaft.read();
            place = there;
        }
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

    /** The encoder is read, and a line of it is broken. */
    boolean broken() {
        return fitted() && shaft.broken();
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
        if (wanted && !tieBefore) {
            refused = !fitted();
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
        base = shaft.read();
        place = 0;
        moved = 0;
        trimmed = 0;
        trimRate = 0;
        trimming = 0;
        trimTime = 0;
        trim.planVelocity(0, 0, 0, 0, trimAcceleration, 0);
        lock.engage(kind(), setpoint.position, 0, setpoint.speed / units.radiansPerCount);
    }

    private void letGo() {
        tied = false;
        if (rules.release() == Release.HOLD_SPEED) {
            motion.run(setpoint.speed / units.radiansPerCount, deceleration, 0);
        } else {
            motion.run(0, deceleration, 0);
        }
    }

    /** A person trims. @param direction −1, 1, or 0 to end */
    void trimByHand(int direction) {
        trimByHand = direction;
    }

    @Override
    public void step(int number) {
        ramped.release();
        /* the speed of the master is known before it is followed */
        long read = shaft == null ? 0 : shaft.read();
        double speed = masterSpeed.read(read - readBefore) * ratio;
        readBefore = read;
        if (!tied) {
            rampDown();
            return;
        }
        long there = scaler.scale(read - base);
        long way = there - place;
        place = there;
        trim();
        double before = moved;
        moved = trimmed + prediction * speed;
        double speedBefore = setpoint.speed;
        lock.step(way + moved - before, speed + trimRate);
        lockedOnce |= lock.state() == FollowerLock.State.LOCKED;
        setpoint.position = place + lock.offset() + (long) Math.rint(moved + lock.deviation());
        setpoint.speed = lock.speed() * units.radiansPerCount;
        setpoint.acceleration = (setpoint.speed - speedBefore) * perSubStep;
        if (nearsSoftLimit()) {
            refused = true;
            tied = false;
            motion.run(0, objects.quickStop(), 0);
        }
    }

    private void rampDown() {
        if (setpoint.speed != 0 || !motion.ended()) {
            motion.step();
        }
    }

    private void trim() {
        long active = inputs.activeFunctions();
        int wanted = trimByHand != 0 ? trimByHand : (int) (active >> Function.TRIM_FORWARD.ordinal() & 1) - (int) (active >> Function.TRIM_BACK.ordinal() & 1);
        if (wanted != trimming) {
            trimming = wanted;
            trim.planVelocity(trimmed, trimRate, 0, wanted * trimSpeed, trimAcceleration, 0);
            trimTime = 0;
        }
        if (trimming == 0 && trimRate == 0) {
            return;
        }
        trimTime += units.subStep;
        trim.sample(trimTime, sample);
        trimmed = sample[0];
        trimRate = sample[1];
    }

    /** Braking as hard as the quick stop it would just stop within its soft limits: v²/(2a) + v·T. */
    private boolean nearsSoftLimit() {
        double speed = lock.speed();
        if (!objects.bounded() || speed == 0) {
            return false;
        }
        double rest = setpoint.position + speed * Math.abs(speed) / (2 * objects.quickStop()) + speed * units.subStep;
        long limit = reference.countsAt(objects.softLimit(speed));
        return speed > 0 ? rest > limit && setpoint.position <= limit + 1 : rest < limit && setpoint.position >= limit - 1;
    }

    /* ---- what can be read ---- */

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
        return trimmed * units.unitsPerCount;
    }

    /** How far its place has gone since it was tied, user units. */
    public double way() {
        return place * units.unitsPerCount;
    }
}
