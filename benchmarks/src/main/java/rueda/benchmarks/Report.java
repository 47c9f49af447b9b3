package rueda.benchmarks;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Collection;
import java.util.Locale;
import org.openjdk.jmh.results.RunResult;
import org.openjdk.jmh.runner.Runner;
import org.openjdk.jmh.runner.RunnerException;
import org.openjdk.jmh.runner.options.OptionsBuilder;
import org.openjdk.jmh.util.Statistics;

/** Runs every benchmark and writes docs/performance.md: ratios within one run, so that the machine matters little. */
public final class Report {

    private static final double CYCLE_NANOS = 1e6;

    private Report() {
    }

    public static void main(String[] arguments) throws RunnerException, IOException {
        Collection<RunResult> results = new Runner(new OptionsBuilder().include("rueda.benchmarks").shouldFailOnError(true).build()).run();
        StringBuilder page = new StringBuilder("""
                # Performance

                Written by `./rueda bench` (JMH, one fork, %d iterations of 1 s after warming up). Times belong to the machine that ran it;
                the ratios are what to compare. Whatever else runs on a machine only adds: the fastest iteration comes nearest to the
                program itself, the mean tells how busy the machine was.

                | What | Fastest | Mean | Aim |
                |---|---|---|---|
                """.formatted(SteppingBenchmark.ITERATIONS));
        for (String axes : new String[] {"1", "32", "128"}) {
            int subSteps = SteppingBenchmark.SUB_STEPS * Integer.parseInt(axes);
            Statistics bench = times(results, "SteppingBenchmark.bench", axes);
            Statistics bare = times(results, "SteppingBenchmark.bareLoop", axes);
            stepping(page, "Bench, " + axes + (axes.equals("1") ? " axis" : " axes"), bench, subSteps, "");
            stepping(page, "Bare loop of the same equations, " + axes, bare, subSteps, "about 30 ns");
            ratio(page, "Bench to bare loop, " + axes, bench, bare, "at most 2");
        }
        Statistics springy = times(results, "TwoMassBenchmark.bench", null);
        Statistics bareSpringy = times(results, "TwoMassBenchmark.bareLoop", null);
        int springySubSteps = SteppingBenchmark.SUB_STEPS * TwoMassBenchmark.AXES;
        stepping(page, "Five axes with two-mass loads", springy, springySubSteps, "at least 400 times");
        stepping(page, "Bare loop of the same equations, 5", bareSpringy, springySubSteps, "");
        ratio(page, "Two-mass bench to its bare loop, 5", springy, bareSpringy, "at most 2");
        Statistics planning = times(results, "PlanningBenchmark.jerkLimitedMove", null);
        row(page, "Planning one jerk-limited move", "%.0f ns", planning.getMin(), planning.getMean(), "below 1000 ns");
        ratio(page, "Two axes, one geared to the other, to both at a speed of their own", times(results, "GearedAxisBenchmark.geared", null), times(results, "GearedAxisBenchmark.running", null), "at most 1.1, which is 1.2 for the one that follows");
        ratio(page, "An axis that follows an encoder, to the same axis at a speed that the PLC gives", times(results, "GearedAxisBenchmark.behindEncoder", null), times(results, "GearedAxisBenchmark.besideEncoder", null), "at most 1.2");
        ratio(page, "A drive that follows an encoder to the same axis at cyclic positions", times(results, "MoveListBenchmark.following", null), times(results, "MoveListBenchmark.followerByCyclicPosition", null), "");
        ratio(page, "A drive that runs its move list to one that follows cyclic positions", times(results, "MoveListBenchmark.list", null), times(results, "MoveListBenchmark.cyclicPosition", null), "at most 1.1");
        Statistics plan = times(results, "MoveListBenchmark.planFullList", null);
        row(page, "A list of 256 entries planned and drawn", "%.2f ms", plan.getMin() / CYCLE_NANOS, plan.getMean() / CYCLE_NANOS, "below 50 ms");
        ratio(page, "Structured Text loop to the same loop in Java", times(results, "StructuredTextBenchmark.structuredText", null), times(results, "StructuredTextBenchmark.java", null), "at most 3");
        ratio(page, "A program of 1 700 statements a cycle to the same computation in Java", times(results, "StructuredTextBenchmark.cellInStructuredText", null), times(results, "StructuredTextBenchmark.cellInJava", null), "at most 3");
        Statistics compiled = times(results, "StructuredTextBenchmark.compiling", null);
        row(page, "20 000 lines of Structured Text checked and compiled", "%.0f ms", compiled.getMin() / CYCLE_NANOS, compiled.getMean() / CYCLE_NANOS, "below 1000 ms");
        Statistics checked = times(results, "BusBenchmark.layOutAndCheck", null);
        row(page, "128 stations laid out and checked", "%.1f ms", checked.getMin() / CYCLE_NANOS, checked.getMean() / CYCLE_NANOS, "below 50 ms");
        ratio(page, "Packing the images of 128 stations to copying their bytes", times(results, "BusBenchmark.pack", null), times(results, "BusBenchmark.copy", null), "at most 5");
        Statistics large = times(results, "BusBenchmark.readLargeDescription", null);
        row(page, "A description of 10 MB read, in a heap of 300 MB", "%.0f ms", large.getMin() / CYCLE_NANOS, large.getMean() / CYCLE_NANOS, "below 2000 ms");
        ratio(page, "Two axes that move beside thirty that stand, to the two alone", times(results, "StandingBenchmark.twoBesideThirtyThatStand", null), times(results, "StandingBenchmark.twoAlone", null), "at most 5");
        Statistics repeated = times(results, "RepetitionBenchmark.runs", null);
        double thousand = 1000.0 / RepetitionBenchmark.RUNS * 1e-9;
        row(page, "1 000 runs of the demo's proof of 18 s, on " + Runtime.getRuntime().availableProcessors() + " processors", "%.0f s", repeated.getMin() * thousand, repeated.getMean() * thousand, "60 s, in the end 30 s");
        page.append("""

                The bench's share beyond the bare loop is the object dictionary, the state machine, packing and unpacking of the bytes, switches,
                supervision, the PLC's task and the recording of every signal.
                """);
        Files.writeString(Path.of("..", "docs", "performance.md"), page.toString());
        System.out.println(page);
    }

    private static void stepping(StringBuilder page, String what, Statistics cycle, int subSteps, String aim) {
        String pattern = "%.0f times real time, %.1f ns per axis sub-step";
        page.append("| ").append(what).append(" | ").append(String.format(Locale.ROOT, pattern, CYCLE_NANOS / cycle.getMin(), cycle.getMin() / subSteps))
                .append(" | ").append(String.format(Locale.ROOT, pattern, CYCLE_NANOS / cycle.getMean(), cycle.getMean() / subSteps)).append(" | ").append(aim).append(" |\n");
    }

    private static void ratio(StringBuilder page, String what, Statistics of, Statistics to, String aim) {
        row(page, what, "%.2f times", of.getMin() / to.getMin(), of.getMean() / to.getMean(), aim);
    }

    private static void row(StringBuilder page, String what, String pattern, double fastest, double mean, String aim) {
        page.append("| ").append(what).append(" | ").append(String.format(Locale.ROOT, pattern, fastest)).append(" | ").append(String.format(Locale.ROOT, pattern, mean))
                .append(" | ").append(aim).append(" |\n");
    }

    private static Statistics times(Collection<RunResult> results, String name, String axes) {
        return results.stream().filter(r -> r.getParams().getBenchmark().endsWith(name) && (axes == null || axes.equals(r.getParams().getParam("axes"))))
                .findFirst().orElseThrow().getPrimaryResult().getStatistics();
    }
}
