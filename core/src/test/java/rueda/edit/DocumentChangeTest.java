package rueda.edit;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatCode;

import java.lang.reflect.ParameterizedType;
import java.lang.reflect.RecordComponent;
import java.lang.reflect.Type;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import org.junit.jupiter.api.Test;
import rueda.machine.DemoMachine;
import rueda.machine.Feed;
import rueda.machine.Load;
import rueda.machine.Machine;
import rueda.machine.NewMachine;
import rueda.machine.Proof;
import rueda.machine.Reducer;
import rueda.machine.Train;

class DocumentChangeTest {

    private static final Machine DEMO = firstProof(DemoMachine.create());

    private static Machine firstProof(Machine demo) {
        return demo.withProofs(demo.proofs().subList(0, 1));
    }

    @Test
    void anEntryIsToldWithItsValuesAndUnits() {
        Machine after = DEMO.withAxis(1, DEMO.axes().get(1).withLimits(DEMO.axes().get(1).limits().withMax(DEMO.axes().get(1).limits().max().withSpeed(250))).withLoad(new Load(140, 1.2e-3, 180, 400, 90, 0, 0, 0)))
                .withBus(DEMO.bus().withCycleMicros(2000));
        assertThat(DocumentChange.between(DEMO, after)).containsExactly(
                new DocumentChange("", "Bus cycle", "1000 µs", "2000 µs"),
                new DocumentChange("Lift", "Load, mass", "120 kg", "140 kg"),
                new DocumentChange("Lift", "Highest, speed", "300 mm/s", "250 mm/s"));
        assertThat(DocumentChange.between(DEMO, DEMO)).isEmpty();
    }

    @Test
    void listsAreToldByPart() {
        var lift = DEMO.axes().get(1);
        Machine gear = DEMO.withAxis(1, lift.withTrain(new Train(List.of(new Reducer(3, 1)), lift.train().feed())));
        assertThat(DocumentChange.between(DEMO, gear)).containsExactly(new DocumentChange("Lift", "Reducers 1, motor turns", "2", "3"));
        Machine tag = DEMO.withAxis(1, lift.withStation(lift.station().withEntries(lift.station().outputs().stream().map(e -> e.tag().equals("Lift.Cmd.Mode") ? e.withTag("Lift.Cmd.Way", "SINT") : e).toList(), lift.station().inputs())));
        assertThat(DocumentChange.between(DEMO, tag)).containsExactly(new DocumentChange("Lift", "Process data to the drive Lift.Cmd.Mode, tag", "Lift.Cmd.Mode", "Lift.Cmd.Way"));
    }

    @Test
    void aProgramIsToldByItsFirstLineThatDiffers() {
        Machine before = DEMO.withProgram("PROGRAM P\nVAR END_VAR\nx := 1;\nEND_PROGRAM");
        assertThat(DocumentChange.between(before, before.withProgram("PROGRAM P\nVAR END_VAR\nx := 2;\nEND_PROGRAM"))).containsExactly(new DocumentChange("", "Program, line 3", "x := 1;", "x := 2;"));
        assertThat(DocumentChange.between(before, before.withProgram("PROGRAM P\nVAR END_VAR\nx := 1;\ny := 1;\nz := 1;\nEND_PROGRAM"))).containsExactly(new DocumentChange("", "Program, line 4 and 1 more", "", "y := 1;"));
    }

    @Test
    void axesComeGoMoveAndAreRenamed() {
        assertThat(DocumentChange.between(DEMO, new AxisEdit.Add("Press", Feed.Kind.SCREW).on(DEMO).machine())).containsExactly(new DocumentChange("Press", "Axis", "", "added"));
        assertThat(DocumentChange.between(DEMO, new AxisEdit.Remove("Doser").on(DEMO).machine())).containsExactly(new DocumentChange("Doser", "Axis", "there", "removed"));
        assertThat(DocumentChange.between(DEMO, new AxisEdit.Move("Doser", 0).on(DEMO).machine())).containsExactly(
                new DocumentChange("", "Order of the axes", "Shuttle, Lift, Table, Brush, Doser", "Doser, Shuttle, Lift, Table, Brush"));
        assertThat(DocumentChange.between(DEMO, new AxisEdit.Rename("Doser", "Salter").on(DEMO).machine())).containsExactly(new DocumentChange("Salter", "Axis name", "Doser", "Salter"));
        assertThat(DocumentChange.between(DEMO, NewMachine.named("m"))).filteredOn(c -> c.to().equals("removed")).hasSize(5);
    }

    /** Every component of the document has words: a new one cannot be forgotten. */
    @Test
    void everyEntryHasWords() {
        Set<Class<?>> seen = new HashSet<>();
        walk(Machine.class, seen);
        assertThat(seen.size()).isGreaterThan(25);
    }

    private static void walk(Type type, Set<Class<?>> seen) {
        if (type instanceof ParameterizedType list) {
            walk(list.getActualTypeArguments()[0], seen);
        } else if (type instanceof Class<?> record && record.isRecord() && seen.add(record)) {
            for (RecordComponent component : record.getRecordComponents()) {
                assertThatCode(() -> EntryWords.of(component)).doesNotThrowAnyException();
                walk(component.getGenericType(), seen);
            }
        }
    }

    /** Proofs are told by their names, what is in them by their entries; a task and a file that are alone say themselves what they are. */
    @Test
    void proofsAndTasksAreTold() {
        Proof proof = DEMO.proofs().get(0);
        assertThat(DocumentChange.between(DEMO, DEMO.withProofs(List.of(proof.withDuration(20))))).containsExactly(new DocumentChange("", "Proof, duration", "18 s", "20 s"));
        assertThat(DocumentChange.between(DEMO, DEMO.withProofs(List.of(proof.withName("Fetch"))))).containsExactly(new DocumentChange("", "Proof, name", proof.name(), "Fetch"));
        Machine two = DEMO.withProofs(List.of(proof, proof.withName("Long").withDuration(60)));
        assertThat(DocumentChange.between(DEMO, two)).containsExactly(new DocumentChange("", "Proof “Long”", "", "added"));
        assertThat(DocumentChange.between(two, DEMO)).containsExactly(new DocumentChange("", "Proof “Long”", "there", "removed"));
        assertThat(DocumentChange.between(two, two.withProofs(List.of(two.proofs().get(1).withGroup("Night"), two.proofs().get(0))))).containsExactly(new DocumentChange("", "Proof “Long”, group", "Fetching", "Night"));
        assertThat(DocumentChange.between(DEMO, DEMO.withPlc(DEMO.plc().withTaskIntervalMicros(4000)))).containsExactly(new DocumentChange("", "Task interval", "2000 µs", "4000 µs"));
        assertThat(DocumentChange.between(DEMO, DEMO.withProgram(DEMO.plc().program() + "(* end *)\n"))).hasSize(1).first().extracting(DocumentChange::entry).asString().startsWith("Program, line");
    }
}
