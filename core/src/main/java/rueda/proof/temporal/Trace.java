package rueda.proof.temporal;

/** Signals over time, a value of each at every sample. */
public interface Trace {

    int samples();

    /** Time from one sample to the next, s. */
    double interval();

    /** @param signal number of the signal  @param sample 0 to {@link #samples()} − 1 */
    double value(int signal, int sample);
}
