package rueda.advice;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import org.junit.jupiter.api.Test;
import rueda.trial.MoveTrial;
import rueda.machine.Axis;
import rueda.machine.Control;
import rueda.machine.DemoMachine;
import rueda.machine.Encoder;
import rueda.machine.Load;
import rueda.machine.Machine;

class TuneAdviceTest {

    /**
     * Without friction and with a slow integral the velocity loop is a sampled integrator: it crosses near Kp/(2π·J) with 90° less
     * one sub-step, and by Jury's criterion the difference equation is stable up to Kp = 2·J/T.
     */
    @Test
    void marginsOfASampledIntegrator() {
        Axis axis = DemoMachine.shuttle().withLoad(Load.along(160, 0, 0)).withControl(new Control(20, 0.25, 1e6, 1, 1));
        double crossing = 0.25 / (2 * Math.PI * axis.motorSide().inertia());
        LoopMargins margins = LoopMargins.velocity(axis);
        assertThat(margins.crossover()).isCloseTo(crossing, within(0.1));
        assertThat(margins.phaseMargin()).isCloseTo(90 - Math.toDegrees(2 * Math.PI * crossing * 125e-6), within(0.2));
        assertThat(margins.gainMargin()).isCloseTo(2 * axis.motorSide().inertia() / 125e-6 / 0.25, within(0.2));
    }

    /** The margin is that of the bench: below the critical gain the axis stands still after a move, above it it swings with all the torque there is. */
    @Test
    void theGainMarginIsThatOfTheBench() {
        Axis quiet = DemoMachine.brush().withControl(new Control(10, 0.08, 1e6, 1, 1));
        double critical = 0.08 * LoopMargins.velocity(quiet).gainMargin();
        assertThat(swing(quiet, critical * 0.8)).isLessThan(0.5 * quiet.torqueLimit());
        assertThat(swing(quiet, critical * 1.25)).isGreaterThan(0.9 * quiet.torqueLimit());
    }

    /** Highest torque in the last 50 ms of a move and the rest after it, N·m. */
    private static double swing(Axis axis, double velocityGain) {
        Machine demo = DemoMachine.create();
        Control c = axis.control();
        Axis tuned = axis.withEncoder(Encoder.absolute(28, 0)).withControl(new Control(c.positionGain(), velocityGain, c.integralTime(), c.feedForward(), c.torqueForward()));
        MoveTrial.Result move = MoveTrial.run(new Machine("m", demo.bus(), demo.plc(), List.of(tuned), demo.proofs()), 0);
        int n = move.torque().size();
        return move.torque().subList(n - 50, n).stream().mapToDouble(Math::abs).max().orElseThrow();
    }

    @Test
    void proposedGainsKeepTheirMargins() {
        for (Axis axis : DemoMachine.create().axes()) {
            Axis tuned = axis.withControl(TuneAdvice.proposed(axis));
            assertThat(LoopMargins.velocity(tuned).phaseMargin()).as(axis.name()).isGreaterThanOrEqualTo(50);
            assertThat(LoopMargins.position(tuned).phaseMargin()).as(axis.name()).isGreaterThanOrEqualTo(50);
            assertThat(TuneAdvice.of(tuned, "/axes/0").findings()).as(axis.name()).allMatch(f -> f.severity() == Finding.Severity.GOOD);
        }
    }

    /** Common practice, no source: gap = speed / gain without feed-forward; less the way of a sub-step, 600 mm/s × 125 µs, by which the loop looks back. */
    @Test
    void followingErrorWithoutFeedForward() {
        Axis axis = DemoMachine.shuttle().withControl(new Control(60, 0.25, 20, 0, 0));
        Advice advice = TuneAdvice.of(axis, "/axes/0");
        assertThat(advice.figures().stream().filter(f -> f.label().startsWith("Following error")).findFirst().orElseThrow().value()).isEqualTo("9.93");
        assertThat(advice.findings()).anyMatch(f -> f.title().equals("The following error leaves its window at default speed."));
    }

    @Test
    void aCoarseEncoderIsFound() {
        Axis doser = DemoMachine.saltDoser().withControl(new Control(40, 0.06, 20, 1, 1));
        assertThat(TuneAdvice.of(doser, "/axes/0").findings()).anyMatch(f -> f.title().equals("The encoder is too coarse for this velocity gain."));
    }
}
