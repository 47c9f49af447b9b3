package rueda.plc;

import java.util.Locale;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * A directly represented variable of IEC 61131-3, 6.5.5: %I or %Q (in German tables also E and A: common practice, no source), the size X, B, W, D or L, a number and for X a bit.
 *
 * @param output    %Q
 * @param bitOffset place in bits
 */
public record ProcessAddress(boolean output, int bitOffset) {

    /** What the number of %QW4 counts: bytes, or words. The standard leaves it to the maker. */
    public enum Counts { BYTES, ELEMENTS }

    private static final Pattern FORM = Pattern.compile("%?([IQEA])([XBWDL]?)(\\d{1,6})(?:\\.([0-7]))?");

    /** The address in a text such as %QD68 or %IX2.3, empty when it is none. */
    public static Optional<ProcessAddress> of(String text, Counts counts) {
        Matcher form = FORM.matcher(text.strip().toUpperCase(Locale.ROOT));
        if (!form.matches()) {
            return Optional.empty();
        }
        int number = Integer.parseInt(form.group(3));
        int bit = form.group(4) == null ? 0 : Integer.parseInt(form.group(4));
        int size = switch (form.group(2)) {
            case "W" -> 16;
            case "D" -> 32;
            case "L" -> 64;
            default -> 8;
        };
        boolean single = form.group(2).isEmpty() || form.group(2).equals("X");
        return Optional.of(new ProcessAddress(form.group(1).equals("Q") || form.group(1).equals("A"), single && form.group(4) == null ? number : number * (counts == Counts.BYTES ? 8 : size) + bit));
    }

    /** Bits of the variable that an address such as %QD68 names: 1 where no size is written. */
    public static int bits(String text) {
        Matcher form = FORM.matcher(text.strip().toUpperCase(Locale.ROOT));
        return !form.matches() ? 0 : switch (form.group(2)) {
            case "B" -> 8;
            case "W" -> 16;
            case "D" -> 32;
            case "L" -> 64;
            default -> 1;
        };
    }

    /** The address as text, counting bytes. @param bits size of the variable */
    public static String text(boolean output, int bitOffset, int bits) {
        String letter = output ? "%Q" : "%I";
        int at = bitOffset / 8;
        return switch (bits) {
            case 8 -> letter + "B" + at;
            case 16 -> letter + "W" + at;
            case 32 -> letter + "D" + at;
            case 64 -> letter + "L" + at;
            default -> letter + "X" + at + "." + bitOffset % 8;
        };
    }
}
