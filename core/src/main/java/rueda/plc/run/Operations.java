package rueda.plc.run;

import java.math.BigDecimal;
import java.util.Locale;

/**
 * Operations on numbers and bit strings that are more than an instruction (IEC 61131-3, 6.6.2.5, standard functions). Called by compiled code;
 * stateless, without allocation. What cannot be done stops the task by a {@link ProgramFault}.
 */
public final class Operations {

    private Operations() {
    }

    // ---- places and loops

    /** The cell that a reference or a VAR_IN_OUT keeps. @param what what is said when there is none */
    public static int place(long cell, String what) {
        if (cell < 0) {
            throw new ProgramFault(what);
        }
        return (int) cell;
    }

    /** An index from 0. @throws ProgramFault when it lies outside of the array */
    public static int index(long index, long low, long high) {
        if (index < low || index > high) {
            throw new ProgramFault("Index " + index + " lies outside of the array: " + low + " to " + high + ".");
        }
        return (int) (index - low);
    }

    public static long step(long step) {
        if (step == 0) {
            throw new ProgramFault("The step of FOR is 0: the loop would not end.");
        }
        return step;
    }

    /** A sum of 64 bits with sign has left what they hold. */
    public static boolean wrapped(long sum, long before, long step) {
        return step > 0 ? sum <= before : sum >= before;
    }

    public static boolean wrappedUnsigned(long sum, long before, long step) {
        return Long.compareUnsigned(sum, before) <= 0;
    }

    /** Which of so many. */
    public static int selected(long selector, int count) {
        if (selector < 0 || selector >= count) {
            throw new ProgramFault("MUX selects by 0 to " + (count - 1) + ", not by " + selector + ".");
        }
        return (int) selector;
    }

    /** A value of a subrange. */
    public static long inRange(long value, long low, long high, String type) {
        if (value < low || value > high) {
            throw new ProgramFault(value + " lies outside of " + type + ": " + low + " to " + high + ".");
        }
        return value;
    }

    // ---- whole numbers

    private static long divisor(long value) {
        if (value == 0) {
            throw new ProgramFault("Division by zero.");
        }
        return value;
    }

    /** Cut toward zero. */
    public static long divide(long a, long b) {
        return a / divisor(b);
    }

    public static long divideUnsigned(long a, long b) {
        return Long.divideUnsigned(a, divisor(b));
    }

    /** {@code a MOD 0} is 0 (IEC 61131-3, table of arithmetic functions). */
    public static long remainder(long a, long b) {
        return b == 0 ? 0 : a % b;
    }

    public static long remainderUnsigned(long a, long b) {
        return b == 0 ? 0 : Long.remainderUnsigned(a, b);
    }

    public static long absolute(long a) {
        return Math.abs(a);
    }

    public static long smaller(long a, long b) {
        return Math.min(a, b);
    }

    public static long greater(long a, long b) {
        return Math.max(a, b);
    }

    public static long smallerUnsigned(long a, long b) {
        return Long.compareUnsigned(a, b) <= 0 ? a : b;
    }

    public static long greaterUnsigned(long a, long b) {
        return Long.compareUnsigned(a, b) >= 0 ? a : b;
    }

    /** A whole number to the power of another one, modulo 2⁶⁴; a negative exponent gives 0, or ±1 of ±1. */
    public static long power(long base, long exponent) {
        if (exponent < 0) {
            return base == 1 ? 1 : base == -1 ? (exponent & 1) == 0 ? 1 : -1 : 0;
        }
        long result = 1;
        long square = base;
        for (long rest = exponent; rest != 0; rest >>>= 1) {
            result = (rest & 1) != 0 ? result * square : result;
            square *= square;
        }
        return result;
    }

    // ---- bit strings

    private static long mask(long bits) {
        return bits == 64 ? -1 : (1L << bits) - 1;
    }

    private static long count(long by) {
        if (by < 0) {
            throw new ProgramFault("A bit string is shifted by 0 or more places, not by " + by + ".");
        }
        return by;
    }

    public static long shiftLeft(long value, long by, long bits) {
        return count(by) >= bits ? 0 : value << by & mask(bits);
    }

    public static long shiftRight(long value, long by, long bits) {
        return count(by) >= bits ? 0 : value >>> by;
    }

    public static long rotateLeft(long value, long by, long bits) {
        long places = count(by) % bits;
        return places == 0 ? value : (value << places | value >>> bits - places) & mask(bits);
    }

    public static long rotateRight(long value, long by, long bits) {
        return rotateLeft(value, bits - count(by) % bits, bits);
    }

    /** The value with one part of it replaced. @param bits of the part  @param at its lowest bit */
    public static long withPart(long value, long part, long bits, long at) {
        return value & ~(mask(bits) << at) | (part & mask(bits)) << at;
    }

    /** The lowest bytes in reverse order. */
    public static long reversed(long value, long bits) {
        return Long.reverseBytes(value) >>> 64 - bits;
    }

    /** Decimal digits of four bits each as a number. */
    public static long fromBcd(long value) {
        if (!validBcd(value)) {
            throw new ProgramFault("16#" + Long.toHexString(value).toUpperCase(Locale.ROOT) + " is no BCD: a digit is above 9.");
        }
        long number = 0;
        for (int at = 60; at >= 0; at -= 4) {
            number = number * 10 + (value >>> at & 15);
        }
        return number;
    }

    public static boolean validBcd(long value) {
        for (int at = 0; at < 64; at += 4) {
            if ((value >>> at & 15) > 9) {
                return false;
            }
        }
        return true;
    }

    /** A number as decimal digits of four bits each. @param bits of the result */
    public static long toBcd(long value, long bits) {
        long rest = value;
        long digits = 0;
        for (int at = 0; at < bits && rest > 0; at += 4) {
            digits |= rest % 10 << at;
            rest /= 10;
        }
        if (rest != 0 || value < 0) {
            throw new ProgramFault(value + " does not fit into BCD of " + bits / 4 + " digits.");
        }
        return digits;
    }

    // ---- real numbers

    /** Rounds half to even (IEC 60559); a real number beyond 64 bits keeps its lowest 64 bits, no number is 0. */
    public static long rounded(double value) {
        if (Math.abs(value) < 0x1p63) {
            return (long) Math.rint(value);
        }
        return Double.isNaN(value) || Double.isInfinite(value) ? 0 : new BigDecimal(value).toBigInteger().longValue();
    }

    /** Cut toward zero. */
    public static long truncated(double value) {
        return rounded(value < 0 ? Math.ceil(value) : Math.floor(value));
    }

    /** The value of a ULINT as the nearest double: halved so that it fits, with the lost bit kept for the rounding. */
    public static double unsigned(long bits) {
        return bits >= 0 ? bits : 2.0 * (bits >>> 1 | bits & 1);
    }

    /** A long becomes a float in one rounding; by way of double it would be rounded twice. */
    public static double single(long value) {
        return (float) value;
    }

    public static double singleUnsigned(long bits) {
        return bits >= 0 ? (float) bits : 2.0f * (bits >>> 1 | bits & 1);
    }

    public static long bitsOfSingle(double value) {
        return Float.floatToRawIntBits((float) value) & 0xFFFF_FFFFL;
    }

    public static double singleOfBits(long bits) {
        return Float.intBitsToFloat((int) bits);
    }

    public static long bitsOfReal(double value) {
        return Double.doubleToRawLongBits(value);
    }

    public static double realOfBits(long bits) {
        return Double.longBitsToDouble(bits);
    }

    public static double absolute(double a) {
        return Math.abs(a);
    }

    public static double smaller(double a, double b) {
        return Math.min(a, b);
    }

    public static double greater(double a, double b) {
        return Math.max(a, b);
    }

    public static double power(double a, double b) {
        return Math.pow(a, b);
    }

    public static double squareRoot(double a) {
        return Math.sqrt(a);
    }

    public static double logarithm(double a) {
        return Math.log(a);
    }

    public static double decimalLogarithm(double a) {
        return Math.log10(a);
    }

    public static double exponential(double a) {
        return Math.exp(a);
    }

    public static double sine(double a) {
        return Math.sin(a);
    }

    public static double cosine(double a) {
        return Math.cos(a);
    }

    public static double tangent(double a) {
        return Math.tan(a);
    }

    public static double arcSine(double a) {
        return Math.asin(a);
    }

    public static double arcCosine(double a) {
        return Math.acos(a);
    }

    public static double arcTangent(double a) {
        return Math.atan(a);
    }

    public static double arcTangent(double y, double x) {
        return Math.atan2(y, x);
    }

    public static boolean finite(double a) {
        return Double.isFinite(a);
    }

    // ---- BOOL

    public static boolean isOne(long bits) {
        return (bits & 1) != 0;
    }
}
