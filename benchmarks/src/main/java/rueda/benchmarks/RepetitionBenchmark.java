package rueda.benchmarks;

import java.util.List;
import java.util.concurrent.TimeUnit;
import org.openjdk.jmh.annotations.Benchmark;
import org.openjdk.jmh.annotations.BenchmarkMode;
import org.openjdk.jmh.annotations.Fork;
import org.openjdk.jmh.annotations.Level;
import org.openjdk.jmh.annotations.Measurement;
import org.openjdk.jmh.annotations.Mode;
import org.openjdk.jmh.annotations.OutputTimeUnit;
import org.openjdk.jmh.annotations.Scope;
import org.openjdk.jmh.annotations.Setup;
import org.openjdk.jmh.annotations.State;
import org.openjdk.jmh.annotations.Warmup;
import rueda.machine.DemoMachine;
import rueda.machine.Machine;
import rueda.machine.Plan;
import rueda.machine.Proof;
import rueda.proof.repeat.Outcome;
import rueda.proof.repeat.Repetition;
import rueda.recording.Brought;

/** The demo's proof of 18 s, repeated on all processors. */
@State(Scope.Benchmark)
@BenchmarkMode(Mode.SingleShotTime)
@OutputTimeUnit(TimeUnit.NANOSECONDS)
@Warmup(iterations = 2)
@Measurement(iterations = 5)
@Fork(1)
public class RepetitionBenchmark {

    static final int RUNS = 200;

    private Machine machine;
    private Proof proof;
    private long seed;

    @Setup
    public void prepare() {
        machine = DemoMachine.create();
        proof = machine.proofs().get(0);
    }

    @Setup(Level.Iteration)
    public void otherDraws() {
        seed++;
    }

    /** {@value #RUNS} random draws of its conditions. */
    @Benchmark
    public List<Outcome> runs() {
        return Repetition.run(machine, proof.withPlan(new Plan(Plan.Kind.RANDOM, RUNS, seed, 1)), Runtime.getRuntime().availableProcessors(), Brought.Shelf.EMPTY, (done, of) -> { });
    }
}
