package rueda.advice;

import static rueda.advice.Numbers.count;
import static rueda.advice.Numbers.significant;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import rueda.bus.EtherCatFrame;
import rueda.bus.ProcessDataLayout;
import rueda.drive.DriveObject;
import rueda.machine.Axis;
import rueda.machine.Machine;
import rueda.machine.Station.Entry;
import rueda.plc.Type;

/** Consequences of the process data layout and the tags bound to it. */
public final class MapAdvice {

    private static final List<DriveObject> NEEDED_OUTPUTS = List.of(DriveObject.CONTROLWORD, DriveObject.TARGET_POSITION, DriveObject.MODE);
    private static final List<DriveObject> NEEDED_INPUTS = List.of(DriveObject.STATUSWORD, DriveObject.POSITION_ACTUAL, DriveObject.MODE_DISPLAY);

    private MapAdvice() {
    }

    /** @param pointer JSON pointer of the axis in the document */
    public static Advice of(Machine machine, Axis axis, String pointer) {
        ProcessDataLayout outputs = new ProcessDataLayout(axis.station().outputs());
        ProcessDataLayout inputs = new ProcessDataLayout(axis.station().inputs());
        int all = machine.axes().stream().mapToInt(a -> Math.max(new ProcessDataLayout(a.station().outputs()).bytes(),
                new ProcessDataLayout(a.station().inputs()).bytes())).sum();
        long nanos = EtherCatFrame.nanos(all);
        List<Figure> figures = List.of(
                new Figure("PLC to drive", count(outputs.bytes()), "bytes", "sum of the entries ÷ 8, rounded up"),
                new Figure("Drive to PLC", count(inputs.bytes()), "bytes", "sum of the entries ÷ 8, rounded up"),
                new Figure("Frame on the wire, all stations", significant(nanos / 1000.0, 4), "µs",
                        EtherCatFrame.byteTimes(all) + " byte times × 80 ns: preamble 8, header 14, EtherCAT 2 + 12, data " + all + " (at least 46 in all), check 4, gap 12"),
                new Figure("Share of the bus cycle", significant(nanos / 10.0 / machine.bus().cycleMicros(), 3), "%",
                        "frame ÷ " + machine.bus().cycleMicros() + " µs"),
                new Figure("From PLC write to drive", significant(machine.bus().cycleMicros() / 1000.0, 4), "ms",
                        "written before the frame leaves; the setpoint is interpolated over one bus cycle"));
        List<Finding> findings = new ArrayList<>();
        check(axis, outputs, NEEDED_OUTPUTS, true, pointer + "/station/outputs", findings);
        check(axis, inputs, NEEDED_INPUTS, false, pointer + "/station/inputs", findings);
        duplicateTags(axis, findings);
        if (findings.isEmpty()) {
            findings.add(new Finding("map", axis.name(), Finding.Severity.GOOD, "Every entry fits its object and its tag.",
                    "Sizes, signs and boundaries agree on both sides.", null));
        }
        return new Advice(figures, findings);
    }

    private static void check(Axis axis, ProcessDataLayout layout, List<DriveObject> needed, boolean output, String pointer, List<Finding> findings) {
        List<Entry> entries = layout.entries();
        for (int i = 0; i < entries.size(); i++) {
            if (!entries.get(i).isFiller()) {
                entry(axis, entries.get(i), layout.bitOffset(i), output, pointer + "/" + i, findings);
            }
        }
        for (DriveObject object : needed) {
            if (layout.indexOf(object.index(), object.subIndex()) < 0) {
                Map<String, Object> entry = Map.of("object", object.index(), "subIndex", object.subIndex(), "bits", object.bits(),
                        "tag", "", "tagType", object.dataType());
                findings.add(new Finding("map", axis.name(), Finding.Severity.FAULT, object.title() + " does not travel.",
                        "Without " + hex(object) + " the program cannot move this axis.",
                        Finding.Mend.insert("Add it at the end", pointer + "/-", entry)));
            }
        }
    }

    private static void entry(Axis axis, Entry entry, int bitOffset, boolean output, String pointer, List<Finding> findings) {
        DriveObject object = DriveObject.find(entry.object(), entry.subIndex());
        if (object == null || output && !object.writable()) {
            findings.add(new Finding("map", axis.name(), Finding.Severity.FAULT,
                    String.format(Locale.ROOT, "The drive %s %04Xh:%02X.", object == null ? "has no object" : "does not let the PLC write", entry.object(), entry.subIndex()),
                    "The station would refuse this layout.", new Finding.Mend("Remove it", List.of(new Finding.Change("remove", pointer, null)))));
            return;
        }
        if (entry.bits() != object.bits()) {
            findings.add(new Finding("map", axis.name(), Finding.Severity.FAULT,
                    object.title() + " has " + object.bits() + " bits, the entry " + entry.bits() + ".", "Every later value would be off.",
                    Finding.Mend.set("Make it " + object.bits() + " bits", pointer + "/bits", object.bits())));
        }
        if (entry.bits() == 32 && bitOffset % 32 != 0) {
            Map<String, Object> filler = Map.of("object", 0, "subIndex", 0, "bits", 32 - bitOffset % 32, "tag", "", "tagType", "");
            findings.add(new Finding("map", axis.name(), Finding.Severity.WARNING, object.title() + " does not start on a 4-byte boundary.",
                    "A PLC that aligns 32-bit values would read it, and all that follow, " + bitOffset % 32 / 8 + " bytes off.",
                    Finding.Mend.insert("Put a " + (32 - bitOffset % 32) + "-bit filler before it", pointer, filler)));
        }
        Type type = entry.isBound() ? Type.named(entry.tagType()) : null;
        if (type == null) {
            return;
        }
        boolean sameSign = type.family() == Type.Family.BIT || type.family() == (object.signed() ? Type.Family.SIGNED : Type.Family.UNSIGNED);
        if (type.bits() != object.bits() || type.isReal()) {
            long highest = type.isReal() ? 0 : type.highest();
            String consequence = type.bits() < object.bits() && !type.isReal()
                    ? "Above " + significant(inUnits(axis, object, highest), 6) + unitOf(axis, object) + " the PLC would see a wrong value."
                    : "The value would be read as something else.";
            findings.add(new Finding("map", axis.name(), Finding.Severity.FAULT,
                    entry.tag() + " holds " + (type.isReal() ? "a " + type : type.bits() + " bits") + ", the entry " + object.dataType() + " of " + object.bits() + ".",
                    consequence, Finding.Mend.set("Make it " + object.dataType(), pointer + "/tagType", object.dataType())));
        } else if (!sameSign) {
            findings.add(new Finding("map", axis.name(), Finding.Severity.WARNING, entry.tag() + " and its object differ in sign.",
                    object.title() + " is " + object.dataType() + ": half of its values would be read wrong.",
                    Finding.Mend.set("Make it " + object.dataType(), pointer + "/tagType", object.dataType())));
        }
    }

    private static double inUnits(Axis axis, DriveObject object, long value) {
        return isPosition(object) ? axis.scale().unitsFromWire(value) : value;
    }

    private static String unitOf(Axis axis, DriveObject object) {
        return isPosition(object) ? " " + axis.unit().symbol() : "";
    }

    private static boolean isPosition(DriveObject object) {
        return switch (object) {
            case POSITION_ACTUAL, TARGET_POSITION, FOLLOWING_ERROR_ACTUAL, HOME_OFFSET -> true;
            default -> false;
        };
    }

    private static void duplicateTags(Axis axis, List<Finding> findings) {
        Map<String, Integer> seen = new HashMap<>();
        for (List<Entry> direction : List.of(axis.station().outputs(), axis.station().inputs())) {
            direction.stream().filter(Entry::isBound).forEach(e -> seen.merge(e.tag().toUpperCase(Locale.ROOT), 1, Integer::sum));
        }
        seen.forEach((tag, times) -> {
            if (times > 1) {
                findings.add(new Finding("map", axis.name(), Finding.Severity.FAULT, "Tag " + tag + " is bound " + times + " times.",
                        "The last entry would overwrite the others.", null));
            }
        });
    }

    private static String hex(DriveObject object) {
        return String.format(Locale.ROOT, "%04Xh", object.index());
    }
}
