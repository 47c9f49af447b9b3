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
 * PROFINET IO with PROFIdrive (IEC 61158-x-10, IEC 61800-7-203): one real-time frame a station and direction, words of 16 bits,
 * most significant byte first; the first words are a standard telegram.
 *
 * <p>A frame is tagged (4 bytes), has a frame id (2), at least 40 bytes of data with one provider or consumer status a
 * submodule, and cycle counter, data status and transfer status (4).
 */
public final class Profinet implements BusFamily {

    static final Profinet INSTANCE = new Profinet();
    private static final Facts FACTS = new Facts(Family.PROFINET, WireOrder.BIG_ENDIAN, DriveProfile.PROFIDRIVE, "", "Station name", 0, 65_535, true, "setpoint telegram", "actual value telegram", 1000);

    public static final int SMALLEST_DATA = 40;
    /** Frame id before the data; cycle counter, data status and transfer status behind them. */
    public static final int AROUND_DATA = 2 + 4;
    private static final int MOST_DATA = 1440;
    /** Provider status of the submodule and consumer status of the other direction. */
    public static final int STATUS_BYTES = 2;

    private Profinet() {
    }

    @Override
    public Facts facts() {
        return FACTS;
    }

    @Override
    public String refusesCycle(int cycleMicros) {
        return cycleMicros < 250 || cycleMicros > 64_000 || cycleMicros % 250 != 0 || Integer.bitCount(cycleMicros / 250) != 1 ? "250 µs, or 2, 4, 8 … times that, up to 64 000" : null;
    }

    @Override
    public Station usual(String axis, int number) {
        List<Entry> outputs = new ArrayList<>(StandardTelegram.entries(StandardTelegram.TELEGRAM_5.outputs()));
        List<Entry> inputs = new ArrayList<>(StandardTelegram.entries(StandardTelegram.TELEGRAM_5.inputs()));
        outputs.set(0, outputs.get(0).withTag(axis + ".Cmd.Control", "WORD"));
        inputs.set(0, inputs.get(0).withTag(axis + ".Fb.Status", "WORD"));
        inputs.set(1, inputs.get(1).withTag(axis + ".Fb.Speed", "DINT"));
        inputs.set(4, inputs.get(4).withTag(axis + ".Fb.Position", "DINT"));
        return new Station(Station.Address.of(number, Station.nameOf(axis)), Station.Identity.USUAL, outputs, inputs, List.of());
    }

    @Override
    public List<LayoutRemark> remarks(Bus bus, List<Entry> entries, boolean output) {
        List<LayoutRemark> remarks = new ArrayList<>();
        ProcessDataLayout layout = BusFamily.layout(bus, entries);
        for (int i = 0; i < entries.size(); i++) {
            if (entries.get(i).bits() % 16 != 0) {
                remarks.add(new LayoutRemark(i, "{entry} is not made of whole words.", "A telegram consists of words of 16 bits (IEC 61800-7-203).", true, new LayoutRemark.Mend.None()));
                break;
            }
        }
        ProfiDriveSignal first = output ? ProfiDriveSignal.STW1 : ProfiDriveSignal.ZSW1;
        if (!entries.isEmpty() && entries.get(0).object() != first.number()) {
            remarks.add(new LayoutRemark(0, "The telegram does not begin with " + first + ".", "Every standard telegram does (IEC 61800-7-203): choose one.", true, new LayoutRemark.Mend.None()));
        }
        LayoutRules.most(layout.bytes(), MOST_DATA - STATUS_BYTES, "bytes in one frame", remarks);
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
            there += message("Setpoints of " + axis.name(), BusFamily.bytes(machine.bus(), axis.station().outputs()), messages);
            back += message("Actual values of " + axis.name(), BusFamily.bytes(machine.bus(), axis.station().inputs()), messages);
        }
        long wire = Math.max(there, back);
        long shortest = 250_000;
        while (shortest < wire) {
            shortest *= 2;
        }
        return new CycleTimes(messages, wire, shortest, "full duplex: the longer of both directions; a frame is preamble 8, header 14, tag 4, id 2, data and status bytes (at least 40), 4, check 4, gap 12 byte times × 80 ns");
    }

    private static long message(String name, int data, List<CycleTimes.Message> into) {
        int payload = Ethernet.VLAN_TAG + AROUND_DATA + Math.max(SMALLEST_DATA, data + STATUS_BYTES);
        long nanos = Ethernet.nanos(payload);
        into.add(new CycleTimes.Message(name, Ethernet.byteTimes(payload), nanos, nanos));
        return nanos;
    }
}
