package rueda.benchmarks;

import java.util.concurrent.TimeUnit;
import org.openjdk.jmh.annotations.Benchmark;
import org.openjdk.jmh.annotations.BenchmarkMode;
import org.openjdk.jmh.annotations.Fork;
import org.openjdk.jmh.annotations.Measurement;
import org.openjdk.jmh.annotations.Mode;
import org.openjdk.jmh.annotations.OutputTimeUnit;
import org.openjdk.jmh.annotations.Scope;
import org.openjdk.jmh.annotations.State;
import org.openjdk.jmh.annotations.Warmup;
import rueda.profile.MotionProfile;

/** Planning one jerk-limited move; a different one each time, half of them without reaching the speed limit. */
@State(Scope.Benchmark)
@BenchmarkMode(Mode.AverageTime)
@OutputTimeUnit(TimeUnit.NANOSECONDS)
@Warmup(iterations = 3, time = 1)
@Measurement(iterations = SteppingBenchmark.ITERATIONS, time = 1)
@Fork(1)
public class PlanningBenchmark {

    private final MotionProfile profile = new MotionProfile();
    private int number;

    @Benchmark
    public double jerkLimitedMove() {
        number = number + 1 & 1023;
        profile.plan(0, number % 7 * 0.3, 0, 0.5 + number * 0.01, 0, 5, 10, 8, 30);
        return profile.duration();
    }
}
