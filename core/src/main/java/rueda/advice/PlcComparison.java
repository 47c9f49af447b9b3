package rueda.advice;

import static rueda.advice.Numbers.significant;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import rueda.bus.BusFamily;
import rueda.bus.ProcessDataLayout;
import rueda.bus.StationPlace;
import rueda.bus.WireOrder;
import rueda.drive.CyclicItem;
import rueda.machine.Axis;
import rueda.machine.Machine;
import rueda.machine.Station.Entry;
import rueda.plc.ProcessAddress;
import rueda.plc.TagRow;
import rueda.plc.type.Type;

/**
 * The process data of a station against the PLC's own table of them, place by place. A sample is packed by one side and unpacked by
 * the other, byte for byte: what comes out wrong is what the machine would do.
 */
public final class PlcComparison {

    private final Axis axis;
    private final boolean output;
    private final ProcessDataLayout layout;
    private final WireOrder plcOrder;
    private final List<TagRow> rows;
    private final BusFamily family;
    private final String pointer;
    /** row of each entry, −1 for none */
    private final int[] rowOf;
    private final int base;
    /** where the network puts the station in the image of this direction, bytes; −1 when the table tells no addresses */
    private final int planned;
    private final List<Finding> findings = new ArrayList<>();
    private final List<Line> lines = new ArrayList<>();

    /**
     * One line of the comparison.
     *
     * @param entry     number of the entry, −1 when only the PLC has it
     * @param title     name of the entry, empty when only the PLC has it
     * @param place     bytes on the drive's side
     * @param type      on the drive's side
     * @param row       tag in the PLC's table, empty when only the drive has it
     * @param plcPlace  bytes on the PLC's side
     * @param plcType   on the PLC's side
     * @param sent      the sample
     * @param arrives   what the other side makes of it
     * @param agrees    both are the same
     * @param remark    what is different, empty when nothing is
     */
    public record Line(int entry, String title, String place, String type, String row, String plcPlace, String plcType, String sent, String arrives, boolean agrees, String remark) {
    }

    /** @param lines in the order of the bytes  @param findings faults of this direction, each with its mend where the drive's side has one */
    public record Compared(boolean output, List<Line> lines, List<Finding> findings) {
    }

    private PlcComparison(Machine machine, Axis axis, String pointer, boolean output, List<TagRow> rows, WireOrder plcOrder, int planned) {
        this.axis = axis;
        this.output = output;
        this.rows = rows;
        this.pointer = pointer + "/station/" + (output ? "outputs" : "inputs");
        family = BusFamily.of(machine.bus());
        layout = BusFamily.layout(machine.bus(), output ? axis.station().outputs() : axis.station().inputs());
        this.planned = planned;
        base = base();
        this.plcOrder = plcOrder == null ? layout.order() : plcOrder;
        rowOf = matched();
    }

    /**
     * Compares one direction.
     *
     * @param rows     the PLC's table of this station and direction, places told
     * @param plcOrder how the PLC reads bytes; null: as this bus has them
     */
    public static Compared of(Machine machine, Axis axis, String pointer, boolean output, List<TagRow> rows, WireOrder plcOrder) {
        boolean addressed = !rows.isEmpty() && rows.stream().allMatch(r -> r.output() != null && r.bitOffset() >= 0);
        int number = machine.axes().indexOf(axis);
        StationPlace place = addressed && number >= 0 ? StationPlace.of(machine).get(number) : null;
        PlcComparison comparison = new PlcComparison(machine, axis, pointer, output, placed(rows), plcOrder, place == null ? -1 : output ? place.outputs() : place.inputs());
        comparison.compare();
        return new Compared(output, List.copyOf(comparison.lines), comparison.findings.stream().map(f -> comparison.mended(machine, rows, f)).toList());
    }

    /** A direction of which the table has nothing. */
    public static Compared missing(Machine machine, Axis axis, String pointer, boolean output) {
        PlcComparison comparison = new PlcComparison(machine, axis, pointer, output, List.of(), null, -1);
        comparison.lines();
        comparison.findings.clear();
        comparison.add(Finding.Severity.WARNING, "The table has no tag for what goes " + (output ? "to the drive." : "from the drive."),
                output ? "The PLC would command nothing of " + axis.name() + "." : "The PLC would know nothing of " + axis.name() + ".", null);
        return new Compared(output, List.copyOf(comparison.lines), List.copyOf(comparison.findings));
    }

    /** Where the station begins in the table, in bits: told by the names where all agree, so that a missing head moves nothing; else the first row. */
    private int base() {
        Set<Integer> differences = new HashSet<>();
        for (int i = 0; i < layout.entries().size(); i++) {
            for (TagRow row : rows) {
                if (layout.entries().get(i).hasTag() && same(layout.entries().get(i).tag(), row.name(), false)) {
                    differences.add(row.bitOffset() - layout.bitOffset(i));
                }
            }
        }
        int only = differences.size() == 1 ? differences.iterator().next() : -1;
        return only >= 0 && only % 8 == 0 ? only : rows.stream().mapToInt(TagRow::bitOffset).min().orElse(0) / 8 * 8;
    }

    /** A finding with a mend that helps: one that leaves as many faults as before is exchanged for the whole layout of the PLC, where that helps, or taken off. */
    private Finding mended(Machine machine, List<TagRow> told, Finding finding) {
        if (finding.mend() == null || finding.mend().changes().stream().noneMatch(c -> c.path().startsWith(pointer + "/"))) {
            return finding;
        }
        long before = faults(findings);
        if (faultsWith(machine, told, changed(finding.mend().changes())) < before) {
            return finding;
        }
        List<Entry> asThePlc = asThePlc();
        Finding.Mend mend = asThePlc != null && faultsWith(machine, told, asThePlc) < before
                ? new Finding.Mend("Lay it out as the PLC has it", List.of(new Finding.Change("replace", pointer, asThePlc))) : null;
        return new Finding(finding.stage(), finding.axis(), finding.severity(), finding.title(), finding.consequence(), mend);
    }

    private static long faults(List<Finding> findings) {
        return findings.stream().filter(f -> f.severity() == Finding.Severity.FAULT || f.severity() == Finding.Severity.WARNING).count();
    }

    private long faultsWith(Machine machine, List<TagRow> told, List<Entry> entries) {
        Axis changed = axis.withStation(output ? axis.station().withEntries(entries, axis.station().inputs()) : axis.station().withEntries(axis.station().outputs(), entries));
        PlcComparison comparison = new PlcComparison(machine, changed, pointer.substring(0, pointer.indexOf("/station/")), output, placed(told), plcOrder, planned);
        comparison.compare();
        return faults(comparison.findings);
    }

    private List<Entry> changed(List<Finding.Change> changes) {
        List<Entry> entries = new ArrayList<>(layout.entries());
        for (Finding.Change change : changes) {
            String place = change.path().substring(change.path().lastIndexOf('/') + 1);
            if (!place.matches("\\d+")) {
                continue;
            }
            int number = Integer.parseInt(place);
            if (change.op().equals("remove") && number < entries.size()) {
                entries.remove(number);
            } else if (change.op().equals("add") && number <= entries.size() && change.value() instanceof Entry entry) {
                entries.add(number, entry);
            }
        }
        return entries;
    }

    /** The entries in the order and at the places of the PLC's rows; null where not every one has a row of its size, or there are several messages. */
    private List<Entry> asThePlc() {
        List<Entry> entries = layout.entries();
        List<Entry> laid = new ArrayList<>();
        int at = 0;
        for (int r = 0; r < rows.size(); r++) {
            int row = r;
            int number = java.util.stream.IntStream.range(0, rowOf.length).filter(i -> rowOf[i] == row).findFirst().orElse(-1);
            if (rows.get(r).fillsGap()) {
                continue;
            }
            if (number < 0 || entries.get(number).bits() != rows.get(r).bits() || entries.get(number).pdo() != entries.get(0).pdo()) {
                return null;
            }
            int gap = rows.get(r).bitOffset() - base - at;
            if (gap < 0 || gap > 64) {
                return null;
            }
            if (gap > 0) {
                laid.add(Entry.filler(gap).withPdo(entries.get(number).pdo()));
            }
            laid.add(entries.get(number));
            at += gap + entries.get(number).bits();
        }
        boolean whole = laid.stream().filter(e -> !e.fillsGap()).count() == entries.stream().filter(e -> !e.fillsGap()).count();
        return whole ? laid : null;
    }

    /** Rows that tell no place follow each other without gaps. */
    private static List<TagRow> placed(List<TagRow> rows) {
        List<TagRow> placed = new ArrayList<>();
        int next = 0;
        for (TagRow row : rows) {
            int at = row.bitOffset() >= 0 ? row.bitOffset() : row.bits() > 1 ? (next + 7) / 8 * 8 : next;
            placed.add(new TagRow(row.name(), row.type(), row.output(), at, row.comment()));
            next = at + row.bits();
        }
        placed.sort(java.util.Comparator.comparingInt(TagRow::bitOffset));
        return joined(placed);
    }

    /** Eight, sixteen or thirty-two BOOLs of one parent that follow each other from a byte on are the bits of a word. */
    private static List<TagRow> joined(List<TagRow> rows) {
        List<TagRow> joined = new ArrayList<>();
        for (int i = 0; i < rows.size(); i++) {
            int bits = 1;
            TagRow first = rows.get(i);
            while (first.type() == Type.BOOL && first.bitOffset() % 8 == 0 && i + bits < rows.size() && bits < 32 && rows.get(i + bits).type() == Type.BOOL
                    && rows.get(i + bits).bitOffset() == first.bitOffset() + bits && parent(rows.get(i + bits).name()).equals(parent(first.name()))) {
                bits++;
            }
            int width = bits == 32 ? 32 : bits >= 16 ? 16 : bits >= 8 ? 8 : 1;
            Type type = width == 32 ? Type.DWORD : width == 16 ? Type.WORD : width == 8 ? Type.BYTE : first.type();
            joined.add(width == 1 ? first : new TagRow(parent(first.name()).isEmpty() ? first.name() : parent(first.name()), type, first.output(), first.bitOffset(), first.comment()));
            i += width - 1;
        }
        return joined;
    }

    private static String parent(String name) {
        return name.replaceFirst("(\\.[^.]*|\\[[^\\]]*\\]|_?\\d+)$", "");
    }

    /** By the tag's name, then by the last part of the name, then by the place where both are as wide, then by order. */
    private int[] matched() {
        List<Entry> entries = layout.entries();
        int[] found = new int[entries.size()];
        java.util.Arrays.fill(found, -1);
        Set<Integer> used = new HashSet<>();
        for (int round = 0; round < 2; round++) {
            for (int i = 0; i < found.length; i++) {
                Entry entry = entries.get(i);
                for (int r = 0; r < rows.size() && found[i] < 0; r++) {
                    if (entry.hasTag() && !used.contains(r) && same(entry.tag(), rows.get(r).name(), round == 1)) {
                        found[i] = r;
                        used.add(r);
                    }
                }
            }
        }
        for (int i = 0; i < found.length; i++) {
            for (int r = 0; r < rows.size() && found[i] < 0 && !entries.get(i).fillsGap(); r++) {
                TagRow row = rows.get(r);
                if (!used.contains(r) && !row.fillsGap() && row.bitOffset() - base == layout.bitOffset(i) && row.bits() == entries.get(i).bits()) {
                    found[i] = r;
                    used.add(r);
                }
            }
        }
        int next = 0;
        for (int i = 0; i < found.length; i++) {
            if (found[i] >= 0 || entries.get(i).fillsGap()) {
                continue;
            }
            while (next < rows.size() && (used.contains(next) || rows.get(next).fillsGap())) {
                next++;
            }
            if (next < rows.size()) {
                found[i] = next;
                used.add(next);
            }
        }
        return found;
    }

    private static boolean same(String tag, String row, boolean lastPart) {
        String one = tag.replace('.', '_').toLowerCase(Locale.ROOT);
        String other = row.replace('.', '_').toLowerCase(Locale.ROOT);
        return lastPart ? one.substring(one.lastIndexOf('_') + 1).equals(other.substring(other.lastIndexOf('_') + 1)) : one.equals(other);
    }

    private void compare() {
        lines();
        int off = base / 8 - planned;
        if (planned >= 0 && off != 0) {
            add(Finding.Severity.WARNING, "The table has " + axis.name() + " " + Math.abs(off) + (Math.abs(off) == 1 ? " byte " : " bytes ") + (off > 0 ? "behind" : "before") + " where the network puts it, "
                    + (output ? "PLC to drive." : "drive to PLC."), "In the table it begins at " + ProcessAddress.text(output, base, 8) + ", in the network at " + ProcessAddress.text(output, planned * 8, 8)
                    + ". Unless the PLC itself places the station there, every value is read from another place: give the station this first address in the PLC, or take the tag table from here.", null);
        }
    }

    private void lines() {
        List<Entry> entries = layout.entries();
        int shift = 0;
        int last = -1;
        for (int i = 0; i < entries.size(); i++) {
            Entry entry = entries.get(i);
            if (entry.fillsGap()) {
                continue;
            }
            if (rowOf[i] < 0 && !entry.hasTag() && !rows.isEmpty()) {
                /* nobody asks for it: on PROFINET most of a telegram belongs to the motion function of the PLC */
                lines.add(new Line(i, title(entry), place(layout.bitOffset(i), entry.bits()), dataType(entry), "", "", "", "", "", true, "no tag here and none in the table"));
                continue;
            }
            if (rowOf[i] < 0) {
                lines.add(new Line(i, title(entry), place(layout.bitOffset(i), entry.bits()), dataType(entry), "", "", "", "", "", false, "not in the PLC's table"));
                add(Finding.Severity.WARNING, title(entry) + " is not in the PLC's table.", "The PLC would " + (output ? "send nothing for it." : "not read it."), null);
                continue;
            }
            TagRow row = rows.get(rowOf[i]);
            int off = row.bitOffset() - base - layout.bitOffset(i);
            String remark = "";
            if (row.bits() != entry.bits()) {
                remark = "size";
                add(Finding.Severity.FAULT, row.name() + " has " + row.bits() + " bits, " + title(entry).toLowerCase(Locale.ROOT) + " " + entry.bits() + ".",
                        wrong(i, row) + " Declare it " + dataType(entry) + " in the PLC.", null);
            }
            if (rowOf[i] < last) {
                remark = "order";
                add(Finding.Severity.FAULT, title(entry) + " and the entry before it are swapped.", wrong(i, row), swap(i));
            } else if (off != shift && off != 0 && remark.isEmpty()) {
                remark = off > shift ? "filler missing" : "filler too many";
                shifted(i, row, off - shift);
            } else if (off != 0 && remark.isEmpty()) {
                remark = "shifted";
            }
            shift = off + (row.bits() - entry.bits());
            last = Math.max(last, rowOf[i]);
            String sent = sample(i);
            String arrives = arrives(i, row);
            boolean agrees = sent.equals(arrives) && off == 0 && row.bits() == entry.bits();
            if (remark.isEmpty()) {
                remark = kind(i, entry, row, agrees);
            }
            lines.add(new Line(i, title(entry), place(layout.bitOffset(i), entry.bits()), dataType(entry), row.name(), place(row.bitOffset(), row.bits()), row.type().name(), sent, arrives, agrees && remark.isEmpty(), remark));
        }
        for (int r = 0; r < rows.size(); r++) {
            int number = r;
            if (!rows.get(r).fillsGap() && java.util.Arrays.stream(rowOf).noneMatch(x -> x == number)) {
                TagRow row = rows.get(r);
                lines.add(new Line(-1, "", "", "", row.name(), place(row.bitOffset(), row.bits()), row.type().name(), "", "", false, "not in the drive's layout"));
                add(Finding.Severity.WARNING, row.name() + " is not in the drive's layout.", output ? "What the PLC writes there would reach something else, or nothing." : "The PLC would read what belongs to something else.", null);
            }
        }
        if (findings.isEmpty()) {
            add(Finding.Severity.GOOD, "PLC and drive agree, " + (output ? "PLC to drive." : "drive to PLC."), (planned >= 0 && base / 8 != planned ? "Within the station every" : "Every") + " value arrives as it was sent.", null);
        }
    }

    /** Same place and size: sign, kind and order of the bytes. */
    private String kind(int number, Entry entry, TagRow row, boolean agrees) {
        CyclicItem item = item(entry);
        if (row.type().isReal() && item != null) {
            add(Finding.Severity.FAULT, row.name() + " is " + row.type() + ", " + title(entry).toLowerCase(Locale.ROOT) + " a whole number.", wrong(number, row) + " Declare it " + dataType(entry) + " in the PLC.", null);
            return "type";
        }
        if (!agrees && plcOrder != layout.order() && entry.bits() > 8) {
            Finding.Mend mend = family.family() == rueda.machine.Bus.Family.MODBUS_TCP && plcOrder != WireOrder.LITTLE_ENDIAN
                    ? Finding.Mend.set(plcOrder == WireOrder.LOW_WORD_FIRST ? "Low word first on the bus" : "High word first on the bus", "/bus/lowWordFirst", plcOrder == WireOrder.LOW_WORD_FIRST) : null;
            if (findings.stream().noneMatch(f -> f.title().startsWith("The order of the bytes"))) {
                add(Finding.Severity.FAULT, "The order of the bytes differs.", "On the bus: " + layout.order().words() + "; in the PLC: " + plcOrder.words() + ". " + wrong(number, row), mend);
            }
            return "byte order";
        }
        boolean sameSign = item == null || row.type().family() == Type.Family.BIT || (row.type().family() == Type.Family.SIGNED) == item.signed();
        if (!sameSign) {
            add(Finding.Severity.WARNING, row.name() + " is " + row.type() + ", " + title(entry).toLowerCase(Locale.ROOT) + " " + dataType(entry) + ".", "They differ in sign: half of the values would be read wrong.", null);
            return "sign";
        }
        return "";
    }

    private void shifted(int number, TagRow row, int by) {
        String bits = Math.abs(by) + "-bit filler";
        String before = title(layout.entries().get(number)).toLowerCase(Locale.ROOT);
        if (by > 0) {
            Entry filler = Entry.filler(by).withPdo(layout.entries().get(number).pdo());
            add(Finding.Severity.FAULT, "A " + bits + " is missing before " + before + ".", "The PLC has it " + place(row.bitOffset() - base, row.bits()) + ", the drive " + place(layout.bitOffset(number), row.bits())
                    + ". " + wrong(number, row) + " All that follow are off too.", by <= 64 ? Finding.Mend.insert("Put a " + bits + " before it", pointer + "/" + number, filler) : null);
            return;
        }
        boolean removable = number > 0 && layout.entries().get(number - 1).fillsGap() && layout.entries().get(number - 1).bits() == -by;
        add(Finding.Severity.FAULT, "The PLC lacks a " + bits + " before " + before + ".", wrong(number, row) + " All that follow are off too. Add a member of " + -by + " bits before " + row.name() + " in the PLC"
                + (removable ? ", or take the filler out here." : "."), removable ? new Finding.Mend("Take the filler out here", List.of(new Finding.Change("remove", pointer + "/" + (number - 1), null))) : null);
    }

    /** The entry goes where the PLC has it: before the nearest earlier entry whose row comes later. */
    private Finding.Mend swap(int number) {
        int to = number;
        for (int i = number - 1; i >= 0; i--) {
            if (rowOf[i] > rowOf[number]) {
                to = i;
            }
        }
        Entry entry = layout.entries().get(number);
        return new Finding.Mend("Move it before " + title(layout.entries().get(to)).toLowerCase(Locale.ROOT),
                List.of(new Finding.Change("remove", pointer + "/" + number, null), new Finding.Change("add", pointer + "/" + to, entry)));
    }

    private String wrong(int number, TagRow row) {
        String sent = sample(number);
        String arrives = arrives(number, row);
        return sent.equals(arrives) ? "" : "A sample of " + sent + " would arrive as " + arrives + ".";
    }

    /* ---- samples ---- */

    private CyclicItem item(Entry entry) {
        return CyclicItem.find(family.profile(), entry.object(), entry.subIndex());
    }

    /** A value that differs from its neighbours in every byte. */
    private long raw(int number) {
        Entry entry = layout.entries().get(number);
        CyclicItem item = item(entry);
        if (entry.fillsGap()) {
            return 0;
        }
        return switch (item == null ? CyclicItem.Meaning.PLAIN : item.meaning()) {
            case POSITION -> axis.scale().wireFromUnits(axis.endless() ? 123.4 : 412);
            case SPEED -> axis.scale().wireFromUnits(250);
            case TORQUE -> 125;
            case CONTROLWORD -> 0x000F;
            case STATUSWORD -> 0x1737;
            case MODE -> 8;
            default -> 0x2143_6587L >>> Math.max(0, 32 - entry.bits());
        };
    }

    /** The sample as a program holds it that reckons in units. */
    private double units(int number) {
        CyclicItem item = item(layout.entries().get(number));
        return switch (item == null ? CyclicItem.Meaning.PLAIN : item.meaning()) {
            case POSITION, SPEED, ACCELERATION, JERK -> axis.scale().unitsFromWire(raw(number));
            case TORQUE -> raw(number) / 10.0;
            default -> raw(number);
        };
    }

    /** The bits of a real number, IEC 60559. */
    private static long pattern(Type type, double value) {
        return type == Type.REAL ? Float.floatToRawIntBits((float) value) & 0xFFFF_FFFFL : Double.doubleToRawLongBits(value);
    }

    private String sample(int number) {
        return words(number, raw(number));
    }

    /** What comes out on the other side when all samples travel. */
    private String arrives(int number, TagRow row) {
        int bytes = Math.max(layout.bytes(), rows.stream().mapToInt(r -> (r.bitOffset() - base + r.bits() + 7) / 8).max().orElse(0)) + 8;
        byte[] image = new byte[bytes];
        if (output) {
            for (int i = 0; i < rowOf.length; i++) {
                if (rowOf[i] >= 0) {
                    TagRow written = rows.get(rowOf[i]);
                    at(written).write(image, 1, written.type().isReal() ? pattern(written.type(), units(i)) : raw(i));
                }
            }
            Entry entry = layout.entries().get(number);
            CyclicItem item = item(entry);
            return words(number, item != null && item.signed() ? layout.readSigned(image, number) : layout.read(image, number));
        }
        for (int i = 0; i < rowOf.length; i++) {
            layout.write(image, i, raw(i));
        }
        ProcessDataLayout one = at(row);
        if (row.type().isReal()) {
            long bits = one.read(image, 1);
            return significant(row.type() == Type.REAL ? Float.intBitsToFloat((int) bits) : Double.longBitsToDouble(bits), 6);
        }
        return words(number, row.type().family() == Type.Family.SIGNED ? one.readSigned(image, 1) : one.read(image, 1));
    }

    /** A layout with this row alone, at its place, as the second entry. */
    private ProcessDataLayout at(TagRow row) {
        int offset = row.bitOffset() - base;
        List<Entry> entries = new ArrayList<>();
        entries.add(Entry.filler(Math.max(1, offset)).withPdo(1));
        entries.add(new Entry(0xFFFF, 0, row.bits(), "", ""));
        if (offset == 0) {
            entries.set(0, Entry.filler(0));
        }
        return new ProcessDataLayout(entries, plcOrder);
    }

    private String words(int number, long raw) {
        Entry entry = layout.entries().get(number);
        CyclicItem item = item(entry);
        return switch (item == null ? CyclicItem.Meaning.PLAIN : item.meaning()) {
            case POSITION -> significant(axis.scale().unitsFromWire(raw), 9) + " " + axis.unit().symbol();
            case SPEED, ACCELERATION, JERK -> significant(axis.scale().unitsFromWire(raw), 9) + " " + axis.unit().symbol() + item.meaning().overTime();
            case TORQUE -> significant(raw / 10.0, 6) + " %";
            case MODE, COUNTS -> Numbers.count(raw);
            default -> String.format(Locale.ROOT, "%0" + Math.max(1, entry.bits() / 4) + "Xh", raw & -1L >>> 64 - Math.max(1, entry.bits()));
        };
    }

    private String title(Entry entry) {
        return CyclicItem.title(family.profile(), entry);
    }

    private String dataType(Entry entry) {
        CyclicItem item = item(entry);
        return item == null ? entry.bits() + " bits" : item.dataType();
    }

    private static String place(int bitOffset, int bits) {
        if (bits < 8 || bitOffset % 8 != 0) {
            return "bit " + bitOffset / 8 + "." + bitOffset % 8;
        }
        int first = bitOffset / 8;
        int last = first + bits / 8 - 1;
        return last == first ? "byte " + first : "bytes " + first + "–" + last;
    }

    private void add(Finding.Severity severity, String title, String consequence, Finding.Mend mend) {
        findings.add(new Finding("map", axis.name(), severity, title, consequence.strip(), mend));
    }
}
