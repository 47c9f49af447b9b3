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
    private final SetpointChoice choice;
    private final FollowingMonitor following;
    /** tenths of a percent of rated torque per N·m */
    private final double shareOfRated;
    private double atSpeedMillis;

    StatusReport(ObjectDictionary dictionary, PowerStateMachine power, Setpoint setpoint, Actual actual, Reference reference, DriveUnits units, PositionFeedback feedback, DigitalInputs inputs, ServoPlant plant,
                 CascadeControl control, Arrival arrival, RampedSetpoint ramped, SetpointChoice choice, FollowingMonitor following, double ratedTorque) {
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
        this.choice = choice;
        this.following = following;
        shareOfRated = 1000 / ratedTorque;
    }

    /**
     * @param energised torque is on
     * @param volts     at the analogue input, V
     */
    void publish(boolean energised, double volts) {
        int mode = choice.mode();
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
        list();
        choice.following().publish(units.subStep * units.subStepsPerCycle);
        atSpeed(mode);
        dictionary.set(STATUSWORD, statusword(mode));
    }

    private void list() {
        MoveListSource list = choice.list();
        dictionary.set(LIST_ENTRY, list.entry());
        dictionary.set(LIST_STATUS, (list.running() ? ListStatus.RUNNING : 0) | (list.entryFinished() ? ListStatus.ENTRY_FINISHED : 0) | (stands() ? ListStatus.STANDS : 0)
                | (list.phase() == MoveListSource.Phase.AWAITING || list.phase() == MoveListSource.Phase.WAITING ? ListStatus.AWAITS : 0) | (list.error() != ListError.NONE ? ListStatus.ERROR : 0));
        dictionary.set(LIST_ROUNDS, list.rounds());
        dictionary.set(LIST_ERROR, list.error().code());
    }

    /** The setpoint stands, and the axis has arrived. */
    private boolean stands() {
        return setpoint.speed == 0 && arrival.inPosition();
    }

    /** Profile velocity: the speed has been within 606Dh of the target for 606Eh. */
    private void atSpeed(int mode) {
        boolean inside = mode == OperationMode.PROFILE_VELOCITY && Math.abs(choice.profileVelocity().wanted() - actual.speed) * units.wireSpeedPerRadian <= dictionary.get(VELOCITY_WINDOW);
        atSpeedMillis = inside ? atSpeedMillis + units.subStep * units.subStepsPerCycle * 1000 : 0;
    }

    private int statusword(int mode) {
        int word = power.state().pattern() | StatusWord.VOLTAGE_ENABLED | StatusWord.REMOTE;
        if (reference.known()) {
            word |= StatusWord.REFERENCED;
        }
        if (control.limited() || !choice.insideSoftLimits()) {
            word |= StatusWord.INTERNAL_LIMIT;
        }
        if (mode == OperationMode.HOMING) {
            return word | homingBits();
        }
        word |= power.state() == PowerState.OPERATION_ENABLED && arrival.late() ? StatusWord.WARNING : 0;
        return word | switch (mode) {
            case OperationMode.PROFILE_POSITION -> profilePositionBits();
            case OperationMode.PROFILE_VELOCITY -> profileVelocityBits();
            case OperationMode.MOVE_LIST -> listBits();
            case OperationMode.FOLLOWING -> followingBits();
            default -> cyclicBits();
        };
    }

    private int homingBits() {
        return switch (choice.homing().run().state()) {
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
            word |= choice.insideSoftLimits() ? StatusWord.MODE_12 : 0;
            word |= arrival.inPosition() ? StatusWord.TARGET_REACHED : 0;
        }
        return word;
    }

    private int profilePositionBits() {
        ProfilePosition source = choice.profilePosition();
        int word = following.over() ? StatusWord.MODE_13 : 0;
        word |= source.acknowledged() ? StatusWord.MODE_12 : 0;
        boolean reached = source.ended() && (source.halted() || arrival.inPosition());
        return word | (power.state() == PowerState.OPERATION_ENABLED && reached ? StatusWord.TARGET_REACHED : 0);
    }

    private int profileVelocityBits() {
        boolean enabled = power.state() == PowerState.OPERATION_ENABLED;
        boolean slow = Math.abs(actual.speed) * units.wireSpeedPerRadian <= dictionary.get(VELOCITY_THRESHOLD);
        return (slow ? StatusWord.MODE_12 : 0) | (enabled && atSpeedMillis > dictionary.get(VELOCITY_WINDOW_TIME) ? StatusWord.TARGET_REACHED : 0);
    }

    private int followingBits() {
        FollowingSource source = choice.following();
        return (source.locked() ? StatusWord.MODE_12 : 0) | (source.refused() ? StatusWord.MODE_13 : 0) | (source.warns() ? StatusWord.WARNING : 0) | (power.state() == PowerState.OPERATION_ENABLED && !source.tied() && stands() ? StatusWord.TARGET_REACHED : 0);
    }

    private int listBits() {
        MoveListSource list = choice.list();
        int word = list.running() ? StatusWord.MODE_12 : 0;
        word |= list.error() != ListError.NONE ? StatusWord.MODE_13 : 0;
        return word | (power.state() == PowerState.OPERATION_ENABLED && stands() ? StatusWord.TARGET_REACHED : 0);
    }
}
