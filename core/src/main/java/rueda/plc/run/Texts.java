package rueda.plc.run;

import java.math.BigDecimal;
import java.math.BigInteger;
import java.time.format.DateTimeFormatter;
import java.util.Locale;
import rueda.plc.type.TextType;
import rueda.plc.type.Type;

/** Functions of character strings, IEC 61131-3; positions count from 1. A position outside of the text stops the task. These allocate. */
public final class Texts {

    private Texts() {
    }

    /** What a variable of a length keeps of a text (IEC 61131-3, character strings). */
    public static String cut(String text, long length) {
        return text.length() > length ? text.substring(0, (int) length) : text;
    }

    public static long length(String text) {
        return text.length();
    }

    /** Position of the first one, 0 for none. */
    public static long find(Frame frame, String text, String part) {
        frame.spend(text.length());
        return text.indexOf(part) + 1;
    }

    /** Two texts in one. It may be as long as the longest variable of a text; the work counts. */
    public static String joined(Frame frame, String a, String b) {
        if (a.length() + b.length() > TextType.MOST_CHARACTERS) {
            throw new ProgramFault("The text would be longer than " + TextType.MOST_CHARACTERS + " characters.");
        }
        frame.spend(a.length() + b.length());
        return a + b;
    }

    private static String part(String whole, long from, long count) {
        if (from < 0 || count < 0) {
            throw new ProgramFault("A position or length of a text is negative.");
        }
        int start = (int) Math.min(from, whole.length());
        return whole.substring(start, (int) Math.min(whole.length(), start + Math.min(count, whole.length())));
    }

    public static String left(String text, long count) {
        return part(text, 0, count);
    }

    public static String right(String text, long count) {
        long characters = Math.min(count, text.length());
        return part(text, text.length() - characters, characters);
    }

    public static String middle(String text, long count, long position) {
        return part(text, position - 1, count);
    }

    public static String inserted(Frame frame, String text, String other, long position) {
        return replaced(frame, text, other, 0, position + 1);
    }

    public static String deleted(Frame frame, String text, long count, long position) {
        return replaced(frame, text, "", count, position);
    }

    public static String replaced(Frame frame, String text, String by, long count, long position) {
        return joined(frame, joined(frame, part(text, 0, position - 1), by), part(text, position - 1 + count, text.length()));
    }

    public static String smaller(String a, String b) {
        return a.compareTo(b) <= 0 ? a : b;
    }

    public static String greater(String a, String b) {
        return a.compareTo(b) >= 0 ? a : b;
    }

    // ---- values as texts

    /** A value as a user reads it, without loss. @param type name of an elementary type */
    public static String of(long value, String type) {
        return of(Type.valueOf(type), value);
    }

    public static String of(double value, String type) {
        return of(Type.valueOf(type), Double.doubleToRawLongBits(value));
    }

    /** What a cell keeps, as a user reads it. */
    public static String of(Type type, long value) {
        return switch (type.family()) {
            case BIT -> type == Type.BOOL ? value != 0 ? "TRUE" : "FALSE" : String.format("16#%0" + type.bits() / 4 + "X", value);
            case REAL -> type == Type.REAL ? Float.toString((float) Double.longBitsToDouble(value)) : Double.toString(Double.longBitsToDouble(value));
            case TIME -> "T#" + (value % 1_000_000 == 0 ? value / 1_000_000 + "ms" : value + "ns");
            case DATE -> "D#" + Times.moment(value).toLocalDate();
            case TIME_OF_DAY -> "TOD#" + Times.timeOfDayOf(value).format(DateTimeFormatter.ISO_LOCAL_TIME);
            case DATE_AND_TIME -> "DT#" + Times.moment(value).toLocalDate() + "-" + Times.moment(value).toLocalTime().format(DateTimeFormatter.ISO_LOCAL_TIME);
            case CHARACTER -> "'" + (char) value + "'";
            case UNSIGNED -> Long.toUnsignedString(value);
            default -> Long.toString(value);
        };
    }

    public static String ofCharacter(long value) {
        return String.valueOf((char) value);
    }

    public static long firstCharacter(String text) {
        return text.isEmpty() ? 0 : text.charAt(0);
    }

    // ---- texts as values

    /** A number in a text, spaces around it apart; what is none stops the task. Wrapping to the type is the caller's. */
    public static long whole(String text, String type) {
        String digits = text.strip().replace("_", "");
        try {
            BigInteger number = digits.startsWith("16#") ? new BigInteger(digits.substring(3), 16) : digits.startsWith("2#") ? new BigInteger(digits.substring(2), 2)
                    : new BigInteger(digits.startsWith("+") ? digits.substring(1) : digits);
            Type wanted = Type.valueOf(type);
            if (number.compareTo(wanted.lowest()) >= 0 && number.compareTo(wanted.highest()) <= 0) {
                return number.longValue();
            }
        } catch (NumberFormatException none) {
            // Said below, as for a number that does not fit.
        }
        throw new ProgramFault("'" + cut(text, 40) + "' is no " + type + ".");
    }

    public static double real(String text, String type) {
        try {
            String number = text.strip().toUpperCase(Locale.ROOT);
            if (number.matches("[+-]?\\d+(\\.\\d+)?(E[+-]?\\d{1,4})?")) {
                double value = new BigDecimal(number).doubleValue();
                if (Double.isFinite(value) && (!type.equals("REAL") || Float.isFinite((float) value))) {
                    return value;
                }
            }
        } catch (NumberFormatException none) {
            // Said below.
        }
        throw new ProgramFault("'" + cut(text, 40) + "' is no " + type + ".");
    }

    public static boolean bool(String text) {
        String word = text.strip().toUpperCase(Locale.ROOT);
        if (word.equals("TRUE") || word.equals("1")) {
            return true;
        }
        if (word.equals("FALSE") || word.equals("0")) {
            return false;
        }
        throw new ProgramFault("'" + cut(text, 40) + "' is no BOOL.");
    }
}
