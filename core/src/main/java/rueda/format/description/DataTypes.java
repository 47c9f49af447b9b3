package rueda.format.description;

import java.math.BigDecimal;
import java.math.BigInteger;
import java.util.Locale;
import java.util.Map;
import rueda.bus.description.DeviceDescription.DescribedObject;
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

    /**
     * Range and default must be numbers of the type, the default within the range.
     *
     * @throws UnreadableFile naming the object and what is allowed
     */
    static DescribedObject checked(DescribedObject object, String place) {
        int bits = bits(object.dataType());
        if (bits > 0 && object.bits() > 0 && bits != object.bits() && !object.dataType().equals("BOOL")) {
            throw new UnreadableFile(place + ", " + object.name(), object.dataType() + " of " + object.bits() + " bits", object.dataType() + " has " + bits + " bits", "correct the size or the type");
        }
        if (bits == 0) {
            return object;
        }
        BigDecimal low = number(object.low(), object.dataType(), bits, place);
        BigDecimal high = number(object.high(), object.dataType(), bits, place);
        BigDecimal preset = number(object.preset(), object.dataType(), bits, place);
        if (low != null && high != null && low.compareTo(high) > 0) {
            throw new UnreadableFile(place + ", " + object.name(), low.toPlainString() + " to " + high.toPlainString(), "a lowest value not above the highest", "exchange them");
        }
        if (preset != null && (low != null && preset.compareTo(low) < 0 || high != null && preset.compareTo(high) > 0)) {
            throw new UnreadableFile(place + ", " + object.name() + ", default", object.preset(), (low == null ? "…" : low.toPlainString()) + " to " + (high == null ? "…" : high.toPlainString()), "correct the default or the range");
        }
        return object;
    }

    /** The number that a text of the file stands for, null where there is none or it depends on the node. Hexadecimal ones are bits as they travel. */
    private static BigDecimal number(String text, String type, int bits, String place) {
        if (text.isBlank() || text.toUpperCase(Locale.ROOT).contains("$NODEID")) {
            return null;
        }
        String digits = text.strip();
        boolean real = type.equals("REAL") || type.equals("LREAL");
        BigInteger whole = null;
        if (digits.matches("(?i)(0x|#x)[0-9A-F]{1,16}")) {
            whole = new BigInteger(digits.substring(2), 16);
        } else if (!real && digits.matches("[-+]?[0-9]{1,25}")) {
            whole = new BigInteger(digits);
        }
        if (real && whole != null && whole.bitLength() <= bits) {
            return decimal(bits == 32 ? Float.intBitsToFloat(whole.intValue()) : Double.longBitsToDouble(whole.longValue()), text, type, place);
        }
        if (real && digits.matches("[-+]?([0-9]{1,400}\\.?[0-9]{0,400}|\\.[0-9]{1,400})([eE][-+]?[0-9]{1,6})?")) {
            return decimal(bits == 32 ? Float.parseFloat(digits) : Double.parseDouble(digits), text, type, place);
        }
        if (whole == null) {
            throw new UnreadableFile(place, shown(text), real ? "a number" : "a whole number, decimal or hexadecimal with 0x", "correct it");
        }
        BigInteger lowest = BigInteger.ONE.shiftLeft(bits - 1).negate();
        BigInteger highest = BigInteger.ONE.shiftLeft(bits).subtract(BigInteger.ONE);
        if (whole.compareTo(lowest) < 0 || whole.compareTo(highest) > 0) {
            throw new UnreadableFile(place, shown(text), lowest + " to " + highest, "correct it");
        }
        boolean signed = type.endsWith("INT") && !type.startsWith("U") || type.startsWith("INT");
        return new BigDecimal(signed && whole.testBit(bits - 1) && whole.signum() > 0 ? whole.subtract(BigInteger.ONE.shiftLeft(bits)) : whole);
    }

    private static BigDecimal decimal(double value, String text, String type, String place) {
        if (!Double.isFinite(value)) {
            throw new UnreadableFile(place, shown(text), "a number that " + type + " can hold", "correct it");
        }
        return new BigDecimal(value);
    }

    private static String shown(String text) {
        return text.length() > 60 ? text.substring(0, 60) + "…" : text;
    }
}
