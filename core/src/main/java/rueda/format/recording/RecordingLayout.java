package rueda.format.recording;

import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.util.List;

/**
 * How the lines of a recording are read.
 *
 * @param encoding     of the text
 * @param separator    between the columns
 * @param decimalComma decimals begin with a comma; else with a point
 * @param headings     number of the line with the headings, from 1; 0 for none
 * @param units        number of the line with the units; 0 for none
 * @param begins       number of the line with the first sample, behind the headings
 * @param time         where the time comes from
 * @param columns      those that are taken, in order
 */
public record RecordingLayout(Encoding encoding, Separator separator, boolean decimalComma, int headings, int units, int begins, TimeSource time, List<ColumnUse> columns) {

    /** Line behind which no sample begins any more. */
    public static final int LAST_BEGIN = 1000;
    /** Columns that are taken at most. */
    public static final int MOST_COLUMNS = 64;

    public RecordingLayout {
        columns = columns == null ? List.of() : List.copyOf(columns);
    }

    /** How characters are written as bytes. */
    public enum Encoding {
        UTF_8("UTF-8", StandardCharsets.UTF_8),
        UTF_16_LE("UTF-16, low byte first", StandardCharsets.UTF_16LE),
        UTF_16_BE("UTF-16, high byte first", StandardCharsets.UTF_16BE),
        WESTERN("Western, Windows-1252", Charset.forName("windows-1252"));

        private final String words;
        private final Charset charset;

        Encoding(String words, Charset charset) {
            this.words = words;
            this.charset = charset;
        }

        public String words() {
            return words;
        }

        Charset charset() {
            return charset;
        }
    }

    /** What stands between two columns. */
    public enum Separator {
        COMMA("comma", ','), SEMICOLON("semicolon", ';'), TAB("tab", '\t'), BAR("bar", '|'), SPACES("spaces", ' ');

        private final String words;
        private final char character;

        Separator(String words, char character) {
            this.words = words;
            this.character = character;
        }

        public String words() {
            return words;
        }

        char character() {
            return character;
        }
    }

    /**
     * Where the time of a sample comes from.
     *
     * @param form     how it is written
     * @param column   in which column, from 0; not used for {@link Form#RATE}
     * @param interval s from one row to the next, for {@link Form#RATE}; the first row is at 0 s
     * @param fromZero the first row is at 0 s, whatever time it says
     */
    public record TimeSource(Form form, int column, double interval, boolean fromZero) {

        /** Longest and shortest interval, s. */
        public static final double SHORTEST = 1e-9;
        public static final double LONGEST = 3600;

        public TimeSource withForm(Form changed) {
            return new TimeSource(changed, column, interval, fromZero);
        }

        public boolean fromColumn() {
            return form != Form.RATE;
        }

        /** How a time is written. */
        public enum Form {
            SECONDS("seconds"), MILLISECONDS("milliseconds"), MICROSECONDS("microseconds"), NANOSECONDS("nanoseconds"), CLOCK("time of day, 13:45:07.250"),
            DATE("date and time, 2026-03-14 13:45:07.250"), RATE("none: one row after the other");

            private final String words;

            Form(String words) {
                this.words = words;
            }

            public String words() {
                return words;
            }

            /** Decimals of a second in its unit, of those that are numbers. */
            int decimals() {
                return switch (this) {
                    case MILLISECONDS -> 3;
                    case MICROSECONDS -> 6;
                    case NANOSECONDS -> 9;
                    default -> 0;
                };
            }
        }
    }

    /**
     * A column that is taken: value = number × scale + offset.
     *
     * @param column from 0
     * @param signal name under which it is kept; that of a signal of the machine lies over it
     * @param unit   of the value; empty for none
     * @param scale  not 0
     * @param offset in the unit
     */
    public record ColumnUse(int column, String signal, String unit, double scale, double offset) {
    }

    public RecordingLayout withColumns(List<ColumnUse> changed) {
        return new RecordingLayout(encoding, separator, decimalComma, headings, units, begins, time, changed);
    }

    public RecordingLayout withTime(TimeSource changed) {
        return new RecordingLayout(encoding, separator, decimalComma, headings, units, begins, changed, columns);
    }
}
