package rueda.bench;

import java.math.BigInteger;
import java.util.Arrays;

/**
 * Finds that an axis rests: it got the same bytes as in the cycle before, and not one bit of its drive and plant has changed by them. What follows then is
 * known as long as it gets the same bytes and nobody touches it, and need not be worked out.
 *
 * <p>It looks seldom at first and ever more seldom while there is nothing to find. No allocation once warm; not thread-safe.
 */
final class Rest {

    private static final int FIRST_LOOK = 24;
    private static final int SELDOM = 768;

    private final byte[] outputs;
    private final byte[] inputs;
    private final byte[] outputsBefore;
    private final byte[] inputsBefore;
    private final DelayedMailbox mailbox;
    private final StillState state;
    /** of a guard beside the drive, null without one */
    private final StillState guard;
    /** bus cycles after which all clocks stand to each other as before */
    private final int period;
    private int quiet;
    private int look = FIRST_LOOK;
    private boolean rests;
    private long rested;

    /**
     * @param outputs bytes to the drive  @param inputs bytes from it
     * @param beside   the guard of the axis, null without one
     * @param subSteps in a bus cycle
     * @param roots    everything that a cycle may change
     */
    Rest(byte[] outputs, byte[] inputs, DelayedMailbox mailbox, GuardDevice beside, int subSteps, Object... roots) {
        guard = beside == null ? null : new StillState(beside.state());
        period = period(beside, subSteps);
        this.outputs = outputs;
        this.inputs = inputs;
        this.mailbox = mailbox;
        outputsBefore = new byte[outputs.length];
        inputsBefore = new byte[inputs.length];
        state = new StillState(roots);
    }

    /** The cycle that comes changes nothing. */
    boolean goesOn() {
        if (rests && (!mailbox.idle() || !Arrays.equals(outputs, outputsBefore))) {
            wake();
        }
        rested += rests ? 1 : 0;
        return rests;
    }

    /** Bus cycles after which all clocks stand to each other as before, 1 or more. @param beside null without one  @param subSteps in a bus cycle */
    static int period(GuardDevice beside, int subSteps) {
        return beside == null ? 1 : beside.subSteps() / BigInteger.valueOf(subSteps).gcd(BigInteger.valueOf(beside.subSteps())).intValue();
    }

    /** Cycles that were not worked out. */
    long rested() {
        return rested;
    }

    /** Somebody has touched the axis. */
    void wake() {
        rests = false;
        quiet = 0;
        look = FIRST_LOOK;
    }

    /** A cycle has been worked out. */
    void worked() {
        if (!mailbox.idle() || !Arrays.equals(outputs, outputsBefore)) {
            System.arraycopy(outputs, 0, outputsBefore, 0, outputs.length);
            quiet = 0;
            look = FIRST_LOOK;
            return;
        }
        quiet++;
        if (quiet == look - 1) {
            System.arraycopy(inputs, 0, inputsBefore, 0, inputs.length);
        } else if (quiet == look && !Arrays.equals(inputs, inputsBefore)) {
            /* it moves, as its answer alone says */
            seldomer();
        } else if (quiet == look) {
            state.keep();
            if (guard != null) {
                guard.keep();
            }
        } else if (quiet > look) {
            boolean still = Arrays.equals(inputs, inputsBefore) && state.same();
            if (still && quiet < look + period) {
                return;
            }
            rests = still && (guard == null || guard.same());
            seldomer();
        }
    }

    private void seldomer() {
        quiet = 0;
        look = Math.min(SELDOM, 2 * look);
    }
}
