package rueda.machine;

/** What a guard can be asked for on one axis, IEC 61800-5-2. */
public enum SafetyFunction {
    SAFE_TORQUE_OFF("safe torque off", 3),
    SAFE_STOP_1("safe stop 1", 2),
    SAFE_STOP_2("safe stop 2", 1),
    /** A second safe stop 2 with a ramp of its own. */
    SAFE_STOP_2_SECOND("safe stop 2, second", 1),
    /** Holds the place without having slowed down. */
    SAFE_OPERATING_STOP("safe operating stop", 1),
    SAFELY_LIMITED_SPEED("safely limited speed", 0),
    /** Only motion in the positive direction is allowed. */
    SAFE_DIRECTION_POSITIVE("safe direction, positive", 0),
    /** Only motion in the negative direction is allowed. */
    SAFE_DIRECTION_NEGATIVE("safe direction, negative", 0);

    private static final SafetyFunction[] STOPS = {SAFE_TORQUE_OFF, SAFE_STOP_1, SAFE_STOP_2, SAFE_STOP_2_SECOND, SAFE_OPERATING_STOP};
    private static final int ALL_STOPS = mask(STOPS);

    private final String words;
    private final int rank;

    SafetyFunction(String words, int rank) {
        this.words = words;
        this.rank = rank;
    }

    public String words() {
        return words;
    }

    /** Stop category by IEC 60204-1, 9.2.2: 0 torque off at once, 1 when it stands, 2 it stays on; −1 for what stops nothing. */
    public int category() {
        return switch (this) {
            case SAFE_TORQUE_OFF -> 0;
            case SAFE_STOP_1 -> 1;
            case SAFE_STOP_2, SAFE_STOP_2_SECOND, SAFE_OPERATING_STOP -> 2;
            default -> -1;
        };
    }

    /** It ends in standstill. */
    public boolean stops() {
        return rank > 0;
    }

    /** It ends a motion; safe operating stop expects that it has ended already. */
    public boolean endsMotion() {
        return stops() && this != SAFE_OPERATING_STOP;
    }

    /** Of two stops the one of the higher rank wins; of two of the same rank the one that was asked first. */
    public int rank() {
        return rank;
    }

    /** Bit of a request for it. */
    public int bit() {
        return 1 << ordinal();
    }

    public boolean in(int asked) {
        return (asked & bit()) != 0;
    }

    /** Bits of several requests. */
    public static int mask(SafetyFunction... functions) {
        int mask = 0;
        for (SafetyFunction function : functions) {
            mask |= function.bit();
        }
        return mask;
    }

    /** Some stop is asked for. */
    public static boolean stopIn(int asked) {
        return (asked & ALL_STOPS) != 0;
    }

    /** The stop that wins among those asked for, or null; of the same rank the first of this list. */
    public static SafetyFunction winner(int asked) {
        for (SafetyFunction stop : STOPS) {
            if (stop.in(asked)) {
                return stop;
            }
        }
        return null;
    }
}
