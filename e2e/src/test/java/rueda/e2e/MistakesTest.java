package rueda.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Page;
import org.junit.jupiter.api.Test;

/** What goes wrong, and what the page says then. Nothing entered is lost, nothing half-written is stored. */
class MistakesTest extends BrowserTest {

    @Test
    void anImpossibleGearRatio() {
        open("/scale");
        field("Output turns").fill("0");
        expect(page.getByTestId("refusal")).containsText("Reducer, output turns 0 is refused");
        expect(page.getByTestId("refusal")).containsText("Allowed: 1 to 2147483647");
        expect(saved()).hasText("Not saved: 1 entry refused");
        expect(field("Output turns")).hasValue("0");
        assertThat(page.evaluate("fetch('/api/machines/1').then(r => r.json()).then(m => m.document.axes[0].train.reducers[0].outputTurns)")).isEqualTo(10);
        field("Output turns").fill("abc");
        expect(page.getByTestId("refusal").first()).containsText("a calculation such as 3*120");
        expect(field("Output turns")).hasValue("abc");
        button("Undo").click();
        expect(field("Output turns")).hasValue("10");
        expect(saved()).containsText("All saved");
    }

    @Test
    void aSyntaxErrorIsUnderlinedWithLineAndColumn() {
        open("/program");
        String right = program();
        enterProgram(right.replace("Step : INT;", "Step : INTEGER;"));
        expect(page.getByLabel("Faults of the program")).containsText("Line 4, column 10");
        expect(page.getByLabel("Faults of the program")).containsText("There is no type INTEGER");
        page.keyboard().press("Control+Home");
        expect(page.locator(".cm-lintRange-error").first()).hasText("INTEGER");
        expect(button("Run program")).isDisabled();
        enterProgram(right);
        expect(page.getByLabel("Faults of the program")).hasCount(0);
        expect(button("Run program")).isEnabled();
    }

    @Test
    void aRunawayLoopStopsInItsLine() {
        open("/program");
        enterProgram("PROGRAM Endless\nVAR\n  n : DINT;\nEND_VAR\nWHILE TRUE DO\n  n := n + 1;\nEND_WHILE\nEND_PROGRAM\n");
        expect(saved()).containsText("All saved");
        page.waitForTimeout(700);
        expect(saved()).containsText("All saved");
        button("Run program").click();
        expect(page.locator(".program .faults")).containsText("The instruction budget of one cycle is used up");
        expect(page.locator(".program .faults")).containsText(java.util.regex.Pattern.compile("Line [56]"));
        expect(page.getByLabel("Bench and trace")).containsText("Program stopped in line");
    }

    @Test
    void aMovePastTheSoftLimit() {
        open("/program");
        enterProgram(program().replace("Slot : INT := 7;", "Slot : INT := 8;"));
        expect(saved()).containsText("All saved");
        page.waitForTimeout(700);
        expect(saved()).containsText("All saved");
        stage("Prove");
        runProof();
        expect(page.getByTestId("proof-summary")).containsText("of 5 expectations held");
        page.getByTestId("verdict").last().click();
        expect(page.locator(".why")).containsText("2400 mm lies past the soft limits, -20 to 2330 mm");
        expect(page.locator(".code .cm-marked")).containsText("ToSlot(Axis := Shuttle");
    }

    @Test
    void twoPagesInConflict() {
        open("/scale");
        Page other = newPage();
        open(other, "/scale");
        other.getByLabel("Mass", new Page.GetByLabelOptions().setExact(true)).fill("150");
        expect(other.getByTestId("saved")).containsText("All saved");
        field("Pitch").fill("6");
        expect(page.getByRole(com.microsoft.playwright.options.AriaRole.ALERT).first()).containsText("Another page saved revision");
        expect(field("Pitch")).hasValue("6");
        button("Keep mine").click();
        expect(saved()).containsText("All saved");
        expect(field("Mass")).hasValue("160");
        other.getByLabel("Mass", new Page.GetByLabelOptions().setExact(true)).fill("140");
        other.getByText("Take theirs").click();
        expect(other.getByLabel("Pitch", new Page.GetByLabelOptions().setExact(true))).hasValue("6");
        expect(other.getByTestId("saved")).containsText("All saved");
    }

    @Test
    void whatWasSavedIsThereAfterReloading() {
        open("/home");
        field("Creep speed").fill("15");
        expect(saved()).containsText("All saved");
        page.reload();
        expect(field("Creep speed")).hasValue("15");
        button("Undo").click();
        expect(field("Creep speed")).hasValue("12");
    }

    @Test
    void stopAllAxesWhileTheAxisRuns() {
        open("/home");
        button("Run on the bench").click();
        expect(page.getByTestId("homing-status")).containsText("searching");
        button("Stop all axes").click();
        expect(page.getByTestId("axis-state").first()).hasText("all axes stopped");
        expect(page.getByLabel("Axes")).containsText("switch on disabled");
    }
}
