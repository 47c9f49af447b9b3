package rueda.app.machine;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import org.junit.jupiter.api.Test;
import rueda.advice.Finding.Change;
import rueda.app.web.Refusals.RefusedEntries;
import rueda.machine.DemoMachine;
import rueda.machine.Machine;
import tools.jackson.databind.JsonNode;

/** A change of a document makes another one, and leaves the one that was there as it was: many pages go on from the same. */
class ChangedDocumentTest {

    private static final Machine DEMO = DemoMachine.create();

    @Test
    void theDocumentBeforeStaysAsItWas() {
        JsonNode before = MachineJson.tree(DEMO);
        JsonNode whole = MachineJson.tree(DEMO);
        JsonNode after = MachineJson.changed(before, List.of(new Change("replace", "/axes/1/load/mass", 77), new Change("add", "/axes/0/moves/zones/-", MachineJson.tree(DEMO.axes().get(0).moves().zones().get(0))),
                new Change("remove", "/proofs/0", null), new Change("replace", "/name", "changed")));
        assertThat(before).isEqualTo(whole);
        assertThat(after.at("/axes/1/load/mass").asInt()).isEqualTo(77);
        assertThat(after.at("/axes/0/moves/zones")).hasSize(2);
        assertThat(after.at("/proofs")).hasSize(DEMO.proofs().size() - 1);
        assertThat(after.at("/axes/2")).as("what is not on the way is shared").isSameAs(before.at("/axes/2"));
    }

    @Test
    void whatIsMissingInAChangedAxisIsNamedWhereItStands() {
        JsonNode tree = MachineJson.changed(MachineJson.tree(DEMO), List.of(new Change("remove", "/axes/2/load", null)));
        assertThatThrownBy(() -> MachineJson.document(tree, DEMO, List.of(new Change("remove", "/axes/2/load", null)))).isInstanceOf(RefusedEntries.class).hasMessageContaining("Load");
        assertThatThrownBy(() -> MachineJson.changed(MachineJson.tree(DEMO), List.of(new Change("replace", "/axes/9/load", 1)))).isInstanceOf(RefusedEntries.class);
    }
}
