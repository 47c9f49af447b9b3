package rueda.profile;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.math.BigInteger;
import java.util.Random;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.DoubleRange;
import net.jqwik.api.constraints.IntRange;
import net.jqwik.api.constraints.LongRange;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import rueda.profile.FollowerLock.Kind;
import rueda.profile.FollowerLock.State;
import rueda.quantity.CountScaler;
import rueda.quantity.Ratio;

class FollowerLockTest {

    private static final double DT = 125e-6;
    private static final long TURN = 65_536;
    /** counts/s of one turn a minute */
    private static final double RPM = TURN / 60.0;

    private long place;
    private double exactPlace;
    private long steps;

    /** A master at constant speed, in whole counts; its speed is known. */
    private void run(FollowerLock lock, double speed, double seconds) {
        long until = steps + Math.round(seconds / DT);
        while (steps < until) {
            step(lock, speed);
        }
    }

    private void step(FollowerLock lock, double speed) {
        exactPlace += speed * DT;
        long next = (long) Math.floor(exactPlace);
        lock.step(next - place, speed);
        place = next;
        steps++;
    }

    private long position(FollowerLock lock) {
        return place + lock.offset() + (long) Math.rint(lock.deviation());
    }

    /** Common practice, no source: catch-up limit 150 rpm at master 500 rpm, the follower runs at 650 rpm until the error is gone, then at 500 rpm. */
    @Test
    void catchesUpAtTheMastersSpeedAndTheCatchUpLimit() {
        double a = 3000 * RPM;
        FollowerLock lock = new FollowerLock(DT);
        lock.limits(3000 * RPM, a, a, 150 * RPM);
        lock.control(100, 1, 4);
        lock.engage(Kind.POSITION, 0, 0, 0);
        /* closed form: v_m²/2a is lost until v_m, and made up by a trapezoid of height c with the same a; its end is the straight line of the gain */
        double master = 500 * RPM;
        double c = 150 * RPM;
        double lost = master * master / (2 * a);
        double cruise = (lost - c * c / a) / c;
        double ramps = (master + c) / a;
        run(lock, master, ramps + 0.5 * cruise);
        assertThat(lock.state()).isEqualTo(State.CATCHING_UP);
        assertThat(lock.speed() / RPM).isCloseTo(650, within(1e-9));
        double line = a / (100.0 * 100);
        /* the trapezoid ends line/2 short, at the speed a/k, and what is left goes down by e^(−kt) */
        double toTheLine = ramps + (lost - c * c / (2 * a) - (c * c / (2 * a) + line / 2)) / c + (c - a / 100) / a;
        double made = toTheLine + Math.log(line / 4) / 100;
        run(lock, master, made - 0.004 - steps * DT);
        assertThat(lock.state()).isEqualTo(State.CATCHING_UP);
        run(lock, master, 0.008);
        assertThat(lock.state()).isEqualTo(State.LOCKED);
        run(lock, master, 0.2);
        assertThat(lock.speed() / RPM).isCloseTo(500, within(0.1));
        assertThat(position(lock)).as("made up to the count").isEqualTo(place);
    }

    /** Common practice, no source: tied by speed, counts lost while accelerating stay lost. Closed form v²/2a. */
    @Test
    void tiedBySpeedTheLostWayStaysLost() {
        double a = 1000 * RPM;
        FollowerLock lock = new FollowerLock(DT);
        lock.limits(3000 * RPM, a, a, 150 * RPM);
        lock.control(50, 1, 4);
        lock.engage(Kind.SPEED, 0, 0, 0);
        double master = 500 * RPM;
        run(lock, master, 0.6);
        assertThat(lock.state()).isEqualTo(State.LOCKED);
        double lost = master * master / (2 * a);
        assertThat(lock.lost()).isCloseTo(lost, within(master * DT));
        long behind = place - position(lock);
        run(lock, master, 5);
        assertThat(place - position(lock)).isEqualTo(behind);
        assertThat((double) behind).isCloseTo(lost, within(master * DT));
    }

    /** Common practice, no source: with the position lock alone the gap is speed ÷ gain; with feed-forward the speed is within 1 % of 500 rpm. */
    @ParameterizedTest
    @CsvSource({"0, 500", "0.5, 250", "0.9, 50", "1, 0"})
    void theGapIsTheSpeedThatIsNotFedForwardOverTheGain(double share, double missing) {
        FollowerLock lock = new FollowerLock(DT);
        double a = 1e9;
        lock.limits(3000 * RPM, a, a, 600 * RPM);
        lock.control(40, share, 4);
        lock.engage(Kind.POSITION, 0, 0, 0);
        run(lock, 500 * RPM, 1);
        assertThat(place - position(lock)).isCloseTo(Math.round(missing * RPM / 40), within(1L));
        assertThat(lock.speed() / RPM).isCloseTo(500, within(5.0));
        assertThat(lock.state()).isEqualTo(State.LOCKED);
    }

    /** Where the gap is past the straight line, by the square root. */
    @Test
    void theGapBeyondTheLine() {
        FollowerLock lock = new FollowerLock(DT);
        double a = 2000 * RPM;
        lock.limits(3000 * RPM, a, a, 600 * RPM);
        lock.control(40, 0, 4);
        lock.engage(Kind.POSITION, 0, 0, 0);
        run(lock, 500 * RPM, 3);
        assertThat((double) (place - position(lock))).isCloseTo(FollowerLock.gap(500 * RPM, 40, a), within(2.0));
    }

    /** Common practice, no source: a follower without its master's place drifts by what it lost, and goes on losing with every change. */
    @Test
    void looseHasTheSpeedAndNoPlace() {
        FollowerLock lock = new FollowerLock(DT);
        double a = 1000 * RPM;
        lock.limits(3000 * RPM, a, a, 0);
        lock.control(50, 1, 4);
        lock.engage(Kind.LOOSE, 0, 0, 0);
        run(lock, 500 * RPM, 1);
        long once = place - position(lock);
        run(lock, 0, 1);
        run(lock, 500 * RPM, 1);
        assertThat(lock.speed()).isEqualTo(500 * RPM);
        assertThat((double) once).isCloseTo(500 * RPM * 500 * RPM / (2 * a), within(500 * RPM * DT));
        assertThat(Math.abs(place - position(lock))).as("lost when it came, won again when it stopped, lost again").isCloseTo(once, within(100L));
    }

    @Test
    void withoutACatchUpLimitNothingIsMadeUp() {
        FollowerLock lock = new FollowerLock(DT);
        lock.limits(3000 * RPM, 1000 * RPM, 1000 * RPM, 0);
        lock.control(50, 1, 4);
        lock.engage(Kind.POSITION, 0, 0, 0);
        run(lock, 500 * RPM, 10);
        assertThat(lock.state()).isEqualTo(State.CATCHING_UP);
        assertThat(lock.speed()).isEqualTo(500 * RPM);
    }

    /** Its limits hold whatever the master does, and when the master stands the follower is where the ratio says, to the count. */
    @Property(tries = 100)
    void limitsHoldAndTheEndIsExact(@ForAll @IntRange(min = 1, max = 65_536) int in, @ForAll @IntRange(min = -32_768, max = 32_767) int out, @ForAll long seed,
                                    @ForAll @DoubleRange(min = 0, max = 1) double share, @ForAll @DoubleRange(min = 5, max = 400) double gain, @ForAll @DoubleRange(min = 1e5, max = 1e8) double a) {
        Random random = new Random(seed);
        CountScaler scaler = new CountScaler(Ratio.of(out, in));
        FollowerLock lock = new FollowerLock(DT);
        MasterSpeed speed = new MasterSpeed(DT);
        speed.filter(0.002);
        double highest = 2e6;
        double brake = a * (0.5 + random.nextDouble());
        lock.limits(highest, a, brake, 1e5);
        lock.control(gain, share, 4);
        long start = random.nextInt(1000) - 500;
        lock.engage(Kind.POSITION, start, 0, 0);
        long master = 0;
        long here = 0;
        double place = 0;
        double before = 0;
        for (int part = 0; part < 5; part++) {
            double most = Math.min(4e5, 1e6 * in / Math.max(1, Math.abs(out)));
            double wanted = part == 4 ? 0 : (random.nextDouble() - 0.5) * most;
            int length = part == 4 ? 400_000 : 1 + random.nextInt(4000);
            for (int k = 0; k < length && (part < 4 || k < 100 || lock.state() != State.LOCKED || Math.abs(lock.deviation()) >= 0.5); k++) {
                place += wanted * DT;
                long next = (long) Math.floor(place);
                double masterSpeed = speed.read(next - master);
                master = next;
                long there = scaler.scale(master);
                lock.step(there - here, masterSpeed * out / in);
                here = there;
                assertThat(Math.abs(lock.speed())).isLessThanOrEqualTo(highest * (1 + 1e-12));
                assertThat(Math.abs(lock.speed() - before)).isLessThanOrEqualTo(Math.max(a, brake) * DT * (1 + 1e-9));
                before = lock.speed();
            }
        }
        assertThat(here + lock.offset() + Math.rint(lock.deviation())).isEqualTo(start + scaler.scale(master));
    }

    /** In 10¹² master counts not one follower count too many or too few: against whole numbers of any size. */
    @Property(tries = 2000)
    void theRatioIsExact(@ForAll @IntRange(min = 1, max = 65_536) int in, @ForAll @IntRange(min = -32_768, max = 32_767) int out, @ForAll @LongRange(min = -2_000_000_000_000L, max = 2_000_000_000_000L) long master) {
        BigInteger[] parts = BigInteger.valueOf(master).multiply(BigInteger.valueOf(2L * out)).add(BigInteger.valueOf((long) Long.signum(master * Integer.signum(out)) * in)).divideAndRemainder(BigInteger.valueOf(2L * in));
        assertThat(new CountScaler(Ratio.of(out, in)).scale(master)).isEqualTo(parts[0].longValueExact());
    }

    /** Common practice, no source: 1 : −1 turns the follower the other way. */
    @Test
    void theOtherWay() {
        assertThat(new CountScaler(Ratio.of(-1, 1)).scale(123_456_789_012L)).isEqualTo(-123_456_789_012L);
    }

    /** At constant acceleration the filtered speed is late by acceleration × time. */
    @Test
    void theFilterIsLateByItsTime() {
        MasterSpeed speed = new MasterSpeed(DT);
        speed.filter(0.01);
        double place = 0;
        for (int k = 0; k < 8000; k++) {
            double next = 0.5 * 1e4 * Math.pow((k + 1) * DT, 2);
            speed.read(next - place);
            place = next;
        }
        assertThat(1e4 * 8000 * DT - speed.speed()).isCloseTo(1e4 * 0.01, within(1e4 * DT));
    }

    /** Both are at the meeting point together, at the speed of the ratio; the derivatives are those of the way. */
    @Property(tries = 200)
    void theMeetingCurveEndsAtThePointWithTheRatio(@ForAll @DoubleRange(min = 1, max = 1e6) double size, @ForAll boolean back, @ForAll @DoubleRange(min = -1e6, max = 1e6) double way, @ForAll @DoubleRange(min = -5, max = 5) double start, @ForAll @DoubleRange(min = -5, max = 5) double end) {
        double whole = back ? -size : size;
        MeetingCurve curve = new MeetingCurve();
        curve.plan(whole, way, start, end);
        assertThat(curve.way(0)).isZero();
        assertThat(curve.way(whole)).isCloseTo(way, within(1e-9 * (Math.abs(way) + size)));
        assertThat(curve.way(whole * (1 - 1e-9))).isCloseTo(way, within(1e-6 * (1 + Math.abs(way) + size)));
        assertThat(curve.slope(0)).isCloseTo(start, within(1e-9));
        assertThat(curve.slope(whole * (1 - 1e-9))).isCloseTo(end, within(1e-5 * (1 + Math.abs(way / whole))));
        double h = whole * 1e-5;
        for (double u : new double[] {0.1, 0.35, 0.5, 0.8}) {
            double x = u * whole;
            double scale = 1 + Math.abs(way / whole) + Math.abs(start) + Math.abs(end);
            assertThat((curve.way(x + h) - curve.way(x - h)) / (2 * h)).isCloseTo(curve.slope(x), within(1e-5 * scale));
            assertThat((curve.slope(x + h) - curve.slope(x - h)) / (2 * h) * whole).isCloseTo(curve.curvature(x) * whole, within(1e-4 * scale * 10));
        }
        assertThat(curve.steepest()).isGreaterThanOrEqualTo(Math.abs(curve.slope(whole / 2)) - 1e-12);
    }
}
