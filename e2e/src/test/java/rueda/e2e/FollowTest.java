package rueda.e2e;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;

/** Following: the Brush is tied to the Table, locks, is trimmed and let go; what the entries cause; the same by blocks of the program. */
class FollowTest extends BrowserTest {

    private Locator status() {
        return page.getByTestId("follow-status");
    }

    private Locator trial() {
        return page.getByTestId("follow-trial");
    }

    /** Control for as long as it can be, so that a slow machine does not lose it; both axes are enabled. */
    private void takeBoth() {
        button("By hand").click();
        choose(field("Axes stop when this page is silent for"), "10");
        button("By hand").click();
        button("Take control and enable both").click();
    }

    @Test
    void theBrushFollowsTheTable() {
        open("/follow/Brush");
        expect(side()).containsText("Gap without feed-forward4.25 °");
        expect(trial()).containsText("locked after");
        takeBoth();
        button("Run Table").click();
        expect(button("Stop Table")).isVisible();
        button("Follow").click();
        expect(status()).containsText("locked");
        page.getByLabel("Trim forward").press("Enter");
        page.getByLabel("Trim forward").dispatchEvent("pointerdown");
        expect(status()).containsText(Pattern.compile("trimmed [1-9]"));
        page.getByLabel("Trim forward").dispatchEvent("pointerup");
        screenshot("follow");
        expectAccessible("a follower");
        button("Let go").click();
        expect(status()).containsText("Teeth stand at the pitches");
        button("Stop Table").click();
        expect(button("Run Table")).isVisible();
        button("Give control back").click();
        expect(page.getByTestId("axis-state").nth(3)).hasText("disabled");
    }

    /** Feed-forward off: the gap that is announced is the one that is measured. A ratio of three decimals drifts, and the mend takes that away. */
    @Test
    void whatTheEntriesCause() {
        open("/follow/Brush");
        expect(trial()).containsText("locked after");
        field("Feed-forward").fill("0");
        expect(side()).containsText("It stays behind by more than the phase window.");
        expect(trial()).containsText(Pattern.compile("gap −4\\.\\d"));
        side().getByText("Feed all of the speed forward").click();
        expect(side()).not().containsText("stays behind");
        choose(field("Ratio given by"), "DECIMAL");
        field("Ratio as a decimal").fill("3.499");
        expect(side()).containsText("The ratio is not that of the pitches.");
        expect(side()).containsText("Drift an hour−216 °");
        side().getByText("Take the ratio of the pitches").click();
        expect(side()).containsText("It follows its master exactly.");
        field("Catch-up limit").fill("0");
        expect(side()).containsText("The catch-up limit is 0.");
        expect(trial()).containsText("never locked");
        choose(field("Lock"), "SPEED");
        expect(trial()).containsText("lost");
        /* what cannot be tried is told, with what can be */
        field("Speed of the master").fill("9999");
        expect(page.locator(".trial [role=alert]")).containsText("−120");
        field("Speed of the master").fill("");
        expect(trial()).containsText("locked after");
        field("Lock gain").fill("0");
        expect(page.getByTestId("refusal")).containsText("Gain of the lock");
        button("Undo").click();
        expect(page.getByTestId("refusal")).hasCount(0);
        expect(saved()).containsText("All saved");
        expectAccessible("following, changed");
    }

    /** An axis that follows nothing says what to do; one that would follow itself in a circle is refused, and what was there is kept. */
    @Test
    void aMasterIsChosen() {
        open("/follow/Lift");
        expect(page.getByText("Choose whose setpoint or actual position it follows")).isVisible();
        choose(field("What it follows"), "ACTUAL");
        choose(field("Master"), "Table");
        expect(side()).containsText("Delay behind Table1 ms");
        choose(field("What it follows"), "NONE");
        expect(saved()).containsText("All saved");
        open("/follow/Table");
        choose(field("What it follows"), "SETPOINT");
        choose(field("Master"), "Brush");
        expect(page.getByTestId("refusal").first()).containsText("does not follow Table itself");
        button("Undo").click();
        expect(page.getByTestId("refusal")).hasCount(0);
    }

    /** The second demo: the Brush follows an encoder on the infeed belt, in its drive; a line of the encoder breaks. */
    @Test
    void theBrushFollowsTheInfeedBelt() {
        page.navigate(rueda.address() + "/");
        button("The brush on the infeed belt").click();
        expect(page.getByTestId("saved")).containsText("All saved");
        stage("Follow");
        expect(trial()).containsText("locked after");
        expect(side()).containsText("Delay behind the master0.125 ms");
        button("By hand").click();
        choose(field("Axes stop when this page is silent for"), "10");
        button("By hand").click();
        button("Take control and enable").click();
        button("Follow").click();
        expect(status()).containsText("locked");
        expect(page.getByTestId("axis-state").first()).hasText("following");
        button("Stop the master").click();
        expect(button("Run the master")).isVisible();
        button("Let go").click();
        expect(status()).containsText("Teeth stand at the pitches");
        button("Give control back").click();
        expect(page.getByTestId("axis-state").first()).hasText("disabled");
        expectAccessible("a follower behind an encoder");
        /* its terminal is freed: the finding says so, and the mend gives it back */
        stage("Wire");
        choose(field("Function of X2"), "NONE");
        stage("Follow");
        expect(side()).containsText("The master encoder is not wired.");
        side().getByText("Give X2 the function master encoder").click();
        expect(side()).not().containsText("is not wired");
        expect(saved()).containsText("All saved");
        stage("Wire");
        page.getByText("Condition of the bench").click();
        field("a line of the master encoder broken").click();
        expect(page.locator("header")).containsText("1 mistake on the bench");
        /* the bench still runs: it acts at once */
        expect(page.getByTestId("axis-state").first()).hasText("fault 7381h");
    }

    /** A virtual master is made, followed and run by hand; under another name it is still followed; gone, nothing is. */
    @Test
    void aVirtualMaster() {
        open("/follow/Brush");
        button("Add a virtual master").click();
        expect(field("Name of the virtual master")).hasValue("Line1");
        choose(field("Master"), "Line1");
        expect(side()).containsText("Delay behind Line10 ms");
        expect(trial()).containsText("locked after");
        field("Name of the virtual master").fill("Table");
        field("Name of the virtual master").press("Enter");
        expect(page.locator(".virtual [role=alert]")).containsText("Table is refused");
        field("Name of the virtual master").fill("Feed");
        field("Name of the virtual master").press("Enter");
        expect(side()).containsText("Delay behind Feed0 ms");
        expect(saved()).containsText("All saved");
        field("Modulo").fill("0");
        expect(page.getByTestId("refusal").first()).containsText("Modulo of the virtual master");
        button("Undo").click();
        expect(page.getByTestId("refusal")).hasCount(0);
        takeBoth();
        button("Run Feed").click();
        expect(button("Stop Feed")).isVisible();
        button("Follow").click();
        expect(status()).containsText("locked");
        expect(page.locator(".virtual .live")).containsText("60.0 °/s");
        expectAccessible("a virtual master");
        button("Stop Feed").click();
        button("Give control back").click();
        expect(page.getByTestId("axis-state").nth(3)).hasText("disabled");
        button("Remove Feed").click();
        expect(page.getByText("Choose whose setpoint or actual position it follows")).isVisible();
        button("Undo").click();
        expect(field("Name of the virtual master")).hasValue("Feed");
        expect(saved()).containsText("All saved");
    }

    /** What is watched: a master that is too fast, and the follower lets go as was chosen and says why. A trim by a distance. */
    @Test
    void whatIsWatched() {
        page.navigate(rueda.address() + "/");
        button("The brush on the infeed belt").click();
        expect(page.getByTestId("saved")).containsText("All saved");
        stage("Follow");
        expect(side()).containsText("Lost counts are told from5 counts");
        field("Highest speed").fill("200");
        choose(field("When the master is too fast"), "RAMP");
        field("Trim distance").fill("12");
        expect(side()).containsText("Trim by an edge12 °");
        field("Limit of the phase").fill("0.5");
        expect(side()).containsText("The limit of the phase lies inside its window.");
        side().getByText("Set the limit to twice the window").click();
        expect(field("Limit of the phase")).hasValue("2");
        choose(field("When the phase leaves its limit"), "QUICK_STOP");
        expect(saved()).containsText("All saved");
        button("By hand").click();
        choose(field("Axes stop when this page is silent for"), "10");
        button("By hand").click();
        button("Take control and enable").click();
        button("Follow").click();
        expect(status()).containsText("the master is too fast");
        expect(page.getByTestId("axis-state").first()).not().hasText("following");
        button("Give control back").click();
        expect(page.getByTestId("axis-state").first()).hasText("disabled");
    }
}
