package rueda.plc;

import java.math.BigInteger;
import java.time.DateTimeException;
import java.time.LocalDate;
import java.util.Locale;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** Reads the literals of IEC 61131-3: 10, 16#FF, 2#1010_0101, 1.5E3, INT#5, T#1h2m3s4ms, TRUE. */
final class Literals {

    private static final Pattern PART = Pattern.compile("([0-9]+(?:\\.[0-9]+)?)(MS|US|NS|D|H|M|S)");

    private Literals() {
    }

    /** @throws IllegalArgumentException with a sentence for the user when the literal says no value */
    static Expression read(String text) {
        int quote = Math.max(text.indexOf('\''), text.indexOf('"'));
        if (quote >= 0) {
            return characters(text);
        }
        String plain = text.toUpperCase(Locale.ROOT).replace("_", "");
        if (plain.equals("TRUE") || plain.equals("FALSE")) {
            return Expression.constant(Type.BOOL, false, plain.equals("TRUE") ? 1L : 0L);
        }
        int hash = plain.indexOf('#');
        if (hash < 0 || Character.isDigit(plain.charAt(0))) {
            return isReal(plain) ? Expression.constant(Type.LREAL, true, Double.parseDouble(plain))
                    : Expression.constant(Type.LINT, true, wholeNumber(plain));
        }
        String prefix = plain.substring(0, hash);
        String rest = plain.substring(hash + 1);
        switch (prefix) {
            case "T", "TIME" -> {
                return Expression.constant(Type.TIME, false, duration(rest));
            }
            case "LT", "LTIME" -> {
                return Expression.constant(Type.LTIME, false, duration(rest));
            }
            case "D", "DATE", "LD", "LDATE" -> {
                return Expression.constant(prefix.startsWith("L") ? Type.LDATE : Type.DATE, false, date(rest));
            }
            case "TOD", "TIMEOFDAY", "LTOD", "LTIMEOFDAY" -> {
                return Expression.constant(prefix.startsWith("L") ? Type.LTOD : Type.TOD, false, timeOfDay(rest));
            }
            case "DT", "DATEANDTIME", "LDT", "LDATEANDTIME" -> {
                int split = rest.lastIndexOf('-');
                return Expression.constant(prefix.startsWith("L") ? Type.LDT : Type.DT, false,
                        date(rest.substring(0, split)) + timeOfDay(rest.substring(split + 1)));
            }
            default -> { }
        }
        Type type = Type.named(prefix);
        if (type == null || !type.isNumber() && !type.isBitString()) {
            throw new IllegalArgumentException("There is no type " + prefix + ".");
        }
        if (type.isReal()) {
            return Expression.constant(type, false, Double.parseDouble(rest));
        }
        if (rest.equals("TRUE") || rest.equals("FALSE")) {
            rest = rest.equals("TRUE") ? "1" : "0";
        }
        if (isReal(rest)) {
            throw new IllegalArgumentException(text + " is not a whole number.");
        }
        long value = wholeNumber(rest);
        requireFits(value, type);
        return Expression.constant(type, false, value);
    }

    private static boolean isReal(String plain) {
        return plain.indexOf('#') < 0 && (plain.indexOf('.') >= 0 || plain.indexOf('E') >= 0);
    }

    static void requireFits(long value, Type type) {
        if (value < type.lowest() || value > type.highest()) {
            throw new IllegalArgumentException(value + " does not fit into " + type + " (" + type.lowest() + " to " + type.highest() + ").");
        }
    }

    private static long wholeNumber(String plain) {
        boolean negative = plain.startsWith("-");
        String digits = negative ? plain.substring(1) : plain;
        int hash = digits.indexOf('#');
        int base = hash < 0 ? 10 : Integer.parseInt(digits.substring(0, hash));
        try {
            BigInteger value = new BigInteger(digits.substring(hash + 1), base);
            return (negative ? value.negate() : value).longValueExact();
        } catch (ArithmeticException tooLarge) {
            throw new IllegalArgumentException(plain + " does not fit into 64 bits.");
        } catch (NumberFormatException notANumber) {
            throw new IllegalArgumentException(plain + " is not a number of base " + base + ".");
        }
    }

    /** Nanoseconds since 1970 of 2026-11-23. */
    private static long date(String text) {
        String[] parts = text.split("-");
        try {
            return LocalDate.of(Integer.parseInt(parts[0]), Integer.parseInt(parts[1]), Integer.parseInt(parts[2])).toEpochDay() * Variable.NANOS_PER_DAY;
        } catch (DateTimeException | NumberFormatException refused) {
            throw new IllegalArgumentException(text + " is no day of the calendar; write year-month-day.");
        }
    }

    /** Nanoseconds since midnight of 15:36:55.36; hours and minutes alone will do. */
    private static long timeOfDay(String text) {
        String[] parts = text.split(":");
        double seconds = parts.length > 2 ? Double.parseDouble(parts[2]) : 0;
        long hours = Long.parseLong(parts[0]);
        long minutes = Long.parseLong(parts[1]);
        if (hours > 23 || minutes > 59 || seconds >= 60) {
            throw new IllegalArgumentException(text + " is no time of day; write hours:minutes:seconds.");
        }
        return (hours * 60 + minutes) * 60_000_000_000L + Math.round(seconds * 1e9);
    }

    /** 'abc', "abc", CHAR#'a', with $ before what cannot be written plainly (IEC 61131-3, character string literals). */
    private static Expression characters(String text) {
        int hash = text.indexOf('#') < 0 || text.indexOf('#') > Math.max(text.indexOf('\''), text.indexOf('"')) ? -1 : text.indexOf('#');
        String quoted = text.substring(hash + 1);
        boolean wide = quoted.charAt(0) == '"';
        String value = unescaped(quoted.substring(1, quoted.length() - 1), wide ? 4 : 2);
        Type type = hash < 0 ? wide ? Type.WSTRING : Type.STRING : Type.named(text.substring(0, hash));
        if (type.isText()) {
            return Expression.constant(type, value);
        }
        if (value.length() != 1) {
            throw new IllegalArgumentException(type + " holds one character, not " + value.length() + ".");
        }
        return Expression.constant(type, false, (long) value.charAt(0));
    }

    private static String unescaped(String text, int hexDigits) {
        StringBuilder plain = new StringBuilder();
        for (int i = 0; i < text.length(); i++) {
            char c = text.charAt(i);
            if (c != '$') {
                plain.append(c);
                continue;
            }
            char code = Character.toUpperCase(text.charAt(++i));
            switch (code) {
                case '$', '\'', '"' -> plain.append(code);
                case 'L', 'N' -> plain.append('\n');
                case 'P' -> plain.append('\f');
                case 'R' -> plain.append('\r');
                case 'T' -> plain.append('\t');
                default -> {
                    String hex = text.substring(i, Math.min(text.length(), i + hexDigits));
                    if (!hex.matches("[0-9A-Fa-f]{" + hexDigits + "}")) {
                        throw new IllegalArgumentException("$" + hex + " says no character; write $$, $', $\", $L, $N, $P, $R, $T or $ with " + hexDigits + " hexadecimal digits.");
                    }
                    plain.append((char) Integer.parseInt(hex, 16));
                    i += hexDigits - 1;
                }
            }
        }
        return plain.toString();
    }

    /** Nanoseconds of 1h2m3s4ms. */
    private static long duration(String text) {
        boolean negative = text.startsWith("-");
        Matcher part = PART.matcher(text);
        double nanos = 0;
        while (part.find()) {
            nanos += Double.parseDouble(part.group(1)) * switch (part.group(2)) {
                case "D" -> 86_400e9;
                case "H" -> 3600e9;
                case "M" -> 60e9;
                case "S" -> 1e9;
                case "MS" -> 1e6;
                case "US" -> 1e3;
                default -> 1;
            };
        }
        if (nanos > Long.MAX_VALUE) {
            throw new IllegalArgumentException("A duration reaches to about 292 years.");
        }
        return Math.round(negative ? -nanos : nanos);
    }
}
