package rueda.format.description;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.function.Predicate;
import java.util.stream.Collectors;
import rueda.bus.CanOpen;
import rueda.machine.Axis;
import rueda.machine.Bus;
import rueda.machine.Machine;
import rueda.machine.Station;
import rueda.machine.Station.Entry;
import rueda.machine.Station.StartWrite;
import rueda.machine.Station.Transition;
import rueda.quantity.InvalidEntry;

/**
 * What a device configuration file (CiA 306) says of one node besides describing its device.
 *
 * @param name     of the node, empty when not told
 * @param node     node id, 1 to 127, 0 when not told
 * @param kiloBits bit rate, kbit/s, 0 when not told
 * @param values   given to objects, in the order of their index
 */
public record NodeConfiguration(String name, int node, int kiloBits, List<Value> values) {

    private static final int MAPPED = 0x1600;
    private static final int MAPPED_END = 0x1C00;
    private static final int COMMUNICATION = 0x1400;
    private static final long NOT_VALID = 0x8000_0000L;

    public NodeConfiguration {
        values = List.copyOf(values);
    }

    /**
     * A value given to an object.
     *
     * @param object   index, 1 to FFFFh
     * @param subIndex 0 to 254
     * @param bits     8, 16 or 32
     * @param value    as it stands in the object
     * @param title    name of the object in the file
     */
    public record Value(int object, int subIndex, int bits, long value, String title) {
        String place() {
            return String.format(Locale.ROOT, "%04Xh:%02X", object, subIndex);
        }
    }

    /** A machine with the configuration taken over. @param changes what is different now, in words  @param remarks what was not taken over, and why */
    public record Taken(Machine machine, List<String> changes, List<String> remarks) {
    }

    /**
     * Takes the configuration over for one axis: node id, name, bit rate, process data, and as writes at start-up what does not follow
     * from the configuration of the axis anyway. Tags stay bound to the objects they were bound to.
     *
     * @throws InvalidEntry when the machine is on another bus
     */
    public Taken into(Machine machine, int number) {
        if (machine.bus().family() != Bus.Family.CANOPEN) {
            throw new InvalidEntry("bus", machine.bus().family().words(), "CANopen", "choose CANopen first: a DCF is of a CANopen node");
        }
        Axis axis = machine.axes().get(number);
        List<String> changes = new ArrayList<>();
        List<String> remarks = new ArrayList<>();
        Station station = addressed(machine, axis, changes, remarks);
        Bus bus = machine.bus();
        if (kiloBits != 0 && kiloBits != bus.kiloBits()) {
            changes.add("Bit rate of the bus " + kiloBits + " kbit/s (was " + bus.kiloBits() + ")");
            bus = bus.withFamily(bus.family(), bus.cycleMicros(), kiloBits);
        }
        List<Entry> outputs = direction(station.outputs(), true, changes, remarks);
        List<Entry> inputs = direction(station.inputs(), false, changes, remarks);
        station = station.withEntries(outputs, inputs);
        Machine described = machine.withBus(bus).withAxis(number, axis.withStation(station));
        station = written(described, described.axes().get(number), changes, remarks);
        return new Taken(described.withAxis(number, axis.withStation(station)), changes, remarks);
    }

    private Station addressed(Machine machine, Axis axis, List<String> changes, List<String> remarks) {
        Station station = axis.station();
        if (node != 0 && node != station.address().number()) {
            changes.add("Node id " + node + " (was " + station.address().number() + ")");
            station = station.withAddress(station.address().withNumber(node));
            machine.axes().stream().filter(a -> !a.name().equals(axis.name()) && a.station().address().number() == node)
                    .forEach(a -> remarks.add(a.name() + " has node id " + node + " too: give one of them another"));
        }
        if (!name.isBlank() && !name.equals(DcfWriter.nodeName(axis))) {
            changes.add("Node name “" + name + "” (was “" + DcfWriter.nodeName(axis) + "”)");
            station = station.withAddress(station.address().withName(name.length() > 240 ? name.substring(0, 240) : name));
        }
        return station;
    }

    private List<Entry> direction(List<Entry> present, boolean output, List<String> changes, List<String> remarks) {
        int mapping = MAPPED + (output ? 0 : 0x400);
        Map<Long, Long> byPlace = values.stream().collect(Collectors.toMap(v -> (long) v.object() << 8 | v.subIndex(), Value::value, (a, b) -> b));
        if (values.stream().noneMatch(v -> v.object() >= mapping && v.object() < mapping + 0x200 && v.subIndex() == 0)) {
            return present;
        }
        List<Entry> left = new ArrayList<>(present);
        List<Entry> entries = new ArrayList<>();
        for (int pdo = 1; pdo <= CanOpen.PREDEFINED_PDOS; pdo++) {
            long count = byPlace.getOrDefault((long) (mapping + pdo - 1) << 8, 0L);
            boolean valid = (byPlace.getOrDefault((long) (mapping - 0x200 + pdo - 1) << 8 | 1, 0L) & NOT_VALID) == 0;
            for (int sub = 1; valid && sub <= Math.min(count, 64); sub++) {
                Long mapped = byPlace.get((long) (mapping + pdo - 1) << 8 | sub);
                if (mapped != null) {
                    entries.add(entry(pdo, mapped, left));
                }
            }
        }
        for (Value v : values) {
            if (v.object() >= mapping + CanOpen.PREDEFINED_PDOS && v.object() < mapping + 0x200 && v.subIndex() == 0 && v.value() > 0) {
                remarks.add(v.place() + " maps " + v.value() + " objects; PDOs beyond number " + CanOpen.PREDEFINED_PDOS + " have no identifier in the predefined connection set (CiA 301) and are not taken over");
            }
        }
        if (!entries.equals(present)) {
            changes.add("Process data from the " + (output ? "PLC" : "drive") + ": " + entries.size() + " entries (" + present.size() + " before)");
        }
        return entries;
    }

    /** An entry that is mapped: with the tag it had, or with none. Objects below 20h only fill (CiA 301, dummy mapping). */
    private static Entry entry(int pdo, long mapped, List<Entry> left) {
        int object = (int) (mapped >> 16 & 0xFFFF);
        int sub = (int) (mapped >> 8 & 0xFF);
        int bits = (int) Math.max(1, Math.min(64, mapped & 0xFF));
        if (object < 0x20) {
            return Entry.filler(bits).withPdo(pdo);
        }
        for (Entry e : left) {
            if (e.object() == object && e.subIndex() == sub && e.bits() == bits) {
                left.remove(e);
                return e.withPdo(pdo);
            }
        }
        return new Entry(object, sub, bits, "", "").withPdo(pdo);
    }

    /** What does not follow from the configuration is written by hand. */
    private Station written(Machine machine, Axis axis, List<String> changes, List<String> remarks) {
        Map<Long, Long> derived = DcfWriter.values(machine, axis);
        Station station = axis.station();
        List<StartWrite> writes = new ArrayList<>(station.startWrites());
        int added = 0;
        for (Value v : values) {
            boolean processData = v.object() >= COMMUNICATION && v.object() < MAPPED_END;
            Long present = derived.get((long) v.object() << 8 | v.subIndex());
            long mask = v.bits() == 64 ? -1L : (1L << v.bits()) - 1;
            if (present != null && (present & mask) == (v.value() & mask)) {
                continue;
            }
            if (processData && DcfWriter.isIdentifier(v.object(), v.subIndex()) && present != null) {
                if ((v.value() & NOT_VALID) == 0) {
                    remarks.add(v.place() + " (" + v.title() + "): identifier " + Long.toHexString(v.value()).toUpperCase(Locale.ROOT) + "h is not that of the predefined connection set; the predefined one is used");
                }
                continue;
            }
            if (processData && v.object() >= MAPPED) {
                continue;
            }
            Predicate<StartWrite> same = w -> w.object() == v.object() && w.subIndex() == v.subIndex();
            writes.removeIf(same);
            writes.add(new StartWrite(v.object(), v.subIndex(), v.bits(), v.value(), Transition.PREOP_TO_SAFEOP, v.title().length() > 200 ? v.title().substring(0, 200) : v.title(), true));
            added++;
        }
        if (added > 0) {
            changes.add(added + (added == 1 ? " write" : " writes") + " at start-up, of values that do not follow from the configuration of " + axis.name());
        }
        return station.withStartWrites(writes);
    }
}
