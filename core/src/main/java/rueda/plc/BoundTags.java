package rueda.plc;

import java.util.ArrayList;
import java.util.List;
import rueda.machine.Station.Entry;

/** The tags bound to a station as a table of the PLC. */
public final class BoundTags {

    private BoundTags() {
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
