package rueda.plcopen;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;
import static rueda.plcopen.ProgramBench.set;
import static rueda.plcopen.ProgramBench.untilTrue;
import static rueda.plcopen.ProgramBench.value;

import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import rueda.bench.Bench;
import rueda.bus.BusFamily;
import rueda.drive.DriveObject;
import rueda.machine.Axis;
import rueda.machine.Machine;
import rueda.machine.Station;
import rueda.machine.Terminal.Function;

/** MC_TouchProbe, MC_AbortTrigger and MC_SetPosition by PLCopen Motion Control part 1 (from memory). */
class ProbeAndPositionBlocksTest {

    private static Machine shuttle(Function onI7) {
        Machine alone = ProgramBench.alone("Shuttle", 0);
        return alone.withAxis(0, alone.axes().get(0).withWiring(alone.axes().get(0).wiring().with("I7", onI7)));
    }

    private static Bench bench(Machine machine, String body) {
        return new Bench(machine, "PROGRAM P VAR Power : MC_Power; Home : MC_Home; Run : MC_MoveVelocity; Go : MC_MoveAbsolute; Probe, Other : MC_TouchProbe; Let : MC_AbortTrigger; Set, Back : MC_SetPosition;"
                + " Where : MC_ReadActualPosition; Ready, A, B, C : BOOL; Trigger : INT := 1; END_VAR\n"
                + "Power(Axis := Shuttle, Enable := TRUE); Home(Axis := Shuttle, Execute := Power.Status); Where(Axis := Shuttle, Enable := TRUE); IF Home.Done THEN Ready := TRUE; END_IF\n" + body + "\nEND_PROGRAM", 100);
    }

    private static void level(Bench bench, boolean high) {
        bench.drive(0).digitalInputs().force("I7", high);
        bench.run(0.002);
    }

    private static double held(Bench bench, DriveObject position) {
        return bench.machine().axes().get(0).scale().unitsFromWire(bench.drive(0).dictionary().get(position));
    }

    /** The position is that of the edge, however late the answer comes; an edge before the order, and one after it is done, count for nothing. Under every family. */
    @ParameterizedTest
    @EnumSource(rueda.machine.Bus.Family.class)
    void thePositionOfTheFirstEdgeIsTaken(rueda.machine.Bus.Family family) {
        Bench bench = bench(BusFamily.moved(shuttle(Function.PROBE_1), family), "Run(Axis := Shuttle, Execute := Ready, Velocity := 100.0); Probe(Axis := Shuttle, TriggerInput := Trigger, Execute := A);");
        untilTrue(bench, "Run.InVelocity");
        level(bench, true);
        level(bench, false);
        set(bench, "A", 1);
        bench.run(0.1);
        assertThat(value(bench, "Probe.Busy")).isEqualTo(1);
        assertThat(value(bench, "Probe.Done")).isZero();
        level(bench, true);
        double edge = held(bench, DriveObject.PROBE_1_POSITION);
        untilTrue(bench, "Probe.Done");
        assertThat(value(bench, "Probe.RecordedPosition")).isCloseTo(edge, within(1e-9));
        assertThat(bench.drive(0).position()).as("it has gone on").isGreaterThan(edge + 0.5);
        level(bench, false);
        level(bench, true);
        bench.run(0.05);
        assertThat(value(bench, "Probe.RecordedPosition")).isCloseTo(edge, within(1e-9));
        /* ordered again: the falling edge */
        set(bench, "A", 0);
        bench.run(0.02);
        set(bench, "Trigger", -1);
        set(bench, "A", 1);
        bench.run(0.1);
        level(bench, false);
        untilTrue(bench, "Probe.Done");
        assertThat(value(bench, "Probe.RecordedPosition")).isCloseTo(held(bench, DriveObject.PROBE_1_FALLING), within(1e-9)).isGreaterThan(edge);
    }

    /** 60B8h in the process data without a tag is written by the block; with a tag it is the program's, and the block says so. */
    @Test
    void theFunctionMayTravel() {
        for (String tag : new String[] {"", "Shuttle.Probes"}) {
            Machine machine = shuttle(Function.PROBE_1);
            Axis axis = machine.axes().get(0);
            List<Station.Entry> outputs = new java.util.ArrayList<>(axis.station().outputs());
            outputs.add(new Station.Entry(outputs.get(0).pdo(), 0x60B8, 0, 16, "", tag, tag.isEmpty() ? "" : "UINT", "", java.math.BigDecimal.ONE));
            Bench bench = bench(machine.withAxis(0, axis.withStation(axis.station().withOutputs(outputs))), "Run(Axis := Shuttle, Execute := Ready, Velocity := 100.0); Probe(Axis := Shuttle, TriggerInput := 1, Execute := Run.InVelocity);");
            untilTrue(bench, "Run.InVelocity");
            bench.run(0.1);
            level(bench, true);
            bench.run(0.1);
            assertThat(value(bench, "Probe.Done")).as("tag “%s”", tag).isEqualTo(tag.isEmpty() ? 1 : 0);
            assertThat(value(bench, "Probe.ErrorID")).isEqualTo(tag.isEmpty() ? 0 : MotionError.PROBE_NOT_OURS.id());
        }
    }

    @Test
    void aWindowLetsOtherEdgesPass() {
        Bench bench = bench(shuttle(Function.PROBE_1), "Run(Axis := Shuttle, Execute := Ready, Velocity := 100.0); Probe(Axis := Shuttle, TriggerInput := 1, Execute := Ready, WindowOnly := TRUE, FirstPosition := 60.0, LastPosition := 80.0);");
        untilTrue(bench, "Run.InVelocity");
        while (bench.drive(0).position() < 40) {
            bench.cycle();
        }
        level(bench, true);
        level(bench, false);
        bench.run(0.05);
        assertThat(value(bench, "Probe.Done")).isZero();
        while (bench.drive(0).position() < 70) {
            bench.cycle();
        }
        level(bench, true);
        untilTrue(bench, "Probe.Done");
        assertThat(value(bench, "Probe.RecordedPosition")).isBetween(69.9, 70.5);
    }

    @Test
    void aProbeIsLetGoAndTakenOver() {
        Bench bench = bench(shuttle(Function.PROBE_1), "Probe(Axis := Shuttle, TriggerInput := 1, Execute := A); Other(Axis := Shuttle, TriggerInput := 1, Execute := B); Let(Axis := Shuttle, TriggerInput := 1, Execute := C);");
        set(bench, "A", 1);
        bench.run(0.1);
        set(bench, "B", 1);
        bench.run(0.1);
        assertThat(value(bench, "Probe.CommandAborted")).as("another order of the same probe").isEqualTo(1);
        assertThat(value(bench, "Other.Busy")).isEqualTo(1);
        set(bench, "C", 1);
        bench.run(0.1);
        assertThat(value(bench, "Let.Done")).isEqualTo(1);
        assertThat(value(bench, "Other.CommandAborted")).isEqualTo(1);
        level(bench, true);
        bench.run(0.1);
        assertThat(value(bench, "Other.Done")).isZero();
    }

    /** A block that is used again for another probe has nothing to do with the first one any more. */
    @Test
    void aBlockThatChangesItsProbeLeavesTheFirst() {
        Machine both = shuttle(Function.PROBE_1);
        both = both.withAxis(0, both.axes().get(0).withWiring(both.axes().get(0).wiring().with("I5", Function.PROBE_2)));
        for (int next : new int[] {2, 7}) {
            Bench bench = bench(both, "Probe(Axis := Shuttle, TriggerInput := Trigger, Execute := A);");
            set(bench, "A", 1);
            bench.run(0.1);
            set(bench, "A", 0);
            bench.run(0.01);
            set(bench, "Trigger", next);
            set(bench, "A", 1);
            bench.run(0.1);
            level(bench, true);
            bench.run(0.1);
            assertThat(value(bench, "Probe.Done")).as("an edge of probe 1, probe %d ordered", next).isZero();
            assertThat(value(bench, "Probe.Error")).isEqualTo(next == 2 ? 0 : 1);
            bench.drive(0).digitalInputs().force("I5", true);
            bench.run(0.1);
            assertThat(value(bench, "Probe.Done")).isEqualTo(next == 2 ? 1 : 0);
        }
    }

    @Test
    void whatCannotBeIsRefused() {
        Bench bench = bench(shuttle(Function.CUE), "Probe(Axis := Shuttle, TriggerInput := 1, Execute := TRUE); Other(Axis := Shuttle, TriggerInput := 3, Execute := TRUE); Let(Axis := Shuttle, TriggerInput := 0, Execute := TRUE);");
        bench.run(0.2);
        assertThat(value(bench, "Probe.ErrorID")).as("nothing is wired to it").isEqualTo(MotionError.NO_PROBE.id());
        assertThat(value(bench, "Other.ErrorID")).isEqualTo(MotionError.BAD_VALUE.id());
        assertThat(value(bench, "Let.ErrorID")).isEqualTo(MotionError.BAD_VALUE.id());
    }

    /** Positions of the program change, also while it moves; the motion, the drive's own positions and its soft limits do not. */
    @Test
    void thePositionIsGivenAnotherNumberWhileItMoves() {
        Bench plain = bench(shuttle(Function.PROBE_1), "Go(Axis := Shuttle, Execute := Ready, Position := 200.0, Velocity := 200.0); IF Ready AND Where.Position > 100.0 THEN A := TRUE; END_IF");
        Bench moved = bench(shuttle(Function.PROBE_1), "Go(Axis := Shuttle, Execute := Ready, Position := 200.0, Velocity := 200.0); IF Ready AND Where.Position > 100.0 THEN A := TRUE; END_IF\nSet(Axis := Shuttle, Execute := A, Position := 1000.0, Relative := TRUE);");
        for (int i = 0; i < 40_000; i++) {
            plain.cycle();
            moved.cycle();
            assertThat(moved.drive(0).dictionary().get(DriveObject.TARGET_POSITION)).isCloseTo(plain.drive(0).dictionary().get(DriveObject.TARGET_POSITION), within(1L));
        }
        assertThat(value(moved, "Go.Done")).isEqualTo(1);
        assertThat(value(moved, "Where.Position")).isCloseTo(1200, within(0.1));
        assertThat(value(plain, "Where.Position")).isCloseTo(200, within(0.1));
        assertThat(moved.drive(0).position()).isCloseTo(200, within(0.1));
    }

    @Test
    void softLimitsStayWhereTheyAreAndHomingTakesItBack() {
        Bench bench = bench(shuttle(Function.PROBE_1), "Set(Axis := Shuttle, Execute := Ready, Position := -500.0); Go(Axis := Shuttle, Execute := A, Position := 1000.0 * INT_TO_LREAL(Trigger), Velocity := 600.0); Back(Axis := Shuttle, Execute := B, Position := 1.0E12);");
        untilTrue(bench, "Set.Done");
        bench.run(0.01);
        assertThat(value(bench, "Where.Position")).isCloseTo(-500, within(0.01));
        set(bench, "Trigger", 2);
        set(bench, "A", 1);
        bench.run(0.01);
        assertThat(value(bench, "Go.ErrorID")).as("2000 is 2500 of the drive").isEqualTo(MotionError.PAST_SOFT_LIMIT.id());
        set(bench, "A", 0);
        bench.run(0.01);
        set(bench, "Trigger", 1);
        set(bench, "A", 1);
        untilTrue(bench, "Go.Done");
        assertThat(bench.drive(0).position()).isCloseTo(1500, within(0.1));
        set(bench, "B", 1);
        bench.run(0.01);
        assertThat(value(bench, "Back.ErrorID")).isEqualTo(MotionError.BAD_VALUE.id());
        assertThat(value(bench, "Where.Position")).as("left as it was").isCloseTo(1000, within(0.1));
    }
}
