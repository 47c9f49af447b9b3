package rueda.drive;

import static rueda.drive.DriveObject.SOFT_LIMIT_MAX;
import static rueda.drive.DriveObject.SOFT_LIMIT_MIN;
import static rueda.drive.DriveObject.TARGET_POSITION;

/**
 * Cyclic synchronous position (IEC 61800-7-201): the target of each sync is interpolated linearly to the next one, so the axis follows
 * one bus cycle late. No allocation; not thread-safe.
 */
final class CyclicPosition implements SetpointSource {

    private final ObjectDictionary dictionary;
    private final Setpoint setpoint;
    private final Reference reference;
    private final DriveUnits units;
    private final CascadeControl control;
    private final RampedSetpoint ramped;
    /** brings speed setpoint and position gain, null when none travels */
    private final ProfiDriveExchange telegram;
    /** 1 ÷ sub-steps per cycle: exact for a power of two, else the remainder may be one whole step, which is as good */
    private final double perSubStep;
    private boolean insideSoftLimits = true;
    private long start;
    private long target;
    private long step;
    private long remainder;
    private long carry;

    CyclicPosition(ObjectDictionary dictionary, Setpoint setpoint, Reference reference, DriveUnits units, CascadeControl control, RampedSetpoint ramped, ProfiDriveExchange telegram) {
        this.dictionary = dictionary;
        this.setpoint = setpoint;
        this.reference = reference;
        this.units = units;
        this.control = control;
        this.ramped = ramped;
        this.telegram = telegram;
        perSubStep = 1.0 / units.subStepsPerCycle;
    }

    /** Begins where the setpoint is. */
    void enter() {
        target = setpoint.position;
        start = setpoint.position;
        reference.countFrom(setpoint.position);
    }

    /** Takes the target of a sync, kept within the software limits. */
    void latch() {
        long wanted = dictionary.get(TARGET_POSITION);
        insideSoftLimits = true;
        if (reference.known() && !reference.endless()) {
            /* an axis that stands outside may come in at its own pace, and go no farther out */
            long here = reference.unwrappedWire(setpoint.position);
            long limited = Math.max(Math.min(dictionary.get(SOFT_LIMIT_MIN), here), Math.min(Math.max(dictionary.get(SOFT_LIMIT_MAX), here), wanted));
            insideSoftLimits = wanted >= dictionary.get(SOFT_LIMIT_MIN) && wanted <= dictionary.get(SOFT_LIMIT_MAX);
            wanted = limited;
        }
        long wayBefore = target - start;
        start = setpoint.position;
        target = reference.counts(wanted);
        setpoint.speed = (target - start) * units.speedPerCycleCount;
        if (telegram != null && !Double.isNaN(telegram.gain())) {
            setpoint.speed = telegram.speedSetpoint();
            control.fromPlc(telegram.gain());
        }
        setpoint.acceleration = (target - start - wayBefore) * units.accelerationPerCycleCount;
    }

    /** Straight from the setpoint of one sync to the next, in whole counts; the last sub-step lands on the target. */
    @Override
    public void step(int number) {
        ramped.release();
        if (number == 0) {
            long way = target - start;
            step = (long) Math.floor(way * perSubStep);
            remainder = way - step * units.subStepsPerCycle;
            carry = 0;
            setpoint.position = start;
        }
        setpoint.position += step;
        carry += remainder;
        if (carry >= units.subStepsPerCycle) {
            carry -= units.subStepsPerCycle;
            setpoint.position++;
        }
    }

    /** The last target lay within the software limits. */
    boolean insideSoftLimits() {
        return insideSoftLimits;
    }
}
