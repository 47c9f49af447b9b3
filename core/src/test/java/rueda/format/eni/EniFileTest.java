package rueda.format.eni;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.util.Map;
import java.util.Random;
import java.util.TreeMap;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.junit.jupiter.api.Test;
import rueda.bus.BusFamily;
import rueda.bus.description.DeviceDescription;
import rueda.format.UnreadableFile;
import rueda.format.description.DcfWriter;
import rueda.format.description.EdsReader;
import rueda.format.description.ShippedDevices;
import rueda.machine.Axis;
import rueda.machine.Bus.Family;
import rueda.machine.DemoMachine;
import rueda.machine.Machine;

/** What is written is read back equal: ENI (ETG.2100) and DCF (CiA 306). */
class EniFileTest {

    private static byte[] eni() {
        return EniFile.write(NetworkInformation.of(DemoMachine.create())).getBytes(StandardCharsets.UTF_8);
    }

    @Test
    void theNetworkIsReadBackEqual() {
        NetworkInformation network = NetworkInformation.of(DemoMachine.create());
        assertThat(EniFile.read(eni())).isEqualTo(network);
        assertThat(network.slaves()).hasSize(5);
        assertThat(network.slaves().get(1).outputStart()).isEqualTo(23 * 8);
        assertThat(network.slaves().get(0).initCommands().get(2)).isEqualTo(new NetworkInformation.InitCommand("PS", 0x1600, 1, "10004060", "Controlword"));
        assertThat(network.variables()).anyMatch(v -> v.name().equals("Lift.Cmd.Position") && v.bitOffset() == 23 * 8 + 32);
    }

    @Test
    void theConfigurationOfANodeIsReadBackEqual() {
        Machine can = BusFamily.moved(DemoMachine.create(), Family.CANOPEN);
        Axis axis = can.axes().get(2);
        DeviceDescription sheet = ShippedDevices.all().stream().filter(d -> d.family() == Family.CANOPEN).findFirst().orElseThrow();
        EdsReader.Configured read = EdsReader.configured(DcfWriter.write(can, axis, sheet, "11-23-2026", "08:00AM").getBytes(StandardCharsets.UTF_8)).value();
        assertThat(read.node()).isEqualTo(3);
        assertThat(read.nodeName()).isEqualTo("Table");
        assertThat(read.kiloBits()).isEqualTo(1000);
        Map<Long, Long> values = new TreeMap<>();
        read.values().forEach((key, text) -> values.put(key, Long.parseLong(text)));
        assertThat(values).isEqualTo(new TreeMap<>(DcfWriter.values(can, axis)));
        assertThat(values).containsEntry(0x1400L << 8 | 1, 0x203L).containsEntry(0x1A00L << 8 | 1, 0x6041_0010L);
        assertThat(read.device().objects()).isEqualTo(sheet.objects());
        assertThat(read.device().pdos()).isEqualTo(sheet.pdos());
    }

    @Property(tries = 150)
    void changedFilesAreReadOrRefused(@ForAll long seed) {
        Random random = new Random(seed);
        byte[] file = eni();
        for (int i = 0; i < 1 + random.nextInt(4); i++) {
            file[random.nextInt(file.length)] = (byte) random.nextInt(256);
        }
        try {
            EniFile.read(random.nextInt(3) == 0 ? java.util.Arrays.copyOf(file, random.nextInt(file.length)) : file);
        } catch (UnreadableFile refused) {
            assertThat(refused.place()).isNotBlank();
        }
    }
}
