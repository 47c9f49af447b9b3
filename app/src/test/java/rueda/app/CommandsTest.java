package rueda.app;

import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.ByteArrayOutputStream;
import java.io.PrintStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.junit.jupiter.api.io.TempDir;
import rueda.app.machine.MachineJson;
import rueda.machine.Circumstance;
import rueda.machine.Condition;
import rueda.machine.DemoMachine;
import rueda.machine.Expectation;
import rueda.machine.Axis;
import rueda.machine.MoveList;
import rueda.machine.Terminal.Function;
import rueda.machine.Machine;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ObjectNode;
import rueda.machine.Proof;
import rueda.machine.Plc;

import static org.assertj.core.api.Assertions.assertThat;

class CommandsTest {

    @TempDir
    Path folder;

    @Test
    void theMachineFileReadsBackEqual() {
        Machine demo = DemoMachine.create();
        assertThat(MachineJson.read(MachineJson.write(demo))).isEqualTo(demo);
    }

    /** The Shuttle as the first version of this program wrote it. */
    @Test
    void anOlderDocumentStillOpens() {
        Machine old = MachineJson.read("""
                {"name":"m","bus":{"cycleMicros":1000},"plc":{"taskIntervalMicros":2000,"instructionBudget":200000,"program":"PROGRAM P END_PROGRAM"},
                 "proof":{"name":"p","duration":1,"expectations":[]},"axes":[{"name":"Shuttle","unit":{"symbol":"mm","decimals":4,"metres":0.001},
                 "motor":{"inertia":1.1e-4,"ratedTorque":0.95,"peakTorque":2.4,"maxSpeed":5000},"encoder":{"countsPerTurn":524288},
                 "reducer":{"motorTurns":91,"outputTurns":10},"feed":{"teeth":24,"pitch":5},"load":{"mass":160,"coulomb":45,"viscous":60},
                 "travel":{"length":2560,"negativeLimit":40,"positiveLimit":2520,"camFrom":100,"camTo":160,"parkedAt":620},
                 "limits":{"softMin":-20,"softMax":2330,"maxSpeed":950,"maxAcceleration":6000,"maxJerk":60000,"quickStop":6000,"followingError":5,"followingErrorTime":20},
                 "homing":{"method":11,"searchSpeed":120,"creepSpeed":12,"acceleration":800,"zeroOffset":0},
                 "control":{"positionGain":60,"velocityGain":0.25,"integralTime":20,"feedForward":1,"torqueForward":1},
                 "station":{"outputs":[],"inputs":[]}}]}""");
        assertThat(rueda.machine.MachineRules.check(old)).isEmpty();
        assertThat(old.axes().get(0).scale()).isEqualTo(DemoMachine.shuttle().scale());
        assertThat(old.axes().get(0).limits().max().speed()).isEqualTo(950);
        assertThat(old.axes().get(0).supervision().followingError()).isEqualTo(5);
        assertThat(old.axes().get(0).supervision().allowedFollowingError(950, 950)).as("it did not grow with speed").isEqualTo(5);
        assertThat(old.axes().get(0).wiring().terminals()).extracting(rueda.machine.Terminal::name).contains("STO", "A1", "X2");
        assertThatThrownBy(() -> MachineJson.read("{\"name\": ")).isInstanceOf(IllegalArgumentException.class);
        assertThatThrownBy(() -> MachineJson.read("null")).isInstanceOf(IllegalArgumentException.class).hasMessageContaining("holds no machine");
    }

    /** A document with one program, one task and one proof, as it was saved until axes could say who commands them. */
    @Test
    void aDocumentWithOneProgramStillOpens() {
        ObjectNode saved = oneProgram((ObjectNode) MachineJson.tree(DemoMachine.create()).deepCopy());
        Machine demo = DemoMachine.create();
        Machine now = demo.withPlc(demo.plc().withFiles(List.of(new Plc.SourceFile(Plc.SourceFile.USUAL, demo.plc().program())))).withAxes(demo.axes().stream().map(CommandsTest::read).toList())
                .withProofs(demo.proofs().stream().limit(1).map(p -> new Proof(p.name(), p.duration(), p.expectations())).toList());
        assertThat(MachineJson.read(saved.toString())).isEqualTo(now);
        assertThat(MachineJson.readFile(saved.toString())).isEqualTo(now);
        ((ObjectNode) saved.get("plc")).put("surprise", 1);
        assertThatThrownBy(() -> MachineJson.readFile(saved.toString())).hasMessageContaining("surprise");
        ObjectNode held = (ObjectNode) MachineJson.tree(DemoMachine.create()).deepCopy();
        assertThat(MachineJson.readHeld(oneProgram(held).at("/axes/1").toString(), rueda.machine.Axis.class, "")).as("what a device held").isEqualTo(read(demo.axes().get(1)));
        /* half of it is no document: what is missing is named, not made up */
        assertThatThrownBy(() -> MachineJson.read("{\"name\":\"m\",\"bus\":" + saved.get("bus") + ",\"axes\":[],\"plc\":{\"program\":null}}")).hasMessageContaining("/plc/");
        assertThatThrownBy(() -> MachineJson.read(saved.deepCopy().<ObjectNode>put("plc", 5).toString())).hasMessageContaining("plc");
    }

    private static ObjectNode oneProgram(ObjectNode document) {
        ObjectNode plc = (ObjectNode) document.get("plc");
        plc.set("program", plc.at("/files/0/source"));
        plc.set("taskIntervalMicros", plc.at("/tasks/0/intervalMicros"));
        plc.remove(List.of("files", "tasks"));
        ObjectNode proof = (ObjectNode) document.remove("proofs").get(0);
        proof.remove(List.of("group", "purpose", "on", "script", "conditions", "plan"));
        proof.get("expectations").forEach(expectation -> ((ObjectNode) expectation).remove("span"));
        document.set("proof", proof);
        document.get("axes").forEach(axis -> {
            ((ObjectNode) axis).remove("commandedBy");
            ((ObjectNode) axis.get("station")).remove("kind");
            oneZone((ObjectNode) axis);
        });
        return document;
    }

    /** As an axis was saved until it had a move list: one zone, in the wiring. */
    private static void oneZone(ObjectNode axis) {
        JsonNode zone = axis.at("/moves/zones/0");
        boolean shown = false;
        for (JsonNode terminal : axis.at("/wiring/terminals")) {
            if (terminal.get("function").asString().equals("ZONE_1")) {
                ((ObjectNode) terminal).put("function", "IN_ZONE");
                shown = true;
            } else if (terminal.get("function").asString().equals("LIST_1")) {
                ((ObjectNode) terminal).put("function", "NONE");
            }
        }
        ObjectNode wiring = (ObjectNode) axis.get("wiring");
        wiring.put("zoneFrom", shown ? zone.get("from").asDouble() : 0).put("zoneTo", shown ? zone.get("to").asDouble() : 0);
        axis.remove("moves");
    }

    /** The same axis as it is read then: its zone is zone 1 of a list without entries. */
    private static Axis read(Axis axis) {
        boolean shown = axis.wiring().terminal(Function.ZONE_1).isPresent();
        Axis read = axis.withMoves(shown ? MoveList.EMPTY.withZones(List.of(new MoveList.Zone(axis.moves().zones().get(0).from(), axis.moves().zones().get(0).to(), 0, MoveList.Passing.BOTH, true))) : MoveList.EMPTY);
        return read.wiring().terminal(Function.LIST_1).map(t -> read.withWiring(read.wiring().with(t.name(), Function.NONE))).orElse(read);
    }

    /** Every proof of the file runs, or the one that is named. */
    @Test
    void proofsAreRunByName() throws Exception {
        Machine demo = DemoMachine.create();
        Proof fails = demo.proofs().get(0);
        Proof holds = fails.withName("Holds").withExpectations(fails.expectations().subList(0, 1));
        Path file = java.nio.file.Files.writeString(folder.resolve("two.json"), MachineJson.write(demo.withProofs(List.of(holds, fails))));
        assertThat(run("prove", file.toString())).isEqualTo(1);
        assertThat(run("prove", "--proof", "holds", file.toString())).isZero();
        assertThat(run("prove", "--proof", fails.name(), file.toString())).isEqualTo(1);
        assertThat(run("prove", "--proof", "nobody", file.toString())).isEqualTo(2);
        java.nio.file.Files.writeString(file, MachineJson.write(demo.withProofs(List.of())));
        assertThat(run("prove", file.toString())).as("nothing to run is no success").isEqualTo(2);
    }

    /** Groups, proofs that are off, conditions, and both kinds of report. */
    @Test
    void groupsConditionsAndReports() throws Exception {
        Machine demo = DemoMachine.create();
        Proof fetch = demo.proofs().get(0).withDuration(0.5).withExpectations(List.of(Expectation.bound("Shuttle", Expectation.Quantity.SPEED, 500), Expectation.sentence("ALWAYS(Shuttle.torque < 100)")));
        Proof other = fetch.withName("Other <&> ✓").withGroup("Night").withConditions(List.of(Condition.values(Circumstance.MASS, "Shuttle", 100.0, 200.0))).withExpectations(List.of(Expectation.bound("Shuttle", Expectation.Quantity.SPEED, 500), Expectation.bound("Shuttle", Expectation.Quantity.TORQUE, 0.001)));
        Path file = java.nio.file.Files.writeString(folder.resolve("groups.json"), MachineJson.write(demo.withProofs(List.of(fetch, other, fetch.withName("Off").withOn(false)))));
        Path json = folder.resolve("out.json");
        Path junit = folder.resolve("out.xml");
        assertThat(run("prove", "--json", json.toString(), "--group", "fetching", file.toString())).isZero();
        JsonNode report = tools.jackson.databind.json.JsonMapper.builder().build().readTree(java.nio.file.Files.readString(json));
        assertThat(report.get("proofs")).hasSize(1);
        assertThat(report.at("/proofs/0/conditions").isNull()).isTrue();
        assertThat(run("prove", "--json", json.toString(), "--group", "nobody", file.toString())).isEqualTo(2);
        assertThat(run("prove", "--json", json.toString(), "--proof", "off", file.toString())).isZero();
        assertThat(run("prove", "--json", json.toString(), "--junit", junit.toString(), "--conditions", "--seed", "5", file.toString())).isEqualTo(1);
        report = tools.jackson.databind.json.JsonMapper.builder().build().readTree(java.nio.file.Files.readString(json));
        assertThat(report.get("proofs")).as("the one that is off does not run").hasSize(2);
        assertThat(report.at("/proofs/1/conditions/runs").asInt()).isEqualTo(3);
        /* as a reader of JUnit XML sees it */
        org.w3c.dom.Document xml = javax.xml.parsers.DocumentBuilderFactory.newInstance().newDocumentBuilder().parse(junit.toFile());
        assertThat(xml.getElementsByTagName("testsuite").getLength()).isEqualTo(2);
        org.w3c.dom.Element second = (org.w3c.dom.Element) xml.getElementsByTagName("testsuite").item(1);
        assertThat(second.getAttribute("name")).isEqualTo("Other <&> ✓");
        assertThat(second.getAttribute("tests")).as("two expectations, once and under conditions").isEqualTo("4");
        assertThat(second.getElementsByTagName("failure").getLength()).isEqualTo(Integer.parseInt(second.getAttribute("failures"))).isEqualTo(2);
        assertThat(((org.w3c.dom.Element) second.getElementsByTagName("failure").item(1)).getAttribute("message")).contains("in 3 of 3 runs");
    }

    /** A recording in the folder of a machine is what a proof is held against; without it nothing is shown. */
    @Test
    void aProofIsHeldAgainstARecordingOfTheFolder() throws Exception {
        Machine demo = DemoMachine.create();
        Proof like = demo.proofs().get(0).withExpectations(List.of(Expectation.differs("Shuttle.commandedSpeed", "cellar", 2, Expectation.Alignment.BEST_FIT)));
        Path file = java.nio.file.Files.writeString(folder.resolve("like.json"), MachineJson.write(demo.withProofs(List.of(like))));
        Path laid = folder.resolve("like");
        assertThat(run("convert", file.toString(), laid.toString())).isZero();
        assertThat(run("prove", laid.toString())).isEqualTo(1);
        java.nio.file.Files.createDirectory(laid.resolve("recordings"));
        try (java.io.InputStream recording = DemoMachine.recording()) {
            java.nio.file.Files.copy(recording, laid.resolve("recordings/Cellar.csv"));
        }
        assertThat(run("prove", laid.toString())).isZero();
        java.nio.file.Files.writeString(laid.resolve("recordings/notes.csv"), "no numbers here\n");
        assertThat(run("prove", laid.toString())).isEqualTo(2);
    }

    /** A machine as a folder: the texts in their own files, the document in the same order each time; it proves like the file, and comes back equal. */
    @Test
    void aFolderIsAMachineToo() throws Exception {
        Machine demo = DemoMachine.create();
        Machine two = demo.withPlc(demo.plc().withFiles(List.of(demo.plc().files().get(0), new Plc.SourceFile("Größe.st", "FUNCTION Zwei : INT\n  Zwei := 2;\nEND_FUNCTION\n"))));
        Path file = java.nio.file.Files.writeString(folder.resolve("m.json"), MachineJson.write(two));
        Path laid = folder.resolve("laid/out");
        assertThat(run("convert", file.toString(), laid.toString())).isZero();
        String document = java.nio.file.Files.readString(laid.resolve("machine.json"));
        assertThat(document).doesNotContain("END_FUNCTION", "PROGRAM TurningCell").contains("\"name\" : \"Größe.st\"").endsWith("}\n");
        assertThat(java.nio.file.Files.readString(laid.resolve("TurningCell.st"))).isEqualTo(demo.plc().files().get(0).source());
        assertThat(rueda.app.machine.MachineFolder.read(laid)).isEqualTo(two);
        assertThat(run("prove", "--proof", "A limit switch’s wire breaks", laid.toString())).isZero();
        Path back = folder.resolve("back.json");
        assertThat(run("convert", laid.toString(), back.toString())).isZero();
        assertThat(MachineJson.read(java.nio.file.Files.readString(back))).isEqualTo(two);
        /* written again it is the same; a text that has gone goes, and nothing else */
        java.nio.file.Files.writeString(laid.resolve("README.md"), "kept");
        java.nio.file.Files.writeString(file, MachineJson.write(demo));
        assertThat(run("convert", file.toString(), laid.toString())).isZero();
        assertThat(laid.resolve("Größe.st")).doesNotExist();
        assertThat(laid.resolve("README.md")).exists();
        /* what is missing, or would lie outside, is named */
        java.nio.file.Files.delete(laid.resolve("TurningCell.st"));
        assertThatThrownBy(() -> rueda.app.machine.MachineFolder.read(laid)).hasMessageContaining("TurningCell.st is not in the folder");
        java.nio.file.Files.writeString(laid.resolve("machine.json"), document.replace("Größe.st", "../m.st"));
        assertThatThrownBy(() -> rueda.app.machine.MachineFolder.read(laid)).isInstanceOf(IllegalArgumentException.class);
        assertThat(run("prove", folder.resolve("laid").toString())).as("no machine.json").isEqualTo(2);
        assertThat(run("convert", folder.resolve("nowhere").toString(), back.toString())).isEqualTo(2);
    }

    private static int run(String... arguments) {
        return new picocli.CommandLine(new Commands()).execute(arguments);
    }

    /** Exit codes of the command line: 0 all hold, 1 one does not, 2 could not run. */
    @Test
    void proveExitCodes() throws Exception {
        Machine demo = DemoMachine.create();
        demo = demo.withProofs(demo.proofs().subList(0, 1));
        assertThat(prove(MachineJson.write(demo))).isEqualTo(1);
        assertThat(prove(MachineJson.write(demo.withProgram(demo.plc().program().replace("Acceleration := 6000.0", "Acceleration := 5300.0"))))).isZero();
        assertThat(prove(MachineJson.write(demo.withProgram("PROGRAM")))).isEqualTo(2);
        assertThat(prove("{ no json")).isEqualTo(2);
        assertThat(prove("{\"name\":\"m\"}")).isEqualTo(2);
    }

    @ParameterizedTest
    @ValueSource(strings = {"", "{", "[]", "{\"name\":5}", "\u0000\u0001", "{}", "null", "\"machine\"", "{\"name\":\"m\",\"bus\":null}"})
    void whatIsNoMachineEndsWith2AndASentence(String content) throws Exception {
        PrintStream before = System.err;
        ByteArrayOutputStream said = new ByteArrayOutputStream();
        System.setErr(new PrintStream(said, true, StandardCharsets.UTF_8));
        try {
            assertThat(prove(content)).isEqualTo(2);
        } finally {
            System.setErr(before);
        }
        assertThat(said.toString(StandardCharsets.UTF_8)).contains("Cannot read").doesNotContain("\tat ", "Exception", "java.", "tools.jackson").hasLineCount(1);
    }

    private int prove(String json) throws Exception {
        Path file = java.nio.file.Files.writeString(folder.resolve("machine.json"), json);
        return run("prove", file.toString());
    }
}
