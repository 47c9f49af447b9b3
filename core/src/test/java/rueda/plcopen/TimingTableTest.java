package rueda.plcopen;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import rueda.bench.Bench;

/**
 * Outputs of blocks with Execute, task cycle by task cycle, against the rules of PLCopen Motion Control part 1, 2.4.1 (from memory): Busy with
 * the rising edge; Active when the block has the axis; of Busy, Done, CommandAborted and Error exactly one while Execute stands; Done,
 * CommandAborted and Error for one cycle where Execute has fallen before, else until it falls; a rising edge begins anew.
 *
 * <p>A row is what stands after a call: E Execute, B Busy, A Active, D Done, C CommandAborted, X Error; ×n behind it: for n cycles exactly.
 */
class TimingTableTest {

    private static final String HEAD = "PROGRAM Main\nVAR t, k : DINT; Power : MC_Power; Home : MC_Home; M, N : MC_MoveAbsolute; R : MC_MoveRelative; V : MC_MoveVelocity; H : MC_Halt; S : MC_Stop; END_VAR\n"
            + "t := t + 1;\nPower(Axis := Shuttle, Enable := TRUE);\nHome(Axis := Shuttle, Execute := Power.Status);\nIF Home.Done THEN k := k + 1; END_IF\n";

    private static boolean on(Bench bench, String name) {
        return bench.resource().program().variable(name).filter(v -> v.number(bench.resource().memory()) != 0).isPresent();
    }

    private static String row(Bench bench, String instance) {
        return (on(bench, instance + ".Execute") ? "E" : "-") + (on(bench, instance + ".Busy") ? "B" : "-") + (on(bench, instance + ".Active") ? "A" : "-") + (on(bench, instance + ".Done") ? "D" : "-")
                + (on(bench, instance + ".CommandAborted") ? "C" : "-") + (on(bench, instance + ".Error") ? "X" : "-");
    }

    /** k counts task cycles of 2 ms since the axis knows its place, 100 mm. */
    @ParameterizedTest(name = "{0}")
    @CsvSource(delimiter = '|', ignoreLeadingAndTrailingWhitespace = true, textBlock = """
            Execute stands until it is done     | M(Axis := Shuttle, Execute := k > 0 AND k < 400, Position := 110.0);                                               | M | ------ EBA--- E--D-- ------
            Execute falls early                 | M(Axis := Shuttle, Execute := k = 5, Position := 110.0);                                                          | M | ------ EBA---×1 -BA--- ---D--×1 ------
            Execute falls and rises while busy  | M(Axis := Shuttle, Execute := k = 5 OR k > 9 AND k < 400, Position := 110.0);                                     | M | ------ EBA---×1 -BA---×4 EBA--- E--D-- ------
            already there                       | M(Axis := Shuttle, Execute := k > 0 AND k < 400, Position := 100.0);                                               | M | ------ EBA--- E--D-- ------
            refused                             | M(Axis := Shuttle, Execute := k > 0 AND k < 100, Position := 99999.0);                                             | M | ------ E----X ------
            refused, Execute for one cycle      | M(Axis := Shuttle, Execute := k = 5, Position := 99999.0);                                                         | M | ------ E----X×1 ------
            refused while not homed             | M(Axis := Shuttle, Execute := t > 2 AND t < 9, Position := 110.0);                                                 | M | ------ E----X×6 ------
            aborted by another instance         | M(Axis := Shuttle, Execute := k > 0 AND k < 100, Position := 600.0); N(Axis := Shuttle, Execute := k > 20, Position := 110.0);  | M | ------ EBA--- E---C- ------
            aborted, Execute has fallen         | M(Axis := Shuttle, Execute := k = 5, Position := 600.0); N(Axis := Shuttle, Execute := k > 20, Position := 110.0); | M | ------ EBA---×1 -BA--- ----C-×1 ------
            two in the same cycle, the first    | M(Axis := Shuttle, Execute := k > 5 AND k < 100, Position := 600.0); N(Axis := Shuttle, Execute := k > 5, Position := 110.0);   | M | ------ EBA---×1 E---C- ------
            two in the same cycle, the second   | M(Axis := Shuttle, Execute := k > 5, Position := 600.0); N(Axis := Shuttle, Execute := k > 5 AND k < 900, Position := 110.0);   | N | ------ EBA--- E--D-- ------
            waits for the one before            | M(Axis := Shuttle, Execute := k > 5, Position := 200.0); N(Axis := Shuttle, Execute := k > 5 AND k < 900, Position := 110.0, BufferMode := mcBuffered); | N | ------ EB---- EBA--- E--D-- ------
            the one before is done meanwhile    | M(Axis := Shuttle, Execute := k > 5 AND k < 900, Position := 200.0); N(Axis := Shuttle, Execute := k > 5, Position := 110.0, BufferMode := mcBuffered); | M | ------ EBA--- E--D-- ------
            what waits is dropped by an abort   | M(Axis := Shuttle, Execute := k > 5, Position := 600.0); N(Axis := Shuttle, Execute := k > 5 AND k < 99, Position := 110.0, BufferMode := mcBuffered); R(Axis := Shuttle, Execute := k > 30, Distance := 10.0); | N | ------ EB---- E---C- ------
            a speed has no end                  | V(Axis := Shuttle, Execute := k = 5, Velocity := 50.0); H(Axis := Shuttle, Execute := k > 100);                    | V | ------ EBA---×1 -BA--- ----C-×1 ------
            a halt                              | V(Axis := Shuttle, Execute := k > 5, Velocity := 50.0); H(Axis := Shuttle, Execute := k > 100 AND k < 900);         | H | ------ EBA--- E--D-- ------
            a stop holds the axis               | V(Axis := Shuttle, Execute := k > 5, Velocity := 50.0); S(Axis := Shuttle, Execute := k > 100 AND k < 900);         | S | ------ EBA--- E--D-- ------
            refused while it is stopped         | V(Axis := Shuttle, Execute := k > 5, Velocity := 50.0); S(Axis := Shuttle, Execute := k > 100 AND k < 900); M(Axis := Shuttle, Execute := k > 500 AND k < 505, Position := 110.0); | M | ------ E----X×4 ------
            it begins anew behind an error      | M(Axis := Shuttle, Execute := k > 5 AND k < 10 OR k > 20 AND k < 900, Position := SEL(k > 15, 99999.0, 110.0));     | M | ------ E----X×4 ------×11 EBA--- E--D-- ------""")
    void table(String what, String calls, String instance, String rows) {
        Bench bench = new Bench(ProgramBench.alone("Shuttle", 100), HEAD + calls + "\nEND_PROGRAM", 4000);
        List<String> seen = new ArrayList<>();
        List<Integer> lengths = new ArrayList<>();
        for (int cycle = 0; cycle < 1300; cycle++) {
            bench.cycle();
            bench.cycle();
            String row = row(bench, instance);
            if (seen.isEmpty() || !seen.get(seen.size() - 1).equals(row)) {
                seen.add(row);
                lengths.add(0);
            }
            lengths.set(lengths.size() - 1, lengths.get(lengths.size() - 1) + 1);
        }
        List<String> told = new ArrayList<>();
        String[] expected = rows.split(" ");
        for (int i = 0; i < seen.size(); i++) {
            boolean exact = i < expected.length && expected[i].indexOf('×') > 0;
            told.add(seen.get(i) + (exact ? "×" + lengths.get(i) : ""));
        }
        assertThat(told).as(lengths.toString()).containsExactly(expected);
    }
}
