package rueda.quantity;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Conversions by the definitions of the units: 1 in = 25.4 mm (International yard and pound agreement, 1959), 1 turn = 360° = 2π rad. */
class TypedEntryTest {

    @ParameterizedTest
    @CsvSource(delimiter = '|', value = {
            "412        |        | 412",
            "2,5        | mm     | 2.5",
            "2.5 in     | mm     | 63.5",
            "1 in/s     | mm/s   | 25.4",
            "0.5 m/s²   | mm/s²  | 500",
            "3*120      | mm     | 360",
            "(40+2)/2   | mm     | 21",
            "2^10       |        | 1024",
            "-3 + 5     |        | 2",
            "\u22124    | mm     | -4",
            "1/4 turn   | °      | 90",
            "180 °      | turn   | 0.5",
            "1 turn     | rad    | 6.283185307179586",
            "60 1/min   | °/s    | 360",
            "3000 rpm   | 1/min  | 3000",
            "1.5 s      | ms     | 1500",
            "0.2 s      | µs     | 200000",
            "12 kg·cm²  | kg·m²  | 0.0012",
            "1e-4       | kg·m²  | 0.0001",
            "2 Nm       | N·m    | 2",
            "0.5 kg     | g      | 500",
            "250 µm     | mm     | 0.25"})
    void calculatesAndConverts(String text, String unit, double expected) {
        assertThat(TypedEntry.value(text, unit == null ? "" : unit)).isCloseTo(expected, within(1e-12 * Math.abs(expected) + 1e-15));
    }

    @ParameterizedTest
    @CsvSource(delimiter = '|', value = {"abc | mm", "2 kg | mm", "2 furlong | mm", "1/0 | mm", "3 + | mm", "2 mm | wheels", "4 mm | ''", "$ | mm", "'' | mm"})
    void refusesWithTheReason(String text, String unit) {
        assertThatThrownBy(() -> TypedEntry.value(text, unit)).isInstanceOf(InvalidEntry.class).extracting("value").isEqualTo(text);
    }

    @Test
    void unitsOfOnesOwnConvertToNothingElse() {
        UserUnit wheels = UserUnit.of("wheels");
        assertThat(wheels.in(UserUnit.of("wheels"))).isEqualTo(Ratio.ONE);
        assertThat(wheels.convertsTo(UserUnit.of("mm"))).isFalse();
        assertThatThrownBy(() -> wheels.in(UserUnit.of("mm"))).isInstanceOf(InvalidEntry.class);
        assertThat(UserUnit.of("in").in(UserUnit.of("mm"))).isEqualTo(Ratio.of(127, 5));
        assertThat(UserUnit.of("turn").in(UserUnit.of("°"))).isEqualTo(Ratio.of(360));
        assertThat(UserUnit.of("turn").in(UserUnit.of("rad")).toDouble()).isCloseTo(2 * Math.PI, within(1e-6));
        assertThat(UserUnit.of("um").symbol()).isEqualTo("µm");
    }

    /** Best approximations of π: 22/7, 333/106, 355/113 (Hardy & Wright, chapter X; from memory, well known). */
    @ParameterizedTest
    @CsvSource({"22, 7, 22, 7", "333, 200, 333, 106", "400, 300, 355, 113", "300, 300, 289, 92", "3, 1, 3, 1"})
    void nearestFraction(long mostTop, long mostBottom, long top, long bottom) {
        assertThat(Ratio.nearest(Math.PI, mostTop, mostBottom)).isEqualTo(Ratio.of(top, bottom));
    }

    @Test
    void aFractionThatFitsStaysExact() {
        assertThat(Ratio.of(32_768, 625).within(65_535, 65_535)).isEqualTo(Ratio.of(32_768, 625));
        assertThat(Ratio.of(32_768, 625).within(255, 255)).as("52.4288: 52.5 is nearer than 52.33 and 52").isEqualTo(Ratio.of(105, 2));
    }
}
