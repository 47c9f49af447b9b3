package rueda.plcopen;

import java.util.List;

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

    /** States that can follow this one (the figure, from memory); an error and the loss of power can come in any. */
    public List<AxisState> next() {
        return switch (this) {
            case DISABLED -> List.of(STANDSTILL, HOMING, ERROR_STOP);
            case STANDSTILL -> List.of(HOMING, DISCRETE_MOTION, CONTINUOUS_MOTION, SYNCHRONIZED_MOTION, STOPPING, ERROR_STOP, DISABLED);
            case HOMING -> List.of(STANDSTILL, STOPPING, ERROR_STOP, DISABLED);
            case DISCRETE_MOTION -> List.of(STANDSTILL, CONTINUOUS_MOTION, SYNCHRONIZED_MOTION, STOPPING, ERROR_STOP, DISABLED);
            case CONTINUOUS_MOTION -> List.of(STANDSTILL, DISCRETE_MOTION, SYNCHRONIZED_MOTION, STOPPING, ERROR_STOP, DISABLED);
            case SYNCHRONIZED_MOTION -> List.of(STANDSTILL, DISCRETE_MOTION, CONTINUOUS_MOTION, STOPPING, ERROR_STOP, DISABLED);
            case STOPPING -> List.of(STANDSTILL, ERROR_STOP, DISABLED);
            case ERROR_STOP -> List.of(STANDSTILL, DISABLED);
        };
    }
}
