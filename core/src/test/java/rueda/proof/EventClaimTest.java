package rueda.proof;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;
import static rueda.proof.RecordedCurves.INTERVAL;

import java.util.List;
import java.util.Map;
import java.util.function.DoubleUnaryOperator;
import org.junit.jupiter.api.Test;
import rueda.machine.Expectation;
import rueda.machine.Expectation.End;
import rueda.machine.Expectation.Quantity;
import rueda.machine.SentenceSlots;

/** Expectations about events, stretches of time, zones and ends, over curves whose values are reckoned by hand. */
class EventClaimTest {

    private static DoubleUnaryOperator between(double from, double to) {
        return t -> t >= from - 1e-9 && t < to - 1e-9 ? 1 : 0;
    }

    /** 10 mm/s from the begin to 4 s and back again to 8 s; A from 1 s to 2 s and from 5 s to 6 s, B from 3 s on for 0.5 s. */
    private static RecordedCurves there() {
        return new RecordedCurves(8, Map.of("Shuttle.position", t -> t < 4 ? 10 * t : 80 - 10 * t, "Shuttle.speed", t -> t < 4 ? 10 : -10, "Lift.position", t -> 5 * t, "A", between(1, 2),
                "B", between(3, 3.5), "C", t -> between(1, 2).applyAsDouble(t) + between(5, 6).applyAsDouble(t), "SHUTTLE.ERRORCODE", t -> 0, "LIFT.ERRORCODE", t -> 0));
    }

    private static Verdict judged(Expectation e, RecordedRun run) {
        return Claim.of(e).judged(run);
    }

    @Test
    void aValueBetweenTwoOthersAllTheTimeForATimeAndWhileSomethingHolds() {
        Verdict always = judged(Expectation.between("Shuttle.position", -1, 39), there());
        assertThat(always.holds()).isFalse();
        assertThat(always.measured()).as("40 mm at 4 s").isCloseTo(40, within(1e-6));
        assertThat(always.margin()).isCloseTo(-1, within(1e-6));
        assertThat(always.limit()).isEqualTo(39);
        assertThat(always.unit()).isEqualTo("mm");
        assertThat(always.time()).isCloseTo(4, within(INTERVAL));
        assertThat(always.from()).as("above 39 mm from 3.9 s to 4.1 s").isCloseTo(3.9, within(2 * INTERVAL));
        assertThat(always.to()).isCloseTo(4.1, within(2 * INTERVAL));
        assertThat(always.cause()).contains("Shuttle.position was 40 mm");
        Verdict afterA = judged(Expectation.between("Shuttle.position", 0, 32).after(2, "C"), there());
        assertThat(afterA.holds()).as("from 1 s to 3 s it reaches 30 mm, from 5 s to 7 s it begins with 30 mm").isTrue();
        assertThat(afterA.measured()).isCloseTo(30, within(0.02));
        Verdict whileB = judged(Expectation.between("Shuttle.position", 0, 34).whenever("B"), there());
        assertThat(whileB.measured()).as("35 mm at the end of B").isCloseTo(34.99, within(1e-6));
        assertThat(whileB.holds()).isFalse();
        assertThat(judged(Expectation.between("ABS(Shuttle.speed)", 0, 11), there()).margin()).isCloseTo(1, within(1e-9));
        assertThat(judged(Expectation.bound("Shuttle", Quantity.SPEED, 11).whenever("Shuttle.position > 20"), there()).sentence()).isEqualTo("Speed of Shuttle never above 11 mm/s while Shuttle.position > 20");
    }

    @Test
    void whatNeverCameAboutShowsNothingAndDoesNotHold() {
        Verdict never = judged(Expectation.between("Shuttle.position", 0, 100).whenever("Shuttle.position > 50"), there());
        assertThat(never.holds()).isFalse();
        assertThat(never.measured()).isNull();
        assertThat(never.cause()).isEqualTo("Shuttle.position > 50 never held, so nothing is shown.");
        assertThat(judged(Expectation.between("Shuttle.position", 0, 100).after(1, "Shuttle.position > 50"), there()).cause()).contains("never came");
        Verdict unread = judged(Expectation.between("Shuttle.positon", 0, 100), there());
        assertThat(unread.holds()).isFalse();
        assertThat(unread.cause()).contains("says nothing", "Did you mean Shuttle.position?");
        assertThat(judged(Expectation.order("ALWAYS(A)", "B"), there()).cause()).contains("what happens over time");
    }

    @Test
    void twoAxesInEachOthersWay() {
        // Shuttle within 20…30 mm from 2 s to 3 s and 5 s to 6 s; Lift within 27…40 mm from 5.4 s on: both from 5.4 s to 6 s.
        Verdict both = judged(Expectation.neverBoth("Shuttle", 20, 30, "Lift", 27, 60, 0), there());
        assertThat(both.holds()).isFalse();
        assertThat(both.from()).isCloseTo(5.4, within(2 * INTERVAL));
        assertThat(both.to()).isCloseTo(6, within(2 * INTERVAL));
        assertThat(both.cause()).contains("Shuttle stood at", "Lift at");
        // Lift's zone begins at 31 mm, at 6.2 s: Shuttle has then left by 2 mm. Nearest where both are equally far: 30 − 31 + … solved by hand: |10·t| outside = 10·(t − 6), Lift 31 − 5·t; equal at t = 91/15.
        Verdict apart = judged(Expectation.neverBoth("Shuttle", 20, 30, "Lift", 31, 60, 0.5), there());
        assertThat(apart.time()).isCloseTo(91 / 15.0, within(0.002));
        assertThat(apart.measured()).isCloseTo(31 - 5 * 91 / 15.0, within(0.02));
        assertThat(apart.margin()).isCloseTo(31 - 5 * 91 / 15.0 - 0.5, within(0.02));
        assertThat(apart.holds()).isTrue();
    }

    @Test
    void orderTimeAndNumberOfEvents() {
        assertThat(judged(Expectation.order("A", "B"), there()).margin()).isCloseTo(2, within(1e-9));
        Verdict other = judged(Expectation.order("B", "A"), there());
        assertThat(other.holds()).isFalse();
        assertThat(other.margin()).isCloseTo(-2, within(1e-9));
        assertThat(other.cause()).contains("B came at 3 s, A at 1 s");
        // From C (1 s and 5 s) to the next turning back of speed at 4 s: 3 s; the second has no end within the run but could still have it: 3 s < 5 s.
        Verdict time = judged(Expectation.time("C", "Shuttle.speed < 0", 1, 5), there());
        assertThat(time.measured()).isCloseTo(3, within(2 * INTERVAL));
        assertThat(time.margin()).isCloseTo(2, within(2 * INTERVAL));
        Verdict late = judged(Expectation.time("C", "B", 1, 2.5), there());
        assertThat(late.holds()).as("the second had time to come and did not").isFalse();
        assertThat(late.measured()).isNull();
        assertThat(late.cause()).contains("not within");
        assertThat(judged(Expectation.count("C", 2, 2), there()).holds()).isTrue();
        Verdict once = judged(Expectation.count("C", 0, 1), there());
        assertThat(once.holds()).isFalse();
        assertThat(once.time()).as("the one too many").isCloseTo(5, within(INTERVAL));
        assertThat(once.margin()).isEqualTo(-1);
        assertThat(judged(Expectation.count("Shuttle.position > 50", 0, 0), there()).holds()).isTrue();
    }

    @Test
    void aValueAtAnEventEachTime() {
        Verdict twice = judged(Expectation.valueAt("Shuttle.position", 9, 29, "C"), there());
        assertThat(twice.holds()).as("10 mm the first time, 30 mm the second").isFalse();
        assertThat(twice.measured()).isCloseTo(30, within(0.011));
        assertThat(twice.time()).isCloseTo(5, within(INTERVAL));
        assertThat(twice.cause()).contains("When C came");
    }

    @Test
    void whatTheScriptDidStandsInTheCause() {
        RecordedCurves run = there();
        run.happened = List.of(new Happened(2, 0, "a person pressed stop"), new Happened(6, 1, "power was lost"));
        assertThat(judged(Expectation.between("Shuttle.position", -1, 39), run).cause()).contains("At 2.000 s a person pressed stop.").doesNotContain("power");
    }

    @Test
    void tasksAgainstTheirTime() {
        RecordedCurves run = there();
        assertThat(judged(Expectation.taskTime(1), run).holds()).as("not known").isFalse();
        run.tasks = List.of(new RecordedRun.LongestTask("Main", 0.0004), new RecordedRun.LongestTask("Slow", 0.0012));
        Verdict slow = judged(Expectation.taskTime(1), run);
        assertThat(slow.measured()).isCloseTo(1.2, within(1e-9));
        assertThat(slow.holds()).isFalse();
        assertThat(slow.cause()).contains("Slow took 1.2 ms");
    }

    @Test
    void effectiveAndPeakTorqueAsShares() {
        // 1.9 N·m for a quarter of the time: effective 0.95 N·m, all of the Shuttle's rated torque; peak 2.4 N·m.
        RecordedCurves run = new RecordedCurves(4, Map.of("Shuttle.torque", t -> t <= 1 + 1e-9 ? -1.9 : 0, "SHUTTLE.ERRORCODE", t -> 0));
        double rated = run.machine().axes().get(0).motor().ratedTorque();
        Verdict rms = judged(Expectation.rmsTorque("Shuttle", 99), run);
        assertThat(rms.measured()).isCloseTo(100 * 1.9 / 2 / rated, within(0.01));
        assertThat(rms.holds()).isFalse();
        assertThat(judged(Expectation.peakTorque("Shuttle", 80), run).measured()).isCloseTo(100 * 1.9 / run.machine().axes().get(0).motor().peakTorque(), within(1e-6));
    }

    @Test
    void howAnAxisEnds() {
        Map<String, DoubleUnaryOperator> still = Map.of("Shuttle.standstill", t -> 1, "Shuttle.referenced", t -> 0, "Shuttle.inPosition", t -> 1, "Shuttle.state", t -> 7, "Shuttle.speed", t -> 0, "SHUTTLE.ERRORCODE", t -> 0x8611);
        RecordedCurves run = new RecordedCurves(1, still);
        assertThat(judged(Expectation.ends("Shuttle", End.AT_REST), run).holds()).isTrue();
        assertThat(judged(Expectation.ends("Shuttle", End.STOPPED_BY_AN_ERROR), run).holds()).isTrue();
        Verdict referenced = judged(Expectation.ends("Shuttle", End.REFERENCED), run);
        assertThat(referenced.holds()).isFalse();
        assertThat(referenced.cause()).contains("stopped by an error", "8611h");
        assertThat(judged(Expectation.ends("Shuttle", End.READY), run).holds()).isFalse();
        assertThat(judged(Expectation.ends("Shuttle", End.OFF), run).holds()).isFalse();
    }

    @Test
    void everyKindSaysItsSlots() {
        for (Expectation.Kind kind : Expectation.Kind.values()) {
            assertThat(kind.slots()).as(kind.name()).isNotEmpty();
            assertThat(SentenceSlots.filled(kind.pattern(), slot -> "x")).doesNotContain("{", "}");
        }
    }
}
