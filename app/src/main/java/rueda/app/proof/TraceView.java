package rueda.app.proof;

import java.util.List;

/**
 * Stretches of recorded signals, decimated: of every interval the samples at which one of them is lowest or highest, each at its own time.
 *
 * @param time    s
 * @param signals one column each
 */
public record TraceView(List<Double> time, List<Column> signals) {
    /** @param name of the signal  @param unit of the values  @param values one per time */
    public record Column(String name, String unit, List<Double> values) {
    }
}
