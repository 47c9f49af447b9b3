package rueda.format.pcapng;

import java.io.IOException;
import java.io.OutputStream;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import rueda.bus.wire.BusCapture;
import rueda.bus.wire.BusFrames;
import rueda.bus.wire.FrameSink;

/**
 * Writes a section header, one interface with times in nanoseconds, and a packet block for every frame (IETF draft
 * PCAP Next Generation Capture File Format, sections 4.1 to 4.3), least significant byte first.
 */
public final class PcapngWriter implements FrameSink {

    private static final int SECTION_HEADER = 0x0A0D_0D0A;
    private static final int BYTE_ORDER_MAGIC = 0x1A2B_3C4D;
    private static final int INTERFACE_DESCRIPTION = 1;
    private static final int ENHANCED_PACKET = 6;
    private static final int LINK_ETHERNET = 1;
    private static final int LINK_CAN_SOCKETCAN = 227;
    private static final short OPTION_END = 0;
    private static final short IF_NAME = 2;
    private static final short IF_TSRESOL = 9;
    private static final byte NANOSECONDS = 9;

    private final OutputStream out;
    private final long epochNanos;

    /**
     * @param startEpochNanos wall-clock time of time 0, ns since 1970
     * @param interfaceName   name that analysers show
     */
    public PcapngWriter(OutputStream out, BusFrames.Medium medium, String interfaceName, long startEpochNanos) throws IOException {
        this.out = out;
        epochNanos = startEpochNanos;
        block(SECTION_HEADER, buffer(16).putInt(BYTE_ORDER_MAGIC).putShort((short) 1).putShort((short) 0).putLong(-1));
        byte[] name = interfaceName.getBytes(StandardCharsets.UTF_8);
        ByteBuffer description = buffer(8 + 4 + padded(name.length) + 8 + 4);
        description.putShort((short) (medium == BusFrames.Medium.CAN ? LINK_CAN_SOCKETCAN : LINK_ETHERNET)).putShort((short) 0).putInt(0);
        description.putShort(IF_NAME).putShort((short) name.length).put(name).position(8 + 4 + padded(name.length));
        description.putShort(IF_TSRESOL).putShort((short) 1).put(NANOSECONDS).put(new byte[3]);
        description.putShort(OPTION_END).putShort((short) 0);
        block(INTERFACE_DESCRIPTION, description);
    }

    /** Writes everything that was captured. */
    public static void write(BusCapture capture, OutputStream out, long startEpochNanos) throws IOException {
        BusFrames frames = BusFrames.of(capture.machine());
        capture.frames(frames, new PcapngWriter(out, frames.medium(), capture.machine().bus().family().words(), startEpochNanos));
    }

    @Override
    public void frame(long nanos, byte[] frame) throws IOException {
        long time = epochNanos + nanos;
        ByteBuffer block = buffer(20 + padded(frame.length));
        block.putInt(0).putInt((int) (time >>> 32)).putInt((int) time).putInt(frame.length).putInt(frame.length).put(frame);
        block(ENHANCED_PACKET, block.position(block.capacity()));
    }

    private static int padded(int length) {
        return (length + 3) / 4 * 4;
    }

    private static ByteBuffer buffer(int size) {
        return ByteBuffer.allocate(size).order(ByteOrder.LITTLE_ENDIAN);
    }

    private void block(int type, ByteBuffer body) throws IOException {
        int length = 12 + body.capacity();
        out.write(buffer(8).putInt(type).putInt(length).array());
        out.write(body.array());
        out.write(buffer(4).putInt(length).array());
    }
}
