package rueda.format.recording;

import java.util.HashSet;
import java.util.Locale;
import java.util.Set;
import rueda.format.recording.RecordingLayout.ColumnUse;
import rueda.format.recording.RecordingLayout.Separator;
import rueda.format.recording.RecordingLayout.TimeSource;
import rueda.quantity.InvalidEntry;

/** What a layout may be. */
final class LayoutRules {

    private static final int LAST_COLUMN = 4095;
    private static final int LONGEST_NAME = 200;
    private static final int LONGEST_UNIT = 20;

    private LayoutRules() {
    }

    /** @throws InvalidEntry for the first that is wrong */
    static void check(RecordingLayout layout) {
        if (layout.decimalComma() && layout.separator() == Separator.COMMA) {
            throw new InvalidEntry("decimalComma", "a decimal comma between columns that a comma separates", "another separator, or a decimal point", "choose what the lines show");
        }
        within("begins", layout.begins(), 1, RecordingLayout.LAST_BEGIN);
        within("headings", layout.headings(), 0, layout.begins() - 1);
        within("units", layout.units(), 0, layout.begins() - 1);
        TimeSource time = layout.time();
        if (time.fromColumn()) {
            within("time/column", time.column(), 0, LAST_COLUMN);
        } else if (!(time.interval() >= TimeSource.SHORTEST && time.interval() <= TimeSource.LONGEST)) {
            throw new InvalidEntry("time/interval", time.interval() + " s", TimeSource.SHORTEST + " to " + TimeSource.LONGEST + " s", "enter the time from one row to the next");
        }
        if (layout.columns().isEmpty() || layout.columns().size() > RecordingLayout.MOST_COLUMNS) {
            throw new InvalidEntry("columns", layout.columns().size() + " columns", "1 to " + RecordingLayout.MOST_COLUMNS, "choose what is taken");
        }
        Set<String> names = new HashSet<>();
        for (int i = 0; i < layout.columns().size(); i++) {
            column("columns/" + i, layout.columns().get(i), names);
        }
    }

    private static void column(String field, ColumnUse use, Set<String> names) {
        within(field + "/column", use.column(), 0, LAST_COLUMN);
        String name = use.signal() == null ? "" : use.signal().strip();
        if (name.isEmpty() || name.length() > LONGEST_NAME) {
            throw new InvalidEntry(field + "/signal", name.isEmpty() ? "empty" : name.length() + " characters", "a name of 1 to " + LONGEST_NAME + " characters", "name the signal");
        }
        if (!names.add(name.toLowerCase(Locale.ROOT))) {
            throw new InvalidEntry(field + "/signal", name, "each signal once", "choose another signal, or leave the column out");
        }
        if (use.unit() == null || use.unit().length() > LONGEST_UNIT) {
            throw new InvalidEntry(field + "/unit", String.valueOf(use.unit()), "up to " + LONGEST_UNIT + " characters", "shorten it");
        }
        if (!Double.isFinite(use.scale()) || use.scale() == 0) {
            throw new InvalidEntry(field + "/scale", String.valueOf(use.scale()), "a number that is not 0", "enter by what the number is multiplied");
        }
        if (!Double.isFinite(use.offset())) {
            throw new InvalidEntry(field + "/offset", String.valueOf(use.offset()), "a number", "enter what is added");
        }
    }

    private static void within(String field, int value, int low, int high) {
        if (value < low || value > high) {
            throw new InvalidEntry(field, Integer.toString(value), low + " to " + high, "correct it");
        }
    }
}
