package rueda.bus.wire;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.util.ArrayList;
import java.util.List;
import rueda.bus.EtherCat;
import rueda.bus.Ethernet;
import rueda.machine.Axis;
import rueda.machine.Machine;

/**
 * EtherCAT (ETG.1000.4, IEC 61158-4-12): frames with one logical read-write datagram (LRW), as they leave the PLC and as they
 * come back. Header: length 11 bits, reserved 1, type 4 bits (1). Datagram: command 1, index 1, logical address 4, length 11 bits
 * and flags 2, interrupt 2, data, working counter 2 bytes; least significant byte first. A station that reads and writes adds 3 to the working counter.
 */
final class EtherCatFrames implements BusFrames {

    private static final int ETHER_TYPE = 0x88A4;
    private static final int LRW = 12;
    private static final int LOGICAL_START = 0x0001_0000;
    private static final int READ_AND_WRITE = 3;

    /** Stations whose data share a frame. */
    private record Group(int first, int count, int bytes, int address) {
    }

    private final List<Group> groups = new ArrayList<>();
    private final int[] offsets;
    private int index;

    EtherCatFrames(Machine machine) {
        offsets = new int[machine.axes().size()];
        int first = 0;
        int used = 0;
        int address = LOGICAL_START;
        for (int i = 0; i < offsets.length; i++) {
            Axis axis = machine.axes().get(i);
            int bytes = EtherCat.logicalBytes(machine.bus(), axis.station());
            if (used + bytes > EtherCat.MOST_DATA) {
                groups.add(new Group(first, i - first, used, address));
                address += used;
                first = i;
                used = 0;
            }
            offsets[i] = used;
            used += bytes;
        }
        groups.add(new Group(first, offsets.length - first, used, address));
    }

    @Override
    public Medium medium() {
        return Medium.ETHERNET;
    }

    @Override
    public void cycle(long nanos, byte[][] outputs, byte[][] inputs, FrameSink sink) throws IOException {
        long at = nanos;
        for (Group group : groups) {
            index = index + 1 & 0xFF;
            long back = at + EtherCat.byteTimes(group.bytes()) * Ethernet.NANOS_PER_BYTE;
            sink.frame(at, frame(group, outputs, null));
            sink.frame(back, frame(group, outputs, inputs));
            at = back;
        }
    }

    /** @param inputs null on the way out; coming back, each station has put its own over what it was sent */
    private byte[] frame(Group group, byte[][] outputs, byte[][] inputs) {
        byte[] from = Packet.mac(0);
        ByteBuffer frame = Packet.ethernet(null, from, ETHER_TYPE).order(java.nio.ByteOrder.LITTLE_ENDIAN);
        frame.putShort((short) (EtherCat.DATAGRAM + group.bytes() | 1 << 12));
        frame.put((byte) LRW).put((byte) index).putInt(group.address()).putShort((short) group.bytes()).putShort((short) 0);
        int data = frame.position();
        for (int i = group.first(); i < group.first() + group.count(); i++) {
            frame.position(data + offsets[i]);
            frame.put(outputs[i]);
            if (inputs != null) {
                frame.position(data + offsets[i]);
                frame.put(inputs[i]);
            }
        }
        frame.position(data + group.bytes());
        frame.putShort((short) (inputs != null ? READ_AND_WRITE * group.count() : 0));
        return Packet.finished(frame);
    }
}
