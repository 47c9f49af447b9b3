package rueda.bench;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.math.BigDecimal;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import rueda.machine.Axis;
import rueda.machine.DemoMachine;
import rueda.machine.Homing;
import rueda.machine.Machine;
import rueda.machine.Unit;

/** Endless axes: the way to an absolute target, positions that begin again, and counts that do not drift. */
class EndlessAxisTest {

    private static Machine brush(int decimals) {
        Machine demo = DemoMachine.create();
        Axis axis = DemoMachine.brush().withName("Brush").withUnit(new Unit("°", decimals)).withHoming(Homing.search(37, 90, 20, 600, 0));
        return new Machine("m", demo.bus(), demo.plc(), List.of(axis), demo.proofs());
    }

    private static final String PROGRAM = """
            PROGRAM P
            VAR Power : MC_Power; Home : MC_Home; First, Second : MC_MoveAbsolute; Turns : MC_MoveRelative; Way : INT := %s; END_VAR
            Power(Axis := Brush, Enable := TRUE);
            Home(Axis := Brush, Execute := Power.Status);
            First(Axis := Brush, Execute := Home.Done, Position := %s);
            Second(Axis := Brush, Execute := First.Done, Position := %s, Direction := Way);
            END_PROGRAM
            """;

    /** Common practice, no source: 350° to 10° by the shortest way is +20°, not −340°; never more than one turn. Unit 0.1°. */
    @ParameterizedTest
    @CsvSource({"350, 10, mcShortestWay, 20", "10, 350, mcShortestWay, -20", "350, 10, 0, 20", "350, 10, mcPositiveDirection, 20", "350, 10, mcNegativeDirection, -340",
            "10, 350, mcPositiveDirection, 340", "10, 350, mcNegativeDirection, -20", "10, 10, mcPositiveDirection, 0", "10, 10, mcNegativeDirection, 0", "10, 730, mcShortestWay, 0",
            "10, 190, mcShortestWay, 180", "350, 10, mcCurrentDirection, 20"})
    void takesTheWayThatIsAskedFor(double from, double to, String direction, double way) {
        Bench bench = new Bench(brush(1), PROGRAM.formatted(direction, from, to), 16);
        int done = bench.resource().program().variable("First.Done").orElseThrow().slot();
        while (bench.resource().memory()[done] == 0 && bench.now() < 5e9) {
            bench.cycle();
        }
        double place = bench.drive(0).plant().place();
        bench.run(1.5);
        assertThat(bench.drive(0).plant().place() - place).isCloseTo(way, within(0.3));
        assertThat(bench.drive(0).position()).isCloseTo((to % 360 + 360) % 360, within(0.3));
    }

    /**
     * Ordered in a direction while it already turns that way, to a place at any distance ahead: it arrives turning that way, a turn later where
     * it could not stop before, and never more than the way to stop and a turn after the order. The same order given again while braking
     * changes nothing.
     */
    @ParameterizedTest
    @CsvSource({"1, mcPositiveDirection", "-1, mcNegativeDirection", "1, mcCurrentDirection", "-1, mcCurrentDirection"})
    void aPlaceNearerThanTheStopIsReachedGoingOn(int side, String direction) {
        String source = """
                PROGRAM P
                VAR Power : MC_Power; Home : MC_Home; Run : MC_MoveRelative; Stop : MC_MoveAbsolute; Place : MC_ReadActualPosition; n : DINT; target : LREAL; END_VAR
                Power(Axis := Brush, Enable := TRUE); Home(Axis := Brush, Execute := Power.Status); Place(Axis := Brush, Enable := TRUE);
                IF Home.Done OR n > 0 THEN n := n + 1; END_IF
                IF n = 600 THEN target := Place.Position + %s; END_IF
                Run(Axis := Brush, Execute := n > 50, Distance := %s);
                Stop(Axis := Brush, Execute := n > 600 AND n MOD 40 <> 0, Position := target, Direction := %s);
                END_PROGRAM
                """;
        for (int ahead : new int[] {0, 1, 30, 90, 250, 300, 340, 359}) {
            Bench bench = new Bench(brush(1), source.formatted(side * ahead + ".0", side * 90_000 + ".0", direction), 16);
            int n = bench.resource().program().variable("n").orElseThrow().slot();
            while (bench.resource().memory()[n] < 601) {
                bench.cycle();
            }
            double ordered = bench.drive(0).plant().place();
            double farthest = ordered;
            for (int k = 0; k < 4000; k++) {
                bench.cycle();
                double place = bench.drive(0).plant().place();
                assertThat(side * (place - farthest)).as("%d ahead", ahead).isGreaterThan(-0.6);
                farthest = side > 0 ? Math.max(farthest, place) : Math.min(farthest, place);
            }
            double target = Double.longBitsToDouble(bench.resource().memory()[bench.resource().program().variable("target").orElseThrow().slot()]);
            assertThat(Math.IEEEremainder(bench.drive(0).position() - target, 360)).isCloseTo(0, within(0.3));
            assertThat(side * (farthest - ordered)).isLessThan(360 + 360);
            assertThat(bench.resource().memory()[bench.resource().program().variable("Stop.Error").orElseThrow().slot()]).isZero();
        }
    }

    @Test
    void aDirectionThatIsNoneIsRefused() {
        Bench bench = new Bench(brush(1), PROGRAM.formatted("9", "90", "10"), 16);
        bench.run(3);
        assertThat(bench.resource().memory()[bench.resource().program().variable("Second.ErrorID").orElseThrow().slot()]).isEqualTo(0x0103);
    }

    /** Two thousand turns one way: what the drive shows is still where the load is, to one count and one wire unit. */
    @Test
    void turningOneWayDoesNotDrift() {
        String source = """
                PROGRAM P
                VAR Power : MC_Power; Home : MC_Home; Turns : MC_MoveRelative; END_VAR
                Power(Axis := Brush, Enable := TRUE);
                Home(Axis := Brush, Execute := Power.Status);
                Turns(Axis := Brush, Execute := Home.Done, Distance := 720000.0, Velocity := 3000.0);
                END_PROGRAM
                """;
        Bench bench = new Bench(brush(2), source, 16);
        double start = bench.drive(0).plant().place();
        bench.run(243);
        double turned = bench.drive(0).plant().place() - start;
        assertThat(turned).isCloseTo(720_000, within(0.02));
        assertThat(Math.IEEEremainder(bench.drive(0).position(), 360)).isCloseTo(0, within(0.02));
    }

    /** Without a modulo the 32-bit position begins again and the axis does not notice. */
    @Test
    void aPositionBeyond32BitsGoesOn() {
        Machine demo = DemoMachine.create();
        Axis doser = DemoMachine.saltDoser().withUnit(new Unit("g", 6));
        assertThat(doser.modulo()).isEqualByComparingTo(BigDecimal.ZERO);
        Machine machine = new Machine("m", demo.bus(), demo.plc(), List.of(doser.withHoming(Homing.search(37, 0.2, 0.05, 2, 4294.9))), demo.proofs());
        String source = """
                PROGRAM P
                VAR Power : MC_Power; Home : MC_Home; Dose : MC_MoveRelative; END_VAR
                Power(Axis := Doser, Enable := TRUE);
                Home(Axis := Doser, Execute := Power.Status);
                Dose(Axis := Doser, Execute := Home.Done, Distance := 3.5);
                END_PROGRAM
                """;
        Bench bench = new Bench(machine, source, 16);
        double start = bench.drive(0).plant().place();
        bench.run(4);
        assertThat(bench.drive(0).plant().place() - start).isCloseTo(3.5, within(0.002));
        assertThat(bench.drive(0).position()).as("4294.9 + 3.5 − 2³² wire units").isCloseTo(4298.4 - 4294.967296, within(0.002));
    }
}
