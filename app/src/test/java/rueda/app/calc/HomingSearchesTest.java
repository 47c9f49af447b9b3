package rueda.app.calc;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;
import rueda.app.machine.MachineJson;
import rueda.machine.Axis;
import rueda.machine.DemoMachine;
import rueda.machine.Machine;
import rueda.machine.Travel;

class HomingSearchesTest {

    private final Machine demo = DemoMachine.create();
    private final HomingSearches searches = new HomingSearches();

    /** Another program or proof, or the same document read again, asks for the same search; what it depends on does not. */
    @Test
    void aSearchIsCarriedOutOnceForWhatItDependsOn() {
        CalcController.HomingAnswer first = searches.of(demo, 0);
        assertThat(searches.of(demo.withProgram("PROGRAM Other\nEND_PROGRAM\n"), 0)).isSameAs(first);
        assertThat(searches.of(MachineJson.read(MachineJson.write(demo)), 0)).isSameAs(first);
        Axis shuttle = demo.axes().get(0);
        Travel t = shuttle.travel();
        Machine moved = demo.withAxis(0, shuttle.withTravel(new Travel(t.length(), t.negativeLimit(), t.positiveLimit(), t.camFrom(), t.camTo(), t.parkedAt() + 100)));
        assertThat(searches.of(moved, 0).here().start()).isEqualTo(t.parkedAt() + 100);
        assertThat(searches.of(demo, 1)).isNotSameAs(first);
        assertThat(searches.of(demo, 0)).isSameAs(first).isEqualTo(CalcController.HomingAnswer.of(demo, 0));
    }
}
