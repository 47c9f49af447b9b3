package rueda.plcopen;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;
import static rueda.plcopen.ProgramBench.until;
import static rueda.plcopen.ProgramBench.value;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import rueda.bench.Bench;
import rueda.machine.Axis;
import rueda.machine.DemoMachine;
import rueda.plc.run.FunctionBlock.Kind;
import rueda.plc.run.FunctionBlock.Pin;

/** MC_ReadParameter, MC_ReadBoolParameter, MC_ReadMotionState by PLCopen Motion Control part 1 (numbers from memory), and the table of all blocks. */
class ReadingBlocksTest {

    private static Bench bench(String body) {
        return new Bench(ProgramBench.alone("Shuttle", 500), "PROGRAM P VAR Power : MC_Power; Home : MC_Home; Go : MC_MoveAbsolute; Read : MC_ReadParameter; Watched : MC_ReadBoolParameter; Set, Act : MC_ReadMotionState;"
                + " Ready : BOOL; t : DINT; Number : INT := 1; Place : LREAL; END_VAR\n"
                + "Power(Axis := Shuttle, Enable := TRUE); Home(Axis := Shuttle, Execute := Power.Status); IF Home.Done THEN Ready := TRUE; END_IF\nIF Ready THEN t := t + 1; END_IF\n" + body + "\nEND_PROGRAM", 100);
    }

    @ParameterizedTest
    @CsvSource({"2, softMax", "3, softMin", "8, max.speed", "9, normal.speed", "12, max.acceleration", "13, normal.acceleration", "14, max.deceleration", "15, normal.deceleration", "16, max.jerk", "17, normal.jerk"})
    void parametersByTheirNumbers(int number, String what) {
        Bench bench = bench("Read(Axis := Shuttle, Enable := TRUE, ParameterNumber := " + number + ");");
        bench.run(0.1);
        Axis axis = DemoMachine.shuttle();
        double expected = switch (what) {
            case "softMax" -> axis.limits().softMax();
            case "softMin" -> axis.limits().softMin();
            case "max.speed" -> axis.limits().max().speed();
            case "normal.speed" -> axis.limits().normal().speed();
            case "max.acceleration" -> axis.limits().max().acceleration();
            case "normal.acceleration" -> axis.limits().normal().acceleration();
            case "max.deceleration" -> axis.limits().max().deceleration();
            case "normal.deceleration" -> axis.limits().normal().deceleration();
            case "max.jerk" -> axis.limits().max().jerk();
            default -> axis.limits().normal().jerk();
        };
        assertThat(value(bench, "Read.Value")).isEqualTo(expected);
        assertThat(value(bench, "Read.Valid")).isEqualTo(1);
    }

    @Test
    void aNumberThatIsNoneIsAnError() {
        Bench bench = bench("Number := SEL(t > 0, 0, 99); Read(Axis := Shuttle, Enable := Ready OR Power.Status, ParameterNumber := Number); Watched(Axis := Shuttle, Enable := TRUE, ParameterNumber := 4);");
        bench.run(0.5);
        assertThat(value(bench, "Read.Error")).isEqualTo(1);
        assertThat(value(bench, "Read.ErrorID")).isEqualTo(MotionError.BAD_VALUE.id());
        assertThat(value(bench, "Read.Valid")).isZero();
        assertThat(value(bench, "Watched.Value")).as("soft limits are watched").isEqualTo(1);
    }

    /** It speeds up, runs, slows down and stands; the speed of the setpoint tells it exactly, the actual one within its window. */
    @Test
    void howItMoves() {
        Bench bench = bench("Go(Axis := Shuttle, Execute := t > 100, Position := 1500.0, Velocity := 400.0, Acceleration := 800.0, Deceleration := 800.0, Jerk := 0.0);\n"
                + "Set(Axis := Shuttle, Enable := TRUE, Source := mcSetValue); Act(Axis := Shuttle, Enable := TRUE, Source := mcActualValue);\nRead(Axis := Shuttle, Enable := TRUE, ParameterNumber := 11);");
        until(bench, 90);
        assertThat(value(bench, "Set.ConstantVelocity")).as("0 is constant too").isEqualTo(1);
        assertThat(value(bench, "Set.DirectionPositive") + value(bench, "Set.DirectionNegative")).isZero();
        until(bench, 250);
        assertThat(value(bench, "Set.Accelerating")).isEqualTo(1);
        assertThat(value(bench, "Set.DirectionPositive")).isEqualTo(1);
        assertThat(value(bench, "Act.DirectionPositive")).isEqualTo(1);
        assertThat(value(bench, "Read.Value")).isBetween(50.0, 390.0);
        until(bench, 700);
        assertThat(value(bench, "Set.ConstantVelocity")).isEqualTo(1);
        assertThat(value(bench, "Set.Accelerating") + value(bench, "Set.Decelerating")).isZero();
        assertThat(value(bench, "Act.ConstantVelocity")).isEqualTo(1);
        assertThat(value(bench, "Read.Value")).isCloseTo(400, within(1e-6));
    }

    // ---- the table in docs

    private static String pins(Kind kind, boolean outputs) {
        return String.join(", ", kind.pins().stream().filter(p -> p.output() == outputs).map(Pin::name).toList());
    }

    /** Every block stands in docs/motion-blocks.md with the inputs and outputs that it has. */
    @Test
    void theTableOfBlocksIsTrue() throws IOException {
        List<String> table = Files.readAllLines(Path.of("..", "docs", "motion-blocks.md"));
        List<Kind> kinds = MotionBlocks.kinds(new MotionAxis[0]);
        for (Kind kind : kinds) {
            String row = "| `" + kind.name() + "` | " + pins(kind, false) + " | " + pins(kind, true) + " |";
            assertThat(table).as("docs/motion-blocks.md").anySatisfy(line -> assertThat(line).startsWith(row));
        }
        assertThat(table.stream().filter(line -> line.startsWith("| `MC_")).count()).isEqualTo(kinds.size());
        String types = MotionBlocks.types();
        assertThat(String.join("\n", table)).contains(types.substring(types.indexOf("  MC_TP : STRUCT"), types.indexOf("END_TYPE")).stripTrailing());
    }
}
