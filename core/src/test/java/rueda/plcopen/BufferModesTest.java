package rueda.plcopen;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;
import static rueda.plcopen.ProgramBench.until;
import static rueda.plcopen.ProgramBench.value;

import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.DoubleRange;
import net.jqwik.api.constraints.IntRange;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import rueda.bench.Bench;

/** BufferMode and ContinuousUpdate by PLCopen Motion Control part 1 (from memory). */
class BufferModesTest {

    private static final int ABORTING = 0;
    private static final int BUFFERED = 1;

    private static Bench bench(String axis, String body) {
        return new Bench(ProgramBench.alone(axis, 0), "PROGRAM P VAR Power : MC_Power; Home : MC_Home; First, Second, Third : MC_MoveAbsolute; Rel : MC_MoveRelative; More : MC_MoveAdditive; Run : MC_MoveVelocity; Halt : MC_Halt;"
                + " Ready : BOOL; t : DINT; Mode : INT; P, V : LREAL; END_VAR\n"
                + "Power(Axis := " + axis + ", Enable := TRUE); Home(Axis := " + axis + ", Execute := Power.Status); IF Home.Done THEN Ready := TRUE; END_IF\n"
                + "IF Ready THEN t := t + 1; END_IF\n" + body.replace("AX", axis) + "\nEND_PROGRAM", 100);
    }

    /** Runs until the block is done. @return the speed of the setpoint when it became so */
    private static double untilDone(Bench bench, String block) {
        double speed = bench.drive(0).demandSpeed();
        for (int i = 0; i < 60_000 && value(bench, block + ".Done") != 1; i++) {
            speed = bench.drive(0).demandSpeed();
            bench.cycle();
        }
        assertThat(value(bench, block + ".Done")).as(block).isEqualTo(1);
        return speed;
    }

    /** The target of the first is passed at the speed that the mode says; buffered it is a stand. */
    @ParameterizedTest
    @CsvSource({"1,0", "2,100", "3,200", "4,100", "5,200"})
    void theTargetIsPassedAtTheSpeedOfTheMode(int mode, double speed) {
        Bench bench = bench("Shuttle", "First(Axis := AX, Execute := Ready, Position := 500.0, Velocity := 200.0, Acceleration := 1000.0);\nSecond(Axis := AX, Execute := t > 100, Position := 1000.0, Velocity := 100.0, Acceleration := 1000.0, BufferMode := " + mode + ");");
        until(bench, 110);
        assertThat(value(bench, "First.Active")).isEqualTo(1);
        assertThat(value(bench, "Second.Busy")).isEqualTo(1);
        assertThat(value(bench, "Second.Active")).isZero();
        assertThat(untilDone(bench, "First")).isCloseTo(speed, within(2.0));
        assertThat(bench.drive(0).demandPosition()).isCloseTo(500, within(1.5));
        until(bench, (int) value(bench, "t") + 4);
        assertThat(value(bench, "Second.Active")).isEqualTo(1);
        untilDone(bench, "Second");
        assertThat(bench.drive(0).position()).isCloseTo(1000, within(0.05));
    }

    /** Closed form: 500 mm and 500 mm at one speed v with a take v/a + s/v, as 1000 mm at once does; buffered they take v/a more, and the settling. */
    @Test
    void blendedAtOneSpeedTheyTakeAsLongAsOneMove() {
        String two = "First(Axis := AX, Execute := Ready, Position := 500.0, Velocity := 200.0, Acceleration := 1000.0, Jerk := 20000.0);\nSecond(Axis := AX, Execute := Ready, Position := 1000.0, Velocity := 200.0, Acceleration := 1000.0, Jerk := 20000.0, BufferMode := 3);";
        Bench blended = bench("Shuttle", two);
        Bench one = bench("Shuttle", "First(Axis := AX, Execute := Ready, Position := 1000.0, Velocity := 200.0, Acceleration := 1000.0, Jerk := 20000.0);");
        Bench buffered = bench("Shuttle", two.replace("BufferMode := 3", "BufferMode := 1"));
        untilDone(blended, "Second");
        untilDone(one, "First");
        untilDone(buffered, "Second");
        assertThat(value(blended, "t")).isCloseTo(value(one, "t"), within(2.0));
        /* 200/1000 + 1000/20000 = 0.25 s for braking and starting anew, in cycles of 2 ms */
        assertThat(value(buffered, "t") - value(one, "t")).isBetween(125.0, 175.0);
    }

    /** The other way, or nowhere: the first one comes to a stand, whatever the mode says. */
    @Test
    void whatGoesTheOtherWayIsNoBlending() {
        Bench bench = bench("Shuttle", "First(Axis := AX, Execute := Ready, Position := 500.0, Velocity := 200.0);\nSecond(Axis := AX, Execute := t > 100, Position := 100.0, Velocity := 200.0, BufferMode := 5);");
        assertThat(untilDone(bench, "First")).isZero();
        untilDone(bench, "Second");
        assertThat(bench.drive(0).position()).isCloseTo(100, within(0.05));
    }

    /** A next move that is too short to be stopped in is entered more slowly. */
    @Test
    void aShortNextMoveIsEnteredAsFastAsItCanBeStopped() {
        Bench bench = bench("Shuttle", "First(Axis := AX, Execute := Ready, Position := 500.0, Velocity := 400.0, Acceleration := 1000.0);\nSecond(Axis := AX, Execute := t > 100, Position := 505.0, Velocity := 400.0, Acceleration := 1000.0, BufferMode := 5);");
        double passing = untilDone(bench, "First");
        assertThat(passing).isBetween(10.0, Math.sqrt(2 * 1000 * 5) + 1);
        double highest = 0;
        while (value(bench, "Second.Done") != 1) {
            bench.cycle();
            highest = Math.max(highest, bench.drive(0).demandPosition());
        }
        assertThat(highest).as("not past its target").isLessThan(505.001);
    }

    @Test
    void oneOrderWaitsAndASecondIsRefused() {
        Bench bench = bench("Shuttle", "First(Axis := AX, Execute := Ready, Position := 500.0, Velocity := 200.0);\nSecond(Axis := AX, Execute := t > 50, Position := 600.0, BufferMode := 1);\nThird(Axis := AX, Execute := t > 60, Position := 700.0, BufferMode := 1);\nRel(Axis := AX, Execute := t > 70, Distance := 10.0, BufferMode := 9);");
        until(bench, 100);
        assertThat(value(bench, "Third.ErrorID")).isEqualTo(MotionError.ORDER_WAITS.id());
        assertThat(value(bench, "Rel.ErrorID")).isEqualTo(MotionError.BAD_VALUE.id());
        assertThat(value(bench, "Second.Busy")).isEqualTo(1);
        untilDone(bench, "Second");
        assertThat(bench.drive(0).position()).isCloseTo(600, within(0.05));
    }

    /** An order that waits is told at once that its target lies outside; one that takes over sends the waiting one away. */
    @Test
    void aWaitingOrderIsCheckedAndSentAway() {
        Bench bench = bench("Shuttle", "First(Axis := AX, Execute := Ready, Position := 500.0, Velocity := 200.0);\nSecond(Axis := AX, Execute := t > 50, Position := 5000.0, BufferMode := 3);\nThird(Axis := AX, Execute := t > 60, Position := 600.0, BufferMode := 3);\nHalt(Axis := AX, Execute := t > 200);");
        until(bench, 100);
        assertThat(value(bench, "Second.ErrorID")).isEqualTo(MotionError.PAST_SOFT_LIMIT.id());
        assertThat(value(bench, "Third.Busy")).isEqualTo(1);
        until(bench, 210);
        assertThat(value(bench, "First.CommandAborted")).isEqualTo(1);
        assertThat(value(bench, "Third.CommandAborted")).isEqualTo(1);
        untilDone(bench, "Halt");
        assertThat(bench.drive(0).demandSpeed()).isZero();
    }

    /** Behind a home search; behind a speed when that is reached; a speed behind a move, entered without a stand. */
    @Test
    void ordersWaitForHomingAndForSpeeds() {
        Bench bench = bench("Table", "First(Axis := AX, Execute := Home.Active, Position := 30.0, BufferMode := 1);\nRun(Axis := AX, Execute := First.Active, Velocity := 40.0, Direction := mcPositiveDirection, BufferMode := 4);\nIF Run.InVelocity THEN V := V + 1.0; END_IF Rel(Axis := AX, Execute := V > 100.0, Distance := 90.0, BufferMode := 1);");
        untilDone(bench, "First");
        until(bench, (int) value(bench, "t") + 2);
        assertThat(value(bench, "Run.Active")).isEqualTo(1);
        assertThat(bench.drive(0).demandSpeed()).isCloseTo(40, within(1.0));
        until(bench, (int) value(bench, "t") + 90);
        assertThat(value(bench, "Run.InVelocity")).isEqualTo(1);
        untilDone(bench, "Rel");
        assertThat(value(bench, "Run.Busy")).isZero();
    }

    /** Changed while it runs: the position at once, the distance from where it counted at first, the speed too; without ContinuousUpdate nothing. */
    @ParameterizedTest
    @CsvSource({"TRUE,300,300", "FALSE,200,200"})
    void inputsThatChangeAreTaken(String update, double absolute, double relative) {
        Bench bench = bench("Shuttle", "IF t = 0 THEN P := 200.0; V := 100.0; END_IF IF t = 300 THEN P := 300.0; V := 250.0; END_IF\nFirst(Axis := AX, Execute := Ready, Position := P, Velocity := V, ContinuousUpdate := " + update + ");");
        until(bench, 500);
        assertThat(bench.drive(0).demandSpeed()).isCloseTo(update.equals("TRUE") ? 250 : 100, within(1.0));
        untilDone(bench, "First");
        assertThat(bench.drive(0).position()).isCloseTo(absolute, within(0.05));
        Bench by = bench("Shuttle", "IF t = 0 THEN P := 200.0; END_IF IF t = 300 THEN P := 300.0; END_IF\nRel(Axis := AX, Execute := Ready, Distance := P, Velocity := 100.0, ContinuousUpdate := " + update + ");");
        untilDone(by, "Rel");
        assertThat(by.drive(0).position()).isCloseTo(relative, within(0.05));
        Bench run = bench("Shuttle", "IF t = 0 THEN V := 50.0; END_IF IF t = 300 THEN V := 80.0; END_IF\nRun(Axis := AX, Execute := Ready, Velocity := V, ContinuousUpdate := " + update + ");");
        until(run, 600);
        assertThat(run.drive(0).demandSpeed()).isCloseTo(update.equals("TRUE") ? 80 : 50, within(0.1));
    }

    /** Inputs of the running block are taken while another order waits: that one goes on waiting, and the target is passed as it says. */
    @ParameterizedTest
    @CsvSource({"1,0", "3,250"})
    void whatWaitsGoesOnWaitingWhenTheRunningInputsChange(int mode, double passing) {
        Bench bench = bench("Shuttle", "IF t = 0 THEN P := 400.0; V := 150.0; END_IF IF t = 200 THEN P := 500.0; V := 250.0; END_IF\nFirst(Axis := AX, Execute := Ready, Position := P, Velocity := V, Acceleration := 1000.0, ContinuousUpdate := TRUE);\n"
                + "Second(Axis := AX, Execute := t > 50, Position := 900.0, Velocity := 100.0, Acceleration := 1000.0, BufferMode := " + mode + ");");
        until(bench, 220);
        assertThat(value(bench, "Second.Busy")).isEqualTo(1);
        assertThat(value(bench, "Second.CommandAborted")).isZero();
        assertThat(untilDone(bench, "First")).isCloseTo(passing, within(2.0));
        assertThat(bench.drive(0).demandPosition()).isCloseTo(500, within(1.5));
        untilDone(bench, "Second");
        assertThat(bench.drive(0).position()).isCloseTo(900, within(0.05));
    }

    /** Whatever two orders say, as far as the travel goes from where the axis began: both targets are reached, no speed and no soft limit is passed, and the setpoint never jumps. */
    @Property(tries = 60)
    void twoOrdersInEveryMode(@ForAll @IntRange(min = ABORTING, max = 5) int mode, @ForAll @DoubleRange(min = -20, max = 1700) double first, @ForAll @DoubleRange(min = -20, max = 1700) double second,
                              @ForAll @DoubleRange(min = 20, max = 600) double v1, @ForAll @DoubleRange(min = 20, max = 600) double v2, @ForAll @IntRange(min = 2, max = 1500) int when) {
        Bench bench = bench("Shuttle", "First(Axis := AX, Execute := Ready, Position := " + first + ", Velocity := " + v1 + ");\nSecond(Axis := AX, Execute := t > " + when + ", Position := " + second + ", Velocity := " + v2 + ", BufferMode := " + mode + ");");
        double before = 0;
        double fastest = Math.max(v1, v2);
        for (int i = 0; i < 400_000 && value(bench, "Second.Done") != 1; i++) {
            bench.cycle();
            if (value(bench, "Ready") == 1 && value(bench, "t") > 1) {
                double now = bench.drive(0).demandPosition();
                assertThat(now).isBetween(-20.001, 2330.001);
                assertThat(Math.abs(now - before)).isLessThan(fastest * 0.0011 + 0.001);
                before = now;
            } else {
                before = bench.drive(0).demandPosition();
            }
        }
        assertThat(value(bench, "Second.Done")).isEqualTo(1);
        assertThat(bench.drive(0).position()).isCloseTo(second, within(0.05));
        if (mode >= BUFFERED) {
            assertThat(value(bench, "First.Done")).isEqualTo(1);
        }
    }
}
