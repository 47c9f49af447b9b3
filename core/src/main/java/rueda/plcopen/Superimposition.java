package rueda.plcopen;

import rueda.machine.Limits;
import rueda.plc.run.CallPlace;
import rueda.profile.MotionProfile;

/**
 * MC_MoveSuperimposed and MC_HaltSuperimposed of PLCopen Motion Control part 1: a move by a distance that is added to whatever moves the axis, its
 * target, its speed or its master.
 * <pre>  setpoint = that of the running motion + way of the addition  </pre>
 * The addition goes in whole wire units, and each cycle everything that is a place of the running motion is moved by what it has gone
 * ({@link #step}); its speed and acceleration are only lent to the setpoint ({@link #takeOut}, {@link #putIn}), so that the running motion can
 * be planned anew meanwhile.
 *
 * <p>Orders may allocate; stepping does not. Not thread-safe.
 */
final class Superimposition {

    private final MotionAxis axis;
    private final AxisSetpoint setpoint;
    private final ProgramPlaces places;
    private final double cycleSeconds;
    private final double wireUnitsPerUnit;
    private final MotionProfile profile = new MotionProfile();
    private final double[] sample = new double[3];
    private double elapsed;
    /** what the addition has gone since it was ordered, wire units */
    private long gone;
    /** of the addition now, units/s and units/s² */
    private double velocity;
    private double acceleration;
    private boolean runs;
    private boolean lent;
    private MotionCommand moving;
    /** whose way it is that has been gone */
    private MotionCommand owner;
    private MotionCommand halting;
    /** the axis stood, so that the order became a move of its own */
    private MotionCommand alone;
    private double aloneFrom;

    Superimposition(MotionAxis axis, AxisSetpoint setpoint, ProgramPlaces places, double cycleSeconds, double wireUnitsPerUnit) {
        this.axis = axis;
        this.setpoint = setpoint;
        this.places = places;
        this.cycleSeconds = cycleSeconds;
        this.wireUnitsPerUnit = wireUnitsPerUnit;
    }

    /* ---- orders ---- */

    /**
     * Adds a distance to the running motion; an axis that stands makes it as a move of its own. Zero speed, acceleration, deceleration or jerk
     * mean the axis' default, of the speed no more than what the running motion leaves.
     *
     * @param distance units, from where the addition began  @param speed units/s beside that of the running motion
     */
    void move(MotionCommand command, double distance, double speed, double acceleration, double deceleration, double jerk, String block, CallPlace call, long now) {
        if (axis.state() == AxisState.STANDSTILL || alone == command && command.busy()) {
            moveAlone(command, distance, speed, acceleration, deceleration, jerk, block, call, now);
            return;
        }
        Limits limits = places.limits();
        double running = Math.max(Math.abs(setpoint.velocity - (lent ? velocity : 0)), axis.orderedSpeed());
        double v = speed == 0 ? Math.min(limits.normal().speed(), limits.max().speed() - running) : speed;
        double a = acceleration == 0 ? limits.normal().acceleration() : acceleration;
        double d = deceleration == 0 ? acceleration == 0 ? limits.normal().deceleration() : a : deceleration;
        double j = jerk == 0 ? limits.normal().jerk() : jerk;
        MotionError refusal = axis.cannotAdd();
        if (refusal == MotionError.NONE) {
            refusal = !Double.isFinite(distance) || !places.fits(distance) || !(v > 0) || v + running > limits.max().speed() || bad(a, d, j, limits) ? MotionError.BAD_VALUE
                    : axis.leadsOutside(distance - (moving == command ? gone / wireUnitsPerUnit : 0)) ? MotionError.PAST_SOFT_LIMIT : MotionError.NONE;
        }
        if (refusal != MotionError.NONE) {
            refuse(command, refusal, distance, block, call, now);
            return;
        }
        boolean again = runs && moving == command;
        if (!again) {
            give(moving, MotionCommand.Status.ABORTED);
            give(halting, MotionCommand.Status.ABORTED);
            gone = 0;
        }
        owner = command;
        alone = alone == command ? null : alone;
        profile.plan(gone / wireUnitsPerUnit, velocity, this.acceleration, distance, 0, v, a, d, j);
        begin(command, null);
        axis.log(now, call, CommandLog.Kind.ADD, block, distance, v, a, d, j, profile.duration());
    }

    private void moveAlone(MotionCommand command, double distance, double speed, double acceleration, double deceleration, double jerk, String block, CallPlace call, long now) {
        boolean again = alone == command && command.busy();
        double from = again ? aloneFrom : setpoint.position;
        axis.moves().move(command, from - setpoint.position + distance, true, Direction.SHORTEST, BufferMode.ABORTING, speed, acceleration, deceleration, jerk, block, call, now);
        alone = command;
        aloneFrom = from;
    }

    /** Brings the addition to rest; the running motion goes on. Done at once where nothing is added. */
    void halt(MotionCommand command, double deceleration, double jerk, String block, CallPlace call, long now) {
        Limits limits = places.limits();
        double d = deceleration == 0 ? limits.normal().deceleration() : deceleration;
        double j = jerk == 0 ? limits.normal().jerk() : jerk;
        MotionError refusal = axis.closed() != MotionError.NONE ? axis.closed() : bad(d, d, j, limits) ? MotionError.BAD_VALUE : MotionError.NONE;
        if (refusal != MotionError.NONE) {
            refuse(command, refusal, Double.NaN, block, call, now);
            return;
        }
        if (!runs) {
            if (alone != null && alone.busy()) {
                axis.halt(command, deceleration, jerk, block, call, now);
            } else {
                command.begin(MotionCommand.Status.DONE);
            }
            return;
        }
        give(moving, MotionCommand.Status.ABORTED);
        if (halting != command) {
            give(halting, MotionCommand.Status.ABORTED);
        }
        profile.planVelocity(gone / wireUnitsPerUnit, velocity, acceleration, 0, d, j);
        begin(null, command);
        axis.log(now, call, CommandLog.Kind.HALT, block, Double.NaN, 0, 0, d, j, profile.duration());
    }

    private void begin(MotionCommand move, MotionCommand halt) {
        moving = move;
        halting = halt;
        (move != null ? move : halt).begin(MotionCommand.Status.ACTIVE);
        elapsed = 0;
        lent |= !runs;
        runs = true;
    }

    private static boolean bad(double a, double d, double j, Limits limits) {
        return !(a > 0) || a > limits.max().acceleration() || !(d > 0) || d > limits.max().deceleration() || !(j >= 0) || limits.max().jerk() > 0 && j > limits.max().jerk();
    }

    /** What runs goes on; when the same block ordered it, without that block. */
    private void refuse(MotionCommand command, MotionError reason, double value, String block, CallPlace call, long now) {
        moving = moving == command ? null : moving;
        halting = halting == command ? null : halting;
        axis.refuse(command, reason, block, call, now, value);
    }

    private static void give(MotionCommand command, MotionCommand.Status how) {
        if (command != null) {
            command.status = how;
        }
    }

    /* ---- cycle by cycle ---- */

    /** Something is added. */
    boolean runs() {
        return runs;
    }

    /** What is left in the setpoint is the running motion alone. */
    void takeOut() {
        if (runs && lent) {
            setpoint.velocity -= velocity;
            setpoint.acceleration -= acceleration;
            lent = false;
        }
    }

    /** The setpoint is that of both again. */
    void putIn() {
        if (runs && !lent) {
            setpoint.velocity += velocity;
            setpoint.acceleration += acceleration;
            lent = true;
        }
    }

    /** One bus cycle, the addition taken out. @return by how much every place of the running motion has moved, user units, whole wire units */
    double step() {
        elapsed += cycleSeconds;
        profile.sample(elapsed, sample);
        long before = gone;
        gone = (long) Math.rint(sample[0] * wireUnitsPerUnit);
        velocity = sample[1];
        acceleration = sample[2];
        return (gone - before) / wireUnitsPerUnit;
    }

    /** It has come to its end. */
    boolean ended() {
        return elapsed >= profile.duration();
    }

    /** It is no more: at its end, or because another order has taken over both, which begins with the speed of both. */
    void end(MotionCommand.Status moved, MotionCommand.Status halted, MotionError reason) {
        if (!runs) {
            return;
        }
        putIn();
        end(moving, moved, reason);
        end(halting, halted, reason);
        moving = null;
        halting = null;
        velocity = 0;
        acceleration = 0;
        runs = false;
    }

    private static void end(MotionCommand command, MotionCommand.Status how, MotionError reason) {
        if (command != null) {
            command.status = how;
            command.error = reason;
        }
    }

    /** The way that was added for an order, also after its end until something else is added, user units. */
    double covered(MotionCommand command) {
        return alone == command ? setpoint.position - aloneFrom : owner == command ? gone / wireUnitsPerUnit : 0;
    }

    /** Every place has another number. @param by user units */
    void renumbered(double by) {
        aloneFrom += by;
    }
}
