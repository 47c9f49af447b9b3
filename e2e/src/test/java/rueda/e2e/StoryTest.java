package rueda.e2e;

import com.microsoft.playwright.Page;
import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.options.AriaRole;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;

/** What a new user must be able to do: from the reducer to a proven move, over a restart. Makes docs/screenshots. */
class StoryTest extends BrowserTest {

    @Override
    boolean ownProgram() {
        return true;
    }

    @Test
    void fromTheReducerToAProvenMoveAndBackAfterARestart() throws Exception {
        page.navigate(rueda.address() + "/");
        page.getByRole(AriaRole.LINK, new Page.GetByRoleOptions().setName("Ripening cellar · turning cell")).click();
        stage("Scale");
        expect(page.locator(".rail b")).hasText(new String[] {"Shuttle", "Lift", "Table", "Brush", "Doser"});
        expect(page.locator("h1")).hasText("Scale · Shuttle");

        /* the reducer and what it causes, at once */
        expect(side()).containsText("13.1868");
        screenshot("scale");
        field("Motor turns").fill("45");
        expect(side()).containsText("26.6667");
        expect(saved()).hasText("All saved · revision 2");
        button("Undo").click();
        expect(field("Motor turns")).hasValue("91");
        expect(side()).containsText("13.1868");
        button("Redo").click();
        expect(field("Motor turns")).hasValue("45");
        button("Undo").click();

        /* the bytes and the tags */
        stage("Map");
        expect(page.getByLabel("PLC tag of Target position")).hasValue("Shuttle.Cmd.Position");
        expect(side()).containsText("C0 DD 3E 00");
        choose(field("Type of Shuttle.Cmd.Position"), "INT");
        expect(side()).containsText("Shuttle.Cmd.Position holds 16 bits");
        side().getByText("Make it DINT").click();
        expect(side()).containsText("Every entry fits");

        /* homing on the bench: searches, reverses, finds its zero */
        stage("Home");
        expect(page.locator("svg.path")).containsText("starts here");
        button("Run on the bench").click();
        expect(page.getByTestId("homing-status")).containsText("searching, leg 1");
        /* held while the clock is changed, so that no leg goes by unseen on a busy machine */
        button("Hold").click();
        choose(field("Clock"), "0.5");
        button("Run").click();
        expect(page.getByTestId("homing-status")).containsText(Pattern.compile("searching, leg [23]"));
        choose(field("Clock"), "2");
        expect(page.getByTestId("homing-status")).containsText("zero found");
        expect(page.getByTestId("axis-position").first()).containsText("0.0");
        expect(page.getByLabel("Axes")).containsText("referenced");
        button("Hold").click();
        screenshot("home");

        /* the program: a changed speed, run, values */
        stage("Program");
        enterProgram(program().replace("LREAL := 900.0", "LREAL := 850.0"));
        expect(saved()).containsText("All saved");
        assertThat(program()).contains("850.0");
        button("Run program").click();
        expect(side()).containsText("ToSlot.Execute");
        expect(page.locator(".cm-ran").first()).isVisible();
        expect(side().locator("tr", new Locator.LocatorOptions().setHasText("Step")).first()).containsText("10");
        choose(field("Clock"), "5");
        expect(side().locator("tr", new Locator.LocatorOptions().setHasText("Step")).first()).containsText("50");
        page.locator(".program .row").getByText("Hold").click();
        screenshot("program");
        stage("Map");
        expect(page.locator("table").first()).containsText("enable operation");
        screenshot("map");

        /* the proof: one expectation fails for a reason the page explains */
        stage("Prove");
        expect(page.getByTestId("proof-summary")).containsText("Not run yet");
        runProof();
        expect(page.getByTestId("verdict")).hasCount(5);
        expect(page.getByTestId("proof-summary")).containsText("4 of 5 expectations held");
        expect(page.locator("tr.failed")).containsText("Following error of Shuttle never above 0.25 mm");
        expect(page.locator(".why")).containsText("the motor needs 2.5");
        expect(page.locator(".code .cm-marked")).containsText("ToTable(Axis := Shuttle");
        expect(page.getByLabel("Bench and trace")).containsText("outside the limit");
        screenshot("prove");
        page.locator(".why").getByText("Try it").click();
        expect(page.getByTestId("proof-summary")).containsText("5 of 5 expectations held");

        /* stop the server, start it again */
        String proven = program();
        rueda.close();
        rueda = new RuedaProcess(data);
        open("/prove");
        expect(page.getByTestId("proof-summary")).containsText("5 of 5 expectations held");
        assertThat(program()).isEqualTo(proven).contains("Acceleration := 5300.0");
        button("Undo").click();
        page.waitForCondition(() -> program().contains("Acceleration := 6000.0"));

        /* a server that is gone: the entry stays on the page, and the page says so */
        stage("Scale");
        rueda.close();
        field("Mass").fill("155");
        expect(page.getByRole(AriaRole.ALERT).first()).containsText("Rueda does not answer");
        expect(field("Mass")).hasValue("155");
    }
}
