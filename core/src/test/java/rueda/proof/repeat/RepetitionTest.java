package rueda.proof.repeat;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import rueda.bench.CalculationCancelled;
import rueda.machine.Circumstance;
import rueda.machine.Condition;
import rueda.machine.DemoMachine;
import rueda.machine.Expectation;
import rueda.machine.Expectation.Quantity;
import rueda.machine.Homing;
import rueda.machine.Machine;
import rueda.machine.Mistake;
import rueda.machine.Plan;
import rueda.machine.Proof;
import rueda.machine.ScriptStep;
import rueda.proof.ProofRun;
import rueda.proof.ProofSentences;
import rueda.proof.Prover;
import rueda.proof.Verdict;
import rueda.recording.Brought;

/** The same proof again and again: which runs there are, what each changes, and that they are the same however they are run. */
class RepetitionTest {

    /** The Shuttle alone goes 400 mm and back; its zero is where it stands (method 37 of IEC 61800-7-201). */
    private static final String MOVES = """
            PROGRAM P
            VAR Power : MC_Power; Here : MC_Home; There, Back : MC_MoveRelative; END_VAR
            Power(Axis := Shuttle, Enable := TRUE);
            Here(Axis := Shuttle, Execute := Power.Status);
            There(Axis := Shuttle, Execute := Here.Done, Distance := 400.0, Velocity := 600.0, Acceleration := 3500.0, Deceleration := 3500.0);
            Back(Axis := Shuttle, Execute := There.Done OR Back.Busy OR Back.Done, Distance := -400.0, Velocity := 600.0, Acceleration := 3500.0, Deceleration := 3500.0);
            END_PROGRAM
            """;

    private static Machine shuttle() {
        Machine demo = DemoMachine.create();
        return demo.withAxes(List.of(demo.axes().get(0).withHoming(Homing.search(37, 120, 12, 800, 0)))).withProgram(MOVES).withProofs(List.of()).withSafetyRequests(List.of()).withAxis(0, demo.axes().get(0).withHoming(Homing.search(37, 120, 12, 800, 0)).withGuard(rueda.machine.AxisGuard.NONE));
    }

    private static Proof proof(Plan.Kind kind, int runs, long seed, Condition... conditions) {
        return new Proof("p", 3, List.of(Expectation.bound("Shuttle", Quantity.FOLLOWING_ERROR, 0.3), Expectation.bound("Shuttle", Quantity.TORQUE, 2.39))).withConditions(List.of(conditions)).withPlan(new Plan(kind, runs, seed, 0.5));
    }

    private static List<Outcome> run(Proof proof, int threads) {
        return Repetition.run(shuttle(), proof, threads, Brought.Shelf.EMPTY, (done, of) -> { });
    }

    @Test
    void oneAtATimeIsTheDocumentAndEachValueAlone() {
        Proof proof = proof(Plan.Kind.ONE_AT_A_TIME, 1, 1, Condition.range(Circumstance.MASS, "Shuttle", 100, 200, 3), Condition.values(Circumstance.FRICTION, "Shuttle", 50.0, 300.0));
        Cases cases = Cases.of(proof);
        assertThat(cases.size()).isEqualTo(6);
        assertThat(cases.at(0).unchanged()).isTrue();
        assertThat(cases.at(2).values()).containsExactly(150, Double.NaN);
        assertThat(cases.at(5).values()).containsExactly(Double.NaN, 300);
        assertThat(Prepared.words(shuttle(), proof, cases.at(3))).isEqualTo("mass of the load of Shuttle 200 kg");
        List<Outcome> outcomes = run(proof, 2);
        assertThat(outcomes).hasSize(6);
        assertThat(outcomes.get(3).margins()[0]).as("the drive feeds forward for 160 kg").isLessThan(outcomes.get(2).margins()[0]);
        assertThat(outcomes.get(3).margins()[1]).as("and needs most torque").isLessThan(outcomes.get(1).margins()[1]);
    }

    @Test
    void combinationsAreAllOfThemUpToTheMost() {
        Condition mass = Condition.range(Circumstance.MASS, "Shuttle", 100, 200, 3);
        Condition friction = Condition.values(Circumstance.FRICTION, "Shuttle", 50.0, 300.0);
        Cases cases = Cases.of(proof(Plan.Kind.ALL_COMBINATIONS, 1000, 1, mass, friction));
        assertThat(IntStream.range(0, cases.size()).mapToObj(i -> List.of(cases.at(i).values()[0], cases.at(i).values()[1]))).containsExactly(
                List.of(100.0, 50.0), List.of(100.0, 300.0), List.of(150.0, 50.0), List.of(150.0, 300.0), List.of(200.0, 50.0), List.of(200.0, 300.0));
        assertThat(Cases.of(proof(Plan.Kind.ALL_COMBINATIONS, 4, 1, mass, friction)).size()).isEqualTo(4);
        assertThat(Repetition.words(proof(Plan.Kind.ALL_COMBINATIONS, 4, 1, mass, friction), 4)).isEqualTo("all combinations, 4 runs, the first of 6");
        assertThat(Repetition.words(proof(Plan.Kind.ALL_COMBINATIONS, 9, 1, mass, friction), 6)).isEqualTo("all combinations, 6 runs");
        Condition[] many = IntStream.range(0, 40).mapToObj(i -> mass).toArray(Condition[]::new);
        assertThat(Cases.of(proof(Plan.Kind.ALL_COMBINATIONS, 100_000, 1, many)).size()).as("3^40 is more than there may be").isEqualTo(100_000);
    }

    /** The Shuttle is rigid, the Table turns without end: what an axis does not have is told beside the condition, and nothing runs. */
    @Test
    void whatAnAxisDoesNotHaveIsNotVaried() {
        Machine demo = DemoMachine.create();
        Condition[] conditions = {Condition.values(Circumstance.STIFFNESS, "Shuttle", 90.0), Condition.values(Circumstance.PLAY, "Shuttle", 1.0), Condition.values(Circumstance.MASS, "Table", 1.0), Condition.values(Circumstance.SLOPE, "Table", 1.0),
            Condition.values(Circumstance.LIMIT_SWITCHES, "Table", 1.0), Condition.values(Circumstance.STIFFNESS, "Table", 90.0), Condition.values(Circumstance.MASS, "Lift", 90.0)};
        Proof proof = proof(Plan.Kind.ONE_AT_A_TIME, 1, 1, conditions);
        assertThat(new ProofSentences(demo).faults(proof)).extracting(ProofSentences.Fault::field).containsExactly("/conditions/0/axis", "/conditions/1/axis", "/conditions/2/axis", "/conditions/3/axis", "/conditions/4/axis");
        assertThatThrownBy(() -> Repetition.run(demo, proof, 1, Brought.Shelf.EMPTY, (done, of) -> { })).hasMessageContaining("conditions/0/axis").hasMessageContaining("is rigid");
    }

    @Test
    void whereNothingIsVariedThereIsOneRun() {
        for (Plan.Kind kind : List.of(Plan.Kind.ONE_AT_A_TIME, Plan.Kind.ALL_COMBINATIONS, Plan.Kind.RANDOM, Plan.Kind.WORST)) {
            assertThat(run(proof(kind, 50, 1), 2)).as(kind.name()).hasSize(1);
        }
    }

    @Test
    void drawsFollowFromSeedAndNumber() {
        Condition mass = Condition.range(Circumstance.MASS, "Shuttle", 100, 200, 3);
        Condition mistake = Condition.mistakes("Shuttle", Mistake.CAM_BROKEN, Mistake.OWN_CLOCK);
        Cases cases = Cases.of(proof(Plan.Kind.RANDOM, 500, 7, mass, mistake));
        assertThat(cases.at(123)).isEqualTo(Cases.of(proof(Plan.Kind.RANDOM, 1000, 7, mass, mistake)).at(123));
        assertThat(cases.at(123)).isNotEqualTo(Cases.of(proof(Plan.Kind.RANDOM, 500, 8, mass, mistake)).at(123));
        double mean = IntStream.range(0, 500).mapToDouble(i -> cases.at(i).values()[0]).peek(v -> assertThat(v).isBetween(100.0, 200.0)).average().orElseThrow();
        // standard error of 500 even draws from a range of 100: 100/√12/√500 = 1.3
        assertThat(mean).isCloseTo(150, within(5.2));
        assertThat(IntStream.range(0, 500).mapToDouble(i -> cases.at(i).values()[1]).sum()).isBetween(190.0, 310.0);
    }

    @Test
    void theSameOutcomesWithAnyNumberOfThreads() {
        Condition[] conditions = {Condition.range(Circumstance.MASS, "Shuttle", 100, 200, 3), Condition.range(Circumstance.FRICTION, "Shuttle", 50, 300, 2), Condition.range(Circumstance.ENCODER_NOISE, "Shuttle", 0, 20, 2), Condition.values(Circumstance.FRAMES_LOST, "Shuttle", 0.0, 0.5)};
        for (Plan.Kind kind : List.of(Plan.Kind.RANDOM, Plan.Kind.WORST)) {
            Proof proof = proof(kind, 24, 3, conditions);
            List<Outcome> alone = run(proof, 1);
            assertThat(alone).hasSize(24).as(kind.name());
            assertThat(run(proof, 4)).isEqualTo(alone);
        }
    }

    @Test
    void eachRunCanBeMadeAgainExactly() {
        Proof proof = proof(Plan.Kind.RANDOM, 6, 11, Condition.range(Circumstance.MASS, "Shuttle", 100, 200, 3), Condition.range(Circumstance.ENCODER_NOISE, "Shuttle", 1, 9, 2));
        Outcome fifth = run(proof, 2).get(4);
        ProofRun again = Repetition.again(shuttle(), proof, fifth.of(), Brought.Shelf.EMPTY, (time, of) -> { });
        assertThat(Outcome.of(4, fifth.of(), new Prover.Judgement(again.verdicts(), again.stopped()))).isEqualTo(fifth);
        assertThat(again.bench().recording().count()).isEqualTo(3000);
    }

    /** Something takes up to 12 ms of the controller each time: what its task of 2 ms writes comes later, the same by seed. */
    @Test
    void tasksThatAreInterruptedWriteLater() {
        Machine demo = DemoMachine.create();
        Proof proof = new Proof("Referenced", 8, List.of(Expectation.time("Reference.Execute", "ToSlot.Execute", 0, 8))).withConditions(List.of(Condition.values(Circumstance.TASK_JITTER, null, 0.0, 12_000.0)));
        List<Outcome> outcomes = Repetition.run(demo, proof, 2, Brought.Shelf.EMPTY, (done, of) -> { });
        assertThat(outcomes.get(1).margins()).isEqualTo(outcomes.get(0).margins());
        assertThat(outcomes.get(2).margins()).isNotEqualTo(outcomes.get(0).margins());
        assertThat(Repetition.run(demo, proof, 1, Brought.Shelf.EMPTY, (done, of) -> { })).isEqualTo(outcomes);
        assertThat(Prepared.words(demo, proof, outcomes.get(2).of())).isEqualTo("jitter of the tasks 12000 µs");
    }

    @Test
    void stopAndPowerLossAtEveryMoment() {
        Proof proof = proof(Plan.Kind.STOP, 1, 1);
        Cases cases = Cases.of(proof);
        assertThat(cases.size()).as("3 s, every half second, both").isEqualTo(12);
        assertThat(cases.at(3).happening()).isEqualTo(ScriptStep.stop().at(1.5));
        assertThat(cases.at(9).happening()).isEqualTo(ScriptStep.powerLoss().at(1.5));
        assertThat(Prepared.words(shuttle(), proof, cases.at(9))).isEqualTo("power lost at 1.5 s");
        ProofRun stopped = Repetition.again(shuttle(), proof, cases.at(1), Brought.Shelf.EMPTY, (time, of) -> { });
        assertThat(stopped.happened().get(0).words()).isEqualTo("a person pressed stop");
    }

    /** Each request that an axis answers comes at every moment too. */
    @Test
    void requestsAtEveryMoment() {
        Machine demo = DemoMachine.create();
        Proof proof = proof(Plan.Kind.STOP, 1, 1);
        Cases cases = Cases.of(demo, proof);
        assertThat(cases.size()).as("3 s, every half second: stop, power loss, door, emergency stop").isEqualTo(24);
        assertThat(cases.at(15).happening()).isEqualTo(ScriptStep.ask("Door").at(1.5));
        assertThat(Prepared.words(demo, proof, cases.at(23))).isEqualTo("Emergency stop at 2.5 s");
        ProofRun asked = Repetition.again(demo, proof, cases.at(15), Brought.Shelf.EMPTY, (time, of) -> { });
        assertThat(asked.happened().get(0).words()).isEqualTo("Door asked the guards");
        Machine unheard = demo.withAxes(demo.axes().stream().map(a -> a.withGuard(a.guard().withFitted(false))).toList());
        assertThat(Cases.of(unheard, proof).size()).as("nobody hears them").isEqualTo(12);
    }

    /** A gripper that is closed for 12 ms before the program remembers that it holds a wheel: a stop in between lets go of it. */
    @Test
    void stopAtAnyMomentFindsAFaultOfTwelveMilliseconds() {
        String program = """
                PROGRAM Gripper
                VAR
                  Power : MC_Power;
                  Closed, Holds, Lost, Stopped : BOOL;
                  Step : INT;
                  Wait : TON;
                END_VAR
                Power(Axis := Shuttle, Enable := TRUE);
                CASE Step OF
                  0: Wait(IN := Power.Status, PT := T#500ms);
                    IF Wait.Q THEN Wait(IN := FALSE, PT := T#0s); Closed := TRUE; Step := 1; END_IF
                  1: Wait(IN := TRUE, PT := T#12ms);
                    IF Wait.Q THEN Holds := TRUE; Step := 2; END_IF
                END_CASE
                (* quick stop active, IEC 61800-7-201: let go of what is not held *)
                Stopped := (Shuttle.Fb.Status AND 16#6F) = 16#07;
                IF Stopped AND NOT Holds THEN
                  IF Closed THEN
                    Lost := TRUE;
                  END_IF
                  Closed := FALSE;
                END_IF
                END_PROGRAM
                """;
        Machine machine = shuttle().withProgram(program);
        Proof proof = new Proof("p", 0.8, List.of(Expectation.sentence("ALWAYS(NOT Lost)"))).withPlan(new Plan(Plan.Kind.STOP, 1, 1, 0.004));
        List<Outcome> outcomes = Repetition.run(machine, proof, 2, Brought.Shelf.EMPTY, (done, of) -> { });
        assertThat(outcomes).hasSize(400);
        List<Outcome> lost = outcomes.stream().filter(o -> !o.all()).toList();
        assertThat(lost).as("12 ms have three or four moments 4 ms apart").hasSizeBetween(3, 4);
        assertThat(lost).allMatch(o -> o.of().happening().does() == ScriptStep.Does.STOP && o.of().happening().time() > 0.49 && o.of().happening().time() < 0.54);
        Verdict verdict = Repetition.again(machine, proof, lost.get(0).of(), Brought.Shelf.EMPTY, (time, of) -> { }).verdicts().get(0);
        int line = program.substring(0, program.indexOf("Lost := TRUE")).split("\n").length;
        assertThat(verdict.order().line()).isEqualTo(line);
        assertThat(verdict.cause()).contains("a person pressed stop", "in line " + line);
        assertThat(Prepared.words(machine, proof, lost.get(0).of())).matches("stop at 0\\.5\\d* s");
    }

    @Test
    void cancellingEndsAllOfThem() {
        AtomicInteger told = new AtomicInteger();
        Proof proof = proof(Plan.Kind.RANDOM, 1000, 1, Condition.range(Circumstance.MASS, "Shuttle", 100, 200, 3));
        assertThatThrownBy(() -> Repetition.run(shuttle(), proof, 2, Brought.Shelf.EMPTY, (done, of) -> {
            told.set(done);
            if (done == 3) {
                throw new CalculationCancelled();
            }
        })).isInstanceOf(CalculationCancelled.class);
        assertThat(told.get()).isLessThan(10);
    }

    @Test
    void whatIsRefusedIsToldWithItsPlace() {
        Proof proof = proof(Plan.Kind.RANDOM, 3, 1, Condition.range(Circumstance.MASS, "Shuttle", 100, 200, 3)).withScript(List.of(ScriptStep.set("Nobody", "1")));
        assertThatThrownBy(() -> run(proof, 2)).hasMessageContaining("script/0/target");
    }

    @Test
    void eachCircumstanceChangesWhatItNames() {
        Machine machine = DemoMachine.create();
        for (Circumstance of : Circumstance.values()) {
            if (of == Circumstance.MOMENT || of == Circumstance.MISTAKE) {
                continue;
            }
            String axis = of == Circumstance.STIFFNESS || of == Circumstance.PLAY || of == Circumstance.INERTIA ? "Table" : "Shuttle";
            Proof proof = new Proof("p", 1, List.of()).withConditions(List.of(Condition.values(of, axis, of == Circumstance.INDEX ? 90.0 : 20.0)));
            Prepared nominal = Prepared.of(machine, proof, Case.nominal(1));
            Prepared changed = Prepared.of(machine, proof, Case.nominal(1).with(0, of == Circumstance.INDEX ? 90 : 20));
            boolean drive = of == Circumstance.POSITION_GAIN || of == Circumstance.VELOCITY_GAIN;
            assertThat(nominal.machine()).isEqualTo(machine);
            assertThat(changed.machine().equals(machine)).as(of.name()).isEqualTo(!drive);
            assertThat(changed.stand().equals(nominal.stand())).as(of.name()).isEqualTo(drive);
        }
    }
}
