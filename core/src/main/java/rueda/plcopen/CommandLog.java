package rueda.plcopen;

/**
 * What the program has ordered and when: the way back from a place in the recording to a line of the program.
 * Fixed size; entries past it are not kept. Not thread-safe.
 */
public final class CommandLog {

    /** What was ordered. */
    public enum Kind { MOVE, HOME, HALT, TORQUE, ERROR }

    private static final int CAPACITY = 4096;

    /** Values of a move; see {@link Entry}. */
    private final long[] time = new long[CAPACITY];
    private final int[] axis = new int[CAPACITY];
    private final int[] line = new int[CAPACITY];
    private final Kind[] kind = new Kind[CAPACITY];
    private final String[] block = new String[CAPACITY];
    private final double[][] values = new double[CAPACITY][6];
    private final MotionError[] error = new MotionError[CAPACITY];
    private int size;

    /**
     * @param time         ns on the bench's clock
     * @param axis         number of the axis
     * @param line         line of the call
     * @param kind         what was ordered
     * @param block        name of the instance
     * @param target       user units
     * @param velocity     units/s
     * @param acceleration units/s²
     * @param deceleration units/s²
     * @param jerk         units/s³
     * @param duration     planned, s
     * @param error        for {@link Kind#ERROR}
     */
    public record Entry(long time, int axis, int line, Kind kind, String block, double target, double velocity,
                        double acceleration, double deceleration, double jerk, double duration, MotionError error) {
    }

    void add(long now, int axisNumber, int lineNumber, Kind what, String instance, double target, double velocity,
             double acceleration, double deceleration, double jerk, double duration, MotionError reason) {
        if (size == CAPACITY) {
            return;
        }
        time[size] = now;
        axis[size] = axisNumber;
        line[size] = lineNumber;
        kind[size] = what;
        block[size] = instance;
        double[] row = values[size];
        row[0] = target;
        row[1] = velocity;
        row[2] = acceleration;
        row[3] = deceleration;
        row[4] = jerk;
        row[5] = duration;
        error[size] = reason;
        size++;
    }

    public int size() {
        return size;
    }

    public Entry entry(int i) {
        double[] row = values[i];
        return new Entry(time[i], axis[i], line[i], kind[i], block[i], row[0], row[1], row[2], row[3], row[4], row[5], error[i]);
    }
}
