package rueda.format.description;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.catchThrowableOfType;

import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import rueda.bus.description.DeviceDescription;
import rueda.bus.description.DeviceDescription.DescribedObject;
import rueda.bus.description.DeviceDescription.DescribedPdo;
import rueda.format.Reading;
import rueda.format.UnreadableFile;

/** Descriptions as other makers write them: forms that the standards allow and our own device does not use. */
class ForeignDescriptionsTest {

    private static final String EDS = """
            [FileInfo]
            FileName=x.eds
            [DeviceInfo]
            VendorName=Other
            ProductName=Turner
            VendorNumber=0100
            ProductNumber=0x20
            RevisionNumber=010
            [MandatoryObjects]
            SupportedObjects=1
            1=0x1000
            [1000]
            ParameterName=Device type
            ObjectType=0x7
            DataType=0x0007
            AccessType=ro
            DefaultValue=0402
            [2000]
            ParameterName=Speeds
            ObjectType=0x8
            DataType=0x0006
            AccessType=rw
            DefaultValue=012
            CompactSubObj=5
            PDOMapping=1
            [2000Name]
            NrOfEntries=1
            3=Third
            [2000Value]
            NrOfEntries=1
            2=77
            [2001]
            ParameterName=Fine position
            ObjectType=0x7
            DataType=0x0010
            AccessType=rw
            LowLimit=-8388608
            HighLimit=8388607
            [2002]
            ParameterName=Counter
            ObjectType=0x7
            DataType=0x0016
            AccessType=ro
            HighLimit=0xFFFFFF
            [2003]
            ParameterName=File
            ObjectType=0x2
            AccessType=rw
            [1600]
            ParameterName=RPDO 1
            ObjectType=0x9
            SubNumber=4
            [1600sub0]
            ParameterName=entries
            DataType=0x0005
            AccessType=rw
            DefaultValue=3
            [1600sub1]
            ParameterName=1
            DataType=0x0007
            AccessType=rw
            DefaultValue=0x20000110
            [1600sub2]
            ParameterName=2
            DataType=0x0007
            AccessType=rw
            DefaultValue=0x00050008
            [1600sub3]
            ParameterName=3
            DataType=0x0007
            AccessType=rw
            DefaultValue=0x20010018
            [1601]
            ParameterName=RPDO 2
            ObjectType=0x9
            SubNumber=1
            [1601sub0]
            ParameterName=entries
            DataType=0x0005
            AccessType=rw
            DefaultValue=255
            """;

    @ParameterizedTest
    @ValueSource(strings = {"UTF-8", "UTF-16LE", "UTF-16BE", "ISO-8859-1"})
    void anEdsWithOctalNumbersCompactArraysAndOddWidths(String encoding) {
        byte[] body = EDS.replace("Other", "Käserei").getBytes(Charset.forName(encoding));
        byte[] mark = encoding.equals("UTF-16LE") ? new byte[] {(byte) 0xFF, (byte) 0xFE} : encoding.equals("UTF-16BE") ? new byte[] {(byte) 0xFE, (byte) 0xFF} : new byte[0];
        byte[] file = new byte[mark.length + body.length];
        System.arraycopy(mark, 0, file, 0, mark.length);
        System.arraycopy(body, 0, file, mark.length, body.length);
        Reading<EdsReader.Configured> read = EdsReader.configured(file);
        DeviceDescription device = read.value().device();
        assertThat(device.vendor()).isEqualTo("Käserei");
        assertThat(device.identity().vendor()).as("octal").isEqualTo(64);
        assertThat(device.identity().revision()).as("octal").isEqualTo(8);
        assertThat(device.object(0x1000, 0).orElseThrow().preset()).isEqualTo(Integer.toString(0402));
        assertThat(device.object(0x2000, 0).orElseThrow().preset()).isEqualTo("5");
        for (int sub = 1; sub <= 5; sub++) {
            DescribedObject element = device.object(0x2000, sub).orElseThrow();
            assertThat(element.bits()).isEqualTo(16);
            assertThat(element.preset()).isEqualTo("10");
            assertThat(element.cyclic()).isTrue();
            assertThat(element.name()).isEqualTo(sub == 3 ? "Speeds, Third" : "Speeds, element " + sub);
        }
        assertThat(read.value().values()).containsEntry(0x2000L << 8 | 2, "77");
        assertThat(device.object(0x2001, 0).orElseThrow().bits()).isEqualTo(24);
        assertThat(device.object(0x2002, 0).orElseThrow().bits()).isEqualTo(24);
        DescribedPdo first = device.pdos().get(0);
        assertThat(first.entries()).extracting(e -> e.index() + ":" + e.bits()).containsExactly("8192:16", "0:8", "8193:24");
        assertThat(device.pdos().get(1).entries()).isEmpty();
        assertThat(read.remarks()).anyMatch(r -> r.contains("multiplexed"));
    }

    @Test
    void anOctalNumberWithADigitThatIsNoneIsRefusedInItsLine() {
        UnreadableFile refused = catchThrowableOfType(UnreadableFile.class, () -> EdsReader.read(EDS.replace("RevisionNumber=010", "RevisionNumber=08").getBytes(StandardCharsets.UTF_8)));
        assertThat(refused.getMessage()).contains("08").contains("octal");
        assertThat(refused.place()).contains("line 8");
    }

    private static String gsdml(String modules) {
        return """
                <?xml version="1.0" encoding="UTF-8"?>
                <ISO15745Profile xmlns="http://www.profibus.com/GSDML/2003/11/DeviceProfile"><ProfileBody>
                <DeviceIdentity VendorID="0x0100" DeviceID="0x0001"><VendorName Value="Other"/></DeviceIdentity>
                <ApplicationProcess><DeviceAccessPointList><DeviceAccessPointItem ID="A1" DNS_CompatibleName="turner"/><DeviceAccessPointItem ID="A2" DNS_CompatibleName="turner-old"/></DeviceAccessPointList>
                <ModuleList>%s</ModuleList>
                <ValueList><ValueItem ID="V1"><Assignments><Assign Content="2" TextId="t"/><Assign Content="9" TextId="t"/></Assignments></ValueItem></ValueList>
                </ApplicationProcess></ProfileBody></ISO15745Profile>""".formatted(modules);
    }

    private static final String MODULE = """
            <ModuleItem ID="%1$s" ModuleIdentNumber="%2$s"><VirtualSubmoduleList><VirtualSubmoduleItem ID="S%1$s" SubmoduleIdentNumber="0x1">
            <IOData><Output><DataItem DataType="Unsigned16" TextId="w"/><DataItem DataType="Boolean" TextId="b"/><DataItem DataType="F_MessageTrailer4Byte" TextId="f"/></Output></IOData>
            <RecordDataList><ParameterRecordDataItem Index="1" Length="4">
            <Ref DataType="Bit" ByteOffset="0" BitOffset="0" TextId="x"/><Ref DataType="Bit" ByteOffset="0" BitOffset="1" TextId="y"/><Ref DataType="BitArea" ByteOffset="0" BitOffset="2" BitLength="3" TextId="z"/>
            <Ref DataType="Boolean" ByteOffset="1" DefaultValue="1" TextId="on"/><Ref DataType="Unsigned8" ByteOffset="2" AllowedValues="1..3 7 9..12" DefaultValue="7" TextId="range"/>
            <Ref DataType="Unsigned8" ByteOffset="3" ValueItemTarget="V1" DefaultValue="2" TextId="list"/>
            </ParameterRecordDataItem></RecordDataList></VirtualSubmoduleItem></VirtualSubmoduleList></ModuleItem>""";

    @Test
    void gsdmlNumbersAreTheirModulesOwnAndBitsShareAByte() {
        Reading<List<DeviceDescription>> read = GsdmlReader.read(gsdml(MODULE.formatted("M1", "0x10") + MODULE.formatted("M2", "0x11")).getBytes(StandardCharsets.UTF_8));
        DeviceDescription device = read.value().get(0);
        assertThat(device.pdos()).hasSize(2);
        assertThat(device.pdos()).extracting(DescribedPdo::number).doesNotHaveDuplicates();
        assertThat(device.pdos().get(0).entries()).extracting(e -> e.bits()).as("a Boolean is a byte, a trailer has its own length").containsExactly(16, 8, 32);
        assertThat(device.objects()).hasSize(12);
        assertThat(device.objects()).filteredOn(o -> o.name().contains("range")).hasSize(2).allSatisfy(o -> {
            assertThat(o.low()).isEqualTo("1");
            assertThat(o.high()).isEqualTo("12");
        });
        assertThat(device.objects()).filteredOn(o -> o.name().contains("list")).allSatisfy(o -> assertThat(o.low() + ".." + o.high()).isEqualTo("2..9"));
        assertThat(device.objects()).filteredOn(o -> o.name().contains(", on")).allSatisfy(o -> assertThat(o.bits()).isEqualTo(8));
        assertThat(device.objects()).filteredOn(o -> o.name().contains(", z")).allSatisfy(o -> assertThat(o.name()).endsWith("bit 2 to 4"));
        assertThat(read.remarks()).anyMatch(r -> r.contains("A2") && r.contains("not used"));
    }

    @Test
    void theSameBitTwiceIsStillRefused() {
        UnreadableFile refused = catchThrowableOfType(UnreadableFile.class, () -> GsdmlReader.read(gsdml(MODULE.formatted("M1", "0x10").replace("BitOffset=\"1\"", "BitOffset=\"3\"")).getBytes(StandardCharsets.UTF_8)));
        assertThat(refused.getMessage()).contains("0.3");
        UnreadableFile twice = catchThrowableOfType(UnreadableFile.class, () -> GsdmlReader.read(gsdml(MODULE.formatted("M1", "0x10").replace("</VirtualSubmoduleList>", "<VirtualSubmoduleItem ID=\"T\" SubmoduleIdentNumber=\"1\"/></VirtualSubmoduleList>")).getBytes(StandardCharsets.UTF_8)));
        assertThat(twice.getMessage()).contains("each number once");
    }

    private static String esi(String info) {
        return """
                <?xml version="1.0"?>
                <EtherCATInfo><Vendor><Id>#x100</Id><Name>Other</Name></Vendor><Descriptions><Devices><Device Physics="YY"><Type ProductCode="#x1" RevisionNo="#x1">T</Type><Name>Turner</Name>
                <Profile><Dictionary><DataTypes>
                <DataType><Name>UINT</Name><BitSize>16</BitSize></DataType>
                <DataType><Name>DT2000ARR</Name><BaseType>UINT</BaseType><BitSize>48</BitSize><ArrayInfo><LBound>1</LBound><Elements>3</Elements></ArrayInfo></DataType>
                <DataType><Name>DTMODE</Name><BaseType>USINT</BaseType><BitSize>8</BitSize><EnumInfo><Text>off</Text><Enum>0</Enum></EnumInfo></DataType>
                <DataType><Name>DT2000</Name><BitSize>64</BitSize><SubItem><SubIdx>0</SubIdx><Name>Number</Name><Type>USINT</Type><BitSize>8</BitSize><BitOffs>0</BitOffs></SubItem>
                <SubItem><Name>Speeds</Name><Type>DT2000ARR</Type><BitSize>48</BitSize><BitOffs>16</BitOffs></SubItem></DataType>
                <DataType><Name>DT2001</Name><BitSize>48</BitSize><SubItem><SubIdx>0</SubIdx><Name>Number</Name><Type>USINT</Type><BitSize>8</BitSize><BitOffs>0</BitOffs></SubItem>
                <SubItem><SubIdx>1</SubIdx><Name>Low</Name><Type>UINT</Type><BitSize>16</BitSize><BitOffs>16</BitOffs></SubItem>
                <SubItem><SubIdx>2</SubIdx><Name>High</Name><Type>UINT</Type><BitSize>16</BitSize><BitOffs>32</BitOffs></SubItem></DataType>
                </DataTypes><Objects>
                <Object><Index>#x2000</Index><Name>Set</Name><Type>DT2000</Type><BitSize>64</BitSize></Object>
                <Object><Index>#x2001</Index><Name>Limits</Name><Type>DT2001</Type><BitSize>48</BitSize><Info>%s</Info></Object>
                <Object><Index>#x2002</Index><Name>Mode</Name><Type>DTMODE</Type><BitSize>8</BitSize><Info><DefaultValue>#x01</DefaultValue></Info></Object>
                <Object><Index>#x2003</Index><Name>Ramp</Name><Type>UINT</Type><BitSize>16</BitSize><Info><MinData>0100</MinData><MaxData>E803</MaxData><DefaultData>6400</DefaultData></Info></Object>
                </Objects></Dictionary></Profile>
                <Mailbox><CoE><InitCmd><Transition>PS</Transition><Index>#x1C12</Index><SubIndex>0</SubIndex><Data>00</Data></InitCmd></CoE></Mailbox>
                </Device></Devices></Descriptions></EtherCATInfo>""".formatted(info);
    }

    @Test
    void esiSubItemsByNameArraysAndLimitsAsBytes() {
        Reading<List<DeviceDescription>> read = EsiReader.read(esi("<SubItem><Name>High</Name><Info><DefaultValue>9</DefaultValue></Info></SubItem><SubItem><Name>Low</Name><Info><DefaultValue>3</DefaultValue></Info></SubItem>").getBytes(StandardCharsets.UTF_8));
        DeviceDescription device = read.value().get(0);
        assertThat(device.object(0x2001, 1).orElseThrow().preset()).as("by name, not by place").isEqualTo("3");
        assertThat(device.object(0x2001, 2).orElseThrow().preset()).isEqualTo("9");
        for (int sub = 1; sub <= 3; sub++) {
            assertThat(device.object(0x2000, sub).orElseThrow().bits()).isEqualTo(16);
        }
        assertThat(device.object(0x2002, 0).orElseThrow().dataType()).as("an enumeration is as wide as its base").isEqualTo("USINT");
        assertThat(device.object(0x2002, 0).orElseThrow().preset()).isEqualTo("#x01");
        DescribedObject ramp = device.object(0x2003, 0).orElseThrow();
        assertThat(List.of(ramp.low(), ramp.high(), ramp.preset())).containsExactly("0x0001", "0x03E8", "0x0064");
        assertThat(read.remarks()).anyMatch(r -> r.contains("#x1C12") && r.contains("not taken over"));
    }

    @Test
    void aWrongDefaultIsToldInTheLineWhereItStands() {
        String file = esi("<SubItem><Name>Number</Name></SubItem>\n<SubItem><Name>Low</Name>\n<Info><DefaultValue>99999999</DefaultValue></Info></SubItem>");
        UnreadableFile refused = catchThrowableOfType(UnreadableFile.class, () -> EsiReader.read(file.getBytes(StandardCharsets.UTF_8)));
        int line = (int) file.substring(0, file.indexOf("<Name>Low</Name>\n<Info>")).chars().filter(c -> c == '\n').count() + 1;
        assertThat(refused.place()).contains("line " + line);
    }
}
