package rueda.proof;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import rueda.advice.FollowTheory;
import rueda.machine.Axis;
import rueda.machine.DemoMachine;
import rueda.machine.Homing;
import rueda.machine.Machine;
import rueda.machine.Proof;
import rueda.machine.Expectation;
import rueda.machine.Expectation.Quantity;

/** That the phase of a follower stays within a window, proven: it does, and does not where the speed is not fed forward. */
class PhaseProofTest {

    private static final String PROGRAM = """
            PROGRAM Pair
            VAR P1, P2 : MC_Power; H1, H2 : MC_Home; Gear : MC_GearIn; Run : MC_MoveVelocity; END_VAR
            P1(Axis := Table, Enable := TRUE); P2(Axis := Brush, Enable := TRUE);
            H1(Axis := Table, Execute := P1.Status); H2(Axis := Brush, Execute := P2.Status);
            Run(Axis := Table, Execute := H1.Done, Velocity := 40.0);
            Gear(Master := Table, Slave := Brush, Execute := Run.InVelocity AND H2.Done, RatioNumerator := 7, RatioDenominator := 2);
            END_PROGRAM
            """;

    private static Axis placed(Axis axis) {
        return axis.withHoming(Homing.search(37, 20, 2, 60, 0));
    }

    @ParameterizedTest
    @CsvSource({"100, true", "0, false"})
    void thePhaseStaysWithinItsWindow(double feedForward, boolean holds) {
        Machine demo = DemoMachine.create();
        Axis table = placed(demo.axis("Table").orElseThrow());
        Axis brush = placed(demo.axis("Brush").orElseThrow());
        brush = brush.withFollowing(brush.following().withFeedForward(feedForward));
        Machine machine = demo.withAxes(List.of(table, brush)).withProgram(PROGRAM).withProofs(List.of(new Proof("In step", 6, List.of(Expectation.bound("Brush", Quantity.PHASE, 1), Expectation.bound("Brush", Quantity.SPEED, 500)))));
        ProofRun run = Prover.run(machine, machine.proofs().get(0));
        Verdict phase = run.verdicts().get(0);
        assertThat(run.verdicts().get(1).measured()).as("it did follow").isGreaterThan(139);
        assertThat(phase.holds()).isEqualTo(holds);
        assertThat(phase.unit()).isEqualTo("°");
        if (!holds) {
            assertThat(phase.measured()).isCloseTo(FollowTheory.of(brush, 140).gap(), within(0.3));
            assertThat(phase.cause()).contains("following, ordered in line 6");
        }
    }
}
