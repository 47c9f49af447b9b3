package rueda.bus;

import java.util.ArrayList;
import java.util.List;
import rueda.machine.Bus;
import rueda.machine.Bus.Family;
import rueda.machine.Machine;
import rueda.machine.Station;
import rueda.machine.Station.Entry;

/**
 * EtherCAT with CANopen over EtherCAT (ETG.1000, IEC 61158-x-12): one frame passes all stations and each takes and puts its
 * part; entries are packed to the bit.
 *
 * <p>A frame holds a header of 2 bytes and datagrams of 10 bytes header, data and 2 bytes working counter. Process data is cut
 * between stations, one frame each; the last frame of a cycle hands the time of the reference station on and asks for the states.
 */
public final class EtherCat implements BusFamily {

    static final EtherCat INSTANCE = new EtherCat();
    private static final Facts FACTS = new Facts(Family.ETHERCAT, WireOrder.LITTLE_ENDIAN, DriveProfile.CIA402, "Station alias", "", 0, 65_535, false, "outputs, RxPDO", "inputs, TxPDO", 1000);

    private static final int FRAME_HEADER = 2;
    /** Header and working counter of a datagram. */
    public static final int DATAGRAM = 12;
    /** Process data that fits a frame: 1500 bytes of payload less the headers. */
    public static final int MOST_DATA = 1486;
    /** A frame takes about so long through one station (common practice, no source). */
    private static final long NANOS_PER_STATION = 1000;

    private EtherCat() {
    }

    @Override
    public Facts facts() {
        return FACTS;
    }

    @Override
    public String refusesCycle(int cycleMicros) {
        return cycleMicros < 250 || cycleMicros > 8000 || cycleMicros % 125 != 0 ? "250 to 8000 µs in steps of 125" : null;
    }

    @Override
    public Station usual(String axis, int number) {
        return Station.usual(axis, number);
    }

    @Override
    public List<LayoutRemark> remarks(Bus bus, List<Entry> entries, boolean output) {
        List<LayoutRemark> remarks = new ArrayList<>();
        LayoutRules.alignment(BusFamily.layout(bus, entries), 32, 32, false,
                "A PLC that aligns 32-bit values would read it, and all that follow, {off}.", remarks);
        LayoutRules.most(BusFamily.bytes(bus, entries), MOST_DATA, "bytes in one frame (ETG.1000.4)", remarks);
        return remarks;
    }

    /** Byte times of one frame with one logical read-write datagram, gap included. @param processBytes 0 to 1486 */
    public static int byteTimes(int processBytes) {
        return Ethernet.byteTimes(FRAME_HEADER + DATAGRAM + processBytes);
    }

    /** Bytes a station takes in the logical image: both directions share them. */
    public static int logicalBytes(Bus bus, Station station) {
        return Math.max(BusFamily.bytes(bus, station.outputs()), BusFamily.bytes(bus, station.inputs()));
    }

    /**
     * A frame with one logical read-write datagram over whole stations.
     *
     * @param first          number of the first station
     * @param stations       how many
     * @param start          first byte in the logical image
     * @param bytes          process data
     * @param workingCounter what comes back when every station took part: 1 for reading from one, 2 for writing to it (ETG.1000.4, LRW; from memory)
     */
    public record Datagram(int first, int stations, int start, int bytes, int workingCounter) {
    }

    /** The frames of a cycle, cut between stations: what the network information says, what travels, and what takes time. */
    public static List<Datagram> datagrams(Machine machine) {
        List<Datagram> datagrams = new ArrayList<>();
        int first = 0;
        int start = 0;
        int used = 0;
        int counter = 0;
        for (int i = 0; i < machine.axes().size(); i++) {
            Station station = machine.axes().get(i).station();
            int bytes = logicalBytes(machine.bus(), station);
            if (i > first && used + bytes > MOST_DATA) {
                datagrams.add(new Datagram(first, i - first, start, used, counter));
                first = i;
                start += used;
                used = 0;
                counter = 0;
            }
            used += bytes;
            counter += (station.inputs().isEmpty() ? 0 : 1) + (station.outputs().isEmpty() ? 0 : 2);
        }
        datagrams.add(new Datagram(first, machine.axes().size() - first, start, used, counter));
        return datagrams;
    }

    /** Configured station address of the first station; each further one has the next (common practice, no source). */
    public static final int FIRST_ADDRESS = 1001;
    /** Where process data begins among the logical addresses (common practice, no source). */
    public static final int LOGICAL_START = 0x0001_0000;

    /** Bytes of the datagrams in the last frame of a cycle: the time of the reference station, handed on to all, and the states of all combined. */
    public static int serviceBytes() {
        return DATAGRAM + EtherCatRegister.SYSTEM_TIME.bytes() + DATAGRAM + EtherCatRegister.STATE.bytes();
    }

    /** Configured station address of the station that gives the time. */
    public static int referenceAddress(Machine machine) {
        String name = machine.bus().clock().reference();
        for (int i = 0; i < machine.axes().size(); i++) {
            if (machine.axes().get(i).name().equals(name)) {
                return FIRST_ADDRESS + i;
            }
        }
        return FIRST_ADDRESS;
    }

    @Override
    public CycleTimes times(Machine machine) {
        int data = machine.axes().stream().mapToInt(a -> logicalBytes(machine.bus(), a.station())).sum();
        List<CycleTimes.Message> messages = new ArrayList<>();
        long wire = 0;
        for (Datagram datagram : datagrams(machine)) {
            int size = byteTimes(datagram.bytes());
            long nanos = size * Ethernet.NANOS_PER_BYTE;
            messages.add(new CycleTimes.Message("Frame " + (messages.size() + 1) + ", " + datagram.bytes() + " bytes of process data", size, nanos, nanos));
            wire += nanos;
        }
        int service = Ethernet.byteTimes(FRAME_HEADER + serviceBytes());
        messages.add(new CycleTimes.Message("Frame " + (messages.size() + 1) + ", time of the reference station and states", service, service * Ethernet.NANOS_PER_BYTE, service * Ethernet.NANOS_PER_BYTE));
        wire += service * Ethernet.NANOS_PER_BYTE;
        long through = machine.axes().size() * NANOS_PER_STATION;
        return new CycleTimes(messages, wire, LayoutRules.roundUp(wire + through, 125_000),
                messages.stream().mapToInt(CycleTimes.Message::size).sum() + " byte times × 80 ns: preamble 8, header 14, EtherCAT 2 + 12, data " + data
                        + ", for time and states 2 + " + serviceBytes() + " (at least 46 in all), check 4, gap 12; about 1 µs through each station");
    }
}
