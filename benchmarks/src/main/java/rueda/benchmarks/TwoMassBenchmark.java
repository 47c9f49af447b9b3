package rueda.benchmarks;

import java.util.ArrayList;
import java.util.List;
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
import rueda.machine.Axis;
import rueda.machine.DemoMachine;
import rueda.machine.Homing;
import rueda.machine.Machine;
import rueda.machine.Plc;

/** One bus cycle of five endless axes with springy shafts, all turning, against the bare loop. */
@State(Scope.Benchmark)
@BenchmarkMode(Mode.AverageTime)
@OutputTimeUnit(TimeUnit.NANOSECONDS)
@Warmup(iterations = 12, time = 1)
@Measurement(iterations = SteppingBenchmark.ITERATIONS, time = 1)
@Fork(1)
public class TwoMassBenchmark {

    static final int AXES = 5;

    private Bench bench;
    private final BareTwoMassLoop[] bare = new BareTwoMassLoop[AXES];

    @Setup
    public void prepare() {
        Machine demo = DemoMachine.create();
        StringBuilder variables = new StringBuilder();
        StringBuilder body = new StringBuilder();
        List<Axis> axes = new ArrayList<>();
        for (int i = 0; i < AXES; i++) {
            axes.add(DemoMachine.table().withName("A" + i).withHoming(Homing.search(37, 20, 2, 60, 0)));
            variables.append(String.format("P%1$d : MC_Power; H%1$d : MC_Home; Go%1$d : MC_MoveRelative;%n", i));
            body.append(String.format("P%1$d(Axis := A%1$d, Enable := TRUE); H%1$d(Axis := A%1$d, Execute := P%1$d.Status);%n"
                    + "Go%1$d(Axis := A%1$d, Execute := H%1$d.Done AND NOT Go%1$d.Done, Distance := 720.0);%n", i));
        }
        bench = new Bench(new Machine("benchmark", demo.bus(), new Plc(2000, 1_000_000, "PROGRAM P VAR " + variables + "END_VAR\n" + body + "END_PROGRAM"), axes, demo.proofs()), 1000);
        bench.run(2);
        for (int i = 0; i < AXES; i++) {
            bare[i] = new BareTwoMassLoop();
            bare[i].motorAngle = 300;
            bare[i].loadAngle = 300;
            bare[i].demand = 300;
        }
    }

    @Benchmark
    public long bench() {
        bench.cycle();
        return bench.now();
    }

    @Benchmark
    public double bareLoop() {
        double sum = 0;
        for (BareTwoMassLoop loop : bare) {
            loop.cycle(SteppingBenchmark.SUB_STEPS);
            sum += loop.loadAngle;
        }
        return sum;
    }
}
