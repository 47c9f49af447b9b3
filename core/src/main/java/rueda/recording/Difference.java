package rueda.recording;

/** One signal less another, at the times of the first; between two samples the other lies on a straight line. */
public final class Difference {

    private Difference() {
    }

    /**
     * @param minuend    at whose times it is taken
     * @param subtrahend what is taken away
     * @return NaN where one of them has nothing
     */
    public static Curve of(Curve minuend, Curve subtrahend) {
        double[] values = new double[minuend.values().length];
        long[] nanos = subtrahend.nanos();
        int after = 0;
        for (int i = 0; i < values.length; i++) {
            long time = minuend.nanos()[i];
            while (after < nanos.length && nanos[after] < time) {
                after++;
            }
            values[i] = minuend.values()[i] - at(subtrahend, after, time);
        }
        return new Curve(minuend.nanos(), values);
    }

    /** @param after the first sample that is not before the time */
    private static double at(Curve curve, int after, long time) {
        if (after == curve.nanos().length) {
            return Double.NaN;
        } else if (curve.nanos()[after] == time) {
            return curve.values()[after];
        } else if (after == 0) {
            return Double.NaN;
        }
        double share = (time - curve.nanos()[after - 1]) / (double) (curve.nanos()[after] - curve.nanos()[after - 1]);
        return curve.values()[after - 1] + share * (curve.values()[after] - curve.values()[after - 1]);
    }
}
