package rueda.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.net.http.WebSocket;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.CompletionStage;
import java.util.concurrent.TimeUnit;
import java.util.function.BiConsumer;
import java.util.function.Consumer;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.boot.test.context.SpringBootTest;
import org.springframework.test.context.DynamicPropertyRegistry;
import org.springframework.test.context.DynamicPropertySource;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/** Any number of machines over HTTP: begun, copied, deleted and brought back, each with its own bench; revisions; documents told by their changes. */
@Timeout(120)
@SpringBootTest(webEnvironment = SpringBootTest.WebEnvironment.RANDOM_PORT)
class MachinesApiTest {

    private static final JsonMapper JSON = JsonMapper.builder().build();

    @DynamicPropertySource
    static void freshDatabase(DynamicPropertyRegistry registry) throws Exception {
        Path folder = Files.createTempDirectory("rueda-machines");
        registry.add("rueda.data", folder::toString);
    }

    @Value("${local.server.port}")
    private int port;

    private final HttpClient http = HttpClient.newHttpClient();

    private HttpResponse<String> call(String method, String path, String body, String... headers) throws Exception {
        HttpRequest.Builder request = HttpRequest.newBuilder(URI.create("http://127.0.0.1:" + port + "/api" + path))
                .method(method, body == null ? HttpRequest.BodyPublishers.noBody() : HttpRequest.BodyPublishers.ofString(body));
        if (body != null) {
            request.header("Content-Type", path.endsWith("/file") ? "application/octet-stream" : "application/json");
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

    private JsonNode listed(long id) throws Exception {
        for (JsonNode machine : json(call("GET", "/machines", null))) {
            if (machine.get("id").asLong() == id) {
                return machine;
            }
        }
        throw new AssertionError("machine " + id + " is not listed");
    }

    private long begin(String beginning) throws Exception {
        return json(call("POST", "/machines", "{\"beginning\":\"" + beginning + "\"}")).get("id").asLong();
    }

    @Test
    void machinesAreBegunCopiedRenamedDeletedAndBroughtBack() throws Exception {
        long empty = begin("EMPTY");
        assertThat(listed(empty).get("axes").asInt()).isZero();
        assertThat(json(call("GET", "/machines/" + empty, null)).at("/document/axes")).isEmpty();
        long demo = begin("DEMO");
        assertThat(listed(demo).get("axes").asInt()).isEqualTo(5);
        String file = call("GET", "/machines/" + demo + "/file", null).body();
        long brought = json(call("POST", "/machines/file", file)).get("id").asLong();
        assertThat(json(call("GET", "/machines/" + brought, null)).get("document")).isEqualTo(json(call("GET", "/machines/" + demo, null)).get("document"));
        assertThat(call("POST", "/machines/file", "{}").statusCode()).isEqualTo(422);

        JsonNode copy = json(call("POST", "/machines/" + demo + "/copy", "{}"));
        assertThat(copy.at("/document/name").asString()).startsWith("Copy of ");
        long copied = copy.get("id").asLong();
        assertThat(json(call("GET", "/machines/" + copied + "/revisions", null)).at("/0/origin").asString()).isEqualTo("a copy of “Ripening cellar · turning cell”, revision 1");
        assertThat(call("POST", "/machines/" + copied + "/name", "{\"name\":\"x\"}").statusCode()).as("without the revision it is based on").isEqualTo(428);
        assertThat(call("POST", "/machines/" + copied + "/name", "{\"name\":\"x\"}", "If-Match", "7").statusCode()).isEqualTo(409);
        assertThat(call("POST", "/machines/" + copied + "/name", "{\"name\":\"   \"}", "If-Match", "1").body()).contains("Machine name", "1 to 80 characters");
        json(call("POST", "/machines/" + copied + "/name", "{\"name\":\"Second\"}", "If-Match", "1"));
        assertThat(listed(copied).get("name").asString()).isEqualTo("Second");
        json(call("POST", "/machines/" + copied + "/undo", null, "If-Match", "2"));
        assertThat(listed(copied).get("name").asString()).startsWith("Copy of ");
        json(call("POST", "/machines/" + copied + "/redo", null, "If-Match", "1"));
        assertThat(listed(copied).get("name").asString()).isEqualTo("Second");

        json(call("POST", "/machines/" + copied + "/bench", "{\"program\":\"PROGRAM\",\"running\":true}"));
        assertThat(call("DELETE", "/machines/" + copied, null).statusCode()).isEqualTo(204);
        assertThat(listed(copied).get("deletedAt").isNull()).isFalse();
        for (String path : new String[] {"", "/revisions", "/bench/condition", "/runs/latest"}) {
            assertThat(call("GET", "/machines/" + copied + path, null).statusCode()).as(path).isIn(404, 204);
        }
        assertThat(call("PUT", "/machines/" + copied, json(call("GET", "/machines/" + demo, null)).get("document").toString(), "If-Match", "2").statusCode()).isEqualTo(404);
        assertThat(call("DELETE", "/machines/" + copied, null).statusCode()).isEqualTo(404);
        assertThat(json(call("POST", "/machines/" + copied + "/restore", null)).at("/document/name").asString()).isEqualTo("Second");
        assertThat(call("POST", "/machines/" + copied + "/bench/run", null).statusCode()).as("its bench went with it").isEqualTo(404);
    }

    @Test
    void revisionsAreToldInWordsComparedNamedAndGoneBackTo() throws Exception {
        long id = begin("DEMO");
        ObjectNode document = (ObjectNode) json(call("GET", "/machines/" + id, null)).get("document");
        ((ObjectNode) document.at("/axes/1/load")).put("mass", 140);
        json(call("PUT", "/machines/" + id, document.toString(), "If-Match", "1"));
        ((ObjectNode) document.at("/bus")).put("cycleMicros", 2000);
        json(call("PUT", "/machines/" + id, document.toString(), "If-Match", "2"));
        JsonNode revisions = json(call("GET", "/machines/" + id + "/revisions", null));
        assertThat(revisions).hasSize(3);
        assertThat(revisions.at("/1/changes/0/axis").asString()).isEqualTo("Lift");
        assertThat(revisions.at("/1/changes/0/entry").asString()).isEqualTo("Load, mass");
        assertThat(revisions.at("/1/changes/0/from").asString()).isEqualTo("120 kg");
        assertThat(revisions.at("/0/current").asBoolean()).isTrue();
        assertThat(json(call("GET", "/machines/" + id + "/revisions?before=2", null))).hasSize(1);
        assertThat(json(call("GET", "/machines/" + id + "/revisions/1/comparison?with=3", null))).hasSize(2);
        assertThat(call("GET", "/machines/" + id + "/revisions/9/comparison?with=3", null).statusCode()).isEqualTo(404);
        assertThat(call("PUT", "/machines/" + id + "/revisions/1/name", "{\"name\":\" as built \"}").statusCode()).isEqualTo(204);
        assertThat(call("PUT", "/machines/" + id + "/revisions/1/name", "{\"name\":\"a\\nb\"}").statusCode()).isEqualTo(422);
        assertThat(call("PUT", "/machines/" + id + "/revisions/1/name", "{\"name\":\"" + "x".repeat(81) + "\"}").statusCode()).isEqualTo(422);
        assertThat(json(call("GET", "/machines/" + id + "/revisions", null)).at("/2/name").asString()).isEqualTo("as built");
        json(call("POST", "/machines/" + id + "/revisions/1/open", null, "If-Match", "3"));
        assertThat(listed(id).get("revision").asLong()).isEqualTo(1);
    }

    /** The lease, the mistakes and the bench of one machine are not those of another. */
    @Test
    void eachMachineHasItsOwnBench() throws Exception {
        long one = begin("DEMO");
        long other = begin("DEMO");
        String key = json(call("POST", "/machines/" + one + "/control", "{\"monitoringSeconds\":10}")).get("key").asString();
        json(call("POST", "/machines/" + other + "/bench/condition", "{\"axis\":\"Lift\",\"faults\":[\"CAM_BOUNCES\"]}"));
        assertThat(json(call("GET", "/machines/" + one + "/bench/condition", null))).isEmpty();
        json(call("POST", "/machines/" + other + "/bench", "{\"program\":\"PROGRAM\",\"running\":false}"));
        assertThat(call("POST", "/machines/" + one + "/bench", "{\"program\":\"PROGRAM\",\"running\":false}").statusCode()).isEqualTo(409);
        assertThat(call("POST", "/machines/" + other + "/control/" + key + "/renew", null).statusCode()).as("a key of another machine").isEqualTo(404);
        assertThat(call("POST", "/machines/" + one + "/control/" + key + "/renew", null).statusCode()).isEqualTo(204);
        JsonNode image = json(call("POST", "/machines/" + other + "/images", "{\"axis\":\"Lift\",\"name\":\"x\"}"));
        assertThat(call("DELETE", "/machines/" + one + "/images/" + image.get("id").asString(), null).statusCode()).as("an image of another machine").isEqualTo(404);
        assertThat(heard(other).get("condition").toString()).contains("CAM_BOUNCES");
        long third = begin("EMPTY");
        assertThat(heard(third).get("type").asString()).isEqualTo("off");
        assertThat(call("DELETE", "/machines/" + one + "/control/" + key, null).statusCode()).isEqualTo(204);
    }

    /** Who listens to a machine that is not there is turned away. */
    @Test
    void theStreamOfAMachineThatIsNotThereCloses() {
        for (String id : new String[] {"999999", "999999999999999999999", "x"}) {
            CompletableFuture<String> one = new CompletableFuture<>();
            listen(id, (socket, text) -> one.complete("heard " + text), reason -> one.complete("closed"));
            assertThat(one.orTimeout(60, TimeUnit.SECONDS).join()).as(id).isEqualTo("closed");
        }
    }

    private JsonNode heard(long id) {
        CompletableFuture<String> first = new CompletableFuture<>();
        listen(Long.toString(id), (socket, text) -> {
            first.complete(text);
            socket.abort();
        }, reason -> first.completeExceptionally(new AssertionError(reason)));
        return JSON.readTree(first.orTimeout(60, TimeUnit.SECONDS).join());
    }

    private void listen(String id, BiConsumer<WebSocket, String> onText, Consumer<String> onClose) {
        http.newWebSocketBuilder().buildAsync(URI.create("ws://127.0.0.1:" + port + "/api/machines/" + id + "/live"), new WebSocket.Listener() {
            private final StringBuilder text = new StringBuilder();

            @Override
            public CompletionStage<?> onText(WebSocket socket, CharSequence data, boolean last) {
                text.append(data);
                if (last) {
                    onText.accept(socket, text.toString());
                }
                socket.request(1);
                return null;
            }

            @Override
            public CompletionStage<?> onClose(WebSocket socket, int status, String reason) {
                onClose.accept(reason);
                return null;
            }

            @Override
            public void onError(WebSocket socket, Throwable error) {
                onClose.accept(String.valueOf(error));
            }
        }).exceptionally(refused -> {
            onClose.accept(String.valueOf(refused));
            return null;
        });
    }

    /** What is told of the changes is what the whole document gives. */
    @Test
    void aDocumentIsToldByItsChanges() throws Exception {
        ObjectNode document = (ObjectNode) json(call("GET", "/machines/1", null)).get("document");
        JsonNode whole = json(call("POST", "/calc/machine", document.toString()));
        String base = whole.get("base").asString();
        JsonNode told = json(call("POST", "/calc/machine/changes", "{\"base\":\"" + base + "\",\"changes\":[{\"op\":\"replace\",\"path\":\"/axes/1/load/mass\",\"value\":333}]}"));
        assertThat(told.get("program").isNull()).isTrue();
        assertThat(told.get("stages")).isNotEmpty().allMatch(stage -> stage.get("axis").asInt() == 1);
        ((ObjectNode) document.at("/axes/1/load")).put("mass", 333);
        JsonNode again = json(call("POST", "/calc/machine", document.toString()));
        for (JsonNode stage : told.get("stages")) {
            assertThat(again.get("stages")).contains(stage);
        }
        /* refused entries tell nothing else, and the search of an axis goes by the key */
        JsonNode refused = json(call("POST", "/calc/machine/changes", "{\"base\":\"" + told.get("base").asString() + "\",\"changes\":[{\"op\":\"replace\",\"path\":\"/name\",\"value\":\"\"}]}"));
        assertThat(refused.at("/faults/0/field").asString()).isEqualTo("/name");
        assertThat(refused.get("stages")).isEmpty();
        JsonNode back = json(call("POST", "/calc/machine/changes", "{\"base\":\"" + refused.get("base").asString() + "\",\"changes\":[{\"op\":\"replace\",\"path\":\"/name\",\"value\":\"m\"},{\"op\":\"replace\",\"path\":\"/plc/files/0/source\",\"value\":\"PROGRAM P x := 1; END_PROGRAM\"}]}"));
        assertThat(back.at("/program/diagnostics")).isNotEmpty();
        assertThat(json(call("POST", "/calc/scale", "{\"base\":\"" + told.get("base").asString() + "\",\"axis\":1}"))).isEqualTo(json(call("POST", "/calc/scale", "{\"machine\":" + document + ",\"axis\":1}")));
        assertThat(call("POST", "/calc/machine/changes", "{\"base\":\"nobody\",\"changes\":[]}").statusCode()).isEqualTo(404);
    }

    /** Changes that make no document are refused by name, and nothing of them is kept. */
    @Test
    void changesThatMakeNoDocumentAreRefused() throws Exception {
        String document = json(call("GET", "/machines/1", null)).get("document").toString();
        String base = json(call("POST", "/calc/machine", document)).get("base").asString();
        for (String change : new String[] {
            "{'op':'replace','path':'/axes/9/name','value':'x'}", "{'op':'replace','path':'/axes/1/load/colour','value':1}", "{'op':'replace','path':'/axes/1/load/mass','value':'heavy'}",
            "{'op':'replace','path':'/axes/1/train/reducers/0/motorTurns','value':9.1}", "{'op':'add','path':'/axes/1/load/colour','value':1}", "{'op':'remove','path':'/axes/1/load','value':null}",
            "{'op':'move','path':'/axes/1','value':0}", "{'op':'replace','path':'axes','value':[]}", "{'op':'replace','path':'','value':{}}", "{'op':'replace','path':'','value':null}",
            "{'op':'add','path':'/axes/99','value':{}}", "{'op':'add','path':'/axes/-1','value':{}}", "{'op':'replace','path':'/axes/1/load/mass','value':null}", "{'op':'add','path':'/name/x','value':1}",
            "{'op':'replace','path':'/axes/1','value':'x'}", "{'op':'replace','path':'/axes','value':null}"}) {
            HttpResponse<String> answer = call("POST", "/calc/machine/changes", "{\"base\":\"" + base + "\",\"changes\":[" + change.replace('\'', '"') + "]}");
            assertThat(answer.statusCode()).as(change + answer.body()).isIn(200, 400, 422);
            if (answer.statusCode() == 200) {
                assertThat(json(answer).get("faults")).as(change).isNotEmpty();
            } else {
                assertThat(JSON.readTree(answer.body()).get("faults")).as(change).isNotEmpty();
            }
            assertThat(answer.body()).doesNotContain("rueda.", "jackson", "Exception");
        }
    }

    /** What the server keeps is bounded in size: a document that is too large for it is answered, and asked for whole the next time. */
    @Test
    void whatIsKeptIsBounded() throws Exception {
        ObjectNode document = (ObjectNode) json(call("GET", "/machines/1", null)).get("document");
        String small = json(call("POST", "/calc/machine", document.toString())).get("base").asString();
        ((ObjectNode) document.at("/plc/files/0")).put("source", "x".repeat(13_000_000));
        JsonNode large = json(call("POST", "/calc/machine", document.toString()));
        assertThat(large.at("/faults/0/field").asString()).isEqualTo("/plc/files/0/source");
        for (String base : new String[] {large.get("base").asString(), small}) {
            assertThat(call("POST", "/calc/machine/changes", "{\"base\":\"" + base + "\",\"changes\":[]}").statusCode()).isEqualTo(404);
        }
    }

    /** A machine with several proofs runs the one that is named, and tells the last run of each. */
    @Test
    void proofsAreRunAndToldByName() throws Exception {
        long id = begin("DEMO");
        ObjectNode document = (ObjectNode) json(call("GET", "/machines/" + id, null)).get("document");
        ArrayNode proofs = (ArrayNode) document.get("proofs");
        ObjectNode quick = ((ObjectNode) proofs.get(0).deepCopy()).put("name", "Schnell & kurz").put("duration", 0.5);
        ((ArrayNode) quick.get("expectations")).removeAll();
        proofs.add(quick);
        json(call("PUT", "/machines/" + id, document.toString(), "If-Match", "1"));
        assertThat(json(call("GET", "/machines/" + id + "/runs/latest", null))).isEmpty();
        HttpResponse<String> unnamed = call("POST", "/machines/" + id + "/runs", null);
        assertThat(unnamed.statusCode()).isEqualTo(422);
        assertThat(JSON.readTree(unnamed.body()).at("/faults/0/allowed").asString()).contains("Schnell & kurz");
        assertThat(call("POST", "/machines/" + id + "/runs?proof=nobody", null).statusCode()).isEqualTo(422);
        JsonNode run = json(call("POST", "/machines/" + id + "/runs?proof=schnell%20%26%20KURZ", null));
        assertThat(run.get("holds").asBoolean()).isTrue();
        JsonNode latest = json(call("GET", "/machines/" + id + "/runs/latest", null));
        assertThat(latest).hasSize(1);
        assertThat(latest.at("/0/name").asString()).isEqualTo("Schnell & kurz");
        /* a proof that has gone tells nothing any more */
        proofs.removeAll();
        json(call("PUT", "/machines/" + id, document.toString(), "If-Match", "2"));
        assertThat(json(call("GET", "/machines/" + id + "/runs/latest", null))).isEmpty();
        HttpResponse<String> none = call("POST", "/machines/" + id + "/runs", null);
        assertThat(none.statusCode()).isEqualTo(422);
        assertThat(none.body()).contains("add one");
    }
}
