package rueda.drive;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.DoubleRange;
import org.junit.jupiter.api.Test;

class VelocityRampTest {

    private static final double STEP = 125e-6;

    /** Way of a ramp from v to rest: v²/2a. */
    @Property
    void stoppingWay(@ForAll @DoubleRange(min = 1000, max = 4e7) double speed, @ForAll @DoubleRange(min = 1e5, max = 3e8) double rate) {
        VelocityRamp ramp = new VelocityRamp(STEP);
        ramp.takeOver(0, speed);
        long perStep = ramp.rateOf(rate);
        int steps = 0;
        while (!ramp.standsStill() && steps < 5_000_000) {
            ramp.step(0, perStep);
            steps++;
        }
        double way = speed * speed / 2 / rate;
        double quantum = 1.0 / (1 << 24) / STEP / STEP;
        assertThat((double) ramp.position()).isCloseTo(way, within(2 + way * (quantum / rate + 1e-6) + speed * STEP));
    }

    @Test
    void creepsWithoutLosingCounts() {
        VelocityRamp ramp = new VelocityRamp(STEP);
        ramp.takeOver(0, 0);
        long wanted = ramp.speedOf(3.0);
        for (int k = 0; k < 8000 * 100; k++) {
            ramp.step(wanted, Long.MAX_VALUE / 4);
        }
        assertThat(ramp.position()).as("3 counts/s for 100 s").isBetween(299L, 300L);
        assertThat(ramp.direction()).isEqualTo(1);
    }
}
