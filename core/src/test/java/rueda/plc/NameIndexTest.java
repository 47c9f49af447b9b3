package rueda.plc;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;
import rueda.bench.Bench;
import rueda.machine.DemoMachine;
import rueda.machine.Machine;
import rueda.machine.Plc;
import rueda.plc.NameIndex.How;
import rueda.plc.NameIndex.Kind;
import rueda.plc.StructuredTextCompiler.Text;
import rueda.plc.type.Type;
import rueda.quantity.InvalidEntry;

/** Where names stand and what they mean: names of the same letters mean different things in different units, types and blocks. */
class NameIndexTest {

    private static final String TYPES = """
            TYPE
              Color : (Red, Green);
              Recipe : STRUCT
                Speed : LREAL; (* mm/s *)
                Count : INT;
              END_STRUCT;
            END_TYPE
            VAR_GLOBAL
              Total : DINT; // of all recipes
            END_VAR
            """;
    private static final String BLOCK = """
            FUNCTION_BLOCK Runner
            VAR_INPUT Count : INT; END_VAR
            VAR_OUTPUT Speed : LREAL; END_VAR
            VAR t : TON; END_VAR
              t(IN := TRUE, PT := T#1s);
              IF t.Q THEN
                Speed := 2.0 * Count;
              END_IF
              Total := Total + Count;
            END_FUNCTION_BLOCK
            FUNCTION Twice : INT
            VAR_INPUT Count : INT; END_VAR
              Twice := 2 * count;
            END_FUNCTION
            """;
    private static final String MAIN = """
            PROGRAM Main
            VAR
              (* all recipes *)
              Recipes : ARRAY [1..3] OF Recipe := [(Speed := 5.0), 2((Count := 4))];
              r : Runner;
              i, Count : INT;
              c : Color := Green;
            END_VAR
            VAR_EXTERNAL Total : DINT; END_VAR
              FOR i := 1 TO 3 DO
                Recipes[i].Count := Twice(Count := i);
              END_FOR
              r(Count := Recipes[Count].Count, Speed => Recipes[1].Speed);
              IF r.Speed > 3.0 AND Total > 5 AND Color#Red <> c THEN
                Axis.Word := 3;
                c := Red;
              END_IF
            END_PROGRAM
            """;
    private static final Environment ENVIRONMENT = new Environment(List.of("Axis"), List.of(new Environment.Tag("Axis.Word", Type.INT, true), new Environment.Tag("Never", Type.BOOL, true)), StandardBlocks.ALL, List.of());
    private static final List<Text> TEXTS = List.of(new Text("Types.st", TYPES), new Text("Block.st", BLOCK), new Text("Main.st", MAIN));

    private static String places(NameIndex.Named named) {
        return String.join(" ", named.uses().stream().map(u -> u.file().charAt(0) + "" + u.line() + ":" + u.column() + (u.how() == How.READ ? "" : u.how().name().substring(0, 1))).toList());
    }

    private static NameIndex.Named at(String file, int line, int column) {
        return StructuredTextCompiler.index(TEXTS, ENVIRONMENT).at(file, line, column).orElseThrow();
    }

    @Test
    void theTextsAreSound() {
        assertThat(StructuredTextCompiler.compile(TEXTS, ENVIRONMENT).diagnostics()).isEmpty();
    }

    /** Count is a member, an input of a block, an input of a function, and a variable. */
    @Test
    void theSameLettersInOtherPlaces() {
        assertThat(places(at("Types.st", 5, 6))).as("member").isEqualTo("M4:59W M11:16W M13:29 T5:5D");
        assertThat(places(at("Block.st", 2, 12))).as("input of the block").isEqualTo("B2:11D B7:20 B9:20 M13:5W");
        assertThat(places(at("Block.st", 13, 16))).as("input of the function, in any case").isEqualTo("B12:11D B13:16 M11:31W");
        assertThat(places(at("Main.st", 6, 8))).as("variable").isEqualTo("M6:6D M13:22");
        assertThat(places(at("Main.st", 13, 36))).as("output of the block").isEqualTo("B3:12D B7:5W M13:36 M14:8");
    }

    @Test
    void whatANameIs() {
        NameIndex.Named total = at("Main.st", 14, 25);
        assertThat(total.kind()).isEqualTo(Kind.GLOBAL);
        assertThat(total.type()).isEqualTo("DINT");
        assertThat(total.comment()).isEqualTo("of all recipes");
        assertThat(places(total)).isEqualTo("B9:3W B9:12 M9:14 M14:24 T9:3D");
        NameIndex.Named recipes = at("Main.st", 11, 6);
        assertThat(recipes.comment()).isEqualTo("all recipes");
        assertThat(recipes.type()).isEqualTo("ARRAY [1..3] OF Recipe");
        assertThat(recipes.owner()).isEqualTo("Main");
        assertThat(at("Types.st", 4, 5).comment()).isEqualTo("mm/s");
        assertThat(places(at("Main.st", 11, 25))).as("a function, and what its value is stored in").isEqualTo("B11:10D B13:3W M11:25C");
        assertThat(places(at("Main.st", 5, 8))).isEqualTo("B1:16D M5:7T");
        assertThat(places(at("Main.st", 13, 4))).as("an instance that is called").isEqualTo("M5:3D M13:3C M14:6");
        assertThat(places(at("Main.st", 16, 11))).as("a value of an enumeration").isEqualTo("M14:44 M16:10 T2:12D");
        assertThat(places(at("Main.st", 14, 40))).as("its type").isEqualTo("M7:7T M14:38T T2:3D");
        assertThat(at("Block.st", 6, 9).name()).as("a pin of a block of the standard").isEqualTo("Q");
        assertThat(at("Block.st", 6, 9).declaration()).isEmpty();
        assertThat(at("Main.st", 15, 8).kind()).isEqualTo(Kind.TAG);
        assertThat(StructuredTextCompiler.index(TEXTS, ENVIRONMENT).at("Main.st", 1, 3)).as("a word of the language").isEmpty();
    }

    @Test
    void tags() {
        List<NameIndex.Named> tags = StructuredTextCompiler.index(TEXTS, ENVIRONMENT).all(Kind.TAG::equals);
        assertThat(tags).extracting(NameIndex.Named::name).containsExactly("Axis.Word", "Never");
        assertThat(places(tags.get(0))).isEqualTo("M15:5W");
        assertThat(tags.get(1).uses()).isEmpty();
    }

    private static Plc plc() {
        return new Plc(1000, 1000, "").withFiles(TEXTS.stream().map(t -> new Plc.SourceFile(t.file(), t.source())).toList());
    }

    /** What is renamed means the same afterwards, in every place. */
    @Test
    void everythingCanBeRenamed() {
        NameIndex index = StructuredTextCompiler.index(TEXTS, ENVIRONMENT);
        int renamed = 0;
        for (NameIndex.Named named : index.all(k -> true)) {
            if (named.declaration().isPresent()) {
                Plc changed = Renaming.of(plc(), ENVIRONMENT, named, "Fresh_Name");
                assertThat(StructuredTextCompiler.compile(Text.of(changed), ENVIRONMENT).diagnostics()).as(named.toString()).isEmpty();
                NameIndex.Use there = named.declaration().get();
                NameIndex.Named after = StructuredTextCompiler.index(Text.of(changed), ENVIRONMENT).at(there.file(), there.line(), there.column()).orElseThrow();
                assertThat(after.name()).isEqualTo("Fresh_Name");
                assertThat(after.uses()).hasSameSizeAs(named.uses());
                assertThat(Text.of(Renaming.of(changed, ENVIRONMENT, after, named.name()))).as("and back").isEqualTo(texts(named));
                renamed++;
            }
        }
        assertThat(renamed).isEqualTo(19);
    }

    /** Back again all uses are written as the declaration is. */
    private static List<Text> texts(NameIndex.Named named) {
        return named.name().equals("Count") ? TEXTS.stream().map(t -> new Text(t.file(), named.owner().equals("Twice") ? t.source().replace("2 * count", "2 * Count") : t.source())).toList() : TEXTS;
    }

    @Test
    void whatCannotBeRenamed() {
        Plc plc = plc();
        NameIndex.Named count = at("Main.st", 6, 6);
        for (String taken : List.of("i", "I", "Total", "IF", "INT", "TON", "2x", "a b", "", "Axis", "Main", "x__y".replace("__", "-"))) {
            assertThatThrownBy(() -> Renaming.of(plc, ENVIRONMENT, count, taken)).as(taken).isInstanceOf(InvalidEntry.class);
        }
        NameIndex.Named inner = at("Block.st", 4, 5);
        assertThatThrownBy(() -> Renaming.of(plc, ENVIRONMENT, inner, "Total")).as("it would hide the global variable that the block uses").isInstanceOf(InvalidEntry.class);
        assertThatThrownBy(() -> Renaming.of(plc, ENVIRONMENT, at("Main.st", 15, 5), "Other")).as("a tag").isInstanceOf(InvalidEntry.class);
        Plc upper = Renaming.of(plc, ENVIRONMENT, count, "COUNT");
        assertThat(upper.files().get(2).source()).contains("i, COUNT : INT", "Recipes[COUNT].Count");
    }

    /** A program is named by its task too. */
    @Test
    void programsOfTasks() {
        Plc plc = plc().withTasks(List.of(Plc.Task.main(1000), new Plc.Task("Slow", 9000, "", 3, 0, List.of("MAIN"))));
        assertThat(Renaming.of(plc, ENVIRONMENT, at("Main.st", 1, 9), "Cell").tasks().get(1).programs()).containsExactly("Cell");
    }

    /** A text in the making is read as far as it goes, and nothing is thrown. */
    @Test
    void brokenTexts() {
        Random random = new Random(5);
        String whole = TYPES + BLOCK + MAIN;
        for (int i = 0; i < 400; i++) {
            StringBuilder text = new StringBuilder(whole);
            for (int k = 0; k < 1 + i % 5; k++) {
                int from = random.nextInt(text.length());
                text.delete(from, Math.min(text.length(), from + 1 + random.nextInt(9)));
                if (i % 3 == 0) {
                    int copied = random.nextInt(whole.length() - 7);
                    text.insert(random.nextInt(text.length()), whole, copied, copied + 7);
                }
            }
            StructuredTextCompiler.index(List.of(new Text("a.st", text.toString())), ENVIRONMENT).all(k -> true);
        }
        NameIndex half = StructuredTextCompiler.index(List.of(new Text("a.st", "PROGRAM P VAR x : INT; END_VAR\nx := x + ;\nIF x > 1 THEN x := 2;\n")), ENVIRONMENT);
        assertThat(half.at("a.st", 3, 4).orElseThrow().uses()).hasSizeGreaterThan(2);
    }

    /** The demo's own program: every name of it is found where it stands. */
    @Test
    void theDemo() {
        Machine demo = DemoMachine.create();
        NameIndex index = StructuredTextCompiler.index(Text.of(demo.plc()), Bench.environment(demo));
        for (NameIndex.Named named : index.all(k -> true)) {
            for (NameIndex.Use use : named.uses()) {
                String line = demo.plc().program().split("\n")[use.line() - 1];
                assertThat(line.substring(use.column() - 1, use.column() - 1 + use.length())).isEqualToIgnoringCase(named.name());
                assertThat(index.at(use.file(), use.line(), use.column())).contains(named);
            }
        }
        assertThat(index.find("TurningCell", "Care").orElseThrow().uses().size()).isGreaterThan(5);
    }

    /** Types that the machine gives have members that are found, and stand in no file. */
    @Test
    void typesOfTheMachine() {
        Machine demo = DemoMachine.create();
        NameIndex index = StructuredTextCompiler.index(List.of(new Text("a.st", "PROGRAM P VAR Places : MC_TP_REF; Go : MC_PositionProfile; END_VAR\nPlaces.MC_TP_Array[1].position := 3.0;\nGo(Axis := Shuttle, TimePosition := Places);\nEND_PROGRAM")), Bench.environment(demo));
        assertThat(index.at("a.st", 2, 8).orElseThrow().uses()).hasSize(1);
        assertThat(index.at("a.st", 2, 8).orElseThrow().type()).isEqualTo("ARRAY [1..100] OF MC_TP");
        assertThat(index.at("a.st", 3, 21).orElseThrow().type()).isEqualTo("MC_TP_REF");
        assertThat(index.all(k -> true).stream().flatMap(n -> n.uses().stream()).map(NameIndex.Use::file)).containsOnly("a.st");
    }

    @Test
    void aTypeOfTheMachineIsNotDeclaredAgain() {
        List<Diagnostic> told = StructuredTextCompiler.compile(List.of(new Text("a.st", "TYPE MC_CAM_REF : STRUCT x : INT; END_STRUCT; END_TYPE\nPROGRAM P VAR x : MC_CAM_REF; Go : MC_CamTableSelect; END_VAR\nGo(Master := Shuttle, Slave := Lift);\nEND_PROGRAM")), Bench.environment(DemoMachine.create())).diagnostics();
        assertThat(told).extracting(Diagnostic::message).containsExactly("MC_CAM_REF is given with the motion blocks: use it as it is, without declaring it.", "Go needs CamTable in every call: it is a VAR_IN_OUT of type MC_CAM_REF.");
    }
}
