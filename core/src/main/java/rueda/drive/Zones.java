package rueda.drive;

import rueda.machine.Axis;
import rueda.machine.MoveList.Passing;
import rueda.machine.MoveList.Zone;
import rueda.quantity.Modulo;
import rueda.quantity.Scale;

/**
 * The zones of an axis: which of them its position is in, with hysteresis and direction. Looked at once a sub-step; between two bounds there is
 * a stretch in which nothing can change, and until it is left two comparisons are all it costs. No allocation; not thread-safe.
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
    /** user counts between which no zone changes, and whether the reference was known when that was worked out */
    private long quietAbove = Long.MAX_VALUE;
    private long quietBelow = Long.MIN_VALUE;
    private boolean knownThen;

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
        quietAbove = Long.MAX_VALUE;
        quietBelow = Long.MIN_VALUE;
    }

    /** @param counts where the axis is  @param speed rad/s */
    void observe(long counts, double speed) {
        if (zones.length == 0) {
            return;
        }
        long user = reference.user(counts);
        if (user <= quietAbove || user >= quietBelow || reference.known() != knownThen) {
            look(counts, user, speed);
        }
    }

    /** @param user counts of the user */
    private void look(long counts, long user, double speed) {
        long wire = reference.unwrappedWire(counts);
        long nearest = Long.MAX_VALUE;
        for (int i = 0; i < zones.length; i++) {
            boolean was = (on >> i & 1) != 0;
            Passing passing = zones[i].passing();
            boolean may = was || passing == Passing.BOTH || (passing == Passing.FORWARD ? speed > units.roundingSpeed : speed < -units.roundingSpeed);
            boolean known = reference.known() || !zones[i].onlyReferenced();
            boolean inside = known && may && inside(wire, i, was ? hysteresis[i] : 0);
            on = inside ? on | 1 << i : on & ~(1 << i);
            boolean waitsForDirection = !inside && inside(wire, i, 0);
            nearest = waitsForDirection ? 0 : Math.min(nearest, nearestBound(wire, i));
        }
        double quiet = (nearest - 1) * units.countsPerWireUnit - 1;
        quietAbove = quiet < 1 ? Long.MAX_VALUE : user - (long) quiet;
        quietBelow = quiet < 1 ? Long.MIN_VALUE : user + (long) quiet;
        knownThen = reference.known();
    }

    private long nearestBound(long wire, int zone) {
        return Math.min(Math.min(way(wire, from[zone]), way(wire, to[zone])), Math.min(way(wire, from[zone] - hysteresis[zone]), way(wire, to[zone] + hysteresis[zone])));
    }

    private long way(long wire, long bound) {
        return range == null ? Math.abs(wire - bound) : Math.min(range.of(wire - bound), range.of(bound - wire));
    }

    /** @param beyond how far beyond its ends it still counts */
    private boolean inside(long wire, int zone, long beyond) {
        if (range == null) {
            return wire >= from[zone] - beyond && wire <= to[zone] + beyond;
        }
        /* from its lower end upward as far as it is long, across the zero where it reaches there; with its hysteresis it may go all round */
        return range.of(wire - from[zone] + beyond) <= range.of(to[zone] - from[zone]) + 2 * beyond;
    }

    /** @param zone 0 for the first */
    boolean on(int zone) {
        return (on >> zone & 1) != 0;
    }
}
