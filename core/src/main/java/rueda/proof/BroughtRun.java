package rueda.proof;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import rueda.bench.Signal;
import rueda.machine.Machine;
import rueda.proof.temporal.Names;
import rueda.recording.Brought;
import rueda.recording.Overview;

/**
 * A recording from elsewhere as a run is looked at: at even times, between two of its samples on a straight line, bits and states as they were last. Only columns that
 * are asked for are read. Not thread-safe.
 */
final class BroughtRun implements RecordedRun {

    /** Samples of a column that are in memory. */
    private static final long MOST = 8_000_000;

    private final Machine machine;
    private final Brought brought;
    private final List<Signal> signals;
    private final SignalNames names;
    private final double[][] columns;
    private final long begins;
    private final long intervalNanos;
    private final int samples;

    /**
     * @param like     signals of a run: what of the same name is a bit, or a state, is one here
     * @param interval s from one sample to the next
     * @throws Reading.SaysNothing when it is too long for that, or empty
     */
    BroughtRun(Machine machine, Brought brought, List<Signal> like, double interval) {
        this.machine = machine;
        this.brought = brought;
        signals = new ArrayList<>();
        Map<String, Signal> known = new HashMap<>();
        like.forEach(signal -> known.putIfAbsent(signal.name().toUpperCase(Locale.ROOT), signal));
        long first = Long.MAX_VALUE;
        long last = Long.MIN_VALUE;
        for (Brought.Column column : brought.columns()) {
            Signal same = known.get(column.name().toUpperCase(Locale.ROOT));
            signals.add(same == null ? new Signal(column.name(), column.unit()) : new Signal(column.name(), column.unit(), same.bit(), same.values()));
            Overview overview = column.signal().overview();
            if (overview.blocks() > 0) {
                first = Math.min(first, overview.begins()[0]);
                last = Math.max(last, overview.end(column.signal()));
            }
        }
        names = new SignalNames(signals);
        columns = new double[signals.size()][];
        intervalNanos = Math.max(1, Math.round(interval * 1e9));
        begins = first;
        if (first > last) {
            throw new Reading.SaysNothing("The recording " + brought.name() + " has no samples.");
        }
        long count = (last - first) / intervalNanos + 1;
        if (count > MOST) {
            throw new Reading.SaysNothing("The recording " + brought.name() + " is too long to be held against a run: " + count + " samples of " + interval + " s, at most " + MOST + ". Bring in the part that matters.");
        }
        samples = (int) count;
    }

    @Override
    public Machine machine() {
        return machine;
    }

    @Override
    public List<Signal> signals() {
        return signals;
    }

    @Override
    public int signal(String name) {
        return names.find(name).map(Names.Named::number).orElse(-1);
    }

    @Override
    public long samples() {
        return samples;
    }

    @Override
    public double value(int signal, long sample) {
        return column(signal)[(int) sample];
    }

    /** How far two samples of a column are apart in the recording, s, in the mean. */
    double sampled(int column) {
        return (samples - 1) * interval() / Math.max(1, brought.columns().get(column).signal().samples() - 1);
    }

    /** All of a signal. Not to be changed. */
    double[] column(int signal) {
        if (columns[signal] == null) {
            boolean steps = signals.get(signal).bit() || !signals.get(signal).values().isEmpty();
            Even even = new Even(begins, intervalNanos, samples, steps);
            brought.columns().get(signal).signal().read(0, brought.columns().get(signal).signal().samples(), even);
            columns[signal] = even.end();
        }
        return columns[signal];
    }

    @Override
    public double time(long sample) {
        return (begins + sample * intervalNanos) * 1e-9;
    }

    @Override
    public double interval() {
        return intervalNanos * 1e-9;
    }

    /** Samples at any times as samples at even ones. */
    private static final class Even implements rueda.recording.Sampled.Sink {
        private final long begins;
        private final long interval;
        private final boolean steps;
        private final double[] values;
        private int next;
        private boolean begun;
        private long before;
        private double beforeValue;

        Even(long begins, long interval, int samples, boolean steps) {
            this.begins = begins;
            this.interval = interval;
            this.steps = steps;
            values = new double[samples];
        }

        @Override
        public void take(long nanos, double value) {
            while (next < values.length && begins + next * interval <= nanos) {
                long time = begins + next * interval;
                values[next++] = time == nanos ? value : !begun ? Double.NaN : steps ? beforeValue : beforeValue + (value - beforeValue) * ((time - before) / (double) (nanos - before));
            }
            begun = true;
            before = nanos;
            beforeValue = value;
        }

        double[] end() {
            while (next < values.length) {
                values[next++] = Double.NaN;
            }
            return values;
        }
    }
}
