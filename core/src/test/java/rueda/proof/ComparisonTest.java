package rueda.proof;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.List;
import java.util.SplittableRandom;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import rueda.bench.ReadyProgram;
import rueda.bench.Recorded;
import rueda.bench.Stand;
import rueda.machine.DemoMachine;
import rueda.machine.Expectation;
import rueda.machine.Expectation.Alignment;
import rueda.machine.Machine;
import rueda.machine.Proof;
import rueda.proof.Comparison.Laid;
import rueda.quantity.InvalidEntry;
import rueda.recording.Brought;
import rueda.recording.Curve;

/** A recording that is the run itself, moved and falsified by known amounts, is found to be so. */
class ComparisonTest {

    private static RecordedRun run;
    private static Machine machine;
    private static Proof proof;

    @BeforeAll
    static void runs() {
        machine = DemoMachine.create();
        proof = machine.proofs().get(0);
        run = Prover.recorded(machine, ReadyProgram.of(machine), proof, Stand.of(machine), Recorded.ALL, Brought.Shelf.EMPTY);
    }

    private interface Falsified {
        double value(double time, double value);
    }

    /** Signals of the run every so often, with times of another clock. @param later s */
    private static Brought brought(double later, double interval, Falsified falsified, String... signals) {
        List<Brought.Column> columns = new ArrayList<>();
        int every = (int) Math.round(interval / run.interval());
        for (String name : signals) {
            int signal = run.signal(name);
            int count = (int) (run.samples() / every);
            long[] nanos = new long[count];
            double[] values = new double[count];
            for (int i = 0; i < count; i++) {
                long sample = (long) i * every;
                nanos[i] = Math.round((run.time(sample) + later) * 1e9);
                values[i] = falsified.value(run.time(sample), run.value(signal, sample));
            }
            columns.add(new Brought.Column(name, run.signals().get(signal).unit(), new Curve(nanos, values)));
        }
        return new Brought("Real", columns);
    }

    @ParameterizedTest
    @ValueSource(doubles = {0, 0.0137, -2.5004, 731.25})
    void theBestFitFindsByHowMuchItWasMoved(double later) {
        SplittableRandom noise = new SplittableRandom(3);
        Brought brought = brought(later, 0.004, (t, v) -> v + noise.nextGaussian() * 0.5, "Shuttle.position");
        Comparison comparison = Comparison.of(run, brought, new Laid(Alignment.BEST_FIT, null, "Shuttle.position"), null);
        assertThat(comparison.shift()).isCloseTo(-later, within(2e-4));
        assertThat(comparison.signals()).singleElement().satisfies(apart -> assertThat(apart.mean()).isCloseTo(0, within(0.2)));
    }

    @Test
    void anEventThatBothHaveLaysThem() {
        Brought brought = brought(5, 0.001, (t, v) -> v, "Shuttle.position", "Shuttle.speed");
        Comparison comparison = Comparison.of(run, brought, new Laid(Alignment.EVENT, "Shuttle.position > 1800", null), "Shuttle.position > 1000");
        assertThat(comparison.shift()).isCloseTo(-5, within(1e-9));
        assertThat(comparison.signals()).hasSize(2).allSatisfy(apart -> assertThat(apart.peak()).isCloseTo(0, within(1e-6)));
        assertThat(comparison.signals().get(0).events()).isNotEmpty().allSatisfy(at -> assertThat(at.run()).isCloseTo(at.recorded(), within(1e-6)));
    }

    @Test
    void aBulgeIsFoundWhereItIsAndAsLargeAsItIs() {
        Brought brought = brought(0, 0.001, (t, v) -> t > 6.2 && t < 6.4 ? v - 1.5 : v, "Shuttle.position");
        Comparison.Apart apart = Comparison.of(run, brought, new Laid(Alignment.AS_RECORDED, null, null), null).signals().get(0);
        assertThat(apart.peak()).isCloseTo(1.5, within(1e-6));
        assertThat(apart.peakAt()).isBetween(6.2, 6.4);
        assertThat(apart.rms()).isCloseTo(1.5 * Math.sqrt(0.2 / 18), within(0.01));
    }

    @Test
    void whatCannotBeComparedIsSaid() {
        Brought otherUnit = new Brought("Real", List.of(new Brought.Column("Shuttle.position", "m", new Curve(new long[] {0, 1_000_000}, new double[] {0, 1})), new Brought.Column("oven", "°C", new Curve(new long[] {0}, new double[] {20}))));
        assertThat(Comparison.of(run, otherUnit, new Laid(Alignment.AS_RECORDED, null, null), null).remarks()).singleElement().asString().contains("Shuttle.position is in m there and in mm here");
        Brought still = brought(0, 0.001, (t, v) -> 7, "Shuttle.position");
        assertThatThrownBy(() -> Comparison.of(run, still, new Laid(Alignment.BEST_FIT, null, "Shuttle.position"), null)).isInstanceOf(InvalidEntry.class).hasMessageContaining("lies nowhere over");
        assertThatThrownBy(() -> Comparison.of(run, still, new Laid(Alignment.EVENT, "Shuttle.position > 99999", null), null)).isInstanceOf(InvalidEntry.class).hasMessageContaining("never came in the run");
        assertThatThrownBy(() -> Comparison.of(run, still, new Laid(Alignment.BEST_FIT, null, "Shuttle.warmth"), null)).isInstanceOf(InvalidEntry.class);
    }

    @Test
    void besideAJumpNothingIsCompared() {
        Brought brought = brought(0, 0.02, (t, v) -> v, "Shuttle.position");
        Comparison.Apart apart = Comparison.of(run, brought, new Laid(Alignment.AS_RECORDED, null, null), null).signals().get(0);
        assertThat(Math.abs(apart.peak())).as("referencing sets the position by hundreds of mm").isLessThan(1);
        assertThat(judged(Expectation.differs("Shuttle.position", "Real", 1, Alignment.AS_RECORDED), brought).holds()).isTrue();
    }

    private static Verdict judged(Expectation expectation, Brought brought) {
        return Prover.run(machine, proof.withExpectations(List.of(expectation)), Stand.of(machine), Brought.Shelf.of(List.of(brought)), (time, of) -> { }).verdicts().get(0);
    }

    @Test
    void aToleranceHoldsAsFarAsTheyAreApart() {
        Brought brought = brought(3, 0.001, (t, v) -> t > 6.2 && t < 6.4 ? v - 1.5 : v, "Shuttle.position");
        Verdict holds = judged(Expectation.differs("Shuttle.position", "real", 2, Alignment.BEST_FIT), brought);
        assertThat(holds.holds()).isTrue();
        assertThat(holds.margin()).isCloseTo(0.5, within(0.02));
        assertThat(holds.unit()).isEqualTo("mm");
        Verdict fails = judged(Expectation.differs("Shuttle.position", "Real", 1, Alignment.EVENT).withAfter("Shuttle.position > 1800"), brought);
        assertThat(fails.holds()).isFalse();
        assertThat(fails.room()).isCloseTo(-0.5, within(1e-6));
        assertThat(fails.from()).isBetween(6.19, 6.21);
        assertThat(fails.to()).isBetween(6.39, 6.41);
        assertThat(fails.cause()).contains("1.5 mm away from the recording");
    }

    @Test
    void aRecordingThatIsNotThereHoldsNothing() {
        Verdict verdict = judged(Expectation.differs("Shuttle.position", "Other", 1, Alignment.BEST_FIT), brought(0, 0.01, (t, v) -> v, "Shuttle.position"));
        assertThat(verdict.holds()).isFalse();
        assertThat(verdict.cause()).contains("no recording called “Other”");
    }
}
