package rueda.plc.syntax;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import rueda.machine.DemoMachine;

/** A text is indented by its structure, and means the same afterwards. */
class FormatterTest {

    @Test
    void byStructure() {
        assertThat(Formatter.format("""
                type
                Color : (Red,
                         Green);
                 Pair : struct
                a : int; (* one *)
                     end_struct;
                end_type
                   program Main
                VAR CONSTANT
                k : INT := 3;
                   END_VAR
                var
                list : ARRAY [1..2] OF INT;
                n : INT;
                END_VAR
                Move(Axis := A,
                     Execute := TRUE);
                (* a comment
                   of two lines *)
                case n of
                1, 2..3: (* first *)
                n := 5;
                   if n > 1 then
                // inside
                n := 2;

                elsif n = 0 then n := 1; else
                n := 0;
                end_if
                k: n := 3;
                else
                n := 9;
                end_case
                repeat
                n := n + 1;
                until n > 5 end_repeat
                end_program
                """)).isEqualTo("""
                TYPE
                  Color : (Red,
                           Green);
                  Pair : STRUCT
                    a : int; (* one *)
                  END_STRUCT;
                END_TYPE
                PROGRAM Main
                VAR CONSTANT
                  k : INT := 3;
                END_VAR
                VAR
                  list : ARRAY [1..2] OF INT;
                  n : INT;
                END_VAR
                  Move(Axis := A,
                       Execute := TRUE);
                  (* a comment
                     of two lines *)
                  CASE n OF
                    1, 2..3: (* first *)
                      n := 5;
                      IF n > 1 THEN
                        // inside
                        n := 2;

                      ELSIF n = 0 THEN n := 1; ELSE
                        n := 0;
                      END_IF
                    k: n := 3;
                  ELSE
                      n := 9;
                  END_CASE
                  REPEAT
                    n := n + 1;
                  UNTIL n > 5 END_REPEAT
                END_PROGRAM
                """);
    }

    private static List<String> words(String text) {
        return Lexer.cut(text, Complaints.NONE).tokens().stream().map(t -> t.isKeyword() ? t.upper() : t.text()).toList();
    }

    private static void same(String text) {
        String once = Formatter.format(text);
        assertThat(words(once)).isEqualTo(words(text));
        assertThat(once.lines().count()).isEqualTo(text.lines().count());
        assertThat(Formatter.format(once)).as("a second time nothing changes").isEqualTo(once);
    }

    @Test
    void theDemo() {
        same(DemoMachine.create().plc().program());
        same(DemoMachine.byWords().plc().program());
    }

    @ParameterizedTest
    @ValueSource(strings = {"AxisLibrary.st", "Modes.st", "PickAndPlace.st", "Recipes.st"})
    void programsOfTheTrade(String name) throws IOException {
        same(new String(FormatterTest.class.getResourceAsStream("/trade/" + name).readAllBytes(), StandardCharsets.UTF_8));
    }

    /** Also of a text in the making: the words stay, and their order. */
    @Test
    void brokenTexts() {
        String whole = DemoMachine.create().plc().program();
        Random random = new Random(3);
        for (int i = 0; i < 300; i++) {
            StringBuilder text = new StringBuilder(whole.substring(0, 2500));
            for (int k = 0; k < 4; k++) {
                int from = random.nextInt(text.length() - 10);
                text.delete(from, from + random.nextInt(9));
            }
            assertThat(words(Formatter.format(text.toString()))).isEqualTo(words(text.toString()));
        }
        assertThat(Formatter.format("")).isEmpty();
        assertThat(Formatter.format("END_IF\nEND_IF\nx := 1")).isEqualTo("END_IF\nEND_IF\nx := 1");
    }
}
