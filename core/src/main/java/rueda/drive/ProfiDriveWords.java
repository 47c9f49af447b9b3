package rueda.drive;

/**
 * Control and status words of PROFIdrive beside those of IEC 61800-7-201 (IEC 61800-7-203, general state machine: its states and
 * their bits are the same, by other names).
 *
 * <p>STW1 bits 0 to 3 and 7 mean ON, no coast stop, no quick stop, enable operation and fault acknowledge, as in the
 * controlword; 4 to 6 free the setpoint; 10 says that the PLC controls. ZSW1 bits 0 to 7, 9 and 10 stand where those of the
 * statusword stand; bit 8 says that the following error is in tolerance. Bits 11 to 15 are the maker's: ours take bit 11 from
 * the positioning mode (start homing; home position set), and use 12 to 15 for homing and the internal limit.
 */
public final class ProfiDriveWords {

    static final int SAME_IN_CONTROL = 0x8F;
    /** Speed telegrams: the setpoint goes over the ramp. */
    static final int ENABLE_RAMP = 1 << 4;
    /** Speed telegrams: the setpoint is taken; clear holds the last one. */
    static final int UNFREEZE_RAMP = 1 << 5;
    /** Speed telegrams: the setpoint is let through. */
    static final int ENABLE_SETPOINT = 1 << 6;
    /** Positioning telegrams: clear rejects the running task. */
    static final int DO_NOT_REJECT = 1 << 4;
    /** Positioning telegrams: clear is an intermediate stop. */
    static final int NO_INTERMEDIATE_STOP = 1 << 5;
    /** Positioning telegrams: its edge starts the task. */
    static final int ACTIVATE_TASK = 1 << 6;
    private static final int SETPOINT_FREE = 0x70;
    private static final int BY_PLC = 1 << 10;
    static final int START_HOMING = 1 << 11;
    private static final int HOMING_MODE = 1 << 12;

    private static final int SAME_IN_STATUS = 0xFF | 1 << 9 | 1 << 10 | 1 << 12 | 1 << 13;
    private static final int IN_TOLERANCE = 1 << 8;
    private static final int HOME_SET = 1 << 11;
    private static final int INTERNAL_LIMIT = 1 << 14;
    private static final int HOMING_ACTIVE = 1 << 15;

    private ProfiDriveWords() {
    }

    /** STW1 for a controlword and a mode of operation. */
    public static int stw1(int controlword, int mode) {
        int word = controlword & SAME_IN_CONTROL | BY_PLC;
        if ((controlword & ControlWord.OPERATION_ENABLED) == ControlWord.OPERATION_ENABLED) {
            word |= SETPOINT_FREE;
        }
        if (mode == OperationMode.HOMING) {
            word |= HOMING_MODE | ((controlword & ControlWord.HOMING_START) != 0 ? START_HOMING : 0);
        }
        return word;
    }

    static int controlword(int stw1) {
        return stw1 & SAME_IN_CONTROL | ((stw1 & START_HOMING) != 0 ? ControlWord.HOMING_START : 0);
    }

    /** @param otherwise mode of operation of the telegram */
    static int mode(int stw1, int otherwise) {
        return (stw1 & HOMING_MODE) != 0 ? OperationMode.HOMING : otherwise;
    }

    /** The PLC controls: without this bit a drive keeps what it had. */
    static boolean byPlc(int stw1) {
        return (stw1 & BY_PLC) != 0;
    }

    /** ZSW1 for a statusword and a mode of operation. */
    static int zsw1(int statusword, int mode) {
        boolean homing = mode == OperationMode.HOMING;
        return statusword & SAME_IN_STATUS
                | (homing || (statusword & StatusWord.MODE_13) == 0 ? IN_TOLERANCE : 0)
                | ((statusword & StatusWord.REFERENCED) != 0 ? HOME_SET : 0)
                | ((statusword & StatusWord.INTERNAL_LIMIT) != 0 ? INTERNAL_LIMIT : 0)
                | (homing ? HOMING_ACTIVE : 0);
    }

    /**
     * ZSW1 of a positioning telegram: bit 12 acknowledges the task, bit 13 says that the drive stands, bit 7 that an entry is not carried out.
     */
    static int positioningZsw1(int statusword, int mode, boolean taken, boolean stopped, boolean refused) {
        boolean homing = mode == OperationMode.HOMING;
        int word = zsw1(statusword & ~(StatusWord.MODE_12 | StatusWord.MODE_13), mode);
        return homing ? zsw1(statusword, mode) : word | (taken ? StatusWord.MODE_12 : 0) | (stopped ? StatusWord.MODE_13 : 0) | (refused ? StatusWord.WARNING : 0);
    }

    public static int statusword(int zsw1) {
        return zsw1 & SAME_IN_STATUS
                | ((zsw1 & HOME_SET) != 0 ? StatusWord.REFERENCED : 0)
                | ((zsw1 & INTERNAL_LIMIT) != 0 ? StatusWord.INTERNAL_LIMIT : 0);
    }

    public static int modeDisplay(int zsw1) {
        return (zsw1 & HOMING_ACTIVE) != 0 ? OperationMode.HOMING : OperationMode.CYCLIC_SYNCHRONOUS_POSITION;
    }
}
