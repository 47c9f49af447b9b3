package rueda.advice;

import static rueda.advice.Numbers.count;
import static rueda.advice.Numbers.significant;

import java.util.ArrayList;
import java.util.List;
import rueda.bus.ProcessDataLayout;
import rueda.drive.DriveObject;
import rueda.machine.Axis;
import rueda.machine.Machine;
import rueda.quantity.Scale;

/** One position followed from the program to the load, with the rounding at each step. */
public final class ValuePath {

    private ValuePath() {
    }

    /**
     * @param value user units the program writes
     * @return the steps, from the program to where the load arrives
     */
    public static List<Figure> of(Machine machine, Axis axis, double value) {
        Scale scale = axis.scale();
        String unit = axis.unit().symbol();
        long wire = scale.wireFromUnits(value);
        ProcessDataLayout layout = new ProcessDataLayout(axis.station().outputs());
        int entry = layout.indexOf(DriveObject.TARGET_POSITION.index(), 0);
        List<Figure> steps = new ArrayList<>();
        steps.add(new Figure("Program writes", significant(value, 10), unit, "in user units"));
        steps.add(new Figure("× " + count(scale.wireUnitsPerUnit()) + ", as DINT", count(wire), "", "rounded to the nearest whole wire unit"));
        if (wire != (int) wire) {
            steps.add(new Figure("On the wire", "does not fit into 32 bits", "", "the largest is " + count(Integer.MAX_VALUE)));
            return steps;
        }
        if (entry >= 0) {
            byte[] image = new byte[layout.bytes()];
            layout.write(image, entry, wire);
            int first = layout.bitOffset(entry) / 8;
            StringBuilder bytes = new StringBuilder();
            for (int i = first; i < first + 4 && i < image.length; i++) {
                bytes.append(i > first ? " " : "").append(String.format("%02X", image[i]));
            }
            steps.add(new Figure("Bytes " + first + "–" + (first + 3), bytes.toString(), "", "least significant byte first"));
        }
        long counts = scale.countsFromWire(wire);
        steps.add(new Figure("Encoder counts", count(counts), "", count(wire) + " × " + scale.countsPerWireUnit() + ", rounded"));
        steps.add(new Figure("Motor turns", significant((double) counts / axis.encoder().countsPerTurn(), 9), "", "counts ÷ " + count(axis.encoder().countsPerTurn())));
        steps.add(new Figure("Load arrives at", significant(scale.unitsFromCounts(counts), 10), unit, "counts × " + scale.unitsPerCount()));
        return steps;
    }
}
