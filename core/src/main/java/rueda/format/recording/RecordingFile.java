package rueda.format.recording;

import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import rueda.bench.Signal;
import rueda.format.UnreadableFile;
import rueda.machine.Machine;
import rueda.recording.Brought;
import rueda.recording.Curve;

/** A recording in a file of its own, as it is read when nobody is asked: as its first lines look, in memory. */
public final class RecordingFile {

    private RecordingFile() {
    }

    /**
     * @param machine whose signals the headings name
     * @param signals that its recordings have
     * @param most samples of all columns together
     * @return called as the file is, without its ending
     * @throws UnreadableFile when it is no recording, or longer
     */
    public static Brought read(Path file, Machine machine, List<Signal> signals, long most) throws IOException {
        RecordingLayout layout;
        try (InputStream in = Files.newInputStream(file)) {
            layout = Assignments.suggested(LayoutGuess.guess(in.readNBytes(LayoutGuess.HEAD)), machine, signals);
        }
        Rows rows = new Rows(layout.columns().size(), most);
        try (InputStream in = Files.newInputStream(file)) {
            RecordingReader.read(in, layout, rows);
        }
        return new Brought(file.getFileName().toString().replaceFirst("\\.[^.]*$", ""), rows.columns(layout));
    }

    private static final class Rows implements RecordingReader.Row {
        private final long most;
        private long[] nanos = new long[1024];
        private final double[][] columns;
        private int count;

        Rows(int width, long most) {
            this.most = most;
            columns = new double[width][1024];
        }

        @Override
        public void take(long time, double[] values) {
            if ((count + 1L) * columns.length > most) {
                throw new UnreadableFile("row " + (count + 1), "more than " + most + " samples", "up to " + most, "take the part that matters, or fewer columns");
            }
            if (count == nanos.length) {
                nanos = Arrays.copyOf(nanos, 2 * count);
                Arrays.setAll(columns, c -> Arrays.copyOf(columns[c], 2 * count));
            }
            nanos[count] = time;
            for (int c = 0; c < columns.length; c++) {
                columns[c][count] = values[c];
            }
            count++;
        }

        List<Brought.Column> columns(RecordingLayout layout) {
            long[] times = Arrays.copyOf(nanos, count);
            List<Brought.Column> all = new ArrayList<>();
            for (int c = 0; c < columns.length; c++) {
                all.add(new Brought.Column(layout.columns().get(c).signal(), layout.columns().get(c).unit(), new Curve(times, Arrays.copyOf(columns[c], count))));
            }
            return all;
        }
    }
}
