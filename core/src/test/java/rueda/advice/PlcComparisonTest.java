package rueda.advice;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;
import rueda.bus.BusFamily;
import rueda.bus.WireOrder;
import rueda.format.tags.TagDeclarationsReader;
import rueda.machine.Axis;
import rueda.machine.Bus.Family;
import rueda.machine.DemoMachine;
import rueda.machine.Machine;
import rueda.machine.Station.Entry;
import rueda.plc.ProcessAddress.Counts;
import rueda.plc.TagRow;
import rueda.plc.type.Type;

class PlcComparisonTest {

    private static final Machine DEMO = DemoMachine.create();
    private static final Axis SHUTTLE = DEMO.axes().get(0);
    /** As a PLC declares it that aligns 32-bit members to 4 bytes. */
    private static final String COMMANDS = "TYPE Cmd : STRUCT Control : WORD; Position : DINT; Mode : SINT; END_STRUCT; END_TYPE VAR_GLOBAL Shuttle_Cmd AT %QB0 : Cmd; END_VAR";

    private static List<TagRow> declared(String text, int alignment) {
        return TagDeclarationsReader.read(text.getBytes(StandardCharsets.UTF_8), alignment, Counts.BYTES);
    }

    private static PlcComparison.Compared outputs(List<Entry> outputs, List<TagRow> rows) {
        Axis axis = SHUTTLE.withStation(SHUTTLE.station().withEntries(outputs, SHUTTLE.station().inputs()));
        return PlcComparison.of(DEMO.withAxis(0, axis), axis, "/axes/0", true, rows, null);
    }

    private static List<Entry> withoutFiller() {
        List<Entry> entries = new ArrayList<>(SHUTTLE.station().outputs());
        entries.remove(1);
        return entries;
    }

    @Test
    void theSameLayoutAgrees() {
        PlcComparison.Compared compared = outputs(SHUTTLE.station().outputs(), declared(COMMANDS, 4));
        assertThat(compared.lines()).hasSize(3).allMatch(PlcComparison.Line::agrees);
        assertThat(compared.findings()).singleElement().satisfies(f -> assertThat(f.severity()).isEqualTo(Finding.Severity.GOOD));
    }

    /** Common practice, no source: without the filler after a 16-bit word every later value is off by two bytes. */
    @Test
    void theMissingFillerIsFoundWithTheWrongValueItGives() {
        PlcComparison.Compared compared = outputs(withoutFiller(), declared(COMMANDS, 4));
        Finding finding = compared.findings().get(0);
        assertThat(compared.findings()).hasSize(1);
        assertThat(finding.title()).isEqualTo("A 16-bit filler is missing before target position.");
        /* bytes 4 to 7 hold 003E DDC0h; the drive takes bytes 2 to 5: 0000, then DDC0h = DDC0 0000h, −574 619 648 wire units, by hand */
        assertThat(finding.consequence()).contains("412 mm would arrive as \u221257\u202f461.9648 mm");
        assertThat(finding.mend().changes()).singleElement().satisfies(c -> {
            assertThat(c.op()).isEqualTo("add");
            assertThat(c.path()).isEqualTo("/axes/0/station/outputs/1");
        });
        assertThat(compared.lines()).extracting(PlcComparison.Line::remark).containsExactly("", "filler missing", "shifted");
    }

    @Test
    void aPackedPlcLacksTheFiller() {
        PlcComparison.Compared compared = outputs(SHUTTLE.station().outputs(), declared(COMMANDS, 1));
        assertThat(compared.findings()).singleElement().satisfies(f -> {
            assertThat(f.title()).isEqualTo("The PLC lacks a 16-bit filler before target position.");
            assertThat(f.mend().changes().get(0).op()).isEqualTo("remove");
        });
    }

    @Test
    void swappedValuesAreFound() {
        List<TagRow> rows = List.of(new TagRow("Shuttle.Cmd.Control", Type.WORD, true, 0, ""), new TagRow("Shuttle.Cmd.Mode", Type.SINT, true, 16, ""), new TagRow("Shuttle.Cmd.Position", Type.DINT, true, 24, ""));
        PlcComparison.Compared compared = outputs(withoutFiller(), rows);
        assertThat(compared.findings()).anySatisfy(f -> {
            assertThat(f.title()).contains("swapped");
            assertThat(f.mend().changes()).hasSize(2);
        });
    }

    @Test
    void sizeSignAndKindAreFound() {
        List<TagRow> rows = List.of(new TagRow("Shuttle.Cmd.Control", Type.WORD, true, 0, ""), new TagRow("Shuttle.Cmd.Position", Type.INT, true, 32, ""), new TagRow("Shuttle.Cmd.Mode", Type.USINT, true, 64, ""));
        assertThat(outputs(SHUTTLE.station().outputs(), rows).findings()).extracting(Finding::title)
                .anyMatch(t -> t.contains("has 16 bits, target position 32")).anyMatch(t -> t.contains("USINT, mode of operation SINT"));
        List<TagRow> real = List.of(new TagRow("Shuttle.Cmd.Control", Type.WORD, true, 0, ""), new TagRow("Shuttle.Cmd.Position", Type.REAL, true, 32, ""), new TagRow("Shuttle.Cmd.Mode", Type.SINT, true, 64, ""));
        assertThat(outputs(SHUTTLE.station().outputs(), real).findings()).extracting(Finding::title).anyMatch(t -> t.contains("REAL, target position a whole number"));
    }

    @Test
    void registersInTheOtherOrderAreFound() {
        Machine modbus = BusFamily.moved(DEMO, Family.MODBUS_TCP);
        Axis axis = modbus.axes().get(0);
        List<TagRow> rows = List.of(new TagRow("Shuttle.Fb.Status", Type.WORD, false, 0, ""), new TagRow("Shuttle.Fb.Position", Type.DINT, false, 16, ""));
        PlcComparison.Compared compared = PlcComparison.of(modbus, axis, "/axes/0", false, rows, WireOrder.LOW_WORD_FIRST);
        assertThat(compared.findings()).anySatisfy(f -> {
            assertThat(f.title()).isEqualTo("The order of the bytes differs.");
            assertThat(f.mend().changes()).singleElement().satisfies(c -> assertThat(c.path()).isEqualTo("/bus/lowWordFirst"));
        });
    }

    @Test
    void whatOneSideLacksIsSaid() {
        List<TagRow> rows = List.of(new TagRow("Shuttle.Cmd.Control", Type.WORD, true, 0, ""), new TagRow("Shuttle.Cmd.Pad", Type.WORD, true, 16, ""), new TagRow("Shuttle.Cmd.Position", Type.DINT, true, 32, ""),
                new TagRow("Shuttle.Cmd.Mode", Type.SINT, true, 64, ""), new TagRow("Shuttle.Cmd.Jerk", Type.UDINT, true, 72, ""));
        assertThat(outputs(SHUTTLE.station().outputs(), rows).findings()).extracting(Finding::title).containsExactly("Shuttle.Cmd.Jerk is not in the drive's layout.");
        assertThat(outputs(SHUTTLE.station().outputs(), rows.subList(0, 3)).findings()).extracting(Finding::title).containsExactly("Mode of operation is not in the PLC's table.");
    }

    /** Whatever our own export says of a station, held against that station, raises no alarm: on every bus, in both directions. */
    @org.junit.jupiter.params.ParameterizedTest
    @org.junit.jupiter.params.provider.EnumSource(Family.class)
    void ourOwnExportAgrees(Family family) {
        Machine machine = BusFamily.moved(DEMO, family);
        for (int i = 0; i < machine.axes().size(); i++) {
            Axis axis = machine.axes().get(i);
            for (boolean output : new boolean[] {true, false}) {
                List<Entry> entries = output ? axis.station().outputs() : axis.station().inputs();
                rueda.bus.ProcessDataLayout layout = BusFamily.layout(machine.bus(), entries);
                int[] offsets = java.util.stream.IntStream.range(0, entries.size()).map(layout::bitOffset).toArray();
                PlcComparison.Compared compared = PlcComparison.of(machine, axis, "/axes/" + i, output, rueda.plc.BoundTags.of(layout.entries(), offsets, output, 64), null);
                assertThat(compared.findings()).as(family + " " + axis.name() + " " + output + compared.lines()).allSatisfy(f -> assertThat(f.severity()).isNotEqualTo(Finding.Severity.FAULT));
            }
        }
    }

    @Test
    void sixteenBoolsAreAWord() {
        List<TagRow> rows = new ArrayList<>();
        for (int i = 0; i < 16; i++) {
            rows.add(new TagRow("Shuttle.Cmd.Control.b" + i, Type.BOOL, true, i, ""));
        }
        rows.add(new TagRow("Shuttle.Cmd.Position", Type.DINT, true, 32, ""));
        rows.add(new TagRow("Shuttle.Cmd.Mode", Type.SINT, true, 64, ""));
        assertThat(outputs(SHUTTLE.station().outputs(), rows).findings()).singleElement().satisfies(f -> assertThat(f.severity()).isEqualTo(Finding.Severity.GOOD));
    }

    /** Rows of other names at the right places are the right rows. */
    @Test
    void rowsOfOtherNamesAreMatchedByTheirPlace() {
        List<TagRow> rows = List.of(new TagRow("Antrieb.Steuerwort", Type.WORD, true, 640, ""), new TagRow("Antrieb.Art", Type.SINT, true, 704, ""), new TagRow("Antrieb.Soll", Type.DINT, true, 672, ""));
        PlcComparison.Compared compared = outputs(SHUTTLE.station().outputs(), rows);
        assertThat(compared.lines()).extracting(PlcComparison.Line::row).containsExactly("Antrieb.Steuerwort", "Antrieb.Soll", "Antrieb.Art");
        assertThat(compared.lines()).allMatch(PlcComparison.Line::agrees);
    }

    /** A REAL travels as its pattern: 412.0 is 43CE0000h (IEC 60559), 113 757 388.8 mm at four decimals, by hand. */
    @Test
    void aRealArrivesAsItsPattern() {
        List<TagRow> rows = List.of(new TagRow("Shuttle.Cmd.Control", Type.WORD, true, 0, ""), new TagRow("Shuttle.Cmd.Position", Type.REAL, true, 32, ""), new TagRow("Shuttle.Cmd.Mode", Type.SINT, true, 64, ""));
        PlcComparison.Compared compared = outputs(SHUTTLE.station().outputs(), rows);
        assertThat(compared.lines().get(1).arrives()).isEqualTo("113\u202f757.389 mm".replace("113\u202f757.389", Numbers.significant(0x43CE0000 / 1e4, 9)));
    }

    /** Every mend that is offered leaves fewer faults than there were, whatever order the PLC has its fields in. */
    @Test
    void everyMendMends() {
        java.util.Random random = new java.util.Random(5);
        List<TagRow> fields = List.of(new TagRow("Shuttle.Cmd.Control", Type.WORD, true, -1, ""), new TagRow("Shuttle.Cmd.Position", Type.DINT, true, -1, ""), new TagRow("Shuttle.Cmd.Mode", Type.SINT, true, -1, ""));
        int offered = 0;
        for (int k = 0; k < 200; k++) {
            List<TagRow> rows = new ArrayList<>(fields);
            java.util.Collections.shuffle(rows, random);
            int at = 0;
            List<TagRow> placed = new ArrayList<>();
            for (TagRow row : rows) {
                at += 8 * random.nextInt(3);
                placed.add(new TagRow(row.name(), row.type(), true, at, ""));
                at += row.bits();
            }
            List<Entry> entries = random.nextBoolean() ? withoutFiller() : SHUTTLE.station().outputs();
            PlcComparison.Compared compared = outputs(entries, placed);
            long before = compared.findings().stream().filter(f -> f.severity() != Finding.Severity.GOOD).count();
            for (Finding finding : compared.findings()) {
                if (finding.mend() == null) {
                    continue;
                }
                offered++;
                List<Entry> mended = new ArrayList<>(entries);
                for (Finding.Change change : finding.mend().changes()) {
                    String last = change.path().substring(change.path().lastIndexOf('/') + 1);
                    switch (change.op()) {
                        case "remove" -> mended.remove(Integer.parseInt(last));
                        case "add" -> mended.add(Integer.parseInt(last), (Entry) change.value());
                        default -> {
                            mended.clear();
                            ((List<?>) change.value()).forEach(e -> mended.add((Entry) e));
                        }
                    }
                }
                long after = outputs(mended, placed).findings().stream().filter(f -> f.severity() != Finding.Severity.GOOD).count();
                assertThat(after).as(finding.title() + " " + placed).isLessThan(before);
            }
        }
        assertThat(offered).isGreaterThan(50);
    }

    /** A table that stands as a whole elsewhere than the network puts the station: nothing else is said of its rows. */
    @Test
    void aTableThatLiesElsewhereAsAWholeIsFound() {
        for (int by : new int[] {1, 2, 64}) {
            PlcComparison.Compared compared = outputs(SHUTTLE.station().outputs(), declared(COMMANDS.replace("%QB0", "%QB" + by), 4));
            assertThat(compared.lines()).as("%d bytes", by).allMatch(PlcComparison.Line::agrees);
            assertThat(compared.findings()).hasSize(2).first().satisfies(f -> assertThat(f.consequence()).startsWith("Within the station"));
            assertThat(compared.findings().get(1)).satisfies(f -> {
                assertThat(f.severity()).isEqualTo(Finding.Severity.WARNING);
                assertThat(f.title()).contains(by + (by == 1 ? " byte behind" : " bytes behind"));
                assertThat(f.consequence()).contains("%QB" + by, "%QB0");
            });
        }
    }

    /** A missing head is a missing row, not a shift of all others. */
    @Test
    void aMissingHeadMovesNothing() {
        List<TagRow> rows = declared(COMMANDS, 4);
        PlcComparison.Compared compared = outputs(SHUTTLE.station().outputs(), rows.subList(1, rows.size()));
        assertThat(compared.findings()).singleElement().satisfies(f -> assertThat(f.title()).isEqualTo("Controlword is not in the PLC's table."));
        assertThat(compared.lines().subList(1, 3)).allMatch(PlcComparison.Line::agrees);
    }

    @Test
    void aDirectionThatIsNotInTheTableIsFound() {
        PlcComparison.Compared compared = PlcComparison.missing(DEMO, SHUTTLE, "/axes/0", false);
        assertThat(compared.lines()).hasSize((int) SHUTTLE.station().inputs().stream().filter(e -> !e.fillsGap()).count()).noneMatch(PlcComparison.Line::agrees);
        assertThat(compared.findings()).singleElement().satisfies(f -> assertThat(f.title()).contains("from the drive"));
    }
}
