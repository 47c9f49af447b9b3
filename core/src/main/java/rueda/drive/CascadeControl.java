package rueda.drive;

import rueda.machine.Axis;
import rueda.machine.Control;

/**
 * Position and velocity loop (cascade control; any handbook of servo drives), once a sub-step:
 * <pre>
 *   ω_set = Kv·(θ_set − θ) + Kff·dθ_set/dt
 *   M     = Kp·((ω_set − ω) + 1/Ti·∫(ω_set − ω)dt) + Kaff·J·d²θ_set/dt²
 * </pre>
 * limited in torque, with the integral held while limited. No allocation; not thread-safe.
 */
final class CascadeControl {

    private final double subStep;
    private double positionGain;
    private double velocityGain;
    /** sub-step ÷ integral time */
    private double integralShare;
    private double feedForward;
    /** inertia × torque feed-forward, kg·m² */
    private double forwardInertia;
    private double integral;
    private boolean limited;
    /** the motor gave less than was demanded: its speed is too high for the torque */
    private boolean motorLimited;

    /** @param subStep s */
    CascadeControl(Axis axis, double subStep) {
        this.subStep = subStep;
        take(axis);
    }

    /** Takes other gains. */
    void take(Axis axis) {
        Control control = axis.control();
        positionGain = control.positionGain();
        velocityGain = control.velocityGain();
        integralShare = subStep / (control.integralTime() * 1e-3);
        feedForward = control.feedForward();
        forwardInertia = axis.motorSide().inertia() * control.torqueForward();
    }

    /** The PLC gives the position gain, and the whole speed feed-forward with the setpoint. @param gain 1/s */
    void fromPlc(double gain) {
        positionGain = gain;
        feedForward = 1;
    }

    /**
     * Torque for a setpoint.
     *
     * @param positionError      setpoint minus actual, rad
     * @param demandSpeed        speed of the setpoint, rad/s
     * @param demandAcceleration its acceleration, rad/s²
     * @param speed              of the motor, rad/s
     * @param limit              most torque either way, N·m
     */
    double position(double positionError, double demandSpeed, double demandAcceleration, double speed, double limit) {
        double speedError = positionGain * positionError + feedForward * demandSpeed - speed;
        double wanted = velocityGain * (speedError + integral) + forwardInertia * demandAcceleration;
        double torque = wanted > limit ? limit : wanted < -limit ? -limit : wanted;
        limited = torque != wanted;
        if (!limited && !motorLimited || wanted * speedError < 0) {
            integral += speedError * integralShare;
        }
        return torque;
    }

    /**
     * A wanted torque within a speed limit: near it the velocity gain takes the torque back in a straight line, and beyond
     * it turns it round, so that the speed stays.
     *
     * @param speedLimit rad/s
     */
    double torque(double wanted, double speedLimit, double speed, double limit) {
        double highest = Math.min(limit, velocityGain * (speedLimit - speed));
        double lowest = Math.max(-limit, velocityGain * (-speedLimit - speed));
        double torque = Math.max(lowest, Math.min(highest, wanted));
        limited = torque != wanted;
        return torque;
    }

    /** What the motor gave of the torque that was demanded. */
    void given(double demanded, double given) {
        motorLimited = given != demanded;
        limited |= motorLimited;
    }

    /** The integral begins anew: the setpoint has been put where the axis is. */
    void reset() {
        integral = 0;
    }

    /** No torque is made. */
    void off() {
        integral = 0;
        limited = false;
    }

    /** The torque is held back by a limit. */
    boolean limited() {
        return limited;
    }
}
