package rueda.bench;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import rueda.plc.Variable;

/**
 * The last changes of every value of the program, each with its time: a bit's history reaches back as far as its changes do, not as far as a
 * recording. {@value #KEPT} of each value are kept.
 *
 * <p>A look costs a comparison for each value and allocates nothing. Not thread-safe.
 */
public final class ValueChanges {

    static final int KEPT = 32;

    private final Variable[] variables;
    private final long[] present;
    /** rings, one behind the other */
    private final long[] values;
    private final long[] times;
    private final long[] counts;
    private boolean begun;

    /**
     * A value that a variable took.
     *
     * @param time  from when on, s since the start
     * @param value as a user reads it
     */
    public record ValueChange(double time, String value) {
    }

    ValueChanges(Variable[] variables) {
        this.variables = variables;
        present = new long[variables.length];
        values = new long[variables.length * KEPT];
        times = new long[variables.length * KEPT];
        counts = new long[variables.length];
    }

    /** Compares all values with those of the look before. @param memory of the controller  @param now end of the bus cycle, ns on the bench's clock */
    void look(long[] memory, long now) {
        for (int i = 0; i < variables.length; i++) {
            long value = memory[variables[i].slot()];
            if (value != present[i] || !begun) {
                present[i] = value;
                int place = i * KEPT + (int) (counts[i]++ % KEPT);
                values[place] = value;
                times[place] = now;
            }
        }
        begun = true;
    }

    /** The latest changes of a value, the newest first; the first one ever is what it was at the first look. @param name in any case  @return empty when there is no such value */
    public Optional<List<ValueChange>> of(String name) {
        for (int i = 0; i < variables.length; i++) {
            if (variables[i].name().toUpperCase(Locale.ROOT).equals(name.toUpperCase(Locale.ROOT))) {
                return Optional.of(of(i));
            }
        }
        return Optional.empty();
    }

    private List<ValueChange> of(int variable) {
        List<ValueChange> changes = new ArrayList<>();
        for (long i = counts[variable] - 1; i >= Math.max(0, counts[variable] - KEPT); i--) {
            int place = variable * KEPT + (int) (i % KEPT);
            changes.add(new ValueChange(times[place] * 1e-9, variables[variable].text(values[place])));
        }
        return changes;
    }
}
