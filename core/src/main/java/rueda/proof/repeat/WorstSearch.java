package rueda.proof.repeat;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.concurrent.Callable;
import java.util.function.ToDoubleFunction;
import java.util.stream.IntStream;
import org.hipparchus.exception.MathRuntimeException;
import org.hipparchus.optim.InitialGuess;
import org.hipparchus.optim.MaxEval;
import org.hipparchus.optim.SimpleBounds;
import org.hipparchus.optim.nonlinear.scalar.GoalType;
import org.hipparchus.optim.nonlinear.scalar.ObjectiveFunction;
import org.hipparchus.optim.nonlinear.scalar.noderiv.BOBYQAOptimizer;
import org.hipparchus.optim.univariate.BrentOptimizer;
import org.hipparchus.optim.univariate.SearchInterval;
import org.hipparchus.optim.univariate.UnivariateObjectiveFunction;
import org.hipparchus.random.SobolSequenceGenerator;
import rueda.machine.Condition;

/**
 * Looks for the case with the least room: first all over (corners, then a Sobol sequence: Joe and Kuo, 2008), then with every value of each list in the worst of
 * those, then from the worst ones on by quadratic models within a shrinking region (Powell, <i>The BOBYQA algorithm for bound constrained optimization without
 * derivatives</i>, 2009), several at once, each with its own part of the runs. Ranges are scaled to 0 … 1. Which runs there are depends on the seed and on what
 * was found, never on the number of threads.
 */
final class WorstSearch {

    /** at once, each with its own part of the runs */
    private static final int STARTS = 2;
    private static final int MOST_CORNERS = 64;
    /** of the runs that go all over */
    private static final double EVERYWHERE = 0.4;
    private static final double FIRST_REGION = 0.12;
    private static final double LAST_REGION = 1e-5;
    private static final int FEW = 3;

    /** Runs cases. */
    interface Runner {
        /** All of them, on as many threads as there are. @param first number of the first */
        List<Outcome> all(int first, List<Case> cases) throws InterruptedException;

        /** Work that runs cases itself, one after the other, each piece on a thread. */
        void each(List<Callable<Void>> work) throws InterruptedException;

        /** On this thread. */
        Outcome one(int number, Case one);
    }

    private final List<Condition> conditions;
    private final int runs;
    private final long seed;
    private final ToDoubleFunction<Outcome> score;

    /** @param score least where it is worst */
    WorstSearch(List<Condition> conditions, int runs, long seed, ToDoubleFunction<Outcome> score) {
        this.conditions = conditions;
        this.runs = runs;
        this.seed = seed;
        this.score = score;
    }

    void run(Runner runner) throws InterruptedException {
        if (conditions.isEmpty()) {
            runner.all(0, List.of(Case.nominal(0)));
            return;
        }
        List<double[]> points = new ArrayList<>(everywhere(Math.max(1, (int) (EVERYWHERE * runs))));
        List<Outcome> found = new ArrayList<>(runner.all(0, points.stream().map(this::at).toList()));
        List<double[]> lists = listed(points.get(worst(found, 1).get(0)), runs - points.size());
        found.addAll(runner.all(points.size(), lists.stream().map(this::at).toList()));
        points.addAll(lists);
        List<Integer> begins = worst(found, STARTS);
        int left = runs - points.size();
        List<Callable<Void>> work = new ArrayList<>();
        for (int s = 0; s < begins.size(); s++) {
            int first = points.size() + left * s / begins.size();
            int most = points.size() + left * (s + 1) / begins.size() - first;
            Climb climb = new Climb(runner, points.get(begins.get(s)), score.applyAsDouble(found.get(begins.get(s))), first, most);
            work.add(() -> {
                climb.run();
                return null;
            });
        }
        runner.each(work);
    }

    private List<Integer> worst(List<Outcome> found, int count) {
        return IntStream.range(0, found.size()).boxed().sorted(Comparator.comparingDouble((Integer i) -> score.applyAsDouble(found.get(i)))).limit(count).toList();
    }

    /** A point with each of the other values of each list. */
    private List<double[]> listed(double[] point, int most) {
        List<double[]> points = new ArrayList<>();
        for (int d = 0; d < conditions.size(); d++) {
            int values = conditions.get(d).hasRange() ? 0 : conditions.get(d).size();
            for (int v = 0; v < values && points.size() < most; v++) {
                double[] other = point.clone();
                other[d] = (v + 0.5) / values;
                if ((int) Math.min(values - 1, point[d] * values) != v) {
                    points.add(other);
                }
            }
        }
        return points;
    }

    private List<double[]> everywhere(int count) {
        int dimensions = conditions.size();
        List<double[]> points = new ArrayList<>();
        int corners = dimensions < 31 && 1 << dimensions <= Math.min(MOST_CORNERS, count / 2) ? 1 << dimensions : 0;
        for (int corner = 0; corner < corners; corner++) {
            int bits = corner;
            points.add(IntStream.range(0, dimensions).mapToDouble(d -> bits >> d & 1).toArray());
        }
        SobolSequenceGenerator sobol = new SobolSequenceGenerator(dimensions);
        sobol.skipTo(1 + (int) Math.floorMod(seed, 1000L));
        while (points.size() < count) {
            points.add(sobol.nextVector());
        }
        return points;
    }

    private Case at(double[] point) {
        Case next = Case.nominal(point.length);
        for (int d = 0; d < point.length; d++) {
            next = next.with(d, Cases.drawn(conditions.get(d), Math.max(0, Math.min(1, point[d]))));
        }
        return next;
    }

    /** Goes on from a place with a number of runs: the ranges change, of lists the values stay. */
    private final class Climb {
        private final Runner runner;
        private final int[] ranges = IntStream.range(0, conditions.size()).filter(d -> conditions.get(d).hasRange()).toArray();
        private final int first;
        private final int most;
        private double[] best;
        private double least;
        private int done;

        Climb(Runner runner, double[] begin, double least, int first, int most) {
            this.runner = runner;
            this.first = first;
            this.most = most;
            this.least = least;
            best = begin.clone();
        }

        /** Its runs are used up. */
        private static final class Used extends RuntimeException {
            Used() {
                super(null, null, false, false);
            }
        }

        void run() {
            double region = FIRST_REGION;
            try {
                while (ranges.length > 0 && region > LAST_REGION) {
                    double before = least;
                    within(region);
                    region *= least < before ? 0.5 : 0.2;
                }
            } catch (Used ended) {
                // as planned
            }
        }

        private void within(double region) {
            double[] begin = IntStream.of(ranges).mapToDouble(d -> best[d]).toArray();
            double[] zero = new double[begin.length];
            double[] one = new double[begin.length];
            Arrays.fill(one, 1);
            MaxEval enough = new MaxEval(Math.max(1, 2 * most));
            try {
                if (begin.length == 1) {
                    double low = Math.max(0, begin[0] - region);
                    new BrentOptimizer(1e-6, LAST_REGION).optimize(enough, GoalType.MINIMIZE, new UnivariateObjectiveFunction(x -> room(new double[] {x})), new SearchInterval(low, Math.min(1, begin[0] + region), begin[0] > low ? begin[0] : low));
                } else {
                    new BOBYQAOptimizer(points(begin.length), region, region / 1000).optimize(enough, GoalType.MINIMIZE, new InitialGuess(begin), new SimpleBounds(zero, one), new ObjectiveFunction(this::room));
                }
            } catch (MathRuntimeException stuck) {
                // what it has found stays; the next region is smaller
            }
        }

        /** A whole quadratic model where that takes few runs. */
        private int points(int dimensions) {
            return dimensions <= FEW ? (dimensions + 1) * (dimensions + 2) / 2 : 2 * dimensions + 1;
        }

        private double room(double[] changed) {
            if (done == most) {
                throw new Used();
            }
            double[] point = best.clone();
            for (int i = 0; i < ranges.length; i++) {
                point[ranges[i]] = Math.max(0, Math.min(1, changed[i]));
            }
            double here = score.applyAsDouble(runner.one(first + done++, at(point)));
            if (here < least) {
                least = here;
                best = point;
            }
            return Double.isInfinite(here) ? NO_NUMBER : here;
        }
    }

    /** What stands for room without a number: the models want one. */
    private static final double NO_NUMBER = 10;
}
