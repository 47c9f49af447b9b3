package rueda.bench;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Random;
import java.util.stream.IntStream;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.IntRange;
import org.junit.jupiter.api.Test;

class DecimationTest {

    /** A single sample that sticks out, one way or the other, is shown at its own place, whichever signal it belongs to. */
    @Property(tries = 300)
    void nothingThatSticksOutIsLostOrMoved(@ForAll long seed, @ForAll @IntRange(min = 1, max = 12) int signals, @ForAll @IntRange(min = 3, max = 5000) int count, @ForAll @IntRange(min = 2, max = 3000) int points) {
        Random random = new Random(seed);
        double[][] all = new double[signals][count];
        for (double[] signal : all) {
            for (int k = 0; k < count; k++) {
                signal[k] = random.nextDouble();
            }
        }
        int spike = random.nextInt(count);
        int which = random.nextInt(signals);
        all[which][spike] = random.nextBoolean() ? 10 : -10;
        int[] shown = Decimation.samples(all, 0, count, points);
        assertThat(shown).contains(spike).contains(0, count - 1).isSorted().doesNotHaveDuplicates();
        assertThat(shown.length).isLessThanOrEqualTo(Math.max(Math.max(2, points), 2 * signals) + 2);
        int first = random.nextInt(count);
        int last = first + random.nextInt(count - first + 1);
        int[] part = Decimation.samples(all, first, last, points);
        assertThat(IntStream.of(part).allMatch(k -> k >= first && k < last)).isTrue();
        assertThat(part.length == 0).isEqualTo(first == last);
    }

    @Test
    void whatFitsIsShownWhole() {
        assertThat(Decimation.samples(new double[][] {{3, 1, 2}}, 0, 3, 3)).containsExactly(0, 1, 2);
        assertThat(Decimation.samples(new double[][] {{1, 1, 5, 1, 1, 0, 1, 1}}, 0, 8, 2)).containsExactly(0, 2, 5, 7);
    }
}
