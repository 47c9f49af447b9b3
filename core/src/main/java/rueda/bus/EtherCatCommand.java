package rueda.bus;

import java.util.Optional;
import java.util.stream.Stream;

/** What a datagram asks of the stations it passes (ETG.1000.4, table of commands; numbers from memory, decoded alike by tshark). */
public enum EtherCatCommand {
    NOP(0),
    /** Read, write, both by position: the station that finds 0 answers and each adds one. */
    APRD(1), APWR(2), APRW(3),
    /** Read, write, both by the configured station address. */
    FPRD(4), FPWR(5), FPRW(6),
    /** All stations: what is read is combined with or, or everyone is written. */
    BRD(7), BWR(8), BRW(9),
    /** Read, write, both in the logical image. */
    LRD(10), LWR(11), LRW(12),
    /** One station, by position or by its address, reads; all others write what it read. */
    ARMW(13), FRMW(14);

    private final int code;

    EtherCatCommand(int code) {
        this.code = code;
    }

    /** First byte of the datagram. */
    public int code() {
        return code;
    }

    /** Addresses the logical image, not a register of a station. */
    public boolean logical() {
        return this == LRD || this == LWR || this == LRW;
    }

    public static Optional<EtherCatCommand> of(int code) {
        return Stream.of(values()).filter(c -> c.code == code).findFirst();
    }
}
