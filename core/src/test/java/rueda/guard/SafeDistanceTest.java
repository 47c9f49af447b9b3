package rueda.guard;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.MethodSource;
import org.junit.jupiter.params.provider.ValueSource;
import rueda.guard.Safeguard.InterlockedGuard;
import rueda.guard.Safeguard.LightCurtain;
import rueda.guard.Safeguard.Mat;
import rueda.guard.Safeguard.ParallelField;
import rueda.guard.Safeguard.SeparateBeams;
import rueda.guard.Safeguard.SingleBeam;
import rueda.guard.Safeguard.TwoHandControl;

/** Worked by hand from the formulas of ISO 13855:2010 (constants and clauses from memory). */
class SafeDistanceTest {

    static Stream<Arguments> worked() {
        return Stream.of(
            // 2000 · 0.100 + 8 · (14 − 14) = 200
            Arguments.of(new LightCurtain(14), 0.100, 200, false),
            // 2000 · 0.120 + 8 · (30 − 14) = 240 + 128 = 368
            Arguments.of(new LightCurtain(30), 0.120, 368, false),
            // 2000 · 0.300 + 8 · 16 = 728 is beyond 500, so 1600 · 0.300 + 128 = 608
            Arguments.of(new LightCurtain(30), 0.300, 608, false),
            // 2000 · 0.240 + 8 · 16 = 608 is beyond 500, 1600 · 0.240 + 128 = 512
            Arguments.of(new LightCurtain(30), 0.240, 512, false),
            // 2000 · 0.200 + 128 = 528 is beyond 500, but 1600 · 0.200 + 128 = 448 is not: never nearer than 500
            Arguments.of(new LightCurtain(30), 0.200, 500, true),
            // 2000 · 0.020 + 0 = 40: never nearer than 100
            Arguments.of(new LightCurtain(14), 0.020, 100, true),
            // finer than 14 mm: C is never below 0, 2000 · 0.150 = 300
            Arguments.of(new LightCurtain(5), 0.150, 300, false),
            // sees an arm and no hand: 1600 · 0.200 + 850 = 1170
            Arguments.of(new LightCurtain(50), 0.200, 1170, false),
            Arguments.of(new SeparateBeams(), 0.200, 1170, false),
            // 1600 · 0.200 + 1200 = 1520
            Arguments.of(new SingleBeam(), 0.200, 1520, false),
            // 1600 · 0.250 + (1200 − 0.4 · 300) = 400 + 1080 = 1480
            Arguments.of(new ParallelField(300, 70), 0.250, 1480, false),
            // 1200 − 0.4 · 1000 = 800 is less than an arm: 1600 · 0.250 + 850 = 1250
            Arguments.of(new ParallelField(1000, 100), 0.250, 1250, false),
            // on the floor: 1600 · 0.150 + 1200 = 1440; on a step of 200 mm: 1360
            Arguments.of(new Mat(0), 0.150, 1440, false),
            Arguments.of(new Mat(200), 0.150, 1360, false),
            // 1600 · 0.090 + 250 = 394
            Arguments.of(new TwoHandControl(false), 0.090, 394, false),
            // 1600 · 0.050 = 80: never nearer than 100
            Arguments.of(new TwoHandControl(true), 0.050, 100, true),
            // 1600 · 0.400 + 120 = 760
            Arguments.of(new InterlockedGuard(120), 0.400, 760, false));
    }

    @ParameterizedTest
    @MethodSource("worked")
    void asWorkedByHand(Safeguard safeguard, double seconds, double expected, boolean least) {
        SafeDistance distance = safeguard.distance(seconds);
        assertThat(distance.distance()).isCloseTo(expected, within(1e-9));
        assertThat(distance.least()).isEqualTo(least);
        assertThat(distance.words()).contains(String.format(java.util.Locale.ROOT, "%.0f mm", expected));
    }

    /** A longer time never lets a safeguard stand nearer, also where the speed of a body takes over from that of a hand. */
    @Test
    void moreTimeIsNeverNearer() {
        for (Safeguard safeguard : List.of(new LightCurtain(14), new LightCurtain(30), new LightCurtain(40), new SingleBeam(), new TwoHandControl(true))) {
            double nearest = 0;
            for (int millis = 1; millis < 1000; millis++) {
                double distance = safeguard.distance(millis * 1e-3).distance();
                assertThat(distance).as("%s at %d ms", safeguard, millis).isGreaterThanOrEqualTo(nearest - 1e-9);
                nearest = distance;
            }
        }
    }

    @ParameterizedTest
    @ValueSource(doubles = {0, -1, Double.NaN})
    void aTimeThatIsNoneIsRefused(double seconds) {
        assertThatThrownBy(() -> new SingleBeam().distance(seconds)).isInstanceOf(IllegalArgumentException.class).hasMessageContaining("above 0");
    }

    /** The lowest place of a field is 15 · (d − 50 mm): at 300 mm up to 70 mm may be seen. */
    @Test
    void whatTheStandardDoesNotHaveIsRefused() {
        assertThatThrownBy(() -> new ParallelField(300, 71)).hasMessageContaining("allowed are 0.0 to 70.0 mm");
        assertThatThrownBy(() -> new LightCurtain(71)).hasMessageContaining("resolution");
        assertThatThrownBy(() -> new ParallelField(1001, 50)).hasMessageContaining("height");
        assertThatThrownBy(() -> new Mat(Double.NaN)).hasMessageContaining("height");
    }
}
