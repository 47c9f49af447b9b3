package rueda.profile;

/**
 * Ties a follower to its master, step by step. The caller says where the master would have the follower (its <i>place</i>, exact in whole
 * steps of his own: counts or wire units) and how fast that place moves; the lock says how far the follower is from it, within limits of
 * speed and acceleration.
 *
 * <p>With the deviation d (follower minus place), the speed v_m of the place, the share f of feed-forward and the gain k:
 * <pre>
 *   v = f·v_m + c(−d),   |v − v_m| ≤ catch-up limit,   |v| ≤ speed limit,   |dv/dt| ≤ acceleration limits
 *   c(e) = k·e                                where |e| ≤ a/k²
 *        = sign(e)·√(2a·(|e| − a/(2k²)))      beyond: it brakes with a and ends in the straight line without a step
 * </pre>
 * so that lost way is made up by a trapezoid of speed above the master's, and the gap at constant speed is (1 − f)·v_m/k. The law is that of
 * a time-optimal position loop (Leonhard, <i>Control of Electrical Drives</i>, cascade with a square-root characteristic; from memory).
 *
 * <p>Nothing is summed up for ever: the deviation is put to exactly 0 when it is below half a step, so that the follower stands where the
 * ratio says, however long it has followed. A step costs some ten nanoseconds and allocates nothing. Not thread-safe.
 */
public final class FollowerLock {

    /** How a follower is tied. */
    public enum Kind {
        /** Comes to the speed of the master and keeps the place it has then: what is lost meanwhile stays lost. */
        SPEED,
        /** Keeps the place it had when it was ordered: what is lost meanwhile is made up. */
        POSITION,
        /** Has the speed of the master and no place. */
        LOOSE
    }

    /** How far it is. */
    public enum State { COMING_UP, CATCHING_UP, LOCKED }

    /** With a larger share of a step than this the straight line would overshoot. */
    private static final double STEEPEST = 0.5;

    private final double dt;
    private Kind kind = Kind.POSITION;
    private State state = State.LOCKED;
    private double speedLimit = Double.MAX_VALUE;
    private double acceleration = Double.MAX_VALUE;
    private double deceleration = Double.MAX_VALUE;
    private double catchUp;
    private double gain;
    private double share = 1;
    private double window = 0.5;
    /* the law's own numbers, so that a step divides by nothing: the smaller acceleration, where the straight line ends, its slope's inverse */
    private double brake = Double.MAX_VALUE;
    private double line = Double.MAX_VALUE;
    private double lineSpeed = Double.MAX_VALUE;
    private double perGain = 1;
    /** by how much the speed may change in a step */
    private double faster = Double.MAX_VALUE;
    private double slower = Double.MAX_VALUE;
    private long offset;
    private double deviation;
    private double speed;
    private double lost;
    private boolean limited;
    /** deviation that the gain gives at the master's speed */
    private double expected;

    /** @param dt length of a step, s */
    public FollowerLock(double dt) {
        this.dt = dt;
    }

    /**
     * Limits of the follower, in steps of the caller and s.
     *
     * @param speed        highest speed, greater than 0
     * @param acceleration greater than 0
     * @param deceleration greater than 0
     * @param catchUp      the most it may be faster or slower than the master while it makes up way, 0 or more
     */
    public void limits(double speed, double acceleration, double deceleration, double catchUp) {
        speedLimit = speed;
        this.acceleration = acceleration;
        this.deceleration = deceleration;
        this.catchUp = catchUp;
        prepare();
    }

    /**
     * @param gain   of the position lock, 1/s, greater than 0; no more than half of it acts in one step
     * @param share  of the master's speed that is fed forward, 0 to 1
     * @param window deviation, besides the gap that the gain gives, within which it counts as locked; at least half a step
     */
    public void control(double gain, double share, double window) {
        this.gain = Math.min(gain, STEEPEST / dt);
        this.share = share;
        this.window = Math.max(0.5, window);
        prepare();
    }

    private void prepare() {
        brake = Math.min(acceleration, deceleration);
        faster = acceleration * dt;
        slower = deceleration * dt;
        perGain = gain > 0 ? 1 / gain : 0;
        lineSpeed = brake * perGain;
        line = lineSpeed * perGain;
    }

    /** {@link #gap} by these numbers. */
    private double gapNow(double missing) {
        double size = Math.abs(missing);
        return size <= lineSpeed ? missing * perGain : gap(missing, gain, brake);
    }


    /**
     * Takes the follower as it is.
     *
     * @param follower where it is, whole steps
     * @param place    where the master has it before the offset, whole steps
     * @param speed    of the follower, steps/s
     */
    public void engage(Kind kind, long follower, long place, double speed) {
        this.kind = kind;
        this.speed = speed;
        offset = follower - place;
        deviation = 0;
        lost = 0;
        state = State.COMING_UP;
    }

    /** Another ratio or another way of tying while it follows: it goes on from where it is. @param place where the new ratio has it before the offset */
    public void engageAgain(Kind kind, long place, long placeBefore) {
        this.kind = kind;
        offset += placeBefore - place;
        state = State.COMING_UP;
    }

    /**
     * Takes a follower that has a place of its own and is not there yet: what it is away is made up.
     *
     * @param offset    of its place to that of the master, whole steps
     * @param deviation follower minus its place, steps
     * @param speed     of the follower, steps/s
     */
    public void engageAway(long offset, double deviation, double speed) {
        kind = Kind.POSITION;
        this.offset = offset;
        this.deviation = deviation;
        this.speed = speed;
        lost = 0;
        state = State.COMING_UP;
    }

    /** It is tied, with this offset and without deviation: a meeting curve has led it there. */
    public void lockedAt(long offset, double speed) {
        kind = Kind.POSITION;
        this.offset = offset;
        this.speed = speed;
        deviation = 0;
        lost = 0;
        state = State.LOCKED;
    }

    /**
     * One step.
     *
     * @param way         by how much the place has moved in this step
     * @param masterSpeed how fast it moves, as far as that is known, steps/s
     */
    public void step(double way, double masterSpeed) {
        double before = speed;
        double correction = kind == Kind.LOOSE || kind == Kind.SPEED && state == State.COMING_UP ? 0 : correction(-deviation);
        double wanted = (kind == Kind.LOOSE || state == State.COMING_UP && kind == Kind.SPEED ? 1 : share) * masterSpeed + correction;
        if (wanted > masterSpeed + catchUp) {
            wanted = masterSpeed + catchUp;
        } else if (wanted < masterSpeed - catchUp) {
            wanted = masterSpeed - catchUp;
        }
        if (Math.abs(wanted) > speedLimit) {
            wanted = Math.copySign(speedLimit, wanted);
        }
        speed = toward(before, wanted);
        limited = speed != wanted;
        deviation += speed * dt - way;
        if (kind == Kind.LOOSE) {
            state = limited ? State.COMING_UP : State.LOCKED;
            return;
        }
        if (kind == Kind.SPEED) {
            tiedBySpeed(before, masterSpeed);
        } else {
            expected = share == 1 ? 0 : -gapNow((1 - share) * masterSpeed);
            /* one that is just tied is at its place and has not the speed */
            boolean there = Math.abs(deviation - expected) <= window && (!limited || state == State.LOCKED);
            state = there ? State.LOCKED : limited && Math.abs(speed) < Math.abs(masterSpeed) ? State.COMING_UP : State.CATCHING_UP;
        }
        if (Math.abs(deviation) < 0.5 && !limited && share == 1) {
            deviation = 0;
        }
    }

    /** What is lost stays lost: when it has come to the speed, its place is the one it has. A master that it cannot follow loses it again. */
    private void tiedBySpeed(double before, double masterSpeed) {
        if (state == State.COMING_UP) {
            if (speed == masterSpeed || (masterSpeed - before) * (masterSpeed - speed) < 0) {
                long whole = (long) Math.rint(deviation);
                offset += whole;
                deviation -= whole;
                lost -= whole;
                state = State.LOCKED;
            }
        } else if (limited && Math.abs(deviation) > 2 * window + Math.abs(gapNow((1 - share) * masterSpeed)) + Math.abs(speed) * 2 * dt) {
            state = State.COMING_UP;
        }
    }

    /** Speed above the master's with which an error is made up. */
    private double correction(double error) {
        double size = Math.abs(error);
        return size <= line ? gain * error : Math.copySign(Math.sqrt(2 * brake * (size - 0.5 * line)), error);
    }

    /**
     * The deviation at which the lock makes up a speed: that part of the master's which is not fed forward.
     *
     * @param speed steps/s
     * @param gain  1/s
     * @param brake acceleration of its square-root part, steps/s²
     * @return how far the follower is behind, steps, with the sign of the speed
     */
    public static double gap(double speed, double gain, double brake) {
        double size = Math.abs(speed);
        return Math.copySign(size <= brake / gain ? size / gain : size * size / (2 * brake) + brake / (2 * gain * gain), speed);
    }

    /** The speed after one step toward another, within the acceleration limits; without a branch that the noise of a coarse master would make unforeseeable. */
    private double toward(double from, double to) {
        if (from * to < 0 && Math.abs(from) < slower) {
            return throughZero(from, to);
        }
        double most = faster == slower || from * (to - from) >= 0 ? faster : slower;
        return Math.max(from - most, Math.min(from + most, to));
    }

    /** What is left of the step after standing accelerates the other way. */
    private double throughZero(double from, double to) {
        double left = (1 - Math.abs(from) / slower) * faster;
        return Math.copySign(Math.min(Math.abs(to), left), to);
    }

    /** The place is numbered anew, or moved for good by whole steps. */
    public void shift(long by) {
        offset += by;
    }

    /** What the follower has more than the place of the master, whole steps. */
    public long offset() {
        return offset;
    }

    /** Follower minus its place, steps; with half a step or less it counts as 0. */
    public double deviation() {
        return deviation;
    }

    /** The deviation that the gain gives for what is not fed forward, steps. */
    public double expected() {
        return expected;
    }

    /** Speed of the follower, steps/s. */
    public double speed() {
        return speed;
    }

    /** Way that was lost while it came to the master's speed, steps, positive when the follower fell behind a master that moves forward. */
    public double lost() {
        return lost;
    }

    public State state() {
        return state;
    }
}
