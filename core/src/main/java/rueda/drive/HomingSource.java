package rueda.drive;

import static rueda.drive.DriveObject.ERROR_CODE;
import static rueda.drive.DriveObject.HARD_STOP_TIME;
import static rueda.drive.DriveObject.HOME_OFFSET;
import static rueda.drive.DriveObject.HOMING_ACCELERATION;
import static rueda.drive.DriveObject.HOMING_CREEP_SPEED;
import static rueda.drive.DriveObject.HOMING_METHOD;
import static rueda.drive.DriveObject.HOMING_SEARCH_SPEED;
import static rueda.drive.DriveObject.HOMING_TIME_LIMIT;

import rueda.machine.Terminal.Function;

/**
 * Homing mode (IEC 61800-7-201): {@link HomingRun} says where to, this drives there on a ramp, watches time and hard stop, and takes the
 * zero when it is found. No allocation; not thread-safe.
 */
final class HomingSource implements SetpointSource {

    private final ObjectDictionary dictionary;
    private final Setpoint setpoint;
    private final Actual actual;
    private final Reference reference;
    private final DriveUnits units;
    private final PositionFeedback feedback;
    private final DigitalInputs inputs;
    private final CascadeControl control;
    private final RampedSetpoint ramped;
    private final HomingRun run;
    private boolean commandBefore;
    private int pressedSubSteps;
    private long searchedSubSteps;
    /** the axis is on its way to a hard stop */
    private boolean pressing;

    HomingSource(ObjectDictionary dictionary, Setpoint setpoint, Actual actual, Reference reference, DriveUnits units, PositionFeedback feedback, DigitalInputs inputs, CascadeControl control, RampedSetpoint ramped) {
        this.dictionary = dictionary;
        this.setpoint = setpoint;
        this.actual = actual;
        this.reference = reference;
        this.units = units;
        this.feedback = feedback;
        this.inputs = inputs;
        this.control = control;
        this.ramped = ramped;
        run = new HomingRun(feedback.countsPerTurn(), feedback.indexCount());
    }

    HomingRun run() {
        return run;
    }

    /** The torque is limited on the way to a hard stop. */
    boolean pressing() {
        return pressing;
    }

    /**
     * Once a bus cycle, in every mode: an edge of the command starts a search, and without operation in homing mode a search ends.
     *
     * @param command bit 4 of the controlword
     * @param leads   the drive is enabled in homing mode
     */
    void latch(boolean command, boolean leads) {
        if (leads) {
            if (command && !commandBefore) {
                start();
            } else if (command && run.state() == HomingRun.State.IDLE) {
                run.fail(HomingFailure.COMMAND_BIT_SET);
                dictionary.set(ERROR_CODE, HomingFailure.COMMAND_BIT_SET.code());
                ramped.takeOverAtRest();
            } else if (!command && commandBefore && run.state() == HomingRun.State.SEARCHING) {
                run.abort();
            }
        } else if (run.state() != HomingRun.State.IDLE) {
            run.abort();
        }
        commandBefore = command;
        pressing = run.seeksHardStop();
    }

    private void start() {
        reference.lose();
        dictionary.set(ERROR_CODE, 0);
        HomingMethod method = HomingMethod.of((int) dictionary.get(HOMING_METHOD));
        run.start(method, feedback.motorCounts(), inputs.active(Function.NEGATIVE_LIMIT), inputs.active(Function.POSITIVE_LIMIT), inputs.active(Function.REFERENCE_CAM));
        if (reference.endless() && method != null && method.needsEnds()) {
            run.fail(HomingFailure.NEEDS_ENDS);
        }
        searchedSubSteps = 0;
        pressedSubSteps = 0;
        ramped.takeOverAtRest();
        takeZeroWhenFound();
    }

    @Override
    public void step(int number) {
        ramped.lead();
        ramped.step(dictionary.get(run.creeps() ? HOMING_CREEP_SPEED : HOMING_SEARCH_SPEED), run.direction(), dictionary.get(HOMING_ACCELERATION));
        if (ramped.settled()) {
            run.standsStill();
        }
    }

    /** After a sub-step: looks at switches and index pulse. */
    void observe(long motorCounts) {
        run.observe(motorCounts, run.seeksHardStop() ? run.direction() : ramped.direction(), fasterThanCreep(), inputs.active(Function.NEGATIVE_LIMIT),
                inputs.active(Function.POSITIVE_LIMIT), inputs.active(Function.REFERENCE_CAM), pressedLongEnough());
        pressing = run.seeksHardStop();
        if (run.state() == HomingRun.State.SEARCHING && ++searchedSubSteps * units.subStep * 1000 > dictionary.get(HOMING_TIME_LIMIT)) {
            run.fail(HomingFailure.TIME_OUT);
        }
        if (run.state() == HomingRun.State.FAILED) {
            dictionary.set(ERROR_CODE, run.failure().code());
        }
        takeZeroWhenFound();
    }

    /** A little more than creep speed is the rounding of the ramp. */
    private boolean fasterThanCreep() {
        return Math.abs(ramped.countsPerSecond()) > 1.02 * dictionary.get(HOMING_CREEP_SPEED) * units.countsPerWireUnit;
    }

    /** Against a hard stop: the torque stands at its limit and nothing moves. The setpoint is taken back to where the axis is. */
    private boolean pressedLongEnough() {
        if (!run.seeksHardStop()) {
            return false;
        }
        boolean presses = control.limited() && Math.abs(actual.speed) < 2 * units.speedPerCount + 0.5;
        pressedSubSteps = presses ? pressedSubSteps + 1 : 0;
        if (pressedSubSteps * units.subStep * 1000 < dictionary.get(HARD_STOP_TIME) || pressedSubSteps == 0) {
            return false;
        }
        setpoint.position = actual.position;
        ramped.rest();
        control.reset();
        return true;
    }

    /** The search ends and the axis stands where it is, with torque. */
    void fail(HomingFailure reason) {
        run.fail(reason);
        dictionary.set(ERROR_CODE, reason.code());
        setpoint.position = actual.position;
        ramped.rest();
        control.reset();
    }

    private void takeZeroWhenFound() {
        if (run.zeroFound() && !reference.known()) {
            long loadAhead = actual.position - feedback.motorCounts();
            // IEC 61800-7-201, home offset: zero position = home position + home offset, so the axis stands at minus the offset where it was found.
            reference.take(-units.counts(dictionary.get(HOME_OFFSET)) - run.zeroCounts() - loadAhead);
        }
    }
}
