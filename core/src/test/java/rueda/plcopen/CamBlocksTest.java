package rueda.plcopen;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;
import static rueda.plcopen.ProgramBench.set;
import static rueda.plcopen.ProgramBench.untilTrue;
import static rueda.plcopen.ProgramBench.value;

import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import rueda.bench.Bench;
import rueda.machine.Axis;
import rueda.machine.DemoMachine;
import rueda.machine.Homing;

/** MC_CamTableSelect, MC_CamIn and MC_CamOut (PLCopen Motion Control part 1, from memory): the Shuttle follows the Table along a cam. */
class CamBlocksTest {

    private static final int TABLE = 0;
    private static final int SHUTTLE = 1;

    /** @param cam points  @param body what goes on */
    private static Bench bench(String cam, String select, String body) {
        List<Axis> axes = new ArrayList<>();
        axes.add(DemoMachine.create().axis("Table").orElseThrow().withHoming(Homing.search(37, 20, 2, 60, 0)));
        axes.add(DemoMachine.create().axis("Shuttle").orElseThrow().withHoming(Homing.search(37, 20, 2, 60, 500)));
        return new Bench(DemoMachine.create().withAxes(axes).withProofs(List.of()), "PROGRAM P VAR P1, P2 : MC_Power; H1, H2 : MC_Home; Run : MC_MoveVelocity; Go : MC_MoveAbsolute; Select : MC_CamTableSelect; In, Wrong : MC_CamIn; Out : MC_CamOut; Halt : MC_Halt; Shift : MC_PhasingRelative;\n"
                + "Ready, A, B, C : BOOL; Rounds : INT; Cam : MC_CAM_REF := (" + cam + "); Id : MC_CAM_ID; END_VAR\n"
                + "P1(Axis := Table, Enable := TRUE); P2(Axis := Shuttle, Enable := TRUE); H1(Axis := Table, Execute := P1.Status); H2(Axis := Shuttle, Execute := P2.Status); IF H1.Done AND H2.Done THEN Ready := TRUE; END_IF\n"
                + "Select(Master := Table, Slave := Shuttle, CamTable := Cam, Execute := Ready" + select + ", CamTableID => Id);\n" + body + "\nIF In.EndOfProfile THEN Rounds := Rounds + 1; END_IF\nEND_PROGRAM", 100);
    }

    /** Out over 180° by the polynomial, back by the same: 0 to 300 mm. */
    private static final String LIFT = "Count := 3, Points := [(Master := 0.0, Slave := 500.0), (Master := 180.0, Slave := 800.0, Law := 1), (Master := 360.0, Slave := 500.0, Law := 1)]";
    private static final String TURN = "Run(Axis := Table, Execute := A, Velocity := 60.0);";

    private static double lift(double degrees) {
        double within = degrees - 360 * Math.floor(degrees / 360);
        double xi = within < 180 ? within / 180 : 2 - within / 180;
        return 500 + 300 * xi * xi * xi * (10 - 15 * xi + 6 * xi * xi);
    }

    private static double place(Bench bench, int axis) {
        return bench.axis(axis).shownPosition();
    }

    private static void cycles(Bench bench, int count) {
        for (int i = 0; i < count; i++) {
            bench.cycle();
        }
    }

    /** It is where the cam has it in every bus cycle, in the same one as its master, round for round. */
    @Test
    void theFollowerIsOnTheCamInEveryCycle() {
        Bench bench = bench(LIFT, ", Periodic := TRUE, MasterAbsolute := TRUE, SlaveAbsolute := TRUE", "In(Master := Table, Slave := Shuttle, Execute := Select.Done, CamTableID := Id);\n" + TURN);
        untilTrue(bench, "In.InSync");
        assertThat(bench.axis(SHUTTLE).state()).isEqualTo(AxisState.SYNCHRONIZED_MOTION);
        set(bench, "A", 1);
        for (int i = 0; i < 20_000; i++) {
            bench.cycle();
            assertThat(place(bench, SHUTTLE)).isCloseTo(lift(place(bench, TABLE)), within(2e-3));
        }
        assertThat(value(bench, "In.InSync")).isEqualTo(1);
        /* 20 s at 60°/s less the acceleration are three rounds */
        assertThat(value(bench, "Rounds")).isEqualTo(Math.floor(bench.axis(TABLE).gone() / 360));
        assertThat(value(bench, "Rounds")).isGreaterThanOrEqualTo(3);
    }

    /** A follower that is elsewhere comes there with its own accelerations, and no faster than its catch-up limit. */
    @Test
    void whatItIsAwayIsMadeUp() {
        Bench bench = bench(LIFT.replace("500.0", "560.0"), ", Periodic := TRUE, MasterAbsolute := TRUE, SlaveAbsolute := TRUE", "In(Master := Table, Slave := Shuttle, Execute := Select.Done, CamTableID := Id);");
        untilTrue(bench, "In.Active");
        assertThat(value(bench, "In.InSync")).isZero();
        double before = bench.axis(SHUTTLE).commandedSpeed();
        double most = bench.axis(SHUTTLE).limits().max().acceleration() * bench.axis(SHUTTLE).cycleSeconds();
        for (int i = 0; i < 5000 && value(bench, "In.InSync") == 0; i++) {
            bench.cycle();
            double now = bench.axis(SHUTTLE).commandedSpeed();
            assertThat(Math.abs(now - before)).isLessThanOrEqualTo(most * (1 + 1e-9));
            before = now;
        }
        assertThat(value(bench, "In.InSync")).isEqualTo(1);
        cycles(bench, 500);
        assertThat(place(bench, SHUTTLE)).isCloseTo(560, within(1e-4));
    }

    /** Ways from where both are, stretched to twice the master's way and half the lift, moved by 20 mm. */
    @Test
    void relativeScaledAndMoved() {
        Bench bench = bench(LIFT, "", "In(Master := Table, Slave := Shuttle, Execute := Select.Done, MasterScaling := 2.0, SlaveScaling := 0.5, CamTableID := Id);\n" + TURN);
        untilTrue(bench, "In.InSync");
        double from = place(bench, SHUTTLE);
        double begun = bench.axis(TABLE).gone();
        set(bench, "A", 1);
        boolean outside = false;
        for (int i = 0; i < 14_000; i++) {
            bench.cycle();
            double degrees = (bench.axis(TABLE).gone() - begun) / 2;
            double expected = degrees >= 360 ? from : from + 0.5 * (lift(degrees) - 500);
            assertThat(place(bench, SHUTTLE)).isCloseTo(expected, within(2e-3));
            outside |= degrees >= 360;
        }
        assertThat(outside).isTrue();
        assertThat(value(bench, "In.EndOfProfile")).as("past the end it stands").isEqualTo(1);
        assertThat(value(bench, "In.Busy")).isEqualTo(1);
    }

    /** Let go, it runs on at the speed it has; phasing has nothing to move on a cam. */
    @Test
    void lettingGo() {
        Bench bench = bench("Count := 2, Points := [(Master := 0.0, Slave := 0.0), (Master := 360.0, Slave := 360.0)]", ", Periodic := TRUE", "In(Master := Table, Slave := Shuttle, Execute := Select.Done, CamTableID := Id); Shift(Master := Table, Slave := Shuttle, Execute := B, PhaseShift := 1.0);\n"
                + TURN + "\nOut(Slave := Shuttle, Execute := C);");
        untilTrue(bench, "In.InSync");
        set(bench, "A", 1);
        untilTrue(bench, "Run.InVelocity");
        cycles(bench, 20);
        assertThat(bench.axis(SHUTTLE).commandedSpeed()).isCloseTo(60, within(0.2));
        set(bench, "B", 1);
        untilTrue(bench, "Shift.Error");
        assertThat(value(bench, "Shift.ErrorID")).isEqualTo(MotionError.NOT_IN_THIS_STATE.id());
        set(bench, "C", 1);
        untilTrue(bench, "Out.Done");
        assertThat(bench.axis(SHUTTLE).state()).isEqualTo(AxisState.CONTINUOUS_MOTION);
        untilTrue(bench, "In.CommandAborted");
    }

    @ParameterizedTest
    @CsvSource({"Count := 3, Count := 1", "Count := 3, Count := 257", "Master := 180.0, Master := 400.0", "Law := 1, Law := 2"})
    void aTableThatCannotBeIsNotSelected(String what, String changed) {
        Bench bench = bench(LIFT.replaceFirst(what, changed), "", "In(Master := Table, Slave := Shuttle, Execute := Select.Error, CamTableID := Id);");
        untilTrue(bench, "Select.Error");
        assertThat(value(bench, "Select.ErrorID")).isEqualTo(MotionError.BAD_TABLE.id());
        untilTrue(bench, "In.Error");
        assertThat(value(bench, "In.ErrorID")).isEqualTo(MotionError.NO_TABLE.id());
    }

    @ParameterizedTest
    @CsvSource({"'Slave := 800.0', 'Slave := 2400.0', PAST_SOFT_LIMIT, ''", "x, x, BAD_VALUE, ', MasterScaling := -1.0'", "x, x, BAD_VALUE, ', MasterValueSource := 9'"})
    void whatCannotBeFollowedIsRefused(String what, String changed, MotionError error, String pins) {
        Bench bench = bench(LIFT.replace(what, changed), ", SlaveAbsolute := TRUE", "In(Master := Table, Slave := Shuttle, Execute := Select.Done, CamTableID := Id" + pins + ");");
        untilTrue(bench, "In.Error");
        assertThat(MotionError.of((long) value(bench, "In.ErrorID"))).isEqualTo(error);
        assertThat(bench.axis(SHUTTLE).state()).isEqualTo(AxisState.STANDSTILL);
    }

    /** A refused order leaves the running one as it was: in every bus cycle the follower is where its cam has it, and no phasing, limit or gain has changed. */
    @Test
    void aRefusedOrderLeavesTheRunningOne() {
        Bench bench = bench(LIFT, ", Periodic := TRUE, MasterAbsolute := TRUE, SlaveAbsolute := TRUE", "In(Master := Table, Slave := Shuttle, Execute := Select.Done, CamTableID := Id);\nWrong(Master := Table, Slave := Shuttle, Execute := B, SlaveOffset := 1900.0, CamTableID := Id);\n" + TURN);
        untilTrue(bench, "In.InSync");
        set(bench, "A", 1);
        cycles(bench, 4000);
        set(bench, "B", 1);
        untilTrue(bench, "Wrong.Error");
        assertThat(value(bench, "Wrong.ErrorID")).isEqualTo(MotionError.PAST_SOFT_LIMIT.id());
        for (int i = 0; i < 4000; i++) {
            bench.cycle();
            assertThat(place(bench, SHUTTLE)).isCloseTo(lift(place(bench, TABLE)), within(2e-3));
        }
        assertThat(value(bench, "In.InSync")).isEqualTo(1);
    }

    /** An order that waits tells no end of a profile that it has not begun. */
    @Test
    void roundsCountFromWhenItBegins() {
        Bench bench = bench(LIFT, ", Periodic := TRUE, MasterAbsolute := TRUE", "Go(Axis := Shuttle, Execute := C, Position := 900.0, Velocity := 30.0); In(Master := Table, Slave := Shuttle, Execute := Go.Active, CamTableID := Id, BufferMode := mcBuffered);\n" + TURN);
        untilTrue(bench, "Select.Done");
        set(bench, "A", 1);
        cycles(bench, 8000);
        set(bench, "C", 1);
        untilTrue(bench, "In.Active");
        assertThat(bench.axis(TABLE).gone()).as("the master has gone more than a round before").isGreaterThan(360);
        cycles(bench, 200);
        assertThat(value(bench, "Rounds")).isZero();
    }
}
