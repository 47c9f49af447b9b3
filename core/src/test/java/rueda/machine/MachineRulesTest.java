package rueda.machine;

import static org.assertj.core.api.Assertions.assertThat;

import java.math.BigDecimal;
import java.util.List;
import org.junit.jupiter.api.Test;
import rueda.machine.Expectation;

class MachineRulesTest {

    private static List<String> fields(Machine machine) {
        return MachineRules.check(machine).stream().map(EntryFault::field).toList();
    }

    private static Machine with(Axis axis) {
        return DemoMachine.create().withAxis(0, axis);
    }

    private static Axis reducer(long motor, long output) {
        Axis a = DemoMachine.shuttle();
        return a.withTrain(new Train(List.of(new Reducer(motor, output)), a.train().feed()));
    }

    @Test
    void theDemoCanBeStored() {
        assertThat(MachineRules.check(DemoMachine.create())).isEmpty();
    }

    @Test
    void impossibleGearNamesFieldValueAndWhatIsAllowed() {
        EntryFault fault = MachineRules.check(with(reducer(91, 0))).get(0);
        assertThat(fault.field()).isEqualTo("/axes/0/train/reducers/0/outputTurns");
        assertThat(fault.value()).isEqualTo("0");
        assertThat(fault.allowed()).isEqualTo("1 to 2147483647");
        assertThat(fields(with(reducer(-5, 10)))).containsExactly("/axes/0/train/reducers/0/motorTurns");
    }

    @Test
    void everyFaultIsReportedAtOnce() {
        Axis a = DemoMachine.shuttle();
        Axis bad = new Axis("1st", a.kind(), a.modulo(), a.unit(), new Motor(-1, 1, 0.5, 3000, Double.NaN, 9), a.encoder(), a.loadEncoder(),
                new Train(a.train().reducers(), new Feed(Feed.Kind.RACK, 0, new BigDecimal("-5"), "g")), Load.along(-1, -1, 0), new Brake(-1, 0, 0),
                a.travel(), a.limits(), new Supervision(0, -1, 0, 2, 1, 0, 0, 1, 0), 64, new Duty(0, 0), Homing.search(15, 1, 1, 1, 0).withStop(0, 0).withTimeLimit(0), a.control(), a.station(), a.wiring());
        assertThat(fields(with(bad))).contains("/axes/0/name", "/axes/0/motor/inertia", "/axes/0/motor/peakTorque", "/axes/0/motor/maxSpeed",
                "/axes/0/motor/torqueAtMaxSpeed", "/axes/0/train/feed/teeth", "/axes/0/train/feed/amount", "/axes/0/train/feed/unit", "/axes/0/load/mass", "/axes/0/load/coulomb",
                "/axes/0/brake/torque", "/axes/0/supervision/positionWindow", "/axes/0/supervision/positionDwell", "/axes/0/supervision/followingErrorAtSpeed", "/axes/0/gearBits", "/axes/0/duty/distance", "/axes/0/homing/method", "/axes/0/homing/stopTorque", "/axes/0/homing/stopTime", "/axes/0/homing/timeLimit");
    }

    @Test
    void missingPartsAreNamed() {
        assertThat(fields(new Machine("m", null, null, List.of(), null))).containsExactly("/bus", "/plc");
        assertThat(fields(new Machine("m", new Bus(1000), new Plc(1000, 1000, ""), List.of(new Axis("A", null, null, null, null, null, null, null, null, null, null, null, null, 32, null, null, null, null, null)), List.of(new Proof("p", 1, List.of())))))
                .contains("/axes/0/motor", "/axes/0/station");
    }

    @Test
    void scriptsConditionsAndPlansNeedTheirs() {
        Machine demo = DemoMachine.create();
        Proof proof = new Proof("p", 1, List.of(Expectation.neverBoth("Shuttle", 2, 1, "Nobody", 0, 1, -1), Expectation.time("", "B", 2, 1), Expectation.count("A", 1, 2).withHigh(1.5), Expectation.between("", 0, 1).withSpan(null),
                Expectation.bound("Shuttle", Expectation.Quantity.SPEED, 1).whenever(" ")))
                .withScript(List.of(ScriptStep.stop().lasting(0), ScriptStep.set("", "1").when("", 0), ScriptStep.of(ScriptStep.Does.PUSH, "Nobody", Double.NaN), ScriptStep.stop().withEnding(ScriptStep.Ending.ONCE), new ScriptStep(null, null, null, null, null, null, null, null, null, null, null, null, null)))
                .withConditions(List.of(Condition.values(Circumstance.MASS, "Shuttle", -1.0), Condition.range(Circumstance.SLOPE, "Shuttle", 91, 90, 1), Condition.values(Circumstance.MASS, "Shuttle"), Condition.mistakes("Shuttle"), Condition.moments(5, 0, 1, 2),
                        Condition.values(Circumstance.MASS, "Nobody", 1.0), Condition.values(Circumstance.MASS, "Shuttle").withFrom(1.0)))
                .withPlan(new Plan(null, 0, 1, 0));
        assertThat(fields(demo.withProofs(List.of(new Proof("p", 7200, List.of()).withPlan(new Plan(Plan.Kind.STOP, 1, 1, 0.1)))))).as("288 000 runs").containsExactly("/proofs/0/plan/every");
        assertThat(fields(demo.withProofs(List.of(new Proof("p", 7200, List.of()).withPlan(new Plan(Plan.Kind.STOP, 1, 1, 0.3)))))).isEmpty();
        assertThat(fields(demo.withProofs(List.of(proof)))).containsExactly(
                "/proofs/0/script/0/lasts", "/proofs/0/script/1/when", "/proofs/0/script/1/target", "/proofs/0/script/2/axis", "/proofs/0/script/2/amount", "/proofs/0/script/3/ending", "/proofs/0/script/4/start", "/proofs/0/script/4/does", "/proofs/0/script/4/ending",
                "/proofs/0/expectations/0/low", "/proofs/0/expectations/0/other", "/proofs/0/expectations/0/distance", "/proofs/0/expectations/1/after", "/proofs/0/expectations/1/within", "/proofs/0/expectations/2/high",
                "/proofs/0/expectations/3/signal", "/proofs/0/expectations/3/span", "/proofs/0/expectations/4/when",
                "/proofs/0/conditions/0/values/0", "/proofs/0/conditions/1/from", "/proofs/0/conditions/1/from", "/proofs/0/conditions/1/steps", "/proofs/0/conditions/2/values", "/proofs/0/conditions/3/mistakes", "/proofs/0/conditions/4/sentence",
                "/proofs/0/conditions/5/axis", "/proofs/0/conditions/6/to", "/proofs/0/plan/kind", "/proofs/0/plan/runs", "/proofs/0/plan/every");
    }

    @Test
    void expectationsNeedTheirSlots() {
        Machine demo = DemoMachine.create();
        Proof proof = new Proof("p", 0, List.of(Expectation.arrives("Shuttle", Double.NaN, 0, -1, "", 0), Expectation.bound("Nobody", null, 0), Expectation.noError("Shuttle")));
        assertThat(fields(new Machine(demo.name(), demo.bus(), demo.plc(), demo.axes(), List.of(proof), demo.safetyRequests()))).containsExactly("/proofs/0/duration",
                "/proofs/0/expectations/0/position", "/proofs/0/expectations/0/tolerance", "/proofs/0/expectations/0/within", "/proofs/0/expectations/0/after",
                "/proofs/0/expectations/1/axis", "/proofs/0/expectations/1/quantity", "/proofs/0/expectations/1/limit");
    }

    @Test
    void tagsAreNames() {
        Axis a = DemoMachine.shuttle();
        Axis bad = a.withStation(new Station(List.of(new Station.Entry(0x6040, 0, 16, "no name", "WORDS")), List.of()));
        assertThat(fields(with(bad))).containsExactly("/axes/0/station/outputs/0/tag", "/axes/0/station/outputs/0/tagType");
    }

    /** 6091h holds two numbers of 32 bits: reducers whose product has more are refused, not cut. */
    @Test
    void theProductOfTheReducersFitsTheGearObject() {
        Axis shuttle = DemoMachine.shuttle().withEncoder(Encoder.absolute(8, 0)).withUnit(new Unit("mm", 0));
        List<Reducer> many = List.of(new Reducer(1_000_003, 999_983), new Reducer(999_979, 1_000_033));
        assertThat(fields(with(shuttle.withTrain(new Train(many, shuttle.train().feed()))))).containsExactly("/axes/0/train/reducers/0/motorTurns");
    }

    @Test
    void unitsMustFitTheFeed() {
        Axis table = DemoMachine.table();
        assertThat(fields(with(table.withName("Shuttle").withUnit(new Unit("mm", 3))))).containsExactly("/axes/0/unit/symbol");
        assertThat(fields(with(table.withName("Shuttle").withUnit(new Unit("turn", 0))))).as("modulo of 360 turns is fine").isEmpty();
        Axis doser = DemoMachine.saltDoser().withName("Shuttle");
        assertThat(fields(with(doser.withUnit(new Unit("ml", 3))))).as("grams are no millilitres").containsExactly("/axes/0/unit/symbol");
    }

    @Test
    void aModuloIsAWholeNumberOfWireUnits() {
        Axis t = DemoMachine.table();
        for (String[] given : new String[][] {{"360.0005", "1"}, {"-1", "1"}, {"9999999", "1"}, {"0", "0"}, {"0.125", "0"}}) {
            Axis axis = new Axis("Shuttle", t.kind(), new BigDecimal(given[0]), new Unit("°", 3), t.motor(), t.encoder(), t.loadEncoder(), t.train(), t.load(), t.brake(), t.travel(), t.limits(), t.supervision(),
                    t.gearBits(), t.duty(), t.homing(), t.control(), t.station(), t.wiring());
            assertThat(fields(with(axis))).as(given[0]).hasSize(Integer.parseInt(given[1])).allMatch("/axes/0/modulo"::equals);
        }
    }

    /** Every text of the document, wherever it stands: what cannot be shown, stored or sent is refused at its place. */
    @Test
    void noTextHoldsWhatCannotBeShown() {
        Machine demo = DemoMachine.create();
        Axis a = demo.axes().get(0);
        for (String bad : List.of("a\u0000b", "a\u0007b", "a\nb", "a\ud800b", "\udc00", "a\u0085b", "x".repeat(2000))) {
            assertThat(fields(new Machine(bad, demo.bus(), demo.plc(), demo.axes(), demo.proofs(), demo.safetyRequests()))).as("machine").contains("/name");
            assertThat(fields(new Machine("m", demo.bus(), demo.plc(), demo.axes(), List.of(new Proof(bad, 1, List.of())), demo.safetyRequests()))).as("proof").contains("/proofs/0/name");
            assertThat(fields(with(a.withName(bad)))).as("axis").contains("/axes/0/name");
            assertThat(fields(with(a.withStation(a.station().withAddress(a.station().address().withName(bad)))))).as("station").contains("/axes/0/station/address/name");
            assertThat(fields(with(a.withStation(a.station().withStartWrites(List.of(new Station.StartWrite(0x2000, 0, 8, 0, Station.Transition.PREOP_TO_SAFEOP, bad, true))))))).as("comment").contains("/axes/0/station/startWrites/0/comment");
        }
        assertThat(fields(new Machine("Käse \ud83e\uddc0", demo.bus(), demo.plc(), demo.axes(), demo.proofs(), demo.safetyRequests()))).as("a pair is one character").isEmpty();
        assertThat(fields(new Machine("m", demo.bus(), new Plc(1000, 1000, "VAR\n\tx : BOOL;\r\nEND_VAR"), demo.axes(), demo.proofs(), demo.safetyRequests()))).as("lines of a program").isEmpty();
        assertThat(fields(new Machine("m", demo.bus(), new Plc(1000, 1000, "a\u0000"), demo.axes(), demo.proofs(), demo.safetyRequests()))).containsExactly("/plc/files/0/source");
    }

    @Test
    void namesAndListsAreBounded() {
        Machine demo = DemoMachine.create();
        assertThat(fields(new Machine("m", demo.bus(), demo.plc(), demo.axes(), List.of(new Proof(" ", 1, List.of())), demo.safetyRequests()))).containsExactly("/proofs/0/name");
        assertThat(fields(new Machine("m", demo.bus(), demo.plc(), demo.axes(), List.of(new Proof("x".repeat(201), 1, List.of())), demo.safetyRequests()))).containsExactly("/proofs/0/name");
        assertThat(fields(with(demo.axes().get(0).withName("A".repeat(81))))).contains("/axes/0/name");
        assertThat(fields(new Machine("m", demo.bus(), demo.plc(), demo.axes(), List.of(new Proof("p", 1, java.util.Collections.nCopies(100_000, Expectation.noError("Shuttle")))), demo.safetyRequests()))).containsExactly("/proofs/0/expectations");
        assertThat(fields(new Machine("m", demo.bus(), demo.plc(), java.util.Collections.nCopies(5000, demo.axes().get(0)), demo.proofs(), demo.safetyRequests()))).as("refused at the number, not axis by axis").containsExactly("/axes");
    }

    /** Proofs, files and tasks are known by their names. */
    @Test
    void listsOfTheDocument() {
        Machine demo = DemoMachine.create();
        assertThat(fields(demo.withProofs(List.of()))).isEmpty();
        assertThat(fields(demo.withProofs(List.of(new Proof("Start", "Every day", 1, List.of()), new Proof("Fetch", 1, List.of()))))).isEmpty();
        assertThat(fields(demo.withProofs(List.of(new Proof("Start", 1, List.of()), new Proof("START", 1, List.of()))))).containsExactly("/proofs/1/name");
        assertThat(fields(demo.withProofs(List.of(new Proof("Start", "x".repeat(81), 1, List.of()))))).containsExactly("/proofs/0/group");
        assertThat(fields(demo.withProofs(java.util.stream.IntStream.range(0, 65).mapToObj(i -> new Proof("p" + i, 1, List.of())).toList()))).containsExactly("/proofs");
        Plc plc = demo.plc();
        assertThat(fields(demo.withPlc(plc.withFiles(List.of())))).containsExactly("/plc/files");
        Plc.Task slow = new Plc.Task("Slow", 10_000, "", 5, 20_000, List.of("Logging"));
        assertThat(fields(demo.withPlc(plc.withTasks(List.of(plc.tasks().get(0), slow))))).isEmpty();
        assertThat(fields(demo.withPlc(plc.withTasks(List.of())))).containsExactly("/plc/tasks");
        assertThat(fields(demo.withPlc(plc.withTasks(java.util.Collections.nCopies(17, slow))))).containsExactly("/plc/tasks");
        assertThat(fields(demo.withPlc(plc.withTasks(List.of(plc.tasks().get(0), slow.withName("MAIN")))))).containsExactly("/plc/tasks/1/name");
        assertThat(fields(demo.withPlc(plc.withTasks(List.of(plc.tasks().get(0), slow.withIntervalMicros(1500)))))).containsExactly("/plc/tasks/1/intervalMicros");
        assertThat(fields(demo.withPlc(plc.withTasks(List.of(plc.tasks().get(0), slow.withIntervalMicros(11_000_000)))))).containsExactly("/plc/tasks/1/intervalMicros");
        assertThat(fields(demo.withPlc(plc.withTasks(List.of(plc.tasks().get(0), slow.withOnTag("Door")))))).as("a tag and an interval").containsExactly("/plc/tasks/1/intervalMicros");
        assertThat(fields(demo.withPlc(plc.withTasks(List.of(plc.tasks().get(0), slow.withOnTag("Door").withIntervalMicros(0)))))).isEmpty();
        assertThat(fields(demo.withPlc(plc.withTasks(List.of(slow.withOnTag("Door").withIntervalMicros(0)))))).as("the main task has an interval").containsExactly("/plc/tasks/0/onTag");
        assertThat(fields(demo.withPlc(plc.withTasks(List.of(plc.tasks().get(0), slow.withPriority(32), slow.withName("B").withPrograms(List.of("LOGGING", "a b")).withWatchdogMicros(-1))))))
                .containsExactly("/plc/tasks/1/priority", "/plc/tasks/2/watchdogMicros", "/plc/tasks/2/programs/0", "/plc/tasks/2/programs/1");
        assertThat(fields(demo.withPlc(plc.withStatementNanos(-1)))).containsExactly("/plc/statementNanos");
        assertThat(fields(demo.withPlc(plc.withFiles(List.of(new Plc.SourceFile("../up.st", "")))))).containsExactly("/plc/files/0/name");
        Plc.SourceFile main = plc.files().get(0);
        assertThat(fields(demo.withPlc(plc.withFiles(List.of(main, new Plc.SourceFile("Types.st", "TYPE T : INT; END_TYPE")))))).isEmpty();
        assertThat(fields(demo.withPlc(plc.withFiles(List.of(main, new Plc.SourceFile(main.name().toUpperCase(java.util.Locale.ROOT), "")))))).containsExactly("/plc/files/1/name");
        assertThat(fields(demo.withPlc(plc.withFiles(List.of(main, new Plc.SourceFile("a:b.st", ""), new Plc.SourceFile(".hidden", "")))))).containsExactly("/plc/files/1/name", "/plc/files/2/name");
        assertThat(fields(demo.withPlc(plc.withFiles(java.util.stream.IntStream.range(0, 101).mapToObj(i -> new Plc.SourceFile("f" + i + ".st", "")).toList())))).containsExactly("/plc/files");
        assertThat(fields(demo.withPlc(plc.withFiles(java.util.stream.IntStream.range(0, 11).mapToObj(i -> new Plc.SourceFile("f" + i + ".st", " ".repeat(190_000))).toList())))).containsExactly("/plc/files");
        assertThat(fields(demo.withPlc(plc.withTaskIntervalMicros(1500)))).containsExactly("/plc/tasks/0/intervalMicros");
    }
}
