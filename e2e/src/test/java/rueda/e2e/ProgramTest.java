package rueda.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Download;
import com.microsoft.playwright.Locator;
import com.microsoft.playwright.assertions.PlaywrightAssertions;
import com.microsoft.playwright.options.FilePayload;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import org.junit.jupiter.api.Test;

/** The program: brought in from elsewhere, mended, run and proven. */
class ProgramTest extends BrowserTest {

    private static final String TYPES = "TYPE\n  Step : STRUCT Target : LREAL; Pause : TIME := T#200ms; END_STRUCT;\n  State : (Idle, Moving, Waiting, Finished);\nEND_TYPE\n";
    private static final String WALKER = """
            FUNCTION_BLOCK Walker
            VAR_IN_OUT Axis : AXIS_REF; Steps : ARRAY [*] OF Step; END_VAR
            VAR_INPUT Go : BOOL; END_VAR
            VAR_OUTPUT Now : State; Count : DINT; END_VAR
            VAR Move : MC_MoveAbsolute; Clock : TON; i : DINT := 1; END_VAR
              Move(Axis := Axis, Execute := Now = Moving, Position := Steps[i].Target);
              Clock(IN := Now = Waiting, PT := Steps[i].Pause);
              CASE Now OF
                Idle: IF Go THEN Now := Moving; END_IF
                Moving: IF Move.Done THEN Now := Waiting; END_IF
                Waiting:
                  IF Clock.Q THEN
                    Count := Count + 1;
                    IF i < UPPER_BOUND(Steps, 1) THEN i := i + 1; Now := Moving; ELSE Now := Finished; END_IF
                  END_IF
              END_CASE
            END_FUNCTION_BLOCK
            """;
    private static final String MAIN = """
            PROGRAM Main
            VAR
              Power : MC_Power;
              Home : MC_Home;
              Walk : Walker;
              Steps : ARRAY [1..2] OF Step := [(Target := 300.0), (Target := 900.0)];
              Done : BOOL
            END_VAR
              Power(Axis := Shuttle, Enable := TRUE);
              Home(Axis := Shuttle, Execute := Power.Status);
              Walk(Axis := Shuttle, Steps := Steps, Go := Home.Done);
              Done := Walk.Count = 2;
            END_PROGRAM
            """;

    private static byte[] zip() throws IOException {
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        try (ZipOutputStream zip = new ZipOutputStream(bytes)) {
            for (String[] file : new String[][] {{"cell/Types.st", TYPES}, {"cell/Walker.st", WALKER}, {"cell/Main.st", MAIN}, {"cell/readme.md", "x"}}) {
                zip.putNextEntry(new ZipEntry(file[0]));
                zip.write(file[1].getBytes(StandardCharsets.UTF_8));
                zip.closeEntry();
            }
        }
        return bytes.toByteArray();
    }

    private Locator file(String name) {
        return page.getByLabel("Files of the program").getByText(name, new Locator.GetByTextOptions().setExact(true));
    }

    /** From a zip, by a mend, to a run and a proof that holds; and out again. */
    @Test
    void severalFilesFromAZipToAProvenRun() throws IOException {
        open("/program");
        page.getByLabel("Program files").setInputFiles(new FilePayload("cell.zip", "application/zip", zip()));
        expect(page.locator(".told")).containsText("Walker.st was added.");
        expect(page.locator(".told")).containsText("readme.md was left out");
        expectAccessible("files brought in");
        file("TurningCell.st").click();
        button("Remove file").click();
        expect(page.getByLabel("Faults of the program")).containsText("Main.st, line 7, column 14: A ; is missing");
        expect(button("Run program")).isDisabled();
        page.getByLabel("Faults of the program").getByText("Insert ;").click();
        expect(page.getByLabel("Faults of the program")).hasCount(0);
        expect(saved()).containsText("All saved");
        file("Main.st").click();
        button("Run program").click();
        expect(page.locator(".cm-beside").filter(new Locator.FilterOptions().setHasText("Walk.Count = ")).first()).isVisible();
        choose(field("Clock"), "5");
        expect(side().locator("tr", new Locator.LocatorOptions().setHasText("Walk.Now")).first()).containsText("Finished");
        field("Values whose name has").fill("steps[2]");
        expect(page.getByTestId("values").locator("tr")).hasCount(2);
        expect(side()).containsText("900.0");
        stage("Prove");
        button("What can be done with proofs").click();
        page.getByText("New proof", new com.microsoft.playwright.Page.GetByTextOptions().setExact(true)).click();
        choose(field("Add an expectation"), "ARRIVES");
        field("Event of expectation 1").fill("Home.Done");
        field("Event of expectation 1").press("Enter");
        field("Position of expectation 1").fill("900");
        field("Time of expectation 1").fill("8");
        expect(saved()).containsText("All saved");
        runProof();
        expect(page.getByTestId("proof-summary")).containsText("1 of 1 expectations held");
        expect(page.locator(".why")).containsText("of Walker.st");
        stage("Program");
        Download download = page.waitForDownload(() -> button("Zip").click());
        assertThat(download.suggestedFilename()).endsWith(".zip");
        assertThat(Files.size(download.path())).isGreaterThan(500);
        Download xml = page.waitForDownload(() -> button("XML").click());
        assertThat(Files.readString(xml.path())).contains("<FunctionBlock name=\"Walker\">", "UPPER_BOUND(Steps, 1)");
    }

    private Locator value(String name) {
        return page.getByTestId("values").locator("tr", new Locator.LocatorOptions().setHasText(name)).first();
    }

    /** Sets a breakpoint, steps from it, looks at an expression, forces a value, and lets go. */
    @Test
    void breakpointStepAndForce() {
        open("/program");
        page.locator(".cm-lineNumbers .cm-gutterElement").getByText("11", new Locator.GetByTextOptions().setExact(true)).waitFor();
        page.locator(".cm-content").click();
        page.keyboard().press("Control+Home");
        for (int line = 1; line < 41; line++) {
            page.keyboard().press("ArrowDown");
        }
        page.keyboard().press("F9");
        expect(page.locator(".cm-break").last()).isVisible();
        button("Run program").click();
        expect(page.getByTestId("held")).containsText("Held in line 41");
        expect(page.locator(".cm-marked")).containsText("IF Power.Status THEN");
        expect(side()).containsText("Breakpoints");
        field("Condition of the breakpoint in line 41").fill("Power.Statu");
        page.keyboard().press("Enter");
        expect(side()).containsText("Did you mean");
        field("Condition of the breakpoint in line 41").fill("Power.Status");
        page.keyboard().press("Enter");
        expect(side()).not().containsText("Did you mean");
        button("Go on").click();
        expect(page.getByTestId("held")).containsText("Held in line 41");
        field("Expression to watch").fill("Power.Status AND Step < 5");
        page.keyboard().press("Enter");
        expect(page.locator(".watches li").first()).containsText("TRUE");
        button("Step over").click();
        expect(page.getByTestId("held")).containsText("Held in line 42");
        button("Step over").click();
        expect(page.locator(".watches li").first()).containsText("FALSE");
        expectAccessible("a program that is held");
        button("Remove the breakpoint in line 41").click();
        expect(side()).not().containsText("Breakpoints");
        value("Slot").locator("button").first().click();
        field("New value of Slot").fill("70000");
        button("Force").click();
        expect(page.locator(".notices, [role=alert]").first()).containsText("70000");
        field("New value of Slot").fill("3");
        button("Force").click();
        expect(value("Slot")).containsText("forced");
        expect(value("Slot")).containsText("3");
        button("Release all (1)").click();
        expect(value("Slot")).not().containsText("forced");
        value("Slot").locator("button").first().click();
        button("History").click();
        expect(page.getByTestId("history").locator("tbody tr").first()).containsText("until now");
        expect(page.getByTestId("history").locator("tbody tr").last()).containsText("0.001 s7");
        expectAccessible("the history of a value");
        button("Go on").click();
        expect(page.getByTestId("held")).hasCount(0);
    }

    /** A name is looked at, renamed wherever it stands, found, and undone; a finding about motion leads to its line. */
    @Test
    void namesFindingsTasksAndTags() {
        open("/program");
        expect(side()).containsText("Nobody looks at the errors of");
        side().getByText("Line 34").click();
        expect(page.getByLabel("Name under the cursor")).containsText("LiftReference");
        expect(page.getByLabel("Name under the cursor")).containsText("MC_Home");
        page.keyboard().press("F2");
        field("New name").fill("Power");
        page.keyboard().press("Enter");
        expect(page.locator(".notices, [role=alert]").first()).containsText("Power");
        field("New name").fill("LiftZero");
        page.keyboard().press("Enter");
        expect(page.getByLabel("Name under the cursor")).containsText("LiftZero");
        button("Format").click();
        expect(page.locator(".cm-line").getByText("  Power(Axis := Shuttle, Enable := TRUE);")).isVisible();
        page.locator(".others").getByText("Find").click();
        field("Find in all files").fill("LiftZero");
        expect(button("Replace all (3)")).isVisible();
        field("Find in all files").fill("liftreference");
        expect(button("Replace all (0)")).isDisabled();
        expectAccessible("find in the files of the program");
        page.locator(".others").getByText("Axis states").click();
        expect(page.getByLabel("State of Shuttle")).containsText("PLCopen");
        expectAccessible("states of an axis");
        page.locator(".others").getByText("Tags").click();
        expect(page.getByTestId("tag-uses")).containsText("Shuttle.Cmd.Control");
        expectAccessible("tags of the program");
        page.locator(".others").getByText("Tasks").click();
        button("Add a task").click();
        field("Task 2, interval").fill("7");
        expect(page.locator("[id$=intervalMicros-fault]").first()).containsText("a multiple of the bus cycle");
        field("Task 2, interval").fill("10000");
        expect(saved()).containsText("All saved");
        expectAccessible("tasks of the program");
        button("Run program").click();
        expect(page.getByTestId("tasks")).containsText("Task 2");
        page.getByLabel("Undo").first().click();
    }

    /** The texts lie in a folder where another editor changes them: the page shows each change, with its faults, and undo takes it back. */
    @Test
    void textsFromAFolderThatAnotherEditorWrites() throws IOException {
        Path texts = Files.createTempDirectory("rueda-texts");
        Files.writeString(texts.resolve("Types.st"), TYPES);
        Files.writeString(texts.resolve("Walker.st"), WALKER);
        try (RuedaProcess other = new RuedaProcess(Files.createTempDirectory("rueda-e2e"), "--programs", texts.toString())) {
            page.navigate(other.address() + "/machines/1/program");
            page.getByTestId("folder").getByText(texts.toString()).waitFor();
            page.getByText("There is no PROGRAM").first().waitFor();
            Files.writeString(texts.resolve("Main.st"), MAIN);
            page.getByText("A ; is missing").first().waitFor();
            Files.writeString(texts.resolve("Main.st"), MAIN.replace("Done : BOOL\n", "Done : BOOL;\n"));
            page.getByLabel("Files of the program").getByText("Main.st").waitFor();
            PlaywrightAssertions.assertThat(page.getByLabel("Faults of the program")).not().isVisible();
            page.keyboard().press("Control+z");
            page.getByText("A ; is missing").first().waitFor();
        }
    }
}
