package rueda.plcopen;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;
import static rueda.plcopen.ProgramBench.until;
import static rueda.plcopen.ProgramBench.value;

import org.junit.jupiter.api.Test;
import rueda.bench.Bench;

/** MC_MoveVelocity, MC_Stop, MC_MoveAdditive, MC_SetOverride and the reading blocks by PLCopen Motion Control part 1 (from memory). */
class RunStopOverrideTest {

    private static Bench bench(String axis, String body) {
        return new Bench(ProgramBench.alone(axis, axis.equals("Shuttle") ? 500 : 0), "PROGRAM P VAR Power : MC_Power; Home : MC_Home; Run, Other : MC_MoveVelocity; Stop, Again : MC_Stop; Go : MC_MoveAbsolute; More : MC_MoveAdditive; Set : MC_SetOverride;"
                + " Velocity : MC_ReadActualVelocity; Torque : MC_ReadActualTorque; Fault : MC_ReadAxisError; Status : MC_ReadStatus; Ready : BOOL; t : DINT; V : LREAL; Bad : BOOL; END_VAR\n"
                + "Power(Axis := " + axis + ", Enable := TRUE); Home(Axis := " + axis + ", Execute := Power.Status); Status(Axis := " + axis + ", Enable := TRUE); IF Home.Done THEN Ready := TRUE; END_IF\n"
                + "IF Ready THEN t := t + 1; END_IF\n" + body.replace("AX", axis) + "\nEND_PROGRAM", 100);
    }

    @Test
    void runsAtASpeedUntilAnotherOrderTakesOver() {
        Bench bench = bench("Table", "Run(Axis := AX, Execute := Ready, Velocity := 40.0, Direction := mcNegativeDirection);\nOther(Axis := AX, Execute := t > 1000, Velocity := 20.0);\nGo(Axis := AX, Execute := t > 2000, Position := 90.0, Direction := mcPositiveDirection);\n"
                + "Velocity(Axis := AX, Enable := TRUE); Torque(Axis := AX, Enable := TRUE);");
        until(bench, 900);
        assertThat(value(bench, "Run.InVelocity")).isEqualTo(1);
        assertThat(value(bench, "Status.ContinuousMotion")).isEqualTo(1);
        assertThat(bench.drive(0).demandSpeed()).isCloseTo(-40, within(0.1));
        assertThat(value(bench, "Velocity.Velocity")).isCloseTo(-40, within(1.0));
        assertThat(Math.abs(value(bench, "Torque.Torque"))).isBetween(0.02, 1.3);
        until(bench, 1900);
        assertThat(value(bench, "Run.CommandAborted")).isEqualTo(1);
        assertThat(value(bench, "Other.InVelocity")).isEqualTo(1);
        assertThat(bench.drive(0).demandSpeed()).isCloseTo(20, within(0.1));
        until(bench, 6000);
        assertThat(value(bench, "Other.CommandAborted")).isEqualTo(1);
        assertThat(value(bench, "Go.Done")).isEqualTo(1);
        assertThat(bench.drive(0).position()).isCloseTo(90, within(0.1));
    }

    /** Stopping holds the axis as long as Execute stands: no order is taken, and it comes to standstill when Execute has gone. */
    @Test
    void stopHoldsTheAxis() {
        Bench bench = bench("Table", "Run(Axis := AX, Execute := Ready, Velocity := 40.0);\nStop(Axis := AX, Execute := t > 800 AND t < 2500);\nGo(Axis := AX, Execute := t > 1800, Position := 10.0);\nOther(Axis := AX, Execute := t > 2700, Velocity := 10.0);");
        until(bench, 820);
        assertThat(value(bench, "Status.Stopping")).isEqualTo(1);
        assertThat(value(bench, "Run.CommandAborted")).isEqualTo(1);
        assertThat(value(bench, "Stop.Done")).isZero();
        until(bench, 1700);
        assertThat(value(bench, "Stop.Done")).isEqualTo(1);
        assertThat(value(bench, "Status.Stopping")).as("Execute stands").isEqualTo(1);
        assertThat(bench.drive(0).demandSpeed()).isZero();
        until(bench, 2400);
        assertThat(value(bench, "Go.Error")).isEqualTo(1);
        assertThat(value(bench, "Go.ErrorID")).isEqualTo(MotionError.NOT_IN_THIS_STATE.id());
        until(bench, 2600);
        assertThat(value(bench, "Status.Standstill")).isEqualTo(1);
        until(bench, 3500);
        assertThat(value(bench, "Other.InVelocity")).as("it can be ordered again").isEqualTo(1);
    }

    /** Additional distance to the target of the running move, not to where the axis is. */
    @Test
    void anAdditiveMoveAddsToTheTarget() {
        Bench bench = bench("Table", "Go(Axis := AX, Execute := Ready, Position := 90.0, Direction := mcPositiveDirection);\nMore(Axis := AX, Execute := t > 300, Distance := 30.0);");
        until(bench, 310);
        assertThat(bench.drive(0).demandPosition()).isBetween(1.0, 80.0);
        assertThat(value(bench, "Go.CommandAborted")).isEqualTo(1);
        until(bench, 4000);
        assertThat(value(bench, "More.Done")).isEqualTo(1);
        assertThat(Math.round(bench.drive(0).demandPosition() * 1e4)).isEqualTo(1_200_000);
    }

    @Test
    void overrideSlowsHoldsAndLetsGoOn() {
        Bench bench = bench("Table", "Set(Axis := AX, Enable := TRUE, VelFactor := LREAL_TO_REAL(V));\nGo(Axis := AX, Execute := Ready, Position := 180.0, Velocity := 60.0, Direction := mcPositiveDirection);\n"
                + "V := 0.5; IF t > 600 THEN V := 0.0; END_IF; IF t > 2000 THEN V := 1.0; END_IF; IF t > 5000 THEN V := 1.5; END_IF\n");
        until(bench, 550);
        assertThat(bench.drive(0).demandSpeed()).isCloseTo(30, within(0.1));
        until(bench, 1900);
        assertThat(bench.drive(0).demandSpeed()).isZero();
        assertThat(value(bench, "Go.Busy")).as("held, not ended").isEqualTo(1);
        until(bench, 2500);
        assertThat(bench.drive(0).demandSpeed()).isCloseTo(60, within(0.1));
        until(bench, 4900);
        assertThat(value(bench, "Go.Done")).isEqualTo(1);
        assertThat(Math.round(bench.drive(0).demandPosition() * 1e4)).isEqualTo(1_800_000);
        until(bench, 5100);
        assertThat(value(bench, "Set.Error")).isEqualTo(1);
        assertThat(value(bench, "Set.ErrorID")).isEqualTo(MotionError.BAD_VALUE.id());
    }

    /** An order that runs on, its Execute long fallen: that it was aborted shows for one call all the same. */
    @Test
    void anAbortShowsForOneCall() {
        Bench bench = bench("Table", "Run(Axis := AX, Execute := Ready AND t < 300, Velocity := 20.0);\nOther(Axis := AX, Execute := t > 900, Velocity := 10.0);\nIF Run.CommandAborted THEN V := V + 1.0; END_IF");
        until(bench, 890);
        assertThat(value(bench, "Run.InVelocity")).isEqualTo(1);
        until(bench, 1000);
        assertThat(value(bench, "V")).isEqualTo(1);
        assertThat(value(bench, "Run.CommandAborted")).isZero();
    }

    /** An axis with ends runs no farther than its soft limit; the order fails there, and the axis is not in error. */
    @Test
    void aRunEndsAtTheSoftLimit() {
        Bench bench = bench("Shuttle", "Run(Axis := AX, Execute := Ready, Velocity := 600.0);\nOther(Axis := AX, Execute := t > 5000, Velocity := 300.0, Direction := mcNegativeDirection);");
        until(bench, 4500);
        assertThat(value(bench, "Run.ErrorID")).isEqualTo(MotionError.PAST_SOFT_LIMIT.id());
        assertThat(Math.round(bench.drive(0).demandPosition() * 1e4)).isLessThanOrEqualTo(23_300_000).isGreaterThan(23_299_000);
        assertThat(value(bench, "Status.Standstill")).isEqualTo(1);
        until(bench, 5600);
        assertThat(value(bench, "Other.InVelocity")).isEqualTo(1);
    }

    @Test
    void whatIsRefusedSaysWhy() {
        Bench bench = bench("Table", "Run(Axis := AX, Execute := Ready, Velocity := 5000.0);\nOther(Axis := AX, Execute := Ready, Velocity := 10.0, Direction := 77);\nStop(Axis := AX, Execute := Ready, Deceleration := -1.0);");
        until(bench, 10);
        assertThat(value(bench, "Run.ErrorID")).isEqualTo(MotionError.BAD_VALUE.id());
        assertThat(value(bench, "Other.ErrorID")).isEqualTo(MotionError.BAD_VALUE.id());
        assertThat(value(bench, "Stop.ErrorID")).isEqualTo(MotionError.BAD_VALUE.id());
        Bench off = bench("Table", "Run(Axis := AX, Execute := TRUE, Velocity := 10.0);\nStop(Axis := AX, Execute := TRUE);");
        off.cycle();
        assertThat(value(off, "Run.ErrorID")).isEqualTo(MotionError.NOT_ENABLED.id());
        assertThat(value(off, "Stop.ErrorID")).isEqualTo(MotionError.NOT_ENABLED.id());
    }
}
