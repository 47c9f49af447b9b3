package rueda.bus.wire;

import java.nio.ByteBuffer;
import java.nio.ByteOrder;

/**
 * Headers of Ethernet (IEEE 802.3, tag IEEE 802.1Q), IPv4 (RFC 791), UDP (RFC 768) and TCP (RFC 9293) around a payload.
 */
final class Packet {

    static final int SMALLEST_FRAME = 60;
    private static final int HEADROOM = 1600;
    private static final int IPV4 = 0x0800;
    private static final int TCP_FLAGS = 0x18;

    private Packet() {
    }

    /** A locally administered address. @param station 0 for the PLC, 1 for the first station */
    static byte[] mac(int station) {
        return new byte[] {0x02, 0x52, 0x55, 0x45, (byte) (station >> 8), (byte) station};
    }

    /** An empty frame with its header. @param to bytes of the address, null for all */
    static ByteBuffer ethernet(byte[] to, byte[] from, int type) {
        ByteBuffer frame = ByteBuffer.allocate(HEADROOM).order(ByteOrder.BIG_ENDIAN);
        frame.put(to == null ? new byte[] {-1, -1, -1, -1, -1, -1} : to).put(from).putShort((short) type);
        return frame;
    }

    /** The finished frame, filled up with zeros to the shortest. */
    static byte[] finished(ByteBuffer frame) {
        byte[] bytes = new byte[Math.max(SMALLEST_FRAME, frame.position())];
        System.arraycopy(frame.array(), 0, bytes, 0, frame.position());
        return bytes;
    }

    /** One end of a conversation. @param station number for the hardware address  @param ip 32 bits */
    record End(int station, long ip, int port) {
    }

    static byte[] udp(End from, End to, int identification, byte[] payload) {
        ByteBuffer frame = ipv4(from, to, identification, 17, 8 + payload.length);
        int start = frame.position();
        frame.putShort((short) from.port()).putShort((short) to.port()).putShort((short) (8 + payload.length)).putShort((short) 0).put(payload);
        int sum = transportSum(frame, from, to, 17, start);
        frame.putShort(start + 6, (short) (sum == 0 ? 0xFFFF : sum));
        return finished(frame);
    }

    static byte[] tcp(End from, End to, int identification, int sequence, int acknowledge, byte[] payload) {
        ByteBuffer frame = ipv4(from, to, identification, 6, 20 + payload.length);
        int start = frame.position();
        frame.putShort((short) from.port()).putShort((short) to.port()).putInt(sequence).putInt(acknowledge)
                .putShort((short) (5 << 12 | TCP_FLAGS)).putShort((short) 8192).putShort((short) 0).putShort((short) 0).put(payload);
        frame.putShort(start + 16, (short) transportSum(frame, from, to, 6, start));
        return finished(frame);
    }

    private static ByteBuffer ipv4(End from, End to, int identification, int protocol, int length) {
        ByteBuffer frame = ethernet(mac(to.station()), mac(from.station()), IPV4);
        int start = frame.position();
        frame.putShort((short) 0x4500).putShort((short) (20 + length)).putShort((short) identification).putShort((short) 0x4000)
                .put((byte) 64).put((byte) protocol).putShort((short) 0).putInt((int) from.ip()).putInt((int) to.ip());
        frame.putShort(start + 10, (short) folded(sum(frame, start, 20)));
        return frame;
    }

    private static int transportSum(ByteBuffer frame, End from, End to, int protocol, int start) {
        int length = frame.position() - start;
        long pseudo = (from.ip() >> 16) + (from.ip() & 0xFFFF) + (to.ip() >> 16) + (to.ip() & 0xFFFF) + protocol + length;
        return folded(pseudo + sum(frame, start, length));
    }

    /** Sum of 16-bit words, RFC 1071. */
    private static long sum(ByteBuffer frame, int start, int length) {
        long sum = 0;
        for (int i = 0; i < length; i++) {
            sum += (frame.get(start + i) & 0xFFL) << (i % 2 == 0 ? 8 : 0);
        }
        return sum;
    }

    private static int folded(long sum) {
        while (sum >> 16 != 0) {
            sum = (sum & 0xFFFF) + (sum >> 16);
        }
        return (int) ~sum & 0xFFFF;
    }
}
