package rueda.machine;

import io.soabase.recordbuilder.core.RecordBuilder;

/**
 * What an axis may do.
 *
 * @param softMin   lowest target, user units; not used on an endless axis
 * @param softMax   highest target, user units; not used on an endless axis
 * @param normal    what a move takes when the program leaves a value out
 * @param max       the most
 * @param quickStop deceleration of quick stop and fault reaction, units/s²
 */
@RecordBuilder
public record Limits(double softMin, double softMax, Dynamics normal, Dynamics max, double quickStop) implements LimitsBuilder.With {

    public Limits withSoft(double min, double max) {
        return withSoftMin(min).withSoftMax(max);
    }

}
