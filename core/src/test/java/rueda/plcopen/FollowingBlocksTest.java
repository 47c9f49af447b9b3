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
import org.junit.jupiter.params.provider.EnumSource;
import org.junit.jupiter.params.provider.ValueSource;
import rueda.bench.Bench;
import rueda.bus.BusFamily;
import rueda.machine.Axis;
import rueda.machine.Bus;
import rueda.machine.DemoMachine;
import rueda.machine.FollowWatch;
import rueda.machine.Homing;
import rueda.machine.Machine;

/** MC_GearIn, MC_GearInPos, MC_GearOut and the phasing blocks by PLCopen Motion Control part 1 (from memory). */
class FollowingBlocksTest {

    /** Table and Brush, their zeros where they stand. @param followerFirst the follower comes first in the list of axes */
    private static Machine pair(boolean followerFirst) {
        Machine demo = DemoMachine.create();
        List<Axis> axes = new ArrayList<>();
        for (String name : followerFirst ? List.of("Brush", "Table") : List.of("Table", "Brush")) {
            axes.add(demo.axis(name).orElseThrow().withHoming(Homing.search(37, 20, 2, 60, 0)));
        }
        return demo.withAxes(axes).withProofs(List.of());
    }

    private static Bench bench(Machine machine, String body) {
        return new Bench(machine, "PROGRAM P VAR P1, P2 : MC_Power; H1, H2 : MC_Home; Run : MC_MoveVelocity; Stop, Hold : MC_Halt; Full : MC_Stop; Go : MC_MoveAbsolute; Gear, Other : MC_GearIn; Meet : MC_GearInPos; Out : MC_GearOut; Shift : MC_PhasingRelative; Place : MC_PhasingAbsolute;"
                + " Where : MC_ReadStatus; Ready, A, B, C, D : BOOL; V : LREAL := 40.0; Num : DINT := 7; Den : UDINT := 2; END_VAR\n"
                + "P1(Axis := Table, Enable := TRUE); P2(Axis := Brush, Enable := TRUE); H1(Axis := Table, Execute := P1.Status); H2(Axis := Brush, Execute := P2.Status); Where(Axis := Brush, Enable := TRUE);\n"
                + "IF H1.Done AND H2.Done THEN Ready := TRUE; END_IF\n" + body + "\nEND_PROGRAM", 100);
    }

    private static int number(Bench bench, String axis) {
        return bench.machine().axes().get(0).name().equals(axis) ? 0 : 1;
    }

    /** Setpoint of an axis in the present bus cycle, counted on, wire units. */
    private static double gone(Bench bench, String axis) {
        return bench.axis(number(bench, axis)).masterValue(false).gone();
    }

    private static double commandedSpeed(Bench bench, String axis) {
        return bench.drive(number(bench, axis)).demandSpeed();
    }

    /** The follower is never a cycle later because of its place in the list: its setpoint is the ratio of the master's in every bus cycle, and keeps it to the wire unit. */
    @ParameterizedTest
    @ValueSource(booleans = {true, false})
    void followsInTheSameCycleWhateverItsPlace(boolean followerFirst) {
        Bench bench = bench(pair(followerFirst), "Gear(Master := Table, Slave := Brush, Execute := Ready, RatioNumerator := 7, RatioDenominator := 2); Run(Axis := Table, Execute := A, Velocity := V); Stop(Axis := Table, Execute := B);");
        untilTrue(bench, "Gear.InGear");
        double table = gone(bench, "Table");
        double brush = gone(bench, "Brush");
        set(bench, "A", 1);
        for (int i = 0; i < 4000; i++) {
            bench.cycle();
            /* 0.0001° of the Table are 0.35 wire units of the Brush */
            assertThat(gone(bench, "Brush") - brush).isCloseTo((gone(bench, "Table") - table) * 0.35, within(0.5 + 1e-9));
            if (i == 3000) {
                set(bench, "B", 1);
            }
        }
        assertThat(value(bench, "Stop.Done")).isEqualTo(1);
        assertThat(value(bench, "Gear.InGear")).isEqualTo(1);
        assertThat(value(bench, "Where.SynchronizedMotion")).isEqualTo(1);
    }

    /** Common practice, no source: tied by speed, what is lost while it comes up stays lost. Closed form v²/2a; it is in gear when it has the speed. */
    @ParameterizedTest
    @EnumSource(Bus.Family.class)
    void comesUpToARunningMasterAndLosesWay(Bus.Family family) {
        Bench bench = bench(BusFamily.moved(pair(false), family), "Run(Axis := Table, Execute := Ready, Velocity := V); Gear(Master := Table, Slave := Brush, Execute := A, RatioNumerator := Num, RatioDenominator := Den, Acceleration := 400.0);");
        untilTrue(bench, "Run.InVelocity");
        bench.run(0.1);
        double table = gone(bench, "Table");
        double brush = gone(bench, "Brush");
        set(bench, "A", 1);
        untilTrue(bench, "Gear.InGear");
        assertThat(commandedSpeed(bench, "Brush")).isCloseTo(140, within(3.0));
        bench.run(0.5);
        double lost = (gone(bench, "Table") - table) * 0.35 - (gone(bench, "Brush") - brush);
        double cycle = bench.machine().bus().cycleMicros() * 1e-6;
        assertThat(lost / 1000).isCloseTo(140.0 * 140 / 800, within(140 * 4 * Math.max(cycle, 0.002)));
        bench.run(3);
        assertThat((gone(bench, "Table") - table) * 0.35 - (gone(bench, "Brush") - brush)).isCloseTo(lost, within(1.0));
    }

    /** Common practice, no source: 1 : −1 turns the follower the other way. */
    @Test
    void theOtherWay() {
        Bench bench = bench(pair(false), "Gear(Master := Table, Slave := Brush, Execute := Ready, RatioNumerator := -1, RatioDenominator := 1); Run(Axis := Table, Execute := Gear.InGear, Velocity := V);");
        untilTrue(bench, "Run.InVelocity");
        bench.run(0.1);
        assertThat(commandedSpeed(bench, "Brush")).isCloseTo(-40, within(1.0));
    }

    /** The actual value comes one bus cycle after it was measured, and the setpoint of this cycle goes out at its end. */
    @Test
    void theActualValueIsLaterByTheCyclesItTakes() {
        Bench bench = bench(pair(false), "Gear(Master := Table, Slave := Brush, Execute := Ready, RatioNumerator := 1, RatioDenominator := 1, MasterValueSource := mcActualValue); Run(Axis := Table, Execute := Gear.InGear, Velocity := V);");
        untilTrue(bench, "Run.InVelocity");
        bench.run(1);
        /* the setpoint of one cycle is reached at its end, and read at the start of the next one; the rest is the following error of the loop */
        double behind = (gone(bench, "Table") - bench.axis(0).masterValue(true).gone()) / 10_000;
        double set = gone(bench, "Brush") / 1000 - bench.axis(0).masterValue(true).gone() / 10_000.0;
        assertThat(set).as("the follower's setpoint is the master's actual value as it came").isCloseTo(0, within(0.0011));
        assertThat(behind).as("40°/s × one cycle of 1 ms").isCloseTo(0.04, within(0.01));
    }

    @Test
    void letGoItRunsOn() {
        Bench bench = bench(pair(false), "Gear(Master := Table, Slave := Brush, Execute := Ready, RatioNumerator := Num, RatioDenominator := Den); Run(Axis := Table, Execute := Gear.InGear, Velocity := V); Out(Slave := Brush, Execute := A); Stop(Axis := Table, Execute := B); Hold(Axis := Brush, Execute := C);");
        untilTrue(bench, "Run.InVelocity");
        bench.run(0.2);
        set(bench, "A", 1);
        untilTrue(bench, "Out.Done");
        bench.run(0.01);
        assertThat(value(bench, "Gear.CommandAborted")).isEqualTo(1);
        set(bench, "B", 1);
        bench.run(1.5);
        assertThat(commandedSpeed(bench, "Table")).isZero();
        assertThat(commandedSpeed(bench, "Brush")).isCloseTo(140, within(1.0));
        assertThat(value(bench, "Where.ContinuousMotion")).isEqualTo(1);
        set(bench, "C", 1);
        untilTrue(bench, "Hold.Done");
        assertThat(value(bench, "Where.Standstill")).isEqualTo(1);
    }

    /** A move, a halt and a stop take over from following; each leaves the state that the specification's diagram says. */
    @ParameterizedTest
    @CsvSource({"'Go(Axis := Brush, Execute := B, Position := 90.0);', DiscreteMotion, Go", "'Hold(Axis := Brush, Execute := B);', DiscreteMotion, Hold", "'Full(Axis := Brush, Execute := B);', Stopping, Full"})
    void ordersTakeOver(String order, String state, String block) {
        Bench bench = bench(pair(false), "Gear(Master := Table, Slave := Brush, Execute := A, RatioNumerator := Num, RatioDenominator := Den); Run(Axis := Table, Execute := Ready, Velocity := V);\n" + order);
        untilTrue(bench, "Run.InVelocity");
        set(bench, "A", 1);
        untilTrue(bench, "Gear.InGear");
        set(bench, "B", 1);
        untilTrue(bench, "Where." + state);
        assertThat(value(bench, "Gear.CommandAborted")).isEqualTo(1);
        untilTrue(bench, block + ".Done");
    }

    /** Both are at the meeting point in the same cycle, at the speed of the ratio, to the wire unit; whatever the speed of the master. */
    @ParameterizedTest
    @CsvSource({"40, 270, 100, 60", "-25, 200, 30, 90", "8, 300, 0, 45"})
    void meetsAtThePoint(double speed, double master, double follower, double way) {
        Bench bench = bench(pair(true), "Run(Axis := Table, Execute := Ready, Velocity := V); Meet(Master := Table, Slave := Brush, Execute := A, RatioNumerator := Num, RatioDenominator := Den, MasterSyncPosition := " + master + ", SlaveSyncPosition := " + follower + ", MasterStartDistance := " + way + ");");
        set(bench, "V", Double.doubleToRawLongBits(speed));
        untilTrue(bench, "Run.InVelocity");
        set(bench, "A", 1);
        untilTrue(bench, "Meet.StartSync");
        assertThat(value(bench, "Meet.InSync")).isZero();
        untilTrue(bench, "Meet.InSync");
        assertThat(value(bench, "Meet.StartSync")).isZero();
        bench.run(0.3);
        MotionAxis table = bench.axis(1);
        MotionAxis brush = bench.axis(0);
        /* places of both in this cycle, whole wire units: the follower's is the meeting point and the ratio times what the master is past it */
        double past = table.commandedPosition() - master;
        double expected = follower + 3.5 * past;
        double off = Math.IEEEremainder(brush.commandedPosition() - expected, 360);
        assertThat(off).isCloseTo(0, within(0.0011));
        assertThat(commandedSpeed(bench, "Brush")).isCloseTo(3.5 * speed, within(1.0));
    }

    /** What cannot be met is refused where it would begin, and the axis comes to rest. */
    @Test
    void aMeetingPointThatIsTooNearForItsLimits() {
        Bench bench = bench(pair(false), "Run(Axis := Table, Execute := Ready, Velocity := 100.0); Meet(Master := Table, Slave := Brush, Execute := A, RatioNumerator := Num, RatioDenominator := Den, MasterSyncPosition := 270.0, SlaveSyncPosition := 170.0, MasterStartDistance := 1.0);");
        untilTrue(bench, "Run.InVelocity");
        set(bench, "A", 1);
        untilTrue(bench, "Meet.Error");
        assertThat(MotionError.of((long) value(bench, "Meet.ErrorID"))).isEqualTo(MotionError.CANNOT_MEET);
        untilTrue(bench, "Where.Standstill");
    }

    /** The phase is moved by the way asked for, seen in units of the master, while it follows. */
    @Test
    void thePhaseIsMoved() {
        Bench bench = bench(pair(false), "Gear(Master := Table, Slave := Brush, Execute := Ready, RatioNumerator := Num, RatioDenominator := Den); Run(Axis := Table, Execute := Gear.InGear, Velocity := V);"
                + " Shift(Master := Table, Slave := Brush, Execute := A, PhaseShift := 10.0, Velocity := 5.0); Place(Master := Table, Slave := Brush, Execute := B, PhaseShift := -2.0, Velocity := 5.0);");
        untilTrue(bench, "Run.InVelocity");
        bench.run(0.2);
        double before = gone(bench, "Brush") - 0.35 * gone(bench, "Table");
        set(bench, "A", 1);
        untilTrue(bench, "Shift.Done");
        bench.run(0.1);
        assertThat((gone(bench, "Brush") - 0.35 * gone(bench, "Table") - before) / 1000).isCloseTo(35, within(0.0011));
        assertThat(value(bench, "Shift.CoveredPhaseShift")).isCloseTo(10, within(1e-3));
        set(bench, "B", 1);
        untilTrue(bench, "Place.Done");
        bench.run(0.1);
        assertThat((gone(bench, "Brush") - 0.35 * gone(bench, "Table") - before) / 1000).isCloseTo(-7, within(0.0011));
        assertThat(value(bench, "Place.AbsolutePhaseShift")).isCloseTo(-2, within(1e-3));
    }

    /** What would make an axis follow itself, a ratio that is none, and a phase of an axis that does not follow are refused. */
    @Test
    void refusals() {
        Bench bench = bench(pair(false), "Gear(Master := Table, Slave := Brush, Execute := Ready, RatioNumerator := Num, RatioDenominator := Den); Other(Master := Brush, Slave := Table, Execute := A, RatioNumerator := 1, RatioDenominator := 1);"
                + " Shift(Master := Table, Slave := Table, Execute := A, PhaseShift := 10.0, Velocity := 5.0); Out(Slave := Table, Execute := A);");
        untilTrue(bench, "Gear.InGear");
        set(bench, "A", 1);
        untilTrue(bench, "Other.Error");
        assertThat(MotionError.of((long) value(bench, "Other.ErrorID"))).isEqualTo(MotionError.FOLLOWS_ITSELF);
        assertThat(MotionError.of((long) value(bench, "Shift.ErrorID"))).isEqualTo(MotionError.NOT_IN_THIS_STATE);
        assertThat(MotionError.of((long) value(bench, "Out.ErrorID"))).isEqualTo(MotionError.NOT_IN_THIS_STATE);
        Bench zero = bench(pair(false), "Gear(Master := Table, Slave := Brush, Execute := Ready, RatioNumerator := 7, RatioDenominator := 0);");
        untilTrue(zero, "Gear.Error");
        assertThat(MotionError.of((long) value(zero, "Gear.ErrorID"))).isEqualTo(MotionError.BAD_VALUE);
    }

    /** An axis with ends stops within its soft limits, and the block says why it follows no more. */
    @Test
    void softLimitsWin() {
        Machine demo = DemoMachine.create();
        Machine machine = demo.withAxes(List.of(demo.axis("Table").orElseThrow().withHoming(Homing.search(37, 20, 2, 60, 0)), demo.axis("Shuttle").orElseThrow().withHoming(Homing.search(37, 20, 2, 60, 1800)))).withProofs(List.of());
        Bench bench = new Bench(machine, "PROGRAM P VAR P1, P2 : MC_Power; H1, H2 : MC_Home; Run : MC_MoveVelocity; Gear : MC_GearIn; END_VAR\n"
                + "P1(Axis := Table, Enable := TRUE); P2(Axis := Shuttle, Enable := TRUE); H1(Axis := Table, Execute := P1.Status); H2(Axis := Shuttle, Execute := P2.Status);\n"
                + "Gear(Master := Table, Slave := Shuttle, Execute := H1.Done AND H2.Done, RatioNumerator := 10, RatioDenominator := 1); Run(Axis := Table, Execute := Gear.InGear, Velocity := 60.0);\nEND_PROGRAM", 100);
        untilTrue(bench, "Gear.Error");
        assertThat(MotionError.of((long) value(bench, "Gear.ErrorID"))).isEqualTo(MotionError.PAST_SOFT_LIMIT);
        bench.run(1);
        assertThat(bench.drive(1).demandPosition()).isBetween(2300.0, 2330.0 + 1e-6);
        assertThat(bench.axis(1).state()).isEqualTo(AxisState.STANDSTILL);
    }

    /** The device of the master restarts: its numbers begin anew, and the follower stays where it is. */
    @Test
    void aMasterThatRestartsMovesNobody() {
        Bench bench = bench(pair(false), "Gear(Master := Table, Slave := Brush, Execute := Ready, RatioNumerator := Num, RatioDenominator := Den); Run(Axis := Table, Execute := A, Velocity := V); Stop(Axis := Table, Execute := B);");
        untilTrue(bench, "Gear.InGear");
        set(bench, "A", 1);
        untilTrue(bench, "Run.InVelocity");
        set(bench, "B", 1);
        untilTrue(bench, "Stop.Done");
        bench.run(0.3);
        double here = gone(bench, "Brush");
        bench.restartDevice(0);
        bench.run(4);
        assertThat(gone(bench, "Brush")).isCloseTo(here, within(40.0));
        assertThat(value(bench, "Where.SynchronizedMotion")).isEqualTo(1);
    }

    /** Two masters combined: the way of one plus, or minus, that of the other, each by its ratio, in the same bus cycle. */
    @ParameterizedTest
    @CsvSource({"0, 1", "1, -1"})
    void twoMastersCombined(int mode, int sign) {
        Machine demo = DemoMachine.create();
        List<Axis> axes = new ArrayList<>();
        for (String name : List.of("Brush", "Table", "Doser")) {
            axes.add(demo.axis(name).orElseThrow().withHoming(Homing.search(37, 0.2, 0.05, 2, 0)));
        }
        Bench bench = new Bench(demo.withAxes(axes).withProofs(List.of()), "PROGRAM P VAR P1, P2, P3 : MC_Power; H1, H2, H3 : MC_Home; A, B : MC_MoveVelocity; Both : MC_CombineAxes; Ready : BOOL; END_VAR\n"
                + "P1(Axis := Table, Enable := TRUE); P2(Axis := Brush, Enable := TRUE); P3(Axis := Doser, Enable := TRUE); H1(Axis := Table, Execute := P1.Status); H2(Axis := Brush, Execute := P2.Status); H3(Axis := Doser, Execute := P3.Status);\n"
                + "IF H1.Done AND H2.Done AND H3.Done THEN Ready := TRUE; END_IF\n"
                + "Both(Master1 := Table, Master2 := Doser, Slave := Brush, Execute := Ready, CombineMode := " + mode + ", GearRatioNumeratorM1 := 7, GearRatioDenominatorM1 := 2, GearRatioNumeratorM2 := 30, GearRatioDenominatorM2 := 1);\n"
                + "A(Axis := Table, Execute := Both.InSync, Velocity := 20.0); B(Axis := Doser, Execute := Both.InSync, Velocity := 1.0);\nEND_PROGRAM", 100);
        untilTrue(bench, "Both.InSync");
        double brush = bench.axis(0).masterValue(false).gone();
        double table = bench.axis(1).masterValue(false).gone();
        double doser = bench.axis(2).masterValue(false).gone();
        for (int i = 0; i < 3000; i++) {
            bench.cycle();
            /* wire units of 0.001°, 0.0001° and 0.00001 g; each product rounded by itself */
            double expected = (bench.axis(1).masterValue(false).gone() - table) * 0.35 + sign * (bench.axis(2).masterValue(false).gone() - doser) * 0.3;
            assertThat(bench.axis(0).masterValue(false).gone() - brush).isCloseTo(expected, within(1.0 + 1e-6));
        }
        assertThat(bench.drive(0).demandSpeed()).isCloseTo(70 + sign * 30, within(1.0));
    }

    /** An hour of machine time: the place is the ratio of the master's to the wire unit; a ratio written with three decimals has drifted by what is announced. */
    @Test
    void anHour() {
        Bench bench = bench(pair(false), "Gear(Master := Table, Slave := Brush, Execute := Ready, RatioNumerator := Num, RatioDenominator := Den); Run(Axis := Table, Execute := Gear.InGear, Velocity := V);");
        set(bench, "Num", 7);
        set(bench, "Den", 3);
        untilTrue(bench, "Gear.InGear");
        double table = gone(bench, "Table");
        double brush = gone(bench, "Brush");
        double begun = bench.now() * 1e-9;
        double worst = 0;
        while (bench.now() * 1e-9 < begun + 3600) {
            bench.cycle();
            worst = Math.max(worst, Math.abs(gone(bench, "Brush") - brush - (gone(bench, "Table") - table) * 0.1 * 7 / 3));
        }
        assertThat(worst).as("wire units of 0.001°").isLessThanOrEqualTo(0.5 + 1e-6);
        double way = (gone(bench, "Table") - table) / 10_000;
        assertThat(way).isCloseTo(40 * 3600, within(20.0));
        /* 2.333 instead of 7 : 3 */
        assertThat((gone(bench, "Brush") - brush) / 1000 - 2.333 * way).isCloseTo(way / 3000, within(0.01));
    }

    /** ContinuousUpdate: another ratio while it follows is taken at once, by speed. */
    @Test
    void anotherRatioWhileItFollows() {
        Bench bench = bench(pair(false), "Gear(Master := Table, Slave := Brush, Execute := Ready, ContinuousUpdate := TRUE, RatioNumerator := Num, RatioDenominator := Den); Run(Axis := Table, Execute := Gear.InGear, Velocity := V);");
        untilTrue(bench, "Run.InVelocity");
        bench.run(0.2);
        set(bench, "Num", -3);
        bench.run(0.5);
        assertThat(value(bench, "Gear.InGear")).isEqualTo(1);
        assertThat(commandedSpeed(bench, "Brush")).isCloseTo(-60, within(1.0));
    }

    /** BufferMode: an order to follow waits until the move before is done, and a move until the follower is in gear. */
    @Test
    void followingWaitsForItsTurn() {
        Bench bench = bench(pair(false), "Run(Axis := Table, Execute := Ready, Velocity := V); Go(Axis := Brush, Execute := Ready, Position := 50.0); Gear(Master := Table, Slave := Brush, Execute := Go.Active, RatioNumerator := 7, RatioDenominator := 2, BufferMode := 1);"
                + " Meet(Master := Table, Slave := Brush, Execute := Gear.Active, RatioNumerator := 7, RatioDenominator := 2, MasterSyncPosition := 300.0, SlaveSyncPosition := 100.0, BufferMode := 1); A := Gear.Busy AND NOT Gear.Active; B := Go.Done; C := C OR Gear.InGear; D := D OR Gear.CommandAborted;");
        untilTrue(bench, "A");
        assertThat(value(bench, "Go.Active")).isEqualTo(1);
        untilTrue(bench, "Gear.Active");
        assertThat(value(bench, "Go.Done")).as("done, not aborted").isEqualTo(1);
        assertThat(value(bench, "Where.SynchronizedMotion")).isEqualTo(1);
        untilTrue(bench, "Meet.Active");
        assertThat(value(bench, "C")).as("once it was in gear").isEqualTo(1);
        untilTrue(bench, "D");
        untilTrue(bench, "Meet.InSync");
        Bench bad = bench(pair(false), "Gear(Master := Table, Slave := Brush, Execute := Ready, RatioNumerator := 7, RatioDenominator := 2, BufferMode := 9);");
        untilTrue(bad, "Gear.Error");
        assertThat(value(bad, "Gear.ErrorID")).isEqualTo(MotionError.BAD_VALUE.id());
    }

    private static Machine watching(FollowWatch watch, double speed) {
        Machine pair = pair(false);
        Axis brush = pair.axes().get(1);
        return pair.withAxis(1, brush.withFollowing(brush.following().withSpeed(speed).withWatch(watch)));
    }

    /** A master that is too fast: the follower does what the document says, and its block tells. */
    @ParameterizedTest
    @EnumSource(FollowWatch.Reaction.class)
    void aMasterThatIsTooFast(FollowWatch.Reaction reaction) {
        Bench bench = bench(watching(FollowWatch.USUAL.withTooFast(reaction), 200), "Gear(Master := Table, Slave := Brush, Execute := Ready, RatioNumerator := 7, RatioDenominator := 2, ContinuousUpdate := TRUE); Run(Axis := Table, Execute := Gear.InGear OR A, Velocity := V, ContinuousUpdate := TRUE);"
                + " IF Run.InVelocity THEN A := TRUE; END_IF IF A THEN V := 80.0; END_IF");
        untilTrue(bench, "A");
        bench.run(2);
        if (reaction == FollowWatch.Reaction.WARN) {
            assertThat(value(bench, "Gear.Active")).isEqualTo(1);
            assertThat(bench.axis(1).followState().warning()).contains("too fast");
            return;
        }
        assertThat(value(bench, "Gear.ErrorID")).isEqualTo(MotionError.MASTER_TOO_FAST.id());
        assertThat(value(bench, "Where.SynchronizedMotion")).isZero();
        assertThat(commandedSpeed(bench, "Brush")).isCloseTo(reaction == FollowWatch.Reaction.HOLD_SPEED ? 200 : 0, within(1.0));
        assertThat(value(bench, "Where.ErrorStop")).isZero();
    }

    /** The phase leaves its limit because the follower may not accelerate as its master does. */
    @Test
    void thePhaseLeavesItsLimit() {
        Bench bench = bench(watching(FollowWatch.USUAL.withPhaseLimit(5).withPhase(FollowWatch.Reaction.RAMP), 0), "Gear(Master := Table, Slave := Brush, Execute := Ready, RatioNumerator := 7, RatioDenominator := 2, Acceleration := 30.0, Deceleration := 30.0); Run(Axis := Table, Execute := Gear.InGear OR A, Velocity := V); A := A OR Run.Active;");
        untilTrue(bench, "A");
        bench.run(3);
        assertThat(value(bench, "Gear.ErrorID")).isEqualTo(MotionError.PHASE_LEFT.id());
        assertThat(commandedSpeed(bench, "Brush")).isZero();
    }

    /** What is added to a follower moves it against its master by exactly that, and it stays in gear. */
    @Test
    void aMoveSuperimposedOnAFollower() {
        Machine pair = pair(false);
        Bench bench = new Bench(pair, "PROGRAM P VAR P1, P2 : MC_Power; H1, H2 : MC_Home; Run : MC_MoveVelocity; Gear : MC_GearIn; Add : MC_MoveSuperimposed; Ready, A : BOOL; END_VAR\n"
                + "P1(Axis := Table, Enable := TRUE); P2(Axis := Brush, Enable := TRUE); H1(Axis := Table, Execute := P1.Status); H2(Axis := Brush, Execute := P2.Status); Ready := Ready OR H1.Done AND H2.Done;\n"
                + "Gear(Master := Table, Slave := Brush, Execute := Ready, RatioNumerator := 7, RatioDenominator := 2); Run(Axis := Table, Execute := Gear.InGear OR A, Velocity := 30.0); Add(Axis := Brush, Execute := A, Distance := 33.3, VelocityDiff := 50.0);\nEND_PROGRAM", 100);
        untilTrue(bench, "Run.InVelocity");
        double table = gone(bench, "Table");
        double brush = gone(bench, "Brush");
        set(bench, "A", 1);
        bench.run(0.3);
        assertThat(commandedSpeed(bench, "Brush")).isCloseTo(30 * 3.5 + 50, within(1.0));
        assertThat(value(bench, "Gear.InGear")).isEqualTo(1);
        untilTrue(bench, "Add.Done");
        bench.run(0.5);
        double perWire = 3.5 * pair.axes().get(1).scale().wireUnitsPerUnit() / pair.axes().get(0).scale().wireUnitsPerUnit();
        assertThat(gone(bench, "Brush") - brush - (gone(bench, "Table") - table) * perWire).isCloseTo(33.3 * pair.axes().get(1).scale().wireUnitsPerUnit(), within(1.5));
        assertThat(value(bench, "Gear.InGear")).isEqualTo(1);
    }
}
