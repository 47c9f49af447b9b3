package rueda.plcopen;

import rueda.drive.FollowByHand;
import rueda.drive.ListByHand;
import rueda.machine.Axis;
import rueda.machine.Dynamics;
import rueda.machine.Limits;
import rueda.machine.Terminal.Function;
import rueda.plc.run.CallPlace;

/**
 * One axis moved by hand: what a person orders instead of the program. Every order says why it is refused; null means
 * that it is carried out. Speeds and accelerations are the axis' defaults times the override; slow is a tenth of it.
 * Not thread-safe.
 */
public final class HandControl {

    private static final String BY_HAND = "by hand";
    private static final double SLOW = 0.1;

    private final MotionAxis axis;
    private final ListByHand list;
    private final FollowByHand encoder;
    private Axis configuration;
    private final MotionCommand command = new MotionCommand();
    private double override = 1;
    private int jogging;
    /** what the jog inputs asked for last */
    private int jogInput;
    /** what the trim inputs asked for last */
    private int trimInput;

    /** @param axis the axis  @param configuration the same in the document  @param list the moves that live in its drive  @param encoder following the encoder at its second input */
    public HandControl(MotionAxis axis, Axis configuration, ListByHand list, FollowByHand encoder) {
        this.encoder = encoder;
        this.axis = axis;
        this.list = list;
        this.configuration = configuration;
    }

    /** Takes limits and defaults that have changed. */
    public void take(Axis changed) {
        configuration = changed;
    }

    /** Follows a running jog: it ends before a soft limit. Call once a bus cycle, before the axis makes its outputs. */
    public void update(long now) {
        int trimmed = axis.trimInputs();
        if (trimmed != trimInput) {
            trimInput = trimmed;
            axis.following().trim(trimmed);
        }
        int wanted = axis.jogInputs();
        if (wanted != jogInput) {
            jogInput = wanted;
            if (wanted == 0) {
                halt(now);
            } else {
                jog(wanted, false, now);
            }
        }
        if (jogging == 0 || axis.state() != AxisState.CONTINUOUS_MOTION) {
            jogging = axis.state() == AxisState.CONTINUOUS_MOTION ? jogging : 0;
            return;
        }
        if (nearSoftLimit(jogging)) {
            halt(now);
        }
    }

    private boolean nearSoftLimit(int direction) {
        if (configuration.endless() || !axis.referenced()) {
            return false;
        }
        Limits limits = configuration.limits();
        // A halt ordered in this cycle begins in the next one; one more for the rounding of the time.
        double rest = axis.restPositionAfter(2 * axis.cycleSeconds(), limits.normal().deceleration(), limits.normal().jerk());
        return direction > 0 ? rest >= limits.softMax() : rest <= limits.softMin();
    }

    /** Switches torque on or off. */
    public String enable(boolean on) {
        if (on && axis.state() == AxisState.ERROR_STOP) {
            return "The axis has an error. Reset it first.";
        }
        axis.power(on);
        jogging = 0;
        if (!on && encoder.leads()) {
            encoder.letGo();
        }
        return null;
    }

    /** @param direction −1 or 1  @param fast at the default speed, else a tenth of it  @param now ns on the bench's clock */
    public String jog(int direction, boolean fast, long now) {
        String refusal = refusal();
        if (refusal != null) {
            return refusal;
        }
        if (nearSoftLimit(direction)) {
            return "The axis stands at its " + (direction > 0 ? "positive" : "negative") + " soft limit.";
        }
        Dynamics d = configuration.limits().normal();
        axis.moves().jog(command, direction * d.speed() * (fast ? 1 : SLOW) * override, d.acceleration(), d.jerk(), BY_HAND, now);
        jogging = direction;
        return null;
    }

    /** @param distance user units */
    public String step(double distance, long now) {
        String refusal = refusal();
        return refusal != null ? refusal : move(axis.commandedPosition() + distance, distance, true, now);
    }

    /** @param position user units */
    public String goTo(double position, long now) {
        String refusal = refusal();
        if (refusal == null && !axis.referenced()) {
            return axis.referenceLost() ? "The axis lost its reference when the device restarted. Home it again." : "The axis does not know where it is. Home it first.";
        }
        return refusal != null ? refusal : move(position, position, false, now);
    }

    private String move(double target, double wanted, boolean relative, long now) {
        Limits limits = configuration.limits();
        if (!Double.isFinite(wanted)) {
            return "This is no number.";
        }
        if (axis.referenced() && !configuration.endless() && (target < limits.softMin() || target > limits.softMax())) {
            return "The target lies past the soft limits, " + plain(limits.softMin()) + " to " + plain(limits.softMax()) + " " + configuration.unit().symbol() + ".";
        }
        jogging = 0;
        Dynamics d = limits.normal();
        axis.moves().moveByHand(command, wanted, relative, d.speed() * override, d, BY_HAND, now);
        return command.status == MotionCommand.Status.FAILED ? "Refused: " + command.error.words() + "." : null;
    }

    private static String plain(double value) {
        return value == Math.rint(value) ? Long.toString((long) value) : Double.toString(value);
    }

    /** Finds the zero as the axis is configured. */
    public String home(long now) {
        String refusal = refusal();
        if (refusal != null) {
            return refusal;
        }
        jogging = 0;
        axis.home(command, Double.NaN, BY_HAND, CallPlace.NONE, now);
        return command.status == MotionCommand.Status.FAILED ? "Refused: " + command.error.words() + "." : null;
    }

    /**
     * Makes torque.
     *
     * @param share      % of the rated torque with its sign; NaN takes it from the analogue input
     * @param speedLimit units/s
     */
    public String torque(double share, double speedLimit, long now) {
        String refusal = refusal();
        if (refusal != null) {
            return refusal;
        }
        if (Double.isNaN(share) && configuration.wiring().terminal(Function.TORQUE).isEmpty()) {
            return "No analogue input asks for torque. Give it the function in the stage Wire.";
        }
        jogging = 0;
        axis.torque(command, share / 100 * configuration.motor().ratedTorque(), 0, speedLimit, BY_HAND, CallPlace.NONE, now);
        return command.status != MotionCommand.Status.FAILED ? null
                : "Torque can be up to " + plain(Math.rint(1000 * configuration.highestTorque() / configuration.motor().ratedTorque()) / 10) + " % of the rated torque, speed above 0 to "
                + plain(configuration.limits().max().speed()) + " " + configuration.unit().symbol() + "/s.";
    }

    /**
     * Follows its master as the document says.
     *
     * @param master        its master
     * @param masterOf      the same in the document
     */
    public String follow(MotionAxis master, Axis masterOf, long now) {
        String refusal = refusal();
        if (refusal != null) {
            return refusal;
        }
        jogging = 0;
        axis.following().followByHand(command, master, configuration.following().unitsPerUnit(configuration, masterOf), BY_HAND, now);
        return command.status == MotionCommand.Status.FAILED ? "Refused: " + command.error.words() + "." : null;
    }

    /** Follows the encoder at its second input, in the drive. */
    public String followEncoder() {
        String refusal = encoder.leads() ? stateRefusal() : refusal();
        if (refusal == null && axis.state() != AxisState.STANDSTILL) {
            return "The axis moves. Stop it first.";
        }
        if (refusal != null) {
            return refusal;
        }
        jogging = 0;
        axis.stepAside(true);
        if (!encoder.follow()) {
            axis.stepAside(false);
            return "No master encoder is wired. Give the second encoder input its function in the stage Wire.";
        }
        return null;
    }

    /** Lets go of the master. */
    public String letGo(long now) {
        if (encoder.leads()) {
            encoder.letGo();
            return null;
        }
        return axis.following().letGo(command, BY_HAND, now) ? null : "The axis does not follow.";
    }

    /** Moves the phase of a follower on. @param direction −1, 1, or 0 to end */
    public String trim(int direction) {
        if (configuration.following().trimSpeed() == 0) {
            return "The trim speed is 0. Enter it in the stage Follow.";
        }
        return (encoder.leads() ? encoder.trim(direction) : axis.following().trim(direction)) ? null : "The axis does not follow. Let it follow first.";
    }

    /** Starts an entry of the move list. @param entry its number */
    public String startEntry(int entry) {
        String refusal = list.leads() ? stateRefusal() : refusal();
        if (refusal == null && axis.state() != AxisState.STANDSTILL) {
            return "The axis moves. Stop it first.";
        }
        if (refusal != null) {
            return refusal;
        }
        if (entry < 0 || entry >= configuration.moves().entries().size()) {
            return configuration.moves().entries().isEmpty() ? "The move list is empty." : "The list has entries 0 to " + (configuration.moves().entries().size() - 1) + ".";
        }
        jogging = 0;
        axis.stepAside(true);
        list.start(entry);
        return null;
    }

    /** Goes on with the list where it was held. */
    public String goOn() {
        if (!list.leads()) {
            return "The move list does not run. Start an entry first.";
        }
        list.goOn();
        return null;
    }

    /** The list holds after each entry, or runs through. */
    public String stepwise(boolean now) {
        list.stepwise(now);
        return null;
    }

    /** Ramps down to a standstill; a list that runs is held. Never refused. */
    public String halt(long now) {
        jogging = 0;
        if (list.leads()) {
            list.hold();
            return null;
        }
        if (encoder.leads()) {
            encoder.letGo();
            return null;
        }
        Dynamics d = configuration.limits().normal();
        if (axis.state() == AxisState.DISCRETE_MOTION || axis.state() == AxisState.CONTINUOUS_MOTION || axis.state() == AxisState.SYNCHRONIZED_MOTION) {
            axis.halt(command, d.deceleration(), d.jerk(), BY_HAND, CallPlace.NONE, now);
        } else if (axis.state() == AxisState.HOMING) {
            axis.power(false);
        }
        return null;
    }

    /** Clears errors of axis and drive. */
    public String reset() {
        if (axis.state() != AxisState.ERROR_STOP) {
            return "There is no error to reset.";
        }
        axis.power(false);
        axis.reset();
        return null;
    }

    /** @param factor 0.01 to 1 of the default speed, for the orders that follow */
    public String override(double factor) {
        if (!(factor >= 0.01 && factor <= 1)) {
            return "An override is 1 to 100 %.";
        }
        override = factor;
        return null;
    }

    public double override() {
        return override;
    }

    /** The axis stands, so that it can be switched off without a jerk. */
    public boolean stands() {
        return axis.state() != AxisState.DISCRETE_MOTION && axis.state() != AxisState.CONTINUOUS_MOTION && axis.state() != AxisState.SYNCHRONIZED_MOTION && !list.runs() && !list.moves() && !encoder.moves();
    }

    /** Why nothing else can be ordered; a list that stands is given back. */
    private String refusal() {
        String refusal = stateRefusal();
        if (refusal == null && list.leads()) {
            if (list.runs() || list.moves()) {
                return "The move list runs. Hold it first.";
            }
            list.end();
            axis.stepAside(false);
        }
        if (refusal == null && encoder.leads()) {
            if (encoder.moves()) {
                return "The axis follows its master encoder. Let it go first.";
            }
            encoder.end();
            axis.stepAside(false);
        }
        return refusal;
    }

    private String stateRefusal() {
        return switch (axis.state()) {
            case DISABLED -> "The axis is not enabled. Enable it first.";
            case ERROR_STOP -> "The axis has an error. Reset it first.";
            case HOMING -> "The axis is searching its zero. Wait or stop it.";
            case STOPPING -> "The axis is stopping.";
            default -> null;
        };
    }
}
