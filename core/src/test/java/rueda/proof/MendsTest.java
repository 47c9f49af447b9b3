package rueda.proof;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.junit.jupiter.api.Test;
import rueda.advice.Finding;
import rueda.machine.DemoMachine;
import rueda.machine.Expectation;
import rueda.machine.Expectation.End;
import rueda.machine.Expectation.Quantity;
import rueda.machine.Machine;
import rueda.machine.Proof;

/** What is proposed is tried: with it the expectation holds, or what it is about is nearer. */
class MendsTest {

    private static Machine demo(Proof proof) {
        return DemoMachine.create().withProofs(List.of(proof));
    }

    private static Machine demo(double duration, Expectation expectation) {
        return demo(new Proof("p", duration, List.of(expectation)));
    }

    private static Machine replaced(Machine machine, String find, String by) {
        assertThat(machine.plc().program()).contains(find);
        return machine.withProgram(machine.plc().program().replace(find, by));
    }

    private static Verdict verdict(Machine machine) {
        return Prover.run(machine, machine.proofs().get(0)).verdicts().get(0);
    }

    /** The change of the text, made as the page makes it. */
    private static Machine tried(Machine machine, Verdict.Replacement mend) {
        String[] lines = machine.plc().program().split("\n", -1);
        assertThat(lines[mend.line() - 1]).contains(mend.find());
        lines[mend.line() - 1] = lines[mend.line() - 1].replace(mend.find(), mend.replace());
        return machine.withProgram(String.join("\n", lines));
    }

    private static Verdict failed(Machine machine) {
        Verdict failed = verdict(machine);
        assertThat(failed.holds()).isFalse();
        return failed;
    }

    @Test
    void aMoveThatIsLateGoesFaster() {
        Machine machine = replaced(demo(18, Expectation.arrives("Shuttle", 2100, 0.05, 3.2, "ToSlot.Execute", 0.3)), "Travel : LREAL := 900.0", "Travel : LREAL := 700.0");
        Verdict failed = failed(machine);
        assertThat(failed.mend().words()).startsWith("Raise the velocity to ").contains("Travel holds wherever it is used");
        assertThat(verdict(tried(machine, failed.mend())).holds()).isTrue();
    }

    @Test
    void timeBetweenEventsIsThatOfItsLongestMove() {
        Machine machine = replaced(demo(18, Expectation.time("ToSlot.Execute", "Step = 30", 0, 3.2)), "Travel : LREAL := 900.0", "Travel : LREAL := 700.0");
        Verdict failed = failed(machine);
        assertThat(failed.mend().words()).startsWith("Raise the velocity to ");
        assertThat(verdict(tried(machine, failed.mend())).holds()).isTrue();
        assertThat(failed(demo(18, Expectation.time("ToSlot.Execute", "Step = 30", 0, 0.1))).mend()).as("no speed is enough").isNull();
    }

    @Test
    void whatHasNotHappenedYetGetsMoreTime() {
        for (Expectation e : List.of(Expectation.arrives("Shuttle", 2100, 0.05, 3.6, "ToSlot.Execute", 0.3), Expectation.count("Dose.Done", 1, 1), Expectation.order("ToSlot.Execute", "ToTable.Execute"),
                Expectation.time("ToSlot.Execute", "ToTable.Execute", 0, 20), Expectation.valueAt("Lift.position", -1000, 1000, "Turn.Execute"))) {
            Machine machine = demo(6, e);
            Finding.Mend change = failed(machine).change();
            assertThat(change.label()).as(e.kind().toString()).isEqualTo("Let it run 12 s instead of 6 s.");
            assertThat(change.changes()).containsExactly(new Finding.Change("replace", "/proofs/0/duration", 12.0));
        }
        assertThat(verdict(demo(12, Expectation.arrives("Shuttle", 2100, 0.05, 3.6, "ToSlot.Execute", 0.3))).holds()).isTrue();
        Machine endsMoving = demo(6, Expectation.ends("Shuttle", End.AT_REST));
        assertThat(failed(endsMoving).change().label()).startsWith("Let it run");
        Verdict order = failed(demo(18, Expectation.order("ToTable.Execute", "ToSlot.Execute")));
        assertThat(order.change()).as("both have come: their order is the program's").isNull();
        assertThat(order.mend()).isNull();
    }

    /** Half-typed names make no proposal, and end no run. */
    @Test
    void whatCannotBeReadGetsNoProposal() {
        for (Expectation e : List.of(Expectation.count("Dose.Don", 1, 1), Expectation.time("ToSlo", "Step = 30", 0, 3), Expectation.arrives("Shuttle", 2100, 0.05, 3.6, "Nothing", 0.3), Expectation.sentence("ALWAYS(Nothing)"),
                Expectation.between("Shuttle.spee", 0, 1), Expectation.valueAt("Lift.position", 0, 1, "Tur"), Expectation.order("A", "B"))) {
            Verdict open = failed(demo(2, e));
            assertThat(open.change()).as(e.kind().toString()).isNull();
            assertThat(open.mend()).as(e.kind().toString()).isNull();
            assertThat(open.cause()).as(e.kind().toString()).contains("says nothing");
        }
        Verdict elsewhere = failed(demo(18, Expectation.arrives("Shuttle", 1234, 0.05, 2, "ToSlot.Execute", 0.3)));
        assertThat(elsewhere.change()).as("its time was over long ago: more time is no help").isNull();
    }

    @Test
    void anOrderWithANumberTooHighIsBroughtDownToWhatTheAxisMayDo() {
        for (Expectation e : List.of(Expectation.noError("Shuttle"), Expectation.arrives("Shuttle", 2100, 0.05, 3.6, "ToSlot.Execute", 0.3))) {
            Machine machine = replaced(demo(10, e), "Travel : LREAL := 900.0", "Travel : LREAL := 2900.0");
            Verdict failed = failed(machine);
            assertThat(failed.mend().words()).startsWith("Lower the velocity to the ").contains("that the axis may do");
            assertThat(verdict(tried(machine, failed.mend())).holds()).as(e.kind().toString()).isTrue();
        }
    }

    @Test
    void torqueIsLeftByASofterMove() {
        Machine peak = demo(18, Expectation.peakTorque("Shuttle", 80));
        Verdict failed = failed(peak);
        assertThat(failed.mend().words()).startsWith("Lower the ");
        Verdict then = verdict(tried(peak, failed.mend()));
        assertThat(then.measured()).isLessThan(failed.measured());
        Machine effective = demo(18, Expectation.rmsTorque("Shuttle", 30));
        Verdict hot = failed(effective);
        assertThat(hot.mend().words()).contains("effective torque");
        assertThat(verdict(tried(effective, hot.mend())).measured()).isLessThan(hot.measured());
    }

    @Test
    void aValueOfAnAxisIsMendedAsItsBoundIs() {
        Machine machine = demo(18, Expectation.between("Shuttle.followingError", -0.25, 0.25));
        Verdict failed = failed(machine);
        assertThat(failed.mend()).isEqualTo(failed(demo(18, Expectation.bound("Shuttle", Quantity.FOLLOWING_ERROR, 0.25))).mend());
        assertThat(verdict(tried(machine, failed.mend())).holds()).isTrue();
    }

    @Test
    void aSpeedThatIsNotFedForwardIs() {
        Machine demo = demo(18, Expectation.bound("Lift", Quantity.FOLLOWING_ERROR, 0.5));
        int lift = 1;
        Machine machine = demo.withAxes(demo.axes().stream().map(a -> a.name().equals("Lift") ? a.withControl(new rueda.machine.Control(a.control().positionGain(), a.control().velocityGain(), a.control().integralTime(), 0.5, a.control().torqueForward())) : a).toList());
        Verdict failed = failed(machine.withProofs(List.of(new Proof("p", 30, machine.proofs().get(0).expectations()))));
        assertThat(failed.change().changes()).containsExactly(new Finding.Change("replace", "/axes/" + lift + "/control/feedForward", 1));
    }

    /** A drive that gave up because its axis fell behind is mended by what made it fall behind. */
    @Test
    void aDriveThatGaveUpIsMendedByASofterMove() {
        Machine demo = demo(18, Expectation.noError("Shuttle"));
        Machine machine = demo.withAxes(demo.axes().stream().map(a -> a.name().equals("Shuttle") ? a.withSupervision(a.supervision().withFollowingError(0.3).withFollowingErrorAtSpeed(0.3)) : a).toList());
        Verdict failed = failed(machine);
        assertThat(failed.cause()).contains("8611h");
        assertThat(failed.mend().words()).startsWith("Lower the ");
        assertThat(verdict(tried(machine, failed.mend())).holds()).isTrue();
    }
}
