package rueda.plcopen;

import rueda.machine.Axis;
import rueda.machine.Limits;
import rueda.quantity.Modulo;
import rueda.quantity.Scale;

/**
 * Positions of an axis as the program knows them: user units, beginning again where those of an endless axis do, and moved by what
 * MC_SetPosition has added to the drive's own, a whole number of wire units so that nothing is rounded twice. Soft limits move along. Allocates
 * when the numbering changes only; not thread-safe.
 */
final class ProgramPlaces {

    private final double wireUnitsPerUnit;
    private final long modulo;
    private final Modulo wrapped;
    private final EndlessRange range;
    /** what the program has added to the positions of the drive, wire units */
    private long shift;
    /** as the document has them */
    private Limits documented;
    /** the same with what the program has written into them, in its numbering */
    private Limits limits;
    private final WrittenLimits written = new WrittenLimits();

    ProgramPlaces(Axis axis) {
        Scale scale = axis.scale();
        wireUnitsPerUnit = scale.wireUnitsPerUnit();
        modulo = axis.wireModulo();
        wrapped = new Modulo(Math.max(1, modulo));
        range = new EndlessRange(modulo / wireUnitsPerUnit, halfWireUnit());
        take(axis.limits());
    }

    /** A place within the rounding of the wire is here, user units. */
    double halfWireUnit() {
        return 0.5 / wireUnitsPerUnit;
    }

    EndlessRange range() {
        return range;
    }

    /** Limits of the axis, the soft ones in the numbering of the program. */
    Limits limits() {
        return limits;
    }

    /** @param wire position of the drive, wire units  @return user units */
    double units(long wire) {
        long place = wire + shift;
        return (modulo == 0 ? place : wrapped.of(place)) / wireUnitsPerUnit;
    }

    /** @param units user units  @return position of the drive, wire units */
    long wire(double units) {
        long place = (long) Math.rint(units * wireUnitsPerUnit) - shift;
        return modulo == 0 ? place : wrapped.of(place);
    }

    /** A difference on the wire, or a speed there. */
    double unitsOf(long wireUnits) {
        return wireUnits / wireUnitsPerUnit;
    }

    /** A distance that 32 bits of the wire hold. @param units user units */
    boolean fits(double units) {
        return Math.abs(units * wireUnitsPerUnit) <= Integer.MAX_VALUE;
    }

    /** It lies from one place to another; on an endless axis also across the place where positions begin again. */
    boolean lies(double position, double from, double to) {
        return modulo == 0 ? position >= from && position <= to : range.shown(position - from) <= range.shown(to - from);
    }

    /**
     * Every place gets another number.
     *
     * @param units by how much it grows, user units
     * @return by how much it did, a whole number of wire units; NaN when 32 bits do not hold that, and nothing has changed
     */
    double renumber(double units, Limits own) {
        double by = Math.rint(units * wireUnitsPerUnit);
        if (!(Math.abs(shift + by) <= Integer.MAX_VALUE)) {
            return Double.NaN;
        }
        shift += (long) by;
        take(own);
        return by / wireUnitsPerUnit;
    }

    /** Places have the numbers of the drive again. @return by how much they grew, user units */
    double asTheDrive(Limits own) {
        double by = -shift / wireUnitsPerUnit;
        shift = 0;
        take(own);
        return by;
    }

    /** @param own limits of the axis as the document has them */
    void take(Limits own) {
        documented = own;
        double all = shift / wireUnitsPerUnit;
        Limits inside = written.within(own);
        limits = shift == 0 ? inside : inside.withSoft(inside.softMin() + all, inside.softMax() + all);
    }

    /**
     * The program writes a parameter: numbers of the specification's table.
     *
     * @param value    in its own numbering
     * @param bounded the axis has ends
     * @return why not, or NONE
     */
    MotionError write(long parameter, double value, boolean bounded) {
        MotionError refusal = written.write(parameter, value, shift / wireUnitsPerUnit, bounded, documented);
        take(documented);
        return refusal;
    }

    /** The same for what is switched on and off. */
    MotionError watch(long parameter, boolean on, boolean bounded) {
        MotionError refusal = written.watch(parameter, on, bounded);
        take(documented);
        return refusal;
    }

    /** A soft limit that the program has written is watched. @param parameter 4 for the upper one, 5 for the lower one */
    boolean watches(long parameter) {
        return written.watches(parameter);
    }
}
