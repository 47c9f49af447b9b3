package rueda.drive;

import static org.assertj.core.api.Assertions.assertThat;

import java.math.BigDecimal;
import java.util.List;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.IntRange;
import net.jqwik.api.constraints.Size;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import rueda.bus.BusFamily;
import rueda.bus.BusFamily.DriveProfile;
import rueda.bus.ProcessDataLayout;
import rueda.bus.WireOrder;
import rueda.machine.Axis;
import rueda.machine.Bus.Family;
import rueda.machine.DemoMachine;
import rueda.machine.Machine;
import rueda.machine.Station.Entry;
import rueda.machine.Unit;

/** Where entries lie and what their bits say. */
class StationLayoutTest {

    private static final Machine DEMO = DemoMachine.create();
    private static final Unit MM = new Unit("mm", 4);

    private static StationLayout of(Family family) {
        Machine moved = BusFamily.moved(DEMO, family);
        return StationLayout.of(moved.bus(), moved.axes().get(0));
    }

    private static Entry entry(int object, int bits, int pdo) {
        return new Entry(pdo, object, 0, bits, "", "", "", "", BigDecimal.ONE);
    }

    @Test
    void entriesFollowEachOther() {
        StationLayout.LayoutDirection outputs = of(Family.ETHERCAT).outputs();
        assertThat(outputs.bytes()).isEqualTo(9);
        assertThat(outputs.places()).extracting(StationLayout.EntryPlace::at).containsExactly("0–1", "2–3", "4–7", "8");
        assertThat(outputs.places()).extracting(StationLayout.EntryPlace::title).containsExactly("Controlword", "filler", "Target position", "Mode of operation");
        assertThat(outputs.places()).extracting(StationLayout.EntryPlace::unit).containsExactly("", "", "mm", "");
        assertThat(outputs.messages()).containsExactly(new StationLayout.LayoutMessage(1, "", 72, 9));
    }

    /** CiA 301, predefined connection set: RPDO 1 of node 1 is 201h, TPDO 1 is 181h; RPDO 2 is 301h. */
    @Test
    void messagesHaveTheIdentifiersOfThePredefinedConnectionSet() {
        StationLayout layout = of(Family.CANOPEN);
        assertThat(layout.outputs().messages()).extracting(StationLayout.LayoutMessage::identifier).first().isEqualTo("201h");
        assertThat(layout.inputs().messages()).extracting(StationLayout.LayoutMessage::identifier).first().isEqualTo("181h");
        Axis axis = BusFamily.moved(DEMO, Family.CANOPEN).axes().get(0);
        Axis three = axis.withStation(axis.station().withEntries(List.of(entry(0x6040, 16, 1), entry(0x2000, 1, 1), entry(0x6060, 8, 2), entry(0x607A, 32, 2)), List.of()));
        StationLayout bits = StationLayout.of(BusFamily.moved(DEMO, Family.CANOPEN).bus(), three);
        assertThat(bits.outputs().places()).extracting(StationLayout.EntryPlace::at).as("a message begins on a byte").containsExactly("0–1", "2.0", "3", "4–7");
        assertThat(bits.outputs().messages()).containsExactly(new StationLayout.LayoutMessage(1, "201h", 17, 3), new StationLayout.LayoutMessage(2, "301h", 40, 5));
        assertThat(bits.outputs().places().get(1).known()).isFalse();
    }

    @Test
    void registersAreCountedOnModbus() {
        StationLayout layout = of(Family.MODBUS_TCP);
        int first = BusFamily.of(BusFamily.moved(DEMO, Family.MODBUS_TCP).bus()).firstOutput();
        assertThat(layout.outputs().places().get(0).at()).isEqualTo(String.format("%04Xh", first));
        assertThat(layout.outputs().places()).extracting(StationLayout.EntryPlace::at).allMatch(at -> at.matches("[0-9A-F]{4}h( high| low)?"));
    }

    @Test
    void aStandardTelegramIsRecognised() {
        assertThat(of(Family.PROFINET).telegram()).isEqualTo(5);
        assertThat(of(Family.ETHERCAT).telegram()).isZero();
    }

    /** N2 and N4 of IEC 61800-7-203: 4000h and 4000 0000h are 100 %. */
    @ParameterizedTest
    @CsvSource({
        "CIA402, 607A, 4120000, 412.000 mm", "CIA402, 607A, -12500, −1.250 mm", "CIA402, 606C, 25000, 2.500 mm/s", "CIA402, 6077, 1250, 125.0 % of rated", "CIA402, 60FD, 5, 'negative limit, reference cam'",
        "CIA402, 60FD, 0, no switch active", "CIA402, 6060, 8, cyclic synchronous position", "CIA402, 6060, 6, homing", "CIA402, 6060, 99, mode 99", "CIA402, 2034, -250, −250",
        "PROFIDRIVE, 7, 1073741824, 100.000 %", "PROFIDRIVE, 7, -536870912, −50.000 %", "PROFIDRIVE, 5, 8192, 50.00 %"})
    void bitsInTheUnitsOfTheAxis(DriveProfile profile, String object, long raw, String words) {
        int number = Integer.parseInt(object, profile == DriveProfile.CIA402 ? 16 : 10);
        CyclicItem item = CyclicItem.find(profile, number, number == 0x2034 ? 3 : 0);
        assertThat(CyclicWords.words(profile, item, raw, MM)).isEqualTo(words);
    }

    /** IEC 61800-7-201, table of the commands and of the states. */
    @ParameterizedTest
    @CsvSource({"06, shutdown", "07, switch on", "0F, enable operation", "02, quick stop", "00, disable voltage", "80, fault reset", "8F, fault reset"})
    void commandsOfTheControlword(String word, String command) {
        assertThat(ControlWord.command(Integer.parseInt(word, 16))).isEqualTo(command);
    }

    @ParameterizedTest
    @CsvSource({"0250, switch on disabled", "0231, ready to switch on", "1237, operation enabled", "0008, fault", "0017, quick stop active"})
    void statesOfTheStatusword(String word, String state) {
        WordBits.Word decoded = WordBits.statusWord(DriveProfile.CIA402, OperationMode.CYCLIC_SYNCHRONOUS_POSITION, Integer.parseInt(word, 16), 1 << 3);
        assertThat(decoded.words()).isEqualTo(state);
        assertThat(decoded.hex()).isEqualTo(word + "h");
        assertThat(decoded.bits()).hasSize(16).filteredOn(WordBits.Bit::forced).extracting(WordBits.Bit::name).containsExactly("fault");
        for (WordBits.Bit bit : decoded.bits()) {
            assertThat(bit.on()).isEqualTo((Integer.parseInt(word, 16) >> bit.number() & 1) == 1);
        }
    }

    /** What is written into an image is told back, whatever lies before it and in whatever order the bus has its bytes. */
    @Property(tries = 300)
    void whatTravelsIsTold(@ForAll WireOrder order, @ForAll @Size(min = 1, max = 12) List<@IntRange(min = 0, max = 3) Integer> widths, @ForAll long seed) {
        int[] objects = {0x6060, 0x6040, 0x607A, 0x6071};
        int[] bits = {8, 16, 32, 16};
        List<Entry> entries = widths.stream().map(w -> entry(objects[w], bits[w], 1)).toList();
        ProcessDataLayout layout = new ProcessDataLayout(entries, order);
        byte[] image = new byte[layout.bytes()];
        long[] values = new java.util.Random(seed).longs(entries.size()).toArray();
        for (int i = 0; i < values.length; i++) {
            int unused = 64 - entries.get(i).bits();
            boolean signed = entries.get(i).object() != 0x6040;
            values[i] = signed ? values[i] << unused >> unused : values[i] << unused >>> unused;
            layout.write(image, i, values[i]);
        }
        List<CyclicWords.Now> now = CyclicWords.now(DriveProfile.CIA402, layout, image, MM);
        assertThat(now).extracting(CyclicWords.Now::raw).containsExactlyElementsOf(java.util.Arrays.stream(values).boxed().toList());
        assertThat(String.join(" ", now.stream().map(CyclicWords.Now::bytes).toList())).isEqualTo(java.util.HexFormat.ofDelimiter(" ").withUpperCase().formatHex(image));
    }
}
