package rueda.plant;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import org.hipparchus.ode.ODEState;
import org.hipparchus.ode.OrdinaryDifferentialEquation;
import org.hipparchus.ode.nonstiff.DormandPrince853Integrator;
import org.junit.jupiter.api.Test;
import rueda.machine.Axis;
import rueda.machine.DemoMachine;

class MechanicsTest {

    private static final double STEP = 125e-6;

    private static Axis axis(double coulomb, double viscous) {
        Axis demo = DemoMachine.shuttle();
        return demo.withLoad(demo.load().withFriction(coulomb, viscous));
    }

    /** The same equation of motion integrated by Hipparchus (Dormand-Prince 8(5,3)), torque held over each step. */
    @Test
    void agreesWithAnIntegrator() {
        Axis axis = axis(45, 600);
        Mechanics mechanics = Mechanics.of(axis, STEP);
        mechanics.place(300);
        double inertia = axis.motorSide().inertia();
        double coulomb = axis.motorSide().coulomb();
        double viscous = axis.motorSide().viscous();
        DormandPrince853Integrator integrator = new DormandPrince853Integrator(1e-9, STEP, 1e-12, 1e-12);
        double[] state = {300, 0};
        for (int k = 0; k < 4000; k++) {
            double torque = 1.2 + Math.sin(k * 0.004);
            mechanics.step(torque);
            state = integrator.integrate(new OrdinaryDifferentialEquation() {
                @Override
                public int getDimension() {
                    return 2;
                }

                @Override
                public double[] computeDerivatives(double t, double[] y) {
                    return new double[] {y[1], (torque - coulomb - viscous * y[1]) / inertia};
                }
            }, new ODEState(0, state), STEP).getPrimaryState();
        }
        assertThat(mechanics.speed()).isCloseTo(state[1], within(1e-7 * Math.abs(state[1])));
        assertThat(mechanics.angle()).isCloseTo(state[0], within(1e-7 * state[0]));
    }

    /** Coasting to rest by Coulomb friction alone: way = ω²·J / (2·M_c), and it stays there. */
    @Test
    void frictionBringsItToRest() {
        Axis axis = axis(45, 0);
        Mechanics mechanics = Mechanics.of(axis, STEP);
        mechanics.place(300);
        for (int k = 0; k < 400; k++) {
            mechanics.step(2);
        }
        double speed = mechanics.speed();
        double from = mechanics.angle();
        for (int k = 0; k < 40_000; k++) {
            mechanics.step(0);
        }
        double expected = speed * speed * axis.motorSide().inertia() / (2 * axis.motorSide().coulomb());
        assertThat(mechanics.speed()).isZero();
        assertThat(mechanics.angle() - from).isCloseTo(expected, within(1e-9 * expected));
    }

    @Test
    void torqueBelowFrictionMovesNothing() {
        Axis axis = axis(45, 60);
        Mechanics mechanics = Mechanics.of(axis, STEP);
        mechanics.place(300);
        mechanics.step(0.99 * axis.motorSide().coulomb());
        assertThat(mechanics.angle()).isEqualTo(300);
    }

    @Test
    void hardStopHoldsAndRemembersTheImpact() {
        Mechanics mechanics = Mechanics.of(axis(0, 0), STEP);
        mechanics.place(1);
        for (int k = 0; k < 2000; k++) {
            mechanics.step(-1);
        }
        assertThat(mechanics.angle()).isZero();
        assertThat(mechanics.speed()).isZero();
        assertThat(mechanics.atHardStop()).isTrue();
        assertThat(mechanics.impactSpeed()).isCloseTo(Math.sqrt(2 * 1 / axis(0, 0).motorSide().inertia()), within(1.0));
    }

    @Test
    void peakTorqueIsALimit() {
        Mechanics mechanics = Mechanics.of(axis(0, 0), STEP);
        mechanics.place(300);
        mechanics.step(50);
        assertThat(mechanics.torque()).isEqualTo(2.4);
    }

    /** 19 bits a turn: one turn of the shaft is 524 288 counts (common practice, no source). */
    @Test
    void encoderIsAbsoluteWithinOneTurn() {
        Axis demo = DemoMachine.shuttle();
        ServoPlant plant = new ServoPlant(demo, STEP);
        double turn = demo.scale().unitsPerMotorTurn().toDouble();
        plant.switchOnAt(10.25 * turn);
        assertThat(plant.counts()).isBetween(131_071L, 131_073L);
        assertThat(plant.countsPerTurn()).isEqualTo(524_288);
    }
}
