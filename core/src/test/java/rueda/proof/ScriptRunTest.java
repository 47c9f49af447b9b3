package rueda.proof;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import org.junit.jupiter.api.Test;
import rueda.bench.AxisSignal;
import rueda.bench.Bench;
import rueda.machine.DemoMachine;
import rueda.guard.GuardPhase;
import rueda.machine.Machine;
import rueda.machine.Mistake;
import rueda.machine.ScriptStep;
import rueda.machine.ScriptStep.Does;
import rueda.quantity.InvalidEntry;

/** What the sentences of a script do to the bench, and when. */
class ScriptRunTest {

    private static final String IDLE = """
            PROGRAM P
            VAR Button, Seen : BOOL; Count : INT; Order : INT; Name : STRING; Edge : R_TRIG; END_VAR
            Seen := Seen OR Button;
            Edge(CLK := Button);
            IF Edge.Q THEN Count := Count + 1; END_IF
            IF Order > 0 THEN Order := 0; END_IF
            END_PROGRAM
            """;
    private static final String ENABLED = """
            PROGRAM P
            VAR Power : MC_Power; END_VAR
            Power(Axis := Shuttle, Enable := TRUE);
            END_PROGRAM
            """;

    private static Machine shuttle(String program) {
        Machine demo = DemoMachine.create();
        return demo.withAxes(List.of(demo.axes().get(0))).withProgram(program).withProofs(List.of());
    }

    private static Bench run(Machine machine, double seconds, ScriptStep... script) {
        Bench bench = new Bench(machine, (int) Math.round(seconds * 1000));
        ScriptRun run = new ScriptRun(bench, List.of(script));
        for (int k = 0; k < seconds * 1000; k++) {
            run.cycle();
            bench.cycle();
        }
        return bench;
    }

    private static double at(Bench bench, String signal, double time) {
        return bench.recording().value(bench.recording().indexOf(signal), Math.round(time * 1000) - 1);
    }

    @Test
    void aValueForATimeComesAndGoes() {
        Bench bench = run(shuttle(IDLE), 1, ScriptStep.set("Button", "TRUE").at(0.2).lasting(0.3));
        assertThat(at(bench, "Button", 0.19)).isZero();
        assertThat(at(bench, "Button", 0.3)).isOne();
        assertThat(at(bench, "Button", 0.499)).isOne();
        assertThat(at(bench, "Button", 0.52)).as("what it was before").isZero();
        assertThat(at(bench, "Count", 0.9)).isOne();
    }

    @Test
    void aTextIsSetAndComesBack() {
        Machine machine = shuttle(IDLE.replace("Name : STRING;", "Name : STRING := 'it costs 5 $$'; Long : BOOL;").replace("Seen := Seen OR Button;", "Seen := Seen OR Button; Long := LEN(Name) > 10;"));
        Bench bench = run(machine, 0.5, ScriptStep.set("Name", "'a longer name $'here$''").at(0.1).lasting(0.2));
        assertThat(at(bench, "Long", 0.05)).isOne();
        assertThat(bench.resource().text(bench.resource().program().variable("Name").orElseThrow())).isEqualTo("'it costs 5 $'");
        Bench shorter = run(machine, 0.5, ScriptStep.set("Name", "'short'").at(0.1).lasting(0.2));
        assertThat(at(shorter, "Long", 0.2)).isZero();
        assertThat(at(shorter, "Long", 0.4)).isOne();
        assertThatThrownBy(() -> run(machine, 0.1, ScriptStep.set("Name", "5"))).hasMessageContaining("script/0/value");
    }

    @Test
    void onceIsWhatTheProgramMayChange() {
        Bench once = run(shuttle(IDLE), 0.5, ScriptStep.set("Order", "7").at(0.1).withEnding(ScriptStep.Ending.ONCE));
        assertThat(at(once, "Order", 0.3)).as("the program has taken it").isZero();
        Bench forGood = run(shuttle(IDLE), 0.5, ScriptStep.set("Order", "3 + 4").at(0.1));
        assertThat(at(forGood, "Order", 0.3)).isEqualTo(7);
    }

    /** Begun again while it goes on, it goes on for longer; in the end everything is as it was before the first time. */
    @Test
    void whatBeginsAgainWhileItGoesOnComesBackToo() {
        ScriptStep again = ScriptStep.set("Button", "TRUE").withStart(ScriptStep.Start.EVERY).withTime(0.2).lasting(0.3);
        Bench held = run(shuttle(IDLE), 1.05, again);
        assertThat(at(held, "Count", 1.04)).as("pressed all the time").isOne();
        ScriptStep pulses = ScriptStep.set("Button", "TRUE").withStart(ScriptStep.Start.EVERY).withTime(0.2).lasting(0.05);
        ScriptStep load = ScriptStep.of(Does.LOAD, "Shuttle", 60).eachTime("Button AND Count < 3", 0).lasting(0.3);
        Bench bench = run(shuttle(IDLE), 1.05, pulses, load);
        assertThat(bench.load(0)).as("begun at 0.2 s and 0.4 s, over at 0.7 s").isEqualTo(160);
    }

    @Test
    void stopWithoutAnInputIsRefused() {
        Machine machine = shuttle(IDLE);
        rueda.machine.Axis axis = machine.axes().get(0);
        Machine unwired = machine.withAxes(List.of(axis.withWiring(axis.wiring().with("I4", rueda.machine.Terminal.Function.NONE))));
        assertThatThrownBy(() -> run(unwired, 0.1, ScriptStep.stop())).hasMessageContaining("script/0/does").hasMessageContaining("no axis has an input for quick stop");
    }

    @Test
    void everySoOftenEachTimeAndOnlyTheFirstTime() {
        Bench every = run(shuttle(IDLE), 1.05, ScriptStep.set("Button", "TRUE").withStart(ScriptStep.Start.EVERY).withTime(0.2).lasting(0.05));
        assertThat(at(every, "Count", 1.049)).isEqualTo(5);
        ScriptStep pulses = ScriptStep.set("Button", "TRUE").withStart(ScriptStep.Start.EVERY).withTime(0.2).lasting(0.05);
        Bench first = run(shuttle(IDLE), 1.05, pulses, ScriptStep.set("Order", "1").when("Button", 0.1).withEnding(ScriptStep.Ending.ONCE));
        assertThat(new Happenings(first, pulses, ScriptStep.set("Order", "1").when("Button", 0.1).withEnding(ScriptStep.Ending.ONCE)).of(1)).containsExactly(0.301);
        assertThat(new Happenings(first, pulses, ScriptStep.set("Order", "1").eachTime("Button", 0.1).withEnding(ScriptStep.Ending.ONCE)).of(1)).containsExactly(0.301, 0.501, 0.701, 0.901);
    }

    /** Times at which sentences began. */
    private record Happenings(Bench like, ScriptStep... script) {
        List<Double> of(int sentence) {
            Bench bench = new Bench(like.machine(), 1050);
            ScriptRun run = new ScriptRun(bench, List.of(script));
            for (int k = 0; k < 1050; k++) {
                run.cycle();
                bench.cycle();
            }
            return run.happened().stream().filter(h -> h.sentence() == sentence).map(h -> Math.round(h.time() * 1000) / 1000.0).toList();
        }
    }

    @Test
    void untilSomethingIsSeen() {
        Bench bench = run(shuttle(ENABLED), 1.5, ScriptStep.of(Does.PUSH, "Shuttle", 150).at(0.1).until("Shuttle.position > 5"));
        assertThat(bench.drive(0).plant().speed()).as("pushed away and let go, friction has stopped it").isLessThan(400);
        assertThat(at(bench, "Shuttle.position", 1.4) - at(bench, "Shuttle.position", 0.05)).isGreaterThanOrEqualTo(0);
    }

    /** F = m·a with friction: with 245 N on 160 kg and 45 N of friction the first 0.1 s bring ½·(200/(160 + J/r²))·t². */
    @Test
    void aPushMovesTheLoadAsNewtonSays() {
        Machine machine = shuttle("PROGRAM P END_PROGRAM");
        double inertia = machine.axes().get(0).motorSide().inertia();
        double lever = rueda.machine.MotorSide.lever(machine.axes().get(0));
        double mass = inertia / lever / lever;
        Bench bench = run(machine, 0.3, ScriptStep.of(Does.PUSH, "Shuttle", 245).at(0.1).lasting(0.1));
        double way = bench.recording().value(bench.recording().indexOf(AxisSignal.SPEED.of("Shuttle")), 199) / 1000;
        // viscous friction of 60 N·s/m takes 1 − e^(−60·0.1/m)
        double expected = (245 - 45) / 60.0 * (1 - Math.exp(-60 * 0.1 / mass));
        assertThat(way).isCloseTo(expected, within(0.01 * expected));
    }

    @Test
    void theLoadChangesAndComesBack() {
        Machine machine = shuttle("PROGRAM P END_PROGRAM");
        Bench bench = new Bench(machine, 400);
        ScriptRun run = new ScriptRun(bench, List.of(ScriptStep.of(Does.LOAD, "Shuttle", 60).at(0.1).lasting(0.1)));
        for (int k = 0; k < 400; k++) {
            run.cycle();
            bench.cycle();
            assertThat(bench.load(0)).isEqualTo(k >= 100 && k < 200 ? 60 : 160);
        }
        assertThat(run.happened().stream().map(Happened::words)).containsExactly("the load of Shuttle became 60 kg", "the load of Shuttle was again 160 kg");
    }

    @Test
    void stopOpensEveryQuickStopInput() {
        Machine demo = DemoMachine.create();
        Bench bench = new Bench(demo, 10_000);
        ScriptRun run = new ScriptRun(bench, List.of(ScriptStep.stop().when("Shuttle.speed > 500", 0)));
        for (int k = 0; k < 10_000; k++) {
            run.cycle();
            bench.cycle();
        }
        assertThat(run.happened()).hasSize(1);
        double stopped = run.happened().get(0).time();
        assertThat(at(bench, "Shuttle.speed", stopped)).isGreaterThan(500);
        assertThat(at(bench, "Shuttle.speed", stopped + 0.5)).as("6000 mm/s² or so stop it within 0.2 s").isZero();
        assertThat(at(bench, "Shuttle.speed", 9.9)).isZero();
    }

    @Test
    void powerThatGoesTakesAllTorque() {
        Bench bench = run(DemoMachine.create(), 2, ScriptStep.powerLoss().at(1));
        assertThat(bench.restarting(0)).isTrue();
        assertThat(bench.restarting(4)).isTrue();
        assertThat(bench.drive(1).plant().mechanics().torque()).isZero();
        Bench back = run(DemoMachine.create(), 5, ScriptStep.powerLoss().at(1).lasting(0.5));
        assertThat(back.restarting(0)).as("it answers again 2 s after its power is back").isFalse();
        Bench alone = run(DemoMachine.create(), 2, ScriptStep.of(Does.OFF, "Lift").at(1));
        assertThat(alone.restarting(1)).isTrue();
        assertThat(alone.restarting(0)).isFalse();
        assertThat(run(DemoMachine.create(), 2, ScriptStep.of(Does.RESTART, "Lift").at(1)).restarting(1)).isTrue();
    }

    /** A request asks as long as it is told to; a sticking contact asks too; an acknowledge lets a stop end once nothing asks. */
    @Test
    void guardsAreAskedAndAcknowledged() {
        Machine demo = DemoMachine.create();
        Bench asked = run(demo, 2, ScriptStep.ask("Door").at(0.5));
        assertThat(asked.watch(0).phase()).isEqualTo(GuardPhase.STANDING);
        assertThat(asked.watch(1).phase()).isEqualTo(GuardPhase.OFF);
        Bench over = run(demo, 2, ScriptStep.ask("Door").at(0.5).lasting(0.3), ScriptStep.acknowledge().at(1.2).lasting(0.1));
        assertThat(over.watch(0).phase()).isEqualTo(GuardPhase.FREE);
        assertThat(over.watch(1).phase()).isEqualTo(GuardPhase.FREE);
        assertThat(run(demo, 2, ScriptStep.ask("Door").at(0.5).lasting(0.3)).watch(0).phase()).as("nobody has acknowledged").isEqualTo(GuardPhase.STANDING);
        assertThat(run(demo, 2, ScriptStep.of(Does.CHANNEL, null).withRequest("Door").at(0.5)).watch(1).phase()).as("one channel is enough").isEqualTo(GuardPhase.OFF);
    }

    @Test
    void aWireBreaksAndAnInputIsSet() {
        Machine machine = shuttle("PROGRAM P END_PROGRAM");
        Bench broken = run(machine, 1, ScriptStep.breaks("Shuttle", Mistake.NEGATIVE_LIMIT_BROKEN).at(0.5));
        assertThat(broken.drive(0).digitalInputs().levels(true) & 1).as("I1 is the negative limit").isZero();
        Bench whole = run(machine, 1, ScriptStep.breaks("Shuttle", Mistake.NEGATIVE_LIMIT_BROKEN).at(0.5).lasting(0.2));
        assertThat(whole.drive(0).digitalInputs().levels(true) & 1).isOne();
        Bench input = run(machine, 1, ScriptStep.set("shuttle.i8", "TRUE").at(0.5));
        assertThat(input.drive(0).digitalInputs().levels(true) & 128).isEqualTo(128);
    }

    @Test
    void aHandTurnsTheShaft() {
        Bench bench = run(shuttle("PROGRAM P END_PROGRAM"), 1, ScriptStep.of(Does.TURN, "Shuttle", 12.5).at(0.5));
        assertThat(at(bench, "Shuttle.position", 0.9) - at(bench, "Shuttle.position", 0.4)).isCloseTo(12.5, within(0.001));
    }

    @Test
    void whatCannotBeReadNamesItsPlace() {
        Bench bench = new Bench(shuttle(IDLE), 10);
        assertThatThrownBy(() -> new ScriptRun(bench, List.of(ScriptStep.stop(), ScriptStep.stop().when("Shuttle.positon > 1", 0))))
                .isInstanceOfSatisfying(InvalidEntry.class, refused -> assertThat(refused.field()).isEqualTo("script/1/when")).hasMessageContaining("Did you mean Shuttle.position?");
        assertThatThrownBy(() -> new ScriptRun(bench, List.of(ScriptStep.set("Buton", "TRUE")))).hasMessageContaining("script/0/target");
        assertThatThrownBy(() -> new ScriptRun(bench, List.of(ScriptStep.set("Button", "7")))).hasMessageContaining("script/0/value");
        assertThatThrownBy(() -> new ScriptRun(bench, List.of(ScriptStep.set("Shuttle.I99", "TRUE")))).hasMessageContaining("digital input of Shuttle");
        assertThatThrownBy(() -> new ScriptRun(bench, List.of(ScriptStep.set("Shuttle.I8", "Count")))).hasMessageContaining("an input is TRUE");
        assertThatThrownBy(() -> new ScriptRun(bench, List.of(ScriptStep.stop().until("Count")))).hasMessageContaining("script/0/until");
        assertThat(bench.resource().memory()[bench.resource().program().variable("Button").orElseThrow().slot()]).as("looking changes nothing").isZero();
    }

    @Test
    void theSameScriptGivesTheSameRecording() {
        ScriptStep[] script = {ScriptStep.of(Does.PUSH, "Shuttle", 200).when("Shuttle.position > 700", 0.05).lasting(0.2), ScriptStep.of(Does.LOAD, "Lift", 140).at(2)};
        Bench one = run(DemoMachine.create(), 4, script);
        Bench other = run(DemoMachine.create(), 4, script);
        for (int s = 0; s < one.recording().signals().size(); s++) {
            for (long k = 0; k < one.recording().count(); k++) {
                assertThat(Double.doubleToRawLongBits(other.recording().value(s, k))).isEqualTo(Double.doubleToRawLongBits(one.recording().value(s, k)));
            }
        }
    }
}
