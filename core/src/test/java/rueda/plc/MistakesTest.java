package rueda.plc;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** What is said of texts that are wrong: one mistake, one message, where the mistake is, in words of the trade. */
class MistakesTest {

    private static List<Diagnostic> said(String source) {
        return StructuredTextCompiler.compile(source, Environment.PLAIN).diagnostics();
    }

    private static void inWords(List<Diagnostic> diagnostics) {
        assertThat(diagnostics).allSatisfy(d -> assertThat(d.message()).doesNotContain("mismatched", "extraneous", "no viable", "token", "expecting", "null", "Exception", "EOF")
                .matches("(?s).*[.?…;]"));
    }

    /** Lines of the body begin at 2; ⏎ in a body stands for a line break. */
    @ParameterizedTest
    @CsvSource(delimiter = '|', quoteCharacter = '`', value = {
            "x := 1⏎y := 2;                              | 2 | 7  | ; is missing",
            "x := 1⏎⏎y := 2;                             | 2 | 7  | ; is missing",
            "x = 5;                                      | 2 | 3  | Write := to assign",
            "IF x == 5 THEN x := 1; END_IF               | 2 | 6  | write = to compare",
            "IF x := 5 THEN x := 1; END_IF               | 2 | 6  | Write = to compare",
            "r := 2,5;                                   | 2 | 6  | decimal point: 2.5",
            "IF r > 2,5 THEN x := 1; END_IF              | 2 | 8  | decimal point: 2.5",
            "IF x = 1 THEN y := 1; ELSE IF x = 2 THEN y := 2; END_IF | 2 | 23 | Write ELSIF",
            "IF x = 1 THEN y := 1; END IF                | 2 | 23 | END_IF in one word",
            "IF x = 1 THEN y := 1; END IF;               | 2 | 23 | END_IF in one word",
            "WHILE x < 3 DO x := x + 1; END WHILE;       | 2 | 28 | END_WHILE in one word",
            "x := ‘text’;                                | 2 | 6  | straight '",
            "IF x = 1 y := 1; END_IF                     | 2 | 9  | THEN is missing",
            "IF x = 1⏎  y := 1;⏎END_IF                   | 2 | 9  | THEN is missing",
            "IF x = 1 THEN⏎y := 1;                       | 2 | 1  | END_IF is missing",
            "FOR x := 1 TO 3 DO y := x;                  | 2 | 1  | END_FOR is missing",
            "FOR x := 1 TO 3 y := x; END_FOR             | 2 | 16 | DO is missing",
            "FOR x = 1 TO 3 DO y := x; END_FOR           | 2 | 7  | Write :=",
            "WHILE x < 3 x := x + 1; END_WHILE           | 2 | 12 | DO is missing",
            "CASE x OF 1: y := 1;                        | 2 | 1  | END_CASE is missing",
            "CASE x 1: y := 1; END_CASE                  | 2 | 7  | OF is missing",
            "REPEAT x := x + 1; END_REPEAT               | 2 | 1  | no UNTIL",
            "CASE x OF y := 1; x := 2; 1: y := 2; END_CASE | 2 | 11 | label is expected",
            "CASE x OF IF b THEN y := 1; END_IF END_CASE | 2 | 11 | label is expected",
            "CASE x OF END_CASE                          | 2 | 1  | at least one label",
            "(* open⏎x := 1;                             | 2 | 1  | comment that begins here is not closed",
            "w := 'open;⏎x := 1;                         | 2 | 6  | text that begins here is not closed",
            "counte := 1;                                | 2 | 1  | Did you mean counter?",
            "x := conter + conter;                       | 2 | 6  | Did you mean counter?",
            "IFF x = 1 THEN y := 1; END_IF               | 2 | 1  | Did you mean IF?",
            "IF x = 1 TEHN y := 1; END_IF                | 2 | 10 | Did you mean THEN?",
            "IF x = 1 THEN y := 1; ESLE y := 2; END_IF   | 2 | 23 | Did you mean ELSE?",
            "IF x = 1 THEN y := 1; EN_IF                 | 2 | 23 | Did you mean END_IF?",
            "Clock(IN := TRUE, PTT := T#1s);             | 2 | 19 | Did you mean PT?",
            "x := LIMT(0, x, 5);                         | 2 | 6  | Did you mean LIMIT?",
            "Clock(TRUE, PT := T#1s);                    | 2 | 7  | all by name or all by their order",
            "Clock(IN := TRUE, IN := FALSE);             | 2 | 19 | given twice",
            "Clock(IN := TRUE PT := T#1s);               | 2 | 17 | A , is missing",
            "Clock(IN := TRUE;                           | 2 | 17 | ) is missing",
            "x := (1 + 2;                                | 2 | 6  | ) is missing",
            "x := 1 + 2);                                | 2 | 11 | closes nothing",
            "x := ;                                      | 2 | 5  | value is missing after :=",
            "x := 1 + ;                                  | 2 | 9  | value is missing after +",
            "x := y z;                                   | 2 | 8  | operator is missing",
            "x := 1 2;                                   | 2 | 8  | operator or a ; is missing",
            "x := 1 && 2;                                | 2 | 8  | write AND",
            "IF !b THEN x := 1; END_IF                   | 2 | 4  | write NOT",
            "IF x != 1 THEN x := 1; END_IF               | 2 | 6  | write <>",
            "x += 1;                                     | 2 | 3  | x := x +",
            "x;                                          | 2 | 1  | no statement",
            "x := 5ms;                                   | 2 | 6  | T#5ms",
            "x := 0x1F;                                  | 2 | 6  | 16#1F",
            "r := .5;                                    | 2 | 6  | 0.5",
            "b := x =< 3;                                | 2 | 9  | Write <= instead",
            "x := tür;                                   | 2 | 6  | no variable",
            "CONTINUE;                                   | 2 | 1  | outside of any loop",
            "x := feld[3];                               | 2 | 6  | no variable feld",
            "x := y[3];                                  | 2 | 6  | not an array",
            "x := field[7];                              | 2 | 12 | lies outside of the array: 1 to 5",
            "x := field[b];                              | 2 | 12 | index is a whole number",
            "x := field[1, 2];                           | 2 | 6  | has 1 dimension",
            "x := field[1;                               | 2 | 11 | ] is missing",
            "x := field;                                 | 2 | 6  | but INT is needed",
            "field := 5;                                 | 2 | 10 | but ARRAY [1..5] OF INT is needed",
            "x := y.z;                                   | 2 | 6  | has no members",
            "x := y.3;                                   | 2 | 8  | convert it to WORD first",
            "x := field.y;                               | 2 | 6  | write an index",
            "x := y^;                                    | 2 | 6  | not a reference",
            "x := SHL(x, 2);                             | 2 | 10 | convert it with INT_TO_WORD",
            "x := SHLL(x, 2);                            | 2 | 6  | Did you mean SHL?",
            "x := %IW4;                                  | 2 | 6  | No tag is bound at %IW4",
            "%QX0.0 := TRUE;                             | 2 | 1  | No tag is bound at %QX0.0",
            "x := %Z4;                                   | 2 | 6  | is no address",
            "x := TO_INT('a');                           | 2 | 6  | is no INT",
            "x := MUX(b, 1, 2);                          | 2 | 10 | selects by a whole number",
            "x := LIMIT(MN := 0, IN := x, MAX := 5);     | 2 | 30 | has no input MAX",
            "x := REF(y);                                | 2 | 6  | write ^ behind a reference",
            "x := INT;                                   | 2 | 6  | is a type",
            "TON(IN := TRUE);                            | 2 | 1  | kind of function block",
            "x : INT;                                    | 2 | 3  | between VAR and END_VAR",
            "END_IF                                      | 2 | 1  | ",
            "EXIT;                                       | 2 | 1  | outside of any loop"})
    void oneMistakeOneMessage(String body, int line, int column, String words) {
        String text = body.trim().replace('⏎', '\n');
        List<Diagnostic> said = said("PROGRAM P VAR x, y, counter : INT; field : ARRAY [1..5] OF INT; b : BOOL; r : REAL; w : STRING; Clock : TON; END_VAR\n" + text + "\nEND_PROGRAM");
        inWords(said);
        if (text.equals("END_IF")) {
            assertThat(said).isNotEmpty();
            return;
        }
        assertThat(said).as("%s", said).hasSize(1);
        assertThat(said.get(0).message()).contains(words == null ? "" : words.trim());
        assertThat(List.of(said.get(0).line(), said.get(0).column())).as(said.get(0).message()).isEqualTo(List.of(line, column));
    }

    @ParameterizedTest
    @CsvSource(delimiter = '|', quoteCharacter = '`', value = {
            "x INT;               | : is missing",
            "x := INT;            | Write : between",
            "x : INT              | ; is missing",
            "x : INT = 5;         | Write := before an initial value",
            "x : INTT;            | Did you mean INT?",
            "x : ;                | type is missing",
            "x : ARRAY[5..1] OF INT; | wrong way round",
            "x : ARRAY[1..] OF INT; | value is expected",
            "x : ARRAY[1..5] INT; | OF and a type are missing",
            "x : ARRAY[0..1000000] OF INT; | at most 100000 elements",
            "x : ARRAY[*] OF INT; | VAR_IN_OUT only",
            "x : ARRAY[1..2] OF INT := [1, 2, 3]; | has 2 elements",
            "x : INT := [1];      | for an array",
            "x AT %QW4 : INT;     | No tag is bound at %QW4",
            "x AT : INT;          | address is missing",
            "x : SEMA;            | Not supported yet: the function block SEMA",
            "x : STRUCT END_STRUCT; | at least one member",
            "x : STRUCT a, a : INT; END_STRUCT; | member already",
            "x : STRUCT a : INT; END_STRUCT := (b := 1); | no member b",
            "x : INT (5..1);      | subrange is empty",
            "x : INT (0..99999);  | does not fit into INT",
            "x : INT (1..5) := 7; | lies outside of INT (1..5)",
            "x : (Red, Red);      | value of it already",
            "x : (Red, Green) := Blue; | no variable Blue",
            "x : REF_TO INT := 5; | REF_TO INT is needed",
            "a__b : INT;          | _ stands single",
            "ab_ : INT;           | _ stands single",
            "IF : INT;            | word of the language",
            "INT : INT;           | name of a type",
            "TON : TON;           | name of a type",
            "TIME_OF_DAY : INT;   | name of a type",
            "größe : INT;         | letters A to Z",
            "5x : INT;            | name of a variable",
            "x, x : INT;          | declared already",
            "x : DATE := D#2026;  | is no date",
            "x : TIME := T#5;     | no unit",
            "x : INT := 5 / 0;    | Division by zero",
            "x : STRING[a] := 'q'; | no variable a"})
    void declarations(String declaration, String words) {
        List<Diagnostic> said = said("PROGRAM P VAR\n" + declaration + "\nEND_VAR\n;\nEND_PROGRAM");
        inWords(said);
        assertThat(said).as("%s", said).hasSize(1);
        assertThat(said.get(0).line()).isEqualTo(2);
        assertThat(said.get(0).message()).contains(words);
    }

    @ParameterizedTest
    @CsvSource(delimiter = '|', quoteCharacter = '`', nullValues = "nothing", value = {
            "                                        | is empty",
            "VAR x : INT; END_VAR                    | begins with PROGRAM",
            "VAR_GLOBAL x : INT; END_VAR             | There is no PROGRAM",
            "FUNCTION F : INT F := 1; END_FUNCTION   | There is no PROGRAM",
            "TYPE T : INT; END_TYPE PROGRAM P ; END_PROGRAM TYPE T : DINT; END_TYPE | name of a type already",
            "TYPE T : STRUCT a : T; END_STRUCT; END_TYPE PROGRAM P ; END_PROGRAM | is made of itself",
            "TYPE T : INT; PROGRAM P ; END_PROGRAM   | END_TYPE is missing",
            "TYPE T : STRUCT a : INT; END_TYPE PROGRAM P ; END_PROGRAM | END_STRUCT is missing",
            "FUNCTION_BLOCK B VAR b : B; END_VAR ; END_FUNCTION_BLOCK PROGRAM P ; END_PROGRAM | would hold itself",
            "FUNCTION F : INT F := F(); END_FUNCTION PROGRAM P ; END_PROGRAM | calls itself",
            "FUNCTION F : INT F := G(); END_FUNCTION FUNCTION G : INT G := F(); END_FUNCTION PROGRAM P ; END_PROGRAM | calls itself",
            "FUNCTION F : INT VAR_INPUT a : INT; END_VAR F := a; END_FUNCTION PROGRAM P VAR x : INT; END_VAR x := F(1, 2); END_PROGRAM | takes 1 value, not 2",
            "FUNCTION F : INT VAR_INPUT a : INT; END_VAR a := 1; END_FUNCTION PROGRAM P ; END_PROGRAM | it is an input of this function",
            "FUNCTION F : INT END_FUNCTION PROGRAM P ; END_PROGRAM | never gets its value",
            "FUNCTION F VAR_IN_OUT a : INT; END_VAR a := 1; END_FUNCTION PROGRAM P F(1); END_PROGRAM | needs a variable",
            "FUNCTION_BLOCK B VAR_IN_OUT a : INT; END_VAR a := 1; END_FUNCTION_BLOCK PROGRAM P VAR b1 : B; END_VAR b1(); END_PROGRAM | needs a in every call",
            "FUNCTION_BLOCK B VAR a : INT; END_VAR a := 1; END_FUNCTION_BLOCK PROGRAM P VAR b1 : B; END_VAR b1.a := 1; END_PROGRAM | inner variable",
            "FUNCTION F : INT F := 1; END_PROGRAM PROGRAM P ; END_PROGRAM | ends with END_FUNCTION",
            "FUNCTION F : INT F := 1; PROGRAM P ; END_PROGRAM | END_FUNCTION is missing",
            "PROGRAM P VAR_EXTERNAL g : INT; END_VAR ; END_PROGRAM | no global variable g",
            "VAR_GLOBAL g : DINT; END_VAR PROGRAM P VAR_EXTERNAL g : INT; END_VAR ; END_PROGRAM | is declared as DINT",
            "PROGRAM P ; END_PROGRAM PROGRAM P ; END_PROGRAM | declared already",
            "INTERFACE I END_INTERFACE PROGRAM P ; END_PROGRAM | Not supported yet: INTERFACE",
            "FUNCTION_BLOCK B METHOD M ; END_METHOD END_FUNCTION_BLOCK PROGRAM P ; END_PROGRAM | Not supported yet: METHOD",
            "FUNCTION_BLOCK B EXTENDS C ; END_FUNCTION_BLOCK PROGRAM P ; END_PROGRAM | Not supported yet: EXTENDS",
            "PROGRAM P VAR x : INT; x := 5; END_PROGRAM | END_VAR is missing",
            "PROGRAM P VAR x : INT; IF TRUE THEN ; END_IF END_PROGRAM | END_VAR is missing",
            "PROGRAM P ;                             | END_PROGRAM is missing",
            "PROGRAM P ; END PROGRAM                 | END_PROGRAM in one word",
            "PROGRAM P ; END_PROGRAM x := 1;         | Nothing may stand behind",
            "PROGRAM P VAR_INPUTS a : INT; END_VAR ; END_PROGRAM | Did you mean VAR_INPUT?",
            "PROGAM P ; END_PROGRAM                  | Did you mean PROGRAM?",
            "PROGRAM ; END_PROGRAM                   | needs a name",
            "PROGRAM VAR x : INT; END_VAR x := 1; END_PROGRAM | needs a name"})
    void wholeTexts(String source, String words) {
        List<Diagnostic> said = said(source == null ? "" : source);
        inWords(said);
        assertThat(said).as("%s", said).hasSize(1);
        assertThat(said.get(0).message()).contains(words);
    }

    /** Two mistakes are told as two, each in its line. */
    @Test
    void everyMistakeIsTold() {
        List<Diagnostic> said = said("PROGRAM P VAR x : INT; END_VAR\nx := 1\nx = 2;\nx := 2 +;\nIF x = 1 x := 3; END_IF\nEND_PROGRAM");
        assertThat(said).extracting(Diagnostic::line).containsExactly(2, 3, 4, 5);
    }

    /** What a text declares is known while it cannot be compiled. */
    @Test
    void theOutlineOfATextInTheMaking() {
        List<rueda.plc.syntax.Outline.Item> items = rueda.plc.syntax.Outline.of("VAR_GLOBAL g : INT; END_VAR TYPE T : STRUCT a : ARRAY [1..N, -1..5] OF REAL; END_STRUCT; C : (Red, Green); END_TYPE\n"
                + "FUNCTION_BLOCK B VAR_INPUT x, y : INT (1..5); END_VAR VAR_OUTPUT q : BOOL; END_VAR q := x = ; END_FUNCTION_BLOCK\nFUNCTION F : STRING[5] F := 'a' END_FUNCTION");
        assertThat(items).extracting(i -> i.kind() + " " + i.name() + " " + i.line() + " " + i.type()).containsExactly("VAR_GLOBAL  1 ", "TYPE T 1 ", "TYPE C 1 ", "FUNCTION_BLOCK B 2 ", "FUNCTION F 3 STRING");
        assertThat(items.get(1).members()).extracting(m -> m.name() + " : " + m.type()).containsExactly("a : ARRAY [1..N, -1..5] OF REAL");
        assertThat(items.get(2).members()).extracting(m -> m.name()).containsExactly("Red", "Green");
        assertThat(items.get(3).members()).extracting(m -> m.section() + " " + m.name() + " : " + m.type()).containsExactly("VAR_INPUT x : INT (1..5)", "VAR_INPUT y : INT (1..5)", "VAR_OUTPUT q : BOOL");
    }

    /** The text with the first mend made. */
    private static String mended(String text, rueda.plc.syntax.TextMend mend) {
        String[] lines = text.split("\n", -1);
        String line = lines[mend.line() - 1];
        lines[mend.line() - 1] = line.substring(0, mend.column() - 1) + mend.text() + line.substring(mend.column() - 1 + mend.length());
        return String.join("\n", lines);
    }

    /** A mistake whose mend can be guessed is mended by one change; ⏎ stands for a line break. */
    @ParameterizedTest
    @CsvSource(delimiter = '|', quoteCharacter = '`', value = {
            "x := 1⏎y := 2;                          | Insert ;            | x := 1;⏎y := 2;",
            "x = 5;                                  | Write :=            | x := 5;",
            "IF x := 5 THEN x := 1; END_IF           | Write =             | IF x = 5 THEN x := 1; END_IF",
            "IF x == 5 THEN x := 1; END_IF           | Write =             | IF x = 5 THEN x := 1; END_IF",
            "IF x = 1 y := 1; END_IF                 | Insert THEN         | IF x = 1 THEN y := 1; END_IF",
            "IF b THEN⏎  y := 1;                     | Insert END_IF       | IF b THEN⏎  y := 1;⏎END_IF;",
            "FOR x := 1 TO 3 DO⏎  y := x;            | Insert END_FOR      | FOR x := 1 TO 3 DO⏎  y := x;⏎END_FOR;",
            "IF b THEN y := 1; END IF;               | Write END_IF        | IF b THEN y := 1; END_IF;",
            "FOR x = 1 TO 3 DO y := x; END_FOR       | Write :=            | FOR x := 1 TO 3 DO y := x; END_FOR",
            "WHILE b x := x + 1; END_WHILE           | Insert DO           | WHILE b DO x := x + 1; END_WHILE",
            "CASE x 1: y := 1; END_CASE              | Insert OF           | CASE x OF 1: y := 1; END_CASE",
            "counte := 1;                            | Write counter       | counter := 1;",
            "x := LIMT(0, x, 5);                     | Write LIMIT         | x := LIMIT(0, x, 5);",
            "Clock(IN := TRUE, PTT := T#1s);         | Write PT            | Clock(IN := TRUE, PT := T#1s);",
            "b := Clock.QQ;                          | Write Q             | b := Clock.Q;",
            "IFF b THEN y := 1; END_IF               | Write IF            | IF b THEN y := 1; END_IF",
            "Clock(IN := TRUE PT := T#1s);           | Insert ,            | Clock(IN := TRUE, PT := T#1s);",
            "x := d;                                 | Write DINT_TO_INT(d) | x := DINT_TO_INT(d);",
            "x := y + d * 2;                         | Write DINT_TO_INT(y + d * 2) | x := DINT_TO_INT(y + d * 2);"})
    void aMendByOneChange(String body, String label, String expected) {
        String head = "PROGRAM P VAR x, y, counter : INT; d : DINT; b : BOOL; Clock : TON; END_VAR\n";
        String text = head + body.trim().replace('⏎', '\n') + "\nEND_PROGRAM";
        List<Diagnostic> said = said(text);
        assertThat(said).hasSize(1);
        assertThat(said.get(0).mend()).as(said.get(0).message()).isNotNull();
        assertThat(said.get(0).mend().label()).isEqualTo(label.trim());
        String mended = mended(text, said.get(0).mend());
        assertThat(mended).isEqualTo(head + expected.trim().replace('⏎', '\n') + "\nEND_PROGRAM");
        assertThat(said(mended)).isEmpty();
    }

    @Test
    void aCaseLabelMayBeANamedConstant() {
        CompiledProgram program = StructuredTextCompiler.compile("PROGRAM P VAR CONSTANT Idle : INT := 10; Busy : INT := Idle + 1; END_VAR VAR s : INT := 11; n : INT; END_VAR\n"
                + "CASE s OF Idle: n := 1; Busy..20: n := 2; END_CASE END_PROGRAM", Environment.PLAIN);
        assertThat(program.diagnostics()).isEmpty();
        Resource task = Resource.alone(program, 100);
        task.cycle(0);
        assertThat(task.text(program.variable("n").orElseThrow())).isEqualTo("2");
    }

    @Test
    void commentsNestAndFormsOfTheThirdEditionAreRead() {
        assertThat(said("PROGRAM P VAR x : INT; END_VAR (* a (* b *) c *) /* d */ {pragma} x := 1; // e\nEND_PROGRAM;")).isEmpty();
    }

    /** A fault in an initial value stops the task with its line; nothing is thrown out of it. */
    @Test
    void anInitialValueThatFailsStopsTheTask() {
        CompiledProgram program = StructuredTextCompiler.compile("PROGRAM P VAR\nn : INT;\nx : INT := 5 / n;\nw : STRING := MID('abc', 1, n - 5);\nEND_VAR\n; END_PROGRAM", Environment.PLAIN);
        assertThat(program.diagnostics()).isEmpty();
        Resource task = Resource.alone(program, 100);
        assertThat(task.fault().line()).isEqualTo(3);
        task.cycle(0);
        assertThat(task.statements()).isZero();
    }

    /** Half of every text that is right: whatever is typed, there is an answer in words. */
    @Test
    void everyBeginningOfAProgramIsAnswered() {
        String source = "PROGRAM P\nVAR CONSTANT Idle : INT := 10; END_VAR\nVAR d : DATE := D#2026-11-23; t : TIME := T#1h30m; w : STRING[5] := 'a$$b'; x : INT; Clock : TON; END_VAR\n"
                + "Clock(IN := x > 3 AND NOT (x = 5), PT := T#5s, Q => b); IF x = 1 THEN x := -2; ELSIF x = 2 THEN ; ELSE x := MAX(1, 2) ** 2; END_IF\n"
                + "CASE x OF Idle, 2..3: x := 16#FF; ELSE ; END_CASE FOR x := 1 TO 5 BY 2 DO EXIT; END_FOR WHILE x < 1 DO ; END_WHILE REPEAT ; UNTIL x > 1 END_REPEAT RETURN; END_PROGRAM";
        beginningsAndMutations(source, 20261125);
    }

    /** The same with units, types, arrays, structures and references. */
    @Test
    void everyBeginningOfALibraryIsAnswered() {
        String source = "TYPE C : (Red, Green := 5) := Red; S : STRUCT a : ARRAY [1..3, 0..1] OF INT := [6(1)]; b : C; t : STRING[4] := 'a'; END_STRUCT; L : INT (1..9) := 2; END_TYPE\n"
                + "VAR_GLOBAL CONSTANT N : INT := 3; END_VAR VAR_GLOBAL g : S := (b := Green); END_VAR\n"
                + "FUNCTION F : INT VAR_INPUT x : INT := 1; END_VAR VAR_IN_OUT v : ARRAY [*] OF INT; END_VAR VAR_OUTPUT o : INT; END_VAR VAR i : DINT; END_VAR\n"
                + "FOR i := LOWER_BOUND(v, 1) TO UPPER_BOUND(v, 1) DO IF v[i] = x THEN CONTINUE; END_IF F := F + v[i]; END_FOR o := F; END_FUNCTION\n"
                + "FUNCTION_BLOCK B VAR_INPUT go : BOOL R_EDGE; END_VAR VAR_OUTPUT q : LREAL; END_VAR VAR c : CTU; r : REF_TO INT; k : INT; w : WORD; END_VAR\n"
                + "c(CU := go, PV := N); r := REF(k); r^ := r^ + 1; w.3 := go; CASE g.b OF Red: q := 1.5; C#Green: q := INT_TO_LREAL(k); END_CASE END_FUNCTION_BLOCK\n"
                + "PROGRAM P VAR b : ARRAY [0..1] OF B; v : ARRAY [1..4] OF INT := [1, 2, 2(3)]; n, m : INT; ok : BOOL; END_VAR\n"
                + "n := F(x := 3, v := v, o => m); FOR n := 0 TO 1 DO b[n](go := n > 0, q => , ENO => ok); END_FOR g.a[2, 1] := MUX(n, 1, 2, 3); v[n MOD 4 + 1] := LIMIT(MN := 0, IN := m, MX := 9); END_PROGRAM";
        assertThat(said(source)).isEmpty();
        beginningsAndMutations(source, 20261127);
    }

    private void beginningsAndMutations(String source, long seed) {
        for (int i = 0; i < source.length(); i++) {
            inWords(said(source.substring(0, i)));
        }
        Random random = new Random(seed);
        for (int k = 0; k < 4000; k++) {
            StringBuilder mutated = new StringBuilder(source);
            for (int m = 0; m < 1 + random.nextInt(3); m++) {
                int at = random.nextInt(mutated.length());
                switch (random.nextInt(3)) {
                    case 0 -> mutated.deleteCharAt(at);
                    case 1 -> mutated.insert(at, ";:=()'\"#._-*%$[]^\u2019\u00e4\u0000\ud800".charAt(random.nextInt(21)));
                    default -> mutated.setCharAt(at, source.charAt(random.nextInt(source.length())));
                }
            }
            CompiledProgram program = StructuredTextCompiler.compile(mutated.toString(), Environment.PLAIN);
            inWords(program.diagnostics());
            if (program.runs()) {
                Resource.alone(program, 1000).cycle(0);
            }
        }
    }

    /** No text is too deep, too long or too strange: compiled, or refused with one sentence. Depths run on an ordinary thread's stack. */
    @ParameterizedTest
    @ValueSource(ints = {50, 1_900, 100_000})
    void nestingOfAnyDepth(int depth) {
        String head = "PROGRAM P VAR x : INT; b : BOOL; END_VAR\n";
        List<String> bodies = List.of("x := " + "(".repeat(depth) + "1" + ")".repeat(depth) + ";", "IF b THEN ".repeat(depth) + ";" + " END_IF".repeat(depth),
                "x := 1" + " + x".repeat(depth) + ";", "IF b THEN ;" + " ELSIF b THEN ;".repeat(depth) + " END_IF", "x := " + "-".repeat(depth) + "1;", "b := " + "NOT ".repeat(depth) + "b;",
                "x := " + "ABS(".repeat(depth) + "1" + ")".repeat(depth) + ";", "(*".repeat(depth) + "*)".repeat(depth) + ";", "WHILE b DO ".repeat(depth), "(".repeat(depth), "x := " + "[".repeat(depth),
                "CASE x OF 1: ".repeat(depth) + ";" + "END_CASE ".repeat(depth), "x" + ".x".repeat(depth) + " := 1;", "x := x" + " ** x".repeat(depth) + ";", "REPEAT ".repeat(depth), ")".repeat(depth));
        for (String body : bodies) {
            CompiledProgram program = StructuredTextCompiler.compile(head + body + "\nEND_PROGRAM", Environment.PLAIN);
            inWords(program.diagnostics());
            assertThat(program.diagnostics().size()).isLessThanOrEqualTo(50);
            if (program.runs()) {
                Resource task = Resource.alone(program, 1_000_000);
                task.cycle(0);
            } else if (depth > 1000) {
                assertThat(program.diagnostics()).as(body.substring(0, 20)).isNotEmpty();
            }
        }
    }

    @Test
    void manyVariablesAndGarbage() {
        StringBuilder declarations = new StringBuilder();
        StringBuilder body = new StringBuilder();
        for (int i = 0; i < 10_000; i++) {
            declarations.append("v").append(i).append(" : INT;\n");
            body.append("v").append(i).append(" := ").append(i % 100).append(";\n");
        }
        CompiledProgram large = StructuredTextCompiler.compile("PROGRAM P VAR " + declarations + " END_VAR " + body + " END_PROGRAM", Environment.PLAIN);
        assertThat(large.diagnostics()).isEmpty();
        Resource.alone(large, 100_000).cycle(0);
        StringBuilder most = new StringBuilder("PROGRAM P VAR ");
        for (int i = 0; i < 100_001; i++) {
            most.append("v").append(i).append(" : INT;\n");
        }
        assertThat(said(most + " END_VAR ; END_PROGRAM")).singleElement().satisfies(d -> assertThat(d.message()).contains("at most 100000 values"));
        Random random = new Random(7);
        StringBuilder garbage = new StringBuilder();
        while (garbage.length() < 1_000_000) {
            garbage.append((char) random.nextInt(0x250));
        }
        inWords(said(garbage.toString()));
        inWords(said("PROGRAM P VAR x : INT; END_VAR " + garbage));
        inWords(said("x".repeat(1_000_000)));
        inWords(said("PROGRAM P x := " + "1".repeat(1_000_000) + ";"));
        String head = "PROGRAM P VAR x : INT; w : STRING; END_VAR ";
        inWords(said(head + "x := MAX(x" + ", x".repeat(30_000) + "); END_PROGRAM"));
        inWords(said(head + "w := CONCAT(w" + ", w".repeat(30_000) + "); END_PROGRAM"));
        inWords(said(head + "x := MAX(x" + ", x + 1 * x".repeat(190) + "); END_PROGRAM"));
        CompiledProgram wide = StructuredTextCompiler.compile(head + "CASE x OF " + java.util.stream.IntStream.range(0, 20_000).mapToObj(i -> i + ": x := " + i % 100 + ";").collect(java.util.stream.Collectors.joining(" ")) + " END_CASE END_PROGRAM", Environment.PLAIN);
        inWords(wide.diagnostics());
        assertThat(said("PROGRAM P VAR a : ARRAY [1..300, 1..300] OF STRING; b : ARRAY [1..30000] OF TON; END_VAR ; END_PROGRAM")).singleElement().satisfies(d -> assertThat(d.message()).contains("at most"));
    }

    /** Texts grow to the longest one there can be, not to the end of the memory; their work counts. */
    @Test
    void textsDoNotGrowBeyondMemory() {
        CompiledProgram program = StructuredTextCompiler.compile("PROGRAM P VAR w : STRING[32767] := 'ab'; END_VAR\nWHILE TRUE DO\nw := CONCAT(w, w);\nEND_WHILE\nEND_PROGRAM", Environment.PLAIN);
        Resource task = Resource.alone(program, 1_000_000);
        task.cycle(0);
        assertThat(task.fault().getMessage()).contains("longer than 32767");
        assertThat(task.fault().line()).isEqualTo(3);
        CompiledProgram busy = StructuredTextCompiler.compile("PROGRAM P VAR w, v : STRING[32767] := 'ab'; i : INT; END_VAR\nFOR i := 1 TO 12 DO w := CONCAT(w, w); END_FOR\n"
                + "WHILE TRUE DO v := CONCAT(w, w); END_WHILE\nEND_PROGRAM", Environment.PLAIN);
        Resource spent = Resource.alone(busy, 100_000);
        spent.cycle(0);
        assertThat(spent.fault().getMessage()).contains("budget");
        assertThat(spent.statements()).isEqualTo(100_000);
    }
}
