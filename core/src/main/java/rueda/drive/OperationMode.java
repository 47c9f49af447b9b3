package rueda.drive;

/** Values of the objects 6060h and 6061h, modes of operation (IEC 61800-7-201), that this drive has. */
public final class OperationMode {

    /** Maker's own, as negative numbers are: the move list of the drive. */
    public static final int MOVE_LIST = -1;
    /** Maker's own: follows the encoder at its second input. */
    public static final int FOLLOWING = -2;
    public static final int PROFILE_POSITION = 1;
    public static final int PROFILE_VELOCITY = 3;
    public static final int HOMING = 6;
    public static final int CYCLIC_SYNCHRONOUS_POSITION = 8;
    public static final int CYCLIC_SYNCHRONOUS_VELOCITY = 9;
    public static final int CYCLIC_SYNCHRONOUS_TORQUE = 10;

    private OperationMode() {
    }

    /** @param mode 6060h or 6061h */
    public static String words(int mode) {
        return switch (mode) {
            case MOVE_LIST -> "move list";
            case FOLLOWING -> "following";
            case PROFILE_POSITION -> "profile position";
            case PROFILE_VELOCITY -> "profile velocity";
            case HOMING -> "homing";
            case CYCLIC_SYNCHRONOUS_POSITION -> "cyclic synchronous position";
            case CYCLIC_SYNCHRONOUS_VELOCITY -> "cyclic synchronous velocity";
            case CYCLIC_SYNCHRONOUS_TORQUE -> "cyclic synchronous torque";
            default -> "mode " + mode;
        };
    }

    /** @param mode 6060h */
    static boolean known(int mode) {
        return switch (mode) {
            case MOVE_LIST, FOLLOWING, PROFILE_POSITION, PROFILE_VELOCITY, HOMING, CYCLIC_SYNCHRONOUS_POSITION, CYCLIC_SYNCHRONOUS_VELOCITY, CYCLIC_SYNCHRONOUS_TORQUE -> true;
            default -> false;
        };
    }
}
