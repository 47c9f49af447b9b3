package rueda.plant;

import java.util.SplittableRandom;

/**
 * Noise of an encoder: counts that come and go, normally distributed as nearly as the sum of twelve uniform draws is (Irwin and Hall; within 6
 * standard deviations). The same seed gives the same counts on every machine. No allocation in {@link #next}; not thread-safe.
 */
public final class EncoderNoise {

    private static final int DRAWS = 12;

    private final SplittableRandom random;
    private final double deviation;

    /** @param deviation standard deviation, counts */
    public EncoderNoise(double deviation, long seed) {
        this.deviation = deviation;
        random = new SplittableRandom(seed);
    }

    /** Counts to add to those of the shaft. */
    long next() {
        double sum = -DRAWS / 2.0;
        for (int i = 0; i < DRAWS; i++) {
            /* 53 bits, as the documentation of Random.nextDouble has them */
            sum += (random.nextLong() >>> 11) * 0x1.0p-53;
        }
        return Math.round(sum * deviation);
    }
}
