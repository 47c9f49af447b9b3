package rueda.format.description;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.List;
import java.util.Random;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import rueda.bus.BusFamily;
import rueda.bus.StandardTelegram;
import rueda.bus.description.DeviceDescription;
import rueda.bus.description.DeviceDescription.Access;
import rueda.bus.description.DeviceDescription.DescribedEntry;
import rueda.bus.description.DeviceDescription.DescribedPdo;
import rueda.drive.DriveObject;
import rueda.format.Text;
import rueda.format.UnreadableFile;
import rueda.machine.Bus.Family;
import rueda.machine.Station;

class DescriptionsTest {

    private static String shipped(String name) {
        return new String(ShippedDevices.file(name), StandardCharsets.UTF_8);
    }

    private static List<DeviceDescription> read(String text) {
        return Descriptions.read(text.getBytes(StandardCharsets.UTF_8)).value();
    }

    private static UnreadableFile refused(byte[] file) {
        try {
            Descriptions.read(file);
        } catch (UnreadableFile refused) {
            assertThat(refused.place()).isNotBlank();
            assertThat(refused.allowed()).isNotBlank();
            assertThat(refused.mend()).isNotBlank();
            return refused;
        }
        throw new AssertionError("was read");
    }

    private static UnreadableFile refused(String text) {
        return refused(text.getBytes(StandardCharsets.UTF_8));
    }

    private static DeviceDescription newest(Family family) {
        return ShippedDevices.all().stream().filter(d -> d.family() == family).reduce((a, b) -> b).orElseThrow();
    }

    /** What the descriptions say is what the drive of the bench is: every object with its width, sign and access. */
    @Test
    void theShippedDescriptionsAreTheDriveOfTheBench() {
        for (Family family : List.of(Family.ETHERCAT, Family.CANOPEN)) {
            DeviceDescription device = newest(family);
            for (DriveObject object : DriveObject.values()) {
                assertThat(device.object(object.index(), object.subIndex())).as(family + " " + object).hasValueSatisfying(o -> {
                    assertThat(o.bits()).isEqualTo(object.bits());
                    assertThat(o.dataType()).isEqualTo(object.dataType());
                    assertThat(o.access().writable()).isEqualTo(object.writable());
                });
            }
        }
        assertThat(newest(Family.ETHERNET_IP).objects()).hasSize(DriveObject.values().length);
    }

    /** What travels by default is what the usual station of the family exchanges. */
    @ParameterizedTest
    @CsvSource({"ETHERCAT", "CANOPEN", "ETHERNET_IP"})
    void theDefaultLayoutIsTheUsualOne(Family family) {
        Station usual = BusFamily.of(family).usual("A", 1);
        List<DescribedPdo> chosen = newest(family).pdos().stream().filter(DescribedPdo::chosen).toList();
        for (boolean output : new boolean[] {true, false}) {
            List<Integer> bits = chosen.stream().filter(p -> p.output() == output).flatMap(p -> p.entries().stream()).map(DescribedEntry::bits).toList();
            assertThat(bits).isEqualTo((output ? usual.outputs() : usual.inputs()).stream().map(Station.Entry::bits).toList());
        }
    }

    @Test
    void gsdmlOffersTheStandardTelegrams() {
        DeviceDescription device = newest(Family.PROFINET);
        for (StandardTelegram telegram : StandardTelegram.values()) {
            DescribedPdo output = device.pdos().stream().filter(p -> p.output() && p.number() == telegram.number()).findFirst().orElseThrow();
            assertThat(output.entries()).extracting(DescribedEntry::index).isEqualTo(telegram.outputs().stream().map(s -> s.number()).toList());
            assertThat(output.entries()).extracting(DescribedEntry::bits).isEqualTo(telegram.outputs().stream().map(s -> s.bits()).toList());
        }
    }

    @Test
    void esiTellsRulesClocksAndMailbox() {
        DeviceDescription device = newest(Family.ETHERCAT);
        assertThat(device.identity()).isEqualTo(new Station.Identity("Wheelwright W1", 0x7275_6564L, 0x1_0001L, 0x1_0002L));
        DescribedPdo fixed = device.pdos().stream().filter(p -> p.number() == 0x1610).findFirst().orElseThrow();
        assertThat(fixed.fixed()).isTrue();
        assertThat(fixed.excludes()).containsExactly(0x1600, 0x1601);
        assertThat(device.clocks()).extracting(DeviceDescription.DescribedClock::assignActivate).containsExactly(0x300, 0);
        assertThat(device.mailbox()).contains("CoE");
        assertThat(device.terminals()).containsExactly("port 0, 100BASE-TX", "port 1, 100BASE-TX");
        assertThat(device.object(0x1000, 0).orElseThrow().preset()).isEqualTo("0x00020192");
        assertThat(device.object(0x605A, 0).orElseThrow()).satisfies(o -> assertThat(List.of(o.low(), o.high(), o.preset())).containsExactly("0", "6", "2"));
    }

    @Test
    void edsTellsAccessAndCobIds() {
        DeviceDescription device = newest(Family.CANOPEN);
        assertThat(device.object(0x1400, 1).orElseThrow().preset()).isEqualTo("$NODEID+0x200");
        assertThat(device.object(0x1800, 2).orElseThrow().access()).isEqualTo(Access.READ_WRITE);
    }

    @Test
    void whatIsNotUnderstoodIsReported() {
        String esi = shipped("wheelwright-w1.esi.xml").replace("<Fmmu>Outputs</Fmmu>", "<Fmmu>Outputs</Fmmu><VendorSpecific><Secret/></VendorSpecific>");
        assertThat(Descriptions.read(esi.getBytes(StandardCharsets.UTF_8)).remarks()).hasSize(2).allSatisfy(r -> assertThat(r).contains("VendorSpecific").contains("line "));
        assertThat(Descriptions.read((shipped("wheelwright-w1.eds") + "\n[Vault]\na=1\n").getBytes(StandardCharsets.UTF_8)).remarks()).containsExactly("section [vault] is not used");
    }

    @Test
    void externalEntitiesAreRefused() {
        assertThat(refused("<?xml version=\"1.0\"?><!DOCTYPE a [<!ENTITY x SYSTEM \"file:///etc/passwd\">]><EtherCATInfo>&x;</EtherCATInfo>").value()).contains("document type");
        assertThat(refused("<?xml version=\"1.0\"?><!DOCTYPE l [<!ENTITY a \"aa\"><!ENTITY b \"&a;&a;\">]><EtherCATInfo>&b;</EtherCATInfo>").mend()).contains("DOCTYPE");
    }

    @Test
    void aMillionNestedElementsAreRefused() {
        assertThat(refused("<EtherCATInfo>" + "<a>".repeat(1_000_000)).value()).contains("nested");
    }

    @Test
    void aFileOf100MegabytesIsRefused() {
        byte[] file = new byte[100 << 20];
        Arrays.fill(file, (byte) ' ');
        assertThat(refused(file)).satisfies(r -> {
            assertThat(r.value()).isEqualTo("100 MB");
            assertThat(r.allowed()).contains(Text.MOST_BYTES / (1 << 20) + " MB");
        });
        assertThat(refused(new byte[0]).value()).isEqualTo("no bytes");
    }

    @Test
    void wrongEncodingsAreRefused() {
        byte[] broken = shipped("wheelwright-w1.esi.xml").getBytes(StandardCharsets.UTF_8);
        broken[120] = (byte) 0xC3;
        broken[121] = (byte) 0x28;
        assertThat(refused(broken).place()).isNotBlank();
        assertThat(refused("[DeviceInfo]\nProductName=a\u0001b\n").value()).contains("control character 01h");
        assertThat(read(new String(shipped("wheelwright-w1.eds").replace("Wheelwright W1", "Rad Größe").getBytes(StandardCharsets.UTF_8), StandardCharsets.UTF_8)).get(0).name()).isEqualTo("Rad Größe");
        assertThat(Descriptions.read(shipped("wheelwright-w1.eds").replace("Wheelwright W1", "Rad Größe").getBytes(StandardCharsets.ISO_8859_1)).value().get(0).name()).isEqualTo("Rad Größe");
    }

    @ParameterizedTest
    @CsvSource({"wheelwright-w1.esi.xml", "wheelwright-w1.eds", "wheelwright-w1.odva.eds", "GSDML-wheelwright-w1.xml"})
    void truncatedFilesAreRefused(String name) {
        String text = shipped(name);
        int cut = name.endsWith("1.eds") && !name.contains("odva") ? text.indexOf("DataType=", text.length() / 2) + 3 : text.length() / 2;
        assertThat(refused(text.substring(0, cut)).place()).isNotBlank();
    }

    /** file; text replaced; by what; a part of the refusal */
    @ParameterizedTest
    @CsvSource(delimiter = ';', value = {
        "wheelwright-w1.esi.xml;<Id>#x72756564</Id>;<Id>#x1FFFFFFFF</Id>;0 to 4294967295",
        "wheelwright-w1.esi.xml;<BitLen>16</BitLen>;<BitLen>8</BitLen>;UINT has 16 bits",
        "wheelwright-w1.esi.xml;<Name>DT2030</Name>\\n                <BitSize>80</BitSize>;<Name>DT2030</Name>\\n                <BitSize>80</BitSize><SubItem><SubIdx>1</SubIdx><Name>a</Name><Type>UINT</Type><BitSize>16</BitSize></SubItem>;each index and sub-index once",
        "wheelwright-w1.esi.xml;<MaxValue>6</MaxValue>;<MaxValue>1</MaxValue>;0 to 1",
        "wheelwright-w1.esi.xml;<Access>rw</Access>;<Access>maybe</Access>;ro, wo, rw or const",
        "wheelwright-w1.esi.xml;<Index>#x1601</Index>;<Index>#x1600</Index>;each PDO once",
        "wheelwright-w1.eds;[1001];[1000];each section once",
        "wheelwright-w1.eds;DefaultValue=0x60400010;DefaultValue=0x60400020;has 16 bits",
        "wheelwright-w1.eds;VendorNumber=0x72756564;VendorNumber=0x172756564;0 to 4294967295",
        "wheelwright-w1.eds;LowLimit=-2;LowLimit=20;a lowest value not above the highest",
        "wheelwright-w1.eds;3=0x1018;3=0x1019;section of its own",
        "wheelwright-w1.odva.eds;VendCode = 0x7275;VendCode = 0x17275;0 to 65535",
        "wheelwright-w1.odva.eds;16,Param15;32,Param15;correct the width",
        "GSDML-wheelwright-w1.xml;SubmoduleIdentNumber=\"0x00000002\";SubmoduleIdentNumber=\"0x00000001\";each number once",
        "GSDML-wheelwright-w1.xml;DefaultValue=\"2000\";DefaultValue=\"9000\";0 to 5000",
        "GSDML-wheelwright-w1.xml;DeviceID=\"0x0001\";DeviceID=\"one\";a whole number"})
    void contradictionsAreRefusedByName(String name, String find, String replace, String said) {
        String text = shipped(name);
        String find2 = find.replace("\\n", "\n");
        assertThat(text).contains(find2);
        UnreadableFile refused = refused(text.replaceFirst(java.util.regex.Pattern.quote(find2), java.util.regex.Matcher.quoteReplacement(replace.replace("\\n", "\n"))));
        assertThat(refused.allowed() + " " + refused.mend()).contains(said);
        assertThat(refused.place()).isNotBlank();
    }

    @Test
    void otherFilesAreRefused() {
        assertThat(refused("hello").allowed()).contains("GSDML");
        assertThat(refused("<html/>").value()).isEqualTo("<html>");
        assertThatThrownBy(() -> read("<EtherCATInfo><Vendor><Id>1</Id></Vendor><Descriptions><Devices/></Descriptions></EtherCATInfo>")).hasMessageContaining("at least one device");
    }

    /** Whatever is changed in a file, it is read or refused with a place, and never anything else. */
    @Property(tries = 400)
    void changedFilesAreReadOrRefused(@ForAll long seed) {
        Random random = new Random(seed);
        byte[] file = ShippedDevices.file(ShippedDevices.files().get(random.nextInt(4))).clone();
        int kind = random.nextInt(3);
        for (int i = 0; i < 1 + random.nextInt(6); i++) {
            int at = random.nextInt(file.length);
            switch (kind) {
                case 0 -> file[at] = (byte) random.nextInt(256);
                case 1 -> file = Arrays.copyOf(file, 1 + random.nextInt(file.length));
                default -> {
                    int from = random.nextInt(file.length);
                    int length = Math.min(Math.min(file.length - from, file.length - at), 1 + random.nextInt(200));
                    System.arraycopy(file.clone(), from, file, at, length);
                }
            }
        }
        try {
            assertThat(Descriptions.read(file).value()).isNotEmpty();
        } catch (UnreadableFile refused) {
            assertThat(refused.place()).isNotBlank();
        }
    }
}
