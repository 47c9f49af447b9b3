package rueda.plc;

import java.math.BigDecimal;
import java.math.BigInteger;
import java.math.RoundingMode;
import java.time.DateTimeException;
import java.time.LocalDate;
import java.util.List;
import java.util.Locale;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import rueda.plc.run.Times;
import rueda.plc.type.Type;

/**
 * Reads the literals of IEC 61131-3, 6.3 (tables of numeric, character string, duration and date literals; from memory):
 * 10, 16#FF, 2#1010_0101, 1.5E3, INT#5, T#1h2m3s4ms, TRUE. Every text that is no literal is refused with a sentence.
 */
final class Literals {

    private static final String DIGITS = "[0-9](?:_?[0-9])*";
    private static final Pattern WHOLE = Pattern.compile(DIGITS);
    private static final Pattern BASED = Pattern.compile("(2|8|16)#([0-9A-F](?:_?[0-9A-F])*)");
    private static final Pattern REAL = Pattern.compile(DIGITS + "\\." + DIGITS + "(?:E[+-]?" + DIGITS + ")?|" + DIGITS + "E[+-]?" + DIGITS);
    private static final Pattern DATE = Pattern.compile("([0-9]{4})-([0-9]{1,2})-([0-9]{1,2})");
    private static final Pattern DAYTIME = Pattern.compile("([0-9]{1,2}):([0-9]{1,2}):([0-9]{1,2}(?:\\.[0-9]{1,18})?)");
    private static final Pattern DURATION_PART = Pattern.compile("([0-9]{1,24}(?:\\.[0-9]{1,24})?)(D|H|MS|M|S|US|NS)");
    private static final List<String> UNITS = List.of("D", "H", "M", "S", "MS", "US", "NS");
    /** Nanoseconds of each unit. */
    private static final List<Long> NANOS = List.of(86_400_000_000_000L, 3_600_000_000_000L, 60_000_000_000L, 1_000_000_000L, 1_000_000L, 1_000L, 1L);
    /** Longer ones fit into no type, and are not worth reading. */
    private static final int MOST_DIGITS = 400;

    private Literals() {
    }

    /** @throws IllegalArgumentException with a sentence for the user when the literal says no value */
    static Expression read(String text) {
        int quote = Math.max(text.indexOf('\''), text.indexOf('"'));
        if (quote >= 0) {
            return characters(text);
        }
        String plain = text.toUpperCase(Locale.ROOT);
        if (plain.equals("TRUE") || plain.equals("FALSE")) {
            return Expression.constant(Type.BOOL, false, plain.equals("TRUE") ? 1L : 0L);
        }
        int hash = plain.indexOf('#');
        if (hash < 0 || Character.isDigit(plain.charAt(0))) {
            return isReal(plain) ? real(text, plain, Type.LREAL, true) : Expression.untyped(wholeNumber(text, plain));
        }
        return typed(text, plain.substring(0, hash), plain.substring(hash + 1));
    }

    private static Expression typed(String text, String prefix, String rest) {
        return switch (prefix) {
            case "T", "TIME" -> Expression.constant(Type.TIME, false, duration(text, rest));
            case "LT", "LTIME" -> Expression.constant(Type.LTIME, false, duration(text, rest));
            case "D", "DATE" -> Expression.constant(Type.DATE, false, date(text, rest));
            case "LD", "LDATE" -> Expression.constant(Type.LDATE, false, date(text, rest));
            case "TOD", "TIME_OF_DAY" -> Expression.constant(Type.TOD, false, timeOfDay(text, rest));
            case "LTOD", "LTIME_OF_DAY" -> Expression.constant(Type.LTOD, false, timeOfDay(text, rest));
            case "DT", "DATE_AND_TIME" -> Expression.constant(Type.DT, false, dateAndTime(text, rest));
            case "LDT", "LDATE_AND_TIME" -> Expression.constant(Type.LDT, false, dateAndTime(text, rest));
            default -> typedNumber(text, prefix, rest);
        };
    }

    private static Expression typedNumber(String text, String prefix, String rest) {
        Type type = Type.named(prefix);
        if (type == null) {
            throw new IllegalArgumentException(prefix.matches("[0-9]+") ? prefix + " is no base of a number; 2#, 8# and 16# are." : "There is no type " + prefix + ".");
        }
        if (!type.isNumber() && !type.isBitString()) {
            throw new IllegalArgumentException(text + " says no value of type " + type + (type.isText() || type.family() == Type.Family.CHARACTER ? "; write it in quotes, such as " + type + "#'a'." : "."));
        }
        boolean negative = rest.startsWith("-");
        String digits = negative || rest.startsWith("+") ? rest.substring(1) : rest;
        if (type.isReal()) {
            Expression value = real(text, digits, type, false);
            return negative ? Expression.real(type, false, -value.number().doubleValue()) : value;
        }
        if (type == Type.BOOL && (rest.equals("TRUE") || rest.equals("FALSE"))) {
            return Expression.constant(type, false, rest.equals("TRUE") ? 1L : 0L);
        }
        if (isReal(digits)) {
            throw new IllegalArgumentException(text + " is not a whole number.");
        }
        BigInteger value = wholeNumber(text, digits);
        requireFits(negative ? value.negate() : value, type);
        return Expression.constant(type, false, negative ? -value.longValue() : value.longValue());
    }

    private static boolean isReal(String plain) {
        return plain.indexOf('#') < 0 && (plain.indexOf('.') >= 0 || plain.indexOf('E') >= 0);
    }

    /** @throws IllegalArgumentException when the type does not hold the value */
    static void requireFits(BigInteger value, Type type) {
        if (value.compareTo(type.lowest()) < 0 || value.compareTo(type.highest()) > 0) {
            throw new IllegalArgumentException(value + " does not fit into " + type + " (" + type.lowest() + " to " + type.highest() + ").");
        }
    }

    /** The nearest value of a type of real numbers. @throws IllegalArgumentException when it lies outside of what the type holds */
    static double fitted(String text, double value, Type type) {
        double held = type == Type.REAL ? (float) value : value;
        if (Double.isInfinite(held)) {
            throw new IllegalArgumentException(text + " does not fit into " + type + " (up to ±" + (type == Type.REAL ? "3.4028235E38" : "1.7976931348623157E308") + ").");
        }
        return held;
    }

    private static Expression real(String text, String plain, Type type, boolean flexible) {
        if (plain.length() > MOST_DIGITS || !REAL.matcher(plain).matches() && !WHOLE.matcher(plain).matches()) {
            throw new IllegalArgumentException(shown(text) + " is no number; write digits on both sides of the point, such as 2.5 or 1.5E-3.");
        }
        String digits = plain.replace("_", "");
        double value = fitted(text, Double.parseDouble(digits), type);
        if (value == 0 && digits.split("E")[0].matches(".*[1-9].*")) {
            throw new IllegalArgumentException(text + " is nearer to 0 than " + type + " can hold (" + (type == Type.REAL ? "1.4E-45" : "4.9E-324") + ").");
        }
        return Expression.real(type, flexible, value);
    }

    /** Without sign, at most 2⁶⁴ − 1. */
    private static BigInteger wholeNumber(String text, String plain) {
        Matcher based = BASED.matcher(plain);
        BigInteger value;
        if (based.matches()) {
            int base = Integer.parseInt(based.group(1));
            String digits = based.group(2).replace("_", "");
            if (digits.chars().anyMatch(d -> Character.digit(d, 16) >= base)) {
                throw new IllegalArgumentException(shown(text) + " is not a number of base " + base + ".");
            }
            value = digits.length() > MOST_DIGITS ? null : new BigInteger(digits, base);
        } else if (WHOLE.matcher(plain).matches()) {
            value = plain.length() > MOST_DIGITS ? null : new BigInteger(plain.replace("_", ""));
        } else {
            throw new IllegalArgumentException(notWhole(text, plain));
        }
        if (value == null || value.bitLength() > 64) {
            throw new IllegalArgumentException(shown(text) + " does not fit into 64 bits.");
        }
        return value;
    }

    private static String notWhole(String text, String plain) {
        if (plain.matches("[0-9.]+(MS|US|NS|D|H|M|S)")) {
            return shown(text) + " is no number; a duration is written T#" + text + ".";
        }
        if (plain.matches("[0-9]+#.*") && !plain.startsWith("2#") && !plain.startsWith("8#") && !plain.startsWith("16#")) {
            return shown(text) + " has a base that Structured Text does not know; 2#, 8# and 16# are.";
        }
        if (plain.endsWith("#")) {
            return shown(text) + " says no value: something is missing behind #.";
        }
        if (plain.startsWith("0X")) {
            return shown(text) + " is no number; hexadecimal is written 16#" + text.substring(2) + ".";
        }
        return shown(text) + (plain.contains("_") ? " is no number; _ stands single between two digits." : " is no number, and a name does not begin with a digit.");
    }

    private static String shown(String text) {
        return text.length() > 40 ? text.substring(0, 40) + "…" : text;
    }

    /** Nanoseconds since 1970 of 2026-11-23. */
    private static long date(String text, String written) {
        Matcher form = DATE.matcher(written);
        if (!form.matches()) {
            throw new IllegalArgumentException(shown(text) + " is no date; write year-month-day, such as D#2026-11-23.");
        }
        LocalDate day;
        try {
            day = LocalDate.of(Integer.parseInt(form.group(1)), Integer.parseInt(form.group(2)), Integer.parseInt(form.group(3)));
        } catch (DateTimeException refused) {
            throw new IllegalArgumentException(shown(text) + " is no day of the calendar; write year-month-day, such as D#2026-11-23.");
        }
        if (day.isBefore(Times.FIRST_DAY) || day.isAfter(Times.LAST_DAY)) {
            throw new IllegalArgumentException(shown(text) + " lies outside of the days that can be held: " + Times.FIRST_DAY + " to " + Times.LAST_DAY + ".");
        }
        return day.toEpochDay() * Times.NANOS_PER_DAY;
    }

    /** Nanoseconds since midnight of 15:36:55.36. */
    private static long timeOfDay(String text, String written) {
        Matcher form = DAYTIME.matcher(written);
        if (!form.matches() || Integer.parseInt(form.group(1)) > 23 || Integer.parseInt(form.group(2)) > 59 || new BigDecimal(form.group(3)).intValue() > 59) {
            throw new IllegalArgumentException(shown(text) + " is no time of day; write hours:minutes:seconds, 00:00:00 to 23:59:59.999999999.");
        }
        return (Integer.parseInt(form.group(1)) * 60L + Integer.parseInt(form.group(2))) * 60_000_000_000L + nanos(text, new BigDecimal(form.group(3)), 1_000_000_000L).longValue();
    }

    private static long dateAndTime(String text, String written) {
        int split = written.lastIndexOf('-');
        if (split < 0 || written.indexOf(':') < split) {
            throw new IllegalArgumentException(shown(text) + " is no date with time; write year-month-day-hours:minutes:seconds, such as DT#2026-11-23-15:36:55.");
        }
        return date(text, written.substring(0, split)) + timeOfDay(text, written.substring(split + 1));
    }

    private static BigInteger nanos(String text, BigDecimal amount, long nanosPerUnit) {
        try {
            return amount.multiply(BigDecimal.valueOf(nanosPerUnit)).setScale(0, RoundingMode.UNNECESSARY).toBigInteger();
        } catch (ArithmeticException finer) {
            throw new IllegalArgumentException(shown(text) + " is finer than a nanosecond.");
        }
    }

    /**
     * Nanoseconds of 1h2m3s4ms, exactly: units from the largest to the smallest, each once, a fraction only in the last one; only the first one
     * may be more than the next larger unit holds (overflow of the most significant unit).
     */
    private static long duration(String text, String written) {
        String example = "; write it with units, the largest first, such as T#1h30m or T#2.5s.";
        boolean negative = written.startsWith("-");
        String parts = negative || written.startsWith("+") ? written.substring(1) : written;
        if (parts.isEmpty() || parts.startsWith("_") || parts.endsWith("_") || parts.contains("__")) {
            throw new IllegalArgumentException(shown(text) + " is no duration" + example);
        }
        Matcher part = DURATION_PART.matcher(parts.replace("_", ""));
        BigInteger sum = BigInteger.ZERO;
        int unitBefore = -1;
        boolean fraction = false;
        int end = 0;
        while (part.find() && part.start() == end) {
            int unit = UNITS.indexOf(part.group(2));
            if (unit <= unitBefore) {
                throw new IllegalArgumentException(shown(text) + ": " + part.group(2).toLowerCase(Locale.ROOT) + " cannot stand behind " + UNITS.get(unitBefore).toLowerCase(Locale.ROOT) + example);
            }
            if (fraction) {
                throw new IllegalArgumentException(shown(text) + ": only the last unit may have a fraction" + example);
            }
            BigInteger amount = nanos(text, new BigDecimal(part.group(1)), NANOS.get(unit));
            if (unitBefore >= 0 && amount.compareTo(BigInteger.valueOf(NANOS.get(unit - 1))) >= 0) {
                throw new IllegalArgumentException(shown(text) + ": only the first unit may be more than " + UNITS.get(unit - 1).toLowerCase(Locale.ROOT) + " holds" + example);
            }
            sum = sum.add(amount);
            fraction = part.group(1).indexOf('.') >= 0;
            unitBefore = unit;
            end = part.end();
        }
        if (end == 0 || end < part.regionEnd()) {
            boolean noUnit = parts.matches("[0-9_.]+");
            throw new IllegalArgumentException(shown(text) + (noUnit ? " has no unit; write d, h, m, s, ms, us or ns behind the number, such as T#" + shown(parts) + "s." : " is no duration" + example));
        }
        BigInteger signed = negative ? sum.negate() : sum;
        if (signed.bitLength() > 63) {
            throw new IllegalArgumentException(shown(text) + " is too long; a duration reaches to about 292 years.");
        }
        return signed.longValue();
    }

    /** 'abc', "abc", CHAR#'a', with $ before what cannot be written plainly (IEC 61131-3, character string literals). */
    private static Expression characters(String text) {
        int open = text.indexOf('\'') < 0 ? text.indexOf('"') : text.indexOf('"') < 0 ? text.indexOf('\'') : Math.min(text.indexOf('\''), text.indexOf('"'));
        String prefix = open > 0 ? text.substring(0, open - 1) : "";
        String quoted = text.substring(open);
        if (quoted.length() < 2 || quoted.charAt(quoted.length() - 1) != quoted.charAt(0)) {
            throw new IllegalArgumentException("The text is not closed: " + quoted.charAt(0) + " is missing.");
        }
        boolean wide = quoted.charAt(0) == '"';
        String value = unescaped(quoted.substring(1, quoted.length() - 1), wide ? 4 : 2);
        Type type = prefix.isEmpty() ? wide ? Type.WSTRING : Type.STRING : Type.named(prefix);
        if (type == null || !type.isText() && type.family() != Type.Family.CHARACTER) {
            throw new IllegalArgumentException("Before a text in quotes only STRING#, WSTRING#, CHAR# or WCHAR# may stand, not " + shown(prefix) + "#.");
        }
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
            char code = ++i < text.length() ? Character.toUpperCase(text.charAt(i)) : ' ';
            switch (code) {
                case '$', '\'', '"' -> plain.append(code);
                case 'L', 'N' -> plain.append('\n');
                case 'P' -> plain.append('\f');
                case 'R' -> plain.append('\r');
                case 'T' -> plain.append('\t');
                default -> {
                    String hex = text.substring(Math.min(i, text.length()), Math.min(text.length(), i + hexDigits));
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
}
