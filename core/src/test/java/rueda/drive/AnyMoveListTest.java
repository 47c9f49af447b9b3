package rueda.drive;

import static org.assertj.core.api.Assertions.assertThat;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.List;
import net.jqwik.api.Arbitraries;
import net.jqwik.api.Arbitrary;
import net.jqwik.api.Assume;
import net.jqwik.api.Combinators;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.Provide;
import net.jqwik.api.constraints.IntRange;
import net.jqwik.api.constraints.Size;
import rueda.machine.Axis;
import rueda.machine.Control;
import rueda.machine.Cue;
import rueda.machine.DemoMachine;
import rueda.machine.Load;
import rueda.machine.Machine;
import rueda.machine.MachineRules;
import rueda.machine.Motor;
import rueda.machine.MoveEntry;
import rueda.machine.MoveEntry.End;
import rueda.machine.MoveEntry.Kind;
import rueda.machine.MoveList;
import rueda.machine.MoveList.By;
import rueda.machine.MoveList.Does;
import rueda.machine.MoveList.MoveException;
import rueda.machine.MoveList.Starter;
import rueda.machine.Terminal.Function;

/** Any list that the rules accept, run from any entry while cues come as they like. */
class AnyMoveListTest {

    private static final Cue CUE = Cue.of(Function.CUE, Cue.Edge.RISING);
    private static final Cue CUE_2 = Cue.of(Function.CUE_2, Cue.Edge.RISING);
    private static final Cue CUE_3 = Cue.of(Function.CUE_3, Cue.Edge.FALLING);

    @Provide
    Arbitrary<List<MoveEntry>> lists() {
        /* a search for the zero looks for switches beyond the soft limits: homing has tests of its own */
        Arbitrary<Kind> kinds = Arbitraries.of(Kind.values()).filter(kind -> kind != Kind.FIND_ZERO);
        Arbitrary<MoveEntry> entry = Combinators.combine(kinds, Arbitraries.integers().between(-20, 2400), Arbitraries.integers().between(-7000, 7000),
                Arbitraries.of(0.0, 20.0, 333.0, 900.0), Arbitraries.of(0.0, 700.0, 6000.0), Arbitraries.of(End.values()), Arbitraries.of(0.0, 0.02, 0.1), Arbitraries.integers().between(0, 11)).as((kind, position, distance, speed, acceleration, end, rest, number) ->
                MoveEntry.of(kind).withPosition(BigDecimal.valueOf(position)).withDistance(kind == Kind.TO_MARK ? BigDecimal.valueOf(Math.abs(distance), 2) : BigDecimal.valueOf(distance, 1))
                        .withSpeed(kind == Kind.RUN ? (distance < 0 ? -1 : 1) * Math.max(10, speed) : kind == Kind.CHANGE_SPEED ? distance / 20.0 : speed).withAcceleration(acceleration).withDeceleration(acceleration)
                        .withCue(number % 2 == 0 ? CUE_2 : CUE).withAwaits(CUE_3).withWindowFrom(10).withWindowTo(400).withEnd(end).withRest(rest).withNext(number).withEntry(number).withTimes(1 + number % 3));
        return entry.list().ofMinSize(1).ofMaxSize(12);
    }

    private static Axis axis(List<MoveEntry> entries) {
        MoveList list = MoveList.of(entries.toArray(MoveEntry[]::new)).withStarters(List.of(new Starter(By.SELECTOR, CUE, 0, 0)))
                .withExceptions(List.of(new MoveException(CUE_2, Does.TURN_ROUND, 0, 0, 0, 1), new MoveException(CUE_3, Does.CHANGE_SPEED, 0, 50, 2, 3)));
        Axis shuttle = ListBench.shuttle(520, list, Function.CUE, Function.CUE_2, Function.CUE_3, Function.SELECTOR_1, Function.SELECTOR_2, Function.SELECTOR_4, Function.SELECTOR_8);
        /* strong and light: what is tried is what the list asks for, not whether this motor can do it */
        return shuttle.withMotor(new Motor(1e-4, 50, 200, 5000, 5000, 200)).withLoad(Load.along(1, 0, 0)).withControl(new Control(60, 0.25, 20, 1, 1));
    }

    private static boolean accepted(Axis axis) {
        Machine demo = DemoMachine.create();
        return MachineRules.check(demo.withAxes(List.of(axis)).withProofs(List.of())).isEmpty();
    }

    /** What a run leaves behind. */
    private record Trace(double lowest, double highest, double fastest, double hardest, double farthestOff, List<Double> places) {
    }

    private static Trace run(Axis axis, int from, List<Integer> cues) {
        ListBench b = new ListBench(axis).enabled();
        for (int bit = 0; bit < 4; bit++) {
            b.input("I" + (5 + bit), (from >> bit & 1) != 0);
        }
        b.bench.run(0.01);
        b.input("I2", true);
        double low = Double.MAX_VALUE;
        double high = -Double.MAX_VALUE;
        double fastest = 0;
        double hardest = 0;
        double before = 0;
        double placeBefore = b.drive.demandPosition();
        double off = 0;
        List<Double> places = new ArrayList<>();
        for (int k = 0; k < 5000; k++) {
            if (k % 500 == 250) {
                b.input("I" + (3 + cues.get(k / 500) % 2), cues.get(k / 500) % 4 < 2);
            }
            b.bench.cycle();
            double speed = b.drive.demandSpeed();
            low = Math.min(low, b.drive.demandPosition());
            high = Math.max(high, b.drive.demandPosition());
            fastest = Math.max(fastest, Math.abs(speed));
            hardest = Math.max(hardest, Math.abs(speed - before) / 1e-3);
            off = Math.max(off, Math.abs(b.drive.demandPosition() - placeBefore - (speed + before) / 2 * 1e-3));
            placeBefore = b.drive.demandPosition();
            before = speed;
            places.add(b.drive.plant().place());
        }
        assertThat(b.drive.state()).as("no list makes a fault").isEqualTo(PowerState.OPERATION_ENABLED);
        return new Trace(low, high, fastest, hardest, off, places);
    }

    @Property(tries = 150)
    void keepsItsLimitsAndIsTheSameTwice(@ForAll("lists") List<MoveEntry> entries, @ForAll @IntRange(min = 0, max = 15) int from, @ForAll @Size(10) List<@IntRange(min = 0, max = 7) Integer> cues) {
        Axis axis = axis(entries);
        Assume.that(accepted(axis));
        Trace trace = run(axis, from, cues);
        assertThat(trace.lowest).as("soft limit").isGreaterThanOrEqualTo(-20.0001);
        assertThat(trace.highest).as("soft limit").isLessThanOrEqualTo(2330.0001);
        assertThat(trace.fastest).isLessThanOrEqualTo(axis.limits().max().speed() + 1e-6);
        assertThat(trace.hardest).isLessThanOrEqualTo(axis.limits().max().acceleration() * 1.001);
        /* within a bus cycle the speed may turn: a·T²/4, and a count */
        assertThat(trace.farthestOff).as("the place goes with the speed").isLessThanOrEqualTo(axis.limits().max().acceleration() * 1e-6 / 2 + 1e-4);
        assertThat(run(axis, from, cues).places).isEqualTo(trace.places);
    }

    /** Moves, waits, outputs and repeats without a cue end where the sum of their distances is, to the wire unit. */
    @Property(tries = 150)
    void endsWhereTheListSays(@ForAll("lists") List<MoveEntry> entries) {
        List<MoveEntry> plain = entries.stream().filter(e -> List.of(Kind.GO_TO, Kind.GO_BY, Kind.OUTPUT, Kind.WAIT, Kind.REPEAT, Kind.IN_POSITION).contains(e.kind()))
                .map(e -> e.withDistance(e.distance().movePointLeft(1)).withSpeed(900).withAcceleration(6000).withDeceleration(6000).withRest(0).withEnd(e.end() == End.AWAIT_CUE || e.end() == End.GO_ON ? End.PASS : e.end())).toList();
        Axis axis = axis(plain).withMoves(MoveList.of(plain.toArray(MoveEntry[]::new)).withStarters(List.of(new Starter(By.EDGE, CUE, 0, 0))));
        Assume.that(!plain.isEmpty() && accepted(axis));
        BigDecimal place = new BigDecimal(520);
        int[] rounds = new int[plain.size()];
        boolean ends = false;
        for (int at = 0; at < plain.size() && !ends; ) {
            MoveEntry e = plain.get(at);
            if (e.kind() == Kind.REPEAT && ++rounds[at] < e.times()) {
                at = e.entry();
                continue;
            }
            rounds[at] = 0;
            BigDecimal next = e.kind() == Kind.GO_TO ? e.position() : e.kind() == Kind.GO_BY ? place.add(e.distance()) : place;
            if (next.compareTo(new BigDecimal(-20)) < 0 || next.compareTo(new BigDecimal(2330)) > 0) {
                break;
            }
            place = next;
            ends = e.end() == End.REST;
            at++;
        }
        ListBench b = new ListBench(axis).enabled();
        b.input("I2", true);
        b.bench.run(0.002);
        b.untilStands(120);
        b.until(() -> b.drive.demandSpeed() == 0, 2);
        assertThat(b.place()).isEqualTo(place.doubleValue());
    }
}
