package rueda.e2e;

import com.microsoft.playwright.Page;
import org.junit.jupiter.api.Test;

/** An axis from nothing to homed, in the order of the work: scale, wire, movement test, identification, gains, home. */
class NewAxisTest extends BrowserTest {

    @Test
    void anAxisFromNothingToHomed() {
        open("/scale");
        button("Add an axis").click();
        field("Name of a new axis").fill("shuttle");
        button("Add").click();
        expect(page.locator(".rail")).containsText("Allowed: a name no other axis has");
        field("Name of a new axis").fill("Washer");
        button("Add").click();
        expect(page.locator("h1")).hasText("Scale · Washer");
        stage("Tune");
        expect(side()).containsText("Enter the mass of the load first.");
        expect(button("Identify")).isDisabled();
        expect(button("Try a small movement")).isDisabled();

        stage("Scale");
        field("Mass").fill("25 + 5");
        field("Coulomb friction").fill("30");
        field("Viscous friction").fill("40");
        field("Lead").fill("5");
        expect(side()).containsText("One motor turn moves5 mm");
        button("Turn the motor shaft once by hand").click();
        expect(page.getByTestId("turned")).containsText("Agrees");

        stage("Wire");
        button("Prove the wiring").click();
        expect(page.getByTestId("wiring-checks").locator("tbody tr")).hasCount(3);
        expect(page.getByTestId("wiring-checks")).not().containsText("wrong");

        stage("Tune");
        button("Try a small movement").click();
        expect(page.getByTestId("moved")).containsText("Free: The load moved");
        button("Identify").click();
        expect(page.getByTestId("identified")).containsText("Total inertia");
        button("Take them over").click();
        expect(button("Taken over")).isDisabled();
        expect(side()).containsText("Both loops have phase to spare.");

        stage("Home");
        choose(field("What the axis does afterwards"), "travel");
        expect(saved()).containsText("All saved");
        expect(side()).containsText("After a restart");
        takeControl();
        button("Enable Washer").click();
        expect(button("Disable Washer")).isVisible();
        choose(field("Clock"), "5");
        button("Home").click();
        expect(page.locator(".strip.selected")).containsText("not referenced");
        expect(page.locator(".strip.selected .small").getByText("referenced", new com.microsoft.playwright.Locator.GetByTextOptions().setExact(true))).isVisible();
        expect(page.getByTestId("hand-position")).containsText("0.000");
        choose(field("Clock"), "1");
        button("Give control back").click();

        button("What can be done with Washer").click();
        page.getByText("Remove", new Page.GetByTextOptions().setExact(true)).last().click();
        expect(page.locator(".rail")).containsText("Removed with it: 10 tags");
        page.locator(".rail .form").getByText("Remove", new com.microsoft.playwright.Locator.GetByTextOptions().setExact(true)).click();
        expect(page.locator(".rail")).not().containsText("Washer");
        button("Undo").click();
        expect(page.locator(".rail")).containsText("Washer");
    }

    /** Written, kept, restarted: working and permanent memory are different things. */
    @Test
    void parametersOfADevice() {
        open("/tune");
        takeControl();
        button("Enable Shuttle").click();
        expect(button("Disable Shuttle")).isVisible();
        field("Position gain").fill("45");
        stage("Home");
        field("Zero offset").fill("12");
        stage("Scale");
        field("Decimals on the wire").fill("3");
        expect(saved()).containsText("All saved");
        button("Device").click();
        expect(page.getByTestId("device-values").locator("tbody tr")).hasCount(3);
        button("Write to the devices (3)").click();
        expect(page.getByTestId("device-status")).hasText("Written, not acting yet: Homing, Unit, encoder and train.");
        screenshot("device");
        expectAccessible("device");
        button("Keep permanently").click();
        expect(page.getByTestId("device-values").locator("tbody tr")).hasCount(2);
        page.getByRole(com.microsoft.playwright.options.AriaRole.BUTTON, new Page.GetByRoleOptions().setName("Restart Shuttle")).click();
        expect(page.getByTestId("device-status")).hasText("The device restarts and answers again by itself.");
        expect(page.getByTestId("axis-state").first()).hasText("restarting");
        expect(page.getByTestId("device-status")).hasText("Project, working and permanent memory agree.");
        expect(page.locator(".strip").first()).containsText("not referenced");
        button("By hand").click();
        expect(button("Enable Shuttle")).isVisible();
        button("Give control back").click();
    }

    @Test
    void supervisionAndTorqueOperation() {
        open("/tune");
        expect(page.getByTestId("response")).containsText("in position after");
        choose(field("Tried on the bench"), "step");
        expect(page.getByTestId("response")).containsText("step of 0.0399 mm");
        choose(field("Tried on the bench"), "move");
        expect(page.getByTestId("response")).containsText("error up to");
        field("Position window").fill("0.00001");
        expect(side()).containsText("The position window is too tight.");
        side().getByText("Take ten of them").click();
        expect(field("Position window")).hasValue("0.001");
        field("at highest speed").fill("1");
        expect(page.locator("[role=alert]").first()).containsText("at least the one at standstill");
        field("at highest speed").fill("8");
        expect(side()).containsText("Following error allowed6.89 mm");
        expect(saved()).containsText("All saved");
        expect(button("Make torque")).isDisabled();
        takeControl();
        button("Enable Shuttle").click();
        expect(button("Disable Shuttle")).isVisible();
        field("Torque").fill("900");
        button("Make torque").click();
        expect(page.getByTestId("hand-refusal")).containsText("Torque can be up to 252.6 % of the rated torque");
        field("Torque").fill("20");
        field("Speed limit").fill("40");
        button("Make torque").click();
        expect(page.getByTestId("torque-now")).containsText("Torque operation:");
        button("By hand").click();
        choose(field("The trace shows"), "watch");
        expect(page.getByLabel("supervision of Shuttle over time")).isVisible();
        button("By hand").click();
        page.getByLabel("Torque operation").getByText("Stop", new com.microsoft.playwright.Locator.GetByTextOptions().setExact(true)).click();
        expect(page.getByTestId("axis-state").first()).hasText("standing");
        button("Give control back").click();
    }

    @Test
    void forcedOutputsAndTheAnalogueInput() {
        open("/wire");
        choose(field("Function of A1"), "TORQUE");
        choose(field("Function of I5"), "CUE");
        choose(field("Function of Q3"), "ZONE_2");
        expect(page.getByLabel("Outputs")).containsText("Zones and list outputs are said in Move");
        expect(side()).containsText("1 V at the analogue input10 % of rated torque");
        expect(saved()).containsText("All saved");
        takeControl();
        field("Voltage at the analogue input").fill("-2.5");
        button("Turn the knob").click();
        expect(page.getByLabel("Analogue input and second encoder")).containsText("\u22122.50 V");
        choose(field("Force I5"), "1");
        expect(page.locator("tr", new Page.LocatorOptions().setHasText("I5")).first()).containsText("2033h bit 10");
        choose(field("Force Q2"), "1");
        expect(page.locator("header")).containsText("2 forced · release all");
        expectAccessible("forced terminals");
        page.getByText("2 forced · release all").click();
        expect(page.locator("header")).not().containsText("forced");
        button("Give control back").click();
    }
}
