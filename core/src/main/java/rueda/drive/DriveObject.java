package rueda.drive;

/**
 * The objects of the drive, with the numbers of IEC 61800-7-201 (CiA 402-2).
 *
 * <p>Positions are in wire units (one decimal step of the user unit), speeds in wire units per second, torques in
 * thousandths of the rated torque. Objects 2000h to 5FFFh are the maker's own: those here are Rueda's.
 */
public enum DriveObject {
    HARD_STOP_TORQUE(0x2030, 1, 16, false, "Homing, torque at a hard stop", true),
    HARD_STOP_TIME(0x2030, 2, 16, false, "Homing, time at a hard stop", true),
    HOMING_TIME_LIMIT(0x2030, 3, 32, false, "Homing, time limit", true),
    FOLLOWING_FROM_SPEED(0x2031, 1, 32, false, "Following error, speed from which it grows", true),
    FOLLOWING_AT_SPEED(0x2031, 2, 32, false, "Following error window at highest speed", true),
    POSITION_TOLERANCE(0x2032, 1, 16, false, "Position window, tolerance time", true),
    STANDSTILL_WINDOW(0x2032, 2, 32, false, "Standstill window", true),
    STANDSTILL_TIME(0x2032, 3, 16, false, "Standstill time", true),
    INPUT_FUNCTIONS(0x2033, 0, 32, false, "Functions of the inputs", false),
    TORQUE_SOURCE(0x2034, 1, 8, false, "Torque, 0 from 6071h, 1 from the analogue input", true),
    ANALOGUE_TORQUE(0x2034, 2, 16, false, "Torque that 10 V ask for", true),
    ANALOGUE_INPUT(0x2034, 3, 16, true, "Analogue input, mV", false),
    LOAD_POSITION(0x2035, 0, 32, true, "Encoder on the load, position", false),
    LIST_WANTED(0x2040, 1, 16, false, "Move list, entry to start", true),
    LIST_ENTRY(0x2040, 2, 16, true, "Move list, running entry, −1 for none", false),
    LIST_STATUS(0x2040, 3, 16, false, "Move list, status", false),
    LIST_ROUNDS(0x2040, 4, 32, false, "Move list, rounds", false),
    LIST_CUES(0x2040, 5, 16, false, "Move list, cues over the bus", true),
    LIST_ERROR(0x2040, 6, 16, false, "Move list, error", false),
    LIST_CHANGED_ENTRY(0x2041, 1, 16, false, "Move list, entry that is changed over the bus", true),
    LIST_CHANGED_SPEED(0x2041, 2, 32, false, "Move list, speed of that entry", true),
    LIST_CHANGED_WAY(0x2041, 3, 32, true, "Move list, position or distance of that entry", true),
    LIST_CHANGE(0x2041, 4, 16, false, "Move list, take the change: bit 0 speed, bit 1 way", true),
    FOLLOW_STATUS(0x2050, 1, 16, false, "Following, status", false),
    FOLLOW_DEVIATION(0x2050, 2, 32, true, "Following, deviation from its place", false),
    FOLLOW_TRIMMED(0x2050, 3, 32, true, "Following, trim", false),
    MASTER_COUNTS(0x2050, 4, 32, true, "Master encoder, counts", false),
    MASTER_SPEED(0x2050, 5, 32, true, "Master encoder, counts a second", false),
    MASTER_LOST(0x2050, 6, 32, true, "Master encoder, counts lost against its index", false),
    FOLLOW_OUT(0x2051, 1, 32, true, "Ratio, turns of the follower", true),
    FOLLOW_IN(0x2051, 2, 32, false, "Ratio, turns of the master", true),
    FOLLOW_TAKE(0x2051, 3, 16, false, "Ratio, bit 0 takes it", true),
    TRIM_ORDER(0x2052, 1, 16, false, "Trim: bit 0 forward, 1 back, 2 by the way, 3 forget", true),
    TRIM_WAY(0x2052, 2, 32, true, "Trim, way", true),
    TRIM_SPEED(0x2052, 3, 32, false, "Trim, speed", true),
    GUARD_PHASE(0x2060, 1, 16, false, "Guard, phase", false),
    GUARD_FUNCTION(0x2060, 2, 16, false, "Guard, function that leads", false),
    GUARD_BREACH(0x2060, 3, 16, false, "Guard, limit that was broken first", false),
    GUARD_REQUESTS(0x2060, 4, 32, false, "Guard, requests that ask: bit 0 the first", false),
    GUARD_IN_FORCE(0x2060, 5, 16, false, "Guard, functions in force: bit 0 safe torque off", false),
    ERROR_CODE(0x603F, 0, 16, false, "Error code", false),
    CONTROLWORD(0x6040, 0, 16, false, "Controlword", true),
    STATUSWORD(0x6041, 0, 16, false, "Statusword", false),
    QUICK_STOP_OPTION(0x605A, 0, 16, true, "Quick stop option code", true),
    MODE(0x6060, 0, 8, true, "Mode of operation", true),
    MODE_DISPLAY(0x6061, 0, 8, true, "Mode of operation display", false),
    POSITION_ACTUAL(0x6064, 0, 32, true, "Position actual value", false),
    FOLLOWING_WINDOW(0x6065, 0, 32, false, "Following error window", true),
    FOLLOWING_TIME(0x6066, 0, 16, false, "Following error time-out", true),
    POSITION_WINDOW(0x6067, 0, 32, false, "Position window", true),
    POSITION_WINDOW_TIME(0x6068, 0, 16, false, "Position window time", true),
    VELOCITY_ACTUAL(0x606C, 0, 32, true, "Velocity actual value", false),
    VELOCITY_WINDOW(0x606D, 0, 16, false, "Velocity window", true),
    VELOCITY_WINDOW_TIME(0x606E, 0, 16, false, "Velocity window time", true),
    VELOCITY_THRESHOLD(0x606F, 0, 16, false, "Velocity threshold", true),
    TARGET_TORQUE(0x6071, 0, 16, true, "Target torque", true),
    MAX_TORQUE(0x6072, 0, 16, false, "Max torque", true),
    TORQUE_ACTUAL(0x6077, 0, 16, true, "Torque actual value", false),
    TARGET_POSITION(0x607A, 0, 32, true, "Target position", true),
    HOME_OFFSET(0x607C, 0, 32, true, "Home offset", true),
    SOFT_LIMIT_MIN(0x607D, 1, 32, true, "Software position limit, minimum", true),
    SOFT_LIMIT_MAX(0x607D, 2, 32, true, "Software position limit, maximum", true),
    MAX_PROFILE_VELOCITY(0x607F, 0, 32, false, "Max profile velocity", true),
    MAX_MOTOR_SPEED(0x6080, 0, 32, false, "Max motor speed", true),
    PROFILE_VELOCITY(0x6081, 0, 32, false, "Profile velocity", true),
    PROFILE_ACCELERATION(0x6083, 0, 32, false, "Profile acceleration", true),
    PROFILE_DECELERATION(0x6084, 0, 32, false, "Profile deceleration", true),
    QUICK_STOP_DECELERATION(0x6085, 0, 32, false, "Quick stop deceleration", true),
    ENCODER_INCREMENTS(0x608F, 1, 32, false, "Position encoder resolution, increments", true),
    ENCODER_TURNS(0x608F, 2, 32, false, "Position encoder resolution, motor revolutions", true),
    GEAR_MOTOR_TURNS(0x6091, 1, 32, false, "Gear ratio, motor revolutions", true),
    GEAR_SHAFT_TURNS(0x6091, 2, 32, false, "Gear ratio, shaft revolutions", true),
    FEED(0x6092, 1, 32, false, "Feed constant, feed", true),
    FEED_TURNS(0x6092, 2, 32, false, "Feed constant, shaft revolutions", true),
    HOMING_METHOD(0x6098, 0, 8, true, "Homing method", true),
    HOMING_SEARCH_SPEED(0x6099, 1, 32, false, "Homing speed, search for switch", true),
    HOMING_CREEP_SPEED(0x6099, 2, 32, false, "Homing speed, search for zero", true),
    HOMING_ACCELERATION(0x609A, 0, 32, false, "Homing acceleration", true),
    PROFILE_JERK(0x60A4, 1, 32, false, "Profile jerk", true),
    PROBE_FUNCTION(0x60B8, 0, 16, false, "Touch probe function", true),
    PROBE_STATUS(0x60B9, 0, 16, false, "Touch probe status", false),
    PROBE_1_POSITION(0x60BA, 0, 32, true, "Touch probe 1, position at the rising edge", false),
    PROBE_1_FALLING(0x60BB, 0, 32, true, "Touch probe 1, position at the falling edge", false),
    PROBE_2_POSITION(0x60BC, 0, 32, true, "Touch probe 2, position at the rising edge", false),
    PROBE_2_FALLING(0x60BD, 0, 32, true, "Touch probe 2, position at the falling edge", false),
    POSITIONING_OPTION(0x60F2, 0, 16, false, "Positioning option code", true),
    FOLLOWING_ERROR_ACTUAL(0x60F4, 0, 32, true, "Following error actual value", false),
    DIGITAL_INPUTS(0x60FD, 0, 32, false, "Digital inputs", false),
    DIGITAL_OUTPUTS(0x60FE, 1, 32, false, "Digital outputs, physical outputs", true),
    TARGET_VELOCITY(0x60FF, 0, 32, true, "Target velocity", true);

    private static final DriveObject[] ALL = values();

    private final int index;
    private final int subIndex;
    private final int bits;
    private final boolean signed;
    private final String title;
    private final boolean writable;

    DriveObject(int index, int subIndex, int bits, boolean signed, String title, boolean writable) {
        this.index = index;
        this.subIndex = subIndex;
        this.bits = bits;
        this.signed = signed;
        this.title = title;
        this.writable = writable;
    }

    public int index() {
        return index;
    }

    public int subIndex() {
        return subIndex;
    }

    public int bits() {
        return bits;
    }

    public boolean signed() {
        return signed;
    }

    /** Name in words. */
    public String title() {
        return title;
    }

    public boolean writable() {
        return writable;
    }

    /** IEC 61131-3 type of the same size and sign. */
    public String dataType() {
        return (signed ? "" : "U") + switch (bits) {
            case 8 -> "SINT";
            case 16 -> "INT";
            default -> "DINT";
        };
    }

    /** The object with this index and sub-index, or null. */
    public static DriveObject find(int index, int subIndex) {
        for (DriveObject object : ALL) {
            if (object.index == index && object.subIndex == subIndex) {
                return object;
            }
        }
        return null;
    }
}
