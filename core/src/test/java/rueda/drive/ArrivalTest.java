package rueda.drive;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

/** In position, too late and standing still, each alone; a bus cycle of 1 ms, 10 counts a wire unit (6067h, 6068h: IEC 61800-7-201). */
class ArrivalTest {

    private final ObjectDictionary dictionary = new ObjectDictionary();
    private Arrival arrival;

    @BeforeEach
    void windows() {
        dictionary.set(DriveObject.POSITION_WINDOW, 5);
        dictionary.set(DriveObject.POSITION_WINDOW_TIME, 4);
        dictionary.set(DriveObject.POSITION_TOLERANCE, 20);
        dictionary.set(DriveObject.STANDSTILL_WINDOW, 2);
        dictionary.set(DriveObject.STANDSTILL_TIME, 10);
        arrival = new Arrival(dictionary, 1e-3, 10);
    }

    private int cyclesUntilInPosition(long error) {
        for (int cycles = 1; cycles < 100; cycles++) {
            arrival.observe(true, error, 0);
            if (arrival.inPosition()) {
                return cycles;
            }
        }
        return -1;
    }

    /** The dwell counts from the first look inside. */
    @Test
    void insideTheWindowForItsDwell() {
        assertThat(cyclesUntilInPosition(50)).isEqualTo(5);
        arrival.observe(true, 51, 0);
        assertThat(arrival.inPosition()).isFalse();
        assertThat(cyclesUntilInPosition(-50)).as("on the other side, from the beginning").isEqualTo(5);
        arrival.observe(false, 0, 0);
        assertThat(arrival.inPosition()).as("while the setpoint moves").isFalse();
    }

    @Test
    void outsideItNeverArrives() {
        assertThat(cyclesUntilInPosition(51)).isEqualTo(-1);
    }

    @Test
    void withoutADwellItIsThereAtOnce() {
        dictionary.set(DriveObject.POSITION_WINDOW_TIME, 0);
        assertThat(cyclesUntilInPosition(0)).isEqualTo(1);
    }

    /** Late after the tolerance time since the setpoint stands, until it arrives or goes on; 0 is never. */
    @Test
    void lateAfterItsTolerance() {
        for (int cycle = 1; cycle <= 20; cycle++) {
            arrival.observe(true, 1000, 0);
            assertThat(arrival.late()).isFalse();
        }
        arrival.observe(true, 1000, 0);
        assertThat(arrival.late()).isTrue();
        cyclesUntilInPosition(0);
        assertThat(arrival.late()).isFalse();
        arrival.observe(true, 1000, 0);
        assertThat(arrival.late()).as("pushed out again after its time").isTrue();
        arrival.observe(false, 1000, 0);
        assertThat(arrival.late()).isFalse();
        dictionary.set(DriveObject.POSITION_TOLERANCE, 0);
        for (int cycle = 0; cycle < 10_000; cycle++) {
            arrival.observe(true, 1000, 0);
        }
        assertThat(arrival.late()).isFalse();
    }

    /** Standstill is told by the encoder alone: a creep that leaves the window begins anew from there. */
    @Test
    void standingStill() {
        for (int cycle = 1; cycle < 10; cycle++) {
            arrival.observe(false, 0, 20);
            assertThat(arrival.still()).isFalse();
        }
        arrival.observe(false, 0, -20);
        assertThat(arrival.still()).as("inside the window on either side").isTrue();
        arrival.observe(false, 0, 21);
        assertThat(arrival.still()).isFalse();
        for (int cycle = 0; cycle < 10; cycle++) {
            arrival.observe(false, 0, 41);
        }
        assertThat(arrival.still()).isTrue();
    }
}
