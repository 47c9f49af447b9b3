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

/** Runs every benchmark and writes docs/performance.md: ratios within one run, so that the machine matters little. */
public final class Report {

    private static final double CYCLE_NANOS = 1e6;

    private Report() {
    }

    public static void main(String[] arguments) throws RunnerException, IOException {
        Collection<RunResult> results = new Runner(new OptionsBuilder().include("rueda.benchmarks").shouldFailOnError(true).build()).run();
        StringBuilder page = new StringBuilder("""
                # Performance

                Written by `./rueda bench` (JMH, one fork, 5 iterations of 1 s). Times belong to the machine that ran it; the ratios are
                what to compare.

                | What | Measured | Aim |
                |---|---|---|
                """);
        for (String axes : new String[] {"1", "32", "128"}) {
            double bench = score(results, "SteppingBenchmark.bench", axes);
            double bare = score(results, "SteppingBenchmark.bareLoop", axes);
            int subSteps = SteppingBenchmark.SUB_STEPS * Integer.parseInt(axes);
            row(page, "Bench, " + axes + (axes.equals("1") ? " axis" : " axes"), "%.0f times real time, %.1f ns per axis sub-step", "", CYCLE_NANOS / bench, bench / subSteps);
            row(page, "Bare loop of the same equations, " + axes, "%.1f ns per axis sub-step", "about 30 ns", bare / subSteps);
            row(page, "Bench to bare loop, " + axes, "%.2f times", "at most 2", bench / bare);
        }
        double springy = score(results, "TwoMassBenchmark.bench", null);
        double bareSpringy = score(results, "TwoMassBenchmark.bareLoop", null);
        int springySubSteps = SteppingBenchmark.SUB_STEPS * TwoMassBenchmark.AXES;
        row(page, "Five axes with two-mass loads", "%.0f times real time, %.1f ns per axis sub-step", "at least 400 times", CYCLE_NANOS / springy, springy / springySubSteps);
        row(page, "Two-mass bench to its bare loop, 5", "%.2f times (bare %.1f ns)", "at most 2", springy / bareSpringy, bareSpringy / springySubSteps);
        row(page, "Planning one jerk-limited move", "%.0f ns", "below 1000 ns", score(results, "PlanningBenchmark.jerkLimitedMove", null));
        row(page, "Structured Text loop to the same loop in Java", "%.1f times", "at most 10",
                score(results, "StructuredTextBenchmark.structuredText", null) / score(results, "StructuredTextBenchmark.java", null));
        page.append("""

                The bench's share beyond the bare loop is the object dictionary, the state machine, packing and unpacking of the bytes, switches,
                supervision, the PLC's task and the recording of every signal.
                """);
        Files.writeString(Path.of("..", "docs", "performance.md"), page.toString());
        System.out.println(page);
    }

    private static void row(StringBuilder page, String what, String pattern, String aim, Object... values) {
        page.append("| ").append(what).append(" | ").append(String.format(Locale.ROOT, pattern, values)).append(" | ").append(aim).append(" |\n");
    }

    private static double score(Collection<RunResult> results, String name, String axes) {
        return results.stream().filter(r -> r.getParams().getBenchmark().endsWith(name) && (axes == null || axes.equals(r.getParams().getParam("axes"))))
                .findFirst().orElseThrow().getPrimaryResult().getScore();
    }
}
