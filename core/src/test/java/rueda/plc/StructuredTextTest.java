package rueda.plc;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** IEC 61131-3: operators and precedence, conversions, statements, standard function blocks; expected values worked by hand. */
class StructuredTextTest {

    private static CompiledProgram compiled(String declarations, String body) {
        return StructuredTextCompiler.compile("PROGRAM T\nVAR\n" + declarations + "\nEND_VAR\n" + body + "\nEND_PROGRAM", Environment.PLAIN);
    }

    private static String result(String type, String body) {
        CompiledProgram program = compiled("x : " + type + "; i, j : INT; b : BOOL; s : SINT := 127; u : USINT := 255; d : DINT; r : REAL; l : LREAL; t : TIME; w : STRING := 'wheel'; short : STRING[3] := 'salted'; c : CHAR := 'c';", body);
        assertThat(program.diagnostics()).isEmpty();
        Resource task = Resource.alone(program, 10_000);
        task.cycle(0);
        assertThat(task.fault()).isNull();
        return task.text(program.variable("x").orElseThrow());
    }

    @ParameterizedTest
    @CsvSource(delimiter = '|', value = {
            "INT   | 2 + 3 * 4                     | 14",
            "INT   | (2 + 3) * 4                   | 20",
            "INT   | -2 + 5                        | 3",
            "INT   | 20 / 2 * 5                    | 50",
            "INT   | 20 - 5 - 5                    | 10",
            "INT   | 7 MOD 3 * 2                   | 2",
            "LREAL | 2.0 ** 3.0 * 2.0              | 16.0",
            "LREAL | -2.0 ** 2.0                   | 4.0",
            "LREAL | 2.0 ** 3.0 ** 2.0             | 64.0",
            "BOOL  | 1 + 1 = 2 AND 3 > 2           | TRUE",
            "BOOL  | TRUE OR FALSE AND FALSE       | TRUE",
            "BOOL  | TRUE XOR TRUE AND FALSE       | TRUE",
            "BOOL  | TRUE OR TRUE XOR TRUE         | TRUE",
            "BOOL  | NOT FALSE AND FALSE           | FALSE",
            "BOOL  | 1 < 2 = TRUE                  | TRUE",
            "INT   | 7 / 2                         | 3",
            "INT   | -7 / 2                        | -3",
            "INT   | -7 MOD 2                      | -1",
            "INT   | 7 MOD 0                       | 0",
            "SINT  | s + 1                         | -128",
            "USINT | u + 1                         | 0",
            "INT   | i - 1                         | -1",
            "USINT | u * u                         | 1",
            "DINT  | 16#FF                         | 255",
            "DINT  | 2#1010_0101                   | 165",
            "DINT  | 8#17                          | 15",
            "DINT  | 1_000_000                     | 1000000",
            "WORD  | WORD#16#00FF AND WORD#16#0F0F | 16#000F",
            "WORD  | NOT WORD#16#00FF              | 16#FF00",
            "TIME  | T#1s + T#500ms                | T#1500ms",
            "TIME  | T#1m - T#1s500ms              | T#58500ms",
            "TIME  | T#100ms * 3                   | T#300ms",
            "TIME  | T#1s / 4                      | T#250ms",
            "TIME  | T#1s * 0.5                    | T#500ms",
            "BOOL  | T#1s > T#999ms                | TRUE",
            "TIME  | T#1h2m3s4ms                   | T#3723004ms",
            "INT   | REAL_TO_INT(2.5)              | 2",
            "INT   | REAL_TO_INT(3.5)              | 4",
            "LREAL | INT_TO_LREAL(7) / 2.0         | 3.5",
            "LREAL | SQRT(2.25)                    | 1.5",
            "INT   | ABS(-5)                       | 5",
            "INT   | LIMIT(0, 12, 10)              | 10",
            "INT   | MAX(3, MIN(9, 7))             | 7",
            "INT   | SEL(TRUE, 1, 2)               | 2",
            "SINT  | INT_TO_SINT(200)              | -56",
            "LREAL | 5                             | 5.0",
            "LREAL | i + 2.5                       | 2.5"})
    void expressions(String type, String expression, String expected) {
        assertThat(result(type.trim(), "x := " + expression.trim() + ";")).isEqualTo(expected.trim());
    }

    @ParameterizedTest
    @CsvSource(delimiter = '|', value = {
            "FOR i := 1 TO 10 DO x := x + i; END_FOR                             | 55",
            "FOR i := 10 TO 1 BY -3 DO x := x + i; END_FOR                       | 22",
            "FOR i := 5 TO 4 DO x := 99; END_FOR                                 | 0",
            "j := 3; FOR i := 1 TO j DO j := 100; x := x + 1; END_FOR            | 3",
            "FOR i := 32766 TO 32767 DO x := x + 1; END_FOR                      | 2",
            "FOR i := 1 TO 10 DO IF i = 4 THEN EXIT; END_IF x := x + 1; END_FOR  | 3",
            "WHILE x < 5 DO x := x + 2; END_WHILE                                | 6",
            "REPEAT x := x + 1; UNTIL TRUE END_REPEAT                            | 1",
            "i := 3; CASE i OF 1: x := 1; 2..4: x := 2; ELSE x := 9; END_CASE    | 2",
            "i := 4; CASE i OF 1, 4: x := 1; 2..3: x := 2; ELSE x := 9; END_CASE | 1",
            "i := 5; CASE i OF 1: x := 1; 2..4: x := 2; ELSE x := 9; END_CASE    | 9",
            "i := -2; CASE i OF -3..-1: x := 7; END_CASE                         | 7",
            "IF i = 1 THEN x := 1; ELSIF i = 0 THEN x := 2; ELSE x := 3; END_IF  | 2",
            "x := 1; RETURN; x := 2;                                             | 1"})
    void statements(String body, String expected) {
        assertThat(result("DINT", body)).isEqualTo(expected.trim());
    }

    @ParameterizedTest
    @CsvSource(delimiter = '|', value = {
            "x := y;                       | 1 | 6  | no variable y",
            "x := TRUE;                    | 1 | 6  | needed here",
            "x := 40000;                   | 1 | 6  | does not fit into INT",
            "x := 2.5;                     | 1 | 6  | INT is needed",
            "IF x THEN x := 1; END_IF      | 1 | 4  | BOOL is needed",
            "x := 1 +;                     | 1 | 9  | value is missing after +",
            "EXIT;                         | 1 | 1  | outside of any loop",
            "d := x + b;                   | 1 | 6  | no common type",
            "c := 1;                       | 1 | 1  | CONSTANT",
            "Clock(IN := 2);               | 1 | 13 | does not fit into BOOL",
            "Clock(IM := TRUE);            | 1 | 7  | no such input",
            "Clock.Q := TRUE;              | 1 | 1  | output",
            "CASE x OF 1: ; 1..2: ; END_CASE | 1 | 16 | taken already",
            "x := FOO(1);                  | 1 | 6  | no function FOO",
            "x := T#1s;                    | 1 | 6  | INT is needed",
            "x := 1 / 0;                   | 1 | 6  | Division by zero",
            "Missing(IN := TRUE);          | 1 | 1  | no function block"})
    void faultsNameLineAndColumn(String body, int line, int column, String words) {
        CompiledProgram program = StructuredTextCompiler.compile("PROGRAM T VAR x : INT; d : DINT; b : BOOL; Clock : TON; END_VAR VAR CONSTANT c : INT := 1; END_VAR\n"
                + body.trim() + "\nEND_PROGRAM", Environment.PLAIN);
        assertThat(program.runs()).isFalse();
        Diagnostic first = program.diagnostics().get(0);
        assertThat(first.message()).contains(words.trim());
        assertThat(first.line()).isEqualTo(line + 1);
        assertThat(first.column()).isEqualTo(column);
    }

    @Test
    void divisionByZeroStopsInItsLine() {
        Resource task = Resource.alone(compiled("x, y : INT;", "y := 0;\nx := 5 / y;"), 100);
        task.cycle(0);
        assertThat(task.fault().getMessage()).contains("Division by zero");
        assertThat(task.fault().line()).isEqualTo(6);
    }

    @Test
    void runawayLoopIsStoppedInItsLine() {
        Resource task = Resource.alone(compiled("x : DINT;", "x := 1;\nWHILE TRUE DO\n  x := x + 1;\nEND_WHILE"), 1000);
        task.cycle(0);
        assertThat(task.fault().getMessage()).contains("budget");
        assertThat(task.fault().line()).isBetween(6, 7);
        assertThat(task.statements()).isEqualTo(1000);
    }

    @Test
    void budgetIsPerCycle() {
        Resource task = Resource.alone(compiled("i : INT; x : DINT;", "FOR i := 1 TO 100 DO x := x + 1; END_FOR"), 300);
        for (int k = 0; k < 50; k++) {
            task.cycle(k);
        }
        assertThat(task.fault()).isNull();
        assertThat(task.program().variable("x").orElseThrow().number(task.memory())).isEqualTo(5000);
    }

    /** IEC 61131-3, standard function blocks: TON timing diagram. */
    @Test
    void onDelay() {
        Resource task = Resource.alone(compiled("Clock : TON; go : BOOL := TRUE; q : BOOL;", "Clock(IN := go, PT := T#10ms, Q => q);"), 100);
        Variable q = task.program().variable("q").orElseThrow();
        for (long ms = 0; ms <= 12; ms++) {
            task.cycle(ms * 1_000_000);
            assertThat(q.number(task.memory())).as("%d ms", ms).isEqualTo(ms >= 10 ? 1 : 0);
        }
        assertThat(task.program().variable("Clock.ET").orElseThrow().text(task.memory())).isEqualTo("T#10ms");
    }

    /**
     * IEC 61131-3, 6.6.3.5.3, bodies of R_TRIG and F_TRIG (from memory): M is FALSE at the start, so F_TRIG gives Q once when its first call
     * finds CLK FALSE; of the five falling edges counted here that is the first.
     */
    @Test
    void edges() {
        Resource task = Resource.alone(compiled("n, ups, downs : INT; Up : R_TRIG; Down : F_TRIG; b : BOOL;",
                "b := n MOD 4 >= 2; Up(CLK := b); Down(CLK := b); IF Up.Q THEN ups := ups + 1; END_IF IF Down.Q THEN downs := downs + 1; END_IF n := n + 1;"), 100);
        for (int k = 0; k < 20; k++) {
            task.cycle(k);
        }
        assertThat(task.program().variable("ups").orElseThrow().number(task.memory())).isEqualTo(5);
        assertThat(task.program().variable("downs").orElseThrow().number(task.memory())).isEqualTo(5);
    }

    @Test
    void namesAreTheSameInAnyCase() {
        assertThat(result("INT", "X := 3; if x = 3 then x := 4; end_if")).isEqualTo("4");
    }

    @Test
    void commentsMaySpanLines() {
        assertThat(result("INT", "x := 1; (* x := 2;\n x := 3; *) // x := 4;\n")).isEqualTo("1");
    }

    /** Dates, times of day and character strings: IEC 61131-3, operations on time data types and string functions; worked by hand. */
    @ParameterizedTest
    @CsvSource(delimiter = '|', quoteCharacter = '`', value = {
            "DT     | DT#2026-11-23-23:59:30 + T#45s          | DT#2026-11-24-00:00:15",
            "DT     | DT#2026-03-01-00:00:00 - T#1s           | DT#2026-02-28-23:59:59",
            "TIME   | DT#2026-11-23-10:00:00 - DT#2026-11-23-09:59:59.5 | T#500ms",
            "TIME   | D#2026-11-24 - D#2026-11-23             | T#86400000ms",
            "TIME   | TOD#12:00:00 - TOD#11:59:00             | T#60000ms",
            "TOD    | TOD#12:00:00 + T#90m                    | TOD#13:30:00",
            "DATE   | DT_TO_DATE(DT#2026-11-23-15:07:27)      | D#2026-11-23",
            "TOD    | DT_TO_TOD(DT#2026-11-23-15:07:27)       | TOD#15:07:27",
            "BOOL   | D#2026-11-23 < D#2026-11-24             | TRUE",
            "LTIME  | T#1s + LT#1ns                           | T#1000000001ns",
            "INT    | LEN(w)                                  | 5",
            "STRING | LEFT(w, 2)                              | 'wh'",
            "STRING | RIGHT(w, 2)                             | 'el'",
            "STRING | MID(w, 3, 2)                            | 'hee'",
            "STRING | CONCAT(w, ' 7')                         | 'wheel 7'",
            "STRING | INSERT('ABC', 'XY', 2)                  | 'ABXYC'",
            "STRING | DELETE('ABXYC', 2, 3)                   | 'ABC'",
            "STRING | REPLACE('ABCDE', 'X', 2, 3)             | 'ABXE'",
            "INT    | FIND('ABCBC', 'BC')                     | 2",
            "INT    | FIND(w, 'x')                            | 0",
            "STRING | short                                   | 'sal'",
            "BOOL   | 'AB' < 'AC' AND w = 'wheel'             | TRUE",
            "STRING | CONCAT(INT_TO_STRING(7), c)             | '7c'",
            "CHAR   | 'q'                                     | 'q'",
            "STRING | TIME_TO_STRING(T#20ms)                  | 'T#20ms'",
            "STRING | LEFT(w, 99)                             | 'wheel'"})
    void timesAndTexts(String type, String expression, String expected) {
        assertThat(result(type, "x := " + expression + ";")).isEqualTo(expected);
    }

    @ParameterizedTest
    @CsvSource(delimiter = '|', quoteCharacter = '`', value = {
            "x : INT;       | x := 'a';               | This is a text, but INT is needed here.",
            "x : CHAR;      | x := 'ab';              | This is a text of 2 characters, but CHAR is needed here.",
            "x : STRING;    | x := 5;                 | This is a whole number, but STRING is needed here; convert it with LINT_TO_STRING.",
            "x : INT[5];    | x := 5;                 | Only STRING and WSTRING take a length.",
            "x : STRING[0]; | x := 'a';               | A length is 1 to 32767, not 0.",
            "x : TIME;      | x := STRING_TO_TIME('7'); | STRING cannot be converted to TIME.",
            "x : STRING;    | x := CONCAT('a', 5);    | This is a whole number, but STRING is needed here; convert it with LINT_TO_STRING.",
            "x : TIME;      | x := D#2026-01-01 + T#1s; | DATE + TIME is not defined. TIME can be added to TIME, to a time of day or to a date and time; two dates or times can be subtracted; TIME can be multiplied or divided by a number."})
    void refusedTimesAndTexts(String declaration, String body, String message) {
        assertThat(compiled(declaration, body).diagnostics()).extracting(Diagnostic::message).contains(message);
    }

    @Test
    void aPositionBeforeATextStopsTheTask() {
        Resource task = Resource.alone(compiled("x : STRING; n : INT := -1;", "x := MID('abc', 1, n);"), 100);
        task.cycle(0);
        assertThat(task.fault().getMessage()).contains("negative");
    }
}
