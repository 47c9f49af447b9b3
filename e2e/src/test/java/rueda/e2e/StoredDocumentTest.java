package rueda.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Download;
import java.nio.file.Files;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import org.junit.jupiter.api.Test;

/** Stories of what was stored and cannot be read any more, or holds more than this Rueda knows. */
class StoredDocumentTest extends BrowserTest {

    @Override
    boolean ownProgram() {
        return true;
    }

    /** Changes the stored text while no server has it open. @return the revision that was changed */
    private long stored(String find, String replace) throws Exception {
        rueda.close();
        long number;
        try (Connection connection = DriverManager.getConnection("jdbc:h2:file:" + data.resolve("rueda"))) {
            try (ResultSet current = connection.createStatement().executeQuery("select current_revision from machine")) {
                current.next();
                number = current.getLong(1);
            }
            try (PreparedStatement update = connection.prepareStatement("update revision set document = replace(document, ?, ?) where number = ?")) {
                update.setString(1, find);
                update.setString(2, replace);
                update.setLong(3, number);
                assertThat(update.executeUpdate()).isEqualTo(1);
            }
        }
        rueda = new RuedaProcess(data);
        return number;
    }

    @Test
    void anUnreadableMachineLeadsToAnEarlierRevision() throws Exception {
        open("/scale");
        field("Mass").fill("33");
        field("Mass").press("Tab");
        expect(saved()).containsText("All saved");
        long broken = stored("\"bus\":{", "\"bus\":{{");
        page.navigate(rueda.address() + "/machines/1/scale");
        expect(page.getByTestId("unreadable")).containsText("turning cell cannot be opened");
        expect(page.getByTestId("unreadable")).containsText("Nothing of it is lost");
        expect(button("Open revision " + (broken - 1))).isVisible();
        expectAccessible("unreadable");
        Download text = page.waitForDownload(() -> page.getByLabel("Take the text out, revision " + broken).click());
        assertThat(Files.readString(text.path())).contains("\"bus\":{{");
        button("Open revision " + (broken - 1)).click();
        expect(saved()).containsText("All saved");
        expect(field("Mass")).not().hasValue("33");
    }

    @Test
    void entriesThatAreNotKnownAreNamedBeforeTheyAreLeftOut() throws Exception {
        open("/scale");
        long number = stored("\"bus\":{", "\"bus\":{\"colour\":\"red\",");
        page.navigate(rueda.address() + "/machines/1/scale");
        expect(page.getByTestId("unknown-entries")).containsText("/bus/colour");
        expect(page.getByTestId("unknown-entries")).containsText("revision " + number + " keeps it");
        field("Mass").fill("34");
        field("Mass").press("Tab");
        expect(page.getByTestId("unknown-entries")).not().isVisible();
    }
}
