package rueda.drive;

/** Bits of the statusword, object 6041h (IEC 61800-7-201, table of the statusword); bits 0 to 3, 5 and 6 are those of {@link PowerState}. */
public final class StatusWord {

    public static final int VOLTAGE_ENABLED = 1 << 4;
    /** The target was not reached within the tolerance time. */
    public static final int WARNING = 1 << 7;
    /** Maker's bit: the axis has its reference. */
    public static final int REFERENCED = 1 << 8;
    public static final int REMOTE = 1 << 9;
    public static final int TARGET_REACHED = 1 << 10;
    public static final int INTERNAL_LIMIT = 1 << 11;
    /** Of the mode of operation: the drive follows the command, or homing is attained. */
    public static final int MODE_12 = 1 << 12;
    /** Of the mode of operation: following error, or homing error. */
    public static final int MODE_13 = 1 << 13;

    private StatusWord() {
    }
}
