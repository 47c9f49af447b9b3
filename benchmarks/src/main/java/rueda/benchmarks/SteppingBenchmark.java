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
import org.openjdk.jmh.annotations.Param;
import org.openjdk.jmh.annotations.Scope;
import org.openjdk.jmh.annotations.Setup;
import org.openjdk.jmh.annotations.State;
import org.openjdk.jmh.annotations.Warmup;
import rueda.bench.Bench;
import rueda.machine.Axis;
import rueda.machine.Homing;
import rueda.machine.DemoMachine;
import rueda.machine.Machine;
import rueda.machine.Plc;
import rueda.machine.Station;

/** One bus cycle of 1 ms (8 sub-steps) of the whole bench, with every axis moving, against the bare loop. */
@State(Scope.Benchmark)
@BenchmarkMode(Mode.AverageTime)
@OutputTimeUnit(TimeUnit.NANOSECONDS)
@Warmup(iterations = 12, time = 1)
@Measurement(iterations = SteppingBenchmark.ITERATIONS, time = 1)
@Fork(1)
public class SteppingBenchmark {

    static final int ITERATIONS = 15;
    static final int SUB_STEPS = 8;

    @Param({"1", "32", "128"})
    public int axes;

    private Bench bench;
    private BareLoop[] bare;

    @Setup
    public void prepare() {
        bench = new Bench(machine(axes), 1000);
        bench.run(2);
        bare = new BareLoop[axes];
        for (int i = 0; i < axes; i++) {
            bare[i] = new BareLoop();
            bare[i].angle = 300;
            bare[i].demand = 300;
        }
    }

    /** Axes that go to and fro for ever, by a program in Structured Text. */
    static Machine machine(int count) {
        return machine(count, count);
    }

    /** Of which the first ones go to and fro, the others stand. */
    static Machine machine(int count, int moving) {
        Machine demo = DemoMachine.create();
        StringBuilder variables = new StringBuilder();
        StringBuilder body = new StringBuilder();
        List<Axis> list = new ArrayList<>();
        for (int i = 0; i < count; i++) {
            String name = "A" + i;
            Axis axis = demo.axes().get(0).withName(name).withHoming(Homing.search(37, 120, 12, 800, 0));
            list.add(axis.withStation(new Station(unbound(axis.station().outputs()), unbound(axis.station().inputs()))));
            variables.append(String.format("P%1$d : MC_Power; H%1$d : MC_Home; Go%1$d, Back%1$d : MC_MoveAbsolute;%n", i));
            body.append(String.format("P%1$d(Axis := A%1$d, Enable := TRUE); H%1$d(Axis := A%1$d, Execute := P%1$d.Status);%n", i));
            body.append(i >= moving ? "" : String.format("Go%1$d(Axis := A%1$d, Execute := H%1$d.Done AND NOT Go%1$d.Done AND NOT Back%1$d.Busy, Position := 800.0, Velocity := 400.0, Acceleration := 2000.0);%n"
                    + "Back%1$d(Axis := A%1$d, Execute := H%1$d.Done AND NOT Go%1$d.Busy AND NOT Back%1$d.Done, Position := 0.0, Velocity := 400.0, Acceleration := 2000.0);%n", i));
        }
        String source = "PROGRAM P VAR " + variables + "END_VAR\n" + body + "END_PROGRAM";
        return new Machine("benchmark", demo.bus(), new Plc(2000, 1_000_000, source), list, demo.proofs());
    }

    private static List<Station.Entry> unbound(List<Station.Entry> entries) {
        return entries.stream().map(e -> new Station.Entry(e.object(), e.subIndex(), e.bits(), "", "")).toList();
    }

    @Benchmark
    public long bench() {
        bench.cycle();
        return bench.now();
    }

    @Benchmark
    public double bareLoop() {
        double sum = 0;
        for (BareLoop loop : bare) {
            loop.cycle(SUB_STEPS);
            sum += loop.angle;
        }
        return sum;
    }
}
