package rueda.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.io.InputStream;
import java.io.OutputStream;
import java.net.Socket;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.boot.test.context.SpringBootTest;
import org.springframework.test.context.DynamicPropertyRegistry;
import org.springframework.test.context.DynamicPropertySource;
import rueda.app.machine.MachineJson;
import rueda.machine.DemoMachine;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ObjectNode;

/** What strangers send: pages of others, forms, half documents, values of the wrong kind. Nothing changes, nothing fails, every answer is in words. */
@SpringBootTest(webEnvironment = SpringBootTest.WebEnvironment.RANDOM_PORT)
class HardeningTest {

    private static final JsonMapper JSON = JsonMapper.builder().build();

    @DynamicPropertySource
    static void freshDatabase(DynamicPropertyRegistry registry) throws Exception {
        Path folder = Files.createTempDirectory("rueda-hard");
        registry.add("rueda.data", folder::toString);
    }

    @Value("${local.server.port}")
    private int port;

    private final HttpClient http = HttpClient.newHttpClient();

    private HttpResponse<String> call(String method, String path, String body, String... headers) throws Exception {
        HttpRequest.Builder request = HttpRequest.newBuilder(URI.create("http://127.0.0.1:" + port + path)).timeout(Duration.ofSeconds(60))
                .method(method, body == null ? HttpRequest.BodyPublishers.noBody() : HttpRequest.BodyPublishers.ofString(body));
        for (int i = 0; i < headers.length; i += 2) {
            request.header(headers[i], headers[i + 1]);
        }
        return http.send(request.build(), HttpResponse.BodyHandlers.ofString());
    }

    private HttpResponse<String> json(String path, String body) throws Exception {
        return call("POST", path, body, "Content-Type", "application/json");
    }

    /** As a browser would send it; the client library does not let a test write Origin with an odd Host. */
    private String raw(String request) throws Exception {
        try (Socket socket = new Socket("127.0.0.1", port)) {
            socket.setSoTimeout(20_000);
            OutputStream out = socket.getOutputStream();
            out.write(request.getBytes(StandardCharsets.ISO_8859_1));
            out.flush();
            InputStream in = socket.getInputStream();
            return new String(in.readAllBytes(), StandardCharsets.UTF_8);
        }
    }

    private static void inWords(HttpResponse<String> answer) {
        assertThat(answer.headers().firstValue("Content-Type").orElse("")).as(answer.body()).startsWith("application/problem+json");
        JsonNode problem = JSON.readTree(answer.body());
        assertThat(problem.get("title").asString()).isNotBlank();
        assertThat(problem.get("detail").asString()).isNotBlank();
        assertThat(answer.body()).doesNotContain("java.", "tools.jackson", "org.spring", "rueda.", "stackTrace").doesNotContainPattern("[a-z]Exception");
    }

    @ParameterizedTest
    @ValueSource(strings = {"POST /api/machines/1/bench/run", "POST /api/machines/1/bench/hold", "POST /api/machines/1/bench/stop", "POST /api/machines/1/bench/cycle", "POST /api/machines/1/runs", "POST /api/machines/1/undo", "PUT /api/machines/1",
        "POST /api/machines/1/control", "POST /api/machines/1/bench/devices/Shuttle/factory-reset", "POST /api/devices?name=a.eds", "DELETE /api/machines/1/images/1", "POST /api/calc/scale", "POST /api/machines/1/bench/condition"})
    void aForeignPageChangesNothing(String request) throws Exception {
        for (String foreign : List.of("Origin: http://evil.example", "Origin: http://127.0.0.1:1", "Origin: http://localhost:9999", "Origin: null", "Origin: https://127.0.0.1:" + port,
                "Origin: http://localhost:" + port, "Sec-Fetch-Site: cross-site", "Sec-Fetch-Site: same-site", "Origin: %%", "Origin: http://127.0.0.1:" + port + "@evil.example")) {
            for (String type : List.of("", "Content-Type: application/json\r\n", "Content-Type: application/octet-stream\r\n")) {
                String answer = raw(request + " HTTP/1.1\r\nHost: 127.0.0.1:" + port + "\r\nConnection: close\r\n" + foreign + "\r\n" + type + "Content-Length: 2\r\n\r\n{}");
                assertThat(answer).as(foreign).startsWith("HTTP/1.1 403").contains("application/problem+json", "Only Rueda's own page");
            }
        }
        assertThat(JSON.readTree(call("GET", "/api/machines/1", null).body()).get("revision").asInt()).isEqualTo(1);
        assertThat(call("GET", "/api/machines/1/runs/latest", null).body()).isEqualTo("[]");
    }

    @Test
    void ownPageAndProgramsAreServedUnderEveryNameOfThisComputer() throws Exception {
        for (String host : List.of("127.0.0.1", "localhost", "LOCALHOST", "[::1]")) {
            String name = host + ":" + port;
            assertThat(raw("POST /api/calc/entry HTTP/1.1\r\nHost: " + name + "\r\nOrigin: http://" + name.toLowerCase() + "\r\nSec-Fetch-Site: same-origin\r\nConnection: close\r\nContent-Type: application/json\r\n"
                    + "Content-Length: 26\r\n\r\n{\"text\":\"2*3\",\"unit\":\"mm\"} ".strip())).startsWith("HTTP/1.1 200");
        }
        assertThat(json("/api/calc/entry", "{\"text\":\"2*3\",\"unit\":\"mm\"}").statusCode()).isEqualTo(200);
        assertThat(raw("GET /api/machines HTTP/1.1\r\nHost: evil.example\r\nConnection: close\r\n\r\n")).startsWith("HTTP/1.1 403");
    }

    /** What a form of any page can send without asking, and what says nothing of itself. */
    @ParameterizedTest
    @ValueSource(strings = {"Content-Type: text/plain\r\n", "Content-Type: application/x-www-form-urlencoded\r\n", "Content-Type: multipart/form-data; boundary=x\r\n", "", "Content-Type: garbage\r\n"})
    void bodiesSayWhatTheyAre(String type) throws Exception {
        for (String path : List.of("/api/calc/entry", "/api/devices?name=x.eds", "/api/machines/1/images/file", "/api/machines/1/bench/condition")) {
            String answer = raw("POST " + path + " HTTP/1.1\r\nHost: 127.0.0.1:" + port + "\r\nConnection: close\r\n" + type + "Content-Length: 2\r\n\r\n{}");
            assertThat(answer).startsWith("HTTP/1.1 415").contains("application/problem+json", "Content-Type is");
        }
    }

    @Test
    void everyAnswerTellsTheBrowserWhatIsAllowed() throws Exception {
        for (String path : List.of("/", "/machines/1/map/Lift", "/api/machines", "/api/nothing", "/wheel.svg")) {
            var headers = call("GET", path, null).headers();
            assertThat(headers.firstValue("Content-Security-Policy").orElse("")).as(path).contains("default-src 'none'", "script-src 'self';", "frame-ancestors 'none'", "base-uri 'none'", "form-action 'none'")
                    .doesNotContain("unsafe");
            assertThat(headers.firstValue("X-Content-Type-Options")).contains("nosniff");
            assertThat(headers.firstValue("X-Frame-Options")).contains("DENY");
            assertThat(headers.firstValue("Referrer-Policy")).contains("no-referrer");
        }
        HttpResponse<String> page = call("GET", "/", null);
        String policy = page.headers().firstValue("Content-Security-Policy").orElseThrow();
        String nonce = policy.replaceFirst(".*'nonce-([^']+)'.*", "$1");
        assertThat(page.body()).contains("content=\"" + nonce + "\"");
        assertThat(call("GET", "/", null).body()).doesNotContain(nonce);
    }

    @ParameterizedTest
    @CsvSource(delimiter = '|', value = {
            "GET    | /api/nothing                     | 404",
            "GET    | /nothing                         | 404",
            "GET    | /api/machines/999                | 404",
            "GET    | /api/machines/abc                | 400",
            "GET    | /api/machines/99999999999999999999 | 400",
            "PATCH  | /api/machines/1                  | 405",
            "GET    | /api/calc/scale                  | 405",
            "DELETE | /api/machines                    | 405",
            "GET    | /api/runs/1/trace                | 400",
            "GET    | /api/runs/1/trace?signals=a&from=x | 400",
            "GET    | /api/machines/1/images/7/file               | 404",
            "DELETE | /api/machines/1/images/x                    | 400",
            "GET    | /api/machines/1/bench/scan?from=9&to=1 | 422",
            "POST   | /api/machines/1/bench/run                   | 404",
            "POST   | /api/machines/1/undo             | 428",
            "POST   | /api/machines/1/bench/devices/Nobody/keep   | 404"})
    void everyRefusalIsAProblemDocument(String method, String path, int status) throws Exception {
        HttpResponse<String> answer = call(method, path.strip(), null);
        assertThat(answer.statusCode()).as(answer.body()).isEqualTo(status);
        inWords(answer);
        HttpResponse<String> html = call(method, path.strip(), null, "Accept", "text/html");
        assertThat(html.body()).doesNotContain("<html", "Whitelabel");
    }

    @ParameterizedTest
    @ValueSource(strings = {"GET /api/[] HTTP/1.1", "GET /api/%zz HTTP/1.1", "GET /api/..%2f HTTP/1.1", "GET /%00 HTTP/1.1", "FOO / HTTP/1.1", "GET / HTTP/9.9"})
    void whatTheContainerRefusesIsAProblemDocumentToo(String line) throws Exception {
        String answer = raw(line + "\r\nHost: 127.0.0.1:" + port + "\r\nConnection: close\r\n\r\n");
        assertThat(answer).matches("(?s)HTTP/1.1 (4|5)\\d\\d.*").doesNotContain("<html", "Tomcat", "java.");
    }

    private static String demo(String pointer, String value) {
        ObjectNode document = (ObjectNode) JSON.readTree(MachineJson.write(DemoMachine.create()));
        String text = document.toString();
        JsonNode node = document.at(pointer);
        ObjectNode parent = (ObjectNode) document.at(pointer.substring(0, pointer.lastIndexOf('/')));
        assertThat(node.isMissingNode() && !value.startsWith("NEW")).as(pointer).isFalse();
        parent.put(pointer.substring(pointer.lastIndexOf('/') + 1), "\u0000PLACE");
        return document.toString().replace("\"\\u0000PLACE\"", value.replace("NEW", ""));
    }

    /** Every refusal names its place, what stood there and what is allowed. */
    @ParameterizedTest
    @CsvSource(delimiter = '|', value = {
            "/axes/0/train/reducers/0/motorTurns | 9.1        | 9.1         | a whole number",
            "/axes/0/train/reducers/0/motorTurns | 91e-1      | 91e-1       | a whole number",
            "/axes/0/train/reducers/0/motorTurns | \"91\"     | 91          | a whole number",
            "/axes/0/train/reducers/0/motorTurns | 99999999999999999999 | 99999999999999999999 | a whole number",
            "/axes/0/train/reducers/0/motorTurns | true       | true        | a whole number",
            "/axes/0/train/reducers/0/motorTurns | null       | nothing     | a whole number",
            "/bus/cycleMicros                    | 1000.5     | 1000.5      | a whole number",
            "/plc/instructionBudget              | 2.5        | 2.5         | a whole number",
            "/axes/0/load/mass                   | \"NaN\"    | NaN         | a number",
            "/axes/0/load/mass                   | \"Infinity\" | Infinity  | a number",
            "/axes/0/load/mass                   | 1e400      | 1e400       | a number",
            "/axes/0/load/mass                   | []         | a list      | a number",
            "/axes/0/load/mass                   | {}         | an object   | a number",
            "/axes/0/limits/softMax              | 1e999999999 | 1e999999999 | a number",
            "/axes/0/limits/softMax              | 6.0E-4294967296 | 6.0E-4294967296 | a number",
            "/axes/0/train/feed/amount           | 1E4294967296 | 1E4294967296 | a number",
            "/axes/0/limits/softMax              | 1e-999999999 | 1e-999999999 | a number",
            "/axes/0/train/feed/kind                   | 0          | 0           | RACK",
            "/axes/0/train/feed/kind                   | \"WHEEL\"  | WHEEL       | RACK",
            "/axes/0/train/feed/surprise               | NEW1       | not known here | kind",
            "/surprise                           | NEW1       | not known here | axes",
            "/axes/0/load                        | 5          | of another kind | an object",
            "/axes                               | {}         | of another kind | a list",
            "/bus/lowWordFirst                   | 7          | 7           | true or false",
            "/bus/lowWordFirst                   | 0          | 0           | true or false",
            "/bus/lowWordFirst                   | \"true\" | true        | true or false",
            "/bus/family                         | 0          | 0           | ETHERCAT",
            "/bus/family                         | \"ethercat\" | ethercat | ETHERCAT",
            "/axes/0/name                        | 5          | 5           | text in quotes",
            "/axes/0/wiring                      | null       | missing     | a value",
            "/axes/0/station/outputs             | null       | missing     | a list",
            "/plc/files/0/source                 | null       | missing     | a value",
            "/plc/tasks/0/intervalMicros         | 1.5        | 1.5         | a whole number",
            "/axes/0/commandedBy                 | \"NOBODY\" | NOBODY      | MOTION_BLOCKS",
            "/axes/0/station/kind                | null       | missing     | a value",
            "/proofs                             | null       | missing     | a list",
            "/proofs/0/group                     | null       | missing     | a value"})
    void everyRefusedEntryIsNamed(String pointer, String value, String shown, String allowed) throws Exception {
        String document = demo(pointer, value.strip());
        for (String path : List.of("/api/calc/machine", "/api/calc/program", "/api/calc/bus/times")) {
            HttpResponse<String> answer = json(path, document);
            assertThat(answer.statusCode()).as(answer.body()).isIn(400, 422);
            inWords(answer);
            JsonNode fault = JSON.readTree(answer.body()).at("/faults/0");
            assertThat(fault.get("field").asString()).isEqualTo(pointer);
            assertThat(fault.get("value").asString()).isEqualTo(shown.strip());
            assertThat(fault.get("allowed").asString()).contains(allowed.strip());
        }
        HttpResponse<String> saved = call("PUT", "/api/machines/1", document, "Content-Type", "application/json", "If-Match", "1");
        assertThat(saved.statusCode()).isIn(400, 422);
        HttpResponse<String> read = call("POST", "/api/machines/read", document, "Content-Type", "application/octet-stream");
        assertThat(read.statusCode()).as(read.body()).isEqualTo(422);
        assertThat(read.body()).contains(pointer);
    }

    @Test
    void bareNaNAndBrokenTextNameTheirLine() throws Exception {
        for (String body : List.of("{\"text\": NaN}", "{\"text\":", "{\"text\":\"a\"", "[1,2", "", "{}}", "{\"text\":\"1\",\"unit\":\"mm\"} x", "[".repeat(100_000), "\u0000")) {
            HttpResponse<String> answer = json("/api/calc/entry", body);
            assertThat(answer.statusCode()).as(body.substring(0, Math.min(20, body.length()))).isEqualTo(400);
            inWords(answer);
        }
        assertThat(json("/api/calc/entry", "{\"text\":\n NaN}").body()).contains("line 2");
        assertThat(json("/api/calc/entry", "{\"text\":\"" + "(".repeat(100_000) + "\",\"unit\":\"mm\"}").statusCode()).isEqualTo(422);
    }

    /** Stored as it is given, and given as a file under a name that no system misreads. */
    @ParameterizedTest
    @CsvSource({"../../etc/passwd, ", "a\"b;c, ", "Käse Zelle ☃, K", "-rf, "})
    void fileNamesAreSafe(String name, String begins) throws Exception {
        String header = rueda.app.web.Downloads.named(name + ".json");
        assertThat(header).startsWith("attachment; ").doesNotContain("..", "/", "\\", "\n", "\r");
        assertThat(header.replaceAll("=\\?UTF-8\\?Q\\?[^\"]*", "")).matches("attachment; filename=\"[^\"]*\"(; filename\\*=UTF-8''[-A-Za-z0-9!#$&+.^_`|~%]+)?");
    }

    /** Documents with entries exchanged for odd ones: refused or answered, quickly, never with a mistake of ours. */
    @Test
    void mutatedDocumentsAreNeverAMistakeOfOurs() throws Exception {
        Random random = new Random(20261125);
        JsonNode demo = JSON.readTree(MachineJson.write(DemoMachine.create()));
        int refused = 0;
        int answered = 0;
        for (int k = 0; k < 600; k++) {
            String body = Mutations.text(demo.deepCopy(), 1 + random.nextInt(2), random);
            String path = switch (k % 8) {
                case 0, 1 -> "/api/calc/machine";
                case 2 -> "/api/calc/scale";
                case 3 -> "/api/calc/bus/times";
                case 4 -> "/api/calc/bus/eni";
                case 5 -> "/api/calc/bus/tags";
                case 6 -> "/api/calc/value";
                default -> "/api/calc/program";
            };
            String question = switch (k % 8) {
                case 2 -> "{\"machine\":" + body + ",\"axis\":" + (random.nextInt(4) == 0 ? List.of("-1", "99", "null", "1.5", "\"x\"", "1e19").get(random.nextInt(6)) : random.nextInt(5)) + "}";
                case 5 -> "{\"machine\":" + body + ",\"format\":\"" + List.of("CSV", "XML", "STRUCTURED_TEXT").get(random.nextInt(3)) + "\"}";
                case 6 -> "{\"machine\":" + body + ",\"axis\":" + random.nextInt(5) + ",\"direction\":\"OUTPUTS\",\"entry\":" + random.nextInt(4) + ",\"value\":" + List.of("1", "1e300", "-5", "0").get(random.nextInt(4)) + "}";
                default -> body;
            };
            HttpResponse<String> answer = json(path, question);
            assertThat(answer.statusCode()).as("%s %s%n%s", path, answer.body().substring(0, Math.min(300, answer.body().length())), body).isLessThan(500);
            assertThat(answer.body()).as(path).doesNotContain("java.", "tools.jackson").doesNotContainPattern("[a-z]Exception");
            if (answer.statusCode() >= 400) {
                inWords(answer);
                refused++;
            } else {
                answered++;
                // What was entered is shown as it was entered, also when somebody enters these.
                if (!body.contains("NaN") && !body.contains("Infinity")) {
                    assertThat(answer.body()).as("%s%n%s", path, body).doesNotContain("NaN", "Infinity");
                }
                assertThat(answer.body()).as("%s%n%s", path, body).doesNotContain("null,null");
            }
        }
        assertThat(refused).isGreaterThan(30);
        assertThat(answered).isGreaterThan(30);
    }
}
