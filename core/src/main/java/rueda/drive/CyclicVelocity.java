package rueda.drive;

import static rueda.drive.DriveObject.TARGET_VELOCITY;

/**
 * Cyclic synchronous velocity (IEC 61800-7-201): the velocity of each sync, 60FFh, is interpolated linearly to the next one, and the
 * position goes with it. It never changes faster than the quick stop would; an axis with ends that knows where it is is slowed down so
 * that it can stop at its soft limit. Positions in 2^-24 counts, so that nothing drifts. No allocation; not thread-safe.
 */
final class CyclicVelocity implements SetpointSource {

    private final ObjectDictionary dictionary;
    private final Setpoint setpoint;
    private final Reference reference;
    private final DriveUnits units;
    private final ProfileObjects objects;
    private final RampedSetpoint ramped;
    private final VelocityRamp ramp;
    private long rate;
    private long wanted;
    private boolean entered;
    private boolean bounded;
    private int direction;
    private long limit;
    private boolean insideSoftLimits = true;

    CyclicVelocity(ObjectDictionary dictionary, Setpoint setpoint, Reference reference, DriveUnits units, ProfileObjects objects, RampedSetpoint ramped) {
        this.dictionary = dictionary;
        this.setpoint = setpoint;
        this.reference = reference;
        this.units = units;
        this.objects = objects;
        this.ramped = ramped;
        ramp = new VelocityRamp(units.subStep);
    }

    /** Begins with the speed that is there. */
    void enter() {
        entered = true;
    }

    /** Takes the velocity of a sync. @param halt bit 8 of the controlword */
    void latch(boolean halt) {
        if (entered) {
            ramp.takeOver(setpoint.position, setpoint.speed / units.radiansPerCount);
            entered = false;
        }
        double speed = halt ? 0 : objects.limited(dictionary.get(TARGET_VELOCITY));
        double hardest = objects.quickStop();
        insideSoftLimits = true;
        double toward = speed != 0 ? speed : setpoint.speed;
        bounded = toward != 0 && objects.bounded();
        if (bounded) {
            direction = toward < 0 ? -1 : 1;
            limit = reference.countsAt(objects.softLimit(toward));
        }
        if (speed != 0 && bounded) {
            double room = direction * (limit - setpoint.position);
            double cycle = units.subStep * units.subStepsPerCycle;
            // v²/(2a) + v·T ≤ room: what is left when the axis brakes one bus cycle later.
            double most = room <= 0 ? 0 : Math.sqrt(hardest * hardest * cycle * cycle + 2 * hardest * room) - hardest * cycle;
            insideSoftLimits = Math.abs(speed) <= most;
            speed = Math.signum(speed) * Math.min(Math.abs(speed), most);
        }
        wanted = ramp.speedOf(speed);
        long change = Math.abs(wanted - ramp.speed());
        long allowed = ramp.rateOf(hardest);
        rate = Math.max(1, Math.min(allowed, (change + units.subStepsPerCycle - 1) / units.subStepsPerCycle));
    }

    @Override
    public void step(int number) {
        ramped.release();
        double before = setpoint.speed;
        long here = setpoint.position;
        ramp.step(wanted, rate);
        // The last counts before the limit are crept; a rounding of the speed goes no farther.
        if (bounded && direction * (here - limit) <= 0 && direction * (ramp.position() - limit) > 0) {
            ramp.takeOver(limit, 0);
        }
        setpoint.position = ramp.position();
        setpoint.speed = ramp.countsPerSecond() * units.radiansPerCount;
        setpoint.acceleration = (setpoint.speed - before) / units.subStep;
    }

    boolean insideSoftLimits() {
        return insideSoftLimits;
    }
}
