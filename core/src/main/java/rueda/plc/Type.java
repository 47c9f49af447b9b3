package rueda.plc;

import java.util.Locale;

/** Elementary types of IEC 61131-3 and the reference to an axis (PLCopen Motion Control part 1). */
public enum Type {
    BOOL(Family.BIT, 1), BYTE(Family.BIT, 8), WORD(Family.BIT, 16), DWORD(Family.BIT, 32), LWORD(Family.BIT, 64),
    SINT(Family.SIGNED, 8), INT(Family.SIGNED, 16), DINT(Family.SIGNED, 32), LINT(Family.SIGNED, 64),
    USINT(Family.UNSIGNED, 8), UINT(Family.UNSIGNED, 16), UDINT(Family.UNSIGNED, 32), ULINT(Family.UNSIGNED, 64),
    REAL(Family.REAL, 32), LREAL(Family.REAL, 64), TIME(Family.TIME, 64), AXIS_REF(Family.AXIS, 64);

    /** What kind of value a type holds. */
    public enum Family { BIT, SIGNED, UNSIGNED, REAL, TIME, AXIS }

    private final Family family;
    private final int bits;

    Type(Family family, int bits) {
        this.family = family;
        this.bits = bits;
    }

    public Family family() {
        return family;
    }

    public int bits() {
        return bits;
    }

    public boolean isInteger() {
        return family == Family.SIGNED || family == Family.UNSIGNED;
    }

    public boolean isReal() {
        return family == Family.REAL;
    }

    public boolean isNumber() {
        return isInteger() || isReal();
    }

    public boolean isBitString() {
        return family == Family.BIT;
    }

    /** The type with this name, in any case, or null. */
    public static Type named(String name) {
        for (Type type : values()) {
            if (type.name().equals(name.toUpperCase(Locale.ROOT))) {
                return type;
            }
        }
        return null;
    }

    /** Cuts a whole number to this type: two's complement, as the hardware does. */
    public long wrap(long value) {
        int unused = 64 - bits;
        return family == Family.SIGNED ? value << unused >> unused : unused == 0 ? value : value << unused >>> unused;
    }

    /** Smallest whole number this type holds. */
    public long lowest() {
        return family == Family.SIGNED ? -1L << bits - 1 : 0;
    }

    /** Largest whole number this type holds (ULINT and LWORD: as far as a signed 64-bit number reaches). */
    public long highest() {
        int width = family == Family.SIGNED ? bits - 1 : bits;
        return width >= 63 ? Long.MAX_VALUE : (1L << width) - 1;
    }

    /** Every value of this type is a value of the other: implicit conversion, IEC 61131-3 edition 3, figure 11. */
    public boolean widensTo(Type other) {
        if (this == other) {
            return true;
        }
        if (family == Family.BIT) {
            return other.family == Family.BIT && bits < other.bits;
        }
        if (other.family == Family.REAL) {
            return family == Family.REAL ? bits < other.bits : isInteger() && bits <= (other == REAL ? 16 : 32);
        }
        return switch (family) {
            case SIGNED -> other.family == Family.SIGNED && bits < other.bits;
            case UNSIGNED -> other.isInteger() && bits < other.bits;
            default -> false;
        };
    }
}
