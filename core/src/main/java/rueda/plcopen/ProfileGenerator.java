package rueda.plcopen;

import rueda.machine.Dynamics;
import rueda.machine.Limits;
import rueda.profile.MotionProfile;

/**
 * A motion profile from the setpoint as it is, to a target or to a speed. A motion that would pass a soft limit because its order brakes too
 * softly for the speed that is there is carried out with the axis' highest dynamics, which stays inside wherever that is possible.
 * No allocation; not thread-safe.
 */
final class ProfileGenerator implements SetpointGenerator {

    private final AxisSetpoint setpoint;
    private final double cycleSeconds;
    private final double[] sample = new double[3];
    private final MotionProfile profile = new MotionProfile();
    private double elapsed;

    /** @param cycleSeconds bus cycle, s */
    ProfileGenerator(AxisSetpoint setpoint, double cycleSeconds) {
        this.setpoint = setpoint;
        this.cycleSeconds = cycleSeconds;
    }

    /** Plans a move. @param target user units  @param jerk 0 for none */
    void move(double target, double speed, double acceleration, double deceleration, double jerk) {
        profile.plan(setpoint.position, setpoint.velocity, setpoint.acceleration, target, 0, speed, acceleration, deceleration, jerk);
        elapsed = 0;
    }

    /**
     * Plans a move that passes its target at a speed, when that neither leaves the soft limits nor passes the target and comes back to it.
     *
     * @param endless the axis has no limits  @param tolerance user units  @param through units/s with its sign
     * @return whether it was planned
     */
    boolean moveThrough(Limits limits, boolean endless, double tolerance, double target, double through, double speed, double acceleration, double deceleration, double jerk) {
        profile.plan(setpoint.position, setpoint.velocity, setpoint.acceleration, target, through, speed, acceleration, deceleration, jerk);
        elapsed = 0;
        double beyond = through > 0 ? profile.farthest(1) - target : target - profile.farthest(-1);
        return beyond <= tolerance && (endless || !leaves(limits, tolerance));
    }

    /** Leaves the setpoint at the end of the motion, a little before now. @return how long ago that was, s */
    double toItsEnd() {
        double since = elapsed - profile.duration();
        profile.sample(profile.duration(), sample);
        take();
        return since;
    }

    /** Goes on in the motion that was just planned as if it had begun a while ago. @param since s, less than a bus cycle */
    void catchUp(double since) {
        elapsed = since;
        profile.sample(elapsed, sample);
        take();
    }

    /** The same motion elsewhere. */
    void shift(double by) {
        profile.shift(by);
    }

    private void take() {
        setpoint.position = sample[0];
        setpoint.velocity = sample[1];
        setpoint.acceleration = sample[2];
    }

    /** Plans a change of speed. @param speed units/s with its sign */
    void run(double speed, double acceleration, double jerk) {
        profile.planVelocity(setpoint.position, setpoint.velocity, setpoint.acceleration, speed, acceleration, jerk);
        elapsed = 0;
    }

    /** A move that stays inside the soft limits where that is possible. @param tolerance user units */
    void moveInside(Limits limits, double tolerance, double target, double speed, double acceleration, double deceleration, double jerk) {
        move(target, speed, acceleration, deceleration, jerk);
        if (leaves(limits, tolerance)) {
            Dynamics max = limits.max();
            move(target, speed, max.acceleration(), max.deceleration(), hardest(max, jerk));
        }
    }

    /** A halt that stays inside the soft limits where that is possible. @param tolerance user units */
    void haltInside(Limits limits, double tolerance, double deceleration, double jerk) {
        run(0, deceleration, jerk);
        if (leaves(limits, tolerance)) {
            run(0, limits.max().deceleration(), hardest(limits.max(), jerk));
        }
    }

    private boolean leaves(Limits limits, double tolerance) {
        return setpoint.position >= limits.softMin() && setpoint.position <= limits.softMax()
                && (profile.farthest(1) > limits.softMax() + tolerance || profile.farthest(-1) < limits.softMin() - tolerance);
    }

    /** The highest jerk of the axis; none where neither the order nor the axis has a limit. */
    private static double hardest(Dynamics max, double ordered) {
        return ordered == 0 || max.jerk() == 0 ? 0 : Math.max(ordered, max.jerk());
    }

    /** Time that the motion takes, s. */
    double duration() {
        return profile.duration();
    }

    @Override
    public void step() {
        elapsed += cycleSeconds;
        profile.sample(elapsed, sample);
        take();
    }

    @Override
    public boolean ended() {
        return elapsed >= profile.duration();
    }

    @Override
    public void lookAhead(double ahead, double[] into) {
        profile.sample(elapsed + ahead, into);
    }
}
