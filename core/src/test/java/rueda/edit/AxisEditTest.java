package rueda.edit;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import org.junit.jupiter.params.provider.ValueSource;
import rueda.bench.Bench;
import rueda.bus.BusFamily;
import rueda.machine.Axis;
import rueda.machine.Bus;
import rueda.machine.DemoMachine;
import rueda.machine.Feed;
import rueda.machine.Machine;
import rueda.machine.MachineRules;
import rueda.machine.NewMachine;
import rueda.machine.Plc.DeclaredTag;
import rueda.machine.Proof;
import rueda.machine.Expectation;
import rueda.plc.StructuredTextCompiler;
import rueda.proof.ProofRun;
import rueda.proof.Prover;
import rueda.quantity.InvalidEntry;

/** What follows when the list of axes changes. */
class AxisEditTest {

    private static final Machine DEMO = DemoMachine.create();

    /** Every file of the program follows; a name that stands in one of them is taken. */
    @Test
    void aRenamedAxisIsFollowedInEveryFile() {
        Machine several = DEMO.withPlc(DEMO.plc().withFiles(java.util.List.of(DEMO.plc().files().get(0), new rueda.machine.Plc.SourceFile("More.st", "FUNCTION_BLOCK M VAR p : MC_Power; Wagon : INT; END_VAR p(Axis := Shuttle, Enable := TRUE); END_FUNCTION_BLOCK"))));
        Machine renamed = new AxisEdit.Rename("Shuttle", "Carriage").on(several).machine();
        assertThat(renamed.plc().files().get(1).source()).contains("Axis := Carriage");
        assertThat(rueda.plc.StructuredTextCompiler.compile(rueda.plc.StructuredTextCompiler.Text.of(renamed.plc()), rueda.bench.Bench.environment(renamed)).diagnostics()).isEmpty();
        org.assertj.core.api.Assertions.assertThatThrownBy(() -> new AxisEdit.Rename("Shuttle", "Wagon").on(several)).hasMessageContaining("line 1 of More.st");
    }

    /** The renamed machine does the same to the last bit: its program, its tags and its proof have followed. */
    @Test
    void aRenamedAxisMovesAsBefore() {
        Machine renamed = new AxisEdit.Rename("SHUTTLE", "Carriage").on(DEMO).machine();
        assertThat(MachineRules.check(renamed)).isEmpty();
        assertThat(renamed.plc().program()).doesNotContain("Shuttle");
        assertThat(renamed.axes().get(0).station().address().name()).isEqualTo("carriage");
        assertThat(renamed.axes().get(0).station().outputs()).extracting(e -> e.tag()).contains("Carriage.Cmd.Position").noneMatch(t -> t.startsWith("Shuttle"));
        ProofRun before = Prover.run(DEMO, DEMO.proofs().get(0));
        ProofRun after = Prover.run(renamed, renamed.proofs().get(0));
        assertThat(after.verdicts()).hasSameSizeAs(before.verdicts());
        for (int i = 0; i < before.verdicts().size(); i++) {
            assertThat(after.verdicts().get(i).holds()).isEqualTo(before.verdicts().get(i).holds());
            assertThat(after.verdicts().get(i).sentence()).isEqualTo(before.verdicts().get(i).sentence().replace("Shuttle", "Carriage"));
        }
        Machine back = new AxisEdit.Rename("Carriage", "Shuttle").on(renamed).machine();
        assertThat(back).isEqualTo(DEMO);
    }

    /** In comments, literals, members and longer names nothing is renamed. */
    @Test
    void onlyTheNameItselfIsRenamed() {
        Machine machine = DEMO.withProgram("""
                PROGRAM P
                VAR Lifted : BOOL; Place : STRING := 'Lift here'; END_VAR
                (* the Lift *) // Lift
                Power(Axis := LIFT, Enable := Lifted);
                x := Lift.Fb.Position + Table.Lift;
                END_PROGRAM
                """).withPlc(DEMO.plc().withProgram("PROGRAM P VAR Lifted : BOOL; Place : STRING := 'Lift here'; END_VAR (* the Lift *) Power(Axis := LIFT); x := Lift.Fb.Position + Table.Lift; // Lift\nEND_PROGRAM")
                .withTasks(List.of(DEMO.plc().tasks().get(0), new rueda.machine.Plc.Task("On", 0, "Lift.Extra", 1, 0, List.of()), new rueda.machine.Plc.Task("Off", 0, "Lifted.Extra", 1, 0, List.of())))
                .withTags(List.of(new DeclaredTag("Lift.Extra", "BOOL"), new DeclaredTag("Lifted.Extra", "BOOL"))))
                .withProofs(List.of(new Proof("p", 1, List.of(Expectation.arrives("Lift", 1, 1, 1, "Lift.Fb.Ready", 0))), new Proof("q", 1, List.of(Expectation.arrives("Table", 1, 1, 1, "Lifted", 0)))));
        Machine renamed = new AxisEdit.Rename("Lift", "Hoist").on(machine).machine();
        assertThat(renamed.plc().program()).isEqualTo("PROGRAM P VAR Lifted : BOOL; Place : STRING := 'Lift here'; END_VAR (* the Lift *) Power(Axis := Hoist); x := Hoist.Fb.Position + Table.Lift; // Lift\nEND_PROGRAM");
        assertThat(renamed.plc().tags()).extracting(DeclaredTag::name).containsExactly("Hoist.Extra", "Lifted.Extra");
        assertThat(renamed.plc().tasks()).extracting(t -> t.onTag()).containsExactly("", "Hoist.Extra", "Lifted.Extra");
        assertThat(renamed.proofs()).extracting(p -> p.expectations().get(0).axis()).containsExactly("Hoist", "Table");
        assertThat(renamed.proofs()).extracting(p -> p.expectations().get(0).after()).containsExactly("Hoist.Fb.Ready", "Lifted");
    }

    @ParameterizedTest
    @ValueSource(strings = {"", "1st", "Lift", "lIFT", "IF", "Program", "INT", "a b", "__x", "x_", "Ä", "ToSlot"})
    void aNameThatCannotBeUsedIsRefused(String name) {
        assertThatThrownBy(() -> new AxisEdit.Rename("Shuttle", name).on(DEMO)).isInstanceOf(InvalidEntry.class);
        if (!name.equals("ToSlot")) {
            assertThatThrownBy(() -> new AxisEdit.Add(name, Feed.Kind.SCREW).on(DEMO)).isInstanceOf(InvalidEntry.class);
            assertThatThrownBy(() -> new AxisEdit.Copy("Shuttle", name).on(DEMO)).isInstanceOf(InvalidEntry.class);
        }
        assertThatThrownBy(() -> new AxisEdit.Rename("Nobody", "Somebody").on(DEMO)).isInstanceOf(InvalidEntry.class);
    }

    /** Another case of the same name is no other name. */
    @Test
    void theCaseOfANameCanChange() {
        Machine renamed = new AxisEdit.Rename("Shuttle", "SHUTTLE").on(DEMO).machine();
        assertThat(renamed.axes().get(0).name()).isEqualTo("SHUTTLE");
        assertThat(MachineRules.check(renamed)).isEmpty();
        assertThat(StructuredTextCompiler.compile(renamed.plc().program(), Bench.environment(renamed)).runs()).isTrue();
    }

    /** On every bus a new axis and a copy of each axis have an address and tags of their own, and the bench runs. */
    @ParameterizedTest
    @EnumSource(Bus.Family.class)
    void whatIsAddedCanBeStoredAndRuns(Bus.Family family) {
        Machine machine = BusFamily.moved(DEMO, family);
        for (Axis axis : DEMO.axes()) {
            AxisEdit.Outcome copied = new AxisEdit.Copy(axis.name(), axis.name() + "_2").on(machine);
            machine = copied.machine();
            assertThat(machine.axes().get(copied.axis()).name()).isEqualTo(axis.name() + "_2");
            assertThat(machine.axes().get(copied.axis()).limits()).isEqualTo(axis.limits());
        }
        for (Feed.Kind kind : Feed.Kind.values()) {
            machine = new AxisEdit.Add("New_" + kind, kind).on(machine).machine();
        }
        assertThat(MachineRules.check(machine)).isEmpty();
        assertThat(machine.axes().stream().map(a -> a.station().address().number()).distinct()).hasSameSizeAs(machine.axes());
        Bench bench = new Bench(machine, "PROGRAM P END_PROGRAM", 10);
        for (int i = 0; i < 100; i++) {
            bench.cycle();
        }
        assertThat(bench.resource().fault()).isNull();
    }

    @Test
    void whatDependsIsNamedFirstAndGoes() {
        assertThat(AxisEdit.dependents(DEMO, "Shuttle")).anyMatch(s -> s.contains("10 tags, Shuttle.Cmd.Control")).anyMatch(s -> s.contains("8 sentences")).anyMatch(s -> s.contains("names it in lines"));
        AxisEdit.Outcome outcome = new AxisEdit.Remove("Shuttle").on(DEMO);
        assertThat(outcome.machine().axes()).extracting(Axis::name).containsExactly("Lift", "Table", "Brush", "Doser");
        assertThat(outcome.machine().proofs().get(0).expectations()).isEmpty();
        assertThat(outcome.machine().plc().program()).isEqualTo(DEMO.plc().program());
        assertThat(outcome.axis()).isZero();
        Machine none = DEMO;
        for (Axis axis : DEMO.axes()) {
            none = new AxisEdit.Remove(axis.name()).on(none).machine();
        }
        assertThat(none.axes()).isEmpty();
        assertThat(MachineRules.check(none)).isEmpty();
    }

    @Test
    void anAxisMovesInTheListAndKeepsItsAddress() {
        AxisEdit.Outcome moved = new AxisEdit.Move("Doser", 1).on(DEMO);
        assertThat(moved.machine().axes()).extracting(Axis::name).containsExactly("Shuttle", "Doser", "Lift", "Table", "Brush");
        assertThat(moved.machine().axes().get(1)).isEqualTo(DEMO.axes().get(4));
        assertThatThrownBy(() -> new AxisEdit.Move("Doser", 5).on(DEMO)).isInstanceOf(InvalidEntry.class);
    }

    /** A machine begins without axes, can be stored, and its bench runs. */
    @Test
    void anEmptyMachineRuns() {
        Machine empty = NewMachine.named("m");
        assertThat(MachineRules.check(empty)).isEmpty();
        for (Bus.Family family : Bus.Family.values()) {
            Machine moved = BusFamily.moved(empty, family);
            ProofRun run = Prover.run(moved, moved.proofs().get(0));
            assertThat(run.stopped()).isNull();
            assertThat(run.verdicts()).isEmpty();
        }
    }
}
