package rueda.plcopen;

/** Values of ErrorID. The specification leaves them to the maker: these are Rueda's. */
public enum MotionError {
    NONE(0, "no error"),
    NOT_ENABLED(0x0101, "the axis is not enabled"),
    PAST_SOFT_LIMIT(0x0102, "the target lies past a soft limit"),
    BAD_VALUE(0x0103, "an input is outside its range"),
    NOT_IN_THIS_STATE(0x0104, "the axis cannot do this in its present state"),
    NOT_COMMANDED(0x0105, "motion blocks do not command this axis: the stage Move says who does"),
    ORDER_WAITS(0x0106, "an order waits behind the running one already, and there is room for one"),
    NO_PROBE(0x0107, "no input of the drive is this touch probe: the stage Wire says what inputs are"),
    PROBE_NOT_OURS(0x0108, "the program itself writes the touch probe function, 60B8h, in the process data"),
    FOLLOWS_ITSELF(0x0109, "the master is this axis, or follows it"),
    CANNOT_MEET(0x010A, "the follower's limits do not suffice to meet its master there at this speed"),
    MASTER_TOO_FAST(0x010B, "the master is faster than the follower may be"),
    PHASE_LEFT(0x010C, "the phase of the follower left its limit"),
    TOO_MUCH(0x010D, "the table asks for more speed or acceleration than the axis may have"),
    BAD_TABLE(0x010E, "the table has no pairs, more than there is room for, or times or places that are not in order"),
    NO_TABLE(0x010F, "no cam table has this number: MC_CamTableSelect gives one"),
    NO_OUTPUT(0x0110, "no output of the drive is set over the bus there: the stage Wire says what outputs are"),
    READ_ONLY(0x0111, "this parameter can be read only, or there is none with this number"),
    DRIVE_FAULT(0x0201, "the drive reports a fault"),
    HOMING_FAILED(0x0202, "homing ended without a zero"),
    NOT_REFERENCED(0x0203, "the axis has not been homed since it was switched on"),
    REFERENCE_LOST(0x0204, "the axis lost its reference when the device restarted");

    private final int id;
    private final String words;

    MotionError(int id, String words) {
        this.id = id;
        this.words = words;
    }

    public int id() {
        return id;
    }

    public String words() {
        return words;
    }

    public static MotionError of(long id) {
        for (MotionError error : values()) {
            if (error.id == id) {
                return error;
            }
        }
        return NONE;
    }
}
