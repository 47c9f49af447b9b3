package rueda.machine;

import io.soabase.recordbuilder.core.RecordBuilder;
import java.math.BigDecimal;
import java.util.List;

/**
 * One device on the bus and what it exchanges each cycle.
 *
 * @param kind        what it is
 * @param address     where it is found
 * @param identity    which device it must be
 * @param outputs     PLC to drive, in the order of the bytes
 * @param inputs      drive to PLC, in the order of the bytes
 * @param startWrites values added by hand that are written when the station starts, in this order
 */
@RecordBuilder
public record Station(Kind kind, Address address, Identity identity, List<Entry> outputs, List<Entry> inputs, List<StartWrite> startWrites) implements StationBuilder.With {

    public Station {
        outputs = outputs == null ? List.of() : List.copyOf(outputs);
        inputs = inputs == null ? List.of() : List.copyOf(inputs);
        startWrites = startWrites == null ? List.of() : List.copyOf(startWrites);
    }

    /** What a station is. */
    public enum Kind {
        /** A servo drive with one axis. */
        SERVO_DRIVE
    }

    /** A servo drive. */
    public Station(Address address, Identity identity, List<Entry> outputs, List<Entry> inputs, List<StartWrite> startWrites) {
        this(Kind.SERVO_DRIVE, address, identity, outputs, inputs, startWrites);
    }

    public Station(List<Entry> outputs, List<Entry> inputs) {
        this(Address.of(1, "station"), Identity.USUAL, outputs, inputs, List.of());
    }

    /**
     * Where a station is found. Which of these count is decided by the bus family.
     *
     * @param number  station alias (EtherCAT, 0 to 65535), node id (CANopen, 1 to 127) or unit identifier (Modbus, 0 to 255)
     * @param name    station name (PROFINET)
     * @param ip      address, mask and gateway of the families that speak IP
     */
    public record Address(int number, String name, Bus.IpNetwork ip) {
        /** Station number n at 192.168.40.(10 + n). */
        public static Address of(int number, String name) {
            return new Address(number, name, new Bus.IpNetwork("192.168.40." + Math.min(254, 10 + number), "255.255.255.0", ""));
        }

        public Address withNumber(int changed) {
            return new Address(changed, name, ip);
        }

        public Address withName(String changed) {
            return new Address(number, changed, ip);
        }

        public Address withIp(Bus.IpNetwork changed) {
            return new Address(number, name, changed);
        }
    }

    /**
     * Which device is expected.
     *
     * @param device   name in the description
     * @param vendor   vendor id, 0 to 2³² − 1
     * @param product  product code, 0 to 2³² − 1
     * @param revision revision number, 0 to 2³² − 1
     */
    public record Identity(String device, long vendor, long product, long revision) {
        /** The drive that Rueda ships; the vendor id is one of ours and stands for nobody. */
        public static final Identity USUAL = new Identity("Wheelwright W1", 0x7275_6564L, 0x0001_0001L, 0x0001_0002L);
    }

    /** When a value is written while the station starts; ETG.1000.6, state transitions of the EtherCAT state machine. */
    public enum Transition {
        INIT_TO_PREOP("IP", "init to pre-operational"), PREOP_TO_SAFEOP("PS", "pre-operational to safe-operational"), SAFEOP_TO_OP("SO", "safe-operational to operational");

        private final String symbol;
        private final String words;

        Transition(String symbol, String words) {
            this.symbol = symbol;
            this.words = words;
        }

        public String words() {
            return words;
        }

        public String symbol() {
            return symbol;
        }
    }

    /**
     * A value written to an object while the station starts.
     *
     * @param object     index, 0001h to FFFFh
     * @param subIndex   0 to 254
     * @param bits       8, 16 or 32
     * @param value      as it stands in the object, two's complement
     * @param transition when
     * @param comment    why
     * @param enabled    false: kept, and not written
     */
    public record StartWrite(int object, int subIndex, int bits, long value, Transition transition, String comment, boolean enabled) {
    }

    /**
     * One entry of the process data and the PLC tag bound to it.
     *
     * @param pdo      number of the message it travels in, 1 to 8; families with one message a direction have 1
     * @param object   index in the object dictionary (PROFINET: number of the PROFIdrive signal), 0 for a filler
     * @param subIndex sub-index, 0 to 254
     * @param bits     width on the wire, 1 to 64
     * @param name     a name of one's own, empty for that of the object
     * @param tag      name of the PLC tag, empty when none is bound
     * @param tagType  elementary type of the tag, IEC 61131-3
     * @param unit     unit of the tag, empty for the value as it travels
     * @param factor   value on the wire per value of the tag, exact; 1 for the value as it travels
     */
    public record Entry(int pdo, int object, int subIndex, int bits, String name, String tag, String tagType, String unit, BigDecimal factor) {

        public Entry {
            pdo = pdo == 0 ? 1 : pdo;
            name = name == null ? "" : name;
            unit = unit == null ? "" : unit;
            factor = factor == null ? BigDecimal.ONE : factor;
        }

        /** In the first message, without a name, unit or factor of its own. */
        public Entry(int object, int subIndex, int bits, String tag, String tagType) {
            this(1, object, subIndex, bits, "", tag, tagType, "", BigDecimal.ONE);
        }

        public static Entry filler(int bits) {
            return new Entry(0, 0, bits, "", "");
        }

        public boolean fillsGap() {
            return object == 0;
        }

        public boolean hasTag() {
            return tag != null && !tag.isBlank();
        }

        /** The tag holds another number than the wire. */
        public boolean scales() {
            return factor.compareTo(BigDecimal.ONE) != 0;
        }

        public Entry withPdo(int changed) {
            return new Entry(changed, object, subIndex, bits, name, tag, tagType, unit, factor);
        }

        public Entry withTag(String changed, String type) {
            return new Entry(pdo, object, subIndex, bits, name, changed, type, unit, factor);
        }

        public Entry withScale(String itsUnit, BigDecimal itsFactor) {
            return new Entry(pdo, object, subIndex, bits, name, tag, tagType, itsUnit, itsFactor);
        }
    }

    /**
     * Process data of cyclic synchronous position as most drives offer it, bound to tags of the axis' name; a filler
     * brings the 32-bit values to a multiple of 32 bits.
     *
     * @param number address, 1 for the first station
     */
    public static Station usual(String axis, int number) {
        return new Station(Address.of(number, nameOf(axis)), Identity.USUAL, List.of(
                new Entry(0x6040, 0, 16, axis + ".Cmd.Control", "WORD"),
                Entry.filler(16),
                new Entry(0x607A, 0, 32, axis + ".Cmd.Position", "DINT"),
                new Entry(0x6060, 0, 8, axis + ".Cmd.Mode", "SINT")),
                List.of(
                new Entry(0x6041, 0, 16, axis + ".Fb.Status", "WORD"),
                Entry.filler(16),
                new Entry(0x6064, 0, 32, axis + ".Fb.Position", "DINT"),
                new Entry(0x606C, 0, 32, axis + ".Fb.Speed", "DINT"),
                new Entry(0x60F4, 0, 32, axis + ".Fb.FollowingError", "DINT"),
                new Entry(0x60FD, 0, 32, axis + ".Fb.Inputs", "DWORD"),
                new Entry(0x6077, 0, 16, axis + ".Fb.Torque", "INT"),
                new Entry(0x6061, 0, 8, axis + ".Fb.Mode", "SINT")), List.of());
    }

    /** A station name by the rules of PROFINET from the name of an axis: lower-case letters, digits, hyphens. */
    public static String nameOf(String axis) {
        String name = axis.toLowerCase(java.util.Locale.ROOT).replaceAll("[^a-z0-9]+", "-").replaceAll("^-+|-+$", "");
        return name.isEmpty() ? "station" : name;
    }

    public Station withEntries(List<Entry> changedOutputs, List<Entry> changedInputs) {
        return withOutputs(changedOutputs).withInputs(changedInputs);
    }

}
