package rueda.proof;

import java.util.BitSet;
import java.util.function.IntToDoubleFunction;

/**
 * The sample with the least room, and around it the samples in a row at which there is none.
 *
 * @param sample the first one with the least room
 * @param room   there
 * @param from   first sample in a row without room; {@code sample} where there is room
 * @param to     the last of them
 */
record Worst(int sample, double room, int from, int to) {

    /** @param counted samples that count, not empty  @param room at a sample; what it is below 0 does not hold */
    static Worst of(BitSet counted, IntToDoubleFunction room) {
        int worst = counted.nextSetBit(0);
        double least = room.applyAsDouble(worst);
        for (int k = worst; k >= 0; k = counted.nextSetBit(k + 1)) {
            double here = room.applyAsDouble(k);
            if (here < least || Double.isNaN(here) && !Double.isNaN(least)) {
                least = here;
                worst = k;
            }
        }
        int from = worst;
        int to = worst;
        if (!(least >= 0)) {
            while (from > 0 && counted.get(from - 1) && !(room.applyAsDouble(from - 1) >= 0)) {
                from--;
            }
            while (counted.get(to + 1) && !(room.applyAsDouble(to + 1) >= 0)) {
                to++;
            }
        }
        return new Worst(worst, least, from, to);
    }

    boolean holds() {
        return room >= 0;
    }
}
