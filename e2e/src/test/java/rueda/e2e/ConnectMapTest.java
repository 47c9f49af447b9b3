package rueda.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Download;
import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import com.microsoft.playwright.options.FilePayload;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.util.List;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;

/** From the description of a device to a proven program, and a device that came with data in it. */
class ConnectMapTest extends BrowserTest {

    private Locator section(String name) {
        return page.getByRole(AriaRole.REGION, new Page.GetByRoleOptions().setName(name).setExact(true));
    }

    private void tab(String name) {
        page.getByRole(AriaRole.TAB, new Page.GetByRoleOptions().setName(name).setExact(true)).click();
    }

    /** The bench keeps its devices from one test to the next. */
    @AfterEach
    void plannedDevices() throws IOException {
        for (String axis : List.of("Shuttle", "Lift", "Brush")) {
            assertThat(rueda.send("POST", "/api/machines/1/bench/stand", "{\"axis\":\"" + axis + "\",\"changes\":[]}", rueda.revision(1)).statusCode()).isEqualTo(200);
        }
    }

    private Locator cell(String testId, String row, int column) {
        return page.getByTestId(testId).locator("tr", new Locator.LocatorOptions().setHasText(row)).locator("td").nth(column);
    }

    @Test
    void descriptionInLayoutBoundFillerFoundMendedProven() throws IOException {
        String esi = rueda.get("/api/devices/shipped/wheelwright-w1.esi.xml").body();
        open("/connect");
        tab("Devices");
        field("Device description file").setInputFiles(new FilePayload("broken.xml", "text/xml", esi.substring(0, 900).getBytes(StandardCharsets.UTF_8)));
        expect(page.getByTestId("file-refused")).containsText("line ");
        expect(page.getByTestId("file-refused")).containsText("Nothing of it was taken");
        field("Device description file").setInputFiles(new FilePayload("w1-next.xml", "text/xml",
                esi.replace("#x00010002", "#x00010003").replace("<Fmmu>Outputs</Fmmu>", "<Fmmu>Outputs</Fmmu><Station-Lamp/>").getBytes(StandardCharsets.UTF_8)));
        expect(page.getByText("2 devices brought in: Wheelwright W1 1.1, Wheelwright W1 1.3")).isVisible();
        expect(page.getByText("Station-Lamp of Wheelwright W1 is not used").first()).isVisible();
        tab("Stations");
        choose(field("Device of Shuttle"), "Wheelwright W1 1.3");
        expect(side()).containsText("1.3");
        expect(saved()).containsText("All saved");

        stage("Map");
        button("Remove filler").first().click();
        expect(section("PLC to drive")).containsText("7 bytes");
        field("PLC tag of Target position").fill("Shuttle.Cmd.Goal");
        field("PLC tag of Target position").press("Tab");
        expect(field("Type of Shuttle.Cmd.Goal")).hasValue("DINT");
        tab("Against the PLC");
        field("The PLC's tag table as text").fill("""
                TYPE Cmd : STRUCT Control : WORD; Goal : DINT; Mode : SINT; END_STRUCT; END_TYPE
                VAR_GLOBAL Shuttle_Cmd AT %QB64 : Cmd; END_VAR
                """);
        field("The PLC's tag table as text").blur();
        Locator finding = page.getByLabel("Against the PLC").getByTestId("finding").first();
        expect(finding).containsText("A 16-bit filler is missing before target position.");
        expect(finding).containsText("A sample of 412 mm would arrive as");
        expect(cell("comparison", "Shuttle_Cmd.Goal", 8)).hasText("filler missing");
        expectAccessible("PLC's table with a fault");
        screenshot("map-plc");
        button("Put a 16-bit filler before it").first().click();
        expect(finding).containsText("PLC and drive agree");
        expect(cell("comparison", "Shuttle_Cmd.Goal", 7)).hasText("412 mm");
        expect(saved()).containsText("All saved");

        stage("Prove");
        runProof();
        expect(page.getByTestId("proof-summary")).containsText("4 of 5 expectations held");
        page.locator(".why").getByText("Try it").click();
        expect(page.getByTestId("proof-summary")).containsText("5 of 5 expectations held");
    }

    @Test
    void aDeviceWithDataKeptChangedComparedRestored() {
        open("/connect");
        choose(field("Device of Shuttle on the bench"), "HOLDS_DATA");
        button("Look for devices").click();
        expect(page.getByTestId("differences")).containsText("Writing would lose them: keep an image first.");
        tab("Device images");
        field("Name of the image").fill("as it arrived");
        button("Keep an image of Shuttle").click();
        expect(page.getByTestId("images")).containsText("as it arrived");
        expect(cell("three-ways", "Position gain", 2)).hasText("60");
        expect(cell("three-ways", "Position gain", 3)).hasText("30");
        expectAccessible("device images");
        page.getByLabel("break the connection half-way").check();
        button("Write 4 values into Shuttle").click();
        expect(page.getByTestId("interrupted")).containsText("Writing was interrupted.");
        expect(page.getByTestId("interrupted")).containsText("Limits and defaults");
        button("Finish it").click();
        expect(page.getByTestId("interrupted")).isHidden();
        expect(cell("three-ways", "Position gain", 3)).hasText("60");
        choose(field("Write from"), "image");
        expect(page.getByTestId("pending")).containsText("Position gain 60 → 30");
        button("Write 4 values into Shuttle").click();
        expect(cell("three-ways", "Position gain", 3)).hasText("30");
        Download taken = page.waitForDownload(() -> page.getByTestId("images").getByText("JSON").first().click());
        assertThat(contentOf(taken)).contains("\"format\" : \"rueda-device-image-1\"").contains("\"positionGain\" : 30");
    }

    private static String contentOf(Download download) {
        try {
            return Files.readString(download.path());
        } catch (IOException missing) {
            throw new AssertionError(missing);
        }
    }

    @Test
    void stationsFoundResolvedAndMovedToAnotherBus() throws IOException {
        open("/connect");
        choose(field("Device of Lift on the bench"), "OTHER_ADDRESS");
        choose(field("Device of Brush on the bench"), "OLDER_REVISION");
        button("Look for devices").click();
        expect(page.getByTestId("differences")).containsText("The PLC looks for station alias 2 and finds nobody.");
        expectAccessible("differences");
        screenshot("connect");
        button("Give the device the planned address").click();
        expect(page.getByTestId("differences")).not().containsText("station alias 2");
        button("Take it over into the plan").click();
        expect(page.getByText("5 of 5 answered; all as planned")).isVisible();
        expect(field("Device of Brush")).containsText("1.1");
        field("Station alias of Lift").fill("1");
        field("Station alias of Lift").press("Tab");
        expect(side()).containsText("Station alias 1 is used twice.");
        button("Take 2").click();
        expect(side()).not().containsText("is used twice");

        choose(page.locator("#f-bus-family"), "CANOPEN");
        expect(field("Node name of Shuttle")).hasValue("shuttle");
        field("Node name of Shuttle").click();
        tab("Devices");
        String dcf = rueda.get("/api/devices/shipped/wheelwright-w1.eds").body() + "\n[DeviceComissioning]\nNodeID=33\nNodeName=pusher\nBaudrate=500\n";
        page.getByLabel("Device description file").setInputFiles(new FilePayload("pusher.dcf", "text/plain", dcf.getBytes(StandardCharsets.UTF_8)));
        expect(page.getByTestId("configuration")).containsText("node id 33, 500 kbit/s");
        button("Take it over for Shuttle").click();
        expect(page.getByTestId("configuration")).containsText("Node name “pusher” (was “shuttle”)");
        tab("Stations");
        expect(field("Node id of Shuttle")).hasValue("33");
        expect(field("Node name of Shuttle")).hasValue("pusher");
        page.keyboard().press("Control+z");
        expect(field("Node name of Shuttle")).hasValue("shuttle");

        choose(page.locator("#f-bus-family"), "PROFINET");
        expect(field("Station name of Shuttle")).hasValue("shuttle");
        stage("Map");
        expect(section("PLC to drive")).containsText("Position deviation");
        choose(field("Telegram"), "3");
        expect(side()).containsText("Motion blocks do not move this axis by telegram 3.");
        button("Take telegram 5").click();
        tab("Words");
        button("Run").click();
        expect(page.getByLabel("Control and status word")).containsText("operation enabled");
        takeControl();
        button("Force bit 3 of the control word to 0").click();
        expect(page.getByLabel("Control and status word").getByText("forced", new Locator.GetByTextOptions().setExact(true))).isVisible();
        button("Let bit 3 of the control word go").click();
        button("Give control back").click();
        expectAccessible("words");
    }
}
