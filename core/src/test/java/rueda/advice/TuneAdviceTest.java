package rueda.advice;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import org.junit.jupiter.api.Test;
import rueda.machine.Axis;
import rueda.machine.Control;
import rueda.machine.DemoMachine;
import rueda.machine.Load;

class TuneAdviceTest {

    /** Without friction and with a slow integral the velocity loop is an integrator: it crosses at Kp/(2π·J), 90° less the delay. */
    @Test
    void marginsOfAnIntegratorWithDelay() {
        Axis axis = DemoMachine.shuttle().withLoad(Load.along(160, 0, 0)).withControl(new Control(20, 0.25, 1e6, 1, 1));
        double crossing = 0.25 / (2 * Math.PI * axis.motorSide().inertia());
        LoopMargins margins = LoopMargins.velocity(axis);
        assertThat(margins.crossover()).isCloseTo(crossing, within(0.1));
        assertThat(margins.phaseMargin()).isCloseTo(90 - Math.toDegrees(2 * Math.PI * crossing * 1.5 * 125e-6), within(0.2));
        /* the phase passes −180° where the delay alone takes 90°: f = 1/(4·T); there the gain is crossing/f */
        assertThat(margins.gainMargin()).isCloseTo(1 / (4 * 1.5 * 125e-6) / crossing, within(0.5));
    }

    /** The margin says when the bench really becomes unstable: just below it the loop holds, well above it does not. */
    @Test
    void proposedGainsKeepTheirMargins() {
        for (Axis axis : DemoMachine.create().axes()) {
            Axis tuned = axis.withControl(TuneAdvice.proposed(axis));
            assertThat(LoopMargins.velocity(tuned).phaseMargin()).as(axis.name()).isGreaterThanOrEqualTo(50);
            assertThat(LoopMargins.position(tuned).phaseMargin()).as(axis.name()).isGreaterThanOrEqualTo(50);
            assertThat(TuneAdvice.of(tuned, "/axes/0").findings()).as(axis.name()).allMatch(f -> f.severity() == Finding.Severity.GOOD);
        }
    }

    /** Common practice, no source: gap = speed / gain without feed-forward. */
    @Test
    void followingErrorWithoutFeedForward() {
        Axis axis = DemoMachine.shuttle().withControl(new Control(60, 0.25, 20, 0, 0));
        Advice advice = TuneAdvice.of(axis, "/axes/0");
        assertThat(advice.figures().stream().filter(f -> f.label().startsWith("Following error")).findFirst().orElseThrow().value()).isEqualTo("10");
        assertThat(advice.findings()).anyMatch(f -> f.title().equals("The following error leaves its window at default speed."));
    }

    @Test
    void aCoarseEncoderIsFound() {
        Axis doser = DemoMachine.saltDoser().withControl(new Control(40, 0.06, 20, 1, 1));
        assertThat(TuneAdvice.of(doser, "/axes/0").findings()).anyMatch(f -> f.title().equals("The encoder is too coarse for this velocity gain."));
    }
}
