package rueda.bus;

/**
 * Time of a frame on 100 Mbit/s Ethernet (IEEE 802.3): preamble with start delimiter 8, header 14, payload at least 46,
 * frame check sequence 4, gap 12 bytes.
 */
public final class Ethernet {

    /** 8 bits at 100 Mbit/s. */
    public static final long NANOS_PER_BYTE = 80;
    public static final int HEADER = 14;
    /** IEEE 802.1Q. */
    public static final int VLAN_TAG = 4;
    public static final int IPV4_HEADER = 20;
    public static final int UDP_HEADER = 8;
    /** Without options. */
    public static final int TCP_HEADER = 20;
    private static final int PREAMBLE = 8;
    private static final int SMALLEST_PAYLOAD = 46;
    private static final int CHECK_SEQUENCE = 4;
    private static final int GAP = 12;

    private Ethernet() {
    }

    /** Byte times of a frame, gap included. @param payload bytes after the header of 14 bytes */
    public static int byteTimes(int payload) {
        return PREAMBLE + HEADER + Math.max(SMALLEST_PAYLOAD, payload) + CHECK_SEQUENCE + GAP;
    }

    /** Nanoseconds such a frame occupies the wire. */
    public static long nanos(int payload) {
        return byteTimes(payload) * NANOS_PER_BYTE;
    }
}
