package rueda.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;

/** The page itself: expectations as sentences, keyboard, accessibility, size. */
class PageTest extends BrowserTest {

    @Test
    void expectationsAreAddedChangedAndRemoved() {
        open("/prove");
        button("Change expectations").click();
        field("Add an expectation").selectOption("BOUND");
        page.getByLabel("Quantity of expectation 6").selectOption("TORQUE");
        page.getByLabel("Limit").last().fill("2.2");
        expect(saved()).containsText("All saved");
        page.getByText(Pattern.compile("Run (proof|again)")).click();
        expect(page.getByTestId("verdict")).hasCount(6);
        expect(page.getByTestId("verdict").last()).containsText("Torque of Shuttle never above 2.2 N·m");
        button("Change expectations").click();
        button("Remove expectation 6").click();
        button("Show verdicts").click();
        expect(page.getByTestId("proof-summary")).containsText("the machine has changed since");
        button("Run again").click();
        expect(page.getByTestId("verdict")).hasCount(5);
    }

    @Test
    void findAnythingByKeyboard() {
        open("/scale");
        page.keyboard().press("/");
        page.getByLabel("Find a stage, axis, tag, parameter or command").fill("creep");
        page.keyboard().press("Enter");
        expect(page.locator("h1")).hasText("Home · Shuttle");
        expect(field("Creep speed")).isFocused();
        page.keyboard().press("Escape");
        page.locator("h1").click();
        page.keyboard().press("/");
        page.getByLabel("Find a stage, axis, tag, parameter or command").fill("nothing like it");
        expect(page.locator(".palette")).containsText("Nothing is called");
    }

    @Test
    void everyStageIsAccessibleInBothThemes() {
        for (String theme : new String[] {"light", "dark"}) {
            if (theme.equals("dark")) {
                button("Dark theme").click();
            }
            for (String stage : new String[] {"/map", "/scale", "/home", "/program", "/prove"}) {
                open(stage);
                expect(side()).isVisible();
                page.waitForTimeout(600);
                expectAccessible(stage + ", " + theme);
            }
            if (theme.equals("light")) {
                page.getByText(Pattern.compile("Run (proof|again)")).click();
                expect(page.getByTestId("verdict")).hasCount(5);
                expectAccessible("verdicts");
            }
        }
        screenshot("prove-dark");
    }

    @Test
    void nothingScrollsThePageAt1280By800() {
        for (String stage : new String[] {"/map", "/scale", "/home", "/program", "/prove"}) {
            open(stage);
            assertThat((Integer) page.evaluate("document.documentElement.scrollHeight")).as(stage).isEqualTo(800);
            assertThat((Integer) page.evaluate("document.documentElement.scrollWidth")).as(stage).isEqualTo(1280);
        }
    }
}
