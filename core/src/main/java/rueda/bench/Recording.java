package rueda.bench;

import java.util.List;
import java.util.Locale;

/**
 * One sample of every signal per bus cycle, in a ring: when it is full the oldest is overwritten.
 *
 * <p>Adding allocates nothing. Not thread-safe.
 */
public final class Recording {

    private final List<Signal> signals;
    private final double[][] rows;
    private final long cycleNanos;
    private final int capacity;
    private double[] present;
    private long count;

    /** @param capacity samples kept */
    Recording(List<Signal> signals, long cycleNanos, int capacity) {
        this.signals = List.copyOf(signals);
        this.rows = new double[capacity][signals.size()];
        this.present = rows[0];
        this.cycleNanos = cycleNanos;
        this.capacity = capacity;
    }

    void put(int signal, double value) {
        present[signal] = value;
    }

    void next() {
        count++;
        present = rows[(int) (count % capacity)];
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
        return rows[(int) (sample % capacity)][signal];
    }

    /** Time of a sample: the end of its bus cycle, s since the start. */
    public double time(long sample) {
        return (sample + 1) * (cycleNanos * 1e-9);
    }

    public long cycleNanos() {
        return cycleNanos;
    }
}
