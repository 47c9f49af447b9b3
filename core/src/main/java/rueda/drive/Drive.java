package rueda.drive;

import static rueda.drive.DriveObject.*;

import rueda.bus.BusFamily;
import rueda.bus.BusFamily.DriveProfile;
import rueda.bus.ProcessDataLayout;
import rueda.machine.Axis;
import rueda.machine.Bus;
import rueda.machine.Homing;
import rueda.machine.Terminal.Function;
import rueda.plant.Mistakes;
import rueda.plant.ServoPlant;

/**
 * One servo drive: the order of its steps. At the sync it takes its process data, what the terminals ask for and the power state; in
 * every sub-step a {@link SetpointSource} makes the setpoint, monitors watch it, {@link CascadeControl} makes the torque and the plant
 * moves; at the end of the bus cycle a {@link StatusReport} tells what there is.
 *
 * <p>Positions are {@code long} counts. Warm stepping allocates nothing. Not thread-safe.
 */
public final class Drive {

    private final ServoPlant plant;
    private final ObjectDictionary dictionary = new ObjectDictionary();
    private final PowerStateMachine power = new PowerStateMachine();
    private final DriveUnits units;
    private final Setpoint setpoint = new Setpoint();
    private final Actual actual = new Actual();
    private final Reference reference;
    private final DigitalInputs digital;
    private final DigitalOutputs outputTerminals;
    private final TerminalOrders terminals;
    private final boolean brakeWired;
    private final PositionFeedback feedback;
    private final Arrival arrival;
    private final TouchProbes probes;
    private final HoldingBrake brake;
    private final CascadeControl control;
    private final RampedSetpoint ramped;
    private final SetpointChoice choice;
    private final Zones zones;
    /** the axis is commanded by nobody on the bus; null otherwise */
    private final LocalOrders local;
    private final ListByHand listByHand;
    private final FollowByHand followByHand;
    private boolean listensToBus;
    private final FollowingMonitor following;
    private final LimitSwitchMonitor limitSwitches;
    private final StatusReport report;
    private final Homing configuredHoming;
    private final ProcessDataLayout outputs;
    private final ProcessDataLayout inputs;
    private final CyclicExchange exchange;
    /** the same when a PROFIdrive telegram travels, else null */
    private final ProfiDriveExchange telegram;
    private final double ratedTorque;
    /** the most that 6072h may allow, N·m */
    private double highestTorque;
    private double torqueLimit;
    private boolean poweredBefore;
    private int cyclePlace;
    /** its parameters were written in part */
    private boolean incomplete;
    /** what a guard of the axis has decided: see {@link #guarded} */
    private boolean guardTorque = true;
    private boolean guardStops;
    private boolean guardBrake = true;
    /** the quick stop that is active was the guard's: it ends in operation, not in switching off */
    private boolean guardHeld;
    private long motorCountsBefore;
    private double torque;
    /** sum over the sub-steps of a bus cycle */
    private double torqueSum;
    private double volts;

    /**
     * @param axis             configuration
     * @param plant            what the motor moves
     * @param subStepNanos     length of a sub-step, ns
     * @param subStepsPerCycle sub-steps in one bus cycle
     */
    public Drive(Axis axis, ServoPlant plant, long subStepNanos, int subStepsPerCycle) {
        this(axis, plant, Mistakes.none(), subStepNanos, subStepsPerCycle);
    }

    /** @param mistakes what is wrong with the wiring between plant and terminals, looked at while it runs */
    public Drive(Axis axis, ServoPlant plant, Mistakes mistakes, long subStepNanos, int subStepsPerCycle) {
        this(new Bus((int) (subStepNanos * subStepsPerCycle / 1000)), axis, plant, mistakes, subStepNanos, subStepsPerCycle);
    }

    /** @param bus decides how process data travels */
    public Drive(Bus bus, Axis axis, ServoPlant plant, Mistakes mistakes, long subStepNanos, int subStepsPerCycle) {
        this.plant = plant;
        double subStep = subStepNanos * 1e-9;
        configuredHoming = axis.homing();
        ratedTorque = axis.motor().ratedTorque();
        ParameterWrites.positionFactors(dictionary, axis.scale());
        StartUp.byHand(dictionary, axis.station());
        units = new DriveUnits(axis, ParameterWrites.gear(dictionary, axis.gearBits()), subStep, subStepsPerCycle);
        reference = new Reference(axis, units);
        feedback = new PositionFeedback(axis, plant);
        outputTerminals = new DigitalOutputs(axis.wiring());
        digital = new DigitalInputs(axis.wiring(), plant, mistakes, subStep);
        terminals = new TerminalOrders(digital);
        brakeWired = axis.wiring().terminal(Function.BRAKE).isPresent();
        brake = new HoldingBrake(axis, subStep);
        control = new CascadeControl(axis, subStep);
        arrival = new Arrival(dictionary, subStep * subStepsPerCycle, units.countsPerWireUnit);
        probes = new TouchProbes(digital, dictionary);
        outputs = BusFamily.layout(bus, axis.station().outputs());
        inputs = BusFamily.layout(bus, axis.station().inputs());
        telegram = BusFamily.of(bus).profile() == DriveProfile.PROFIDRIVE
                ? new ProfiDriveExchange(dictionary, outputs, inputs, units.wirePerCount(), reference.modulo(), axis.motor().maxSpeed() * 2 * Math.PI / 60, units.wireSpeedPerRadian) : null;
        exchange = telegram != null ? telegram : new ObjectExchange(dictionary, outputs, inputs);
        ramped = new RampedSetpoint(setpoint, units);
        choice = new SetpointChoice(axis, dictionary, setpoint, actual, reference, units, feedback, digital, control, arrival, ramped, telegram, ratedTorque, plant.masterShaft());
        followByHand = new FollowByHand(choice);
        listByHand = new ListByHand(choice);
        zones = new Zones(axis, reference, units);
        local = axis.commandedBy() == Axis.Commander.DRIVE ? new LocalOrders(digital) : null;
        following = new FollowingMonitor(dictionary, setpoint, actual, units);
        limitSwitches = new LimitSwitchMonitor(dictionary, setpoint, units, digital);
        report = new StatusReport(dictionary, power, setpoint, actual, reference, units, feedback, digital, plant, control, arrival, ramped, choice, following, ratedTorque);
        take(axis);
        dictionary.set(QUICK_STOP_OPTION, 2);
        dictionary.set(MODE, OperationMode.CYCLIC_SYNCHRONOUS_POSITION);
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
        if (telegram != null) {
            telegram.take();
        }
        choice.list().take(axis);
        choice.following().take(axis);
        zones.take(axis);
    }

    /** Its parameters were written in part: it gives no torque until they are whole. */
    public void parametersIncomplete(boolean now) {
        incomplete = now;
    }

    /**
     * What the guard of the axis has decided, from the next sub-step on.
     *
     * @param torque  the motor may have torque
     * @param stops   the drive makes a quick stop and holds its place with torque (IEC 61800-7-201, quick stop option code 6) until this ends
     * @param brake   the brake may be open
     */
    public void guarded(boolean torque, boolean stops, boolean brake) {
        guardTorque = torque;
        guardStops = stops;
        guardBrake = brake;
    }

    /**
     * What the guard says on the bus.
     *
     * @param phase    number of its phase
     * @param function that leads, 1 for the first, 0 for none
     * @param breach   number of the first limit that was broken
     * @param requests that ask, a bit for each, 0 the first
     * @param inForce  functions in force, a bit for each, 0 the first
     */
    public void guardWords(int phase, int function, int breach, int requests, int inForce) {
        dictionary.set(GUARD_PHASE, phase);
        dictionary.set(GUARD_FUNCTION, function);
        dictionary.set(GUARD_BREACH, breach);
        dictionary.set(GUARD_REQUESTS, requests & 0xFFFF_FFFFL);
        dictionary.set(GUARD_IN_FORCE, inForce);
    }

    private void powerUp() {
        motorCountsBefore = feedback.motorCounts();
        actual.position = feedback.counts();
        setpoint.position = actual.position;
        choice.enter();
        takeEncoderReference();
        report.publish(energised(), volts);
    }

    /** An encoder that knows the position at power-up gives the reference: no search is needed. */
    private void takeEncoderReference() {
        if (feedback.broken()) {
            return;
        }
        boolean known = switch (configuredHoming.atPowerUp()) {
            case NOTHING -> false;
            case MOTOR_ENCODER -> feedback.motorKnows();
            case LOAD_ENCODER -> feedback.loadKnows();
        };
        if (known) {
            long reading = configuredHoming.atPowerUp() == Homing.AtPowerUp.MOTOR_ENCODER ? feedback.motorCounts() : feedback.loadAtMotor();
            reference.take(reading - actual.position + units.counts(Math.round(configuredHoming.encoderOffset() * units.wireUnitsPerUnit)));
        }
    }

    /**
     * One bus cycle: takes the output image at the sync, steps itself and its plant, gives the input image.
     *
     * @param outputs bytes from the PLC
     * @param inputs  takes the bytes to the PLC
     */
    public void cycle(byte[] outputs, byte[] inputs) {
        advance(outputs, inputs, units.subStepsPerCycle);
    }

    /**
     * The same for a drive whose clock is not that of the bus: it takes the output image where its own cycle begins, and gives the input image
     * where that ends.
     *
     * @param subSteps sub-steps by its clock in this bus cycle
     */
    public void advance(byte[] outputs, byte[] inputs, int subSteps) {
        for (int k = 0; k < subSteps; k++) {
            if (cyclePlace == 0) {
                sync(outputs);
            }
            subStep(cyclePlace);
            if (++cyclePlace == units.subStepsPerCycle) {
                cyclePlace = 0;
                sample(inputs);
            }
        }
    }

    /** Sub-steps of its own cycle that it has done: 0 where that ends with the bus cycle. */
    public int cyclePlace() {
        return cyclePlace;
    }

    /** Way to the target that it took last, user units: 0 where its cycle ends with the bus cycle. */
    public double toTarget() {
        return cyclePlace == 0 ? 0 : demandSpeed() * (units.subStepsPerCycle - cyclePlace) * units.subStep;
    }

    /** Latches the output image at the sync of a bus cycle. */
    private void sync(byte[] image) {
        exchange.latch(image);
        torqueSum = 0;
        boolean alone = local != null && !listensToBus;
        int controlword = terminals.with(alone ? local.controlword(power.state()) : (int) dictionary.get(CONTROLWORD), !guardTorque, guardStops);
        boolean rest = (ramped.leads() ? ramped.standsStill() : setpoint.speed == 0) && Math.abs(actual.speed) < 1.0;
        following.latch();
        torqueLimit = Math.min(highestTorque, dictionary.get(MAX_TORQUE) * 1e-3 * ratedTorque);
        DriveFault lasting = feedback.broken() ? DriveFault.LOAD_ENCODER : choice.following().broken() ? DriveFault.MASTER_ENCODER : incomplete ? DriveFault.PARAMETERS : null;
        DriveFault followed = choice.following().takeFault();
        if (followed != null && power.state() == PowerState.OPERATION_ENABLED) {
            fault(followed);
        }
        if (lasting != null && says(Function.READY)) {
            fault(lasting);
        }
        boolean released = guardHeld && (controlword & ControlWord.QUICK_STOP) != 0;
        power.update(brake.await(controlword, power.state()), rest, lasting != null, guardStops || released || dictionary.get(QUICK_STOP_OPTION) >= 5);
        guardHeld = power.state() == PowerState.QUICK_STOP_ACTIVE && (guardStops || released);
        brake.follow(power.state(), controlword);
        if (power.state() == PowerState.SWITCH_ON_DISABLED) {
            dictionary.set(ERROR_CODE, 0);
        }
        choice.change(alone ? aloneMode() : (int) dictionary.get(MODE));
        boolean powered = energised();
        if (powered && !poweredBefore) {
            takeActualAsSetpoint();
        }
        poweredBefore = powered;
        boolean enabled = power.state() == PowerState.OPERATION_ENABLED;
        choice.latch(controlword, enabled, dictionary);
        if (telegram != null && telegram.rejects()) {
            choice.reject();
        }
    }

    /** A drive that nobody commands follows while its input says so and until it stands again; else it runs its list. */
    private int aloneMode() {
        boolean follows = choice.following().fitted() && (digital.active(Function.FOLLOW) || choice.mode() == OperationMode.FOLLOWING && choice.following().moves());
        return follows ? OperationMode.FOLLOWING : OperationMode.MOVE_LIST;
    }

    /** Torque is on: the axis is powered, or holds the load while the brake moves. */
    private boolean energised() {
        return guardTorque && !digital.active(Function.SAFE_TORQUE_OFF) && (power.state().powered() || brake.needsTorque());
    }

    private void takeActualAsSetpoint() {
        setpoint.position = actual.position;
        setpoint.speed = 0;
        limitSwitches.enter();
        control.reset();
        ramped.release();
        choice.enter();
        choice.following().awaitEdge();
    }

    /**
     * One sub-step of setpoint, supervision, control and plant.
     *
     * @param number 0 to sub-steps per cycle − 1
     */
    private void subStep(int number) {
        PowerState state = power.state();
        choice.following().readMaster();
        if (brake.fitted() && brake.step(guardBrake)) {
            plant.mechanics().brake(!brakeLifted());
        }
        if (!energised()) {
            setpoint.position = actual.position;
            setpoint.speed = 0;
            control.off();
            torque = 0;
            following.reset();
        } else {
            choice.source(state).step(number);
            supervise();
            torque = torqueOf(state);
        }
        plant.step(torque);
        double given = plant.mechanics().torque();
        torqueSum += given;
        control.given(torque, given);
        digital.sample();
        long motorCounts = feedback.motorCounts();
        actual.position = feedback.counts();
        if (probes.wired()) {
            probes.observe(reference.wire(actual.position));
        }
        actual.speed = (motorCounts - motorCountsBefore) * units.speedPerCount;
        motorCountsBefore = motorCounts;
        if (state == PowerState.OPERATION_ENABLED && choice.searches()) {
            choice.homing().observe(motorCounts);
        }
        choice.list().observe();
        zones.observe(actual.position, actual.speed);
    }

    /** The state in words; where a bit that stands keeps the drive from leaving it, that too (transition 2 of IEC 61800-7-201 wants it off). */
    public String stateWords() {
        int word = (int) dictionary.get(CONTROLWORD);
        boolean waits = power.state() == PowerState.SWITCH_ON_DISABLED && ControlWord.asksToSwitchOn(word);
        return power.state().words() + (waits ? "; bit 0 of the control word must go off first" : "");
    }

    /** A brake opens with the level of its output, whoever made it; without an output nothing opens it. */
    public boolean brakeLifted() {
        return brakeWired && !brake.closedByOthers() && outputTerminals.level(Function.BRAKE, brake.open());
    }

    private void supervise() {
        if (power.state() != PowerState.OPERATION_ENABLED || choice.homing().pressing()) {
            return;
        }
        DriveFault tooFar = following.watch();
        if (tooFar != null && choice.homing().run().state() == HomingRun.State.SEARCHING && control.limited()) {
            choice.homing().fail(HomingFailure.TORQUE_LIMIT);
            following.reset();
        } else if (tooFar != null) {
            fault(tooFar);
        }
        DriveFault met = limitSwitches.watch(choice.searches() && choice.homing().run().state() != HomingRun.State.IDLE);
        if (met != null) {
            fault(met);
        }
    }

    private void fault(DriveFault fault) {
        power.fault();
        dictionary.set(ERROR_CODE, fault.code());
        setpoint.follow(actual);
        ramped.release();
    }

    private double torqueOf(PowerState state) {
        if (state == PowerState.OPERATION_ENABLED && choice.mode() == OperationMode.CYCLIC_SYNCHRONOUS_TORQUE) {
            return control.torque(choice.torqueWanted(), dictionary.get(MAX_MOTOR_SPEED) * 2 * Math.PI / 60, actual.speed, torqueLimit);
        }
        double limit = choice.homing().pressing() ? Math.min(torqueLimit, dictionary.get(HARD_STOP_TORQUE) * 1e-3 * ratedTorque) : torqueLimit;
        return control.position((setpoint.position - actual.position) * units.radiansPerCount, setpoint.speed, setpoint.acceleration, actual.speed, limit);
    }

    /** Puts the present values into the input image at the end of a bus cycle. */
    public void sample(byte[] image) {
        report.publish(energised(), volts);
        if (telegram != null) {
            telegram.actual(reference.user(actual.position), actual.speed);
        }
        exchange.sample(image);
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
        return reference.known();
    }

    /** Commanded position in user units. */
    public double demandPosition() {
        return reference.position(setpoint.position);
    }

    /** Commanded speed, user units/s. */
    public double demandSpeed() {
        return setpoint.speed * units.unitsPerRadian;
    }

    /** Actual position in user units. */
    public double position() {
        return reference.position(actual.position);
    }

    /** Commanded minus actual position, user units. */
    public double followingError() {
        return (setpoint.position - actual.position) * units.unitsPerCount;
    }

    /** Motor torque, mean over the last bus cycle, N·m. */
    public double meanTorque() {
        return torqueSum / units.subStepsPerCycle;
    }

    /** Motor torque, N·m. */
    public double torque() {
        return plant.mechanics().torque();
    }

    /** How many legs of the search came before the present one, or −1 when nothing is searched. */
    public int homingLeg() {
        return choice.homing().run().leg();
    }

    /** The plant's count at which the axis took its zero; meaningful once a search has found it. */
    public long zeroCounts() {
        return feedback.plantCounts(choice.homing().run().zeroCounts());
    }

    /** Why the last search failed. */
    public HomingFailure homingFailure() {
        return choice.homing().run().failure();
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
        return following.allowedCounts() * units.unitsPerCount;
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
            case REFERENCED -> reference.known();
            case IN_POSITION -> inPosition();
            case ZONE_1, ZONE_2, ZONE_3, ZONE_4, ZONE_5, ZONE_6, ZONE_7, ZONE_8 -> zones.on(function.zone());
            case LIST_1, LIST_2, LIST_3, LIST_4 -> (choice.list().outputs() >> function.listOutput() & 1) != 0;
            case MOVING -> Math.abs(setpoint.speed) > units.roundingSpeed;
            case FAULT -> power.state() == PowerState.FAULT || power.state() == PowerState.FAULT_REACTION_ACTIVE;
            case BRAKE -> brake.open();
            default -> false;
        };
    }

    /** Outputs of object 60FEh, bit 0 the first terminal; in the object they are the manufacturer's, from bit 16 on (IEC 61800-7-201). */
    int outputsOverBus() {
        return (int) (dictionary.get(DriveObject.DIGITAL_OUTPUTS) >> 16);
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

    /** The move list: what it does now. */
    public MoveListSource moveList() {
        return choice.list();
    }

    /** The position is in a zone of the list. @param zone 0 for the first */
    public boolean inZone(int zone) {
        return zones.on(zone);
    }

    /** From now on a drive that is commanded by nobody on the bus listens to the bus: a person has control, or all axes are to stop. */
    public void listenToBus() {
        listensToBus = true;
    }

    /** Following the encoder at the second input: how it does. */
    public FollowingSource following() {
        return choice.following();
    }

    /** Following as a person wants it. */
    public FollowByHand followByHand() {
        return followByHand;
    }

    /** The move list as a person runs it. */
    public ListByHand listByHand() {
        return listByHand;
    }

    /** Torque is on. */
    public boolean enabled() {
        return energised();
    }

    public ServoPlant plant() {
        return plant;
    }
}
