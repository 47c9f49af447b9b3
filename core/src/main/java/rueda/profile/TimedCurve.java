package rueda.profile;

import java.util.Arrays;
import java.util.stream.DoubleStream;

/**
 * A motion that a table gives over time: places, speeds or accelerations at instants. Between two instants the jerk is constant, so that the
 * position is a cubic polynomial there:
 * <pre>  s(τ) = s₀ + v₀·τ + ½·a₀·τ² + ⅙·j·τ³,   τ = t − tᵢ  </pre>
 *
 * <p>Places are joined by the clamped cubic spline (Burden and Faires, <i>Numerical Analysis</i>, section 3.5): speed and acceleration have no
 * jump, the speed at both ends is given. Speeds and accelerations are joined by straight lines.
 *
 * <p>Units are the caller's: places in u, times in s, speeds in u/s. Making one allocates, reading does not. Immutable.
 */
public final class TimedCurve {

    /** start of each piece, s; behind the last one its end */
    private final double[] at;
    private final double[] s;
    private final double[] v;
    private final double[] a;
    private final double[] j;

    private TimedCurve(double[] at, double[] s, double[] v, double[] a, double[] j) {
        this.at = at;
        this.s = s;
        this.v = v;
        this.a = a;
        this.j = j;
    }

    /**
     * Through places.
     *
     * @param from       place at first
     * @param speed      speed at first
     * @param durations  from one instant to the next one, s, each greater than 0
     * @param places     at the ends of these
     * @param finalSpeed speed at the last place
     */
    public static TimedCurve throughPlaces(double from, double speed, double[] durations, double[] places, double finalSpeed) {
        int n = durations.length;
        double[] s = new double[n + 1];
        s[0] = from;
        System.arraycopy(places, 0, s, 1, n);
        double[] m = secondDerivatives(s, durations, speed, finalSpeed);
        double[] v = new double[n + 1];
        double[] j = new double[n + 1];
        for (int i = 0; i < n; i++) {
            double h = durations[i];
            v[i] = (s[i + 1] - s[i]) / h - h * (2 * m[i] + m[i + 1]) / 6;
            j[i] = (m[i + 1] - m[i]) / h;
        }
        v[n] = finalSpeed;
        m[n] = 0;
        return new TimedCurve(instants(durations), s, v, m, j);
    }

    /** The equations of the clamped spline, solved from both ends (Thomas). */
    private static double[] secondDerivatives(double[] s, double[] h, double first, double last) {
        int n = h.length;
        double[] share = new double[n + 1];
        double[] m = new double[n + 1];
        for (int i = 0; i <= n; i++) {
            double before = i == 0 ? 0 : h[i - 1];
            double behind = i == n ? 0 : h[i];
            double slopeBefore = i == 0 ? first : (s[i] - s[i - 1]) / before;
            double slopeBehind = i == n ? last : (s[i + 1] - s[i]) / behind;
            double middle = 2 * (before + behind) - (i == 0 ? 0 : before * share[i - 1]);
            share[i] = behind / middle;
            m[i] = (6 * (slopeBehind - slopeBefore) - (i == 0 ? 0 : before * m[i - 1])) / middle;
        }
        for (int i = n - 1; i >= 0; i--) {
            m[i] -= share[i] * m[i + 1];
        }
        return m;
    }

    /** At speeds: from one to the next one with constant acceleration. See {@link #throughPlaces}. @param speeds at the ends of the durations */
    public static TimedCurve throughSpeeds(double from, double speed, double[] durations, double[] speeds) {
        int n = durations.length;
        double[] s = new double[n + 1];
        double[] v = new double[n + 1];
        double[] a = new double[n + 1];
        s[0] = from;
        v[0] = speed;
        for (int i = 0; i < n; i++) {
            v[i + 1] = speeds[i];
            a[i] = (v[i + 1] - v[i]) / durations[i];
            s[i + 1] = s[i] + 0.5 * (v[i] + v[i + 1]) * durations[i];
        }
        return new TimedCurve(instants(durations), s, v, a, new double[n + 1]);
    }

    /** With accelerations: from one to the next one with constant jerk, at the end with none. See {@link #throughPlaces}. @param accelerations at the ends of the durations */
    public static TimedCurve throughAccelerations(double from, double speed, double acceleration, double[] durations, double[] accelerations) {
        int n = durations.length;
        double[] s = new double[n + 1];
        double[] v = new double[n + 1];
        double[] a = new double[n + 1];
        double[] j = new double[n + 1];
        s[0] = from;
        v[0] = speed;
        a[0] = acceleration;
        for (int i = 0; i < n; i++) {
            double h = durations[i];
            a[i + 1] = accelerations[i];
            j[i] = (a[i + 1] - a[i]) / h;
            v[i + 1] = v[i] + h * (a[i] + h * j[i] / 2);
            s[i + 1] = s[i] + h * (v[i] + h * (a[i] / 2 + h * j[i] / 6));
        }
        a[n] = 0;
        return new TimedCurve(instants(durations), s, v, a, j);
    }

    private static double[] instants(double[] durations) {
        double[] at = new double[durations.length + 1];
        for (int i = 0; i < durations.length; i++) {
            at[i + 1] = at[i] + durations[i];
        }
        return at;
    }

    private int pieces() {
        return at.length - 1;
    }

    /** s */
    public double duration() {
        return at[pieces()];
    }

    /** Where, how fast and with which acceleration at a time; behind the end it goes on at the speed that it has there. @param into position, velocity, acceleration */
    public void sample(double time, double[] into) {
        int piece = piece(time);
        double t = time - at[piece];
        into[0] = s[piece] + t * (v[piece] + t * (a[piece] / 2 + t * j[piece] / 6));
        into[1] = v[piece] + t * (a[piece] + t * j[piece] / 2);
        into[2] = a[piece] + t * j[piece];
    }

    /** The last one that has begun. */
    private int piece(double time) {
        int low = 0;
        int high = pieces();
        while (low < high) {
            int middle = low + high + 1 >>> 1;
            if (at[middle] <= time) {
                low = middle;
            } else {
                high = middle - 1;
            }
        }
        return low;
    }

    /**
     * The most of everything on the way.
     *
     * @param lowest       place
     * @param highest      place
     * @param speed        without its sign
     * @param acceleration while the speed grows, without its sign
     * @param deceleration while it falls, without its sign
     */
    public record Extremes(double lowest, double highest, double speed, double acceleration, double deceleration) {
    }

    /** Exact but for rounding: of the ends of all pieces, and of the places inside where speed or acceleration pass zero. */
    public Extremes extremes() {
        double lowest = s[0];
        double highest = s[0];
        double speed = Math.abs(v[0]);
        double acceleration = 0;
        double deceleration = 0;
        for (int i = 0; i < pieces(); i++) {
            double[] times = turns(i);
            for (int k = 0; k < times.length; k++) {
                double t = times[k];
                double place = s[i] + t * (v[i] + t * (a[i] / 2 + t * j[i] / 6));
                lowest = Math.min(lowest, place);
                highest = Math.max(highest, place);
                speed = Math.max(speed, Math.abs(velocity(i, t)));
                if (k > 0) {
                    /* between two of these neither speed nor acceleration changes its sign */
                    double middle = (times[k - 1] + t) / 2;
                    double most = Math.max(Math.abs(a[i] + times[k - 1] * j[i]), Math.abs(a[i] + t * j[i]));
                    if (velocity(i, middle) * (a[i] + middle * j[i]) < 0) {
                        deceleration = Math.max(deceleration, most);
                    } else {
                        acceleration = Math.max(acceleration, most);
                    }
                }
            }
        }
        return new Extremes(lowest, highest, speed, acceleration, deceleration);
    }

    private double velocity(int piece, double t) {
        return v[piece] + t * (a[piece] + t * j[piece] / 2);
    }

    /** Begin and end of a piece, and in their order the times between at which its speed or its acceleration is 0, s since it began. */
    private double[] turns(int i) {
        double h = at[i + 1] - at[i];
        double root = Math.sqrt(Math.max(0, a[i] * a[i] - 2 * j[i] * v[i]));
        double[] zeros = j[i] == 0 ? new double[] {-v[i] / a[i]} : new double[] {-a[i] / j[i], (-a[i] + root) / j[i], (-a[i] - root) / j[i]};
        return DoubleStream.concat(DoubleStream.of(0, h), Arrays.stream(zeros).filter(t -> t > 0 && t < h)).sorted().toArray();
    }
}
