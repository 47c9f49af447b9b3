package rueda.plcopen;

/** The way an endless axis takes to an absolute target: MC_DIRECTION of PLCopen Motion Control part 1, in its order. */
public enum Direction {
    POSITIVE("mcPositiveDirection"), SHORTEST("mcShortestWay"), NEGATIVE("mcNegativeDirection"), CURRENT("mcCurrentDirection");

    private final String constant;

    Direction(String constant) {
        this.constant = constant;
    }

    /** Name of the constant in a program. */
    public String constant() {
        return constant;
    }

    /** Its value in a program, from 1. */
    public int value() {
        return ordinal() + 1;
    }

    /** The direction with this value; 0, the pin left out, is the shortest way; null for any other value. */
    static Direction of(long value) {
        return value == 0 ? SHORTEST : value >= 1 && value <= values().length ? values()[(int) value - 1] : null;
    }
}
