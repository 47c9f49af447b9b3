package rueda.format.tags;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Random;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.IntRange;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import rueda.bus.ProcessDataLayout;
import rueda.format.UnreadableFile;
import rueda.machine.DemoMachine;
import rueda.machine.Station;
import rueda.machine.Station.Entry;
import rueda.plc.BoundTags;
import rueda.plc.ProcessAddress;
import rueda.plc.ProcessAddress.Counts;
import rueda.plc.TagRow;
import rueda.plc.type.Type;

class TagTablesTest {

    private static byte[] bytes(String text) {
        return text.getBytes(StandardCharsets.UTF_8);
    }

    private static List<TagRow> structured(String text, int alignment) {
        return TagDeclarationsReader.read(bytes(text), alignment, Counts.BYTES);
    }

    private static List<TagRow> demo() {
        Station station = DemoMachine.shuttle().station();
        List<TagRow> rows = new java.util.ArrayList<>(rows(station.outputs(), true));
        rows.addAll(rows(station.inputs(), false));
        return rows;
    }

    private static List<TagRow> rows(List<Entry> entries, boolean output) {
        ProcessDataLayout layout = new ProcessDataLayout(entries);
        int[] offsets = java.util.stream.IntStream.range(0, entries.size()).map(layout::bitOffset).toArray();
        return BoundTags.of(entries, offsets, output, 64);
    }

    /** IEC 61131-3, table 11 (structures, arrays) and 6.5.5 (addresses); alignment is the maker's. */
    /** In words of the trade and with its line, whatever the library that reads it calls it. */
    @Test
    void aQuotationMarkOutOfPlaceIsToldInItsLine() {
        byte[] csv = "Name;Type;Address\na;INT;%QW0\n\"b\"c;INT;%QW2\n".getBytes(StandardCharsets.UTF_8);
        assertThatThrownBy(() -> TagCsv.preview(csv)).isInstanceOfSatisfying(UnreadableFile.class, refused -> {
            assertThat(refused.place()).isEqualTo("line 3");
            assertThat(refused.value()).isEqualTo("a quotation mark out of place");
        });
    }

    @Test
    void structuresArraysAndAddresses() {
        String text = """
                (* the Shuttle *)
                TYPE
                  Axis_In : STRUCT
                    Status : WORD;           // statusword
                    Position, Speed : DINT;
                    Probe : ARRAY [1..2] OF INT;
                  END_STRUCT;
                END_TYPE
                VAR_GLOBAL RETAIN
                  Shuttle AT %IB96 : Axis_In;
                  Count : UDINT := 16#FF;
                END_VAR
                """;
        List<TagRow> aligned = structured(text, 4);
        assertThat(aligned).extracting(TagRow::name).containsExactly("Shuttle.Status", "Shuttle.Position", "Shuttle.Speed", "Shuttle.Probe_1", "Shuttle.Probe_2", "Count");
        assertThat(aligned).extracting(r -> r.bitOffset() / 8).startsWith(96, 100, 104, 108, 110);
        assertThat(structured(text, 1)).extracting(r -> r.bitOffset() / 8).startsWith(96, 98, 102, 106, 108);
        assertThat(aligned.get(0).output()).isFalse();
        assertThat(aligned.get(5).output()).isNull();
    }

    /** What the number of a word address counts is the maker's choice: %QW4 is byte 4 or byte 8. */
    @Test
    void addressesCountBytesOrElements() {
        assertThat(ProcessAddress.of("%QW4", Counts.BYTES).orElseThrow()).isEqualTo(new ProcessAddress(true, 32));
        assertThat(ProcessAddress.of("%QW4", Counts.ELEMENTS).orElseThrow()).isEqualTo(new ProcessAddress(true, 64));
        assertThat(ProcessAddress.of("%IX2.3", Counts.BYTES).orElseThrow()).isEqualTo(new ProcessAddress(false, 19));
        assertThat(ProcessAddress.of("%MW4", Counts.BYTES)).isEmpty();
    }

    @Test
    void whatIsWrittenIsReadBackEqual() {
        List<TagRow> rows = demo();
        byte[] csv = bytes(TagCsv.write(rows));
        assertThat(TagCsv.read(csv, TagCsv.preview(csv).suggested(), Counts.BYTES)).isEqualTo(rows);
        assertThat(PlcOpenXml.read(bytes(PlcOpenXml.write("Cell", "2026-11-23T12:00:00", rows)), 1, Counts.BYTES)).isEqualTo(rows);
        List<TagRow> declared = structured(TagDeclarationsWriter.write(rows), 1).stream().filter(r -> !r.fillsGap()).toList();
        assertThat(declared).isEqualTo(rows);
    }

    /**
     * Names that are words of the language or of a type, one name with dots and one with underscores, names in the way of fillers and types,
     * both directions under one name, bits between, names as long as they may be: whatever can be bound is read back from each format.
     */
    @Property(tries = 500)
    void whateverCanBeBoundIsReadBack(@ForAll long seed) {
        Random random = new Random(seed);
        String[] parts = {"Shuttle", "Shuttle_T", "shuttle", "END_IF", "Type", "INT", "Filler1", "Filler2", "Persistent", "a__b", "c_", "_d", "X".repeat(60), "Position", "Struct", "At"};
        List<TagRow> rows = new java.util.ArrayList<>();
        java.util.Set<String> names = new java.util.HashSet<>();
        int[] next = {8 * random.nextInt(100), 8 * random.nextInt(100)};
        Type[] types = {Type.BOOL, Type.SINT, Type.UINT, Type.DINT, Type.REAL, Type.LWORD};
        for (int i = 0; i < 1 + random.nextInt(12); i++) {
            String name = parts[random.nextInt(parts.length)];
            for (int depth = random.nextInt(3); depth > 0; depth--) {
                name += "." + parts[random.nextInt(parts.length)];
            }
            boolean output = random.nextInt(4) > 0;
            int direction = output ? 0 : 1;
            Type type = types[random.nextInt(types.length)];
            if (type.bits() > 1) {
                next[direction] = (next[direction] + 7) / 8 * 8 + 8 * random.nextInt(4);
            }
            if (names.add(name.toLowerCase(java.util.Locale.ROOT))) {
                rows.add(new TagRow(name, type, output, next[direction], random.nextBoolean() ? "" : "mm *) (* per s"));
                next[direction] += type.bits();
            }
        }
        byte[] csv = bytes(TagCsv.write(rows));
        assertThat(TagCsv.read(csv, TagCsv.preview(csv).suggested(), Counts.BYTES)).isEqualTo(rows);
        assertThat(PlcOpenXml.read(bytes(PlcOpenXml.write("Cell", "2026-11-23T12:00:00", rows)), 1, Counts.BYTES)).isEqualTo(rows);
        String text = TagDeclarationsWriter.write(rows);
        List<TagRow> declared = structured(text, 1).stream().map(r -> new TagRow(r.name(), r.type(), r.output(), r.bitOffset(), r.comment().replace("* )", "*)"))).toList();
        /* fillers that the writer put between are rows too */
        assertThat(declared).as(text).containsAll(rows);
        assertThat(declared).as(text).filteredOn(r -> names.contains(r.name().toLowerCase(java.util.Locale.ROOT))).hasSameSizeAs(rows);
    }

    /** %QW1 names whole bytes: a word that begins within one has no address, and none is invented. */
    @Test
    void aValueAcrossTheBitsOfBytesHasNoAddress() {
        TagRow row = new TagRow("Split", Type.WORD, true, 11, "");
        assertThat(TagCsv.write(List.of(row))).contains("Split,WORD,,").doesNotContain("%");
        assertThat(TagDeclarationsWriter.write(List.of(row))).contains("Split : WORD;");
        assertThat(PlcOpenXml.write("Cell", "2026-11-23T12:00:00", List.of(row))).doesNotContain("AddressExpression");
    }

    /** Inputs and outputs of one name begin at places of their own: no structure has both. */
    @Test
    void noStructureHasBothDirections() {
        List<TagRow> rows = List.of(new TagRow("Axis.Control", Type.WORD, true, 0, ""), new TagRow("Axis.Target", Type.DINT, true, 16, ""), new TagRow("Axis.Status", Type.WORD, false, 0, ""));
        assertThat(TagDeclarationsWriter.write(rows)).doesNotContain("STRUCT").contains("Axis_Control AT %QW0", "Axis_Status AT %IW0");
        assertThat(TagDeclarationsWriter.write(rows.subList(0, 2))).contains("STRUCT", "Axis AT %QB0 : Axis_T;");
    }

    /** IEC 61131-3, table 11: enumerations, with values and with a type, and subranges; national letters are the third edition's. */
    @Test
    void enumerationsSubrangesAndNationalLetters() {
        String text = """
                TYPE
                  Zustand : (Aus, Ein := 5);
                  Modus : USINT (Hand := 1, Auto := 2) := Hand;
                  Schritt : (Eins, Zwei) UDINT;
                  Anteil : INT (-100..100) := 0;
                  Gerät : STRUCT z : Zustand; m : Modus; s : Schritt; Größe : Anteil; n : SINT (0..3); END_STRUCT;
                END_TYPE
                VAR_GLOBAL G AT %IB0 : Gerät; END_VAR
                """;
        assertThat(structured(text, 1)).extracting(TagRow::name).containsExactly("G.z", "G.m", "G.s", "G.Größe", "G.n");
        assertThat(structured(text, 1)).extracting(TagRow::type).containsExactly(Type.INT, Type.USINT, Type.UDINT, Type.INT, Type.SINT);
    }

    /** Element names of IEC 61131-10 and TC6 from memory. */
    @Test
    void enumerationsSubrangesAndMatricesOfXml() {
        String text = """
                <project><types><dataTypes><dataType name="Mode"><baseType><enum><values><value name="Off"/></values></enum></baseType></dataType>
                <dataType name="Share"><baseType><subrangeSigned><range lower="-5" upper="5"/><baseType><SINT/></baseType></subrangeSigned></baseType></dataType></dataTypes></types>
                <instances><globalVars><variable name="m" address="%QW0"><type><derived name="Mode"/></type></variable><variable name="s"><type><derived name="Share"/></type></variable>
                <variable name="f"><type><array><dimension lower="0" upper="1"/><dimension lower="1" upper="2"/><baseType><WORD/></baseType></array></type></variable></globalVars></instances></project>
                """;
        assertThat(PlcOpenXml.read(bytes(text), 1, Counts.BYTES)).extracting(TagRow::name).containsExactly("m", "s", "f_0_1", "f_0_2", "f_1_1", "f_1_2");
        assertThat(PlcOpenXml.read(bytes(text), 1, Counts.BYTES)).extracting(TagRow::type).startsWith(Type.INT, Type.SINT, Type.WORD);
    }

    /** The older scheme of PLCopen (TC6), element names from memory. */
    @Test
    void theOlderSchemeIsReadToo() {
        String text = """
                <project xmlns="http://www.plcopen.org/xml/tc6_0201"><types><dataTypes><dataType name="Fb"><baseType><struct>
                <variable name="Status"><type><WORD/></type></variable><variable name="Position"><type><DINT/></type></variable></struct></baseType></dataType></dataTypes></types>
                <instances><configurations><configuration name="c"><globalVars><variable name="Shuttle" address="%IB4"><type><derived name="Fb"/></type></variable></globalVars></configuration></configurations></instances></project>
                """;
        assertThat(PlcOpenXml.read(bytes(text), 4, Counts.BYTES)).containsExactly(new TagRow("Shuttle.Status", Type.WORD, false, 32, ""), new TagRow("Shuttle.Position", Type.DINT, false, 64, ""));
    }

    @Test
    void columnsAreChosen() {
        byte[] csv = bytes("Path;Symbol;Data type;Byte;Area\nPLC;Control;WORD;64;OUT\nPLC;Position;dint;68;OUT\nPLC;\"Sta;tus\";WORD;96.0;IN\n");
        TagCsv.Preview preview = TagCsv.preview(csv);
        assertThat(preview.headings()).containsExactly("Path", "Symbol", "Data type", "Byte", "Area");
        assertThat(preview.suggested()).isEqualTo(new TagCsv.Columns(1, 2, 3, 4, -1));
        assertThat(TagCsv.read(csv, preview.suggested(), Counts.BYTES)).containsExactly(new TagRow("Control", Type.WORD, true, 512, ""), new TagRow("Position", Type.DINT, true, 544, ""), new TagRow("Sta;tus", Type.WORD, false, 768, ""));
    }

    @ParameterizedTest
    @ValueSource(strings = {"", "VAR_GLOBAL a : INT", "VAR_GLOBAL a INT; END_VAR", "VAR_GLOBAL a : ; END_VAR", "VAR_GLOBAL a : Unknown; END_VAR", "VAR_GLOBAL a, A : INT; END_VAR", "TYPE T : STRUCT t : T; END_STRUCT; END_TYPE",
        "VAR_GLOBAL a : ARRAY[1..99999] OF INT; END_VAR", "VAR_GLOBAL a : ARRAY[5..1] OF INT; END_VAR", "VAR_GLOBAL s : STRING; END_VAR", "TYPE T : INT; T : DINT; END_TYPE", "PROGRAM P END_PROGRAM"})
    void declarationsThatCannotBeReadAreRefusedByPlace(String text) {
        assertThatThrownBy(() -> structured(text, 1)).isInstanceOfSatisfying(UnreadableFile.class, refused -> {
            assertThat(refused.place()).isNotBlank();
            assertThat(refused.allowed()).isNotBlank();
        });
    }

    @ParameterizedTest
    @ValueSource(strings = {"Name,Type", "Name,Type\na,FLOAT", "Name,Type\na,INT\na,INT", "Name,Type,Address\na,INT,%MW5", "Kind,Of\na,b", "Name,Type\n\"a,INT"})
    void tablesThatCannotBeReadAreRefusedByPlace(String text) {
        assertThatThrownBy(() -> TagCsv.read(bytes(text), TagCsv.preview(bytes(text)).suggested(), Counts.BYTES)).isInstanceOf(UnreadableFile.class);
    }

    /** Whatever is changed in a file, it is read or refused with a place, and never anything else. */
    @Property(tries = 300)
    void changedFilesAreReadOrRefused(@ForAll long seed, @ForAll @IntRange(min = 0, max = 2) int format) {
        Random random = new Random(seed);
        byte[] file = bytes(switch (format) {
            case 0 -> TagCsv.write(demo());
            case 1 -> PlcOpenXml.write("Cell", "2026-11-23T12:00:00", demo());
            default -> TagDeclarationsWriter.write(demo());
        });
        for (int i = 0; i < 1 + random.nextInt(5); i++) {
            file[random.nextInt(file.length)] = (byte) random.nextInt(256);
        }
        if (random.nextInt(4) == 0) {
            file = java.util.Arrays.copyOf(file, random.nextInt(file.length));
        }
        byte[] changed = file;
        try {
            switch (format) {
                case 0 -> TagCsv.read(changed, TagCsv.preview(changed).suggested(), Counts.BYTES);
                case 1 -> PlcOpenXml.read(changed, 4, Counts.BYTES);
                default -> TagDeclarationsReader.read(changed, 4, Counts.BYTES);
            }
        } catch (UnreadableFile refused) {
            assertThat(refused.place()).isNotBlank();
        }
    }

    /** An address that is none of an input or output is refused at its place, in XML and Structured Text as in CSV; one the PLC chooses later has a direction. */
    @org.junit.jupiter.api.Test
    void addressesThatAreNoneAreRefused() {
        for (String address : new String[] {"%MD4", "garbage", "%QD99999999", "%Q", "%QW-1"}) {
            String xml = "<project xmlns=\"http://www.plcopen.org/xml/tc6_0201\"><instances><configurations><configuration name=\"c\"><resource name=\"r\"><globalVars><variable name=\"Axis\" address=\"" + address
                    + "\"><type><DINT/></type></variable></globalVars></resource></configuration></configurations></instances></project>";
            org.assertj.core.api.Assertions.assertThatThrownBy(() -> PlcOpenXml.read(xml.getBytes(java.nio.charset.StandardCharsets.UTF_8), 1, rueda.plc.ProcessAddress.Counts.BYTES)).as(address)
                    .isInstanceOf(rueda.format.UnreadableFile.class).hasMessageContaining(address);
        }
        org.assertj.core.api.Assertions.assertThatThrownBy(() -> TagDeclarationsReader.read("VAR_GLOBAL a AT %MW4 : INT; END_VAR".getBytes(java.nio.charset.StandardCharsets.UTF_8), 1, rueda.plc.ProcessAddress.Counts.BYTES))
                .isInstanceOf(rueda.format.UnreadableFile.class);
    }
}
