package rueda.advice;

import static rueda.advice.Numbers.count;
import static rueda.advice.Numbers.significant;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import rueda.bus.BusFamily;
import rueda.bus.BusFamily.DriveProfile;
import rueda.bus.CycleTimes;
import rueda.bus.LayoutRemark;
import rueda.bus.ProcessDataLayout;
import rueda.bus.ProfiDriveSignal;
import rueda.bus.StandardTelegram;
import rueda.drive.CyclicItem;
import rueda.drive.CyclicItem.Meaning;
import rueda.drive.DriveObject;
import rueda.machine.Axis;
import rueda.machine.Bus.Family;
import rueda.machine.Machine;
import rueda.machine.Station.Entry;
import rueda.plc.type.Type;

/** Consequences of the process data layout and the tags bound to it, on the bus the machine has. */
public final class MapAdvice {

    private static final List<DriveObject> NEEDED_OUTPUTS = List.of(DriveObject.CONTROLWORD, DriveObject.TARGET_POSITION, DriveObject.MODE);
    private static final List<DriveObject> NEEDED_INPUTS = List.of(DriveObject.STATUSWORD, DriveObject.POSITION_ACTUAL, DriveObject.MODE_DISPLAY);

    private final Machine machine;
    private final Axis axis;
    private final BusFamily family;
    private final List<Finding> findings = new ArrayList<>();

    private MapAdvice(Machine machine, Axis axis) {
        this.machine = machine;
        this.axis = axis;
        family = BusFamily.of(machine.bus());
    }

    /** @param pointer JSON pointer of the axis in the document */
    public static Advice of(Machine machine, Axis axis, String pointer) {
        return of(machine, axis, pointer, BusFamily.of(machine.bus()).times(machine));
    }

    /** @param times of the whole bus, the same for every axis */
    public static Advice of(Machine machine, Axis axis, String pointer, CycleTimes times) {
        return new MapAdvice(machine, axis).advice(pointer, times);
    }

    private Advice advice(String pointer, CycleTimes times) {
        ProcessDataLayout outputs = BusFamily.layout(machine.bus(), axis.station().outputs());
        ProcessDataLayout inputs = BusFamily.layout(machine.bus(), axis.station().inputs());
        check(outputs, true, pointer + "/station/outputs");
        check(inputs, false, pointer + "/station/inputs");
        boolean blocks = axis.commandedBy() == Axis.Commander.MOTION_BLOCKS;
        if (axis.commandedBy() != Axis.Commander.DRIVE && family.profile() == DriveProfile.PROFIDRIVE) {
            needTelegram(pointer, blocks);
        } else if (axis.commandedBy() != Axis.Commander.DRIVE) {
            needed(outputs, blocks ? NEEDED_OUTPUTS : List.of(DriveObject.CONTROLWORD), pointer + "/station/outputs");
            needed(inputs, blocks ? NEEDED_INPUTS : List.of(DriveObject.STATUSWORD), pointer + "/station/inputs");
        }
        duplicateTags();
        tooShort(times);
        if (findings.isEmpty()) {
            findings.add(new Finding("map", axis.name(), Finding.Severity.GOOD, "Every entry fits its object and its tag.",
                    "Sizes, signs and boundaries agree on both sides.", null));
        }
        return new Advice(figures(outputs, inputs, times), findings);
    }

    private List<Figure> figures(ProcessDataLayout outputs, ProcessDataLayout inputs, CycleTimes times) {
        int cycle = machine.bus().cycleMicros();
        List<Figure> figures = new ArrayList<>();
        figures.add(new Figure("PLC to drive", count(outputs.bytes()), "bytes", "sum of the entries ÷ 8, rounded up"));
        figures.add(new Figure("Drive to PLC", count(inputs.bytes()), "bytes", "sum of the entries ÷ 8, rounded up"));
        figures.add(new Figure("Frames a cycle, all stations", count(times.messages().size()), "", "one line each under Times"));
        figures.add(new Figure("Time on the wire", significant(times.wireNanos() / 1000.0, 4), "µs", times.formula()));
        figures.add(new Figure("Bus load", significant(100 * times.load(cycle), 3), "%", "time on the wire ÷ " + count(cycle) + " µs"));
        figures.add(new Figure("Shortest bus cycle", significant(times.shortestNanos() / 1000.0, 4), "µs", "time on the wire, rounded up to what " + family.family().words() + " keeps"));
        if (family.family() == Family.CANOPEN) {
            CycleTimes.Message last = times.messages().stream().max(java.util.Comparator.comparingLong(CycleTimes.Message::worstNanos)).orElseThrow();
            figures.add(new Figure("Worst case, lowest priority", significant(last.worstNanos() / 1000.0, 4), "µs", last.name() + ": longest frame that has just begun, all with a lower identifier, its own"));
        }
        int perTask = machine.plc().taskIntervalMicros() / cycle;
        figures.add(new Figure("From PLC write to drive", significant(cycle / 1000.0, 4), "ms, 1 bus cycle",
                "written before the frame leaves; the setpoint is interpolated over one bus cycle. Task: every " + perTask + (perTask == 1 ? " bus cycle" : " bus cycles")));
        return figures;
    }

    private String title(Entry entry) {
        return entry.fillsGap() ? "The filler" : CyclicItem.title(family.profile(), entry);
    }

    private CyclicItem item(Entry entry) {
        return CyclicItem.find(family.profile(), entry.object(), entry.subIndex());
    }

    private void add(Finding.Severity severity, String title, String consequence, Finding.Mend mend) {
        findings.add(new Finding("map", axis.name(), severity, title, consequence, mend));
    }

    private void check(ProcessDataLayout layout, boolean output, String pointer) {
        List<Entry> entries = layout.entries();
        Set<Long> seen = new HashSet<>();
        for (int i = 0; i < entries.size(); i++) {
            Entry entry = entries.get(i);
            if (entry.fillsGap()) {
                continue;
            }
            if (!seen.add((long) entry.object() << 8 | entry.subIndex())) {
                add(Finding.Severity.FAULT, title(entry) + " travels twice.", "The station would refuse this layout.", remove("Remove the second", pointer + "/" + i));
            }
            entry(entry, output, pointer + "/" + i);
        }
        for (LayoutRemark remark : family.remarks(machine.bus(), entries, output)) {
            String title = remark.entry() < 0 ? remark.title() : remark.title().replace("{entry}", title(entries.get(remark.entry())));
            add(remark.fault() ? Finding.Severity.FAULT : Finding.Severity.WARNING, title, remark.consequence(), mend(remark, entries, pointer));
        }
    }

    private static Finding.Mend mend(LayoutRemark remark, List<Entry> entries, String pointer) {
        if (remark.mend() instanceof LayoutRemark.Mend.Filler filler) {
            return Finding.Mend.insert("Put a " + filler.bits() + "-bit filler before it", pointer + "/" + remark.entry(), Entry.filler(filler.bits()).withPdo(entries.get(remark.entry()).pdo()));
        }
        if (remark.mend() instanceof LayoutRemark.Mend.FillerAtEnd filler) {
            return Finding.Mend.insert("Put a " + filler.bits() + "-bit filler at the end", pointer + "/-", Entry.filler(filler.bits()).withPdo(entries.get(entries.size() - 1).pdo()));
        }
        if (remark.mend() instanceof LayoutRemark.Mend.NextMessage) {
            int pdo = entries.get(remark.entry()).pdo();
            int before = remark.entry() == 0 ? 0 : entries.get(remark.entry() - 1).pdo();
            List<Finding.Change> changes = new ArrayList<>();
            for (int i = remark.entry(); i < entries.size(); i++) {
                if (entries.get(i).pdo() == pdo) {
                    changes.add(new Finding.Change("replace", pointer + "/" + i + "/pdo", pdo < before ? before : pdo + 1));
                }
            }
            return new Finding.Mend("Move it to PDO " + (pdo < before ? before : pdo + 1), changes);
        }
        return null;
    }

    private static Finding.Mend remove(String label, String pointer) {
        return new Finding.Mend(label, List.of(new Finding.Change("remove", pointer, null)));
    }

    private void entry(Entry entry, boolean output, String pointer) {
        CyclicItem item = item(entry);
        if (item == null || output && !item.toDrive() || !output && !item.toPlc()) {
            String what = item == null ? "has no object" : output ? "does not let the PLC write" : "does not send";
            String symbol = item == null ? String.format(Locale.ROOT, "%04Xh:%02X", entry.object(), entry.subIndex()) : item.symbol();
            add(Finding.Severity.FAULT, "The drive " + what + " " + symbol + ".", "The station would refuse this layout.", remove("Remove it", pointer));
            return;
        }
        if (entry.bits() != item.bits()) {
            add(Finding.Severity.FAULT, item.title() + " has " + item.bits() + " bits, the entry " + entry.bits() + ".", "Every later value would be off.",
                    Finding.Mend.set("Make it " + item.bits() + " bits", pointer + "/bits", item.bits()));
        }
        if (entry.hasTag()) {
            tag(entry, item, pointer);
        }
    }

    private void tag(Entry entry, CyclicItem item, String pointer) {
        Type type = Type.named(entry.tagType());
        boolean measures = switch (item.meaning()) {
            case POSITION, SPEED, ACCELERATION, JERK, COUNTS, TORQUE, N2, N4 -> true;
            default -> false;
        };
        if (measures && (type.isReal() || entry.scales() || !entry.unit().isBlank())) {
            scaled(entry, item, type, pointer);
            return;
        }
        boolean sameSign = type.family() == Type.Family.BIT || type.family() == (item.signed() ? Type.Family.SIGNED : Type.Family.UNSIGNED);
        if (type.bits() != item.bits() || type.isReal()) {
            String consequence = type.bits() < item.bits() && !type.isReal()
                    ? "Above " + significant(inUnits(item, type.highest().longValue()), 6) + unitOf(item) + " the PLC would see a wrong value."
                    : "The value would be read as something else.";
            add(Finding.Severity.FAULT, entry.tag() + " holds " + (type.isReal() ? "a " + type : type.bits() + " bits") + ", the entry " + item.dataType() + " of " + item.bits() + ".",
                    consequence, Finding.Mend.set("Make it " + item.dataType(), pointer + "/tagType", item.dataType()));
        } else if (!sameSign) {
            add(Finding.Severity.WARNING, entry.tag() + " and its object differ in sign.", item.title() + " is " + item.dataType() + ": half of its values would be read wrong.",
                    Finding.Mend.set("Make it " + item.dataType(), pointer + "/tagType", item.dataType()));
        }
    }

    /** The tag holds units: the PLC scales where it is copied, and the drive by its electronic gear. Each step must be made once. */
    private void scaled(Entry entry, CyclicItem item, Type type, String pointer) {
        BigDecimal right = ItemScale.wirePerUnit(axis, item);
        double factor = entry.factor().doubleValue();
        String unit = ItemScale.unit(axis, item);
        if (!entry.unit().isBlank() && !entry.unit().equals(unit)) {
            add(Finding.Severity.WARNING, entry.tag() + " is in " + entry.unit() + ", " + item.title().toLowerCase(Locale.ROOT) + " in " + unit + ".",
                    "Both sides should speak of the same unit.", Finding.Mend.set("Make it " + unit, pointer + "/unit", unit));
            return;
        }
        double arrives = factor / right.doubleValue();
        if (Math.abs(arrives - 1) > 1e-9) {
            double both = item.meaning().inWireUnits() ? axis.scale().countsPerWireUnit().toDouble() : 1;
            String title = factor == 1 ? "Nobody scales " + entry.tag() + "." : Math.abs(arrives / both - 1) < 1e-6 ? "Both sides scale " + entry.tag() + "." : entry.tag() + " is scaled by another number than the drive's.";
            String why = factor == 1 ? "It travels as it is, and the drive takes it for " + perOne(item) + "."
                    : Math.abs(arrives / both - 1) < 1e-6 ? "The PLC makes encoder counts of it, and the drive's electronic gear takes them for wire units." : "";
            add(Finding.Severity.FAULT, title, (why + " 1 " + unit + " in the tag would be " + significant(arrives, 6) + " " + unit + ".").trim(),
                    new Finding.Mend("Let " + count(right.longValue()) + " be 1 " + unit, List.of(new Finding.Change("replace", pointer + "/factor", right), new Finding.Change("replace", pointer + "/unit", unit))));
        } else if (!type.isReal() && entry.scales()) {
            add(Finding.Severity.WARNING, entry.tag() + " holds whole " + unit + ".", "What is less than 1 " + unit + " is lost.", Finding.Mend.set("Make it LREAL", pointer + "/tagType", "LREAL"));
        }
    }

    private String perOne(CyclicItem item) {
        return switch (item.meaning()) {
            case TORQUE -> "tenths of a percent";
            case N2, N4 -> "a share of " + count(item.meaning() == Meaning.N2 ? ProfiDriveSignal.N2_FULL : ProfiDriveSignal.N4_FULL);
            case COUNTS -> "encoder counts";
            default -> "steps of " + BigDecimal.ONE.movePointLeft(axis.unit().decimals()).toPlainString() + " " + axis.unit().symbol();
        };
    }

    private void needed(ProcessDataLayout layout, List<DriveObject> needed, String pointer) {
        for (DriveObject object : needed) {
            if (layout.indexOf(object.index(), object.subIndex()) < 0) {
                CyclicItem item = CyclicItem.find(family.profile(), object.index(), object.subIndex());
                int pdo = layout.entries().isEmpty() ? 1 : layout.entries().get(layout.entries().size() - 1).pdo();
                add(Finding.Severity.FAULT, object.title() + " does not travel.", "Without " + item.symbol() + " the program cannot move this axis.",
                        Finding.Mend.insert("Add it at the end", pointer + "/-", new Entry(object.index(), object.subIndex(), object.bits(), "", item.dataType()).withPdo(pdo)));
            }
        }
    }

    /** Motion blocks make positions, which the drive follows by dynamic servo control; a program's own words move it by any telegram. */
    private void needTelegram(String pointer, boolean blocks) {
        Optional<StandardTelegram> telegram = StandardTelegram.of(axis.station().outputs(), axis.station().inputs());
        if (telegram.isPresent() && (!blocks || telegram.get() == StandardTelegram.TELEGRAM_5)) {
            return;
        }
        rueda.machine.Station usual = family.usual(axis.name(), 1);
        Finding.Mend mend = new Finding.Mend("Take telegram 5", List.of(new Finding.Change("replace", pointer + "/station/outputs", usual.outputs()), new Finding.Change("replace", pointer + "/station/inputs", usual.inputs())));
        add(Finding.Severity.FAULT, telegram.map(t -> "Motion blocks do not move this axis by telegram " + t.number() + ".").orElse("These words are no standard telegram."),
                "They give positions, and the drive follows them by telegram 5, " + StandardTelegram.TELEGRAM_5.words() + " (IEC 61800-7-203). Let the program command the axis by its own words to use another.", mend);
    }

    /** @param cycle the new bus cycle, µs */
    private List<Finding.Change> changes(int cycle) {
        List<Finding.Change> changes = new ArrayList<>(List.of(new Finding.Change("replace", "/bus/cycleMicros", cycle)));
        changes.addAll(TaskIntervals.fitting(machine.plc(), cycle));
        return changes;
    }

    private void tooShort(CycleTimes times) {
        int cycle = machine.bus().cycleMicros();
        if (times.shortestNanos() > cycle * 1000L) {
            int longer = cycle;
            while (longer < 100_000 && (longer * 1000L < times.shortestNanos() || family.refusesCycle(longer) != null || !machine.plc().fitsCycle(longer))) {
                longer += 125;
            }
            boolean fits = longer < 100_000;
            int task = (int) (times.shortestNanos() / 1000);
            add(Finding.Severity.FAULT, "The bus cycle is too short for its frames.", "All stations need " + significant(times.wireNanos() / 1000.0, 4) + " µs on the wire, the cycle has " + count(cycle) + " µs.",
                    fits ? Finding.Mend.set("Make the cycle " + count(longer) + " µs", "/bus/cycleMicros", longer)
                            : family.refusesCycle(task) != null ? null : new Finding.Mend("Make cycle and task " + count(task) + " µs", changes(task)));
        }
    }

    private double inUnits(CyclicItem item, long value) {
        return item.meaning().inWireUnits() ? axis.scale().unitsFromWire(value) : value;
    }

    private String unitOf(CyclicItem item) {
        return item.meaning().inWireUnits() ? " " + axis.unit().symbol() + item.meaning().overTime() : "";
    }

    private void duplicateTags() {
        Map<String, Integer> seen = new HashMap<>();
        for (List<Entry> direction : List.of(axis.station().outputs(), axis.station().inputs())) {
            direction.stream().filter(Entry::hasTag).forEach(e -> seen.merge(e.tag().toUpperCase(Locale.ROOT), 1, Integer::sum));
        }
        seen.forEach((tag, times) -> {
            if (times > 1) {
                add(Finding.Severity.FAULT, "Tag " + tag + " is bound " + times + " times.", "The last entry would overwrite the others.", null);
            }
        });
    }
}
