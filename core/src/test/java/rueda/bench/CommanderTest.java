package rueda.bench;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;
import rueda.drive.MoveListSource;
import rueda.drive.PowerState;
import rueda.machine.Axis;
import rueda.machine.Axis.Commander;
import rueda.machine.DemoMachine;
import rueda.machine.Encoder;
import rueda.machine.Homing;
import rueda.machine.Machine;
import rueda.machine.MoveEntry;
import rueda.machine.MoveList;
import rueda.machine.Station.Entry;
import rueda.plcopen.MotionError;

/** Who commands an axis: motion blocks, the program by its own words, or the drive itself. */
class CommanderTest {

    /** Enables by a rising edge of each step and its status bit, as such programs are written (common practice, no source). */
    private static final String ENABLING = """
            CASE Step OF
              0: Table.Cmd.Control := 16#06; IF (Table.Fb.Status AND 16#6F) = 16#21 THEN Step := 1; END_IF
              1: Table.Cmd.Control := 16#07; IF (Table.Fb.Status AND 16#6F) = 16#23 THEN Step := 2; END_IF
              2: Table.Cmd.Control := 16#0F; IF (Table.Fb.Status AND 16#6F) = 16#27 THEN Step := 3; END_IF
            """;

    private static Axis table(Commander commander) {
        Axis table = DemoMachine.table();
        table = table.withEncoder(Encoder.absolute(20, 12)).withHoming(table.homing().withAtPowerUp(Homing.AtPowerUp.MOTOR_ENCODER, -45)).withCommandedBy(commander);
        List<Entry> outputs = new ArrayList<>(table.station().outputs());
        outputs.add(Entry.filler(8));
        outputs.add(new Entry(0x60FF, 0, 32, "Table.Cmd.Speed", "DINT"));
        outputs.add(new Entry(0x6081, 0, 32, "Table.Cmd.ProfileSpeed", "UDINT"));
        outputs.add(new Entry(0x2040, 1, 16, "Table.Cmd.Entry", "UINT"));
        outputs.add(new Entry(0x2040, 5, 16, "Table.Cmd.Cues", "WORD"));
        List<Entry> inputs = new ArrayList<>(table.station().inputs());
        inputs.add(Entry.filler(8));
        inputs.add(new Entry(0x2040, 2, 16, "Table.Fb.Entry", "INT"));
        inputs.add(new Entry(0x2040, 3, 16, "Table.Fb.List", "WORD"));
        return table.withStation(table.station().withOutputs(outputs).withInputs(inputs));
    }

    private static Bench bench(Axis axis, String body) {
        Machine demo = DemoMachine.create();
        return new Bench(demo.withAxes(List.of(axis)).withProofs(List.of()), "PROGRAM P VAR Step : INT; Passed : INT; n : DINT; Power : MC_Power; Go : MC_MoveAbsolute; END_VAR\n" + body + "\nEND_PROGRAM", 100);
    }

    private static double value(Bench bench, String name) {
        return bench.resource().program().variable(name).orElseThrow().number(bench.resource().memory());
    }

    @Test
    void theProgramPositionsByTheHandshakeOfProfilePosition() {
        Bench bench = bench(table(Commander.PROGRAM), "Table.Cmd.Mode := 1;\n" + ENABLING + """
                  3: Table.Cmd.Position := 900000; Table.Cmd.ProfileSpeed := 500000; Table.Cmd.Control := 16#1F;
                     IF (Table.Fb.Status AND 16#1000) <> 0 THEN Step := 4; END_IF
                  4: Table.Cmd.Control := 16#0F; IF (Table.Fb.Status AND 16#1400) = 16#0400 THEN Step := 5; END_IF
                END_CASE
                """);
        bench.run(5);
        assertThat(value(bench, "Step")).isEqualTo(5);
        assertThat(Math.round(bench.drive(0).demandPosition() * 1e4)).isEqualTo(900_000);
        assertThat(bench.drive(0).dictionary().get(rueda.drive.DriveObject.PROFILE_VELOCITY)).isEqualTo(500_000);
    }

    @Test
    void theProgramTurnsByProfileVelocityAndByCyclicVelocity() {
        for (int mode : new int[] {3, 9}) {
            Bench bench = bench(table(Commander.PROGRAM), "Table.Cmd.Mode := " + mode + ";\n" + ENABLING + "  3: Table.Cmd.Speed := 300000;\nEND_CASE\n");
            bench.run(3);
            assertThat(bench.drive(0).demandSpeed()).as("mode " + mode).isCloseTo(30, org.assertj.core.api.Assertions.within(1e-9));
        }
    }

    /** The list as a mode of its own: entry number, start bit, running entry, finished, and cues over the bus. */
    @Test
    void theProgramStartsEntriesOfTheList() {
        Axis table = table(Commander.PROGRAM).withMoves(MoveList.of(MoveEntry.goTo("10"),
                MoveEntry.goTo("50").thenAwait(rueda.machine.Cue.of(rueda.machine.Terminal.Function.CUE_2, rueda.machine.Cue.Edge.RISING)), MoveEntry.goBy("5")));
        Bench bench = bench(table, "Table.Cmd.Mode := -1;\n" + ENABLING + """
                  3: Table.Cmd.Entry := 1; Table.Cmd.Control := 16#1F; IF (Table.Fb.Status AND 16#1000) <> 0 THEN Step := 4; END_IF
                  4: Table.Cmd.Control := 16#0F; IF (Table.Fb.List AND 16#08) <> 0 THEN Passed := Table.Fb.Entry; Step := 5; END_IF
                  5: Table.Cmd.Cues := 16#02; IF Table.Fb.Entry = 2 AND (Table.Fb.List AND 16#03) = 16#02 THEN Step := 6; END_IF
                END_CASE
                """);
        bench.run(8);
        assertThat(value(bench, "Passed")).as("it awaited its cue in entry 1").isEqualTo(1);
        assertThat(value(bench, "Step")).isEqualTo(6);
        assertThat(bench.drive(0).moveList().phase()).isEqualTo(MoveListSource.Phase.IDLE);
        assertThat(Math.round(bench.drive(0).demandPosition() * 1e4)).isEqualTo(550_000);
    }

    /** By registers of Modbus: an entry is started, and its speed and way are changed while it runs. */
    @Test
    void speedAndWayAreChangedInRegistersWhileTheListRuns() {
        Axis table = table(Commander.PROGRAM).withMoves(MoveList.of(MoveEntry.goBy("720").withSpeed(30).thenGoOn(0, 0)));
        List<Entry> outputs = new ArrayList<>(table.station().outputs());
        outputs.add(new Entry(0x2041, 1, 16, "Table.Cmd.ChangedEntry", "UINT"));
        outputs.add(new Entry(0x2041, 4, 16, "Table.Cmd.Change", "WORD"));
        outputs.add(new Entry(0x2041, 2, 32, "Table.Cmd.ChangedSpeed", "UDINT"));
        outputs.add(new Entry(0x2041, 3, 32, "Table.Cmd.ChangedWay", "DINT"));
        Machine demo = DemoMachine.create();
        Machine modbus = rueda.bus.BusFamily.moved(demo.withAxes(List.of(table)).withProofs(List.of()), rueda.machine.Bus.Family.MODBUS_TCP);
        modbus = modbus.withAxis(0, table.withStation(modbus.axes().get(0).station().withOutputs(outputs).withInputs(table.station().inputs())));
        Bench bench = new Bench(modbus, "PROGRAM P VAR Step, n : INT; END_VAR\nTable.Cmd.Mode := -1;\n" + ENABLING + """
                  3: Table.Cmd.Control := 16#1F; n := n + 1; IF n > 1000 THEN Step := 4; END_IF
                  4: Table.Cmd.ChangedSpeed := 600000; Table.Cmd.ChangedWay := 900000; Table.Cmd.Change := 16#03;
                END_CASE
                END_PROGRAM
                """, 100);
        while (value(bench, "Step") < 4) {
            bench.cycle();
        }
        assertThat(bench.drive(0).demandSpeed()).isCloseTo(30, org.assertj.core.api.Assertions.within(1e-6));
        assertThat(bench.drive(0).moveList().busChanges()).isEmpty();
        bench.run(1);
        assertThat(bench.drive(0).demandSpeed()).as("at once").isCloseTo(60, org.assertj.core.api.Assertions.within(1e-6));
        assertThat(bench.drive(0).moveList().busChanges()).singleElement().satisfies(change -> {
            assertThat(change.entry()).isZero();
            assertThat(change.speed()).isCloseTo(60, org.assertj.core.api.Assertions.within(1e-6));
            assertThat(change.way()).isCloseTo(90, org.assertj.core.api.Assertions.within(1e-9));
        });
        while (bench.drive(0).moveList().rounds() < 3) {
            bench.cycle();
        }
        double second = bench.drive(0).demandPosition();
        bench.run(0.1);
        while (bench.drive(0).moveList().rounds() < 4) {
            bench.cycle();
        }
        assertThat((bench.drive(0).demandPosition() - second + 360) % 360).as("the way from the next start").isCloseTo(90, org.assertj.core.api.Assertions.within(0.01));
    }

    /** A bit that stands already starts nothing (common practice, no source: the command bit still set, so that no move starts). */
    @Test
    void aStartBitThatStandsStartsNothing() {
        Axis table = table(Commander.PROGRAM).withMoves(MoveList.of(MoveEntry.goTo("10")));
        Bench bench = bench(table, "Table.Cmd.Mode := -1;\n" + ENABLING.replace("16#06", "16#16").replace("16#07", "16#17").replace("16#0F", "16#1F") + "  3: n := n + 1;\nEND_CASE\n");
        bench.run(2);
        assertThat(value(bench, "n")).isGreaterThan(100);
        assertThat(bench.drive(0).moveList().entry()).isEqualTo(-1);
    }

    @Test
    void motionBlocksAreRefusedWhereSomebodyElseCommands() {
        for (Commander other : List.of(Commander.PROGRAM, Commander.DRIVE)) {
            Bench bench = bench(table(other), "Power(Axis := Table, Enable := TRUE); Go(Axis := Table, Execute := TRUE, Position := 10.0);");
            bench.run(0.5);
            assertThat(value(bench, "Go.ErrorID")).isEqualTo(MotionError.NOT_COMMANDED.id());
            assertThat(value(bench, "Power.Error")).isEqualTo(1);
            assertThat(bench.drive(0).state()).isEqualTo(other == Commander.DRIVE ? PowerState.OPERATION_ENABLED : PowerState.SWITCH_ON_DISABLED);
            assertThat(bench.drive(0).demandSpeed()).isZero();
        }
    }

    @Test
    void whenTheProgramStopsItsAxisMakesAQuickStop() {
        Bench bench = bench(table(Commander.PROGRAM), "Table.Cmd.Mode := 3;\n" + ENABLING + "  3: Table.Cmd.Speed := 600000; n := n + 1; IF n > 500 THEN n := n / 0; END_IF\nEND_CASE\n");
        bench.run(0.8);
        assertThat(bench.drive(0).demandSpeed()).isPositive();
        bench.run(2);
        assertThat(bench.resource().fault()).isNotNull();
        assertThat(bench.drive(0).demandSpeed()).isZero();
        assertThat(bench.drive(0).state()).isNotEqualTo(PowerState.OPERATION_ENABLED);
    }

    /** Stop all axes stops each one, whoever commands it, and none moves until the bench is made anew. */
    @Test
    void stopAllAxesStopsWhoeverCommands() {
        MoveList list = MoveList.of(MoveEntry.goBy("720").withSpeed(30).thenGoOn(0, 0)).withOnFirstEnable(true);
        String body = "Table.Cmd.Mode := -1;\n" + ENABLING + "  3: Table.Cmd.Control := 16#1F;\nEND_CASE\n";
        for (Commander commander : List.of(Commander.PROGRAM, Commander.DRIVE)) {
            Bench bench = bench(table(commander).withMoves(list), commander == Commander.PROGRAM ? body : "");
            bench.run(2);
            assertThat(bench.drive(0).demandSpeed()).as(commander.words()).isGreaterThan(29);
            bench.stopAllAxes();
            bench.run(1);
            assertThat(bench.drive(0).demandSpeed()).isZero();
            assertThat(bench.drive(0).state()).isNotEqualTo(PowerState.OPERATION_ENABLED);
            bench.restartDevice(0);
            bench.run(4);
            assertThat(bench.drive(0).state()).as("not by a restart either").isNotEqualTo(PowerState.OPERATION_ENABLED);
            assertThat(bench.drive(0).demandSpeed()).isZero();
        }
    }

    /** A person takes over whoever commanded, runs the list, and moves the axis otherwise once it stands. */
    @Test
    void aPersonRunsTheListWhoeverCommands() {
        for (Commander commander : Commander.values()) {
            Axis table = table(commander).withMoves(MoveList.of(MoveEntry.goTo("10").thenGoOn(1, 0), MoveEntry.goTo("60")));
            Bench bench = bench(table, "");
            bench.takeByHand();
            bench.run(0.01);
            assertThat(bench.hand(0).startEntry(0)).as("not enabled yet").contains("Enable it first");
            bench.hand(0).enable(true);
            bench.run(0.1);
            assertThat(bench.hand(0).startEntry(2)).contains("0 to 1");
            assertThat(bench.hand(0).startEntry(0)).as(commander.words()).isNull();
            bench.run(0.3);
            assertThat(bench.hand(0).jog(1, false, bench.now())).isEqualTo("The move list runs. Hold it first.");
            assertThat(bench.hand(0).halt(bench.now())).isNull();
            bench.run(1);
            assertThat(bench.drive(0).moveList().phase()).isEqualTo(MoveListSource.Phase.HELD);
            assertThat(bench.hand(0).goOn()).isNull();
            bench.run(4);
            assertThat(Math.round(bench.drive(0).demandPosition() * 1e4)).isEqualTo(600_000);
            assertThat(bench.hand(0).stepwise(true)).isNull();
            assertThat(bench.hand(0).startEntry(0)).isNull();
            bench.run(4);
            assertThat(Math.round(bench.drive(0).demandPosition() * 1e4)).as("it holds after the first entry").isEqualTo(100_000);
            assertThat(bench.hand(0).goOn()).isNull();
            bench.run(4);
            assertThat(Math.round(bench.drive(0).demandPosition() * 1e4)).isEqualTo(600_000);
            double before = bench.drive(0).demandPosition();
            assertThat(bench.hand(0).halt(bench.now())).isNull();
            assertThat(bench.hand(0).step(-5, bench.now())).as("it stands: moved otherwise").isNull();
            bench.run(2);
            assertThat(bench.drive(0).demandPosition()).isCloseTo(before - 5, org.assertj.core.api.Assertions.within(0.01));
            assertThat(bench.drive(0).state()).isEqualTo(PowerState.OPERATION_ENABLED);
        }
    }
}
