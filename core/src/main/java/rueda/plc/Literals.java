package rueda.plc;

import java.math.BigInteger;
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
        if (prefix.equals("T") || prefix.equals("TIME")) {
            return Expression.constant(Type.TIME, false, duration(rest));
        }
        Type type = Type.named(prefix);
        if (type == null || type == Type.TIME || type == Type.AXIS_REF) {
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
