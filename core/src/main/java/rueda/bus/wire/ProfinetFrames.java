package rueda.bus.wire;

import java.io.IOException;
import java.nio.ByteBuffer;
import rueda.bus.Ethernet;
import rueda.bus.Profinet;
import rueda.machine.Machine;

/**
 * PROFINET RT class 1 (IEC 61158-6-10): tagged frame with priority 6, frame id 2 bytes, data with provider and consumer status (80h:
 * good), filled up to 40 bytes, cycle counter 2 bytes in steps of 31.25 µs, data status (35h: primary, valid, running, no problem),
 * transfer status (0).
 */
final class ProfinetFrames implements BusFrames {

    private static final int VLAN = 0x8100;
    private static final int PRIORITY_6 = 0xC000;
    private static final int ETHER_TYPE = 0x8892;
    private static final int FIRST_FRAME_ID = 0xC000;
    private static final byte GOOD = (byte) 0x80;
    private static final byte DATA_STATUS = 0x35;
    private static final long NANOS_PER_COUNT = 31_250;

    private final int stations;

    ProfinetFrames(Machine machine) {
        stations = machine.axes().size();
    }

    @Override
    public Medium medium() {
        return Medium.ETHERNET;
    }

    @Override
    public void cycle(long nanos, byte[][] outputs, byte[][] inputs, FrameSink sink) throws IOException {
        long at = nanos;
        for (int i = 0; i < stations; i++) {
            byte[] there = frame(0, i + 1, FIRST_FRAME_ID + 2 * i, nanos, outputs[i]);
            byte[] back = frame(i + 1, 0, FIRST_FRAME_ID + 2 * i + 1, nanos, inputs[i]);
            sink.frame(at, there);
            sink.frame(at, back);
            at += Ethernet.nanos(Math.max(there.length, back.length) - Ethernet.HEADER);
        }
    }

    private static byte[] frame(int from, int to, int id, long nanos, byte[] image) {
        ByteBuffer frame = Packet.ethernet(Packet.mac(to), Packet.mac(from), VLAN);
        frame.putShort((short) PRIORITY_6).putShort((short) ETHER_TYPE).putShort((short) id);
        int data = frame.position();
        frame.put(image).put(GOOD).put(GOOD);
        frame.position(data + Math.max(Profinet.SMALLEST_DATA, image.length + Profinet.STATUS_BYTES));
        frame.putShort((short) (nanos / NANOS_PER_COUNT)).put(DATA_STATUS).put((byte) 0);
        return Packet.finished(frame);
    }
}
