package rueda.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.net.URI;
import java.net.URLEncoder;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.TreeMap;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.boot.test.context.SpringBootTest;
import org.springframework.test.context.DynamicPropertyRegistry;
import org.springframework.test.context.DynamicPropertySource;
import rueda.app.machine.MachineJson;
import rueda.bench.Bench;
import rueda.bus.BusFamily;
import rueda.format.description.ShippedDevices;
import rueda.machine.Bus.Family;
import rueda.machine.DemoMachine;
import rueda.machine.Machine;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.JsonNodeFactory;
import tools.jackson.databind.node.ObjectNode;

/**
 * Every operation that the server describes is asked with what fits and with what does not, made from the description itself, so that an
 * operation that comes later is asked too. No answer is a mistake of ours, none shows the name of a class or a number that is none.
 *
 * <p>In the suite a few hundred requests and files; by hand {@code -Drueda.fuzz=10000 -Drueda.fuzz.files=2000}.
 */
@SpringBootTest(webEnvironment = SpringBootTest.WebEnvironment.RANDOM_PORT)
class FuzzTest {

    private static final int REQUESTS = Integer.getInteger("rueda.fuzz", 500);
    private static final int FILES = Integer.getInteger("rueda.fuzz.files", 40);
    private static final long SEED = Long.getLong("rueda.fuzz.seed", 20261126);
    private static final JsonMapper JSON = JsonMapper.builder().build();
    private static final JsonNode DEMO = JSON.readTree(MachineJson.write(DemoMachine.create()));
    private static final String[] ODD_PARTS = {"1", "0", "-1", "abc", "99999999999999999999", "2", "Shuttle", "%00", "..", "%F0%9F", "1.5", "NaN"};
    /** Names of several words that only a programmer gives: of our classes, and of the language. */
    private static final Set<String> CLASS_NAMES = new HashSet<>(List.of("ArrayList", "LinkedHashMap", "BigDecimal", "BigInteger", "IllegalArgument", "NullPointer", "JsonNode", "HashMap", "RuntimeException", "OutOfBounds"));

    @DynamicPropertySource
    static void freshDatabase(DynamicPropertyRegistry registry) throws Exception {
        registry.add("rueda.data", Files.createTempDirectory("rueda-fuzz")::toString);
    }

    @BeforeAll
    static void classNames() throws Exception {
        for (Class<?> one : List.of(Bench.class, RuedaApplication.class)) {
            Path root = Path.of(one.getProtectionDomain().getCodeSource().getLocation().toURI());
            try (Stream<Path> files = Files.isDirectory(root) ? Files.walk(root) : walk(root)) {
                files.map(f -> f.getFileName() == null ? "" : f.getFileName().toString()).filter(f -> f.endsWith(".class")).map(f -> f.substring(Math.max(f.lastIndexOf('$'), -1) + 1, f.length() - 6))
                        .filter(f -> f.matches("[A-Z][a-z]+[A-Z][A-Za-z]+")).forEach(CLASS_NAMES::add);
            }
        }
        assertThat(CLASS_NAMES).contains("MotionAxis", "CalcController", "AxisQuestion");
        // Words that the trade or a standard writes this way.
        CLASS_NAMES.removeAll(Set.of("EtherCat", "StartUp"));
    }

    private static Stream<Path> walk(Path jar) throws IOException {
        List<Path> names = new ArrayList<>();
        try (java.util.jar.JarFile file = new java.util.jar.JarFile(jar.toFile())) {
            file.stream().forEach(e -> names.add(Path.of(e.getName())));
        }
        return names.stream();
    }

    @Value("${local.server.port}")
    private int port;
    private final HttpClient http = HttpClient.newHttpClient();
    private JsonNode description;

    @BeforeEach
    void describe() throws Exception {
        description = JSON.readTree(send("GET", "/api/openapi", null, Map.of()).body());
    }

    private HttpResponse<String> send(String method, String path, byte[] body, Map<String, String> headers) throws Exception {
        HttpRequest.Builder request = HttpRequest.newBuilder(URI.create("http://127.0.0.1:" + port + path)).timeout(Duration.ofMinutes(4))
                .method(method, body == null ? HttpRequest.BodyPublishers.noBody() : HttpRequest.BodyPublishers.ofByteArray(body));
        headers.forEach(request::header);
        return http.send(request.build(), HttpResponse.BodyHandlers.ofString());
    }

    private record Operation(String method, String path, JsonNode described) {
    }

    private List<Operation> operations() {
        List<Operation> operations = new ArrayList<>();
        description.get("paths").properties().forEach(path -> path.getValue().properties().forEach(method -> operations.add(new Operation(method.getKey().toUpperCase(java.util.Locale.ROOT), path.getKey(), method.getValue()))));
        return operations;
    }

    @Test
    void everyOperationAnswersInWordsWhateverItIsAsked() throws Exception {
        Random random = new Random(SEED);
        List<Operation> operations = operations();
        Map<Integer, Integer> seen = new TreeMap<>();
        for (int k = 0; k < REQUESTS; k++) {
            Operation operation = operations.get(k < operations.size() ? k : random.nextInt(operations.size()));
            boolean fitting = k < operations.size();
            String path = filled(operation, random, fitting);
            Map<String, String> headers = new TreeMap<>();
            operation.described().path("parameters").forEach(p -> {
                if (p.get("in").asString().equals("header") && (fitting || random.nextBoolean())) {
                    headers.put(p.get("name").asString(), p.get("name").asString().equals("If-Match") ? random.nextInt(3) == 0 ? "\"x\"" : "\"" + (1 + random.nextInt(3)) + "\"" : "nobody's");
                }
            });
            JsonNode content = operation.described().at("/requestBody/content");
            byte[] body = null;
            if (content.has("application/json")) {
                headers.put("Content-Type", "application/json");
                body = json(content.get("application/json").get("schema"), random, fitting).getBytes(StandardCharsets.UTF_8);
            } else if (content.has("application/octet-stream")) {
                headers.put("Content-Type", "application/octet-stream");
                FileKind kind = FileKind.values()[random.nextInt(FileKind.values().length)];
                body = fitting ? kind.sound() : mutated(kind.sound(), random);
            }
            HttpResponse<String> answer = send(operation.method(), path, body, headers);
            seen.merge(answer.statusCode() / 100, 1, Integer::sum);
            held(answer, operation.method() + " " + path, body);
            if (operation.method().equals("PUT") && answer.statusCode() == 200) {
                restore();
            }
            if (operation.method().equals("DELETE") && path.equals("/api/machines/1") && answer.statusCode() < 300) {
                assertThat(send("POST", "/api/machines/1/restore", null, Map.of()).statusCode()).as("what is deleted comes back").isEqualTo(200);
            }
        }
        assertThat(seen.get(2)).as("%s", seen).isGreaterThan(REQUESTS / 5);
        assertThat(seen.get(4)).as("%s", seen).isGreaterThan(REQUESTS / 5);
        assertThat(send("GET", "/api/machines/1", null, Map.of()).statusCode()).isEqualTo(200);
    }

    /** A machine that was saved changed stays short to prove. */
    private void restore() throws Exception {
        JsonNode state = JSON.readTree(send("GET", "/api/machines/1", null, Map.of()).body());
        assertThat(send("PUT", "/api/machines/1", DEMO.toString().getBytes(StandardCharsets.UTF_8), Map.of("Content-Type", "application/json", "If-Match", "\"" + state.get("revision").asLong() + "\"")).statusCode()).isEqualTo(200);
    }

    private static void held(HttpResponse<String> answer, String asked, byte[] body) {
        String told = answer.body();
        String shown = asked + "\n" + (body == null ? "" : new String(body, 0, Math.min(body.length, 6000), StandardCharsets.UTF_8)) + "\n" + told.substring(0, Math.min(told.length(), 600));
        assertThat(answer.statusCode()).as(shown).isLessThan(500);
        String sent = body == null ? asked : asked + new String(body, StandardCharsets.UTF_8);
        if (answer.statusCode() >= 400) {
            assertThat(answer.headers().firstValue("Content-Type").orElse("")).as(shown).startsWith("application/problem+json");
            JsonNode problem = JSON.readTree(told);
            assertThat(problem.get("title").asString()).as(shown).isNotBlank();
            assertThat(problem.get("detail").asString()).as(shown).isNotBlank();
            Matcher words = Pattern.compile("[A-Za-z_$][\\w$.]*").matcher(told);
            while (words.find()) {
                String word = words.group();
                if (!sent.contains(word)) {
                    assertThat(CLASS_NAMES).as("%s%n%s", word, shown).doesNotContain(word);
                    assertThat(word).as(shown).doesNotMatch("(java|javax|jakarta|tools|com|org|rueda)\\.[\\w$.]+").doesNotContainPattern("[a-z]Exception");
                }
            }
        } else if (answer.headers().firstValue("Content-Type").orElse("").contains("json") && !sent.contains("NaN") && !sent.contains("Infinity")) {
            assertThat(told).as(shown).doesNotContain("NaN", "Infinity");
        }
    }

    private String filled(Operation operation, Random random, boolean fitting) {
        String path = operation.path();
        StringBuilder query = new StringBuilder();
        for (JsonNode parameter : operation.described().path("parameters")) {
            String name = parameter.get("name").asString();
            String odd = ODD_PARTS[random.nextInt(ODD_PARTS.length)];
            if (parameter.get("in").asString().equals("path")) {
                boolean fits = fitting || random.nextInt(4) > 0;
                path = path.replace("{" + name + "}", fits ? name.equals("axis") ? "Shuttle" : "1" : odd);
            } else if (parameter.get("in").asString().equals("query") && (fitting || random.nextInt(4) > 0)) {
                String value = fitting || random.nextBoolean() ? switch (name) {
                    case "signals" -> "Shuttle.position";
                    case "format" -> "csv";
                    case "name" -> "a.eds";
                    default -> "3";
                } : URLEncoder.encode(odd, StandardCharsets.UTF_8);
                query.append(query.isEmpty() ? "?" : "&").append(name).append('=').append(value);
            }
        }
        return path + query;
    }

    private String json(JsonNode schema, Random random, boolean fitting) {
        JsonNode body = sample(schema, "", random, 0);
        String text = Mutations.text(body, fitting ? 0 : random.nextInt(3), random);
        if (!fitting && random.nextInt(12) == 0) {
            return random.nextBoolean() ? text.substring(0, random.nextInt(text.length() + 1)) : new String(mutated(text.getBytes(StandardCharsets.UTF_8), random), StandardCharsets.ISO_8859_1);
        }
        return text;
    }

    /** Something of the shape that is described. */
    private JsonNode sample(JsonNode schema, String name, Random random, int depth) {
        JsonNodeFactory nodes = JsonNodeFactory.instance;
        if (schema.has("$ref")) {
            String type = schema.get("$ref").asString().replaceFirst(".*/", "");
            return switch (type) {
                case "Machine" -> DEMO.deepCopy();
                case "Axis" -> DEMO.at("/axes/0").deepCopy();
                default -> sample(description.at("/components/schemas/" + type), name, random, depth + 1);
            };
        }
        if (schema.has("enum")) {
            return schema.get("enum").get(random.nextInt(schema.get("enum").size()));
        }
        return switch (schema.path("type").asString("object")) {
            case "string" -> nodes.stringNode(switch (name) {
                case "axis" -> "Shuttle";
                case "unit" -> "mm";
                case "text" -> List.of("2.5*4", "VAR_GLOBAL a AT %QW0 : WORD; END_VAR", "Name;Type;Address\na;INT;%QW0", "").get(random.nextInt(4));
                default -> "x";
            });
            case "integer" -> nodes.numberNode(name.equals("axis") || name.equals("entry") ? random.nextInt(2) : random.nextInt(9));
            case "number" -> nodes.numberNode(random.nextInt(1, 20) / 2.0);
            case "boolean" -> nodes.booleanNode(random.nextBoolean());
            case "array" -> {
                ArrayNode array = nodes.arrayNode();
                for (int i = depth > 6 ? 0 : random.nextInt(3); i > 0; i--) {
                    array.add(sample(schema.get("items"), name, random, depth + 1));
                }
                yield array;
            }
            default -> {
                ObjectNode object = nodes.objectNode();
                schema.path("properties").properties().forEach(p -> {
                    boolean needed = schema.path("required").valueStream().anyMatch(r -> r.asString().equals(p.getKey()));
                    if (depth < 8 && (needed || random.nextBoolean())) {
                        object.set(p.getKey(), sample(p.getValue(), p.getKey(), random, depth + 1));
                    }
                });
                yield object;
            }
        };
    }

    /** What somebody brings. */
    enum FileKind {
        ESI, EDS, GSDML, ODVA, DCF, CSV, STRUCTURED_TEXT, XML, MACHINE, ENTRY;

        byte[] sound() {
            return switch (this) {
                case ESI -> ShippedDevices.file("wheelwright-w1.esi.xml");
                case EDS -> ShippedDevices.file("wheelwright-w1.eds");
                case GSDML -> ShippedDevices.file("GSDML-wheelwright-w1.xml");
                case ODVA -> ShippedDevices.file("wheelwright-w1.odva.eds");
                case DCF -> {
                    Machine can = BusFamily.moved(DemoMachine.create(), Family.CANOPEN);
                    yield rueda.format.description.DcfWriter.write(can, can.axes().get(0), ShippedDevices.file("wheelwright-w1.eds"), "11-23-2026", "08:00AM").getBytes(StandardCharsets.UTF_8);
                }
                case CSV -> "Name;Type;Address;Comment\nShuttle.Cmd.Control;WORD;%QW0;a \"b\"\nShuttle.Cmd.Position;DINT;%QD4;=1+1\n".repeat(20).getBytes(StandardCharsets.UTF_8);
                case STRUCTURED_TEXT -> "TYPE Cmd : STRUCT Control : WORD; Position : DINT; Table : ARRAY[1..4] OF INT; END_STRUCT; END_TYPE\nVAR_GLOBAL (* c *)\n  Shuttle AT %QB0 : Cmd; b AT %IX4.0 : BOOL;\nEND_VAR\n".getBytes(StandardCharsets.UTF_8);
                case XML -> ("<?xml version=\"1.0\"?><project xmlns=\"http://www.plcopen.org/xml/tc6_0201\"><instances><configurations><configuration name=\"c\"><resource name=\"r\"><globalVars>"
                        + "<variable name=\"a\" address=\"%QD4\"><type><DINT/></type></variable></globalVars></resource></configuration></configurations></instances></project>").getBytes(StandardCharsets.UTF_8);
                case MACHINE -> DEMO.toString().getBytes(StandardCharsets.UTF_8);
                case ENTRY -> "3 * (2.5 in + 4e-3 m) / 7".getBytes(StandardCharsets.UTF_8);
            };
        }
    }

    private static byte[] mutated(byte[] sound, Random random) {
        byte[] file = sound.clone();
        int kind = random.nextInt(5);
        for (int i = 0; i < 1 + random.nextInt(6) && file.length > 0; i++) {
            int at = random.nextInt(file.length);
            int from = random.nextInt(file.length);
            int length = Math.min(Math.min(file.length - from, file.length - at), 1 + random.nextInt(200));
            switch (kind) {
                case 0 -> file[at] = (byte) random.nextInt(256);
                case 1 -> file = Arrays.copyOf(file, random.nextInt(file.length + 1));
                case 2 -> System.arraycopy(file.clone(), from, file, at, length);
                case 3 -> Arrays.fill(file, at, at + length, (byte) "([{<\"'*/,;=.0-&$\\\n".charAt(random.nextInt(18)));
                // Another number where one stands.
                default -> {
                    Matcher number = Pattern.compile("[0-9]+").matcher(new String(file, StandardCharsets.ISO_8859_1));
                    if (number.find(at) || number.find(0)) {
                        String odd = List.of("99999999999999999999", "-1", "65536", "0x10000", "1e400", "0", "256", "4294967296", "#xFFFFFFFFFF").get(random.nextInt(9));
                        String text = new String(file, StandardCharsets.ISO_8859_1);
                        file = (text.substring(0, number.start()) + odd + text.substring(number.end())).getBytes(StandardCharsets.ISO_8859_1);
                    }
                }
            }
        }
        return file;
    }

    @ParameterizedTest
    @EnumSource(FileKind.class)
    void changedFilesAreReadOrRefusedInWords(FileKind kind) throws Exception {
        Random random = new Random(SEED + kind.ordinal());
        byte[] sound = kind.sound();
        for (int k = 0; k <= FILES; k++) {
            byte[] file = k == 0 ? sound : mutated(sound, random);
            String text = new String(file, StandardCharsets.ISO_8859_1);
            HttpResponse<String> answer = switch (kind) {
                case ESI, EDS, GSDML, ODVA, DCF -> bytes("/api/devices?name=" + kind, file);
                case CSV -> question("/api/calc/bus/table", JsonNodeFactory.instance.objectNode().put("text", text));
                case STRUCTURED_TEXT -> question("/api/calc/bus/declared", JsonNodeFactory.instance.objectNode().put("text", text));
                case XML -> {
                    ObjectNode compared = JsonNodeFactory.instance.objectNode().put("text", text).put("axis", 0).put("alignment", 4).put("counts", "BYTES").put("output", true);
                    compared.set("machine", DEMO);
                    yield question("/api/calc/bus/comparison", compared);
                }
                case MACHINE -> bytes("/api/machines/read", file);
                case ENTRY -> question("/api/calc/entry", JsonNodeFactory.instance.objectNode().put("text", text).put("unit", "mm"));
            };
            held(answer, kind + " " + k, file);
            if (k == 0) {
                // A description that ships is known already.
                assertThat(answer.statusCode()).as(answer.body()).isIn(200, 422);
            } else if (answer.statusCode() == 200 && kind.ordinal() < FileKind.DCF.ordinal()) {
                for (JsonNode known : JSON.readTree(send("GET", "/api/devices", null, Map.of()).body())) {
                    if (known.get("file").asLong() > 0) {
                        send("DELETE", "/api/devices/files/" + known.get("file").asLong(), null, Map.of());
                    }
                }
            }
        }
    }

    private HttpResponse<String> bytes(String path, byte[] file) throws Exception {
        return send("POST", path, file, Map.of("Content-Type", "application/octet-stream"));
    }

    private HttpResponse<String> question(String path, ObjectNode question) throws Exception {
        return send("POST", path, question.toString().getBytes(StandardCharsets.UTF_8), Map.of("Content-Type", "application/json"));
    }
}
