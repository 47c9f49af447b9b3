package rueda.bench;

import java.util.List;
import java.util.Locale;
import rueda.plc.Variable;

/**
 * One sample of every signal per bus cycle, in a ring: when it is full the oldest is overwritten. A long one lies on the disk ({@link SampleRows}). Signals of the
 * axes are taken every bus cycle; the values of the program, which change only when a task may run, are copied from the
 * controller's memory then.
 *
 * <p>Adding allocates nothing. Not thread-safe.
 */
public final class Recording {

    private final List<Signal> signals;
    private final int axisSignals;
    private final Variable[] variables;
    private final SampleRows rows;
    private final SampleRows memories;
    private final int memoryRows;
    private final long cycleNanos;
    private final int capacity;
    private final double[] present;
    /** the variables at one time */
    private final long[] memory;
    private final int cyclesPerLook;
    private int row;
    private int memoryRow;
    private long count;

    /**
     * @param signals    those of the axes, then one for each variable
     * @param variables  values of the program
     * @param cyclesPerLook bus cycles from one look at the variables to the next; the first cycle has one
     * @param capacity   samples kept
     * @param spare      room of a recording that nobody looks at any more, or null
     */
    Recording(List<Signal> signals, Variable[] variables, int cyclesPerLook, long cycleNanos, int capacity, long[] spare) {
        this.signals = List.copyOf(signals);
        this.variables = variables;
        this.axisSignals = signals.size() - variables.length;
        this.rows = new SampleRows(capacity, axisSignals, spare);
        this.cyclesPerLook = cyclesPerLook;
        /* two more than the runs in the samples kept, so that the oldest sample still has the run before it */
        this.memoryRows = capacity / cyclesPerLook + 2;
        this.memories = new SampleRows(memoryRows, variables.length, null);
        this.memory = new long[variables.length];
        this.present = new double[axisSignals];
        this.cycleNanos = cycleNanos;
        this.capacity = capacity;
    }

    /** Its room, for another recording once nobody looks at this one any more; null where it lies on the disk. */
    long[] room() {
        return rows.room();
    }

    /** The sample being taken: the signals of the axes. */
    double[] present() {
        return present;
    }

    /** Keeps the variables. @param all the controller's memory */
    void program(long[] all) {
        for (int i = 0; i < memory.length; i++) {
            memory[i] = all[variables[i].slot()];
        }
        memories.put(memoryRow, memory);
        memoryRow = memoryRow + 1 == memoryRows ? 0 : memoryRow + 1;
    }

    /** Closes the sample. */
    void next() {
        rows.put(row, present);
        count++;
        row = row + 1 == capacity ? 0 : row + 1;
    }

    public List<Signal> signals() {
        return signals;
    }

    /** Number of a signal by its name in any case, or −1. */
    public int indexOf(String name) {
        for (int i = 0; i < signals.size(); i++) {
            if (signals.get(i).name().toUpperCase(Locale.ROOT).equals(name.toUpperCase(Locale.ROOT))) {
                return i;
            }
        }
        return -1;
    }

    /** Samples taken since the start. */
    public long count() {
        return count;
    }

    /** First sample still kept. */
    public long first() {
        return Math.max(0, count - capacity);
    }

    /** @param sample {@link #first()} to {@link #count()} − 1 */
    public double value(int signal, long sample) {
        /* of a recording that has kept everything, which most are looked at, no division of long numbers */
        if (signal < axisSignals) {
            return rows.number(sample < capacity ? sample : sample % capacity, signal);
        }
        int column = signal - axisSignals;
        long look = sample < capacity ? (int) sample / cyclesPerLook : sample / cyclesPerLook % memoryRows;
        return variables[column].number(memories.value(look, column));
    }

    /** Time of a sample: the end of its bus cycle, s since the start. */
    public double time(long sample) {
        return (sample + 1) * (cycleNanos * 1e-9);
    }

    public long cycleNanos() {
        return cycleNanos;
    }
}
