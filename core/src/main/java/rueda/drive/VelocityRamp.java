package rueda.drive;

/**
 * A setpoint that follows a wanted speed with limited acceleration, in whole counts: speed in 2^-24 counts per
 * sub-step, so that nothing drifts. No allocation; not thread-safe.
 */
final class VelocityRamp {

    private static final int FRACTION_BITS = 24;

    private final double subStep;
    private long position;
    private long fraction;
    private long velocity;
    /** the velocity for which the speed was worked out, and that */
    private long toldVelocity;
    private double told;

    /** @param subStep s */
    VelocityRamp(double subStep) {
        this.subStep = subStep;
    }

    /** Counts per second as the ramp's own unit. */
    long speedOf(double countsPerSecond) {
        return Math.round(countsPerSecond * subStep * (1L << FRACTION_BITS));
    }

    /** Counts/s² as change of speed per sub-step, at least the smallest step. */
    long rateOf(double countsPerSecondSquared) {
        return Math.max(1, Math.round(countsPerSecondSquared * subStep * subStep * (1L << FRACTION_BITS)));
    }

    /** Takes over a running setpoint. */
    void takeOver(long counts, double countsPerSecond) {
        position = counts;
        fraction = 0;
        velocity = speedOf(countsPerSecond);
    }

    /** One sub-step toward a speed; both in the ramp's own units. */
    void step(long wanted, long rate) {
        long before = velocity;
        velocity = wanted > velocity ? Math.min(wanted, velocity + rate) : Math.max(wanted, velocity - rate);
        long moved = fraction + ((before + velocity) >> 1);
        position += moved >> FRACTION_BITS;
        fraction = moved & (1L << FRACTION_BITS) - 1;
    }

    long position() {
        return position;
    }

    /** In the ramp's own unit, with its sign. */
    long speed() {
        return velocity;
    }

    boolean standsStill() {
        return velocity == 0;
    }

    int direction() {
        return Long.signum(velocity);
    }

    double countsPerSecond() {
        if (velocity != toldVelocity) {
            toldVelocity = velocity;
            told = velocity / (subStep * (1L << FRACTION_BITS));
        }
        return told;
    }
}
