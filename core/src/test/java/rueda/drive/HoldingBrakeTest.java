package rueda.drive;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;
import rueda.machine.Axis;
import rueda.machine.Brake;
import rueda.machine.DemoMachine;

/** The holding brake alone: in which order it opens, torque is made, and it closes. */
class HoldingBrakeTest {

    private static final double SUB_STEP = 125e-6;
    private static final int ENABLE = ControlWord.OPERATION_ENABLED;
    private static final int OPERATION_BIT = ControlWord.ENABLE_OPERATION;

    private static HoldingBrake brake(int releaseMillis, int closeMillis) {
        Axis lift = DemoMachine.lift();
        return new HoldingBrake(lift.withBrake(new Brake(5, releaseMillis, closeMillis)), SUB_STEP);
    }

    private static int subSteps(int millis) {
        return (int) Math.round(millis * 1e-3 / SUB_STEP);
    }

    /** Sub-steps until it has come to where it is going. */
    private static int travel(HoldingBrake brake) {
        int steps = 1;
        while (!brake.step(true)) {
            steps++;
        }
        return steps;
    }

    @Test
    void operationIsHeldBackUntilItIsOpenWhileTheMotorHoldsTheLoad() {
        HoldingBrake brake = brake(60, 40);
        assertThat(brake.needsTorque()).isFalse();
        assertThat(brake.await(ENABLE, PowerState.SWITCHED_ON) & OPERATION_BIT).isZero();
        assertThat(brake.open()).as("it begins to open").isTrue();
        assertThat(brake.needsTorque()).as("before it is open").isTrue();
        assertThat(travel(brake)).isEqualTo(subSteps(60));
        assertThat(brake.await(ENABLE, PowerState.SWITCHED_ON)).isEqualTo(ENABLE);
    }

    @Test
    void otherCommandsAndStatesPassUntouched() {
        HoldingBrake brake = brake(60, 40);
        assertThat(brake.await(ControlWord.SWITCHED_ON, PowerState.SWITCHED_ON)).isEqualTo(ControlWord.SWITCHED_ON);
        assertThat(brake.await(ENABLE, PowerState.READY_TO_SWITCH_ON)).isEqualTo(ENABLE);
        assertThat(brake.open()).isFalse();
        HoldingBrake none = new HoldingBrake(DemoMachine.shuttle(), SUB_STEP);
        assertThat(none.await(ENABLE, PowerState.SWITCHED_ON)).isEqualTo(ENABLE);
        assertThat(none.fitted()).isFalse();
        assertThat(none.needsTorque()).isFalse();
    }

    @Test
    void theMotorHoldsUntilItHasClosed() {
        HoldingBrake brake = brake(60, 40);
        brake.await(ENABLE, PowerState.SWITCHED_ON);
        travel(brake);
        brake.follow(PowerState.OPERATION_ENABLED, ENABLE);
        assertThat(brake.open()).isTrue();
        brake.follow(PowerState.SWITCHED_ON, ControlWord.SWITCHED_ON);
        assertThat(brake.open()).isFalse();
        assertThat(brake.needsTorque()).isTrue();
        assertThat(travel(brake)).isEqualTo(subSteps(40));
        assertThat(brake.needsTorque()).isFalse();
    }

    /** The order is taken back while it opens: it closes, for its whole time, and opening begins anew. */
    @Test
    void takenBackWhileItOpens() {
        HoldingBrake brake = brake(60, 40);
        brake.await(ENABLE, PowerState.SWITCHED_ON);
        for (int i = 0; i < 10; i++) {
            brake.step(true);
        }
        brake.follow(PowerState.SWITCHED_ON, ControlWord.SHUTDOWN);
        assertThat(brake.open()).isFalse();
        assertThat(travel(brake)).isEqualTo(subSteps(40));
        brake.await(ENABLE, PowerState.SWITCHED_ON);
        assertThat(travel(brake)).isEqualTo(subSteps(60));
    }

    /** A stop that the drive makes under power keeps it open. */
    @Test
    void itStaysOpenWhileTheDriveStopsUnderPower() {
        HoldingBrake brake = brake(0, 40);
        assertThat(brake.await(ENABLE, PowerState.SWITCHED_ON)).as("one that opens at once holds nothing back").isEqualTo(ENABLE);
        for (PowerState stopping : new PowerState[] {PowerState.QUICK_STOP_ACTIVE, PowerState.FAULT_REACTION_ACTIVE}) {
            brake.follow(stopping, 0);
            assertThat(brake.open()).as(stopping.words()).isTrue();
        }
        brake.follow(PowerState.FAULT, 0);
        assertThat(brake.open()).isFalse();
    }
}
