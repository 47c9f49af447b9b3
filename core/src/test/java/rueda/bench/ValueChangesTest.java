package rueda.bench;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import rueda.bench.ValueChanges.ValueChange;
import rueda.machine.DemoMachine;
import rueda.machine.Machine;
import rueda.machine.Plc;
import rueda.plc.StructuredTextCompiler.Text;

class ValueChangesTest {

    /** A bit that is on for two of five cycles of its task, a name that says the same, a number: the recording, which keeps every sample, says so too. */
    @ParameterizedTest
    @ValueSource(ints = {1000, 3000})
    void theLastChangesOfEachValue(int taskMicros) {
        Machine demo = DemoMachine.create();
        String program = "PROGRAM P VAR n : DINT; on : BOOL; e : (Off, Running); still : LREAL := 2.5; END_VAR n := n + 1; on := n MOD 5 < 2; IF on THEN e := Running; ELSE e := Off; END_IF END_PROGRAM";
        Machine machine = new Machine("m", demo.bus(), new Plc(taskMicros, 10_000, program), demo.axes(), demo.proofs());
        Bench bench = new Bench(machine, List.of(new Text("P.st", program)), 400, BenchCondition.SOUND, true);
        for (int k = 0; k < 400; k++) {
            bench.cycle();
        }
        Recording recording = bench.recording();
        int on = recording.indexOf("on");
        List<ValueChange> changes = bench.changes().of("ON").orElseThrow();
        assertThat(changes).hasSize(ValueChanges.KEPT);
        int found = 0;
        for (long sample = recording.count() - 1; found < changes.size(); sample--) {
            if (recording.value(on, sample) != recording.value(on, sample - 1)) {
                assertThat(changes.get(found).time()).isCloseTo(recording.time(sample), within(1e-12));
                assertThat(changes.get(found).value()).isEqualTo(recording.value(on, sample) == 1 ? "TRUE" : "FALSE");
                found++;
            }
        }
        assertThat(bench.changes().of("e").orElseThrow()).extracting(ValueChange::time).isEqualTo(changes.stream().map(ValueChange::time).toList());
        assertThat(bench.changes().of("e").orElseThrow().get(0).value()).isEqualTo(changes.get(0).value().equals("TRUE") ? "Running" : "Off");
        assertThat(bench.changes().of("still").orElseThrow()).containsExactly(new ValueChange(0.001, "2.5"));
        assertThat(bench.changes().of("nothing")).isEmpty();
    }
}
