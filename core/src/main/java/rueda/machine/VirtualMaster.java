package rueda.machine;

import io.soabase.recordbuilder.core.RecordBuilder;
import java.math.BigDecimal;
import java.util.List;

/**
 * A master that is nothing but a setpoint in the PLC: function blocks move it as they move an axis, and axes follow it. It is endless, has no
 * station, and always knows where it is.
 *
 * @param name         an identifier of the PLC language, another than those of the axes
 * @param unit         of its way
 * @param modulo       units after which its position begins again, which is also one turn of it, exact decimal above 0
 * @param speed        its default speed, units/s
 * @param highestSpeed units/s
 * @param acceleration default and highest acceleration and deceleration, units/s²
 * @param jerk         default jerk, units/s³, 0 for none
 */
@RecordBuilder
public record VirtualMaster(String name, Unit unit, BigDecimal modulo, double speed, double highestSpeed, double acceleration, double jerk) implements VirtualMasterBuilder.With {

    /** A pitch line of 360°. */
    public static VirtualMaster named(String name) {
        return new VirtualMaster(name, new Unit("°", 4), new BigDecimal("360"), 60, 180, 120, 0);
    }

    /** The same as an axis of the PLC: only what the PLC's side of an axis looks at means something. */
    public Axis asAxis() {
        Dynamics normal = new Dynamics(speed, acceleration, acceleration, jerk, 100);
        Dynamics max = new Dynamics(highestSpeed, acceleration, acceleration, 0, 100);
        return NewAxis.named(name, Feed.Kind.FEEDER).withModulo(modulo).withUnit(unit).withTrain(new Train(List.of(), new Feed(Feed.Kind.FEEDER, 1, modulo, unit.symbol())))
                .withLimits(new Limits(0, 0, normal, max, acceleration));
    }
}
