package rueda.format.description;

import java.util.Locale;
import java.util.Map;
import rueda.bus.description.DeviceDescription.DescribedObject;
import rueda.format.Text;
import rueda.format.UnreadableFile;

/** Data types of the formats as those of IEC 61131-3, with their widths. */
final class DataTypes {

    /** Widths in bits. */
    static final Map<String, Integer> BITS = Map.ofEntries(Map.entry("BOOL", 1), Map.entry("BIT", 1), Map.entry("SINT", 8), Map.entry("USINT", 8), Map.entry("BYTE", 8),
            Map.entry("INT", 16), Map.entry("UINT", 16), Map.entry("WORD", 16), Map.entry("DINT", 32), Map.entry("UDINT", 32), Map.entry("DWORD", 32),
            Map.entry("INT24", 24), Map.entry("UINT24", 24), Map.entry("INT40", 40), Map.entry("UINT40", 40), Map.entry("INT48", 48), Map.entry("UINT48", 48),
            Map.entry("INT56", 56), Map.entry("UINT56", 56), Map.entry("LINT", 64), Map.entry("ULINT", 64), Map.entry("LWORD", 64), Map.entry("REAL", 32), Map.entry("LREAL", 64));

    /** CiA 301, codes of the static data types. */
    private static final Map<Integer, String> CIA_301 = Map.ofEntries(Map.entry(1, "BOOL"), Map.entry(2, "SINT"), Map.entry(3, "INT"), Map.entry(4, "DINT"),
            Map.entry(5, "USINT"), Map.entry(6, "UINT"), Map.entry(7, "UDINT"), Map.entry(8, "REAL"), Map.entry(9, "STRING"), Map.entry(0x0A, "BYTES"),
            Map.entry(0x0B, "WSTRING"), Map.entry(0x0F, "DOMAIN"), Map.entry(0x11, "LREAL"), Map.entry(0x15, "LINT"), Map.entry(0x1B, "ULINT"), Map.entry(0x10, "INT24"), Map.entry(0x12, "INT40"),
            Map.entry(0x13, "INT48"), Map.entry(0x14, "INT56"), Map.entry(0x16, "UINT24"), Map.entry(0x18, "UINT40"), Map.entry(0x19, "UINT48"), Map.entry(0x1A, "UINT56"));

    /** CIP volume 1, appendix C: codes of the elementary data types. */
    private static final Map<Integer, String> CIP = Map.ofEntries(Map.entry(0xC1, "BOOL"), Map.entry(0xC2, "SINT"), Map.entry(0xC3, "INT"), Map.entry(0xC4, "DINT"),
            Map.entry(0xC5, "LINT"), Map.entry(0xC6, "USINT"), Map.entry(0xC7, "UINT"), Map.entry(0xC8, "UDINT"), Map.entry(0xC9, "ULINT"), Map.entry(0xCA, "REAL"),
            Map.entry(0xCB, "LREAL"), Map.entry(0xD1, "BYTE"), Map.entry(0xD2, "WORD"), Map.entry(0xD3, "DWORD"), Map.entry(0xD4, "LWORD"), Map.entry(0xDA, "STRING"));

    /** GSDML names. */
    private static final Map<String, String> GSDML = Map.ofEntries(Map.entry("Integer8", "SINT"), Map.entry("Integer16", "INT"), Map.entry("Integer32", "DINT"), Map.entry("Integer64", "LINT"),
            Map.entry("Unsigned8", "USINT"), Map.entry("Unsigned16", "UINT"), Map.entry("Unsigned32", "UDINT"), Map.entry("Unsigned64", "ULINT"), Map.entry("Float32", "REAL"),
            Map.entry("Float64", "LREAL"), Map.entry("Boolean", "BOOL"), Map.entry("N2", "INT"), Map.entry("N4", "DINT"), Map.entry("V2", "WORD"), Map.entry("OctetString", "BYTES"), Map.entry("VisibleString", "STRING"), Map.entry("F_MessageTrailer4Byte", "BYTES"), Map.entry("F_MessageTrailer5Byte", "BYTES"),
            Map.entry("Bit", "BIT"), Map.entry("BitArea", "BIT"));

    /** Bytes of the GSDML types that have no length of their own in the file; 0 for the others. */
    static int gsdmlBytes(String name) {
        return switch (name) {
            case "Boolean" -> 1;
            case "F_MessageTrailer4Byte" -> 4;
            case "F_MessageTrailer5Byte" -> 5;
            default -> 0;
        };
    }

    private DataTypes() {
    }

    static String cia301(int code) {
        return CIA_301.getOrDefault(code, String.format(Locale.ROOT, "type %04Xh", code));
    }

    static int codeOf(String type) {
        return CIA_301.entrySet().stream().filter(e -> e.getValue().equals(type)).map(Map.Entry::getKey).findFirst().orElse(0x0F);
    }

    static String cip(int code) {
        return CIP.getOrDefault(code, String.format(Locale.ROOT, "type %02Xh", code));
    }

    static String gsdml(String name) {
        return GSDML.getOrDefault(name, name);
    }

    static int bits(String type) {
        return BITS.getOrDefault(type, 0);
    }

    /** Range and default must be numbers of the type, the default within the range. */
    static DescribedObject checked(DescribedObject object, String place) {
        int bits = bits(object.dataType());
        if (bits > 0 && object.bits() > 0 && bits != object.bits() && !object.dataType().equals("BOOL")) {
            throw new UnreadableFile(place + ", " + object.name(), object.dataType() + " of " + object.bits() + " bits", object.dataType() + " has " + bits + " bits", "correct the size or the type");
        }
        if (bits == 0 || bits > 32 || object.dataType().equals("REAL")) {
            return object;
        }
        Long low = number(object.low(), bits, place);
        Long high = number(object.high(), bits, place);
        Long preset = number(object.preset(), bits, place);
        boolean signed = java.util.Set.of("SINT", "INT", "DINT", "INT24").contains(object.dataType());
        low = signedOf(low, bits, signed);
        high = signedOf(high, bits, signed);
        preset = signedOf(preset, bits, signed);
        if (low != null && high != null && low > high) {
            throw new UnreadableFile(place + ", " + object.name(), low + " to " + high, "a lowest value not above the highest", "exchange them");
        }
        if (preset != null && (low != null && preset < low || high != null && preset > high)) {
            throw new UnreadableFile(place + ", " + object.name() + ", default", object.preset(), (low == null ? "…" : low) + " to " + (high == null ? "…" : high), "correct the default or the range");
        }
        return object;
    }

    private static Long signedOf(Long value, int bits, boolean signed) {
        return value == null || !signed ? value : (Long) (value << 64 - bits >> 64 - bits);
    }

    private static Long number(String text, int bits, String place) {
        if (text.isBlank() || text.toUpperCase(Locale.ROOT).contains("$NODEID")) {
            return null;
        }
        return Text.whole(place, text, -1L << bits - 1, (1L << bits) - 1);
    }
}
