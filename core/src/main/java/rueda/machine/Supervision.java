package rueda.machine;

import io.soabase.recordbuilder.core.RecordBuilder;

/**
 * What the drive watches in every motion, and when it says so.
 *
 * @param positionWindow        in position: so near the target, units (6067h)
 * @param positionDwell         for so long, ms (6068h), 0 to 10 000
 * @param positionTolerance     a target not reached so long after the setpoint stands is reported, ms; 0 for never
 * @param followingError        allowed following error, units (6065h)
 * @param followingErrorAtSpeed the same at the highest speed, units, at least the one above
 * @param followingFrom         speed from which it grows in a straight line, units/s
 * @param followingErrorTime    how long it may be exceeded, ms (6066h), 0 to 10 000
 * @param standstillWindow      standstill: the axis stays within so much, units
 * @param standstillDwell       for so long, ms, 0 to 10 000
 */
@RecordBuilder
public record Supervision(double positionWindow, int positionDwell, int positionTolerance, double followingError, double followingErrorAtSpeed,
                          double followingFrom, int followingErrorTime, double standstillWindow, int standstillDwell) implements SupervisionBuilder.With {

    /** Windows of one size, a following error that does not grow with speed. */
    public static Supervision of(double window, double followingError) {
        return new Supervision(window, 5, 500, followingError, followingError, 0, 20, window, 50);
    }

    /** Allowed following error at a speed: the fixed one, then rising in a straight line to that at the highest speed. */
    public double allowedFollowingError(double speed, double highestSpeed) {
        return allowed(speed, followingFrom, highestSpeed, followingError, followingErrorAtSpeed);
    }

    /** The same in any unit: {@code least} up to the speed {@code from}, then in a straight line to {@code most} at {@code highest}. */
    public static double allowed(double speed, double from, double highest, double least, double most) {
        double over = Math.abs(speed) - from;
        double range = highest - from;
        return over <= 0 || range <= 0 ? least : least + (most - least) * Math.min(1, over / range);
    }

    /** The same following error at every speed. */
    public Supervision withFollowingErrors(double changed) {
        return withFollowingError(changed).withFollowingErrorAtSpeed(changed);
    }

    public Supervision withPosition(double window, int dwell, int tolerance) {
        return withPositionWindow(window).withPositionDwell(dwell).withPositionTolerance(tolerance);
    }
}
