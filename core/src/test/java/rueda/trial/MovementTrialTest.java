package rueda.trial;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import java.util.Set;
import org.junit.jupiter.api.Test;
import rueda.bench.Bench;
import rueda.machine.Dynamics;
import rueda.machine.Limits;
import org.junit.jupiter.params.provider.ValueSource;
import org.junit.jupiter.params.ParameterizedTest;
import rueda.machine.Axis;
import rueda.machine.DemoMachine;
import rueda.machine.Load;
import rueda.machine.Machine;
import rueda.machine.NewAxis;
import rueda.machine.Wiring;
import rueda.machine.Mistake;

/** The small movement that comes before identification, and the move whose following error theory predicts. */
class MovementTrialTest {

    private static final Machine DEMO = DemoMachine.create();

    @Test
    void everyDemoAxisMovesFreelyAndCountsTheSameWay() {
        for (int i = 0; i < DEMO.axes().size(); i++) {
            MovementTrial.Moved moved = MovementTrial.run(DEMO, i, Set.of());
            assertThat(moved.holds()).as(DEMO.axes().get(i).name() + ": " + moved.message()).isTrue();
            assertThat(moved.moved()).isCloseTo(moved.counted(), within(0.02 * Math.abs(moved.moved()) + DEMO.axes().get(i).load().backlash()));
        }
    }

    @Test
    void aReversedEncoderAndABlockedAxisAreNamed() {
        assertThat(MovementTrial.run(DEMO, 0, Set.of(Mistake.ENCODER_REVERSED)).message()).contains("counts backward");
        Axis lift = DEMO.axes().get(1);
        Wiring noBrake = Wiring.of(List.of(), List.of());
        assertThat(MovementTrial.run(DEMO.withAxis(1, lift.withWiring(noBrake)), 1, Set.of()).message()).contains("blocked, or its brake closed");
    }

    /** Load data first (common practice, no source): nothing starts before, and it is said which is missing. */
    @Test
    void nothingStartsBeforeTheLoadIsEntered() {
        Machine fresh = DEMO.withAxis(0, NewAxis.named("Shuttle"));
        assertThat(MovementTrial.run(fresh, 0, Set.of()).message()).isEqualTo("Enter the mass of the load first, in the stage Scale.");
        assertThat(Identification.run(fresh, 0, Set.of()).message()).isEqualTo("Enter the mass of the load first, in the stage Scale.");
        Axis loaded = NewAxis.named("Fresh").withLoad(Load.along(40, 20, 30));
        assertThat(MovementTrial.run(DEMO.withAxis(0, loaded), 0, Set.of()).holds()).isTrue();
        assertThat(rueda.machine.MachineRules.check(fresh)).isEmpty();
    }

    /** Without friction the bench does what linear theory says, to a count or two. */
    @Test
    void theFollowingErrorIsThatOfLinearTheory() {
        Axis shuttle = DEMO.axes().get(0);
        Axis smooth = shuttle.withLoad(Load.along(160, 0, 60)).withControl(new rueda.machine.Control(60, 0.25, 20, 0.9, 0.5));
        MoveTrial.Result r = MoveTrial.run(DEMO.withAxis(0, smooth), 0);
        double worst = r.followingError().stream().mapToDouble(Math::abs).max().orElseThrow();
        assertThat(worst).isGreaterThan(0.5);
        for (int k = 0; k < r.time().size(); k++) {
            assertThat(r.predictedError().get(k)).as("at " + r.time().get(k) + " s").isCloseTo(r.followingError().get(k), within(0.01 * worst));
        }
        assertThat(r.inPosition()).as("the drive reports it after its dwell").isGreaterThanOrEqualTo(smooth.supervision().positionDwell() * 1e-3 - 1e-9);
    }

    @Test
    void theTwoMassTableFollowsTheoryToo() {
        Axis table = DEMO.axes().get(2);
        Load l = table.load();
        Axis smooth = table.withLoad(new Load(0, l.inertia(), 0, l.viscous(), 0, l.stiffness(), l.damping(), 0));
        MoveTrial.Result r = MoveTrial.run(DEMO.withAxis(2, smooth), 2);
        double worst = r.followingError().stream().mapToDouble(Math::abs).max().orElseThrow();
        for (int k = 0; k < r.time().size(); k++) {
            assertThat(r.predictedError().get(k)).as("at " + r.time().get(k) + " s").isCloseTo(r.followingError().get(k), within(0.05 * worst));
        }
    }

    /** A step rises as theory says where friction is small, overshoots as predicted, and stays within the torque. */
    @Test
    void aStepIsThatOfLinearTheory() {
        Axis shuttle = DEMO.axes().get(0);
        Axis lively = shuttle.withLoad(Load.along(160, 0, 60)).withControl(new rueda.machine.Control(60, 0.1, 20, 1, 1));
        MoveTrial.Result r = MoveTrial.step(DEMO.withAxis(0, lively), 0);
        double size = Math.abs(r.commanded().get(r.commanded().size() - 1));
        double highest = 0;
        for (int k = 0; k < r.time().size(); k++) {
            double made = (r.commanded().get(k) - r.followingError().get(k)) * Math.signum(r.commanded().get(r.commanded().size() - 1));
            highest = Math.max(highest, made);
            assertThat(r.predictedError().get(k)).as("at " + r.time().get(k) + " s").isCloseTo(r.followingError().get(k), within(0.03 * size));
        }
        assertThat(highest / size - 1).isCloseTo(rueda.advice.LinearModel.stepResponse(lively).overshoot(), within(0.03)).isGreaterThan(0.05);
        assertThat(r.peakTorque()).isLessThan(0.6 * lively.motor().ratedTorque());
    }

    @Test
    void everyDemoAxisTakesAStep() {
        for (int i = 0; i < DEMO.axes().size(); i++) {
            MoveTrial.Result r = MoveTrial.step(DEMO, i);
            double size = Math.abs(r.commanded().get(r.commanded().size() - 1));
            assertThat(size).as(DEMO.axes().get(i).name()).isPositive();
            assertThat(Math.abs(r.followingError().get(r.followingError().size() - 1))).as(DEMO.axes().get(i).name()).isLessThan(0.3 * size);
        }
    }

    /** Tiny gains end the trial, not the server: bounded in machine time and in points, and it is said. */
    @ParameterizedTest
    @ValueSource(doubles = {1, 0.01, 0.0003, 1e-9, 1e-300})
    void aTrialIsBoundedWhateverTheGain(double gain) {
        rueda.machine.Control c = DEMO.axes().get(0).control();
        Machine slow = DEMO.withAxis(0, DEMO.axes().get(0).withControl(new rueda.machine.Control(gain, c.velocityGain(), c.integralTime(), 0, 0)));
        for (MoveTrial.Result r : List.of(MoveTrial.step(slow, 0), MoveTrial.run(slow, 0))) {
            assertThat(r.time().size()).isBetween(10, 4000);
            assertThat(r.time().get(r.time().size() - 1)).isLessThanOrEqualTo(20.1);
            assertThat(r.predictedError()).hasSameSizeAs(r.time());
        }
        if (gain < 0.1) {
            assertThat(MoveTrial.step(slow, 0).cutShort()).isTrue();
            assertThat(rueda.advice.LinearModel.stepResponse(slow.axes().get(0)).settled()).isNaN();
            assertThat(rueda.advice.TuneAdvice.of(slow.axes().get(0), "/axes/0").figures()).filteredOn(f -> f.label().equals("Settles to 2 % in")).singleElement()
                    .satisfies(f -> assertThat(f.value()).startsWith("more than"));
        }
    }

    /** The settling time that is shown is the one that the bench needs, and so is the following error at speed. */
    @ParameterizedTest
    @ValueSource(doubles = {20, 45, 60, 90})
    void settlingAndFollowingErrorAreThoseOfTheBench(double gain) {
        Axis shuttle = DEMO.axes().get(0);
        for (double integralTime : new double[] {8, 20, 60}) {
            Axis smooth = shuttle.withLoad(Load.along(160, 0, 60)).withControl(new rueda.machine.Control(gain, 0.25, integralTime, 0, 0));
            MoveTrial.Result r = MoveTrial.step(DEMO.withAxis(0, smooth), 0);
            assertThat(1000 * rueda.advice.LinearModel.stepResponse(smooth).settled()).as("Ti %s", integralTime).isCloseTo(1000 * r.settled(), within(2.0 + 30 * r.settled()));
        }
        for (double forward : new double[] {0, 0.5, 1}) {
            Axis cruising = shuttle.withLoad(Load.along(160, 0, 60)).withControl(new rueda.machine.Control(gain, 0.25, 20, forward, 0)).withSupervision(rueda.machine.Supervision.of(0.05, 100))
                    .withLimits(new Limits(-20, 2330, new Dynamics(400, 4000, 4000, 0, 260), shuttle.limits().max(), 5000));
            Bench bench = new Bench(DEMO.withAxis(0, cruising), "PROGRAM P END_PROGRAM", 16);
            bench.takeByHand();
            bench.run(0.05);
            bench.hand(0).enable(true);
            bench.run(0.6);
            bench.hand(0).jog(1, true, bench.now());
            bench.run(1.8);
            assertThat(bench.drive(0).followingError()).as("feed-forward %s", forward).isCloseTo(rueda.advice.LinearModel.followingErrorAt(400, cruising.control()), within(0.004 * 400 / gain + 0.01));
        }
    }
}
