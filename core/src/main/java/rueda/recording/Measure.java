package rueda.recording;

import java.util.Arrays;
import java.util.Optional;

/**
 * What a stretch of a signal measures. Values in its unit, times in ns.
 *
 * @param samples   that have a value
 * @param mean      over time, by the trapezoidal rule
 * @param rms       root of the mean of the squares over time, by the trapezoidal rule
 * @param low       lowest value
 * @param lowAt     when it was lowest
 * @param high      highest value
 * @param highAt    when it was highest
 * @param first     value at the begin
 * @param last      value at the end
 * @param slope     of the straight line with the least squares (regression of value over time), per s
 * @param frequency of ringing about that line, Hz; NaN where it does not ring
 */
public record Measure(long samples, double mean, double rms, double low, long lowAt, double high, long highAt, double first, double last, double slope, double frequency) {

    /** Crossings that ringing has at least: two whole swings. */
    private static final int LEAST_CROSSINGS = 5;
    /** How evenly they come: standard deviation of half a swing by its mean, at most (our choice). */
    private static final double MOST_UNEVEN = 0.35;
    /** A crossing counts once the signal has been this share of its RMS on the other side, so that noise makes none (our choice). */
    private static final double BEYOND = 0.5;

    /**
     * @param from ns
     * @param to   ns, later
     * @param most samples that may be looked at
     * @return empty where nothing was recorded
     * @throws IllegalArgumentException when there are more samples than may be looked at
     */
    public static Optional<Measure> of(Sampled signal, long from, long to, long most) {
        Overview overview = signal.overview();
        if (overview.blocks() == 0) {
            return Optional.empty();
        }
        long first = overview.lastBefore(from) * (long) Overview.BLOCK;
        long last = Math.min(signal.samples(), (overview.until(to) + 1L) * Overview.BLOCK);
        if (last - first > most) {
            throw new IllegalArgumentException(last - first + " samples; at most " + most);
        }
        Sums sums = new Sums(from, to);
        signal.read(first, last, sums);
        if (sums.count == 0) {
            return Optional.empty();
        }
        Crossings crossings = new Crossings(from, to, sums);
        signal.read(first, last, crossings);
        return Optional.of(sums.measure(crossings.frequency()));
    }

    private static final class Sums implements Sampled.Sink {
        private final long from;
        private final long to;
        private long count;
        private double area;
        private double squares;
        private double time;
        private long before;
        private double beforeValue;
        private double low = Double.POSITIVE_INFINITY;
        private long lowAt;
        private double high = Double.NEGATIVE_INFINITY;
        private long highAt;
        private double first;
        /* Welford's running sums of the regression (Knuth, The Art of Computer Programming 2, 4.2.2) */
        private double meanTime;
        private double meanValue;
        private double timeTime;
        private double timeValue;
        private double valueValue;

        Sums(long from, long to) {
            this.from = from;
            this.to = to;
        }

        @Override
        public void take(long nanos, double value) {
            if (nanos < from || nanos > to || Double.isNaN(value)) {
                return;
            }
            if (count == 0) {
                first = value;
            } else {
                double dt = (nanos - before) * 1e-9;
                area += dt * (value + beforeValue) / 2;
                /* the square of a straight line, integrated */
                squares += dt * (value * value + value * beforeValue + beforeValue * beforeValue) / 3;
                time += dt;
            }
            before = nanos;
            beforeValue = value;
            if (value < low) {
                low = value;
                lowAt = nanos;
            }
            if (value > high) {
                high = value;
                highAt = nanos;
            }
            count++;
            double t = (nanos - from) * 1e-9;
            double offTime = t - meanTime;
            double offValue = value - meanValue;
            meanTime += offTime / count;
            meanValue += offValue / count;
            timeTime += offTime * (t - meanTime);
            timeValue += offTime * (value - meanValue);
            valueValue += offValue * (value - meanValue);
        }

        private double slope() {
            return timeTime > 0 ? timeValue / timeTime : 0;
        }

        /** Standard deviation about the straight line. */
        private double about() {
            return Math.sqrt(Math.max(0, valueValue - slope() * timeValue) / count);
        }

        Measure measure(double frequency) {
            boolean moment = time == 0;
            return new Measure(count, moment ? meanValue : area / time, moment ? Math.abs(meanValue) : Math.sqrt(squares / time), low, lowAt, high, highAt, first, beforeValue, slope(), frequency);
        }
    }

    private static final class Crossings implements Sampled.Sink {
        private final long from;
        private final long to;
        private final Sums sums;
        private final double beyond;
        private int side;
        private double pending = Double.NaN;
        private double before = Double.NaN;
        private double beforeTime;
        private double[] times = new double[64];
        private int count;

        Crossings(long from, long to, Sums sums) {
            this.from = from;
            this.to = to;
            this.sums = sums;
            beyond = BEYOND * sums.about();
        }

        @Override
        public void take(long nanos, double value) {
            if (nanos < from || nanos > to || Double.isNaN(value) || beyond == 0) {
                return;
            }
            double t = (nanos - from) * 1e-9;
            double off = value - sums.meanValue - sums.slope() * (t - sums.meanTime);
            if (!Double.isNaN(before) && before * off <= 0 && before != off) {
                pending = beforeTime + (t - beforeTime) * before / (before - off);
            }
            int now = off > beyond ? 1 : off < -beyond ? -1 : 0;
            if (now != 0 && now != side) {
                if (side != 0 && !Double.isNaN(pending)) {
                    times = count == times.length ? Arrays.copyOf(times, 2 * count) : times;
                    times[count++] = pending;
                }
                side = now;
            }
            before = off;
            beforeTime = t;
        }

        double frequency() {
            if (count < LEAST_CROSSINGS) {
                return Double.NaN;
            }
            double half = (times[count - 1] - times[0]) / (count - 1);
            double spread = 0;
            for (int i = 1; i < count; i++) {
                spread += Math.pow(times[i] - times[i - 1] - half, 2);
            }
            return half > 0 && Math.sqrt(spread / (count - 1)) <= MOST_UNEVEN * half ? 1 / (2 * half) : Double.NaN;
        }
    }
}
