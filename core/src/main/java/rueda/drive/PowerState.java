package rueda.drive;

/**
 * States of the power drive system, IEC 61800-7-201, with the statusword each shows (bits 6, 5, 3 to 0).
 */
public enum PowerState {
    NOT_READY_TO_SWITCH_ON(0b0000000, 0b1001111, "not ready to switch on"),
    SWITCH_ON_DISABLED(0b1000000, 0b1001111, "switch on disabled"),
    READY_TO_SWITCH_ON(0b0100001, 0b1101111, "ready to switch on"),
    SWITCHED_ON(0b0100011, 0b1101111, "switched on"),
    OPERATION_ENABLED(0b0100111, 0b1101111, "operation enabled"),
    QUICK_STOP_ACTIVE(0b0000111, 0b1101111, "quick stop active"),
    FAULT_REACTION_ACTIVE(0b0001111, 0b1001111, "fault reaction active"),
    FAULT(0b0001000, 0b1001111, "fault");

    /** Bits 0 to 3, 5 and 6 of the statusword tell the state. */
    private static final int STATE_BITS = 0x6F;
    private static final PowerState[] BY_STATUS = byStatus();

    private final int pattern;
    private final int mask;
    private final String words;

    PowerState(int pattern, int mask, String words) {
        this.pattern = pattern;
        this.mask = mask;
        this.words = words;
    }

    /** Bits 6, 5 and 3 to 0 of the statusword. */
    public int pattern() {
        return pattern;
    }

    public String words() {
        return words;
    }

    /** Torque is on. */
    public boolean powered() {
        return this == OPERATION_ENABLED || this == QUICK_STOP_ACTIVE || this == FAULT_REACTION_ACTIVE;
    }

    /** The state a statusword shows. */
    public static PowerState of(int statusword) {
        return BY_STATUS[statusword & STATE_BITS];
    }

    private static PowerState[] byStatus() {
        PowerState[] table = new PowerState[STATE_BITS + 1];
        for (int status = 0; status < table.length; status++) {
            table[status] = NOT_READY_TO_SWITCH_ON;
            for (PowerState state : values()) {
                if ((status & state.mask) == state.pattern) {
                    table[status] = state;
                }
            }
        }
        return table;
    }
}
