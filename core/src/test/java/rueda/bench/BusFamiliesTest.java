package rueda.bench;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import rueda.bus.BusFamily;
import rueda.bus.CycleTimes;
import rueda.machine.Bus.Family;
import rueda.machine.DemoMachine;
import rueda.machine.Machine;
import rueda.machine.MachineRules;
import rueda.advice.Finding;
import rueda.advice.MapAdvice;

/** The same program on every bus. What the proofs say on each of them stands in rueda.proof. */
class BusFamiliesTest {

    private static final Machine DEMO = DemoMachine.create();

    @ParameterizedTest
    @EnumSource(Family.class)
    void theUsualLayoutFitsItsFamily(Family family) {
        Machine moved = BusFamily.moved(DEMO, family);
        assertThat(MachineRules.check(moved)).isEmpty();
        CycleTimes times = BusFamily.of(family).times(moved);
        assertThat(times.shortestNanos()).isLessThanOrEqualTo(moved.bus().cycleMicros() * 1000L);
        assertThat(BusFamily.of(family).refusesCycle(moved.bus().cycleMicros())).isNull();
        for (int i = 0; i < moved.axes().size(); i++) {
            assertThat(MapAdvice.of(moved, moved.axes().get(i), "/axes/" + i).findings()).allMatch(f -> f.severity() == Finding.Severity.GOOD);
        }
    }

    /** An endless axis whose encoder passes 32 bits keeps its place on every bus: 25 turns of the Table are 2.6e9 counts. */
    @ParameterizedTest
    @EnumSource(Family.class)
    void anEndlessAxisKeepsItsPlaceBeyond32Bits(Family family) {
        Machine moved = BusFamily.moved(DEMO, family).withProgram("""
                PROGRAM P
                VAR Power : MC_Power; Turn : MC_MoveRelative; Where : MC_ReadActualPosition; END_VAR
                Power(Axis := Table, Enable := TRUE);
                Turn(Axis := Table, Execute := Power.Status, Distance := 9090.0, Velocity := 120.0, Acceleration := 240.0);
                Where(Axis := Table, Enable := TRUE);
                END_PROGRAM
                """);
        Bench bench = new Bench(moved, 100);
        double start = bench.drive(2).position();
        bench.run(85);
        double off = Math.abs(bench.drive(2).position() - 90 - start) % 360;
        assertThat(Math.min(off, 360 - off)).isLessThan(0.05);
        assertThat(bench.drive(2).inPosition()).isTrue();
    }
}
