package rueda.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;

import com.microsoft.playwright.Download;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.assertions.LocatorAssertions;
import com.microsoft.playwright.options.AriaRole;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;

/** Recordings of the real machine: brought in, laid over the bench, learned from; traces of both; and how fast it may go. */
class RecordingTest extends BrowserTest {

    private static LocatorAssertions.ContainsTextOptions within(int seconds) {
        return new LocatorAssertions.ContainsTextOptions().setTimeout(seconds * 1000.0);
    }

    private void part(Pattern name) {
        page.getByRole(AriaRole.TAB, new Page.GetByRoleOptions().setName(name)).click();
    }

    /** A run ends with its verdicts on the page. */
    private void provenAgain() {
        page.waitForResponse(answer -> answer.request().method().equals("POST") && answer.url().contains("/runs"), this::runProof);
        assertThat(page.getByRole(AriaRole.TAB, new Page.GetByRoleOptions().setName("Verdicts"))).hasAttribute("aria-selected", "true");
    }

    private void laidOver() {
        part(Pattern.compile("Recordings"));
        page.locator("li", new Page.LocatorOptions().setHasText("Shuttle in the cellar")).locator(".pick").click();
        assertThat(page.getByTestId("laid")).containsText("s; both are there");
    }

    private void proven() {
        open("/prove");
        page.getByText(Pattern.compile("^Run (proof|again)$")).click();
        assertThat(page.getByTestId("proof-summary")).containsText("4 of 5 expectations held");
    }

    /** The demo's recording is laid over the run, the bench learns the friction of the cellar's rail, and the proof is made again. */
    @Test
    void theBenchLearnsFromTheCellar() {
        proven();
        part(Pattern.compile("Recordings"));
        page.locator("li", new Page.LocatorOptions().setHasText("Shuttle in the cellar")).locator(".pick").click();
        assertThat(page.getByTestId("laid")).containsText("0.0040 s");
        assertThat(page.getByTestId("apart")).containsText("Shuttle torque");
        expectAccessible("recordings");
        screenshot("recordings");
        /* what is learned from comes early; each of some dozens of runs takes half as long */
        part(Pattern.compile("Script"));
        field("Duration").fill("10");
        field("Duration").press("Tab");
        assertThat(saved()).containsText("All saved");
        provenAgain();
        laidOver();
        button("Learn").click();
        assertThat(page.getByTestId("learned")).containsText("Coulomb friction", within(90));
        assertThat(page.getByTestId("learned").locator("tr", new com.microsoft.playwright.Locator.LocatorOptions().setHasText("Coulomb friction"))).containsText(Pattern.compile("45\\.00 N.*(79|8[0-3])\\.\\d N.*± \\d\\.\\d N"));
        button("Take over 3 values").click();
        assertThat(saved()).containsText("All saved");
        page.getByText("Taken over for Shuttle").waitFor();
        provenAgain();
        laidOver();
        button("Undo").click();
        open("/scale");
        assertThat(field("Coulomb friction")).hasValue("45");
        open("/prove");
        /* near to it from now on: one click makes an expectation of it */
        laidOver();
        button("Add Shuttle.torque as expectation").click();
        part(Pattern.compile("Expectations 6"));
        assertThat(field("Recording of expectation 6").locator("xpath=ancestor::*[contains(@class,'v-select')][1]")).containsText("Shuttle in the cellar");
    }

    /** A file of another recorder: what it looks like is guessed and corrected, a fault is told with its line, and half of nothing is kept. */
    @Test
    void aFileOfAnyRecorderIsBroughtIn() throws IOException {
        open("/prove");
        part(Pattern.compile("Recordings"));
        Path file = Files.createTempDirectory("rueda-recorder").resolve("hall 2.txt");
        Files.writeString(file, "sampled by hand\nA|B\n0|1,5\n1|1,25\n2|oops\n3|1\n", StandardCharsets.ISO_8859_1);
        page.locator("input[type=file]").setInputFiles(file);
        assertThat(page.getByLabel("How the file is read")).containsText("hall 2.txt");
        expectAccessible("a file being read");
        field("Name of the recording").fill("Hall 2");
        field("Name of the recording").press("Enter");
        /* a column with a word among its first numbers is not taken by itself */
        field("B").check();
        field("Signal of B").fill("Lift.position");
        field("Signal of B").press("Enter");
        assertThat(field("Unit of B")).hasValue("mm");
        button("Bring it in").click();
        assertThat(page.getByTestId("recording-refused")).containsText("line 5, Lift.position: oops");
        button("Give up").click();
        Files.writeString(file, "sampled by hand\nA|B\n0|1,5\n1|1,25\n2|\n3|1\n", StandardCharsets.ISO_8859_1);
        page.locator("input[type=file]").setInputFiles(file);
        choose(field("Form of the time"), "MILLISECONDS");
        button("Bring it in").click();
        page.locator("li", new Page.LocatorOptions().setHasText("4 samples from 0.000 to 0.003 s")).waitFor();
        button("Forget hall 2").click();
        assertThat(page.getByText("4 samples")).hasCount(0);
    }

    /** Signals of a run and of the recording over one time: panes, a difference, cursors by keyboard, measures, bands, a picture. */
    @Test
    void tracesOfARunAndOfARecording() {
        proven();
        part(Pattern.compile("Recordings"));
        page.locator("li", new Page.LocatorOptions().setHasText("Shuttle in the cellar")).locator(".pick").click();
        button("Lay them over one another").click();
        page.getByText(Pattern.compile("Shuttle torque, run \\d+ less Shuttle in the cellar")).first().waitFor();
        assertThat(page.locator(".stack canvas")).hasCount(4);
        assertThat(page.getByTestId("measures").locator("tbody tr")).hasCount(7);
        expectAccessible("traces");
        screenshot("traces");
        page.getByRole(AriaRole.SLIDER, new Page.GetByRoleOptions().setName("Cursor A")).focus();
        String before = page.getByTestId("measures").innerText();
        page.keyboard().press("Shift+ArrowRight");
        assertThat(page.getByTestId("measures")).not().containsText(before.lines().findFirst().orElseThrow());
        button("Closer").click();
        assertThat(page.locator(".span")).not().containsText("0 to 18");
        button("All of it").click();
        choose(field("Bands by a value of the program"), "Step");
        Download picture = page.waitForDownload(() -> button("PNG").click());
        org.assertj.core.api.Assertions.assertThat(picture.suggestedFilename()).endsWith("traces.png");
        page.reload();
        assertThat(page.locator(".stack canvas")).hasCount(4);
    }

    /** How fast may it go and still hold everything: found, taken over, and proven. */
    @Test
    void theFastestThatHolds() {
        proven();
        part(Pattern.compile("Fastest"));
        page.getByLabel(Pattern.compile("^Acceleration in line 67")).check();
        field("Most Acceleration in line 67").fill("6000");
        field("Most Acceleration in line 67").press("Enter");
        field("Least Acceleration in line 67").fill("4000");
        field("Least Acceleration in line 67").press("Enter");
        expectAccessible("what may be changed");
        button("Search").click();
        assertThat(page.getByTestId("fastest")).containsText("As it is, it does not hold everything; with these values it does", within(120));
        button("Take it over").click();
        assertThat(saved()).containsText("All saved");
        runProof();
        assertThat(page.getByTestId("proof-summary")).containsText("5 of 5 expectations held", within(60));
    }
}
