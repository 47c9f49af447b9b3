package rueda.proof;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.junit.jupiter.api.Test;
import rueda.machine.DemoMachine;
import rueda.machine.Machine;
import rueda.machine.Proof;
import rueda.machine.Expectation;

class ProverTest {

    private static Machine with(String source, Expectation... expectations) {
        Machine demo = DemoMachine.create();
        return new Machine(demo.name(), demo.bus(), demo.plc().withProgram(source), demo.axes(), List.of(new Proof("p", 14, List.of(expectations))));
    }

    private static ProofRun run(Machine machine) {
        return Prover.run(machine, machine.proofs().get(0));
    }

    private static String replaced(String find, String by) {
        String source = DemoMachine.create().plc().program();
        assertThat(source).contains(find);
        return source.replace(find, by);
    }

    @Test
    void theDemoFailsWhereTheMotorLacksTorque() {
        ProofRun run = run(DemoMachine.create());
        assertThat(run.verdicts().stream().map(Verdict::holds)).containsExactly(true, true, true, false, true);
        Verdict failed = run.verdicts().get(3);
        assertThat(failed.measured()).isBetween(0.3, 0.6);
        assertThat(failed.room()).isNegative();
        assertThat(failed.cause()).contains("6000 mm/s²").contains("2.40 N·m").contains("2.54 N·m").containsPattern("at its limit for [1-9][0-9]* ms");
        String line = DemoMachine.create().plc().program().split("\n")[failed.order().line() - 1];
        assertThat(line).contains("ToTable(Axis := Shuttle, Execute := TRUE");
        assertThat(failed.time()).isBetween(failed.from(), failed.to());
    }

    @Test
    void theMendMendsIt() {
        Verdict failed = run(DemoMachine.create()).verdicts().get(3);
        Machine demo = DemoMachine.create();
        ProofRun mended = run(demo.withProgram(replaced(failed.mend().find(), failed.mend().replace())));
        assertThat(mended.verdicts()).allMatch(Verdict::holds);
    }

    /** An order that asks for more speed than is allowed is mended where its number stands. */
    @Test
    void aSpeedThatIsOrderedTooHighIsMended() {
        String fast = replaced("Position := TableAt, Velocity := Travel,", "Position := TableAt, Velocity := 940.0,");
        Machine machine = with(fast, Expectation.bound("Shuttle", Expectation.Quantity.SPEED, 920));
        Verdict failed = run(machine).verdicts().get(0);
        assertThat(failed.holds()).isFalse();
        assertThat(failed.mend().find()).isEqualTo("Velocity := 940.0");
        assertThat(failed.mend().words()).isEqualTo("Lower the velocity to the 920 mm/s that are allowed.");
        String line = fast.split("\n")[failed.mend().line() - 1];
        assertThat(line).contains(failed.mend().find());
    }

    @Test
    void movePastTheSoftLimitIsExplained() {
        ProofRun run = run(with(replaced("Slot : INT := 7;", "Slot : INT := 8;"), Expectation.noError("Shuttle"),
                Expectation.arrives("Shuttle", 2400, 0.05, 4, "ToSlot.Execute", 0.1)));
        assertThat(run.verdicts()).noneMatch(Verdict::holds);
        assertThat(run.verdicts().get(0).cause()).contains("2400 mm lies past the soft limits, -20 to 2330 mm").contains("line 51");
        assertThat(run.verdicts().get(1).cause()).contains("came no nearer").contains("past the soft limits");
    }

    @Test
    void arrivingLateSaysByHowMuchAndWhatTheoryTakes() {
        Verdict verdict = run(with(DemoMachine.create().plc().program(), Expectation.arrives("Shuttle", 2100, 0.05, 2, "ToSlot.Execute", 0.3))).verdicts().get(0);
        assertThat(verdict.holds()).isFalse();
        assertThat(verdict.measured()).isBetween(2.7, 2.9);
        assertThat(verdict.cause()).contains("late").contains("line 51");
    }

    @Test
    void anEventThatNeverHappens() {
        Verdict verdict = run(with(replaced("IF Power.Status THEN", "IF FALSE THEN"), Expectation.arrives("Shuttle", 2100, 0.05, 2, "ToSlot.Execute", 0.3))).verdicts().get(0);
        assertThat(verdict.measured()).isNull();
        assertThat(verdict.cause()).contains("ToSlot.Execute never turned true");
        assertThat(run(with("PROGRAM P END_PROGRAM", Expectation.arrives("Shuttle", 1, 1, 1, "Nothing", 0))).verdicts().get(0).cause()).contains("No signal is called Nothing");
    }

    @Test
    void arrivalCountsOnlyWhenItStays() {
        /* passing 1000 mm at speed is no arrival */
        Verdict verdict = run(with(DemoMachine.create().plc().program(), Expectation.arrives("Shuttle", 1000, 5, 5, "ToSlot.Execute", 0.5))).verdicts().get(0);
        assertThat(verdict.holds()).isFalse();
    }

    @Test
    void aRunawayLoopIsAnError() {
        ProofRun run = run(with("PROGRAM P\nVAR n : DINT; END_VAR\nWHILE TRUE DO\n n := n + 1;\nEND_WHILE\nEND_PROGRAM", Expectation.noError("Shuttle")));
        assertThat(run.holds()).isFalse();
        assertThat(run.stoppedLine()).isBetween(3, 4);
        assertThat(run.verdicts().get(0).cause()).contains("budget");
    }
}
