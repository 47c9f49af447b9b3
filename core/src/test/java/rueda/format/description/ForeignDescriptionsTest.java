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
import rueda.bus.description.DeviceDescription.DescribedChoice;
import rueda.bus.description.DeviceDescription.DescribedObject;
import rueda.bus.description.DeviceDescription.DescribedPdo;
import rueda.format.Reading;
import rueda.format.UnreadableFile;
import rueda.machine.Station.StartWrite;
import rueda.machine.Station.Transition;

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
        assertThat(read.value()).extracting(DeviceDescription::name).as("every access point is a device").containsExactly("turner", "turner-old");
        assertThat(read.value().get(1).pdos()).as("no reference at all: every module fits").isEqualTo(device.pdos());
    }

    /** Element and attribute names of the GSDML schema from memory. */
    @Test
    void anAccessPointTakesTheModulesItNamesInTheSlotsItNames() {
        String file = gsdml(MODULE.formatted("M1", "0x10") + MODULE.formatted("M2", "0x11") + MODULE.formatted("M3", "0x12"))
                .replace("<DeviceAccessPointItem ID=\"A1\" DNS_CompatibleName=\"turner\"/>", """
                        <DeviceAccessPointItem ID="A1" DNS_CompatibleName="turner"><UseableModules><ModuleItemRef ModuleItemTarget="M3" FixedInSlots="2"/>
                        <ModuleItemRef ModuleItemTarget="M1" AllowedInSlots="3..5 7"/><ModuleItemRef ModuleItemTarget="M9"/></UseableModules></DeviceAccessPointItem>""")
                .replace("DNS_CompatibleName=\"turner-old\"", "DNS_CompatibleName=\"turner\"");
        Reading<List<DeviceDescription>> read = GsdmlReader.read(file.getBytes(StandardCharsets.UTF_8));
        DeviceDescription first = read.value().get(0);
        assertThat(first.pdos()).extracting(DescribedPdo::name).containsExactly("SM3, slot 2", "SM1, slot 3 to 5, 7");
        assertThat(first.pdos()).extracting(DescribedPdo::chosen).containsExactly(true, false);
        assertThat(read.remarks()).anyMatch(r -> r.contains("M9"));
        assertThat(read.value().get(1).name()).as("told apart by its ID").isEqualTo("turner (A2)");
        assertThat(read.value().get(1).pdos()).as("it can use none").isEmpty();
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
        assertThat(device.startWrites()).singleElement().isEqualTo(new StartWrite(0x1C12, 0, 8, 0, Transition.PREOP_TO_SAFEOP, "asked for by the description", true));
        assertThat(device.object(0x2002, 0).orElseThrow().choices()).containsExactly(new DescribedChoice(0, "off"));
    }

    @Test
    void aWrongDefaultIsToldInTheLineWhereItStands() {
        String file = esi("<SubItem><Name>Number</Name></SubItem>\n<SubItem><Name>Low</Name>\n<Info><DefaultValue>99999999</DefaultValue></Info></SubItem>");
        UnreadableFile refused = catchThrowableOfType(UnreadableFile.class, () -> EsiReader.read(file.getBytes(StandardCharsets.UTF_8)));
        int line = (int) file.substring(0, file.indexOf("<Name>Low</Name>\n<Info>")).chars().filter(c -> c == '\n').count() + 1;
        assertThat(refused.place()).contains("line " + line);
    }

    /** A start-up command that is no single write of up to 32 bits is told, not forgotten. */
    @Test
    void startUpCommandsThatDoNotFitAreTold() {
        for (String odd : List.of("<Data>0102030405</Data>", "<Data>010203</Data>", "<Transition>SO</Transition><Data>01</Data>", "<Data></Data>")) {
            Reading<List<DeviceDescription>> read = EsiReader.read(esi("").replace("<Data>00</Data>", odd).getBytes(StandardCharsets.UTF_8));
            assertThat(read.value().get(0).startWrites()).as(odd).isEmpty();
            assertThat(read.remarks()).as(odd).anyMatch(r -> r.contains("#x1C12") && r.contains("not taken over"));
        }
    }

    @Test
    void aFlagThatIsNoneIsTold() {
        for (String odd : List.of("banana", "7", "yes")) {
            String file = esi("").replace("</Device>", "<RxPdo Fixed=\"" + odd + "\"><Index>#x1600</Index><Name>Out</Name><Entry><Index>#x6040</Index><BitLen>16</BitLen></Entry></RxPdo></Device>");
            Reading<List<DeviceDescription>> read = EsiReader.read(file.getBytes(StandardCharsets.UTF_8));
            assertThat(read.value().get(0).pdos()).singleElement().matches(p -> !p.fixed());
            assertThat(read.remarks()).anyMatch(r -> r.contains("Fixed") && r.contains(odd));
        }
    }

    /** ETG.5001: what stands in the slots by default makes the process data; numbers move on with the slot. */
    @Test
    void esiModulesStandInSlots() {
        String module = "<Module><Type ModuleIdent=\"#x10\">AX</Type><Name>Axis</Name><RxPdo Sm=\"2\"><Index DependOnSlot=\"1\">#x1600</Index><Name>Out</Name><Entry><Index DependOnSlot=\"1\">#x6040</Index><SubIndex>0</SubIndex><BitLen>16</BitLen><Name>Control</Name><DataType>UINT</DataType></Entry>"
                + "<Entry><Index>#x0</Index><BitLen>16</BitLen></Entry></RxPdo><Lamp/></Module>";
        String file = esi("").replace("</Devices>", "</Devices><Modules>" + module + "</Modules>")
                .replace("</Device>", "<Slots SlotPdoIncrement=\"16\" SlotIndexIncrement=\"#x800\"><Slot><ModuleIdent Default=\"1\">#x10</ModuleIdent><ModuleIdent>#x11</ModuleIdent></Slot><Slot><ModuleIdent>#x10</ModuleIdent></Slot><Slot><ModuleIdent>#x77</ModuleIdent></Slot></Slots></Device>");
        Reading<List<DeviceDescription>> read = EsiReader.read(file.getBytes(StandardCharsets.UTF_8));
        assertThat(read.value().get(0).pdos()).extracting(DescribedPdo::number).containsExactly(0x1600, 0x1610);
        assertThat(read.value().get(0).pdos().get(1).entries()).extracting(e -> e.index() + ":" + e.bits()).containsExactly((0x6040 + 0x800) + ":16", "0:16");
        assertThat(read.remarks()).anyMatch(r -> r.contains("1 others that fit are not")).anyMatch(r -> r.contains("no module #x77")).anyMatch(r -> r.contains("Lamp"));
    }

    private static final String ODVA = """
            $ other maker
            [File] DescText = "Other"; Revision = 1.0;
            [Device] VendCode = 99; VendName = "Other" " and"
                " sons"; ProdCode = 7; MajRev = 3; MinRev = 1; ProdName = "T \\"9\\"";
            [Params]
              Param1 = 0, 6, "20 04 24 01 30 03", 0x0000, 0xC1, 1, "Enable", "", "", 0, 1, 0, , , , , , , , , 0;
              Param2 = 0, , , 0x0010, 0xC3, 2, "Speed", "rpm", "long "
                       "help", , , , , , , , , , , , 0;
              Param3 = 0, , , 0x0000, 0xC6, 1, "Mode", "", "", 0, 3, 1, , , , , , , , , 0;
              Enum3 = 0, "off", 1, "speed", 3, "place";
              Param4 = 0, , , 0, 0xC7, 2, "Size", "", "", 1, 40, 10, , , , , , , , , 0;
            [Assembly]
              Object_Name = "Assembly Object";
              Assem1 = "Out", "20 04 24 65 30 03", 4, 0, , , 1, Param1, 1, , 6, , 8, Param3, , Param2, , ;
              Assem2 = "In", "20 04 25 00 2C 01 30 03", , 0, , , , Assem5, 8, Param3;
              Assem3 = "Configuration", "20 04 24 67 30 03", 2, 0, , , 16, Param4;
              Assem4 = "Spare", "20 04 24 68 30 03", 2, 0, , , 16, Param4;
              Assem5 = "Part", , , 0, , , 16, Param2, 8, Param3;
            [Connection Manager]
              Connection1 = 0x04010002, 0x44640405, , 4, Assem1, , , Assem2, , , 2, Assem3, "Exclusive owner", "", "20 04 24 67 2C 65 2D 00 2C 01";
              Connection2 = 0x04010002, 0x44640405, , 6, , , Param4, , , , , , "By size", "", "34 04 00 00 00 00 00 00 00 00 20 04 24 80 2C 96 2C A0";
            [Port] Port1 = TCP, "Ethernet", "20 F5 24 01", 2;
            """;

    @Test
    void anEdsOfOdvaAsOthersWriteIt() {
        Reading<List<DeviceDescription>> read = OdvaEdsReader.read(ODVA.getBytes(StandardCharsets.UTF_8));
        DeviceDescription device = read.value().get(0);
        assertThat(device.vendor()).as("joined texts").isEqualTo("Other and sons");
        assertThat(device.name()).as("escaped marks").isEqualTo("T \"9\"");
        assertThat(device.object(3, 0).orElseThrow().choices()).extracting(c -> c.value() + c.name()).containsExactly("0off", "1speed", "3place");
        assertThat(device.pdos()).extracting(p -> p.number() + (p.output() ? " out " : " in ") + p.bits() / 8).as("instances from the paths; the configuration is no process data; connections by size")
                .containsExactlyInAnyOrder("101 out 4", "300 in 4", "150 out 6", "160 in 10");
        DescribedPdo out = device.pdos().stream().filter(p -> p.number() == 101).findFirst().orElseThrow();
        assertThat(out.entries()).extracting(e -> e.name() + ":" + e.bits()).as("bits, fillers, a width left out, an empty member").containsExactly("Enable:1", "filler:1", "filler:6", "Mode:8", "Speed:16");
        DescribedPdo in = device.pdos().stream().filter(p -> p.number() == 300).findFirst().orElseThrow();
        assertThat(in.entries()).extracting(e -> e.name() + ":" + e.bits()).as("a member that is an assembly").containsExactly("Speed:16", "Mode:8", "Mode:8");
        assertThat(read.remarks()).anyMatch(r -> r.contains("instance 103")).anyMatch(r -> r.contains("Spare")).anyMatch(r -> r.contains("[port]")).hasSize(3);
    }

    @Test
    void anAssemblyThatContainsItselfIsRefused() {
        assertThat(catchThrowableOfType(UnreadableFile.class, () -> OdvaEdsReader.read(ODVA.replace("8, Param3;\n  Assem3", "8, Assem2;\n  Assem3").getBytes(StandardCharsets.UTF_8))).getMessage()).contains("member of itself");
        StringBuilder deep = new StringBuilder("[Device] VendCode = 1; ProdCode = 1; MajRev = 1; MinRev = 1; ProdName = \"x\"; [Assembly] ");
        for (int i = 1; i < 40; i++) {
            deep.append("Assem").append(i).append(" = \"a\", , , , , , , Assem").append(i + 1).append(", , Assem").append(i + 1).append("; ");
        }
        deep.append("Assem40 = \"a\", , , , , , , ;");
        assertThat(catchThrowableOfType(UnreadableFile.class, () -> OdvaEdsReader.read(deep.toString().getBytes(StandardCharsets.UTF_8))).getMessage()).contains("members");
    }
}
