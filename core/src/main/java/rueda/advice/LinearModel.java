package rueda.advice;

import rueda.machine.Axis;
import rueda.machine.Control;
import rueda.machine.MotorSide;

/**
 * The loops of an axis as linear theory has them: position and velocity loop in sub-steps, motor and load without
 * Coulomb friction, play, encoder counts and torque limit. What is measured beside it shows what these add.
 */
public final class LinearModel {

    private static final double SUB_STEP = 125e-6;
    /** The spring of a two-mass load is integrated in so many parts of a sub-step (semi-implicit Euler). */
    private static final int PARTS = 8;

    private final MotorSide side;
    private final Control control;
    private final double stiffness;
    private final double damping;
    private final double forwardInertia;
    private double motorAngle;
    private double motorSpeed;
    private double loadAngle;
    private double loadSpeed;
    private double integral;
    private double measuredSpeed;

    private LinearModel(Axis axis) {
        side = axis.motorSide();
        control = axis.control();
        stiffness = axis.load().stiffness();
        damping = axis.load().damping();
        forwardInertia = side.inertia() * control.torqueForward();
    }

    /**
     * Following error of a setpoint.
     *
     * @param setpoint    units, one a bus cycle; before the first the axis stands at 0
     * @param cycle       bus cycle, s
     * @return following error at the end of each bus cycle, units
     */
    public static double[] followingError(Axis axis, double[] setpoint, double cycle) {
        LinearModel model = new LinearModel(axis);
        double unitsPerRadian = model.side.unitsPerRadian();
        int subSteps = (int) Math.round(cycle / SUB_STEP);
        double[] error = new double[setpoint.length];
        double speedBefore = 0;
        double from = 0;
        for (int k = 0; k < setpoint.length; k++) {
            double to = setpoint[k] / unitsPerRadian;
            double speed = (to - from) / cycle;
            for (int i = 1; i <= subSteps; i++) {
                model.step(from + (to - from) * i / subSteps, speed, (speed - speedBefore) / cycle);
            }
            error[k] = (to - model.motorAngle) * unitsPerRadian;
            speedBefore = speed;
            from = to;
        }
        return error;
    }

    /**
     * A step of the setpoint without feed-forward.
     *
     * @param overshoot share of the step by which it goes beyond; NaN when it has not come so far within {@link #LONGEST} s
     * @param settled   s until it stays within 2 %; NaN when it does not within {@link #LONGEST} s
     */
    public record StepResponse(double overshoot, double settled) {
    }

    /** A slower loop is not followed to its end, s. */
    public static final double LONGEST = 5;
    /** A loop that has grown to this share of its step is unstable. */
    private static final double RUNAWAY = 1e6;

    /** The step by linear theory, at most {@link #LONGEST} s of it. */
    public static StepResponse stepResponse(Axis axis) {
        LinearModel model = new LinearModel(axis);
        double highest = 0;
        int most = (int) (LONGEST / SUB_STEP);
        // Long enough for the position loop to come to rest, and the integral after it.
        int steps = (int) Math.min(most, 10 / axis.control().positionGain() / SUB_STEP + 20 * axis.control().integralTime() * 1e-3 / SUB_STEP);
        int outside = 0;
        int k = 0;
        while (k < steps && highest < RUNAWAY) {
            model.step(1, 0, 0);
            k++;
            highest = Math.max(highest, Math.abs(model.motorAngle));
            outside = Math.abs(model.motorAngle - 1) > SETTLED ? k : outside;
        }
        boolean came = outside < k;
        return new StepResponse(came || highest > 1 ? Math.max(0, highest - 1) : Double.NaN, came ? outside * SUB_STEP : Double.NaN);
    }

    private static final double SETTLED = 0.02;

    /**
     * Following error at a constant speed, in the unit of the speed: the loop asks for v = Kv·e + f·v, where e is the setpoint at the end of a
     * sub-step T against the position at its beginning; at one time it is less by the way of a sub-step.
     */
    public static double followingErrorAt(double speed, Control control) {
        return speed / control.positionGain() * (1 - control.feedForward()) - speed * SUB_STEP;
    }

    private void step(double setpoint, double setpointSpeed, double setpointAcceleration) {
        double speedError = control.positionGain() * (setpoint - motorAngle) + control.feedForward() * setpointSpeed - measuredSpeed;
        double torque = control.velocityGain() * (speedError + integral) + forwardInertia * setpointAcceleration;
        integral += speedError * SUB_STEP / (control.integralTime() * 1e-3);
        double before = motorAngle;
        if (stiffness == 0) {
            double acceleration = (torque - side.viscous() * motorSpeed) / side.inertia();
            motorAngle += motorSpeed * SUB_STEP + acceleration * SUB_STEP * SUB_STEP / 2;
            motorSpeed += acceleration * SUB_STEP;
        } else {
            twoMasses(torque);
        }
        measuredSpeed = (motorAngle - before) / SUB_STEP;
    }

    private void twoMasses(double torque) {
        double dt = SUB_STEP / PARTS;
        for (int i = 0; i < PARTS; i++) {
            double shaft = stiffness * (motorAngle - loadAngle) + damping * (motorSpeed - loadSpeed);
            motorSpeed += (torque - shaft) / side.motorInertia() * dt;
            loadSpeed += (shaft - side.viscous() * loadSpeed) / side.loadInertia() * dt;
            motorAngle += motorSpeed * dt;
            loadAngle += loadSpeed * dt;
        }
    }
}
