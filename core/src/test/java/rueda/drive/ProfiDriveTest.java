package rueda.drive;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import rueda.bus.BusFamily;
import rueda.bus.ProcessDataLayout;
import rueda.bus.ProfiDriveSignal;
import rueda.machine.Axis;
import rueda.machine.Bus.Family;
import rueda.machine.DemoMachine;
import rueda.machine.Machine;
import rueda.plant.Mistakes;
import rueda.plant.ServoPlant;

/** Telegram 5 at the drive: states by STW1 and ZSW1, position by the deviation (IEC 61800-7-203, from memory). */
class ProfiDriveTest {

    private final Machine machine = BusFamily.moved(DemoMachine.create(), Family.PROFINET);
    private final Axis axis = machine.axes().get(0);
    private final Drive drive = new Drive(machine.bus(), axis, new ServoPlant(axis, 125e-6), Mistakes.none(), 125_000, 8);
    private final ProcessDataLayout out = drive.outputs();
    private final byte[] outputs = new byte[out.bytes()];
    private final byte[] inputs = new byte[drive.inputs().bytes()];

    private int cycle(int stw1, long deviation) {
        out.write(outputs, 0, stw1);
        out.write(outputs, out.indexOf(ProfiDriveSignal.XERR.number(), 0), deviation);
        out.write(outputs, out.indexOf(ProfiDriveSignal.KPC.number(), 0), 60_000);
        drive.cycle(outputs, inputs);
        return (int) drive.inputs().read(inputs, 0);
    }

    private long position() {
        return drive.inputs().readSigned(inputs, drive.inputs().indexOf(ProfiDriveSignal.G1_XIST1.number(), 0));
    }

    private void enable() {
        for (int word : new int[] {0x406, 0x406, 0x407, 0x40F, 0x47F, 0x47F, 0x47F}) {
            cycle(word, 0);
        }
    }

    /** S1 switching on inhibited, S2 ready for switching on, S3 switched on, S4 operation. */
    @Test
    void statesByTheControlWord() {
        drive.sample(inputs);
        assertThat(cycle(0x400, 0) & 0x47).isEqualTo(0x40);
        cycle(0x406, 0);
        assertThat(cycle(0x406, 0) & 0x47).isEqualTo(0x01);
        assertThat(cycle(0x407, 0) & 0x47).isEqualTo(0x03);
        cycle(0x47F, 0);
        assertThat(cycle(0x47F, 0) & 0x47).isEqualTo(0x07);
        assertThat(cycle(0x47F, 0) & 1 << 9).as("control requested").isNotZero();
    }

    /** Bit 10: without control by the PLC the drive keeps what it had. */
    @Test
    void withoutControlByThePlcNothingChanges() {
        enable();
        assertThat(cycle(0x000, 5000) & 0x07).isEqualTo(0x07);
        assertThat(drive.demandSpeed()).isZero();
    }

    /** The target is the deviation added to the position that was sent last. */
    @Test
    void theAxisGoesWhereTheDeviationPoints() {
        enable();
        long goal = position() + 40_000;
        for (int i = 0; i < 8000; i++) {
            long left = goal - position();
            cycle(0x47F, Math.max(-200, Math.min(200, left)));
        }
        assertThat(position()).isBetween(goal - 3, goal + 3);
    }

    @Test
    void theSignOfLifeComesBack() {
        out.write(outputs, out.indexOf(ProfiDriveSignal.STW2.number(), 0), 0xB000);
        cycle(0x406, 0);
        assertThat(drive.inputs().read(inputs, drive.inputs().indexOf(ProfiDriveSignal.ZSW2.number(), 0))).isEqualTo(0xB000);
    }

    /** Every controlword and statusword of IEC 61800-7-201 that the PLC uses comes through unchanged. */
    @ParameterizedTest
    @CsvSource({"0x06, 8", "0x07, 8", "0x0F, 8", "0x1F, 6", "0x0F, 6", "0x80, 8", "0x02, 8"})
    void wordsComeThrough(String controlword, int mode) {
        int word = Integer.decode(controlword);
        int stw1 = ProfiDriveWords.stw1(word, mode);
        assertThat(ProfiDriveWords.byPlc(stw1)).isTrue();
        assertThat(ProfiDriveWords.controlword(stw1)).isEqualTo(word);
        assertThat(ProfiDriveWords.mode(stw1, OperationMode.CYCLIC_SYNCHRONOUS_POSITION)).isEqualTo(mode);
        for (int status : new int[] {0x0250, 0x0231, 0x0233, 0x1337, 0x1737, 0x0208, 0x2237, 0x1F37}) {
            int zsw1 = ProfiDriveWords.zsw1(status, mode);
            assertThat(ProfiDriveWords.statusword(zsw1)).isEqualTo(status);
            assertThat(ProfiDriveWords.modeDisplay(zsw1)).isEqualTo(mode);
        }
    }
}
