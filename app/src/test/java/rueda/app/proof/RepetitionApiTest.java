package rueda.app.proof;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.boot.test.context.SpringBootTest;
import org.springframework.test.context.DynamicPropertyRegistry;
import org.springframework.test.context.DynamicPropertySource;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/** Proofs repeated over HTTP: they run without a listener, tell how far they are, can be ended, and each of their runs can be opened. */
@Timeout(180)
@SpringBootTest(webEnvironment = SpringBootTest.WebEnvironment.RANDOM_PORT)
class RepetitionApiTest {

    private static final JsonMapper JSON = JsonMapper.builder().build();

    @DynamicPropertySource
    static void freshDatabase(DynamicPropertyRegistry registry) throws Exception {
        Path folder = Files.createTempDirectory("rueda-repeated");
        registry.add("rueda.data", folder::toString);
    }

    @Value("${local.server.port}")
    private int port;
    @Autowired
    private RepetitionStore store;
    @Autowired
    private Repetitions repetitions;

    private final HttpClient http = HttpClient.newHttpClient();

    private HttpResponse<String> call(String method, String path, String body, String... headers) throws Exception {
        HttpRequest.Builder request = HttpRequest.newBuilder(URI.create("http://127.0.0.1:" + port + "/api" + path)).method(method, body == null ? HttpRequest.BodyPublishers.noBody() : HttpRequest.BodyPublishers.ofString(body));
        if (body != null) {
            request.header("Content-Type", "application/json");
        }
        for (int i = 0; i < headers.length; i += 2) {
            request.header(headers[i], headers[i + 1]);
        }
        return http.send(request.build(), HttpResponse.BodyHandlers.ofString());
    }

    private JsonNode json(HttpResponse<String> answer) {
        assertThat(answer.statusCode()).as(answer.body()).isEqualTo(200);
        return JSON.readTree(answer.body());
    }

    /** The demo, its first proof one second long, by another plan. */
    private long machine(double duration, String plan) throws Exception {
        JsonNode state = json(call("POST", "/machines", "{\"beginning\":\"DEMO\"}"));
        long id = state.get("id").asLong();
        ObjectNode document = (ObjectNode) state.get("document");
        ObjectNode proof = (ObjectNode) document.at("/proofs/0");
        proof.put("duration", duration).set("plan", JSON.readTree(plan));
        ((ArrayNode) document.get("proofs")).removeAll().add(proof);
        json(call("PUT", "/machines/" + id, document.toString(), "If-Match", "\"1\""));
        return id;
    }

    private static List<JsonNode> lines(String body) {
        return body.lines().map(JSON::readTree).toList();
    }

    @Test
    void itRunsTellsAndKeepsAMapWhoseCellsOpen() throws Exception {
        long id = machine(1, "{\"kind\":\"ONE_AT_A_TIME\",\"runs\":100,\"seed\":1,\"every\":0.1}");
        JsonNode begun = json(call("POST", "/machines/" + id + "/repetitions", null));
        assertThat(begun.get("total").asInt()).isEqualTo(11);
        long key = begun.get("id").asLong();
        List<JsonNode> told = lines(call("GET", "/repetitions/" + key + "/progress", null).body());
        assertThat(told.get(told.size() - 1).get("ended").asBoolean()).isTrue();
        assertThat(told).extracting(line -> line.get("done").asInt()).isSorted();
        JsonNode ended = json(call("GET", "/repetitions/" + key, null));
        assertThat(ended.get("state").asString()).isEqualTo("ENDED");
        assertThat(ended.at("/map/rows")).hasSize(11);
        assertThat(ended.at("/map/columns")).hasSize(5);
        assertThat(ended.at("/map/columns/2/unit").asString()).isEqualTo("mm/s");
        assertThat(json(call("GET", "/machines/" + id + "/repetitions/latest", null)).at("/0/id").asLong()).isEqualTo(key);
        /* a run of it, with its recording; it is not the newest run of the proof */
        JsonNode run = json(call("POST", "/repetitions/" + key + "/runs/5", null));
        assertThat(run.get("circumstances").asString()).isEqualTo("mass of the load of Shuttle 170 kg");
        assertThat(run.at("/verdicts/2/margin").asDouble()).isEqualTo(ended.at("/map/rows/5/cells/2/margin").asDouble());
        assertThat(json(call("GET", "/runs/" + run.get("id").asLong() + "/trace?signals=Shuttle.speed", null)).at("/time").size()).isPositive();
        assertThat(json(call("GET", "/machines/" + id + "/runs/latest", null))).isEmpty();
        assertThat(call("POST", "/repetitions/" + key + "/runs/11", null).statusCode()).isEqualTo(404);
        assertThat(call("GET", "/repetitions/987654", null).statusCode()).isEqualTo(404);
    }

    @Test
    void theSameSeedGivesTheSameMap() throws Exception {
        long id = machine(0.5, "{\"kind\":\"RANDOM\",\"runs\":12,\"seed\":7,\"every\":0.1}");
        JsonNode[] maps = new JsonNode[2];
        for (int i = 0; i < 2; i++) {
            long key = json(call("POST", "/machines/" + id + "/repetitions", null)).get("id").asLong();
            call("GET", "/repetitions/" + key + "/progress", null);
            maps[i] = json(call("GET", "/repetitions/" + key, null)).get("map");
            assertThat(maps[i].get("runs").asInt()).isEqualTo(12);
        }
        assertThat(maps[1]).isEqualTo(maps[0]);
    }

    /** One that runs for long is ended, and one behind it that waits. */
    @Test
    void itCanBeEndedWhileItRunsAndWhileItWaits() throws Exception {
        long id = machine(30, "{\"kind\":\"RANDOM\",\"runs\":5000,\"seed\":1,\"every\":0.1}");
        long first = json(call("POST", "/machines/" + id + "/repetitions", null)).get("id").asLong();
        JsonNode second = json(call("POST", "/machines/" + id + "/repetitions", null));
        call("POST", "/repetitions/" + second.get("id").asLong() + "/cancel", null);
        call("POST", "/repetitions/" + first + "/cancel", null);
        for (long key : List.of(first, second.get("id").asLong())) {
            List<JsonNode> told = lines(call("GET", "/repetitions/" + key + "/progress", null).body());
            assertThat(told.get(told.size() - 1).get("ended").asBoolean()).isTrue();
            JsonNode ended = json(call("GET", "/repetitions/" + key, null));
            assertThat(ended.get("state").asString()).isEqualTo("CANCELLED");
            assertThat(ended.get("message").asString()).contains("It was cancelled");
            assertThat(ended.get("map").isNull()).isTrue();
        }
        /* the next one begins */
        long third = machine(0.3, "{\"kind\":\"RANDOM\",\"runs\":3,\"seed\":1,\"every\":0.1}");
        long key = json(call("POST", "/machines/" + third + "/repetitions", null)).get("id").asLong();
        call("GET", "/repetitions/" + key + "/progress", null);
        assertThat(json(call("GET", "/repetitions/" + key, null)).get("state").asString()).isEqualTo("ENDED");
        call("POST", "/repetitions/" + key + "/cancel", null);
        assertThat(json(call("GET", "/repetitions/" + key, null)).get("state").asString()).as("what has ended stays").isEqualTo("ENDED");
    }

    @Test
    void aSentenceThatCannotBeReadEndsItWithWords() throws Exception {
        long id = machine(1, "{\"kind\":\"RANDOM\",\"runs\":10,\"seed\":1,\"every\":0.1}");
        JsonNode state = json(call("GET", "/machines/" + id, null));
        ObjectNode document = (ObjectNode) state.get("document");
        ((ArrayNode) document.at("/proofs/0/script")).add(JSON.readTree("{\"start\":\"WHEN\",\"time\":0,\"when\":\"Shuttle.positon > 5\",\"does\":\"STOP\",\"ending\":\"FOR_GOOD\"}"));
        json(call("PUT", "/machines/" + id, document.toString(), "If-Match", "\"2\""));
        long key = json(call("POST", "/machines/" + id + "/repetitions", null)).get("id").asLong();
        call("GET", "/repetitions/" + key + "/progress", null);
        JsonNode failed = json(call("GET", "/repetitions/" + key, null));
        assertThat(failed.get("state").asString()).isEqualTo("FAILED");
        assertThat(failed.get("message").asString()).contains("script/0/when", "Did you mean Shuttle.position?");
        HttpResponse<String> once = call("POST", "/machines/" + id + "/runs", null);
        assertThat(once.statusCode()).isEqualTo(422);
        assertThat(JSON.readTree(once.body()).at("/faults/0/field").asString()).isEqualTo("/proofs/0/script/0/when");
        /* the page asks for what is wrong beside the sentence */
        JsonNode asked = json(call("POST", "/calc/sentences", "{\"proof\":0,\"machine\":" + document + "}"));
        assertThat(asked.at("/faults/0/field").asString()).isEqualTo("/proofs/0/script/0/when");
        assertThat(asked.get("targets")).anyMatch(t -> t.asString().equals("Shuttle.I8")).anyMatch(t -> t.asString().equals("OrderedSlot"));
        assertThat(call("POST", "/calc/sentences", "{\"proof\":9,\"machine\":" + document + "}").statusCode()).isEqualTo(422);
    }

    @Test
    void whatRanWhenRuedaWasClosedIsTold() {
        RepetitionEntity left = repetitions.save(new RepetitionEntity(1, 1, "Fetch a wheel from slot 7", java.time.Instant.EPOCH, 10, "{\"name\":\"p\",\"group\":\"\",\"purpose\":\"\",\"on\":true,\"duration\":1,\"script\":[],\"expectations\":[],\"conditions\":[],\"plan\":{\"kind\":\"RANDOM\",\"runs\":1,\"seed\":1,\"every\":1}}"));
        left.state = RepetitionEntity.State.RUNS;
        repetitions.save(left);
        store.afterStart();
        assertThat(store.view(left.id).state()).isEqualTo(RepetitionEntity.State.CANCELLED);
        assertThat(store.view(left.id).message()).contains("Rueda was closed");
    }
}
