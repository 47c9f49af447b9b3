package rueda.e2e;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import org.junit.jupiter.api.Test;

/** Wiring: mistakes made on the bench are found and mended; forced inputs show and let go. */
class WireTest extends BrowserTest {

    private Locator checks() {
        return page.getByTestId("wiring-checks").locator("tbody tr");
    }

    @Test
    void swappedLimitsAreFoundAndMended() {
        open("/wire");
        button("Prove the wiring").click();
        expect(checks()).hasCount(4);
        expect(page.getByTestId("wiring-checks")).not().containsText("wrong");
        page.getByText("Condition of the bench").click();
        page.getByText("limit switches swapped").click();
        expect(page.locator("header")).containsText("1 mistake on the bench");
        page.reload();
        expect(page.locator("header")).containsText("1 mistake on the bench");
        button("Prove the wiring").click();
        expect(checks().first()).containsText("positive limit answered");
        expect(checks().last()).containsText("the axis ran past the switch into the hard stop");
        expectAccessible("wiring proof with faults");
        checks().first().getByText("Exchange the functions of I1 and I2").click();
        expect(field("Function of I1")).hasValue("positive limit");
        expect(page.getByText("Not proven yet for these entries.")).isVisible();
        /* the wires themselves put right again, the exchanged functions are the mistake */
        button("Undo").click();
        page.getByText("limit switches swapped").click();
        expect(page.locator("header")).not().containsText("on the bench");
        button("Prove the wiring").click();
        expect(page.getByTestId("wiring-checks")).not().containsText("wrong");
        screenshot("wire");
    }

    @Test
    void findingsNameWhatIsMissingOrDoubled() {
        open("/wire");
        choose(field("Function of I3"), "NONE");
        expect(side()).containsText("Homing needs the reference cam, and it is not wired.");
        side().getByText("Wire it to I3").click();
        expect(side()).containsText("Every switch this axis needs has its terminal.");
        choose(field("Function of I5"), "NEGATIVE_LIMIT");
        expect(side()).containsText("I1 and I5 have the same function.");
        side().getByText("Free I5").click();
        choose(field("Contact of I1"), "open");
        expect(side()).containsText("A broken wire would not stop the axis.");
        side().getByText("Take it as normally closed").click();
        field("Filter of I1").fill("0.05 s");
        expect(side()).containsText("The filter of I1 is too long for the speed.");
    }

    @Test
    void forcedInputsShowAndLetGoWithControl() {
        open("/wire");
        takeControl();
        choose(field("Force I1"), "0");
        expect(page.locator("header")).containsText("1 forced · release all");
        expect(page.locator("tr", new Page.LocatorOptions().setHasText("I1")).first()).containsText("active");
        page.getByText("1 forced · release all").click();
        expect(page.locator("header")).not().containsText("forced");
        choose(field("Force I4"), "0");
        expect(page.locator("header")).containsText("1 forced · release all");
        button("Enable Shuttle").click();
        page.waitForTimeout(500);
        expect(page.getByTestId("axis-state").first()).hasText("disabled");
        button("Give control back").click();
        expect(page.locator("header")).not().containsText("forced");
    }
}
