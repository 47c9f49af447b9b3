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

/** The touch probes alone: which edge they keep (60B8h to 60BDh of IEC 61800-7-201, bits from memory). */
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

    private void function(int bits) {
        dictionary.set(DriveObject.PROBE_FUNCTION, bits);
    }

    /** First edge only: later ones change nothing until the probe, or the edge, has been switched off and on. */
    @Test
    void theFirstEdgeIsKeptUntilTheProbeIsArmedAnew() {
        wired(Function.PROBE_1, Function.PROBE_2);
        function(0);
        level("I1", true, 100);
        level("I1", false, 200);
        assertThat(status()).as("off").isZero();
        function(ProbeBits.ON | ProbeBits.RISING | ProbeBits.FALLING);
        level("I2", true, 250);
        assertThat(status()).as("on, nothing held, the other off").isEqualTo(ProbeBits.IS_ON);
        level("I1", true, 300);
        level("I1", false, 400);
        assertThat(status()).isEqualTo(ProbeBits.IS_ON | ProbeBits.HOLDS_RISING | ProbeBits.HOLDS_FALLING);
        level("I1", true, 500);
        level("I1", false, 600);
        assertThat(dictionary.get(DriveObject.PROBE_1_POSITION)).isEqualTo(300);
        assertThat(dictionary.get(DriveObject.PROBE_1_FALLING)).isEqualTo(400);
        function(ProbeBits.ON | ProbeBits.RISING);
        level("I1", false, 700);
        assertThat(status()).as("an edge that is not wanted holds nothing").isEqualTo(ProbeBits.IS_ON | ProbeBits.HOLDS_RISING);
        function(0);
        level("I1", false, 700);
        function(ProbeBits.ON | ProbeBits.RISING);
        level("I1", true, 800);
        assertThat(dictionary.get(DriveObject.PROBE_1_POSITION)).isEqualTo(800);
    }

    /** An input that is on when its probe is switched on is no edge; bits of the second probe lie eight higher. */
    @Test
    void switchingOnIsNoEdge() {
        wired(Function.PROBE_1, Function.PROBE_2);
        function(0);
        level("I2", true, 100);
        function((ProbeBits.ON | ProbeBits.RISING | ProbeBits.FALLING | ProbeBits.EVERY_EDGE) << ProbeBits.SECOND);
        level("I2", true, 200);
        assertThat(status()).isEqualTo(ProbeBits.IS_ON << 8);
        level("I2", false, 300);
        assertThat(status()).isEqualTo((ProbeBits.IS_ON | ProbeBits.HOLDS_FALLING) << 8);
        assertThat(dictionary.get(DriveObject.PROBE_2_FALLING)).isEqualTo(300);
        level("I2", true, 350);
        level("I2", false, 400);
        assertThat(dictionary.get(DriveObject.PROBE_2_FALLING)).as("every edge").isEqualTo(400);
    }

    /** Another thing to listen to than the input is not there: the probe stays off, and says so. */
    @Test
    void anotherSourceIsNotTaken() {
        wired(Function.PROBE_1);
        function(ProbeBits.ON | 1 << 2 | ProbeBits.RISING);
        level("I1", true, 100);
        assertThat(status()).isZero();
    }
}
