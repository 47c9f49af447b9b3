package rueda.machine;

/**
 * What an axis may do.
 *
 * @param softMin   lowest target, user units; not used on an endless axis
 * @param softMax   highest target, user units; not used on an endless axis
 * @param normal    what a move takes when the program leaves a value out
 * @param max       the most
 * @param quickStop deceleration of quick stop and fault reaction, units/s²
 */
public record Limits(double softMin, double softMax, Dynamics normal, Dynamics max, double quickStop) {

    public Limits withSoft(double min, double max) {
        return new Limits(min, max, normal, this.max, quickStop);
    }

    public Limits withMax(Dynamics changed) {
        return new Limits(softMin, softMax, normal, changed, quickStop);
    }
}
