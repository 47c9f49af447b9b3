package rueda.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import org.junit.jupiter.api.Test;

/** Moving by hand: refusals say why, one page at a time, and a page that is gone lets go of the axes. */
class HandTest extends BrowserTest {

    private Locator refusal() {
        return page.getByTestId("hand-refusal");
    }

    private Locator shuttleState() {
        return page.getByTestId("axis-state").first();
    }

    @Test
    void anAxisIsMovedHomedAndSentSomewhere() {
        open("/home");
        takeControl();
        field("Step in positive direction").click();
        expect(refusal()).hasText("The axis is not enabled. Enable it first.");
        button("Enable Shuttle").click();
        expect(button("Disable Shuttle")).isVisible();
        field("Step in positive direction").click();
        expect(refusal()).isEmpty();
        expect(page.getByTestId("hand-position")).containsText("10.2");
        field("Position to go to").fill("100");
        button("Go").click();
        expect(refusal()).hasText("The axis does not know where it is. Home it first.");
        Locator jog = field("+ slow, jog in positive direction");
        jog.hover();
        page.mouse().down();
        expect(shuttleState()).hasText("moving on");
        page.mouse().up();
        expect(shuttleState()).hasText("standing");
        choose(field("Clock"), "5");
        button("Home").click();
        expect(shuttleState()).hasText("searching");
        expect(page.getByLabel("Axes").locator(".strip").first()).containsText("not referenced");
        expect(shuttleState()).hasText("standing");
        choose(field("Clock"), "1");
        button("Go").click();
        expect(page.getByTestId("hand-position")).containsText("100.00");
        field("Position to go to").fill("5000");
        button("Go").click();
        expect(refusal()).hasText("The target lies past the soft limits, -20 to 2330 mm.");
        expect(page.getByLabel("Move by hand")).containsText("follows the setpoint");
        screenshot("by-hand");
        expectAccessible("by hand");
        button("Give control back").click();
        expect(shuttleState()).hasText("disabled");
    }

    @Test
    void onePageAtATimeAndAPageThatIsGoneLetsGo() {
        open("/scale");
        Page other = newPage();
        open(other, "/scale");
        other.getByText("By hand", new Page.GetByTextOptions().setExact(true)).click();
        choose(other.getByLabel("Axes stop when this page is silent for", new Page.GetByLabelOptions().setExact(true)), "5");
        other.getByText("Take control").click();
        other.getByText("Enable Shuttle").click();
        other.getByText("Disable Shuttle").waitFor();
        takeControlIsRefused();
        Locator jog = other.getByLabel("+ slow, jog in positive direction");
        jog.hover();
        other.mouse().down();
        expect(shuttleState()).hasText("moving on");
        other.close();
        expect(shuttleState()).hasText("disabled");
        assertThat(page.getByTestId("bench-clock").textContent()).doesNotContain("by hand");
        button("Close").click();
        button("Take control").click();
        expect(button("Give control back")).isVisible();
        button("Give control back").click();
    }

    private void takeControlIsRefused() {
        button("By hand").click();
        button("Take control").click();
        expect(page.locator(".problem")).containsText("The axes are being moved by hand");
    }
}
