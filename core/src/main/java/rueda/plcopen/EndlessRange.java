package rueda.plcopen;

/**
 * The way after which the position of an endless axis begins again, and the ways that lead to a place on it; an axis with ends has none and
 * every place is one way away. No allocation; immutable.
 */
final class EndlessRange {

    /** user units after which the position begins again, 0 with ends */
    private final double length;
    /** a place within the rounding of the wire is here, not a turn away, user units */
    private final double here;

    EndlessRange(double length, double here) {
        this.length = length;
        this.here = here;
    }

    /** A difference of positions by the shorter way. */
    double shortest(double way) {
        return length == 0 ? way : Math.IEEEremainder(way, length);
    }

    /** The position as it is shown: an endless axis begins again after its modulo. */
    double shown(double position) {
        return length == 0 ? position : position - Math.floor(position / length) * length;
    }

    /**
     * The target of an absolute move on the axis as it is counted on. An endless axis takes the way that the direction asks for and never
     * more than one turn, but for one case: a place that lies ahead and is nearer than the way the axis needs to stop is reached one turn
     * later, because it was asked to arrive in this direction.
     *
     * @param rest     where the axis would come to rest if it were halted now, user units
     * @param backward the axis moves back now
     */
    double target(double wanted, Direction direction, double position, double rest, boolean backward) {
        if (length == 0) {
            return wanted;
        }
        double forward = shown(wanted - position);
        double needed = rest - position;
        return position + switch (direction) {
            case POSITIVE -> ahead(1, forward, needed);
            case NEGATIVE -> ahead(-1, length - forward, needed);
            case CURRENT -> backward ? ahead(-1, length - forward, needed) : ahead(1, forward, needed);
            case SHORTEST -> forward > length / 2 ? forward - length : forward;
        };
    }

    /** The way to a place ahead, turns longer when the axis cannot stop before it. @param side 1 forward, −1 back  @param way 0 to one turn */
    private double ahead(int side, double way, double wayToRest) {
        double needed = side * wayToRest;
        double turns = length - way <= here && needed <= here ? -1 : Math.max(0, Math.ceil((needed - here - way) / length));
        return side * (way + turns * length);
    }
}
