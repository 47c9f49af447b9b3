package rueda.bus.wire;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.util.List;
import rueda.bus.EtherCat;
import rueda.bus.EtherCatCommand;
import rueda.bus.EtherCatRegister;
import rueda.bus.Ethernet;
import rueda.machine.Machine;

/**
 * EtherCAT (ETG.1000.4, IEC 61158-4-12): frames with one logical read-write datagram (LRW), then one for the time and the states, as they leave the PLC and as they
 * come back. Header: length 11 bits, reserved 1, type 4 bits (1). Datagram: command 1, index 1, logical address 4, length 11 bits
 * and flags 2, interrupt 2, data, working counter 2 bytes; least significant byte first. Each station that took part counts in the working counter, see {@link EtherCat.Datagram}.
 */
final class EtherCatFrames implements BusFrames {

    private static final int ETHER_TYPE = 0x88A4;
    /** Another datagram follows: bit 15 of the length word. */
    private static final int MORE = 1 << 15;
    /** State operational. */
    private static final int OPERATIONAL = 8;

    private final List<EtherCat.Datagram> datagrams;
    /** first byte of each station in its datagram */
    private final int[] offsets;
    private final int reference;
    private int index;

    EtherCatFrames(Machine machine) {
        offsets = new int[machine.axes().size()];
        datagrams = EtherCat.datagrams(machine);
        reference = EtherCat.referenceAddress(machine);
        for (EtherCat.Datagram datagram : datagrams) {
            int used = 0;
            for (int i = datagram.first(); i < datagram.first() + datagram.stations(); i++) {
                offsets[i] = used;
                used += EtherCat.logicalBytes(machine.bus(), machine.axes().get(i).station());
            }
        }
    }

    @Override
    public Medium medium() {
        return Medium.ETHERNET;
    }

    @Override
    public void cycle(long nanos, byte[][] outputs, byte[][] inputs, FrameSink sink) throws IOException {
        long at = nanos;
        for (EtherCat.Datagram group : datagrams) {
            index = index + 1 & 0xFF;
            long back = at + EtherCat.byteTimes(group.bytes()) * Ethernet.NANOS_PER_BYTE;
            sink.frame(at, frame(group, outputs, null));
            sink.frame(back, frame(group, outputs, inputs));
            at = back;
        }
        if (offsets.length > 0) {
            index = index + 1 & 0xFF;
            sink.frame(at, service(0, 0, 0));
            sink.frame(at + Ethernet.byteTimes(2 + EtherCat.serviceBytes()) * Ethernet.NANOS_PER_BYTE, service(nanos, OPERATIONAL, offsets.length));
        }
    }

    /**
     * The last frame of a cycle: everyone's clock is told the time of the reference station, and the states of all are combined.
     *
     * @param time of the reference station, ns, 0 on the way out
     * @param counter how many took part, 0 on the way out
     */
    private byte[] service(long time, int states, int counter) {
        ByteBuffer frame = Packet.ethernet(null, Packet.mac(0), ETHER_TYPE).order(java.nio.ByteOrder.LITTLE_ENDIAN);
        frame.putShort((short) (EtherCat.serviceBytes() | 1 << 12));
        frame.put((byte) EtherCatCommand.FRMW.code()).put((byte) index).putShort((short) reference).putShort((short) EtherCatRegister.SYSTEM_TIME.address())
                .putShort((short) (EtherCatRegister.SYSTEM_TIME.bytes() | MORE)).putShort((short) 0).putLong(time).putShort((short) counter);
        frame.put((byte) EtherCatCommand.BRD.code()).put((byte) index).putShort((short) counter).putShort((short) EtherCatRegister.STATE.address())
                .putShort((short) EtherCatRegister.STATE.bytes()).putShort((short) 0).putShort((short) states).putShort((short) counter);
        return Packet.finished(frame);
    }

    /** @param inputs null on the way out; coming back, each station has put its own over what it was sent */
    private byte[] frame(EtherCat.Datagram group, byte[][] outputs, byte[][] inputs) {
        byte[] from = Packet.mac(0);
        ByteBuffer frame = Packet.ethernet(null, from, ETHER_TYPE).order(java.nio.ByteOrder.LITTLE_ENDIAN);
        frame.putShort((short) (EtherCat.DATAGRAM + group.bytes() | 1 << 12));
        frame.put((byte) EtherCatCommand.LRW.code()).put((byte) index).putInt(EtherCat.LOGICAL_START + group.start()).putShort((short) group.bytes()).putShort((short) 0);
        int data = frame.position();
        for (int i = group.first(); i < group.first() + group.stations(); i++) {
            frame.position(data + offsets[i]);
            frame.put(outputs[i]);
            if (inputs != null) {
                frame.position(data + offsets[i]);
                frame.put(inputs[i]);
            }
        }
        frame.position(data + group.bytes());
        frame.putShort((short) (inputs != null ? group.workingCounter() : 0));
        return Packet.finished(frame);
    }
}
