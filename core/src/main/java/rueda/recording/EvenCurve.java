package rueda.recording;

/** A signal in memory with a sample at every interval. Thread-safe; the values are not to be changed. */
public final class EvenCurve implements Sampled {

    private final long first;
    private final long interval;
    private final double[] values;
    private volatile Overview overview;

    /**
     * @param first    time of the first sample, ns
     * @param interval ns from one sample to the next, 1 or more
     * @param values   NaN where nothing was recorded
     */
    public EvenCurve(long first, long interval, double[] values) {
        this.first = first;
        this.interval = interval;
        this.values = values;
    }

    public double[] values() {
        return values;
    }

    @Override
    public long samples() {
        return values.length;
    }

    @Override
    public Overview overview() {
        Overview made = overview;
        if (made == null) {
            Overview.Builder builder = new Overview.Builder();
            read(0, values.length, builder);
            made = builder.build();
            overview = made;
        }
        return made;
    }

    @Override
    public void read(long from, long to, Sink sink) {
        for (int i = (int) from; i < to; i++) {
            sink.take(first + i * interval, values[i]);
        }
    }
}
