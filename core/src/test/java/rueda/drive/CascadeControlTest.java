package rueda.drive;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import org.junit.jupiter.api.Test;
import rueda.machine.Axis;
import rueda.machine.Control;
import rueda.machine.DemoMachine;

/** The loops alone, on a pure inertia, against closed forms of linear control (second-order lag; any textbook of control engineering). */
class CascadeControlTest {

    private static final double STEP = 1e-5;
    private static final double NO_INTEGRAL = 1e12;
    private static final Axis SHUTTLE = DemoMachine.shuttle();
    private static final double INERTIA = SHUTTLE.motorSide().inertia();

    private static CascadeControl control(double kv, double kp, double integralMillis, double forward, double torqueForward) {
        return new CascadeControl(SHUTTLE.withControl(new Control(kv, kp, integralMillis, forward, torqueForward)), STEP);
    }

    /** A pure inertia under the loops. */
    private static final class Plant {
        double angle;
        double speed;

        double step(CascadeControl control, double setpoint, double demandSpeed, double demandAcceleration, double limit) {
            double torque = control.position(setpoint - angle, demandSpeed, demandAcceleration, speed, limit);
            control.given(torque, torque);
            speed += torque / INERTIA * STEP;
            angle += speed * STEP;
            return torque;
        }
    }

    /** J·θ'' + Kp·θ' + Kp·Kv·θ = Kp·Kv·θ_set: ω0² = Kp·Kv/J, 2·D·ω0 = Kp/J; step response of the second-order lag, D below 1. */
    @Test
    void theStepResponseIsThatOfTheSecondOrderLag() {
        double kv = 60;
        double kp = 1.2 * kv * INERTIA;
        double natural = Math.sqrt(kp * kv / INERTIA);
        double damping = kp / INERTIA / (2 * natural);
        double damped = natural * Math.sqrt(1 - damping * damping);
        assertThat(damping).isLessThan(1);
        CascadeControl control = control(kv, kp, NO_INTEGRAL, 0, 0);
        Plant plant = new Plant();
        for (int i = 1; i <= 20_000; i++) {
            plant.step(control, 1, 0, 0, 1e9);
            double t = i * STEP;
            double expected = 1 - Math.exp(-damping * natural * t) * (Math.cos(damped * t) + damping / Math.sqrt(1 - damping * damping) * Math.sin(damped * t));
            assertThat(plant.angle).isCloseTo(expected, within(1e-3));
        }
    }

    /** Velocity error constant: without feed-forward the axis lags by v/Kv, with all of it by nothing (common practice: following error = speed ÷ gain). */
    @Test
    void aRampIsFollowedWithTheErrorSpeedByGain() {
        for (double forward : new double[] {0, 0.5, 1}) {
            CascadeControl control = control(60, 20 * 60 * INERTIA, NO_INTEGRAL, forward, 0);
            Plant plant = new Plant();
            double v = 30;
            double setpoint = 0;
            for (int i = 0; i < 100_000; i++) {
                setpoint += v * STEP;
                plant.step(control, setpoint, v, 0, 1e9);
            }
            assertThat(setpoint - plant.angle).isCloseTo((1 - forward) * v / 60, within(1e-3 * v / 60));
        }
    }

    /** A constant load is held without error by the integral: its torque stands in it. */
    @Test
    void theIntegralHoldsAConstantLoad() {
        CascadeControl control = control(60, 0.25, 20, 1, 1);
        Plant plant = new Plant();
        double load = 0.8;
        double torque = 0;
        for (int i = 0; i < 200_000; i++) {
            torque = control.position(-plant.angle, 0, 0, plant.speed, 1e9);
            control.given(torque, torque);
            plant.speed += (torque - load) / INERTIA * STEP;
            plant.angle += plant.speed * STEP;
        }
        assertThat(torque).isCloseTo(load, within(1e-6));
        assertThat(plant.angle).isCloseTo(0, within(1e-6));
    }

    /** While the torque is at its limit the integral is held: the axis swings hardly farther over than without any integral, and settles. */
    @Test
    void nothingPilesUpWhileTheTorqueIsLimited() {
        double without = overshoot(control(60, 0.25, NO_INTEGRAL, 1, 0));
        double with = overshoot(control(60, 0.25, 20, 1, 0));
        assertThat(with).isLessThan(without + 0.05);
    }

    /** How far over a step of 0.5 rad, which asks for 7.5 N·m, the axis swings with at most 1 N·m. */
    private static double overshoot(CascadeControl control) {
        Plant plant = new Plant();
        double highest = 0;
        for (int i = 0; i < 150_000; i++) {
            assertThat(Math.abs(plant.step(control, 0.5, 0, 0, 1))).isLessThanOrEqualTo(1);
            highest = Math.max(highest, plant.angle);
            if (i == 100) {
                assertThat(control.limited()).isTrue();
            }
        }
        assertThat(plant.angle).isCloseTo(0.5, within(1e-4));
        assertThat(control.limited()).isFalse();
        return highest - 0.5;
    }

    /** Near its limit of speed the torque goes back in a straight line, to nothing at it and round beyond it. */
    @Test
    void torqueIsTakenBackNearTheSpeedLimit() {
        CascadeControl control = control(60, 0.25, 20, 1, 1);
        assertThat(control.torque(1, 100, 0, 2.4)).isEqualTo(1);
        assertThat(control.limited()).isFalse();
        assertThat(control.torque(1, 100, 98, 2.4)).isCloseTo(0.5, within(1e-12));
        assertThat(control.limited()).isTrue();
        assertThat(control.torque(1, 100, 100, 2.4)).isCloseTo(0, within(1e-12));
        assertThat(control.torque(1, 100, 104, 2.4)).isCloseTo(-1, within(1e-12));
        assertThat(control.torque(-1, 100, -98, 2.4)).isCloseTo(-0.5, within(1e-12));
        assertThat(control.torque(5, 100, 0, 2.4)).as("never more than the limit").isEqualTo(2.4);
    }

    /** Dynamic servo control: the gain comes with the telegram, and all of the speed with the setpoint. */
    @Test
    void thePlcGivesGainAndSpeed() {
        CascadeControl control = control(60, 0.25, NO_INTEGRAL, 0, 0);
        assertThat(control.position(0.1, 10, 0, 0, 1e9)).isCloseTo(0.25 * 60 * 0.1, within(1e-12));
        control.fromPlc(30);
        assertThat(control.position(0.1, 10, 0, 0, 1e9)).isCloseTo(0.25 * (30 * 0.1 + 10), within(1e-9));
    }
}
