package rueda.advice.program;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import rueda.advice.program.ProgramFinding.Kind;
import rueda.bench.Bench;
import rueda.machine.DemoMachine;
import rueda.machine.Homing;
import rueda.machine.Machine;
import rueda.machine.Plc;
import rueda.plc.StructuredTextCompiler;
import rueda.plc.StructuredTextCompiler.Text;
import rueda.plc.syntax.TextMend;

/** Each kind of finding where it has a cause, and the same program without the cause. What is a mistake is common practice, no source. */
class ProgramAdviceTest {

    private static final Machine DEMO = DemoMachine.create();

    private static Machine with(String... texts) {
        List<Plc.SourceFile> files = new java.util.ArrayList<>();
        for (String text : texts) {
            files.add(new Plc.SourceFile("F" + (files.size() + 1) + ".st", text));
        }
        return DEMO.withPlc(DEMO.plc().withFiles(files));
    }

    private static List<ProgramFinding> findings(Machine machine) {
        assertThat(StructuredTextCompiler.compile(Text.of(machine.plc()), Bench.environment(machine)).diagnostics()).isEmpty();
        return ProgramAdvice.of(machine, Bench.environment(machine));
    }

    /** Errors are looked at, so that nothing is said of them. */
    private static final String HEAD = "PROGRAM Main\nVAR Power : MC_Power; Home, HomeAgain : MC_Home; Move, Other : MC_MoveAbsolute; Rel : MC_MoveRelative; Wait : TON; Errors : MC_ReadAxisError; Place : MC_ReadActualPosition;\n"
            + "n, i : INT; Step : INT; Homed, Start : BOOL; x : LREAL; END_VAR\nErrors(Axis := Shuttle, Enable := TRUE);\n";

    private static List<Kind> kinds(String body) {
        return findings(with(HEAD + body + "\nEND_PROGRAM")).stream().map(ProgramFinding::kind).toList();
    }

    /** The demo's programs: what is said of them is so. Nobody looks at an error there, and nothing else is wrong. */
    @Test
    void theDemo() {
        assertThat(findings(DEMO)).extracting(ProgramFinding::kind).containsExactly(Kind.ERROR_UNSEEN);
        assertThat(findings(DEMO).get(0).title()).contains("LiftReference", "TableReference", "more");
        Machine words = DemoMachine.byWords();
        assertThat(findings(words)).extracting(ProgramFinding::kind).containsExactly(Kind.ERROR_UNSEEN);
    }

    @ParameterizedTest
    @CsvSource(delimiter = '|', textBlock = """
            Home(Axis := Shuttle, Execute := Start); Move(Axis := Shuttle, Execute := Home.Done, Position := 5.0);                                          |
            Home(Axis := Shuttle, Execute := Start); Move(Axis := Shuttle, Execute := Start, Position := 5.0);                                              | MOVE_BEFORE_HOMING
            Home(Axis := Shuttle, Execute := Start); IF Home.Done THEN Homed := TRUE; END_IF Move(Axis := Shuttle, Execute := Homed AND Start, Position := 5.0); |
            Home(Axis := Shuttle, Execute := Start, Done => Homed); Move(Axis := Shuttle, Execute := Homed, Position := 5.0);                               |
            Home(Axis := Shuttle, Execute := Start); IF NOT Home.Done THEN RETURN; ELSE Move(Axis := Shuttle, Execute := Start, Position := 5.0); END_IF     |
            Move(Axis := Shuttle, Execute := Start, Position := 5.0);                                                                                       | HOMING_MISSING
            Rel(Axis := Shuttle, Execute := Start, Distance := 5.0);                                                                                         |
            Home(Axis := Lift, Execute := Start); Move(Axis := Shuttle, Execute := Home.Done, Position := 5.0);                                             | HOMING_MISSING""")
    void moves(String body, Kind kind) {
        assertThat(kinds(body)).filteredOn(k -> k != Kind.ERROR_UNSEEN).isEqualTo(kind == null ? List.of() : List.of(kind));
    }

    /** The way through the states counts: 20 is reached by way of 15 without the search. */
    @Test
    void movesInStates() {
        String sound = "CASE Step OF 0: IF Start THEN Step := 10; END_IF\n10: Home(Axis := Shuttle, Execute := TRUE); IF Home.Done THEN Home(Axis := Shuttle, Execute := FALSE); Step := 20; END_IF\n"
                + "20: Move(Axis := Shuttle, Execute := TRUE, Position := 5.0); IF Move.Done THEN Move(Axis := Shuttle, Execute := FALSE); Step := %s; END_IF\n%s END_CASE";
        assertThat(kinds(sound.formatted("0", ""))).isEmpty();
        assertThat(kinds(sound.formatted("15", "15: Step := 20;"))).as("behind the first search").isEmpty();
        assertThat(kinds(sound.formatted("15", "15: Step := 20;").replace("IF Start THEN Step := 10;", "IF Start THEN Step := 10; ELSIF Homed THEN Step := 15;"))).containsExactly(Kind.MOVE_BEFORE_HOMING);
    }

    /** An axis that knows its place, is referenced by the drive, or gets its homing where it cannot be seen on which axis. */
    @Test
    void axesThatNeedNoHoming() {
        Machine machine = with(HEAD + "Move(Axis := Shuttle, Execute := Start, Position := 5.0);\nEND_PROGRAM");
        Homing homing = machine.axes().get(0).homing();
        assertThat(findings(machine.withAxis(0, machine.axes().get(0).withHoming(homing.withAtPowerUp(Homing.AtPowerUp.MOTOR_ENCODER))))).isEmpty();
        assertThat(findings(machine.withAxis(0, machine.axes().get(0).withHoming(homing.withOnFirstEnable(true))))).isEmpty();
        assertThat(findings(with("FUNCTION_BLOCK B VAR_IN_OUT a : AXIS_REF; END_VAR VAR h : MC_Home; END_VAR h(Axis := a, Execute := TRUE); IF h.Error THEN ; END_IF END_FUNCTION_BLOCK", HEAD.replace("VAR Power", "VAR b : B; Power") + "b(a := Shuttle); Move(Axis := Shuttle, Execute := Start, Position := 5.0);\nEND_PROGRAM"))).isEmpty();
    }

    @ParameterizedTest
    @CsvSource(delimiter = '|', textBlock = """
            Rel(Axis := Lift, Execute := Start, Distance := 5.0);                                        | ERROR_UNSEEN
            Rel(Axis := Lift, Execute := Start, Distance := 5.0); IF Rel.Error THEN n := 1; END_IF        |
            Rel(Axis := Lift, Execute := Start, Distance := 5.0); IF n = 0 AND Rel.ErrorID <> 16#0 THEN n := 1; END_IF |
            Rel(Axis := Lift, Execute := Start, Distance := 5.0, Error => Homed);                        |
            Power(Axis := Lift, Enable := TRUE);                                                        |
            Rel(Axis := Shuttle, Execute := Start, Distance := 5.0);                                     |""")
    void errors(String body, Kind kind) {
        assertThat(kinds(body)).isEqualTo(kind == null ? List.of() : List.of(kind));
    }

    private static String round(String state) {
        return "CASE Step OF 0: " + state + " IF n = 1 THEN Step := 1; END_IF 1: IF Start THEN Step := 0; END_IF END_CASE";
    }

    @Test
    void neverTakenBack() {
        String never = "Rel(Axis := Shuttle, Execute := TRUE, Distance := 1.0); IF Rel.Done THEN n := 1; END_IF";
        assertThat(kinds(round(never))).containsExactly(Kind.NEVER_TAKEN_BACK);
        assertThat(kinds(round(never.replace("n := 1;", "Rel(Axis := Shuttle, Execute := FALSE); n := 1;")))).isEmpty();
        assertThat(kinds(round(never) + " Rel.Execute := FALSE;")).isEmpty();
        assertThat(kinds(never)).as("once, at the start").isEmpty();
        assertThat(kinds("IF Start THEN Rel(Axis := Shuttle, Execute := TRUE, Distance := 1.0); END_IF")).containsExactly(Kind.NEVER_TAKEN_BACK);
        assertThat(kinds(round(never).replace("IF Start THEN Step := 0; END_IF", ";"))).as("the program does not come back").isEmpty();
    }

    @Test
    void twoOrders() {
        assertThat(kinds(round("Rel(Axis := Shuttle, Execute := TRUE, Distance := 1.0); Other(Axis := Shuttle, Execute := TRUE, Position := 1.0); Rel(Axis := Shuttle, Execute := FALSE); Other(Axis := Shuttle, Execute := FALSE); Home(Axis := Shuttle, Execute := Start);")))
                .contains(Kind.TWO_ORDERS);
        String other = "Rel(Axis := Shuttle, Execute := TRUE, Distance := 1.0); Rel(Axis := Shuttle, Execute := FALSE); Again(Axis := %s, Execute := TRUE, Distance := 1.0%s); Again(Axis := Lift, Execute := FALSE); IF Again.Error THEN ; END_IF";
        for (String[] sound : new String[][] {{"Lift", ""}, {"Shuttle", ", BufferMode := mcBuffered"}}) {
            assertThat(findings(with((HEAD + round(other.formatted(sound[0], sound[1])) + "\nEND_PROGRAM").replace("Rel : MC_MoveRelative;", "Rel, Again : MC_MoveRelative;")))).extracting(ProgramFinding::kind).doesNotContain(Kind.TWO_ORDERS);
        }
    }

    @ParameterizedTest
    @CsvSource(delimiter = '|', textBlock = """
            CASE Step OF 0: Step := 1; 1: Step := 0; END_CASE                                                     |
            CASE Step OF 0: Step := 1; 1: Step := 0; 2: Step := 0; END_CASE                                       | STATE_NOT_REACHED
            CASE Step OF 0: Step := 1; 1..5: Step := 0; END_CASE                                                  |
            CASE Step OF 0: Step := 1; 1: Step := 0; 2: Step := 0; END_CASE IF Start THEN Step := 2; END_IF       |
            CASE Step OF 0: Step := 1; 1: Step := 0; 2: Step := 0; END_CASE Step := Step + i;                     |
            CASE Step OF 0: Step := 1; 1: Power(Axis := Shuttle, Enable := TRUE); END_CASE                        | STATE_NOT_LEFT
            CASE Step OF 0: Step := 1; 1: ; END_CASE                                                              |
            CASE Step OF 0: Step := 1; 1: Power(Axis := Shuttle, Enable := TRUE); END_CASE IF Start THEN Step := 0; END_IF |
            CASE i OF 0: n := 1; 1: n := 2; END_CASE                                                              |
            CASE Step OF 0: Step := 1; 1: Step := 0; ELSE Step := 7; END_CASE                                     |""")
    void states(String body, Kind kind) {
        assertThat(kinds(body)).isEqualTo(kind == null ? List.of() : List.of(kind));
    }

    /** States by the values of an enumeration, with a first one that is not the first of the list. */
    @Test
    void statesByName() {
        String program = "TYPE State : (Idle, Running, Lost); END_TYPE PROGRAM Main VAR s : State := %s; END_VAR CASE s OF Idle: s := State#Running; Running: s := Idle; Lost: s := Idle; END_CASE END_PROGRAM";
        assertThat(findings(with(program.formatted("Running")))).extracting(ProgramFinding::title).containsExactly("State Lost is never reached");
        assertThat(findings(with(program.formatted("Lost")))).isEmpty();
    }

    @Test
    void timers() {
        String never = round("Wait(IN := TRUE, PT := T#1s); IF Wait.Q THEN n := 1; END_IF");
        assertThat(kinds(never)).containsExactly(Kind.TIMER_NEVER_RESET);
        assertThat(kinds(never.replace("n := 1;", "Wait(IN := FALSE); n := 1;"))).isEmpty();
        assertThat(kinds(never + " Wait.IN := FALSE;")).isEmpty();
        assertThat(kinds("Wait(IN := Step = 1, PT := T#1s);")).isEmpty();
    }

    @ParameterizedTest
    @CsvSource(delimiter = '|', textBlock = """
            WHILE NOT Move.Done DO ; END_WHILE                                                   | true
            WHILE NOT Move.Done AND i < 5 DO i := i + 1; END_WHILE                               | false
            WHILE NOT Wait.Q DO Wait(IN := TRUE, PT := T#1s); END_WHILE                          | true
            REPEAT Rel(Axis := Shuttle, Execute := TRUE, Distance := 1.0); UNTIL Rel.Done END_REPEAT | true
            WHILE NOT Move.Done DO i := i + 1; IF i > 9 THEN EXIT; END_IF END_WHILE              | false
            WHILE i < 5 DO i := i + 1; END_WHILE                                                 | false""")
    void waiting(String body, boolean blocks) {
        assertThat(kinds(body + " Rel(Axis := Shuttle, Execute := FALSE);").contains(Kind.BLOCKING_WAIT)).isEqualTo(blocks);
    }

    @Test
    void equality() {
        assertThat(kinds("Place(Axis := Shuttle, Enable := TRUE); IF Place.Position = 300.0 THEN n := 1; END_IF")).containsExactly(Kind.COMPARED_FOR_EQUALITY);
        assertThat(kinds("Place(Axis := Shuttle, Enable := TRUE); Start := Homed AND (300.0 <> Place.Position);")).containsExactly(Kind.COMPARED_FOR_EQUALITY);
        assertThat(kinds("Place(Axis := Shuttle, Enable := TRUE); IF Place.Position > 300.0 THEN n := 1; END_IF IF x = 3.0 THEN n := 2; END_IF")).isEmpty();
    }

    @Test
    void units() {
        String body = "Place(Axis := Lift, Enable := TRUE); Rel(Axis := Table, Execute := Start, Distance := Place.Position); IF Rel.Error THEN ; END_IF";
        assertThat(kinds(body)).containsExactly(Kind.UNITS_MIXED);
        assertThat(kinds(body.replace("Table", "Shuttle"))).isEmpty();
    }

    /** A task that runs a program which nobody wrote. */
    @Test
    void programsOfTasks() {
        Machine machine = with(HEAD + "END_PROGRAM");
        Plc plc = machine.plc().withTasks(List.of(machine.plc().tasks().get(0), new Plc.Task("Slow", 10_000, "", 5, 0, List.of("Logging"))));
        assertThat(findings(machine.withPlc(plc))).singleElement().satisfies(f -> assertThat(f.title()).contains("Slow", "Logging"));
        Plc.Task onTag = new Plc.Task("On door", 0, "Door", 5, 0, List.of());
        assertThat(findings(machine.withPlc(machine.plc().withTasks(List.of(machine.plc().tasks().get(0), onTag))))).extracting(ProgramFinding::kind).containsExactly(Kind.TAG_MISSING);
        assertThat(findings(machine.withPlc(machine.plc().withTasks(List.of(machine.plc().tasks().get(0), onTag)).withTags(List.of(new Plc.DeclaredTag("Door", "BOOL")))))).isEmpty();
    }

    /** What a mend makes can be compiled, and has the finding no more. */
    @Test
    void mends() {
        Map<String, Kind> programs = Map.of(round("Wait(IN := TRUE, PT := T#1s);\n IF Wait.Q THEN\n n := 1; END_IF"), Kind.TIMER_NEVER_RESET, round("Rel(Axis := Shuttle, Execute := TRUE, Distance := 1.0);\n IF Rel.Done THEN n := 1; END_IF"), Kind.NEVER_TAKEN_BACK,
                "Place(Axis := Shuttle, Enable := TRUE);\n IF Homed AND Place.Position = 300.0 + x THEN n := 1; END_IF", Kind.COMPARED_FOR_EQUALITY);
        programs.forEach((body, kind) -> {
            String text = HEAD + body + "\nEND_PROGRAM";
            ProgramFinding finding = findings(with(text)).get(0);
            assertThat(finding.kind()).isEqualTo(kind);
            TextMend mend = finding.mend();
            String[] lines = text.split("\n");
            String line = lines[mend.line() - 1];
            lines[mend.line() - 1] = line.substring(0, mend.column() - 1) + mend.text() + line.substring(mend.column() - 1 + mend.length());
            assertThat(findings(with(String.join("\n", lines)))).as(String.join("\n", lines)).isEmpty();
        });
    }

    /** Programs of the trade, as they are tested elsewhere. */
    @ParameterizedTest
    @CsvSource({"AxisLibrary.st", "Modes.st", "PickAndPlace.st", "Recipes.st"})
    void programsOfTheTrade(String file) throws Exception {
        String text = new String(ProgramAdviceTest.class.getResourceAsStream("/trade/" + file).readAllBytes(), java.nio.charset.StandardCharsets.UTF_8);
        assertThat(ProgramAdvice.of(with(text), Bench.environment(DEMO))).as("its halt has an error that nobody looks at").allMatch(f -> f.kind() == Kind.ERROR_UNSEEN && file.equals("AxisLibrary.st") && f.title().endsWith(" Halt"));
    }
}
