package rueda.bench;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import java.util.Map;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import rueda.advice.FollowAdvice;
import rueda.bus.ClockDrift;
import rueda.machine.Axis;
import rueda.machine.DemoMachine;
import rueda.machine.Homing;
import rueda.machine.Machine;
import rueda.machine.Mistake;

/** Stations whose clocks are not those of the bus, and what that does to an axis that follows another one. */
class StationClockTest {

    private static final String PROGRAM = "PROGRAM P VAR P1, P2 : MC_Power; H1, H2 : MC_Home; Gear : MC_GearIn; Run : MC_MoveVelocity; Ready, A : BOOL; END_VAR\n"
            + "P1(Axis := Table, Enable := TRUE); P2(Axis := Brush, Enable := TRUE); H1(Axis := Table, Execute := P1.Status); H2(Axis := Brush, Execute := P2.Status); Ready := Ready OR H1.Done AND H2.Done;\n"
            + "Gear(Master := Table, Slave := Brush, Execute := Ready, RatioNumerator := 7, RatioDenominator := 2); A := A OR Gear.InGear; Run(Axis := Table, Execute := A, Velocity := 60.0);\nEND_PROGRAM";

    private static Machine pair() {
        Machine demo = DemoMachine.create();
        Axis table = demo.axis("Table").orElseThrow().withHoming(Homing.search(37, 20, 2, 60, 0));
        Axis brush = demo.axis("Brush").orElseThrow().withHoming(Homing.search(37, 20, 2, 60, 0));
        return demo.withAxes(List.of(table, brush)).withProofs(List.of());
    }

    /** As many sub-steps as the oscillator gives in the time, to one: Σ = t·(1 + ppm). */
    @ParameterizedTest
    @ValueSource(ints = {0, 1, 2, 3, 7})
    void countsByItsOscillator(int number) {
        StationClock clock = new StationClock(number, 8);
        long sum = 0;
        long cycles = 400_000;
        int place = 0;
        for (long i = 0; i < cycles; i++) {
            int steps = clock.subSteps(true, place);
            assertThat(steps).isBetween(7, 9);
            place = (place + steps) % 8;
            sum += steps;
        }
        assertThat((double) sum).isCloseTo(cycles * 8 * (1 + ClockDrift.ppm(number) * 1e-6), within(1.0));
        int back = 0;
        while (place != 0) {
            place = (place + clock.subSteps(false, place)) % 8;
            back++;
        }
        assertThat(back).as("brought back a sub-step a cycle").isLessThan(8);
        assertThat(clock.subSteps(false, 0)).isEqualTo(8);
    }

    /** Largest distance of both loads from where the ratio has them, of the loads themselves, over so long. */
    private static double[] worst(Bench bench, double seconds) {
        bench.run(3);
        double table = bench.drive(0).plant().place();
        double brush = bench.drive(1).plant().place();
        double[] worst = new double[2];
        while (bench.now() < seconds * 1e9) {
            bench.cycle();
            double phase = bench.drive(1).plant().place() - brush - 3.5 * (bench.drive(0).plant().place() - table);
            worst[0] = Math.max(worst[0], Math.abs(phase));
            worst[1] = Math.max(worst[1], Math.abs(bench.recording().value(bench.recording().indexOf("Brush.phase"), bench.recording().count() - 1)));
        }
        return worst;
    }

    /** Over the bus by clocks that are up to 100 ppm apart: within a bus cycle of way as announced, and beyond what it is by one clock. Nothing adds up. */
    @Test
    void thePhaseStaysWithinABusCycleOfWay() {
        Machine pair = pair();
        double announced = FollowAdvice.of(pair, pair.axes().get(1).withFollowing(rueda.edit.FollowEdit.of(pair, 1, rueda.machine.Following.Source.SETPOINT, "Table")), "/axes/1").figures().stream()
                .filter(figure -> figure.label().equals("Without synchronised clocks up to")).mapToDouble(figure -> Double.parseDouble(figure.value())).findFirst().orElseThrow();
        assertThat(announced).isCloseTo(60 * 3.5 * 0.001, within(1e-9));
        double[] one = worst(new Bench(pair, PROGRAM, 100), 20);
        Bench apart = new Bench(pair, PROGRAM, 100, BenchCondition.throughout(Map.of("Table", Set.of(Mistake.OWN_CLOCK), "Brush", Set.of(Mistake.OWN_CLOCK))));
        double[] two = worst(apart, 150);
        assertThat(two[0]).isBetween(0.5 * announced, announced + 2 * one[0]);
        assertThat(two[1]).as("recorded").isBetween(0.5 * announced, announced + 2 * one[1]);
        apart.condition(BenchCondition.SOUND);
        apart.run(0.1);
        assertThat(apart.drive(0).cyclePlace() + apart.drive(1).cyclePlace()).isZero();
    }
}
