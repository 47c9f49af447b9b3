package rueda.plcopen;

import rueda.drive.ControlWord;
import rueda.drive.DriveObject;
import rueda.drive.OperationMode;
import rueda.drive.PowerState;
import rueda.drive.StatusWord;
import rueda.machine.Axis;
import rueda.machine.Dynamics;
import rueda.machine.FollowWatch.Event;
import rueda.machine.Limits;
import rueda.machine.Terminal.Function;
import rueda.plc.run.CallPlace;
import rueda.profile.MotionProfile;
import rueda.quantity.Ratio;
import rueda.quantity.Scale;

/**
 * The PLC's side of one axis: talks to the drive by controlword, statusword, mode and positions of the process data, and by mailbox for
 * what these do not carry; keeps the axis state, and lets a generator make the setpoint of each bus cycle.
 *
 * <p>Positions are user units; the setpoint leaves in wire units. No allocation in {@link #update}. Not
 * thread-safe.
 */
public final class MotionAxis {

    private final int number;
    private Axis configuration;
    private final Scale scale;
    /** of the scale, which works it out anew each time it is asked */
    private final double wirePerUnit;
    private final ProgramPlaces places;
    private final Mailbox mailbox;
    private final CommandLog log;
    private final double cycleSeconds;
    /** share of the speed that orders ask for, 0 to 1 */
    private double override = 1;
    private final RunningOrder order;
    private final WaitingOrder waiting = new WaitingOrder();
    private final ProbeWatch probes;
    /** inputs of the running block are taken again */
    private boolean updating;
    /** Execute of MC_Stop stands */
    private boolean stopHeld;
    private MotionCommand stopOwner;
    private final EndlessRange range;
    private final AxisSetpoint setpoint = new AxisSetpoint();
    private final ProfileGenerator profile;
    private final TorqueGenerator torque;
    private final GearGenerator gear;
    private final FollowOrders follow;
    private final MoveOrders moves;
    private final Superimposition added;
    private final CurveGenerator curve;
    private final TableOrders tables;
    /** the outputs of a bus cycle are being made: what is ordered now comes from the axis itself */
    private boolean making;
    private MasterValue commandedWay;
    private MasterValue actualWay;
    /** the same axis, its device begun anew */
    private MotionAxis successor;
    /** the drive answers, and its positions have the numbers they had a cycle ago */
    private boolean sameNumbers;
    /** bus cycle whose outputs are made, ns */
    private long updatedAt = -1;
    /** position that goes to the drive in this bus cycle, wire units */
    private long targetWire;
    /** makes the setpoint while the axis moves */
    private SetpointGenerator generator;
    /** what is asked of the drive by mailbox for the torque that is ordered is still on its way: the axis goes on with what it did */
    private boolean torqueWaits;
    private final MotionProfile stop = new MotionProfile();
    private final double[] sample = new double[3];
    /** position that came in, wire units */
    private long actualWire;
    /** places have other numbers than when it came in */
    private boolean numbersMoved;
    /** inputs are those of the bus cycle before */
    private boolean sameInputs;
    private final Standing standing = new Standing();

    private AxisState state = AxisState.DISABLED;
    private final StateChange change = new StateChange();
    private PowerState driveState = PowerState.NOT_READY_TO_SWITCH_ON;
    private int statusword;
    private int modeDisplay;
    private double actual;
    private boolean powerWanted;
    private boolean resetWanted;
    private boolean homingStarted;
    /** homing has found its zero and the axis travels there */
    private boolean toZero;
    private MotionError error = MotionError.NONE;
    /** the drive once knew where it was, before its device restarted */
    private boolean referencedOnce;
    private MotionCommand current;
    /** stands for an order whose block was given another one that was refused: what runs goes on without it */
    private final MotionCommand ownerless = new MotionCommand();
    private final MotionCommand byHand = new MotionCommand();
    /** the running motion ends at a target, and is done when the drive is in position */
    private boolean positioning;
    /** the drive makes its setpoint itself: the one of the PLC goes with the axis */
    private boolean aside;
    /** orders are taken: motion blocks command the axis, or a person does */
    private boolean commanded;
    /** 60FEh as the program wants it; the outputs are the manufacturer's, from bit 16 on (IEC 61800-7-201) */
    private static final long FIRST_OUTPUT = 1 << 16;
    private long outputs;
    private int controlword;
    private int mode = OperationMode.CYCLIC_SYNCHRONOUS_POSITION;

    /**
     * @param number     place of the axis in the machine
     * @param mailbox    reaches the objects of the drive that process data do not carry
     * @param cycleNanos bus cycle, ns
     */
    public MotionAxis(int number, Axis configuration, Mailbox mailbox, CommandLog log, long cycleNanos) {
        this.number = number;
        this.configuration = configuration;
        this.scale = configuration.scale();
        this.wirePerUnit = scale.wireUnitsPerUnit();
        this.places = new ProgramPlaces(configuration);
        this.mailbox = mailbox;
        this.log = log;
        this.cycleSeconds = cycleNanos * 1e-9;
        this.range = places.range();
        this.profile = new ProfileGenerator(setpoint, cycleSeconds);
        this.torque = new TorqueGenerator(setpoint, mailbox, cycleSeconds, range, configuration.motor().ratedTorque());
        this.gear = new GearGenerator(setpoint, cycleSeconds, wirePerUnit, configuration.wireModulo());
        this.follow = new FollowOrders(this, gear, places, wirePerUnit, configuration.following());
        this.added = new Superimposition(this, setpoint, places, cycleSeconds, wirePerUnit);
        this.commandedWay = new MasterValue(configuration.wireModulo());
        this.actualWay = new MasterValue(configuration.wireModulo());
        this.generator = profile;
        this.probes = new ProbeWatch(mailbox, places);
        this.order = new RunningOrder(profile, setpoint, places, configuration.endless());
        this.curve = new CurveGenerator(setpoint, cycleSeconds);
        this.tables = new TableOrders(this, curve, setpoint, places, configuration.endless());
        this.moves = new MoveOrders(this, order, waiting, profile, setpoint, places, configuration.endless());
        this.commanded = configuration.commandedBy() == Axis.Commander.MOTION_BLOCKS;
    }

    /** Takes the inputs of a bus cycle. @param wirePosition position actual value, wire units */
    public void read(int status, long wirePosition, int displayedMode) {
        sameNumbers = status != 0 && statusword != 0 && ((status ^ statusword) & StatusWord.REFERENCED) == 0 && state != AxisState.HOMING;
        actualWay.take(wirePosition, sameNumbers);
        statusword = status;
        driveState = PowerState.of(status);
        modeDisplay = displayedMode;
        referencedOnce |= referenced();
        actualWire = wirePosition;
        observe();
        sameInputs = false;
    }

    /** The inputs of a bus cycle are those of the one before, bit for bit. */
    public void readAgain() {
        sameNumbers = statusword != 0 && state != AxisState.HOMING;
        actualWay.stay();
        if (numbersMoved) {
            observe();
        } else {
            torque.observe(actual);
        }
        sameInputs = true;
    }

    private void observe() {
        actual = places.units(actualWire);
        numbersMoved = false;
        torque.observe(actual);
    }

    /** Makes the outputs of a bus cycle, after the program has run: once, when it is told to or a follower asks. @param now ns on the bench's clock */
    public void update(long now) {
        if (updatedAt == now) {
            return;
        }
        updatedAt = now;
        change.settle();
        if (standing.goesOn()) {
            return;
        }
        standing.before();
        making = true;
        added.takeOut();
        make(now);
        if (added.runs()) {
            add();
        }
        making = false;
        targetWire = places.wire(setpoint.position);
        commandedWay.take(targetWire, sameNumbers && state != AxisState.HOMING);
        standing.after();
    }

    /** What goes to the drive in this bus cycle is what went in the one before. */
    public boolean stands() {
        return standing.skipped;
    }

    /**
     * Finds that an axis without an order stands: the outputs of a bus cycle came out as those before, from the same inputs. As long as inputs and all that a cycle of such an axis depends on stay as
     * they are, the next ones come out the same, and need not be made.
     */
    private final class Standing {
        private boolean found;
        private boolean skipped;
        private AxisState in;
        private boolean power;
        private boolean besides;
        private double here;
        private double position;
        private double velocity;
        private double acceleration;
        private long wire;
        private int word;
        private int modeThen;
        private int probeFunction;

        private void before() {
            in = state;
            power = powerWanted;
            besides = aside;
            here = actual;
            position = setpoint.position;
            velocity = setpoint.velocity;
            acceleration = setpoint.acceleration;
            wire = targetWire;
            word = controlword;
            modeThen = mode;
            probeFunction = probes.function();
        }

        private void after() {
            found = (in == AxisState.DISABLED || in == AxisState.STANDSTILL || in == AxisState.ERROR_STOP) && sameInputs && wire == targetWire && word == controlword && commandedWay.step() == 0 && unchanged();
        }

        private boolean goesOn() {
            skipped = found && sameInputs && unchanged();
            return skipped;
        }

        /* the numbers of places change with the setpoint's */
        private boolean unchanged() {
            return in == state && power == powerWanted && !resetWanted && besides == aside && !waiting.stands() && !added.runs() && probes.idle() && modeThen == mode && probeFunction == probes.function()
                    && here == actual && position == setpoint.position && velocity == setpoint.velocity && acceleration == setpoint.acceleration;
        }
    }

    private void make(long now) {
        followPower();
        probes.step();
        if (state == AxisState.STANDSTILL && waiting.stands()) {
            moves.beginWaiting(now);
        }
        switch (state) {
            case HOMING -> home(now);
            case DISCRETE_MOTION, STOPPING, CONTINUOUS_MOTION -> advance(now);
            case SYNCHRONIZED_MOTION -> followMaster(now);
            case STANDSTILL -> {
                if (aside) {
                    setpoint.standAt(actual);
                } else {
                    setpoint.stand();
                }
            }
            default -> setpoint.standAt(actual);
        }
    }

    /** What is added to the running motion moves all its places; both together stay within the soft limits. */
    private void add() {
        boolean moves = state == AxisState.DISCRETE_MOTION || state == AxisState.CONTINUOUS_MOTION || state == AxisState.SYNCHRONIZED_MOTION;
        if (!moves) {
            endAddition(MotionCommand.Status.ABORTED, MotionError.NONE);
            return;
        }
        double by = added.step();
        setpoint.position += by;
        profile.shift(by);
        curve.shift(by);
        if (gearLeads()) {
            gear.shift(by);
        }
        order.renumbered(by);
        if (added.ended()) {
            added.end(MotionCommand.Status.DONE, MotionCommand.Status.DONE, MotionError.NONE);
            if (order.toSoftLimit) {
                /* the limit has not moved along */
                order.target = order.speed < 0 ? places.limits().softMin() : places.limits().softMax();
                order.planVelocity(override);
            }
            return;
        }
        added.putIn();
        if (nearsSoftLimit()) {
            brakeHard(MotionError.PAST_SOFT_LIMIT);
        }
    }

    private void endAddition(MotionCommand.Status how, MotionError reason) {
        added.end(how, how, reason);
    }

    private void followPower() {
        boolean faulty = driveState == PowerState.FAULT || driveState == PowerState.FAULT_REACTION_ACTIVE;
        if (faulty && state != AxisState.ERROR_STOP) {
            enterError(MotionError.DRIVE_FAULT);
        }
        boolean enabled = driveState == PowerState.OPERATION_ENABLED;
        if (!faulty && !enabled && state != AxisState.DISABLED && state != AxisState.ERROR_STOP) {
            abort(MotionCommand.Status.ABORTED);
            waiting.drop(MotionCommand.Status.ABORTED, MotionError.NONE);
            endFollowing();
            endAddition(MotionCommand.Status.ABORTED, MotionError.NONE);
            enter(AxisState.DISABLED);
        }
        if (enabled && state == AxisState.DISABLED) {
            enter(AxisState.STANDSTILL);
            setpoint.standAt(actual);
            if (configuration.homing().onFirstEnable() && !referenced()) {
                renumbered(places.asTheDrive(configuration.limits()));
                homingStarted = false;
                toZero = false;
                enter(AxisState.HOMING);
            }
        }
        controlword = faulty ? resetWanted && driveState == PowerState.FAULT ? ControlWord.FAULT_RESET : 0
                : !powerWanted ? ControlWord.SHUTDOWN
                : switch (driveState) {
                    case READY_TO_SWITCH_ON -> ControlWord.SWITCHED_ON;
                    /* out of a quick stop that holds its place it goes on with torque (transition 16); one that ends by itself switches off */
                    case SWITCHED_ON, OPERATION_ENABLED, QUICK_STOP_ACTIVE -> ControlWord.OPERATION_ENABLED;
                    default -> ControlWord.SHUTDOWN;
                };
        if (!faulty && resetWanted) {
            resetWanted = false;
            error = MotionError.NONE;
            if (state == AxisState.ERROR_STOP) {
                enter(enabled ? AxisState.STANDSTILL : AxisState.DISABLED);
                setpoint.standAt(actual);
            }
        }
    }

    private void enter(AxisState next) {
        change.change(state, next, updatedAt, false);
        state = next;
    }

    private void enterError(MotionError reason) {
        error = reason;
        if (current != null) {
            current.fail(reason);
            current = null;
        }
        waiting.drop(MotionCommand.Status.FAILED, reason);
        endTorqueAndTable();
        endFollowing();
        endAddition(MotionCommand.Status.FAILED, reason);
        mode = OperationMode.CYCLIC_SYNCHRONOUS_POSITION;
        enter(AxisState.ERROR_STOP);
    }

    private boolean torqueLeads() {
        return generator == torque;
    }

    /** Torque is made, or is about to be. */
    boolean makesTorque() {
        return torqueLeads() || torqueWaits;
    }

    /** A table over time leads it. */
    boolean curveLeads() {
        return generator == curve;
    }

    /** It has come to the end of its table, and goes on at the speed that it had there. */
    boolean curveEnded() {
        return curveLeads() && curve.ended();
    }

    private void endTorqueAndTable() {
        if (curveLeads()) {
            generator = profile;
        }
        if (torqueLeads()) {
            generator = profile;
            mode = OperationMode.CYCLIC_SYNCHRONOUS_POSITION;
        }
        torqueWaits = false;
    }

    boolean gearLeads() {
        return generator == gear;
    }

    private void endFollowing() {
        if (gearLeads()) {
            generator = profile;
            follow.dropPhasing(MotionCommand.Status.ABORTED);
        }
    }

    /** In the same bus cycle as its masters, which make their setpoints first. */
    private void followMaster(long now) {
        gear.master().update(now);
        if (gear.second() != null) {
            gear.second().update(now);
        }
        gear.step();
        follow.observe();
        MotionError met = gear.cannotMeet() ? MotionError.CANNOT_MEET : nearsSoftLimit() ? MotionError.PAST_SOFT_LIMIT : MotionError.NONE;
        if (met != MotionError.NONE) {
            brakeHard(met);
        } else if (gear.reactsTo() != null) {
            answer(gear.reactsTo(), now);
        } else if (waiting.stands() && gear.inGear()) {
            moves.beginWaiting(now);
        }
    }

    /** What the document says that it does when something it watches has come about. */
    private void answer(Event event, long now) {
        MotionError reason = event == Event.PHASE_LEFT ? MotionError.PHASE_LEFT : MotionError.MASTER_TOO_FAST;
        switch (gear.reaction(event)) {
            case WARN -> { }
            case QUICK_STOP -> brakeHard(reason);
            case RAMP -> {
                giveUp(reason);
                halt(ownerless, configuration.following().decelerationOr(configuration.limits()), 0, "", CallPlace.NONE, now);
            }
            case HOLD_SPEED -> {
                giveUp(reason);
                runOn("", CallPlace.NONE, now);
            }
        }
    }

    private void giveUp(MotionError reason) {
        endAddition(MotionCommand.Status.FAILED, reason);
        failRunning(reason);
        waiting.drop(MotionCommand.Status.FAILED, reason);
    }

    /** What runs fails, and the axis brakes as hard as it can. */
    private void brakeHard(MotionError met) {
        giveUp(met);
        Dynamics max = configuration.limits().max();
        if (configuration.endless()) {
            profile.run(0, max.deceleration(), 0);
        } else {
            profile.haltInside(places.limits(), places.halfWireUnit(), max.deceleration(), 0);
        }
        endTorqueAndTable();
        endFollowing();
        order.none();
        positioning = false;
        enter(AxisState.DISCRETE_MOTION);
    }

    /** If it braked as hard as it can from the next cycle on, it would just come to rest within its soft limits: v²/(2a) + v·T. */
    private boolean nearsSoftLimit() {
        if (configuration.endless() || !referenced() || setpoint.velocity == 0) {
            return false;
        }
        double way = setpoint.velocity * Math.abs(setpoint.velocity) / (2 * configuration.limits().max().deceleration()) + setpoint.velocity * cycleSeconds;
        double rest = setpoint.position + way;
        return way > 0 ? rest > places.limits().softMax() + places.halfWireUnit() : rest < places.limits().softMin() - places.halfWireUnit();
    }

    private void abort(MotionCommand.Status how) {
        endTorqueAndTable();
        if (current != null) {
            current.status = how;
            current = null;
        }
    }

    private void advance(long now) {
        if (torqueWaits && mailbox.written()) {
            torqueWaits = false;
            torque.enter();
            generator = torque;
        }
        generator.step();
        if (torqueLeads()) {
            mode = OperationMode.CYCLIC_SYNCHRONOUS_TORQUE;
            mailbox.write(DriveObject.TARGET_TORQUE, targetTorque());
        }
        if (state == AxisState.STOPPING) {
            stopping();
            return;
        }
        if (curveLeads() && state == AxisState.CONTINUOUS_MOTION && nearsSoftLimit()) {
            brakeHard(MotionError.PAST_SOFT_LIMIT);
            return;
        }
        if (order.toSoftLimit && generator.ended() && state == AxisState.CONTINUOUS_MOTION && override > 0 && !added.runs()) {
            enter(AxisState.STANDSTILL);
            order.toSoftLimit = false;
            failRunning(MotionError.PAST_SOFT_LIMIT);
            return;
        }
        if (state == AxisState.CONTINUOUS_MOTION && waiting.stands() && inVelocity()) {
            moves.beginWaiting(now);
            return;
        }
        boolean planned = generator.ended() && state != AxisState.CONTINUOUS_MOTION && (override > 0 || !positioning || curveLeads());
        if (planned && order.runsOn()) {
            runBeyondTarget();
            return;
        }
        if (planned && order.passes()) {
            passOn(now);
            return;
        }
        if (planned && !added.runs() && (!positioning || (statusword & StatusWord.TARGET_REACHED) != 0)) {
            enter(AxisState.STANDSTILL);
            setpoint.position = range.shown(setpoint.position);
            abort(MotionCommand.Status.DONE);
        }
    }

    /** The target of the running move is reached, and the order goes on at the speed that it was given for behind it. */
    private void runBeyondTarget() {
        double since = profile.toItsEnd();
        order.beyondTarget(!configuration.endless() && referenced(), override);
        positioning = false;
        enter(AxisState.CONTINUOUS_MOTION);
        profile.catchUp(since);
    }

    /** The target of the running move is passed: it is done, and the waiting one begins there, not where this bus cycle ends. */
    private void passOn(long now) {
        double since = profile.toItsEnd();
        order.none();
        abort(MotionCommand.Status.DONE);
        moves.beginWaiting(now);
        profile.catchUp(since);
    }

    /** Inputs of a block that runs are taken again: what waits behind it goes on waiting. */
    void beginUpdate() {
        updating = true;
        added.takeOut();
    }

    void endUpdate() {
        updating = false;
        added.putIn();
        blend();
    }

    /** The target of the running move is passed as the waiting order says. */
    void blend() {
        if (waiting.stands() && state == AxisState.DISCRETE_MOTION && aims()) {
            added.takeOut();
            order.passInto(waiting, override);
            lendAgain();
        }
    }

    /** The running motion has a target. */
    boolean aims() {
        return positioning && order.aims();
    }

    /** MC_Stop is done when the axis stands, and lets go of it when its Execute has gone. */
    private void stopping() {
        if (!generator.ended()) {
            return;
        }
        setpoint.position = range.shown(setpoint.position);
        setpoint.stand();
        if (current != null) {
            current.status = MotionCommand.Status.DONE;
            current = null;
        }
        if (!stopHeld) {
            enter(AxisState.STANDSTILL);
        }
    }

    private void failRunning(MotionError reason) {
        if (current != null) {
            current.fail(reason);
            current = null;
        }
    }

    private void home(long now) {
        if (toZero) {
            advance(now);
            return;
        }
        setpoint.standAt(actual);
        if (!mailbox.written()) {
            return;
        }
        mode = OperationMode.HOMING;
        if (modeDisplay != OperationMode.HOMING) {
            return;
        }
        controlword |= ControlWord.HOMING_START;
        boolean failed = (statusword & StatusWord.MODE_13) != 0;
        boolean attained = (statusword & StatusWord.MODE_12) != 0;
        boolean stands = (statusword & StatusWord.TARGET_REACHED) != 0;
        if (!homingStarted) {
            homingStarted = true;
        } else if (failed && stands) {
            mode = OperationMode.CYCLIC_SYNCHRONOUS_POSITION;
            error = MotionError.HOMING_FAILED;
            if (current != null) {
                current.fail(error);
                current = null;
            }
            enter(AxisState.ERROR_STOP);
        } else if (attained && stands) {
            mode = OperationMode.CYCLIC_SYNCHRONOUS_POSITION;
            controlword &= ~ControlWord.HOMING_START;
            finishHoming();
        }
    }

    private void finishHoming() {
        if (!configuration.homing().thenToZero()) {
            enter(AxisState.STANDSTILL);
            abort(MotionCommand.Status.DONE);
            return;
        }
        double acceleration = configuration.homing().acceleration();
        order.none();
        profile.move(moves.reach(0, Direction.SHORTEST, 1, 0), configuration.homing().searchSpeed(), acceleration, acceleration, configuration.limits().normal().jerk());
        positioning = true;
        toZero = true;
    }

    /* ---- orders of the function blocks ---- */

    void power(boolean wanted) {
        powerWanted = wanted && commanded;
    }

    void reset() {
        resetWanted = true;
    }

    /** A person takes or gives up the power of an axis without a drive. */
    public void enableByHand(boolean on) {
        commanded = true;
        power(on);
    }

    /** A person has it run at a speed, or come to rest with 0. @return why not, or null */
    public String runByHand(double speed, double acceleration, double jerkLimit, long now) {
        if (state != AxisState.STANDSTILL && state != AxisState.CONTINUOUS_MOTION && state != AxisState.DISCRETE_MOTION) {
            return "The virtual master is " + state.words() + ". Enable it first.";
        }
        if (speed == 0) {
            halt(byHand, acceleration, jerkLimit, "by hand", CallPlace.NONE, now);
        } else {
            moves.jog(byHand, speed, acceleration, jerkLimit, "by hand", now);
        }
        return null;
    }

    /** A person commands the axis, whoever did before. */
    public void takeByHand() {
        commanded = true;
        renumbered(places.asTheDrive(configuration.limits()));
    }

    /** The drive makes its setpoint itself, or gives it back: the axis goes on from where it is. */
    void stepAside(boolean now) {
        aside = now;
        setpoint.standAt(actual);
    }

    boolean resetPending() {
        return resetWanted;
    }

    void home(MotionCommand command, double homePosition, String block, CallPlace call, long now) {
        if (closed() != MotionError.NONE || state != AxisState.STANDSTILL) {
            refuse(command, closed() != MotionError.NONE ? closed() : MotionError.NOT_IN_THIS_STATE, block, call, now, Double.NaN);
            return;
        }
        boolean placed = !Double.isNaN(homePosition);
        if (placed && !places.fits(homePosition)) {
            refuse(command, MotionError.BAD_VALUE, block, call, now, homePosition);
            return;
        }
        if (placed) {
            mailbox.write(DriveObject.HOME_OFFSET, -scale.wireFromUnits(homePosition));
        }
        homingStarted = false;
        toZero = false;
        renumbered(places.asTheDrive(configuration.limits()));
        accept(command, AxisState.HOMING);
        log(now, call, CommandLog.Kind.HOME, block, homePosition, 0, 0, 0, 0, 0);
    }

    /** Why the axis takes no order at all. */
    MotionError closed() {
        return !commanded ? MotionError.NOT_COMMANDED : state == AxisState.DISABLED ? MotionError.NOT_ENABLED : MotionError.NONE;
    }

    /* ---- following ---- */

    /** Why it can follow nothing and be led along no table now. */
    MotionError cannotMove() {
        boolean unfit = state == AxisState.HOMING || state == AxisState.STOPPING || state == AxisState.ERROR_STOP;
        return closed() != MotionError.NONE ? closed() : unfit ? MotionError.NOT_IN_THIS_STATE : MotionError.NONE;
    }

    /** It follows from now on, or an order to do so is refused. */
    void followFrom(MotionCommand command, MotionError refusal, Ratio ratio, String block, CallPlace call, long now) {
        if (refusal != MotionError.NONE) {
            refuse(command, refusal, block, call, now, ratio == null ? Double.NaN : ratio.toDouble());
            return;
        }
        accept(command, AxisState.SYNCHRONIZED_MOTION);
        order.none();
        generator = gear;
        log(now, call, CommandLog.Kind.FOLLOW, block, ratio == null ? Double.NaN : ratio.toDouble(), 0, 0, 0, 0, 0);
    }

    /** Lets go of the master, and runs on at the speed it has. */
    void runOn(String block, CallPlace call, long now) {
        Dynamics max = configuration.limits().max();
        double v = setpoint.velocity;
        order.take(v < 0 ? places.limits().softMin() : places.limits().softMax(), v, max.acceleration(), max.deceleration(), 0);
        order.toSoftLimit = v != 0 && !configuration.endless() && referenced();
        order.planVelocity(1);
        override = 1;
        accept(ownerless, AxisState.CONTINUOUS_MOTION);
        log(now, call, CommandLog.Kind.MOVE, block, Double.NaN, v, max.acceleration(), max.deceleration(), 0, profile.duration());
    }

    /** The drive's inputs that ask for a trim: −1, 1, or 0 for none or both. */
    int trimInputs() {
        int functions = (int) mailbox.read(DriveObject.INPUT_FUNCTIONS);
        return (functions >> Function.TRIM_FORWARD.bit() & 1) - (functions >> Function.TRIM_BACK.bit() & 1);
    }

    /** Number of the axis that it follows and has been locked to since it was tied, −1 for none. */
    public int lockedTo() {
        return gearLeads() && gear.lockedOnce() ? gear.master().number : -1;
    }

    /** Setpoint minus the place that the master gives it, user units. */
    public double lockDeviation() {
        return gear.lock().deviation() / wirePerUnit;
    }

    /** User units of this axis for one of its master. */
    public double followRatio() {
        return gear.ratio() * gear.master().wireUnitsPerUnit() / wirePerUnit;
    }

    /** How it follows now. */
    public FollowState followState() {
        return gearLeads() ? gear.state(gear.master().number) : FollowState.NOT;
    }

    MoveOrders moves() {
        return moves;
    }

    TableOrders tables() {
        return tables;
    }

    /** A table over time leads it from now on, until something else is ordered or it is through. */
    void leadAlong(MotionCommand command, AxisState next) {
        accept(command, next);
        order.none();
        generator = curve;
    }

    FollowOrders following() {
        return follow;
    }

    /** The PLC's side of this axis since its device began last. */
    MotionAxis present() {
        return successor == null ? this : successor.present();
    }

    /** This axis, or one that it follows, is the other one. */
    boolean followsIndirectly(MotionAxis other) {
        return this == other || gearLeads() && (follow.master().followsIndirectly(other) || gear.second() != null && gear.second().followsIndirectly(other));
    }

    /** How far it has gone since it was switched on. @param actual by its actual position, else by its setpoint */
    MasterValue masterValue(boolean actual) {
        return actual ? actualWay : commandedWay;
    }

    /** Its speed, wire units/s. */
    double wireSpeed(boolean actual) {
        return actual ? actualWay.step() / cycleSeconds : setpoint.velocity * wirePerUnit;
    }

    double wireUnitsPerUnit() {
        return wirePerUnit;
    }

    /** The way to a place in one direction, wire units. @param units place in its own units  @param sign 1 forward, −1 back */
    long wireWayTo(double units, int sign, boolean actual) {
        return masterValue(actual).wayTo(places.wire(units), sign);
    }

    /** The commanded speed is the one that was ordered. */
    boolean inVelocity() {
        return curveLeads() ? curve.ended() : state == AxisState.CONTINUOUS_MOTION && !torqueLeads() && Math.abs(setpoint.velocity - order.speed * override) <= 1e-6 * Math.max(1, Math.abs(order.speed));
    }

    double override() {
        return override;
    }

    void fullOverride() {
        override = 1;
    }

    /** The running motion is that of this order. */
    boolean runs(MotionCommand command) {
        return current == command;
    }

    /** Stands for an order that no block has. */
    MotionCommand ownerless() {
        return ownerless;
    }

    /** Another share of the ordered speeds, for what runs too. @param factor 0 to 1 */
    void override(double factor) {
        if (factor == override) {
            return;
        }
        override = factor;
        if (torqueLeads() || curveLeads() || current == null || current == ownerless) {
            return;
        }
        added.takeOut();
        if (state == AxisState.DISCRETE_MOTION && aims()) {
            order.planMove(override);
        } else if (state == AxisState.CONTINUOUS_MOTION) {
            order.planVelocity(override);
        }
        lendAgain();
    }

    /** Between the cycles the setpoint is that of the running motion and of what is added. */
    private void lendAgain() {
        if (!making && !updating) {
            added.putIn();
        }
    }

    /* ---- what is added to a running motion ---- */

    Superimposition superimposed() {
        return added;
    }

    /** Why nothing can be added now. */
    MotionError cannotAdd() {
        boolean fit = (state == AxisState.DISCRETE_MOTION || state == AxisState.CONTINUOUS_MOTION || state == AxisState.SYNCHRONIZED_MOTION) && !torqueLeads() && !torqueWaits;
        return closed() != MotionError.NONE ? closed() : fit ? MotionError.NONE : MotionError.NOT_IN_THIS_STATE;
    }

    /** Speed of the running order, units/s; 0 where it has none. */
    double orderedSpeed() {
        return curveLeads() ? curve.topSpeed() : state == AxisState.CONTINUOUS_MOTION || state == AxisState.DISCRETE_MOTION && aims() ? Math.abs(order.speed) : 0;
    }

    /** The target of the running move, moved by a distance, lies past a soft limit. */
    boolean leadsOutside(double by) {
        boolean bounded = state == AxisState.DISCRETE_MOTION && aims() && !configuration.endless() && referenced();
        return bounded && (order.target + by > places.limits().softMax() + places.halfWireUnit() || order.target + by < places.limits().softMin() - places.halfWireUnit());
    }

    void log(long now, CallPlace call, CommandLog.Kind kind, String block, double target, double speed, double a, double d, double j, double duration) {
        change.by(block, call, now);
        log.add(now, number, call, kind, block, target, speed, a, d, j, duration, MotionError.NONE);
    }

    /** Brings the axis to rest and keeps it there until {@link #releaseStop}: no other order is taken meanwhile. */
    void stop(MotionCommand command, double deceleration, double jerkLimit, String block, CallPlace call, long now) {
        boolean fit = state != AxisState.HOMING && state != AxisState.ERROR_STOP && state != AxisState.STOPPING;
        if (slowDown(command, fit, AxisState.STOPPING, deceleration, jerkLimit, block, call, now)) {
            stopHeld = true;
            stopOwner = command;
        }
    }

    /** Execute of the block that stopped the axis has gone. */
    void releaseStop(MotionCommand command) {
        if (stopOwner == command) {
            stopHeld = false;
        }
    }

    /** Actual speed as the mailbox tells it, units/s. */
    double actualVelocity() {
        return places.unitsOf(mailbox.read(DriveObject.VELOCITY_ACTUAL));
    }

    /** Actual torque at the motor as the mailbox tells it, N·m. */
    double actualTorque() {
        return mailbox.read(DriveObject.TORQUE_ACTUAL) * 1e-3 * configuration.motor().ratedTorque();
    }

    void halt(MotionCommand command, double deceleration, double jerkLimit, String block, CallPlace call, long now) {
        boolean fit = state == AxisState.DISCRETE_MOTION || state == AxisState.CONTINUOUS_MOTION || state == AxisState.STANDSTILL || state == AxisState.SYNCHRONIZED_MOTION;
        if (slowDown(command, fit, AxisState.DISCRETE_MOTION, deceleration, jerkLimit, block, call, now)) {
            order.none();
            positioning = false;
        }
    }

    /**
     * Plans to come to rest.
     *
     * @param fit          the axis can do this in its present state
     * @param next         its state from now on
     * @param deceleration units/s², 0 for the axis' default
     * @param jerkLimit    units/s³, 0 for the axis' default
     * @return it was not refused
     */
    private boolean slowDown(MotionCommand command, boolean fit, AxisState next, double deceleration, double jerkLimit, String block, CallPlace call, long now) {
        Dynamics normal = places.limits().normal();
        double d = deceleration == 0 ? normal.deceleration() : deceleration;
        double j = jerkLimit == 0 ? normal.jerk() : jerkLimit;
        Dynamics max = configuration.limits().max();
        boolean bad = !(d > 0) || d > max.deceleration() || !(j >= 0) || max.jerk() > 0 && j > max.jerk();
        MotionError refusal = closed() != MotionError.NONE ? closed() : !fit ? MotionError.NOT_IN_THIS_STATE : bad ? MotionError.BAD_VALUE : MotionError.NONE;
        if (refusal != MotionError.NONE) {
            refuse(command, refusal, block, call, now, Double.NaN);
            return false;
        }
        if (configuration.endless()) {
            profile.run(0, d, j);
        } else {
            profile.haltInside(places.limits(), places.halfWireUnit(), d, j);
        }
        accept(command, next);
        order.none();
        log(now, call, CommandLog.Kind.HALT, block, Double.NaN, 0, 0, d, j, profile.duration());
        return true;
    }

    /**
     * Makes torque instead of a position, until something else is ordered.
     *
     * @param newtonMetres torque at the motor, its sign the direction; NaN takes it from the analogue input
     * @param ramp         N·m/s, 0 for at once
     * @param speedLimit   units/s, 0 for the axis' highest
     */
    void torque(MotionCommand command, double newtonMetres, double ramp, double speedLimit, String block, CallPlace call, long now) {
        double speed = speedLimit == 0 ? places.limits().max().speed() : speedLimit;
        boolean bad = Double.isInfinite(newtonMetres) || Math.abs(newtonMetres) > configuration.highestTorque() || !(ramp >= 0) || Double.isInfinite(ramp) || !(speed > 0) || speed > places.limits().max().speed();
        boolean unfit = state == AxisState.HOMING || state == AxisState.STOPPING || state == AxisState.ERROR_STOP;
        MotionError refusal = closed() != MotionError.NONE ? closed() : unfit ? MotionError.NOT_IN_THIS_STATE : bad ? MotionError.BAD_VALUE : MotionError.NONE;
        if (refusal != MotionError.NONE) {
            refuse(command, refusal, block, call, now, newtonMetres);
            return;
        }
        boolean goesOn = torqueLeads();
        if (state == AxisState.STANDSTILL || gearLeads() || curveLeads() || added.runs()) {
            profile.run(setpoint.velocity, places.limits().max().deceleration(), 0);
        }
        accept(command, AxisState.CONTINUOUS_MOTION);
        order.none();
        torque.order(newtonMetres, ramp, scale.motorTurnsPerMinute(speed));
        if (goesOn) {
            generator = torque;
        } else {
            torqueWaits = true;
        }
        log(now, call, CommandLog.Kind.TORQUE, block, newtonMetres, speed, ramp, 0, 0, 0);
    }

    /** Torque is made, and has reached what was asked for. */
    boolean inTorque() {
        return torqueLeads() && torque.reached() && modeDisplay == OperationMode.CYCLIC_SYNCHRONOUS_TORQUE;
    }

    /** The drive's inputs that ask for a jog: −1, 1, or 0 for none or both. */
    int jogInputs() {
        int functions = (int) mailbox.read(DriveObject.INPUT_FUNCTIONS);
        return (functions >> Function.JOG_POSITIVE.bit() & 1) - (functions >> Function.JOG_NEGATIVE.bit() & 1);
    }

    /** A move asked for now would be refused because the device restarted. */
    boolean referenceLost() {
        return referencedOnce && !referenced();
    }

    /** Takes limits, defaults and homing that have changed. @param changed its scale must be the same */
    public void take(Axis changed) {
        configuration = changed;
        places.take(changed.limits());
        follow.take(changed.following());
    }

    /**
     * Gives the place where the axis is another number, for the program alone: the drive and its soft limits stay where they are. A running
     * motion goes on as it was.
     *
     * @param position where it is, or by how much that number grows, user units
     * @return why not, or NONE
     */
    MotionError setPosition(double position, boolean relative) {
        if (closed() == MotionError.NOT_COMMANDED) {
            return closed();
        }
        if (state == AxisState.HOMING || torqueLeads() || torqueWaits) {
            return MotionError.NOT_IN_THIS_STATE;
        }
        double by = places.renumber(relative ? position : position - actual, configuration.limits());
        if (Double.isNaN(by)) {
            return MotionError.BAD_VALUE;
        }
        renumbered(by);
        return MotionError.NONE;
    }

    /** Everything that is a place has another number. @param by user units */
    private void renumbered(double by) {
        if (by != 0) {
            actual = range.shown(actual + by);
            numbersMoved = true;
            setpoint.position += by;
            order.renumbered(by);
            added.renumbered(by);
            profile.shift(by);
            curve.shift(by);
            if (gearLeads()) {
                gear.shift(by);
            }
            blend();
        }
    }

    ProbeWatch probes() {
        return probes;
    }

    /** How the drive is told what its touch probes are to do. @param mapped 60B8h travels in the process data  @param bound a tag gives it its value */
    public void probeFunctionTravels(boolean mapped, boolean bound) {
        probes.functionGoes(!mapped ? ProbeWatch.Way.MAILBOX : bound ? ProbeWatch.Way.PROGRAM : ProbeWatch.Way.PROCESS_DATA);
    }

    /** 60B8h, for the process data. */
    public int probeFunction() {
        return probes.function();
    }

    /** What was known of the drive before its device restarted. */
    public void restarted(MotionAxis before) {
        referencedOnce = before.referencedOnce;
        commandedWay = before.commandedWay;
        actualWay = before.actualWay;
        before.successor = this;
    }

    /** The drive reports that it knows where it is. */
    boolean referenced() {
        return (statusword & StatusWord.REFERENCED) != 0;
    }

    /** Where the axis would come to rest if it were halted now, user units. */
    double restPosition(double deceleration, double jerkLimit) {
        stop.planVelocity(setpoint.position, setpoint.velocity, setpoint.acceleration, 0, deceleration, jerkLimit);
        return stop.position(stop.duration());
    }

    /** Where it would come to rest if it were halted in a while, user units. @param ahead s */
    double restPositionAfter(double ahead, double deceleration, double jerkLimit) {
        if (state != AxisState.CONTINUOUS_MOTION && state != AxisState.DISCRETE_MOTION) {
            return restPosition(deceleration, jerkLimit);
        }
        generator.lookAhead(ahead, sample);
        stop.planVelocity(sample[0], sample[1], sample[2], 0, deceleration, jerkLimit);
        return stop.position(stop.duration());
    }

    double cycleSeconds() {
        return cycleSeconds;
    }

    void accept(MotionCommand command, AxisState next) {
        if (current != command) {
            abort(MotionCommand.Status.ABORTED);
        }
        if (waiting.command == command) {
            waiting.command = null;
        }
        if (!updating) {
            waiting.drop(MotionCommand.Status.ABORTED, MotionError.NONE);
        }
        if (!making && !updating) {
            endAddition(MotionCommand.Status.ABORTED, MotionError.NONE);
        }
        endTorqueAndTable();
        if (next != AxisState.SYNCHRONIZED_MOTION) {
            endFollowing();
        }
        positioning = next == AxisState.DISCRETE_MOTION;
        current = command;
        command.begin(MotionCommand.Status.ACTIVE);
        change.change(state, next, updatedAt, true);
        state = next;
    }

    /** An order is refused: the axis goes on with what it does. When the same block ordered that, it is no longer the block's. */
    void refuse(MotionCommand command, MotionError reason, String block, CallPlace call, long now, double value) {
        if (current == command) {
            current = ownerless;
        }
        if (waiting.command == command) {
            waiting.command = null;
        }
        command.fail(reason);
        log.add(now, number, call, CommandLog.Kind.ERROR, block, value, 0, 0, 0, 0, 0, reason);
    }

    /* ---- what can be read ---- */

    public AxisState state() {
        return state;
    }

    /** How it came into this state. */
    public StateChange lastChange() {
        return change;
    }

    /** The program writes a parameter of the axis. @param parameter number of the specification's table  @return why not, or NONE */
    MotionError write(long parameter, double value) {
        return places.write(parameter, value, bounded());
    }

    /** The same for what is switched on and off. */
    MotionError watch(long parameter, boolean on) {
        return places.watch(parameter, on, bounded());
    }

    boolean watches(long parameter) {
        return places.watches(parameter);
    }

    /** The output with this number, from 0, is set over the bus. */
    boolean setsOutput(long output) {
        return output >= 0 && output < configuration.wiring().outputs().size() && configuration.wiring().outputs().get((int) output).function() == Function.SET_OVER_BUS;
    }

    /** The output with this number, from 0, is to have a level: the mailbox takes it to the drive. */
    void setOutput(long output, boolean on) {
        outputs = on ? outputs | FIRST_OUTPUT << output : outputs & ~(FIRST_OUTPUT << output);
        mailbox.write(DriveObject.DIGITAL_OUTPUTS, outputs);
    }

    /** Nothing that was asked of the drive by mailbox is on its way. */
    boolean written() {
        return mailbox.written();
    }

    /** Level that the drive has been told for an output, as the mailbox last brought it. */
    boolean output(long output) {
        return (mailbox.read(DriveObject.DIGITAL_OUTPUTS) & FIRST_OUTPUT << output) != 0;
    }

    /** A place lies from one to another, on an endless axis also across the place where positions begin again. */
    boolean lies(double place, double from, double to) {
        return places.lies(place, from, to);
    }

    /** The way from one place to another, on an endless axis the shorter one. */
    double way(double from, double to) {
        return range.shortest(to - from);
    }

    /** Object 60FDh as the mailbox last brought it. */
    long digitalInputs() {
        return mailbox.read(DriveObject.DIGITAL_INPUTS);
    }

    /** The drive sends a status word. */
    boolean answers() {
        return statusword != 0;
    }

    boolean readyForPower() {
        return driveState == PowerState.READY_TO_SWITCH_ON || driveState == PowerState.SWITCHED_ON || driveState == PowerState.OPERATION_ENABLED;
    }

    /** Bit 7 of the status word, IEC 61800-7-201. */
    boolean warns() {
        return (statusword & StatusWord.WARNING) != 0;
    }

    public MotionError error() {
        return error;
    }

    boolean powerWanted() {
        return powerWanted;
    }

    boolean enabled() {
        return driveState == PowerState.OPERATION_ENABLED && state != AxisState.DISABLED;
    }

    public PowerState driveState() {
        return driveState;
    }

    /** Actual position as it came over the bus, user units. */
    public double actualPosition() {
        return actual;
    }

    /** Limits, the soft ones in the numbering of the program. */
    Limits limits() {
        return places.limits();
    }

    /** It has ends, and so soft limits. */
    boolean bounded() {
        return !configuration.endless();
    }

    /** Following error that the drive allows at the commanded speed, user units. */
    double allowedFollowingError() {
        return configuration.supervision().allowedFollowingError(setpoint.velocity, configuration.limits().max().speed());
    }

    double commandedPosition() {
        return range.shown(setpoint.position);
    }

    /** Setpoint of this cycle as it is shown: an endless axis begins again after its modulo. User units. */
    public double shownPosition() {
        return commandedPosition();
    }

    /** How far its setpoint has gone since it was switched on, beyond its modulo too, user units. */
    public double gone() {
        return commandedWay.gone() / wirePerUnit;
    }

    /** Speed of the setpoint, user units/s. */
    public double commandedSpeed() {
        return setpoint.velocity;
    }

    /** The same in wire units/s. */
    public long wireVelocity() {
        return Math.round(wireSpeed(false));
    }

    public int controlword() {
        return controlword;
    }

    /** Torque of this cycle in torque operation, thousandths of the rated torque; else 0. */
    public long targetTorque() {
        return torqueLeads() ? torque.targetTorque() : 0;
    }

    public int mode() {
        return mode;
    }

    /** Setpoint of this cycle, wire units. */
    public long targetWire() {
        return targetWire;
    }
}
