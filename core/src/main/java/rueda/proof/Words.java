package rueda.proof;

import java.math.BigDecimal;
import java.util.Locale;

/** Numbers in sentences. */
final class Words {

    private Words() {
    }

    /** Up to four decimals, without zeros at the end. */
    static String plain(double value) {
        return new BigDecimal(say("%.4f", value)).stripTrailingZeros().toPlainString();
    }

    static String say(String pattern, Object... values) {
        return String.format(Locale.ROOT, pattern, values);
    }
}
