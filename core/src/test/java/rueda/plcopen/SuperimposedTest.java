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
import rueda.bench.Bench;

/** MC_MoveSuperimposed and MC_HaltSuperimposed by PLCopen Motion Control part 1 (from memory). */
class SuperimposedTest {

    private static Bench bench(String axis, String body) {
        return new Bench(ProgramBench.alone(axis, axis.equals("Shuttle") ? 500 : 0), "PROGRAM P VAR Power : MC_Power; Home : MC_Home; Run : MC_MoveVelocity; Go : MC_MoveAbsolute; Halt : MC_Halt; Add, More : MC_MoveSuperimposed; End : MC_HaltSuperimposed;"
                + " Set : MC_SetOverride; Status : MC_ReadStatus; Ready : BOOL; t : DINT; D : LREAL; END_VAR\n"
                + "Power(Axis := " + axis + ", Enable := TRUE); Home(Axis := " + axis + ", Execute := Power.Status); Status(Axis := " + axis + ", Enable := TRUE); IF Home.Done THEN Ready := TRUE; END_IF\n"
                + "IF Ready THEN t := t + 1; END_IF\n" + body.replace("AX", axis) + "\nEND_PROGRAM", 100);
    }

    private static long place(Bench bench) {
        return Math.round(bench.drive(0).demandPosition() * 1e4);
    }

    @Test
    void addsToAMoveThatGoesOn() {
        Bench bench = bench("Table", "Go(Axis := AX, Execute := Ready, Position := 90.0, Velocity := 30.0, Direction := mcPositiveDirection);\nAdd(Axis := AX, Execute := t > 500, Distance := 12.5, VelocityDiff := 10.0);");
        until(bench, 900);
        assertThat(value(bench, "Go.Active")).isEqualTo(1);
        assertThat(value(bench, "Add.Busy")).isEqualTo(1);
        assertThat(bench.drive(0).demandSpeed()).as("both together").isCloseTo(40, within(0.1));
        assertThat(value(bench, "Add.CoveredDistance")).isBetween(1.0, 12.0);
        assertThat(value(bench, "Status.DiscreteMotion")).isEqualTo(1);
        until(bench, 6000);
        assertThat(value(bench, "Go.Done")).isEqualTo(1);
        assertThat(value(bench, "Add.Done")).isEqualTo(1);
        assertThat(value(bench, "Add.CoveredDistance")).isEqualTo(12.5);
        assertThat(place(bench)).isEqualTo(1_025_000);
        assertThat(value(bench, "Status.Standstill")).isEqualTo(1);
    }

    /** An axis that runs is, whenever the addition has ended, exactly that much farther than one without. */
    @Test
    void isExactOverARun() {
        String run = "Run(Axis := AX, Execute := Ready, Velocity := 20.0);\n";
        Bench with = bench("Table", run + "Add(Axis := AX, Execute := t > 700, Distance := -7.3, VelocityDiff := 15.0, Acceleration := 50.0);");
        Bench without = bench("Table", run);
        until(with, 900);
        assertThat(value(with, "Status.ContinuousMotion")).isEqualTo(1);
        assertThat(with.drive(0).demandSpeed()).isCloseTo(5, within(0.1));
        assertThat(value(with, "Run.CommandAborted")).isZero();
        until(with, 2000);
        until(without, 2000);
        assertThat(value(with, "Add.Done")).isEqualTo(1);
        assertThat(value(with, "Run.InVelocity")).isEqualTo(1);
        assertThat(place(with) - place(without)).isEqualTo(-73_000);
    }

    @Test
    void isAMoveOfItsOwnForAnAxisThatStands() {
        Bench bench = bench("Table", "Add(Axis := AX, Execute := Ready, Distance := 20.0, VelocityDiff := 40.0);");
        until(bench, 200);
        assertThat(value(bench, "Status.DiscreteMotion")).isEqualTo(1);
        assertThat(value(bench, "Add.CoveredDistance")).isBetween(1.0, 19.0);
        until(bench, 2000);
        assertThat(value(bench, "Add.Done")).isEqualTo(1);
        assertThat(value(bench, "Add.CoveredDistance")).isCloseTo(20, within(1e-9));
        assertThat(place(bench)).isEqualTo(200_000);
    }

    /** An aborting order takes over both, with the speed of both. */
    @Test
    void anotherOrderTakesOverBoth() {
        Bench bench = bench("Table", "Run(Axis := AX, Execute := Ready, Velocity := 20.0);\nAdd(Axis := AX, Execute := t > 700, Distance := 60.0, VelocityDiff := 20.0);\nHalt(Axis := AX, Execute := t > 1500, Deceleration := 40.0);");
        until(bench, 1495);
        assertThat(bench.drive(0).demandSpeed()).isCloseTo(40, within(0.1));
        double before = bench.drive(0).demandPosition();
        until(bench, 4000);
        assertThat(value(bench, "Run.CommandAborted")).isEqualTo(1);
        assertThat(value(bench, "Add.CommandAborted")).isEqualTo(1);
        assertThat(value(bench, "Halt.Done")).isEqualTo(1);
        /* v²/2a + v·a/2j, and the cycles to the order */
        double way = 40.0 * 40 / (2 * 40) + 40.0 * 40 / (2 * bench.machine().axes().get(0).limits().normal().jerk());
        assertThat(bench.drive(0).demandPosition() - before).isBetween(way, way + 0.7);
    }

    @Test
    void aHaltEndsTheAdditionAlone() {
        Bench bench = bench("Table", "Run(Axis := AX, Execute := Ready, Velocity := 20.0);\nAdd(Axis := AX, Execute := t > 700, Distance := 200.0, VelocityDiff := 20.0);\nEnd(Axis := AX, Execute := t > 1500, Deceleration := 40.0);");
        until(bench, 2500);
        assertThat(value(bench, "Add.CommandAborted")).isEqualTo(1);
        assertThat(value(bench, "End.Done")).isEqualTo(1);
        assertThat(value(bench, "Run.InVelocity")).isEqualTo(1);
        assertThat(bench.drive(0).demandSpeed()).isCloseTo(20, within(0.1));
    }

    @Test
    void haltingNothingIsDoneAtOnce() {
        Bench bench = bench("Table", "End(Axis := AX, Execute := Ready);");
        until(bench, 2);
        assertThat(value(bench, "End.Done")).isEqualTo(1);
        assertThat(value(bench, "Status.Standstill")).isEqualTo(1);
    }

    /** The second one goes on from the speed of the first, and counts its own way. */
    @Test
    void anotherAdditionTakesOverTheFirst() {
        Bench bench = bench("Table", "Run(Axis := AX, Execute := Ready, Velocity := 20.0);\nAdd(Axis := AX, Execute := t > 700, Distance := 100.0, VelocityDiff := 20.0, Acceleration := 100.0);\nMore(Axis := AX, Execute := t > 1200, Distance := 30.0, VelocityDiff := 10.0, Acceleration := 100.0);");
        until(bench, 1210);
        assertThat(value(bench, "Add.CommandAborted")).isEqualTo(1);
        assertThat(bench.drive(0).demandSpeed()).as("no step of the speed").isBetween(35.0, 40.0);
        until(bench, 4000);
        assertThat(value(bench, "More.Done")).isEqualTo(1);
        assertThat(value(bench, "More.CoveredDistance")).isEqualTo(30);
    }

    /** An override acts on the ordered motion; the addition has its own speed. */
    @Test
    void theAdditionGoesOnWhileTheMoveIsHeld() {
        Bench bench = bench("Table", "Set(Axis := AX, Enable := TRUE, VelFactor := LREAL_TO_REAL(D));\nD := 1.0; IF t > 600 THEN D := 0.0; END_IF; IF t > 3000 THEN D := 1.0; END_IF\n"
                + "Go(Axis := AX, Execute := Ready, Position := 120.0, Velocity := 40.0, Direction := mcPositiveDirection);\nAdd(Axis := AX, Execute := t > 590, Distance := 25.0, VelocityDiff := 20.0);");
        until(bench, 1100);
        assertThat(bench.drive(0).demandSpeed()).isCloseTo(20, within(0.1));
        until(bench, 2900);
        assertThat(bench.drive(0).demandSpeed()).isZero();
        assertThat(value(bench, "Add.Done")).isEqualTo(1);
        assertThat(value(bench, "Go.Busy")).isEqualTo(1);
        until(bench, 9000);
        assertThat(value(bench, "Go.Done")).isEqualTo(1);
        assertThat(place(bench)).isEqualTo(1_450_000);
    }

    @Test
    void takesAnotherDistanceWhileItRuns() {
        Bench bench = bench("Table", "Run(Axis := AX, Execute := Ready, Velocity := 20.0);\nD := 20.0; IF t > 1000 THEN D := 35.0; END_IF\nAdd(Axis := AX, Execute := t > 700, Distance := D, VelocityDiff := 10.0, ContinuousUpdate := TRUE);");
        until(bench, 5000);
        assertThat(value(bench, "Add.Done")).isEqualTo(1);
        assertThat(value(bench, "Add.CoveredDistance")).isEqualTo(35);
        assertThat(value(bench, "Run.InVelocity")).isEqualTo(1);
    }

    @Test
    void staysWithinTheSoftLimits() {
        Bench refused = bench("Shuttle", "Go(Axis := AX, Execute := Ready, Position := 2300.0);\nAdd(Axis := AX, Execute := t > 100, Distance := 100.0);");
        until(refused, 120);
        assertThat(value(refused, "Add.ErrorID")).isEqualTo(MotionError.PAST_SOFT_LIMIT.id());
        assertThat(value(refused, "Go.Active")).isEqualTo(1);
        /* a run has no target: it and what is added stop before the limit */
        Bench run = bench("Shuttle", "Run(Axis := AX, Execute := Ready, Velocity := 300.0);\nAdd(Axis := AX, Execute := t > 1500, Distance := 1500.0, VelocityDiff := 300.0);");
        until(run, 6000);
        assertThat(value(run, "Run.ErrorID")).isEqualTo(MotionError.PAST_SOFT_LIMIT.id());
        assertThat(value(run, "Add.ErrorID")).isEqualTo(MotionError.PAST_SOFT_LIMIT.id());
        assertThat(place(run)).isBetween(23_000_000L, 23_300_000L);
        /* the other way, held by an override of 0 when the addition ends: it goes on the way it went */
        Bench held = bench("Shuttle", "Set(Axis := AX, Enable := TRUE, VelFactor := LREAL_TO_REAL(D));\nD := 1.0; IF t > 600 AND t < 3000 THEN D := 0.0; END_IF\nRun(Axis := AX, Execute := Ready, Velocity := -100.0);\nAdd(Axis := AX, Execute := t > 590, Distance := 50.0, VelocityDiff := 50.0);");
        until(held, 2900);
        assertThat(value(held, "Add.Done")).isEqualTo(1);
        assertThat(held.drive(0).demandSpeed()).isZero();
        until(held, 3400);
        assertThat(held.drive(0).demandSpeed()).isCloseTo(-100, within(1.0));
        /* back while it runs to the limit: it still ends at the limit */
        Bench back = bench("Shuttle", "Run(Axis := AX, Execute := Ready, Velocity := 300.0);\nAdd(Axis := AX, Execute := t > 1500, Distance := -200.0, VelocityDiff := 100.0);");
        until(back, 9000);
        assertThat(value(back, "Add.Done")).isEqualTo(1);
        assertThat(place(back)).isBetween(23_299_000L, 23_300_000L);
    }

    @Test
    void whatIsRefusedSaysWhy() {
        Bench bench = bench("Table", "Run(Axis := AX, Execute := Ready, Velocity := 20.0);\nAdd(Axis := AX, Execute := t > 100, Distance := 1.0, VelocityDiff := 5000.0);\nMore(Axis := AX, Execute := t > 100, Distance := 1.0, Acceleration := -1.0);\nEnd(Axis := AX, Execute := t > 100, Jerk := -1.0);");
        until(bench, 110);
        assertThat(value(bench, "Add.ErrorID")).isEqualTo(MotionError.BAD_VALUE.id());
        assertThat(value(bench, "More.ErrorID")).isEqualTo(MotionError.BAD_VALUE.id());
        assertThat(value(bench, "End.ErrorID")).isEqualTo(MotionError.BAD_VALUE.id());
        assertThat(value(bench, "Run.Active")).isEqualTo(1);
        Bench off = bench("Table", "Add(Axis := AX, Execute := TRUE, Distance := 10.0);\nEnd(Axis := AX, Execute := TRUE);");
        off.cycle();
        assertThat(value(off, "Add.ErrorID")).isEqualTo(MotionError.NOT_ENABLED.id());
        assertThat(value(off, "End.ErrorID")).isEqualTo(MotionError.NOT_ENABLED.id());
    }

    /** Whatever comes when: the speed has no step, and the axis ends at its target and what was added. */
    @Property(tries = 25)
    void theSpeedHasNoStep(@ForAll @DoubleRange(min = -40, max = 40) double distance, @ForAll @DoubleRange(min = 5, max = 60) double speed, @ForAll @IntRange(min = 1, max = 1500) int when,
                           @ForAll @IntRange(min = 1, max = 1500) int slower, @ForAll @DoubleRange(min = 0.2, max = 1) double factor) {
        Bench bench = bench("Table", "Set(Axis := AX, Enable := TRUE, VelFactor := LREAL_TO_REAL(D));\nD := 1.0; IF t > " + slower + " THEN D := " + factor + "; END_IF\n"
                + "Go(Axis := AX, Execute := Ready, Position := 100.0, Velocity := 40.0, Acceleration := 100.0, Jerk := 2000.0, Direction := mcPositiveDirection);\nAdd(Axis := AX, Execute := t > " + when + ", Distance := " + distance + ", VelocityDiff := " + speed + ", Acceleration := 100.0, Jerk := 2000.0);");
        until(bench, 1);
        double before = 0;
        long added = Math.round(distance * 1e4);
        for (int i = 0; i < 30_000 && !(value(bench, "Go.Done") == 1 && value(bench, "Add.Done") == 1); i++) {
            bench.cycle();
            double now = bench.drive(0).demandSpeed();
            /* 100 + 100 °/s² over a bus cycle of 1 ms, and the rounding of both places to whole wire units */
            assertThat(Math.abs(now - before)).isLessThanOrEqualTo(0.2 + 0.25);
            before = now;
        }
        assertThat(value(bench, "Go.Done") + value(bench, "Add.Done")).isEqualTo(2);
        assertThat(place(bench)).isCloseTo(1_000_000 + added, within(5L));
    }
}
