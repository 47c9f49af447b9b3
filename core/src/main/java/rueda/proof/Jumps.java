package rueda.proof;

import java.util.BitSet;
import java.util.function.IntToDoubleFunction;

/**
 * Where a number jumps from one sample to the next, as a position does when it is referenced. A recording with fewer samples says nothing about what lies beside: the straight
 * line between two of its samples goes through values that there never were.
 */
final class Jumps {

    /** Share of the whole range in one sample that is a jump (our choice): at 1 ms an axis would be through its travel in 10 ms. */
    private static final double JUMP = 0.1;

    private Jumps() {
    }

    /** @param reach samples beside a jump that say nothing  @return the samples to leave out */
    static BitSet beside(IntToDoubleFunction value, int samples, int reach) {
        double low = Double.POSITIVE_INFINITY;
        double high = Double.NEGATIVE_INFINITY;
        for (int k = 0; k < samples; k++) {
            low = Math.min(low, value.applyAsDouble(k));
            high = Math.max(high, value.applyAsDouble(k));
        }
        BitSet beside = new BitSet();
        for (int k = 1; k < samples && high > low; k++) {
            if (Math.abs(value.applyAsDouble(k) - value.applyAsDouble(k - 1)) > JUMP * (high - low)) {
                beside.set(Math.max(0, k - reach), Math.min(samples, k + reach));
            }
        }
        return beside;
    }

    /** Samples of a run between two of a recording, as it is at the least. */
    static int reach(BroughtRun recorded, int column, RecordedRun run) {
        return 1 + (int) Math.ceil(recorded.sampled(column) / run.interval());
    }
}
