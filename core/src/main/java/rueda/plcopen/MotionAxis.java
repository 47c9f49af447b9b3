package rueda.plcopen;

import rueda.drive.ControlWord;
import rueda.drive.DriveObject;
import rueda.drive.ObjectDictionary;
import rueda.drive.OperationMode;
import rueda.drive.PowerState;
import rueda.drive.StatusWord;
import rueda.machine.Axis;
import rueda.machine.Dynamics;
import rueda.machine.Homing;
import rueda.machine.Limits;
import rueda.machine.Terminal.Function;
import rueda.profile.MotionProfile;
import rueda.quantity.Modulo;
import rueda.quantity.Scale;

/**
 * The PLC's side of one axis: talks to the drive by controlword, statusword, mode and positions of the process
 * data, keeps the axis state and makes a setpoint each bus cycle.
 *
 * <p>Positions are user units; the setpoint leaves in wire units. No allocation in {@link #update}. Not
 * thread-safe.
 */
public final class MotionAxis {

    private final int number;
    private Axis configuration;
    private final Scale scale;
    private final double wireUnitsPerUnit;
    private final ObjectDictionary mailbox;
    private final CommandLog log;
    private final double cycleSeconds;
    /** user units after which the position begins again, 0 with ends */
    private final double range;
    private final long wireModulo;
    private final Modulo wrapped;
    private final MotionProfile profile = new MotionProfile();
    private final MotionProfile stop = new MotionProfile();
    private final double[] sample = new double[3];

    private AxisState state = AxisState.DISABLED;
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
    /** the running motion ends at a target, and is done when the drive is in position */
    private boolean positioning;
    /** the drive makes torque, not position */
    private boolean torqueLeads;
    private double torqueWanted;
    private double torqueRamp;
    private double torque;
    private double actualBefore;
    private double elapsed;
    private double position;
    private double velocity;
    private double acceleration;

    private int controlword;
    private int mode = OperationMode.CYCLIC_SYNCHRONOUS_POSITION;

    /**
     * @param number     place of the axis in the machine
     * @param mailbox    acyclic access to the drive
     * @param cycleNanos bus cycle, ns
     */
    public MotionAxis(int number, Axis configuration, ObjectDictionary mailbox, CommandLog log, long cycleNanos) {
        this.number = number;
        this.configuration = configuration;
        this.scale = configuration.scale();
        this.wireUnitsPerUnit = scale.wireUnitsPerUnit();
        this.mailbox = mailbox;
        this.log = log;
        this.cycleSeconds = cycleNanos * 1e-9;
        this.wireModulo = configuration.wireModulo();
        this.wrapped = new Modulo(Math.max(1, wireModulo));
        this.range = wireModulo / wireUnitsPerUnit;
    }

    /** Takes the inputs of a bus cycle. @param wirePosition position actual value, wire units */
    public void read(int status, long wirePosition, int displayedMode) {
        statusword = status;
        driveState = PowerState.of(status);
        modeDisplay = displayedMode;
        referencedOnce |= referenced();
        actualBefore = actual;
        actual = (wireModulo == 1L << 32 ? wirePosition & 0xFFFF_FFFFL : wirePosition) / wireUnitsPerUnit;
    }

    /** Makes the outputs of a bus cycle, after the program has run. */
    public void update() {
        followPower();
        switch (state) {
            case HOMING -> home();
            case DISCRETE_MOTION, STOPPING, CONTINUOUS_MOTION -> advance();
            case STANDSTILL -> hold();
            default -> standAtActual();
        }
    }

    private void followPower() {
        boolean faulty = driveState == PowerState.FAULT || driveState == PowerState.FAULT_REACTION_ACTIVE;
        if (faulty && state != AxisState.ERROR_STOP) {
            enterError(MotionError.DRIVE_FAULT);
        }
        boolean enabled = driveState == PowerState.OPERATION_ENABLED;
        if (!faulty && !enabled && state != AxisState.DISABLED && state != AxisState.ERROR_STOP) {
            abort(MotionCommand.Status.ABORTED);
            state = AxisState.DISABLED;
        }
        if (enabled && state == AxisState.DISABLED) {
            state = AxisState.STANDSTILL;
            standAtActual();
            if (configuration.homing().onFirstEnable() && !referenced()) {
                homingStarted = false;
                toZero = false;
                state = AxisState.HOMING;
            }
        }
        controlword = faulty ? resetWanted && driveState == PowerState.FAULT ? ControlWord.FAULT_RESET : 0
                : !powerWanted ? ControlWord.SHUTDOWN
                : switch (driveState) {
                    case READY_TO_SWITCH_ON -> ControlWord.SWITCHED_ON;
                    case SWITCHED_ON, OPERATION_ENABLED -> ControlWord.OPERATION_ENABLED;
                    default -> ControlWord.SHUTDOWN;
                };
        if (!faulty && resetWanted) {
            resetWanted = false;
            error = MotionError.NONE;
            if (state == AxisState.ERROR_STOP) {
                state = enabled ? AxisState.STANDSTILL : AxisState.DISABLED;
                standAtActual();
            }
        }
    }

    private void enterError(MotionError reason) {
        error = reason;
        if (current != null) {
            current.fail(reason);
            current = null;
        }
        mode = OperationMode.CYCLIC_SYNCHRONOUS_POSITION;
        torqueLeads = false;
        state = AxisState.ERROR_STOP;
    }

    private void endTorque() {
        if (torqueLeads) {
            torqueLeads = false;
            mode = OperationMode.CYCLIC_SYNCHRONOUS_POSITION;
        }
    }

    private void abort(MotionCommand.Status how) {
        endTorque();
        if (current != null) {
            current.status = how;
            current = null;
        }
    }

    private void standAtActual() {
        position = actual;
        hold();
    }

    private void hold() {
        velocity = 0;
        acceleration = 0;
    }

    private void advance() {
        if (torqueLeads) {
            followTorque();
            return;
        }
        elapsed += cycleSeconds;
        profile.sample(elapsed, sample);
        position = sample[0];
        velocity = sample[1];
        acceleration = sample[2];
        boolean planned = elapsed >= profile.duration() && state != AxisState.CONTINUOUS_MOTION;
        if (planned && (!positioning || (statusword & StatusWord.TARGET_REACHED) != 0)) {
            state = AxisState.STANDSTILL;
            position = inRange(position);
            abort(MotionCommand.Status.DONE);
        }
    }

    /** In torque operation the setpoint follows the axis, so that what comes next takes over without a jump. */
    private void followTorque() {
        mode = OperationMode.CYCLIC_SYNCHRONOUS_TORQUE;
        double step = torqueRamp * cycleSeconds;
        torque = torqueRamp == 0 ? torqueWanted : torque + Math.max(-step, Math.min(step, torqueWanted - torque));
        mailbox.set(DriveObject.TARGET_TORQUE, targetTorque());
        double way = actual - actualBefore;
        velocity = (range == 0 ? way : Math.IEEEremainder(way, range)) / cycleSeconds;
        acceleration = 0;
        position = actual;
    }

    /** The position as it is shown: an endless axis begins again after its modulo. */
    private double inRange(double value) {
        return range == 0 ? value : value - Math.floor(value / range) * range;
    }

    /**
     * The target of an absolute move on the axis as it is counted on. An endless axis takes the way that the direction asks for and never
     * more than one turn, but for one case: a place that lies ahead and is nearer than the way the axis needs to stop is reached one turn
     * later, because it was asked to arrive in this direction.
     *
     * @param deceleration of the order, units/s²
     * @param jerkLimit    of the order, units/s³, 0 for none
     */
    private double reach(double target, Direction direction, double deceleration, double jerkLimit) {
        if (range == 0) {
            return target;
        }
        double forward = inRange(target - position);
        return position + switch (direction) {
            case POSITIVE -> ahead(1, forward, deceleration, jerkLimit);
            case NEGATIVE -> ahead(-1, range - forward, deceleration, jerkLimit);
            case CURRENT -> velocity < 0 ? ahead(-1, range - forward, deceleration, jerkLimit) : ahead(1, forward, deceleration, jerkLimit);
            case SHORTEST -> forward > range / 2 ? forward - range : forward;
        };
    }

    /** The way to a place ahead, turns longer when the axis cannot stop before it. @param way 0 to one turn  @param side 1 forward, −1 back */
    private double ahead(int side, double way, double deceleration, double jerkLimit) {
        // A place within the rounding of the wire is here, not a turn away.
        double here = 0.5 / wireUnitsPerUnit;
        double needed = side * (restPosition(deceleration, jerkLimit) - position);
        double turns = range - way <= here && needed <= here ? -1 : Math.max(0, Math.ceil((needed - here - way) / range));
        return side * (way + turns * range);
    }

    private void home() {
        if (toZero) {
            advance();
            return;
        }
        standAtActual();
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
            state = AxisState.ERROR_STOP;
        } else if (attained && stands) {
            mode = OperationMode.CYCLIC_SYNCHRONOUS_POSITION;
            controlword &= ~ControlWord.HOMING_START;
            finishHoming();
        }
    }

    private void finishHoming() {
        Homing homing = configuration.homing();
        if (!homing.thenToZero()) {
            state = AxisState.STANDSTILL;
            abort(MotionCommand.Status.DONE);
            return;
        }
        Dynamics normal = configuration.limits().normal();
        profile.plan(position, 0, 0, reach(0, Direction.SHORTEST, 1, 0), 0, homing.searchSpeed(), homing.acceleration(), homing.acceleration(), normal.jerk());
        elapsed = 0;
        positioning = true;
        toZero = true;
    }

    /* ---- orders of the function blocks ---- */

    void power(boolean wanted) {
        powerWanted = wanted;
    }

    void reset() {
        resetWanted = true;
    }

    boolean resetPending() {
        return resetWanted;
    }

    void home(MotionCommand command, double homePosition, String block, int line, long now) {
        if (state != AxisState.STANDSTILL) {
            refuse(command, state == AxisState.DISABLED ? MotionError.NOT_ENABLED : MotionError.NOT_IN_THIS_STATE, block, line, now, Double.NaN);
            return;
        }
        boolean placed = !Double.isNaN(homePosition);
        if (placed && !(Math.abs(homePosition * wireUnitsPerUnit) <= Integer.MAX_VALUE)) {
            refuse(command, MotionError.BAD_VALUE, block, line, now, homePosition);
            return;
        }
        if (placed) {
            mailbox.set(DriveObject.HOME_OFFSET, -scale.wireFromUnits(homePosition));
        }
        homingStarted = false;
        toZero = false;
        accept(command, AxisState.HOMING);
        log.add(now, number, line, CommandLog.Kind.HOME, block, homePosition, 0, 0, 0, 0, 0, MotionError.NONE);
    }

    /**
     * Starts a move, taking over whatever runs. Zero speed, acceleration, deceleration or jerk mean the axis' default.
     *
     * @param direction way of an absolute move of an endless axis; null for a value that is none
     */
    void move(MotionCommand command, double wanted, boolean relative, Direction direction, double wantedSpeed, double accelerationLimit, double decelerationLimit,
              double jerkLimit, String block, int line, long now) {
        Dynamics normal = configuration.limits().normal();
        double speed = wantedSpeed == 0 ? normal.speed() : wantedSpeed;
        double a = accelerationLimit == 0 ? normal.acceleration() : accelerationLimit;
        double d = decelerationLimit == 0 ? accelerationLimit == 0 ? normal.deceleration() : a : decelerationLimit;
        double j = jerkLimit == 0 ? normal.jerk() : jerkLimit;
        boolean finite = d > 0 && j >= 0 && Double.isFinite(wanted);
        double target = direction == null || !finite ? Double.NaN : relative ? position + wanted : reach(wanted, direction, d, j);
        MotionError refusal = direction == null ? MotionError.BAD_VALUE : refusal(target, speed, accelerationLimit, decelerationLimit, jerkLimit);
        if (refusal != MotionError.NONE) {
            refuse(command, refusal, block, line, now, target);
            return;
        }
        profile.plan(position, velocity, acceleration, target, 0, speed, a, d, j);
        if (leavesSoftLimits()) {
            Dynamics max = configuration.limits().max();
            profile.plan(position, velocity, acceleration, target, 0, speed, max.acceleration(), max.deceleration(), hardest(j));
        }
        elapsed = 0;
        accept(command, AxisState.DISCRETE_MOTION);
        log.add(now, number, line, CommandLog.Kind.MOVE, block, target, speed, a, d, j, profile.duration(), MotionError.NONE);
    }

    /**
     * The planned motion passes a soft limit that the axis stands inside of: the order brakes too softly for the speed that is there. Then it
     * is carried out with the axis' highest dynamics, which stays inside wherever that is possible.
     */
    private boolean leavesSoftLimits() {
        Limits limits = configuration.limits();
        double here = 0.5 / wireUnitsPerUnit;
        return !configuration.endless() && position >= limits.softMin() && position <= limits.softMax()
                && (profile.farthest(1) > limits.softMax() + here || profile.farthest(-1) < limits.softMin() - here);
    }

    /** The highest jerk of the axis; none where neither the order nor the axis has a limit. */
    private double hardest(double ordered) {
        double max = configuration.limits().max().jerk();
        return ordered == 0 || max == 0 ? 0 : Math.max(ordered, max);
    }

    private MotionError refusal(double target, double speed, double a, double d, double j) {
        Limits limits = configuration.limits();
        Dynamics max = limits.max();
        if (state == AxisState.DISABLED) {
            return MotionError.NOT_ENABLED;
        }
        if (state == AxisState.HOMING || state == AxisState.STOPPING || state == AxisState.ERROR_STOP) {
            return MotionError.NOT_IN_THIS_STATE;
        }
        if ((statusword & StatusWord.REFERENCED) == 0) {
            return referencedOnce ? MotionError.REFERENCE_LOST : MotionError.NOT_REFERENCED;
        }
        boolean bad = !(speed > 0) || speed > max.speed() || !(a >= 0) || a > max.acceleration() || !(d >= 0)
                || d > max.deceleration() || !(j >= 0) || max.jerk() > 0 && j > max.jerk() || Double.isNaN(target);
        if (bad) {
            return MotionError.BAD_VALUE;
        }
        boolean outside = !configuration.endless() && (target < limits.softMin() || target > limits.softMax());
        return outside ? MotionError.PAST_SOFT_LIMIT : MotionError.NONE;
    }

    void halt(MotionCommand command, double deceleration, double jerkLimit, String block, int line, long now) {
        if (state != AxisState.DISCRETE_MOTION && state != AxisState.CONTINUOUS_MOTION && state != AxisState.STANDSTILL) {
            refuse(command, state == AxisState.DISABLED ? MotionError.NOT_ENABLED : MotionError.NOT_IN_THIS_STATE, block, line, now, Double.NaN);
            return;
        }
        Dynamics normal = configuration.limits().normal();
        double d = deceleration == 0 ? normal.deceleration() : deceleration;
        double j = jerkLimit == 0 ? normal.jerk() : jerkLimit;
        Dynamics max = configuration.limits().max();
        if (!(d > 0) || d > max.deceleration() || !(j >= 0) || max.jerk() > 0 && j > max.jerk()) {
            refuse(command, MotionError.BAD_VALUE, block, line, now, Double.NaN);
            return;
        }
        profile.planVelocity(position, velocity, acceleration, 0, d, j);
        if (leavesSoftLimits()) {
            profile.planVelocity(position, velocity, acceleration, 0, max.deceleration(), hardest(j));
        }
        elapsed = 0;
        accept(command, AxisState.DISCRETE_MOTION);
        positioning = false;
        log.add(now, number, line, CommandLog.Kind.HALT, block, Double.NaN, 0, 0, d, j, profile.duration(), MotionError.NONE);
    }

    /** Runs on at a speed until something else is ordered. @param speed units/s with its sign */
    void jog(MotionCommand command, double speed, double accelerationLimit, double jerkLimit, String block, long now) {
        profile.planVelocity(position, velocity, acceleration, speed, accelerationLimit, jerkLimit);
        elapsed = 0;
        accept(command, AxisState.CONTINUOUS_MOTION);
        log.add(now, number, 0, CommandLog.Kind.MOVE, block, Double.NaN, speed, accelerationLimit, accelerationLimit, jerkLimit, profile.duration(), MotionError.NONE);
    }

    /** A move that a person orders: unlike one of the program it may be made before the axis knows where it is. */
    void moveByHand(MotionCommand command, double wanted, boolean relative, double speed, Dynamics d, String block, long now) {
        double target = relative ? position + wanted : reach(wanted, Direction.SHORTEST, d.deceleration(), d.jerk());
        profile.plan(position, velocity, acceleration, target, 0, speed, d.acceleration(), d.deceleration(), d.jerk());
        elapsed = 0;
        accept(command, AxisState.DISCRETE_MOTION);
        log.add(now, number, 0, CommandLog.Kind.MOVE, block, target, speed, d.acceleration(), d.deceleration(), d.jerk(), profile.duration(), MotionError.NONE);
    }

    /**
     * Makes torque instead of a position, until something else is ordered.
     *
     * @param newtonMetres torque at the motor, its sign the direction; NaN takes it from the analogue input
     * @param ramp         N·m/s, 0 for at once
     * @param speedLimit   units/s, 0 for the axis' highest
     */
    void torque(MotionCommand command, double newtonMetres, double ramp, double speedLimit, String block, int line, long now) {
        Limits limits = configuration.limits();
        double speed = speedLimit == 0 ? limits.max().speed() : speedLimit;
        boolean bad = Double.isInfinite(newtonMetres) || Math.abs(newtonMetres) > configuration.highestTorque() || !(ramp >= 0) || Double.isInfinite(ramp) || !(speed > 0) || speed > limits.max().speed();
        boolean unfit = state == AxisState.HOMING || state == AxisState.STOPPING || state == AxisState.ERROR_STOP;
        MotionError refusal = state == AxisState.DISABLED ? MotionError.NOT_ENABLED : unfit ? MotionError.NOT_IN_THIS_STATE : bad ? MotionError.BAD_VALUE : MotionError.NONE;
        if (refusal != MotionError.NONE) {
            refuse(command, refusal, block, line, now, newtonMetres);
            return;
        }
        torque = torqueLeads ? torque : 0;
        accept(command, AxisState.CONTINUOUS_MOTION);
        torqueWanted = Double.isNaN(newtonMetres) ? 0 : newtonMetres;
        torqueRamp = ramp;
        torqueLeads = true;
        mailbox.set(DriveObject.TORQUE_SOURCE, Double.isNaN(newtonMetres) ? 1 : 0);
        mailbox.set(DriveObject.MAX_MOTOR_SPEED, Math.round(scale.motorTurnsPerMinute(speed)));
        log.add(now, number, line, CommandLog.Kind.TORQUE, block, newtonMetres, speed, ramp, 0, 0, 0, MotionError.NONE);
    }

    /** Torque is made, and has reached what was asked for. */
    boolean inTorque() {
        return torqueLeads && torque == torqueWanted && modeDisplay == OperationMode.CYCLIC_SYNCHRONOUS_TORQUE;
    }

    /** The drive's inputs that ask for a jog: −1, 1, or 0 for none or both. */
    int jogInputs() {
        int functions = (int) mailbox.get(DriveObject.INPUT_FUNCTIONS);
        return (functions >> Function.JOG_POSITIVE.bit() & 1) - (functions >> Function.JOG_NEGATIVE.bit() & 1);
    }

    /** A move asked for now would be refused because the device restarted. */
    boolean referenceLost() {
        return referencedOnce && !referenced();
    }

    /** Takes limits, defaults and homing that have changed. @param changed its scale must be the same */
    public void take(Axis changed) {
        configuration = changed;
    }

    /** What was known of the drive before its device restarted. */
    public void restarted(MotionAxis before) {
        referencedOnce = before.referencedOnce;
    }

    /** The drive reports that it knows where it is. */
    boolean referenced() {
        return (statusword & StatusWord.REFERENCED) != 0;
    }

    /** Where the axis would come to rest if it were halted now, user units. */
    double restPosition(double deceleration, double jerkLimit) {
        stop.planVelocity(position, velocity, acceleration, 0, deceleration, jerkLimit);
        return stop.position(stop.duration());
    }

    /** Where it would come to rest if it were halted in a while, user units. @param ahead s */
    double restPositionAfter(double ahead, double deceleration, double jerkLimit) {
        boolean profiled = !torqueLeads && (state == AxisState.CONTINUOUS_MOTION || state == AxisState.DISCRETE_MOTION);
        if (!profiled) {
            return restPosition(deceleration, jerkLimit);
        }
        profile.sample(elapsed + ahead, sample);
        stop.planVelocity(sample[0], sample[1], sample[2], 0, deceleration, jerkLimit);
        return stop.position(stop.duration());
    }

    double cycleSeconds() {
        return cycleSeconds;
    }

    private void accept(MotionCommand command, AxisState next) {
        if (current != command) {
            abort(MotionCommand.Status.ABORTED);
        }
        endTorque();
        positioning = next == AxisState.DISCRETE_MOTION;
        current = command;
        command.status = MotionCommand.Status.ACTIVE;
        command.error = MotionError.NONE;
        state = next;
    }

    /** An order is refused: the axis goes on with what it does. When the same block ordered that, it is no longer the block's. */
    private void refuse(MotionCommand command, MotionError reason, String block, int line, long now, double value) {
        if (current == command) {
            current = ownerless;
        }
        command.fail(reason);
        log.add(now, number, line, CommandLog.Kind.ERROR, block, value, 0, 0, 0, 0, 0, reason);
    }

    /* ---- what can be read ---- */

    public AxisState state() {
        return state;
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

    double commandedPosition() {
        return inRange(position);
    }

    public int controlword() {
        return controlword;
    }

    /** Torque of this cycle in torque operation, thousandths of the rated torque; else 0. */
    public long targetTorque() {
        return torqueLeads ? Math.round(torque / configuration.motor().ratedTorque() * 1000) : 0;
    }

    public int mode() {
        return mode;
    }

    /** Setpoint of this cycle, wire units. */
    public long targetWire() {
        long wire = (long) Math.rint(position * wireUnitsPerUnit);
        return wireModulo == 0 ? wire : wrapped.of(wire);
    }
}
