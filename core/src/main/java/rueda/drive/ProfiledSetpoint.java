package rueda.drive;

import rueda.profile.MotionProfile;

/**
 * The setpoint led by a motion profile that the drive makes itself: for modes in which it is told where to, not how. In counts from the
 * place where a motion begins, so that its end is exact wherever on the travel it lies; in between the nearest whole count.
 *
 * <p>Each motion begins with the speed and the acceleration that the one before has left. No allocation; not thread-safe.
 */
final class ProfiledSetpoint {

    private final Setpoint setpoint;
    private final double subStep;
    private final double radiansPerCount;
    private final MotionProfile profile = new MotionProfile();
    private final MotionProfile stop = new MotionProfile();
    private long start;
    private long target;
    /** the motion ends at a target; else at a speed */
    private boolean toTarget;
    private boolean passes;
    private long subSteps;
    private double duration;
    private boolean ended = true;

    ProfiledSetpoint(Setpoint setpoint, DriveUnits units) {
        this.setpoint = setpoint;
        subStep = units.subStep;
        radiansPerCount = units.radiansPerCount;
    }

    /** Stands where the setpoint is. */
    void stand() {
        start = setpoint.position;
        target = setpoint.position;
        toTarget = true;
        passes = false;
        duration = 0;
        subSteps = 0;
        ended = true;
        setpoint.speed = 0;
        setpoint.acceleration = 0;
    }

    /**
     * Goes to a target.
     *
     * @param counts       where to, counts of the drive
     * @param passingSpeed counts/s at the target, with its sign; 0 to stand there
     * @param speed        counts/s
     * @param acceleration counts/s²
     * @param deceleration counts/s²
     * @param jerk         counts/s³, 0 for none
     */
    void goTo(long counts, double passingSpeed, double speed, double acceleration, double deceleration, double jerk) {
        begin();
        target = counts;
        toTarget = true;
        passes = passingSpeed != 0;
        profile.plan(0, setpoint.speed / radiansPerCount, setpoint.acceleration / radiansPerCount, counts - start, passingSpeed, speed, acceleration, deceleration, jerk);
        planned();
    }

    /** Comes to a speed, and keeps it. @param speed counts/s with its sign  @param acceleration counts/s², either way  @param jerk counts/s³, 0 for none */
    void run(double speed, double acceleration, double jerk) {
        begin();
        toTarget = false;
        passes = false;
        profile.planVelocity(0, setpoint.speed / radiansPerCount, setpoint.acceleration / radiansPerCount, speed, acceleration, jerk);
        planned();
    }

    private void planned() {
        duration = profile.duration();
        ended = duration <= 0;
    }

    private void begin() {
        start = setpoint.position;
        subSteps = 0;
    }

    /** One sub-step. */
    void step() {
        double time = ++subSteps * subStep;
        ended = time >= duration;
        if (ended && toTarget && !passes) {
            setpoint.position = target;
            setpoint.speed = 0;
            setpoint.acceleration = 0;
            return;
        }
        double t = profile.seek(time);
        setpoint.position = start + (long) Math.rint(profile.positionIn(t));
        setpoint.speed = profile.velocityIn(t) * radiansPerCount;
        setpoint.acceleration = profile.accelerationIn(t) * radiansPerCount;
    }

    /** The profile is at its end: at the target, or at the speed. */
    boolean ended() {
        return ended;
    }

    /** The farthest place of the motion. @param side 1 for the highest, −1 for the lowest  @return counts */
    double farthest(int side) {
        return start + profile.farthest(side);
    }

    /** Way to a stand from the speed that there is, counts, with its sign. */
    double wayToStop(double deceleration, double jerk) {
        stop.planVelocity(0, setpoint.speed / radiansPerCount, setpoint.acceleration / radiansPerCount, 0, deceleration, jerk);
        return stop.position(stop.duration());
    }
}
