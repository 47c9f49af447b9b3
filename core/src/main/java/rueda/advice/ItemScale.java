package rueda.advice;

import java.math.BigDecimal;
import rueda.bus.ProfiDriveSignal;
import rueda.drive.CyclicItem;
import rueda.machine.Axis;

/** The units a user thinks in for what travels, and what stands on the wire for one of them. */
final class ItemScale {

    private ItemScale() {
    }

    /** Value on the wire of one unit: exact, but for encoder counts. @param item null for what nobody knows */
    static BigDecimal wirePerUnit(Axis axis, CyclicItem item) {
        if (item == null) {
            return BigDecimal.ONE;
        }
        return switch (item.meaning()) {
            case POSITION, SPEED, ACCELERATION, JERK -> BigDecimal.ONE.movePointRight(axis.unit().decimals());
            case COUNTS -> BigDecimal.valueOf(axis.scale().countsPerWireUnit().toDouble()).movePointRight(axis.unit().decimals());
            case TORQUE -> BigDecimal.TEN;
            case N2 -> BigDecimal.valueOf(ProfiDriveSignal.N2_FULL).movePointLeft(2);
            case N4 -> BigDecimal.valueOf(ProfiDriveSignal.N4_FULL).movePointLeft(2);
            case GAIN -> BigDecimal.valueOf(1000);
            default -> BigDecimal.ONE;
        };
    }

    /** The unit, empty for what is no measure. */
    static String unit(Axis axis, CyclicItem item) {
        if (item == null) {
            return "";
        }
        return switch (item.meaning()) {
            case POSITION, COUNTS -> axis.unit().symbol();
            case SPEED, ACCELERATION, JERK -> axis.unit().symbol() + item.meaning().overTime();
            case TORQUE, N2, N4 -> "%";
            case GAIN -> "1/s";
            default -> "";
        };
    }
}
