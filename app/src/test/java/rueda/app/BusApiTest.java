package rueda.app;

import static org.assertj.core.api.Assertions.assertThat;

import com.networknt.schema.InputFormat;
import com.networknt.schema.JsonSchemaFactory;
import com.networknt.schema.SpecVersion;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import org.springframework.boot.test.context.SpringBootTest;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.test.context.DynamicPropertyRegistry;
import org.springframework.test.context.DynamicPropertySource;
import rueda.format.description.ShippedDevices;
import rueda.app.machine.MachineJson;
import rueda.machine.DemoMachine;
import rueda.machine.EntryFault;
import rueda.machine.Machine;
import rueda.machine.MachineRules;
import rueda.plc.ProcessAddress;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/** Connect and Map over HTTP, on a real H2 file. */
@SpringBootTest(webEnvironment = SpringBootTest.WebEnvironment.RANDOM_PORT)
class BusApiTest {

    private static final JsonMapper JSON = JsonMapper.builder().build();

    @Value("${local.server.port}")
    int port;

    @DynamicPropertySource
    static void freshDatabase(DynamicPropertyRegistry registry) throws Exception {
        Path folder = Files.createTempDirectory("rueda-bus");
        registry.add("rueda.data", folder::toString);
    }

    private HttpResponse<String> call(String method, String path, byte[] body, String type) throws Exception {
        HttpRequest.Builder request = HttpRequest.newBuilder(URI.create("http://127.0.0.1:" + port + path));
        if (body != null) {
            request.header("Content-Type", type);
        }
        request.method(method, body == null ? HttpRequest.BodyPublishers.noBody() : HttpRequest.BodyPublishers.ofByteArray(body));
        return HttpClient.newHttpClient().send(request.build(), HttpResponse.BodyHandlers.ofString());
    }

    private HttpResponse<String> post(String path, String json) throws Exception {
        return call("POST", path, json.getBytes(StandardCharsets.UTF_8), "application/json");
    }

    private HttpResponse<String> file(String path, byte[] content) throws Exception {
        return call("POST", path, content, "application/octet-stream");
    }

    private JsonNode get(String path) throws Exception {
        return JSON.readTree(call("GET", path, null, null).body());
    }

    private String machine() throws Exception {
        return get("/api/machines/1").get("document").toString();
    }

    /** The published schema is that of the interface, and the demo is a machine file by it. */
    @Test
    void theMachineFileFitsItsSchema() throws Exception {
        JsonNode schema = MachineSchema.of(get("/made/openapi"));
        if (System.getProperty("rueda.write") != null) {
            java.nio.file.Files.writeString(java.nio.file.Path.of("src/main/resources/rueda/machine.schema.json"), ApiTest.indented(schema));
        }
        String published = call("GET", "/api/machines/schema", null, null).body();
        assertThat(JSON.readTree(published)).isEqualTo(schema);
        String file = call("GET", "/api/machines/1/file", null, null).body();
        var validator = JsonSchemaFactory.getInstance(SpecVersion.VersionFlag.V202012).getSchema(published);
        assertThat(validator.validate(file, InputFormat.JSON)).isEmpty();
        assertThat(validator.validate(rueda.app.machine.MachineJson.write(rueda.machine.NewMachine.named("empty").withProofs(java.util.List.of())), InputFormat.JSON)).as("a machine without axes and proofs").isEmpty();
        assertThat(validator.validate(file.replace("\"cycleMicros\" : 1000", "\"cycleMicros\" : \"fast\""), InputFormat.JSON)).isNotEmpty();
        assertThat(validator.validate(file.replace("\"cycleMicros\" : 1000", "\"cycleMicros\" : 1000, \"surprise\" : 1"), InputFormat.JSON)).as("unknown keys").isNotEmpty();
        assertThat(JSON.readTree(file("/api/machines/read", file.getBytes(StandardCharsets.UTF_8)).body())).isEqualTo(JSON.readTree(file));
        java.util.Random random = new java.util.Random(11);
        for (int i = 0; i < 60; i++) {
            byte[] changed = file.getBytes(StandardCharsets.UTF_8);
            for (int k = 0; k < 3; k++) {
                changed[random.nextInt(changed.length)] = (byte) random.nextInt(256);
            }
            assertThat(file("/api/machines/read", changed).statusCode()).as("changed file " + i).isIn(200, 422);
        }
        assertThat(file("/api/machines/read", "{\"name\":".getBytes(StandardCharsets.UTF_8)).statusCode()).isEqualTo(422);
        assertThat(file("/api/machines/read", file.replace("\"cycleMicros\" : 1000", "\"cycleMicros\" : 7").getBytes(StandardCharsets.UTF_8)).body()).contains("/bus/cycleMicros");
    }

    /** Just outside of each range that the schema names, the rules refuse that very entry; just inside, they do not, and the schema agrees both times. */
    @Test
    void theRangesOfTheSchemaAreThoseOfTheRules() throws Exception {
        var validator = JsonSchemaFactory.getInstance(SpecVersion.VersionFlag.V202012).getSchema(call("GET", "/api/machines/schema", null, null).body());
        String[] records = {"Unit /axes/0/unit", "Axis /axes/0", "Reducer /axes/0/train/reducers/0", "Motor /axes/0/motor", "Load /axes/0/load", "Brake /axes/0/brake", "Dynamics /axes/0/limits/max", "Limits /axes/0/limits", "Duty /axes/0/duty",
            "Control /axes/0/control", "Homing /axes/0/homing", "Supervision /axes/0/supervision", "Plc /plc", "Task /plc/tasks/0", "Wiring /axes/0/wiring",
            "MoveEntry /axes/0/moves/entries/0", "Cue /axes/0/moves/starters/0/cue", "Zone /axes/0/moves/zones/0", "MoveException /axes/2/moves/exceptions/0",
            "Proof /proofs/0", "Plan /proofs/0/plan", "Following /axes/3/following", "FollowRatio /axes/3/following/ratio", "Meeting /axes/3/following/meeting", "FollowWatch /axes/3/following/watch",
            "SafetyRequest /safetyRequests/0", "Protection /safetyRequests/1/protection", "AxisGuard /axes/0/guard", "StopRules /axes/0/guard/stop2", "SpeedRules /axes/0/guard/speed"};
        int checked = 0;
        for (String record : records) {
            String name = record.split(" ")[0];
            for (var entry : MachineSchema.RANGES.entrySet()) {
                if (!entry.getKey().startsWith(name + ".")) {
                    continue;
                }
                String pointer = record.split(" ")[1] + "/" + entry.getKey().substring(name.length() + 1);
                MachineSchema.Range range = entry.getValue();
                double below = range.open() ? range.low() : range.low() - 1;
                for (double outside : range.high() >= Integer.MAX_VALUE ? new double[] {below} : new double[] {below, range.high() + 1}) {
                    String changed = with(pointer, outside);
                    assertThat(validator.validate(changed, InputFormat.JSON)).as(pointer + " " + outside).isNotEmpty();
                    assertThat(fields(changed)).as(pointer + " " + outside).contains(pointer);
                }
                double inside = range.open() ? range.low() + Math.min(1, range.high()) / 2 : range.low();
                String changed = with(pointer, inside);
                assertThat(validator.validate(changed, InputFormat.JSON)).as(pointer + " " + inside).isEmpty();
                assertThat(fields(changed)).as(pointer + " " + inside).doesNotContain(pointer);
                checked++;
            }
        }
        assertThat(checked).isEqualTo(MachineSchema.RANGES.size());
    }

    /** The demo with one proof, as looking through the others takes most of the time. */
    private static String with(String pointer, double value) {
        Machine demo = DemoMachine.create();
        ObjectNode document = (ObjectNode) MachineJson.tree(demo.withProofs(demo.proofs().subList(0, 1)));
        ObjectNode parent = (ObjectNode) document.at(pointer.substring(0, pointer.lastIndexOf('/')));
        String last = pointer.substring(pointer.lastIndexOf('/') + 1);
        if (value == Math.rint(value) && Math.abs(value) < 1e15) {
            parent.put(last, (long) value);
        } else {
            parent.put(last, value);
        }
        return document.toString();
    }

    /** What the server would refuse; asking it each time takes many times as long, as it answers with all that follows from a machine. */
    private static java.util.List<String> fields(String document) {
        return MachineRules.check(MachineJson.read(document)).stream().map(EntryFault::field).toList();
    }

    /** A table in any encoding: its bytes go to the server, which reads them. */
    @Test
    void aTagTableInAnyEncoding() throws Exception {
        String csv = "Bezeichner;Datentyp;Adresse;Kommentar\nShuttle.Cmd.Control;WORD;%QW0;Käse\n";
        byte[] utf16 = ("\uFEFF" + csv).getBytes(StandardCharsets.UTF_16LE);
        for (byte[] bytes : new byte[][] {csv.getBytes(StandardCharsets.UTF_8), csv.getBytes(StandardCharsets.ISO_8859_1), utf16}) {
            JsonNode read = JSON.readTree(file("/api/calc/bus/table/text", bytes).body());
            assertThat(read.get("text").asString()).isEqualTo(csv);
        }
        JsonNode preview = JSON.readTree(post("/api/calc/bus/table", JSON.writeValueAsString(java.util.Map.of("text", csv))).body());
        assertThat(preview.at("/csv/suggested/type").asInt()).isEqualTo(1);
        assertThat(preview.at("/csv/suggested/comment").asInt()).isEqualTo(3);
    }

    @Test
    void everyFamilyMovesTheMachineAndTellsItsTimes() throws Exception {
        assertThat(get("/api/calc/bus/families")).hasSize(5);
        for (String family : new String[] {"ETHERCAT", "CANOPEN", "PROFINET", "ETHERNET_IP", "MODBUS_TCP"}) {
            String moved = post("/api/calc/bus/family", "{\"family\":\"" + family + "\",\"machine\":" + machine() + "}").body();
            assertThat(JSON.readTree(moved).at("/bus/family").asString()).isEqualTo(family);
            assertThat(JSON.readTree(post("/api/calc/bus/times", moved).body()).get("messages")).isNotEmpty();
            JsonNode stages = JSON.readTree(post("/api/calc/machine", moved).body()).get("stages");
            for (JsonNode stage : stages) {
                if (stage.get("stage").asString().matches("map|connect")) {
                    stage.at("/advice/findings").forEach(f -> assertThat(f.get("severity").asString()).as(family + f).isEqualTo("GOOD"));
                }
            }
        }
    }

    @Test
    void thePlcTableIsCompared() throws Exception {
        String table = "Name,Type,Address\\nShuttle.Cmd.Control,WORD,%QB64\\nShuttle.Cmd.Position,DINT,%QD66\\nShuttle.Cmd.Mode,SINT,%QB70\\n";
        JsonNode preview = JSON.readTree(post("/api/calc/bus/table", "{\"text\":\"" + table + "\"}").body());
        assertThat(preview.get("format").asString()).isEqualTo("CSV");
        JsonNode compared = JSON.readTree(post("/api/calc/bus/comparison", "{\"machine\":" + machine() + ",\"axis\":0,\"alignment\":1,\"counts\":\"BYTES\",\"output\":true,\"text\":\"" + table + "\"}").body());
        assertThat(compared.at("/0/findings/0/title").asString()).isEqualTo("The PLC lacks a 16-bit filler before target position.");
        HttpResponse<String> refused = post("/api/calc/bus/comparison", "{\"machine\":" + machine() + ",\"axis\":0,\"alignment\":1,\"counts\":\"BYTES\",\"output\":true,\"text\":\"VAR_GLOBAL a : WHAT; END_VAR\"}");
        assertThat(refused.statusCode()).isEqualTo(422);
        assertThat(JSON.readTree(refused.body()).at("/faults/0/value").asString()).isEqualTo("WHAT");
    }

    /** While somebody moves axes by hand the devices stay as they are: refused, and nothing of it done. */
    @Test
    void devicesAreNotExchangedUnderAHand() throws Exception {
        String key = JSON.readTree(post("/api/machines/1/control", "{\"monitoringSeconds\":5}").body()).get("key").asString();
        try {
            String before = get("/api/machines/1/bench/stand").toString();
            assertThat(post("/api/machines/1/bench/stand", "{\"axis\":\"Shuttle\",\"changes\":[\"OTHER_ADDRESS\"]}").statusCode()).isEqualTo(409);
            assertThat(get("/api/machines/1/bench/stand").toString()).isEqualTo(before);
            assertThat(post("/api/machines/1/bench/resolve", "{\"axis\":\"Shuttle\",\"way\":\"EXCHANGE\"}").statusCode()).isEqualTo(409);
        } finally {
            call("DELETE", "/api/machines/1/control/" + key, null, null);
        }
        assertThat(post("/api/machines/1/bench/stand", "{\"axis\":\"Shuttle\",\"changes\":[]}").statusCode()).isEqualTo(200);
    }

    /** Whatever stands before the first word: the format is found, whatever its length. */
    @Test
    void aTableMayBeginWithAnyNumberOfComments() throws Exception {
        for (String before : new String[] {"(* a *)\n".repeat(20_000), "// a\n".repeat(20_000), "\n \t".repeat(50_000), "(*" + "x".repeat(200_000) + "*)"}) {
            for (String[] table : new String[][] {{"VAR_GLOBAL a AT %QW0 : INT; END_VAR", "STRUCTURED_TEXT"}, {"type X : INT; end_type", "STRUCTURED_TEXT"}, {"<project/>", "XML"}, {"Variable;Type\na;INT", "CSV"}}) {
                HttpResponse<String> answer = post("/api/calc/bus/table", JSON.writeValueAsString(java.util.Map.of("text", before + table[0])));
                assertThat(answer.statusCode()).as(answer.body()).isIn(200, 422);
                if (!table[1].equals("CSV")) {
                    assertThat(JSON.readTree(answer.body()).get("format").asString()).isEqualTo(table[1]);
                }
            }
        }
        assertThat(post("/api/calc/bus/table", JSON.writeValueAsString(java.util.Map.of("text", "(*".repeat(100_000)))).statusCode()).isIn(200, 422);
    }

    /** What Rueda exports agrees with itself on every bus; half of it lacks a direction. */
    @Test
    void ourOwnTagTableRaisesNoAlarm() throws Exception {
        for (String family : new String[] {"ETHERCAT", "CANOPEN", "PROFINET", "ETHERNET_IP", "MODBUS_TCP"}) {
            JsonNode moved = JSON.readTree(post("/api/calc/bus/family", "{\"machine\":" + machine() + ",\"family\":\"" + family + "\"}").body());
            for (String format : new String[] {"CSV", "XML", "STRUCTURED_TEXT"}) {
                String table = JSON.readTree(post("/api/calc/bus/tags", "{\"machine\":" + moved + ",\"format\":\"" + format + "\"}").body()).get("text").asText();
                for (int axis : new int[] {0, 3}) {
                    JsonNode compared = compared(moved, axis, table);
                    assertThat(compared).as(family + format).hasSize(2);
                    assertThat(compared.findValuesAsString("severity")).as(family + " " + format + " " + axis + compared).containsOnly("GOOD");
                }
            }
            String half = JSON.readTree(post("/api/calc/bus/tags", "{\"machine\":" + moved + ",\"format\":\"CSV\"}").body()).get("text").asText().lines().filter(l -> !l.contains("%I")).reduce("", (a, b) -> a + b + "\n");
            assertThat(compared(moved, 0, half).toString()).as(family).contains("The table has no tag for what goes from the drive.");
        }
    }

    private JsonNode compared(JsonNode machine, int axis, String table) throws Exception {
        ObjectNode question = JSON.createObjectNode();
        question.set("machine", machine);
        question.put("axis", axis).put("text", table).put("alignment", 1).put("counts", "BYTES").put("output", true);
        return JSON.readTree(post("/api/calc/bus/comparison", question.toString()).body());
    }

    /** A DCF is of one node: its values come in although its data sheet is known, the sheet is not kept twice, and nothing changes until the machine is saved. */
    @Test
    void aConfigurationComesInAlthoughItsSheetIsKnown() throws Exception {
        String can = post("/api/calc/bus/family", "{\"machine\":" + machine() + ",\"family\":\"CANOPEN\"}").body();
        ObjectNode changed = (ObjectNode) JSON.readTree(can);
        ((ObjectNode) changed.at("/axes/2/station/address")).put("number", 33).put("name", "knife");
        ((ObjectNode) changed.at("/bus")).put("kiloBits", 500);
        String dcf = JSON.readTree(post("/api/calc/bus/dcf", "{\"machine\":" + changed + ",\"axis\":2}").body()).get("text").asText();
        assertThat(dcf).contains("[DeviceComissioning]", "NodeID=33", "LSS_Supported=0");
        int before = get("/api/devices").size();
        JsonNode brought = JSON.readTree(file("/api/devices?name=knife.dcf", dcf.getBytes(StandardCharsets.UTF_8)).body());
        assertThat(get("/api/devices")).as("the sheet is known").hasSize(before);
        assertThat(brought.at("/configuration/node").asInt()).isEqualTo(33);
        JsonNode taken = JSON.readTree(post("/api/calc/bus/dcf/taken", "{\"machine\":" + can + ",\"axis\":2,\"configuration\":" + brought.get("configuration") + "}").body());
        assertThat(taken.get("machine")).isEqualTo(changed);
        assertThat(taken.get("changes")).hasSize(3);
        HttpResponse<String> elsewhere = post("/api/calc/bus/dcf/taken", "{\"machine\":" + machine() + ",\"axis\":2,\"configuration\":" + brought.get("configuration") + "}");
        assertThat(elsewhere.statusCode()).isEqualTo(422);
        assertThat(elsewhere.body()).contains("CANopen");
        assertThat(post("/api/calc/bus/dcf/taken", "{\"machine\":" + can + ",\"axis\":2,\"configuration\":{}}").statusCode()).isBetween(400, 422);
    }

    @Test
    void descriptionsAreBroughtInAndForgotten() throws Exception {
        int before = get("/api/devices").size();
        byte[] third = new String(ShippedDevices.file("wheelwright-w1.esi.xml"), StandardCharsets.UTF_8).replace("#x00010002", "#x00010003").getBytes(StandardCharsets.UTF_8);
        assertThat(file("/api/devices?name=known.xml", ShippedDevices.file("wheelwright-w1.esi.xml")).statusCode()).as("nothing new").isEqualTo(422);
        JsonNode brought = JSON.readTree(file("/api/devices?name=new.xml", third).body());
        assertThat(brought.at("/devices")).hasSize(2);
        JsonNode known = get("/api/devices");
        assertThat(known).hasSize(before + 2);
        HttpResponse<String> refused = file("/api/devices?name=bad.xml", "<EtherCATInfo><a>".getBytes(StandardCharsets.UTF_8));
        assertThat(refused.statusCode()).isEqualTo(422);
        assertThat(refused.body()).contains("line 1").contains("Nothing of it was taken");
        assertThat(file("/api/devices?name=empty", new byte[0]).statusCode()).isEqualTo(422);
        assertThat(get("/api/devices")).hasSize(before + 2);
        assertThat(call("DELETE", "/api/devices/files/" + known.get(before).get("file").asLong(), null, null).statusCode()).isEqualTo(204);
        assertThat(get("/api/devices")).hasSize(before);
    }

    /** A file of 100 MB is refused before it is read. */
    @Test
    void aHugeFileIsRefused() throws Exception {
        HttpResponse<String> refused = file("/api/devices?name=huge.xml", new byte[100 << 20]);
        assertThat(refused.statusCode()).isEqualTo(422);
        assertThat(refused.body()).contains("up to 32 MB");
    }

    /** Data kept, changed, compared, written in part, interrupted, undone, finished. */
    @Test
    void imagesOfADevice() throws Exception {
        assertThat(post("/api/machines/1/bench/stand", "{\"axis\":\"Lift\",\"changes\":[\"HOLDS_DATA\"]}").statusCode()).isEqualTo(200);
        assertThat(get("/api/machines/1/bench/scan").at("/differences/0/kind").asString()).isEqualTo("PARAMETERS");
        JsonNode kept = JSON.readTree(post("/api/machines/1/images", "{\"axis\":\"Lift\",\"name\":\"as it arrived\"}").body());
        assertThat(get("/api/machines/1/bench/scan").get("differences")).isEmpty();
        String image = kept.get("id").asString();
        assertThat(post("/api/machines/1/images", "{\"axis\":\"Lift\",\"name\":\"\"}").statusCode()).isEqualTo(422);
        assertThat(value(image, "/control/positionGain")).containsExactly("50", "25", "25");
        JsonNode cut = JSON.readTree(post("/api/machines/1/bench/devices/Lift/parameters", "{\"groups\":[\"GAINS\",\"LIMITS\"],\"interruptedAfter\":1}").body());
        assertThat(cut.at("/axes/1/device/missing/0").asString()).isEqualTo("Limits and defaults");
        assertThat(value(image, "/control/positionGain")).containsExactly("50", "50", "25");
        assertThat(JSON.readTree(post("/api/machines/1/bench/devices/Lift/undo", "").body()).at("/axes/1/device/missing")).isEmpty();
        assertThat(value(image, "/control/positionGain")).containsExactly("50", "25", "25");
        post("/api/machines/1/bench/devices/Lift/parameters", "{\"groups\":[\"GAINS\",\"LIMITS\"],\"interruptedAfter\":1}");
        post("/api/machines/1/bench/devices/Lift/finish", "");
        assertThat(value(image, "/limits/max/acceleration")).containsExactly("2000", "2000", "1000");
        post("/api/machines/1/bench/devices/Lift/parameters", "{\"groups\":[\"GAINS\"],\"image\":" + image + "}");
        assertThat(value(image, "/control/positionGain")).containsExactly("50", "25", "25");
        String json = call("GET", "/api/machines/1/images/" + image + "/file", null, null).body();
        JsonNode again = JSON.readTree(file("/api/machines/1/images/file", json.getBytes(StandardCharsets.UTF_8)).body());
        String back = call("GET", "/api/machines/1/images/" + again.get("id").asString() + "/file", null, null).body();
        assertThat(JSON.readTree(back).get("held")).isEqualTo(JSON.readTree(json).get("held"));
        String csv = call("GET", "/api/machines/1/images/" + image + "/file?format=csv", null, null).body();
        assertThat(csv).contains("Gains,/control/positionGain,25");
        JsonNode fromCsv = JSON.readTree(file("/api/machines/1/images/file", csv.getBytes(StandardCharsets.UTF_8)).body());
        assertThat(call("GET", "/api/machines/1/images/" + fromCsv.get("id").asString() + "/file?format=csv", null, null).body()).isEqualTo(csv);
        assertThat(file("/api/machines/1/images/file", csv.replace("/control/positionGain,25", "/control/positionGain,fast").getBytes(StandardCharsets.UTF_8)).body()).contains("/control/positionGain").contains("a number");
        java.util.Random random = new java.util.Random(7);
        for (int i = 0; i < 60; i++) {
            byte[] changed = (i % 2 == 0 ? csv : json).getBytes(StandardCharsets.UTF_8);
            for (int k = 0; k < 3; k++) {
                changed[random.nextInt(changed.length)] = (byte) random.nextInt(256);
            }
            assertThat(file("/api/machines/1/images/file", changed).statusCode()).as("changed file " + i).isIn(200, 422);
        }
        assertThat(file("/api/machines/1/images/file", "{}".getBytes(StandardCharsets.UTF_8)).statusCode()).isEqualTo(422);
        assertThat(JSON.readTree(post("/api/machines/1/bench/devices/Lift/factory-reset", "").body()).at("/axes/1/device/restarting").asBoolean()).isTrue();
        assertThat(value(image, "/control/positionGain").get(1)).isEqualTo("30");
        post("/api/machines/1/bench/stand", "{\"axis\":\"Lift\",\"changes\":[]}");
    }

    /** Project, working, image. */
    private java.util.List<String> value(String image, String name) throws Exception {
        for (JsonNode group : get("/api/machines/1/bench/devices/Lift/comparison?image=" + image)) {
            for (JsonNode value : group.get("values")) {
                if (value.get("name").asString().equals(name)) {
                    return java.util.List.of(value.get("project").asString(), value.get("working").asString(), value.get("image").asString());
                }
            }
        }
        return java.util.List.of();
    }

    /** What is not as planned is found, and each difference can be resolved. */
    @Test
    void theScanFindsDifferences() throws Exception {
        post("/api/machines/1/bench/stand", "{\"axis\":\"Brush\",\"changes\":[\"OTHER_ADDRESS\"]}");
        post("/api/machines/1/bench/stand", "{\"axis\":\"Doser\",\"changes\":[\"MISSING\"]}");
        JsonNode scan = get("/api/machines/1/bench/scan");
        assertThat(scan.get("found")).hasSize(4);
        assertThat(scan.at("/differences/0/kind").asString()).isEqualTo("ADDRESS");
        assertThat(scan.at("/differences/1/kind").asString()).isEqualTo("MISSING");
        JsonNode bench = JSON.readTree(post("/api/machines/1/bench", "{\"program\":\"PROGRAM\",\"running\":false}").body());
        assertThat(bench.at("/axes/3/state").asString()).isEqualTo("not on the bus");
        post("/api/machines/1/bench/resolve", "{\"axis\":\"Brush\",\"way\":\"READDRESS\"}");
        assertThat(JSON.readTree(post("/api/machines/1/bench/resolve", "{\"axis\":\"Doser\",\"way\":\"EXCHANGE\"}").body()).get("differences")).isEmpty();
        assertThat(call("GET", "/api/machines/1/bench/scan?from=9&to=3", null, null).statusCode()).isEqualTo(422);
        assertThat(get("/api/machines/1/bench/scan?from=1&to=3").get("found")).hasSize(3);
    }

    @Test
    void openFormatsOut() throws Exception {
        assertThat(JSON.readTree(post("/api/calc/bus/eni", machine()).body()).get("text").asString()).contains("<EtherCATConfig").contains("<Name>Shuttle.Cmd.Position</Name>");
        String can = post("/api/calc/bus/family", "{\"family\":\"CANOPEN\",\"machine\":" + machine() + "}").body();
        assertThat(post("/api/calc/bus/eni", can).statusCode()).isEqualTo(422);
        assertThat(JSON.readTree(post("/api/calc/bus/dcf", "{\"axis\":0,\"machine\":" + can + "}").body()).get("text").asString()).contains("NodeID=1").contains("ParameterValue=");
        assertThat(JSON.readTree(post("/api/calc/bus/tags", "{\"format\":\"STRUCTURED_TEXT\",\"machine\":" + can + "}").body()).get("text").asString()).contains("Shuttle_Cmd AT %QB0 : Shuttle_Cmd_T;");
        JsonNode startUp = JSON.readTree(post("/api/calc/bus/startup", "{\"axis\":0,\"machine\":" + machine() + "}").body());
        assertThat(startUp.get("derived").size()).isGreaterThan(20);
        JsonNode added = JSON.readTree(post("/api/calc/axes", "{\"edit\":\"ADD\",\"name\":\"Washer\",\"machine\":" + machine() + "}").body());
        assertThat(added.at("/machine/axes/5/station/address/number").asInt()).as(added.toString()).isEqualTo(6);
        post("/api/machines/1/bench", "{\"program\":\"PROGRAM\",\"running\":false}");
        post("/api/machines/1/bench/cycle", "");
        assertThat(call("GET", "/api/machines/1/bench/traffic", null, null).body()).startsWith("\n\r\r\n");
    }

    /** Whoever loads the network information and the tag table into one PLC finds each tag at one place; the places also differ by direction. */
    @Test
    void tagTableAndNetworkInformationAgree() throws Exception {
        ObjectNode uneven = (ObjectNode) JSON.readTree(machine());
        ((ArrayNode) uneven.at("/axes/0/station/inputs")).remove(0);
        String eni = JSON.readTree(post("/api/calc/bus/eni", uneven.toString()).body()).get("text").asString();
        String csv = JSON.readTree(post("/api/calc/bus/tags", "{\"format\":\"CSV\",\"machine\":" + uneven + "}").body()).get("text").asString();
        int compared = 0;
        for (String line : csv.lines().skip(1).toList()) {
            String[] cells = line.split(",");
            java.util.regex.Matcher variable = java.util.regex.Pattern.compile("<Name>" + java.util.regex.Pattern.quote(cells[0]) + "</Name>.*?<BitOffs>(\\d+)</BitOffs>", java.util.regex.Pattern.DOTALL).matcher(eni);
            assertThat(variable.find()).as(line).isTrue();
            assertThat(ProcessAddress.of(cells[2], ProcessAddress.Counts.BYTES).orElseThrow().bitOffset()).as(line).isEqualTo(Integer.parseInt(variable.group(1)));
            compared++;
        }
        assertThat(compared).isGreaterThan(20);
    }

    @Test
    void aTagThatIsBoundTwiceIsNamedInsteadOfExported() throws Exception {
        ObjectNode twice = (ObjectNode) JSON.readTree(machine());
        String tag = twice.at("/axes/0/station/outputs/0/tag").asString();
        ((ObjectNode) twice.at("/axes/1/station/outputs/0")).put("tag", tag.toLowerCase(java.util.Locale.ROOT));
        HttpResponse<String> refused = post("/api/calc/bus/tags", "{\"format\":\"STRUCTURED_TEXT\",\"machine\":" + twice + "}");
        assertThat(refused.statusCode()).isEqualTo(422);
        assertThat(refused.body()).contains("bound more than once").contains(tag.toLowerCase(java.util.Locale.ROOT));
    }

    /** A machine begins without axes: whatever is asked about it is answered, or refused in words. */
    @ParameterizedTest
    @EnumSource(rueda.machine.Bus.Family.class)
    void aMachineWithoutAxesIsAnswered(rueda.machine.Bus.Family family) throws Exception {
        ObjectNode begun = (ObjectNode) JSON.readTree(machine());
        ((ArrayNode) begun.at("/axes")).removeAll();
        ((ObjectNode) begun.at("/plc/files/0")).put("source", "PROGRAM P END_PROGRAM");
        ((ArrayNode) begun.at("/proofs")).removeAll();
        String empty = post("/api/calc/bus/family", "{\"family\":\"" + family + "\",\"machine\":" + begun + "}").body();
        JsonNode answer = JSON.readTree(post("/api/calc/machine", empty).body());
        assertThat(answer.at("/faults")).as(answer.toString()).isEmpty();
        assertThat(answer.at("/program/diagnostics")).isEmpty();
        assertThat(JSON.readTree(post("/api/calc/overview", empty).body()).at("/toDo/0/words").asString()).isEqualTo("Add the first axis");
        for (String path : java.util.List.of("/api/calc/bus/times", "/api/calc/bus/eni", "/api/calc/bus/clocks")) {
            HttpResponse<String> given = post(path, empty);
            assertThat(given.statusCode()).as(path + given.body()).isIn(200, 422);
            assertThat(given.body()).doesNotContain("NaN", "Infinity");
        }
        for (String path : java.util.List.of("homing", "wiring", "response", "step", "movement", "turn", "bus/startup", "bus/dcf")) {
            String faults = java.util.List.of("wiring", "movement", "turn").contains(path) ? "\"faults\":[]," : "";
            HttpResponse<String> given = post("/api/calc/" + path, "{\"axis\":0," + faults + "\"machine\":" + empty + "}");
            assertThat(given.statusCode()).as(path + given.body()).isEqualTo(422);
            assertThat(given.body()).contains("add an axis");
        }
        for (String format : java.util.List.of("STRUCTURED_TEXT", "XML", "CSV")) {
            assertThat(post("/api/calc/bus/tags", "{\"format\":\"" + format + "\",\"machine\":" + empty + "}").statusCode()).isIn(200, 422);
        }
    }
}
