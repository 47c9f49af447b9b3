package rueda.drive;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import org.junit.jupiter.api.Test;
import rueda.bench.Bench;
import rueda.machine.Axis;
import rueda.machine.DemoMachine;
import rueda.machine.Machine;
import rueda.machine.Terminal.Function;
import rueda.plcopen.AxisState;

/** Cyclic synchronous torque with a speed limit, from a value and from the analogue input. */
class TorqueOperationTest {

    private static final Axis BRUSH = DemoMachine.brush();

    private static Bench enabled(Axis axis, String program) {
        Machine demo = DemoMachine.create();
        return new Bench(new Machine("m", demo.bus(), demo.plc(), List.of(axis), demo.proofs()), program, 4000);
    }

    private static Bench byHand(Axis axis) {
        Bench bench = enabled(axis, "PROGRAM P END_PROGRAM");
        bench.takeByHand();
        bench.hand(0).enable(true);
        bench.run(0.2);
        return bench;
    }

    /** M = J·α + friction: the acceleration is what the torque leaves (Newton). */
    @Test
    void aTorqueAcceleratesTheAxisUntilItsSpeedLimit() {
        Bench bench = byHand(BRUSH);
        double torque = 0.5 * BRUSH.motor().ratedTorque();
        assertThat(bench.hand(0).torque(50, 1000, bench.now())).isNull();
        bench.run(0.02);
        double before = bench.drive(0).plant().speed();
        bench.run(0.02);
        double acceleration = (bench.drive(0).plant().speed() - before) / 0.02;
        assertThat(bench.drive(0).torque()).isCloseTo(torque, within(1e-3));
        assertThat(acceleration).isCloseTo(BRUSH.motorSide().acceleration(torque, before + acceleration * 0.01), within(acceleration * 0.02));
        bench.run(1);
        /* beyond the limit the velocity gain takes the torque back to what friction needs: less than torque ÷ Kp below it */
        double dip = torque / BRUSH.control().velocityGain() * BRUSH.motorSide().unitsPerRadian();
        assertThat(bench.drive(0).plant().speed()).isBetween(1000 - dip, 1001.0);
        assertThat(bench.drive(0).torqueLimited()).isTrue();
        assertThat(bench.axis(0).state()).isEqualTo(AxisState.CONTINUOUS_MOTION);
        assertThat(bench.drive(0).dictionary().get(DriveObject.MODE_DISPLAY)).isEqualTo(10);
        bench.hand(0).halt(bench.now());
        bench.run(1);
        assertThat(bench.axis(0).state()).isEqualTo(AxisState.STANDSTILL);
        assertThat(bench.drive(0).dictionary().get(DriveObject.MODE_DISPLAY)).isEqualTo(8);
        assertThat(bench.drive(0).dictionary().get(DriveObject.ERROR_CODE)).isZero();
    }

    /** 10 V ask for the torque that was entered; the converter has 12 bits. */
    @Test
    void theAnalogueInputAsksForTorque() {
        Axis axis = BRUSH.withWiring(BRUSH.wiring().with("A1", Function.TORQUE));
        Bench bench = byHand(axis);
        assertThat(bench.hand(0).torque(Double.NaN, 2000, bench.now())).isNull();
        bench.drive(0).analogue(-3);
        bench.run(0.02);
        assertThat(bench.drive(0).torque()).isCloseTo(-0.3 * axis.motor().ratedTorque(), within(0.005 * axis.motor().ratedTorque()));
        assertThat(bench.drive(0).dictionary().get(DriveObject.ANALOGUE_INPUT)).isBetween(-3003L, -2997L);
    }

    @Test
    void theProgramAsksForTorqueWithItsRamp() {
        Bench bench = enabled(BRUSH, "PROGRAM P VAR Power : MC_Power; T : MC_TorqueControl; END_VAR Power(Axis := Brush, Enable := TRUE);\n"
                + "T(Axis := Brush, Execute := Power.Status, Torque := 0.2, TorqueRamp := 2.0, Velocity := 500.0); END_PROGRAM");
        bench.run(0.06);
        assertThat(number(bench, "T.Active")).isEqualTo(1);
        assertThat(number(bench, "T.InTorque")).as("the ramp takes 0.1 s").isZero();
        bench.run(0.12);
        assertThat(number(bench, "T.InTorque")).isEqualTo(1);
    }

    private static double number(Bench bench, String name) {
        return bench.resource().program().variable(name).orElseThrow().number(bench.resource().memory());
    }

    @Test
    void tooMuchTorqueOrSpeedIsRefusedInWords() {
        Bench bench = byHand(BRUSH);
        assertThat(bench.hand(0).torque(1000, 100, bench.now())).startsWith("Torque can be up to ");
        assertThat(bench.hand(0).torque(20, 1e6, bench.now())).startsWith("Torque can be up to ");
        bench.hand(0).enable(false);
        bench.run(0.1);
        assertThat(bench.hand(0).torque(20, 100, bench.now())).isEqualTo("The axis is not enabled. Enable it first.");
    }

    @Test
    void withoutAWiredInputNothingIsTakenFromIt() {
        Bench bench = byHand(BRUSH);
        assertThat(bench.hand(0).torque(Double.NaN, 100, bench.now())).startsWith("No analogue input asks for torque.");
        assertThat(bench.axis(0).state()).isEqualTo(AxisState.STANDSTILL);
    }
}
