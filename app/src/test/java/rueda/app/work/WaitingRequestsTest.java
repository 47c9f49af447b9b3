package rueda.app.work;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayOutputStream;
import java.io.InputStream;
import java.io.OutputStream;
import java.net.InetAddress;
import java.net.Socket;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.boot.test.context.SpringBootTest;
import org.springframework.test.context.DynamicPropertyRegistry;
import org.springframework.test.context.DynamicPropertySource;
import rueda.app.machine.MachineJson;
import rueda.machine.DemoMachine;
import rueda.machine.Machine;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ObjectNode;

/** Requests that take long to arrive or long to answer: none of them holds a thread that others need, and none is computed for nobody. */
@SpringBootTest(webEnvironment = SpringBootTest.WebEnvironment.RANDOM_PORT)
@Timeout(240)
class WaitingRequestsTest {

    private static final JsonMapper JSON = JsonMapper.builder().build();

    @DynamicPropertySource
    static void freshDatabase(DynamicPropertyRegistry registry) throws Exception {
        registry.add("rueda.data", Files.createTempDirectory("rueda-waiting")::toString);
    }

    @Value("${local.server.port}")
    private int port;
    @Autowired
    private Calculations calculations;

    private final HttpClient http = HttpClient.newHttpClient();

    private HttpResponse<String> call(String method, String path, String body) throws Exception {
        HttpRequest.Builder request = HttpRequest.newBuilder(URI.create("http://127.0.0.1:" + port + path))
                .method(method, body == null ? HttpRequest.BodyPublishers.noBody() : HttpRequest.BodyPublishers.ofString(body));
        if (body != null) {
            request.header("Content-Type", "application/json");
        }
        return http.send(request.build(), HttpResponse.BodyHandlers.ofString());
    }

    private Socket begun(String path, String type, long length, String first) throws Exception {
        Socket socket = new Socket(InetAddress.getLoopbackAddress(), port);
        socket.getOutputStream().write(("POST " + path + " HTTP/1.1\r\nHost: 127.0.0.1:" + port + "\r\nContent-Type: " + type + "\r\nContent-Length: " + length + "\r\n\r\n" + first).getBytes(StandardCharsets.UTF_8));
        socket.getOutputStream().flush();
        return socket;
    }

    private static String answer(Socket socket) throws Exception {
        ByteArrayOutputStream read = new ByteArrayOutputStream();
        InputStream in = socket.getInputStream();
        byte[] part = new byte[4096];
        while (!read.toString(StandardCharsets.UTF_8).contains("\r\n0\r\n\r\n") && !read.toString(StandardCharsets.UTF_8).matches("(?s).*Content-Length: (\\d+)\r\n.*\r\n\r\n.+")) {
            int bytes = in.read(part);
            if (bytes < 0) {
                break;
            }
            read.write(part, 0, bytes);
        }
        return read.toString(StandardCharsets.UTF_8);
    }

    /** More trickled bodies than the server has threads, of every kind, one that is too large among them: all others are answered, and so is each of them when it is whole. */
    @Test
    void trickledBodiesHoldNoThread() throws Exception {
        String entry = "{\"text\":\"2+3\",\"unit\":\"mm\"}";
        List<Socket> slow = new ArrayList<>();
        for (int i = 0; i < 230; i++) {
            slow.add(switch (i % 3) {
                case 0 -> begun("/api/calc/entry", "application/json", entry.length(), entry.substring(0, 3));
                case 1 -> begun("/api/devices?name=a.eds", "application/octet-stream", 100_000_000L, "begins");
                default -> begun("/api/calc/entry", "text/plain", entry.length(), entry.substring(0, 3));
            });
        }
        for (int i = 0; i < 20; i++) {
            assertThat(call("GET", "/api/machines", null).statusCode()).isEqualTo(200);
            assertThat(call("POST", "/api/calc/entry", entry).body()).contains("5");
            assertThat(call("POST", "/api/machines/1/bench/stop", null).statusCode()).isEqualTo(404);
            for (Socket socket : slow.subList(0, 60)) {
                if (slow.indexOf(socket) % 3 == 1) {
                    socket.getOutputStream().write('x');
                }
            }
        }
        for (int i = 0; i < 12; i++) {
            if (i % 3 != 1) {
                OutputStream out = slow.get(i).getOutputStream();
                out.write(entry.substring(3).getBytes(StandardCharsets.UTF_8));
                out.flush();
                assertThat(answer(slow.get(i))).as("request %d", i).contains(i % 3 == 0 ? "\"value\":5" : "415");
            }
        }
        for (Socket socket : slow) {
            socket.close();
        }
    }

    /** A search that goes on for the whole of its time limit: on the slowest speed, far from the switch. */
    private static Machine slowToHome() {
        Machine demo = DemoMachine.create();
        ObjectNode document = (ObjectNode) JSON.readTree(MachineJson.write(demo));
        ObjectNode homing = (ObjectNode) document.at("/axes/0/homing");
        homing.put("searchSpeed", 0.5).put("creepSpeed", 0.5).put("timeLimit", 300);
        return MachineJson.read(document.toString());
    }

    @Test
    void aCalculationThatNobodyWaitsForEnds() throws Exception {
        String question = JSON.createObjectNode().put("axis", 0).set("machine", JSON.readTree(MachineJson.write(slowToHome()))).toString();
        List<Socket> asked = new ArrayList<>();
        for (int i = 0; i < 6; i++) {
            asked.add(begun("/api/calc/homing", "application/json", question.getBytes(StandardCharsets.UTF_8).length, question));
        }
        // Its answer begins with spaces while it is computed.
        while (calculations.unanswered() < 6) {
            Thread.onSpinWait();
        }
        for (Socket socket : asked) {
            socket.close();
        }
        while (calculations.unanswered() > 0) {
            Thread.onSpinWait();
        }
        assertThat(calculations.abandoned()).as("given up, not computed to their end").isEqualTo(6);
        HttpResponse<String> next = call("POST", "/api/calc/homing", JSON.createObjectNode().put("axis", 0).set("machine", JSON.readTree(MachineJson.write(DemoMachine.create()))).toString());
        assertThat(next.statusCode()).isEqualTo(200);
        assertThat(JSON.readTree(next.body()).at("/here/found").asBoolean()).isTrue();
        assertThat(next.headers().firstValue("Content-Type")).hasValue("application/json");
    }

    @Test
    void aRefusalOfACalculationIsAProblemDocument() throws Exception {
        HttpResponse<String> refused = call("POST", "/api/calc/homing", JSON.createObjectNode().put("axis", 99).set("machine", JSON.readTree(MachineJson.write(DemoMachine.create()))).toString());
        assertThat(refused.statusCode()).isEqualTo(422);
        assertThat(refused.body()).contains("0 to 4");
    }

    @Test
    void aProofTellsHowFarItIsAndEndsWhenItsConnectionDoes() throws Exception {
        HttpResponse<String> told = call("POST", "/api/machines/1/runs/progress?proof=Fetch+a+wheel+from+slot+7", null);
        List<JsonNode> lines = told.body().lines().map(JSON::readTree).toList();
        assertThat(told.headers().firstValue("Content-Type").orElseThrow()).startsWith("application/x-ndjson");
        assertThat(lines.get(lines.size() - 1).at("/run/verdicts").size()).isPositive();
        assertThat(lines.get(lines.size() - 1).at("/refused").isNull()).isTrue();
        long stored = lines.get(lines.size() - 1).at("/run/id").asLong();
        assertThat(lines).as("the first tells of the run, or how many are before").hasSizeGreaterThan(1);
        // A long one, closed as soon as it runs, and another behind it that is closed while it waits.
        JsonNode state = JSON.readTree(call("GET", "/api/machines/1", null).body());
        ObjectNode document = (ObjectNode) state.get("document");
        ((ObjectNode) document.at("/proofs/0")).put("duration", 600);
        HttpRequest save = HttpRequest.newBuilder(URI.create("http://127.0.0.1:" + port + "/api/machines/1")).header("Content-Type", "application/json").header("If-Match", "\"" + state.get("revision").asLong() + "\"")
                .PUT(HttpRequest.BodyPublishers.ofString(document.toString())).build();
        assertThat(http.send(save, HttpResponse.BodyHandlers.ofString()).statusCode()).isEqualTo(200);
        List<Socket> sockets = new ArrayList<>();
        for (int i = 0; i < 3; i++) {
            Socket socket = new Socket(InetAddress.getLoopbackAddress(), port);
            socket.getOutputStream().write(("POST /api/machines/1/runs/progress?proof=Fetch+a+wheel+from+slot+7 HTTP/1.1\r\nHost: 127.0.0.1:" + port + "\r\nContent-Length: 0\r\n\r\n").getBytes(StandardCharsets.US_ASCII));
            hear(socket, i == 0 ? "\"of\":600" : "\"before\":" + i);
            sockets.add(socket);
        }
        for (Socket socket : sockets) {
            socket.close();
        }
        // The next in turn is answered, and nothing of those that were closed is stored.
        ((ObjectNode) document.at("/proofs/0")).put("duration", 1);
        HttpRequest back = HttpRequest.newBuilder(save.uri()).header("Content-Type", "application/json").header("If-Match", "\"" + (state.get("revision").asLong() + 1) + "\"")
                .PUT(HttpRequest.BodyPublishers.ofString(document.toString())).build();
        assertThat(http.send(back, HttpResponse.BodyHandlers.ofString()).statusCode()).isEqualTo(200);
        JsonNode run = JSON.readTree(call("POST", "/api/machines/1/runs?proof=Fetch+a+wheel+from+slot+7", null).body());
        assertThat(run.get("id").asLong()).isEqualTo(stored + 1);
    }

    private static void hear(Socket socket, String words) throws Exception {
        StringBuilder heard = new StringBuilder();
        byte[] part = new byte[4096];
        while (!heard.toString().contains(words)) {
            heard.append(new String(part, 0, socket.getInputStream().read(part), StandardCharsets.UTF_8));
        }
    }
}
