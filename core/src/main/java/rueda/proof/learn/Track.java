package rueda.proof.learn;

import rueda.proof.RecordedRun;

/** A signal of a run. @param first time of its first sample, s  @param interval s */
record Track(double first, double interval, double[] values) {

    static Track of(RecordedRun run, String signal) {
        int number = run.signal(signal);
        double[] values = new double[(int) run.samples()];
        for (int k = 0; k < values.length; k++) {
            values[k] = run.value(number, k);
        }
        return new Track(run.time(0), run.interval(), values);
    }

    /** Between two samples on a straight line. @return NaN outside */
    double at(double time) {
        double place = (time - first) / interval;
        int k = (int) Math.floor(place);
        if (k < 0 || k >= values.length - 1) {
            return Double.NaN;
        }
        double share = place - k;
        return values[k] * (1 - share) + values[k + 1] * share;
    }
}
