package rueda.format.description;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.catchThrowableOfType;

import java.nio.charset.StandardCharsets;
import java.util.List;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import rueda.bus.description.DeviceDescription;
import rueda.format.Reading;
import rueda.format.UnreadableFile;

/** Values that no description may have: each is refused with what is allowed, or told; none is taken without a word. */
class OddValuesTest {

    private static String shipped(String name) {
        return new String(ShippedDevices.file(name), StandardCharsets.UTF_8);
    }

    private static String esi(String find, String put) {
        String file = """
                <?xml version="1.0"?>
                <EtherCATInfo><Vendor><Id>#x100</Id><Name>Other</Name></Vendor><Descriptions><Devices><Device Physics="YY"><Type ProductCode="#x1" RevisionNo="#x1">T</Type><Name>Turner</Name>
                <Profile><Dictionary><DataTypes>
                <DataType><Name>DT2000</Name><BitSize>48</BitSize><SubItem><SubIdx>0</SubIdx><Name>Number</Name><Type>USINT</Type><BitSize>8</BitSize><BitOffs>0</BitOffs></SubItem>
                <SubItem><SubIdx>1</SubIdx><Name>Low</Name><Type>UINT</Type><BitSize>16</BitSize><BitOffs>16</BitOffs></SubItem></DataType>
                <DataType><Name>DTARR</Name><BaseType>UINT</BaseType><BitSize>32</BitSize><ArrayInfo><LBound>1</LBound><Elements>2</Elements></ArrayInfo></DataType>
                <DataType><Name>DT2001</Name><BitSize>64</BitSize><SubItem><SubIdx>0</SubIdx><Name>Number</Name><Type>USINT</Type><BitSize>8</BitSize><BitOffs>0</BitOffs></SubItem>
                <SubItem><Name>Speeds</Name><Type>DTARR</Type><BitSize>32</BitSize><BitOffs>16</BitOffs></SubItem></DataType>
                </DataTypes><Objects>
                <Object><Index>#x2000</Index><Name>Set</Name><Type>DT2000</Type><BitSize>48</BitSize></Object>
                <Object><Index>#x2001</Index><Name>List</Name><Type>DT2001</Type><BitSize>64</BitSize></Object>
                <Object><Index>#x2002</Index><Name>Wide</Name><Type>ULINT</Type><BitSize>64</BitSize><Info><DefaultValue>5</DefaultValue></Info></Object>
                <Object><Index>#x2003</Index><Name>Gain</Name><Type>REAL</Type><BitSize>32</BitSize><Info><DefaultValue>1.5</DefaultValue></Info></Object>
                <Object><Index>#x2004</Index><Name>Own</Name><Type>OWN</Type><BitSize>32</BitSize><Flags><Access>rw</Access><PdoMapping>T</PdoMapping></Flags></Object>
                </Objects></Dictionary></Profile>
                <RxPdo Sm="2" Fixed="0" Mandatory="0"><Index>#x1600</Index><Name>Out</Name><Entry Fixed="0"><Index>#x2004</Index><SubIndex>0</SubIndex><BitLen>32</BitLen><Name>Own</Name><DataType>UDINT</DataType></Entry></RxPdo>
                </Device></Devices></Descriptions></EtherCATInfo>""";
        assertThat(file).contains(find);
        return file.replace(find, put);
    }

    private static String eds(String find, String put) {
        String file = shipped("wheelwright-w1.eds");
        String ends = file.contains("\r\n") ? "\r\n" : "\n";
        String own = "[2F00]" + ends + "ParameterName=Own" + ends + "SubNumber=2" + ends + "ObjectType=0x8" + ends + "[2F00sub0]" + ends + "ParameterName=Count" + ends + "DataType=0x0005" + ends + "AccessType=ro" + ends + "DefaultValue=1" + ends
                + "[2F00sub1]" + ends + "ParameterName=Gain" + ends + "DataType=0x0008" + ends + "AccessType=rw" + ends + "DefaultValue=1.5" + ends + "PDOMapping=0" + ends;
        assertThat(own).contains(find);
        return file + ends + own.replace(find, put);
    }

    private static Reading<List<DeviceDescription>> read(String file) {
        return Descriptions.read(file.getBytes(StandardCharsets.UTF_8));
    }

    @ParameterizedTest
    @CsvSource(delimiter = '|', quoteCharacter = '`', value = {
            "<Type>ULINT</Type><BitSize>64          | <Type>ULINT</Type><BitSize>128      | 64 bits",
            "<Type>REAL</Type><BitSize>32           | <Type>REAL</Type><BitSize>64        | 32 bits",
            "<Type>ULINT</Type><BitSize>64          | <Type>ULINT</Type><BitSize>64.5     | whole number",
            "<DefaultValue>5                        | <DefaultValue>36893488147419103232  | 18446744073709551615",
            "<DefaultValue>5                        | <DefaultValue>5.5                   | whole number",
            "<DefaultValue>1.5                      | <DefaultValue>1e400                 | REAL can hold",
            "<DefaultValue>1.5                      | <DefaultValue>1e39                  | REAL can hold",
            "<DefaultValue>1.5                      | <DefaultValue>NaN                   | a number",
            "<DefaultValue>1.5                      | <DefaultValue>one                   | a number",
            "<SubIdx>1                              | <SubIdx>65536                       | 0 to 255",
            "<SubIdx>1                              | <SubIdx>-1                          | 0 to 255",
            "<Elements>2                            | <Elements>65536                     | 1 to 255",
            "<LBound>1                              | <LBound>255                         | 0 to 255",
            "<SubIndex>0                            | <SubIndex>65536                     | 0 to 255",
            "<BitLen>32                             | <BitLen>0                           | 1 to 2048",
            "<Index>#x1600                          | <Index>#x11600                      | 5632 to 7167"})
    void ofAnEsiIsRefused(String find, String put, String allowed) {
        assertThat(read(esi(find, find)).value()).hasSize(1);
        UnreadableFile refused = catchThrowableOfType(UnreadableFile.class, () -> read(esi(find, put)));
        assertThat(refused).as(put).isNotNull();
        assertThat(refused.allowed()).contains(allowed);
        assertThat(refused.place()).contains("line");
    }

    @ParameterizedTest
    @CsvSource(delimiter = '|', value = {
            "<RxPdo Sm=\"2\" Fixed=\"0\"  | <RxPdo Sm=\"2\" Fixed=\"banana\"  | banana",
            "<RxPdo Sm=\"2\" Fixed=\"0\" Mandatory=\"0\" | <RxPdo Sm=\"2\" Fixed=\"0\" Mandatory=\"7\"  | Mandatory is “7”",
            "<PdoMapping>T              | <PdoMapping>banana               | PdoMapping is “banana”",
            "<Type>OWN</Type><BitSize>32 | <Type>OWN</Type><BitSize>4096   | OWN with 4096 bits",
            "<Access>rw                 | <Access>banana                   | banana"})
    void ofAnEsiIsTold(String find, String put, String told) {
        String file = esi(find.strip(), put.strip());
        UnreadableFile refused = catchThrowableOfType(UnreadableFile.class, () -> assertThat(read(file).remarks()).anyMatch(r -> r.contains(told)));
        if (refused != null) {
            assertThat(refused.value()).contains(told);
        }
    }

    @ParameterizedTest
    @CsvSource(delimiter = '|', value = {
            "SubNumber=2     | SubNumber=65536   | 255",
            "ObjectType=0x8  | ObjectType=77     | 0 to 9",
            "DataType=0x0008 | DataType=0x10008  | 65535",
            "DefaultValue=1.5 | DefaultValue=1e400 | REAL can hold",
            "DefaultValue=1.5 | DefaultValue=Infinity | a number",
            "PDOMapping=0    | PDOMapping=7      | 0 to 1",
            "DefaultValue=1; | DefaultValue=65536; | 255"})
    void ofAnEdsIsRefused(String find, String put, String allowed) {
        String ends = shipped("wheelwright-w1.eds").contains("\r\n") ? "\r\n" : "\n";
        String from = find.strip().replace(";", ends);
        String to = put.strip().replace(";", ends);
        UnreadableFile refused = catchThrowableOfType(UnreadableFile.class, () -> read(eds(from, to)));
        assertThat(refused).as(put).isNotNull();
        assertThat(refused.allowed()).contains(allowed.strip());
    }
}
