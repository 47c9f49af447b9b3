package rueda.bench;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import org.junit.jupiter.api.Test;
import rueda.drive.DriveObject;
import rueda.drive.ParameterGroup;
import rueda.drive.PowerState;
import rueda.machine.Axis;
import rueda.machine.Control;
import rueda.machine.DemoMachine;
import rueda.machine.Homing;
import rueda.machine.Machine;
import rueda.machine.MotorSide;
import rueda.machine.Unit;
import rueda.plcopen.AxisState;

/**
 * Some parameters act at once, some only while the axis is disabled, some after a restart; working and permanent memory
 * are different things; after a restart the reference is lost (all common practice, no source).
 */
class DeviceMemoryTest {

    private static final Axis SHUTTLE = DemoMachine.shuttle().withHoming(Homing.search(37, 120, 12, 800, 0));

    private static Bench enabled() {
        Machine demo = DemoMachine.create();
        Bench bench = new Bench(new Machine("m", demo.bus(), demo.plc(), List.of(SHUTTLE), demo.proofs()), "PROGRAM P END_PROGRAM", 16);
        bench.takeByHand();
        bench.hand(0).enable(true);
        bench.run(0.2);
        return bench;
    }

    @Test
    void gainsActAtOnce() {
        Bench bench = enabled();
        bench.writeDevice(0, SHUTTLE.withControl(new Control(60, 0.25, 20, 0, 1)));
        assertThat(bench.device(0).pending()).isEmpty();
        bench.hand(0).step(400, bench.now());
        bench.run(0.5);
        /* without feed-forward the gap is speed ÷ gain */
        assertThat(bench.drive(0).followingError()).isCloseTo(bench.drive(0).demandSpeed() / 60, within(0.3));
    }

    @Test
    void homingActsWhenTheAxisIsDisabled() {
        Bench bench = enabled();
        bench.writeDevice(0, SHUTTLE.withHoming(Homing.search(37, 120, 12, 800, 77)));
        assertThat(bench.device(0).pending()).containsExactly(ParameterGroup.HOMING);
        assertThat(bench.drive(0).dictionary().get(DriveObject.HOME_OFFSET)).isZero();
        bench.hand(0).enable(false);
        bench.run(0.1);
        bench.letAct(0);
        assertThat(bench.device(0).pending()).isEmpty();
        assertThat(bench.drive(0).dictionary().get(DriveObject.HOME_OFFSET)).isEqualTo(-770_000);
    }

    @Test
    void aUnitActsAfterTheRestartWhenItWasKept() {
        Bench bench = enabled();
        Axis inches = SHUTTLE.withUnit(new Unit("mm", 3));
        bench.writeDevice(0, inches);
        assertThat(bench.device(0).pending()).containsExactly(ParameterGroup.SCALE);
        assertThat(bench.device(0).unkept()).containsExactly(ParameterGroup.SCALE);
        bench.restartDevice(0);
        bench.run(2.1);
        assertThat(bench.device(0).acting().unit().decimals()).as("not kept, so lost").isEqualTo(4);
        bench.writeDevice(0, inches);
        bench.device(0).keep();
        assertThat(bench.device(0).unkept()).isEmpty();
        bench.restartDevice(0);
        bench.run(2.1);
        assertThat(bench.device(0).acting().unit().decimals()).isEqualTo(3);
        bench.hand(0).enable(true);
        bench.run(0.2);
        double from = bench.drive(0).plant().place();
        bench.hand(0).step(25, bench.now());
        bench.run(1);
        assertThat(bench.drive(0).plant().place() - from).as("PLC and drive agree about the unit").isCloseTo(25, within(0.05));
    }

    @Test
    void aRestartTakesTheTorqueAndTheReferenceAndComesBack() {
        Bench bench = enabled();
        bench.hand(0).home(bench.now());
        bench.run(0.5);
        assertThat(bench.hand(0).goTo(20, bench.now())).isNull();
        bench.run(1);
        bench.restartDevice(0);
        bench.run(0.5);
        assertThat(bench.restarting(0)).isTrue();
        assertThat(bench.axis(0).state()).isEqualTo(AxisState.DISABLED);
        bench.run(1.6);
        assertThat(bench.restarting(0)).isFalse();
        assertThat(bench.drive(0).state()).isEqualTo(PowerState.READY_TO_SWITCH_ON);
        assertThat(bench.drive(0).referenced()).isFalse();
        bench.hand(0).enable(true);
        bench.run(0.2);
        assertThat(bench.hand(0).goTo(20, bench.now())).isEqualTo("The axis lost its reference when the device restarted. Home it again.");
    }

    /** The brake holds a hanging load while its device restarts; until it does, the load falls: ½·a·t² with what friction and rotor leave of g, and then as far as the brake takes. */
    @Test
    void theLiftDoesNotFallWhenItsDeviceRestarts() {
        Machine demo = DemoMachine.create();
        Bench bench = new Bench(demo, "PROGRAM P END_PROGRAM", 16);
        bench.takeByHand();
        bench.hand(1).enable(true);
        bench.run(0.4);
        double place = bench.drive(1).plant().place();
        bench.restartDevice(1);
        bench.run(2.5);
        MotorSide side = demo.axes().get(1).motorSide();
        double fall = (side.gravity() - side.coulomb()) / side.inertia() * side.unitsPerRadian();
        double seconds = demo.axes().get(1).brake().closeMillis() * 1e-3;
        double braking = (demo.axes().get(1).brake().torque() + side.coulomb() - side.gravity()) / side.inertia() * side.unitsPerRadian();
        double sag = fall * seconds * seconds / 2 * (1 + fall / braking);
        assertThat(place - bench.drive(1).plant().place()).isCloseTo(sag, within(0.03 * sag));
        assertThat(sag).isLessThan(1);
    }
}
