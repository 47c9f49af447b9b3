package rueda.machine;

import java.util.List;

/**
 * What one EtherCAT station exchanges each cycle.
 *
 * @param outputs PLC to drive, in the order of the bytes
 * @param inputs  drive to PLC, in the order of the bytes
 */
public record Station(List<Entry> outputs, List<Entry> inputs) {

    public Station {
        outputs = outputs == null ? List.of() : List.copyOf(outputs);
        inputs = inputs == null ? List.of() : List.copyOf(inputs);
    }

    /**
     * One entry of the process data and the PLC tag bound to it.
     *
     * @param object   index in the object dictionary, 0 for a filler
     * @param subIndex sub-index, 0 to 254
     * @param bits     width on the wire, 1 to 64
     * @param tag      name of the PLC tag, empty when none is bound
     * @param tagType  elementary type of the tag, IEC 61131-3
     */
    public record Entry(int object, int subIndex, int bits, String tag, String tagType) {
        public boolean isFiller() {
            return object == 0;
        }

        public boolean isBound() {
            return tag != null && !tag.isBlank();
        }
    }

    /**
     * Process data of cyclic synchronous position as most drives offer it, bound to tags of the axis' name; a filler
     * brings the 32-bit values to a multiple of 32 bits.
     */
    public static Station usual(String axis) {
        return new Station(List.of(
                new Entry(0x6040, 0, 16, axis + ".Cmd.Control", "WORD"),
                new Entry(0, 0, 16, "", ""),
                new Entry(0x607A, 0, 32, axis + ".Cmd.Position", "DINT"),
                new Entry(0x6060, 0, 8, axis + ".Cmd.Mode", "SINT")),
                List.of(
                new Entry(0x6041, 0, 16, axis + ".Fb.Status", "WORD"),
                new Entry(0, 0, 16, "", ""),
                new Entry(0x6064, 0, 32, axis + ".Fb.Position", "DINT"),
                new Entry(0x606C, 0, 32, axis + ".Fb.Speed", "DINT"),
                new Entry(0x60F4, 0, 32, axis + ".Fb.FollowingError", "DINT"),
                new Entry(0x60FD, 0, 32, axis + ".Fb.Inputs", "DWORD"),
                new Entry(0x6077, 0, 16, axis + ".Fb.Torque", "INT"),
                new Entry(0x6061, 0, 8, axis + ".Fb.Mode", "SINT")));
    }
}
