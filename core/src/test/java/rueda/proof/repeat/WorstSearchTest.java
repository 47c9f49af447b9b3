package rueda.proof.repeat;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.Callable;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.function.ToDoubleFunction;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import rueda.machine.Circumstance;
import rueda.machine.Condition;
import rueda.machine.Mistake;
import rueda.machine.Plan;
import rueda.machine.Proof;

/** The search finds at least as bad a case as random draws ten times as many, on planted problems whose worst case is known. */
class WorstSearchTest {

    private static final int RUNS = 200;

    /** Rooms by a formula instead of runs of a bench. */
    private static final class Formula implements WorstSearch.Runner {
        private final ToDoubleFunction<double[]> room;
        private final Outcome[] outcomes = new Outcome[RUNS];
        private final int threads;

        Formula(ToDoubleFunction<double[]> room, int threads) {
            this.room = room;
            this.threads = threads;
        }

        @Override
        public Outcome one(int number, Case one) {
            double margin = room.applyAsDouble(one.values());
            assertThat(outcomes[number]).as("each number once").isNull();
            outcomes[number] = new Outcome(number, one, null, new boolean[] {margin > 0}, new double[] {margin}, new double[] {margin}, List.of(""));
            return outcomes[number];
        }

        @Override
        public List<Outcome> all(int first, List<Case> cases) {
            return IntStream.range(0, cases.size()).mapToObj(i -> one(first + i, cases.get(i))).toList();
        }

        @Override
        public void each(List<Callable<Void>> work) throws InterruptedException {
            ExecutorService workers = Executors.newFixedThreadPool(threads);
            workers.invokeAll(work);
            workers.shutdown();
        }

        double least() {
            return java.util.Arrays.stream(outcomes).filter(java.util.Objects::nonNull).mapToDouble(Outcome::score).min().orElseThrow();
        }

        long ran() {
            return java.util.Arrays.stream(outcomes).filter(java.util.Objects::nonNull).count();
        }
    }

    private static double searched(List<Condition> conditions, ToDoubleFunction<double[]> room, long seed) {
        try {
            Formula runner = new Formula(room, 2);
            new WorstSearch(conditions, RUNS, seed, Outcome::score).run(runner);
            assertThat(runner.ran()).isLessThanOrEqualTo(RUNS);
            Formula alone = new Formula(room, 1);
            new WorstSearch(conditions, RUNS, seed, Outcome::score).run(alone);
            assertThat(alone.outcomes).as("the same with one thread").isEqualTo(runner.outcomes);
            return runner.least();
        } catch (InterruptedException never) {
            throw new IllegalStateException(never);
        }
    }

    private static double drawn(List<Condition> conditions, ToDoubleFunction<double[]> room, long seed) {
        Cases draws = Cases.of(new Proof("p", 1, List.of()).withConditions(conditions).withPlan(new Plan(Plan.Kind.RANDOM, 10 * RUNS, seed, 1)));
        return IntStream.range(0, draws.size()).mapToDouble(i -> room.applyAsDouble(draws.at(i).values())).min().orElseThrow();
    }

    private static List<Condition> ranges(int count) {
        List<Condition> conditions = new ArrayList<>();
        for (int i = 0; i < count; i++) {
            conditions.add(Condition.range(Circumstance.MASS, "Shuttle", 100, 200, 5));
        }
        return conditions;
    }

    private static void atLeastAsBad(List<Condition> conditions, ToDoubleFunction<double[]> room) {
        for (long seed = 1; seed <= 5; seed++) {
            assertThat(searched(conditions, room, seed)).as("seed " + seed).isLessThanOrEqualTo(drawn(conditions, room, seed));
        }
    }

    /** A resonance: room is lost around one mass and one friction only, on a slope that leads there. */
    @Test
    void aResonance() {
        atLeastAsBad(ranges(3), v -> 1 + 0.002 * Math.abs(v[2] - 130) - 1.5 / (1 + Math.pow((v[0] - 163) / 12, 2) + Math.pow((v[1] - 121) / 12, 2)));
    }

    /** The valley of Rosenbrock (1960), scaled to the ranges: its bottom is bent and flat. */
    @Test
    void aBentValley() {
        atLeastAsBad(ranges(2), v -> {
            double x = (v[0] - 150) / 25;
            double y = (v[1] - 150) / 25;
            return 0.1 + 100 * Math.pow(y - x * x, 2) + Math.pow(1 - x, 2);
        });
    }

    /** The worst of four ranges lies in a corner, with one of three mistakes. */
    @Test
    void aCornerWithAMistake() {
        List<Condition> conditions = ranges(4);
        conditions.add(Condition.mistakes("Shuttle", Mistake.CAM_BROKEN, Mistake.OWN_CLOCK, Mistake.CAM_BOUNCES));
        atLeastAsBad(conditions, v -> 3 - (v[0] - 100) / 100 - (200 - v[1]) / 100 - (v[2] - 100) / 100 * (v[3] - 100) / 100 - (v[4] == 1 ? 0.5 : 0));
    }

    @Test
    void withoutConditionsThereIsOneRun() throws InterruptedException {
        Formula runner = new Formula(v -> 1, 1);
        new WorstSearch(List.of(), RUNS, 1, Outcome::score).run(runner);
        assertThat(runner.ran()).isEqualTo(1);
    }
}
