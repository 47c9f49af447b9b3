package rueda.plant;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import org.hipparchus.linear.Array2DRowRealMatrix;
import org.hipparchus.linear.MatrixUtils;
import org.hipparchus.ode.ODEState;
import org.hipparchus.ode.OrdinaryDifferentialEquation;
import org.hipparchus.ode.nonstiff.DormandPrince853Integrator;
import org.junit.jupiter.api.Test;
import rueda.machine.Axis;
import rueda.machine.DemoMachine;
import rueda.machine.Load;
import rueda.machine.MotorSide;

class TwoMassMechanicsTest {

    private static final double STEP = 125e-6;

    private static Axis table(double coulomb, double backlash) {
        Axis table = DemoMachine.table();
        Load l = table.load();
        return table.withLoad(new Load(l.mass(), l.inertia(), coulomb, l.viscous(), l.slope(), l.stiffness(), l.damping(), backlash));
    }

    /** The same equations integrated by Hipparchus (Dormand-Prince 8(5,3)), torque held over each step, the load always sliding forward. */
    @Test
    void agreesWithAnIntegrator() {
        Axis axis = table(8, 0);
        MotorSide side = axis.motorSide();
        double c = axis.load().stiffness();
        double d = axis.load().damping();
        Mechanics mechanics = Mechanics.of(axis, STEP);
        mechanics.place(10);
        for (int k = 0; k < 800; k++) {
            mechanics.step(1.5);
        }
        double[] state = {mechanics.angle(), mechanics.loadAngle(), mechanics.speed(), mechanics.loadSpeed()};
        assertThat(state[3]).isPositive();
        DormandPrince853Integrator integrator = new DormandPrince853Integrator(1e-9, STEP, 1e-12, 1e-12);
        for (int k = 0; k < 2000; k++) {
            double torque = 0.7 + 0.3 * Math.sin(k * 0.02);
            mechanics.step(torque);
            state = integrator.integrate(new OrdinaryDifferentialEquation() {
                @Override
                public int getDimension() {
                    return 4;
                }

                @Override
                public double[] computeDerivatives(double t, double[] y) {
                    double shaft = c * (y[0] - y[1]) + d * (y[2] - y[3]);
                    return new double[] {y[2], y[3], (torque - shaft) / side.motorInertia(),
                            (shaft - side.viscous() * y[3] - side.coulomb() - side.gravity()) / side.loadInertia()};
                }
            }, new ODEState(0, state), STEP).getPrimaryState();
        }
        assertThat(mechanics.angle()).isCloseTo(state[0], within(1e-7 * state[0]));
        assertThat(mechanics.loadAngle()).isCloseTo(state[1], within(1e-7 * state[1]));
        assertThat(mechanics.loadSpeed()).isCloseTo(state[3], within(1e-6 * state[3]));
    }

    /** Free to swing, the twist oscillates at ω_r = √(c·(1/J_m + 1/J_l)) (two-mass system, textbooks of controlled drives). */
    @Test
    void swingsAtItsResonance() {
        Axis axis = table(0, 0);
        Load l = axis.load();
        axis = axis.withLoad(new Load(0, l.inertia(), 0, 0, 0, l.stiffness(), 0, 0));
        MotorSide side = axis.motorSide();
        Mechanics mechanics = Mechanics.of(axis, STEP);
        mechanics.place(10);
        mechanics.step(3);
        int crossings = 0;
        double before = mechanics.angle() - mechanics.loadAngle();
        int steps = 80_000;
        for (int k = 0; k < steps; k++) {
            mechanics.step(0);
            double twist = mechanics.angle() - mechanics.loadAngle();
            crossings += twist > 0 && before <= 0 ? 1 : 0;
            before = twist;
        }
        double expected = Math.sqrt(l.stiffness() * (1 / side.motorInertia() + 1 / side.loadInertia())) / (2 * Math.PI);
        assertThat(crossings / (steps * STEP)).isCloseTo(expected, within(0.15));
    }

    @Test
    void withinThePlayTheMotorMovesAlone() {
        Axis axis = table(8, 0.5);
        double play = 0.5 / axis.motorSide().unitsPerRadian();
        Mechanics mechanics = Mechanics.of(axis, STEP);
        mechanics.place(10);
        while (mechanics.angle() < 10 + 0.4 * play) {
            mechanics.step(0.02);
        }
        assertThat(mechanics.loadAngle()).isEqualTo(10);
        for (int k = 0; k < 40_000; k++) {
            mechanics.step(0.3);
        }
        assertThat(mechanics.loadAngle()).isGreaterThan(20);
        assertThat(mechanics.angle() - mechanics.loadAngle()).isGreaterThan(play / 2 * 0.99);
    }

    @Test
    void frictionHoldsTheLoadUntilTheSpringOvercomesIt() {
        Axis axis = table(8, 0);
        Mechanics mechanics = Mechanics.of(axis, STEP);
        mechanics.place(10);
        for (int k = 0; k < 8000; k++) {
            mechanics.step(0.9 * axis.motorSide().coulomb() * Math.min(1, k / 4000.0));
        }
        assertThat(mechanics.loadAngle()).isEqualTo(10);
        assertThat(mechanics.angle() - 10).as("wound up by M/c").isCloseTo(0.9 * axis.motorSide().coulomb() / axis.load().stiffness(), within(1e-4));
    }

    /** exp(A·t) against the series in Hipparchus' matrices, and against exp of a diagonal. */
    @Test
    void matrixExponential() {
        double[][] a = {{0, 1, 0}, {-400, -2, 5}, {0, 0, -30}};
        Array2DRowRealMatrix sum = new Array2DRowRealMatrix(MatrixUtils.createRealIdentityMatrix(3).getData());
        org.hipparchus.linear.RealMatrix term = MatrixUtils.createRealIdentityMatrix(3);
        for (int k = 1; k < 60; k++) {
            term = term.multiply(new Array2DRowRealMatrix(a)).scalarMultiply(0.1 / k);
            sum = sum.add(new Array2DRowRealMatrix(term.getData()));
        }
        double[][] own = MatrixExponential.of(a, 0.1);
        for (int i = 0; i < 3; i++) {
            assertThat(own[i]).containsExactly(sum.getRow(i), within(1e-11));
        }
        assertThat(MatrixExponential.of(new double[][] {{-3}}, 2)[0][0]).isCloseTo(Math.exp(-6), within(1e-15));
    }
}
