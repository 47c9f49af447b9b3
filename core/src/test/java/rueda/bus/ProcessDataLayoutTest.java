package rueda.bus;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.IntRange;
import net.jqwik.api.constraints.Size;
import org.junit.jupiter.api.Test;
import rueda.machine.DemoMachine;
import rueda.machine.Station.Entry;

class ProcessDataLayoutTest {

    @Property
    void anyLayoutGivesBackWhatWasPacked(@ForAll @Size(min = 1, max = 40) List<@IntRange(min = 1, max = 64) Integer> widths, @ForAll long seed) {
        List<Entry> entries = new ArrayList<>();
        widths.forEach(bits -> entries.add(new Entry(0x2000, 0, bits, "", "")));
        ProcessDataLayout layout = new ProcessDataLayout(entries);
        byte[] image = new byte[layout.bytes()];
        new java.util.Random(seed).nextBytes(image);
        java.util.Random values = new java.util.Random(seed);
        long[] written = new long[widths.size()];
        for (int i = 0; i < written.length; i++) {
            written[i] = values.nextLong();
            layout.write(image, i, written[i]);
        }
        for (int i = 0; i < written.length; i++) {
            int unused = 64 - widths.get(i);
            assertThat(layout.read(image, i)).isEqualTo(written[i] << unused >>> unused);
            assertThat(layout.readSigned(image, i)).isEqualTo(written[i] << unused >> unused);
        }
    }

    /** CoE, IEC 61158-6-12: least significant byte first. */
    @Test
    void littleEndian() {
        ProcessDataLayout layout = new ProcessDataLayout(DemoMachine.shuttle().station().outputs());
        byte[] image = new byte[layout.bytes()];
        layout.write(image, layout.indexOf(0x607A, 0), 412_000);
        assertThat(image).containsExactly(0, 0, 0, 0, 0x60, 0x49, 0x06, 0x00, 0);
    }

    /** Common practice, no source: without a filler after a 16-bit word every later value is off by two bytes. */
    @Test
    void missingFillerShiftsTheRest() {
        List<Entry> outputs = new ArrayList<>(DemoMachine.shuttle().station().outputs());
        int with = new ProcessDataLayout(outputs).bitOffset(2);
        outputs.remove(1);
        assertThat(with - new ProcessDataLayout(outputs).bitOffset(1)).isEqualTo(16);
    }

    /** IEEE 802.3: the shortest frame takes 84 byte times, 6.72 µs at 100 Mbit/s. */
    @Test
    void shortestFrame() {
        assertThat(EtherCat.byteTimes(0)).isEqualTo(84);
        assertThat(Ethernet.nanos(1)).isEqualTo(6720);
        assertThat(EtherCat.byteTimes(32)).isEqualTo(84);
        assertThat(EtherCat.byteTimes(33)).isEqualTo(85);
    }
}
