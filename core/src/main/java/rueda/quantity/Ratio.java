package rueda.quantity;

import java.math.BigDecimal;
import java.math.BigInteger;

/**
 * An exact positive or negative fraction in lowest terms.
 *
 * @param numerator   any {@code long}
 * @param denominator greater than zero
 */
public record Ratio(long numerator, long denominator) {

    public static final Ratio ONE = new Ratio(1, 1);

    /**
     * Reduces the fraction and moves the sign to the numerator.
     *
     * @throws InvalidEntry when the denominator is zero
     */
    public Ratio {
        if (denominator == 0) {
            throw new InvalidEntry("denominator", "0", "any whole number but 0", "enter the turns of the output side");
        }
        long divisor = BigInteger.valueOf(numerator).gcd(BigInteger.valueOf(denominator)).longValue();
        if (denominator < 0) {
            divisor = -divisor;
        }
        numerator /= divisor;
        denominator /= divisor;
    }

    public static Ratio of(long numerator, long denominator) {
        return new Ratio(numerator, denominator);
    }

    public static Ratio of(long whole) {
        return new Ratio(whole, 1);
    }

    /** The exact value of a decimal entry: 0.125 becomes 1:8. */
    public static Ratio of(BigDecimal decimal) {
        BigInteger unscaled = decimal.unscaledValue();
        return decimal.scale() >= 0
                ? reduced(unscaled, BigInteger.TEN.pow(decimal.scale()))
                : reduced(unscaled.multiply(BigInteger.TEN.pow(-decimal.scale())), BigInteger.ONE);
    }

    public Ratio times(Ratio other) {
        return reduced(big(numerator).multiply(big(other.numerator)), big(denominator).multiply(big(other.denominator)));
    }

    public Ratio dividedBy(Ratio other) {
        return times(other.inverse());
    }

    /** @throws InvalidEntry when this ratio is zero */
    public Ratio inverse() {
        return new Ratio(denominator, numerator);
    }

    /**
     * The fraction nearest to a number with bounded numerator and denominator: best approximation by continued
     * fractions (Hardy &amp; Wright, <i>An Introduction to the Theory of Numbers</i>, chapter X), the last step taken as
     * far as the bounds allow.
     *
     * @param value          greater than 0
     * @param mostNumerator   at least 1
     * @param mostDenominator at least 1
     */
    public static Ratio nearest(double value, long mostNumerator, long mostDenominator) {
        return Ratio.of(new BigDecimal(value).round(new java.math.MathContext(17))).within(mostNumerator, mostDenominator);
    }

    /**
     * This fraction when it fits, else the nearest one above zero that does; see {@link #nearest}.
     *
     * @param mostNumerator   at least 1
     * @param mostDenominator at least 1
     */
    public Ratio within(long mostNumerator, long mostDenominator) {
        return numerator <= mostNumerator && denominator <= mostDenominator || numerator <= 0 ? this
                : nearest(big(numerator), big(denominator), mostNumerator, mostDenominator);
    }

    /** The product of three positive fractions when numerator and denominator are within a bound, else the nearest fraction above zero that is. */
    public static Ratio nearestProduct(Ratio a, Ratio b, Ratio c, long most) {
        return nearest(big(a.numerator).multiply(big(b.numerator)).multiply(big(c.numerator)), big(a.denominator).multiply(big(b.denominator)).multiply(big(c.denominator)), most, most);
    }

    /** The fraction of two positive numbers of any size when it fits the bounds, else the nearest one above zero that does. */
    static Ratio nearest(BigInteger numerator, BigInteger denominator, long mostNumerator, long mostDenominator) {
        BigInteger divisor = numerator.gcd(denominator);
        BigInteger restTop = numerator.divide(divisor);
        BigInteger restBottom = denominator.divide(divisor);
        if (restTop.compareTo(big(mostNumerator)) <= 0 && restBottom.compareTo(big(mostDenominator)) <= 0) {
            return new Ratio(restTop.longValue(), restBottom.longValue());
        }
        BigInteger wantedTop = restTop;
        BigInteger wantedBottom = restBottom;
        long olderTop = 0;
        long olderBottom = 1;
        long top = 1;
        long bottom = 0;
        while (restBottom.signum() != 0) {
            BigInteger[] parts = restTop.divideAndRemainder(restBottom);
            long whole = parts[0].bitLength() > 62 ? Long.MAX_VALUE : parts[0].longValue();
            long most = Math.min(top == 0 ? Long.MAX_VALUE : (mostNumerator - olderTop) / top, bottom == 0 ? Long.MAX_VALUE : (mostDenominator - olderBottom) / bottom);
            if (whole > most) {
                Ratio partly = new Ratio(olderTop + most * top, Math.max(1, olderBottom + most * bottom));
                return bottom != 0 && top != 0 && nearer(wantedTop, wantedBottom, new Ratio(top, bottom), partly) ? new Ratio(top, bottom) : partly;
            }
            long nextTop = olderTop + whole * top;
            long nextBottom = olderBottom + whole * bottom;
            olderTop = top;
            olderBottom = bottom;
            top = nextTop;
            bottom = nextBottom;
            restTop = restBottom;
            restBottom = parts[1];
        }
        return new Ratio(top, bottom);
    }

    private static boolean nearer(BigInteger wantedTop, BigInteger wantedBottom, Ratio one, Ratio other) {
        return one.missOf(wantedTop, wantedBottom).multiply(big(other.denominator)).compareTo(other.missOf(wantedTop, wantedBottom).multiply(big(one.denominator))) < 0;
    }

    /** Distance from a fraction, times both denominators. */
    private BigInteger missOf(BigInteger wantedTop, BigInteger wantedBottom) {
        return big(numerator).multiply(wantedBottom).subtract(wantedTop.multiply(big(denominator))).abs();
    }

    public double toDouble() {
        return (double) numerator / denominator;
    }

    /**
     * {@code round(value × this)}, halves away from zero, in whole-number arithmetic.
     *
     * @throws ArithmeticException when the result leaves 64 bits
     */
    public long scale(long value) {
        long high = Math.multiplyHigh(value, numerator);
        long low = value * numerator;
        if ((high == 0 && low >= 0) || (high == -1 && low < 0)) {
            long quotient = low / denominator;
            long remainder = low % denominator;
            if (Math.abs(remainder) >= denominator - Math.abs(remainder)) {
                quotient += low < 0 ? -1 : 1;
            }
            return quotient;
        }
        return scaleWide(value);
    }

    private long scaleWide(long value) {
        BigInteger[] parts = big(value).multiply(big(numerator)).divideAndRemainder(big(denominator));
        boolean roundUp = parts[1].abs().shiftLeft(1).compareTo(big(denominator)) >= 0;
        BigInteger rounded = roundUp ? parts[0].add(BigInteger.valueOf(parts[1].signum())) : parts[0];
        return rounded.longValueExact();
    }

    private static Ratio reduced(BigInteger numerator, BigInteger denominator) {
        if (denominator.signum() == 0) {
            return new Ratio(numerator.signum(), 0);
        }
        BigInteger divisor = numerator.gcd(denominator);
        BigInteger top = numerator.divide(divisor);
        BigInteger bottom = denominator.divide(divisor);
        if (top.bitLength() > 63 || bottom.bitLength() > 63) {
            throw new InvalidEntry("ratio", top + " : " + bottom, "numerator and denominator within 64 bits",
                    "use smaller whole numbers with the same quotient");
        }
        return new Ratio(top.longValue(), bottom.longValue());
    }

    private static BigInteger big(long value) {
        return BigInteger.valueOf(value);
    }

    /** As practitioners write a gear: {@code 32768 : 625}. */
    @Override
    public String toString() {
        return numerator + " : " + denominator;
    }
}
