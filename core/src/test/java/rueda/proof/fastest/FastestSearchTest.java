package rueda.proof.fastest;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;
import rueda.bench.CalculationCancelled;
import rueda.machine.Circumstance;
import rueda.machine.Condition;
import rueda.machine.DemoMachine;
import rueda.machine.Expectation;
import rueda.machine.Expectation.Quantity;
import rueda.machine.Machine;
import rueda.machine.Proof;
import rueda.plc.StructuredTextCompiler;
import rueda.bench.Bench;
import rueda.proof.ProofRun;
import rueda.proof.Prover;
import rueda.quantity.InvalidEntry;
import rueda.recording.Brought;

/** How fast the Shuttle may go between its slot and the table. */
class FastestSearchTest {

    private static final String FROM = "ToTable.Execute";
    private static final String TO = "Step = 50";

    private static Freedom of(Machine machine, String words, double low, double high) {
        Freedom found = Freedom.of(machine).stream().filter(f -> f.words().startsWith(words)).findFirst().orElseThrow();
        return new Freedom(found.key(), found.words(), found.unit(), found.value(), low, high);
    }

    private static Machine taken(Machine machine, Fastest found) {
        return Freedom.changed(machine, found.values().stream().map(Fastest.FoundNumber::of).toList(), found.values().stream().mapToDouble(Fastest.FoundNumber::found).toArray());
    }

    private static final Proof DEMO = DemoMachine.create().proofs().get(0);

    @Test
    void theNumbersThatAreFreeAreThoseOfTheProgramOutsideOfItsComments() {
        Machine machine = DemoMachine.create().withProgram("PROGRAM P\nVAR\n  V : LREAL := 900.0; (* was W : LREAL := 5.0 *)\n  M : MC_MoveAbsolute; T1 : TON; // X : REAL := 3.0\nEND_VAR\nM(Velocity := V, Acceleration := 2_500.0,\n  Jerk := 1e4);\nT1(PT := T#600ms);\nEND_PROGRAM\n");
        assertThat(Freedom.of(machine)).filteredOn(f -> f.key().startsWith("program:")).extracting(Freedom::words, Freedom::value)
                .containsExactly(org.assertj.core.groups.Tuple.tuple("V in line 3", 900.0), org.assertj.core.groups.Tuple.tuple("Acceleration in line 6", 2500.0), org.assertj.core.groups.Tuple.tuple("Jerk in line 7", 10000.0), org.assertj.core.groups.Tuple.tuple("PT in line 8", 600.0));
    }

    @Test
    void changedNumbersStandWhereTheyStoodAndTheProgramStillRuns() {
        Machine machine = DemoMachine.create();
        List<Freedom> all = Freedom.of(machine);
        Machine changed = Freedom.changed(machine, all, all.stream().mapToDouble(f -> f.rounded(f.value() * 0.9)).toArray());
        assertThat(StructuredTextCompiler.compile(StructuredTextCompiler.Text.of(changed.plc()), Bench.environment(changed)).runs()).isTrue();
        assertThat(changed.plc().files().get(0).source()).contains("Travel : LREAL := 810.0;").contains("PT := T#540ms");
        assertThat(changed.axes().get(0).control().positionGain()).isEqualTo(54);
        List<Double> values = new ArrayList<>();
        Freedom.of(changed).forEach(f -> values.add(f.value()));
        assertThat(values).hasSameSizeAs(all);
        assertThat(Freedom.changed(changed, Freedom.of(changed), all.stream().mapToDouble(Freedom::value).toArray())).isEqualTo(machine);
    }

    @Test
    void whatIsFoundHoldsEverythingIsFasterAndTheSameOnAnyNumberOfThreads() {
        Machine machine = DemoMachine.create();
        Proof proof = new Proof("Way back", 12, List.of(Expectation.bound("Shuttle", Quantity.FOLLOWING_ERROR, 0.25), Expectation.peakTorque("Shuttle", 95), Expectation.bound("Shuttle", Quantity.SPEED, 920)))
                .withConditions(List.of(Condition.values(Circumstance.MASS, "Shuttle", 190.0)));
        List<Freedom> free = List.of(of(machine, "Travel", 400, 940), of(machine, "Acceleration in line 67", 1000, 7000));
        Fastest found = FastestSearch.search(machine, proof, FROM, TO, true, free, Brought.Shelf.EMPTY, 2, 40, (points, of, best) -> { });
        assertThat(found.held()).as("as it is, the motor cannot").isFalse();
        assertThat(found.holds()).isTrue();
        Machine faster = taken(machine, found);
        ProofRun run = Prover.run(faster, proof);
        assertThat(run.holds()).isTrue();
        /* with more acceleration it would not hold any more: the search has gone to the edge */
        double acceleration = found.values().get(1).found();
        Machine tooFast = Freedom.changed(machine, free, new double[] {found.values().get(0).found(), acceleration * 1.25});
        Proof heavy = proof.withConditions(List.of());
        Machine loaded = tooFast.withAxis(0, tooFast.axes().get(0).withLoad(new rueda.machine.Load(190, 0, 45, 60, 0, 0, 0, 0)));
        assertThat(Prover.run(loaded, heavy).holds()).as("edge at " + acceleration).isFalse();
        assertThat(FastestSearch.search(machine, proof, FROM, TO, true, free, Brought.Shelf.EMPTY, 1, 40, (points, of, best) -> { })).isEqualTo(found);
    }

    @Test
    void whatCannotBeIsRefusedAndItCanBeEnded() {
        Machine machine = DemoMachine.create();
        assertThatThrownBy(() -> FastestSearch.search(machine, DEMO, FROM, TO, false, List.of(), Brought.Shelf.EMPTY, 1, 10, (points, of, best) -> { })).isInstanceOf(InvalidEntry.class).hasMessageContaining("at least one number");
        List<Freedom> odd = List.of(of(machine, "Travel", 900, 400));
        assertThatThrownBy(() -> FastestSearch.search(machine, DEMO, FROM, TO, false, odd, Brought.Shelf.EMPTY, 1, 10, (points, of, best) -> { })).isInstanceOf(InvalidEntry.class).hasMessageContaining("Travel");
        List<Freedom> free = List.of(of(machine, "Travel", 400, 900));
        assertThatThrownBy(() -> FastestSearch.search(machine, DEMO, FROM, TO, false, free, Brought.Shelf.EMPTY, 1, 10, (points, of, best) -> {
            throw new CalculationCancelled();
        })).isInstanceOf(CalculationCancelled.class);
        Fastest never = FastestSearch.search(machine, DEMO, "Step = 999", TO, false, free, Brought.Shelf.EMPTY, 2, 6, (points, of, best) -> { });
        assertThat(never.holds()).isFalse();
        assertThat(never.after()).isNull();
    }
}
