package rueda.proof;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;
import rueda.machine.DemoMachine;
import rueda.machine.MachineRules;

class DemoProofTest {
    @Test
    void demo() {
        assertThat(MachineRules.check(DemoMachine.create())).isEmpty();
        long t = System.nanoTime();
        ProofRun run = Prover.run(DemoMachine.create());
        System.out.println((System.nanoTime() - t) / 1e6 + " ms " + run.stopped() + " " + run.figures());
        run.verdicts().forEach(System.out::println);
        var h = rueda.bench.HomingTrial.worst(DemoMachine.create(), 0);
        System.out.println(h);
        System.out.println(rueda.bench.HomingTrial.run(DemoMachine.create(), 0, 60));
        System.out.println(rueda.bench.HomingTrial.run(DemoMachine.create(), 0, 130));
    }
}
