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
 * Modbus TCP (Modbus application protocol V1.1b3, IEC 61158-x-15): each cycle one request "read and write multiple registers" (function 17h)
 * a station and its answer; registers of 16 bits, most significant byte first.
 *
 * <p>A request is MBAP header 7, function 1, addresses and counts 9 bytes and the registers; an answer MBAP header 7,
 * function 1, byte count 1 and the registers.
 */
public final class ModbusTcp implements BusFamily {

    static final ModbusTcp INSTANCE = new ModbusTcp();
    private static final Facts FACTS = new Facts(Family.MODBUS_TCP, WireOrder.BIG_ENDIAN, DriveProfile.OWN_MAPPING, "Unit identifier", "", 0, 255, true, "written registers", "read registers", 4000);

    /** First register that the PLC writes, and first that it reads. */
    public static final int WRITE_FROM = 0x0100;
    public static final int READ_FROM = 0x0200;
    private static final int MOST_WRITTEN = 121;
    private static final int MOST_READ = 125;
    private static final int MBAP = 7;

    private ModbusTcp() {
    }

    @Override
    public Facts facts() {
        return FACTS;
    }

    @Override
    public WireOrder order(Bus bus) {
        return bus.lowWordFirst() ? WireOrder.LOW_WORD_FIRST : WireOrder.BIG_ENDIAN;
    }

    @Override
    public String refusesCycle(int cycleMicros) {
        return cycleMicros < 1000 || cycleMicros > 100_000 || cycleMicros % 125 != 0 ? "1000 to 100 000 µs in steps of 125" : null;
    }

    @Override
    public Station usual(String axis, int number) {
        return new Station(Station.Address.of(number, Station.nameOf(axis)), Station.Identity.USUAL, List.of(
                new Entry(0x6040, 0, 16, axis + ".Cmd.Control", "WORD"),
                new Entry(0x607A, 0, 32, axis + ".Cmd.Position", "DINT"),
                Entry.filler(8),
                new Entry(0x6060, 0, 8, axis + ".Cmd.Mode", "SINT")),
                List.of(
                new Entry(0x6041, 0, 16, axis + ".Fb.Status", "WORD"),
                new Entry(0x6064, 0, 32, axis + ".Fb.Position", "DINT"),
                new Entry(0x606C, 0, 32, axis + ".Fb.Speed", "DINT"),
                new Entry(0x60F4, 0, 32, axis + ".Fb.FollowingError", "DINT"),
                new Entry(0x60FD, 0, 32, axis + ".Fb.Inputs", "DWORD"),
                new Entry(0x6077, 0, 16, axis + ".Fb.Torque", "INT"),
                Entry.filler(8),
                new Entry(0x6061, 0, 8, axis + ".Fb.Mode", "SINT")), List.of());
    }

    @Override
    public List<LayoutRemark> remarks(Bus bus, List<Entry> entries, boolean output) {
        List<LayoutRemark> remarks = new ArrayList<>();
        ProcessDataLayout layout = BusFamily.layout(bus, entries);
        LayoutRules.wholeBytes(layout, "Registers carry whole bytes here.", remarks);
        LayoutRules.alignment(layout, 16, 16, true, "A value must begin with a register of 16 bits; this one stands {off}.", remarks);
        if (remarks.isEmpty()) {
            LayoutRules.endsOn(layout, 16, "A register has 16 bits.", remarks);
        }
        LayoutRules.most(layout.bytes() / 2, output ? MOST_WRITTEN : MOST_READ, "registers in one request (Modbus application protocol, function 17h)", remarks);
        return remarks;
    }

    @Override
    public int firstOutput() {
        return WRITE_FROM;
    }

    @Override
    public int firstInput() {
        return READ_FROM;
    }

    @Override
    public CycleTimes times(Machine machine) {
        List<CycleTimes.Message> messages = new ArrayList<>();
        long wire = 0;
        for (Axis axis : machine.axes()) {
            wire += message("Request to " + axis.name(), MBAP + 10 + BusFamily.bytes(machine.bus(), axis.station().outputs()), messages);
            wire += message("Answer of " + axis.name(), MBAP + 2 + BusFamily.bytes(machine.bus(), axis.station().inputs()), messages);
        }
        return new CycleTimes(messages, wire, LayoutRules.roundUp(wire, 1_000_000), "requests and answers one after the other, without the time a station takes to answer; a frame is preamble 8, header 14, IP 20, TCP 20, MBAP 7, function and counts, registers, check 4, gap 12 byte times × 80 ns");
    }

    private static long message(String name, int data, List<CycleTimes.Message> into) {
        int payload = Ethernet.IPV4_HEADER + Ethernet.TCP_HEADER + data;
        long nanos = Ethernet.nanos(payload);
        into.add(new CycleTimes.Message(name, Ethernet.byteTimes(payload), nanos, nanos));
        return nanos;
    }
}
