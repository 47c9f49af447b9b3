package rueda.advice;

import rueda.machine.Axis;
import rueda.machine.Dynamics;
import rueda.machine.MotorSide;
import rueda.profile.MotionLimits;
import rueda.profile.MotionProfile;
import rueda.quantity.Scale;

/**
 * Torque of a duty: the move there and back with rests between, the torque of every instant from the motion and the
 * masses that are moved ({@code M = J·α + M_c·sgn ω + b·ω + M_g}), its peak and its root mean square over a whole round.
 *
 * @param moveTime        s of one move
 * @param peak            N·m
 * @param rms             N·m
 * @param speedAtPeak     units/s at the worst instant, measured against what the motor gives there
 * @param availableAtPeak N·m the motor gives at that speed
 */
record DutyLoad(double moveTime, double peak, double rms, double speedAtPeak, double availableAtPeak) {

    private static final int STEPS = 2000;

    static DutyLoad of(Axis axis) {
        Dynamics d = axis.limits().normal();
        MotorSide side = axis.motorSide();
        Scale scale = axis.scale();
        double turnsPerUnit = scale.motorTurnsPerMinute(1);
        MotionProfile move = new MotionProfile();
        move.plan(0, 0, axis.duty().distance(), 0, new MotionLimits(d.speed(), d.acceleration(), d.deceleration(), d.jerk()));
        double dt = move.duration() / STEPS;
        double squares = 0;
        double peak = 0;
        double worst = -1;
        double speedAtPeak = 0;
        double availableAtPeak = axis.torqueLimit();
        for (int way = -1; way <= 1; way += 2) {
            for (int k = 0; k < STEPS; k++) {
                double t = (k + 0.5) * dt;
                double speed = way * move.velocity(t);
                double torque = Math.abs(side.torque(speed, way * move.acceleration(t)));
                double available = Math.min(axis.torqueLimit(), axis.motor().peakTorqueAt(speed * turnsPerUnit));
                squares += torque * torque * dt;
                if (torque / available > worst) {
                    worst = torque / available;
                    speedAtPeak = Math.abs(speed);
                    availableAtPeak = available;
                    peak = torque;
                }
            }
        }
        /* at rest the motor holds the weight, unless a brake does */
        double held = axis.brake().fitted() ? 0 : Math.max(0, Math.abs(side.gravity()) - side.coulomb());
        squares += 2 * axis.duty().pause() * held * held;
        double round = 2 * (move.duration() + axis.duty().pause());
        return new DutyLoad(move.duration(), peak, Math.sqrt(squares / round), speedAtPeak, availableAtPeak);
    }
}
