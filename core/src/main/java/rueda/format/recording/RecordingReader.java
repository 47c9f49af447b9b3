package rueda.format.recording;

import java.io.IOException;
import java.io.InputStream;
import java.util.ArrayList;
import java.util.List;
import rueda.format.UnreadableFile;
import rueda.format.recording.RecordingLayout.ColumnUse;
import rueda.format.recording.RecordingLayout.Separator;

/**
 * Reads a recording in one pass, in about a microsecond for a row of five columns; memory is that of one line. A cell in which nothing stands is no value (NaN).
 * Not thread-safe.
 */
public final class RecordingReader {

    /** Rows that are read at most. */
    public static final int MOST_ROWS = 50_000_000;

    private final RecordingLayout layout;
    private final Row row;
    private final double[] values;
    private final String[] cells;
    private long rows;
    private long first;
    private long before = Long.MIN_VALUE;

    /** Takes the rows. */
    @FunctionalInterface
    public interface Row {
        /** @param nanos time, ns, not before that of the row before  @param values one for each column that is taken, in their order; the same array each time */
        void take(long nanos, double[] values);
    }

    /** @param rows that were taken  @param remarks what was left out */
    public record Taken(long rows, List<String> remarks) {
    }

    private RecordingReader(RecordingLayout layout, Row row) {
        this.layout = layout;
        this.row = row;
        values = new double[layout.columns().size()];
        int last = layout.time().fromColumn() ? layout.time().column() : 0;
        for (ColumnUse use : layout.columns()) {
            last = Math.max(last, use.column());
        }
        cells = new String[last + 1];
    }

    /**
     * @throws UnreadableFile naming line and column; what had been taken before is not to be kept
     * @throws rueda.quantity.InvalidEntry when the layout cannot be
     */
    public static Taken read(InputStream bytes, RecordingLayout layout, Row row) throws IOException {
        LayoutRules.check(layout);
        return new RecordingReader(layout, row).read(new Lines(bytes, layout.encoding()));
    }

    private Taken read(Lines lines) throws IOException {
        List<String> remarks = new ArrayList<>();
        UnreadableFile open = null;
        for (String line = lines.next(); line != null; line = lines.next()) {
            if (lines.number() < layout.begins() || line.isBlank()) {
                continue;
            }
            if (open != null) {
                throw open;
            }
            try {
                take(line, lines.number());
            } catch (UnreadableFile unreadable) {
                /* a recorder that is switched off leaves half a line at the end */
                open = unreadable;
            }
        }
        if (open != null && rows == 0) {
            throw open;
        } else if (open != null) {
            remarks.add("The last line was cut off and left out: " + open.getMessage());
        }
        if (rows == 0) {
            throw new UnreadableFile("File", "no sample", "at least one line with values from line " + layout.begins() + " on", "choose the line where the samples begin");
        }
        return new Taken(rows, remarks);
    }

    private void take(String line, long number) {
        split(line);
        long nanos = time(number);
        for (int i = 0; i < values.length; i++) {
            ColumnUse use = layout.columns().get(i);
            String cell = cells[use.column()];
            try {
                values[i] = Cells.number(cell == null ? "" : cell, layout.decimalComma()) * use.scale() + use.offset();
            } catch (NumberFormatException none) {
                throw new UnreadableFile("line " + number + ", " + use.signal(), cell, "a number with a decimal " + (layout.decimalComma() ? "comma" : "point"), "correct it, choose the other decimal mark, or leave the column out");
            }
        }
        if (++rows > MOST_ROWS) {
            throw new UnreadableFile("line " + number, "more than " + MOST_ROWS + " rows", "up to " + MOST_ROWS, "cut the file in parts");
        }
        row.take(nanos, values);
    }

    private long time(long number) {
        RecordingLayout.TimeSource time = layout.time();
        if (!time.fromColumn()) {
            return Math.round(rows * (time.interval() * 1e9));
        }
        String cell = cells[time.column()];
        long nanos;
        try {
            nanos = Times.nanos(cell == null ? "" : cell, time.form(), layout.decimalComma());
        } catch (NumberFormatException none) {
            throw new UnreadableFile("line " + number + ", time", cell, "a time as " + time.form().words(), "correct it, choose another form of the time, or give the time from row to row");
        }
        if (rows == 0) {
            first = time.fromZero() ? nanos : 0;
        } else if (time.form() == RecordingLayout.TimeSource.Form.CLOCK) {
            nanos = Times.afterMidnight(nanos, before);
        }
        if (rows > 0 && nanos < before) {
            throw new UnreadableFile("line " + number + ", time", cell, "a time that is not before that of the line above", "cut the file where the time begins again, or give the time from row to row");
        }
        before = nanos;
        return nanos - first;
    }

    /** Columns behind the last wanted are not looked at; those that are missing are null. */
    private void split(String line) {
        char separator = layout.separator().character();
        if (line.indexOf('"') >= 0 || layout.separator() == Separator.SPACES) {
            List<String> parts = Cells.of(line, layout.separator());
            for (int i = 0; i < cells.length; i++) {
                cells[i] = i < parts.size() ? parts.get(i).strip() : null;
            }
            return;
        }
        int from = 0;
        for (int i = 0; i < cells.length; i++) {
            if (from > line.length()) {
                cells[i] = null;
                continue;
            }
            int to = line.indexOf(separator, from);
            to = to < 0 ? line.length() : to;
            cells[i] = line.substring(from, to).strip();
            from = to + 1;
        }
    }
}
