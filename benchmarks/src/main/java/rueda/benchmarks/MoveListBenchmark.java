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
import rueda.advice.ListPlan;
import rueda.drive.ControlWord;
import rueda.drive.Drive;
import rueda.drive.DriveObject;
import rueda.drive.OperationMode;
import rueda.machine.Axis;
import rueda.machine.Axis.Commander;
import rueda.machine.DemoMachine;
import rueda.machine.MoveEntry;
import rueda.machine.MoveList;
import rueda.machine.Terminal.Function;
import rueda.plant.ServoPlant;

/** One bus cycle of a drive that runs its move list, or follows an encoder, against one that follows cyclic positions; and a full list planned and drawn. */
@State(Scope.Benchmark)
@BenchmarkMode(Mode.AverageTime)
@OutputTimeUnit(TimeUnit.NANOSECONDS)
@Warmup(iterations = 12, time = 1)
@Measurement(iterations = SteppingBenchmark.ITERATIONS, time = 1)
@Fork(1)
public class MoveListBenchmark {

    private static final int TARGETS = 1 << 12;

    private final byte[] nothing = {};
    private final long[] targets = new long[TARGETS];
    private Drive list;
    private Drive cyclic;
    private Drive following;
    private Drive brush;
    private Axis full;
    private int cycle;

    @Setup
    public void prepare() {
        Axis axis = DemoMachine.table().withMoves(MoveList.of(MoveEntry.goBy("90").thenGoOn(1, 0), MoveEntry.goBy("-90").thenGoOn(0, 0)));
        axis = axis.withStation(axis.station().withEntries(List.of(), List.of())).withCommandedBy(Commander.PROGRAM);
        list = enabled(axis, OperationMode.MOVE_LIST);
        list.dictionary().set(DriveObject.CONTROLWORD, ControlWord.OPERATION_ENABLED | ControlWord.NEW_SETPOINT);
        cyclic = enabled(axis, OperationMode.CYCLIC_SYNCHRONOUS_POSITION);
        Axis behind = DemoMachine.byEncoder().axes().get(0);
        behind = behind.withStation(behind.station().withEntries(List.of(), List.of())).withCommandedBy(Commander.PROGRAM).withWiring(behind.wiring().with("I5", Function.NONE));
        following = enabled(behind, OperationMode.FOLLOWING);
        following.dictionary().set(DriveObject.CONTROLWORD, ControlWord.OPERATION_ENABLED | ControlWord.NEW_SETPOINT);
        brush = enabled(behind, OperationMode.CYCLIC_SYNCHRONOUS_POSITION);
        /* begins at rest where the axis stands */
        long here = cyclic.dictionary().get(DriveObject.POSITION_ACTUAL);
        for (int k = 0; k < TARGETS; k++) {
            targets[k] = Math.floorMod(here + axis.scale().wireFromUnits(20 * (1 - Math.cos(2 * Math.PI * k / TARGETS))), axis.wireModulo());
        }
        MoveEntry[] entries = new MoveEntry[MoveList.MOST_ENTRIES];
        for (int i = 0; i < entries.length; i++) {
            entries[i] = MoveEntry.goBy(i % 2 == 0 ? "12.5" : "-12.5").thenGoOn((i + 1) % entries.length, 0.05);
        }
        full = DemoMachine.shuttle().withMoves(MoveList.of(entries));
    }

    private Drive enabled(Axis axis, int mode) {
        Drive drive = new Drive(axis, new ServoPlant(axis, 125e-6), 125_000, SteppingBenchmark.SUB_STEPS);
        drive.dictionary().set(DriveObject.MODE, mode);
        for (int word : new int[] {ControlWord.SHUTDOWN, ControlWord.SHUTDOWN, ControlWord.SWITCHED_ON, ControlWord.OPERATION_ENABLED, ControlWord.OPERATION_ENABLED}) {
            drive.dictionary().set(DriveObject.CONTROLWORD, word);
            drive.dictionary().set(DriveObject.TARGET_POSITION, drive.dictionary().get(DriveObject.POSITION_ACTUAL));
            drive.cycle(nothing, nothing);
        }
        return drive;
    }

    @Benchmark
    public double list() {
        list.cycle(nothing, nothing);
        return list.torque();
    }

    @Benchmark
    public double following() {
        following.cycle(nothing, nothing);
        return following.torque();
    }

    /** The same axis at cyclic positions of the same speed. */
    @Benchmark
    public double followerByCyclicPosition() {
        brush.dictionary().set(DriveObject.TARGET_POSITION, Math.floorMod(brush.dictionary().get(DriveObject.TARGET_POSITION) + 309, 360_000));
        brush.cycle(nothing, nothing);
        return brush.torque();
    }

    @Benchmark
    public double cyclicPosition() {
        cyclic.dictionary().set(DriveObject.TARGET_POSITION, targets[cycle++ & TARGETS - 1]);
        cyclic.cycle(nothing, nothing);
        return cyclic.torque();
    }

    @Benchmark
    public ListPlan planFullList() {
        return ListPlan.of(full, 0, 500, 1000);
    }
}
