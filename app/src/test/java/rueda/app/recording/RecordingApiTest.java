package rueda.app.recording;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.net.URI;
import java.net.URLEncoder;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.util.Arrays;
import java.util.Locale;
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

/** Recordings over HTTP: a file in parts, its preview, and all that is drawn, measured and compared of it. */
@Timeout(180)
@SpringBootTest(webEnvironment = SpringBootTest.WebEnvironment.RANDOM_PORT)
class RecordingApiTest {

    private static final JsonMapper JSON = JsonMapper.builder().build();
    /** More than two segments and a few blocks. */
    private static final int ROWS = 2 * RecordedSegmentEntity.ROWS + 777;
    private static final int BULGE = 100_000;

    @DynamicPropertySource
    static void freshDatabase(DynamicPropertyRegistry registry) throws Exception {
        registry.add("rueda.data", Files.createTempDirectory("rueda-recordings")::toString);
    }

    @Value("${local.server.port}")
    private int port;
    @Autowired
    private RecordedSegments segments;
    @Autowired
    private Recordings recordings;

    private final HttpClient http = HttpClient.newHttpClient();

    private HttpResponse<String> call(String method, String path, byte[] body, String type) throws Exception {
        HttpRequest.Builder request = HttpRequest.newBuilder(URI.create("http://127.0.0.1:" + port + "/api" + path)).method(method, body == null ? HttpRequest.BodyPublishers.noBody() : HttpRequest.BodyPublishers.ofByteArray(body));
        if (body != null) {
            request.header("Content-Type", type);
        }
        return http.send(request.build(), HttpResponse.BodyHandlers.ofString());
    }

    private HttpResponse<String> post(String path, String body) throws Exception {
        return call("POST", path, body == null ? null : body.getBytes(StandardCharsets.UTF_8), "application/json");
    }

    private JsonNode json(HttpResponse<String> answer) {
        assertThat(answer.statusCode()).as(answer.body()).isEqualTo(200);
        return JSON.readTree(answer.body());
    }

    private String send(String name, byte[] file, int part) throws Exception {
        String key = json(post("/machines/1/recordings/files?name=" + URLEncoder.encode(name, StandardCharsets.UTF_8) + "&size=" + file.length, null)).get("key").asString();
        for (int at = 0; at < file.length; at += part) {
            JsonNode state = json(call("PUT", "/recordings/files/" + key + "?at=" + at, Arrays.copyOfRange(file, at, Math.min(file.length, at + part)), "application/octet-stream"));
            assertThat(state.get("received").asLong()).isEqualTo(Math.min(file.length, at + part));
        }
        return key;
    }

    private JsonNode last(HttpResponse<String> lines) {
        String[] all = lines.body().strip().split("\n");
        return JSON.readTree(all[all.length - 1]);
    }

    private JsonNode bring(String key, String name) throws Exception {
        JsonNode layout = json(call("GET", "/recordings/files/" + key + "/preview", null, null)).get("layout");
        ObjectNode order = JSON.createObjectNode().put("name", name);
        order.set("layout", layout);
        return last(post("/recordings/files/" + key + "/recording", order.toString()));
    }

    private static byte[] sine() {
        StringBuilder text = new StringBuilder("time [ms];Shuttle position [mm];Shuttle torque [%]\n");
        for (int i = 0; i < ROWS; i++) {
            text.append(String.format(Locale.ROOT, "%.1f;%.3f;%.2f%n", i * 0.5, 1000 + 500 * Math.sin(i * 0.5e-3) + (i == BULGE ? 900 : 0), 20 * Math.cos(i * 0.5e-3)).replace('.', ',').replace("\r", ""));
        }
        return text.toString().getBytes(StandardCharsets.UTF_8);
    }

    private static String line(long recording, String signal) {
        return "{\"recording\":" + recording + ",\"signal\":\"" + signal + "\",\"shift\":0}";
    }

    @Test
    void aLongRecordingIsBroughtInPartsDrawnWithItsPeaksAndMeasured() throws Exception {
        String key = send("long.csv", sine(), 1_000_003);
        JsonNode brought = bring(key, "Long").get("recording");
        assertThat(brought.get("samples").asInt()).isEqualTo(ROWS);
        assertThat(brought.get("ends").asDouble()).isCloseTo((ROWS - 1) * 0.5e-3, within(1e-9));
        long id = brought.get("id").asLong();
        assertThat(call("GET", "/recordings/files/" + key + "/preview", null, null).statusCode()).as("it is read once").isEqualTo(404);

        JsonNode whole = json(post("/traces", "{\"lines\":[" + line(id, "shuttle.POSITION") + "],\"from\":0,\"to\":70,\"points\":200}")).get(0);
        assertThat(whole.get("whole").asBoolean()).isFalse();
        assertThat(whole.get("time").size()).isLessThanOrEqualTo(204);
        double highest = 0;
        double at = 0;
        for (int i = 0; i < whole.get("time").size(); i++) {
            if (whole.get("values").get(i).asDouble() > highest) {
                highest = whole.get("values").get(i).asDouble();
                at = whole.get("time").get(i).asDouble();
            }
        }
        assertThat(at).as("the peak at its true time").isCloseTo(BULGE * 0.5e-3, within(1e-9));
        JsonNode near = json(post("/traces", "{\"lines\":[" + line(id, "Shuttle.position") + "],\"from\":49.99,\"to\":50.01,\"points\":200}")).get(0);
        assertThat(near.get("whole").asBoolean()).isTrue();
        assertThat(near.get("time").size()).isBetween(41, 44);
        JsonNode measured = json(post("/traces/measures", "{\"lines\":[" + line(id, "Shuttle.torque") + "],\"from\":0,\"to\":62.8318,\"points\":4}")).get(0);
        assertThat(measured.get("unit").asString()).isEqualTo("N·m");
        assertThat(measured.get("rms").asDouble()).as("20 % of 0.95 N·m by the root of 2").isCloseTo(0.19 / Math.sqrt(2), within(1e-3));
        assertThat(measured.get("frequency").asDouble()).isCloseTo(1 / (2 * Math.PI), within(1e-3));

        assertThat(call("DELETE", "/recordings/" + id, null, null).statusCode()).isEqualTo(204);
        assertThat(segments.findByRecordingIdAndPlaceAndNumber(id, 0, 0)).isEmpty();
        assertThat(post("/traces", "{\"lines\":[" + line(id, "Shuttle.position") + "],\"from\":0,\"to\":70,\"points\":200}").statusCode()).isEqualTo(404);
    }

    @Test
    void aFaultInTheMiddleKeepsNothingAndNamesItsLine() throws Exception {
        String text = new String(sine(), StandardCharsets.UTF_8);
        int middle = text.indexOf("35000,0;");
        long before = recordings.count();
        JsonNode refused = bring(send("bad.csv", (text.substring(0, middle) + "oops" + text.substring(middle)).getBytes(StandardCharsets.UTF_8), 8 << 20), "Bad");
        assertThat(refused.get("failed").asString()).contains("line 70002, time").contains("Nothing of it was taken");
        assertThat(recordings.count()).isEqualTo(before);
    }

    @Test
    void headingsAreRememberedAndNamesAreOnlyGivenOnce() throws Exception {
        byte[] file = "t;weight;torque of the Shuttle\n0;1;2\n1;2;3\n".getBytes(StandardCharsets.UTF_8);
        String key = send("one.csv", file, 100);
        ObjectNode layout = (ObjectNode) json(call("GET", "/recordings/files/" + key + "/preview", null, null)).get("layout");
        assertThat(layout.at("/columns/1/signal").asString()).isEqualTo("Shuttle.torque");
        ((ObjectNode) layout.at("/columns/0")).put("signal", "Lift.place").put("scale", 7);
        ObjectNode order = JSON.createObjectNode().put("name", "One");
        order.set("layout", layout);
        assertThat(last(post("/recordings/files/" + key + "/recording", order.toString())).at("/recording/signals/0/name").asString()).isEqualTo("Lift.place");

        String again = send("two.csv", file, 100);
        JsonNode preview = json(call("GET", "/recordings/files/" + again + "/preview", null, null));
        assertThat(preview.get("remembered").asBoolean()).isTrue();
        assertThat(preview.at("/layout/columns/0/scale").asDouble()).isEqualTo(7);
        assertThat(bring(again, "one").get("failed").asString()).contains("a name that no other recording has");
        assertThat(bring(again, "Two").get("recording").get("name").asString()).isEqualTo("Two");
    }

    @Test
    void partsThatDoNotFitAreRefused() throws Exception {
        String key = json(post("/machines/1/recordings/files?name=a.csv&size=10", null)).get("key").asString();
        assertThat(call("PUT", "/recordings/files/" + key + "?at=5", "abc".getBytes(StandardCharsets.UTF_8), "application/octet-stream").statusCode()).isEqualTo(422);
        assertThat(call("PUT", "/recordings/files/" + key + "?at=0", "0123456789x".getBytes(StandardCharsets.UTF_8), "application/octet-stream").statusCode()).isEqualTo(422);
        assertThat(post("/machines/1/recordings/files?name=a.csv&size=0", null).statusCode()).isEqualTo(422);
        assertThat(post("/machines/77/recordings/files?name=a.csv&size=5", null).statusCode()).isEqualTo(404);
        assertThat(call("DELETE", "/recordings/files/" + key, null, null).statusCode()).isEqualTo(204);
        assertThat(call("PUT", "/recordings/files/" + key + "?at=0", "abc".getBytes(StandardCharsets.UTF_8), "application/octet-stream").statusCode()).isEqualTo(404);
    }

    @Test
    void theDemosRecordingLiesOverItsRunAndIsExpected() throws Exception {
        JsonNode demo = json(post("/machines", "{\"beginning\":\"DEMO\",\"name\":\"Learning\"}"));
        long machine = demo.get("id").asLong();
        JsonNode recording = json(call("GET", "/machines/" + machine + "/recordings", null, null)).get(0);
        assertThat(recording.get("signals").get(0).get("ofMachine").asBoolean()).isTrue();
        long id = recording.get("id").asLong();
        JsonNode run = json(post("/machines/" + machine + "/runs?proof=" + URLEncoder.encode("Fetch a wheel from slot 7", StandardCharsets.UTF_8), null));
        JsonNode laid = json(post("/traces/comparison", "{\"run\":" + run.get("id") + ",\"recording\":" + id + ",\"alignment\":\"BEST_FIT\",\"signal\":\"Shuttle.commandedSpeed\",\"at\":\"Step = 40\"}"));
        assertThat(laid.get("shift").asDouble()).isCloseTo(0.004, within(0.0005));
        assertThat(laid.get("signals").size()).isEqualTo(4);

        /* what is learned of it, the story in the browser tells; here what nothing can be learned of */
        assertThat(last(post("/machines/" + machine + "/learning", "{\"recording\":" + id + ",\"proof\":\"Fetch a wheel from slot 7\",\"axis\":1,\"unknowns\":[\"COULOMB\"]}")).get("refused").asString()).contains("lies nowhere over a run");
        assertThat(post("/machines/1/learning", "{\"recording\":" + id + ",\"proof\":\"Fetch a wheel from slot 7\",\"axis\":0,\"unknowns\":[\"COULOMB\"]}").statusCode()).as("a recording of another machine").isEqualTo(422);

        ObjectNode document = (ObjectNode) demo.get("document").deepCopy();
        ((ArrayNode) document.at("/proofs/0/expectations")).add(JSON.readTree("{\"kind\":\"DIFFERS\",\"signal\":\"Shuttle.torque\",\"recording\":\"Shuttle in the cellar\",\"limit\":0.05,\"alignment\":\"BEST_FIT\"}"));
        HttpRequest save = HttpRequest.newBuilder(URI.create("http://127.0.0.1:" + port + "/api/machines/" + machine)).header("Content-Type", "application/json").header("If-Match", "\"" + demo.get("revision").asLong() + "\"")
                .PUT(HttpRequest.BodyPublishers.ofString(document.toString())).build();
        assertThat(http.send(save, HttpResponse.BodyHandlers.ofString()).statusCode()).isEqualTo(200);
        JsonNode held = json(post("/machines/" + machine + "/runs?proof=" + URLEncoder.encode("Fetch a wheel from slot 7", StandardCharsets.UTF_8), null));
        JsonNode verdict = held.get("verdicts").get(held.get("verdicts").size() - 1);
        assertThat(verdict.get("holds").asBoolean()).isFalse();
        assertThat(verdict.get("cause").asString()).contains("away from the recording");
    }
}
