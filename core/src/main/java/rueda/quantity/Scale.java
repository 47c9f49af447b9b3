package rueda.quantity;

import java.math.BigDecimal;
import java.math.BigInteger;
import java.math.RoundingMode;

/**
 * The exact way between encoder counts, the drive's wire units and the user unit of one axis.
 *
 * <p>Position factors as in IEC 61800-7-201 (CiA 402-2):
 * <pre>
 *   counts = position × (608Fh encoder increments / motor revolutions)
 *                     × (6091h motor revolutions / shaft revolutions)
 *                     ÷ (6092h feed / shaft revolutions)
 * </pre>
 *
 * @param countsPerMotorTurn 608Fh, counts per motor revolution, 1 to 2^32 − 1
 * @param gear               6091h, motor revolutions per shaft revolution, greater than zero
 * @param feed               6092h, user units per shaft revolution, greater than zero
 * @param decimals           decimals of the user unit on the wire, 0 to 6: with 3, one wire unit is 0.001 user unit
 */
public record Scale(long countsPerMotorTurn, Ratio gear, Ratio feed, int decimals) {

    /** Largest value of the drive's signed 32-bit position. */
    public static final long POSITION_LIMIT = Integer.MAX_VALUE;
    private static final long UNSIGNED_32 = 0xFFFF_FFFFL;
    private static final long MOST = (1L << 62) - 1;

    /** @throws InvalidEntry naming the entry that cannot make a scale, and why */
    public Scale {
        if (countsPerMotorTurn < 1 || countsPerMotorTurn > UNSIGNED_32) {
            throw new InvalidEntry("encoder.countsPerTurn", Long.toString(countsPerMotorTurn), "1 to 4 294 967 295 counts",
                    "enter the counts of one motor turn (lines × 4 for quadrature, 2^bits for an absolute encoder)");
        }
        if (gear.numerator() <= 0) {
            throw new InvalidEntry("reducer.motorTurns", Long.toString(gear.numerator()), "1 to 2 147 483 647",
                    "enter whole turns; a reversed direction is set on the encoder, not on the gear");
        }
        if (feed.numerator() <= 0) {
            throw new InvalidEntry("feed.perTurn", feed.toString(), "greater than 0",
                    "enter the travel of one output turn");
        }
        if (decimals < 0 || decimals > 6) {
            throw new InvalidEntry("unit.decimals", Integer.toString(decimals), "0 to 6", "choose the decimals on the wire");
        }
    }

    /**
     * Counts per wire unit: exact where 62 bits each way hold the fraction, else the nearest one, which is off by less than 1 in 10³⁶ (Hurwitz:
     * a best approximation with denominator q is nearer than 1/q²).
     */
    public Ratio countsPerWireUnit() {
        return counts(decimals);
    }

    /** Counts per user unit; exact as {@link #countsPerWireUnit} is. */
    public Ratio countsPerUnit() {
        return counts(0);
    }

    private Ratio counts(int places) {
        BigInteger top = big(countsPerMotorTurn).multiply(big(gear.numerator())).multiply(big(feed.denominator()));
        BigInteger bottom = big(gear.denominator()).multiply(big(feed.numerator())).multiply(BigInteger.TEN.pow(places));
        return Ratio.nearest(top, bottom, MOST, MOST);
    }

    private static BigInteger big(long value) {
        return BigInteger.valueOf(value);
    }

    /** User units per count: the resolution. */
    public Ratio unitsPerCount() {
        return countsPerUnit().inverse();
    }

    /** User units per motor turn; exact as {@link #countsPerWireUnit} is. */
    public Ratio unitsPerMotorTurn() {
        return Ratio.nearest(big(feed.numerator()).multiply(big(gear.denominator())), big(feed.denominator()).multiply(big(gear.numerator())), MOST, MOST);
    }

    /** Wire units per user unit: 10^decimals. */
    public long wireUnitsPerUnit() {
        return tenTo(decimals).numerator();
    }

    private static Ratio tenTo(int decimals) {
        long factor = 1;
        for (int i = 0; i < decimals; i++) {
            factor *= 10;
        }
        return Ratio.of(factor);
    }

    /** Feed per shaft revolution in wire units. */
    public Ratio wireFeed() {
        return Ratio.nearest(big(feed.numerator()).multiply(BigInteger.TEN.pow(decimals)), big(feed.denominator()), MOST, MOST);
    }

    /** 6092h: the feed in wire units as two numbers of 32 bits hold it, exactly or the nearest fraction. */
    public Ratio feedConstant() {
        return wireFeed().within(UNSIGNED_32, UNSIGNED_32);
    }

    /** Counts per wire unit as the objects 608Fh, 6091h and 6092h give them: with {@link #feedConstant} in place of the exact feed. */
    public Ratio countsPerWireUnitHeld() {
        Ratio held = feedConstant();
        return Ratio.nearest(big(countsPerMotorTurn).multiply(big(gear.numerator())).multiply(big(held.denominator())), big(gear.denominator()).multiply(big(held.numerator())), MOST, MOST);
    }

    /**
     * Wire units nearest to a user value, halves away from zero.
     *
     * @param units user units
     */
    public long wireFromUnits(double units) {
        double scaled = units * wireUnitsPerUnit();
        return scaled < 0 ? -Math.round(-scaled) : Math.round(scaled);
    }

    /** The wire value nearest to a decimal as it was typed, halves away from zero. */
    public long wireFromUnits(BigDecimal units) {
        return units.movePointRight(decimals).setScale(0, RoundingMode.HALF_UP).longValue();
    }

    /** User units of a wire value. */
    public double unitsFromWire(long wire) {
        return (double) wire / wireUnitsPerUnit();
    }

    /** Counts nearest to a wire value. */
    public long countsFromWire(long wire) {
        return countsPerWireUnit().scale(wire);
    }

    /** Wire units nearest to a count. */
    public long wireFromCounts(long counts) {
        return countsPerWireUnit().inverse().scale(counts);
    }

    /** User units of a count. */
    public double unitsFromCounts(long counts) {
        return counts * unitsPerCount().toDouble();
    }

    /** Travel each way, in user units, until the drive's signed 32-bit position in wire units overflows. */
    public double travelBeforeWireOverflow() {
        return (double) POSITION_LIMIT / wireUnitsPerUnit();
    }

    /** Travel each way, in user units, until a signed 32-bit count overflows. */
    public double travelBeforeCountOverflow() {
        return POSITION_LIMIT * unitsPerCount().toDouble();
    }

    /**
     * Highest speed the motor allows, in user units per second.
     *
     * @param motorTurnsPerMinute highest motor speed in 1/min
     */
    public double highestSpeed(double motorTurnsPerMinute) {
        return motorTurnsPerMinute / 60.0 * unitsPerMotorTurn().toDouble();
    }

    /**
     * Motor speed in 1/min for a speed in user units per second.
     */
    public double motorTurnsPerMinute(double unitsPerSecond) {
        return unitsPerSecond * 60.0 / unitsPerMotorTurn().toDouble();
    }
}
