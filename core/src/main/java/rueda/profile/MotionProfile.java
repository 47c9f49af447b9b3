package rueda.profile;

/**
 * A planned motion: up to eight segments of constant jerk (seven of the profile, one that first takes a running
 * acceleration to zero), exact at the end.
 *
 * <p>Planning and reading allocate nothing, so one instance serves every move of an axis. Cost: planning below
 * a microsecond, reading a few nanoseconds. Not thread-safe.
 */
public final class MotionProfile {

    private static final int CAPACITY = 9;
    private static final int NEWTON_STEPS = 80;

    private final double[] startTime = new double[CAPACITY + 1];
    private final double[] position = new double[CAPACITY + 1];
    private final double[] velocity = new double[CAPACITY + 1];
    private final double[] acceleration = new double[CAPACITY + 1];
    private final double[] jerk = new double[CAPACITY];
    private int segments;
    private double endPosition;
    private double endVelocity;

    /* the motion being planned, in the frame in which the distance is not negative */
    private double sign;
    private double maxAcceleration;
    private double maxDeceleration;
    private double maxJerk;
    private double peakVelocity;

    /** Plans from rest acceleration. See {@link #plan(double, double, double, double, double, double, double, double, double)}. */
    public void plan(double start, double startVelocity, double end, double endVelocity, MotionLimits limits) {
        plan(start, startVelocity, 0, end, endVelocity, limits.maxVelocity(), limits.maxAcceleration(),
                limits.maxDeceleration(), limits.maxJerk());
    }

    /**
     * Plans the fastest motion that keeps the limits.
     *
     * <p>A start acceleration other than zero is first taken to zero at the highest jerk; from there on the motion
     * is time-optimal. A start speed above the limit is brought down to it first.
     *
     * @param start             start position
     * @param startVelocity     start velocity
     * @param startAcceleration start acceleration, ignored without a jerk limit
     * @param end               end position
     * @param endVelocity       end velocity, within ±maxVelocity
     * @param maxVelocity       greater than 0
     * @param maxAcceleration   acceleration toward the end position, greater than 0
     * @param maxDeceleration   acceleration away from it, greater than 0
     * @param maxJerk           0 for a trapezoid
     */
    public void plan(double start, double startVelocity, double startAcceleration, double end, double endVelocity,
                     double maxVelocity, double maxAcceleration, double maxDeceleration, double maxJerk) {
        begin(start, startVelocity, maxJerk > 0 ? startAcceleration : 0);
        this.endPosition = end;
        this.endVelocity = endVelocity;
        this.maxJerk = maxJerk;
        if (maxJerk > 0 && startAcceleration != 0) {
            append(-Math.signum(startAcceleration) * maxJerk, Math.abs(startAcceleration) / maxJerk);
            acceleration[segments] = 0;
        }
        double distance = end - position[segments];
        sign = distance < 0 ? -1 : 1;
        distance = Math.abs(distance);
        this.maxAcceleration = maxAcceleration;
        this.maxDeceleration = maxDeceleration;
        double v0 = sign * velocity[segments];
        double v1 = sign * endVelocity;
        double peak = peakVelocity(distance, v0, v1, maxVelocity);
        double cruise = peak == 0 ? 0 : (distance - travel(v0, peak, v1)) / peak;
        peakVelocity = sign * peak;
        appendChange(v0, peak);
        if (cruise > 0) {
            append(0, cruise);
        }
        appendChange(peak, v1);
    }

    /**
     * Plans the fastest change of velocity, wherever it ends.
     *
     * @param limit highest acceleration either way, greater than 0
     */
    public void planVelocity(double start, double startVelocity, double startAcceleration, double endVelocity,
                             double limit, double maxJerk) {
        begin(start, startVelocity, maxJerk > 0 ? startAcceleration : 0);
        this.maxJerk = maxJerk;
        this.maxAcceleration = limit;
        this.maxDeceleration = limit;
        sign = 1;
        if (maxJerk > 0 && startAcceleration != 0) {
            append(-Math.signum(startAcceleration) * maxJerk, Math.abs(startAcceleration) / maxJerk);
            acceleration[segments] = 0;
        }
        appendChange(velocity[segments], endVelocity);
        peakVelocity = endVelocity;
        this.endVelocity = endVelocity;
        this.endPosition = position[segments];
    }

    private void begin(double start, double startVelocity, double startAcceleration) {
        segments = 0;
        startTime[0] = 0;
        position[0] = start;
        velocity[0] = startVelocity;
        acceleration[0] = startAcceleration;
    }

    /**
     * The velocity between the two changes. Outside the span of start, end and zero velocity the travel grows
     * steadily with it, so a safeguarded Newton search finds it; see the package for T(Δv).
     */
    private double peakVelocity(double distance, double v0, double v1, double limit) {
        double direct = travel(v0, v1, v1);
        if (distance >= direct) {
            double low = Math.max(0, Math.max(v0, v1));
            if (v0 > limit) {
                return travel(v0, limit, v1) <= distance ? limit : solve(distance, v0, v1, v1, limit);
            }
            return travel(v0, limit, v1) <= distance ? limit : solve(distance, v0, v1, low, limit);
        }
        double slower = Math.min(v0, v1);
        if (slower > 0 && travel(v0, 0, v1) < distance) {
            /* with a jerk limit a short dip to a slower speed, not to rest, can be what shortens the way */
            return solve(distance, v0, v1, 0, slower);
        }
        double high = Math.min(0, slower);
        double low = Math.min(-limit, high);
        return travel(v0, low, v1) >= distance ? low : solve(distance, v0, v1, low, high);
    }

    private double solve(double distance, double v0, double v1, double low, double high) {
        double guess = trapezoidPeak(distance, v0, v1, low, high);
        /* a change of no speed takes no time: near it the travel rises like a root, so the bound itself is tried */
        double nearer = Math.abs(low - v0) < Math.abs(high - v0) ? low : high;
        if (Math.abs(travel(v0, nearer, v1) - distance) <= 1e-15 * distance) {
            return nearer;
        }
        for (int step = 0; step < NEWTON_STEPS; step++) {
            double miss = travel(v0, guess, v1) - distance;
            if (miss > 0) {
                high = guess;
            } else {
                low = guess;
            }
            double slope = travelSlope(v0, guess, guess >= v0 ? maxAcceleration : maxDeceleration)
                    + travelSlope(v1, guess, guess >= v1 ? maxDeceleration : maxAcceleration);
            double next = guess - miss / slope;
            if (!(next > low && next < high)) {
                next = 0.5 * (low + high);
            }
            double resolution = 2e-16 * Math.abs(next);
            if (Math.abs(next - guess) <= resolution || high - low <= resolution) {
                return next;
            }
            guess = next;
        }
        return guess;
    }

    /** Peak of the same motion without a jerk limit: a first guess. */
    private double trapezoidPeak(double distance, double v0, double v1, double low, double high) {
        double a = maxAcceleration;
        double d = maxDeceleration;
        double square = (2 * a * d * distance + d * v0 * v0 + a * v1 * v1) / (a + d);
        double guess = square > 0 ? Math.sqrt(square) : 0.5 * (low + high);
        return guess > low && guess < high ? guess : 0.5 * (low + high);
    }

    private double travel(double v0, double peak, double v1) {
        return 0.5 * (v0 + peak) * changeTime(v0, peak) + 0.5 * (peak + v1) * changeTime(peak, v1);
    }

    private double changeTime(double from, double to) {
        double change = to - from;
        double limit = change >= 0 ? maxAcceleration : maxDeceleration;
        change = Math.abs(change);
        if (maxJerk == 0) {
            return change / limit;
        }
        return change * maxJerk >= limit * limit ? change / limit + limit / maxJerk : 2 * Math.sqrt(change / maxJerk);
    }

    /** Derivative by the peak of the travel between {@code other} and the peak, done with {@code limit}. */
    private double travelSlope(double other, double peak, double limit) {
        boolean rising = peak >= other;
        double change = Math.abs(peak - other);
        double time;
        double slope;
        if (maxJerk == 0) {
            time = change / limit;
            slope = 1 / limit;
        } else if (change * maxJerk >= limit * limit) {
            time = change / limit + limit / maxJerk;
            slope = 1 / limit;
        } else {
            time = 2 * Math.sqrt(change / maxJerk);
            slope = change == 0 ? 0 : 1 / Math.sqrt(change * maxJerk);
        }
        return 0.5 * time + 0.5 * (other + peak) * (rising ? slope : -slope);
    }

    private void appendChange(double from, double to) {
        double change = to - from;
        if (change == 0) {
            return;
        }
        double limit = change > 0 ? maxAcceleration : maxDeceleration;
        double direction = sign * Math.signum(change);
        change = Math.abs(change);
        if (maxJerk == 0) {
            acceleration[segments] = direction * limit;
            append(0, change / limit);
        } else if (change * maxJerk >= limit * limit) {
            append(direction * maxJerk, limit / maxJerk);
            append(0, change / limit - limit / maxJerk);
            append(-direction * maxJerk, limit / maxJerk);
        } else {
            double ramp = Math.sqrt(change / maxJerk);
            append(direction * maxJerk, ramp);
            append(-direction * maxJerk, ramp);
        }
        acceleration[segments] = 0;
        velocity[segments] = sign * to;
    }

    private void append(double segmentJerk, double duration) {
        if (duration <= 0) {
            return;
        }
        int k = segments;
        jerk[k] = segmentJerk;
        double a = acceleration[k];
        double v = velocity[k];
        acceleration[k + 1] = a + segmentJerk * duration;
        velocity[k + 1] = v + duration * (a + duration * segmentJerk / 2);
        position[k + 1] = position[k] + duration * (v + duration * (a / 2 + duration * segmentJerk / 6));
        startTime[k + 1] = startTime[k] + duration;
        segments = k + 1;
    }

    /** Duration of the whole motion, s. */
    public double duration() {
        return startTime[segments];
    }

    /** Velocity between the two changes: the highest reached in a motion from rest. */
    public double peakVelocity() {
        return peakVelocity;
    }

    public int segmentCount() {
        return segments;
    }

    /** @param index 0 to {@link #segmentCount()} − 1 */
    public Segment segment(int index) {
        return new Segment(startTime[index], startTime[index + 1] - startTime[index], position[index], velocity[index],
                acceleration[index], jerk[index]);
    }

    private int at(double time) {
        int k = 0;
        while (k + 1 < segments && time >= startTime[k + 1]) {
            k++;
        }
        return k;
    }

    /** Position at a time since the start; before it the start, after the end carried on at the end velocity. */
    public double position(double time) {
        if (time >= startTime[segments]) {
            return endPosition + endVelocity * (time - startTime[segments]);
        }
        int k = at(time);
        double t = Math.max(0, time) - startTime[k];
        return position[k] + t * (velocity[k] + t * (acceleration[k] / 2 + t * jerk[k] / 6));
    }

    public double velocity(double time) {
        if (time >= startTime[segments]) {
            return endVelocity;
        }
        int k = at(time);
        double t = Math.max(0, time) - startTime[k];
        return velocity[k] + t * (acceleration[k] + t * jerk[k] / 2);
    }

    public double acceleration(double time) {
        if (time >= startTime[segments]) {
            return 0;
        }
        int k = at(time);
        return acceleration[k] + (Math.max(0, time) - startTime[k]) * jerk[k];
    }

    /**
     * Position, velocity and acceleration at once.
     *
     * @param time   s since the start of the motion
     * @param values takes the three
     */
    public void sample(double time, double[] values) {
        if (time >= startTime[segments]) {
            values[0] = endPosition + endVelocity * (time - startTime[segments]);
            values[1] = endVelocity;
            values[2] = 0;
            return;
        }
        int k = at(time);
        double t = Math.max(0, time) - startTime[k];
        double a = acceleration[k];
        double j = jerk[k];
        values[0] = position[k] + t * (velocity[k] + t * (a / 2 + t * j / 6));
        values[1] = velocity[k] + t * (a + t * j / 2);
        values[2] = a + t * j;
    }

    public double jerk(double time) {
        return time >= startTime[segments] || time < 0 ? 0 : jerk[at(time)];
    }

    /**
     * One stretch of constant jerk.
     *
     * @param start        s since the start of the motion
     * @param duration     s
     * @param position     at its start
     * @param velocity     at its start
     * @param acceleration at its start
     * @param jerk         throughout
     */
    public record Segment(double start, double duration, double position, double velocity, double acceleration, double jerk) {
    }
}
