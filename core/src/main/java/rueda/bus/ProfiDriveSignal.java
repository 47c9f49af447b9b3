package rueda.bus;

/**
 * Signals of PROFIdrive that travel in standard telegrams (IEC 61800-7-203, process data; numbers from memory).
 *
 * <p>N2 and N4 are normalised values: 4000h, or 4000 0000h, is 100 % of the reference value.
 */
public enum ProfiDriveSignal {
    STW1(1, 16, true, Format.BITS, "Control word 1"),
    ZSW1(2, 16, false, Format.BITS, "Status word 1"),
    STW2(3, 16, true, Format.BITS, "Control word 2"),
    ZSW2(4, 16, false, Format.BITS, "Status word 2"),
    NSOLL_A(5, 16, true, Format.N2, "Speed setpoint A"),
    NIST_A(6, 16, false, Format.N2, "Speed actual value A"),
    NSOLL_B(7, 32, true, Format.N4, "Speed setpoint B"),
    NIST_B(8, 32, false, Format.N4, "Speed actual value B"),
    G1_STW(9, 16, true, Format.BITS, "Encoder 1 control word"),
    G1_ZSW(10, 16, false, Format.BITS, "Encoder 1 status word"),
    G1_XIST1(11, 32, false, Format.COUNTS, "Encoder 1 actual value 1"),
    G1_XIST2(12, 32, false, Format.COUNTS, "Encoder 1 actual value 2"),
    XERR(25, 32, true, Format.COUNTS, "Position deviation"),
    KPC(26, 32, true, Format.GAIN, "Position gain"),
    XIST_A(28, 32, false, Format.UNITS, "Position actual value A"),
    SATZANW(32, 16, true, Format.BITS, "Traversing block selection"),
    AKTSATZ(33, 16, false, Format.BITS, "Traversing block, present"),
    MDI_TARPOS(34, 32, true, Format.UNITS, "MDI target position"),
    MDI_VELOCITY(35, 32, true, Format.UNITS, "MDI velocity"),
    MDI_ACC(36, 16, true, Format.N2, "MDI acceleration override"),
    MDI_DEC(37, 16, true, Format.N2, "MDI deceleration override"),
    MDI_MOD(38, 16, true, Format.BITS, "MDI mode");

    /** 100 % in N2 and N4. */
    public static final int N2_FULL = 0x4000;
    public static final int N4_FULL = 0x4000_0000;

    /** How the bits of a signal are meant. GAIN: thousandths of 1/s. COUNTS: of the encoder. UNITS: wire units. */
    public enum Format { BITS, N2, N4, COUNTS, UNITS, GAIN }

    private final int number;
    private final int bits;
    private final boolean toDrive;
    private final Format format;
    private final String title;

    ProfiDriveSignal(int number, int bits, boolean toDrive, Format format, String title) {
        this.number = number;
        this.bits = bits;
        this.toDrive = toDrive;
        this.format = format;
        this.title = title;
    }

    /** Signal number. */
    public int number() {
        return number;
    }

    /** 16 or 32. */
    public int bits() {
        return bits;
    }

    public boolean toDrive() {
        return toDrive;
    }

    public Format format() {
        return format;
    }

    public String title() {
        return title;
    }

    /** The signal with this number, or null. */
    public static ProfiDriveSignal numbered(int number) {
        for (ProfiDriveSignal signal : values()) {
            if (signal.number == number) {
                return signal;
            }
        }
        return null;
    }

    /** A share as N2, cut to the range of 16 bits. @param share 1 is 100 %, −2 to just below 2 */
    public static short n2(double share) {
        return (short) Math.max(Short.MIN_VALUE, Math.min(Short.MAX_VALUE, Math.rint(share * N2_FULL)));
    }

    /** A share as N4, cut to the range of 32 bits. @param share 1 is 100 %, −2 to just below 2 */
    public static int n4(double share) {
        return (int) Math.max(Integer.MIN_VALUE, Math.min(Integer.MAX_VALUE, Math.rint(share * N4_FULL)));
    }

    public static double fromN2(long raw) {
        return (double) raw / N2_FULL;
    }

    public static double fromN4(long raw) {
        return (double) raw / N4_FULL;
    }
}
