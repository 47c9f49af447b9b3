package rueda.e2e;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Mouse;
import com.microsoft.playwright.options.AriaRole;
import com.microsoft.playwright.options.BoundingBox;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.assertions.LocatorAssertions;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;

/** Safe stops: what the door and the emergency stop do to the Shuttle, where the Lift sags, and a guard that is fitted anew. */
class GuardTest extends BrowserTest {

    private Locator stopped() {
        return page.getByTestId("stopped");
    }

    private Locator drawing() {
        return page.locator("figure.drawing > svg");
    }

    private void tab(String name) {
        page.getByRole(AriaRole.TAB, new Page.GetByRoleOptions().setName(name)).click();
    }

    @Test
    void theDoorStopsTheShuttle() {
        open("/guard/Shuttle");
        expect(page.getByRole(AriaRole.NOTE)).containsText("replaces no validation on the machine");
        expect(side()).containsText("Door, safe stop 2: stopping distance106.5 mm");
        expect(side()).containsText("Door: safe distance from Shuttle451 mm");
        expect(drawing()).hasAttribute("aria-label", Pattern.compile("The ramp begins at 17.1 ms, the watch at 36.0 ms; it stands at 207 ms, with torque"));
        /* the ramp as a limit: one that the drive does not keep is told, and mended */
        field("Flattest ramp").fill("5200");
        expect(side()).containsText("The ramp is flatter than safe stop 2 allows.");
        button("Try it at the worst moment").click();
        expect(stopped()).containsText("The guard took the torque.");
        side().getByText("Allow a ramp of").click();
        expect(side()).containsText("It stops as its guard expects.");
        expect(stopped()).hasCount(0);
        button("Try it at the worst moment").click();
        expect(stopped()).containsText(Pattern.compile("Stands after 0\\.1[89]\\d s, 9\\d\\.\\d+ mm farther"));
        expect(stopped()).containsText("with 190 kg");
        expect(stopped()).containsText("still referenced. Lost: the running move; it must be ordered anew.");
        expect(stopped()).containsText(Pattern.compile("the door without a lock must stand 4\\d\\d mm away: S = K·T"));
        /* link by link, what is reckoned and what was measured */
        Locator chain = page.getByRole(AriaRole.TABLE).filter(new Locator.FilterOptions().setHasText("filter of the input"));
        expect(chain.getByRole(AriaRole.ROW).nth(1)).containsText(Pattern.compile("at most\\s*10\\s*4\\s*2\\s*1\\.125\\s*17\\.13\\s*190\\s*207\\.1"));
        expect(chain.getByRole(AriaRole.ROW).nth(2)).containsText(Pattern.compile("on the bench\\s*10\\.0\\s*4\\.0"));
        expectAccessible("a stop");
        screenshot("guard");
        /* how far away a light curtain must stand: K·T + C with 8·(d − 14 mm) */
        choose(page.getByLabel("Request Door").getByLabel("What one comes past", new Locator.GetByLabelOptions().setExact(true)), "LIGHT_CURTAIN");
        expect(side()).containsText("Door: safe distance from Shuttle414 mm");
        /* 2000·0.207 + 128 is more than 500 mm, so a body's 1600 mm/s count, and never less than 500 mm */
        field("Resolution").fill("30");
        expect(side()).containsText("Door: safe distance from Shuttle500 mm");
        field("Resolution").fill("90");
        expect(page.getByTestId("refusal")).containsText("0 to 70 mm for a light curtain");
        button("Undo").click();
        expect(page.getByTestId("refusal")).hasCount(0);
        tab("Emergency stop: safe stop 1");
        expect(field("Torque off after")).isVisible();
        expect(drawing()).hasAttribute("aria-label", Pattern.compile("the torque goes at 395 ms"));
        button("Dark theme").click();
        expectContrast("a stop, dark");
        button("Light theme").click();
    }

    /** Delay, ramp and window are changed where they are drawn: with the mouse and by the keys, each as one step that can be undone. */
    @Test
    void theDrawingIsTakenHoldOf() {
        open("/guard/Shuttle");
        Locator flattest = page.getByRole(AriaRole.SLIDER, new Page.GetByRoleOptions().setName("Flattest ramp, in the drawing"));
        BoundingBox box = flattest.boundingBox();
        page.mouse().move(box.x + box.width / 2, box.y + box.height / 2);
        page.mouse().down();
        page.mouse().move(box.x + box.width / 2 + 60, box.y + 30, new Mouse.MoveOptions().setSteps(4));
        expect(flattest).hasAttribute("aria-valuetext", Pattern.compile("Flattest ramp 3[0-9]+ mm/s²"));
        expect(field("Flattest ramp")).hasValue("4000");
        page.mouse().up();
        expect(field("Flattest ramp")).hasValue(Pattern.compile("3[0-9]+"));
        button("Undo").click();
        expect(field("Flattest ramp")).hasValue("4000");
        /* Escape leaves it */
        box = flattest.boundingBox();
        page.mouse().move(box.x + box.width / 2, box.y + box.height / 2);
        page.mouse().down();
        page.mouse().move(box.x - 80, box.y, new Mouse.MoveOptions().setSteps(4));
        page.keyboard().press("Escape");
        page.mouse().up();
        expect(flattest).hasAttribute("aria-valuetext", "Flattest ramp 4000 mm/s²");
        Locator delay = page.getByRole(AriaRole.SLIDER, new Page.GetByRoleOptions().setName("Delay, in the drawing"));
        delay.press("Shift+ArrowLeft");
        delay.press("Shift+ArrowLeft");
        expect(field("Delay")).hasValue("0");
        expect(drawing()).hasAttribute("aria-label", Pattern.compile("the watch at 16.0 ms"));
        Locator window = page.getByRole(AriaRole.SLIDER, new Page.GetByRoleOptions().setName("Standstill window, in the drawing"));
        window.press("ArrowUp");
        expect(field("Standstill window")).not().hasValue("1.3");
        expectAccessible("grips");
        /* where only the time is watched it is the moment at which it must stand */
        choose(field("What is watched"), "TIME");
        page.getByRole(AriaRole.SLIDER, new Page.GetByRoleOptions().setName("Time to stand, in the drawing")).press("ArrowLeft");
        expect(field("Time to stand")).hasValue("499");
        expect(side()).containsText("safe stop 2: time that is left");
        /* as it was, for the stories that come */
        choose(field("What is watched"), "RAMP");
        field("Delay").fill("20");
        field("Standstill window").fill("1.3");
        expect(saved()).containsText("All saved");
        expect(side()).containsText("It stops as its guard expects.");
    }

    /** How long and how far every axis goes on, for every request, and what a stopping time measured on the machine makes of the distance. */
    @Test
    void everyStopIsTried() {
        open("/guard/Doser");
        Locator every = page.getByTestId("every-stop");
        every.getByRole(AriaRole.BUTTON).first().click();
        every.getByText("Cancel").click();
        expect(every.getByText("Try all 10 stops")).isVisible();
        every.getByText("Try all 10 stops").click();
        expect(every.getByRole(AriaRole.ROW)).hasCount(11, new LocatorAssertions.HasCountOptions().setTimeout(120_000));
        expect(every.getByRole(AriaRole.ROW).nth(1)).containsText(Pattern.compile("Shuttle\\s*Door: safe stop 2\\s*0\\.1[89]\\d"));
        expect(every.getByRole(AriaRole.ROW).nth(1)).containsText("190 kg");
        expect(every.getByRole(AriaRole.ROW).nth(3)).containsText("moved by itself afterwards");
        expect(every.getByRole(AriaRole.ROW).nth(10)).containsText("does not move in this program");
        expectAccessible("every stop");
        page.getByLabel("Request Door").getByLabel("Measured stop").fill("300");
        expect(side()).containsText("Door: safe distance600 mm");
        /* what was found belongs to the document that it was made of */
        expect(every.getByRole(AriaRole.ROW)).hasCount(0);
        page.getByLabel("Request Door").getByLabel("Measured stop").fill("-1");
        expect(page.getByTestId("refusal")).containsText(Pattern.compile("0 to 60.?000 ms"));
        page.getByLabel("Request Door").getByLabel("Measured stop").fill("0");
        expect(saved()).containsText("All saved");
        expect(side()).containsText("Door: safe distance from Doser");
    }

    @Test
    void theLiftSagsAndIsMended() {
        open("/guard/Lift");
        button("Dark theme").click();
        expect(side()).containsText("The torque goes before the brake holds.");
        expect(drawing().locator(".sag")).isVisible();
        choose(field("Proof whose program runs"), "Turn, brush and salt");
        button("Try it at the worst moment").click();
        expect(stopped()).containsText("Afterwards the load fell by");
        side().getByText("Keep the torque for 44 ms").click();
        expect(side()).not().containsText("The torque goes before");
        expect(drawing().locator(".sag")).hasCount(0);
        expect(side()).containsText("Sag of the load0 mm");
        expectContrast("no sag, dark");
        button("Light theme").click();
        /* live: somebody opens the door while the bench runs */
        button("Start anew").click();
        button("Open Door").click();
        expect(page.getByTestId("guard-now")).containsText("safe stop 1: torque off");
        page.getByText("What the guards did").click();
        expect(page.locator(".log")).containsText("Shuttle: safe stop 2: standing, watched");
        button("Close Door").click();
        expect(page.getByLabel("Door on the bench", new Page.GetByLabelOptions().setExact(true))).containsText("closed");
        button("Acknowledge").click();
        expect(page.getByTestId("guard-now")).containsText("no stop asked for");
    }

    @Test
    void aGuardIsFittedAndAsked() {
        open("/guard/Doser");
        choose(field("Emergency stop asks Doser for"), "");
        choose(field("Door asks Doser for"), "");
        expect(side()).containsText("Nothing asks its guard.");
        button("Add a request").click();
        expect(field("Name of the request")).hasCount(3);
        field("Name of the request").last().fill("Mat");
        field("Name of the request").last().press("Enter");
        expect(field("Mat asks Doser for")).isVisible();
        choose(field("Mat asks Doser for"), "SAFE_TORQUE_OFF");
        tab("Mat: safe torque off");
        expect(side()).containsText("Mat, safe torque off: stopping time");
        choose(field("Mat also asks Doser for"), "SAFELY_LIMITED_SPEED");
        tab("Mat: safely limited speed");
        expect(field("Limited speed")).isVisible();
        field("Name of the request").last().fill("door");
        field("Name of the request").last().press("Enter");
        expect(page.getByRole(AriaRole.ALERT).filter(new Locator.FilterOptions().setHasText("that no other request is called by"))).isVisible();
        button("Remove Mat").click();
        expect(side()).containsText("Nothing asks its guard.");
        expect(saved()).containsText("All saved");
    }
}
