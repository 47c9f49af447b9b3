package rueda.bench;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import rueda.quantity.InvalidEntry;

class SampleRowsTest {

    /** Rows in the heap, rows on the disk, rows over the border of a segment. */
    @ParameterizedTest
    @CsvSource({"1,1", "1000,7", "5,0", "4194304,1", "4194305,1", "70000,200"})
    void whatIsWrittenIsRead(long rows, int width) {
        SampleRows table = new SampleRows(rows, width, null);
        double[] row = new double[width];
        Random random = new Random(1);
        long[] places = random.longs(200, 0, rows).toArray();
        places[0] = 0;
        places[1] = rows - 1;
        for (long place : places) {
            for (int i = 0; i < width; i++) {
                row[i] = place * 1000.0 + i + 0.5;
            }
            table.put(place, row);
        }
        for (long place : places) {
            for (int i = 0; i < width; i++) {
                assertThat(table.number(place, i)).isEqualTo(place * 1000.0 + i + 0.5);
            }
        }
    }

    /** A large table takes no heap worth speaking of, and leaves no file behind. */
    @Test
    void aLargeTableLiesOnTheDisk() throws Exception {
        long before = files();
        Runtime.getRuntime().gc();
        long used = Runtime.getRuntime().totalMemory() - Runtime.getRuntime().freeMemory();
        SampleRows table = new SampleRows(600_000, 100, null);
        table.put(599_999, new long[100]);
        Runtime.getRuntime().gc();
        assertThat(Runtime.getRuntime().totalMemory() - Runtime.getRuntime().freeMemory() - used).as("bytes of heap for a table of 480 MB").isLessThan(50L << 20);
        assertThat(files()).isEqualTo(before);
        assertThat(table.value(599_999, 99)).isZero();
    }

    private static long files() throws Exception {
        try (var all = Files.list(Path.of(System.getProperty("java.io.tmpdir")))) {
            return all.filter(p -> p.getFileName().toString().startsWith("rueda-recording-")).count();
        }
    }

    @Test
    void aTableBeyondAllBoundsIsRefusedInWords() {
        assertThatThrownBy(() -> new SampleRows(10_000_000_000L, 100, null)).isInstanceOf(InvalidEntry.class).hasMessageContaining("8.6 GB");
    }
}
