package rueda.proof;

import rueda.proof.temporal.Trace;

/** A run as sentences look at it. @param run whose samples fit into an array */
record RunTrace(RecordedRun run) implements Trace {
    @Override
    public int samples() {
        return Math.toIntExact(run.samples());
    }

    @Override
    public double interval() {
        return run.interval();
    }

    @Override
    public double value(int signal, int sample) {
        return run.value(signal, sample);
    }
}
