package rueda.plcopen;

import rueda.plc.run.CallPlace;

/**
 * What the program has ordered and when: the way back from a place in the recording to a line of the program.
 * Fixed size: when it is full the oldest is dropped, and counted. Adding allocates nothing. Not thread-safe.
 */
public final class CommandLog {

    /** What was ordered. */
    public enum Kind { MOVE, HOME, HALT, TORQUE, FOLLOW, ADD, ERROR }

    private static final int CAPACITY = 4096;

    /** Values of a move; see {@link Entry}. */
    private final long[] time = new long[CAPACITY];
    private final int[] axis = new int[CAPACITY];
    private final CallPlace[] call = new CallPlace[CAPACITY];
    private final Kind[] kind = new Kind[CAPACITY];
    private final String[] block = new String[CAPACITY];
    private final double[][] values = new double[CAPACITY][6];
    private final MotionError[] error = new MotionError[CAPACITY];
    /** entries ever added */
    private long added;
    private int moves;
    private double plannedTime;

    /**
     * @param time         ns on the bench's clock
     * @param axis         number of the axis
     * @param call         where in the program
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
    public record Entry(long time, int axis, CallPlace call, Kind kind, String block, double target, double velocity,
                        double acceleration, double deceleration, double jerk, double duration, MotionError error) {
        /** Line of the call, from 1; 0 outside of the program. */
        public int line() {
            return call.line();
        }
    }

    void add(long now, int axisNumber, CallPlace from, Kind what, String instance, double target, double velocity,
             double acceleration, double deceleration, double jerk, double duration, MotionError reason) {
        int place = (int) (added % CAPACITY);
        time[place] = now;
        axis[place] = axisNumber;
        call[place] = from;
        kind[place] = what;
        block[place] = instance;
        double[] row = values[place];
        row[0] = target;
        row[1] = velocity;
        row[2] = acceleration;
        row[3] = deceleration;
        row[4] = jerk;
        row[5] = duration;
        error[place] = reason;
        added++;
        if (what == Kind.MOVE) {
            moves++;
            plannedTime += duration;
        }
    }

    /** Moves ever ordered. */
    public int moves() {
        return moves;
    }

    /** Planned time of all moves ever ordered, s. */
    public double plannedTime() {
        return plannedTime;
    }

    /** Entries that are kept. */
    public int size() {
        return (int) Math.min(added, CAPACITY);
    }

    /** Entries that were kept once and are no more; those came before every one that is. */
    public long dropped() {
        return Math.max(0, added - CAPACITY);
    }

    /** @param i 0 for the oldest that is kept, to {@link #size()} − 1 */
    public Entry entry(int i) {
        int place = (int) ((dropped() + i) % CAPACITY);
        double[] row = values[place];
        return new Entry(time[place], axis[place], call[place], kind[place], block[place], row[0], row[1], row[2], row[3], row[4], row[5], error[place]);
    }
}
