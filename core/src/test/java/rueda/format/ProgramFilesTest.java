package rueda.format;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Random;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import rueda.format.program.ProgramFiles;
import rueda.machine.Plc.SourceFile;
import rueda.plc.CompiledProgram;
import rueda.plc.Environment;
import rueda.plc.StructuredTextCompiler;
import rueda.plc.Resource;

/** Programs come in as they are saved: in any encoding, one or many, as a zip or as XML; what cannot be taken is told. */
class ProgramFilesTest {

    private static final String TEXT = "PROGRAM P\r\n(* Käse, größer *)\r\nEND_PROGRAM\r\n";

    private static byte[] zip(String... namesAndTexts) throws IOException {
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        try (ZipOutputStream zip = new ZipOutputStream(bytes)) {
            for (int i = 0; i < namesAndTexts.length; i += 2) {
                zip.putNextEntry(new ZipEntry(namesAndTexts[i]));
                zip.write(namesAndTexts[i + 1].getBytes(StandardCharsets.UTF_8));
            }
        }
        return bytes.toByteArray();
    }

    @ParameterizedTest
    @ValueSource(strings = {"UTF-8", "ISO-8859-1", "UTF-16", "x-UTF-16LE-BOM"})
    void anyEncoding(String charset) {
        ProgramFiles.Read read = ProgramFiles.read("C:\\cell\\Main.ST", TEXT.getBytes(Charset.forName(charset)));
        assertThat(read.files()).containsExactly(new SourceFile("Main.st", TEXT.replace("\r\n", "\n")));
    }

    @Test
    void aZipKeepsWhatItCanAndTellsTheRest() throws IOException {
        ProgramFiles.Read read = ProgramFiles.read("x.zip", zip("a/Main.st", "PROGRAM A END_PROGRAM", "b/main.ST", "PROGRAM B END_PROGRAM", "c/", "", "readme.md", "x", "empty.st", "", "__MACOSX/._Main.st", "y"));
        assertThat(read.files()).extracting(SourceFile::name).containsExactly("Main.st", "main_2.st");
        assertThat(read.told()).containsExactly("readme.md was left out: it is no .st file.", "empty.st was left out: it is empty.");
    }

    @Test
    void whatIsTakenOutComesInEqual() {
        List<SourceFile> files = List.of(new SourceFile("Types.st", "TYPE T : INT; END_TYPE\n"), new SourceFile("Main.st", "PROGRAM P (* ä *) END_PROGRAM\n"));
        assertThat(ProgramFiles.read("p.zip", ProgramFiles.zip(files)).files()).isEqualTo(files);
    }

    /** A zip that unpacks to far more than it says is stopped; one that holds nothing, or is none, is refused. */
    @Test
    void zipsThatAreNone() throws IOException {
        byte[] bomb = zip("a.st", " ".repeat(20 << 20));
        assertThat(bomb.length).isLessThan(1 << 20);
        assertThatThrownBy(() -> ProgramFiles.read("a.zip", bomb)).isInstanceOf(UnreadableFile.class).hasMessageContaining("16 MB");
        assertThatThrownBy(() -> ProgramFiles.read("a.zip", zip("a.md", "x"))).isInstanceOf(UnreadableFile.class).hasMessageContaining("without a text");
        byte[] whole = zip("a.st", "PROGRAM P END_PROGRAM", "b.st", "TYPE T : INT; END_TYPE");
        Random random = new Random(20261127);
        for (int k = 0; k < 2000; k++) {
            byte[] broken = java.util.Arrays.copyOf(whole, k % 2 == 0 ? whole.length : random.nextInt(whole.length - 5) + 5);
            broken[4 + random.nextInt(broken.length - 4)] ^= (byte) (1 << random.nextInt(8));
            try {
                ProgramFiles.read("a.zip", broken);
            } catch (UnreadableFile refused) {
                assertThat(refused.mend()).isNotBlank();
            }
        }
    }

    /** Both schemes of XML, element names from memory; the program runs. */
    @ParameterizedTest
    @ValueSource(strings = {"""
            <Project xmlns="www.iec.ch/public/TC65SC65BWG7TF10" xmlns:xsi="http://www.w3.org/2001/XMLSchema-instance"><Types><GlobalNamespace>
            <DataTypeDecl name="Color"><UserDefinedTypeSpec xsi:type="EnumTypeWithNamedValueSpec"><Enumerator name="Red"/><Enumerator name="Green"/></UserDefinedTypeSpec></DataTypeDecl>
            <DataTypeDecl name="Pair"><UserDefinedTypeSpec xsi:type="StructTypeSpec"><Member name="a"><Type><TypeName>INT</TypeName></Type><InitialValue><SimpleValue value="4"/></InitialValue></Member>
              <Member name="b"><Type><InstantlyDefinedType xsi:type="ArrayTypeSpec"><BaseType><TypeName>INT</TypeName></BaseType><DimensionSpec dimensionNumber="1"><IndexRange lower="1" upper="3"/></DimensionSpec></InstantlyDefinedType></Type></Member></UserDefinedTypeSpec></DataTypeDecl>
            <Function name="Twice"><ResultType><TypeName>INT</TypeName></ResultType><Parameters><InputVars><Variable name="x"><Type><TypeName>INT</TypeName></Type></Variable></InputVars></Parameters>
              <MainBody><BodyContent xsi:type="ST"><ST>Twice := 2 * x;</ST></BodyContent></MainBody></Function>
            <FunctionBlock name="Ladder"><Parameters><InputVars><Variable name="x"><Type><TypeName>INT</TypeName></Type></Variable></InputVars></Parameters><MainBody><BodyContent xsi:type="LD"/></MainBody></FunctionBlock>
            <Program name="Main"><Vars accessSpecifier="private"><Variable name="p"><Type><TypeName>Pair</TypeName></Type></Variable><Variable name="c"><Type><TypeName>Color</TypeName></Type><InitialValue><SimpleValue value="Green"/></InitialValue></Variable>
              <Variable name="n"><Documentation xsi:type="SimpleText"><Text>the (*result*)</Text></Documentation><Type><TypeName>INT</TypeName></Type></Variable></Vars>
              <MainBody><BodyContent xsi:type="ST"><ST>p.b[2] := Twice(p.a);
              IF c = Green AND n &lt; 5 THEN n := p.b[2]; END_IF</ST></BodyContent></MainBody></Program>
            </GlobalNamespace></Types></Project>""", """
            <project xmlns="http://www.plcopen.org/xml/tc6_0201"><types><dataTypes>
            <dataType name="Color"><baseType><enum><values><value name="Red"/><value name="Green"/></values></enum></baseType></dataType>
            <dataType name="Pair"><baseType><struct><variable name="a"><type><INT/></type><initialValue><simpleValue value="4"/></initialValue></variable>
              <variable name="b"><type><array><dimension lower="1" upper="3"/><baseType><INT/></baseType></array></type></variable></struct></baseType></dataType></dataTypes>
            <pous><pou name="Twice" pouType="function"><interface><returnType><INT/></returnType><inputVars><variable name="x"><type><INT/></type></variable></inputVars></interface>
              <body><ST><xhtml xmlns="http://www.w3.org/1999/xhtml">Twice := 2 * x;</xhtml></ST></body></pou>
            <pou name="Ladder" pouType="functionBlock"><interface><inputVars><variable name="x"><type><INT/></type></variable></inputVars></interface><body><LD/></body></pou>
            <pou name="Main" pouType="program"><interface><localVars><variable name="p"><type><derived name="Pair"/></type></variable><variable name="c"><type><derived name="Color"/></type><initialValue><simpleValue value="Green"/></initialValue></variable>
              <variable name="n"><type><INT/></type><documentation><xhtml xmlns="http://www.w3.org/1999/xhtml">the (*result*)</xhtml></documentation></variable></localVars></interface>
              <body><ST><xhtml xmlns="http://www.w3.org/1999/xhtml">p.b[2] := Twice(p.a);
              IF c = Green AND n &lt; 5 THEN n := p.b[2]; END_IF</xhtml></ST></body></pou></pous></types></project>"""})
    void xml(String xml) {
        ProgramFiles.Read read = ProgramFiles.read("cell.xml", xml.getBytes(StandardCharsets.UTF_8));
        assertThat(read.told()).singleElement().satisfies(t -> assertThat(t).contains("Ladder", "Structured Text"));
        CompiledProgram program = StructuredTextCompiler.compile(read.files().stream().map(f -> new StructuredTextCompiler.Text(f.name(), f.source())).toList(), Environment.PLAIN, true);
        assertThat(program.diagnostics()).as(read.files().toString()).isEmpty();
        Resource task = Resource.alone(program, 1000);
        task.cycle(0);
        assertThat(task.text(program.variable("n").orElseThrow())).isEqualTo("8");
        assertThat(task.tracer().ran()).extracting(rueda.plc.run.StatementPlace::file).contains("Main.st", "Twice.st");
    }

    /** Written as XML and read again it is the same program: the same values, from the first one on, cycle by cycle. */
    @ParameterizedTest
    @ValueSource(strings = {"Recipes.st", "PickAndPlace.st", "Modes.st"})
    void xmlAndBack(String name) throws IOException {
        StringBuilder source = new StringBuilder();
        for (String file : List.of("AxisLibrary.st", name)) {
            source.append(new String(ProgramFilesTest.class.getResourceAsStream("/trade/" + file).readAllBytes(), StandardCharsets.UTF_8)).append('\n');
        }
        sameProgram(source.toString(), rueda.bench.Bench.environment(rueda.machine.DemoMachine.create()));
    }

    @ParameterizedTest
    @ValueSource(strings = {
        "TYPE Part : INT (1..9) := 3; Long : LREAL; Kind : DINT (A := 5, B, C := 9); Names : ARRAY [0..1, -1..1] OF STRING[12] := [2('x', 'y'), 2('z')]; Two : STRUCT k : Kind := B; p : Part; r : REF_TO INT; END_STRUCT; END_TYPE\n"
            + "VAR_GLOBAL CONSTANT Most : INT := 4; END_VAR VAR_GLOBAL RETAIN Kept : DINT := Most * 2; END_VAR\n"
            + "FUNCTION Sum : DINT VAR_IN_OUT a : ARRAY [*] OF DINT; END_VAR VAR i : DINT; END_VAR (* over all *) FOR i := LOWER_BOUND(a, 1) TO UPPER_BOUND(a, 1) DO Sum := Sum + a[i]; END_FOR END_FUNCTION\n"
            + "FUNCTION Longest : STRING[40] Longest := 'a<b&c'; END_FUNCTION\n"
            + "FUNCTION_BLOCK Edge VAR_INPUT go : BOOL R_EDGE; END_VAR VAR_OUTPUT n : INT; END_VAR IF go THEN n := n + 1; END_IF END_FUNCTION_BLOCK\n"
            + "PROGRAM Main VAR t : Two := (k := C, p := 7); list : ARRAY [1..5] OF DINT := [1, 3(2), Most]; e : Edge; s : DINT; x : LREAL := -1.5E3; w : STRING := 'it$'s'; n : Names; b : BOOL; END_VAR\n"
            + "// counts\nb := NOT b; e(go := b); s := Sum(list) + Kept; x := x * 2.0 ** 0.5 - (1.0 - x); w := Longest(); END_PROGRAM"})
    void everyKindOfDeclarationAsXml(String source) {
        sameProgram(source, Environment.PLAIN);
    }

    private static void sameProgram(String source, Environment environment) {
        byte[] xml = ProgramFiles.xml("cell & more", "2026-11-27T08:00:00", List.of(new rueda.machine.Plc.SourceFile("All.st", source)));
        ProgramFiles.Read read = ProgramFiles.read("cell.xml", xml);
        assertThat(read.told()).isEmpty();
        CompiledProgram before = StructuredTextCompiler.compile(source, environment);
        CompiledProgram after = StructuredTextCompiler.compile(read.files().stream().map(f -> new StructuredTextCompiler.Text(f.name(), f.source())).toList(), environment);
        assertThat(before.diagnostics()).isEmpty();
        assertThat(after.diagnostics()).as(read.files().toString()).isEmpty();
        Resource one = Resource.alone(before, 100_000);
        Resource other = Resource.alone(after, 100_000);
        for (int cycle = 0; cycle < 4; cycle++) {
            for (rueda.plc.Variable variable : before.variables()) {
                assertThat(other.text(after.variable(variable.name()).orElseThrow())).as(variable.name()).isEqualTo(one.text(variable));
            }
            if (environment == Environment.PLAIN) {
                one.cycle(cycle * 1_000_000L);
                other.cycle(cycle * 1_000_000L);
            }
        }
        assertThat(one.fault()).isNull();
    }

    /** A text with a mistake is not written. */
    @Test
    void noXmlOfAMistake() {
        assertThatThrownBy(() -> ProgramFiles.xml("x", "2026-11-27T08:00:00", List.of(new rueda.machine.Plc.SourceFile("All.st", "PROGRAM P\nx := ;\nEND_PROGRAM")))).isInstanceOf(UnreadableFile.class).hasMessageContaining("All.st, line 2");
    }

    /** Each fault names its file, and one text sees what another declares, in any order. */
    @Test
    void severalTexts() {
        List<StructuredTextCompiler.Text> texts = List.of(new StructuredTextCompiler.Text("Main.st", "PROGRAM Main VAR m : Mover; END_VAR\nm(go := TRUE); END_PROGRAM"),
                new StructuredTextCompiler.Text("Mover.st", "FUNCTION_BLOCK Mover VAR_INPUT go : BOOL; END_VAR VAR s : State; n : INT; END_VAR\nIF go THEN s := Moving; END_IF\nn := 5 / (n - n); END_FUNCTION_BLOCK"),
                new StructuredTextCompiler.Text("Types.st", "TYPE State : (Idle, Moving); END_TYPE"));
        CompiledProgram program = StructuredTextCompiler.compile(texts, Environment.PLAIN);
        assertThat(program.diagnostics()).isEmpty();
        Resource task = Resource.alone(program, 1000);
        task.cycle(0);
        assertThat(task.fault().getMessage()).contains("Division by zero");
        assertThat(task.fault().file()).isEqualTo("Mover.st");
        assertThat(task.fault().line()).isEqualTo(3);
        assertThat(StructuredTextCompiler.compile(java.util.stream.Stream.concat(texts.stream(), java.util.stream.Stream.of(new StructuredTextCompiler.Text("New.st", ""), new StructuredTextCompiler.Text("Notes.st", "(* later *)\n"))).toList(), Environment.PLAIN).diagnostics())
                .as("an empty file beside others").isEmpty();
        CompiledProgram wrong = StructuredTextCompiler.compile(List.of(texts.get(0), new StructuredTextCompiler.Text("Mover.st", texts.get(1).source().replace("Moving", "Flying")), texts.get(2)), Environment.PLAIN);
        assertThat(wrong.diagnostics()).singleElement().satisfies(d -> {
            assertThat(d.file()).isEqualTo("Mover.st");
            assertThat(d.line()).isEqualTo(2);
        });
    }
}
