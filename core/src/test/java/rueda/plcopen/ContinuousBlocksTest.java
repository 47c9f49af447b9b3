package rueda.plcopen;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import rueda.bench.Bench;

/** Moves that go on behind their target (PLCopen Motion Control part 1, from memory): the target is passed at the end speed, exactly. */
class ContinuousBlocksTest {

    private static Bench bench(String call, String more) {
        return bench(100, call, more);
    }

    /** @param zero position of the place where it stands, units */
    private static Bench bench(double zero, String call, String more) {
        String program = "PROGRAM Main\nVAR t : DINT; Power : MC_Power; Home : MC_Home; Move : MC_MoveContinuousAbsolute; Way : MC_MoveContinuousRelative; Next : MC_MoveAbsolute; Info : MC_ReadAxisInfo; In0, In99 : MC_ReadDigitalInput; END_VAR\n"
                + "t := t + 1;\nPower(Axis := Shuttle, Enable := TRUE);\nHome(Axis := Shuttle, Execute := Power.Status);\n" + call + "\n" + more + "\nEND_PROGRAM";
        return new Bench(ProgramBench.alone("Shuttle", zero), program, 20_000);
    }

    private static double speed(Bench bench) {
        return bench.axis(0).commandedSpeed();
    }

    /** Setpoint and speed where it passes the target, by interpolation between two bus cycles. */
    private static double speedAt(Bench bench, double target) {
        double before = bench.axis(0).shownPosition();
        double speedBefore = speed(bench);
        for (int i = 0; i < 10_000; i++) {
            bench.cycle();
            double now = bench.axis(0).shownPosition();
            if ((before - target) * (now - target) <= 0 && now != before) {
                return speedBefore + (speed(bench) - speedBefore) * (target - before) / (now - before);
            }
            before = now;
            speedBefore = speed(bench);
        }
        throw new AssertionError("never there");
    }

    @ParameterizedTest
    @CsvSource({"500, 100, 300", "500, 300, 300", "150, 60, 800", "500, 0, 300"})
    void theTargetIsPassedAtTheEndSpeed(double target, double endVelocity, double velocity) {
        Bench bench = bench("Move(Axis := Shuttle, Execute := Home.Done, Position := " + target + ", EndVelocity := " + endVelocity + ", Velocity := " + velocity + ");", "");
        ProgramBench.untilTrue(bench, "Move.Active");
        assertThat(bench.axis(0).state()).isEqualTo(AxisState.DISCRETE_MOTION);
        if (endVelocity > 0) {
            assertThat(speedAt(bench, target)).isCloseTo(endVelocity, within(0.01 * endVelocity));
        }
        ProgramBench.untilTrue(bench, "Move.InEndVelocity");
        assertThat(bench.axis(0).state()).isEqualTo(AxisState.CONTINUOUS_MOTION);
        assertThat(speed(bench)).isCloseTo(endVelocity, within(1e-6));
        assertThat(ProgramBench.value(bench, "Move.Busy")).isEqualTo(1);
        double from = bench.axis(0).shownPosition();
        bench.run(0.5);
        assertThat(bench.axis(0).shownPosition() - from).isCloseTo(0.5 * endVelocity, within(1e-6 + 0.003 * endVelocity));
    }

    /** Faster behind than before: the target is passed at the speed of the move, and then it gets faster. */
    @Test
    void fasterBehind() {
        Bench bench = bench("Move(Axis := Shuttle, Execute := Home.Done, Position := 300.0, EndVelocity := 400.0, Velocity := 100.0);", "");
        ProgramBench.untilTrue(bench, "Move.Active");
        assertThat(speedAt(bench, 300)).isCloseTo(100, within(0.5));
        ProgramBench.untilTrue(bench, "Move.InEndVelocity");
        assertThat(speed(bench)).isCloseTo(400, within(1e-6));
    }

    /** Back again: it turns at the target, to the wire unit. */
    @Test
    void turnsRound() {
        Bench bench = bench("Way(Axis := Shuttle, Execute := Home.Done, Distance := 200.0, EndVelocity := 50.0, EndVelocityDirection := mcNegativeDirection, Velocity := 300.0);", "");
        ProgramBench.untilTrue(bench, "Way.Active");
        double highest = 0;
        for (int i = 0; i < 4000; i++) {
            bench.cycle();
            highest = Math.max(highest, bench.axis(0).shownPosition());
        }
        assertThat(highest).isCloseTo(300, within(0.01));
        assertThat(speed(bench)).isCloseTo(-50, within(1e-6));
    }

    /** It runs on to the soft limit and fails there, as a move at a speed does; another order ends it before. */
    @Test
    void howItEnds() {
        Bench bench = bench(620, "Move(Axis := Shuttle, Execute := Home.Done, Position := 2200.0, EndVelocity := 100.0);", "");
        ProgramBench.untilTrue(bench, "Move.Error");
        assertThat(ProgramBench.value(bench, "Move.ErrorID")).isEqualTo(MotionError.PAST_SOFT_LIMIT.id());
        assertThat(bench.axis(0).shownPosition()).isCloseTo(2330, within(0.01));
        Bench other = bench("Move(Axis := Shuttle, Execute := Home.Done, Position := 300.0, EndVelocity := 100.0);", "Next(Axis := Shuttle, Execute := Move.InEndVelocity OR Next.Busy, Position := 600.0);");
        ProgramBench.untilTrue(other, "Next.Done");
        assertThat(ProgramBench.value(other, "Move.CommandAborted")).isEqualTo(1);
        assertThat(other.axis(0).shownPosition()).isCloseTo(600, within(0.01));
    }

    @ParameterizedTest
    @CsvSource({"'Position := 300.0, EndVelocity := 99999.0'", "'Position := 300.0, EndVelocity := 10.0, EndVelocityDirection := 9'", "'Position := 30000.0, EndVelocity := 10.0'"})
    void refused(String inputs) {
        Bench bench = bench("Move(Axis := Shuttle, Execute := Home.Done, " + inputs + ");", "");
        ProgramBench.untilTrue(bench, "Move.Error");
        assertThat(bench.axis(0).state()).isEqualTo(AxisState.STANDSTILL);
    }

    /** What the drive says of itself, and its inputs, which the mailbox brings. */
    @Test
    void axisInfoAndInputs() {
        Bench bench = bench("Info(Axis := Shuttle, Enable := TRUE); In0(Axis := Shuttle, Enable := TRUE, InputNumber := 0); In99(Axis := Shuttle, Enable := TRUE, InputNumber := 99);", "");
        bench.run(0.004);
        assertThat(ProgramBench.value(bench, "Info.PowerOn")).isZero();
        ProgramBench.untilTrue(bench, "Home.Done");
        bench.run(0.05);
        for (String on : new String[] {"Info.Valid", "Info.CommunicationReady", "Info.ReadyForPowerOn", "Info.PowerOn", "Info.IsHomed", "In0.Valid", "In99.Error"}) {
            assertThat(ProgramBench.value(bench, on)).as(on).isEqualTo(1);
        }
        assertThat(ProgramBench.value(bench, "Info.LimitSwitchNeg")).isZero();
        assertThat(ProgramBench.value(bench, "In0.Value")).as("a switch that is closed at rest").isEqualTo(bench.drive(0).digitalInputs().levels(true) & 1);
        bench.drive(0).digitalInputs().force("I1", bench.drive(0).digitalInputs().levels(true) % 2 == 0);
        double before = ProgramBench.value(bench, "In0.Value");
        bench.run(0.05);
        assertThat(ProgramBench.value(bench, "In0.Value")).isNotEqualTo(before);
    }
}
