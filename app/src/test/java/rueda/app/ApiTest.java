package rueda.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.boot.test.context.SpringBootTest;
import org.springframework.test.context.DynamicPropertyRegistry;
import org.springframework.test.context.DynamicPropertySource;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ObjectNode;

/** The whole server with a real H2 file, asked over HTTP. */
@SpringBootTest(webEnvironment = SpringBootTest.WebEnvironment.RANDOM_PORT)
class ApiTest {

    private static final JsonMapper JSON = JsonMapper.builder().build();

    @DynamicPropertySource
    static void freshDatabase(DynamicPropertyRegistry registry) throws Exception {
        Path folder = Files.createTempDirectory("rueda-api");
        registry.add("rueda.data", folder::toString);
    }

    @Value("${local.server.port}")
    private int port;

    private final HttpClient http = HttpClient.newHttpClient();

    private HttpResponse<String> call(String method, String path, String body, String... headers) throws Exception {
        HttpRequest.Builder request = HttpRequest.newBuilder(URI.create("http://127.0.0.1:" + port + path))
                .method(method, body == null ? HttpRequest.BodyPublishers.noBody() : HttpRequest.BodyPublishers.ofString(body));
        if (body != null) {
            request.header("Content-Type", "application/json");
        }
        for (int i = 0; i < headers.length; i += 2) {
            request.header(headers[i], headers[i + 1]);
        }
        return http.send(request.build(), HttpResponse.BodyHandlers.ofString());
    }

    /** Requests are renamed with all that names them; a stop is planned and tried; what cannot be is refused with what is allowed. */
    @Test
    void guardsArePlannedAndTried() throws Exception {
        String document = machine().get("document").toString();
        JsonNode plan = JSON.readTree(call("POST", "/api/calc/guard/plan", "{\"machine\":" + document + ",\"axis\":0,\"function\":\"SAFE_STOP_2\",\"request\":\"Door\"}").body());
        assertThat(plan.get("stands").asDouble()).isEqualTo(207.125);
        assertThat(plan.get("torque").isNull()).isTrue();
        JsonNode stopped = JSON.readTree(call("POST", "/api/calc/guard/stop", "{\"machine\":" + document + ",\"axis\":0,\"function\":\"SAFE_STOP_2\",\"request\":\"Door\"}").body());
        assertThat(stopped.get("breach").asString()).isEqualTo("NONE");
        assertThat(stopped.get("distance").asDouble()).isBetween(80.0, 120.0);
        for (String refused : new String[] {"\"function\":\"SAFELY_LIMITED_SPEED\",\"request\":\"Door\"", "\"function\":\"SAFE_STOP_2\",\"request\":\"Window\"", "\"function\":\"SAFE_STOP_2\",\"request\":\"Emergency stop\"",
            "\"function\":\"SAFE_STOP_2\",\"request\":\"Door\",\"proof\":\"none such\"", "\"request\":\"Door\""}) {
            HttpResponse<String> answer = call("POST", "/api/calc/guard/stop", "{\"machine\":" + document + ",\"axis\":0," + refused + "}");
            assertThat(answer.statusCode()).as(refused).isEqualTo(422);
            assertThat(JSON.readTree(answer.body()).get("faults").get(0).get("allowed").asString()).as(refused).isNotBlank();
        }
        String unguarded = document.replaceFirst("\"fitted\":true", "\"fitted\":false");
        HttpResponse<String> nothingWatches = call("POST", "/api/calc/guard/stop", "{\"machine\":" + unguarded + ",\"axis\":0,\"function\":\"SAFE_STOP_2\",\"request\":\"Door\"}");
        assertThat(nothingWatches.statusCode()).as(nothingWatches.body()).isEqualTo(422);
        assertThat(nothingWatches.body()).contains("an axis that has a guard");
        JsonNode renamed = JSON.readTree(call("POST", "/api/calc/guard/requests", "{\"machine\":" + document + ",\"change\":\"RENAME\",\"request\":\"Door\",\"name\":\"Gate\"}").body());
        assertThat(renamed.get("safetyRequests").get(0).get("name").asString()).isEqualTo("Gate");
        assertThat(renamed.toString()).doesNotContain("\"Door\"");
        JsonNode removed = JSON.readTree(call("POST", "/api/calc/guard/requests", "{\"machine\":" + document + ",\"change\":\"REMOVE\",\"request\":\"Door\"}").body());
        assertThat(removed.toString()).doesNotContain("\"Door\"");
        assertThat(call("POST", "/api/calc/guard/requests", "{\"machine\":" + document + ",\"change\":\"RENAME\",\"request\":\"Door\",\"name\":\"emergency STOP\"}").statusCode()).as("another one has it").isEqualTo(422);
        assertThat(call("POST", "/api/calc/guard/usual", "{\"machine\":" + document + ",\"axis\":4}").body()).contains("\"fitted\":true");
    }

    private JsonNode machine() throws Exception {
        return JSON.readTree(call("GET", "/api/machines/1", null).body());
    }

    private static String edited(JsonNode machine, String name) {
        ObjectNode document = (ObjectNode) machine.get("document").deepCopy();
        document.put("name", name);
        return document.toString();
    }

    /** How a move list runs, and what is refused: each answer names the field, what is allowed and what to do. */
    @Test
    void aMoveListIsPlannedAndChanged() throws Exception {
        ObjectNode question = JSON.createObjectNode();
        question.set("machine", machine().get("document"));
        question.put("axis", 2).put("from", 0);
        JsonNode plan = JSON.readTree(call("POST", "/api/calc/moves/plan", question.toString()).body());
        assertThat(plan.at("/plan/end").asString()).isEqualTo("ROUND");
        assertThat(plan.at("/plan/roundTime").asDouble()).isBetween(14.0, 16.0);
        assertThat(plan.get("sentences")).hasSize(5);
        assertThat(plan.at("/sentences/1").asString()).isEqualTo("Go by 90 °, rest 0.8 s, go on to entry 2.");
        assertThat(plan.get("movable").toString()).isEqualTo("[false,true,false,false,false]");
        ObjectNode dragged = question.deepCopy();
        dragged.putObject("drag").put("entry", 1).put("by", 30.04).put("step", 0.5);
        JsonNode preview = JSON.readTree(call("POST", "/api/calc/moves/plan", dragged.toString()).body());
        assertThat(preview.at("/dragged/distance").decimalValue()).isEqualByComparingTo("120");
        assertThat(preview.get("sentences")).hasSize(1);
        assertThat(preview.at("/sentences/0").asString()).startsWith("Go by 120 °");
        assertThat(preview.at("/plan/roundTime").asDouble()).isGreaterThan(plan.at("/plan/roundTime").asDouble());
        dragged.putObject("drag").put("entry", 0).put("by", 1).put("step", 1);
        assertThat(call("POST", "/api/calc/moves/plan", dragged.toString()).statusCode()).as("an entry without an end").isEqualTo(422);
        HttpResponse<String> outside = call("POST", "/api/calc/moves/plan", question.put("from", 5).toString());
        assertThat(outside.statusCode()).isEqualTo(422);
        assertThat(JSON.readTree(outside.body()).at("/faults/0/allowed").asString()).isEqualTo("0 to 4");
        assertThat(call("POST", "/api/calc/moves/plan", question.put("from", 0).put("at", 1e300).toString()).statusCode()).isEqualTo(422);
        question.remove("at");
        ObjectNode edit = question.deepCopy();
        edit.put("edit", "MOVE").put("entry", 1).put("to", 0).remove("from");
        JsonNode moved = JSON.readTree(call("POST", "/api/calc/moves/edit", edit.toString()).body());
        assertThat(moved.at("/entries/0/name").asString()).isEqualTo("Quarter turn");
        assertThat(moved.at("/starters/0/entry").asInt()).as("the starter still starts the brush").isEqualTo(1);
        assertThat(call("POST", "/api/calc/moves/edit", edit.put("to", 99).toString()).statusCode()).isEqualTo(422);
        for (String bad : new String[] {"{}", "{\"edit\":\"ADD\"}", "{\"axis\":2,\"edit\":\"NOTHING\"}", "null", "[1]"}) {
            assertThat(call("POST", "/api/calc/moves/edit", bad).statusCode()).as(bad).isBetween(400, 422);
        }
        /* a half-typed list is refused beside its field, and nothing of it is stored */
        ObjectNode document = (ObjectNode) machine().get("document").deepCopy();
        ((ObjectNode) document.at("/axes/2/moves/entries/1")).put("next", 77);
        HttpResponse<String> refused = call("PUT", "/api/machines/1", document.toString(), "If-Match", machine().get("revision").asString());
        assertThat(refused.statusCode()).isEqualTo(422);
        assertThat(JSON.readTree(refused.body()).at("/faults/0/field").asString()).isEqualTo("/axes/2/moves/entries/1/next");
        assertThat(JSON.readTree(refused.body()).at("/faults/0/allowed").asString()).isEqualTo("0 to 4");
    }

    @Test
    void savesUndoesRedoesAndTellsTheLaterOfTwo() throws Exception {
        JsonNode before = machine();
        String revision = before.get("revision").asString();
        HttpResponse<String> saved = call("PUT", "/api/machines/1", edited(before, "First"), "If-Match", "\"" + revision + "\"");
        assertThat(saved.statusCode()).isEqualTo(200);
        String next = JSON.readTree(saved.body()).get("revision").asString();
        assertThat(saved.headers().firstValue("ETag")).contains("\"" + next + "\"");

        HttpResponse<String> late = call("PUT", "/api/machines/1", edited(before, "Second"), "If-Match", "\"" + revision + "\"");
        assertThat(late.statusCode()).isEqualTo(409);
        assertThat(late.headers().firstValue("Content-Type").orElse("")).startsWith("application/problem+json");
        assertThat(JSON.readTree(late.body()).get("currentRevision").asString()).isEqualTo(next);
        assertThat(machine().at("/document/name").asString()).isEqualTo("First");

        call("POST", "/api/machines/1/undo", null, "If-Match", next);
        assertThat(machine().at("/document/name").asString()).isEqualTo(before.at("/document/name").asString());
        assertThat(machine().get("canRedo").asBoolean()).isTrue();
        call("POST", "/api/machines/1/redo", null, "If-Match", revision);
        assertThat(machine().at("/document/name").asString()).isEqualTo("First");
        assertThat(call("POST", "/api/machines/1/undo", null).statusCode()).isEqualTo(428);
    }

    @Test
    void refusedEntriesNameFieldValueAllowedAndMendAndStoreNothing() throws Exception {
        JsonNode before = machine();
        ObjectNode document = (ObjectNode) before.get("document").deepCopy();
        ((ObjectNode) document.at("/axes/0/train/reducers/0")).put("outputTurns", 0);
        HttpResponse<String> refused = call("PUT", "/api/machines/1", document.toString(), "If-Match", before.get("revision").asString());
        assertThat(refused.statusCode()).isEqualTo(422);
        JsonNode fault = JSON.readTree(refused.body()).at("/faults/0");
        assertThat(fault.get("field").asString()).isEqualTo("/axes/0/train/reducers/0/outputTurns");
        assertThat(fault.get("value").asString()).isEqualTo("0");
        assertThat(fault.get("allowed").asString()).contains("1 to");
        assertThat(machine().get("revision")).isEqualTo(before.get("revision"));
    }

    @Test
    void controlIsHeldByOneAndEndsWhenItIsNotRenewed() throws Exception {
        String start = "{\"monitoringSeconds\":0.2}";
        assertThat(call("POST", "/api/machines/1/control", "{\"monitoringSeconds\":60}").statusCode()).isEqualTo(422);
        HttpResponse<String> taken = call("POST", "/api/machines/1/control", "{\"monitoringSeconds\":10}");
        String key = JSON.readTree(taken.body()).get("key").asString();
        assertThat(call("POST", "/api/machines/1/control", start).statusCode()).isEqualTo(409);
        HttpResponse<String> order = call("POST", "/api/machines/1/control/" + key + "/orders", "{\"axis\":\"Shuttle\",\"order\":\"JOG\",\"value\":1}");
        assertThat(JSON.readTree(order.body()).get("refusal").asString()).isEqualTo("The axis is not enabled. Enable it first.");
        assertThat(call("POST", "/api/machines/1/control/wrong/orders", "{\"axis\":\"Shuttle\",\"order\":\"STOP\"}").statusCode()).isEqualTo(404);
        assertThat(call("DELETE", "/api/machines/1/control/" + key, null).statusCode()).isEqualTo(204);
        String lost = JSON.readTree(call("POST", "/api/machines/1/control", start).body()).get("key").asString();
        Thread.sleep(600);
        assertThat(call("POST", "/api/machines/1/control/" + lost + "/renew", null).statusCode()).isEqualTo(404);
    }

    @Test
    void theConditionOfTheBenchStandsWithoutABench() throws Exception {
        call("POST", "/api/machines/1/bench/condition", "{\"axis\":\"Lift\",\"faults\":[\"CAM_BOUNCES\"]}");
        assertThat(JSON.readTree(call("GET", "/api/machines/1/bench/condition", null).body()).at("/Lift/0").asString()).isEqualTo("CAM_BOUNCES");
        assertThat(call("POST", "/api/machines/1/bench/condition", "{\"axis\":\"Lift\"}").statusCode()).isEqualTo(422);
        assertThat(JSON.readTree(call("POST", "/api/machines/1/bench/condition", "{\"axis\":\"Lift\",\"faults\":[]}").body()).isEmpty()).isTrue();
    }

    /** Written, kept, restarted: what the page shows of a device. */
    @Test
    void parametersOfADevice() throws Exception {
        JsonNode machine = JSON.readTree(call("GET", "/api/machines/1", null).body());
        call("POST", "/api/machines/1/bench", "{\"program\":\"HOMING\",\"axis\":\"Brush\",\"running\":false}");
        ObjectNode document = (ObjectNode) machine.get("document");
        ((ObjectNode) document.at("/axes/3/encoder")).put("singleTurnBits", 18);
        HttpResponse<String> saved = call("PUT", "/api/machines/1", document.toString(), "If-Match", machine.get("revision").asString());
        assertThat(saved.statusCode()).isEqualTo(200);
        assertThat(values(call("GET", "/api/machines/1/bench/devices/Brush/comparison", null).body(), "/encoder/singleTurnBits")).containsExactly("18", "17", "17", "17");
        JsonNode written = JSON.readTree(call("POST", "/api/machines/1/bench/devices/write", null).body());
        assertThat(written.at("/axes/3/device/pending/0").asString()).isEqualTo("Unit, encoder and train");
        assertThat(written.get("revision").asLong()).as("the bench is what the project says").isEqualTo(JSON.readTree(saved.body()).get("revision").asLong());
        assertThat(values(call("GET", "/api/machines/1/bench/devices/Brush/comparison", null).body(), "/encoder/singleTurnBits")).containsExactly("18", "18", "17", "17");
        assertThat(JSON.readTree(call("POST", "/api/machines/1/bench/devices/Brush/keep", null).body()).at("/axes/3/device/unkept")).isEmpty();
        assertThat(JSON.readTree(call("POST", "/api/machines/1/bench/devices/Brush/restart", null).body()).at("/axes/3/device/restarting").asBoolean()).isTrue();
        assertThat(values(call("GET", "/api/machines/1/bench/devices/Brush/comparison", null).body(), "/encoder/singleTurnBits")).containsExactly("18", "18", "18", "18");
        assertThat(call("POST", "/api/machines/1/bench/devices/Nobody/keep", null).statusCode()).isEqualTo(404);
        call("POST", "/api/machines/1/undo", null, "If-Match", JSON.readTree(saved.body()).get("revision").asString());
    }

    /** Identification is told move by move, a line of JSON each; a step comes with what theory says of it. */
    @Test
    void identificationAndStep() throws Exception {
        String machine = machine().get("document").toString();
        String[] lines = call("POST", "/api/calc/identification/progress", "{\"axis\":1,\"machine\":" + machine + "}").body().split("\n");
        assertThat(lines).hasSize(7);
        assertThat(JSON.readTree(lines[2]).get("move").asInt()).isEqualTo(3);
        assertThat(JSON.readTree(lines[6]).at("/answer/result/done").asBoolean()).isTrue();
        JsonNode step = JSON.readTree(call("POST", "/api/calc/step", "{\"axis\":1,\"machine\":" + machine + "}").body());
        assertThat(step.get("predictedError").size()).isEqualTo(step.get("time").size());
        JsonNode moved = JSON.readTree(call("POST", "/api/calc/movement", "{\"axis\":1,\"machine\":" + machine + "}").body());
        assertThat(moved.get("holds").asBoolean()).isTrue();
        assertThat(JSON.readTree(call("POST", "/api/calc/axes", "{\"edit\":\"ADD\",\"name\":\"Washer\",\"machine\":" + machine + "}").body()).at("/machine/axes/5/load/mass").asDouble()).isZero();
    }

    private static List<String> values(String body, String name) throws Exception {
        for (JsonNode group : JSON.readTree(body)) {
            for (JsonNode value : group.get("values")) {
                if (value.get("name").asString().equals(name)) {
                    return List.of(value.get("project").asString(), value.get("working").asString(), value.get("permanent").asString(), value.get("acting").asString());
                }
            }
        }
        return List.of();
    }

    @Test
    void calculatorsOfTheAxis() throws Exception {
        assertThat(JSON.readTree(call("POST", "/api/calc/entry", "{\"text\":\"2.5 in\",\"unit\":\"mm\"}").body()).get("value").asDouble()).isEqualTo(63.5);
        assertThat(call("POST", "/api/calc/entry", "{\"text\":\"2 kg\",\"unit\":\"mm\"}").statusCode()).isEqualTo(422);
        String document = machine().get("document").toString();
        JsonNode checks = JSON.readTree(call("POST", "/api/calc/wiring", "{\"axis\":0,\"faults\":[\"SWAPPED_LIMITS\"],\"machine\":" + document + "}").body());
        assertThat(checks.get(0).get("holds").asBoolean()).isFalse();
        JsonNode found = JSON.readTree(call("POST", "/api/calc/identification", "{\"axis\":1,\"faults\":[],\"machine\":" + document + "}").body());
        assertThat(found.at("/result/gravity").asDouble()).isBetween(0.89, 0.99);
        JsonNode turned = JSON.readTree(call("POST", "/api/calc/turn", "{\"axis\":0,\"faults\":[],\"machine\":" + document + "}").body());
        assertThat(turned.get("agrees").asBoolean()).isTrue();
    }

    @Test
    void bodiesThatAreNoMachineAreRefused() throws Exception {
        for (String body : new String[] {"", "{", "[]", "null", "{\"name\":5,\"axes\":\"x\"}", "{\"name\":\"m\",\"bus\":{\"cycleMicros\":\"fast\"}}"}) {
            assertThat(call("PUT", "/api/machines/1", body, "If-Match", "1").statusCode()).as(body).isIn(400, 409, 422);
        }
        HttpResponse<String> typed = call("PUT", "/api/machines/1", "{\"name\":\"m\",\"bus\":{\"cycleMicros\":\"fast\"}}", "If-Match", "1");
        assertThat(JSON.readTree(typed.body()).at("/faults/0/field").asString()).isEqualTo("/bus/cycleMicros");
        assertThat(call("GET", "/api/machines/77", null).statusCode()).isEqualTo(404);
    }

    /** Biagiotti & Melchiorri, chapter 3 (from memory, recomputed): 2.71 s. */
    @Test
    void profileCalculator() throws Exception {
        String question = "{\"distance\":10,\"startVelocity\":1,\"endVelocity\":0,\"maxVelocity\":5,\"maxAcceleration\":10,\"maxDeceleration\":10,\"maxJerk\":30}";
        JsonNode answer = JSON.readTree(call("POST", "/api/calc/profile", question).body());
        assertThat(answer.get("duration").asDouble()).isCloseTo(2.71, org.assertj.core.api.Assertions.within(1e-9));
        assertThat(answer.get("segments").size()).isEqualTo(7);
        JsonNode trapezoid = JSON.readTree(call("POST", "/api/calc/profile", "{\"distance\":0.06,\"maxVelocity\":0.05,\"maxAcceleration\":10}").body());
        assertThat(trapezoid.get("duration").asDouble()).isCloseTo(1.205, org.assertj.core.api.Assertions.within(1e-9));
        HttpResponse<String> refused = call("POST", "/api/calc/profile", "{\"distance\":1,\"maxVelocity\":0,\"maxAcceleration\":10}");
        assertThat(refused.statusCode()).isEqualTo(422);
        assertThat(JSON.readTree(refused.body()).at("/faults/0/field").asString()).isEqualTo("maxVelocity");
    }

    @Test
    void runsAreStoredWithTheirVerdictsAndTraces() throws Exception {
        JsonNode run = JSON.readTree(call("POST", "/api/machines/1/runs?proof=Fetch+a+wheel+from+slot+7", null).body());
        assertThat(run.get("holds").asBoolean()).isFalse();
        JsonNode latest = JSON.readTree(call("GET", "/api/machines/1/runs/latest", null).body());
        assertThat(latest).hasSize(1);
        assertThat(latest.get(0).get("verdicts")).isEqualTo(run.get("verdicts"));
        JsonNode trace = JSON.readTree(call("GET", "/api/runs/" + run.get("id").asString() + "/trace?signals=Shuttle.followingError&from=9.2&to=9.7&points=10000", null).body());
        double worst = 0;
        for (JsonNode value : trace.at("/signals/0/values")) {
            worst = Math.max(worst, Math.abs(value.asDouble()));
        }
        assertThat(worst).isEqualTo(run.at("/verdicts/3/measured").asDouble());
        assertThat(call("GET", "/api/runs/1/trace?signals=Nothing", null).statusCode()).isEqualTo(404);
        String many = java.util.stream.IntStream.range(0, 100).mapToObj(i -> "a" + i).collect(java.util.stream.Collectors.joining(","));
        assertThat(call("GET", "/api/runs/1/trace?signals=" + many, null).statusCode()).isEqualTo(422);
    }

    @Test
    void theBenchAnswersWithItsState() throws Exception {
        JsonNode held = JSON.readTree(call("POST", "/api/machines/1/bench", "{\"program\":\"HOMING\",\"axis\":\"Shuttle\",\"running\":false}").body());
        assertThat(held.get("running").asBoolean()).isFalse();
        JsonNode cycle = JSON.readTree(call("POST", "/api/machines/1/bench/cycle", null).body());
        assertThat(cycle.get("time").asDouble()).isEqualTo(0.002);
        assertThat(call("POST", "/api/machines/1/bench/speed", "{\"factor\":1000}").statusCode()).isEqualTo(422);
        assertThat(call("POST", "/api/machines/1/bench", "{\"program\":\"HOMING\",\"axis\":\"Nobody\"}").statusCode()).isEqualTo(404);
    }

    /** The page's types are made from web/openapi.json: it must be what the server says. */
    @Test
    void descriptionOfTheInterfaceIsTheCommittedOne() throws Exception {
        JsonNode served = JSON.readTree(call("GET", "/made/openapi", null).body());
        // -Drueda.write makes the files anew after a change of the interface.
        if (System.getProperty("rueda.write") != null) {
            Files.writeString(Path.of("..", "web", "openapi.json"), indented(served));
        }
        JsonNode committed = JSON.readTree(Files.readString(Path.of("..", "web", "openapi.json")));
        assertThat(served).isEqualTo(committed);
        if (System.getProperty("rueda.write") == null) {
            assertThat(JSON.readTree(call("GET", "/api/openapi", null).body())).as("what is packaged").isEqualTo(committed);
        }
    }

    /** One space a level, as the files have it. */
    static String indented(JsonNode json) {
        StringBuilder text = new StringBuilder();
        indent(json, 0, text);
        return text.append('\n').toString();
    }

    private static void indent(JsonNode node, int depth, StringBuilder text) {
        boolean object = node instanceof ObjectNode;
        if (!object && !node.isArray() || node.isEmpty()) {
            text.append(node);
            return;
        }
        String line = "\n" + " ".repeat(depth + 1);
        String separator = "";
        text.append(object ? '{' : '[');
        if (object) {
            for (var property : node.properties()) {
                text.append(separator).append(line).append(JSON.writeValueAsString(property.getKey())).append(": ");
                indent(property.getValue(), depth + 1, text);
                separator = ",";
            }
        } else {
            for (JsonNode element : node) {
                text.append(separator).append(line);
                indent(element, depth + 1, text);
                separator = ",";
            }
        }
        text.append('\n').append(" ".repeat(depth)).append(object ? '}' : ']');
    }

    @Test
    void foreignHostsAreTurnedAway() throws Exception {
        try (java.net.Socket socket = new java.net.Socket("127.0.0.1", port)) {
            socket.getOutputStream().write("GET /api/machines HTTP/1.1\r\nHost: elsewhere.example\r\nConnection: close\r\n\r\n".getBytes());
            assertThat(new String(socket.getInputStream().readAllBytes())).startsWith("HTTP/1.1 403");
        }
    }

    /** Every list of the core is told, each code with words of its own. */
    @Test
    void whatCanBeChosenIsTold() throws Exception {
        JsonNode choices = JSON.readTree(call("GET", "/api/calc/choices", null).body());
        for (Map.Entry<String, JsonNode> list : choices.properties()) {
            assertThat(list.getValue()).as(list.getKey()).isNotEmpty();
            java.util.Set<String> words = new java.util.HashSet<>();
            for (JsonNode choice : list.getValue()) {
                if (choice.has("words")) {
                    assertThat(choice.get("words").asString()).as(choice.toString()).isNotBlank().doesNotContain("_");
                    assertThat(words.add(choice.get("words").asString())).as("%s: %s", list.getKey(), choice).isTrue();
                }
            }
        }
        assertThat(choices.get("mistakes")).hasSize(rueda.machine.Mistake.values().length);
        assertThat(choices.get("terminals")).hasSize(rueda.machine.Terminal.Kind.values().length).allMatch(kind -> kind.get("functions").size() > 0);
        assertThat(choices.at("/tagTypes").toString()).contains("LREAL").doesNotContain("AXIS_REF");
    }

    @Test
    void theLayoutOfAStationIsTold() throws Exception {
        JsonNode machine = JSON.readTree(call("GET", "/api/machines/1", null).body()).get("document");
        JsonNode told = JSON.readTree(call("POST", "/api/calc/layout", "{\"axis\":0,\"machine\":" + machine + "}").body());
        assertThat(told.at("/layout/outputs/bytes").asInt()).isEqualTo(9);
        assertThat(told.at("/layout/outputs/places/2/title").asString()).isEqualTo("Target position");
        assertThat(told.get("unbound").asInt()).isZero();
        assertThat(call("POST", "/api/calc/layout", "{\"axis\":7,\"machine\":" + machine + "}").statusCode()).isEqualTo(422);
        assertThat(call("POST", "/api/calc/layout", "{\"axis\":0,\"base\":\"nobody\"}").statusCode()).isEqualTo(404);
        assertThat(call("POST", "/api/calc/layout/telegram", "{\"axis\":0,\"number\":4,\"machine\":" + machine + "}").statusCode()).isEqualTo(422);
        assertThat(JSON.readTree(call("POST", "/api/calc/layout/tags", "{\"axis\":0,\"machine\":" + machine + "}").body())).isEqualTo(machine.at("/axes/0/station"));
    }
}
