package rueda.bench;

import java.util.SplittableRandom;

/** Frames that do not come, or come too late, by chance. The same seed loses the same ones on every machine. No allocation; not thread-safe. */
final class FrameLoss {

    private final SplittableRandom random;
    private final double share;

    /** @param share of all frames, 0 to 1 */
    FrameLoss(double share, long seed) {
        this.share = share;
        random = new SplittableRandom(seed);
    }

    /** One bus cycle. @return whether its frame is lost */
    boolean loses() {
        return (random.nextLong() >>> 11) * 0x1.0p-53 < share;
    }
}
