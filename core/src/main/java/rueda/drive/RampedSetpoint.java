package rueda.drive;

/**
 * The setpoint led by a ramp of its own instead of the bus: while homing, and while stopping. Both share it, so that a stop goes on from
 * where a search was. No allocation; not thread-safe.
 */
final class RampedSetpoint {

    /** The setpoint must have stood this long, s, before it counts as standing: the axis is still arriving. */
    private static final double SETTLING = 0.1;

    private final VelocityRamp ramp;
    private final Setpoint setpoint;
    private final DriveUnits units;
    private boolean leads;
    private int restSubSteps;
    /** what was asked for last, and what it is in the ramp's own units: worked out where it changes */
    private long speedAsked;
    private long speed;
    private double accelerationAsked;
    private long rate;

    RampedSetpoint(Setpoint setpoint, DriveUnits units) {
        this.setpoint = setpoint;
        this.units = units;
        ramp = new VelocityRamp(units.subStep);
        rate = ramp.rateOf(0);
    }

    boolean leads() {
        return leads;
    }

    /** Another source leads. */
    void release() {
        leads = false;
    }

    /** Begins at rest where the setpoint is. */
    void takeOverAtRest() {
        ramp.takeOver(setpoint.position, 0);
        leads = true;
    }

    /** The setpoint is put where it is now, at rest; who leads stays as it is. */
    void rest() {
        ramp.takeOver(setpoint.position, 0);
    }

    /** Takes the setpoint over from whoever led it. */
    void lead() {
        if (!leads) {
            leads = true;
            ramp.takeOver(setpoint.position, setpoint.speed / units.radiansPerCount);
        }
    }

    /**
     * One sub-step toward a speed.
     *
     * @param wireSpeed        wanted, wire units/s, without sign
     * @param direction        −1, 0 to stop, or 1
     * @param wireAcceleration wire units/s²
     */
    void step(long wireSpeed, int direction, double wireAcceleration) {
        double speedBefore = setpoint.speed;
        if (wireSpeed != speedAsked) {
            speedAsked = wireSpeed;
            speed = ramp.speedOf(wireSpeed * units.countsPerWireUnit);
        }
        if (wireAcceleration != accelerationAsked) {
            accelerationAsked = wireAcceleration;
            rate = ramp.rateOf(wireAcceleration * units.countsPerWireUnit);
        }
        ramp.step(direction * speed, rate);
        setpoint.position = ramp.position();
        setpoint.speed = ramp.countsPerSecond() * units.radiansPerCount;
        setpoint.acceleration = (setpoint.speed - speedBefore) / units.subStep;
        restSubSteps = ramp.standsStill() ? restSubSteps + 1 : 0;
    }

    boolean standsStill() {
        return ramp.standsStill();
    }

    /** It has stood for so long that the axis has arrived. */
    boolean settled() {
        return restSubSteps * units.subStep >= SETTLING;
    }

    int direction() {
        return ramp.direction();
    }

    double countsPerSecond() {
        return ramp.countsPerSecond();
    }
}
