package rueda.app.proof;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayInputStream;
import java.nio.ByteBuffer;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.stream.Stream;
import java.util.zip.GZIPInputStream;
import org.junit.jupiter.api.Test;
import rueda.bench.Bench;
import rueda.bench.Recording;
import rueda.machine.DemoMachine;

class PackedTracesTest {

    private static long files() throws Exception {
        try (Stream<Path> all = Files.list(Path.of(System.getProperty("java.io.tmpdir")))) {
            return all.filter(p -> p.getFileName().toString().startsWith("rueda-traces-")).count();
        }
    }

    /** Every signal comes back bit for bit, and nothing is left on the disk. */
    @Test
    void whatIsPackedComesBack() throws Exception {
        Bench bench = new Bench(DemoMachine.create(), 500);
        bench.run(0.4);
        Recording recording = bench.recording();
        long before = files();
        try (PackedTraces packed = new PackedTraces(recording)) {
            assertThat(packed.size()).isEqualTo(recording.signals().size());
            for (int s = packed.size() - 1; s >= 0; s--) {
                TraceEntity trace = packed.of(7, s);
                assertThat(trace.signalName).isEqualTo(recording.signals().get(s).name());
                assertThat(trace.samples).isEqualTo(400);
                ByteBuffer raw = ByteBuffer.wrap(new GZIPInputStream(new ByteArrayInputStream(trace.content)).readAllBytes());
                for (long k = recording.first(); k < recording.count(); k++) {
                    assertThat(Double.doubleToRawLongBits(raw.getDouble())).isEqualTo(Double.doubleToRawLongBits(recording.value(s, k)));
                }
            }
        }
        assertThat(files()).isEqualTo(before);
    }
}
