package rueda.e2e;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;

/** Move lists: the Table turns quarters, the Doser doses by itself, the Shuttle goes by a level; changed, held and stepped while they run. */
class MoveTest extends BrowserTest {

    private Locator status() {
        return page.getByTestId("list-status");
    }

    private Locator strip() {
        return page.locator("svg.strip");
    }

    /** Control for as long as it can be, so that a slow machine does not lose it; then the list runs. */
    private void run() {
        button("By hand").click();
        choose(field("Axes stop when this page is silent for"), "10");
        button("By hand").click();
        button("Take control and run").click();
    }

    private void tab(String name) {
        page.getByRole(com.microsoft.playwright.options.AriaRole.TAB, new Page.GetByRoleOptions().setName(Pattern.compile("^" + name))).click();
    }

    @Test
    void theTableTurnsQuartersStepByStepAndAtSpeed() {
        open("/move/Table");
        expect(side()).containsText("Rounds a minute");
        expect(page.getByText("Quarter turn: Go by 90 °, rest 0.8 s, go on to entry 2.")).isVisible();
        /* the strip and the sentences choose the same entry */
        page.locator("#entry-1").click();
        expect(page.getByLabel("Entry 1", new Page.GetByLabelOptions().setExact(true))).isVisible();
        field("Rest").fill("0.3");
        expect(page.getByText("Go by 90 °, rest 0.3 s")).isVisible();
        expect(side()).containsText("13.024");
        expect(saved()).containsText("All saved");
        run();
        expect(status()).containsText("entry 1");
        button("Hold the list").click();
        expect(status()).containsText("is held");
        button("Go on").click();
        expect(status()).containsText(Pattern.compile("entry 1 (moves|rests|arrives)"));
        choose(field("Clock"), "10");
        expect(status()).containsText("round 2");
        field("Step by step").click();
        expect(status()).containsText("is held");
        expect(button("Next step")).isVisible();
        screenshot("move");
        expectAccessible("moves");
        button("Give control back").click();
        expect(page.getByTestId("axis-state").nth(2)).hasText("disabled");
    }

    @Test
    void entriesAreAddedMovedCopiedRemovedAndTakenBack() {
        open("/move/Brush");
        expect(strip()).containsText("The list is empty");
        choose(field("Add an entry"), "GO_BY");
        field("Distance").fill("720");
        choose(field("How the entry ends"), "GO_ON");
        expect(side()).containsText("never rests and never waits");
        field("Rest").fill("1");
        expect(side()).not().containsText("never rests and never waits");
        expect(side()).containsText("Way of a round720 °");
        choose(field("Add an entry"), "WAIT");
        field("Move entry 1 up").click();
        expect(page.locator(".entries li").first()).containsText("Wait for 1 s");
        /* what named the entry names it at its new place */
        expect(page.locator(".entries li").nth(1)).containsText("go on to entry 1");
        field("Copy entry 0").click();
        expect(page.locator(".entries li")).hasCount(3);
        expect(saved()).containsText("All saved");
        field("Remove entry 1").click();
        expect(page.locator(".entries li")).hasCount(2);
        expect(saved()).containsText("All saved");
        button("Undo").click();
        expect(page.locator(".entries li")).hasCount(3);
        tab("Starters");
        button("Add a starter").click();
        expect(side()).containsText("Cue 1 is wired to nothing.");
        side().getByText("Give I1 the function cue 1").click();
        expect(side()).not().containsText("wired to nothing");
        tab("Zones");
        button("Add a zone").click();
        field("Zone 1, to").fill("90");
        expect(strip()).containsText("zone 1");
        /* what cannot be stored is told beside its field, and saved is what was there before */
        expect(saved()).containsText("All saved");
        field("Zone 1, hysteresis").fill("-3");
        expect(page.getByTestId("refusal")).containsText("Zone 1, hysteresis");
        button("Undo").click();
        expect(page.getByTestId("refusal")).hasCount(0);
        expectAccessible("an edited list");
    }

    /** The end of an entry is dragged in the strip: drawn and said meanwhile, stored when it is let go, left as it was by Escape, undone as one change. */
    @Test
    void anEndIsDraggedInTheStrip() {
        open("/move/Table");
        expect(side()).containsText("Rounds a minute");
        Locator end = page.locator("circle.end[data-end='1']");
        Locator sentence = page.locator("#entry-1");
        com.microsoft.playwright.options.BoundingBox at = end.boundingBox();
        double x = at.x + at.width / 2;
        double y = at.y + at.height / 2;
        page.mouse().move(x, y);
        page.mouse().down();
        page.mouse().move(x, y - 20);
        expect(sentence).not().containsText("Go by 90 °");
        page.keyboard().press("Escape");
        expect(sentence).containsText("Go by 90 °");
        page.mouse().up();
        end.hover();
        page.mouse().down();
        page.mouse().move(x, y - 20);
        expect(sentence).not().containsText("Go by 90 °");
        page.mouse().up();
        expect(saved()).containsText("All saved");
        expect(sentence).not().containsText("Go by 90 °");
        expect(field("Distance")).not().hasValue("90");
        button("Undo").click();
        expect(sentence).containsText("Go by 90 °");
    }

    /** Without any PLC: the enable input switches the drive on, a cue starts it, and the rest sets the rate. */
    @Test
    void theDoserDosesByItselfAndIsChangedWhileItRuns() {
        open("/move/Doser");
        expect(side()).containsText("Round from entry 04 s");
        choose(field("Commanded by"), "DRIVE");
        expect(side()).containsText("Two command the axis.");
        side().getByText("Let motion blocks command it").click();
        expect(side()).not().containsText("Two command the axis.");
        choose(field("Commanded by"), "DRIVE");
        expect(saved()).containsText("All saved");
        /* an input can be forced by who has control; the drive itself answers it */
        choose(field("Clock"), "5");
        run();
        expect(status()).containsText("round 2");
        page.locator("#entry-0").click();
        field("Speed").fill("1");
        expect(saved()).containsText("All saved");
        button("Device").click();
        expect(page.getByLabel("Device", new Page.GetByLabelOptions().setExact(true))).containsText("Entry 0, speed");
        button("Write to the devices (1)").click();
        expect(page.getByLabel("Device", new Page.GetByLabelOptions().setExact(true))).containsText("A restart would lose: Move list.");
        expect(page.getByLabel("Axes").locator(".strip").nth(4)).containsText("1.0 g/s");
        button("Give control back").click();
    }

    /** An exception stops the list on its cue, and lets it go on where it was. */
    @Test
    void anExceptionStopsAndGoesOn() {
        open("/move/Table");
        tab("Exceptions");
        expect(page.getByText("in every entry").first()).isVisible();
        run();
        expect(status()).containsText("entry 1");
        stage("Wire");
        choose(field("Force I7"), "1");
        stage("Move");
        expect(status()).containsText("is held");
        stage("Wire");
        choose(field("Force I7"), "0");
        stage("Move");
        expect(status()).containsText(Pattern.compile("entry \\d (moves|rests|arrives|waits)"));
        button("Give control back").click();
    }

    @Test
    void theShuttleGoesByALevelAndSaysWhyItCannot() {
        open("/move/Shuttle");
        tab("Starters");
        expect(page.getByText("on starts")).isVisible();
        tab("Entries");
        field("Position").fill("2400");
        expect(side()).containsText("Entry 0 would end outside the soft limits.");
        side().getByText("Go to 2\u202f330 mm").click();
        expect(side()).not().containsText("outside the soft limits");
        expect(saved()).containsText("All saved");
        run();
        expect(status()).containsText("Entry 0 cannot go on: the axis does not know where it is");
        button("Find the zero first").click();
        expect(page.getByTestId("axis-state").first()).hasText("searching");
        choose(field("Clock"), "10");
        expect(page.getByTestId("axis-state").first()).hasText("standing");
        button("Run the list").click();
        expect(status()).containsText("entry 0 is done");
        expect(status()).containsText("at 2330 mm");
        button("Give control back").click();
    }
}
