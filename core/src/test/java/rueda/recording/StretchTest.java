package rueda.recording;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Arrays;
import java.util.HashMap;
import java.util.Map;
import java.util.SplittableRandom;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.IntRange;
import net.jqwik.api.constraints.LongRange;
import org.junit.jupiter.api.Test;

/** Against looking at every sample. */
class StretchTest {

    /** Uneven times, equal ones among them. */
    private static Curve curve(int samples, long seed) {
        SplittableRandom random = new SplittableRandom(seed);
        long[] nanos = new long[samples];
        double[] values = new double[samples];
        long time = 0;
        for (int i = 0; i < samples; i++) {
            time += random.nextInt(3) * 1000L;
            nanos[i] = time;
            values[i] = random.nextInt(50) == 0 ? Double.NaN : random.nextDouble(-5, 5);
        }
        return new Curve(nanos, values);
    }

    @Property(tries = 300)
    void noExtremeIsLostOrMoved(@ForAll @IntRange(min = 1, max = 20_000) int samples, @ForAll long seed, @ForAll @IntRange(min = 4, max = 300) int points, @ForAll @IntRange(max = 100) int begin, @ForAll @IntRange(max = 100) int length) {
        Curve curve = curve(samples, seed);
        long end = curve.nanos()[samples - 1];
        long from = end * begin / 100;
        long to = Math.min(end, from + end * length / 100);
        Stretch shown = Stretch.of(curve, from, to, points);

        Map<Long, Double> lowest = new HashMap<>();
        double low = Double.POSITIVE_INFINITY;
        double high = Double.NEGATIVE_INFINITY;
        for (int i = 0; i < samples; i++) {
            if (curve.nanos()[i] >= from && curve.nanos()[i] <= to && !Double.isNaN(curve.values()[i])) {
                low = Math.min(low, curve.values()[i]);
                high = Math.max(high, curve.values()[i]);
            }
        }
        double least = Arrays.stream(shown.values()).filter(v -> !Double.isNaN(v)).min().orElse(Double.POSITIVE_INFINITY);
        double most = Arrays.stream(shown.values()).filter(v -> !Double.isNaN(v)).max().orElse(Double.NEGATIVE_INFINITY);
        assertThat(least).isLessThanOrEqualTo(low);
        assertThat(most).isGreaterThanOrEqualTo(high);
        assertThat(shown.nanos()).isSorted();
        assertThat(shown.nanos().length).isLessThanOrEqualTo(points + 4);
        for (int i = 0; i < shown.nanos().length; i++) {
            int k = i;
            assertThat(java.util.stream.IntStream.range(0, samples).anyMatch(s -> curve.nanos()[s] == shown.nanos()[k] && Double.compare(curve.values()[s], shown.values()[k]) == 0)).as("a sample that there is").isTrue();
        }
    }

    @Property(tries = 200)
    void whereFewAreThereAllAreShown(@ForAll @IntRange(min = 1, max = 5000) int samples, @ForAll long seed, @ForAll @LongRange(min = 0, max = 5_000_000) long from) {
        Curve curve = curve(samples, seed);
        long to = from + 100_000;
        Stretch shown = Stretch.of(curve, from, to, 4000);
        long[] inside = Arrays.stream(curve.nanos()).filter(t -> t > from && t < to).toArray();
        assertThat(Arrays.stream(shown.nanos()).filter(t -> t > from && t < to).toArray()).isEqualTo(inside);
        assertThat(shown.whole()).isTrue();
        if (curve.nanos()[0] <= from && curve.nanos()[samples - 1] >= to) {
            assertThat(shown.nanos()[0]).as("reaches its left edge").isLessThanOrEqualTo(from);
            assertThat(shown.nanos()[shown.nanos().length - 1]).as("reaches its right edge").isGreaterThanOrEqualTo(to);
        }
    }

    @Property(tries = 100)
    void anOverviewIsReadAsItWasWritten(@ForAll @IntRange(min = 0, max = 3000) int samples, @ForAll long seed) {
        Overview overview = samples == 0 ? new Overview.Builder().build() : curve(samples, seed).overview();
        Overview read = Overview.of(overview.bytes());
        assertThat(read.bytes()).isEqualTo(overview.bytes());
        assertThat(read.blocks()).isEqualTo((samples + Overview.BLOCK - 1) / Overview.BLOCK);
    }

    @Test
    void betweenTwoSamplesAStraightLine() {
        Curve curve = new Curve(new long[] {0, 10, 30}, new double[] {1, 2, Double.NaN});
        assertThat(curve.at(5)).isEqualTo(1.5);
        assertThat(curve.at(10)).isEqualTo(2);
        assertThat(curve.at(20)).isNaN();
        assertThat(curve.at(-1)).isNaN();
        assertThat(curve.at(31)).isNaN();
    }

    @Test
    void aSignalWithoutSamplesShowsNothing() {
        assertThat(Stretch.of(new Curve(new long[0], new double[0]), 0, 100, 10).nanos()).isEmpty();
    }
}
