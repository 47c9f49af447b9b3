package rueda.benchmarks;

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

/** One bus cycle of a bench of two axes: the second one geared to the first by MC_GearIn, against both running by MC_MoveVelocity. */
@State(Scope.Benchmark)
@BenchmarkMode(Mode.AverageTime)
@OutputTimeUnit(TimeUnit.NANOSECONDS)
@Warmup(iterations = 12, time = 1)
@Measurement(iterations = SteppingBenchmark.ITERATIONS, time = 1)
@Fork(1)
public class GearedAxisBenchmark {

    private Bench geared;
    private Bench running;

    @Setup
    public void prepare() {
        geared = bench("Gear(Master := Table, Slave := Brush, Execute := Ready, RatioNumerator := 7, RatioDenominator := 2); Run(Axis := Table, Execute := Gear.InGear OR Run.Active, Velocity := 60.0);");
        running = bench("Run(Axis := Table, Execute := Ready, Velocity := 60.0); Other(Axis := Brush, Execute := Ready, Velocity := 210.0);");
    }

    private static Bench bench(String body) {
        Machine demo = DemoMachine.create();
        List<Axis> axes = List.of(demo.axis("Table").orElseThrow().withHoming(Homing.search(37, 20, 2, 60, 0)), demo.axis("Brush").orElseThrow().withHoming(Homing.search(37, 20, 2, 60, 0)));
        Bench bench = new Bench(demo.withAxes(axes).withProofs(List.of()), "PROGRAM P VAR P1, P2 : MC_Power; H1, H2 : MC_Home; Gear : MC_GearIn; Run, Other : MC_MoveVelocity; Ready : BOOL; END_VAR\n"
                + "P1(Axis := Table, Enable := TRUE); P2(Axis := Brush, Enable := TRUE); H1(Axis := Table, Execute := P1.Status); H2(Axis := Brush, Execute := P2.Status); Ready := Ready OR H1.Done AND H2.Done;\n" + body + "\nEND_PROGRAM", 1000);
        bench.run(3);
        return bench;
    }

    @Benchmark
    public long geared() {
        geared.cycle();
        return geared.now();
    }

    @Benchmark
    public long running() {
        running.cycle();
        return running.now();
    }
}
