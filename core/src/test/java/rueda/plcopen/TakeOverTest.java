package rueda.plcopen;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import rueda.bench.Bench;
import rueda.drive.PowerState;
import rueda.machine.DemoMachine;
import rueda.machine.Homing;
import rueda.machine.Limits;
import rueda.machine.Machine;

/** Orders that take over a running one, and orders that are refused while one runs; on the bench, by programs. PLCopen Motion Control part 1, general rules. */
class TakeOverTest {

    private static final double SOFT_MAX = 1200;

    /** The Shuttle, homed where it stands, with 1200 mm before its soft limit. */
    private static Bench shuttle(String body) {
        Machine demo = DemoMachine.create();
        Limits limits = demo.axes().get(0).limits();
        Machine machine = demo.withAxis(0, demo.axes().get(0).withHoming(Homing.search(37, 120, 12, 800, 0))
                .withLimits(new Limits(-20, SOFT_MAX, limits.normal(), limits.max(), limits.quickStop())));
        String program = "PROGRAM P VAR Power : MC_Power; Home : MC_Home; A, B : MC_MoveAbsolute; R : MC_MoveRelative; H : MC_Halt; Q : MC_TorqueControl; Place : MC_ReadActualPosition;"
                + " Go, Go2, sawDone, sawAborted, sawError : BOOL; n : DINT; peak : LREAL; END_VAR\n"
                + "Power(Axis := Shuttle, Enable := TRUE); Home(Axis := Shuttle, Execute := Power.Status); Place(Axis := Shuttle, Enable := TRUE);"
                + " IF Place.Valid THEN peak := MAX(peak, Place.Position); END_IF IF Home.Done OR n > 0 THEN n := n + 1; END_IF\n" + body + "\nEND_PROGRAM";
        Bench bench = new Bench(machine.withProgram(program), 20_000);
        bench.run(1);
        return bench;
    }

    private static double value(Bench bench, String name) {
        return bench.resource().program().variable(name).orElseThrow().number(bench.resource().memory());
    }

    private static void sound(Bench bench) {
        assertThat(bench.resource().fault()).isNull();
        assertThat(bench.axis(0).driveState()).isEqualTo(PowerState.OPERATION_ENABLED);
    }

    /** Given again in every call but one, at another speed of the calls: it arrives, and never passes its target. */
    @ParameterizedTest
    @ValueSource(ints = {2, 3, 7, 50})
    void anOrderRepeatedAgainAndAgainStillArrives(int every) {
        Bench bench = shuttle("A(Axis := Shuttle, Execute := n > 100 AND n MOD " + every + " <> 0, Position := 700.0); IF A.Done THEN sawDone := TRUE; END_IF");
        bench.run(8);
        sound(bench);
        assertThat(value(bench, "Place.Position")).isCloseTo(700, within(0.05));
        assertThat(value(bench, "peak")).isLessThan(700.2);
    }

    /** While it moves and while it brakes, a new edge asks for a place nearer or farther; the soft limit is at 1200 mm. */
    @ParameterizedTest
    @CsvSource({"1190.0, 1199.9", "1199.9, 1199.9", "1110.0, 1195.0"})
    void aNewTargetWhileBrakingNeverLeavesTheLimits(String first, String second) {
        for (int after = 200; after < 1400; after += 130) {
            Bench bench = shuttle("A(Axis := Shuttle, Execute := n > 50, Position := " + first + "); B(Axis := Shuttle, Execute := n > " + after + ", Position := " + second + ");");
            bench.run(10);
            sound(bench);
            assertThat(value(bench, "peak")).as("after %d calls", after).isLessThanOrEqualTo(SOFT_MAX + 0.3);
            assertThat(value(bench, "Place.Position")).isCloseTo(Double.parseDouble(second), within(0.05));
        }
    }

    /** An order that brakes too softly for the speed that is there is carried out harder, where that keeps it inside. */
    @Test
    void aSoftOrderNearTheLimitIsCarriedOutHarder() {
        for (String soft : new String[] {"B(Axis := Shuttle, Execute := Place.Position > 1000.0 AND n > 60, Position := 1190.0, Acceleration := 100.0, Deceleration := 100.0);",
            "H(Axis := Shuttle, Execute := Place.Position > 1000.0 AND n > 60, Deceleration := 100.0);"}) {
            Bench bench = shuttle("A(Axis := Shuttle, Execute := n > 50, Position := 1190.0); " + soft);
            bench.run(12);
            sound(bench);
            assertThat(value(bench, "peak")).isLessThanOrEqualTo(SOFT_MAX + 0.3);
        }
    }

    /** Every block refuses what the axis cannot do, as MC_MoveAbsolute does; nothing trips the drive. */
    @ParameterizedTest
    @ValueSource(strings = {"H(Axis := Shuttle, Execute := Go, Deceleration := 1.0E9); sawError := H.Error;", "H(Axis := Shuttle, Execute := Go, Jerk := 1.0E12); sawError := H.Error;",
        "H(Axis := Shuttle, Execute := Go, Deceleration := -5.0); sawError := H.Error;", "A(Axis := Shuttle, Execute := Go, Position := 1.0E300); sawError := A.Error;",
        "A(Axis := Shuttle, Execute := Go, Position := 100.0, Jerk := 1.0E12); sawError := A.Error;", "R(Axis := Shuttle, Execute := Go, Distance := 10.0, Acceleration := 1.0E9); sawError := R.Error;",
        "A(Axis := Shuttle, Execute := Go, Position := 0.0 / peak * 1.0E300 * 1.0E300); sawError := A.Error OR peak <> 0.0;", "Q(Axis := Shuttle, Execute := Go, Torque := 1.0E9); sawError := Q.Error;",
        "Q(Axis := Shuttle, Execute := Go, Torque := 0.1, Velocity := 1.0E9); sawError := Q.Error;"})
    void everyBlockRefusesWhatTheAxisCannotDo(String call) {
        Bench bench = shuttle("Go := n > 100; B(Axis := Shuttle, Execute := n > 50, Position := 900.0); " + call);
        bench.run(1.2);
        sound(bench);
        assertThat(value(bench, "sawError")).isEqualTo(1);
    }

    /**
     * An instance whose order runs is given one that is refused. Error stays as long as Execute does, through the end of the motion, and Done or
     * CommandAborted never join it; the axis finishes what it was doing.
     */
    @ParameterizedTest
    @ValueSource(strings = {"Position := SEL(n > 150, 400.0, 99999.0)", "Position := 400.0, Velocity := SEL(n > 150, 0.0, 1.0E9)"})
    void aRefusedRetriggerKeepsItsError(String inputs) {
        Bench bench = shuttle("A(Axis := Shuttle, Execute := n > 50 AND n <> 200, " + inputs + ");"
                + " IF n > 210 AND NOT A.Error THEN sawError := TRUE; END_IF IF n > 210 AND (A.Done OR A.Busy) THEN sawDone := TRUE; END_IF IF A.CommandAborted THEN sawAborted := TRUE; END_IF");
        bench.run(8);
        sound(bench);
        assertThat(value(bench, "sawError")).as("Error fell").isZero();
        assertThat(value(bench, "sawDone")).as("Done or Busy beside Error").isZero();
        assertThat(value(bench, "sawAborted")).isZero();
        assertThat(value(bench, "A.ErrorID")).isNotZero();
        assertThat(value(bench, "Place.Position")).isCloseTo(400, within(0.05));
    }

    /** The same, and another instance takes the axis over: the refused block keeps showing its own Error. */
    @Test
    void aRefusedRetriggerKeepsItsErrorWhenAnotherTakesOver() {
        Bench bench = shuttle("A(Axis := Shuttle, Execute := n > 50 AND n <> 200, Position := SEL(n > 150, 900.0, 99999.0)); B(Axis := Shuttle, Execute := n > 300, Position := 100.0);"
                + " IF A.CommandAborted THEN sawAborted := TRUE; END_IF");
        bench.run(8);
        sound(bench);
        assertThat(value(bench, "A.Error")).isEqualTo(1);
        assertThat(value(bench, "sawAborted")).isZero();
        assertThat(value(bench, "B.Done")).isEqualTo(1);
    }
}
