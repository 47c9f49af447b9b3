package rueda.plc;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/**
 * Small programs with the values that IEC 61131-3 edition 3 gives them, worked by hand, each with its clause (numbers from memory): the tables
 * {@code expressions.txt} and {@code programs.txt} beside this class's resources.
 */
class ConformanceTest {

    private static final String VARIABLES = "i : INT := 7; j : INT := -3; d : DINT := 100000; u : UINT := 65535; w : WORD := WORD#16#A5F0; b8 : BYTE := BYTE#16#81; t : BOOL := TRUE; f : BOOL; "
            + "r : REAL := 2.5; l : LREAL := -1.5; s : STRING := 'cheese'; tm : TIME := T#1s500ms; dt1 : DT := DT#2026-11-27-13:45:10.250; sel : UINT := 2;";

    /** @param cycles of 10 ms  @param values name = value, separated by ; */
    record Case(String title, String source, int cycles, String values) {
        @Override
        public String toString() {
            return title;
        }
    }

    private static List<String> lines(String file) throws IOException {
        try (InputStream in = ConformanceTest.class.getResourceAsStream("/iec61131/" + file)) {
            return new String(in.readAllBytes(), StandardCharsets.UTF_8).lines().toList();
        }
    }

    static Stream<Case> expressions() throws IOException {
        return lines("expressions.txt").stream().filter(line -> !line.isBlank() && !line.startsWith("#")).flatMap(line -> {
            String[] parts = line.split(" \\| ", 4);
            String head = "PROGRAM P VAR x : " + parts[1] + "; " + VARIABLES + " END_VAR\n";
            return Stream.of(new Case(parts[0] + " " + parts[2], head + "x := " + parts[2] + "; END_PROGRAM", 1, "x = " + parts[3]));
        });
    }

    static Stream<Case> programs() throws IOException {
        List<Case> cases = new ArrayList<>();
        String title = "";
        StringBuilder source = new StringBuilder();
        for (String line : lines("programs.txt")) {
            if (line.startsWith("## ")) {
                title = line.substring(3);
                source.setLength(0);
            } else if (line.startsWith("=>")) {
                String[] parts = line.substring(2).split(" ", 2);
                cases.add(new Case(title, source.toString(), parts[0].isEmpty() ? 1 : Integer.parseInt(parts[0]), parts[1]));
            } else if (!line.startsWith("#")) {
                source.append(line).append('\n');
            }
        }
        return cases.stream();
    }

    @ParameterizedTest
    @MethodSource({"expressions", "programs"})
    void values(Case conformance) {
        CompiledProgram program = StructuredTextCompiler.compile(conformance.source(), Environment.PLAIN);
        assertThat(program.diagnostics()).as(conformance.source()).isEmpty();
        Resource task = Resource.alone(program, 100_000);
        for (int k = 0; k < conformance.cycles(); k++) {
            task.cycle(k * 10_000_000L);
        }
        assertThat(task.fault()).isNull();
        for (String value : conformance.values().split("; ")) {
            String[] sides = value.split(" = ", 2);
            assertThat(task.text(program.variable(sides[0]).orElseThrow(() -> new AssertionError("no variable " + sides[0])))).as(sides[0] + " in\n" + conformance.source()).isEqualTo(sides[1]);
        }
    }

    @Test
    void theSuiteIsLarge() throws IOException {
        assertThat(expressions().count() + programs().count()).isGreaterThanOrEqualTo(300);
    }
}
