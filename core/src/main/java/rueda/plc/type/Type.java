package rueda.plc.type;

import java.math.BigInteger;
import java.util.Locale;
import java.util.Map;

/** Elementary types of IEC 61131-3 and the reference to an axis (PLCopen Motion Control part 1). */
public enum Type implements DataType {
    BOOL(Family.BIT, 1), BYTE(Family.BIT, 8), WORD(Family.BIT, 16), DWORD(Family.BIT, 32), LWORD(Family.BIT, 64),
    SINT(Family.SIGNED, 8), INT(Family.SIGNED, 16), DINT(Family.SIGNED, 32), LINT(Family.SIGNED, 64),
    USINT(Family.UNSIGNED, 8), UINT(Family.UNSIGNED, 16), UDINT(Family.UNSIGNED, 32), ULINT(Family.UNSIGNED, 64),
    REAL(Family.REAL, 32), LREAL(Family.REAL, 64), TIME(Family.TIME, 64), LTIME(Family.TIME, 64),
    DATE(Family.DATE, 64), LDATE(Family.DATE, 64), TOD(Family.TIME_OF_DAY, 64), LTOD(Family.TIME_OF_DAY, 64),
    DT(Family.DATE_AND_TIME, 64), LDT(Family.DATE_AND_TIME, 64), CHAR(Family.CHARACTER, 8), WCHAR(Family.CHARACTER, 16),
    STRING(Family.TEXT, 64), WSTRING(Family.TEXT, 64), AXIS_REF(Family.AXIS, 64);

    /**
     * What kind of value a type holds. TIME counts nanoseconds; DATE and DATE_AND_TIME count them from the start of 1970,
     * TIME_OF_DAY from midnight.
     */
    public enum Family { BIT, SIGNED, UNSIGNED, REAL, TIME, DATE, TIME_OF_DAY, DATE_AND_TIME, CHARACTER, TEXT, AXIS }

    private static final Map<String, Type> LONG_NAMES = Map.of("TIME_OF_DAY", TOD, "LTIME_OF_DAY", LTOD,
            "DATE_AND_TIME", DT, "LDATE_AND_TIME", LDT);

    private final Family family;
    private final int bits;

    Type(Family family, int bits) {
        this.family = family;
        this.bits = bits;
    }

    @Override
    public int cells() {
        return 1;
    }

    @Override
    public Type elementary() {
        return this;
    }

    @Override
    public String written() {
        return name();
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

    public boolean isText() {
        return family == Family.TEXT;
    }

    /** TIME or LTIME. */
    public boolean isDuration() {
        return family == Family.TIME;
    }

    /** A date, a time of day or both: a point in time, which durations can be added to. */
    public boolean isPointInTime() {
        return family == Family.DATE || family == Family.TIME_OF_DAY || family == Family.DATE_AND_TIME;
    }

    /** The type with this name, in any case, or null. */
    public static Type named(String name) {
        String upper = name.toUpperCase(Locale.ROOT);
        for (Type type : values()) {
            if (type.name().equals(upper)) {
                return type;
            }
        }
        return LONG_NAMES.get(upper);
    }

    /** Cuts a whole number to this type: two's complement, as the hardware does. */
    public long wrap(long value) {
        int unused = 64 - bits;
        return family == Family.SIGNED ? value << unused >> unused : unused == 0 ? value : value << unused >>> unused;
    }

    /** Smallest whole number this type holds. */
    public BigInteger lowest() {
        return family == Family.SIGNED ? BigInteger.ONE.shiftLeft(bits - 1).negate() : BigInteger.ZERO;
    }

    /** Largest whole number this type holds. */
    public BigInteger highest() {
        return BigInteger.ONE.shiftLeft(family == Family.SIGNED ? bits - 1 : bits).subtract(BigInteger.ONE);
    }

    /** ULINT or LWORD: the values of a {@code long} count without sign. */
    public boolean isUnsigned64() {
        return this == ULINT || this == LWORD;
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
            case CHARACTER -> this == CHAR && (other == WCHAR || other == STRING) || this == WCHAR && other == WSTRING;
            case TEXT -> this == STRING && other == WSTRING;
            case TIME, DATE, TIME_OF_DAY, DATE_AND_TIME -> family == other.family && other.name().startsWith("L");
            default -> false;
        };
    }
}
