package rueda.drive;

import static rueda.drive.DriveObject.ANALOGUE_INPUT;
import static rueda.drive.DriveObject.ANALOGUE_TORQUE;
import static rueda.drive.DriveObject.TARGET_TORQUE;
import static rueda.drive.DriveObject.TORQUE_SOURCE;

/**
 * Cyclic synchronous torque (IEC 61800-7-201): the setpoint goes with the axis, and the torque comes from the bus or from the analogue
 * input. No allocation; not thread-safe.
 */
final class CyclicTorque implements SetpointSource {

    private final ObjectDictionary dictionary;
    private final Setpoint setpoint;
    private final Actual actual;
    private final RampedSetpoint ramped;
    /** N·m */
    private final double ratedTorque;

    CyclicTorque(ObjectDictionary dictionary, Setpoint setpoint, Actual actual, RampedSetpoint ramped, double ratedTorque) {
        this.dictionary = dictionary;
        this.setpoint = setpoint;
        this.actual = actual;
        this.ramped = ramped;
        this.ratedTorque = ratedTorque;
    }

    @Override
    public void step(int number) {
        setpoint.follow(actual);
        setpoint.acceleration = 0;
        ramped.release();
    }

    /** The torque asked for, by 6071h or by the analogue input, N·m. */
    double wanted() {
        return (dictionary.get(TORQUE_SOURCE) == 1 ? dictionary.get(ANALOGUE_INPUT) * 1e-4 * dictionary.get(ANALOGUE_TORQUE) : dictionary.get(TARGET_TORQUE)) * 1e-3 * ratedTorque;
    }
}
