package rueda.bench;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;
import rueda.machine.DemoMachine;

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
}
