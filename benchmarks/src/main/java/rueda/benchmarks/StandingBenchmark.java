package rueda.benchmarks;

import java.util.concurrent.TimeUnit;
import org.openjdk.jmh.annotations.Benchmark;
import org.openjdk.jmh.annotations.BenchmarkMode;
import org.openjdk.jmh.annotations.Fork;
import org.openjdk.jmh.annotations.Measurement;
import org.openjdk.jmh.annotations.Mode;
import org.openjdk.jmh.annotations.OutputTimeUnit;
import org.openjdk.jmh.annotations.Scope;
import org.openjdk.jmh.annotations.Setup;
import org.openjdk.jmh.annotations.State;
import org.openjdk.jmh.annotations.Warmup;
import rueda.bench.Bench;

/** One bus cycle of two axes that go to and fro, alone and beside thirty that stand. */
@State(Scope.Benchmark)
@BenchmarkMode(Mode.AverageTime)
@OutputTimeUnit(TimeUnit.NANOSECONDS)
@Warmup(iterations = 8, time = 1)
@Measurement(iterations = 10, time = 1)
@Fork(1)
public class StandingBenchmark {

    private Bench two;
    private Bench thirtyTwo;

    @Setup
    public void prepare() {
        two = new Bench(SteppingBenchmark.machine(2, 2), 1000);
        thirtyTwo = new Bench(SteppingBenchmark.machine(32, 2), 1000);
        for (Bench bench : new Bench[] {two, thirtyTwo}) {
            bench.restWhileStill();
            bench.run(4);
        }
    }

    @Benchmark
    public void twoAlone() {
        two.cycle();
    }

    @Benchmark
    public void twoBesideThirtyThatStand() {
        thirtyTwo.cycle();
    }
}
