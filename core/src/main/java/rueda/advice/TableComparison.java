package rueda.advice;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import rueda.advice.PlcComparison.Compared;
import rueda.bus.WireOrder;
import rueda.machine.Axis;
import rueda.machine.Machine;
import rueda.machine.Station.Entry;
import rueda.plc.TagRow;
import rueda.quantity.InvalidEntry;

/** A whole table of a PLC against one station: the rows that are of its axis, direction by direction. */
public final class TableComparison {

    private TableComparison() {
    }

    /**
     * @param axisNumber number of the axis
     * @param order      how the PLC reads bytes; null: as the bus has them
     * @param output     direction of rows that tell none and whose names are not bound
     * @return a comparison for each direction that the table has, or should have and has not
     * @throws InvalidEntry when the table is of other axes only
     */
    public static List<Compared> of(Machine machine, int axisNumber, List<TagRow> table, WireOrder order, boolean output) {
        Axis axis = machine.axes().get(axisNumber);
        String pointer = "/axes/" + axisNumber;
        List<TagRow> rows = ofAxis(axis, machine, table);
        boolean tellsDirections = rows.stream().anyMatch(r -> r.output() != null || bound(axis.station().outputs(), r) || bound(axis.station().inputs(), r));
        List<Compared> compared = new ArrayList<>();
        for (boolean written : new boolean[] {true, false}) {
            List<TagRow> direction = rows.stream().filter(r -> written == writes(r, axis, output)).toList();
            if (!direction.isEmpty()) {
                compared.add(PlcComparison.of(machine, axis, pointer, written, direction, order));
            } else if (tellsDirections && (written ? axis.station().outputs() : axis.station().inputs()).stream().anyMatch(e -> !e.fillsGap())) {
                compared.add(PlcComparison.missing(machine, axis, pointer, written));
            }
        }
        return compared;
    }

    /** Rows of one axis, when the table names axes. */
    private static List<TagRow> ofAxis(Axis axis, Machine machine, List<TagRow> rows) {
        boolean named = rows.stream().anyMatch(r -> begins(r, axis.name()));
        boolean others = rows.stream().anyMatch(r -> machine.axes().stream().anyMatch(a -> a != axis && begins(r, a.name())));
        if (!named && others) {
            throw new InvalidEntry("text", rows.size() + " tags", "tags of " + axis.name(), "choose the axis whose table this is");
        }
        return named ? rows.stream().filter(r -> begins(r, axis.name())).toList() : rows;
    }

    private static boolean begins(TagRow row, String axis) {
        String name = row.name().toLowerCase(Locale.ROOT);
        return name.length() > axis.length() && name.startsWith(axis.toLowerCase(Locale.ROOT)) && (name.charAt(axis.length()) == '.' || name.charAt(axis.length()) == '_');
    }

    private static boolean writes(TagRow row, Axis axis, boolean otherwise) {
        if (row.output() != null) {
            return row.output();
        }
        return bound(axis.station().outputs(), row) || !bound(axis.station().inputs(), row) && otherwise;
    }

    private static boolean bound(List<Entry> entries, TagRow row) {
        String name = row.name().replace('.', '_');
        return entries.stream().anyMatch(e -> e.hasTag() && e.tag().replace('.', '_').equalsIgnoreCase(name));
    }
}
