package rueda.bus;

import java.util.ArrayList;
import java.util.List;
import rueda.machine.Axis;
import rueda.machine.Bus;
import rueda.machine.Bus.Family;
import rueda.machine.Machine;
import rueda.machine.Station;
import rueda.machine.Station.Entry;

/**
 * What a fieldbus decides: order of the bytes, alignment, limits, words, the usual process data and the times on the wire.
 * Everything of a family stands in its one class; docs/architecture.md says how to add one. Stateless and thread-safe.
 */
public sealed interface BusFamily permits EtherCat, CanOpen, Profinet, EtherNetIp, ModbusTcp {

    static BusFamily of(Family family) {
        return switch (family) {
            case ETHERCAT -> EtherCat.INSTANCE;
            case CANOPEN -> CanOpen.INSTANCE;
            case PROFINET -> Profinet.INSTANCE;
            case ETHERNET_IP -> EtherNetIp.INSTANCE;
            case MODBUS_TCP -> ModbusTcp.INSTANCE;
        };
    }

    static BusFamily of(Bus bus) {
        return of(bus.family());
    }

    /** Where the entries of one direction lie on this bus. */
    static ProcessDataLayout layout(Bus bus, List<Entry> entries) {
        return new ProcessDataLayout(entries, of(bus).order(bus));
    }

    /**
     * What is plain about a family.
     *
     * @param order         of the bytes of a value, unless the bus says otherwise
     * @param profile       gives control and status words their meaning
     * @param addressWord   what it calls the number in an address: station alias, node id, unit identifier; empty when it has none
     * @param nameWord      what it calls the name of a station, empty when it has none
     * @param lowestAddress lowest number in an address
     * @param usesIp        stations are found by an IP address
     * @param outputsWord   what it calls the data to a drive, such as "RPDO" or "output assembly"
     * @param inputsWord    what it calls the data from a drive
     * @param usualCycleMicros a cycle that suits most, µs
     */
    record Facts(Family family, WireOrder order, DriveProfile profile, String addressWord, String nameWord, int lowestAddress, int highestAddress, boolean usesIp, String outputsWord, String inputsWord, int usualCycleMicros) {
    }

    Facts facts();

    default Family family() {
        return facts().family();
    }

    default WireOrder order(Bus bus) {
        return facts().order();
    }

    default DriveProfile profile() {
        return facts().profile();
    }

    default String nameWord() {
        return facts().nameWord();
    }

    default String addressWord() {
        return facts().addressWord();
    }

    default int lowestAddress() {
        return facts().lowestAddress();
    }

    default int highestAddress() {
        return facts().highestAddress();
    }

    default boolean usesIp() {
        return facts().usesIp();
    }

    default String directionWord(boolean output) {
        return output ? facts().outputsWord() : facts().inputsWord();
    }

    default int usualCycleMicros() {
        return facts().usualCycleMicros();
    }

    /** Why a bus cycle is not possible, or null. */
    String refusesCycle(int cycleMicros);

    /** The usual process data of this family for an axis, bound to tags of its name. */
    Station usual(String axis, int number);

    /** The rules of the family that a direction breaks. */
    List<LayoutRemark> remarks(Bus bus, List<Entry> entries, boolean output);

    CycleTimes times(Machine machine);

    /** The profile that gives the words their meaning. */
    enum DriveProfile {
        CIA402("IEC 61800-7-201"), PROFIDRIVE("IEC 61800-7-203"), OWN_MAPPING("objects of IEC 61800-7-201 in a mapping of one's own");

        private final String words;

        DriveProfile(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    /** How many messages (PDOs) a direction may be divided into. */
    default int mostMessages() {
        return 1;
    }

    /** First register that is written, or identifier of the first RPDO of node 0; 0 where nothing is counted. */
    default int firstOutput() {
        return 0;
    }

    /** First register that is read, or identifier of the first TPDO of node 0; 0 where nothing is counted. */
    default int firstInput() {
        return 0;
    }

    /** What the shipped drive answers with on this bus. */
    default Station.Identity identity() {
        return Station.Identity.USUAL;
    }

    /** The station of a new axis: the usual one at the lowest address that is free. */
    static Station fresh(Machine machine, String axis) {
        BusFamily family = of(machine.bus());
        int number = 1;
        boolean taken = true;
        while (taken) {
            int tried = number;
            taken = machine.axes().stream().anyMatch(a -> a.station().address().number() == tried
                    || a.station().address().ip().address().equals(Station.Address.of(tried, "").ip().address())) && number < 200;
            number += taken ? 1 : 0;
        }
        return family.usual(axis, number).withIdentity(family.identity());
    }

    /** Bytes of a direction. */
    static int bytes(Bus bus, List<Entry> entries) {
        return layout(bus, entries).bytes();
    }

    /**
     * The machine on another bus: every station gets the usual process data of the family at its number; a tag stays bound
     * where an entry of the same meaning travels. The cycle is the usual one, or longer when that is too short for the frames;
     * the task's interval becomes a multiple of it.
     */
    static Machine moved(Machine machine, Family family) {
        BusFamily to = of(family);
        List<Axis> axes = new ArrayList<>();
        for (int i = 0; i < machine.axes().size(); i++) {
            Axis axis = machine.axes().get(i);
            Station station = axis.station();
            Station usual = to.usual(axis.name(), i + 1);
            int number = Math.max(to.lowestAddress(), Math.min(to.highestAddress(), station.address().number()));
            Station.Identity identity = station.identity().equals(of(machine.bus()).identity()) ? to.identity() : station.identity();
            axes.add(axis.withStation(new Station(station.address().withNumber(number), identity,
                    bound(usual.outputs(), station.outputs()), bound(usual.inputs(), station.inputs()), station.startWrites())));
        }
        int rate = family == Family.CANOPEN ? 1000 : 100_000;
        Machine moved = machine.withAxes(axes).withBus(machine.bus().withFamily(family, to.usualCycleMicros(), rate));
        int cycle = to.usualCycleMicros();
        while (to.refusesCycle(cycle) != null || to.times(moved).shortestNanos() > cycle * 1000L && cycle < 100_000) {
            cycle *= 2;
        }
        return moved.withBus(moved.bus().withCycleMicros(cycle)).withPlc(machine.plc().withCycle(cycle));
    }

    private static List<Entry> bound(List<Entry> usual, List<Entry> before) {
        return usual.stream().map(e -> before.stream().filter(b -> b.hasTag() && meaning(b) == meaning(e)).findFirst()
                .map(b -> e.withTag(b.tag(), b.tagType()).withScale(b.unit(), b.factor())).orElse(e)).toList();
    }

    /** Object of the drive profile that an entry stands for: the words and values of PROFIdrive have counterparts. */
    private static long meaning(Entry entry) {
        ProfiDriveSignal signal = entry.object() < 0x1000 ? ProfiDriveSignal.numbered(entry.object()) : null;
        int object = signal == null ? entry.object() : switch (signal) {
            case STW1 -> 0x6040;
            case ZSW1 -> 0x6041;
            case NIST_A, NIST_B -> 0x606C;
            case G1_XIST1, XIST_A -> 0x6064;
            case MDI_TARPOS -> 0x607A;
            default -> entry.object();
        };
        return object == 0 ? -1 : (long) object << 8 | entry.subIndex();
    }
}
