package rueda.proof;

import java.util.Arrays;
import java.util.OptionalDouble;
import java.util.stream.DoubleStream;
import java.util.stream.IntStream;
import org.hipparchus.analysis.UnivariateFunction;
import org.hipparchus.optim.MaxEval;
import org.hipparchus.optim.nonlinear.scalar.GoalType;
import org.hipparchus.optim.univariate.BrentOptimizer;
import org.hipparchus.optim.univariate.SearchInterval;
import org.hipparchus.optim.univariate.UnivariateObjectiveFunction;

/**
 * Lays one signal over another: by how much its times are moved so that the mean square of the difference is least. First at every one of some thousand shifts, with as many
 * samples; then about the best of them, continuously, by Brent's method (Brent, Algorithms for Minimization without Derivatives, 1973, chapter 5). There a difference d counts
 * as ln(1 + (d/s)²), s their usual size (the Cauchy estimator; Huber and Ronchetti, Robust Statistics, 2009, chapter 4): a position that jumps when it is referenced, and lies
 * between two samples of the recording then, would pull the least squares to itself.
 */
final class Overlay {

    private static final int COARSE = 2000;
    private static final int FINE = 20_000;
    private static final int PASSES = 3;
    /** Share of what moves in the shorter of them that has to lie over the other one; less tells nothing (our choice). */
    private static final double LEAST_OVER = 0.6;

    private final Samples of;
    private final Samples over;

    /** Samples at even times. @param first time of the first, s  @param interval s */
    record Samples(double first, double interval, double[] values) {
        double end() {
            return first + (values.length - 1) * interval;
        }

        double at(double time) {
            double place = (time - first) / interval;
            int k = (int) Math.floor(place);
            if (k < 0 || k >= values.length - 1) {
                return k == values.length - 1 && place == k ? values[k] : Double.NaN;
            }
            double share = place - k;
            return values[k] * (1 - share) + values[k + 1] * share;
        }

        /** The same with another interval. */
        Samples every(double other) {
            int count = (int) Math.floor((end() - first) / other) + 1;
            double[] fewer = new double[count];
            Arrays.setAll(fewer, i -> at(first + i * other));
            return new Samples(first, other, fewer);
        }

        double mean() {
            return Arrays.stream(values).filter(v -> !Double.isNaN(v)).average().orElse(0);
        }
    }

    private Overlay(Samples of, Samples over) {
        this.of = of;
        this.over = over;
    }

    /** @return s that are added to the times of the second so that it lies over the first; empty where nothing of them moves, or nothing fits */
    static OptionalDouble shift(Samples of, Samples over) {
        return new Overlay(of, over).shift();
    }

    private OptionalDouble shift() {
        double step = Math.max(Math.min(of.interval, over.interval), Math.max(of.end() - of.first, over.end() - over.first) / COARSE);
        Samples a = of.every(step);
        Samples b = over.every(step);
        double[] deviations = squares(b);
        double all = Arrays.stream(deviations).sum();
        double[] ofFirst = squares(a);
        double allOfFirst = Arrays.stream(ofFirst).sum();
        if (all == 0 || allOfFirst == 0) {
            return OptionalDouble.empty();
        }
        int best = Integer.MIN_VALUE;
        double least = Double.POSITIVE_INFINITY;
        for (int lag = -b.values.length + 2; lag < a.values.length - 1; lag++) {
            double here = coarse(a.values, b.values, lag, deviations, all, ofFirst, allOfFirst);
            if (here < least) {
                least = here;
                best = lag;
            }
        }
        if (best == Integer.MIN_VALUE) {
            return OptionalDouble.empty();
        }
        double about = a.first - b.first + best * step;
        double finer = Math.max(of.interval, (of.end() - of.first) / FINE);
        for (int pass = 0; pass < PASSES; pass++) {
            double usual = usual(about, finer);
            UnivariateFunction apart = shift -> apart(shift, finer, usual);
            about = new BrentOptimizer(1e-10, 1e-9).optimize(new MaxEval(200), new UnivariateObjectiveFunction(apart), GoalType.MINIMIZE, new SearchInterval(about - step, about + step, about)).getPoint();
        }
        return OptionalDouble.of(about);
    }

    private static double[] squares(Samples samples) {
        double mean = samples.mean();
        return Arrays.stream(samples.values).map(v -> Double.isNaN(v) ? 0 : (v - mean) * (v - mean)).toArray();
    }

    /** Mean square of the difference; infinite where too little of what moves lies over the other. */
    private static double coarse(double[] a, double[] b, int lag, double[] deviations, double all, double[] ofFirst, double allOfFirst) {
        double sum = 0;
        double over = 0;
        double overFirst = 0;
        int count = 0;
        for (int k = Math.max(0, -lag); k < b.length && k + lag < a.length; k++) {
            double d = a[k + lag] - b[k];
            over += deviations[k];
            overFirst += ofFirst[k + lag];
            if (!Double.isNaN(d)) {
                sum += d * d;
                count++;
            }
        }
        return count == 0 || Math.max(over / all, overFirst / allOfFirst) < LEAST_OVER ? Double.POSITIVE_INFINITY : sum / count;
    }

    /** The median of the differences at a shift, as a standard deviation: 1.4826 times, as of a normal distribution. */
    private double usual(double shift, double step) {
        double[] sorted = differences(shift, step).map(Math::abs).sorted().toArray();
        double median = sorted.length == 0 ? 0 : sorted[sorted.length / 2];
        return median > 0 ? 1.4826 * median : Double.MIN_NORMAL;
    }

    private DoubleStream differences(double shift, double step) {
        double from = Math.max(of.first, over.first + shift);
        int count = (int) Math.floor((Math.min(of.end(), over.end() + shift) - from) / step);
        return IntStream.rangeClosed(0, count).mapToDouble(i -> of.at(from + i * step) - over.at(from + i * step - shift)).filter(d -> !Double.isNaN(d));
    }

    private double apart(double shift, double step, double usual) {
        return differences(shift, step).map(d -> Math.log1p(d / usual * (d / usual))).average().orElse(Double.MAX_VALUE);
    }
}
