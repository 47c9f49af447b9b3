package rueda.proof.temporal;

/**
 * From when to when a sentence looks ahead.
 *
 * @param from s, 0 or more
 * @param to   s, {@code from} or more; infinite for no end
 */
public record Window(double from, double to) {

    /** From now on. */
    public static final Window ALWAYS = new Window(0, Double.POSITIVE_INFINITY);

    public Window {
        if (!(from >= 0) || !(to >= from) || Double.isInfinite(from)) {
            throw new IllegalArgumentException("from " + from + " s to " + to + " s");
        }
    }

    boolean endless() {
        return Double.isInfinite(to);
    }

    int first(Trace trace) {
        return samples(from, trace);
    }

    /** Not for an endless one. */
    int last(Trace trace) {
        return samples(to, trace);
    }

    private static int samples(double seconds, Trace trace) {
        return (int) Math.min(Integer.MAX_VALUE / 4, Math.round(seconds / trace.interval()));
    }
}
