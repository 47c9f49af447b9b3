package rueda.advice;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import rueda.bus.BusFamily;
import rueda.bus.description.DeviceDescription;
import rueda.format.description.ShippedDevices;
import rueda.machine.Axis;
import rueda.machine.Bus.Family;
import rueda.machine.Bus.IpNetwork;
import rueda.machine.DemoMachine;
import rueda.machine.Machine;
import rueda.machine.Station;
import rueda.machine.Station.Entry;
import rueda.machine.Station.Identity;
import rueda.machine.Station.StartWrite;
import rueda.machine.Station.Transition;

class ConnectAdviceTest {

    private static final List<DeviceDescription> LIBRARY = ShippedDevices.all();

    private static Machine on(Family family) {
        return BusFamily.moved(DemoMachine.create(), family);
    }

    private static List<String> titles(Machine machine, Station second) {
        Machine changed = machine.withAxis(1, machine.axes().get(1).withStation(second));
        return ConnectAdvice.of(changed, 1, LIBRARY).findings().stream().filter(f -> f.severity() != Finding.Severity.GOOD).map(Finding::title).toList();
    }

    private static Station lift(Machine machine) {
        return machine.axes().get(1).station();
    }

    @Test
    void theDemoIsConnectedOnEveryBus() {
        for (Family family : Family.values()) {
            Machine machine = on(family);
            for (int i = 0; i < machine.axes().size(); i++) {
                assertThat(ConnectAdvice.of(machine, i, LIBRARY).findings()).as(family + " " + i).allMatch(f -> f.severity() == Finding.Severity.GOOD);
            }
        }
    }

    @Test
    void addressesMustBeThereOnce() {
        Machine can = on(Family.CANOPEN);
        assertThat(titles(can, lift(can).withAddress(lift(can).address().withNumber(1)))).containsExactly("Node id 1 is used twice.");
        assertThat(titles(can, lift(can).withAddress(lift(can).address().withNumber(128)))).containsExactly("Node id 128 does not exist.");
        Machine profinet = on(Family.PROFINET);
        assertThat(titles(profinet, lift(profinet).withAddress(lift(profinet).address().withName("shuttle")))).containsExactly("Station name shuttle is used twice.");
        assertThat(titles(profinet, lift(profinet).withAddress(lift(profinet).address().withName("Lift_1")))).containsExactly("Station name Lift_1 is not allowed.");
    }

    /** Address, mask, gateway of the Lift; the PLC has 192.168.40.1 with 255.255.255.0. */
    @ParameterizedTest
    @CsvSource({"192.168.40.11, 255.255.255.0, '', IP address 192.168.40.11 is used twice.",
        "192.168.40.1, 255.255.255.0, '', The PLC has the address 192.168.40.1 too.",
        "192.168.41.12, 255.255.255.0, '', 192.168.41.12 is not in the PLC's network 192.168.40.1.",
        "192.168.40.12, 255.255.0.0, '', Its mask 255.255.0.0 differs from the PLC's 255.255.255.0.",
        "192.168.40.255, 255.255.255.0, '', 192.168.40.255 is the broadcast address.",
        "192.168.40.0, 255.255.255.0, '', 192.168.40.0 names the network itself.",
        "192.168.40.12, 255.255.255.0, 10.0.0.1, Gateway 10.0.0.1 is not in the station's own network."})
    void networksMustAgree(String address, String mask, String gateway, String title) {
        Machine machine = on(Family.ETHERNET_IP);
        assertThat(titles(machine, lift(machine).withAddress(lift(machine).address().withIp(new IpNetwork(address, mask, gateway))))).containsExactly(title);
    }

    @Test
    void theRevisionMustHaveItsDescription() {
        Machine machine = DemoMachine.create();
        Identity planned = lift(machine).identity();
        assertThat(titles(machine, lift(machine).withIdentity(new Identity(planned.device(), planned.vendor(), planned.product(), 0x1_0007)))).containsExactly("Revision 1.7 differs from the description's 1.2.");
        assertThat(titles(machine, lift(machine).withIdentity(new Identity("Unknown", 1, 2, 3)))).containsExactly("No description of Unknown is known.");
    }

    /** Revision 1.1 has no torque operation: its object may not travel. */
    @Test
    void theOlderRevisionLacksObjects() {
        Machine machine = DemoMachine.create();
        Identity planned = lift(machine).identity();
        List<Entry> outputs = new java.util.ArrayList<>(lift(machine).outputs());
        outputs.add(new Entry(0x6071, 0, 16, "", ""));
        Station station = lift(machine).withEntries(outputs, lift(machine).inputs()).withIdentity(new Identity(planned.device(), planned.vendor(), planned.product(), 0x1_0001));
        assertThat(titles(machine, station)).containsExactly("6071h:00 is not in the description of revision 1.");
    }

    @ParameterizedTest
    @CsvSource({"0x6072, 0, 16, 9000, Max torque 9000 is out of range.", "0x6041, 0, 16, 1, Statusword 6041h:00 cannot be written.", "0x7777, 0, 8, 1, The device has no object 7777h:00.",
        "0x6072, 0, 32, 900, 'Max torque has 16 bits, the write 32.'"})
    void startWritesMustFitTheDevice(String object, int sub, int bits, long value, String title) {
        Machine machine = DemoMachine.create();
        StartWrite write = new StartWrite(Integer.decode(object), sub, bits, value, Transition.PREOP_TO_SAFEOP, "", true);
        assertThat(titles(machine, lift(machine).withStartWrites(List.of(write)))).containsExactly(title);
        StartWrite kept = new StartWrite(Integer.decode(object), sub, bits, value, Transition.PREOP_TO_SAFEOP, "", false);
        assertThat(titles(machine, lift(machine).withStartWrites(List.of(kept)))).isEmpty();
    }

    /** ETG.2000: 1600h and 1601h exclude each other in the shipped description. */
    @Test
    void messagesThatExcludeEachOther() {
        Machine machine = DemoMachine.create();
        List<Entry> outputs = new java.util.ArrayList<>(lift(machine).outputs());
        outputs.add(new Entry(0x6072, 0, 16, "", "").withPdo(2));
        assertThat(titles(machine, lift(machine).withEntries(outputs, lift(machine).inputs()))).contains("1600h and 1601h exclude each other.");
    }

    /** A description whose messages are fixed lets nothing be added or taken out. */
    @Test
    void fixedMessagesStayAsTheyAre() {
        String fixed = new String(ShippedDevices.file("wheelwright-w1.esi.xml"), java.nio.charset.StandardCharsets.UTF_8).replace("<RxPdo Sm=\"2\">", "<RxPdo Sm=\"2\" Fixed=\"1\">");
        List<DeviceDescription> library = rueda.format.description.Descriptions.read(fixed.getBytes(java.nio.charset.StandardCharsets.UTF_8)).value();
        Machine machine = DemoMachine.create();
        assertThat(ConnectAdvice.of(machine, 1, library).findings()).allMatch(f -> f.severity() == Finding.Severity.GOOD);
        Station shorter = lift(machine).withEntries(lift(machine).outputs().subList(0, 3), lift(machine).inputs());
        assertThat(ConnectAdvice.of(machine.withAxis(1, machine.axes().get(1).withStation(shorter)), 1, library).findings()).singleElement()
                .satisfies(f -> assertThat(f.title()).isEqualTo("The entries of Cyclic synchronous position cannot be changed."));
    }

    /** 50 ppm for 8 ms are 400 ns: a window of 100 ns is left, and the mend widens it enough. */
    @Test
    void aClockThatLeavesItsWindow() {
        Machine machine = DemoMachine.create();
        Machine slow = machine.withBus(machine.bus().withCycleMicros(8000).withClock(new rueda.machine.Bus.Clock("", 0, 100))).withPlc(machine.plc().withTaskIntervalMicros(8000));
        Finding finding = ConnectAdvice.of(slow, 1, LIBRARY).findings().get(0);
        assertThat(finding.title()).isEqualTo("The clock of Lift leaves its window of 100 ns.");
        int wide = (Integer) finding.mend().changes().get(0).value();
        Machine mended = slow.withBus(slow.bus().withClock(new rueda.machine.Bus.Clock("", 0, wide)));
        assertThat(ConnectAdvice.of(mended, 1, LIBRARY).findings()).allMatch(f -> f.severity() == Finding.Severity.GOOD);
    }

    @Test
    void theCycleMustBeOneOfTheBus() {
        Machine profinet = on(Family.PROFINET);
        Machine odd = profinet.withBus(profinet.bus().withCycleMicros(1500));
        assertThat(ConnectAdvice.of(odd, 0, LIBRARY).findings()).singleElement().satisfies(f -> assertThat(f.title()).contains("PROFINET has no cycle"));
    }

    /** Who scales: nobody, both sides, the right one (common practice, no source: it must be done in one place only). */
    @ParameterizedTest
    @CsvSource({"1, Nobody scales Lift.Cmd.Position.", "262144000, Both sides scale Lift.Cmd.Position.", "1000, Lift.Cmd.Position is scaled by another number than the drive's."})
    void unitsAreScaledInOnePlace(String factor, String title) {
        Machine machine = DemoMachine.create();
        Axis lift = machine.axes().get(1);
        List<Entry> outputs = new java.util.ArrayList<>(lift.station().outputs());
        /* 131 072 counts a motor turn, 2 turns for 10 mm: 26 214.4 counts per mm, 2.62144 per wire unit of 0.0001 mm */
        String used = factor.equals("262144000") ? "26214.4" : factor;
        outputs.set(2, outputs.get(2).withTag("Lift.Cmd.Position", "LREAL").withScale("mm", new java.math.BigDecimal(used)));
        Axis scaled = lift.withStation(lift.station().withEntries(outputs, lift.station().inputs()));
        Finding finding = MapAdvice.of(machine.withAxis(1, scaled), scaled, "/axes/1").findings().get(0);
        assertThat(finding.title()).isEqualTo(title);
        assertThat(finding.mend().changes().get(0).value()).isEqualTo(new java.math.BigDecimal("10000"));
        outputs.set(2, outputs.get(2).withScale("mm", new java.math.BigDecimal("10000")));
        Axis right = lift.withStation(lift.station().withEntries(outputs, lift.station().inputs()));
        assertThat(MapAdvice.of(machine.withAxis(1, right), right, "/axes/1").findings()).allMatch(f -> f.severity() == Finding.Severity.GOOD);
    }
}
