package rueda.proof;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import rueda.bus.BusFamily;
import rueda.machine.Bus.Family;
import rueda.machine.DemoMachine;
import rueda.machine.Machine;

/** Each bus family drives the Shuttle through the same PLC program with the same proof. */
class SameProofOnEveryBusTest {

    @ParameterizedTest
    @EnumSource(Family.class)
    void theDemoShowsItsOneFaultAndHoldsWithItsMend(Family family) {
        Machine machine = BusFamily.moved(DemoMachine.create(), family);
        ProofRun run = Prover.run(machine, machine.proofs().get(0));
        assertThat(run.stopped()).isNull();
        assertThat(run.verdicts()).extracting(Verdict::holds).containsExactly(true, true, true, false, true);
        String program = machine.plc().program();
        ProofRun mended = Prover.run(machine.withProgram(program.replace("Acceleration := 6000.0", "Acceleration := 5300.0")), machine.proofs().get(0));
        assertThat(mended.verdicts()).hasSize(5).allSatisfy(v -> assertThat(v.holds()).as(family + " " + v).isTrue());
    }
}
