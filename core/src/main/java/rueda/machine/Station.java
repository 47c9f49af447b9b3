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
}
