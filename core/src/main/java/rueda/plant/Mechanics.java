package rueda.plant;

import rueda.machine.Axis;
import rueda.machine.Motor;

/**
 * The equation of motion of motor and load, stepped with constant motor torque. Angles and speeds are those of the
 * motor shaft; the load is reduced to it.
 *
 * <p>Cost: some multiplications a step, no allocation. Not thread-safe.
 */
public abstract sealed class Mechanics permits RigidMechanics, TwoMassMechanics {

    private final double peakTorque;
    /** rad/s up to which the peak torque is there */
    private final double ratedSpeed;
    /** fall of the peak torque beyond, N·m per rad/s */
    private final double torqueDrop;
    private final double lowest;
    private final double highest;

    private double torque;
    private boolean atStop;
    private double impactSpeed;
    private double brake;
    private final double brakeTorque;
    private double pushed;

    Mechanics(Axis axis) {
        Motor motor = axis.motor();
        peakTorque = motor.peakTorque();
        ratedSpeed = motor.ratedSpeed() * 2 * Math.PI / 60;
        torqueDrop = motor.torqueDrop() * 60 / (2 * Math.PI);
        lowest = axis.endless() ? Double.NEGATIVE_INFINITY : 0;
        highest = axis.endless() ? Double.POSITIVE_INFINITY : axis.travel().length() / axis.motorSide().unitsPerRadian();
        brakeTorque = axis.brake().torque();
    }

    /** The mechanics of an axis: one mass when it is rigid, else two. @param dt step, s */
    public static Mechanics of(Axis axis, double dt) {
        return axis.load().stiffness() > 0 ? new TwoMassMechanics(axis, dt) : new RigidMechanics(axis, dt);
    }

    /** Puts the shaft somewhere, at rest. @param angle rad from the negative hard stop */
    public final void place(double angle) {
        rest(Math.max(lowest, Math.min(highest, angle)));
        torque = 0;
        impactSpeed = 0;
    }

    /**
     * Moves on by one step.
     *
     * @param demandedTorque N·m at the motor shaft; limited to what the motor gives at its speed
     */
    public final void step(double demandedTorque) {
        double fast = Math.abs(speed()) - ratedSpeed;
        double limit = fast <= 0 ? peakTorque : Math.max(0, peakTorque - torqueDrop * fast);
        torque = demandedTorque > limit ? limit : demandedTorque < -limit ? -limit : demandedTorque;
        advance(torque, brake);
        double load = loadAngle();
        atStop = load <= lowest || load >= highest;
        if (atStop) {
            double impact = holdAt(load <= lowest ? lowest : highest, load <= lowest ? 1 : -1);
            impactSpeed = impact > impactSpeed ? impact : impactSpeed;
        }
    }

    /** Puts everything at one angle, at rest. */
    abstract void rest(double angle);

    /** Goes on from where another one stands: the load has changed. */
    final void goOnFrom(Mechanics before) {
        take(before.angle(), before.speed(), before.loadAngle(), before.loadSpeed());
        torque = before.torque;
        brake = before.brake;
        pushed = before.pushed;
        atStop = before.atStop;
        impactSpeed = before.impactSpeed;
    }

    /** Puts motor and load somewhere, moving. */
    abstract void take(double motorAngle, double motorSpeed, double angleOfLoad, double speedOfLoad);

    /** Something pushes the load from now on. @param pushes torque at the motor shaft in the positive direction, N·m */
    final void push(double pushes) {
        pushed = pushes;
    }

    /** N·m at the motor shaft that push the load in the positive direction. */
    final double pushed() {
        return pushed;
    }

    /** One step with a torque the motor can give and a brake that holds up to a torque, both N·m. */
    abstract void advance(double motorTorque, double brakeHolds);

    /** The load has met a hard stop: put it there. @param inward direction away from the stop  @return speed of the impact, rad/s */
    abstract double holdAt(double angle, int inward);

    /** Motor angle, rad from the negative hard stop. */
    public abstract double angle();

    /** Motor speed, rad/s. */
    public abstract double speed();

    /** Angle of the load, reduced to the motor shaft, rad. */
    public abstract double loadAngle();

    /** Speed of the load, reduced to the motor shaft, rad/s. */
    public abstract double loadSpeed();

    /** The holding brake closes or opens. */
    public final void brake(boolean closed) {
        brake = closed ? brakeTorque : 0;
    }

    /** The holding brake is closed. */
    public final boolean braked() {
        return brake > 0;
    }

    /** Torque the motor gave in the last step, N·m. */
    public final double torque() {
        return torque;
    }

    public final boolean atHardStop() {
        return atStop;
    }

    /** Highest speed at which a hard stop was hit since {@link #place}, rad/s at the motor. */
    public final double impactSpeed() {
        return impactSpeed;
    }
}
