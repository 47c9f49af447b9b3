package rueda.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.Route;
import com.microsoft.playwright.options.AriaRole;
import com.microsoft.playwright.options.ElementState;
import java.util.ArrayList;
import java.util.List;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;

/** The page itself: expectations as sentences, keyboard, accessibility, size. */
class PageTest extends BrowserTest {

    /** Its pictures show all machines and revisions that there are. */
    @Override
    boolean ownProgram() {
        return true;
    }

    @Test
    void expectationsAreAddedChangedAndRemoved() {
        open("/prove");
        part("Expectations 5");
        choose(field("Add an expectation"), "BOUND");
        choose(field("Quantity of expectation 6"), "TORQUE");
        field("Limit of expectation 6").fill("2.2");
        expect(saved()).containsText("All saved");
        page.getByText(Pattern.compile("Run (proof|again)")).click();
        expect(page.getByTestId("verdict")).hasCount(6);
        expect(page.getByTestId("verdict").last()).containsText("Torque of Shuttle never above 2.2 N·m");
        part("Expectations 6");
        button("Remove expectation 6").click();
        part("Verdicts");
        expect(page.getByTestId("proof-summary")).containsText("the machine has changed since");
        runProof();
        expect(page.getByTestId("verdict")).hasCount(5);
    }

    private void part(String name) {
        page.getByRole(AriaRole.TAB, new Page.GetByRoleOptions().setName(name).setExact(true)).click();
    }

    /** Several proofs of a machine: each is run by itself or all of them, and each keeps its last verdicts. */
    @Test
    void aNewProofStandsBesideTheOthers() {
        open("/prove");
        button("What can be done with proofs").click();
        page.getByText("New proof", new Page.GetByTextOptions().setExact(true)).click();
        field("Name of the proof").fill("Starts without an error");
        field("Name of the proof").press("Enter");
        field("Duration").fill("1");
        choose(field("Add an expectation"), "NO_ERROR");
        expect(saved()).containsText("All saved");
        page.getByText(Pattern.compile("Run (proof|again)")).click();
        expect(page.getByTestId("proof-summary")).containsText("1 of 1 expectations held");
        expect(page.locator("h1")).hasText("Prove · Starts without an error");
        part("All proofs 11");
        Locator row = page.getByTestId("proof").filter(new Locator.FilterOptions().setHasText("Starts without an error"));
        expect(row).containsText("holds");
        button("Run these 4").first().click();
        expect(page.getByTestId("proof").filter(new Locator.FilterOptions().setHasText("Fetch a wheel")).first()).containsText("1 of 5 does not hold");
        expect(page.getByTestId("proof").filter(new Locator.FilterOptions().setHasText("salt"))).containsText("not run yet");
        expectAccessible("all proofs");
        page.getByLabel("The operator orders slot 3 runs with the others").uncheck();
        expect(button("Run all 10")).isVisible();
        button("Starts without an error").click();
        expect(page.locator("h1")).hasText("Prove · Starts without an error");
        choose(field("Proof"), "0");
        expect(page.getByTestId("proof-summary")).containsText("4 of 5 expectations held");
        expect(page.locator("h1")).hasText("Prove · Fetch a wheel from slot 7");
        choose(field("Proof"), "10");
        expect(page.getByTestId("proof-summary")).containsText("1 of 1 expectations held");
        /* the same name twice is refused beside its field, and taken back by undo */
        part("Expectations 1");
        field("Name of the proof").fill("fetch a wheel FROM slot 7");
        field("Name of the proof").press("Enter");
        expect(page.getByTestId("refusal")).containsText("a name no other proof has");
        button("Undo").click();
        expect(page.getByTestId("refusal")).hasCount(0);
        button("What can be done with proofs").click();
        page.getByText("Remove this proof", new Page.GetByTextOptions().setExact(true)).click();
        expect(page.locator("h1")).hasText("Prove · The door opens while the wheel travels");
        button("Undo").click();
        part("All proofs 11");
    }

    /** A stage that is chosen while the machine is still coming stays chosen, whichever of the two is there first. */
    @Test
    void aStageChosenWhileTheMachineLoadsIsShown() {
        List<Route> machine = new ArrayList<>();
        List<Route> stage = new ArrayList<>();
        page.route(Pattern.compile("/api/machines/\\d+$"), machine::add);
        page.route(Pattern.compile("/ScaleStage[^/]*\\.js$"), stage::add);
        page.navigate(rueda.address() + "/machines/1");
        page.getByLabel("Stages").getByText("Scale").click();
        page.waitForCondition(() -> !machine.isEmpty() && !stage.isEmpty());
        machine.forEach(Route::resume);
        expect(page.locator(".rail b").first()).hasText("Shuttle");
        stage.forEach(Route::resume);
        expect(page.locator("h1")).hasText("Scale · Shuttle");
    }

    @Test
    void findAnythingByKeyboard() {
        open("/scale");
        page.keyboard().press("/");
        Locator query = page.getByLabel("Find a stage, axis, tag, parameter or command");
        query.fill("creep");
        expect(page.locator("#hits li").first()).containsText("Shuttle: Creep speed");
        /* a dialog that is still moving on a busy machine loses a key now and then */
        page.locator(".palette").elementHandle().waitForElementState(ElementState.STABLE);
        query.press("Enter");
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
            for (String stage : new String[] {"/overview", "/connect", "/map", "/scale", "/wire", "/tune", "/home", "/program", "/prove"}) {
                open(stage);
                expect(stage.equals("/overview") ? page.getByLabel("Left to do") : side()).isVisible();
                /* what comes up fades in */
                page.evaluate("Promise.all(document.getAnimations().filter(a => a.effect.getComputedTiming().iterations !== Infinity).map(a => a.finished.catch(() => {}))).then(() => null)");
                if (theme.equals("dark")) {
                    expectContrast(stage + ", dark");
                } else {
                    expectAccessible(stage);
                }
            }
            if (theme.equals("light")) {
                page.getByText(Pattern.compile("Run (proof|again)")).click();
                expect(page.getByTestId("verdict")).hasCount(5);
                expectAccessible("verdicts");
            }
        }
        button("Light theme").click();
        open("/overview");
        expect(page.getByLabel("Left to do")).containsText("Home · Doser");
        screenshot("overview");
        page.navigate(rueda.address() + "/");
        expect(page.getByTestId("machine").first()).containsText("does not hold");
        screenshot("machines");
        expectAccessible("machines");
    }

    @Test
    void nothingScrollsThePageAt1280By800() {
        for (String stage : new String[] {"/overview", "/connect", "/map", "/scale", "/wire", "/tune", "/home", "/program", "/prove"}) {
            open(stage);
            assertThat((Integer) page.evaluate("document.documentElement.scrollHeight")).as(stage).isEqualTo(800);
            assertThat((Integer) page.evaluate("document.documentElement.scrollWidth")).as(stage).isEqualTo(1280);
        }
    }

    @Test
    void fieldsTakeCalculationsAndOtherUnits() {
        open("/scale");
        field("Pitch").fill("0.25 in");
        expect(side()).containsText("16.7473");
        field("Mass").fill("2*80+5");
        expect(field("Pitch")).hasValue("6.35");
        field("Mass").blur();
        expect(field("Mass")).hasValue("165");
        field("Mass").fill("3 mm");
        expect(page.getByTestId("refusal")).containsText("Allowed: a unit that converts to kg");
        expect(field("Mass")).hasValue("3 mm");
        button("Undo").click();
        expect(field("Mass")).hasValue("165");
    }

    @Test
    void everyAxisShowsWhatItIs() {
        String[][] axes = {{"Shuttle", "rack and pinion", "Counts per mm"}, {"Lift", "screw", "Torque to hold the load"}, {"Table", "direct", "Counts per modulo"},
                {"Brush", "direct", "Counts per modulo"}, {"Doser", "feeder", "Position begins again after"}};
        open("/scale");
        for (String[] axis : axes) {
            page.getByLabel("Axes").getByText(axis[0], new com.microsoft.playwright.Locator.GetByTextOptions().setExact(true)).click();
            expect(page.locator("h1")).hasText("Scale · " + axis[0]);
            expect(page.locator(".train")).containsText(axis[1].split(" ")[0]);
            expect(side()).containsText(axis[2]);
            expect(page.getByTestId("finding").first()).isVisible();
        }
    }

    /** The sentence offers only what fits; the drawing and the method number follow. */
    @Test
    void theHomingSentenceChoosesTheMethod() {
        open("/home");
        expect(page.locator(".sentence")).containsText("method 11");
        choose(field("Where zero lies"), "inside its negative edge");
        expect(page.locator(".sentence")).containsText("method 13");
        choose(field("What is taken as zero"), "the edge of the switch");
        expect(page.locator(".sentence")).containsText("method 29");
        assertThat(field("What the axis searches for").locator("option").allTextContents()).doesNotContain("the hard stop");
        stage("Wire");
        choose(field("Function of I1"), "NONE");
        expect(side()).containsText("The negative limit switch is not wired.");
        stage("Home");
        choose(field("What the axis searches for"), "the hard stop");
        expect(page.locator(".sentence")).containsText("\u22121, our own");
        expect(side()).containsText("Torque at the stop");
        page.getByLabel("Axes").getByText("Table", new com.microsoft.playwright.Locator.GetByTextOptions().setExact(true)).click();
        expect(page.locator("h1")).hasText("Home · Table");
        assertThat(field("What the axis searches for").locator("option").allTextContents()).doesNotContain("the hard stop", "the negative limit switch");
        expect(page.locator("svg.path")).containsText("one turn 360.00 °");
    }

    /** Identification finds the load that is entered; its gains are taken over, and undone. */
    @Test
    void identificationProposesGainsThatAreTakenOver() {
        open("/tune");
        field("Velocity gain").fill("10");
        expect(side()).containsText("The velocity loop has little phase left.");
        button("Identify").click();
        expect(page.getByTestId("identified")).containsText("8.15");
        button("Take them over").click();
        expect(button("Taken over")).isDisabled();
        expect(field("Velocity gain")).hasValue("0.307");
        expect(side()).containsText("Both loops have phase to spare.");
        expect(page.getByTestId("response")).containsText("settles in");
        screenshot("tune");
        button("Undo").click();
        expect(field("Velocity gain")).hasValue("10");
        page.getByLabel("Axes").getByText("Table", new com.microsoft.playwright.Locator.GetByTextOptions().setExact(true)).click();
        expect(side()).containsText("Antiresonance");
    }

    /** A sentence of one's own: a misspelt name is told beside it, mended, judged with its room, and what decided is told. */
    @Test
    void aSentenceOverTime() {
        open("/prove");
        part("Expectations 5");
        choose(field("Add an expectation"), "SENTENCE");
        Locator sentence = page.getByLabel("Sentence of expectation 6");
        sentence.fill("ALWAYS(Shuttle.positoin < 2000)");
        sentence.press("Enter");
        page.getByText("Did you mean Shuttle.position?").waitFor();
        expectAccessible("a sentence with a fault");
        sentence.fill("ALWAYS(Shuttle.position < 2000)");
        sentence.press("Enter");
        page.getByText(Pattern.compile("Run (proof|again)")).click();
        Locator verdict = page.getByTestId("verdict").last();
        expect(verdict).containsText("ALWAYS(Shuttle.position < 2000)");
        expect(verdict).containsText("−100.0");
        expect(verdict).containsText("mm");
        verdict.click();
        expect(page.locator(".why")).containsText("Shuttle.position < 2000 decides it, by 100.0");
    }
}
