package rueda.plc;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import rueda.plc.StructuredTextCompiler.Text;
import rueda.plc.type.Type;

/** Who reads and writes tags, and where one place of writing makes another one useless. */
class TagReferenceTest {

    private static final Environment ENVIRONMENT = new Environment(List.of(), List.of(new Environment.Tag("Q.a", Type.BOOL, true), new Environment.Tag("Q.b", Type.BOOL, true)), StandardBlocks.ALL, List.of());

    private static List<TagReference> references(String... texts) {
        List<Text> all = new java.util.ArrayList<>();
        for (String text : texts) {
            all.add(new Text("f" + all.size(), text));
        }
        assertThat(StructuredTextCompiler.compile(all, ENVIRONMENT).diagnostics()).isEmpty();
        return TagReference.of(all, ENVIRONMENT);
    }

    @Test
    void whoReadsAndWrites() {
        List<TagReference> all = references("PROGRAM Main\nQ.a := NOT Q.a OR F();\nEND_PROGRAM", "FUNCTION F : BOOL\nF := Q.a;\nEND_FUNCTION");
        assertThat(all).extracting(TagReference::name).containsExactly("Q.a", "Q.b");
        assertThat(all.get(0).writes()).extracting(NameIndex.Use::file, NameIndex.Use::line, NameIndex.Use::column).containsExactly(org.assertj.core.groups.Tuple.tuple("f0", 2, 1));
        assertThat(all.get(0).reads()).extracting(NameIndex.Use::unit).containsExactly("Main", "F");
        assertThat(all.get(1).reads()).isEmpty();
        assertThat(all.get(1).writes()).isEmpty();
    }

    @ParameterizedTest
    @CsvSource(delimiter = '|', textBlock = """
            Q.a := TRUE; Q.a := FALSE;                                                       | true
            IF n = 1 THEN Q.a := TRUE; ELSE Q.a := FALSE; END_IF                             | false
            IF n = 1 THEN Q.a := TRUE; ELSIF n = 2 THEN Q.a := FALSE; END_IF                 | false
            Q.a := FALSE; IF n = 1 THEN Q.a := TRUE; END_IF                                  | true
            CASE n OF 1: Q.a := TRUE; 2: Q.a := FALSE; ELSE Q.a := TRUE; END_CASE            | false
            CASE n OF 1: Q.a := TRUE; END_CASE CASE n OF 2: Q.a := FALSE; END_CASE           | true
            IF n = 1 THEN IF n = 2 THEN Q.a := TRUE; END_IF Q.a := FALSE; END_IF             | true
            FOR n := 1 TO 2 DO IF n = 1 THEN Q.a := TRUE; ELSE Q.a := FALSE; END_IF END_FOR  | false
            Q.a := TRUE; Q.b := FALSE;                                                       | false
            t(IN := TRUE, Q => Q.a); Q.a := FALSE;                                           | true""")
    void twiceInOneCycle(String body, boolean twice) {
        assertThat(references("PROGRAM Main VAR n : INT; t : TON; END_VAR " + body + " END_PROGRAM").get(0).twice()).isEqualTo(twice);
    }

    @Test
    void inTwoPrograms() {
        assertThat(references("PROGRAM One Q.a := TRUE; END_PROGRAM PROGRAM Two Q.a := FALSE; END_PROGRAM").get(0).twice()).isTrue();
    }
}
