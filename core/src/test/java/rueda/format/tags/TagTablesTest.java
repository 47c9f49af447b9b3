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
import rueda.plc.Type;

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
}
