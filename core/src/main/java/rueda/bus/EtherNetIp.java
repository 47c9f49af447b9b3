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
 * EtherNet/IP (CIP, IEC 61158-x-2): implicit messages of class 1 over UDP, an assembly a direction, least significant byte
 * first, 32-bit values on a 4-byte boundary.
 *
 * <p>A message has a count of items (2 bytes), an address item with connection id and sequence number (12), a data item
 * (4) with a sequence count (2) and, to the drive, a run/idle header (4) before the assembly.
 */
public final class EtherNetIp implements BusFamily {

    static final EtherNetIp INSTANCE = new EtherNetIp();
    private static final Facts FACTS = new Facts(Family.ETHERNET_IP, WireOrder.LITTLE_ENDIAN, DriveProfile.OWN_MAPPING, "", "", 0, 65_535, true, "output assembly", "input assembly", 2000);

    public static final int ITEMS = 2 + 12 + 4;
    public static final int SEQUENCE_COUNT = 2;
    public static final int RUN_IDLE_HEADER = 4;
    /** A connection opened with the ordinary Forward_Open carries 511 bytes, sequence count included. */
    private static final int MOST_CONNECTION = 511;

    private EtherNetIp() {
    }

    @Override
    public Facts facts() {
        return FACTS;
    }

    @Override
    public String refusesCycle(int cycleMicros) {
        return cycleMicros < 500 || cycleMicros > 100_000 || cycleMicros % 125 != 0 ? "500 to 100 000 µs in steps of 125" : null;
    }

    @Override
    public Station usual(String axis, int number) {
        Station station = Station.usual(axis, number);
        List<Entry> outputs = new ArrayList<>(station.outputs());
        outputs.add(Entry.filler(24));
        List<Entry> inputs = new ArrayList<>(station.inputs());
        inputs.add(Entry.filler(8));
        return station.withEntries(outputs, inputs);
    }

    @Override
    public List<LayoutRemark> remarks(Bus bus, List<Entry> entries, boolean output) {
        List<LayoutRemark> remarks = new ArrayList<>();
        ProcessDataLayout layout = BusFamily.layout(bus, entries);
        LayoutRules.alignment(layout, 32, 32, true, "The PLC aligns 32-bit members of an assembly; it would read this one, and all that follow, {off}.", remarks);
        LayoutRules.alignment(layout, 16, 16, true, "The PLC aligns 16-bit members of an assembly; it would read this one {off}.", remarks);
        if (remarks.isEmpty()) {
            LayoutRules.endsOn(layout, 32, "The PLC makes the structure as long as its widest member asks for; the connection sizes would differ.", remarks);
        }
        LayoutRules.most(layout.bytes() + SEQUENCE_COUNT + (output ? RUN_IDLE_HEADER : 0), MOST_CONNECTION, "bytes in one connection, sequence count and header included", remarks);
        return remarks;
    }

    @Override
    public Station.Identity identity() {
        return new Station.Identity("Wheelwright W1", 0x7275, 1, 0x1_0002);
    }

    @Override
    public CycleTimes times(Machine machine) {
        List<CycleTimes.Message> messages = new ArrayList<>();
        long there = 0;
        long back = 0;
        for (Axis axis : machine.axes()) {
            there += message("To " + axis.name(), RUN_IDLE_HEADER + BusFamily.bytes(machine.bus(), axis.station().outputs()), messages);
            back += message("From " + axis.name(), BusFamily.bytes(machine.bus(), axis.station().inputs()), messages);
        }
        long wire = Math.max(there, back);
        return new CycleTimes(messages, wire, LayoutRules.roundUp(wire, 500_000), "full duplex: the longer of both directions; a frame is preamble 8, header 14, IP 20, UDP 8, items 18, sequence 2, run/idle 4 to the drive, data, check 4, gap 12 byte times × 80 ns");
    }

    private static long message(String name, int data, List<CycleTimes.Message> into) {
        int payload = Ethernet.IPV4_HEADER + Ethernet.UDP_HEADER + ITEMS + SEQUENCE_COUNT + data;
        long nanos = Ethernet.nanos(payload);
        into.add(new CycleTimes.Message(name, Ethernet.byteTimes(payload), nanos, nanos));
        return nanos;
    }
}
