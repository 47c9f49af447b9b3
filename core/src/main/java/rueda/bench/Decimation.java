package rueda.bench;

import java.util.BitSet;

/**
 * Which samples of a long recording are shown: of every interval those at which a signal is lowest or highest, and the first and the last
 * of all. Signals shown together share their times, so every sample is shown of all of them, at its own time and with its own value;
 * nothing that sticks out is lost or moved.
 */
public final class Decimation {

    private Decimation() {
    }

    /**
     * @param signals samples of every signal, all of one length
     * @param first   first sample wanted
     * @param last    the one behind the last wanted
     * @param points  about how many to show, 2 or more
     * @return numbers of the samples to show, rising
     */
    public static int[] samples(double[][] signals, int first, int last, int points) {
        int count = last - first;
        if (count <= Math.max(2, points) || signals.length == 0) {
            return java.util.stream.IntStream.range(first, Math.max(first, last)).toArray();
        }
        int intervals = Math.max(1, points / (2 * signals.length));
        BitSet shown = new BitSet(count);
        shown.set(0);
        shown.set(count - 1);
        for (int i = 0; i < intervals; i++) {
            int from = first + (int) ((long) count * i / intervals);
            int to = first + (int) ((long) count * (i + 1) / intervals);
            for (double[] signal : signals) {
                int low = from;
                int high = from;
                for (int k = from; k < to; k++) {
                    low = signal[k] < signal[low] ? k : low;
                    high = signal[k] > signal[high] ? k : high;
                }
                shown.set(low - first);
                shown.set(high - first);
            }
        }
        return shown.stream().map(k -> k + first).toArray();
    }
}
