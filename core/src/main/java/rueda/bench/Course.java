package rueda.bench;

import java.util.Arrays;
import java.util.function.LongPredicate;

/**
 * What became of one axis in a run of the bench: for every bus cycle the bytes that its drive got and those that it gave, what the mailbox brought it, and what
 * of drive and plant is looked at from outside. A drive and plant that begin alike and get the same do the same, so a later run can take it from here.
 *
 * <p>A cycle in which nothing changed takes four bytes. Kept by one bench and read by later ones. Not thread-safe.
 */
final class Course {

    private static final int FIRST_ROWS = 1024;

    private final LongPredicate room;
    private final int outputs;
    private final int bytes;
    private final int values;
    private byte[] frames;
    private double[] seen;
    private int rows;
    private int[] rowOf = new int[FIRST_ROWS];
    private int cycles;
    private int[] requests = {};
    private int[] answeredIn = {};
    private long[] contents = {};
    private int answers;

    /**
     * @param outputs bytes to the drive in a cycle
     * @param inputs  bytes from it
     * @param values  how many numbers are seen of it
     * @param room    asked for more bytes of memory, with a negative number told of those that are free again
     */
    Course(int outputs, int inputs, int values, LongPredicate room) {
        this.room = room;
        this.outputs = outputs;
        this.bytes = outputs + inputs;
        this.values = values;
        frames = new byte[FIRST_ROWS * bytes];
        seen = new double[FIRST_ROWS * values];
    }

    /** A cycle of which nothing was different from the one before. @return false when there is no room: nothing is known then */
    boolean addSame() {
        if (cycles == rowOf.length) {
            if (!room.test(4L * cycles)) {
                return giveUp();
            }
            rowOf = Arrays.copyOf(rowOf, 2 * cycles);
        }
        rowOf[cycles++] = rows - 1;
        return true;
    }

    /** A cycle. @param from numbers that are seen after it  @return false when there is no room: nothing is known then */
    boolean add(byte[] to, byte[] back, double[] from) {
        if ((rows + 1) * bytes > frames.length || (rows + 1) * values > seen.length) {
            if (!room.test(frames.length + 8L * seen.length)) {
                return giveUp();
            }
            frames = Arrays.copyOf(frames, 2 * frames.length);
            seen = Arrays.copyOf(seen, 2 * seen.length);
        }
        System.arraycopy(to, 0, frames, rows * bytes, outputs);
        System.arraycopy(back, 0, frames, rows * bytes + outputs, bytes - outputs);
        System.arraycopy(from, 0, seen, rows * values, values);
        rows++;
        return addSame();
    }

    private boolean giveUp() {
        room.test(-size());
        cycles = 0;
        rows = 0;
        answers = 0;
        frames = new byte[0];
        seen = new double[0];
        rowOf = new int[0];
        return false;
    }

    /** In the cycle that comes next the mailbox answers. @param request its number  @param content what is written, or what has been read */
    void answer(int request, long content) {
        if (answers == requests.length) {
            requests = Arrays.copyOf(requests, 2 * answers + 8);
            answeredIn = Arrays.copyOf(answeredIn, 2 * answers + 8);
            contents = Arrays.copyOf(contents, 2 * answers + 8);
        }
        requests[answers] = request;
        answeredIn[answers] = cycles;
        contents[answers++] = content;
    }

    /** Bus cycles that it has. */
    int cycles() {
        return cycles;
    }

    /** Bytes of memory that it takes; answers of the mailbox are few. */
    long size() {
        return frames.length + 8L * seen.length + 4L * rowOf.length;
    }

    /** The drive got these bytes in a cycle. */
    boolean got(int cycle, byte[] to) {
        int at = rowOf[cycle] * bytes;
        return Arrays.equals(to, 0, outputs, frames, at, at + outputs);
    }

    /** Bytes that the drive got in a cycle. */
    void outputs(int cycle, byte[] to) {
        System.arraycopy(frames, rowOf[cycle] * bytes, to, 0, outputs);
    }

    /** It gave these bytes. */
    boolean gave(int cycle, byte[] back) {
        int at = rowOf[cycle] * bytes + outputs;
        return Arrays.equals(back, 0, bytes - outputs, frames, at, at + bytes - outputs);
    }

    /** Bytes that it gave. */
    void inputs(int cycle, byte[] back) {
        System.arraycopy(frames, rowOf[cycle] * bytes + outputs, back, 0, bytes - outputs);
    }

    /** Nothing changed in a cycle: the axis stood, and goes on standing as long as it gets the same. */
    boolean stands(int cycle) {
        return cycle > 0 && cycle < cycles && rowOf[cycle] == rowOf[cycle - 1];
    }

    /** It stands when a cycle begins. @param cycle from 1 on */
    boolean stood(int cycle) {
        return stands(cycle) || stands(cycle - 1);
    }

    /** The first cycle, from this one on, in which it no longer does. */
    int standsUntil(int cycle) {
        int end = cycle;
        while (stands(end)) {
            end++;
        }
        return end;
    }

    /** Cycles that have the same row have all alike. */
    int row(int cycle) {
        return rowOf[cycle];
    }

    /** A number that was seen after a cycle. */
    double seen(int cycle, int number) {
        return seen[rowOf[cycle] * values + number];
    }

    /** Copies numbers that were seen. @param first of them  @param many of them */
    void seen(int cycle, int first, double[] into, int place, int many) {
        System.arraycopy(seen, rowOf[cycle] * values + first, into, place, many);
    }

    /** Number of the answer that the mailbox gave in a cycle, or −1. @param from the first one that is looked at */
    int answerIn(int cycle, int from) {
        return from < answers && answeredIn[from] == cycle ? from : -1;
    }

    /** Request that the mailbox answered. */
    int request(int answer) {
        return requests[answer];
    }

    /** What it wrote, or read. */
    long content(int answer) {
        return contents[answer];
    }
}
