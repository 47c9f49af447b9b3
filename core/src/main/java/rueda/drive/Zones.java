package rueda.drive;

import rueda.machine.Axis;
import rueda.machine.MoveList.Passing;
import rueda.machine.MoveList.Zone;
import rueda.quantity.Modulo;
import rueda.quantity.Scale;

/**
 * The zones of an axis: which of them its position is in, with hysteresis and direction. Looked at once a sub-step. No allocation; not
 * thread-safe.
 */
final class Zones {

    private final Reference reference;
    private final DriveUnits units;
    private final Modulo range;
    private Zone[] zones = {};
    private long[] from = {};
    private long[] to = {};
    private long[] hysteresis = {};
    private int on;

    Zones(Axis axis, Reference reference, DriveUnits units) {
        this.reference = reference;
        this.units = units;
        range = axis.endless() && axis.modulo().signum() > 0 ? reference.modulo() : null;
        take(axis);
    }

    void take(Axis axis) {
        Scale scale = axis.scale();
        zones = axis.moves().zones().toArray(Zone[]::new);
        from = new long[zones.length];
        to = new long[zones.length];
        hysteresis = new long[zones.length];
        for (int i = 0; i < zones.length; i++) {
            from[i] = scale.wireFromUnits(zones[i].from());
            to[i] = scale.wireFromUnits(zones[i].to());
            hysteresis[i] = scale.wireFromUnits(zones[i].hysteresis());
        }
        on &= (1 << zones.length) - 1;
    }

    /** @param counts where the axis is  @param speed rad/s */
    void observe(long counts, double speed) {
        if (zones.length == 0) {
            return;
        }
        long wire = reference.unwrappedWire(counts);
        for (int i = 0; i < zones.length; i++) {
            boolean was = (on >> i & 1) != 0;
            Passing passing = zones[i].passing();
            boolean may = was || passing == Passing.BOTH || (passing == Passing.FORWARD ? speed > units.roundingSpeed : speed < -units.roundingSpeed);
            boolean known = reference.known() || !zones[i].onlyReferenced();
            boolean inside = known && may && inside(wire, from[i] - (was ? hysteresis[i] : 0), to[i] + (was ? hysteresis[i] : 0));
            on = inside ? on | 1 << i : on & ~(1 << i);
        }
    }

    private boolean inside(long wire, long low, long high) {
        if (range == null) {
            return wire >= low && wire <= high;
        }
        // From low upward as far as the zone is long; across the zero where it reaches there.
        return range.of(wire - low) <= range.of(high - low);
    }

    /** @param zone 0 for the first */
    boolean on(int zone) {
        return (on >> zone & 1) != 0;
    }
}
