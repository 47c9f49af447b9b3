package rueda.proof.learn;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.stream.IntStream;
import org.hipparchus.analysis.UnivariateFunction;
import org.hipparchus.optim.MaxEval;
import org.hipparchus.optim.nonlinear.scalar.GoalType;
import org.hipparchus.optim.univariate.BrentOptimizer;
import org.hipparchus.optim.univariate.SearchInterval;
import org.hipparchus.optim.univariate.UnivariateObjectiveFunction;
import rueda.proof.RecordedRun;
import rueda.recording.Brought;
import rueda.recording.Curve;

/**
 * The moves of a recording, each laid over a run by itself: a program that waits until an axis has arrived begins the next move a task earlier or later when the load is
 * another one, and that says nothing about the load. Immutable but for its arrays, which nobody changes.
 *
 * @param signal name by which it is laid
 * @param nanos  times of its samples in the recording, ns
 * @param values of its samples
 * @param shift  s that the whole is moved
 * @param ends   number of the sample behind each move and half of the rest after it
 * @param moving at each sample, whether it moves, or has just done so
 */
record Moves(String signal, long[] nanos, double[] values, double shift, int[] ends, boolean[] moving) {

    private static final int MOST_SAMPLES = 20_000;
    /** Slower than this share of the highest speed it rests. */
    private static final double RESTS = 0.02;
    /** Shorter rests belong to a move, s. */
    private static final double SHORTEST_REST = 0.1;
    /** So long after a move what it has set ringing counts, s. */
    private static final double SETTLES = 0.15;
    /** From one move to the next it may be so much earlier or later, s. */
    private static final double REACH = 0.25;
    private static final double GRID = 0.004;
    /** Samples that are looked at on the grid. */
    private static final int COARSE = 100;

    /** @param place the signal is a position, not a speed */
    static Moves of(Brought.Column column, boolean place, double shift, RecordedRun run) {
        long from = Math.round((run.time(0) - shift) * 1e9);
        long to = Math.round((run.end() - shift) * 1e9);
        Curve all = Curve.around(column.signal(), from, to, Integer.MAX_VALUE - 8);
        int[] inside = IntStream.range(0, all.nanos().length).filter(i -> all.nanos()[i] >= from && all.nanos()[i] <= to && !Double.isNaN(all.values()[i])).toArray();
        int every = Math.max(1, inside.length / MOST_SAMPLES);
        int[] taken = IntStream.range(0, inside.length / every).map(i -> inside[i * every]).toArray();
        long[] nanos = Arrays.stream(taken).mapToLong(i -> all.nanos()[i]).toArray();
        double[] values = Arrays.stream(taken).mapToDouble(i -> all.values()[i]).toArray();
        double[] speeds = place ? slopes(nanos, values) : values;
        boolean[] moving = moving(speeds);
        return new Moves(column.name(), nanos, values, shift, ends(nanos, moving), settling(nanos, moving));
    }

    private static double[] slopes(long[] nanos, double[] values) {
        double[] slopes = new double[values.length];
        for (int k = 0; k < values.length; k++) {
            int a = Math.max(0, k - 3);
            int b = Math.min(values.length - 1, k + 3);
            slopes[k] = b > a && nanos[b] > nanos[a] ? (values[b] - values[a]) / (nanos[b] - nanos[a]) : 0;
        }
        return slopes;
    }

    private static boolean[] moving(double[] speeds) {
        double[] sorted = Arrays.stream(speeds).map(Math::abs).sorted().toArray();
        /* not the very highest, which may be a jump */
        double fast = sorted.length == 0 ? 0 : sorted[(int) (sorted.length * 0.99)];
        boolean[] moving = new boolean[speeds.length];
        for (int k = 0; k < speeds.length; k++) {
            moving[k] = Math.abs(speeds[k]) > RESTS * fast;
        }
        return moving;
    }

    private static int[] ends(long[] nanos, boolean[] moving) {
        List<Integer> ends = new ArrayList<>();
        int lastMoving = -1;
        for (int k = 0; k < moving.length; k++) {
            if (moving[k]) {
                if (lastMoving >= 0 && (nanos[k] - nanos[lastMoving]) * 1e-9 > SHORTEST_REST) {
                    ends.add((lastMoving + k) / 2);
                }
                lastMoving = k;
            }
        }
        ends.add(moving.length);
        return ends.stream().mapToInt(Integer::intValue).toArray();
    }

    private static boolean[] settling(long[] nanos, boolean[] moving) {
        boolean[] settling = moving.clone();
        int lastMoving = -1;
        for (int k = 0; k < moving.length; k++) {
            lastMoving = moving[k] ? k : lastMoving;
            settling[k] = lastMoving >= 0 && (nanos[k] - nanos[lastMoving]) * 1e-9 <= SETTLES;
        }
        return settling;
    }

    /** Whether it moves at a time of the recording, or has just done so: at rest a torque shows what friction happens to hold, and hunting within the play, which no run repeats. */
    boolean movesAt(long time) {
        int found = Arrays.binarySearch(nanos, time);
        int sample = found >= 0 ? found : -found - 2;
        return sample >= 0 && sample < moving.length && moving[sample];
    }

    /** Number of the move at a time of the recording. */
    int moveAt(long time) {
        int found = Arrays.binarySearch(nanos, time);
        int sample = found >= 0 ? found : -found - 1;
        int move = 0;
        while (move < ends.length - 1 && sample >= ends[move]) {
            move++;
        }
        return move;
    }

    /** @return for each move the s that are added to the times of the recording so that it lies over the run */
    double[] laid(RecordedRun made) {
        Track run = Track.of(made, signal);
        double[] shifts = new double[ends.length];
        double about = shift;
        for (int move = 0; move < ends.length; move++) {
            int from = move == 0 ? 0 : ends[move - 1];
            int to = ends[move];
            int fewer = Math.max(1, (to - from) / COARSE);
            UnivariateFunction apart = s -> apart(run, from, to, 1, s);
            double best = about;
            double least = apart(run, from, to, fewer, about);
            for (double s = about - REACH; s <= about + REACH; s += GRID) {
                double here = apart(run, from, to, fewer, s);
                if (here < least) {
                    least = here;
                    best = s;
                }
            }
            about = new BrentOptimizer(1e-9, 1e-6).optimize(new MaxEval(100), new UnivariateObjectiveFunction(apart), GoalType.MINIMIZE, new SearchInterval(best - GRID, best + GRID, best)).getPoint();
            shifts[move] = about;
        }
        return shifts;
    }

    /** Mean square of the difference; what has nothing of the run below it is left out. */
    private double apart(Track run, int from, int to, int every, double by) {
        double sum = 0;
        int count = 0;
        for (int k = from; k < to; k += every) {
            double there = run.at(nanos[k] * 1e-9 + by);
            if (!Double.isNaN(there)) {
                sum += (there - values[k]) * (there - values[k]);
                count++;
            }
        }
        return count == 0 ? Double.MAX_VALUE : sum / count;
    }
}
