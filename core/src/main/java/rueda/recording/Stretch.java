package rueda.recording;

import java.util.Arrays;

/**
 * What is drawn of a signal between two times: all its samples where few are there, else of every interval the lowest and the highest, each at its own time.
 * Immutable; the arrays are not to be changed.
 *
 * @param nanos  ns, not falling
 * @param values NaN where nothing was recorded
 * @param whole  every sample is there
 */
public record Stretch(long[] nanos, double[] values, boolean whole) {

    /**
     * The samples around it belong to it too, so that a line reaches its edges.
     *
     * @param from   ns
     * @param to     ns, {@code from} or more
     * @param points about how many, 4 or more; never more than that and 4 besides
     */
    public static Stretch of(Sampled signal, long from, long to, int points) {
        Overview overview = signal.overview();
        if (overview.blocks() == 0) {
            return new Stretch(new long[0], new double[0], true);
        }
        int first = overview.lastBefore(from);
        int last = overview.until(to);
        long samples = Math.min(signal.samples(), (last + 2L) * Overview.BLOCK) - first * (long) Overview.BLOCK;
        int blocks = last - first + 1;
        if (blocks >= points / 2) {
            return ofBlocks(overview, first, blocks, points / 2);
        }
        Samples all = new Samples((int) samples);
        signal.read(first * (long) Overview.BLOCK, first * (long) Overview.BLOCK + samples, all);
        return all.between(from, to, points);
    }

    /** Of every interval of blocks the lowest and the highest. */
    private static Stretch ofBlocks(Overview o, int first, int blocks, int intervals) {
        Drawn drawn = new Drawn(2 * intervals);
        for (int i = 0; i < intervals; i++) {
            int from = first + (int) ((long) blocks * i / intervals);
            int to = first + (int) ((long) blocks * (i + 1) / intervals);
            int low = from;
            int high = from;
            for (int b = from; b < to; b++) {
                low = o.low()[b] < o.low()[low] || Double.isNaN(o.low()[low]) ? b : low;
                high = o.high()[b] > o.high()[high] || Double.isNaN(o.high()[high]) ? b : high;
            }
            drawn.two(o.lowAt()[low], o.low()[low], o.highAt()[high], o.high()[high]);
        }
        return drawn.stretch(false);
    }

    /** Samples that have been read. */
    private static final class Samples implements Sampled.Sink {
        private final long[] nanos;
        private final double[] values;
        private int count;

        Samples(int most) {
            nanos = new long[most];
            values = new double[most];
        }

        @Override
        public void take(long time, double value) {
            nanos[count] = time;
            values[count] = value;
            count++;
        }

        Stretch between(long from, long to, int points) {
            int first = 0;
            while (first + 1 < count && nanos[first + 1] < from) {
                first++;
            }
            int last = count - 1;
            while (last > first && nanos[last - 1] > to) {
                last--;
            }
            int shown = last - first + 1;
            if (shown <= points) {
                return new Stretch(Arrays.copyOfRange(nanos, first, last + 1), Arrays.copyOfRange(values, first, last + 1), true);
            }
            int intervals = points / 2;
            /* the samples beside the edges stand alone, so that no line begins or ends inside */
            Drawn drawn = new Drawn(2 * intervals + 4);
            drawn.two(nanos[first], values[first], nanos[first], values[first]);
            for (int i = 0; i < intervals; i++) {
                int begin = first + (int) ((long) shown * i / intervals);
                int end = first + (int) ((long) shown * (i + 1) / intervals);
                int low = begin;
                int high = begin;
                for (int k = begin; k < end; k++) {
                    low = values[k] < values[low] || Double.isNaN(values[low]) ? k : low;
                    high = values[k] > values[high] || Double.isNaN(values[high]) ? k : high;
                }
                drawn.two(nanos[low], values[low], nanos[high], values[high]);
            }
            drawn.two(nanos[last], values[last], nanos[last], values[last]);
            return drawn.stretch(false);
        }
    }

    /** Points in the order of their times. */
    private static final class Drawn {
        private final long[] nanos;
        private final double[] values;
        private int count;

        Drawn(int most) {
            nanos = new long[most];
            values = new double[most];
        }

        void two(long lowAt, double low, long highAt, double high) {
            boolean lowFirst = lowAt <= highAt;
            add(lowFirst ? lowAt : highAt, lowFirst ? low : high);
            if (lowAt != highAt || Double.compare(low, high) != 0) {
                add(lowFirst ? highAt : lowAt, lowFirst ? high : low);
            }
        }

        private void add(long time, double value) {
            if (count > 0 && nanos[count - 1] == time && (values[count - 1] == value || Double.isNaN(value))) {
                return;
            }
            nanos[count] = time;
            values[count] = value;
            count++;
        }

        Stretch stretch(boolean whole) {
            return new Stretch(Arrays.copyOf(nanos, count), Arrays.copyOf(values, count), whole);
        }
    }

    @Override
    public boolean equals(Object other) {
        return other instanceof Stretch that && Arrays.equals(nanos, that.nanos) && Arrays.equals(values, that.values);
    }

    @Override
    public int hashCode() {
        return 31 * Arrays.hashCode(nanos) + Arrays.hashCode(values);
    }

    @Override
    public String toString() {
        return nanos.length + " points";
    }
}
