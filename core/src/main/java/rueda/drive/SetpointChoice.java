package rueda.drive;

import static rueda.drive.DriveObject.LIST_WANTED;

import rueda.machine.Axis;
import rueda.machine.Terminal.Function;
import rueda.plant.MasterShaft;

/**
 * Chooses who makes the setpoint: by the power state, by the mode of operation, and by what a source hands on to another. Sources take
 * over from the {@link Setpoint} that the one before has left. No allocation; not thread-safe.
 */
final class SetpointChoice {

    private final DigitalInputs inputs;
    private final Setpoint setpoint;
    private final Actual actual;
    private final CascadeControl control;
    private final RampedSetpoint ramped;
    private final CyclicPosition cyclicPosition;
    private final CyclicVelocity cyclicVelocity;
    private final CyclicTorque cyclicTorque;
    private final ProfilePosition profilePosition;
    private final ProfileVelocity profileVelocity;
    private final HomingSource homing;
    private final MoveListSource list;
    private final FollowingSource following;
    private final StoppingRamp stopping;
    private final BrakeHold held;
    private int mode = OperationMode.CYCLIC_SYNCHRONOUS_POSITION;
    /** a person runs the list, whatever mode the bus asks for */
    private boolean listByHand;
    /** a person has the axis follow, whatever mode the bus asks for */
    private boolean followByHand;
    private boolean tiedByHand;

    /** @param telegram brings speed setpoint and position gain, null when none travels  @param ratedTorque N·m */
    SetpointChoice(Axis axis, ObjectDictionary dictionary, Setpoint setpoint, Actual actual, Reference reference, DriveUnits units, PositionFeedback feedback, DigitalInputs inputs,
                   CascadeControl control, Arrival arrival, RampedSetpoint ramped, ProfiDriveExchange telegram, double ratedTorque, MasterShaft masterShaft) {
        this.inputs = inputs;
        this.setpoint = setpoint;
        this.actual = actual;
        this.control = control;
        this.ramped = ramped;
        ProfileObjects objects = new ProfileObjects(dictionary, units, reference);
        ProfiledSetpoint motion = new ProfiledSetpoint(setpoint, units);
        cyclicPosition = new CyclicPosition(dictionary, setpoint, reference, units, control, ramped, telegram);
        cyclicVelocity = new CyclicVelocity(dictionary, setpoint, reference, units, objects, ramped);
        cyclicTorque = new CyclicTorque(dictionary, setpoint, actual, ramped, ratedTorque);
        profilePosition = new ProfilePosition(dictionary, setpoint, reference, objects, motion, ramped);
        profileVelocity = new ProfileVelocity(dictionary, setpoint, reference, units, objects, motion, ramped);
        homing = new HomingSource(dictionary, setpoint, actual, reference, units, feedback, inputs, control, ramped);
        list = new MoveListSource(axis, dictionary, setpoint, actual, reference, units, inputs, arrival, homing, motion, ramped);
        following = new FollowingSource(axis, dictionary, setpoint, reference, units, objects, inputs, ramped, motion, masterShaft);
        stopping = new StoppingRamp(dictionary, ramped);
        held = new BrakeHold(setpoint);
        if (axis.commandedBy() == Axis.Commander.DRIVE) {
            mode = OperationMode.MOVE_LIST;
        }
    }

    /** Mode of operation that leads. */
    int mode() {
        return listByHand ? OperationMode.MOVE_LIST : followByHand ? OperationMode.FOLLOWING : mode;
    }

    HomingSource homing() {
        return homing;
    }

    FollowingSource following() {
        return following;
    }

    /** A person has the axis follow, or gives it back to the bus. */
    void followByHand(boolean now) {
        int before = mode();
        followByHand = now;
        tiedByHand = now;
        changed(before);
    }

    boolean followsByHand() {
        return followByHand;
    }

    void tieByHand(boolean now) {
        tiedByHand = now;
    }

    MoveListSource list() {
        return list;
    }

    ProfilePosition profilePosition() {
        return profilePosition;
    }

    ProfileVelocity profileVelocity() {
        return profileVelocity;
    }

    /** The torque asked for in torque operation, N·m. */
    double torqueWanted() {
        return cyclicTorque.wanted();
    }

    /** A search for the zero leads, by the mode of operation or as an entry of the list. */
    boolean searches() {
        return mode() == OperationMode.HOMING || mode() == OperationMode.MOVE_LIST && list.homes();
    }

    /** Takes another mode, if the drive has it. @param wanted 6060h */
    void change(int wanted) {
        if (wanted == mode || !OperationMode.known(wanted)) {
            return;
        }
        int before = mode();
        mode = wanted;
        changed(before);
    }

    /** A person runs the list, or gives it back. */
    void listByHand(boolean now) {
        int before = mode();
        listByHand = now;
        changed(before);
    }

    boolean listByHand() {
        return listByHand;
    }

    private void changed(int before) {
        if (mode() == before) {
            return;
        }
        if (before == OperationMode.CYCLIC_SYNCHRONOUS_TORQUE) {
            setpoint.position = actual.position;
            control.reset();
        }
        homing.run().abort();
        ramped.release();
        enter();
    }

    /** The source that leads begins where the setpoint is. */
    void enter() {
        list.leave();
        following.leave();
        switch (mode()) {
            case OperationMode.PROFILE_POSITION -> profilePosition.enter();
            case OperationMode.PROFILE_VELOCITY -> profileVelocity.enter();
            case OperationMode.CYCLIC_SYNCHRONOUS_VELOCITY -> cyclicVelocity.enter();
            case OperationMode.MOVE_LIST -> list.enter();
            case OperationMode.FOLLOWING -> following.enter();
            default -> cyclicPosition.enter();
        }
    }

    /** Once a bus cycle: the source that leads takes what it is told. @param enabled the axis is in operation  @param dictionary where targets stand */
    void latch(int controlword, boolean enabled, ObjectDictionary dictionary) {
        boolean bit4 = (controlword & ControlWord.NEW_SETPOINT) != 0;
        boolean halt = (controlword & ControlWord.HALT) != 0;
        boolean leadsList = enabled && mode() == OperationMode.MOVE_LIST;
        homing.latch(leadsList ? list.homes() : bit4, enabled && searches());
        if (leadsList) {
            list.latch(!listByHand && bit4, !listByHand && halt, (int) dictionary.get(LIST_WANTED));
        } else {
            list.leave();
            list.follow(bit4, halt);
        }
        if (enabled && mode() == OperationMode.PROFILE_POSITION) {
            profilePosition.latch(controlword);
        } else {
            profilePosition.follow(controlword);
        }
        if (enabled) {
            switch (mode()) {
                case OperationMode.CYCLIC_SYNCHRONOUS_POSITION -> cyclicPosition.latch();
                case OperationMode.PROFILE_VELOCITY -> profileVelocity.latch(controlword);
                case OperationMode.FOLLOWING -> following.latch(!halt && (followByHand ? tiedByHand : bit4 || inputs.active(Function.FOLLOW)));
                case OperationMode.CYCLIC_SYNCHRONOUS_VELOCITY -> cyclicVelocity.latch(halt);
                default -> { }
            }
        }
    }

    /** What runs is given up, and the axis comes to rest. */
    void reject() {
        if (mode() == OperationMode.PROFILE_POSITION) {
            profilePosition.reject();
        } else if (mode() == OperationMode.MOVE_LIST && !listByHand) {
            list.reject();
        }
    }

    /** Who makes the setpoint. */
    SetpointSource source(PowerState state) {
        if (state != PowerState.OPERATION_ENABLED) {
            return state.powered() ? stopping : held;
        }
        return switch (mode()) {
            case OperationMode.HOMING -> homing;
            case OperationMode.CYCLIC_SYNCHRONOUS_TORQUE -> cyclicTorque;
            case OperationMode.CYCLIC_SYNCHRONOUS_VELOCITY -> cyclicVelocity;
            case OperationMode.PROFILE_POSITION -> profilePosition;
            case OperationMode.PROFILE_VELOCITY -> profileVelocity;
            case OperationMode.MOVE_LIST -> list.homes() ? homing : list;
            case OperationMode.FOLLOWING -> following;
            default -> cyclicPosition;
        };
    }

    /** What is asked for lies within the software limits. */
    boolean insideSoftLimits() {
        return switch (mode()) {
            case OperationMode.PROFILE_POSITION -> profilePosition.insideSoftLimits();
            case OperationMode.PROFILE_VELOCITY -> profileVelocity.insideSoftLimits();
            case OperationMode.CYCLIC_SYNCHRONOUS_VELOCITY -> cyclicVelocity.insideSoftLimits();
            case OperationMode.FOLLOWING -> !following.refused();
            case OperationMode.MOVE_LIST -> list.error() != ListError.OUTSIDE_SOFT_LIMITS && list.error() != ListError.SOFT_LIMIT_MET;
            default -> cyclicPosition.insideSoftLimits();
        };
    }
}
