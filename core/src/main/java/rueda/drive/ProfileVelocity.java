package rueda.drive;

import static rueda.drive.DriveObject.TARGET_VELOCITY;

/**
 * Profile velocity (IEC 61800-7-201, profile velocity mode): the axis comes to the target velocity 60FFh on the profile acceleration and
 * deceleration, and keeps it. An axis with ends that knows where it is comes to rest at its soft limit. No allocation; not thread-safe.
 */
final class ProfileVelocity implements SetpointSource {

    private final ObjectDictionary dictionary;
    private final Setpoint setpoint;
    private final Reference reference;
    private final DriveUnits units;
    private final ProfileObjects objects;
    private final ProfiledSetpoint motion;
    private final RampedSetpoint ramped;
    private double wanted;
    private double accelerationBefore;
    private double decelerationBefore;
    private double jerkBefore;
    private boolean halted;
    private boolean insideSoftLimits = true;

    ProfileVelocity(ObjectDictionary dictionary, Setpoint setpoint, Reference reference, DriveUnits units, ProfileObjects objects, ProfiledSetpoint motion, RampedSetpoint ramped) {
        this.dictionary = dictionary;
        this.setpoint = setpoint;
        this.reference = reference;
        this.units = units;
        this.objects = objects;
        this.motion = motion;
        this.ramped = ramped;
    }

    /** The next sync says how fast. */
    void enter() {
        wanted = Double.NaN;
    }

    /** Once a bus cycle while it leads. */
    void latch(int controlword) {
        halted = (controlword & ControlWord.HALT) != 0;
        double speed = halted ? 0 : objects.limited(dictionary.get(TARGET_VELOCITY));
        double acceleration = objects.acceleration();
        double deceleration = objects.deceleration();
        double jerk = objects.jerk();
        if (speed == wanted && acceleration == accelerationBefore && deceleration == decelerationBefore && jerk == jerkBefore) {
            return;
        }
        wanted = speed;
        accelerationBefore = acceleration;
        decelerationBefore = deceleration;
        jerkBefore = jerk;
        insideSoftLimits = true;
        double now = setpoint.speed / units.radiansPerCount;
        if (speed != 0 && objects.bounded()) {
            long limit = objects.softLimit(speed);
            long here = reference.unwrappedWire(setpoint.position);
            if (Math.signum(limit - here) == Math.signum(speed)) {
                motion.goTo(reference.countsAt(limit), 0, Math.abs(speed), acceleration, deceleration, jerk);
            } else {
                insideSoftLimits = false;
                motion.run(0, deceleration, jerk);
            }
        } else {
            boolean slower = Math.abs(speed) < Math.abs(now) || Math.signum(speed) != Math.signum(now) && now != 0;
            motion.run(speed, slower ? deceleration : acceleration, jerk);
        }
    }

    @Override
    public void step(int number) {
        ramped.release();
        motion.step();
        if (motion.ended() && wanted != 0 && setpoint.speed == 0) {
            insideSoftLimits = false;
        }
    }

    /** Speed asked for, rad/s of the motor; 0 while halted. */
    double wanted() {
        return Double.isNaN(wanted) ? 0 : wanted * units.radiansPerCount;
    }

    boolean insideSoftLimits() {
        return insideSoftLimits;
    }
}
