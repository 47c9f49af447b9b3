package rueda.profile;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.Random;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.DoubleRange;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import rueda.quantity.InvalidEntry;

class MotionProfileTest {

    private final MotionProfile profile = new MotionProfile();

    /** Biagiotti & Melchiorri, chapter 3, double S, worked example (values from memory, recomputed by hand from the formulas). */
    @Test
    void doubleSWithCruise() {
        profile.plan(0, 1, 10, 0, new MotionLimits(5, 10, 10, 30));
        assertThat(profile.duration()).isCloseTo(2.71, within(1e-12));
        double accelerating = profile.segment(0).duration() + profile.segment(1).duration() + profile.segment(2).duration();
        assertThat(accelerating).isCloseTo(0.73333, within(1e-4));
        assertThat(profile.segment(3).duration()).isCloseTo(1.14333, within(1e-4));
        assertThat(profile.duration() - accelerating - profile.segment(3).duration()).isCloseTo(0.83333, within(1e-4));
    }

    /** The same book and chapter: with vmax 10 the limit is not reached; the peak is 8.4136. */
    @Test
    void doubleSWithoutCruise() {
        profile.plan(0, 1, 10, 0, new MotionLimits(10, 10, 10, 30));
        assertThat(profile.peakVelocity()).isCloseTo(8.4136, within(1e-4));
    }

    /** Common practice, no source. */
    @ParameterizedTest
    @CsvSource({"0.060, 0.05, 10, 1.205", "0.050, 0.1, 1, 0.600", "0.060, 1, 50, 0.080"})
    void trapezoids(double distance, double speed, double acceleration, double duration) {
        profile.plan(0, 0, distance, 0, new MotionLimits(speed, acceleration, acceleration, 0));
        assertThat(profile.duration()).isCloseTo(duration, within(1e-12));
    }

    /** Common practice, no source: 0 to 60 Hz in 5 s is 12 Hz/s, so 0 to 30 Hz takes 2.5 s. */
    @Test
    void ramp() {
        profile.planVelocity(0, 0, 0, 30, 12, 0);
        assertThat(profile.duration()).isCloseTo(2.5, within(1e-12));
    }

    /** Found by the property below: the way is a little shorter than that of the change of speed alone. */
    @Test
    void aDipShortOfRestShortensTheWay() {
        profile.plan(0, 0.01, 1.08, 2.56, new MotionLimits(4, 5.14, 1, 14.88));
        MotionProfile.Segment last = profile.segment(profile.segmentCount() - 1);
        double t = last.duration();
        assertThat(last.position() + t * (last.velocity() + t * (last.acceleration() / 2 + t * last.jerk() / 6))).isCloseTo(1.08, within(1e-9));
        assertThat(profile.segment(1).velocity()).isBetween(0.0, 0.01);
    }

    @Property(tries = 2000)
    void keepsLimitsIsContinuousAndEndsExactly(@ForAll @DoubleRange(min = -100, max = 100) double distance,
            @ForAll @DoubleRange(min = -6, max = 6) double v0, @ForAll @DoubleRange(min = -4, max = 4) double v1,
            @ForAll @DoubleRange(min = 4, max = 20) double vmax, @ForAll @DoubleRange(min = 1, max = 50) double a,
            @ForAll @DoubleRange(min = 1, max = 50) double d, @ForAll @DoubleRange(min = 5, max = 500) double j) {
        for (double jerk : new double[] {0, j}) {
            profile.plan(3, v0, 3 + distance, v1, new MotionLimits(vmax, a, d, jerk));
            double end = profile.duration();
            assertThat(profile.position(end)).isEqualTo(3 + distance);
            assertThat(profile.velocity(end)).isEqualTo(v1);
            assertThat(profile.position(0)).isEqualTo(3);
            double highest = Math.max(vmax, Math.abs(v0)) * (1 + 1e-9);
            double steepest = Math.max(a, d) * (1 + 1e-9);
            double tolerance = 1e-8 * (1 + Math.abs(distance) + end * highest);
            for (int i = 0; i < profile.segmentCount(); i++) {
                MotionProfile.Segment s = profile.segment(i);
                double t = s.duration();
                double v = s.velocity() + t * (s.acceleration() + t * s.jerk() / 2);
                double x = s.position() + t * (s.velocity() + t * (s.acceleration() / 2 + t * s.jerk() / 6));
                boolean last = i + 1 == profile.segmentCount();
                assertThat(x).as("%s %s %s %s %s %s %s",distance,v0,v1,vmax,a,d,jerk).isCloseTo(last ? 3 + distance : profile.segment(i + 1).position(), within(tolerance));
                assertThat(v).isCloseTo(last ? v1 : profile.segment(i + 1).velocity(), within(1e-8 * (1 + highest)));
                assertThat(Math.abs(s.velocity())).isLessThanOrEqualTo(highest);
                assertThat(Math.abs(s.acceleration())).isLessThanOrEqualTo(steepest);
                assertThat(Math.abs(s.jerk())).isLessThanOrEqualTo(jerk * (1 + 1e-9));
            }
        }
    }

    /**
     * Independent oracle: a linear programme over a time grid (Hipparchus) that finds how far any motion with these limits can
     * come in a given time. In the planned time, less two and a half steps of the grid, it must not come as far as the plan; in the
     * planned time, plus two and a half steps, it must.
     */
    @Test
    void noAdmissibleMotionIsFaster() {
        Random random = new Random(20261123);
        int steps = 36;
        for (int attempt = 0; attempt < 40; attempt++) {
            double vmax = 1 + 4 * random.nextDouble();
            double a = 2 + 8 * random.nextDouble();
            double d = 2 + 8 * random.nextDouble();
            double j = 10 + 50 * random.nextDouble();
            double v0 = (1.6 * random.nextDouble() - 0.6) * vmax;
            double v1 = (1.6 * random.nextDouble() - 0.6) * vmax;
            double distance = 0.2 + 8 * random.nextDouble();
            profile.plan(0, v0, distance, v1, new MotionLimits(vmax, a, d, j));
            /* only motions that need the limits forward: a direct change that overshoots comes back, which is another programme */
            if (profile.peakVelocity() < Math.max(v0, v1)) {
                continue;
            }
            double step = profile.duration() / steps;
            double shorter = FarthestReach.within(profile.duration() - 2.5 * step, steps, v0, v1, vmax, a, d, j);
            double longer = FarthestReach.within(profile.duration() + 2.5 * step, steps, v0, v1, vmax, a, d, j);
            assertThat(shorter).as("attempt %d: reached in less time", attempt).isLessThan(distance);
            assertThat(longer).as("attempt %d: the oracle is tight", attempt).isGreaterThan(distance);
        }
    }

    /** A move taken over while it accelerates: position, velocity and acceleration run on without a jump. */
    @Test
    void takesOverARunningMove() {
        profile.plan(0, 0, 100, 0, new MotionLimits(10, 20, 20, 100));
        double t = 0.15;
        double x = profile.position(t);
        double v = profile.velocity(t);
        double a = profile.acceleration(t);
        MotionProfile next = new MotionProfile();
        next.plan(x, v, a, -5, 0, 10, 20, 20, 100);
        assertThat(next.position(0)).isEqualTo(x);
        assertThat(next.velocity(0)).isEqualTo(v);
        assertThat(next.acceleration(0)).isEqualTo(a);
        assertThat(next.position(next.duration())).isEqualTo(-5);
        assertThat(next.velocity(next.duration())).isZero();
    }

    @Test
    void refusesLimitsThatAreNone() {
        assertThatThrownBy(() -> new MotionLimits(0, 1, 1, 0)).isInstanceOf(InvalidEntry.class).hasMessageContaining("maxVelocity");
        assertThatThrownBy(() -> new MotionLimits(1, 1, Double.NaN, 0)).isInstanceOf(InvalidEntry.class).hasMessageContaining("maxDeceleration");
    }

    /**
     * Taking over with the acceleration that is there: continuous, within its limits once the start is within them, exact at the end. The end
     * of the last segment is where the motion arrives, so nothing is jumped.
     */
    @Property(tries = 3000)
    void takesOverAnyMotion(@ForAll @DoubleRange(min = -100, max = 100) double distance, @ForAll @DoubleRange(min = -6, max = 6) double v0,
            @ForAll @DoubleRange(min = -1, max = 1) double share, @ForAll @DoubleRange(min = 4, max = 20) double vmax, @ForAll @DoubleRange(min = 1, max = 50) double a,
            @ForAll @DoubleRange(min = 1, max = 50) double d, @ForAll @DoubleRange(min = 5, max = 500) double j) {
        double a0 = share * Math.min(a, d);
        profile.plan(3, v0, a0, 3 + distance, 0, vmax, a, d, j);
        double steepest = Math.max(a, d) * (1 + 1e-9);
        double highest = Math.max(vmax, Math.abs(v0) + a0 * a0 / (2 * j)) * (1 + 1e-9);
        assertThat(profile.acceleration(0)).isCloseTo(a0, within(1e-12));
        for (int i = 0; i < profile.segmentCount(); i++) {
            MotionProfile.Segment s = profile.segment(i);
            double t = s.duration();
            assertThat(Math.abs(s.acceleration())).isLessThanOrEqualTo(steepest);
            assertThat(Math.abs(s.jerk())).isLessThanOrEqualTo(j * (1 + 1e-9));
            assertThat(Math.abs(s.velocity())).isLessThanOrEqualTo(highest);
            double x = s.position() + t * (s.velocity() + t * (s.acceleration() / 2 + t * s.jerk() / 6));
            double v = s.velocity() + t * (s.acceleration() + t * s.jerk() / 2);
            double next = s.acceleration() + t * s.jerk();
            boolean last = i + 1 == profile.segmentCount();
            assertThat(last ? 3 + distance : profile.segment(i + 1).position()).isCloseTo(x, within(1e-8 * (1 + Math.abs(distance))));
            assertThat(last ? 0 : profile.segment(i + 1).velocity()).isCloseTo(v, within(1e-6));
            assertThat(last ? 0 : profile.segment(i + 1).acceleration()).isCloseTo(next, within(2e-5 * (1 + steepest)));
        }
    }

    /** The same order given again at any moment of a move takes the rest of the time and never passes its target. */
    @Property(tries = 1000)
    void theSameOrderAgainChangesNothing(@ForAll @DoubleRange(min = 0.01, max = 100) double distance, @ForAll @DoubleRange(min = 0.01, max = 0.99) double share,
            @ForAll @DoubleRange(min = 4, max = 20) double vmax, @ForAll @DoubleRange(min = 1, max = 50) double a, @ForAll @DoubleRange(min = 1, max = 50) double d,
            @ForAll @DoubleRange(min = 5, max = 500) double j) {
        profile.plan(0, 0, 0, distance, 0, vmax, a, d, j);
        double t = share * profile.duration();
        MotionProfile again = new MotionProfile();
        again.plan(profile.position(t), profile.velocity(t), profile.acceleration(t), distance, 0, vmax, a, d, j);
        assertThat(again.duration()).isCloseTo(profile.duration() - t, within(1e-5 * (1 + profile.duration())));
        assertThat(again.farthest(1)).isLessThanOrEqualTo(distance + 1e-9 * (1 + distance));
    }

    /** From a motion that brakes, a target farther by any amount than where it would stop is reached without passing it. */
    @Property(tries = 1000)
    void aTargetJustBehindTheStopIsNotPassed(@ForAll @DoubleRange(min = 0.5, max = 10) double v0, @ForAll @DoubleRange(min = 0, max = 1) double share,
            @ForAll @DoubleRange(min = -12, max = 0.7) double exponent, @ForAll @DoubleRange(min = 1, max = 50) double d, @ForAll @DoubleRange(min = 5, max = 500) double j) {
        double a0 = -share * Math.min(d, Math.sqrt(j * v0));
        MotionProfile stop = new MotionProfile();
        stop.planVelocity(0, v0, a0, 0, d, j);
        double target = stop.position(stop.duration()) + Math.pow(10, exponent);
        profile.plan(0, v0, a0, target, 0, 20, d, d, j);
        assertThat(profile.farthest(1)).isLessThanOrEqualTo(target * (1 + 1e-9));
        assertThat(profile.farthest(-1)).isEqualTo(0);
    }

    /** A way just above the one that the direct change takes: the last segment ends at the target, no step is hidden in the end. */
    @ParameterizedTest
    @CsvSource({"1e-15", "1e-12", "1e-10", "1e-8", "1e-6", "1e-3"})
    void aWayJustAboveTheDirectOne(double above) {
        for (double v0 : new double[] {0.01, 1, 250, 5000}) {
            MotionProfile stop = new MotionProfile();
            stop.planVelocity(0, v0, 0, 0, 3 * v0, 40 * v0);
            double target = stop.position(stop.duration()) * (1 + above);
            profile.plan(0, v0, 0, target, 0, 2 * v0, 3 * v0, 3 * v0, 40 * v0);
            MotionProfile.Segment last = profile.segment(profile.segmentCount() - 1);
            double t = last.duration();
            assertThat(last.position() + t * (last.velocity() + t * (last.acceleration() / 2 + t * last.jerk() / 6))).isCloseTo(target, within(1e-12 * target));
        }
    }

    /** Extremes by sampling. */
    @Property(tries = 300)
    void farthestPlaces(@ForAll @DoubleRange(min = -5, max = 5) double distance, @ForAll @DoubleRange(min = -6, max = 6) double v0, @ForAll @DoubleRange(min = -5, max = 5) double a0,
            @ForAll @DoubleRange(min = 5, max = 100) double j) {
        profile.plan(0, v0, a0, distance, 0, 8, 6, 6, j);
        double high = 0;
        double low = 0;
        for (int k = 0; k <= 4000; k++) {
            double x = profile.position(profile.duration() * k / 4000);
            high = Math.max(high, x);
            low = Math.min(low, x);
        }
        assertThat(profile.farthest(1)).isBetween(high - 1e-9, high + 1e-4);
        assertThat(profile.farthest(-1)).isBetween(low - 1e-4, low + 1e-9);
    }
}
