package rueda.bench;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import java.util.Set;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import rueda.bus.BusFamily;
import rueda.drive.PowerState;
import rueda.machine.Bus.Family;
import rueda.machine.DemoMachine;
import rueda.machine.Machine;
import rueda.machine.Mistake;

/** "Switch on" wants a rising edge: if the bit is already true when the cause of the block goes away, it must go false and true again (common practice, no source). */
class StandingBitTest {

    @ParameterizedTest
    @EnumSource(Family.class)
    void aSwitchOnBitThatStandsSwitchesNothingOn(Family family) {
        Machine demo = DemoMachine.create();
        Machine table = BusFamily.moved(demo.withAxes(List.of(demo.axis("Table").orElseThrow())).withProofs(List.of()), family);
        Bench bench = new Bench(table, "PROGRAM P VAR Power : MC_Power; END_VAR\nPower(Axis := Table, Enable := TRUE);\nEND_PROGRAM", 10, BenchCondition.throughout(Map.of("Table", Set.of(Mistake.SWITCH_ON_BIT_HELD))));
        bench.run(0.5);
        assertThat(bench.drive(0).state()).isEqualTo(PowerState.SWITCH_ON_DISABLED);
        assertThat(bench.drive(0).stateWords()).contains("bit 0 of the control word must go off first");
        bench.condition(BenchCondition.SOUND);
        bench.run(0.5);
        assertThat(bench.drive(0).state()).isEqualTo(PowerState.OPERATION_ENABLED);
        assertThat(bench.drive(0).stateWords()).isEqualTo(PowerState.OPERATION_ENABLED.words());
    }
}
