package rueda.recording;

/** A signal whose times are all later or earlier. */
public final class Shifted implements Sampled {

    private final Sampled signal;
    private final long nanos;

    private Shifted(Sampled signal, long nanos) {
        this.signal = signal;
        this.nanos = nanos;
    }

    /** @param nanos added to each time, ns */
    public static Sampled by(Sampled signal, long nanos) {
        return nanos == 0 ? signal : new Shifted(signal, nanos);
    }

    @Override
    public long samples() {
        return signal.samples();
    }

    @Override
    public Overview overview() {
        return signal.overview().later(nanos);
    }

    @Override
    public void read(long first, long last, Sink sink) {
        signal.read(first, last, (time, value) -> sink.take(time + nanos, value));
    }
}
