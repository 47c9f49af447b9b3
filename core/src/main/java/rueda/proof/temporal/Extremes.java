package rueda.proof.temporal;

/** Minima over what lies ahead. Maxima are minima of what is turned round. */
final class Extremes {

    private Extremes() {
    }

    /** The least of {@code values[k+first] … values[k+last]}, for every k for which all of these are there. */
    static double[] sliding(double[] values, int first, int last) {
        int length = Math.max(0, values.length - last);
        double[] least = new double[length];
        int width = last - first + 1;
        /* places of candidates in their order, each less than those behind it: a ring of the window's width */
        int[] queue = new int[Math.min(width, values.length) + 1];
        int head = 0;
        int tail = 0;
        for (int i = first; i < values.length; i++) {
            while (tail != head && values[queue[(tail + queue.length - 1) % queue.length]] > values[i]) {
                tail = (tail + queue.length - 1) % queue.length;
            }
            queue[tail] = i;
            tail = (tail + 1) % queue.length;
            int k = i - last;
            if (k >= 0 && k < length) {
                if (queue[head] < k + first) {
                    head = (head + 1) % queue.length;
                }
                least[k] = values[queue[head]];
            }
        }
        return least;
    }

    /** The least of {@code values[k+first]} and everything behind it. */
    static double[] suffix(double[] values, int first) {
        int length = Math.max(0, values.length - first);
        double[] least = new double[length];
        double lowest = Double.POSITIVE_INFINITY;
        for (int k = length - 1; k >= 0; k--) {
            lowest = Math.min(lowest, values[k + first]);
            least[k] = lowest;
        }
        return least;
    }

    static double[] turned(double[] values) {
        double[] turned = new double[values.length];
        for (int i = 0; i < values.length; i++) {
            turned[i] = -values[i];
        }
        return turned;
    }

    /** The first place from {@code from} to {@code to} with the least value. */
    static int placeOfLeast(double[] values, int from, int to) {
        int place = from;
        for (int i = from + 1; i <= to; i++) {
            place = values[i] < values[place] ? i : place;
        }
        return place;
    }
}
