package rueda.drive;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.junit.jupiter.api.Test;
import rueda.machine.Axis;
import rueda.machine.DemoMachine;
import rueda.machine.Terminal.Function;
import rueda.machine.Wiring;
import rueda.plant.Mistakes;
import rueda.plant.ServoPlant;

/** The touch probes alone: which edge they keep (60B9h, 60BAh, 60BCh of IEC 61800-7-201). */
class TouchProbesTest {

    private static final double SUB_STEP = 125e-6;

    private final ObjectDictionary dictionary = new ObjectDictionary();
    private DigitalInputs inputs;
    private TouchProbes probes;

    private void wired(Function... functions) {
        Axis axis = DemoMachine.shuttle().withWiring(Wiring.of(List.of(functions), List.of(Function.READY)));
        inputs = new DigitalInputs(axis.wiring(), new ServoPlant(axis, SUB_STEP), Mistakes.none(), SUB_STEP);
        probes = new TouchProbes(inputs, dictionary);
    }

    private long status() {
        return dictionary.get(DriveObject.PROBE_STATUS);
    }

    /** The level stands until the filter has taken it; then the probes look. */
    private void level(String terminal, boolean high, long position) {
        inputs.force(terminal, high);
        for (int i = 0; i < 4; i++) {
            inputs.sample();
            probes.observe(position);
        }
    }

    @Test
    void theRisingEdgeIsKeptAndTheLastOneStands() {
        wired(Function.PROBE_1, Function.PROBE_2);
        assertThat(status()).as("switched on, nothing held").isEqualTo(1 | 1 << 8);
        level("I1", true, 1000);
        assertThat(dictionary.get(DriveObject.PROBE_1_POSITION)).isEqualTo(1000);
        assertThat(status()).isEqualTo(3 | 1 << 8);
        level("I1", true, 2000);
        level("I1", false, 3000);
        assertThat(dictionary.get(DriveObject.PROBE_1_POSITION)).as("a level and a falling edge are none").isEqualTo(1000);
        level("I1", true, -4000);
        assertThat(dictionary.get(DriveObject.PROBE_1_POSITION)).isEqualTo(-4000);
        level("I2", true, 5000);
        assertThat(dictionary.get(DriveObject.PROBE_2_POSITION)).isEqualTo(5000);
        assertThat(dictionary.get(DriveObject.PROBE_1_POSITION)).isEqualTo(-4000);
        assertThat(status()).isEqualTo(3 | 3 << 8);
    }

    /** An input that is on already when the device begins is no edge. */
    @Test
    void whatIsOnAtTheBeginIsNoEdge() {
        wired(Function.PROBE_1);
        inputs.force("I1", true);
        for (int i = 0; i < 4; i++) {
            inputs.sample();
        }
        probes = new TouchProbes(inputs, dictionary);
        level("I1", true, 1000);
        assertThat(status()).isEqualTo(1);
    }

    @Test
    void withoutATerminalThereIsNoProbe() {
        wired(Function.CUE);
        assertThat(probes.wired()).isFalse();
        assertThat(status()).isZero();
        level("I1", true, 1000);
        assertThat(status()).isZero();
    }

    /** Two terminals of one probe: it comes on with the first of them. */
    @Test
    void twoTerminalsOfOneProbe() {
        wired(Function.PROBE_2, Function.PROBE_2);
        level("I2", true, 10);
        level("I1", true, 20);
        assertThat(dictionary.get(DriveObject.PROBE_2_POSITION)).isEqualTo(10);
        assertThat(status()).isEqualTo(3 << 8);
    }
}
