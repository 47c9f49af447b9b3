package rueda.proof.learn;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.ArrayList;
import java.util.List;
import java.util.SplittableRandom;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import rueda.bench.CalculationCancelled;
import rueda.bench.ReadyProgram;
import rueda.bench.Recorded;
import rueda.bench.Stand;
import rueda.machine.Axis;
import rueda.machine.DemoMachine;
import rueda.machine.Load;
import rueda.machine.Machine;
import rueda.machine.Proof;
import rueda.proof.Prover;
import rueda.proof.RecordedRun;
import rueda.quantity.InvalidEntry;
import rueda.recording.Brought;
import rueda.recording.Curve;

/** Values that a recording was made with, on the bench with noise, come back within the doubt that is told. */
class LearningTest {

    private static final int SHUTTLE = 0;
    private static final int TABLE = 2;
    /** s of a proof that the learning makes some dozens of times: the shuttle is homed and fetches its wheel in it. */
    private static final double SHORT = 10;

    /** @param late s by which what is measured comes later than what is commanded */
    private static Brought recorded(Machine machine, Proof proof, int axis, Load really, double late, double later, long seed, double noise) {
        Stand sound = Stand.of(machine);
        List<Axis> axes = new ArrayList<>(sound.axes());
        axes.set(axis, machine.axes().get(axis).withLoad(really));
        RecordedRun run = Prover.recorded(machine, ReadyProgram.of(machine), proof, new Stand(axes, sound.disturbed(), seed), Recorded.ALL, Brought.Shelf.EMPTY);
        SplittableRandom random = new SplittableRandom(seed);
        List<Brought.Column> columns = new ArrayList<>();
        String name = machine.axes().get(axis).name();
        double torque = machine.axes().get(axis).motor().ratedTorque();
        double speed = machine.axes().get(axis).limits().normal().speed();
        columns.add(column(run, name + ".commandedSpeed", later, 4, random, 0));
        columns.add(column(run, name + ".speed", later + late, 4, random, noise * speed));
        columns.add(column(run, name + ".torque", later + late, 4, random, noise * torque));
        return new Brought("Real", columns);
    }

    private static Brought.Column column(RecordedRun run, String name, double later, int every, SplittableRandom random, double deviation) {
        int signal = run.signal(name);
        int count = (int) (run.samples() / every);
        long[] nanos = new long[count];
        double[] values = new double[count];
        for (int i = 0; i < count; i++) {
            nanos[i] = Math.round((run.time((long) i * every) + later) * 1e9);
            values[i] = run.value(signal, (long) i * every) + random.nextGaussian() * deviation;
        }
        return new Brought.Column(name, run.signals().get(signal).unit(), new Curve(nanos, values));
    }

    private static Learned.LearnedValue value(Learned learned, Unknown of) {
        return learned.values().stream().filter(v -> v.of() == of).findFirst().orElseThrow();
    }

    private static void within(Learned learned, Unknown of, double really) {
        Learned.LearnedValue value = value(learned, of);
        assertThat(value.doubt()).as(of + " has a doubt").isPositive();
        assertThat(Math.abs(value.found() - really)).as("%s: found %.5g ± %.3g, really %.5g", of, value.found(), value.doubt(), really).isLessThanOrEqualTo(value.doubt());
    }

    @ParameterizedTest
    @ValueSource(longs = {4})
    void massAndFrictionOfTheShuttleComeBack(long seed) {
        Machine machine = DemoMachine.create();
        Proof proof = machine.proofs().get(0).withDuration(SHORT);
        Load l = machine.axes().get(SHUTTLE).load();
        Load really = new Load(150 - 4 * seed, l.inertia(), l.coulomb() * (1.2 + 0.2 * seed), l.viscous() * 1.3, 0, l.stiffness(), l.damping(), l.backlash());
        Learned learned = Learning.learn(machine, proof, SHUTTLE, recorded(machine, proof, SHUTTLE, really, 0.003, 12.5, seed, 0.02), List.of(Unknown.LOAD, Unknown.COULOMB, Unknown.VISCOUS), 2, (runs, of, apart) -> { });
        within(learned, Unknown.LOAD, really.mass());
        within(learned, Unknown.COULOMB, really.coulomb());
        within(learned, Unknown.VISCOUS, really.viscous());
        within(learned, Unknown.DELAY, 0.003);
        assertThat(value(learned, Unknown.LOAD).sure()).isTrue();
        assertThat(value(learned, Unknown.COULOMB).sure()).isTrue();
        assertThat(learned.fits()).allSatisfy(fit -> assertThat(fit.after()).isLessThan(fit.before()));
    }

    @Test
    void theSlopeOfTheLineComesBack() {
        Machine machine = DemoMachine.create();
        Proof proof = machine.proofs().get(0).withDuration(SHORT);
        Load l = machine.axes().get(SHUTTLE).load();
        Load really = new Load(l.mass(), l.inertia(), l.coulomb(), l.viscous(), 0.8, l.stiffness(), l.damping(), l.backlash());
        Learned learned = Learning.learn(machine, proof, SHUTTLE, recorded(machine, proof, SHUTTLE, really, 0, -3, 9, 0.02), List.of(Unknown.SLOPE, Unknown.COULOMB), 2, (runs, of, apart) -> { });
        within(learned, Unknown.SLOPE, 0.8);
        within(learned, Unknown.COULOMB, l.coulomb());
    }

    @ParameterizedTest
    @ValueSource(doubles = {7})
    void theStiffnessOfASpringyRackComesBack(double really) {
        Load l = DemoMachine.create().axes().get(SHUTTLE).load();
        Machine machine = DemoMachine.create().withAxis(SHUTTLE, DemoMachine.create().axes().get(SHUTTLE).withLoad(new Load(150, 0, l.coulomb(), l.viscous(), 0, 10, 0.02, 0)));
        Proof proof = machine.proofs().get(0).withDuration(SHORT);
        Load load = new Load(140, 0, l.coulomb(), l.viscous(), 0, really, 0.02, 0);
        Learned learned = Learning.learn(machine, proof, SHUTTLE, recorded(machine, proof, SHUTTLE, load, 0, 0, 4, 0.01), List.of(Unknown.LOAD, Unknown.STIFFNESS), 2, (runs, of, apart) -> { });
        within(learned, Unknown.LOAD, 140);
        within(learned, Unknown.STIFFNESS, really);
        assertThat(value(learned, Unknown.STIFFNESS).sure()).isTrue();
    }

    @Test
    void whatAnAxisDoesNotHaveIsNotLearned() {
        Machine machine = DemoMachine.create();
        Proof proof = machine.proofs().get(1);
        Learned learned = Learning.learn(machine, proof, TABLE, recorded(machine, proof, TABLE, machine.axes().get(TABLE).load(), 0, 0, 4, 0.01), List.of(Unknown.COULOMB, Unknown.SLOPE), 2, (runs, of, apart) -> { });
        within(learned, Unknown.COULOMB, machine.axes().get(TABLE).load().coulomb());
        assertThat(learned.remarks()).anyMatch(remark -> remark.contains("slope of the line is not learned"));
    }

    @Test
    void aRecordingWithoutTorqueTeachesNothing() {
        Machine machine = DemoMachine.create();
        Proof proof = machine.proofs().get(0);
        Brought all = recorded(machine, proof, SHUTTLE, machine.axes().get(SHUTTLE).load(), 0, 0, 1, 0.01);
        Brought less = new Brought("Real", all.columns().subList(0, 2));
        assertThatThrownBy(() -> Learning.learn(machine, proof, SHUTTLE, less, List.of(Unknown.LOAD), 1, (runs, of, apart) -> { })).isInstanceOf(InvalidEntry.class).hasMessageContaining("without the torque of Shuttle");
        Brought other = new Brought("Oven", List.of(new Brought.Column("temperature", "°C", new Curve(new long[] {0, 1}, new double[] {1, 2}))));
        assertThatThrownBy(() -> Learning.learn(machine, proof, SHUTTLE, other, List.of(Unknown.LOAD), 1, (runs, of, apart) -> { })).isInstanceOf(InvalidEntry.class).hasMessageContaining("lies nowhere over a run");
    }

    @Test
    void itEndsWhenItIsNotWanted() {
        Machine machine = DemoMachine.create();
        Proof proof = machine.proofs().get(0);
        Brought all = recorded(machine, proof, SHUTTLE, machine.axes().get(SHUTTLE).load(), 0, 0, 1, 0.01);
        assertThatThrownBy(() -> Learning.learn(machine, proof, SHUTTLE, all, List.of(Unknown.LOAD), 2, (runs, of, apart) -> {
            throw new CalculationCancelled();
        })).isInstanceOf(CalculationCancelled.class);
    }
}
