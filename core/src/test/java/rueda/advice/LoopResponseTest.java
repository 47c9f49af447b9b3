package rueda.advice;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import org.hipparchus.linear.Array2DRowRealMatrix;
import org.hipparchus.linear.MatrixUtils;
import org.hipparchus.linear.RealMatrix;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import rueda.machine.Axis;
import rueda.machine.Control;
import rueda.machine.DemoMachine;
import rueda.machine.MotorSide;

/**
 * The frequency response of the margins against the difference equations themselves: a sine goes through controller and plant sub-step by
 * sub-step, and what comes out is correlated with it. The plant is integrated by Hipparchus' matrix exponential.
 */
class LoopResponseTest {

    private static final double T = 125e-6;

    @ParameterizedTest
    @CsvSource({"0, 20, 0.25, 20", "0, 60, 0.25, 5", "0, 300, 0.1, 20", "2, 12, 0.6, 20", "2, 45, 0.6, 8", "2, 150, 0.3, 20", "2, 800, 0.3, 20"})
    void theResponseIsThatOfTheDifferenceEquations(int number, double frequency, double gain, double integralTime) {
        Axis demo = DemoMachine.create().axes().get(number);
        Axis axis = demo.withControl(new Control(40, gain, integralTime, 0, 0));
        MotorSide side = axis.motorSide();
        double c = axis.load().stiffness();
        double d = axis.load().damping();
        double[][] system = c > 0
                ? new double[][] {{0, 1, 0, 0, 0}, {-c / side.motorInertia(), -d / side.motorInertia(), c / side.motorInertia(), d / side.motorInertia(), 1 / side.motorInertia()},
                    {0, 0, 0, 1, 0}, {c / side.loadInertia(), d / side.loadInertia(), -c / side.loadInertia(), -d / side.loadInertia(), 0}, {0, 0, 0, 0, 0}}
                : new double[][] {{0, 1, 0}, {0, -side.viscous() / side.inertia(), 1 / side.inertia()}, {0, 0, 0}};
        RealMatrix step = MatrixUtils.matrixExponential(new Array2DRowRealMatrix(system).scalarMultiply(T));
        int size = system.length;
        double[] state = new double[size];
        double integral = 0;
        double before = 0;
        // Whole periods, after the rest of the beginning has died away; a drift of the position has no part at this frequency over whole periods.
        int perPeriod = (int) Math.round(1 / frequency / T);
        double angle = 2 * Math.PI / perPeriod;
        int settle = perPeriod * Math.max(4, (int) (1.5 / T / perPeriod));
        int periods = Math.max(10, (int) (0.5 / T / perPeriod));
        double[] measured = new double[perPeriod * periods];
        double[][] basis = new double[measured.length][];
        for (int k = 0; k < settle + measured.length; k++) {
            if (k >= settle) {
                measured[k - settle] = (state[0] - before) / T;
                // The integral and the free mass keep a constant and a ramp from the beginning: they are fitted beside the sine.
                basis[k - settle] = new double[] {(double) (k - settle) / measured.length, Math.sin(angle * k), Math.cos(angle * k)};
            }
            double error = Math.sin(angle * k);
            double speed = (state[0] - before) / T;
            assertThat(speed).isFinite();
            state[size - 1] = gain * (error + integral);
            integral += error * T / (integralTime * 1e-3);
            before = state[0];
            state = step.operate(state);
        }
        org.hipparchus.stat.regression.OLSMultipleLinearRegression fit = new org.hipparchus.stat.regression.OLSMultipleLinearRegression();
        fit.newSampleData(measured, basis);
        double re = fit.estimateRegressionParameters()[2];
        double im = fit.estimateRegressionParameters()[3];
        double[] response = LoopMargins.velocityResponse(axis, 1 / (perPeriod * T));
        double gainThere = Math.hypot(response[0], response[1]);
        assertThat(Math.hypot(re, im) / gainThere).isCloseTo(1, within(0.01));
        assertThat(Math.toDegrees(Math.IEEEremainder(Math.atan2(im, re) - Math.atan2(response[1], response[0]), 2 * Math.PI))).isCloseTo(0, within(0.5));
    }
}
