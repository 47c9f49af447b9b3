package rueda.profile;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Arrays;
import net.jqwik.api.Arbitraries;
import net.jqwik.api.Arbitrary;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.Provide;
import net.jqwik.api.constraints.DoubleRange;
import net.jqwik.api.constraints.Size;
import org.hipparchus.analysis.interpolation.SplineInterpolator;
import org.hipparchus.analysis.polynomials.PolynomialSplineFunction;
import org.junit.jupiter.api.Test;

class TimedCurveTest {

    private static double[] sample(TimedCurve curve, double t) {
        double[] into = new double[3];
        curve.sample(t, into);
        return into;
    }

    /** Clamped spline of eˣ at 0, 1, 2, 3: Burden and Faires, Numerical Analysis, section 3.5, example 2 (coefficients from memory). */
    @Test
    void theClampedSplineOfTheTextbook() {
        double e = Math.E;
        TimedCurve curve = TimedCurve.throughPlaces(1, 1, new double[] {1, 1, 1}, new double[] {e, e * e, e * e * e}, e * e * e);
        double[][] pieces = {{1, 1, 0.44468, 0.27360}, {2.71828, 2.71016, 1.26545, 0.69513}, {7.38906, 7.32652, 3.35087, 2.01909}};
        for (int i = 0; i < 3; i++) {
            for (double x : new double[] {0, 0.25, 0.5, 0.999}) {
                double expected = pieces[i][0] + x * (pieces[i][1] + x * (pieces[i][2] + x * pieces[i][3]));
                assertThat(sample(curve, i + x)[0]).isCloseTo(expected, within(5e-5));
            }
        }
        assertThat(curve.duration()).isEqualTo(3);
    }

    /** A cubic is its own clamped spline. */
    @Property
    void aCubicIsFoundAgain(@ForAll @DoubleRange(min = -5, max = 5) double b, @ForAll @DoubleRange(min = -5, max = 5) double c, @ForAll @DoubleRange(min = -5, max = 5) double d) {
        double[] places = new double[4];
        double[] durations = {0.5, 0.25, 1, 0.3};
        double t = 0;
        for (int i = 0; i < 4; i++) {
            t += durations[i];
            places[i] = 7 + t * (b + t * (c + t * d));
        }
        TimedCurve curve = TimedCurve.throughPlaces(7, b, durations, places, b + t * (2 * c + t * 3 * d));
        for (double x = 0; x < t; x += 0.01) {
            double[] found = sample(curve, x);
            assertThat(found[0]).isCloseTo(7 + x * (b + x * (c + x * d)), within(1e-9));
            assertThat(found[1]).isCloseTo(b + x * (2 * c + x * 3 * d), within(1e-8));
            assertThat(found[2]).isCloseTo(2 * c + x * 6 * d, within(1e-7));
        }
    }

    @Provide
    Arbitrary<double[]> durations() {
        return Arbitraries.doubles().between(0.01, 3).array(double[].class).ofSize(5);
    }

    @Provide
    Arbitrary<double[]> values() {
        return Arbitraries.doubles().between(-100, 100).array(double[].class).ofSize(5);
    }

    /** Speed is the derivative of the place, neither jumps, and nothing is farther out than the extremes say; but they are touched. */
    @Property
    void nothingJumpsAndTheExtremesHold(@ForAll("durations") @Size(5) double[] durations, @ForAll("values") double[] values, @ForAll @DoubleRange(min = -50, max = 50) double speed) {
        double from = 3;
        for (TimedCurve curve : new TimedCurve[] {TimedCurve.throughPlaces(from, speed, durations, values, 0), TimedCurve.throughSpeeds(from, speed, durations, values), TimedCurve.throughAccelerations(from, speed, 1, durations, values)}) {
            TimedCurve.Extremes most = curve.extremes();
            double[] before = sample(curve, 0);
            assertThat(before[0]).isEqualTo(from);
            assertThat(before[1]).isCloseTo(speed, within(1e-9 * (1 + most.speed())));
            int n = 2000;
            double h = curve.duration() / n;
            double slack = 1e-9 * (1 + most.speed() * curve.duration() + most.highest() - most.lowest());
            double lowest = from;
            double highest = from;
            double fastest = 0;
            for (int i = 1; i <= n; i++) {
                double[] now = sample(curve, i * h);
                assertThat(now[0]).isBetween(most.lowest() - slack, most.highest() + slack);
                assertThat(Math.abs(now[1])).isLessThanOrEqualTo(most.speed() + slack);
                boolean slows = now[1] * now[2] < 0;
                assertThat(Math.abs(now[2])).isLessThanOrEqualTo((slows ? most.deceleration() : most.acceleration()) * (1 + 1e-9) + slack);
                assertThat(Math.abs(now[0] - before[0])).isLessThanOrEqualTo(most.speed() * h + slack);
                assertThat(Math.abs(now[1] - before[1])).isLessThanOrEqualTo(Math.max(most.acceleration(), most.deceleration()) * h + slack);
                lowest = Math.min(lowest, now[0]);
                highest = Math.max(highest, now[0]);
                fastest = Math.max(fastest, Math.abs(now[1]));
                before = now;
            }
            assertThat(highest - lowest).isCloseTo(most.highest() - most.lowest(), within(2 * most.speed() * h + slack));
            assertThat(Math.max(fastest, Math.abs(speed))).isCloseTo(most.speed(), within(Math.max(most.acceleration(), most.deceleration()) * h + slack));
        }
    }

    /** Uniform acceleration: s = ½·a·t²; behind its end it goes on at the last speed. */
    @Test
    void speedsAreJoinedByStraightLines() {
        TimedCurve curve = TimedCurve.throughSpeeds(10, 0, new double[] {2, 1}, new double[] {6, 6});
        assertThat(sample(curve, 1)).containsExactly(10 + 0.5 * 3, 3, 3);
        assertThat(sample(curve, 2.5)).containsExactly(16 + 3, 6, 0);
        assertThat(sample(curve, 5)).containsExactly(16 + 6 + 12, 6, 0);
    }

    /** Constant jerk: s = ⅙·j·t³. */
    @Test
    void accelerationsAreJoinedByStraightLines() {
        TimedCurve curve = TimedCurve.throughAccelerations(0, 0, 0, new double[] {1, 1}, new double[] {6, 0});
        assertThat(sample(curve, 1)).containsExactly(1, 3, 6);
        assertThat(sample(curve, 2)[1]).isEqualTo(6);
        assertThat(sample(curve, 3)).containsExactly(1 + 3 + 3 - 1 + 6, 6, 0);
    }

    /** Up with 3 u/s² and down with 6, then back with 1: which of them is braking depends on the way it goes. */
    @Test
    void accelerationAndDecelerationAreToldApart() {
        TimedCurve curve = TimedCurve.throughSpeeds(0, 0, new double[] {2, 1, 4, 2}, new double[] {6, 0, -4, 0});
        assertThat(curve.extremes()).isEqualTo(new TimedCurve.Extremes(-3, 9, 6, 3, 6));
        /* through standing in one stretch: it brakes and speeds up with the same */
        assertThat(TimedCurve.throughSpeeds(0, 4, new double[] {2}, new double[] {-4}).extremes()).isEqualTo(new TimedCurve.Extremes(0, 2, 4, 4, 4));
    }

    /** Against the reference library: the natural spline of Hipparchus is the clamped one with the speeds that it has at its ends. */
    @Test
    void theReferenceLibraryJoinsPlacesAlike() {
        double[] x = {0, 0.4, 1.1, 1.3, 2.5, 4};
        double[] y = {3, -2, 8, 7.5, 0, 1};
        double[] durations = new double[5];
        for (int i = 0; i < 5; i++) {
            durations[i] = x[i + 1] - x[i];
        }
        PolynomialSplineFunction reference = new SplineInterpolator().interpolate(x, y);
        double first = reference.polynomialSplineDerivative().value(0);
        double last = reference.polynomialSplineDerivative().value(4);
        TimedCurve curve = TimedCurve.throughPlaces(3, first, durations, Arrays.copyOfRange(y, 1, 6), last);
        for (double t = 0; t < 4; t += 0.003) {
            assertThat(sample(curve, t)[0]).isCloseTo(reference.value(t), within(1e-9));
        }
    }
}
