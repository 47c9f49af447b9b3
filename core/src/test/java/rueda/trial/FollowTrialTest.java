package rueda.trial;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.EnumSource;
import rueda.advice.FollowAdvice;
import rueda.advice.FollowTheory;
import rueda.bus.BusFamily;
import rueda.machine.Axis;
import rueda.machine.Bus;
import rueda.machine.DemoMachine;
import rueda.machine.Following;
import rueda.machine.Following.Lock;
import rueda.machine.Following.Source;
import rueda.machine.Load;
import rueda.machine.Machine;

class FollowTrialTest {

    private static final int BRUSH = 3;

    private static Machine demo(java.util.function.UnaryOperator<Following> changed) {
        Machine demo = DemoMachine.create();
        Axis brush = demo.axes().get(BRUSH);
        return demo.withAxis(BRUSH, brush.withFollowing(changed.apply(brush.following())));
    }

    private static double deviation(FollowTrial.Followed r) {
        double worst = 0;
        for (int i = 0; i < r.time().size(); i++) {
            worst = Math.max(worst, Math.abs(r.phase().get(i) - r.predicted().get(i)));
        }
        return worst;
    }

    /** Tied by position to a running master: made up as fast as the closed form says, and as the lock alone does; then it stays within its window. */
    @ParameterizedTest
    @EnumSource(Bus.Family.class)
    void makesUpWhatItLost(Bus.Family family) {
        Machine machine = BusFamily.moved(demo(f -> f.withAcceleration(400)), family);
        FollowTrial.Followed r = FollowTrial.run(machine, BRUSH, 40, true);
        assertThat(r.refusal()).isNull();
        FollowTheory theory = FollowTheory.of(machine.axes().get(BRUSH), 3.5 * 40);
        assertThat(r.locked() - r.engaged()).isCloseTo(theory.locked(), within(0.03));
        assertThat(r.worst()).isLessThan(1.2);
        assertThat(r.fastest()).as("the master's speed and the catch-up limit, or what is reached of it").isLessThanOrEqualTo(140 + 180 + 25);
        assertThat(deviation(r)).as("following errors of both loops and the rounding of the wire").isLessThan(2);
        assertThat(r.trimmedBy()).as("60°/s for half a second").isCloseTo(30, within(0.3));
    }

    /** Common practice, no source: tied by speed the lost way stays lost, v²/2a. */
    @Test
    void losesWayBySpeed() {
        Machine machine = demo(f -> f.withAcceleration(400).withLock(Lock.SPEED));
        FollowTrial.Followed r = FollowTrial.run(machine, BRUSH, 40, true);
        FollowTheory theory = FollowTheory.of(machine.axes().get(BRUSH), 3.5 * 40);
        assertThat(theory.lost()).isCloseTo(24.5, within(1e-9));
        assertThat(r.lost()).isCloseTo(theory.lost(), within(0.3));
        assertThat(r.gap()).isCloseTo(-theory.lost(), within(0.5));
        assertThat(r.locked() - r.engaged()).isCloseTo(theory.locked(), within(0.01));
    }

    /** Common practice, no source: without feed-forward the gap is speed ÷ gain, with it the phase is kept. Measured at both loads. */
    @ParameterizedTest
    @CsvSource({"0, 50", "50, 50", "100, 50", "0, 25"})
    void theGapIsAsPredicted(double share, double gain) {
        Machine machine = demo(f -> f.withFeedForward(share).withGain(gain).withTrimSpeed(0));
        FollowTrial.Followed r = FollowTrial.run(machine, BRUSH, 40, false);
        double predicted = FollowTheory.of(machine.axes().get(BRUSH), 140).gap();
        assertThat(predicted).isCloseTo((1 - share / 100) * 140 / gain, within(1e-9));
        assertThat(r.gap()).isCloseTo(-predicted, within(0.15));
    }

    /** Following the actual position costs a bus cycle; prediction gives it back. */
    @ParameterizedTest
    @CsvSource({"SETPOINT, 0, 0", "ACTUAL, 0, 1", "ACTUAL, 1, 1", "ACTUAL, 0.5, 1"})
    void theDelayIsAsAnnounced(Source source, double prediction, int cycles) {
        Machine sprung = demo(f -> f.withSource(source).withPrediction(prediction).withFilter(source == Source.ACTUAL ? 20 : 0).withTrimSpeed(0));
        Axis soft = sprung.axis("Table").orElseThrow();
        Load l = soft.load();
        /* friction winds the shaft of the Table up, which is no delay */
        Machine machine = sprung.withAxis(2, soft.withLoad(new Load(l.mass(), l.inertia(), l.coulomb(), l.viscous(), l.slope(), 0, 0, 0)));
        assertThat(FollowAdvice.delayCycles(source)).isEqualTo(cycles);
        Axis brush = machine.axes().get(BRUSH);
        Axis table = machine.axis("Table").orElseThrow();
        double cycle = machine.bus().cycleMicros() * 1e-6;
        double announced = FollowTheory.loadBehind(brush, table, 3.5, 40, cycle) - FollowTheory.loadBehind(brush, table, 3.5, 10, cycle);
        /* what does not grow with the speed, play and friction, is left out */
        double measured = FollowTrial.run(machine, BRUSH, 10, false).gap() - FollowTrial.run(machine, BRUSH, 40, false).gap();
        assertThat((measured - announced) / (3.5 * 30) / cycle).as("bus cycles between what is measured and what is announced").isCloseTo(0, within(0.05));
    }

    @Test
    void meets() {
        Machine machine = demo(f -> f.withLock(Lock.MEETING).withMeeting(new Following.Meeting(270, 100, 60)));
        FollowTrial.Followed r = FollowTrial.run(machine, BRUSH, 40, true);
        assertThat(r.refusal()).isNull();
        assertThat(r.locked()).isNotNull();
        assertThat(r.worst()).isLessThan(1.0);
        assertThat(r.fastest()).isGreaterThan(139);
    }

    /** Behind an encoder at the second input: made up as fast as the closed form says, the gap and the sub-step of delay as announced. */
    @Test
    void behindAnEncoder() {
        Machine demo = DemoMachine.byEncoder();
        Machine machine = demo.withAxis(0, demo.axes().get(0).withFollowing(demo.axes().get(0).following().withAcceleration(1000).withTrimSpeed(0)));
        FollowTrial.Followed r = FollowTrial.run(machine, 0, 120, true);
        double speed = 120 * 1080.0 / 420;
        assertThat(r.refusal()).isNull();
        assertThat(r.locked() - r.engaged()).isCloseTo(FollowTheory.of(machine.axes().get(0), speed).locked(), within(0.03));
        assertThat(r.worst()).isLessThan(1.2);
        Machine without = machine.withAxis(0, machine.axes().get(0).withFollowing(machine.axes().get(0).following().withFeedForward(0).withAcceleration(0)));
        assertThat(FollowTrial.run(without, 0, 60, true).gap()).isCloseTo(-FollowTheory.of(without.axes().get(0), speed / 2).gap(), within(0.15));
        assertThat(FollowAdvice.delay(Source.ENCODER, 0.001)).isEqualTo(125e-6);
    }

    @Test
    void aFollowerThatCannotIsToldSo() {
        Machine machine = demo(f -> f.withLock(Lock.MEETING).withMeeting(new Following.Meeting(270, 100, 1)));
        assertThat(FollowTrial.run(machine, BRUSH, 100, true).refusal()).contains("no more");
    }

    @Test
    void theSameTwice() {
        Machine machine = demo(f -> f);
        assertThat(FollowTrial.run(machine, BRUSH, 40, true)).isEqualTo(FollowTrial.run(machine, BRUSH, 40, true));
    }
}
