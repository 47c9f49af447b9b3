package rueda.proof;

import java.util.BitSet;
import java.util.function.IntToDoubleFunction;
import rueda.bench.AxisSignal;

/**
 * Where a position jumps from one sample to the next, as it does when it is referenced or begins its circle again; a torque that is as quick is one that has to be compared. A recording with fewer samples says nothing about what lies beside: the straight
 * line between two of its samples goes through values that there never were.
 */
final class Jumps {

    /** Share of its whole range in one sample that is a jump of a position (our choice): at 1 ms an axis would be through its travel in 10 ms. */
    private static final double JUMP = 0.1;

    private Jumps() {
    }

    /** The samples of a run to leave out for a signal. @param column the same in the recording */
    static BitSet beside(RecordedRun run, int signal, BroughtRun recorded, int column) {
        String name = run.signals().get(signal).name();
        boolean position = run.machine().axes().stream().anyMatch(axis -> name.equalsIgnoreCase(AxisSignal.POSITION.of(axis.name())) || name.equalsIgnoreCase(AxisSignal.COMMANDED_POSITION.of(axis.name())));
        /* samples between two of the recording, at the least */
        int reach = 1 + (int) Math.ceil(recorded.sampled(column) / run.interval());
        return position ? beside(k -> run.value(signal, k), (int) run.samples(), reach) : new BitSet();
    }

    private static BitSet beside(IntToDoubleFunction value, int samples, int reach) {
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
}
