package rueda.plcopen;

import rueda.machine.FollowWatch;
import rueda.machine.FollowWatch.Event;
import rueda.machine.FollowWatch.Reaction;
import rueda.machine.Following;
import rueda.profile.FollowerLock;
import rueda.profile.MasterSpeed;
import rueda.profile.MeetingCurve;
import rueda.profile.PhaseTrim;
import rueda.quantity.CountScaler;
import rueda.quantity.Ratio;

/**
 * The setpoint of an axis that follows another one: the master's way times the ratio, or where a cam has it ({@link CamCoupling}), in whole wire
 * units so that nothing is lost however long it follows, and what the lock adds to it ({@link FollowerLock}). The trim moves the place itself.
 * <pre>  setpoint = round(master · ratio) + offset + prediction + trim + deviation  </pre>
 * No allocation in a step; not thread-safe.
 */
final class GearGenerator implements SetpointGenerator {

    /** What it does on the way to being tied. */
    private enum Phase { AWAITING, MEETING, TIED }

    private final AxisSetpoint setpoint;
    private final double cycleSeconds;
    private final double wireUnitsPerUnit;
    /** wire units after which the follower begins again, 0 with ends */
    private final long modulo;
    private final FollowerLock lock;
    private final MasterSpeed speed;
    private final MeetingCurve curve = new MeetingCurve();
    private final PhaseTrim trim;

    private MotionAxis master;
    private boolean actualValue;
    /** the other one where two are combined, else null */
    private MotionAxis second;
    private boolean secondActual;
    private CountScaler secondScaler = new CountScaler(Ratio.ONE);
    private long secondBase;
    private CountScaler scaler = new CountScaler(Ratio.ONE);
    /** the cam that gives the place instead of a ratio, null for none */
    private CamCoupling cam;
    /** wire units of the follower for one of the master; of a cam where it is now */
    private double ratio = 1;
    private double prediction;
    /** limits, wire units */
    private double highestSpeed;
    private double highestAcceleration;
    private Phase phase = Phase.TIED;
    /** what the master had gone where the place counts 0 */
    private long base;
    private long place;
    /** prediction and trim, wire units */
    private double moved;
    private boolean trimKept;
    private FollowWatch watch = FollowWatch.USUAL;
    private double phaseLimit;
    /** a bit for each event since it was tied */
    private int events;
    private int eventsNow;
    private Event reactsTo;
    /* meeting: places of both, user units, and the way on which the follower comes there */
    private double masterMeets;
    private double followerMeets;
    private double meetingWay;
    private long startedAt;
    private long startedFrom;
    private long wholeWay;
    private boolean cannot;
    private boolean lockedOnce;

    GearGenerator(AxisSetpoint setpoint, double cycleSeconds, double wireUnitsPerUnit, long modulo) {
        this.setpoint = setpoint;
        this.cycleSeconds = cycleSeconds;
        this.wireUnitsPerUnit = wireUnitsPerUnit;
        this.modulo = modulo;
        lock = new FollowerLock(cycleSeconds);
        speed = new MasterSpeed(cycleSeconds);
        trim = new PhaseTrim(cycleSeconds);
    }

    /**
     * What it may do, before it is engaged.
     *
     * @param rules        gain, feed-forward, filter, prediction, catch-up limit and window
     * @param speed        units/s
     * @param acceleration units/s²
     * @param deceleration units/s²
     */
    void rules(Following rules, double speed, double acceleration, double deceleration) {
        highestSpeed = speed * wireUnitsPerUnit;
        highestAcceleration = Math.min(acceleration, deceleration) * wireUnitsPerUnit;
        lock.limits(highestSpeed, acceleration * wireUnitsPerUnit, deceleration * wireUnitsPerUnit, rules.catchUp() * wireUnitsPerUnit);
        lock.control(rules.gain(), rules.feedForward() / 100, rules.phaseWindow() * wireUnitsPerUnit);
        this.speed.filter(rules.filter() * 1e-3);
        prediction = rules.prediction() * 1e-3;
        trimKept = rules.trimKept();
        watch = rules.watch();
        phaseLimit = watch.phaseLimit() * wireUnitsPerUnit;
    }

    /**
     * Ties the axis to a master.
     *
     * @param wirePerWire wire units of the follower for one of the master
     * @param actual      its actual value counts, else its setpoint
     */
    void engage(FollowerLock.Kind kind, MotionAxis of, boolean actual, Ratio wirePerWire) {
        follow(of, actual, wirePerWire);
        lock.engage(kind, here(), 0, setpoint.velocity * wireUnitsPerUnit);
        phase = Phase.TIED;
    }

    /** Ties the axis to the sum of two masters' ways. See {@link #engage}. */
    void combine(MotionAxis one, boolean oneActual, Ratio onePerWire, MotionAxis other, boolean otherActual, Ratio otherPerWire) {
        follow(one, oneActual, onePerWire);
        second = other;
        secondActual = otherActual;
        secondScaler = new CountScaler(otherPerWire);
        secondBase = other.masterValue(otherActual).gone();
        speed.begin(one.wireSpeed(oneActual) * ratio + other.wireSpeed(otherActual) * otherPerWire.toDouble());
        lock.engage(FollowerLock.Kind.SPEED, here(), 0, setpoint.velocity * wireUnitsPerUnit);
        phase = Phase.TIED;
    }

    /**
     * Couples the axis to a master by a cam.
     *
     * @param coupled  from where the master is now
     * @param absolute the cam gives places of the follower, on an endless axis the nearest of those; else ways from where it is
     */
    void couple(MotionAxis of, boolean actual, CamCoupling coupled, boolean absolute) {
        follow(of, actual, Ratio.ONE);
        cam = coupled;
        ratio = coupled.slope(0);
        place = coupled.place(0);
        speed.begin(of.wireSpeed(actual) * ratio);
        long away = here() - place;
        long turns = modulo == 0 ? 0 : modulo * Math.round((double) away / modulo);
        if (absolute) {
            lock.engageAway(turns, away - turns, setpoint.velocity * wireUnitsPerUnit);
        } else {
            lock.engage(FollowerLock.Kind.POSITION, here(), place, setpoint.velocity * wireUnitsPerUnit);
        }
        phase = Phase.TIED;
    }

    /** A cam has it, not a ratio. */
    boolean byCam() {
        return cam != null;
    }

    /** Rounds of the cam that the master has begun since its first point. */
    long camRound() {
        return cam == null ? 0 : cam.table().rounds(cam.on(gone() - base));
    }

    /** The master is past an end of a cam that does not begin again. */
    boolean camEnded() {
        return cam != null && cam.table().outside(cam.on(gone() - base));
    }

    /** Meets the master where both are at a place together. @param way of the master on which it comes there, its user units, 0 for all that is left */
    void meet(MotionAxis of, boolean actual, Ratio wirePerWire, double masterPlace, double followerPlace, double way) {
        follow(of, actual, wirePerWire);
        masterMeets = masterPlace;
        followerMeets = followerPlace;
        meetingWay = way;
        phase = Phase.AWAITING;
    }

    private void follow(MotionAxis of, boolean actual, Ratio wirePerWire) {
        master = of;
        actualValue = actual;
        second = null;
        cam = null;
        scaler = new CountScaler(wirePerWire);
        ratio = wirePerWire.toDouble();
        base = gone();
        place = 0;
        moved = 0;
        trim.begin(trimKept);
        events = 0;
        eventsNow = 0;
        reactsTo = null;
        cannot = false;
        lockedOnce = false;
        speed.begin(of.wireSpeed(actual) * ratio);
    }

    private long here() {
        return (long) Math.rint(setpoint.position * wireUnitsPerUnit);
    }

    private long gone() {
        return master.masterValue(actualValue).gone();
    }

    /** The axis whose value it follows. */
    MotionAxis master() {
        master = master.present();
        return master;
    }

    /** The second master, null for none. */
    MotionAxis second() {
        second = second == null ? null : second.present();
        return second;
    }

    @Override
    public void step() {
        long there = cam != null ? cam.place(gone() - base) : scaler.scale(gone() - base) + (second == null ? 0 : secondScaler.scale(second().masterValue(secondActual).gone() - secondBase));
        long way = there - place;
        place = there;
        double masterSpeed = speed.read(way);
        if (cam != null) {
            ratio = cam.slope(gone() - base);
        }
        switch (phase) {
            case AWAITING -> await();
            case MEETING -> meeting();
            case TIED -> tied(way, masterSpeed);
        }
        lockedOnce |= inGear();
    }

    private void tied(long way, double masterSpeed) {
        double before = moved;
        trim.step();
        moved = trim.value() + prediction * masterSpeed;
        lock.step(way + moved - before, masterSpeed + trim.rate());
        put(place + lock.offset() + moved + lock.deviation(), lock.speed());
        watch(masterSpeed);
    }

    /** Each thing is told once, when it comes about. */
    private void watch(double masterSpeed) {
        int before = eventsNow;
        boolean outside = phaseLimit > 0 && lockedOnce && Math.abs(lock.deviation() - lock.expected()) > phaseLimit;
        boolean fast = Math.abs(masterSpeed) > highestSpeed * (1 + 1e-9);
        eventsNow = (outside ? 1 << Event.PHASE_LEFT.ordinal() : 0) | (fast ? 1 << Event.TOO_FAST.ordinal() : 0);
        int fresh = eventsNow & ~before;
        events |= fresh;
        reactsTo = (fresh >> Event.PHASE_LEFT.ordinal() & 1) != 0 ? Event.PHASE_LEFT : fresh != 0 ? Event.TOO_FAST : null;
    }

    /** What has just come about and is to be answered with more than a warning, else null. */
    Event reactsTo() {
        return reactsTo == null || watch.reaction(reactsTo) == Reaction.WARN ? null : reactsTo;
    }

    Reaction reaction(Event event) {
        return watch.reaction(event);
    }

    private void put(double wire, double wireSpeed) {
        double before = setpoint.velocity;
        setpoint.position = wire / wireUnitsPerUnit;
        setpoint.velocity = wireSpeed / wireUnitsPerUnit;
        setpoint.acceleration = (setpoint.velocity - before) / cycleSeconds;
    }

    /* ---- meeting ---- */

    /** Stands until the master is as far before the meeting point as the way is long, then begins. */
    private void await() {
        slowDown();
        double masterSpeed = master.wireSpeed(actualValue);
        if (masterSpeed == 0 || setpoint.velocity != 0) {
            return;
        }
        int sign = masterSpeed < 0 ? -1 : 1;
        long way = master.wireWayTo(masterMeets, sign, actualValue);
        long ahead = sign * way;
        double wanted = meetingWay * master.wireUnitsPerUnit();
        double step = Math.abs(masterSpeed) * cycleSeconds;
        if (ahead <= 0 || wanted > 0 && (ahead > wanted || ahead < wanted - 1.5 * step)) {
            return;
        }
        wholeWay = way;
        startedAt = gone();
        startedFrom = here();
        curve.plan(wholeWay, followerWay(0.5 * wholeWay * ratio), 0, ratio);
        cannot = curve.steepest() * Math.abs(masterSpeed) > highestSpeed || curve.sharpest() * masterSpeed * masterSpeed > highestAcceleration;
        phase = Phase.MEETING;
    }

    /** The way to the follower's place: on an endless axis that which is nearest to a natural one. */
    private long followerWay(double natural) {
        long direct = (long) Math.rint(followerMeets * wireUnitsPerUnit + trim.value()) - startedFrom;
        return modulo == 0 ? direct : direct + modulo * Math.round((natural - direct) / modulo);
    }

    private void slowDown() {
        double most = highestAcceleration / wireUnitsPerUnit * cycleSeconds;
        double next = Math.abs(setpoint.velocity) <= most ? 0 : setpoint.velocity - Math.copySign(most, setpoint.velocity);
        put((setpoint.position + next * cycleSeconds) * wireUnitsPerUnit, next * wireUnitsPerUnit);
    }

    private void meeting() {
        long gone = gone() - startedAt;
        double masterSpeed = master.wireSpeed(actualValue);
        if (curve.met(gone)) {
            /* from the meeting point on the ratio holds, from its own place on */
            long meets = startedFrom + Math.round(curve.way(wholeWay));
            base = startedAt + wholeWay;
            place = scaler.scale(gone() - base);
            moved = trim.value();
            lock.lockedAt(meets - Math.round(moved), ratio * masterSpeed);
            phase = Phase.TIED;
            put(place + meets, ratio * masterSpeed);
            return;
        }
        put(startedFrom + curve.way(gone), curve.slope(gone) * masterSpeed);
    }

    /** The follower's limits do not suffice for the curve at the speed that the master has. */
    boolean cannotMeet() {
        return cannot;
    }

    /** It is on its way to the meeting point, or past it. */
    boolean started() {
        return phase != Phase.AWAITING;
    }

    /* ---- trim ---- */

    /**
     * Moves the phase.
     *
     * @param target       trim in the end, wire units of the follower
     * @param speed        wire units/s
     * @param acceleration wire units/s²
     * @param deceleration wire units/s²
     * @param jerk         wire units/s³, 0 for none
     */
    void trimTo(double target, double speed, double acceleration, double deceleration, double jerk) {
        trim.to(target, speed, acceleration, deceleration, jerk);
    }

    /** Trims on at a speed, 0 to end. @param speed wire units/s with its sign  @param acceleration wire units/s² */
    void trimAt(double speed, double acceleration) {
        trim.at(speed, acceleration);
    }

    boolean trimEnded() {
        return !trim.moves();
    }

    /** By how much the phase has been moved, wire units of the follower. */
    double trimmed() {
        return trim.value();
    }

    double ratio() {
        return ratio;
    }

    /* ---- what can be read ---- */

    /** Tied, and within the window. */
    boolean inGear() {
        return phase == Phase.TIED && lock.state() == FollowerLock.State.LOCKED;
    }

    /** It has been locked to its one master since it was tied. */
    boolean lockedOnce() {
        return lockedOnce && second == null;
    }

    FollowerLock lock() {
        return lock;
    }

    /** @param number of the master's axis */
    FollowState state(int number) {
        String words = switch (phase) {
            case AWAITING -> "awaits its master";
            case MEETING -> "goes to the meeting point";
            case TIED -> switch (lock.state()) {
                case COMING_UP -> "comes up to speed";
                case CATCHING_UP -> "makes up lost way";
                case LOCKED -> cam == null ? "locked" : "on its cam";
            };
        };
        return new FollowState(true, inGear(), words, number, lock.deviation() / wireUnitsPerUnit, lock.lost() / wireUnitsPerUnit, trim.value() / wireUnitsPerUnit, ratio * master.wireUnitsPerUnit() / wireUnitsPerUnit, place / wireUnitsPerUnit, FollowWatch.words(events));
    }

    /** Follows until something else is ordered. */
    @Override
    public boolean ended() {
        return false;
    }

    @Override
    public void lookAhead(double ahead, double[] into) {
        into[0] = setpoint.position + setpoint.velocity * ahead;
        into[1] = setpoint.velocity;
        into[2] = 0;
    }

    /** Every place of the follower has another number. @param by user units */
    void shift(double by) {
        lock.shift(Math.round(by * wireUnitsPerUnit));
        startedFrom += Math.round(by * wireUnitsPerUnit);
        followerMeets += by;
    }
}
