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
import rueda.machine.Terminal;
import rueda.plcopen.AxisState;

/**
 * One bus cycle of a bench that follows, against the same bench whose axes run by MC_MoveVelocity: two axes of which the second one is geared to
 * the first by MC_GearIn, and the axis that follows the encoder of the infeed belt in its drive.
 */
@State(Scope.Benchmark)
@BenchmarkMode(Mode.AverageTime)
@OutputTimeUnit(TimeUnit.NANOSECONDS)
@Warmup(iterations = 12, time = 1)
@Measurement(iterations = SteppingBenchmark.ITERATIONS, time = 1)
@Fork(1)
public class GearedAxisBenchmark {

    private Bench geared;
    private Bench running;
    private Bench behindEncoder;
    private Bench beside;

    @Setup
    public void prepare() {
        Machine belt = DemoMachine.byEncoder();
        behindEncoder = new Bench(belt, 1000);
        behindEncoder.drive(0).digitalInputs().force("I5", true);
        behindEncoder.run(1);
        behindEncoder.drive(0).digitalInputs().force("I6", true);
        behindEncoder.run(3);
        if (!behindEncoder.drive(0).following().locked()) {
            throw new IllegalStateException("It does not follow.");
        }
        Axis brush = DemoMachine.create().axis("Brush").orElseThrow();
        Axis driven = brush.withFollowing(belt.axes().get(0).following()).withHoming(Homing.search(37, 20, 2, 60, 0)).withWiring(brush.wiring().with("X2", Terminal.Function.MASTER_ENCODER));
        beside = new Bench(belt.withAxes(List.of(driven)),
                "PROGRAM P VAR P1 : MC_Power; H1 : MC_Home; Run : MC_MoveVelocity; END_VAR P1(Axis := Brush, Enable := TRUE); H1(Axis := Brush, Execute := P1.Status); Run(Axis := Brush, Execute := H1.Done OR Run.Active, Velocity := 309.0); END_PROGRAM", 1000);
        beside.run(3);
        if (beside.axis(0).state() != AxisState.CONTINUOUS_MOTION) {
            throw new IllegalStateException("It does not run: " + beside.axis(0).state());
        }
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
    public long behindEncoder() {
        behindEncoder.cycle();
        return behindEncoder.now();
    }

    /** The same axis with the same belt beside it, at a speed that the PLC gives. */
    @Benchmark
    public long besideEncoder() {
        beside.cycle();
        return beside.now();
    }

    @Benchmark
    public long running() {
        running.cycle();
        return running.now();
    }
}
