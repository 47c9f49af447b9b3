package rueda.machine;

import java.util.List;
import java.util.OptionalLong;
import java.util.Set;
import java.util.regex.Pattern;
import rueda.machine.Bus.IpNetwork;

/** Which entries of the bus and its stations can be stored; part of {@link MachineRules}. */
public final class StationRules {

    private static final Pattern TAG = Pattern.compile("[A-Za-z_][A-Za-z0-9_]*(\\.[A-Za-z_][A-Za-z0-9_]*)*");
    /** What the readers of tag tables take too. */
    private static final int LONGEST_TAG = 200;
    /** Elementary types of IEC 61131-3 that a tag can have. */
    public static final List<String> TAG_TYPES = List.of("BOOL", "SINT", "INT", "DINT", "LINT", "USINT", "UINT", "UDINT",
            "ULINT", "BYTE", "WORD", "DWORD", "LWORD", "REAL", "LREAL");
    /** Bit rates of CiA 301, kbit/s. */
    public static final List<Integer> CANOPEN_RATES = List.of(10, 20, 50, 125, 250, 500, 800, 1000);
    private static final long UNSIGNED_32 = 0xFFFF_FFFFL;
    private static final int MOST_ENTRIES = 256;
    private static final int MOST_WRITES = 1000;

    private final List<EntryFault> faults;

    StationRules(List<EntryFault> faults) {
        this.faults = faults;
    }

    void bus(Bus bus) {
        int cycle = bus.cycleMicros();
        if (cycle < 250 || cycle > 100_000 || cycle % 125 != 0) {
            refuse("/bus/cycleMicros", "Bus cycle", cycle + " µs", "250 to 100\u202f000 µs in steps of 125", "choose 1000 µs");
        }
        if (missing("/bus/family", "Bus family", bus.family()) | missing("/bus/plc", "Network of the PLC", bus.plc()) | missing("/bus/clock", "Distributed clocks", bus.clock())) {
            return;
        }
        if (bus.family() == Bus.Family.CANOPEN && !CANOPEN_RATES.contains(bus.kiloBits())) {
            refuse("/bus/kiloBits", "Bit rate", bus.kiloBits() + " kbit/s", "10, 20, 50, 125, 250, 500, 800 or 1000 kbit/s", "choose 1000 kbit/s");
        }
        network("/bus/plc", bus.plc());
        if (bus.clock().reference() == null || bus.clock().reference().length() > 80) {
            refuse("/bus/clock/reference", "Reference station", String.valueOf(bus.clock().reference()), "the name of an axis, or nothing for the first", "choose a station");
        }
        whole("/bus/clock/shiftMicros", "Shift", bus.clock().shiftMicros(), 0, Math.max(0, cycle));
        whole("/bus/clock/windowNanos", "Clock window", bus.clock().windowNanos(), 0, 1_000_000);
    }

    /** Tags declared by hand. */
    void tags(List<Plc.DeclaredTag> tags) {
        if (tags.size() > 2000) {
            refuse("/plc/tags", "Declared tags", tags.size() + " tags", "up to 2000", "remove some");
            return;
        }
        Set<String> names = new java.util.HashSet<>();
        for (int i = 0; i < tags.size(); i++) {
            String name = String.valueOf(tags.get(i).name());
            if (!isTag(name) || !names.add(name.toUpperCase(java.util.Locale.ROOT))) {
                refuse("/plc/tags/" + i + "/name", "Declared tag", name, "names of letters, digits and _, joined by dots, up to " + LONGEST_TAG + " characters, each once", "rename the tag");
            }
            if (!TAG_TYPES.contains(String.valueOf(tags.get(i).type()))) {
                refuse("/plc/tags/" + i + "/type", "Type of " + name, String.valueOf(tags.get(i).type()), "an elementary type such as DINT", "choose a type");
            }
        }
    }

    void station(String at, Station station) {
        if (missing(at + "/address", "Address", station.address()) | missing(at + "/identity", "Device", station.identity())) {
            return;
        }
        whole(at + "/address/number", "Station address", station.address().number(), 0, 65_535);
        if (station.address().name() == null || station.address().name().length() > 240) {
            refuse(at + "/address/name", "Station name", String.valueOf(station.address().name()), "up to 240 characters", "shorten it");
        }
        if (!missing(at + "/address/ip", "IP address", station.address().ip())) {
            network(at + "/address/ip", station.address().ip());
        }
        if (station.identity().device() == null || station.identity().device().length() > 200) {
            refuse(at + "/identity/device", "Device", String.valueOf(station.identity().device()), "up to 200 characters", "shorten it");
        }
        whole(at + "/identity/vendor", "Vendor id", station.identity().vendor(), 0, UNSIGNED_32);
        whole(at + "/identity/product", "Product code", station.identity().product(), 0, UNSIGNED_32);
        whole(at + "/identity/revision", "Revision", station.identity().revision(), 0, UNSIGNED_32);
        entries(at + "/outputs", station.outputs());
        entries(at + "/inputs", station.inputs());
        if (station.startWrites().size() > MOST_WRITES) {
            refuse(at + "/startWrites", "Writes at start-up", station.startWrites().size() + " writes", "up to " + MOST_WRITES, "remove some");
            return;
        }
        for (int i = 0; i < station.startWrites().size(); i++) {
            startWrite(at + "/startWrites/" + i, station.startWrites().get(i));
        }
    }

    private void network(String at, IpNetwork network) {
        address(at + "/address", "IP address", network.address());
        OptionalLong mask = address(at + "/mask", "Network mask", network.mask());
        if (mask.isPresent() && (Long.bitCount(~mask.getAsLong() & UNSIGNED_32 & (~mask.getAsLong() & UNSIGNED_32) + 1) != 0)) {
            refuse(at + "/mask", "Network mask", network.mask(), "ones, then zeros, such as 255.255.255.0", "correct it");
        }
        if (network.gateway() != null && !network.gateway().isBlank()) {
            address(at + "/gateway", "Gateway", network.gateway());
        }
    }

    private OptionalLong address(String field, String label, String text) {
        OptionalLong address = IpNetwork.number(text);
        if (address.isEmpty()) {
            refuse(field, label, String.valueOf(text), "four numbers from 0 to 255 joined by dots", "enter one such as 192.168.40.11");
        }
        return address;
    }

    private void entries(String at, List<Station.Entry> entries) {
        if (entries.size() > MOST_ENTRIES) {
            refuse(at, "Entries", entries.size() + " entries", "up to " + MOST_ENTRIES, "remove some");
            return;
        }
        for (int i = 0; i < entries.size(); i++) {
            Station.Entry entry = entries.get(i);
            whole(at + "/" + i + "/pdo", "Message", entry.pdo(), 1, 8);
            whole(at + "/" + i + "/bits", "Bits", entry.bits(), 1, 64);
            whole(at + "/" + i + "/object", "Object", entry.object(), 0, 0xFFFF);
            whole(at + "/" + i + "/subIndex", "Sub-index", entry.subIndex(), 0, 254);
            if (entry.name().length() > 60) {
                refuse(at + "/" + i + "/name", "Name", entry.name(), "up to 60 characters", "shorten it");
            }
            if (entry.unit().length() > 12) {
                refuse(at + "/" + i + "/unit", "Unit of the tag", entry.unit(), "up to 12 characters", "shorten it");
            }
            if (entry.factor().signum() <= 0 || entry.factor().precision() > 20 || Math.abs(entry.factor().scale()) > 20) {
                refuse(at + "/" + i + "/factor", "Value on the wire per tag value", entry.factor().toString(), "greater than 0, at most 20 digits", "enter 1 when the tag holds what travels");
            }
            if (entry.hasTag() && !isTag(entry.tag())) {
                refuse(at + "/" + i + "/tag", "PLC tag", entry.tag(), "names of letters, digits and _, joined by dots, up to " + LONGEST_TAG + " characters", "rename the tag");
            }
            if (entry.hasTag() && !TAG_TYPES.contains(String.valueOf(entry.tagType()))) {
                refuse(at + "/" + i + "/tagType", "Tag type", String.valueOf(entry.tagType()), "an elementary type such as DINT", "choose a type");
            }
        }
    }

    private static boolean isTag(String name) {
        return name.length() <= LONGEST_TAG && TAG.matcher(name).matches();
    }

    private void startWrite(String at, Station.StartWrite write) {
        whole(at + "/object", "Object", write.object(), 1, 0xFFFF);
        whole(at + "/subIndex", "Sub-index", write.subIndex(), 0, 254);
        if (write.bits() != 8 && write.bits() != 16 && write.bits() != 32) {
            refuse(at + "/bits", "Bits", Integer.toString(write.bits()), "8, 16 or 32", "choose the width of the object");
            return;
        }
        whole(at + "/value", "Value", write.value(), -1L << write.bits() - 1, (1L << write.bits()) - 1);
        missing(at + "/transition", "Transition", write.transition());
        if (write.comment() == null || write.comment().length() > 200) {
            refuse(at + "/comment", "Comment", String.valueOf(write.comment()), "up to 200 characters", "shorten it");
        }
    }

    private boolean missing(String field, String label, Object value) {
        if (value == null) {
            refuse(field, label, "missing", "a value", "enter it");
        }
        return value == null;
    }

    private void whole(String field, String label, long value, long low, long high) {
        if (value < low || value > high) {
            refuse(field, label, Long.toString(value), low + " to " + high, "enter a whole number in this range");
        }
    }

    private void refuse(String field, String label, String value, String allowed, String mend) {
        faults.add(new EntryFault(field, label, value, allowed, mend));
    }
}
