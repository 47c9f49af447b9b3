package rueda.advice;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;
import static rueda.machine.MoveEntry.goBy;
import static rueda.machine.MoveEntry.goTo;

import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;
import rueda.machine.Axis;
import rueda.machine.Cue;
import rueda.machine.DemoMachine;
import rueda.machine.Machine;
import rueda.machine.MachineRules;
import rueda.machine.MoveEntry;
import rueda.machine.MoveList;
import rueda.machine.MoveList.By;
import rueda.machine.MoveList.Starter;
import rueda.machine.Terminal.Function;

/** A move list on paper, and what is said of it. */
class ListPlanTest {

    private static final Starter BY_CUE = new Starter(By.EDGE, Cue.of(Function.CUE, Cue.Edge.RISING), 0, 0);

    private static Axis trapezoidal(Axis axis, MoveEntry... entries) {
        return axis.withLimits(axis.limits().withNormal(axis.limits().normal().withJerk(0)).withMax(axis.limits().max().withJerk(0))).withMoves(MoveList.of(entries).withStarters(List.of(BY_CUE)));
    }

    private static Advice advice(Axis axis) {
        Machine demo = DemoMachine.create();
        int number = List.of("Shuttle", "Lift", "Table", "Brush", "Doser").indexOf(axis.name());
        Machine machine = demo.withAxis(number, axis);
        assertThat(MachineRules.check(machine)).isEmpty();
        return MoveAdvice.of(machine, axis, "/axes/" + number);
    }

    private static List<String> titles(Axis axis) {
        return advice(axis).findings().stream().map(Finding::title).toList();
    }

    private static String figure(Axis axis, String label) {
        return advice(axis).figures().stream().filter(f -> f.label().startsWith(label)).map(f -> f.value() + " " + f.unit()).findFirst().orElse("none");
    }

    /** Closed form: n trapezoids take Σ (s/v + v/a), and the rests between. */
    @Test
    void aRoundIsTheSumOfItsTrapezoidsAndRests() {
        Axis table = trapezoidal(DemoMachine.table(), goBy("90").thenGoOn(1, 0.5), MoveEntry.repeat(0, 4, 2), goTo("0").withWay(MoveEntry.Way.FORWARD).thenGoOn(0, 0));
        ListPlan plan = ListPlan.of(table, 0, 0, 1000);
        double settling = ListPlan.settling(table, 1000);
        assertThat(plan.end()).isEqualTo(ListPlan.Ending.ROUND);
        assertThat(plan.roundTime()).isCloseTo(4 * (90.0 / 60 + 60.0 / 120 + 0.5 + settling) + settling, within(1e-9));
        assertThat(plan.distance()).isCloseTo(360, within(1e-9));
    }

    /** A stretch that is run a million times is computed three times, and is as long. */
    @Test
    void manyRoundsAreNotDrawn() {
        Axis table = trapezoidal(DemoMachine.table(), goBy("0.5").thenGoOn(1, 0.1), MoveEntry.repeat(0, 1_000_000, 2), MoveEntry.of(MoveEntry.Kind.WAIT).withRest(1));
        ListPlan plan = ListPlan.of(table, 0, 0, 1000);
        double one = 2 * Math.sqrt(0.5 / 120) + 0.1 + ListPlan.settling(table, 1000);
        assertThat(plan.duration()).isCloseTo(1e6 * one + 1, within(1e-3));
        assertThat(plan.distance()).isCloseTo(500_000, within(1e-3));
        assertThat(plan.stretches().size()).isLessThan(20);
    }

    @Test
    void torqueIsThatOfTheMotionAndTheWorstEntryIsNamed() {
        Axis shuttle = trapezoidal(DemoMachine.shuttle(), goBy("100").withAcceleration(500).withDeceleration(500).thenGoOn(1, 0), goBy("-100").withAcceleration(2000).withDeceleration(500).thenGoOn(0, 0));
        ListPlan plan = ListPlan.of(shuttle, 0, 500, 1000);
        assertThat(plan.load().entryAtPeak()).isEqualTo(1);
        double expected = Math.abs(shuttle.motorSide().torque(-300, -2000));
        assertThat(plan.load().peak()).isCloseTo(expected, within(0.05 * expected));
        assertThat(plan.load().rms()).isBetween(0.1, plan.load().peak());
    }

    /** 256 entries with their places and torque: what a page draws while it is dragged. Counted, not timed: speed is a benchmark. */
    @Test
    void aFullListIsDrawnWhole() {
        List<MoveEntry> entries = new ArrayList<>();
        for (int i = 0; i < MoveList.MOST_ENTRIES; i++) {
            entries.add(goBy(i % 2 == 0 ? "12.5" : "-12.5").thenGoOn((i + 1) % MoveList.MOST_ENTRIES, 0.05));
        }
        Axis shuttle = trapezoidal(DemoMachine.shuttle(), entries.toArray(MoveEntry[]::new));
        ListPlan plan = ListPlan.of(shuttle, 0, 500, 1000);
        assertThat(plan.end()).isEqualTo(ListPlan.Ending.ROUND);
        assertThat(plan.stretches().stream().filter(s -> s.what() == ListPlan.What.MOVE).count()).isEqualTo(256);
        assertThat(plan.distance()).isCloseTo(256 * 12.5, within(1e-6));
    }

    @Test
    void theDemoListsRunAndTheDoserDosesEveryFourSeconds() {
        for (Axis axis : DemoMachine.create().axes()) {
            assertThat(advice(axis).findings()).as(axis.name()).noneMatch(f -> f.severity() == Finding.Severity.FAULT || f.severity() == Finding.Severity.WARNING);
        }
        assertThat(figure(DemoMachine.saltDoser(), "Round")).startsWith("4 s");
        assertThat(figure(DemoMachine.saltDoser(), "Rounds a minute")).startsWith("15 ");
    }

    /** Exact: what a distance loses on the wire each time, and over a day. */
    @Test
    void aDistanceThatIsNoWholeNumberOfStepsDrifts() {
        Axis table = trapezoidal(DemoMachine.table(), goBy("0.12345").thenGoOn(0, 1.0));
        Finding found = advice(table).findings().stream().filter(f -> f.title().contains("drifts")).findFirst().orElseThrow();
        assertThat(found.title()).isEqualTo("Entry 0 drifts by 0.00005 ° each time.");
        double round = 2 * Math.sqrt(0.12345 / 120) + 1 + ListPlan.settling(table, 1000);
        assertThat(found.consequence()).contains(Numbers.significant(0.00005 * 86_400 / round, 4) + " ° a day");
        assertThat(found.mend().changes().get(0).value()).isEqualTo(5);
        assertThat(titles(trapezoidal(DemoMachine.table(), goBy("0.1234").thenGoOn(0, 1.0)))).noneMatch(t -> t.contains("drifts"));
    }

    @Test
    void everyFaultOfAListIsFoundAndMended() {
        Axis shuttle = DemoMachine.shuttle();
        assertThat(titles(trapezoidal(shuttle, goTo("2400")))).contains("Entry 0 would end outside the soft limits.");
        assertThat(titles(trapezoidal(shuttle, goTo("100"), goTo("200")))).contains("Entry 1 is never reached.");
        assertThat(titles(trapezoidal(shuttle, goTo("100")).withCommandedBy(Axis.Commander.DRIVE))).contains("No input enables the axis.", "Entry 0 goes to a position, and nothing finds the zero.", "Two command the axis.");
        assertThat(titles(trapezoidal(shuttle, goBy("10").thenGoOn(1, 0), goBy("-10").thenGoOn(0, 0)))).contains("The round from entry 0 never rests and never waits.");
        assertThat(titles(trapezoidal(shuttle, MoveEntry.output(1, true, 1), MoveEntry.output(1, false, 0)))).contains("A round takes no time.");
        Axis two = trapezoidal(shuttle, goBy("1"), goBy("2"));
        assertThat(titles(two.withMoves(two.moves().withStarters(List.of(BY_CUE, BY_CUE.withEntry(1)))))).contains("Two starters on one edge.");
        assertThat(titles(two.withMoves(two.moves().withStarters(List.of(new Starter(By.EDGE, Cue.of(Function.CUE_3, Cue.Edge.RISING), 0, 0)))))).contains("Cue 3 is wired to nothing.");
        assertThat(titles(two.withMoves(two.moves().withStarters(List.of(new Starter(By.SELECTOR, Cue.of(Function.CUE, Cue.Edge.RISING), 0, 0)))))).contains("The selector inputs reach entry 0 of 1.");
        Axis fast = trapezoidal(shuttle, goBy("1").withSpeed(3000));
        assertThat(titles(fast.withLimits(fast.limits().withMax(fast.limits().max().withSpeed(4000))))).anyMatch(t -> t.startsWith("Entry 0 is faster than the motor turns."));
        assertThat(titles(trapezoidal(shuttle, goBy("800").withSpeed(900).withAcceleration(6000).withDeceleration(6000)))).contains("Entry 0 asks for more torque than the motor has.");
        Axis marked = trapezoidal(shuttle, MoveEntry.toMark(Function.PROBE_1, 10, 500, "20").withSpeed(500)).withWiring(shuttle.wiring().with("I7", Function.PROBE_1));
        Finding late = advice(marked).findings().stream().filter(f -> f.title().startsWith("Entry 0 cannot stop so soon")).findFirst().orElseThrow();
        /* 500²/(2·2500) + 500 × 127 µs */
        assertThat(late.consequence()).contains("50.06 mm");
    }
}
