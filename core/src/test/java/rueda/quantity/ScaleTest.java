package rueda.quantity;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.math.BigDecimal;
import java.math.BigInteger;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.IntRange;
import net.jqwik.api.constraints.LongRange;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.ParameterizedTest;

class ScaleTest {

    private static Scale scale(long counts, long motor, long output, String feed, int decimals) {
        return new Scale(counts, Ratio.of(motor, output), Ratio.of(new BigDecimal(feed)), decimals);
    }

    /** Common practice, no source: 524 288 counts to be 10 000 units per turn is 32 768 : 625. */
    @Test
    void electronicGearToARoundNumber() {
        Scale scale = scale(524_288, 1, 1, "10000", 0);
        assertThat(scale.countsPerUnit()).isEqualTo(Ratio.of(32_768, 625));
        assertThat(scale.wireFromCounts(524_288)).isEqualTo(10_000);
    }

    /** Common practice, no source: 5 mm screw behind 5:1, unit 1 µm: one motor turn is 1000 units, 65 536 : 125 counts per unit. */
    @Test
    void screwBehindAReducer() {
        Scale scale = scale(524_288, 5, 1, "5000", 0);
        assertThat(scale.countsPerUnit()).isEqualTo(Ratio.of(65_536, 125));
        assertThat(scale.unitsPerMotorTurn()).isEqualTo(Ratio.of(1000));
    }

    /** Common practice, no source: unit 0.001° direct on a 19-bit motor; one degree is 1000 units, 524 288 : 360 000. */
    @Test
    void rotaryDirect() {
        Scale scale = scale(524_288, 1, 1, "360", 3);
        assertThat(scale.countsPerWireUnit()).isEqualTo(Ratio.of(524_288, 360_000));
        assertThat(scale.wireFromUnits(1)).isEqualTo(1000);
    }

    /** Common practice, no source: 1024 lines with quadrature are 4096 counts; 5000 units/s at 1000 units a turn are 300 rpm. */
    @Test
    void speedFromUnits() {
        assertThat(scale(1024 * 4, 1, 1, "1000", 0).motorTurnsPerMinute(5000)).isCloseTo(300, within(1e-9));
    }

    /** Position factors of IEC 61800-7-201: position × 608Fh × 6091h ÷ 6092h, worked with big integers beside it. */
    @Property
    void positionFactorsAreExact(@ForAll @LongRange(min = 4, max = 1_048_576) long counts, @ForAll @IntRange(min = 1, max = 500) int motor,
                                 @ForAll @IntRange(min = 1, max = 500) int output, @ForAll @IntRange(min = 1, max = 100_000) int feed,
                                 @ForAll @LongRange(min = -2_000_000_000, max = 2_000_000_000) long wire) {
        Scale scale = scale(counts, motor, output, Integer.toString(feed), 0);
        BigInteger numerator = BigInteger.valueOf(wire).multiply(BigInteger.valueOf(counts)).multiply(BigInteger.valueOf(motor));
        BigInteger denominator = BigInteger.valueOf(output).multiply(BigInteger.valueOf(feed));
        long nearest = new BigDecimal(numerator).divide(new BigDecimal(denominator), 0, java.math.RoundingMode.HALF_UP).longValueExact();
        assertThat(scale.countsFromWire(wire)).isEqualTo(nearest);
        if (scale.countsPerUnit().toDouble() >= 1) {
            assertThat(scale.wireFromCounts(scale.countsFromWire(wire))).isEqualTo(wire);
        }
    }

    @Test
    void travelBeforeOverflow() {
        assertThat(scale(524_288, 91, 10, "120", 4).travelBeforeWireOverflow()).isEqualTo(214_748.3647);
        assertThat(scale(524_288, 91, 10, "120", 4).countsPerUnit()).isEqualTo(Ratio.of(2_981_888, 75));
    }

    @Test
    void refusesWithTheReason() {
        assertThatThrownBy(() -> scale(524_288, 0, 10, "120", 3)).isInstanceOf(InvalidEntry.class).hasMessageContaining("motorTurns").hasMessageContaining("0");
        assertThatThrownBy(() -> scale(524_288, -91, 10, "120", 3)).isInstanceOf(InvalidEntry.class).hasMessageContaining("-91");
        assertThatThrownBy(() -> scale(524_288, 91, 0, "120", 3)).isInstanceOf(InvalidEntry.class).hasMessageContaining("denominator");
        assertThatThrownBy(() -> scale(524_288, 91, 10, "-1", 3)).isInstanceOf(InvalidEntry.class).hasMessageContaining("feed");
    }

    @Property
    void scalingRoundsHalvesAwayFromZero(@ForAll @LongRange(min = -1L << 40, max = 1L << 40) long value,
                                         @ForAll @IntRange(min = 1, max = 1_000_000) int top, @ForAll @IntRange(min = 1, max = 1_000_000) int bottom) {
        long expected = new BigDecimal(BigInteger.valueOf(value).multiply(BigInteger.valueOf(top)))
                .divide(BigDecimal.valueOf(bottom), 0, java.math.RoundingMode.HALF_UP).longValueExact();
        assertThat(Ratio.of(top, bottom).scale(value)).isEqualTo(expected);
        assertThat(new CountScaler(Ratio.of(top, bottom)).scale(value)).isEqualTo(expected);
    }

    /** A pinion of module 2: π × 2 mm to twelve digits, at any number of decimals, behind any reducer. What is held is told apart from what is exact. */
    @ParameterizedTest
    @CsvSource({"0", "1", "2", "3", "4", "5", "6"})
    void aPitchOfTwelveDigitsIsTaken(int decimals) {
        Ratio feed = Ratio.of(new java.math.BigDecimal("6.28318530718")).times(Ratio.of(24));
        Scale scale = new Scale(524_288, Ratio.of(91, 10), feed, decimals);
        double exact = 524_288 * 9.1 / (24 * 6.28318530718) / Math.pow(10, decimals);
        assertThat(scale.countsPerWireUnit().toDouble()).isCloseTo(exact, within(1e-14 * exact));
        assertThat(scale.feedConstant().numerator()).isLessThanOrEqualTo(0xFFFF_FFFFL);
        assertThat(scale.feedConstant().denominator()).isLessThanOrEqualTo(0xFFFF_FFFFL);
        assertThat(scale.countsPerWireUnitHeld().toDouble()).isCloseTo(exact, within(1e-9 * exact));
        assertThat(scale.unitsPerMotorTurn().toDouble()).isCloseTo(24 * 6.28318530718 / 9.1, within(1e-13));
    }

    /** The nearest fraction is never zero, however narrow the gear. */
    @Property
    void theNearestFractionIsAboveZeroAndNearest(@ForAll @LongRange(min = 1, max = Integer.MAX_VALUE) long top, @ForAll @LongRange(min = 1, max = Long.MAX_VALUE / 4) long bottom,
            @ForAll @IntRange(min = 8, max = 12) int bits) {
        long most = (1L << bits) - 1;
        Ratio held = Ratio.of(top, bottom).within(most, most);
        assertThat(held.numerator()).isBetween(1L, most);
        assertThat(held.denominator()).isBetween(1L, most);
        double wanted = (double) top / bottom;
        double miss = Math.abs(held.toDouble() - wanted);
        for (long d = 1; d <= most; d += 7) {
            long n = Math.max(1, Math.min(most, Math.round(wanted * d)));
            assertThat(miss).isLessThanOrEqualTo(Math.abs((double) n / d - wanted) * (1 + 1e-9) + 1e-18);
        }
    }
}
