package rueda.recording;

import java.util.List;
import java.util.Optional;
import java.util.function.Function;

/**
 * A recording from elsewhere.
 *
 * @param name    by which proofs name it
 * @param columns its signals
 */
public record Brought(String name, List<Column> columns) {

    /** @param name that of a signal of the machine lies over it  @param unit of the values, empty for none */
    public record Column(String name, String unit, Sampled signal) {
    }

    public Brought {
        columns = List.copyOf(columns);
    }

    /** By its name in any case. */
    public Optional<Column> column(String wanted) {
        return columns.stream().filter(column -> column.name().equalsIgnoreCase(wanted)).findFirst();
    }

    /** Those of a machine. */
    @FunctionalInterface
    public interface Shelf extends Function<String, Optional<Brought>> {
        Shelf EMPTY = name -> Optional.empty();
    }
}
