package rueda.advice;

import java.util.SortedMap;
import java.util.TreeMap;
import rueda.machine.Axis;
import rueda.machine.AxisGuard;

/**
 * An axis that slows down from a speed to standstill, its deceleration limited in jerk or not (jerk-limited profile, any textbook of motion control): with
 * a' = min(a, √(v·j)) the ramp takes T = v/a' + a'/j, and since it is symmetric its way is v·T/2.
 *
 * @param speed        v at its begin, units/s, 0 or more
 * @param deceleration a, units/s², above 0
 * @param jerk         j, units/s³; infinite, or 0, for a deceleration that is there at once
 */
record SlowingDown(double speed, double deceleration, double jerk) {

    private static final int POINTS = 24;
    /** of the sums over a curved ramp, s; of one that hardly slows down the whole is taken in so many */
    private static final double STEP = 0.1e-3;
    private static final int MOST_STEPS = 100_000;

    /** How an axis slows down when its guard asks: by the quick stop of its drive at once, by the program with the jerk that an order takes which leaves it out. */
    static SlowingDown of(Axis axis, double speed, double deceleration) {
        return new SlowingDown(speed, deceleration, axis.guard().slowing() == AxisGuard.Slowing.DRIVE ? Double.POSITIVE_INFINITY : axis.limits().normal().jerk());
    }

    boolean curved() {
        return jerk > 0 && Double.isFinite(jerk);
    }

    /** The deceleration that it comes to. */
    private double most() {
        return curved() ? Math.min(deceleration, Math.sqrt(speed * jerk)) : deceleration;
    }

    /** How long the deceleration takes to come, s. */
    private double rise() {
        return curved() ? most() / jerk : 0;
    }

    /** T, s. */
    double seconds() {
        return speed == 0 ? 0 : speed / most() + rise();
    }

    /** Way from its begin to standstill, units. */
    double way() {
        return speed * seconds() / 2;
    }

    /** @param t s since it began */
    double at(double t) {
        double left = seconds() - t;
        if (t <= 0) {
            return speed;
        } else if (left <= 0) {
            return 0;
        } else if (t < rise()) {
            return speed - jerk * t * t / 2;
        }
        return left < rise() ? jerk * left * left / 2 : speed - most() * (t - rise() / 2);
    }

    /** Times since it began, s, and speeds, to draw it. */
    SortedMap<Double, Double> drawn() {
        TreeMap<Double, Double> points = new TreeMap<>();
        int parts = curved() ? POINTS : 1;
        for (int i = 0; i <= parts; i++) {
            points.put(seconds() * i / parts, at(seconds() * i / parts));
        }
        return points;
    }

    /**
     * Most that is gone beyond the limit of a watch in one go, units; null where that does not come to an end. The limit falls from the speed that is there when the watch begins.
     *
     * @param watched    when the watch begins, s since the ramp began, negative before
     * @param flattest   f, units/s²
     * @param standstill what the limit falls to, units/s
     */
    Double beyond(double watched, double flattest, double standstill) {
        if (!curved()) {
            double late = Math.max(0, -watched);
            /* beyond the limit from where the watch begins: ½·f·t² until the ramp, and while it catches up (f·t)²/2(a − f) */
            return late == 0 ? (Double) 0.0 : deceleration > flattest ? (Double) (flattest * late * late / 2 + flattest * late * flattest * late / (2 * (deceleration - flattest))) : null;
        }
        double most = 0;
        double sum = 0;
        double first = at(watched);
        double step = Math.max(STEP, (seconds() - watched) / MOST_STEPS);
        for (double t = watched; t <= seconds(); t += step) {
            double over = at(t) - Math.max(first - flattest * (t - watched), standstill);
            sum = over > 0 ? sum + over * step : 0;
            most = Math.max(most, sum);
        }
        return most;
    }
}
