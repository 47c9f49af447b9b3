package rueda.drive;

/** Values of the objects 6060h and 6061h, modes of operation (IEC 61800-7-201), that this drive has. */
public final class OperationMode {

    public static final int HOMING = 6;
    public static final int CYCLIC_SYNCHRONOUS_POSITION = 8;
    public static final int CYCLIC_SYNCHRONOUS_TORQUE = 10;

    private OperationMode() {
    }

    /** @param mode 6060h or 6061h */
    public static String words(int mode) {
        return switch (mode) {
            case HOMING -> "homing";
            case CYCLIC_SYNCHRONOUS_POSITION -> "cyclic synchronous position";
            case CYCLIC_SYNCHRONOUS_TORQUE -> "cyclic synchronous torque";
            default -> "mode " + mode;
        };
    }

    /** @param mode 6060h */
    static boolean known(int mode) {
        return mode == HOMING || mode == CYCLIC_SYNCHRONOUS_POSITION || mode == CYCLIC_SYNCHRONOUS_TORQUE;
    }
}
