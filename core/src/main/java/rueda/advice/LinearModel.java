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

    /** By how much a step of the setpoint overshoots without feed-forward, share of the step. */
    public static double overshoot(Axis axis) {
        LinearModel model = new LinearModel(axis);
        double highest = 0;
        int steps = (int) (6 / axis.control().positionGain() / SUB_STEP);
        for (int i = 0; i < steps; i++) {
            model.step(1, 0, 0);
            highest = Math.max(highest, model.motorAngle);
        }
        return Math.max(0, highest - 1);
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
