package rueda.proof;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import org.junit.jupiter.api.Test;
import rueda.advice.Finding;
import rueda.advice.MapAdvice;
import rueda.advice.MoveAdvice;
import rueda.machine.DemoMachine;
import rueda.machine.Machine;
import rueda.machine.MachineRules;

/** The same work by motion blocks and by plain words: the same proof says the same. */
class PlainWordsTest {

    @Test
    void theProofSaysTheSame() {
        Machine words = DemoMachine.byWords();
        assertThat(MachineRules.check(words)).isEmpty();
        assertThat(MapAdvice.of(words, words.axes().get(0), "/axes/0").findings()).allMatch(f -> f.severity() == Finding.Severity.GOOD);
        assertThat(MoveAdvice.of(words, words.axes().get(0), "/axes/0").findings()).allMatch(f -> f.severity() == Finding.Severity.GOOD);
        ProofRun blocks = Prover.run(DemoMachine.create(), DemoMachine.create().proofs().get(0));
        ProofRun plain = Prover.run(words, words.proofs().get(0));
        assertThat(plain.stopped()).isNull();
        for (int i = 0; i < blocks.verdicts().size(); i++) {
            Verdict one = blocks.verdicts().get(i);
            Verdict other = plain.verdicts().get(i);
            assertThat(other.holds()).as(one.toString() + " and " + other).isEqualTo(one.holds());
            if (one.measured() != null && i < 3) {
                /* a bus cycle or two of handshake; the following error is another one, for the setpoint is made in the drive and waits for no bus */
                assertThat(other.measured()).as(other.toString()).isCloseTo(one.measured(), within(0.02 * one.measured()));
            }
        }
    }
}
