package rueda.quantity;

import java.util.LinkedHashMap;
import java.util.Map;
import javax.measure.MetricPrefix;
import javax.measure.Unit;
import tech.units.indriya.AbstractUnit;
import tech.units.indriya.function.RationalNumber;
import tech.units.indriya.unit.BaseUnit;
import tech.units.indriya.unit.Units;

/** The units known by their symbols, as the units library holds them. Angles are based on the turn. */
final class UnitTable {

    static final Unit<?> TURN = new BaseUnit<>("turn");
    static final Unit<?> MILLILITRE = MetricPrefix.CENTI(Units.METRE).pow(3);
    private static final Map<String, Unit<?>> UNITS = units();

    private UnitTable() {
    }

    private static Map<String, Unit<?>> units() {
        Map<String, Unit<?>> units = new LinkedHashMap<>();
        units.put("mm", MetricPrefix.MILLI(Units.METRE));
        units.put("cm", MetricPrefix.CENTI(Units.METRE));
        units.put("µm", MetricPrefix.MICRO(Units.METRE));
        units.put("um", MetricPrefix.MICRO(Units.METRE));
        units.put("m", Units.METRE);
        units.put("in", Units.METRE.multiply(RationalNumber.of(254, 10_000)));
        units.put("°", TURN.divide(360));
        units.put("deg", TURN.divide(360));
        units.put("rad", TURN.divide(2 * Math.PI));
        units.put("turn", TURN);
        units.put("turns", TURN);
        units.put("rpm", TURN.divide(Units.MINUTE));
        units.put("1/min", TURN.divide(Units.MINUTE));
        units.put("g", Units.GRAM);
        units.put("kg", Units.KILOGRAM);
        units.put("ml", MILLILITRE);
        units.put("l", MILLILITRE.multiply(1000));
        units.put("s", Units.SECOND);
        units.put("ms", MetricPrefix.MILLI(Units.SECOND));
        units.put("µs", MetricPrefix.MICRO(Units.SECOND));
        units.put("us", MetricPrefix.MICRO(Units.SECOND));
        units.put("min", Units.MINUTE);
        units.put("N", Units.NEWTON);
        units.put("kN", MetricPrefix.KILO(Units.NEWTON));
        units.put("Nm", Units.NEWTON.multiply(Units.METRE));
        units.put("%", AbstractUnit.ONE.divide(100));
        units.put("1/s", AbstractUnit.ONE.divide(Units.SECOND));
        return units;
    }

    /** The unit with this symbol, or null. */
    static Unit<?> named(String symbol) {
        return UNITS.get(symbol);
    }
}
