package rueda.proof;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;
import static rueda.proof.RecordedCurves.INTERVAL;

import java.util.Map;
import org.junit.jupiter.api.Test;
import rueda.machine.Expectation;
import rueda.machine.Expectation.Quantity;

/** Claims judged over a recording that no bench has made: curves whose crossings can be reckoned by hand. */
class ClaimTest {

    /** From 0 at 1 s in a straight line to 100 at 2 s, then it stands; the event comes at 0.5 s. */
    private static RecordedCurves ramp(double wobble) {
        return new RecordedCurves(4, Map.of("Shuttle.position", t -> (t < 1 ? 0 : t < 2 ? 100 * (t - 1) : 100) + (t > 2.5 && t < 2.6 ? wobble : 0), "GO", t -> t >= 0.5 ? 1 : 0,
                "Shuttle.speed", t -> t >= 1 && t < 2 ? -100 : 0, "Shuttle.errorCode", t -> 0));
    }

    private static ArrivesInTime arrives(double tolerance, double within, double stays) {
        return new ArrivesInTime("shuttle", "Go", 100, tolerance, within, stays);
    }

    @Test
    void timeCountsFromTheEventToTheFirstSampleThatStays() {
        // Inside ± 1 from 99 on, at 1.99 s: 1.49 s after the event.
        Verdict held = arrives(1, 1.6, 0.3).judge(ramp(0));
        assertThat(held.holds()).isTrue();
        assertThat(held.measured()).isCloseTo(1.49, within(INTERVAL));
        assertThat(held.room()).isCloseTo((1.6 - 1.49) / 1.6, within(0.001));
        assertThat(held.cause()).isNull();
        Verdict late = arrives(1, 1.4, 0.3).judge(ramp(0));
        assertThat(late.holds()).isFalse();
        assertThat(late.room()).isNegative();
        assertThat(late.cause()).contains("0.090 s late");
        assertThat(late.from()).as("the failing stretch begins where time was up").isCloseTo(0.5 + 1.4, within(INTERVAL));
    }

    @Test
    void leavingAgainBeginsTheStayAnew() {
        // Out by 2 from 2.5 s to 2.6 s: with a stay of 1 s only what begins at 2.6 s counts, 2.1 s after the event.
        assertThat(arrives(1, 5, 0.3).judge(ramp(2)).measured()).isCloseTo(1.49, within(INTERVAL));
        assertThat(arrives(1, 5, 1).judge(ramp(2)).measured()).isCloseTo(2.1, within(2 * INTERVAL));
        assertThat(arrives(3, 5, 1).judge(ramp(2)).measured()).as("inside the tolerance all the time").isCloseTo(1.47, within(INTERVAL));
    }

    @Test
    void whatNeverComesIsToldWithoutANumber() {
        Verdict nearer = new ArrivesInTime("Shuttle", "Go", 120, 1, 5, 0).judge(ramp(0));
        assertThat(nearer.measured()).isNull();
        assertThat(nearer.cause()).contains("no nearer than 20.0000 mm");
        assertThat(new ArrivesInTime("Shuttle", "Nothing", 100, 1, 5, 0).judged(ramp(0)).cause()).contains("“Nothing” says nothing: No signal is called Nothing.");
        RecordedCurves never = new RecordedCurves(0.1, Map.of("Shuttle.position", t -> 0, "GO", t -> 0));
        assertThat(new ArrivesInTime("Shuttle", "Go", 0, 1, 5, 0).judge(never).cause()).contains("never turned true", "a longer duration may be needed");
        assertThatThrownBy(() -> new ReportsNoError("Nobody").judge(ramp(0))).hasMessageContaining("no axis Nobody");
    }

    @Test
    void aBoundHoldsEitherWayAndUpToItself() {
        assertThat(new StaysBounded("Shuttle", Quantity.SPEED, 100).judge(ramp(0)).holds()).as("the limit itself is allowed").isTrue();
        Verdict over = new StaysBounded("Shuttle", Quantity.SPEED, 80).judge(ramp(0));
        assertThat(over.holds()).isFalse();
        assertThat(over.measured()).isEqualTo(100);
        assertThat(over.room()).isCloseTo(-0.25, within(1e-9));
        assertThat(over.from()).isCloseTo(1, within(INTERVAL));
        assertThat(over.to()).isCloseTo(2, within(INTERVAL));
        assertThat(over.cause()).as("no orders are known of it").isEqualTo("No order of the program was in force.");
    }

    @Test
    void noErrorIsOneRunWithoutACode() {
        assertThat(new ReportsNoError("Shuttle").judge(ramp(0)).holds()).isTrue();
        RecordedCurves faulty = new RecordedCurves(3, Map.of("Shuttle.errorCode", t -> t > 1.5 ? 0x8611 : 0));
        Verdict verdict = new ReportsNoError("Shuttle").judge(faulty);
        assertThat(verdict.holds()).isFalse();
        assertThat(verdict.time()).isCloseTo(1.5, within(2 * INTERVAL));
        assertThat(verdict.cause()).contains("8611h", "following error");
    }

    // ---- sentences

    private static Verdict judged(String text) {
        return Claim.of(Expectation.sentence(text)).judged(ramp(0.5));
    }

    /** The wobble of 0.5 at 2.5 s leaves 0.3 of 0.8; after Go the place is there within 1.5 s. */
    @Test
    void aSentenceHasRoomInItsUnit() {
        Verdict holds = judged(" ALWAYS(Shuttle.position < 100.8) ");
        assertThat(holds.holds()).isTrue();
        assertThat(holds.sentence()).isEqualTo("ALWAYS(Shuttle.position < 100.8)");
        assertThat(holds.margin()).isCloseTo(0.3, within(1e-9));
        assertThat(holds.time()).isCloseTo(2.501, within(0.0011));
        assertThat(holds.signal()).isEqualToIgnoringCase("Shuttle.position");
        assertThat(holds.cause()).isNull();
        Verdict fails = judged("ALWAYS(Shuttle.position <= 100.2)");
        assertThat(fails.holds()).isFalse();
        assertThat(fails.margin()).isCloseTo(-0.3, within(1e-9));
        assertThat(fails.cause()).isEqualTo("At 2.501 s Shuttle.position <= 100.2 decides it, by 0.3 mm.");
        assertThat(judged("WHENEVER(Go, Shuttle.position >= 100, T#1s500ms)").holds()).isTrue();
        assertThat(judged("WHENEVER(Go, Shuttle.position >= 100, T#1s400ms)").margin()).isCloseTo(-10, within(0.11));
    }

    @Test
    void aSentenceThatCannotBeJudgedDoesNotHold() {
        assertThat(judged("ALWAYS(Shuttle.positoin < 1)").cause()).startsWith("It says nothing: No signal is called Shuttle.positoin.");
        assertThat(judged("ALWAYS(EVENTUALLY(Go, T#5s))").cause()).isEqualTo("It looks farther ahead than the 4 s that the program ran. Let it run longer.");
        assertThat(judged("ALWAYS(EVENTUALLY(Go, T#5s))").holds()).isFalse();
    }
}
