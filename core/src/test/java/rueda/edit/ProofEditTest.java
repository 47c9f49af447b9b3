package rueda.edit;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.junit.jupiter.api.Test;
import rueda.machine.Circumstance;
import rueda.machine.Condition;
import rueda.machine.DemoMachine;
import rueda.machine.Expectation;
import rueda.machine.Expectation.Quantity;
import rueda.machine.Machine;
import rueda.machine.Proof;
import rueda.machine.ScriptStep;
import rueda.machine.ScriptStep.Does;

/** Sentences of proofs follow names that change, and go with the axis that they are about. */
class ProofEditTest {

    private static Proof proof() {
        return new Proof("p", 1, List.of(Expectation.bound("shuttle", Quantity.SPEED, 1).whenever("Shuttle.position > Lift.position"), Expectation.neverBoth("Lift", 0, 1, "Shuttle", 0, 1, 0), Expectation.time("ToSlot.Execute", "Step = 5", 0, 1)))
                .withScript(List.of(ScriptStep.set("Shuttle.I8", "TRUE"), ScriptStep.of(Does.PUSH, "Shuttle", 1), ScriptStep.stop().when("MyShuttle.x OR Shuttle.speed > 1", 0)))
                .withConditions(List.of(Condition.values(Circumstance.MASS, "Shuttle", 1.0), Condition.moments(1, 0, 1, 2), Condition.moments(2, 0, 1, 2)));
    }

    @Test
    void anotherNameOfAnAxis() {
        Proof renamed = ProofEdit.renamed(proof(), "Shuttle", "Wagon");
        assertThat(renamed.expectations().get(0).axis()).isEqualTo("Wagon");
        assertThat(renamed.expectations().get(0).when()).isEqualTo("Wagon.position > Lift.position");
        assertThat(renamed.expectations().get(1).other()).isEqualTo("Wagon");
        assertThat(renamed.script()).extracting(ScriptStep::target).startsWith("Wagon.I8");
        assertThat(renamed.script().get(1).axis()).isEqualTo("Wagon");
        assertThat(renamed.script().get(2).when()).isEqualTo("MyShuttle.x OR Wagon.speed > 1");
        assertThat(renamed.conditions().get(0).axis()).isEqualTo("Wagon");
    }

    @Test
    void anotherNameInTheProgram() {
        List<Proof> renamed = ProofEdit.renamed(List.of(proof()), List.of("Step", "ToSlot.Execute", "ToSlot.Done", "StepBefore"), List.of("Phase", "Out.Execute", "Out.Done", "StepBefore"));
        assertThat(renamed.get(0).expectations().get(2)).isEqualTo(Expectation.time("Out.Execute", "Phase = 5", 0, 1));
        assertThat(renamed.get(0).script()).isEqualTo(proof().script());
        List<Proof> same = List.of(proof());
        assertThat(ProofEdit.renamed(same, List.of("Step"), List.of("Step"))).isSameAs(same);
    }

    /** What is about the axis goes; moments stay with their sentences. */
    @Test
    void withoutAnAxis() {
        Proof without = ProofEdit.without(proof(), "SHUTTLE");
        assertThat(without.expectations()).hasSize(1);
        assertThat(without.script()).hasSize(2);
        assertThat(without.conditions()).containsExactly(Condition.moments(1, 0, 1, 2));
        assertThat(ProofEdit.dependents(proof(), "Shuttle")).isEqualTo(2 + 1 + 2);
    }

    @Test
    void theDemoStaysWithoutFaultsWhenAnAxisGetsAnotherName() {
        Machine renamed = new AxisEdit.Rename("Shuttle", "Wagon").on(DemoMachine.create()).machine();
        assertThat(rueda.machine.MachineRules.check(renamed)).isEmpty();
        for (Proof proof : renamed.proofs()) {
            assertThat(proof.toString()).doesNotContain("Shuttle.");
        }
    }
}
