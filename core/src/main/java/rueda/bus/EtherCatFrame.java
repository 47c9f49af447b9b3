package rueda.bus;

/**
 * Time of a cyclic EtherCAT frame on 100 Mbit/s Ethernet.
 *
 * <p>Sizes from IEEE 802.3 (preamble with start delimiter 8, header 14, frame check sequence 4, gap 12 bytes,
 * payload at least 46) and ETG.1000.4 (frame header 2, datagram header 10, working counter 2 bytes).
 */
public final class EtherCatFrame {

    /** 8 bits at 100 Mbit/s. */
    public static final long NANOS_PER_BYTE = 80;
    private static final int PREAMBLE = 8;
    private static final int ETHERNET_HEADER = 14;
    private static final int SMALLEST_PAYLOAD = 46;
    private static final int CHECK_SEQUENCE = 4;
    private static final int GAP = 12;
    private static final int FRAME_HEADER = 2;
    private static final int DATAGRAM = 12;

    private EtherCatFrame() {
    }

    /**
     * Byte times of one frame carrying one logical read-write datagram, gap included.
     *
     * @param processBytes bytes of process data, 0 to 1486
     */
    public static int byteTimes(int processBytes) {
        int payload = Math.max(SMALLEST_PAYLOAD, FRAME_HEADER + DATAGRAM + processBytes);
        return PREAMBLE + ETHERNET_HEADER + payload + CHECK_SEQUENCE + GAP;
    }

    /** Nanoseconds one such frame occupies the wire. */
    public static long nanos(int processBytes) {
        return byteTimes(processBytes) * NANOS_PER_BYTE;
    }
}
