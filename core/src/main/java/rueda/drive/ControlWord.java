package rueda.drive;

/** Bits of the controlword, object 6040h (IEC 61800-7-201, table of the controlword). */
public final class ControlWord {

    public static final int SWITCH_ON = 1;
    public static final int ENABLE_VOLTAGE = 1 << 1;
    /** Low asks for a quick stop. */
    public static final int QUICK_STOP = 1 << 2;
    public static final int ENABLE_OPERATION = 1 << 3;
    /** Of the mode of operation: in homing it starts the search. */
    public static final int HOMING_START = 1 << 4;
    /** Of profile position: a new setpoint is there. Of the move list: starts the entry. */
    public static final int NEW_SETPOINT = 1 << 4;
    /** Of profile position: the setpoint replaces the running one at once. */
    public static final int CHANGE_IMMEDIATELY = 1 << 5;
    /** Of profile position: the target counts from the one before. */
    public static final int RELATIVE = 1 << 6;
    public static final int FAULT_RESET = 1 << 7;
    public static final int HALT = 1 << 8;
    /** Of profile position: the running motion passes its target on to the next one. */
    public static final int CHANGE_ON_SETPOINT = 1 << 9;

    /** Command shutdown, transitions 2, 6 and 8. */
    public static final int SHUTDOWN = ENABLE_VOLTAGE | QUICK_STOP;
    /** Command switch on, transition 3. */
    public static final int SWITCHED_ON = SHUTDOWN | SWITCH_ON;
    /** Command enable operation, transition 4. */
    public static final int OPERATION_ENABLED = SWITCHED_ON | ENABLE_OPERATION;

    private ControlWord() {
    }

    /** It asks to switch on, whatever else it asks for. */
    public static boolean asksToSwitchOn(int word) {
        return (word & SWITCHED_ON) == SWITCHED_ON;
    }

    /** The command that a controlword gives, IEC 61800-7-201, table of the commands; the first four bits and bit 7 of STW1 (IEC 61800-7-203) mean the same. */
    public static String command(int word) {
        if ((word & FAULT_RESET) != 0) {
            return "fault reset";
        }
        if ((word & ENABLE_VOLTAGE) == 0) {
            return "disable voltage";
        }
        if ((word & QUICK_STOP) == 0) {
            return "quick stop";
        }
        if ((word & SWITCH_ON) == 0) {
            return "shutdown";
        }
        return (word & ENABLE_OPERATION) == 0 ? "switch on" : "enable operation";
    }
}
