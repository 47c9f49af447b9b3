package rueda.format.description;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.junit.jupiter.api.Test;
import rueda.bus.BusFamily;
import rueda.format.description.NodeConfiguration.Taken;
import rueda.machine.Axis;
import rueda.machine.Bus.Family;
import rueda.machine.DemoMachine;
import rueda.machine.Machine;
import rueda.machine.Station;
import rueda.machine.Station.Entry;
import rueda.machine.Station.StartWrite;
import rueda.machine.Station.Transition;
import rueda.quantity.InvalidEntry;

/** Device configuration files (CiA 306) out and in, with data sheets that are written otherwise than ours. */
class DeviceConfigurationTest {

    /** As other makers write: Windows line ends, comments, keys of their own, arrays in short, variables of other kinds, national letters. */
    private static final String FOREIGN = String.join("\r\n", "; drive of a maker, keys in other order", "[FileInfo]", "CreatedBy=M. Müller", "FileName=x9.eds", "EDSVersion=4.0", "",
            "[DeviceInfo]", "ProductName=X9", "VendorName=Maker", "VendorNumber=0x99", "ProductNumber=7", "RevisionNumber=1", "NrOfRXPDO=1", "LSS_Supported=1", "",
            "[Comments]", "Lines=1", "Line1=Größe 3", "",
            "[MandatoryObjects]", "SupportedObjects=3", "1=0x1000", "2=0x1001", "3=0x1018", "", "[OptionalObjects]", "SupportedObjects=4", "1=0x1400", "2=0x1600", "3=0x6040", "4=0x607A", "",
            "[ManufacturerObjects]", "SupportedObjects=2", "1=0x2000", "2=0x2001", "",
            "[1000]", "ParameterName=Device type", "ObjectType=0x7", "DataType=0x0007", "AccessType=ro", "DefaultValue=0x00020192", "PDOMapping=0", "ObjFlags=0", "",
            "[1001]", "ParameterName=Error register", "DataType=0x0005", "AccessType=ro", "",
            "[1018]", "ParameterName=Identity", "ObjectType=0x9", "SubNumber=2", "", "[1018sub0]", "ParameterName=n", "DataType=0x5", "AccessType=ro", "DefaultValue=1", "",
            "[1018sub1]", "ParameterName=Vendor", "DataType=0x7", "AccessType=ro", "DefaultValue=0x99", "",
            "[1400]", "ParameterName=RPDO 1", "ObjectType=0x9", "SubNumber=3", "", "[1400sub0]", "ParameterName=n", "DataType=0x5", "AccessType=ro", "DefaultValue=2", "",
            "[1400sub1]", "ParameterName=COB-ID", "DataType=0x7", "AccessType=rw", "DefaultValue=$NODEID+0x200", "", "[1400sub2]", "ParameterName=Kind", "DataType=0x5", "AccessType=rw", "DefaultValue=255", "",
            "[1600]", "ParameterName=RPDO 1 mapping", "ObjectType=0x9", "SubNumber=3", "", "[1600sub0]", "ParameterName=n", "DataType=0x5", "AccessType=rw", "DefaultValue=1", "",
            "[1600sub1]", "ParameterName=first", "DataType=0x7", "AccessType=rw", "DefaultValue=0x60400010", "", "[1600sub2]", "ParameterName=second", "DataType=0x7", "AccessType=rw", "DefaultValue=0", "",
            "[6040]", "ParameterName=Controlword", "DataType=0x6", "AccessType=rww", "PDOMapping=1", "", "[607A]", "ParameterName=Target", "DataType=0x4", "AccessType=rww", "PDOMapping=1", "",
            "[2000]", "; an array in short", "ParameterName=Table", "ObjectType=0x8", "DataType=0x3", "AccessType=rw", "CompactSubObj=5", "DefaultValue=0", "",
            "[2000Name]", "NrOfEntries=1", "2=Second", "", "[2001]", "ParameterName=Own", "ObjectType=0x7", "DataType=0x4", "AccessType=rw", "LowLimit=-100", "HighLimit=100", "DefaultValue=-1", "");

    private static Machine machineOf(String vendor) {
        Machine can = BusFamily.moved(DemoMachine.create(), Family.CANOPEN);
        Axis axis = can.axes().get(1);
        Station station = axis.station().withIdentity(new Station.Identity(vendor, 0x99, 7, 1))
                .withEntries(List.of(new Entry(0x6040, 0, 16, "Lift.Cmd.Control", "WORD"), new Entry(0x607A, 0, 32, "Lift.Cmd.Position", "DINT")), List.of())
                .withStartWrites(List.of(new StartWrite(0x2000, 4, 16, -7, Transition.PREOP_TO_SAFEOP, "", true), new StartWrite(0x2001, 0, 32, -42, Transition.PREOP_TO_SAFEOP, "", true)));
        return can.withAxis(1, axis.withStation(station));
    }

    @Test
    void everyLineOfTheDataSheetStaysAndValuesAreAdded() {
        Machine machine = machineOf("X9");
        String dcf = DcfWriter.write(machine, machine.axes().get(1), FOREIGN.getBytes(StandardCharsets.UTF_8), "11-25-2026", "08:00AM");
        assertThat(dcf.replace("\r\n", "")).as("line ends of the sheet").doesNotContain("\n").doesNotContain("\r");
        List<String> left = new ArrayList<>(dcf.lines().toList());
        for (String line : FOREIGN.split("\r\n")) {
            if (!line.startsWith("FileName=")) {
                assertThat(left.remove(line)).as(line).isTrue();
            }
        }
        left.removeIf(String::isBlank);
        assertThat(left).contains("LastEDS=x9.eds", "FileName=Lift.dcf", "[DeviceComissioning]", "NodeID=2", "NodeName=lift", "[2000Value]", "4=-7", "ParameterValue=-42", "ParameterValue=514", "ParameterValue=2");
        assertThat(left).allMatch(l -> l.matches("(LastEDS|FileName|Modification(Time|Date)|ModifiedBy|NodeID|NodeName|Baudrate|NrOfEntries|ParameterValue|4)=.*|\\[(DeviceComissioning|2000Value)]"));
        EdsReader.Configured read = EdsReader.configured(dcf.getBytes(StandardCharsets.UTF_8)).value();
        assertThat(read.values()).containsEntry(0x2000L << 8 | 4, "-7").containsEntry(0x1600L << 8 | 2, "1618608160");
        assertThat(read.device().objects()).isEqualTo(EdsReader.configured(FOREIGN.getBytes(StandardCharsets.UTF_8)).value().device().objects());
    }

    /** A DCF as sheet: what it gave to its node is not given to another. */
    @Test
    void aConfigurationWrittenTwiceIsTheSame() {
        Machine machine = machineOf("X9");
        byte[] once = DcfWriter.write(machine, machine.axes().get(1), FOREIGN.getBytes(StandardCharsets.UTF_8), "11-25-2026", "08:00AM").getBytes(StandardCharsets.UTF_8);
        assertThat(DcfWriter.write(machine, machine.axes().get(1), once, "11-25-2026", "08:00AM").getBytes(StandardCharsets.UTF_8)).isEqualTo(once);
        Axis bare = machine.axes().get(1).withStation(machine.axes().get(1).station().withStartWrites(List.of()));
        assertThat(DcfWriter.write(machine, bare, once, "11-25-2026", "08:00AM")).doesNotContain("-42", "-7");
    }

    private static NodeConfiguration configuration(String dcf, List<String> remarks) {
        EdsReader.Configured configured = EdsReader.configured(dcf.getBytes(StandardCharsets.UTF_8)).value();
        assertThat(configured.isConfiguration()).isTrue();
        return configured.configuration(remarks);
    }

    /** What one axis gives out, another takes in: the same values in the device, at the same node, whatever was set up before. */
    @Property(tries = 60)
    void whatIsTakenOutCanBeTakenIn(@ForAll @net.jqwik.api.constraints.IntRange(min = 0, max = 4) int from, @ForAll @net.jqwik.api.constraints.IntRange(min = 0, max = 4) int to,
                                    @ForAll @net.jqwik.api.constraints.IntRange(min = 6, max = 127) int node, @ForAll long value) {
        Machine can = BusFamily.moved(DemoMachine.create(), Family.CANOPEN);
        Axis source = can.axes().get(from);
        Station station = source.station().withAddress(source.station().address().withNumber(node).withName("knife-" + node))
                .withStartWrites(List.of(new StartWrite(0x6065, 0, 32, value & 0x7FFF_FFFF, Transition.PREOP_TO_SAFEOP, "Following error window", true)));
        Machine given = can.withAxis(from, source.withStation(station));
        String dcf = DcfWriter.write(given, given.axes().get(from), ShippedDevices.file("wheelwright-w1.eds"), "11-25-2026", "08:00AM");
        Taken taken = configuration(dcf, new ArrayList<>()).into(can, to);
        Axis axis = taken.machine().axes().get(to);
        assertThat(axis.station().address().number()).isEqualTo(node);
        assertThat(DcfWriter.nodeName(axis)).isEqualTo("knife-" + node);
        Map<Long, Long> expected = DcfWriter.values(given, given.axes().get(from));
        Map<Long, Long> now = DcfWriter.values(taken.machine(), axis);
        assertThat(now).containsAllEntriesOf(expected);
        assertThat(taken.changes()).isNotEmpty();
        assertThat(configuration(dcf, new ArrayList<>()).into(taken.machine(), to).changes()).as("nothing is left to take").isEmpty();
    }

    @Test
    void whatCannotBeTakenIsSaid() {
        String dcf = FOREIGN.replace("[2001]\r\n", "[2001]\r\nParameterValue=010\r\n").replace("COB-ID\r\n", "COB-ID\r\nParameterValue=$NODEID+0x320\r\n")
                .replace("ParameterName=Error register\r\n", "ParameterName=Error register\r\nParameterValue=1\r\n") + "\r\n[DeviceComissioning]\r\nNodeID=0x11\r\nBaudrate=500\r\nNodeName=Knife\r\n";
        List<String> remarks = new ArrayList<>();
        NodeConfiguration read = configuration(dcf, remarks);
        assertThat(remarks).singleElement().asString().contains("1001h:00", "only be read");
        assertThat(read.node()).isEqualTo(17);
        assertThat(read.values()).anyMatch(v -> v.object() == 0x2001 && v.value() == 8).anyMatch(v -> v.object() == 0x1400 && v.value() == 0x331);
        Taken taken = read.into(machineOf("X9"), 1);
        assertThat(taken.changes()).anyMatch(c -> c.startsWith("Node id 17")).anyMatch(c -> c.startsWith("Bit rate of the bus 500")).anyMatch(c -> c.contains("Knife"));
        assertThat(taken.remarks()).singleElement().asString().contains("331h");
        assertThat(taken.machine().bus().kiloBits()).isEqualTo(500);
        assertThatThrownBy(() -> read.into(DemoMachine.create(), 0)).isInstanceOf(InvalidEntry.class).hasMessageContaining("CANopen");
    }
}
