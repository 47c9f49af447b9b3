package rueda.plc;

import java.util.Locale;
import rueda.plc.type.Type;

/**
 * One value of the process image as the PLC sees it.
 *
 * @param name      full name, members joined by dots
 * @param type      elementary type
 * @param output    the PLC writes it; null when the table does not tell
 * @param bitOffset place in bits from the start of the image or of the table, −1 when not told
 * @param comment   empty for none
 */
public record TagRow(String name, Type type, Boolean output, int bitOffset, String comment) {

    public int bits() {
        return type.bits();
    }

    /** Its address as text, such as %QD68; empty where none can be written: direction or place not told, or a value across the bits of bytes. */
    public String address() {
        return output == null || bitOffset < 0 || bits() > 1 && bitOffset % 8 != 0 ? "" : ProcessAddress.text(output, bitOffset, bits());
    }

    /** A member that only fills a gap, by its name (common practice, no source). */
    public boolean fillsGap() {
        return name.substring(name.lastIndexOf('.') + 1).toLowerCase(Locale.ROOT).matches("(pad|padding|filler|fill|gap|reserved?|spare|dummy|unused|align)\\w*");
    }
}
