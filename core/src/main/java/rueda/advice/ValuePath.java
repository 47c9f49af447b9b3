package rueda.advice;

import static rueda.advice.Numbers.count;
import static rueda.advice.Numbers.significant;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import rueda.bus.BusFamily;
import rueda.bus.ProcessDataLayout;
import rueda.bus.ProfiDriveSignal;
import rueda.drive.CyclicItem;
import rueda.drive.PowerState;
import rueda.machine.Axis;
import rueda.machine.Machine;
import rueda.machine.Station.Entry;
import rueda.plc.type.Type;
import rueda.quantity.Scale;

/** One value followed from the program to the load, or from the load to the program, with the rounding at each step. */
public final class ValuePath {

    private final Machine machine;
    private final Axis axis;
    private final ProcessDataLayout layout;
    private final int number;
    private final Entry entry;
    private final CyclicItem item;
    private final List<Figure> steps = new ArrayList<>();

    private ValuePath(Machine machine, Axis axis, boolean output, int number) {
        this.machine = machine;
        this.axis = axis;
        this.number = number;
        layout = BusFamily.layout(machine.bus(), output ? axis.station().outputs() : axis.station().inputs());
        entry = layout.entries().get(number);
        item = CyclicItem.find(BusFamily.of(machine.bus()).profile(), entry.object(), entry.subIndex());
    }

    /**
     * A value that the program gives, in units of the axis for positions and speeds, in percent for torques and normalised values, else as it travels.
     *
     * @param number of the entry among the outputs
     * @return the steps, from the program to what it causes
     */
    public static List<Figure> down(Machine machine, Axis axis, int number, double value) {
        ValuePath path = new ValuePath(machine, axis, true, number);
        double perUnit = path.wirePerUnit();
        long wire = Math.round(value * perUnit);
        path.steps.add(new Figure("Program writes", significant(value, 10), path.unit(), "in user units"));
        path.steps.add(new Figure(perUnit == 1 ? "As " + path.wireType() : "× " + significant(perUnit, 10) + ", as " + path.wireType(), count(wire), "", "rounded to the nearest whole number"));
        if (!path.fits(wire)) {
            path.steps.add(new Figure("On the wire", "does not fit into " + path.entry.bits() + " bits", "", "from " + count(path.lowest()) + " to " + count(path.highest())));
            return path.steps;
        }
        path.bytes(wire);
        path.physical(wire, "Load arrives at");
        return path.steps;
    }

    /**
     * What a drive sends.
     *
     * @param number of the entry among the inputs
     * @param value  in units of the axis for positions and speeds, in percent for torques and normalised values, else as it travels
     * @return the steps, from the load to what the program reads
     */
    public static List<Figure> up(Machine machine, Axis axis, int number, double value) {
        ValuePath path = new ValuePath(machine, axis, false, number);
        return path.upward(Math.round(value * path.wirePerUnit()));
    }

    /** The same from what stands on the wire now. @param raw bits of the entry, not sign-extended */
    public static List<Figure> live(Machine machine, Axis axis, boolean output, int number, long raw) {
        ValuePath path = new ValuePath(machine, axis, output, number);
        int unused = 64 - path.entry.bits();
        long wire = path.item != null && path.item.signed() ? raw << unused >> unused : raw;
        if (!output) {
            return path.upward(wire);
        }
        path.steps.add(new Figure("Program writes", significant(wire / path.wirePerUnit(), 10), path.unit(), "÷ " + significant(path.wirePerUnit(), 10)));
        path.steps.add(new Figure("As " + path.wireType(), count(wire), "", ""));
        path.bytes(wire);
        path.physical(wire, "Load is sent to");
        return path.steps;
    }

    private List<Figure> upward(long wire) {
        physical(wire, "Load stands at");
        java.util.Collections.reverse(steps);
        steps.add(new Figure("As " + wireType(), count(wire), "", "what the drive puts into the bytes"));
        if (!fits(wire)) {
            steps.add(new Figure("On the wire", "does not fit into " + entry.bits() + " bits", "", "the higher bits are cut off"));
            return steps;
        }
        bytes(wire);
        if (entry.hasTag()) {
            Type type = Type.named(entry.tagType());
            double value = type.isReal() || entry.scales() ? wire / entry.factor().doubleValue() : type.wrap(wire);
            steps.add(new Figure(entry.tag() + ", " + type, significant(type.isReal() ? value : Math.rint(value), 10), entry.unit(),
                    entry.scales() ? "÷ " + entry.factor().toPlainString() : "as it travels"));
        }
        return steps;
    }

    private double wirePerUnit() {
        return ItemScale.wirePerUnit(axis, item).doubleValue();
    }

    private String unit() {
        return ItemScale.unit(axis, item);
    }

    private String wireType() {
        return item == null ? entry.bits() + " bits" : item.dataType();
    }

    private boolean fits(long wire) {
        return wire >= lowest() && wire <= highest();
    }

    private long lowest() {
        return item != null && item.signed() ? -1L << entry.bits() - 1 : 0;
    }

    private long highest() {
        return (1L << (item != null && item.signed() ? entry.bits() - 1 : entry.bits())) - 1;
    }

    private void bytes(long wire) {
        byte[] image = new byte[layout.bytes()];
        layout.write(image, number, wire);
        int first = layout.bitOffset(number) / 8;
        int last = (layout.bitOffset(number) + entry.bits() - 1) / 8;
        StringBuilder text = new StringBuilder();
        for (int i = first; i <= last; i++) {
            text.append(i > first ? " " : "").append(String.format(Locale.ROOT, "%02X", image[i]));
        }
        steps.add(new Figure(last > first ? "Bytes " + first + "–" + last : "Byte " + first, text.toString(), "", layout.order().words()));
    }

    /** What a value means behind the drive. */
    private void physical(long wire, String arrives) {
        if (item == null) {
            return;
        }
        Scale scale = axis.scale();
        switch (item.meaning()) {
            case POSITION -> counts(scale.countsFromWire(wire), count(wire) + " × " + scale.countsPerWireUnit() + ", rounded", arrives);
            case COUNTS -> counts(wire, "as they travel", arrives);
            case SPEED -> {
                double units = scale.unitsFromWire(wire);
                steps.add(new Figure("Speed of the load", significant(units, 8), axis.unit().symbol() + "/s", "÷ " + count(scale.wireUnitsPerUnit())));
                steps.add(new Figure("Speed of the motor", significant(units * turnsPerUnit() * 60, 7), "1/min", "× motor turns per " + axis.unit().symbol() + " × 60"));
            }
            case TORQUE -> {
                steps.add(new Figure("Share of rated torque", significant(wire / 10.0, 6), "%", "one implied decimal"));
                steps.add(new Figure("Torque of the motor", significant(wire / 1000.0 * axis.motor().ratedTorque(), 6), "N·m", "× " + significant(axis.motor().ratedTorque(), 6) + " N·m"));
            }
            case N2, N4 -> {
                double share = item.meaning() == CyclicItem.Meaning.N2 ? ProfiDriveSignal.fromN2(wire) : ProfiDriveSignal.fromN4(wire);
                double rpm = share * axis.motor().maxSpeed();
                steps.add(new Figure("Share of the reference", significant(100 * share, 8), "%", item.meaning() + ": " + (item.meaning() == CyclicItem.Meaning.N2 ? "4000h" : "4000 0000h") + " is 100 %"));
                steps.add(new Figure("Speed of the motor", significant(rpm, 7), "1/min", "× " + significant(axis.motor().maxSpeed(), 6) + " 1/min"));
                steps.add(new Figure("Speed of the load", significant(rpm / 60 / turnsPerUnit(), 7), axis.unit().symbol() + "/s", "÷ motor turns per " + axis.unit().symbol()));
            }
            case GAIN -> steps.add(new Figure("Position gain", significant(wire / 1000.0, 6), "1/s", "thousandths"));
            case STATUSWORD -> steps.add(new Figure("State", PowerState.of((int) wire).words(), "", "bits 0 to 3, 5 and 6"));
            case MODE -> steps.add(new Figure("Mode", mode((int) wire), "", ""));
            default -> { }
        }
    }

    private void counts(long counts, String formula, String arrives) {
        Scale scale = axis.scale();
        steps.add(new Figure("Encoder counts", count(counts), "", formula));
        steps.add(new Figure("Motor turns", significant((double) counts / axis.encoder().countsPerTurn(), 9), "", "counts ÷ " + count(axis.encoder().countsPerTurn())));
        steps.add(new Figure(arrives, significant(scale.unitsFromCounts(counts), 10), axis.unit().symbol(), "counts × " + scale.unitsPerCount()));
    }

    private double turnsPerUnit() {
        return axis.scale().countsPerWireUnit().toDouble() * axis.scale().wireUnitsPerUnit() / axis.encoder().countsPerTurn();
    }

    private static String mode(int mode) {
        return switch (mode) {
            case 6 -> "homing";
            case 8 -> "cyclic synchronous position";
            case 9 -> "cyclic synchronous velocity";
            case 10 -> "cyclic synchronous torque";
            default -> "mode " + mode;
        };
    }
}
