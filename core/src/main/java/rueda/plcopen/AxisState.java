package rueda.plcopen;

/** States of an axis, PLCopen Motion Control part 1, figure "FB state diagram". */
public enum AxisState {
    DISABLED("disabled"), STANDSTILL("standing"), HOMING("homing"), DISCRETE_MOTION("moving"),
    CONTINUOUS_MOTION("moving on"), SYNCHRONIZED_MOTION("following"), STOPPING("stopping"), ERROR_STOP("stopped by an error");

    private final String words;

    AxisState(String words) {
        this.words = words;
    }

    public String words() {
        return words;
    }
}
