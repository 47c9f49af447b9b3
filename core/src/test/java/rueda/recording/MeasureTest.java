package rueda.recording;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.SplittableRandom;
import java.util.function.DoubleUnaryOperator;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.DoubleRange;
import org.hipparchus.stat.regression.SimpleRegression;
import org.junit.jupiter.api.Test;

/** Against closed forms of a sine and a straight line, and against Hipparchus' regression. */
class MeasureTest {

    private static final long SECOND = 1_000_000_000L;

    private static Curve curve(double seconds, double interval, DoubleUnaryOperator value) {
        int count = (int) Math.round(seconds / interval) + 1;
        long[] nanos = new long[count];
        double[] values = new double[count];
        for (int i = 0; i < count; i++) {
            nanos[i] = Math.round(i * interval * 1e9);
            values[i] = value.applyAsDouble(i * interval);
        }
        return new Curve(nanos, values);
    }

    private static Measure whole(Curve curve) {
        return Measure.of(curve, 0, curve.nanos()[curve.nanos().length - 1], 1_000_000).orElseThrow();
    }

    @Property(tries = 50)
    void aSineOfWholeSwings(@ForAll @DoubleRange(min = 0.1, max = 50) double amplitude, @ForAll @DoubleRange(min = -20, max = 20) double offset, @ForAll @DoubleRange(min = 3, max = 40) double hertz) {
        double seconds = Math.round(4 * hertz) / hertz;
        Measure m = whole(curve(seconds, seconds / 20_000, t -> offset + amplitude * Math.sin(2 * Math.PI * hertz * t)));
        assertThat(m.mean()).isCloseTo(offset, within(1e-3 * amplitude));
        assertThat(m.rms()).isCloseTo(Math.sqrt(offset * offset + amplitude * amplitude / 2), within(2e-3 * amplitude));
        assertThat(m.frequency()).isCloseTo(hertz, within(0.05 * hertz));
        assertThat(m.high()).isCloseTo(offset + amplitude, within(1e-3 * amplitude));
        assertThat((m.highAt() * 1e-9 * hertz) % 1).as("the highest is at a quarter of a swing").isCloseTo(0.25, within(0.01));
    }

    @Test
    void ringingOnARampUnderNoiseHasItsFrequency() {
        SplittableRandom random = new SplittableRandom(5);
        Measure m = whole(curve(1, 1e-4, t -> 300 * t + 4 * Math.sin(2 * Math.PI * 23 * t) + random.nextGaussian() * 0.3));
        assertThat(m.frequency()).isCloseTo(23, within(0.3));
        assertThat(m.slope()).isCloseTo(300, within(5.0));
    }

    @Test
    void noiseAloneDoesNotRing() {
        SplittableRandom random = new SplittableRandom(7);
        assertThat(whole(curve(1, 1e-3, t -> random.nextGaussian())).frequency()).isNaN();
        assertThat(whole(curve(1, 1e-3, t -> 5)).frequency()).isNaN();
    }

    @Property(tries = 50)
    void theSlopeIsThatOfTheRegression(@ForAll long seed) {
        SplittableRandom random = new SplittableRandom(seed);
        Curve curve = curve(2, 0.01, t -> random.nextDouble(-3, 3) + t);
        SimpleRegression regression = new SimpleRegression();
        for (int i = 0; i < curve.nanos().length; i++) {
            regression.addData(curve.nanos()[i] * 1e-9, curve.values()[i]);
        }
        assertThat(whole(curve).slope()).isCloseTo(regression.getSlope(), within(1e-9));
    }

    @Test
    void meanAndRmsAreOverTimeNotOverSamples() {
        Curve uneven = new Curve(new long[] {0, SECOND, SECOND + 1, 4 * SECOND}, new double[] {0, 0, 3, 3});
        Measure m = whole(uneven);
        assertThat(m.mean()).isCloseTo(2.25, within(1e-6));
        assertThat(m.rms()).isCloseTo(Math.sqrt(27.0 / 4), within(1e-6));
    }

    @Test
    void whatIsNotThereIsNotMeasured() {
        Curve curve = curve(1, 0.1, t -> t < 0.5 ? Double.NaN : t);
        assertThat(Measure.of(curve, 0, SECOND / 4, 100)).isEmpty();
        assertThat(whole(curve).samples()).isEqualTo(6);
        assertThat(whole(curve).first()).isCloseTo(0.5, within(1e-12));
        assertThatThrownBy(() -> Measure.of(curve(1, 0.001, t -> t), 0, SECOND, 100)).hasMessageContaining("1001 samples");
    }
}
