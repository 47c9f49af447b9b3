package rueda.profile;

/**
 * A planned motion: up to seven segments of constant jerk, exact at the end.
 *
 * <p>Planning and reading allocate nothing, so one instance serves every move of an axis. Cost: planning below
 * a microsecond, reading a few nanoseconds. Not thread-safe.
 */
public final class MotionProfile {

    private static final int CAPACITY = 8;
    private static final int NEWTON_STEPS = 80;
    /** Parts in which a stretch of peaks is searched where the way does not grow steadily with the peak. */
    private static final int PARTS = 16;

    private final double[] startTime = new double[CAPACITY + 1];
    private final double[] position = new double[CAPACITY + 1];
    private final double[] velocity = new double[CAPACITY + 1];
    private final double[] acceleration = new double[CAPACITY + 1];
    private final double[] jerk = new double[CAPACITY];
    private int segments;
    /* the segment that was sampled last, as time mostly goes on: where it begins and ends, and its coefficients */
    private double from;
    private double until;
    private double place;
    private double speed;
    private double slope;
    private double halfSlope;
    private double change;
    private double halfChange;
    private double sixthChange;
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
     * <p>It begins with the speed and the acceleration that are there: a motion that brakes goes on braking where the new one would, so that
     * an order given again while braking still ends at its target. A start speed above the limit is brought down to it first.
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
        this.maxAcceleration = maxAcceleration;
        this.maxDeceleration = maxDeceleration;
        sign = end < start ? -1 : 1;
        double distance = Math.abs(end - start);
        double v0 = sign * startVelocity;
        double a0 = sign * acceleration[0];
        double v1 = sign * endVelocity;
        // What the subtraction of two places can be wrong by: a way within it is the way that is there.
        double doubt = 4e-16 * (Math.abs(start) + Math.abs(end)) + 2e-13 * distance;
        double peak = peakVelocity(distance, v0, a0, v1, maxVelocity, doubt);
        double cruise = peak == 0 ? 0 : (distance - travel(v0, a0, peak, v1)) / peak;
        peakVelocity = sign * peak;
        appendChange(v0, a0, peak);
        if (cruise > 0) {
            append(0, cruise);
        }
        appendChange(peak, 0, v1);
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
        appendChange(startVelocity, acceleration[0], endVelocity);
        peakVelocity = endVelocity;
        this.endVelocity = endVelocity;
        this.endPosition = position[segments];
    }

    private void begin(double start, double startVelocity, double startAcceleration) {
        segments = 0;
        until = Double.NEGATIVE_INFINITY;
        startTime[0] = 0;
        position[0] = start;
        velocity[0] = startVelocity;
        acceleration[0] = startAcceleration;
    }

    /**
     * The velocity between the two changes: the highest one that makes the way. Above what the start acceleration alone leads to, the end
     * speed and zero the way grows steadily with it. Below, a peak just short of one of these makes the way longer (a change of speed that
     * is cut in two takes more time), so that there can be several that fit, and the stretches between them are searched from above.
     */
    private double peakVelocity(double distance, double v0, double a0, double v1, double limit, double doubt) {
        if (Math.abs(travel(v0, a0, v1, v1) - distance) <= doubt) {
            return v1;
        }
        if (travel(v0, a0, limit, v1) <= distance) {
            return limit;
        }
        double led = maxJerk > 0 ? v0 + a0 * Math.abs(a0) / (2 * maxJerk) : v0;
        double above = limit;
        // Stretches from above: down to the greatest of the three marks, then between them, then to the limit on the other side.
        for (int k = 0; k < 4; k++) {
            double below = Math.max(-limit, k == 0 ? Math.max(led, Math.max(v1, 0)) : k == 1 ? middle(led, v1, 0) : k == 2 ? Math.min(led, Math.min(v1, 0)) : -limit);
            int parts = k == 1 || k == 2 ? PARTS : 1;
            double top = above;
            for (int i = 1; i <= parts && below < top; i++) {
                double low = i == parts ? below : top - (top - below) * i / parts;
                double way = travel(v0, a0, low, v1);
                if (Math.abs(way - distance) <= doubt) {
                    return low;
                }
                if (way < distance) {
                    return solve(distance, v0, a0, v1, low, above);
                }
                above = low;
            }
        }
        return -limit;
    }

    private static double middle(double a, double b, double c) {
        return Math.max(Math.min(a, b), Math.min(Math.max(a, b), c));
    }

    /**
     * The peak between two of which the lower one falls short of the way: a safeguarded Newton search. Where the way grows like a root, the
     * nearest number still misses it; then the peak on that side is taken from which a cruise makes up the rest.
     */
    private double solve(double distance, double v0, double a0, double v1, double low, double high) {
        double guess = trapezoidPeak(distance, v0, v1, low, high);
        for (int step = 0; step < NEWTON_STEPS; step++) {
            double miss = travel(v0, a0, guess, v1) - distance;
            if (miss == 0) {
                return guess;
            }
            if (miss > 0) {
                high = guess;
            } else {
                low = guess;
            }
            double slope = travelSlope(v0, a0, guess, v1);
            double next = guess - miss / slope;
            if (!(next > low && next < high)) {
                next = 0.5 * (low + high);
            }
            if (next == guess || !(next > low && next < high)) {
                break;
            }
            guess = next;
        }
        return high <= 0 ? high : low;
    }

    /** Peak of the same motion without a jerk limit: a first guess. */
    private double trapezoidPeak(double distance, double v0, double v1, double low, double high) {
        double a = maxAcceleration;
        double d = maxDeceleration;
        double square = (2 * a * d * distance + d * v0 * v0 + a * v1 * v1) / (a + d);
        double guess = square > 0 ? Math.sqrt(square) : 0.5 * (low + high);
        return guess > low && guess < high ? guess : 0.5 * (low + high);
    }

    private double travel(double v0, double a0, double peak, double v1) {
        return changeWay(v0, a0, peak) + changeWay(peak, 0, v1);
    }

    /** Way of a change. */
    private double changeWay(double from, double a0, double to) {
        shape(from, a0, to);
        if (a0 == 0) {
            return 0.5 * (from + to) * (first + held + last);
        }
        double a = direction * a0;
        double j = firstJerk;
        double v = direction * from;
        double way = first * (v + first * (a / 2 + first * j / 6));
        v += first * (a + first * j / 2);
        way += held * (v + held * steepest / 2);
        v += held * steepest;
        way += last * (v + last * (steepest / 2 - last * maxJerk / 6));
        return direction * way;
    }

    /** Derivative of the travel by the peak. With the speed w at the start of the last ramp of a change, in its direction, it is w/a + a/j. */
    private double travelSlope(double v0, double a0, double peak, double v1) {
        shape(v0, a0, peak);
        double slope = steepest == 0 ? 0 : changeSlope(peak);
        shape(v1, 0, peak);
        // The same change backwards in time, with the limit of the way forwards.
        double limit = direction > 0 ? maxDeceleration : maxAcceleration;
        double change = Math.abs(peak - v1);
        steepest = maxJerk == 0 ? limit : Math.min(limit, Math.sqrt(change * maxJerk));
        return slope + (change == 0 ? 0 : changeSlope(peak));
    }

    private double changeSlope(double peak) {
        double ramp = maxJerk == 0 ? 0 : steepest / (2 * maxJerk);
        return direction * peak / steepest + ramp;
    }

    /* shape of one change: times of its three phases, highest acceleration, direction, jerk of the first phase in that direction */
    private double first;
    private double held;
    private double last;
    private double steepest;
    private double direction;
    private double firstJerk;

    /**
     * The fastest change from a speed and an acceleration to another speed and none: the acceleration goes to a peak, holds it, goes to zero.
     * With the start acceleration a₀ and the change Δv in its direction the peak is √(j·Δv + a₀²/2), at most the limit.
     */
    private void shape(double from, double a0, double to) {
        double change = to - from;
        if (maxJerk == 0) {
            direction = change < 0 ? -1 : 1;
            steepest = change > 0 ? maxAcceleration : maxDeceleration;
            first = 0;
            last = 0;
            held = Math.abs(change) / steepest;
            return;
        }
        double led = a0 * Math.abs(a0) / (2 * maxJerk);
        double missing = change - led;
        firstJerk = maxJerk;
        held = 0;
        // Where the change is what the acceleration leads to by itself, the rounding of the difference must not add a swing to either side.
        if (Math.abs(missing) <= 1e-15 * (Math.abs(from) + Math.abs(to) + Math.abs(led))) {
            direction = a0 < 0 ? -1 : 1;
            steepest = Math.abs(a0);
            first = 0;
            last = steepest / maxJerk;
            return;
        }
        direction = missing < 0 ? -1 : 1;
        double a = direction * a0;
        double v = direction * change;
        double limit = direction > 0 ? maxAcceleration : maxDeceleration;
        double peak = Math.sqrt(Math.max(0, maxJerk * v + a * a / 2));
        if (peak <= limit) {
            steepest = peak;
            first = Math.max(0, (peak - a) / maxJerk);
            last = peak / maxJerk;
            return;
        }
        steepest = limit;
        first = Math.abs(limit - a) / maxJerk;
        last = limit / maxJerk;
        double risen = Math.abs(limit * limit - a * a) / (2 * maxJerk);
        if (a > limit) {
            firstJerk = -maxJerk;
        }
        held = Math.max(0, (v - risen - limit * last / 2) / limit);
    }

    private void appendChange(double from, double a0, double to) {
        shape(from, a0, to);
        double along = sign * direction;
        if (maxJerk == 0) {
            acceleration[segments] = along * steepest;
            append(0, held);
        } else {
            append(along * firstJerk, first);
            acceleration[segments] = first > 0 || a0 == 0 ? along * steepest : acceleration[segments];
            append(0, held);
            append(-along * maxJerk, last);
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

    /**
     * The farthest place of the whole motion.
     *
     * @param side 1 for the highest position, −1 for the lowest
     */
    public double farthest(int side) {
        double farthest = Math.max(side * position[0], side * endPosition);
        for (int k = 0; k < segments; k++) {
            farthest = Math.max(farthest, side * position[k]);
            double length = startTime[k + 1] - startTime[k];
            // Where the speed is zero within the segment: v + a·t + j·t²/2 = 0.
            double root = acceleration[k] * acceleration[k] - 2 * jerk[k] * velocity[k];
            if (root < 0 || jerk[k] == 0 && acceleration[k] == 0) {
                continue;
            }
            double q = -(acceleration[k] + Math.copySign(Math.sqrt(root), acceleration[k]));
            farthest = Math.max(farthest, side * inside(k, 2 * velocity[k] / q, length));
            farthest = Math.max(farthest, side * inside(k, jerk[k] == 0 ? Double.NaN : q / jerk[k], length));
        }
        return side * farthest;
    }

    /** Position in a segment, at its start for a time outside. */
    private double inside(int k, double t, double length) {
        return t > 0 && t < length ? position[k] + t * (velocity[k] + t * (acceleration[k] / 2 + t * jerk[k] / 6)) : position[k];
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

    /** The same motion, elsewhere. @param by added to every position */
    public void shift(double by) {
        for (int k = 0; k <= segments; k++) {
            position[k] += by;
        }
        place += by;
        endPosition += by;
    }

    /**
     * Position, velocity and acceleration at once.
     *
     * @param time   s since the start of the motion
     * @param values takes the three
     */
    public void sample(double time, double[] values) {
        double t = seek(time);
        values[0] = positionIn(t);
        values[1] = velocityIn(t);
        values[2] = accelerationIn(t);
    }

    /**
     * Goes to a time, for whoever reads on from one to the next: costs two comparisons within a segment.
     *
     * @param time s since the start of the motion
     * @return s since its segment began, for {@link #positionIn}, {@link #velocityIn} and {@link #accelerationIn}
     */
    public double seek(double time) {
        if (!(time >= from && time < until)) {
            take(time);
        }
        return (time < 0 ? 0 : time) - from;
    }

    /** @param t what {@link #seek} has given last */
    public double positionIn(double t) {
        /* halves beside each other instead of one inside the other: a processor computes them at the same time */
        return place + t * speed + t * t * (halfSlope + t * sixthChange);
    }

    /** @param t what {@link #seek} has given last */
    public double velocityIn(double t) {
        return speed + t * slope + t * t * halfChange;
    }

    /** @param t what {@link #seek} has given last */
    public double accelerationIn(double t) {
        return slope + t * change;
    }

    /** Behind the end it goes on at the end velocity. */
    private void take(double time) {
        if (time < startTime[segments]) {
            take(at(time));
            return;
        }
        from = startTime[segments];
        until = Double.POSITIVE_INFINITY;
        place = endPosition;
        speed = endVelocity;
        slope = 0;
        halfSlope = 0;
        change = 0;
        halfChange = 0;
        sixthChange = 0;
    }

    /** Divisions take as long as all the rest of a reading: they are done once a segment. */
    private void take(int k) {
        from = startTime[k];
        until = startTime[k + 1];
        place = position[k];
        speed = velocity[k];
        slope = acceleration[k];
        halfSlope = slope / 2;
        change = jerk[k];
        halfChange = change / 2;
        sixthChange = change / 6;
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
