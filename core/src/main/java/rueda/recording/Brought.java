package rueda.recording;

import java.util.List;
import java.util.Optional;
import java.util.function.Function;
import java.util.function.Predicate;

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

    /**
     * The same with all samples in memory, so that any thread may read them, and be interrupted meanwhile.
     *
     * @param wanted columns that are needed
     * @param most   samples of all columns together
     * @throws IllegalArgumentException when there are more
     */
    public Brought inMemory(Predicate<String> wanted, long most) {
        List<Column> held = columns.stream().filter(column -> wanted.test(column.name())).toList();
        long samples = held.stream().mapToLong(column -> column.signal().samples()).sum();
        if (samples > most) {
            throw new IllegalArgumentException("The recording " + name + " has " + samples + " samples of what is named; at most " + most + ".");
        }
        return new Brought(name, held.stream().map(column -> new Column(column.name(), column.unit(), Curve.of(column.signal(), 0, column.signal().samples(), (int) most))).toList());
    }

    /** By its name in any case. */
    public Optional<Column> column(String wanted) {
        return columns.stream().filter(column -> column.name().equalsIgnoreCase(wanted)).findFirst();
    }

    /** Those of a machine. */
    @FunctionalInterface
    public interface Shelf extends Function<String, Optional<Brought>> {
        Shelf EMPTY = name -> Optional.empty();

        /** These, by their names in any case. */
        static Shelf of(List<Brought> recordings) {
            return name -> recordings.stream().filter(recording -> recording.name().equalsIgnoreCase(name)).findFirst();
        }
    }
}
