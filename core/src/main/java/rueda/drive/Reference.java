package rueda.drive;

import rueda.machine.Axis;
import rueda.quantity.Modulo;

/**
 * Where the user's zero lies, and how positions of an endless axis go on beyond its modulo: user counts are encoder counts and a shift.
 * No allocation; not thread-safe.
 */
final class Reference {

    private final DriveUnits units;
    private final boolean endless;
    /** wire units after which the position of an endless axis begins again, 0 with ends */
    private final long wireModulo;
    private final Modulo wrapped;
    private boolean known;
    private long shift;
    /** target of the last sync, wire units */
    private long wireTarget;
    /** the same, counted on beyond the modulo */
    private long unwrappedTarget;

    Reference(Axis axis, DriveUnits units) {
        this.units = units;
        endless = axis.endless();
        wireModulo = axis.wireModulo();
        wrapped = new Modulo(Math.max(1, wireModulo));
    }

    boolean endless() {
        return endless;
    }

    /** The modulo of an endless axis, null for one with ends. */
    Modulo modulo() {
        return endless ? wrapped : null;
    }

    /** Wire units after which an endless axis begins again, 0 with ends. */
    long range() {
        return wireModulo;
    }

    boolean known() {
        return known;
    }

    void lose() {
        known = false;
    }

    /** @param shift user counts minus encoder counts */
    void take(long shift) {
        this.shift = shift;
        known = true;
    }

    /** User counts of encoder counts. */
    long user(long counts) {
        return counts + shift;
    }

    /** Position on the wire: begins again after the modulo; without one it is cut to 32 bits by the object. */
    long wire(long counts) {
        long wire = units.wire(counts + shift);
        return endless ? wrapped.of(wire) : wire;
    }

    /** Position in wire units, counted on beyond the modulo. */
    long unwrappedWire(long counts) {
        return units.wire(counts + shift);
    }

    /** Encoder counts of a position in wire units that is counted on beyond the modulo. */
    long countsAt(long unwrappedWire) {
        return units.counts(unwrappedWire) - shift;
    }

    /** A position on the wire, counted on beyond the modulo: on an endless axis the one nearest to another. @param from wire units beyond the modulo */
    long nearest(long wire, long from) {
        if (!endless) {
            return wire;
        }
        long way = wrapped.of(wire - from);
        return from + (way > wireModulo / 2 ? way - wireModulo : way);
    }

    /**
     * A position on the wire, counted on beyond the modulo, that is reached in one direction; where the axis cannot stop before it, a turn later.
     *
     * @param from wire units beyond the modulo  @param side 1 forward, −1 back  @param toStop way that the axis needs to stop, counts, 0 or more
     */
    long ahead(long wire, long from, int side, double toStop) {
        long way = wrapped.of(side * (wire - from));
        double turns = Math.ceil((toStop / units.countsPerWireUnit - 0.5 - way) / wireModulo);
        return from + side * (way + (turns > 0 ? (long) turns * wireModulo : 0));
    }

    /** Encoder counts of a target on the wire; an endless axis goes the shorter way from the target before. */
    long counts(long target) {
        return units.counts(endless ? unwrapped(target) : target) - shift;
    }

    private long unwrapped(long target) {
        long way = wrapped.of(target - wireTarget);
        unwrappedTarget += way > wireModulo / 2 ? way - wireModulo : way;
        wireTarget = target;
        return unwrappedTarget;
    }

    /** An endless axis counts its target on from here. */
    void countFrom(long counts) {
        if (endless) {
            unwrappedTarget = units.wire(counts + shift);
            wireTarget = wrapped.of(unwrappedTarget);
        }
    }

    /** User units of encoder counts. */
    double position(long counts) {
        double position = (counts + shift) * units.unitsPerCount;
        if (!endless) {
            return position;
        }
        double range = wireModulo / units.wireUnitsPerUnit;
        return position - Math.floor(position / range) * range;
    }
}
