package rueda.drive;

import java.util.ArrayList;
import java.util.List;
import java.util.TreeMap;
import rueda.bus.BusFamily;
import rueda.bus.CanOpen;
import rueda.bus.BusFamily.DriveProfile;
import rueda.machine.Axis;
import rueda.machine.Bus;
import rueda.machine.Bus.Family;
import rueda.machine.Station;
import rueda.machine.Station.Entry;
import rueda.machine.Station.StartWrite;
import rueda.machine.Station.Transition;

/**
 * What is written to a station while it starts: the process data it is to exchange (CiA 301: mapping objects; ETG.1000.6: assignment
 * 1C12h and 1C13h), the parameters that follow from the configuration, then what was added by hand.
 */
public final class StartUp {

    private StartUp() {
    }

    /** Bit 31 of a PDO's identifier: not valid. The identifier itself stays, no device has to change it while the PDO is valid (CiA 301, 7.5.2.36; clause from memory). */
    private static final long NOT_VALID = 0x8000_0000L;

    /** Those that follow from the configuration, in order. Families without an object dictionary have none. */
    public static List<StartWrite> derived(Bus bus, Axis axis) {
        DriveProfile profile = BusFamily.of(bus).profile();
        if (profile == DriveProfile.PROFIDRIVE || bus.family() == Family.MODBUS_TCP) {
            return List.of();
        }
        List<StartWrite> writes = new ArrayList<>();
        if (profile == DriveProfile.CIA402) {
            mapping(bus, axis.station().outputs(), true, writes);
            mapping(bus, axis.station().inputs(), false, writes);
        }
        parameters(axis, writes);
        return writes;
    }

    /** All in order: derived ones, then those by hand. */
    public static List<StartWrite> all(Bus bus, Axis axis) {
        List<StartWrite> writes = new ArrayList<>(derived(bus, axis));
        writes.addAll(axis.station().startWrites());
        return writes;
    }

    private static void mapping(Bus bus, List<Entry> entries, boolean output, List<StartWrite> into) {
        boolean etherCat = bus.family() == Family.ETHERCAT;
        int map = output ? 0x1600 : 0x1A00;
        int assign = output ? 0x1C12 : 0x1C13;
        int communication = output ? 0x1400 : 0x1800;
        TreeMap<Integer, List<Entry>> pdos = new TreeMap<>();
        entries.forEach(e -> pdos.computeIfAbsent(e.pdo(), k -> new ArrayList<>()).add(e));
        if (etherCat) {
            into.add(write(assign, 0, 8, 0, "no PDO assigned while the mapping changes"));
        }
        pdos.forEach((pdo, mapped) -> {
            String name = (output ? "RPDO " : "TPDO ") + pdo;
            int index = map + pdo - 1;
            if (!etherCat) {
                into.add(write(communication + pdo - 1, 1, 32, NOT_VALID | CanOpen.cobId(output, pdo, 0), name + " not valid while its mapping changes, identifier + node id"));
                into.add(write(communication + pdo - 1, 2, 8, 1, name + " at every SYNC"));
            }
            into.add(write(index, 0, 8, 0, name + ", no entry"));
            for (int i = 0; i < mapped.size(); i++) {
                Entry e = mapped.get(i);
                DriveObject object = DriveObject.find(e.object(), e.subIndex());
                into.add(write(index, i + 1, 32, (long) e.object() << 16 | (long) e.subIndex() << 8 | e.bits(), e.fillsGap() ? "filler, " + e.bits() + " bit" : object == null ? "" : object.title()));
            }
            into.add(write(index, 0, 8, mapped.size(), name + ", number of entries"));
            if (!etherCat) {
                into.add(write(communication + pdo - 1, 1, 32, CanOpen.cobId(output, pdo, 0), name + ", identifier + node id"));
            }
        });
        if (bus.family() == Family.CANOPEN) {
            /* the predefined PDOs are valid at power-up: one that nobody uses would go on sending, and take its part of the bus */
            for (int pdo = 1; pdo <= CanOpen.PREDEFINED_PDOS; pdo++) {
                if (!pdos.containsKey(pdo)) {
                    into.add(write(communication + pdo - 1, 1, 32, NOT_VALID | CanOpen.cobId(output, pdo, 0), (output ? "RPDO " : "TPDO ") + pdo + " not used, switched off, identifier + node id"));
                }
            }
        }
        if (etherCat) {
            int number = 1;
            for (int pdo : pdos.keySet()) {
                into.add(write(assign, number++, 16, map + pdo - 1, (output ? "RPDO " : "TPDO ") + pdo + " assigned"));
            }
            into.add(write(assign, 0, 8, pdos.size(), "number of PDOs"));
        }
    }

    private static StartWrite write(int object, int subIndex, int bits, long value, String comment) {
        return new StartWrite(object, subIndex, bits, value, Transition.PREOP_TO_SAFEOP, comment, true);
    }

    private static void parameters(Axis axis, List<StartWrite> into) {
        ObjectDictionary dictionary = new ObjectDictionary();
        ParameterWrites.positionFactors(dictionary, axis.scale());
        ParameterWrites.values(dictionary, axis.withStation(axis.station().withStartWrites(List.of())));
        for (DriveObject object : DriveObject.values()) {
            long value = dictionary.get(object);
            if (object.writable() && value != 0) {
                into.add(new StartWrite(object.index(), object.subIndex(), object.bits(), value, Transition.PREOP_TO_SAFEOP, object.title(), true));
            }
        }
    }

    /** Lets the enabled writes by hand act on the objects of a drive. */
    static void byHand(ObjectDictionary dictionary, Station station) {
        for (StartWrite write : station.startWrites()) {
            DriveObject object = DriveObject.find(write.object(), write.subIndex());
            if (write.enabled() && object != null && object.writable() && !(write.value() == 0 && ParameterWrites.isPositionFactor(object))) {
                dictionary.set(object, write.value());
            }
        }
    }
}
