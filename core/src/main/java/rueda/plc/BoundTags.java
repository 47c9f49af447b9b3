package rueda.plc;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.stream.IntStream;
import rueda.bus.BusFamily;
import rueda.bus.ProcessDataLayout;
import rueda.bus.StationPlace;
import rueda.machine.Machine;
import rueda.machine.Station.Entry;
import rueda.plc.type.Type;
import rueda.quantity.InvalidEntry;

/** The tags bound to a station as a table of the PLC. */
public final class BoundTags {

    private BoundTags() {
    }

    /**
     * Every bound tag of a machine, station after station, with its place in the image of the network.
     *
     * @throws InvalidEntry when a tag is bound to two entries
     */
    public static List<TagRow> of(Machine machine) {
        List<TagRow> rows = all(machine);
        Set<String> names = new HashSet<>();
        rows.stream().filter(row -> !names.add(row.name().toLowerCase(Locale.ROOT))).findFirst().ifPresent(twice -> {
            throw new InvalidEntry("machine", "tag " + twice.name() + " bound more than once", "each tag bound to one entry, capital letters or not", "bind the other entry to a tag of its own");
        });
        return rows;
    }

    /** The same, with a tag that is bound more than once standing more than once. */
    public static List<TagRow> all(Machine machine) {
        List<TagRow> rows = new ArrayList<>();
        List<StationPlace> places = StationPlace.of(machine);
        for (int i = 0; i < places.size(); i++) {
            rows.addAll(of(machine, machine.axes().get(i).station().outputs(), true, places.get(i).outputs()));
            rows.addAll(of(machine, machine.axes().get(i).station().inputs(), false, places.get(i).inputs()));
        }
        return rows;
    }

    private static List<TagRow> of(Machine machine, List<Entry> entries, boolean output, int from) {
        ProcessDataLayout layout = BusFamily.layout(machine.bus(), entries);
        return of(entries, IntStream.range(0, entries.size()).map(layout::bitOffset).toArray(), output, from);
    }

    /**
     * Rows of one direction.
     *
     * @param offsets place of each entry, bits from the start of the station
     * @param from    byte of the image where the station begins
     */
    public static List<TagRow> of(List<Entry> entries, int[] offsets, boolean output, int from) {
        List<TagRow> rows = new ArrayList<>();
        for (int i = 0; i < entries.size(); i++) {
            Entry entry = entries.get(i);
            if (entry.hasTag()) {
                rows.add(new TagRow(entry.tag(), Type.named(entry.tagType()), output, from * 8 + offsets[i], entry.unit()));
            }
        }
        return rows;
    }
}
