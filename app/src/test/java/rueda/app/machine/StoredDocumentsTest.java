package rueda.app.machine;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.util.List;
import javax.sql.DataSource;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.boot.test.context.SpringBootTest;
import org.springframework.test.context.DynamicPropertyRegistry;
import org.springframework.test.context.DynamicPropertySource;
import rueda.machine.DemoMachine;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** What is stored and cannot be read, or holds more than is known, on a real H2 file. */
@SpringBootTest(webEnvironment = SpringBootTest.WebEnvironment.RANDOM_PORT)
class StoredDocumentsTest {

    private static final JsonMapper JSON = JsonMapper.builder().build();

    @Value("${local.server.port}")
    int port;
    @Autowired
    DataSource database;

    @DynamicPropertySource
    static void freshDatabase(DynamicPropertyRegistry registry) throws Exception {
        Path folder = Files.createTempDirectory("rueda-stored");
        registry.add("rueda.data", folder::toString);
    }

    private HttpResponse<String> call(String method, String path, String body, long revision) throws Exception {
        return HttpClient.newHttpClient().send(HttpRequest.newBuilder(URI.create("http://127.0.0.1:" + port + "/api/machines" + path)).header("Content-Type", "application/json").header("If-Match", Long.toString(revision))
                .method(method, body == null ? HttpRequest.BodyPublishers.noBody() : HttpRequest.BodyPublishers.ofString(body)).build(), HttpResponse.BodyHandlers.ofString());
    }

    private JsonNode get(String path) throws Exception {
        return JSON.readTree(call("GET", path, null, 0).body());
    }

    private void stored(long machine, long revision, String document) throws Exception {
        try (Connection connection = database.getConnection(); PreparedStatement update = connection.prepareStatement("update revision set document = ? where machine_id = ? and number = ?")) {
            update.setString(1, document);
            update.setLong(2, machine);
            update.setLong(3, revision);
            assertThat(update.executeUpdate()).isEqualTo(1);
        }
    }

    private long another(String name) throws Exception {
        try (Connection connection = database.getConnection()) {
            connection.createStatement().execute("insert into machine (name, current_revision) values ('" + name + "', 1)");
            try (PreparedStatement insert = connection.prepareStatement("insert into revision (machine_id, number, parent, saved_at, document) values ((select max(id) from machine), 1, null, current_timestamp, ?)")) {
                insert.setString(1, MachineJson.write(DemoMachine.create()));
                insert.executeUpdate();
            }
            try (var id = connection.createStatement().executeQuery("select max(id) from machine")) {
                id.next();
                return id.getLong(1);
            }
        }
    }

    @Test
    void oneUnreadableDocumentHidesNothingElse() throws Exception {
        long id = another("broken");
        String document = get("/" + id).get("document").toString();
        JsonNode second = JSON.readTree(call("PUT", "/" + id, document.replace("\"instructionBudget\":", "\"instructionBudget\":1"), 1).body());
        assertThat(second.get("revision").asLong()).isEqualTo(2);
        for (String broken : new String[] {"", "{", "[]", "{\"name\":5}", document.replace("\"cycleMicros\":1000", "\"cycleMicros\":\"fast\""), document.substring(0, 2000)}) {
            stored(id, 2, broken);
            JsonNode list = get("");
            assertThat(list).hasSizeGreaterThanOrEqualTo(2);
            for (JsonNode machine : list) {
                assertThat(machine.get("unreadable").asString().isEmpty()).as(broken).isEqualTo(machine.get("id").asLong() != id);
            }
            HttpResponse<String> refused = call("GET", "/" + id, null, 0);
            assertThat(refused.statusCode()).isEqualTo(409);
            assertThat(refused.body()).contains("Nothing of it is lost").doesNotContain("rueda.", "java.", "tools.jackson");
            JsonNode revisions = get("/" + id + "/revisions");
            assertThat(revisions).hasSize(2);
            assertThat(revisions.get(0).get("unreadable").asString()).isNotEmpty();
            assertThat(revisions.get(1).get("unreadable").asString()).isEmpty();
            assertThat(call("GET", "/" + id + "/revisions/2/text", null, 0).body()).as("its text").isEqualTo(broken);
            assertThat(call("POST", "/" + id + "/revisions/2/open", null, 2).statusCode()).as("it stays what it is").isEqualTo(409);
        }
        assertThat(call("POST", "/" + id + "/revisions/1/open", null, 7).statusCode()).as("based on another revision").isEqualTo(409);
        assertThat(call("POST", "/" + id + "/revisions/9/open", null, 2).statusCode()).isEqualTo(404);
        JsonNode opened = JSON.readTree(call("POST", "/" + id + "/revisions/1/open", null, 2).body());
        assertThat(opened.get("revision").asLong()).isEqualTo(1);
        assertThat(opened.get("document").toString()).isEqualTo(document);
        assertThat(get("/" + id).get("revision").asLong()).isEqualTo(1);
    }

    /** A document of a later Rueda, or mended by hand: what is not known is named before a save leaves it out, and its revision keeps it. */
    @Test
    void entriesThatAreNotKnownAreNamed() throws Exception {
        long id = another("later");
        String document = get("/" + id).get("document").toString();
        assertThat(get("/" + id).get("unknown")).isEmpty();
        stored(id, 1, document.replaceFirst("\"bus\":\\{", "\"bus\":{\"colour\":\"red\",").replaceFirst("\"axes\":\\[\\{", "\"axes\":[{\"songs\":[1,2],"));
        JsonNode state = get("/" + id);
        assertThat(state.get("unknown").toString()).isEqualTo("[\"/bus/colour\",\"/axes/0/songs\"]");
        JsonNode saved = JSON.readTree(call("PUT", "/" + id, state.get("document").toString(), 1).body());
        assertThat(saved.get("unknown")).isEmpty();
        assertThat(call("GET", "/" + id + "/revisions/1/text", null, 0).body()).contains("colour", "songs");
    }

    /** Documents from before followers were watched and masters could be virtual open as they were meant. */
    @Test
    void aDocumentOfTheSeventhShapeOpens() throws Exception {
        long id = another("older");
        JsonNode document = JSON.readTree(call("GET", "/" + id, null, 0).body()).get("document");
        tools.jackson.databind.node.ObjectNode older = (tools.jackson.databind.node.ObjectNode) document.deepCopy();
        ((tools.jackson.databind.node.ObjectNode) older.get("plc")).remove("virtualMasters");
        for (JsonNode axis : older.get("axes")) {
            tools.jackson.databind.node.ObjectNode following = (tools.jackson.databind.node.ObjectNode) axis.get("following");
            List.of("watch", "trimKept", "trimDistance", "trimAcceleration", "accelerationForward").forEach(following::remove);
            ((tools.jackson.databind.node.ObjectNode) following.get("encoder")).remove("index");
        }
        stored(id, 1, older.toString());
        JsonNode opened = get("/" + id);
        assertThat(opened.get("unknown")).isEmpty();
        assertThat(opened.get("document")).isEqualTo(document);
    }

    /** Documents from before there were guards open with axes that have none, and nobody who asks. */
    @Test
    void aDocumentOfTheEleventhShapeOpens() throws Exception {
        long id = another("unguarded");
        tools.jackson.databind.node.ObjectNode older = (tools.jackson.databind.node.ObjectNode) get("/" + id).get("document").deepCopy();
        older.remove("safetyRequests");
        older.get("axes").forEach(axis -> ((tools.jackson.databind.node.ObjectNode) axis).remove("guard"));
        for (JsonNode proof : older.get("proofs")) {
            tools.jackson.databind.node.ArrayNode script = (tools.jackson.databind.node.ArrayNode) proof.get("script");
            for (int i = script.size() - 1; i >= 0; i--) {
                if (List.of("ASK", "ACKNOWLEDGE").contains(script.get(i).get("does").asString())) {
                    script.remove(i);
                }
            }
            ((tools.jackson.databind.node.ObjectNode) proof).putArray("conditions");
        }
        stored(id, 1, older.toString());
        JsonNode opened = get("/" + id);
        assertThat(opened.get("unknown")).isEmpty();
        assertThat(opened.at("/document/axes/0/guard/fitted").asBoolean()).isFalse();
        assertThat(opened.at("/document/safetyRequests")).isEmpty();
    }

    /** Documents from before a measured stopping time could be entered open as if nobody had measured it. */
    @Test
    void aDocumentOfTheTwelfthShapeOpens() throws Exception {
        long id = another("unmeasured");
        JsonNode document = get("/" + id).get("document");
        tools.jackson.databind.node.ObjectNode older = (tools.jackson.databind.node.ObjectNode) document.deepCopy();
        older.get("safetyRequests").forEach(request -> ((tools.jackson.databind.node.ObjectNode) request).remove("stopping"));
        stored(id, 1, older.toString());
        JsonNode opened = get("/" + id);
        assertThat(opened.get("unknown")).isEmpty();
        assertThat(opened.get("document")).isEqualTo(document);
    }

    /** More proofs asked for at once than there are connections and processors: all end, and reads go on meanwhile. */
    @Test
    void fortyProofsAskedAtOnceAllEnd() throws Exception {
        long id = another("asked often");
        String document = get("/" + id).get("document").toString().replaceFirst("\"duration\":[0-9.]+", "\"duration\":0.2");
        assertThat(call("PUT", "/" + id, document, 1).statusCode()).isEqualTo(200);
        HttpClient client = HttpClient.newHttpClient();
        java.util.List<java.util.concurrent.CompletableFuture<HttpResponse<String>>> asked = new java.util.ArrayList<>();
        for (int i = 0; i < 40; i++) {
            asked.add(client.sendAsync(HttpRequest.newBuilder(URI.create("http://127.0.0.1:" + port + "/api/machines/" + id + "/runs?proof=fetch%20a%20wheel%20from%20slot%207")).header("Content-Type", "application/json")
                    .POST(HttpRequest.BodyPublishers.ofString("{}")).build(), HttpResponse.BodyHandlers.ofString()));
        }
        int reads = 0;
        while (asked.stream().anyMatch(a -> !a.isDone())) {
            assertThat(call("GET", "/" + id, null, 0).statusCode()).isEqualTo(200);
            reads++;
        }
        assertThat(reads).isPositive();
        java.util.Set<String> runs = new java.util.HashSet<>();
        for (var answer : asked) {
            assertThat(answer.get().statusCode()).as(answer.get().body()).isEqualTo(200);
            runs.add(JSON.readTree(answer.get().body()).get("id").asString());
        }
        assertThat(runs).hasSize(40);
    }
}
