package rueda.profile;

/**
 * What a motion may do, in any coherent units. "Forward" is the direction of the distance.
 *
 * @param maxVelocity     highest speed either way, greater than 0
 * @param maxAcceleration highest acceleration toward forward, greater than 0
 * @param maxDeceleration highest acceleration against forward, greater than 0
 * @param maxJerk         highest jerk either way; 0 for none (trapezoid)
 */
public record MotionLimits(double maxVelocity, double maxAcceleration, double maxDeceleration, double maxJerk) {
    public MotionLimits {
        requirePositive("maxVelocity", maxVelocity);
        requirePositive("maxAcceleration", maxAcceleration);
        requirePositive("maxDeceleration", maxDeceleration);
        if (!(maxJerk >= 0) || Double.isInfinite(maxJerk)) {
            throw new rueda.quantity.InvalidEntry("maxJerk", Double.toString(maxJerk), "0 (none) or greater than 0",
                    "enter 0 for a trapezoid");
        }
    }

    private static void requirePositive(String field, double value) {
        if (!(value > 0) || Double.isInfinite(value)) {
            throw new rueda.quantity.InvalidEntry(field, Double.toString(value), "greater than 0", "enter a positive number");
        }
    }
}
