package rueda.edit;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import rueda.bus.BusFamily;
import rueda.machine.Axis;
import rueda.machine.Bus.Family;
import rueda.machine.DemoMachine;
import rueda.machine.Machine;
import rueda.machine.MachineRules;
import rueda.machine.Plc.DeclaredTag;
import rueda.machine.Station;
import rueda.machine.Station.Entry;

class ProcessDataEditTest {

    private static final Machine DEMO = DemoMachine.create();

    private static Station without(Station station) {
        return station.withEntries(station.outputs().stream().map(e -> e.withTag("", "")).toList(), station.inputs().stream().map(e -> e.withTag("", "")).toList());
    }

    private static List<String> tags(Station station) {
        return Stream.concat(station.outputs().stream(), station.inputs().stream()).filter(Entry::hasTag).map(Entry::tag).toList();
    }

    /** On every bus each entry that the drive knows gets a tag that the rules accept, and those that are bound keep theirs. */
    @ParameterizedTest
    @EnumSource(Family.class)
    void everyEntryGetsATag(Family family) {
        Machine moved = BusFamily.moved(DEMO, family);
        Axis axis = moved.axes().get(0);
        Machine bare = moved.withAxis(0, axis.withStation(without(axis.station())));
        Station tagged = ProcessDataEdit.withTags(bare, 0);
        assertThat(tags(tagged)).hasSize(ProcessDataEdit.unbound(bare, 0)).doesNotHaveDuplicates().allMatch(t -> t.startsWith("Shuttle."));
        Machine all = bare.withAxis(0, axis.withStation(tagged));
        assertThat(MachineRules.check(all)).isEmpty();
        assertThat(ProcessDataEdit.unbound(all, 0)).isZero();
        assertThat(ProcessDataEdit.withTags(all, 0)).isEqualTo(tagged);
    }

    /** A name that is taken, by another axis' entry or by a declared tag and in any case, is not given twice. */
    @Test
    void noNameIsGivenTwice() {
        Axis shuttle = DEMO.axes().get(0).withStation(without(DEMO.axes().get(0).station()));
        Machine machine = DEMO.withAxis(0, shuttle).withPlc(DEMO.plc().withTags(List.of(new DeclaredTag("shuttle.CMD.controlword", "WORD"))));
        assertThat(tags(ProcessDataEdit.withTags(machine, 0))).contains("Shuttle.Cmd.Controlword2").doesNotContain("Shuttle.Cmd.Controlword");
    }

    @Test
    void anotherTelegramKeepsTheTagsOfSharedSignals() {
        Machine machine = BusFamily.moved(DEMO, Family.PROFINET);
        Station five = machine.axes().get(0).station();
        Station three = ProcessDataEdit.withTelegram(five, 3);
        assertThat(three.outputs()).hasSizeLessThan(five.outputs().size());
        assertThat(five.outputs()).containsAll(three.outputs());
        assertThatThrownBy(() -> ProcessDataEdit.withTelegram(five, 4)).hasMessageContaining("standard telegram");
    }

    /** Entries of an axis by their places, as devices and pages name them. */
    @Test
    void entriesAreNamedWithTheirUnits() {
        Axis table = DEMO.axes().get(2);
        assertThat(EntryWords.at(table, "/control/positionGain")).isEqualTo(new EntryWords.Named("Position gain", "1/s"));
        assertThat(EntryWords.at(table, "/limits/max/acceleration")).isEqualTo(new EntryWords.Named("Highest, acceleration", "°/s²"));
        assertThat(EntryWords.at(table, "/wiring/terminals/3/filterMicros")).isEqualTo(new EntryWords.Named("I4, filter", "µs"));
        assertThat(EntryWords.at(table, "/gearBits")).isEqualTo(new EntryWords.Named("Width of the electronic gear", "bit"));
        assertThat(EntryWords.at(table, "/load/coulomb").unit()).isEqualTo("N·m");
        assertThat(EntryWords.at(DEMO.axes().get(1), "/load/coulomb").unit()).isEqualTo("N");
        assertThat(EntryWords.at(table, "/train/reducers/0/motorTurns").words()).isEqualTo("Reducers 1, motor turns");
        assertThat(EntryWords.at(table, "/nothing/of/this")).isEqualTo(new EntryWords.Named("/nothing/of/this", ""));
    }
}
