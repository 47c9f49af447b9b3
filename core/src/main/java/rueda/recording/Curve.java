package rueda.recording;

import java.util.Arrays;

/**
 * A signal that is in memory. Immutable; the arrays are not to be changed.
 *
 * @param nanos  times, ns, not falling
 * @param values one per time, NaN where nothing was recorded
 */
public record Curve(long[] nanos, double[] values) implements Sampled {

    public Curve {
        if (nanos.length != values.length) {
            throw new IllegalArgumentException(nanos.length + " times, " + values.length + " values");
        }
    }

    /** A stretch of a signal. @param most samples that may be in memory  @throws IllegalArgumentException when there are more */
    public static Curve of(Sampled signal, long first, long last, int most) {
        if (last - first > most) {
            throw new IllegalArgumentException(last - first + " samples; at most " + most);
        }
        int count = (int) Math.max(0, last - first);
        Filling filling = new Filling(new long[count], new double[count]);
        signal.read(first, last, filling);
        return new Curve(filling.nanos, filling.values);
    }

    /** The samples between two times and those beside them. @param most samples that may be in memory  @throws IllegalArgumentException when there are more */
    public static Curve around(Sampled signal, long from, long to, int most) {
        Overview overview = signal.overview();
        if (overview.blocks() == 0) {
            return new Curve(new long[0], new double[0]);
        }
        return of(signal, overview.lastBefore(from) * (long) Overview.BLOCK, Math.min(signal.samples(), (overview.until(to) + 2L) * Overview.BLOCK), most);
    }

    private static final class Filling implements Sink {
        private final long[] nanos;
        private final double[] values;
        private int at;

        Filling(long[] nanos, double[] values) {
            this.nanos = nanos;
            this.values = values;
        }

        @Override
        public void take(long time, double value) {
            nanos[at] = time;
            values[at] = value;
            at++;
        }
    }

    @Override
    public long samples() {
        return nanos.length;
    }

    @Override
    public Overview overview() {
        Overview.Builder builder = new Overview.Builder();
        read(0, nanos.length, builder);
        return builder.build();
    }

    @Override
    public void read(long first, long last, Sink sink) {
        for (int i = (int) first; i < last; i++) {
            sink.take(nanos[i], values[i]);
        }
    }

    /**
     * The value at a time: on the straight line between the samples around it.
     *
     * @return NaN before the first sample, behind the last, and where one of the two is none
     */
    public double at(long time) {
        int found = Arrays.binarySearch(nanos, time);
        if (found >= 0) {
            return values[found];
        }
        int after = -found - 1;
        if (after == 0 || after == nanos.length) {
            return Double.NaN;
        }
        double share = (time - nanos[after - 1]) / (double) (nanos[after] - nanos[after - 1]);
        return values[after - 1] + share * (values[after] - values[after - 1]);
    }

    @Override
    public boolean equals(Object other) {
        return other instanceof Curve that && Arrays.equals(nanos, that.nanos) && Arrays.equals(values, that.values);
    }

    @Override
    public int hashCode() {
        return 31 * Arrays.hashCode(nanos) + Arrays.hashCode(values);
    }

    @Override
    public String toString() {
        return nanos.length + " samples";
    }
}
