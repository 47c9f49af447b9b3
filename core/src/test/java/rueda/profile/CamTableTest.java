package rueda.profile;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.Arrays;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.DoubleRange;
import org.junit.jupiter.api.Test;
import rueda.profile.CamTable.Law;

class CamTableTest {

    private static CamTable table(boolean periodic, Law law, double... points) {
        double[] x = new double[points.length / 2];
        double[] y = new double[points.length / 2];
        for (int i = 0; i < x.length; i++) {
            x[i] = points[2 * i];
            y[i] = points[2 * i + 1];
        }
        Law[] laws = new Law[x.length];
        Arrays.fill(laws, law);
        return new CamTable(x, y, laws, periodic);
    }

    /** The 3-4-5 polynomial: at half the way half the lift, speed 15/8 of the mean one, highest acceleration 10/√3 ≈ 5.77 of lift per width² (VDI 2143 part 1, from memory). */
    @Test
    void theCoefficientsOfTheGuideline() {
        CamTable cam = table(false, Law.POLYNOMIAL_345, 0, 0, 90, 30);
        assertThat(cam.place(45)).isCloseTo(15, within(1e-12));
        assertThat(cam.slope(45)).isCloseTo(15.0 / 8 * 30 / 90, within(1e-12));
        double steepest = 0;
        for (double x = 0; x < 90; x += 0.01) {
            steepest = Math.max(steepest, (cam.slope(x + 0.005) - cam.slope(x - 0.005)) / 0.01);
        }
        assertThat(steepest * 90 * 90 / 30).isCloseTo(10 / Math.sqrt(3), within(1e-4));
        assertThat(cam.slope(1e-9) + cam.slope(90 - 1e-9)).isCloseTo(0, within(1e-12));
    }

    /** The slope is the derivative, everywhere and over the rounds. */
    @Property
    void theSlopeIsTheDerivative(@ForAll @DoubleRange(min = -2000, max = 2000) double x, @ForAll Law law) {
        CamTable cam = table(true, law, 0, 5, 100, 80, 210, 80, 360, 20);
        double h = 1e-4;
        boolean corner = Math.abs(x - Math.rint(x / 10) * 10) < 2 * h;
        if (!corner) {
            assertThat(cam.slope(x)).isCloseTo((cam.place(x + h) - cam.place(x - h)) / (2 * h), within(1e-5));
        }
    }

    @Test
    void aPeriodicTableAddsWhatARoundGoes() {
        CamTable cam = table(true, Law.STRAIGHT, 10, 0, 110, 40, 210, 30);
        assertThat(cam.place(10)).isZero();
        assertThat(cam.place(210)).isEqualTo(30);
        assertThat(cam.place(260)).isEqualTo(30 + 20);
        assertThat(cam.place(-90)).isCloseTo(-30 + 40, within(1e-12));
        assertThat(cam.rounds(209.999)).isZero();
        assertThat(cam.rounds(210)).isEqualTo(1);
        assertThat(cam.outside(5000)).isFalse();
    }

    @Test
    void oneThatIsNotKeepsItsEnds() {
        CamTable cam = table(false, Law.STRAIGHT, 10, 3, 110, 40);
        assertThat(cam.place(0)).isEqualTo(3);
        assertThat(cam.place(500)).isEqualTo(40);
        assertThat(cam.slope(0) + cam.slope(500)).isZero();
        assertThat(cam.outside(9) && cam.outside(110) && !cam.outside(10)).isTrue();
        assertThat(cam.lowest()).isEqualTo(3);
        assertThat(cam.highest()).isEqualTo(40);
    }

    @Test
    void whatMakesNoTable() {
        assertThatThrownBy(() -> table(false, Law.STRAIGHT, 0, 0)).isInstanceOf(IllegalArgumentException.class);
        assertThat(CamTable.sound(new double[] {0, 0}, new double[] {1, 2})).isFalse();
        assertThat(CamTable.sound(new double[] {0, Double.NaN}, new double[] {1, 2})).isFalse();
        assertThat(CamTable.sound(new double[] {0, 1}, new double[] {1, Double.POSITIVE_INFINITY})).isFalse();
    }
}
