package rueda.edit;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.ArrayList;
import java.util.List;
import net.jqwik.api.Arbitraries;
import net.jqwik.api.Arbitrary;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.Provide;
import net.jqwik.api.constraints.IntRange;
import org.junit.jupiter.api.Test;
import rueda.machine.Axis;
import rueda.machine.Cue;
import rueda.machine.DemoMachine;
import rueda.machine.Machine;
import rueda.machine.MachineRules;
import rueda.machine.MoveEntry;
import rueda.machine.MoveList;
import rueda.machine.MoveList.By;
import rueda.machine.MoveList.Does;
import rueda.machine.MoveList.MoveException;
import rueda.machine.MoveList.Starter;
import rueda.machine.Terminal.Function;
import rueda.quantity.InvalidEntry;

/** Entries are known by their numbers: what names one goes on naming the same one. */
class MoveListEditTest {

    private static final Cue CUE = Cue.of(Function.CUE, Cue.Edge.RISING);

    /** Entries a, b, c …; each goes on to the one after it, the last to the first. */
    private static MoveList named(int count) {
        List<MoveEntry> entries = new ArrayList<>();
        for (int i = 0; i < count; i++) {
            entries.add(MoveEntry.goBy("1").withName(String.valueOf((char) ('a' + i))).thenGoOn((i + 1) % count, 0));
        }
        return MoveList.of(entries.toArray(MoveEntry[]::new)).withFirstEntry(count - 1).withStarters(List.of(new Starter(By.LEVEL, CUE, 1 % count, count - 1)))
                .withExceptions(List.of(new MoveException(CUE, Does.START, count - 1, 0, 1 % count, MoveList.MOST_ENTRIES - 1)));
    }

    private static String name(MoveList list, int number) {
        return list.entries().get(number).name();
    }

    /** What a list says in names, whatever its numbers are. */
    private static List<String> says(MoveList list) {
        List<String> all = new ArrayList<>();
        list.entries().stream().filter(e -> !e.name().isEmpty()).forEach(e -> all.add(e.name() + " goes on to " + name(list, e.next())));
        all.sort(null);
        all.add("first " + name(list, list.firstEntry()));
        list.starters().forEach(s -> all.add("starts " + name(list, s.entry()) + " and " + name(list, s.otherEntry())));
        list.exceptions().forEach(e -> all.add("on a cue " + name(list, e.entry())));
        return all;
    }

    @Provide
    Arbitrary<Integer> counts() {
        return Arbitraries.integers().between(2, 9);
    }

    @Property(tries = 200)
    void movingAndAddingKeepsWhatIsNamed(@ForAll("counts") int count, @ForAll @IntRange(min = 0, max = 8) int from, @ForAll @IntRange(min = 0, max = 8) int to) {
        MoveList list = named(count);
        assertThat(says(MoveListEdit.moved(list, from % count, to % count))).isEqualTo(says(list));
        MoveList added = MoveListEdit.added(list, to % (count + 1), MoveEntry.Kind.GO_TO);
        assertThat(added.entries()).hasSize(count + 1);
        assertThat(says(added)).isEqualTo(says(list));
        assertThat(MoveListEdit.removed(added, to % (count + 1))).as("and taken out again").isEqualTo(list);
        assertThat(MoveListEdit.moved(MoveListEdit.moved(list, from % count, to % count), to % count, from % count).entries()).isEqualTo(list.entries());
    }

    @Test
    void whatNamedARemovedEntryNamesTheOneInItsPlace() {
        MoveList left = MoveListEdit.removed(named(4), 1);
        assertThat(left.entries()).extracting(MoveEntry::name).containsExactly("a", "c", "d");
        assertThat(name(left, left.entries().get(0).next())).isEqualTo("c");
        assertThat(name(left, left.starters().get(0).entry())).isEqualTo("c");
        MoveList none = MoveListEdit.removed(named(1).withExceptions(List.of()), 0);
        assertThat(none.starters()).isEmpty();
        assertThat(none.firstEntry()).isEqualTo(MoveList.AS_ASKED);
    }

    /** Whatever is added can be stored at once, on every axis of the demo and on one that is new. */
    @Test
    void whatIsAddedCanBeStored() {
        Machine demo = DemoMachine.create();
        for (int i = 0; i < demo.axes().size(); i++) {
            for (MoveEntry.Kind kind : MoveEntry.Kind.values()) {
                Axis axis = demo.axes().get(i);
                MoveList list = axis.moves().entries().isEmpty() ? MoveListEdit.added(axis.moves(), 0, MoveEntry.Kind.GO_BY) : axis.moves();
                Axis with = axis.withMoves(MoveListEdit.added(list, list.entries().size(), kind));
                with = with.withMoves(MoveListEdit.withStarter(with));
                with = with.withMoves(MoveListEdit.withException(with));
                with = with.withMoves(MoveListEdit.withZone(with));
                assertThat(MachineRules.check(demo.withAxis(i, with))).as(axis.name() + " " + kind).isEmpty();
            }
        }
    }

    /** An end that is moved as it is drawn: as many decimals as the drawing shows, never more than the wire, across the turn of an endless axis. */
    @Test
    void theEndOfAnEntryIsMoved() {
        Axis shuttle = DemoMachine.shuttle().withMoves(MoveList.of(MoveEntry.goTo("100.0003"), MoveEntry.goBy("-20"), MoveEntry.of(MoveEntry.Kind.WAIT)));
        assertThat(MoveListEdit.withEndMoved(shuttle, 0, 12.3456, 0.7).position()).isEqualByComparingTo("112.3");
        assertThat(MoveListEdit.withEndMoved(shuttle, 0, 12.3456, 8).position()).isEqualByComparingTo("112");
        assertThat(MoveListEdit.withEndMoved(shuttle, 0, 1e-7, 1e-9).position()).as("four decimals on the wire").isEqualByComparingTo("100.0003");
        assertThat(MoveListEdit.withEndMoved(shuttle, 1, 25.04, 0.02).distance()).isEqualByComparingTo("5.04");
        assertThat(MoveListEdit.withEndMoved(shuttle, 0, 100, 50).position().toString()).as("no exponent").isEqualTo("200");
        Axis table = DemoMachine.table().withMoves(MoveList.of(MoveEntry.goTo("350"), MoveEntry.goBy("90")));
        assertThat(MoveListEdit.withEndMoved(table, 0, 20, 1).position()).isEqualByComparingTo("10");
        assertThat(MoveListEdit.withEndMoved(table, 0, -360, 1).position()).isEqualByComparingTo("350");
        assertThat(MoveListEdit.withEndMoved(table, 1, 300, 1).distance()).as("a distance may be more than a turn").isEqualByComparingTo("390");
        assertThatThrownBy(() -> MoveListEdit.withEndMoved(shuttle, 2, 1, 1)).isInstanceOf(InvalidEntry.class).hasMessageContaining("goes to a position");
        for (double bad : new double[] {Double.NaN, Double.POSITIVE_INFINITY, 1e300}) {
            assertThatThrownBy(() -> MoveListEdit.withEndMoved(shuttle, 0, bad, 1)).isInstanceOf(InvalidEntry.class);
            assertThatThrownBy(() -> MoveListEdit.withEndMoved(shuttle, 0, 1, bad)).isInstanceOf(InvalidEntry.class);
        }
        assertThatThrownBy(() -> MoveListEdit.withEndMoved(shuttle, 0, 1, 0)).isInstanceOf(InvalidEntry.class);
    }

    @Test
    void whatCannotBeIsRefusedWithItsRange() {
        MoveList list = named(3);
        assertThatThrownBy(() -> MoveListEdit.removed(list, 3)).isInstanceOf(InvalidEntry.class).hasMessageContaining("0 to 2");
        assertThatThrownBy(() -> MoveListEdit.moved(list, 0, -1)).isInstanceOf(InvalidEntry.class).hasMessageContaining("0 to 2");
        assertThatThrownBy(() -> MoveListEdit.withStarter(DemoMachine.lift())).isInstanceOf(InvalidEntry.class).hasMessageContaining("entries");
        MoveList full = named(2);
        while (full.entries().size() < MoveList.MOST_ENTRIES) {
            full = MoveListEdit.copied(full, 0);
        }
        MoveList all = full;
        assertThatThrownBy(() -> MoveListEdit.copied(all, 0)).isInstanceOf(InvalidEntry.class).hasMessageContaining("256");
    }
}
