package rueda.advice;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import org.junit.jupiter.api.Test;
import rueda.advice.PlcComparison.Compared;
import rueda.machine.DemoMachine;
import rueda.machine.Machine;
import rueda.plc.BoundTags;
import rueda.plc.TagRow;
import rueda.plc.type.Type;

/** Which rows of a PLC's table are of a station, and in which direction. */
class TableComparisonTest {

    private static final Machine DEMO = DemoMachine.create();

    @Test
    void theTableOfTheWholeMachineIsComparedAxisByAxis() {
        for (int i = 0; i < DEMO.axes().size(); i++) {
            List<Compared> compared = TableComparison.of(DEMO, i, BoundTags.of(DEMO), null, true);
            assertThat(compared).extracting(Compared::output).containsExactly(true, false);
            assertThat(compared).flatExtracting(Compared::lines).allMatch(PlcComparison.Line::agrees);
        }
    }

    /** A direction that is bound in the program and stands nowhere in the table is told. */
    @Test
    void aDirectionThatIsMissingIsTold() {
        List<TagRow> outputs = BoundTags.of(DEMO).stream().filter(r -> r.name().startsWith("Lift.") && r.output()).toList();
        List<Compared> compared = TableComparison.of(DEMO, 1, outputs, null, true);
        assertThat(compared).extracting(Compared::output).containsExactly(true, false);
        assertThat(compared.get(1).findings()).anyMatch(f -> f.severity() != Finding.Severity.GOOD);
    }

    /** Rows that tell no direction: a bound name tells it, and what nobody knows goes where the asker says. */
    @Test
    void theNameTellsTheDirection() {
        List<TagRow> silent = List.of(new TagRow("Lift_Fb_Status", Type.WORD, null, 0, ""), new TagRow("Lift_Other", Type.WORD, null, 16, ""));
        assertThat(TableComparison.of(DEMO, 1, silent, null, true)).extracting(c -> c.lines().stream().filter(l -> !l.row().isEmpty()).map(PlcComparison.Line::row).toList())
                .containsExactly(List.of("Lift_Other"), List.of("Lift_Fb_Status"));
    }

    /** A name is of an axis when a dot or an underscore follows it: Lifted is none of the Lift. */
    @Test
    void aTableOfAnotherAxisIsRefused() {
        List<TagRow> others = List.of(new TagRow("Table.Cmd.Control", Type.WORD, true, 0, ""), new TagRow("Lifted.Cmd", Type.WORD, true, 16, ""));
        assertThatThrownBy(() -> TableComparison.of(DEMO, 1, others, null, true)).hasMessageContaining("tags of Lift");
        assertThat(TableComparison.of(DEMO, 2, others, null, true).get(0).lines()).extracting(PlcComparison.Line::row).doesNotContain("Lifted.Cmd");
    }

    @Test
    void aTagThatIsBoundTwiceIsNamed() {
        var lift = DEMO.axes().get(1);
        Machine twice = DEMO.withAxis(1, lift.withStation(lift.station().withOutputs(lift.station().outputs().stream().map(e -> e.object() == 0x6060 ? e.withTag("SHUTTLE.cmd.mode", "SINT") : e).toList())));
        assertThatThrownBy(() -> BoundTags.of(twice)).hasMessageContaining("bound more than once");
    }
}
