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
        return EniFile.write(NetworkInformation.of(DemoMachine.create(), ShippedDevices.all())).getBytes(StandardCharsets.UTF_8);
    }

    @Test
    void theNetworkIsReadBackEqual() {
        NetworkInformation network = NetworkInformation.of(DemoMachine.create(), ShippedDevices.all());
        assertThat(EniFile.read(eni())).isEqualTo(network);
        assertThat(network.slaves()).hasSize(5);
        assertThat(network.slaves().get(1).outputStart()).isEqualTo(23 * 8);
        assertThat(network.slaves().get(0).initCommands().get(2)).isEqualTo(new NetworkInformation.InitCommand("PS", 0x1600, 1, "10004060", "Controlword"));
        assertThat(network.variables()).anyMatch(v -> v.name().equals("Lift.Cmd.Position") && v.bitOffset() == 23 * 8 + 32);
    }

    @Test
    void portsAreThoseOfTheDescription() {
        java.util.List<DeviceDescription> fibre = ShippedDevices.all().stream().map(d -> new DeviceDescription(d.family(), d.format(), d.name(), d.vendor(), d.identity(), d.objects(), d.pdos(), d.clocks(), d.mailbox(), d.terminals(), d.syncManagers(),
                d.startWrites(), d.family() == Family.ETHERCAT ? "HK" : "")).toList();
        NetworkInformation network = NetworkInformation.of(DemoMachine.create(), fibre);
        assertThat(network.slaves()).extracting(NetworkInformation.Slave::ports).containsOnly("HK");
        assertThat(EniFile.read(EniFile.write(network).getBytes(StandardCharsets.UTF_8))).isEqualTo(network);
        assertThat(NetworkInformation.of(DemoMachine.create(), java.util.List.of()).slaves()).extracting(NetworkInformation.Slave::ports).as("nothing known").containsOnly("YY");
    }

    @Test
    void theConfigurationOfANodeIsReadBackEqual() {
        Machine can = BusFamily.moved(DemoMachine.create(), Family.CANOPEN);
        Axis axis = can.axes().get(2);
        DeviceDescription sheet = ShippedDevices.all().stream().filter(d -> d.family() == Family.CANOPEN).findFirst().orElseThrow();
        EdsReader.Configured read = EdsReader.configured(DcfWriter.write(can, axis, ShippedDevices.file("wheelwright-w1.eds"), "11-23-2026", "08:00AM").getBytes(StandardCharsets.UTF_8)).value();
        assertThat(read.node()).isEqualTo(3);
        assertThat(read.nodeName()).isEqualTo("table");
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
        rueda.machine.Machine many = new rueda.machine.Machine("many", demo.bus(), demo.plc(), axes, demo.proofs());
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
        NetworkInformation network = NetworkInformation.of(many, ShippedDevices.all());
        assertThat(EniFile.read(EniFile.write(network).getBytes(java.nio.charset.StandardCharsets.UTF_8))).isEqualTo(network);
        assertThat(network.frames().stream().flatMap(NetworkInformation.Frame::processData).map(NetworkInformation.Datagram::workingCounter).toList()).isEqualTo(datagrams.stream().map(rueda.bus.EtherCat.Datagram::workingCounter).toList());
        assertThat(rueda.bus.BusFamily.of(many.bus()).times(many).messages().subList(0, datagrams.size())).extracting(m -> m.name().replaceAll(".*, (\\d+) bytes.*", "$1"))
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

    private static int word(byte[] memory, int at) {
        return memory[at] & 0xFF | (memory[at + 1] & 0xFF) << 8;
    }

    /**
     * A station as ETG.1000.4 describes its memory (from memory): the orders of a transition are carried out on it, in order.
     * What is asked of the state is reached at once; the identity memory answers the word it is asked for.
     */
    private static void carriedOut(java.util.List<NetworkInformation.RegisterCommand> commands, String transition, byte[] memory, rueda.machine.Station.Identity identity) {
        for (NetworkInformation.RegisterCommand c : commands) {
            if (!c.transitions().contains(transition)) {
                continue;
            }
            byte[] data = java.util.HexFormat.of().parseHex(c.data());
            System.arraycopy(data, 0, memory, c.register(), data.length);
            if (data.length > 0 && c.register() == 0x0120) {
                memory[0x0130] = (byte) (memory[0x0120] & 0x0F);
            }
            if (data.length > 0 && c.register() == 0x0502) {
                assertThat(memory[0x0500]).as("the identity memory is the master's").isZero();
                long value = word(memory, 0x0504) == 0x08 ? identity.vendor() : word(memory, 0x0504) == 0x0A ? identity.product() : -1;
                java.nio.ByteBuffer.wrap(memory).order(java.nio.ByteOrder.LITTLE_ENDIAN).putInt(0x0508, (int) value);
                memory[0x0503] = 0;
            }
            if (c.check() != null) {
                byte[] expected = java.util.HexFormat.of().parseHex(c.check().data());
                byte[] mask = java.util.HexFormat.of().parseHex(c.check().mask());
                for (int i = 0; i < expected.length; i++) {
                    assertThat(memory[c.register() + i] & mask[i]).as(transition + ": " + c.comment()).isEqualTo(expected[i] & mask[i]);
                }
            }
        }
    }

    /** ETG.1000.6: from init to operational and back; on the way the memory holds what ETG.1000.4 asks for. */
    @Test
    void theOrdersLeadAStationThroughAllStates() {
        NetworkInformation network = EniFile.read(eni());
        for (int i = 0; i < network.slaves().size(); i++) {
            NetworkInformation.Slave slave = network.slaves().get(i);
            byte[] memory = new byte[0x1000];
            carriedOut(network.masterCommands().stream().filter(c -> !c.data().isEmpty()).toList(), "IP", memory, slave.identity());
            assertThat(memory[0x0130]).isEqualTo((byte) 1);
            assertThat(slave.commands().get(0).address()).as("auto-increment address").isEqualTo(65_536 - i & 0xFFFF);
            carriedOut(slave.commands(), "IP", memory, slave.identity());
            assertThat(word(memory, 0x0010)).isEqualTo(1001 + i);
            assertThat(memory[0x0130]).isEqualTo((byte) 2);
            assertThat(word(memory, 0x0800)).as("mailbox out, as the ESI of the device says").isEqualTo(0x1000);
            assertThat(word(memory, 0x0802)).isEqualTo(128);
            assertThat(memory[0x0804]).isEqualTo((byte) 0x26);
            assertThat(word(memory, 0x0808)).isEqualTo(0x1080);
            carriedOut(slave.commands(), "PS", memory, slave.identity());
            assertThat(memory[0x0130]).isEqualTo((byte) 4);
            assertThat(word(memory, 0x0812) * 8).as("length of the outputs").isEqualTo(slave.outputBits());
            assertThat(word(memory, 0x081A) * 8).as("length of the inputs").isEqualTo(slave.inputBits());
            assertThat(word(memory, 0x0600) + (word(memory, 0x0602) << 16)).isEqualTo(0x10000 + slave.outputStart() / 8);
            assertThat(word(memory, 0x0604) * 8).isEqualTo(slave.outputBits());
            assertThat(word(memory, 0x0608)).as("physical start of the mapping is that of the sync manager").isEqualTo(word(memory, 0x0810));
            assertThat(memory[0x060B]).as("the master writes").isEqualTo((byte) 2);
            assertThat(word(memory, 0x0618)).isEqualTo(word(memory, 0x0818));
            assertThat(memory[0x061B]).as("the master reads").isEqualTo((byte) 1);
            assertThat(word(memory, 0x0980)).isEqualTo(0x0300);
            assertThat(word(memory, 0x09A0) + (word(memory, 0x09A2) << 16)).isEqualTo(network.cycleMicros() * 1000);
            carriedOut(slave.commands(), "SO", memory, slave.identity());
            assertThat(memory[0x0130]).isEqualTo((byte) 8);
            carriedOut(slave.commands(), "OS", memory, slave.identity());
            assertThat(memory[0x0130]).isEqualTo((byte) 4);
            carriedOut(slave.commands(), "SP", memory, slave.identity());
            assertThat(memory[0x0130]).isEqualTo((byte) 2);
            assertThat(java.util.Arrays.copyOfRange(memory, 0x0600, 0x0620)).as("mappings off").containsOnly(0);
            assertThat(java.util.Arrays.copyOfRange(memory, 0x0810, 0x0820)).as("process data off").containsOnly(0);
            assertThat(word(memory, 0x0802)).as("the mailbox stays").isEqualTo(128);
            for (String down : java.util.List.of("PI", "II")) {
                carriedOut(slave.commands(), down, memory, slave.identity());
                assertThat(memory[0x0130]).isEqualTo((byte) 1);
            }
            for (String transition : java.util.List.of("II", "IP", "PI", "PS", "SP", "SI", "SO", "OS", "OP", "OI")) {
                assertThat(slave.commands()).as(transition).anyMatch(c -> c.transitions().contains(transition));
            }
            assertThat(slave.previous()).isEqualTo(i == 0 ? 0 : 1000 + i);
        }
    }

    /** Each cycle: process data, then the time of the reference station and the states; none lies over another in the image. */
    @Test
    void theCycleBringsProcessDataTheTimeAndTheStates() {
        NetworkInformation network = EniFile.read(eni());
        java.util.List<NetworkInformation.Datagram> all = network.frames().stream().flatMap(f -> f.datagrams().stream()).toList();
        assertThat(all).extracting(d -> d.command().code()).containsExactly(12, 14, 7);
        assertThat(all).extracting(NetworkInformation.Datagram::workingCounter).containsExactly(15, 5, 5);
        assertThat(all.get(1).address()).isEqualTo(1001L << 16 | 0x0910);
        assertThat(all.get(2).address()).isEqualTo(0x0130);
        int end = 0;
        for (NetworkInformation.Datagram d : all) {
            assertThat(d.imageOffset()).isGreaterThanOrEqualTo(end);
            end = d.imageOffset() + d.bytes();
        }
        assertThat(network.imageBytes()).isEqualTo(end);
        assertThat(network.variables()).allMatch(v -> v.bitOffset() + v.bits() <= all.get(0).bytes() * 8);
    }

    /** A station that only reports has no outputs to set up; a device that nobody described gets a place for what it exchanges. */
    @Test
    void stationsWithoutOutputsOrDescription() {
        Machine demo = DemoMachine.create();
        Axis first = demo.axes().get(0);
        Machine mute = demo.withAxis(0, first.withStation(first.station().withEntries(java.util.List.of(), first.station().inputs())));
        NetworkInformation network = NetworkInformation.of(mute, java.util.List.of());
        assertThat(EniFile.read(EniFile.write(network).getBytes(StandardCharsets.UTF_8))).isEqualTo(network);
        NetworkInformation.Slave slave = network.slaves().get(0);
        assertThat(slave.commands()).noneMatch(c -> c.comment().contains("outputs")).anyMatch(c -> c.comment().equals("Mapping 0, inputs"));
        assertThat(slave.syncManagers()).filteredOn(m -> m.number() == 2).singleElement().matches(m -> !m.enabled());
        for (NetworkInformation.Slave s : network.slaves()) {
            int end = 0;
            for (NetworkInformation.SyncManager m : s.syncManagers()) {
                assertThat(m.start()).isGreaterThanOrEqualTo(end);
                end = m.start() + m.bytes() * (m.number() < 2 ? 1 : 3);
            }
        }
    }
}
