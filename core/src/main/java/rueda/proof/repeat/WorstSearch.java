package rueda.proof.repeat;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.concurrent.Callable;
import java.util.function.ToDoubleFunction;
import java.util.stream.IntStream;
import org.hipparchus.exception.MathIllegalStateException;
import org.hipparchus.optim.InitialGuess;
import org.hipparchus.optim.MaxEval;
import org.hipparchus.optim.SimpleBounds;
import org.hipparchus.optim.nonlinear.scalar.GoalType;
import org.hipparchus.optim.nonlinear.scalar.ObjectiveFunction;
import org.hipparchus.optim.nonlinear.scalar.noderiv.CMAESOptimizer;
import org.hipparchus.random.SobolSequenceGenerator;
import org.hipparchus.random.Well19937c;
import rueda.machine.Condition;

/**
 * Looks for the case with the least room: first all over (corners, then a Sobol sequence: Joe and Kuo, 2008), then from the worst of those on by an evolution
 * strategy with covariance matrix adaptation (Hansen, <i>The CMA Evolution Strategy</i>), several at once, each with its own part of the runs. Conditions are
 * scaled to 0 … 1; of lists the nearest value is taken. Which runs there are depends on the seed and on what was found, never on the number of threads.
 */
final class WorstSearch {

    /** at once, each with its own part of the runs */
    private static final int STARTS = 3;
    private static final int MOST_CORNERS = 64;
    private static final double SIGMA = 0.15;

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
        int dimensions = conditions.size();
        if (dimensions == 0) {
            runner.all(0, List.of(Case.nominal(0)));
            return;
        }
        List<double[]> points = everywhere(Math.max(1, Math.min(runs, runs / 2)));
        List<Outcome> found = runner.all(0, points.stream().map(this::at).toList());
        List<double[]> begins = IntStream.range(0, found.size()).boxed().sorted(Comparator.comparingDouble((Integer i) -> score.applyAsDouble(found.get(i)))).map(points::get).limit(STARTS).toList();
        int left = runs - points.size();
        List<Callable<Void>> work = new ArrayList<>();
        for (int s = 0; s < begins.size(); s++) {
            int first = points.size() + left * s / begins.size();
            int most = points.size() + left * (s + 1) / begins.size() - first;
            double[] begin = begins.get(s);
            long own = seed * STARTS + s;
            if (most > 0) {
                work.add(() -> climb(runner, begin, first, most, own));
            }
        }
        runner.each(work);
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

    /** Goes on from a place with a number of runs. */
    private Void climb(Runner runner, double[] begin, int first, int most, long own) {
        int dimensions = begin.length;
        int[] done = {0};
        int population = 4 + (int) (3 * Math.log(dimensions));
        CMAESOptimizer optimizer = new CMAESOptimizer(most, Double.NEGATIVE_INFINITY, true, 0, 0, new Well19937c(own), false, null);
        double[] sigma = new double[dimensions];
        Arrays.fill(sigma, SIGMA);
        double[] zero = new double[dimensions];
        double[] one = new double[dimensions];
        Arrays.fill(one, 1);
        try {
            while (done[0] < most) {
                optimizer.optimize(new MaxEval(most - done[0]), GoalType.MINIMIZE, new InitialGuess(begin), new SimpleBounds(zero, one), new CMAESOptimizer.Sigma(sigma), new CMAESOptimizer.PopulationSize(population),
                        new ObjectiveFunction(point -> score.applyAsDouble(runner.one(first + done[0]++, at(point)))));
                Arrays.setAll(sigma, d -> sigma[d] / 2);
            }
        } catch (MathIllegalStateException used) {
            // its runs are used up
        }
        return null;
    }
}
