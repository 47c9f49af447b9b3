package rueda.advice;

import java.math.BigDecimal;
import java.math.MathContext;
import java.math.RoundingMode;
import java.util.Locale;

/** Figures as a user reads them: thin spaces between thousands, no more digits than mean something. */
public final class Numbers {

    private Numbers() {
    }

    /** A count, grouped by thin spaces. */
    public static String count(long value) {
        return String.format(Locale.ROOT, "%,d", value).replace(',', '\u202f').replace('-', '\u2212');
    }

    /** @param digits significant digits */
    public static String significant(double value, int digits) {
        if (!Double.isFinite(value)) {
            return "\u2013";
        }
        BigDecimal rounded = new BigDecimal(value).round(new MathContext(digits));
        String plain = rounded.stripTrailingZeros().toPlainString();
        int point = plain.indexOf('.');
        String whole = point < 0 ? plain : plain.substring(0, point);
        String rest = point < 0 ? "" : plain.substring(point);
        return whole.replaceAll("(?<=\\d)(?=(\\d{3})+$)", "\u202f").replace('-', '\u2212') + rest;
    }

    /** To two significant digits, not less: a value to propose. */
    public static double up(double value) {
        return new BigDecimal(value).round(new MathContext(2, RoundingMode.CEILING)).doubleValue();
    }

    /** To two significant digits, not more. */
    public static double down(double value) {
        return new BigDecimal(value).round(new MathContext(2, RoundingMode.FLOOR)).doubleValue();
    }

    /** Fixed decimals. */
    public static String fixed(double value, int decimals) {
        return String.format(Locale.ROOT, "%,." + decimals + "f", value).replace(',', '\u202f').replace('-', '\u2212');
    }
}
