package rueda.format.recording;

import java.math.BigDecimal;
import java.math.RoundingMode;
import java.time.DateTimeException;
import java.time.LocalDate;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import rueda.format.recording.RecordingLayout.TimeSource.Form;

/** Times as recorders write them, in ns. */
final class Times {

    private static final String DAY_TIME = "(\\d{1,2}):(\\d{2})(?::(\\d{2})(?:[.,:](\\d{1,12}))?)?";
    private static final Pattern CLOCK = Pattern.compile(DAY_TIME + "(?:Z|[+-]\\d{2}:?\\d{2})?");
    private static final Pattern ISO = Pattern.compile("(\\d{4})[-/](\\d{1,2})[-/](\\d{1,2})[T ,]\\s*" + DAY_TIME + "(?:Z|[+-]\\d{2}:?\\d{2})?");
    private static final Pattern DOTTED = Pattern.compile("(\\d{1,2})\\.(\\d{1,2})\\.(\\d{4})[T ,]\\s*" + DAY_TIME);
    private static final long SECOND = 1_000_000_000L;
    private static final long DAY = 86_400 * SECOND;
    /** A clock that is back by more than this has begun a new day. */
    private static final long NEW_DAY = DAY / 2;

    private Times() {
    }

    /** @return ns  @throws NumberFormatException when it is none */
    static long nanos(String cell, Form form, boolean decimalComma) {
        return switch (form) {
            case CLOCK -> clock(CLOCK.matcher(cell), cell, 1);
            case DATE -> date(cell);
            default -> number(cell, decimalComma, 9 - form.decimals());
        };
    }

    /** @param shift decimals by which the point goes to the right until it is ns */
    private static long number(String cell, boolean decimalComma, int shift) {
        long plainly = plainly(cell, decimalComma ? ',' : '.', shift);
        return plainly >= 0 ? plainly : carefully(cell, decimalComma, shift);
    }

    /** Digits with up to as many decimals as are needed, nothing else; −1 for all others. */
    private static long plainly(String cell, char mark, int shift) {
        int length = cell.length();
        long digits = 0;
        int decimals = -1;
        for (int i = 0; i < length; i++) {
            char c = cell.charAt(i);
            if (c >= '0' && c <= '9') {
                digits = 10 * digits + (c - '0');
                decimals += decimals >= 0 ? 1 : 0;
            } else if (c == mark && decimals < 0 && i > 0) {
                decimals = 0;
            } else {
                return -1;
            }
        }
        int more = shift - Math.max(0, decimals);
        if (length == 0 || more < 0 || length - (decimals >= 0 ? 1 : 0) + more > 18) {
            return -1;
        }
        for (int i = 0; i < more; i++) {
            digits *= 10;
        }
        return digits;
    }

    private static long carefully(String cell, boolean decimalComma, int shift) {
        String plain = decimalComma ? cell.replace(',', '.') : cell;
        if (!plain.matches("[+-]?([0-9]{1,19}\\.?[0-9]{0,30}|\\.[0-9]{1,30})([eE][+-]?[0-9]{1,2})?")) {
            throw new NumberFormatException(cell);
        }
        try {
            return new BigDecimal(plain).movePointRight(shift).setScale(0, RoundingMode.HALF_EVEN).longValueExact();
        } catch (ArithmeticException tooLate) {
            throw new NumberFormatException(cell);
        }
    }

    private static long clock(Matcher m, String cell, int group) {
        if (!m.matches()) {
            throw new NumberFormatException(cell);
        }
        long hour = Long.parseLong(m.group(group));
        long minute = Long.parseLong(m.group(group + 1));
        long second = m.group(group + 2) == null ? 0 : Long.parseLong(m.group(group + 2));
        if (hour > 24 || minute > 59 || second > 60) {
            throw new NumberFormatException(cell);
        }
        String fraction = m.group(group + 3) == null ? "" : m.group(group + 3);
        return ((hour * 60 + minute) * 60 + second) * SECOND + Long.parseLong((fraction + "000000000").substring(0, 9));
    }

    private static long date(String cell) {
        Matcher iso = ISO.matcher(cell);
        Matcher dotted = DOTTED.matcher(cell);
        try {
            if (iso.matches()) {
                return LocalDate.of(Integer.parseInt(iso.group(1)), Integer.parseInt(iso.group(2)), Integer.parseInt(iso.group(3))).toEpochDay() * DAY + clock(iso, cell, 4);
            } else if (dotted.matches()) {
                return LocalDate.of(Integer.parseInt(dotted.group(3)), Integer.parseInt(dotted.group(2)), Integer.parseInt(dotted.group(1))).toEpochDay() * DAY + clock(dotted, cell, 4);
            }
        } catch (DateTimeException noSuchDay) {
            throw new NumberFormatException(cell);
        }
        throw new NumberFormatException(cell);
    }

    static boolean fits(String cell, Form form, boolean decimalComma) {
        try {
            nanos(cell, form, decimalComma);
            return true;
        } catch (NumberFormatException other) {
            return false;
        }
    }

    /** Begins again when the clock passes midnight. @param before the last one, with the days already passed */
    static long afterMidnight(long nanos, long before) {
        long later = nanos;
        while (before - later > NEW_DAY) {
            later += DAY;
        }
        return later;
    }
}
