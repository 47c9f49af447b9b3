package rueda.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.assertions.LocatorAssertions;
import com.microsoft.playwright.options.AriaRole;
import org.junit.jupiter.api.Test;

/** Prove: what happens while the program runs, many proofs, and the same proof on a bad day. */
class ProveTest extends BrowserTest {

    private void part(String name) {
        page.getByRole(AriaRole.TAB, new Page.GetByRoleOptions().setName(name).setExact(true)).click();
    }

    private static LocatorAssertions.ContainsTextOptions within(int seconds) {
        return new LocatorAssertions.ContainsTextOptions().setTimeout(seconds * 1000.0);
    }

    /** A new proof: the operator orders a wheel, a person presses stop; a misspelt condition is told beside its sentence. */
    @Test
    void aProofIsWrittenInSentences() {
        open("/prove");
        button("What can be done with proofs").click();
        page.getByText("New proof", new Page.GetByTextOptions().setExact(true)).click();
        field("Name of the proof").fill("Stop on the way out");
        field("Name of the proof").press("Enter");
        field("Duration").fill("8");
        part("Script 0");
        choose(field("Add a sentence"), "STOP");
        choose(field("Begin of sentence 1"), "WHEN");
        field("Condition of sentence 1").fill("Shuttle.sped > 400");
        field("Condition of sentence 1").press("Tab");
        page.getByText("Did you mean Shuttle.speed?").waitFor();
        expectAccessible("a script with a fault");
        field("Condition of sentence 1").fill("Shuttle.speed > 400");
        field("Condition of sentence 1").press("Tab");
        assertThat(page.getByText("Did you mean")).hasCount(0);
        field("Time of sentence 1").fill("0,1");
        choose(field("Add a sentence"), "SET");
        field("What is set of sentence 2").fill("OrderedSlot");
        field("What is set of sentence 2").press("Tab");
        field("What it gets of sentence 2").fill("3");
        field("What it gets of sentence 2").press("Tab");
        assertThat(saved()).containsText("All saved");
        button("Move sentence 2 up").click();
        assertThat(field("What is set of sentence 1")).hasValue("OrderedSlot");
        assertThat(saved()).containsText("All saved");
        button("Undo").click();
        assertThat(field("What is set of sentence 2")).hasValue("OrderedSlot");
        part("Expectations 0");
        choose(field("Add an expectation"), "ENDS");
        choose(field("Add an expectation"), "BETWEEN");
        choose(field("While of expectation 2"), "WHILE");
        field("Condition of expectation 2").fill("Shuttle.referenced");
        field("Condition of expectation 2").press("Tab");
        field("Upper bound of expectation 2").fill("50");
        assertThat(saved()).containsText("All saved");
        runProof();
        assertThat(page.getByTestId("proof-summary")).containsText("1 of 2 expectations held");
        page.getByTestId("verdict").last().click();
        assertThat(page.locator(".why")).containsText("a person pressed stop");
        assertThat(page.locator(".why")).containsText("Shuttle.position was");
    }

    /** The same proof with other masses, friction and cam: the map, what it says, and the worst run with its cause. */
    @Test
    void theSameProofOnABadDay() {
        open("/prove");
        part("Conditions 3");
        button("Repeat").click();
        assertThat(page.getByTestId("repetition-summary")).containsText("11 runs: 6 did not hold everything", within(60));
        Locator map = page.getByTestId("condition-map");
        assertThat(map.locator("tbody tr")).hasCount(11);
        assertThat(map.locator("tbody tr").nth(5)).containsText("170 kg");
        assertThat(page.locator(".remarks li").first()).containsText("does not hold from about");
        expectAccessible("map of conditions");
        screenshot("prove-conditions");
        map.locator("tbody tr").nth(6).getByRole(AriaRole.BUTTON).nth(3).click();
        assertThat(page.getByTestId("proof-summary")).containsText("mass of the load of Shuttle 190 kg", within(60));
        page.getByTestId("verdict").nth(3).click();
        assertThat(page.locator(".why")).containsText("With 190 kg on board");
        assertThat(page.locator(".why")).containsText("As the document says it would need");
        button("Back to the run as the document says").click();
        assertThat(page.getByTestId("proof-summary")).not().containsText("190 kg");
        /* it goes on when the page is left, and can be cancelled */
        part("Conditions 3");
        choose(field("Plan"), "RANDOM");
        field("Runs").fill("4000");
        assertThat(saved()).containsText("All saved");
        button("Repeat again").click();
        assertThat(page.getByText("It goes on when this page is closed.")).isVisible();
        open("/overview");
        open("/prove");
        part("Conditions 3");
        assertThat(page.getByText("It goes on when this page is closed.")).isVisible();
        button("Cancel").click();
        page.getByText("It was cancelled after").waitFor();
    }

    /** Conditions are written; half-typed values are kept and said to be none. */
    @Test
    void conditionsAreWritten() {
        open("/prove");
        part("Conditions 3");
        choose(field("Add a condition"), "ENCODER_NOISE");
        choose(field("Kind of condition 4"), "values");
        field("Values of condition 4").fill("1; 2,5; x");
        field("Values of condition 4").press("Enter");
        page.getByText("numbers with semicolons between them").first().waitFor();
        field("Values of condition 4").fill("1; 2,5");
        field("Values of condition 4").press("Enter");
        assertThat(page.getByText("numbers with semicolons between them")).hasCount(0);
        assertThat(saved()).containsText("All saved");
        choose(field("Add a condition"), "STIFFNESS");
        page.getByText("The load of Shuttle is rigid").waitFor();
        button("Remove condition 5").click();
        choose(field("Plan"), "STOP");
        field("Time between moments").fill("3");
        button("Remove condition 4").click();
        assertThat(saved()).containsText("All saved");
        button("Repeat").click();
        assertThat(page.getByTestId("repetition-summary")).containsText("stop, power loss and requests to the guards at any moment, 24 runs", within(60));
        assertThat(page.getByTestId("condition-map").locator("tbody tr")).hasCount(24);
    }
}
