package rueda.bench;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import rueda.machine.Axis;
import rueda.machine.DemoMachine;
import rueda.machine.Homing;
import rueda.machine.Machine;
import rueda.plc.CompiledProgram;
import rueda.plc.StructuredTextCompiler;
import rueda.plc.StructuredTextCompiler.Text;

/** Programs as integrators write them, of several files, whole, on the bench: recipes, a library for axes, a mode manager, pick and place. */
class TradeProgramsTest {

    private static Text text(String file) {
        try (InputStream in = TradeProgramsTest.class.getResourceAsStream("/trade/" + file)) {
            return new Text(file, new String(in.readAllBytes(), StandardCharsets.UTF_8));
        } catch (IOException unreadable) {
            throw new IllegalStateException(unreadable);
        }
    }

    /** Shuttle and Lift, referenced where they stand so that a run is short. */
    private static Bench bench(String... files) {
        Machine demo = DemoMachine.create();
        List<Axis> axes = Stream.of("Shuttle", "Lift").map(name -> demo.axis(name).orElseThrow().withHoming(Homing.search(37, 20, 2, 60, 0))).toList();
        List<Text> texts = Stream.of(files).map(TradeProgramsTest::text).toList();
        Machine machine = demo.withAxes(axes).withProofs(List.of());
        CompiledProgram program = StructuredTextCompiler.compile(texts, Bench.environment(machine));
        assertThat(program.diagnostics()).isEmpty();
        return new Bench(machine, texts, 1000, BenchCondition.SOUND);
    }

    private static String value(Bench bench, String name) {
        return bench.resource().text(bench.resource().program().variable(name).orElseThrow(() -> new AssertionError(name)));
    }

    private static void untilTrue(Bench bench, String name, String value, double most) {
        for (double t = 0; t < most && !value(bench, name).equals(value); t += 0.1) {
            bench.run(0.1);
            assertThat(bench.resource().fault()).isNull();
        }
        assertThat(value(bench, name)).isEqualTo(value);
    }

    @Test
    void aStateMachineOverRecipes() {
        Bench bench = bench("AxisLibrary.st", "Recipes.st");
        untilTrue(bench, "Rounds", "3", 40);
        assertThat(value(bench, "Longest")).as("of the recipe that begins again, 1000 to 300").isEqualTo("700.0");
        assertThat(Stream.of(0, 1, 2, 3, 4).map(i -> value(bench, "Log[" + i + "]"))).containsExactly("'long 1'", "'long 2'", "'long 3'", "'short 1'", "'short 2'");
    }

    @Test
    void aModeManager() {
        Bench bench = bench("Modes.st");
        bench.run(0.5);
        assertThat(bench.resource().fault()).isNull();
        assertThat(Stream.of(1, 2, 3, 4, 5, 6, 7, 8, 9).map(i -> value(bench, "Seen[" + i + "]")))
                .containsExactly("Stopped", "IdleState", "Execute", "Held", "Execute", "Complete", "IdleState", "Execute", "Stopped");
        assertThat(value(bench, "Wrong")).isEqualTo("0");
        assertThat(value(bench, "Manager.State")).isEqualTo("Aborting");
    }

    @Test
    void pickAndPlaceWithAGripper() {
        Bench bench = bench("AxisLibrary.st", "PickAndPlace.st");
        untilTrue(bench, "Wheel", "3", 90);
        bench.run(0.1);
        assertThat(value(bench, "Delivered.CV")).isEqualTo("3");
        assertThat(value(bench, "Delivered.Q")).isEqualTo("TRUE");
        assertThat(bench.drive(0).position()).isCloseTo(200, org.assertj.core.data.Offset.offset(1.0));
        assertThat(bench.drive(1).position()).isCloseTo(200, org.assertj.core.data.Offset.offset(1.0));
    }

    /** The same program gives the same recording, bit for bit, in another task with classes of its own. */
    @Test
    void theSameTwice() {
        Bench one = bench("AxisLibrary.st", "Recipes.st");
        Bench other = bench("AxisLibrary.st", "Recipes.st");
        one.run(5);
        other.run(5);
        assertThat(one.resource().memory()).isEqualTo(other.resource().memory());
        assertThat(one.resource().statements()).isEqualTo(other.resource().statements());
    }
}
