package rueda.drive;

import static rueda.drive.DriveObject.FOLLOWING_AT_SPEED;
import static rueda.drive.DriveObject.FOLLOWING_FROM_SPEED;
import static rueda.drive.DriveObject.FOLLOWING_TIME;
import static rueda.drive.DriveObject.FOLLOWING_WINDOW;
import static rueda.drive.DriveObject.MAX_PROFILE_VELOCITY;

import rueda.machine.Supervision;

/** Watches the following error against its window, 6065h and 6066h, which may grow with the commanded speed. No allocation; not thread-safe. */
final class FollowingMonitor {

    private final ObjectDictionary dictionary;
    private final Setpoint setpoint;
    private final Actual actual;
    private final DriveUnits units;
    private final double subStepsPerMilli;
    private long windowWire;
    private long window;
    private double subSteps;
    private int overSubSteps;

    FollowingMonitor(ObjectDictionary dictionary, Setpoint setpoint, Actual actual, DriveUnits units) {
        this.dictionary = dictionary;
        this.setpoint = setpoint;
        this.actual = actual;
        this.units = units;
        subStepsPerMilli = 1e-3 / units.subStep;
    }

    /** Once a bus cycle: takes window and time. */
    void latch() {
        long wire = dictionary.get(FOLLOWING_WINDOW);
        if (wire != windowWire) {
            windowWire = wire;
            window = units.counts(wire);
        }
        subSteps = dictionary.get(FOLLOWING_TIME) * subStepsPerMilli;
    }

    /** One sub-step. @return the fault, or null */
    DriveFault watch() {
        long error = Math.abs(setpoint.position - actual.position);
        if (error <= window || error <= allowedCounts()) {
            overSubSteps = 0;
            return null;
        }
        return ++overSubSteps > subSteps ? DriveFault.FOLLOWING : null;
    }

    /** Nothing is commanded, or the search ends here. */
    void reset() {
        overSubSteps = 0;
    }

    /** The error is out of its window at present. */
    boolean over() {
        return overSubSteps > 0;
    }

    /** Beyond the fixed window: it grows with the commanded speed. */
    double allowedCounts() {
        if (dictionary.get(FOLLOWING_AT_SPEED) == dictionary.get(FOLLOWING_WINDOW)) {
            return window;
        }
        return units.countsPerWireUnit * Supervision.allowed(setpoint.speed * units.wireSpeedPerRadian, dictionary.get(FOLLOWING_FROM_SPEED), dictionary.get(MAX_PROFILE_VELOCITY),
                dictionary.get(FOLLOWING_WINDOW), dictionary.get(FOLLOWING_AT_SPEED));
    }
}
