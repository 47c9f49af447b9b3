package rueda.plant;

import rueda.machine.Axis;
import rueda.machine.MotorSide;

/**
 * Motor and load as one mass.
 *
 * <p>Within a step the torque is constant, so the step is solved exactly (exponential approach to the final
 * speed) instead of by a difference scheme; a step in which the speed passes zero is cut there, because Coulomb
 * friction turns over. Hard stops are inelastic. Not thread-safe.
 */
final class RigidMechanics extends Mechanics {

    private final double inertia;
    private final double coulomb;
    private final double viscous;
    private final double gravity;
    private final double dt;
    /* one whole step: ω₁ = decay·ω₀ + gain·M, θ₁ = θ₀ + reach·ω₀ + drift·M */
    private final double decay;
    private final double gain;
    private final double reach;
    private final double drift;

    private double angle;
    private double speed;

    RigidMechanics(Axis axis, double dt) {
        super(axis);
        MotorSide side = axis.motorSide();
        this.inertia = side.inertia();
        this.coulomb = side.coulomb();
        this.viscous = side.viscous();
        this.gravity = side.gravity();
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

    @Override
    void rest(double place) {
        angle = place;
        speed = 0;
    }

    @Override
    void take(double motorAngle, double motorSpeed, double angleOfLoad, double speedOfLoad) {
        angle = motorAngle;
        speed = motorSpeed;
    }

    @Override
    void advance(double motorTorque, double brakeHolds) {
        double driving = motorTorque - gravity + pushed();
        double friction = coulomb + brakeHolds;
        double before = speed;
        if (before == 0 && Math.abs(driving) <= friction) {
            return;
        }
        double direction = (before != 0 ? before : driving) > 0 ? 1 : -1;
        double net = driving - friction * direction;
        double after = decay * before + gain * net;
        if (before != 0 && after * direction < 0) {
            passZero(before, net, driving, friction);
        } else {
            angle += reach * before + drift * net;
            speed = after;
        }
    }

    /** The speed turns over within the step: go to standstill, then stay or leave the other way. */
    private void passZero(double before, double net, double driving, double friction) {
        double stopTime = viscous * dt / inertia > 1e-6
                ? inertia / viscous * Math.log1p(-viscous * before / net)
                : -before * inertia / net;
        angle += 0.5 * before * stopTime;
        speed = 0;
        if (Math.abs(driving) > friction) {
            double rest = dt - stopTime;
            double acceleration = (driving - friction * Math.signum(driving)) / inertia;
            speed = acceleration * rest;
            angle += 0.5 * acceleration * rest * rest;
        }
    }

    @Override
    double holdAt(double stop, int inward) {
        angle = stop;
        double impact = 0;
        if (speed * inward < 0) {
            impact = Math.abs(speed);
            speed = 0;
        }
        return impact;
    }

    @Override
    public double angle() {
        return angle;
    }

    @Override
    public double speed() {
        return speed;
    }

    @Override
    public double loadAngle() {
        return angle;
    }

    @Override
    public double loadSpeed() {
        return speed;
    }
}
