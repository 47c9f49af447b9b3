package rueda.profile;

/** Ways of a change between rest and a speed with limited acceleration and jerk (Biagiotti & Melchiorri, double-S trajectories). */
public final class StoppingWay {

    private StoppingWay() {
    }

    /**
     * The way to rest: v²/(2a) + v·a/(2j); v·√(v/j) where the acceleration does not reach its limit; v²/(2a) without a jerk limit.
     *
     * @param speed        0 or more
     * @param deceleration greater than 0
     * @param jerk         0 for no limit
     */
    public static double of(double speed, double deceleration, double jerk) {
        if (jerk == 0) {
            return speed * speed / (2 * deceleration);
        }
        return speed < deceleration * deceleration / jerk ? speed * Math.sqrt(speed / jerk) : speed * speed / (2 * deceleration) + speed * deceleration / (2 * jerk);
    }

    /**
     * A speed from which a motion comes to rest within a way, or which it reaches from rest: s ≥ v²/(2a) + v·a/(2j) solved for v. At low
     * speeds, where the acceleration does not reach its limit, the way is v·√(v/j), which is less, by the inequality of the means.
     *
     * @param way          0 or more
     * @param acceleration greater than 0
     * @param jerk         0 for no limit
     */
    public static double speedWithin(double way, double acceleration, double jerk) {
        double rounding = jerk > 0 ? acceleration * acceleration / jerk : 0;
        return (Math.sqrt(rounding * rounding + 8 * acceleration * way) - rounding) / 2;
    }
}
