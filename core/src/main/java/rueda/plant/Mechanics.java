package rueda.plant;

import rueda.machine.Axis;

/**
 * The equation of motion at the motor shaft, stepped with constant torque.
 *
 * <p>Within a step the torque is constant, so the step is solved exactly (exponential approach to the final
 * speed) instead of by a difference scheme; a step in which the speed passes zero is cut there, because Coulomb
 * friction turns over. Hard stops are inelastic.
 *
 * <p>Cost: a few multiplications a step, no allocation. Not thread-safe.
 */
public final class Mechanics {

    private final double inertia;
    private final double coulomb;
    private final double viscous;
    private final double peakTorque;
    private final double maxAngle;
    private final double dt;
    /* one whole step: ω₁ = decay·ω₀ + gain·M, θ₁ = θ₀ + reach·ω₀ + drift·M */
    private final double decay;
    private final double gain;
    private final double reach;
    private final double drift;

    private double angle;
    private double speed;
    private double torque;
    private boolean atStop;
    private double impactSpeed;

    /**
     * @param axis the axis whose motor, load and stops are moved
     * @param dt   step, s
     */
    public Mechanics(Axis axis, double dt) {
        double lever = axis.metresPerRadian();
        this.inertia = axis.totalInertia();
        this.coulomb = axis.load().coulomb() * lever;
        this.viscous = axis.load().viscous() * lever * lever;
        this.peakTorque = axis.motor().peakTorque();
        this.maxAngle = axis.travel().length() * axis.unit().metres().doubleValue() / lever;
        this.dt = dt;
        double ratio = viscous * dt / inertia;
        if (ratio > 1e-6) {
            decay = Math.exp(-ratio);
            gain = (1 - decay) / viscous;
            reach = gain * inertia;
            drift = (dt - reach) / viscous;
        } else {
            decay = 1 - ratio;
            gain = dt / inertia * (1 - ratio / 2);
            reach = dt * (1 - ratio / 2);
            drift = dt * dt / (2 * inertia) * (1 - ratio / 3);
        }
    }

    /** Puts the shaft somewhere, at rest. @param angle rad from the negative hard stop */
    public void place(double angle) {
        this.angle = Math.max(0, Math.min(maxAngle, angle));
        speed = 0;
        torque = 0;
        impactSpeed = 0;
    }

    /**
     * Moves on by one step.
     *
     * @param demandedTorque N·m at the motor shaft; limited to the motor's peak
     */
    public void step(double demandedTorque) {
        torque = demandedTorque > peakTorque ? peakTorque : demandedTorque < -peakTorque ? -peakTorque : demandedTorque;
        double before = speed;
        if (before == 0 && Math.abs(torque) <= coulomb) {
            return;
        }
        double direction = (before != 0 ? before : torque) > 0 ? 1 : -1;
        double net = torque - coulomb * direction;
        double after = decay * before + gain * net;
        if (before != 0 && after * direction < 0) {
            passZero(before, net);
        } else {
            angle += reach * before + drift * net;
            speed = after;
        }
        holdAtStops();
    }

    /** The speed turns over within the step: go to standstill, then stay or leave the other way. */
    private void passZero(double before, double net) {
        double stopTime = viscous * dt / inertia > 1e-6
                ? inertia / viscous * Math.log1p(-viscous * before / net)
                : -before * inertia / net;
        angle += 0.5 * before * stopTime;
        speed = 0;
        if (Math.abs(torque) > coulomb) {
            double rest = dt - stopTime;
            double acceleration = (torque - coulomb * Math.signum(torque)) / inertia;
            speed = acceleration * rest;
            angle += 0.5 * acceleration * rest * rest;
        }
    }

    private void holdAtStops() {
        atStop = angle <= 0 || angle >= maxAngle;
        if (atStop) {
            double inward = angle <= 0 ? 1 : -1;
            angle = angle <= 0 ? 0 : maxAngle;
            if (speed * inward < 0) {
                impactSpeed = Math.max(impactSpeed, Math.abs(speed));
                speed = 0;
            }
        }
    }

    /** Motor angle, rad from the negative hard stop. */
    public double angle() {
        return angle;
    }

    /** Motor speed, rad/s. */
    public double speed() {
        return speed;
    }

    /** Torque the motor gave in the last step, N·m. */
    public double torque() {
        return torque;
    }

    public boolean atHardStop() {
        return atStop;
    }

    /** Highest speed at which a hard stop was hit since {@link #place}, rad/s at the motor. */
    public double impactSpeed() {
        return impactSpeed;
    }
}
