package rueda.bench;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.SplittableRandom;
import java.util.function.BiConsumer;
import java.util.stream.IntStream;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.DoubleRange;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import org.junit.jupiter.params.provider.ValueSource;
import rueda.bench.Stand.Disturbance;
import rueda.bus.BusFamily;
import rueda.machine.Axis;
import rueda.machine.Bus;
import rueda.machine.DemoMachine;
import rueda.machine.Load;
import rueda.machine.Machine;
import rueda.machine.Mistake;
import rueda.machine.Terminal.Function;
import rueda.machine.Travel;
import rueda.proof.ScriptRun;

/** What an axis did in an earlier bench is not worked out again, and nobody can tell: every recorded bit is that of a bench that works all of it out. */
class CourseTest {

    private static final int CYCLES = 18_000;
    private static final BiConsumer<Bench, Integer> NOTHING = (bench, k) -> { };

    /** The demo's axes, the load of one of them another. */
    private static Stand loaded(Machine machine, int axis, double times) {
        List<Axis> axes = new ArrayList<>(machine.axes());
        Load load = axes.get(axis).load();
        axes.set(axis, axes.get(axis).withLoad(new Load(load.mass() * times, load.inertia() * times, load.coulomb(), load.viscous(), load.slope(), load.stiffness(), load.damping(), load.backlash())));
        return new Stand(axes, Stand.of(machine).disturbed(), 1);
    }

    /** The reference cam of the Shuttle somewhere else: it finds its zero sooner or later, and everything after that comes sooner or later. @param by mm */
    private static Stand shifted(Machine machine, double by) {
        List<Axis> axes = new ArrayList<>(machine.axes());
        Travel t = axes.get(0).travel();
        axes.set(0, axes.get(0).withTravel(new Travel(t.length(), t.negativeLimit(), t.positiveLimit(), t.camFrom() + by, t.camTo() + by, t.parkedAt())));
        return new Stand(axes, Stand.of(machine).disturbed(), 1);
    }

    /** The operator of the demo's first proof orders a wheel: all axes have to do. */
    private static BiConsumer<Bench, Integer> ordering() {
        Map<Bench, ScriptRun> scripts = new IdentityHashMap<>();
        return (bench, k) -> scripts.computeIfAbsent(bench, b -> new ScriptRun(b, DemoMachine.create().proofs().get(0).script())).cycle();
    }

    private static Bench ran(Machine machine, ReadyProgram ready, Stand stand, int cycles, BiConsumer<Bench, Integer> touch) {
        Bench bench = new Bench(machine, ready, cycles, stand, Recorded.ALL);
        bench.restWhileStill();
        for (int k = 0; k < cycles; k++) {
            touch.accept(bench, k);
            bench.cycle();
        }
        return bench;
    }

    /** Runs beside a bench that nothing is known to, and compares every sample. @param ready of earlier benches  @return cycles of each axis that were not worked out */
    private static long[] same(Machine machine, ReadyProgram ready, Stand stand, int cycles, BiConsumer<Bench, Integer> touch) {
        Bench all = new Bench(machine, cycles, stand);
        for (int k = 0; k < cycles; k++) {
            touch.accept(all, k);
            all.cycle();
        }
        Bench knowing = ran(machine, ready, stand, cycles, touch);
        long[] rested = IntStream.range(0, machine.axes().size()).mapToLong(knowing::rested).toArray();
        assertSame(all, knowing, cycles);
        return rested;
    }

    private static void assertSame(Bench all, Bench knowing, int cycles) {
        for (int s = 0; s < all.recording().signals().size(); s++) {
            for (long k = 0; k < cycles; k++) {
                if (Double.doubleToRawLongBits(all.recording().value(s, k)) != Double.doubleToRawLongBits(knowing.recording().value(s, k))) {
                    assertThat(knowing.recording().value(s, k)).as(all.recording().signals().get(s).name() + " in cycle " + k).isEqualTo(all.recording().value(s, k));
                }
            }
        }
        for (int i = 0; i < all.machine().axes().size(); i++) {
            assertThat(knowing.inputBytes(i)).isEqualTo(all.inputBytes(i));
            /* also what nobody recorded: drive, plant and guard as they are in the end */
            assertThat(knowing.drive(i).plant().place()).isEqualTo(all.drive(i).plant().place());
            assertThat(knowing.drive(i).state()).isEqualTo(all.drive(i).state());
            assertThat(knowing.drive(i).outputLevels()).isEqualTo(all.drive(i).outputLevels());
            if (all.watch(i) != null) {
                assertThat(knowing.watch(i).phase()).isEqualTo(all.watch(i).phase());
            }
        }
    }

    /** The program orders the others sooner or later than before, and they do the same then. */
    @Test
    void withAnotherShuttleTheOthersDoWhatTheyDid() {
        Machine demo = DemoMachine.create();
        ReadyProgram ready = ReadyProgram.of(demo);
        ran(demo, ready, Stand.of(demo), CYCLES, ordering());
        for (Stand stand : List.of(loaded(demo, 0, 1.5), shifted(demo, -7), shifted(demo, 5))) {
            long[] rested = same(demo, ready, stand, CYCLES, ordering());
            assertThat(rested[0]).isLessThan(CYCLES);
            for (int i = 1; i < 5; i++) {
                assertThat(rested[i]).as(demo.axes().get(i).name()).isEqualTo(CYCLES);
            }
        }
    }

    /** A machine whose Lift begins a while after the Shuttle has found its zero, when it has stood for long. @param cycle of the guards, ms */
    private static Machine waiting(double cycle) {
        Machine demo = DemoMachine.create();
        return demo.withAxes(List.of(demo.axes().get(0), demo.axes().get(1)).stream().map(axis -> axis.withGuard(axis.guard().withCycle(cycle))).toList()).withProofs(List.of()).withProgram("""
                PROGRAM Main
                VAR first, second : MC_Power; home, reference : MC_Home; go : MC_MoveRelative; later : TON; END_VAR
                first(Axis := Shuttle, Enable := TRUE); second(Axis := Lift, Enable := TRUE);
                home(Axis := Shuttle, Execute := first.Status); reference(Axis := Lift, Execute := second.Status);
                later(IN := home.Done AND reference.Done, PT := T#6s);
                go(Axis := Lift, Execute := later.Q, Distance := 50.0, Velocity := 60.0, Acceleration := 500.0, Deceleration := 500.0);
                END_PROGRAM
                """);
    }

    /** It begins, moves and ends sooner or later by whole cycles of the program, which are no whole cycles of the guard: those keep their own time. */
    @ParameterizedTest
    @ValueSource(doubles = {2, 3.125})
    void standingForAnotherTime(double cycle) {
        Machine machine = waiting(cycle);
        int cycles = 14_000;
        ReadyProgram ready = ReadyProgram.of(machine);
        ran(machine, ready, shifted(machine, 2), cycles, NOTHING);
        for (double by : new double[] {-6, 0, 6}) {
            same(machine, ready, shifted(machine, by), cycles, NOTHING);
            for (int asked : new int[] {10_500, 12_200, 13_700}) {
                same(machine, ready, shifted(machine, by), asked + 40, (bench, k) -> {
                    if (k == asked) {
                        bench.ask(0, false, false);
                    } else if (k == asked + 20) {
                        bench.ask(1, true, false);
                    }
                });
            }
        }
    }

    /** What rested in one bench is known to one in which nothing rests. */
    @Test
    void aBenchThatNeverRests() {
        Machine machine = waiting(3.125);
        int cycles = 13_000;
        ReadyProgram ready = ReadyProgram.of(machine);
        ran(machine, ready, shifted(machine, 2), cycles, NOTHING);
        Bench all = new Bench(machine, cycles, Stand.of(machine));
        Bench knowing = new Bench(machine, ready, cycles, Stand.of(machine), Recorded.ALL);
        for (int k = 0; k < cycles; k++) {
            all.cycle();
            knowing.cycle();
        }
        assertSame(all, knowing, cycles);
    }

    /** Whoever touches an axis has it worked out up to there: at any moment, whatever it does then. */
    @Property(tries = 5)
    void touchesAtAnyMoment(@ForAll long seed, @ForAll @DoubleRange(min = -10, max = 10) double by) {
        Machine demo = DemoMachine.create();
        ReadyProgram ready = ReadyProgram.of(demo);
        int cycles = 12_000;
        ran(demo, ready, Stand.of(demo), cycles, ordering());
        int[] at = new SplittableRandom(seed).ints(8, 0, cycles).toArray();
        int axis = new SplittableRandom(seed + 1).nextInt(5);
        same(demo, ready, shifted(demo, by), cycles, ordering().andThen((bench, k) -> {
            if (k == at[0]) {
                bench.push(axis, 30);
            } else if (k == at[1]) {
                bench.load(axis, bench.load(axis) * 1.2);
            } else if (k == at[2]) {
                bench.forceInput((axis + 1) % 5, "I4", false);
            } else if (k == at[3]) {
                bench.breakSomething((axis + 2) % 5, Mistake.NEGATIVE_LIMIT_BROKEN, true);
            } else if (k == at[4]) {
                bench.restartDevice((axis + 3) % 5);
            } else if (k == at[5]) {
                bench.switchOff((axis + 4) % 5);
            } else if (k == at[6]) {
                bench.breakSomething(axis, Mistake.OWN_CLOCK, true);
            } else if (k == at[7]) {
                bench.ask(0, false, false);
            }
        }));
    }

    /** Orders that go by the mailbox are part of what an axis gets: none, the same, a later one, an earlier one, another one; and what was written stays written. */
    @Test
    void theMailboxIsPartOfWhatItGets() {
        Axis axis = DemoMachine.create().axes().get(0);
        Machine machine = DemoMachine.create().withProofs(List.of()).withAxes(List.of(axis.withWiring(axis.wiring().with("Q2", Function.SET_OVER_BUS))))
                .withProgram("PROGRAM Main VAR order : BOOL; wanted : BOOL; Set : MC_WriteDigitalOutput; END_VAR\n"
                        + "Set(Axis := Shuttle, Execute := order, OutputNumber := 1, Value := wanted);\nEND_PROGRAM");
        List<BiConsumer<Bench, Integer>> orders = List.of(NOTHING, ordered(500, true), ordered(900, true), ordered(500, false), (bench, k) -> {
            ordered(500, true).accept(bench, k);
            if (k == 1500) {
                bench.push(0, 40);
            }
        });
        for (BiConsumer<Bench, Integer> first : orders) {
            ReadyProgram ready = ReadyProgram.of(machine);
            ran(machine, ready, Stand.of(machine), 2000, first);
            orders.forEach(then -> same(machine, ready, Stand.of(machine), 2000, then));
        }
    }

    private static BiConsumer<Bench, Integer> ordered(int cycle, boolean wanted) {
        return (bench, k) -> {
            if (k == cycle) {
                long[] memory = bench.resource().memory();
                memory[bench.resource().program().variable("wanted").orElseThrow().slot()] = wanted ? 1 : 0;
                memory[bench.resource().program().variable("order").orElseThrow().slot()] = 1;
            }
        };
    }

    /** A course that a touch has ended is one of that length. */
    @Test
    void aTouchedRunIsKnownUpToTheTouch() {
        Machine demo = DemoMachine.create();
        ReadyProgram ready = ReadyProgram.of(demo);
        ran(demo, ready, Stand.of(demo), 6000, (bench, k) -> {
            if (k == 3000) {
                bench.push(2, 5);
            } else if (k == 0) {
                bench.forceInput(1, "I4", null);
            }
        });
        long[] rested = same(demo, ready, Stand.of(demo), 6000, NOTHING);
        assertThat(rested[1]).as("never known").isLessThan(6000);
        assertThat(rested[2]).as("worked out anew from the touch on").isLessThan(6000);
        assertThat(rested[0]).isEqualTo(6000);
    }

    /** Without room nothing is known, and what others have kept stays. */
    @Test
    void itTakesNoMoreRoomThanItIsGiven() {
        Courses courses = new Courses(200_000);
        Axis axis = DemoMachine.create().axes().get(0);
        Courses.Beginning first = new Courses.Beginning(0, new Bus(1000), axis, axis, Disturbance.NONE, 0, List.of(), false);
        Courses.Beginning second = new Courses.Beginning(1, new Bus(1000), axis, axis, Disturbance.NONE, 0, List.of(), false);
        Course small = courses.begun(first, 12, 14, 2);
        Course large = courses.begun(second, 12, 14, 2);
        for (int k = 0; k < 1000; k++) {
            assertThat(small.add(new byte[12], new byte[14], new double[] {k, -k})).isTrue();
        }
        int cycles = 0;
        while (large.add(new byte[12], new byte[14], new double[2])) {
            cycles++;
        }
        assertThat(cycles).isEqualTo(2048);
        assertThat(courses.of(second).cycles()).isZero();
        assertThat(courses.of(first).seen(999, 1)).isEqualTo(-999);
        assertThat(small.add(new byte[12], new byte[14], new double[2])).as("the room of the other is free again").isTrue();
    }

    @ParameterizedTest
    @EnumSource(Bus.Family.class)
    void everyBusFamily(Bus.Family family) {
        Machine machine = BusFamily.moved(DemoMachine.create(), family);
        ReadyProgram ready = ReadyProgram.of(machine);
        ran(machine, ready, Stand.of(machine), 8000, NOTHING);
        same(machine, ready, loaded(machine, 0, 1.4), 8000, NOTHING);
    }

    /** Axes that follow each other, an encoder, or words of a program. */
    @Test
    void theOtherDemos() {
        for (Machine machine : List.of(DemoMachine.byWords(), DemoMachine.byEncoder())) {
            ReadyProgram ready = ReadyProgram.of(machine);
            ran(machine, ready, Stand.of(machine), 8000, NOTHING);
            for (int i = 0; i < machine.axes().size(); i++) {
                same(machine, ready, loaded(machine, i, 1.5), 8000, NOTHING);
            }
        }
    }

    /** What comes by chance is its own for every seed; a station with a clock of its own, or one that loses frames, is worked out. */
    @Test
    void whatDisturbsAnAxisIsPartOfIt() {
        Machine demo = DemoMachine.create();
        ReadyProgram ready = ReadyProgram.of(demo);
        Disturbance noise = new Disturbance(0, 2, 0, 0);
        for (long seed : new long[] {1, 2}) {
            for (Disturbance first : List.of(noise, new Disturbance(0.3, 0, 0, 0), new Disturbance(0, 0, 80, 0), new Disturbance(0, 0, 0, 0.01))) {
                List<Disturbance> disturbed = new ArrayList<>(Stand.of(demo).disturbed());
                disturbed.set(2, first);
                same(demo, ready, new Stand(demo.axes(), disturbed, seed), 3000, NOTHING);
            }
        }
    }
}
