package rueda.bench;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import rueda.machine.DemoMachine;
import rueda.machine.Machine;
import rueda.machine.Plc;

class RecordingTest {

    @Test
    void aFullRingKeepsTheNewest() {
        Bench bench = new Bench(DemoMachine.create(), 100);
        for (int k = 0; k < 250; k++) {
            bench.cycle();
        }
        Recording recording = bench.recording();
        assertThat(recording.count()).isEqualTo(250);
        assertThat(recording.first()).isEqualTo(150);
        assertThat(recording.time(249)).isEqualTo(0.25);
        int position = recording.indexOf("shuttle.POSITION");
        assertThat(recording.value(position, 249)).isEqualTo(bench.drive(0).position());
        assertThat(recording.indexOf("Nothing")).isEqualTo(-1);
    }

    /** A task every third bus cycle: its values stand until it runs again, and the ring keeps the run of its oldest sample. */
    @ParameterizedTest
    @ValueSource(ints = {7, 9, 100})
    void valuesOfTheProgramBelongToTheRunBefore(int capacity) {
        Machine demo = DemoMachine.create();
        Machine machine = new Machine("m", demo.bus(), new Plc(3000, 10_000, "PROGRAM P VAR n : DINT; END_VAR n := n + 1; END_PROGRAM"), demo.axes(), demo.proofs());
        Bench bench = new Bench(machine, capacity);
        for (int k = 0; k < 50; k++) {
            bench.cycle();
        }
        Recording recording = bench.recording();
        int n = recording.indexOf("n");
        for (long sample = recording.first(); sample < recording.count(); sample++) {
            assertThat(recording.value(n, sample)).as("sample " + sample).isEqualTo(sample / 3 + 1);
        }
    }
}
