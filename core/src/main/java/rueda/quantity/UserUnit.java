package rueda.quantity;

import java.math.BigDecimal;
import java.math.MathContext;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import javax.measure.Unit;
import tech.units.indriya.function.RationalNumber;
import tech.units.indriya.unit.Units;

/**
 * A unit a user works in. Lengths are based on the metre, angles on the turn, masses on the gram, volumes on the
 * millilitre; a name that is not known is a unit of its own, which nothing else converts to.
 *
 * @param symbol   as it is written, such as mm
 * @param quantity what it measures
 * @param size     base units in one of it, exact; the radian, which is no fraction of a turn, as 113 : 710 turns,
 *                 1 in 10^7 off, so that scales stay within 64 bits
 */
public record UserUnit(String symbol, Quantity quantity, Ratio size) {

    /** What a unit measures. */
    public enum Quantity { LENGTH, ANGLE, MASS, VOLUME, OWN }

    private static final Map<String, UserUnit> KNOWN = known();
    /** Symbols of all units that are known, the usual first. */
    public static final List<String> USUAL = List.copyOf(KNOWN.keySet());
    /** Those of lengths. */
    public static final List<String> LENGTHS = KNOWN.values().stream().filter(u -> u.quantity() == Quantity.LENGTH).map(UserUnit::symbol).toList();

    private static Map<String, UserUnit> known() {
        Map<String, UserUnit> units = new LinkedHashMap<>();
        put(units, Quantity.LENGTH, Units.METRE, "mm", "µm", "m", "in");
        put(units, Quantity.ANGLE, UnitTable.TURN, "°", "turn");
        units.put("rad", new UserUnit("rad", Quantity.ANGLE, Ratio.nearest(1 / (2 * Math.PI), 1000, 1000)));
        put(units, Quantity.MASS, Units.GRAM, "g", "kg");
        put(units, Quantity.VOLUME, UnitTable.MILLILITRE, "ml", "l");
        return units;
    }

    private static void put(Map<String, UserUnit> units, Quantity quantity, Unit<?> base, String... symbols) {
        for (String symbol : symbols) {
            units.put(symbol, new UserUnit(symbol, quantity, exact(UnitTable.named(symbol), base)));
        }
    }

    private static Ratio exact(Unit<?> from, Unit<?> to) {
        try {
            Number size = from.getConverterToAny(to).convert(RationalNumber.of(1, 1));
            if (size instanceof RationalNumber fraction) {
                return Ratio.of(fraction.getDividend().longValueExact(), fraction.getDivisor().longValueExact());
            }
            return Ratio.of(new BigDecimal(size.toString(), MathContext.UNLIMITED));
        } catch (javax.measure.IncommensurableException impossible) {
            throw new IllegalStateException(impossible);
        }
    }

    /** The unit with this symbol; a name that is not known is a unit of its own. */
    public static UserUnit of(String symbol) {
        UserUnit unit = KNOWN.get(symbol.trim());
        return unit != null ? unit : KNOWN.getOrDefault(symbol.trim().toLowerCase(Locale.ROOT).replace("um", "µm").replace("deg", "°"),
                new UserUnit(symbol.trim(), Quantity.OWN, Ratio.ONE));
    }

    /** One can be expressed in the other. */
    public boolean convertsTo(UserUnit other) {
        return quantity == Quantity.OWN || other.quantity == Quantity.OWN ? symbol.equals(other.symbol) : quantity == other.quantity;
    }

    /**
     * How many of the other unit are in one of this.
     *
     * @throws InvalidEntry when they measure different things
     */
    public Ratio in(UserUnit other) {
        if (!convertsTo(other)) {
            throw new InvalidEntry("unit", symbol, "a unit that converts to " + other.symbol, "choose a unit of the same kind");
        }
        return size.dividedBy(other.size);
    }
}
