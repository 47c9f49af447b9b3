package rueda.bus;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.IntRange;
import net.jqwik.api.constraints.Size;
import org.junit.jupiter.api.Test;
import rueda.drive.StartUp;
import rueda.machine.Axis;
import rueda.machine.Bus;
import rueda.machine.Bus.Family;
import rueda.machine.DemoMachine;
import rueda.machine.Machine;
import rueda.machine.Station.Entry;
import rueda.machine.Station.StartWrite;

class BusFamilyTest {

    private static Bus bus(Family family) {
        return new Bus(1000).withFamily(family, 1000, 1000);
    }

    /** Every order gives back what was packed, and no bit belongs to two entries, in any division into messages. */
    @Property
    void anyLayoutOnAnyBusGivesBackWhatWasPacked(@ForAll WireOrder order, @ForAll @Size(min = 1, max = 30) List<@IntRange(min = 1, max = 64) Integer> widths, @ForAll long seed) {
        Random random = new Random(seed);
        List<Entry> entries = new ArrayList<>();
        int pdo = 1;
        for (int bits : widths) {
            pdo = Math.min(8, pdo + (random.nextInt(4) == 0 ? 1 : 0));
            entries.add(new Entry(0x2000, 0, bits, "", "").withPdo(pdo));
        }
        ProcessDataLayout layout = new ProcessDataLayout(entries, order);
        byte[] image = new byte[layout.bytes()];
        random.nextBytes(image);
        long[] written = new long[entries.size()];
        for (int i = 0; i < written.length; i++) {
            written[i] = random.nextLong();
            layout.write(image, i, written[i]);
        }
        for (int i = 0; i < written.length; i++) {
            int unused = 64 - widths.get(i);
            assertThat(layout.read(image, i)).isEqualTo(written[i] << unused >>> unused);
            assertThat(layout.readSigned(image, i)).isEqualTo(written[i] << unused >> unused);
            if (i > 0) {
                assertThat(layout.bitOffset(i)).isGreaterThanOrEqualTo(layout.bitOffset(i - 1) + widths.get(i - 1));
            }
        }
    }

    /** The bytes of 1234 5678h: CoE and CANopen least significant first, PROFINET most significant first, Modbus by registers. */
    @Test
    void byteOrders() {
        List<Entry> one = List.of(new Entry(0x607A, 0, 32, "", ""));
        assertThat(bytes(BusFamily.layout(bus(Family.ETHERCAT), one))).containsExactly(0x78, 0x56, 0x34, 0x12);
        assertThat(bytes(BusFamily.layout(bus(Family.CANOPEN), one))).containsExactly(0x78, 0x56, 0x34, 0x12);
        assertThat(bytes(BusFamily.layout(bus(Family.ETHERNET_IP), one))).containsExactly(0x78, 0x56, 0x34, 0x12);
        assertThat(bytes(BusFamily.layout(bus(Family.PROFINET), one))).containsExactly(0x12, 0x34, 0x56, 0x78);
        assertThat(bytes(BusFamily.layout(bus(Family.MODBUS_TCP), one))).containsExactly(0x12, 0x34, 0x56, 0x78);
        assertThat(bytes(BusFamily.layout(bus(Family.MODBUS_TCP).withLowWordFirst(true), one))).containsExactly(0x56, 0x78, 0x12, 0x34);
    }

    private static byte[] bytes(ProcessDataLayout layout) {
        byte[] image = new byte[layout.bytes()];
        layout.write(image, 0, 0x1234_5678);
        return image;
    }

    /** CiA 301, predefined connection set, node 5. */
    @Test
    void identifiersOfThePredefinedConnectionSet() {
        assertThat(List.of(CanOpen.cobId(false, 1, 5), CanOpen.cobId(false, 2, 5), CanOpen.cobId(false, 3, 5), CanOpen.cobId(false, 4, 5)))
                .containsExactly(0x185, 0x285, 0x385, 0x485);
        assertThat(List.of(CanOpen.cobId(true, 1, 5), CanOpen.cobId(true, 2, 5), CanOpen.cobId(true, 3, 5), CanOpen.cobId(true, 4, 5)))
                .containsExactly(0x205, 0x305, 0x405, 0x505);
        assertThat(CanOpen.SYNC).isEqualTo(0x80);
    }

    /** Davis, Burns, Bril, Lukkien 2007, equation 1: (34 + 8·8 − 1)/4 stuff bits, 135 in all with 8 bytes; 55 with none. */
    @Test
    void longestCanFrame() {
        assertThat(CanOpen.mostBits(8)).isEqualTo(135);
        assertThat(CanOpen.mostBits(0)).isEqualTo(55);
    }

    /** Three equal frames of 135 bits on 1 Mbit/s: the lowest waits for a frame that has just begun and the two above. */
    @Test
    void worstCaseByPriority() {
        Machine machine = BusFamily.moved(DemoMachine.create(), Family.CANOPEN);
        CycleTimes times = BusFamily.of(Family.CANOPEN).times(machine);
        assertThat(times.messages()).isSortedAccordingTo(java.util.Comparator.comparing(CycleTimes.Message::name));
        CycleTimes.Message first = times.messages().get(0);
        assertThat(first.name()).isEqualTo("080h SYNC");
        assertThat(first.worstNanos()).isEqualTo((55 + 135) * 1000);
        CycleTimes.Message last = times.messages().get(times.messages().size() - 1);
        assertThat(last.worstNanos()).isEqualTo(times.wireNanos() + 135 * 1000);
        assertThat(times.wireNanos()).isEqualTo(times.messages().stream().mapToLong(CycleTimes.Message::nanos).sum());
    }

    /** IEC 61800-7-203: words of the standard telegrams (from memory). */
    @Test
    void standardTelegrams() {
        assertThat(words(StandardTelegram.TELEGRAM_1)).containsExactly(2, 2);
        assertThat(words(StandardTelegram.TELEGRAM_2)).containsExactly(4, 4);
        assertThat(words(StandardTelegram.TELEGRAM_3)).containsExactly(5, 9);
        assertThat(words(StandardTelegram.TELEGRAM_5)).containsExactly(9, 9);
        assertThat(words(StandardTelegram.TELEGRAM_7)).containsExactly(2, 2);
        assertThat(words(StandardTelegram.TELEGRAM_9)).containsExactly(10, 5);
        for (StandardTelegram telegram : StandardTelegram.values()) {
            assertThat(StandardTelegram.of(StandardTelegram.entries(telegram.outputs()), StandardTelegram.entries(telegram.inputs()))).contains(telegram);
        }
    }

    private static List<Integer> words(StandardTelegram telegram) {
        return List.of(StandardTelegram.words(telegram.outputs()), StandardTelegram.words(telegram.inputs()));
    }

    /** IEC 61800-7-203: 4000h is 100 % in N2, 4000 0000h in N4; the range is −200 % to 200 % less one step. */
    @Test
    void normalisedValues() {
        assertThat(ProfiDriveSignal.n2(1)).isEqualTo((short) 0x4000);
        assertThat(ProfiDriveSignal.n4(1)).isEqualTo(0x4000_0000);
        assertThat(ProfiDriveSignal.n2(-2)).isEqualTo((short) 0x8000);
        assertThat(ProfiDriveSignal.n2(5)).isEqualTo(Short.MAX_VALUE);
        assertThat(ProfiDriveSignal.fromN2(0x2000)).isEqualTo(0.5);
        assertThat(ProfiDriveSignal.fromN4(-0x4000_0000)).isEqualTo(-1);
    }

    @Test
    void aPdoHoldsEightBytes() {
        List<Entry> entries = new ArrayList<>(BusFamily.of(Family.CANOPEN).usual("A", 1).outputs());
        entries.add(2, new Entry(0x6071, 0, 16, "", "").withPdo(2));
        entries.add(new Entry(0x6072, 0, 32, "", "").withPdo(2));
        assertThat(BusFamily.of(Family.CANOPEN).remarks(bus(Family.CANOPEN), entries, true)).singleElement().satisfies(r -> {
            assertThat(r.entry()).isEqualTo(4);
            assertThat(r.consequence()).contains("at most 8 bytes").contains("would have 10");
            assertThat(r.mend()).isEqualTo(new LayoutRemark.Mend.NextMessage());
        });
    }

    @Test
    void assembliesAreAligned() {
        List<Entry> entries = new ArrayList<>(BusFamily.of(Family.ETHERNET_IP).usual("A", 1).outputs());
        entries.remove(1);
        assertThat(BusFamily.of(Family.ETHERNET_IP).remarks(bus(Family.ETHERNET_IP), entries, true).get(0)).satisfies(r -> {
            assertThat(r.fault()).isTrue();
            assertThat(r.mend()).isEqualTo(new LayoutRemark.Mend.Filler(16));
        });
    }

    @Test
    void registersHoldWholeWords() {
        List<Entry> entries = List.of(new Entry(0x6060, 0, 8, "", ""), new Entry(0x607A, 0, 32, "", ""));
        assertThat(BusFamily.of(Family.MODBUS_TCP).remarks(bus(Family.MODBUS_TCP), entries, true).get(0).mend()).isEqualTo(new LayoutRemark.Mend.Filler(8));
        assertThat(BusFamily.of(Family.PROFINET).remarks(bus(Family.PROFINET), entries, true)).hasSize(2);
    }

    /**
     * CiA 301, 7.5.2.36 and 7.5.2.38 (clauses from memory): a mapping changes only while its PDO is not valid, an identifier only while it is not valid;
     * the four PDOs of each direction are valid at power-up.
     */
    @Test
    void pdosAreChangedWhileNotValidAndUnusedOnesSwitchedOff() {
        Machine machine = BusFamily.moved(DemoMachine.create(), Bus.Family.CANOPEN);
        for (Axis axis : machine.axes()) {
            java.util.Map<Integer, Long> identifiers = new java.util.HashMap<>();
            for (int pdo = 0; pdo < 4; pdo++) {
                identifiers.put(0x1400 + pdo, 0x200L + 0x100 * pdo);
                identifiers.put(0x1800 + pdo, 0x180L + 0x100 * pdo);
            }
            for (StartWrite write : StartUp.derived(machine.bus(), axis)) {
                boolean identifier = identifiers.containsKey(write.object()) && write.subIndex() == 1;
                boolean mapping = write.object() >= 0x1600 && write.object() < 0x1604 || write.object() >= 0x1A00 && write.object() < 0x1A04;
                if (identifier) {
                    assertThat(write.value() & 0x7FFF_FFFFL).isEqualTo(identifiers.get(write.object()) & 0x7FFF_FFFFL);
                    identifiers.put(write.object(), write.value());
                } else if (mapping) {
                    assertThat(identifiers.get(write.object() - 0x200)).as("%04Xh while its PDO is not valid", write.object()).isGreaterThanOrEqualTo(0x8000_0000L);
                }
            }
            identifiers.forEach((object, identifier) -> {
                boolean output = object < 0x1800;
                int number = (object & 0xF) + 1;
                boolean used = (output ? axis.station().outputs() : axis.station().inputs()).stream().anyMatch(e -> e.pdo() == number);
                assertThat(identifier < 0x8000_0000L).as("%04Xh of %s valid", object, axis.name()).isEqualTo(used);
            });
        }
    }
}
