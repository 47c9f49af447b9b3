package rueda.recording;

/** One signal that can be looked at anywhere. Samples are numbered from 0 in the order of their times, which do not fall. */
public interface Sampled {

    /** How many there are. */
    long samples();

    /** Its lowest and highest values, block by block. */
    Overview overview();

    /**
     * Samples one after the other.
     *
     * @param first first wanted, 0 or more
     * @param last  the one behind the last wanted, {@link #samples()} at most
     */
    void read(long first, long last, Sink sink);

    /** Takes samples in order. */
    @FunctionalInterface
    interface Sink {
        /** @param nanos time, ns  @param value in its unit, NaN where nothing was recorded */
        void take(long nanos, double value);
    }
}
