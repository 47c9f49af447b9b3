package rueda.drive;

import static rueda.drive.DriveObject.*;

import rueda.machine.Terminal.Function;
import rueda.plant.ServoPlant;

/** What a drive tells at the end of a bus cycle: its actual values and the statusword, put into the object dictionary. No allocation; not thread-safe. */
final class StatusReport {

    /** The analogue input has 12 bits from −10 to 10 V. */
    private static final double VOLTS_PER_STEP = 20.0 / 4096;

    private final ObjectDictionary dictionary;
    private final PowerStateMachine power;
    private final Setpoint setpoint;
    private final Actual actual;
    private final Reference reference;
    private final DriveUnits units;
    private final PositionFeedback feedback;
    private final DigitalInputs inputs;
    private final ServoPlant plant;
    private final CascadeControl control;
    private final Arrival arrival;
    private final RampedSetpoint ramped;
    private final CyclicPosition cyclicPosition;
    private final HomingSource homing;
    private final FollowingMonitor following;
    /** tenths of a percent of rated torque per N·m */
    private final double shareOfRated;

    StatusReport(ObjectDictionary dictionary, PowerStateMachine power, Setpoint setpoint, Actual actual, Reference reference, DriveUnits units, PositionFeedback feedback, DigitalInputs inputs, ServoPlant plant,
                 CascadeControl control, Arrival arrival, RampedSetpoint ramped, CyclicPosition cyclicPosition, HomingSource homing, FollowingMonitor following, double ratedTorque) {
        this.dictionary = dictionary;
        this.power = power;
        this.setpoint = setpoint;
        this.actual = actual;
        this.reference = reference;
        this.units = units;
        this.feedback = feedback;
        this.inputs = inputs;
        this.plant = plant;
        this.control = control;
        this.arrival = arrival;
        this.ramped = ramped;
        this.cyclicPosition = cyclicPosition;
        this.homing = homing;
        this.following = following;
        shareOfRated = 1000 / ratedTorque;
    }

    /**
     * @param mode      mode of operation that leads
     * @param energised torque is on
     * @param volts     at the analogue input, V
     */
    void publish(int mode, boolean energised, double volts) {
        dictionary.set(MODE_DISPLAY, mode);
        dictionary.set(POSITION_ACTUAL, reference.wire(actual.position));
        dictionary.set(VELOCITY_ACTUAL, (long) Math.rint(actual.speed * units.wireSpeedPerRadian));
        dictionary.set(TORQUE_ACTUAL, (long) Math.rint(plant.mechanics().torque() * shareOfRated));
        dictionary.set(FOLLOWING_ERROR_ACTUAL, units.wire(setpoint.position - actual.position));
        arrival.observe(!ramped.leads() && setpoint.speed == 0 && energised, setpoint.position - actual.position, actual.position);
        dictionary.set(INPUT_FUNCTIONS, inputs.functions());
        dictionary.set(ANALOGUE_INPUT, Math.round(Math.rint(volts / VOLTS_PER_STEP) * VOLTS_PER_STEP * 1000));
        dictionary.set(LOAD_POSITION, feedback.loadCounts());
        dictionary.set(DIGITAL_INPUTS, (inputs.active(Function.NEGATIVE_LIMIT) ? 1 : 0) | (inputs.active(Function.POSITIVE_LIMIT) ? 2 : 0)
                | (inputs.active(Function.REFERENCE_CAM) ? 4 : 0) | inputs.levels(true) << 16);
        dictionary.set(STATUSWORD, statusword(mode));
    }

    private int statusword(int mode) {
        int word = power.state().pattern() | StatusWord.VOLTAGE_ENABLED | StatusWord.REMOTE;
        if (reference.known()) {
            word |= StatusWord.REFERENCED;
        }
        if (control.limited() || !cyclicPosition.insideSoftLimits()) {
            word |= StatusWord.INTERNAL_LIMIT;
        }
        return word | (mode == OperationMode.HOMING ? homingBits() : cyclicBits());
    }

    private int homingBits() {
        return switch (homing.run().state()) {
            case IDLE -> StatusWord.TARGET_REACHED;
            case SEARCHING -> 0;
            case STOPPING -> StatusWord.MODE_12;
            case DONE -> StatusWord.MODE_12 | StatusWord.TARGET_REACHED;
            case FAILED -> StatusWord.MODE_13 | (ramped.standsStill() ? StatusWord.TARGET_REACHED : 0);
        };
    }

    private int cyclicBits() {
        int word = following.over() ? StatusWord.MODE_13 : 0;
        if (power.state() == PowerState.OPERATION_ENABLED) {
            word |= cyclicPosition.insideSoftLimits() ? StatusWord.MODE_12 : 0;
            word |= arrival.inPosition() ? StatusWord.TARGET_REACHED : 0;
            word |= arrival.late() ? StatusWord.WARNING : 0;
        }
        return word;
    }
}
