package rueda.bench;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import com.sun.management.ThreadMXBean;
import java.lang.management.ManagementFactory;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.junit.jupiter.api.Test;
import rueda.bench.BenchCondition.Wrong;
import rueda.drive.PowerState;
import rueda.machine.Axis;
import rueda.machine.DemoMachine;
import rueda.machine.Encoder;
import rueda.machine.LoadEncoder;
import rueda.machine.Machine;
import rueda.machine.Terminal.Function;
import rueda.machine.Mistake;
import rueda.plant.ServoPlant;

class BenchConditionTest {

    private static final long MS = 1_000_000;
    private static final Machine DEMO = DemoMachine.create();
    private static final Axis SHUTTLE = DEMO.axes().get(0);
    private static final String NOTHING = "PROGRAM P\nEND_PROGRAM\n";

    private static Bench bench(Machine machine, Wrong... wrong) {
        return new Bench(machine, NOTHING, 10, new BenchCondition(List.of(wrong)));
    }

    private static boolean level(Bench bench, Function function) {
        int input = SHUTTLE.wiring().digitalInputs().indexOf(SHUTTLE.wiring().terminal(function).orElseThrow());
        return (bench.drive(0).digitalInputs().levels(false) >> input & 1) != 0;
    }

    /** The wire of a normally closed contact is broken for a while: the terminal is low for just as long. */
    @Test
    void aMistakeComesAndGoesAtItsTimes() {
        Bench bench = bench(DEMO, new Wrong("Shuttle", Mistake.NEGATIVE_LIMIT_BROKEN, 20 * MS, 35 * MS), new Wrong("Shuttle", Mistake.NEGATIVE_LIMIT_BROKEN, 50 * MS, BenchCondition.FOR_GOOD));
        List<Long> low = new ArrayList<>();
        for (int i = 0; i < 100; i++) {
            long begin = bench.now();
            bench.cycle();
            if (!level(bench, Function.NEGATIVE_LIMIT)) {
                low.add(begin / MS);
            }
        }
        List<Long> expected = new ArrayList<>();
        for (long ms = 0; ms < 100; ms += DEMO.bus().cycleMicros() / 1000) {
            if (ms >= 20 && ms < 35 || ms >= 50) {
                expected.add(ms);
            }
        }
        assertThat(low.stream().filter(ms -> ms < 100).toList()).isEqualTo(expected);
    }

    @Test
    void itCanBeChangedWhileTheBenchRuns() {
        Bench bench = bench(DEMO);
        bench.cycle();
        assertThat(level(bench, Function.POSITIVE_LIMIT)).isTrue();
        bench.condition(BenchCondition.throughout(Map.of("Shuttle", Set.of(Mistake.POSITIVE_LIMIT_BROKEN))));
        bench.cycle();
        assertThat(level(bench, Function.POSITIVE_LIMIT)).isFalse();
        bench.condition(BenchCondition.SOUND);
        bench.cycle();
        assertThat(level(bench, Function.POSITIVE_LIMIT)).isTrue();
        assertThat(level(bench(DEMO, new Wrong("Lift", Mistake.POSITIVE_LIMIT_BROKEN, 0, 5)), Function.POSITIVE_LIMIT)).as("the mistake of another axis").isTrue();
    }

    /** Counting turns round where the axis stands: nothing jumps, and the loop that now pushes the wrong way ends in a fault. */
    @Test
    void anEncoderTurnedRoundInMotionCountsBackFromWhereItWas() {
        Bench bench = bench(DEMO);
        bench.takeByHand();
        bench.hand(0).enable(true);
        bench.run(0.5);
        bench.hand(0).jog(1, true, bench.now());
        bench.run(1);
        ServoPlant plant = bench.drive(0).plant();
        assertThat(bench.drive(0).state()).isEqualTo(PowerState.OPERATION_ENABLED);
        bench.condition(BenchCondition.throughout(Map.of("Shuttle", Set.of(Mistake.ENCODER_REVERSED))));
        long before = plant.counts();
        double place = plant.place();
        bench.cycle();
        double countsPerUnit = SHUTTLE.encoder().countsPerTurn() / SHUTTLE.scale().unitsPerMotorTurn().toDouble();
        assertThat(plant.place()).isGreaterThan(place);
        assertThat(plant.counts() - before).isBetween((long) Math.floor((place - plant.place()) * countsPerUnit) - 2, 0L);
        assertThat(plant.placeOfCount(plant.counts())).as("the place that a count stands for").isCloseTo(plant.place(), org.assertj.core.api.Assertions.within(0.05));
        bench.run(2);
        assertThat(bench.drive(0).state()).isNotEqualTo(PowerState.OPERATION_ENABLED);
    }

    /** While a line is broken the count stands still. When it is whole again an absolute encoder is read anew; an incremental one has missed what went by. */
    @Test
    void aLineThatIsWholeAgain() {
        for (Encoder.Kind kind : new Encoder.Kind[] {Encoder.Kind.ABSOLUTE, Encoder.Kind.INCREMENTAL}) {
            Axis table = DEMO.axes().get(2);
            Encoder encoder = kind == Encoder.Kind.INCREMENTAL ? new Encoder(kind, 4096, 0, 0, false) : new Encoder(kind, 0, 18, 12, false);
            Axis changed = table.withLoadEncoder(new LoadEncoder(LoadEncoder.Use.NONE, encoder));
            Bench sound = bench(DEMO.withAxis(2, changed));
            Bench broken = bench(DEMO.withAxis(2, changed), new Wrong(table.name(), Mistake.LOAD_ENCODER_BROKEN, 1_100 * MS, 1_300 * MS));
            for (Bench bench : List.of(sound, broken)) {
                bench.takeByHand();
                bench.hand(2).enable(true);
                bench.run(0.5);
                bench.hand(2).jog(1, true, bench.now());
                bench.run(0.6);
            }
            long atBreak = broken.drive(2).plant().loadCounts();
            assertThat(atBreak).isEqualTo(sound.drive(2).plant().loadCounts());
            sound.run(0.1);
            broken.run(0.1);
            assertThat(broken.drive(2).plant().loadCounts()).isEqualTo(atBreak);
            sound.run(0.4);
            broken.run(0.4);
            long missed = sound.drive(2).plant().loadCounts() - broken.drive(2).plant().loadCounts();
            if (kind == Encoder.Kind.ABSOLUTE) {
                assertThat(missed).isZero();
            } else {
                assertThat(missed).isGreaterThan(0);
            }
        }
    }

    @Test
    void changesWhileWarmAllocateNothing() {
        List<Wrong> many = new ArrayList<>();
        for (int i = 0; i < 200; i++) {
            many.add(new Wrong("Lift", Mistake.values()[i % Mistake.values().length], (300 + 10L * i) * MS, (305 + 10L * i) * MS));
        }
        Bench bench = new Bench(DEMO, NOTHING, 10, new BenchCondition(many));
        bench.run(1.3);
        ThreadMXBean threads = (ThreadMXBean) ManagementFactory.getThreadMXBean();
        long thread = Thread.currentThread().getId();
        threads.getThreadAllocatedBytes(thread);
        long before = threads.getThreadAllocatedBytes(thread);
        bench.run(1);
        assertThat(threads.getThreadAllocatedBytes(thread) - before).as("bytes while a hundred mistakes come and go").isLessThan(2000);
    }

    @Test
    void anEndBeforeTheBeginIsRefused() {
        assertThatThrownBy(() -> new Wrong("Lift", Mistake.CAM_BROKEN, 5, 5)).hasMessageContaining("after the begin");
        assertThatThrownBy(() -> new Wrong("Lift", Mistake.CAM_BROKEN, -1, 5)).hasMessageContaining("not before 0");
    }
}
