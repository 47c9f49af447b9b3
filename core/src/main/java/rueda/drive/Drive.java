package rueda.drive;

import static rueda.drive.DriveObject.*;

import java.util.Set;
import rueda.bus.BusFamily;
import rueda.bus.BusFamily.DriveProfile;
import rueda.bus.ProcessDataLayout;
import rueda.machine.Axis;
import rueda.machine.Bus;
import rueda.machine.Homing;
import rueda.machine.Supervision;
import rueda.machine.Terminal.Function;
import rueda.plant.ServoPlant;
import rueda.plant.Mistake;
import rueda.quantity.CountScaler;
import rueda.quantity.Modulo;
import rueda.quantity.Ratio;
import rueda.quantity.Scale;

/**
 * One servo drive: takes its process data at the sync, runs position, velocity and torque loops in sub-steps.
 *
 * <p>Setpoints of cyclic synchronous position are interpolated linearly between two syncs, so the axis follows one bus
 * cycle late; {@link CascadeControl} makes the torque.
 *
 * <p>Positions are {@code long} counts. Warm stepping allocates nothing. Not thread-safe.
 */
public final class Drive {

    public static final int MODE_HOMING = 6;
    public static final int MODE_CYCLIC_SYNCHRONOUS_POSITION = 8;
    public static final int MODE_CYCLIC_SYNCHRONOUS_TORQUE = 10;
    /** CiA 301/402 error code: following error. */
    public static final int ERROR_FOLLOWING = 0x8611;
    /** CiA 301/402 error code: reference limit, used when a limit switch is met in motion. */
    public static final int ERROR_LIMIT_SWITCH = 0x8612;
    /** CiA 402 error code: incremental sensor 2, used for a broken line of the encoder on the load (number from memory). */
    public static final int ERROR_LOAD_ENCODER = 0x7306;

    /** CiA 301/402 error code: parameter error, used for a parameter set that was written in part. */
    public static final int ERROR_PARAMETERS = 0x6320;

    /** Warning: the target was not reached within the tolerance time. */
    public static final int STATUS_WARNING = 1 << 7;
    public static final int STATUS_REFERENCED = 1 << 8;
    public static final int STATUS_REMOTE = 1 << 9;
    public static final int STATUS_TARGET_REACHED = 1 << 10;
    public static final int STATUS_INTERNAL_LIMIT = 1 << 11;
    public static final int STATUS_MODE_12 = 1 << 12;
    public static final int STATUS_MODE_13 = 1 << 13;

    /** The setpoint must have stood this long, s, before homing is reported complete: the axis is still arriving. */
    private static final double SETTLING = 0.1;
    /** The analogue input has 12 bits from −10 to 10 V. */
    private static final double VOLTS_PER_STEP = 20.0 / 4096;

    private final ServoPlant plant;
    private final ObjectDictionary dictionary = new ObjectDictionary();
    private final PowerStateMachine power = new PowerStateMachine();
    private final DigitalInputs digital;
    private final boolean brakeWired;
    private boolean resetInputBefore;
    private final PositionFeedback feedback;
    private final Arrival arrival;
    private final TouchProbes probes;
    private final Homing configuredHoming;
    private final double zoneFrom;
    private final double zoneTo;
    private final HomingRun homing;
    private final VelocityRamp ramp;
    private final ProcessDataLayout outputs;
    private final ProcessDataLayout inputs;
    private final CyclicExchange exchange;
    /** the same when a PROFIdrive telegram travels, else null */
    private final ProfiDriveExchange telegram;

    private final CountScaler countsPerWire;
    private final CountScaler wirePerCount;
    private final double countsPerWireUnit;
    private final double radiansPerCount;
    private final double unitsPerCount;
    private final double unitsPerRadian;
    private final double wireSpeedPerRadian;
    private final double subStep;
    private final int subStepsPerCycle;
    private final double subStepsPerMilli;
    /** 1 ÷ sub-steps per cycle: exact for a power of two, else the remainder may be one whole step, which is as good */
    private final double perSubStep;
    /** rad/s of one count in one bus cycle */
    private final double speedPerCycleCount;
    /** a setpoint that stands may jump by a rounding each bus cycle: no motion, rad/s */
    private final double roundingSpeed;
    /** rad/s² of one count more than in the bus cycle before */
    private final double accelerationPerCycleCount;
    /** tenths of a percent of rated torque per N·m */
    private final double shareOfRated;
    /** the most that 6072h may allow, N·m */
    private double highestTorque;
    private final CascadeControl control;
    /** rad/s of one count in one sub-step */
    private final double speedPerCount;

    private int mode = MODE_CYCLIC_SYNCHRONOUS_POSITION;
    private boolean poweredBefore;
    /** its parameters were written in part */
    private boolean incomplete;
    private boolean homingBitBefore;
    private boolean referenced;
    private boolean insideSoftLimits = true;
    private final boolean endless;
    /** wire units after which the position of an endless axis begins again, 0 with ends */
    private final long wireModulo;
    private final Modulo wrapped;
    /** target of the last sync, wire units */
    private long wireTarget;
    /** the same, counted on beyond the modulo */
    private long unwrappedTarget;
    private final double wireUnitsPerUnit;
    private final HoldingBrake brake;
    private final double ratedTorque;
    private double torqueLimit;
    private int pressedSubSteps;
    private long homingSubSteps;
    /** the axis is on its way to a hard stop */
    private boolean pressing;
    /** user counts = encoder counts + shift */
    private long shift;
    private long demand;
    private long cycleStart;
    private long cycleTarget;
    private double demandSpeed;
    private double demandAcceleration;
    private long countsBefore;
    private double speed;
    private double torque;
    /** sum over the sub-steps of a bus cycle */
    private double torqueSum;
    /** position the loop is closed over and count of the motor encoder after the last sub-step */
    private long measured;
    private double volts;
    private final DigitalOutputs outputTerminals;
    /** setpoint at which a limit switch came, or the one farthest out of it since */
    private long limitEnteredAt;
    private int followingOverSubSteps;
    private int restSubSteps;
    private long followingWindow;
    private long followingWindowWire;
    private double followingSubSteps;
    /** the ramp makes the setpoint, not the bus */
    private boolean rampLeads;
    private long interpolationStep;
    private long interpolationRemainder;
    private long interpolationCarry;

    /**
     * @param axis             configuration
     * @param plant            what the motor moves
     * @param subStepNanos     length of a sub-step, ns
     * @param subStepsPerCycle sub-steps in one bus cycle
     */
    public Drive(Axis axis, ServoPlant plant, long subStepNanos, int subStepsPerCycle) {
        this(axis, plant, Set.of(), subStepNanos, subStepsPerCycle);
    }

    /** @param faults what is wrong with the wiring between plant and terminals */
    public Drive(Axis axis, ServoPlant plant, Set<Mistake> faults, long subStepNanos, int subStepsPerCycle) {
        this(new Bus((int) (subStepNanos * subStepsPerCycle / 1000)), axis, plant, faults, subStepNanos, subStepsPerCycle);
    }

    /** @param bus decides how process data travels */
    public Drive(Bus bus, Axis axis, ServoPlant plant, Set<Mistake> faults, long subStepNanos, int subStepsPerCycle) {
        this.plant = plant;
        this.subStep = subStepNanos * 1e-9;
        feedback = new PositionFeedback(axis, plant);
        configuredHoming = axis.homing();
        zoneFrom = axis.wiring().zoneFrom();
        zoneTo = axis.wiring().zoneTo();
        outputTerminals = new DigitalOutputs(axis.wiring());
        digital = new DigitalInputs(axis.wiring(), plant, faults, subStep);
        brakeWired = axis.wiring().terminal(Function.BRAKE).isPresent();
        this.subStepsPerCycle = subStepsPerCycle;
        Scale scale = axis.scale();
        ParameterWrites.positionFactors(dictionary, scale);
        StartUp.byHand(dictionary, axis.station());
        Ratio gear = ParameterWrites.gear(dictionary, axis.gearBits());
        countsPerWire = new CountScaler(gear);
        wirePerCount = new CountScaler(gear.inverse());
        countsPerWireUnit = gear.toDouble();
        wireUnitsPerUnit = scale.wireUnitsPerUnit();
        unitsPerCount = 1 / (countsPerWireUnit * wireUnitsPerUnit);
        endless = axis.endless();
        wireModulo = axis.wireModulo();
        wrapped = new Modulo(Math.max(1, wireModulo));
        ratedTorque = axis.motor().ratedTorque();
        brake = new HoldingBrake(axis, subStep);
        control = new CascadeControl(axis, subStep);
        unitsPerRadian = unitsPerCount / (2 * Math.PI / axis.encoder().countsPerTurn());
        wireSpeedPerRadian = 1 / (2 * Math.PI / axis.encoder().countsPerTurn()) / countsPerWireUnit;
        radiansPerCount = 2 * Math.PI / axis.encoder().countsPerTurn();
        subStepsPerMilli = 1e-3 / subStep;
        perSubStep = 1.0 / subStepsPerCycle;
        double cycle = subStep * subStepsPerCycle;
        speedPerCycleCount = radiansPerCount / cycle;
        roundingSpeed = 2.5 * speedPerCycleCount * Math.max(1, countsPerWireUnit);
        accelerationPerCycleCount = radiansPerCount / (cycle * cycle);
        shareOfRated = 1000 / axis.motor().ratedTorque();
        speedPerCount = radiansPerCount / subStep;
        arrival = new Arrival(dictionary, cycle, countsPerWireUnit);
        homing = new HomingRun(feedback.countsPerTurn(), feedback.indexCount());
        ramp = new VelocityRamp(subStep);
        outputs = BusFamily.layout(bus, axis.station().outputs());
        inputs = BusFamily.layout(bus, axis.station().inputs());
        telegram = BusFamily.of(bus).profile() == DriveProfile.PROFIDRIVE
                ? new ProfiDriveExchange(dictionary, outputs, inputs, wirePerCount, endless ? wrapped : null, axis.motor().maxSpeed() * 2 * Math.PI / 60) : null;
        exchange = telegram != null ? telegram : new ObjectExchange(dictionary, outputs, inputs);
        probes = new TouchProbes(digital, dictionary);
        take(axis);
        dictionary.set(QUICK_STOP_OPTION, 2);
        dictionary.set(MODE, MODE_CYCLIC_SYNCHRONOUS_POSITION);
        powerUp();
    }

    /**
     * Takes the values that act at once, as the master writes them over the mailbox: gains, limits, supervision, homing,
     * times of the brake.
     *
     * @param axis its unit, encoder and train must be those of this drive
     */
    public void take(Axis axis) {
        control.take(axis);
        brake.take(axis.brake());
        highestTorque = axis.highestTorque();
        ParameterWrites.values(dictionary, axis);
    }

    /** Its parameters were written in part: it gives no torque until they are whole. */
    public void parametersIncomplete(boolean now) {
        incomplete = now;
    }

    private void powerUp() {
        countsBefore = feedback.motorCounts();
        measured = feedback.counts();
        demand = measured;
        cycleStart = demand;
        cycleTarget = demand;
        takeEncoderReference();
        publish();
    }

    /** An encoder that knows the position at power-up gives the reference: no search is needed. */
    private void takeEncoderReference() {
        if (feedback.broken()) {
            return;
        }
        long reading = switch (configuredHoming.atPowerUp()) {
            case NOTHING -> Long.MIN_VALUE;
            case MOTOR_ENCODER -> feedback.motorKnows() ? feedback.motorCounts() : Long.MIN_VALUE;
            case LOAD_ENCODER -> feedback.loadKnows() ? feedback.loadAtMotor() : Long.MIN_VALUE;
        };
        if (reading != Long.MIN_VALUE) {
            shift = reading - measured + countsPerWire.scale(Math.round(configuredHoming.encoderOffset() * wireUnitsPerUnit));
            referenced = true;
        }
    }

    /**
     * One bus cycle: takes the output image at the sync, steps itself and its plant, gives the input image.
     *
     * @param outputs bytes from the PLC
     * @param inputs  takes the bytes to the PLC
     */
    public void cycle(byte[] outputs, byte[] inputs) {
        sync(outputs);
        for (int k = 0; k < subStepsPerCycle; k++) {
            subStep(k);
        }
        sample(inputs);
    }

    /** Latches the output image at the sync of a bus cycle. */
    private void sync(byte[] image) {
        exchange.latch(image);
        torqueSum = 0;
        int controlword = ordered((int) dictionary.get(CONTROLWORD));
        boolean rest = (rampLeads ? ramp.standsStill() : demandSpeed == 0) && Math.abs(speed) < 1.0;
        long window = dictionary.get(FOLLOWING_WINDOW);
        if (window != followingWindowWire) {
            followingWindowWire = window;
            followingWindow = countsPerWire.scale(window);
        }
        followingSubSteps = dictionary.get(FOLLOWING_TIME) * subStepsPerMilli;
        torqueLimit = Math.min(highestTorque, dictionary.get(MAX_TORQUE) * 1e-3 * ratedTorque);
        if (feedback.broken() && power.state() != PowerState.FAULT && power.state() != PowerState.FAULT_REACTION_ACTIVE && power.state() != PowerState.NOT_READY_TO_SWITCH_ON) {
            fault(ERROR_LOAD_ENCODER);
        }
        if (incomplete && power.state() != PowerState.FAULT && power.state() != PowerState.FAULT_REACTION_ACTIVE && power.state() != PowerState.NOT_READY_TO_SWITCH_ON) {
            fault(ERROR_PARAMETERS);
        }
        power.update(brake.await(controlword, power.state()), rest, feedback.broken() || incomplete, dictionary.get(QUICK_STOP_OPTION) >= 5);
        brake.follow(power.state(), controlword);
        if (power.state() == PowerState.SWITCH_ON_DISABLED) {
            dictionary.set(ERROR_CODE, 0);
        }
        changeMode();
        boolean powered = energised();
        if (powered && !poweredBefore) {
            takeActualAsDemand();
        }
        poweredBefore = powered;
        startHoming(controlword);
        pressing = homing.seeksHardStop();
        if (power.state() == PowerState.OPERATION_ENABLED && mode == MODE_CYCLIC_SYNCHRONOUS_POSITION) {
            latchTarget();
        }
    }

    /** The controlword with what the terminals ask for: they can stop and reset, never start. */
    private int ordered(int controlword) {
        int word = controlword;
        if (digital.active(Function.SAFE_TORQUE_OFF)) {
            word &= ~0x02;
        }
        if (digital.active(Function.QUICK_STOP)) {
            word &= ~0x04;
        }
        if (digital.wired(Function.ENABLE) && !digital.high(Function.ENABLE)) {
            word &= ~0x08;
        }
        boolean reset = digital.active(Function.FAULT_RESET);
        if (reset && !resetInputBefore) {
            word |= 0x80;
        }
        resetInputBefore = reset;
        return word;
    }

    /** Torque is on: the axis is powered, or holds the load while the brake moves. */
    private boolean energised() {
        return !digital.active(Function.SAFE_TORQUE_OFF) && (power.state().powered() || brake.needsTorque());
    }

    private void changeMode() {
        int wanted = (int) dictionary.get(MODE);
        if (wanted != mode && (wanted == MODE_HOMING || wanted == MODE_CYCLIC_SYNCHRONOUS_POSITION || wanted == MODE_CYCLIC_SYNCHRONOUS_TORQUE)) {
            if (mode == MODE_CYCLIC_SYNCHRONOUS_TORQUE) {
                demand = measured;
                control.reset();
            }
            mode = wanted;
            homing.abort();
            rampLeads = false;
            cycleTarget = demand;
            cycleStart = demand;
            takeTargetFromDemand();
        }
    }

    private void takeActualAsDemand() {
        demand = measured;
        cycleTarget = demand;
        cycleStart = demand;
        limitEnteredAt = demand;
        demandSpeed = 0;
        control.reset();
        rampLeads = false;
        takeTargetFromDemand();
    }

    /** An endless axis counts its target on from here. */
    private void takeTargetFromDemand() {
        if (endless) {
            unwrappedTarget = wirePerCount.scale(demand + shift);
            wireTarget = wrapped.of(unwrappedTarget);
        }
    }

    private void startHoming(int controlword) {
        boolean bit = (controlword & 1 << 4) != 0;
        if (mode == MODE_HOMING && power.state() == PowerState.OPERATION_ENABLED) {
            if (bit && !homingBitBefore) {
                referenced = false;
                dictionary.set(ERROR_CODE, 0);
                HomingMethod method = HomingMethod.of((int) dictionary.get(HOMING_METHOD));
                homing.start(method, feedback.motorCounts(),
                        digital.active(Function.NEGATIVE_LIMIT), digital.active(Function.POSITIVE_LIMIT), digital.active(Function.REFERENCE_CAM));
                if (endless && method != null && method.needsEnds()) {
                    homing.fail(HomingFailure.NEEDS_ENDS);
                }
                homingSubSteps = 0;
                pressedSubSteps = 0;
                ramp.takeOver(demand, 0);
                rampLeads = true;
                takeZeroWhenFound();
            } else if (bit && homing.state() == HomingRun.State.IDLE) {
                homing.fail(HomingFailure.COMMAND_BIT_SET);
                dictionary.set(ERROR_CODE, HomingFailure.COMMAND_BIT_SET.code());
                ramp.takeOver(demand, 0);
                rampLeads = true;
            } else if (!bit && homingBitBefore && homing.state() == HomingRun.State.SEARCHING) {
                homing.abort();
            }
            homingBitBefore = bit;
        } else {
            if (homing.state() != HomingRun.State.IDLE) {
                homing.abort();
            }
            homingBitBefore = bit;
        }
    }

    private void latchTarget() {
        long target = dictionary.get(TARGET_POSITION);
        insideSoftLimits = true;
        if (referenced && !endless) {
            /* an axis that stands outside may come in at its own pace, and go no farther out */
            long here = wirePerCount.scale(demand + shift);
            long limited = Math.max(Math.min(dictionary.get(SOFT_LIMIT_MIN), here), Math.min(Math.max(dictionary.get(SOFT_LIMIT_MAX), here), target));
            insideSoftLimits = target >= dictionary.get(SOFT_LIMIT_MIN) && target <= dictionary.get(SOFT_LIMIT_MAX);
            target = limited;
        }
        long speedBefore = cycleTarget - cycleStart;
        cycleStart = demand;
        cycleTarget = countsPerWire.scale(endless ? unwrapped(target) : target) - shift;
        demandSpeed = (cycleTarget - cycleStart) * speedPerCycleCount;
        if (telegram != null && !Double.isNaN(telegram.gain())) {
            demandSpeed = telegram.speedSetpoint();
            control.fromPlc(telegram.gain());
        }
        demandAcceleration = (cycleTarget - cycleStart - speedBefore) * accelerationPerCycleCount;
    }

    /** The target of an endless axis counted on: it has gone the shorter way since the last sync. */
    private long unwrapped(long target) {
        long way = wrapped.of(target - wireTarget);
        unwrappedTarget += way > wireModulo / 2 ? way - wireModulo : way;
        wireTarget = target;
        return unwrappedTarget;
    }

    /** Position on the wire: begins again after the modulo; without one it is cut to 32 bits by the object. */
    private long wirePosition() {
        long wire = wirePerCount.scale(measured + shift);
        return endless ? wrapped.of(wire) : wire;
    }

    /**
     * One sub-step of setpoint, supervision, control and plant.
     *
     * @param number 0 to sub-steps per cycle − 1
     */
    private void subStep(int number) {
        PowerState state = power.state();
        if (brake.fitted() && brake.step()) {
            plant.mechanics().brake(!brakeLifted());
        }
        if (!energised()) {
            demand = measured;
            demandSpeed = 0;
            control.off();
            torque = 0;
            followingOverSubSteps = 0;
        } else {
            demandOf(state, number);
            supervise();
            torque = torqueOf(state);
        }
        plant.step(torque);
        double given = plant.mechanics().torque();
        torqueSum += given;
        control.given(torque, given);
        digital.sample();
        long counts = feedback.motorCounts();
        measured = feedback.counts();
        if (probes.wired()) {
            probes.observe(wirePosition());
        }
        speed = (counts - countsBefore) * speedPerCount;
        countsBefore = counts;
        if (mode == MODE_HOMING && state == PowerState.OPERATION_ENABLED) {
            search(counts);
        }
    }

    /** The search looks at switches and index pulse. */
    private void search(long counts) {
        homing.observe(counts, homing.seeksHardStop() ? homing.direction() : ramp.direction(), fasterThanCreep(), digital.active(Function.NEGATIVE_LIMIT),
                digital.active(Function.POSITIVE_LIMIT), digital.active(Function.REFERENCE_CAM), pressedLongEnough());
        pressing = homing.seeksHardStop();
        if (homing.state() == HomingRun.State.SEARCHING && ++homingSubSteps * subStep * 1000 > dictionary.get(HOMING_TIME_LIMIT)) {
            homing.fail(HomingFailure.TIME_OUT);
        }
        if (homing.state() == HomingRun.State.FAILED) {
            dictionary.set(ERROR_CODE, homing.failure().code());
        }
        takeZeroWhenFound();
    }

    /** A little more than creep speed is the rounding of the ramp. */
    private boolean fasterThanCreep() {
        return Math.abs(ramp.countsPerSecond()) > 1.02 * dictionary.get(HOMING_CREEP_SPEED) * countsPerWireUnit;
    }

    /** A brake opens with the level of its output, whoever made it; without an output nothing opens it. */
    public boolean brakeLifted() {
        return brakeWired && outputTerminals.level(Function.BRAKE, brake.open());
    }

    /** Against a hard stop: the torque stands at its limit and nothing moves. The setpoint is taken back to where the axis is. */
    private boolean pressedLongEnough() {
        if (!homing.seeksHardStop()) {
            return false;
        }
        boolean presses = control.limited() && Math.abs(speed) < 2 * speedPerCount + 0.5;
        pressedSubSteps = presses ? pressedSubSteps + 1 : 0;
        if (pressedSubSteps * subStep * 1000 < dictionary.get(HARD_STOP_TIME) || pressedSubSteps == 0) {
            return false;
        }
        demand = measured;
        ramp.takeOver(demand, 0);
        control.reset();
        return true;
    }

    private void demandOf(PowerState state, int number) {
        if (state == PowerState.OPERATION_ENABLED && mode == MODE_CYCLIC_SYNCHRONOUS_POSITION) {
            rampLeads = false;
            interpolate(number);
            return;
        }
        if (torqueLeads(state)) {
            demand = measured;
            demandSpeed = speed;
            demandAcceleration = 0;
            rampLeads = false;
            return;
        }
        if (!state.powered()) {
            demandSpeed = 0;
            demandAcceleration = 0;
            return;
        }
        if (!rampLeads) {
            rampLeads = true;
            ramp.takeOver(demand, demandSpeed / radiansPerCount);
        }
        long wanted = 0;
        double acceleration = dictionary.get(QUICK_STOP_DECELERATION);
        if (state == PowerState.OPERATION_ENABLED) {
            long wire = dictionary.get(homing.creeps() ? HOMING_CREEP_SPEED : HOMING_SEARCH_SPEED);
            wanted = homing.direction() * ramp.speedOf(wire * countsPerWireUnit);
            acceleration = dictionary.get(HOMING_ACCELERATION);
        }
        double speedBefore = demandSpeed;
        ramp.step(wanted, ramp.rateOf(acceleration * countsPerWireUnit));
        demand = ramp.position();
        demandSpeed = ramp.countsPerSecond() * radiansPerCount;
        demandAcceleration = (demandSpeed - speedBefore) / subStep;
        restSubSteps = ramp.standsStill() ? restSubSteps + 1 : 0;
        if (restSubSteps * subStep >= SETTLING) {
            homing.standsStill();
        }
    }

    private boolean torqueLeads(PowerState state) {
        return state == PowerState.OPERATION_ENABLED && mode == MODE_CYCLIC_SYNCHRONOUS_TORQUE;
    }

    /** Straight from the setpoint of one sync to the next, in whole counts; the last sub-step lands on the target. */
    private void interpolate(int number) {
        if (number == 0) {
            long way = cycleTarget - cycleStart;
            interpolationStep = (long) Math.floor(way * perSubStep);
            interpolationRemainder = way - interpolationStep * subStepsPerCycle;
            interpolationCarry = 0;
            demand = cycleStart;
        }
        demand += interpolationStep;
        interpolationCarry += interpolationRemainder;
        if (interpolationCarry >= subStepsPerCycle) {
            interpolationCarry -= subStepsPerCycle;
            demand++;
        }
    }

    private void takeZeroWhenFound() {
        if (homing.zeroFound() && !referenced) {
            long loadAhead = measured - feedback.motorCounts();
            // IEC 61800-7-201, home offset: zero position = home position + home offset, so the axis stands at minus the offset where it was found.
            shift = -countsPerWire.scale(dictionary.get(HOME_OFFSET)) - homing.zeroCounts() - loadAhead;
            referenced = true;
        }
    }

    private void supervise() {
        if (power.state() != PowerState.OPERATION_ENABLED || pressing) {
            return;
        }
        if (Math.abs(demand - measured) > followingWindow) {
            superviseFollowing();
        } else {
            followingOverSubSteps = 0;
        }
        if (digital.active(Function.NEGATIVE_LIMIT) || digital.active(Function.POSITIVE_LIMIT)) {
            superviseLimits();
        } else {
            limitEnteredAt = demand;
        }
    }

    private void superviseFollowing() {
        if (Math.abs(demand - measured) <= allowedFollowingCounts()) {
            followingOverSubSteps = 0;
        } else if (++followingOverSubSteps > followingSubSteps) {
            if (homing.state() == HomingRun.State.SEARCHING && control.limited()) {
                failSearch(HomingFailure.TORQUE_LIMIT);
            } else {
                fault(ERROR_FOLLOWING);
            }
        }
    }

    /** A limit switch is active: the setpoint must not go on into it. */
    private void superviseLimits() {
        if (mode == MODE_HOMING && homing.state() != HomingRun.State.IDLE) {
            limitEnteredAt = demand;
            return;
        }
        boolean positive = digital.active(Function.POSITIVE_LIMIT);
        boolean moving = digital.active(Function.NEGATIVE_LIMIT) && demandSpeed < -roundingSpeed || positive && demandSpeed > roundingSpeed;
        /* a load that settles by less than the position window has not been moved */
        long into = positive ? demand - limitEnteredAt : limitEnteredAt - demand;
        if (moving && into > dictionary.get(POSITION_WINDOW) * countsPerWireUnit) {
            fault(ERROR_LIMIT_SWITCH);
        } else if (into < 0) {
            limitEnteredAt = demand;
        }
    }

    /** Beyond the fixed window: it grows with the commanded speed. */
    private double allowedFollowingCounts() {
        if (dictionary.get(FOLLOWING_AT_SPEED) == dictionary.get(FOLLOWING_WINDOW)) {
            return followingWindow;
        }
        return countsPerWireUnit * Supervision.allowed(demandSpeed * wireSpeedPerRadian, dictionary.get(FOLLOWING_FROM_SPEED), dictionary.get(MAX_PROFILE_VELOCITY),
                dictionary.get(FOLLOWING_WINDOW), dictionary.get(FOLLOWING_AT_SPEED));
    }

    /** The search ends and the axis stands where it is, with torque. */
    private void failSearch(HomingFailure reason) {
        homing.fail(reason);
        dictionary.set(ERROR_CODE, reason.code());
        demand = measured;
        ramp.takeOver(demand, 0);
        control.reset();
        followingOverSubSteps = 0;
    }

    private void fault(int code) {
        power.fault();
        dictionary.set(ERROR_CODE, code);
        demand = measured;
        demandSpeed = speed;
        rampLeads = false;
    }

    private double torqueOf(PowerState state) {
        if (torqueLeads(state)) {
            return control.torque(wantedTorque(), dictionary.get(MAX_MOTOR_SPEED) * 2 * Math.PI / 60, speed, torqueLimit);
        }
        double limit = pressing ? Math.min(torqueLimit, dictionary.get(HARD_STOP_TORQUE) * 1e-3 * ratedTorque) : torqueLimit;
        return control.position((demand - measured) * radiansPerCount, demandSpeed, demandAcceleration, speed, limit);
    }

    /** The torque asked for, by 6071h or by the analogue input, N·m. */
    private double wantedTorque() {
        return (dictionary.get(TORQUE_SOURCE) == 1 ? dictionary.get(ANALOGUE_INPUT) * 1e-4 * dictionary.get(ANALOGUE_TORQUE) : dictionary.get(TARGET_TORQUE)) * 1e-3 * ratedTorque;
    }

    /** Puts the present values into the input image at the end of a bus cycle. */
    public void sample(byte[] image) {
        publish();
        if (telegram != null) {
            telegram.actual(measured + shift, speed);
        }
        exchange.sample(image);
    }

    private void publish() {
        dictionary.set(MODE_DISPLAY, mode);
        dictionary.set(POSITION_ACTUAL, wirePosition());
        dictionary.set(VELOCITY_ACTUAL, (long) Math.rint(speed * wireSpeedPerRadian));
        dictionary.set(TORQUE_ACTUAL, (long) Math.rint(plant.mechanics().torque() * shareOfRated));
        dictionary.set(FOLLOWING_ERROR_ACTUAL, wirePerCount.scale(demand - measured));
        arrival.observe(!rampLeads && demandSpeed == 0 && energised(), demand - measured, measured);
        dictionary.set(INPUT_FUNCTIONS, digital.functions());
        dictionary.set(ANALOGUE_INPUT, Math.round(Math.rint(volts / VOLTS_PER_STEP) * VOLTS_PER_STEP * 1000));
        dictionary.set(LOAD_POSITION, feedback.loadCounts());
        dictionary.set(DIGITAL_INPUTS, (digital.active(Function.NEGATIVE_LIMIT) ? 1 : 0) | (digital.active(Function.POSITIVE_LIMIT) ? 2 : 0)
                | (digital.active(Function.REFERENCE_CAM) ? 4 : 0) | digital.levels(true) << 16);
        dictionary.set(STATUSWORD, statusword());
    }

    private int statusword() {
        int word = power.state().pattern() | 1 << 4 | STATUS_REMOTE;
        if (referenced) {
            word |= STATUS_REFERENCED;
        }
        if (control.limited() || !insideSoftLimits) {
            word |= STATUS_INTERNAL_LIMIT;
        }
        if (mode == MODE_HOMING) {
            word |= switch (homing.state()) {
                case IDLE -> STATUS_TARGET_REACHED;
                case SEARCHING -> 0;
                case STOPPING -> STATUS_MODE_12;
                case DONE -> STATUS_MODE_12 | STATUS_TARGET_REACHED;
                case FAILED -> STATUS_MODE_13 | (ramp.standsStill() ? STATUS_TARGET_REACHED : 0);
            };
        } else {
            if (power.state() == PowerState.OPERATION_ENABLED && insideSoftLimits) {
                word |= STATUS_MODE_12;
            }
            if (power.state() == PowerState.OPERATION_ENABLED && arrival.inPosition()) {
                word |= STATUS_TARGET_REACHED;
            }
            if (power.state() == PowerState.OPERATION_ENABLED && arrival.late()) {
                word |= STATUS_WARNING;
            }
            if (followingOverSubSteps > 0) {
                word |= STATUS_MODE_13;
            }
        }
        return word;
    }

    /** Acyclic access, as over the mailbox. */
    public ObjectDictionary dictionary() {
        return dictionary;
    }

    public PowerState state() {
        return power.state();
    }

    public ProcessDataLayout outputs() {
        return outputs;
    }

    public ProcessDataLayout inputs() {
        return inputs;
    }

    public boolean referenced() {
        return referenced;
    }

    /** Commanded position in user units. */
    public double demandPosition() {
        return inRange((demand + shift) * unitsPerCount);
    }

    private double inRange(double position) {
        if (!endless) {
            return position;
        }
        double range = wireModulo / wireUnitsPerUnit;
        return position - Math.floor(position / range) * range;
    }

    /** Commanded speed, user units/s. */
    public double demandSpeed() {
        return demandSpeed * unitsPerRadian;
    }

    /** Actual position in user units. */
    public double position() {
        return inRange((measured + shift) * unitsPerCount);
    }

    /** Commanded minus actual position, user units. */
    public double followingError() {
        return (demand - measured) * unitsPerCount;
    }

    /** Motor torque, mean over the last bus cycle, N·m. */
    public double meanTorque() {
        return torqueSum / subStepsPerCycle;
    }

    /** Motor torque, N·m. */
    public double torque() {
        return plant.mechanics().torque();
    }

    /** How many legs of the search came before the present one, or −1 when nothing is searched. */
    public int homingLeg() {
        return homing.leg();
    }

    /** The plant's count at which the axis took its zero; meaningful once a search has found it. */
    public long zeroCounts() {
        return feedback.plantCounts(homing.zeroCounts());
    }

    /** Why the last search failed. */
    public HomingFailure homingFailure() {
        return homing.failure();
    }

    /** The holding brake is open, or on its way to be. */
    public boolean brakeOpen() {
        return brake.open();
    }

    public DigitalInputs digitalInputs() {
        return digital;
    }

    /** Inside the position window for its dwell, the setpoint standing. */
    public boolean inPosition() {
        return power.state() == PowerState.OPERATION_ENABLED && arrival.inPosition();
    }

    /** Inside the standstill window for its dwell. */
    public boolean standsStill() {
        return arrival.still();
    }

    /** Following error allowed at the present commanded speed, units. */
    public double allowedFollowingError() {
        return allowedFollowingCounts() * unitsPerCount;
    }

    /** The torque is held back by a limit, inside or from outside. */
    public boolean torqueLimited() {
        return control.limited();
    }

    /** A hand turns the knob at the analogue input. @param volts −10 to 10 */
    public void analogue(double volts) {
        this.volts = Math.max(-10, Math.min(10, volts));
    }

    /** What a function of an output says, whatever its terminal shows. */
    public boolean says(Function function) {
        return switch (function) {
            case READY -> power.state() != PowerState.FAULT && power.state() != PowerState.FAULT_REACTION_ACTIVE && power.state() != PowerState.NOT_READY_TO_SWITCH_ON;
            case REFERENCED -> referenced;
            case IN_POSITION -> inPosition();
            case IN_ZONE -> referenced && position() >= zoneFrom && position() <= zoneTo;
            case MOVING -> Math.abs(demandSpeed) > roundingSpeed;
            case FAULT -> power.state() == PowerState.FAULT || power.state() == PowerState.FAULT_REACTION_ACTIVE;
            case BRAKE -> brake.open();
            default -> false;
        };
    }

    /** Levels of the output terminals, bit 0 the first. */
    public int outputLevels() {
        return outputTerminals.levels(this);
    }

    public DigitalOutputs digitalOutputs() {
        return outputTerminals;
    }

    /** Inputs and outputs show again what they are. */
    public void releaseForces() {
        digital.releaseForces();
        outputTerminals.releaseForces();
    }

    /** Torque is on. */
    public boolean enabled() {
        return energised();
    }

    public ServoPlant plant() {
        return plant;
    }
}
