package rueda.format.recording;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.ByteBuffer;
import java.nio.CharBuffer;
import java.nio.charset.CharsetDecoder;
import java.nio.charset.CoderResult;
import java.nio.charset.CodingErrorAction;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.IntStream;
import rueda.format.UnreadableFile;
import rueda.format.recording.RecordingLayout.ColumnUse;
import rueda.format.recording.RecordingLayout.Encoding;
import rueda.format.recording.RecordingLayout.Separator;
import rueda.format.recording.RecordingLayout.TimeSource;
import rueda.format.recording.RecordingLayout.TimeSource.Form;

/** What a recording looks like, by its first lines: separator and decimals are those with which most cells are numbers, in lines of as many columns each. */
public final class LayoutGuess {

    /** Bytes of the begin that are enough. */
    public static final int HEAD = 1 << 18;
    private static final int MOST_LINES = 400;
    private static final Pattern WITH_UNIT = Pattern.compile("(.*?)\\s*(?:\\[([^\\]]*)\\]|\\(([^)]*)\\)|\\s(?:in|/)\\s+(\\S+))\\s*");
    private static final Pattern TIME = Pattern.compile("(?i)#?\\s*(t|x|time|zeit|timestamp|time ?stamp|zeitstempel|temps|tiempo|tempo|date.*|datum.*|uhrzeit)\\b.*");
    /** A first time that is later is one of a clock, not of the recording, s. */
    private static final long CLOCK_TIME = 1000;

    private LayoutGuess() {
    }

    /**
     * The first lines in their columns.
     *
     * @param headings of the columns, as many as there are; a column without one is called by its number
     * @param units    of the columns, empty for none
     * @param rows     the first lines with samples
     */
    public record Preview(List<String> headings, List<String> units, List<List<String>> rows) {
    }

    /**
     * @param head the first bytes of the file, up to {@link #HEAD}
     * @throws UnreadableFile when no line has a number
     */
    public static RecordingLayout guess(byte[] head) {
        Encoding encoding = encoding(head);
        List<String> lines = lines(head, encoding);
        Table best = null;
        for (Separator separator : Separator.values()) {
            for (boolean comma : separator == Separator.COMMA ? new boolean[] {false} : new boolean[] {false, true}) {
                Table table = Table.of(lines, separator, comma);
                best = best == null || table.score() > best.score() ? table : best;
            }
        }
        if (best.numbers == 0) {
            throw new UnreadableFile("File", lines.isEmpty() ? "no line" : lines.get(0), "lines with numbers, their columns separated by comma, semicolon, tab, bar or spaces", "choose a recording that is saved as text");
        }
        int headings = best.headings();
        int units = headings > 0 && best.unitsAt(headings) ? headings + 1 : 0;
        RecordingLayout bare = new RecordingLayout(encoding, best.separator, best.comma, headings, units, best.begins + 1, new TimeSource(Form.RATE, 0, 0.001, false), List.of());
        int width = best.columns;
        Preview all = preview(head, bare);
        /* half a line at the end tells nothing */
        Preview preview = new Preview(all.headings(), all.units(), all.rows().stream().filter(row -> row.size() == width).toList());
        TimeSource time = time(preview, best.comma);
        List<ColumnUse> columns = IntStream.range(0, preview.headings().size()).filter(c -> !time.fromColumn() || c != time.column()).filter(c -> numeric(preview, c, bare.decimalComma()))
                .limit(RecordingLayout.MOST_COLUMNS).mapToObj(c -> new ColumnUse(c, preview.headings().get(c), preview.units().get(c), 1, 0)).toList();
        return bare.withTime(time).withColumns(columns);
    }

    /** What a layout makes of the first lines. */
    public static Preview preview(byte[] head, RecordingLayout layout) {
        List<String> lines = lines(head, layout.encoding());
        List<List<String>> rows = lines.stream().skip(Math.max(0, layout.begins() - 1)).filter(line -> !line.isBlank()).limit(12).map(line -> Cells.of(line, layout.separator())).toList();
        List<String> named = layout.headings() > 0 && layout.headings() <= lines.size() ? Cells.of(lines.get(layout.headings() - 1).replaceFirst("^\\s*[#%;]+\\s*(?=\\S)", ""), layout.separator()) : List.of();
        List<String> measured = layout.units() > 0 && layout.units() <= lines.size() ? Cells.of(lines.get(layout.units() - 1), layout.separator()) : List.of();
        int columns = Math.max(named.size(), rows.stream().mapToInt(List::size).max().orElse(0));
        int last = columns - 1;
        /* some recorders end each line with a separator */
        if (columns > 1 && (named.size() < columns || named.get(last).isBlank()) && rows.stream().allMatch(row -> row.size() < columns || row.get(last).isBlank())) {
            return preview(named, measured, rows, last);
        }
        return preview(named, measured, rows, columns);
    }

    private static Preview preview(List<String> named, List<String> measured, List<List<String>> rows, int columns) {
        List<String> headings = new ArrayList<>();
        List<String> units = new ArrayList<>();
        Set<String> taken = new HashSet<>();
        for (int c = 0; c < columns; c++) {
            String heading = c < named.size() ? named.get(c).strip() : "";
            String unit = c < measured.size() ? bare(measured.get(c)) : "";
            Matcher with = WITH_UNIT.matcher(heading);
            if (unit.isEmpty() && with.matches() && !with.group(1).isBlank()) {
                heading = with.group(1).strip();
                unit = (with.group(2) != null ? with.group(2) : with.group(3) != null ? with.group(3) : with.group(4)).strip();
            }
            headings.add(once(heading.isEmpty() ? "Column " + (c + 1) : heading, taken));
            units.add(usual(unit));
        }
        return new Preview(headings, units, rows);
    }

    /** The first lines as they are. */
    public static List<String> begin(byte[] head, Encoding encoding, int most) {
        return lines(head, encoding).stream().limit(most).toList();
    }

    private static String once(String name, Set<String> taken) {
        String only = name;
        for (int n = 2; !taken.add(only.toLowerCase(Locale.ROOT)); n++) {
            only = name + " " + n;
        }
        return only;
    }

    private static String bare(String unit) {
        return unit.strip().replaceAll("^[\\[(]|[\\])]$", "").strip();
    }

    /** Units as they are written here. */
    private static String usual(String unit) {
        String shortened = unit.length() > 20 ? "" : unit;
        return shortened.replaceAll("\\bN[·*.]?m\\b", "N·m").replace("^2", "²").replace("^3", "³").replaceAll("(?<=s)2\\b", "²").replaceAll("(?i)^(-|none|1)$", "").replaceAll("(?i)^(U/min|rev/min|min-1|1/min|min⁻¹|r/min)$", "rpm").replaceAll("(?i)^deg", "°").replaceAll("(?i)^sec$", "s").replace('\u03BC', '\u00B5');
    }

    private static TimeSource time(Preview preview, boolean comma) {
        for (int c = 0; c < preview.headings().size(); c++) {
            if (TIME.matcher(preview.headings().get(c)).matches()) {
                Form form = form(preview, c, comma);
                if (form != null) {
                    return source(preview, c, form, comma);
                }
            }
        }
        for (int c = 0; c < preview.headings().size(); c++) {
            Form form = form(preview, c, comma);
            boolean says = form == Form.CLOCK || form == Form.DATE || c == 0 && preview.rows().size() > 1 && form != null && rises(preview, c, form, comma);
            if (says) {
                return source(preview, c, form, comma);
            }
        }
        return new TimeSource(Form.RATE, 0, 0.001, false);
    }

    private static TimeSource source(Preview preview, int column, Form form, boolean comma) {
        boolean late = preview.rows().stream().findFirst().map(row -> Math.abs(Times.nanos(row.get(column), form, comma)) >= CLOCK_TIME * 1_000_000_000L).orElse(false);
        return new TimeSource(form, column, 0.001, form == Form.CLOCK || form == Form.DATE || late);
    }

    /** How the times of a column are written; null when not all of them are. */
    private static Form form(Preview preview, int column, boolean comma) {
        Form numbers = switch (preview.units().get(column).toLowerCase(Locale.ROOT)) {
            case "ms" -> Form.MILLISECONDS;
            case "µs", "us" -> Form.MICROSECONDS;
            case "ns" -> Form.NANOSECONDS;
            default -> Form.SECONDS;
        };
        for (Form form : List.of(numbers, Form.CLOCK, Form.DATE)) {
            if (!preview.rows().isEmpty() && preview.rows().stream().allMatch(row -> column < row.size() && Times.fits(row.get(column), form, comma))) {
                return form;
            }
        }
        return null;
    }

    private static boolean rises(Preview preview, int column, Form form, boolean comma) {
        long before = Long.MIN_VALUE;
        for (List<String> row : preview.rows()) {
            long now = Times.nanos(row.get(column), form, comma);
            if (now <= before) {
                return false;
            }
            before = now;
        }
        return true;
    }

    private static boolean numeric(Preview preview, int column, boolean comma) {
        return preview.rows().stream().allMatch(row -> column >= row.size() || number(row.get(column), comma)) && preview.rows().stream().anyMatch(row -> column < row.size() && !row.get(column).isBlank());
    }

    private static boolean number(String cell, boolean comma) {
        try {
            Cells.number(cell.strip(), comma);
            return true;
        } catch (NumberFormatException words) {
            return false;
        }
    }

    private static Encoding encoding(byte[] head) {
        if (head.length > 1 && head[0] == (byte) 0xFF && head[1] == (byte) 0xFE) {
            return Encoding.UTF_16_LE;
        } else if (head.length > 1 && head[0] == (byte) 0xFE && head[1] == (byte) 0xFF) {
            return Encoding.UTF_16_BE;
        }
        /* text of western letters in UTF-16 has every other byte 0 */
        int even = 0;
        int odd = 0;
        for (int i = 0; i < head.length; i++) {
            even += head[i] == 0 && i % 2 == 0 ? 1 : 0;
            odd += head[i] == 0 && i % 2 == 1 ? 1 : 0;
        }
        if (odd > head.length / 4 || even > head.length / 4) {
            return odd > even ? Encoding.UTF_16_LE : Encoding.UTF_16_BE;
        }
        CharsetDecoder decoder = StandardCharsets.UTF_8.newDecoder().onMalformedInput(CodingErrorAction.REPORT).onUnmappableCharacter(CodingErrorAction.REPORT);
        /* the head may end within a character */
        CoderResult result = decoder.decode(ByteBuffer.wrap(head), CharBuffer.allocate(head.length + 1), head.length < HEAD);
        return result.isError() ? Encoding.WESTERN : Encoding.UTF_8;
    }

    private static List<String> lines(byte[] head, Encoding encoding) {
        List<String> lines = new ArrayList<>();
        Lines reader = new Lines(new ByteArrayInputStream(head), encoding);
        try {
            for (String line = reader.next(); line != null && lines.size() < MOST_LINES; line = reader.next()) {
                lines.add(line);
            }
        } catch (IOException impossible) {
            throw new UncheckedIOException(impossible);
        }
        /* the last may be cut off */
        if (head.length >= HEAD && lines.size() > 1 && lines.size() < MOST_LINES) {
            lines.remove(lines.size() - 1);
        }
        return lines;
    }

    /** The lines as one separator and one decimal mark make them. */
    private static final class Table {
        private final Separator separator;
        private final boolean comma;
        private final List<List<String>> lines = new ArrayList<>();
        /** number of the first line with samples, from 0 */
        private int begins;
        private int columns;
        private long numbers;
        private long words;
        private int rows;

        private Table(Separator separator, boolean comma) {
            this.separator = separator;
            this.comma = comma;
        }

        static Table of(List<String> lines, Separator separator, boolean comma) {
            Table table = new Table(separator, comma);
            lines.forEach(line -> table.lines.add(Cells.of(line, separator)));
            table.find();
            return table;
        }

        /** The samples are the last lines that have as many columns as the last, at least half of them numbers or times. */
        private void find() {
            int last = lines.size() - 1;
            while (last >= 0 && lines.get(last).isEmpty()) {
                last--;
            }
            /* the very last line may be half a one */
            int from = last > 0 && lines.get(last).size() != lines.get(last - 1).size() ? last - 1 : last;
            columns = from < 0 ? 0 : lines.get(from).size();
            begins = from + 1;
            for (int i = from; i >= 0; i--) {
                List<String> cells = lines.get(i);
                if (cells.isEmpty()) {
                    continue;
                }
                long counted = cells.stream().filter(this::says).count();
                if (cells.size() != columns || 2 * counted < cells.size() || counted == 0) {
                    break;
                }
                begins = i;
                rows++;
                numbers += counted;
                words += cells.stream().filter(cell -> !cell.isBlank()).count() - counted;
            }
        }

        private boolean says(String cell) {
            String text = cell.strip();
            return !text.isEmpty() && (number(text, comma) || Times.fits(text, Form.CLOCK, comma) || Times.fits(text, Form.DATE, comma));
        }

        /** More numbers are better, and headings in as many columns; words that are left over in a row are worse. */
        double score() {
            boolean headed = begins > 0 && headings() > 0;
            return numbers - words + (headed ? 0.5 * rows : 0) + (columns > 1 ? 0.25 * rows : 0);
        }

        /** Number of the line with the headings, from 1; 0 when there is none. */
        int headings() {
            int above = above(begins);
            if (above < 0 || !heads(above)) {
                return 0;
            }
            int higher = above(above);
            return higher >= 0 && heads(higher) && units(lines.get(above)) && !units(lines.get(higher)) ? higher + 1 : above + 1;
        }

        private boolean heads(int line) {
            List<String> cells = lines.get(line);
            return Math.abs(cells.size() - columns) <= (separator == Separator.SPACES || ended(cells) ? 1 : 0) && cells.stream().anyMatch(cell -> !cell.isBlank());
        }

        /** One of them, it or the samples, ends each line with a separator. */
        private boolean ended(List<String> cells) {
            return cells.size() == columns + 1 && cells.get(columns).isBlank() || cells.size() == columns - 1 && lines.subList(begins, begins + 1).stream().allMatch(row -> row.get(columns - 1).isBlank());
        }

        private int above(int line) {
            int i = line - 1;
            while (i >= 0 && lines.get(i).isEmpty()) {
                i--;
            }
            return i;
        }

        boolean unitsAt(int headings) {
            return headings < begins && units(lines.get(headings)) && heads(headings);
        }

        /** All of them short, and at least one that is a unit of time, length, angle, torque or turns. */
        private static boolean units(List<String> cells) {
            return cells.stream().allMatch(cell -> cell.strip().length() <= 12)
                    && cells.stream().anyMatch(cell -> bare(cell).matches("(?i)s|ms|µs|us|ns|mm|m|°|deg|rad|mm/s|m/s|°/s|rpm|1/min|nm|n·m|n\\*m|%|a|v|inc|counts?"));
        }
    }
}
