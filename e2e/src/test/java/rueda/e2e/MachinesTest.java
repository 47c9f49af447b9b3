package rueda.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;

/** Any number of machines: begun, copied, renamed, deleted and brought back; each with its own bench; its revisions. */
class MachinesTest extends BrowserTest {

    @Override
    boolean ownProgram() {
        return true;
    }

    private Locator machine(String name) {
        return page.getByTestId("machine").filter(new Locator.FilterOptions().setHas(page.getByRole(AriaRole.LINK, new Page.GetByRoleOptions().setName(name).setExact(true))));
    }

    private void list() {
        page.navigate(rueda.address() + "/");
        expect(page.locator("h1")).hasText("Machines");
        expect(page.getByTestId("machine").first()).isVisible();
    }

    private void act(String name, String what) {
        button("What can be done with " + name).click();
        page.locator(".v-list-item").filter(new Locator.FilterOptions().setHasText(Pattern.compile("^" + what + "$"))).first().click();
    }

    @Test
    void aMachineFromNothing() {
        list();
        button("New machine").click();
        expect(page.getByTestId("saved")).containsText("All saved · revision 1");
        expect(page.getByLabel("Left to do")).containsText("Add the first axis");
        stage("Wire");
        expect(page.getByTestId("no-axis")).containsText("This machine has no axis yet");
        expectAccessible("no axis");
        stage("Prove");
        expect(page.locator("main")).containsText("An expectation is about an axis");
        runProof();
        expect(page.getByTestId("proof-summary")).not().containsText("Not run yet");
        stage("Program");
        button("Run").click();
        expect(page.getByTestId("bench-clock")).containsText("▸");
        stage("Tune");
        field("Name of a new axis").fill("Press");
        field("Name of a new axis").press("Enter");
        expect(page.locator("h1")).containsText("Tune · Press");
        page.waitForURL(Pattern.compile("/machines/\\d+/tune/Press$"));
        expect(saved()).containsText("All saved · revision 2");

        /* another name, and everything that names it follows; one undo takes all of it back */
        act("Press", "Rename");
        field("New name of Press").fill("Ram");
        field("New name of Press").press("Enter");
        expect(page.locator("h1")).containsText("Tune · Ram");
        expect(saved()).containsText("All saved · revision 3");
        act("Ram", "Copy");
        field("Copy of Ram").fill("Ram2");
        field("Copy of Ram").press("Enter");
        expect(page.locator("h1")).containsText("Tune · Ram2");
        act("Ram2", "Move up");
        expect(page.locator(".strip b").first()).hasText("Ram2");
        expect(saved()).containsText("All saved · revision 5");
        button("Undo").click();
        expect(page.locator(".strip b").first()).hasText("Ram");

        page.getByRole(AriaRole.LINK, new Page.GetByRoleOptions().setName("Overview").setExact(true)).click();
        expect(page.getByTestId("revision")).hasCount(5);
        expect(page.getByLabel("Revisions").last()).containsText("Ram: Axis name, Press → Ram");
        button("Name revision 2").click();
        field("Name of revision 2").fill("one axis");
        field("Name of revision 2").press("Enter");
        expect(page.locator(".given")).hasText("one axis");
        button("Compare").click();
        expect(page.getByLabel("Comparison of revisions")).containsText("Order of the axes");
        expectAccessible("revisions");
        button("Go back to revision 2").click();
        expect(page.locator(".strip b")).hasCount(1);
        expect(page.locator(".strip b")).hasText("Press");
        expect(page.getByTestId("revision").filter(new Locator.FilterOptions().setHasText("stands here"))).containsText("one axis");
    }

    @Test
    void machinesAreCopiedRenamedDeletedAndBroughtBack() {
        list();
        act("Ripening cellar · turning cell", "Copy");
        expect(machine("Copy of Ripening cellar · turning cell")).isVisible();
        act("Copy of Ripening cellar · turning cell", "Rename");
        page.locator("#rename").fill("  ");
        button("Rename").click();
        expect(page.getByRole(AriaRole.ALERT)).containsText("Machine name");
        page.locator("#rename").fill("Second cell");
        button("Rename").click();
        expect(machine("Second cell")).containsText("revision 2");
        expectAccessible("machines");
        act("Second cell", "Delete");
        expect(machine("Second cell")).hasCount(0);
        button("Bring it back").click();
        expect(machine("Second cell")).isVisible();
        act("Second cell", "Delete");
        list();
        button("1 deleted machine").click();
        button("Bring back Second cell").click();
        expect(machine("Second cell")).isVisible();
        machine("Second cell").getByRole(AriaRole.LINK).click();
        expect(page.getByTestId("saved")).containsText("All saved · revision 2");
        String address = page.url();
        eachHasItsOwnBench();
        list();
        act("Second cell", "Delete");
        page.navigate(address);
        expect(page.locator("main, .stage").first()).containsText("There is no machine with this address");
        page.navigate(rueda.address() + "/machines/1/scale/Table");
        expect(page.locator("h1")).hasText("Scale · Table");
    }

    /** Two pages on two machines: what runs on one bench does not stand on the other. */
    private void eachHasItsOwnBench() {
        Page other = newPage();
        other.navigate(rueda.address() + "/machines/1/program");
        expect(other.getByTestId("bench-clock")).not().containsText("not connected");
        expect(other.getByTestId("bench-clock")).not().containsText("▸");
        page.getByText("Run", new Page.GetByTextOptions().setExact(true)).click();
        expect(page.getByTestId("bench-clock")).containsText(Pattern.compile("00:00:0[1-9]"));
        expect(other.getByTestId("bench-clock")).not().containsText("▸");
        page.getByText("Hold", new Page.GetByTextOptions().setExact(true)).click();
        expect(page.getByTestId("bench-clock")).containsText("held");
        other.close();

        /* whoever takes control and leaves for the list has given it back: another page takes it at once, whatever the monitoring time */
        takeControl();
        page.getByTitle("All machines").click();
        expect(page.locator("h1")).hasText("Machines");
        page.goBack();
        expect(page.getByTestId("saved")).containsText("All saved");
        takeControl();
        button("Give control back").click();
    }

    @Test
    void theFrameGivesTheWorkItsRoom() {
        open("/scale");
        button("Fold the axis rail").click();
        expect(page.locator(".rail.folded .narrow")).hasCount(5);
        button("Fold the consequences").click();
        expect(page.getByText("Counts per mm")).hasCount(0);
        page.reload();
        expect(page.locator(".rail.folded .narrow")).hasCount(5);
        page.locator(".rail.folded .narrow").nth(1).click();
        expect(page.locator("h1")).hasText("Scale · Lift");
        expectAccessible("folded");
        button("Show the axis rail").click();
        button("Show the consequences").click();
        expect(side()).containsText("Counts per mm");
        button("Start anew").click();
        Locator height = page.getByLabel("Height of the dock");
        expect(height).isVisible();
        assertThat((Integer) page.evaluate("document.querySelector('.frame').scrollWidth")).as("what the dock shows makes nothing wider").isEqualTo(1280);
        String before = height.getAttribute("aria-valuenow");
        height.focus();
        page.keyboard().press("ArrowUp");
        assertThat(Integer.parseInt(height.getAttribute("aria-valuenow"))).isGreaterThan(Integer.parseInt(before));
        button("Hold").click();
        button("Fold the dock").click();
        expect(height).hasCount(0);
        button("Open the dock").click();
        expect(height).isVisible();
    }
}
