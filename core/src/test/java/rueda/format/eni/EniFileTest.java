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

    /** More than a frame holds: cut between stations, and the network information, the times and the frames on the wire say the same. */
    @Test
    void manyStationsAreCutBetweenStationsAlikeEverywhere() throws Exception {
        rueda.machine.Machine demo = rueda.machine.DemoMachine.create();
        java.util.List<rueda.machine.Axis> axes = new java.util.ArrayList<>();
        for (int i = 0; i < 100; i++) {
            rueda.machine.Axis axis = demo.axes().get(0).withName("A" + i);
            rueda.machine.Station station = axis.station();
            // Every tenth only reports.
            axes.add(axis.withStation(i % 10 == 3 ? station.withEntries(java.util.List.of(), station.inputs()) : station));
        }
        rueda.machine.Machine many = new rueda.machine.Machine("many", demo.bus(), demo.plc(), axes, demo.proof());
        java.util.List<rueda.bus.EtherCat.Datagram> datagrams = rueda.bus.EtherCat.datagrams(many);
        assertThat(datagrams.size()).isGreaterThan(1);
        int start = 0;
        int station = 0;
        for (rueda.bus.EtherCat.Datagram d : datagrams) {
            assertThat(d.bytes()).isLessThanOrEqualTo(1486);
            assertThat(d.start()).isEqualTo(start);
            assertThat(d.first()).isEqualTo(station);
            int expected = 0;
            int bytes = 0;
            for (int i = d.first(); i < d.first() + d.stations(); i++) {
                expected += i % 10 == 3 ? 1 : 3;
                bytes += rueda.bus.EtherCat.logicalBytes(many.bus(), axes.get(i).station());
            }
            assertThat(d.workingCounter()).isEqualTo(expected);
            assertThat(d.bytes()).isEqualTo(bytes);
            start += bytes;
            station += d.stations();
        }
        assertThat(station).isEqualTo(100);
        NetworkInformation network = NetworkInformation.of(many);
        assertThat(EniFile.read(EniFile.write(network).getBytes(java.nio.charset.StandardCharsets.UTF_8))).isEqualTo(network);
        assertThat(network.frames()).extracting(NetworkInformation.Frame::workingCounter).isEqualTo(datagrams.stream().map(rueda.bus.EtherCat.Datagram::workingCounter).toList());
        assertThat(rueda.bus.BusFamily.of(many.bus()).times(many).messages()).extracting(m -> m.name().replaceAll(".*, (\\d+) bytes.*", "$1"))
                .isEqualTo(datagrams.stream().map(d -> Integer.toString(d.bytes())).toList());
        byte[][] outputs = axes.stream().map(a -> new byte[rueda.bus.BusFamily.bytes(many.bus(), a.station().outputs())]).toArray(byte[][]::new);
        byte[][] inputs = axes.stream().map(a -> new byte[rueda.bus.BusFamily.bytes(many.bus(), a.station().inputs())]).toArray(byte[][]::new);
        java.util.List<Integer> counters = new java.util.ArrayList<>();
        java.util.List<Integer> lengths = new java.util.ArrayList<>();
        rueda.bus.wire.BusFrames.of(many).cycle(0, outputs, inputs, (nanos, frame) -> {
            java.nio.ByteBuffer bytes = java.nio.ByteBuffer.wrap(frame).order(java.nio.ByteOrder.LITTLE_ENDIAN);
            int length = bytes.getShort(22) & 0x7FF;
            lengths.add(length);
            counters.add((int) bytes.getShort(26 + length));
        });
        for (int i = 0; i < datagrams.size(); i++) {
            assertThat(lengths.get(2 * i)).isEqualTo(datagrams.get(i).bytes());
            assertThat(counters.get(2 * i)).as("on the way out").isZero();
            assertThat(counters.get(2 * i + 1)).as("coming back").isEqualTo(datagrams.get(i).workingCounter());
        }
    }
}
