package rueda.plcopen;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;
import static rueda.plcopen.ProgramBench.untilTrue;
import static rueda.plcopen.ProgramBench.value;

import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import rueda.bench.Bench;
import rueda.machine.Axis;
import rueda.machine.Machine;
import rueda.machine.Terminal.Function;

/** MC_WriteParameter, MC_WriteBoolParameter, MC_WriteDigitalOutput and MC_ReadDigitalOutput (PLCopen Motion Control part 1, numbers from memory). */
class WritingBlocksTest {

    private static Bench bench(String declarations, String body) {
        Machine machine = ProgramBench.alone("Shuttle", 500);
        Axis axis = machine.axes().get(0);
        machine = machine.withAxes(List.of(axis.withWiring(axis.wiring().with("Q2", Function.SET_OVER_BUS))));
        return new Bench(machine, "PROGRAM Main VAR t : DINT; Power : MC_Power; Home : MC_Home; Go : MC_MoveAbsolute; Write : MC_WriteParameter; Watch : MC_WriteBoolParameter; Read : MC_ReadParameter; Watched : MC_ReadBoolParameter; "
                + declarations + " END_VAR\nt := t + 1; Power(Axis := Shuttle, Enable := TRUE); Home(Axis := Shuttle, Execute := Power.Status);\n" + body + "\nEND_PROGRAM", 1000);
    }

    @ParameterizedTest
    @CsvSource({"2, 700.0", "3, 100.0", "9, 250.0", "13, 900.0", "15, 800.0", "17, 5000.0"})
    void whatIsWrittenIsReadAgain(int number, double wanted) {
        Bench bench = bench("", "Write(Axis := Shuttle, Execute := Home.Done, ParameterNumber := " + number + ", Value := " + wanted + "); Read(Axis := Shuttle, Enable := Write.Done, ParameterNumber := " + number + ");");
        untilTrue(bench, "Read.Valid");
        assertThat(value(bench, "Read.Value")).isEqualTo(wanted);
    }

    @ParameterizedTest
    @CsvSource({"2, 99999.0, BAD_VALUE", "3, -500.0, BAD_VALUE", "3, 2330.0, BAD_VALUE", "9, 0.0, BAD_VALUE", "9, 951.0, BAD_VALUE", "13, -1.0, BAD_VALUE", "17, 0.0, BAD_VALUE", "7, 5.0, READ_ONLY", "8, 5.0, READ_ONLY", "1, 5.0, READ_ONLY", "1007, 5.0, READ_ONLY"})
    void whatCannotBeIsRefused(int number, double wanted, MotionError error) {
        Bench bench = bench("", "Write(Axis := Shuttle, Execute := Home.Done, ParameterNumber := " + number + ", Value := " + wanted + ");");
        untilTrue(bench, "Write.Error");
        assertThat(MotionError.of((long) value(bench, "Write.ErrorID"))).isEqualTo(error);
        assertThat(value(bench, "Write.Done")).isZero();
    }

    /** A limit of the program's own refuses a target, and is switched off again: then the document's holds. */
    @Test
    void aSoftLimitOfTheProgram() {
        Bench bench = bench("Again : MC_MoveAbsolute;", "Write(Axis := Shuttle, Execute := Home.Done, ParameterNumber := 2, Value := 600.0); Go(Axis := Shuttle, Execute := Write.Done, Position := 700.0);\n"
                + "Watch(Axis := Shuttle, Execute := Go.Error, ParameterNumber := 4, Value := FALSE); Watched(Axis := Shuttle, Enable := TRUE, ParameterNumber := 4); Again(Axis := Shuttle, Execute := Watch.Done, Position := 700.0);");
        untilTrue(bench, "Go.Error");
        assertThat(value(bench, "Go.ErrorID")).isEqualTo(MotionError.PAST_SOFT_LIMIT.id());
        untilTrue(bench, "Again.Done");
        assertThat(value(bench, "Watched.Value")).isZero();
        assertThat(bench.axis(0).shownPosition()).isCloseTo(700, within(1e-6));
        assertThat(bench.axis(0).limits().softMax()).isEqualTo(2330);
    }

    /** What an order leaves out is what was written. */
    @Test
    void theSpeedOfAnOrderThatLeavesItOut() {
        Bench bench = bench("", "Write(Axis := Shuttle, Execute := Home.Done, ParameterNumber := 9, Value := 120.0); Go(Axis := Shuttle, Execute := Write.Done, Position := 900.0);");
        untilTrue(bench, "Go.Active");
        double fastest = 0;
        for (int i = 0; i < 2000; i++) {
            bench.cycle();
            fastest = Math.max(fastest, bench.axis(0).commandedSpeed());
        }
        assertThat(fastest).isCloseTo(120, within(1e-9));
    }

    /** Terminal Q2 is set over the bus, Q1 is not: 60FEh by mailbox, its level at the terminal, and read again. */
    @Test
    void anOutputOfTheDrive() {
        Bench bench = bench("Set : MC_WriteDigitalOutput; Get : MC_ReadDigitalOutput; Wrong : MC_WriteDigitalOutput; WrongToo : MC_ReadDigitalOutput;",
                "Set(Axis := Shuttle, Execute := t MOD 1000 > 500, OutputNumber := 1, Value := t < 1000); Get(Axis := Shuttle, Enable := t > 600, OutputNumber := 1);\n"
                        + "Wrong(Axis := Shuttle, Execute := TRUE, OutputNumber := 0, Value := TRUE); WrongToo(Axis := Shuttle, Enable := TRUE, OutputNumber := 9);");
        untilTrue(bench, "Set.Busy");
        assertThat(value(bench, "Set.Done")).as("the mailbox takes its time").isZero();
        assertThat(bench.drive(0).outputLevels() & 2).isZero();
        untilTrue(bench, "Set.Done");
        assertThat(bench.drive(0).outputLevels() & 2).isEqualTo(2);
        untilTrue(bench, "Get.Value");
        for (int number : new int[] {(int) value(bench, "Wrong.ErrorID"), (int) value(bench, "WrongToo.ErrorID")}) {
            assertThat(number).isEqualTo(MotionError.NO_OUTPUT.id());
        }
        ProgramBench.until(bench, 1600);
        assertThat(value(bench, "Get.Value")).isZero();
        assertThat(bench.drive(0).outputLevels() & 2).isZero();
    }

    /** The device begins anew while the order is on its way: Done means that the one which answers now has it. */
    @Test
    void aRestartOnTheWay() {
        Bench bench = bench("Set : MC_WriteDigitalOutput;", "Set(Axis := Shuttle, Execute := Home.Done, OutputNumber := 1, Value := TRUE);");
        untilTrue(bench, "Set.Busy");
        bench.restartDevice(0);
        untilTrue(bench, "Set.Done");
        assertThat(bench.restarting(0)).isFalse();
        assertThat(bench.drive(0).outputLevels() & 2).isEqualTo(2);
    }
}
