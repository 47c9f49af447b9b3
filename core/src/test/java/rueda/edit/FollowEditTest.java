package rueda.edit;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import rueda.machine.DemoMachine;
import rueda.machine.Following;
import rueda.machine.Following.Source;
import rueda.machine.Machine;
import rueda.machine.MachineRules;
import rueda.quantity.InvalidEntry;

class FollowEditTest {

    private static final Machine DEMO = DemoMachine.create();

    /** Whatever is tied to whatever, it can be stored, its pitches are those of its ratio, and it catches up. */
    @ParameterizedTest
    @CsvSource({"0, Table", "1, Shuttle", "2, Doser", "4, Lift", "0, Doser"})
    void beginsWithWhatSuitsIt(int axis, String master) {
        Following begun = FollowEdit.of(DEMO, axis, Source.SETPOINT, master);
        Machine with = DEMO.withAxis(axis, DEMO.axes().get(axis).withFollowing(begun));
        assertThat(MachineRules.check(with)).isEmpty();
        assertThat(begun.unitsPerUnit(with.axes().get(axis), with.axis(master).orElseThrow())).isEqualTo(begun.ratio().meant());
        assertThat(begun.catchUp()).isPositive();
        assertThat(begun.trimSpeed()).isPositive();
    }

    @Test
    void whatWasEnteredStays() {
        Following brush = DEMO.axes().get(3).following();
        Following nothing = FollowEdit.of(DEMO, 3, Source.NONE, "");
        assertThat(nothing.follows()).isFalse();
        Machine without = DEMO.withAxis(3, DEMO.axes().get(3).withFollowing(nothing));
        assertThat(FollowEdit.of(without, 3, Source.SETPOINT, "Table")).isEqualTo(brush);
        assertThatThrownBy(() -> FollowEdit.of(DEMO, 3, Source.SETPOINT, "Brush")).isInstanceOf(InvalidEntry.class);
        assertThatThrownBy(() -> FollowEdit.of(DEMO, 3, Source.SETPOINT, "Nobody")).isInstanceOf(InvalidEntry.class);
    }

    @Test
    void aMasterThatIsRenamedOrRemovedIsFollowedThere() {
        Machine renamed = new AxisEdit.Rename("Table", "Carousel").on(DEMO).machine();
        assertThat(renamed.axes().get(3).following().master()).isEqualTo("Carousel");
        assertThat(AxisEdit.dependents(DEMO, "Table")).contains("The axis Brush follows it, and will follow nothing.");
        Machine removed = new AxisEdit.Remove("Table").on(DEMO).machine();
        assertThat(removed.axes().get(2).following().follows()).isFalse();
        assertThat(MachineRules.check(removed)).isEmpty();
    }
}
