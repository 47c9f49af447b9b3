package rueda.plcopen;

import java.util.function.LongConsumer;
import rueda.machine.Dynamics;
import rueda.plc.run.CallPlace;

/**
 * What function blocks and a person order of an axis that moves by itself: to a place, by a distance, at a speed; and what waits behind the
 * running order. Orders may allocate; what they order does not. Not thread-safe.
 */
final class MoveOrders {

    private final MotionAxis axis;
    private final RunningOrder order;
    private final WaitingOrder waiting;
    private final ProfileGenerator profile;
    private final AxisSetpoint setpoint;
    private final ProgramPlaces places;
    private final EndlessRange range;
    private final boolean endless;

    MoveOrders(MotionAxis axis, RunningOrder order, WaitingOrder waiting, ProfileGenerator profile, AxisSetpoint setpoint, ProgramPlaces places, boolean endless) {
        this.axis = axis;
        this.order = order;
        this.waiting = waiting;
        this.profile = profile;
        this.setpoint = setpoint;
        this.places = places;
        range = places.range();
        this.endless = endless;
    }

    /** The waiting order begins. */
    void beginWaiting(long now) {
        MotionCommand command = waiting.command;
        WaitingOrder w = waiting;
        w.command = null;
        switch (w.kind) {
            case TO, BY -> moveNow(command, w.wanted, w.kind == WaitingOrder.Kind.BY, w.direction, w.speed, w.acceleration, w.deceleration, w.jerk, w.block, w.call, now);
            case AT_SPEED -> velocityNow(command, w.speed, w.acceleration, w.deceleration, w.jerk, w.direction, w.block, w.call, now);
            case OTHER -> w.beginning.accept(now);
        }
        if (command.status == MotionCommand.Status.FAILED && axis.state() != AxisState.STANDSTILL) {
            axis.halt(axis.ownerless(), 0, 0, w.block, w.call, now);
        }
    }

    /**
     * Whether an order does not begin now: because it waits for the running one, or is refused.
     *
     * @param mode null for a value that is none
     */
    private boolean waits(WaitingOrder.Kind kind, MotionCommand command, BufferMode mode, double wanted, Direction direction, double speed, double acceleration, double deceleration, double jerk,
                          String block, CallPlace call, long now) {
        if (beginsAtOnce(command, mode)) {
            return false;
        }
        MotionError refusal = cannotWait(command, mode);
        if (refusal == MotionError.NONE && kind != WaitingOrder.Kind.AT_SPEED && axis.state() == AxisState.DISCRETE_MOTION && axis.aims()) {
            double target = direction == null ? Double.NaN : kind == WaitingOrder.Kind.BY ? order.target + wanted : wanted;
            refusal = refusal(target, speed == 0 ? places.limits().normal().speed() : speed, acceleration, deceleration, jerk);
        }
        if (refusal != MotionError.NONE) {
            axis.refuse(command, refusal, block, call, now, wanted);
            return true;
        }
        waiting.fill(kind, command, mode, wanted, direction, speed, acceleration, deceleration, jerk, block, call);
        axis.blend();
        return true;
    }

    private boolean beginsAtOnce(MotionCommand command, BufferMode mode) {
        boolean runs = axis.state() == AxisState.DISCRETE_MOTION || axis.state() == AxisState.CONTINUOUS_MOTION || axis.state() == AxisState.HOMING || axis.state() == AxisState.SYNCHRONIZED_MOTION;
        return mode != null && (mode == BufferMode.ABORTING || !runs || axis.runs(command));
    }

    private MotionError cannotWait(MotionCommand command, BufferMode mode) {
        return mode == null ? MotionError.BAD_VALUE : axis.closed() != MotionError.NONE ? axis.closed() : axis.makesTorque() ? MotionError.NOT_IN_THIS_STATE
                : waiting.stands() && waiting.command != command ? MotionError.ORDER_WAITS : MotionError.NONE;
    }

    /** The same for what is no move. @param begin how it begins in the end, told the time, ns */
    boolean waits(MotionCommand command, BufferMode mode, LongConsumer begin, String block, CallPlace call, long now) {
        if (beginsAtOnce(command, mode)) {
            return false;
        }
        MotionError refusal = cannotWait(command, mode);
        if (refusal != MotionError.NONE) {
            axis.refuse(command, refusal, block, call, now, Double.NaN);
        } else {
            waiting.fillOther(command, mode, begin, block, call);
        }
        return true;
    }

    /**
     * Starts a move. Zero speed, acceleration, deceleration or jerk mean the axis' default.
     *
     * @param direction way of an absolute move of an endless axis; null for a value that is none
     * @param mode      when it begins; null for a value that is none
     */
    void move(MotionCommand command, double wanted, boolean relative, Direction direction, BufferMode mode, double speed, double acceleration, double deceleration, double jerk, String block, CallPlace call, long now) {
        if (!waits(relative ? WaitingOrder.Kind.BY : WaitingOrder.Kind.TO, command, mode, wanted, direction, speed, acceleration, deceleration, jerk, block, call, now)) {
            moveNow(command, wanted, relative, direction, speed, acceleration, deceleration, jerk, block, call, now);
        }
    }

    /** Other values of a move by a distance that runs: the distance counts from where it counted before. */
    void moveAgain(MotionCommand command, double distance, BufferMode mode, double speed, double acceleration, double deceleration, double jerk, String block, CallPlace call, long now) {
        double wanted = axis.runs(command) ? order.origin + distance - setpoint.position : distance;
        double origin = order.origin;
        move(command, wanted, true, Direction.SHORTEST, mode, speed, acceleration, deceleration, jerk, block, call, now);
        order.origin = axis.runs(command) ? origin : order.origin;
    }

    /** Takes over whatever runs. */
    private void moveNow(MotionCommand command, double wanted, boolean relative, Direction direction, double wantedSpeed, double accelerationLimit, double decelerationLimit,
                         double jerkLimit, String block, CallPlace call, long now) {
        Dynamics normal = places.limits().normal();
        double speed = wantedSpeed == 0 ? normal.speed() : wantedSpeed;
        double a = accelerationLimit == 0 ? normal.acceleration() : accelerationLimit;
        double d = decelerationLimit == 0 ? accelerationLimit == 0 ? normal.deceleration() : a : decelerationLimit;
        double j = jerkLimit == 0 ? normal.jerk() : jerkLimit;
        boolean finite = d > 0 && j >= 0 && Double.isFinite(wanted);
        double target = direction == null || !finite ? Double.NaN : relative ? setpoint.position + wanted : reach(wanted, direction, d, j);
        MotionError refusal = direction == null ? MotionError.BAD_VALUE : refusal(target, speed, accelerationLimit, decelerationLimit, jerkLimit);
        if (refusal != MotionError.NONE) {
            axis.refuse(command, refusal, block, call, now, target);
            return;
        }
        order.take(target, speed, a, d, j);
        order.origin = target - wanted;
        order.planMove(axis.override());
        axis.accept(command, AxisState.DISCRETE_MOTION);
        axis.log(now, call, CommandLog.Kind.MOVE, block, target, speed, a, d, j, profile.duration());
    }

    /**
     * Starts a move that goes on behind its target.
     *
     * @param behind       speed there, units/s; its sign turns the direction round
     * @param behindTo     direction there; CURRENT is that of the move; null for a value that is none
     */
    void moveAndRunOn(MotionCommand command, double wanted, boolean relative, Direction direction, double behind, Direction behindTo, BufferMode mode, double speed, double acceleration, double deceleration, double jerk,
                      String block, CallPlace call, long now) {
        if (!waits(command, mode, begin -> runOnNow(command, wanted, relative, direction, behind, behindTo, speed, acceleration, deceleration, jerk, block, call, begin), block, call, now)) {
            runOnNow(command, wanted, relative, direction, behind, behindTo, speed, acceleration, deceleration, jerk, block, call, now);
        }
    }

    private void runOnNow(MotionCommand command, double wanted, boolean relative, Direction direction, double behind, Direction behindTo, double speed, double acceleration, double deceleration, double jerk, String block, CallPlace call, long now) {
        if (behindTo == null || !(Math.abs(behind) <= places.limits().max().speed())) {
            axis.refuse(command, axis.closed() != MotionError.NONE ? axis.closed() : MotionError.BAD_VALUE, block, call, now, behind);
            return;
        }
        moveNow(command, wanted, relative, direction, speed, acceleration, deceleration, jerk, block, call, now);
        if (axis.runs(command)) {
            double way = order.target < setpoint.position ? -1 : 1;
            double sign = behindTo == Direction.NEGATIVE ? -1 : behindTo == Direction.POSITIVE ? 1 : way;
            order.runOnAt(sign * behind, axis.override());
        }
    }

    /** Distance from the target of the running move, or from where the axis is commanded to be. */
    void moveAdditive(MotionCommand command, double distance, BufferMode mode, double speed, double acceleration, double deceleration, double jerk, String block, CallPlace call, long now) {
        if (!waits(WaitingOrder.Kind.BY, command, mode, distance, Direction.SHORTEST, speed, acceleration, deceleration, jerk, block, call, now)) {
            double from = axis.state() == AxisState.DISCRETE_MOTION && axis.aims() ? order.target : setpoint.position;
            moveNow(command, from - setpoint.position + distance, true, Direction.SHORTEST, speed, acceleration, deceleration, jerk, block, call, now);
            order.origin = axis.runs(command) ? from : order.origin;
        }
    }

    /**
     * Runs at a speed until something else is ordered. An axis with ends that knows where it is runs no farther than its soft limit, and the
     * order fails there.
     *
     * @param wantedSpeed units/s, its sign turns the direction round
     * @param direction   null for a value that is none
     * @param mode        when it begins; null for a value that is none
     */
    void moveVelocity(MotionCommand command, double wantedSpeed, double acceleration, double deceleration, double jerk, Direction direction, BufferMode mode, String block, CallPlace call, long now) {
        if (!waits(WaitingOrder.Kind.AT_SPEED, command, mode, 0, direction, wantedSpeed, acceleration, deceleration, jerk, block, call, now)) {
            velocityNow(command, wantedSpeed, acceleration, deceleration, jerk, direction, block, call, now);
        }
    }

    private void velocityNow(MotionCommand command, double wantedSpeed, double accelerationLimit, double decelerationLimit, double jerkLimit, Direction direction, String block, CallPlace call, long now) {
        Dynamics normal = places.limits().normal();
        double a = accelerationLimit == 0 ? normal.acceleration() : accelerationLimit;
        double d = decelerationLimit == 0 ? accelerationLimit == 0 ? normal.deceleration() : a : decelerationLimit;
        double j = jerkLimit == 0 ? normal.jerk() : jerkLimit;
        int sign = direction == Direction.NEGATIVE || direction == Direction.CURRENT && setpoint.velocity < 0 ? -1 : 1;
        double speed = sign * wantedSpeed;
        Dynamics max = places.limits().max();
        boolean bad = direction == null || !(Math.abs(speed) <= max.speed()) || !(a > 0) || a > max.acceleration() || !(d > 0) || d > max.deceleration() || !(j >= 0) || max.jerk() > 0 && j > max.jerk();
        boolean unfit = axis.state() == AxisState.HOMING || axis.state() == AxisState.STOPPING || axis.state() == AxisState.ERROR_STOP;
        MotionError refusal = axis.closed() != MotionError.NONE ? axis.closed() : unfit ? MotionError.NOT_IN_THIS_STATE : bad ? MotionError.BAD_VALUE : MotionError.NONE;
        if (refusal != MotionError.NONE) {
            axis.refuse(command, refusal, block, call, now, Double.NaN);
            return;
        }
        order.take(speed < 0 ? places.limits().softMin() : places.limits().softMax(), speed, a, d, j);
        order.toSoftLimit = speed != 0 && !endless && axis.referenced();
        order.planVelocity(axis.override());
        axis.accept(command, AxisState.CONTINUOUS_MOTION);
        axis.log(now, call, CommandLog.Kind.MOVE, block, Double.NaN, speed, a, d, j, profile.duration());
    }

    /** Runs on at a speed until something else is ordered. @param speed units/s with its sign */
    void jog(MotionCommand command, double speed, double accelerationLimit, double jerkLimit, String block, long now) {
        order.take(Double.NaN, speed, accelerationLimit, accelerationLimit, jerkLimit);
        profile.run(speed, accelerationLimit, jerkLimit);
        axis.accept(command, AxisState.CONTINUOUS_MOTION);
        axis.log(now, CallPlace.NONE, CommandLog.Kind.MOVE, block, Double.NaN, speed, accelerationLimit, accelerationLimit, jerkLimit, profile.duration());
    }

    /** A move that a person orders: unlike one of the program it may be made before the axis knows where it is. */
    void moveByHand(MotionCommand command, double wanted, boolean relative, double speed, Dynamics d, String block, long now) {
        double target = relative ? setpoint.position + wanted : reach(wanted, Direction.SHORTEST, d.deceleration(), d.jerk());
        axis.fullOverride();
        order.take(target, speed, d.acceleration(), d.deceleration(), d.jerk());
        profile.move(target, speed, d.acceleration(), d.deceleration(), d.jerk());
        axis.accept(command, AxisState.DISCRETE_MOTION);
        axis.log(now, CallPlace.NONE, CommandLog.Kind.MOVE, block, target, speed, d.acceleration(), d.deceleration(), d.jerk(), profile.duration());
    }

    private MotionError refusal(double target, double speed, double a, double d, double j) {
        Dynamics max = places.limits().max();
        if (axis.closed() != MotionError.NONE) {
            return axis.closed();
        }
        if (axis.state() == AxisState.HOMING || axis.state() == AxisState.STOPPING || axis.state() == AxisState.ERROR_STOP) {
            return MotionError.NOT_IN_THIS_STATE;
        }
        if (!axis.referenced()) {
            return axis.referenceLost() ? MotionError.REFERENCE_LOST : MotionError.NOT_REFERENCED;
        }
        boolean bad = !(speed > 0) || speed > max.speed() || !(a >= 0) || a > max.acceleration() || !(d >= 0)
                || d > max.deceleration() || !(j >= 0) || max.jerk() > 0 && j > max.jerk() || Double.isNaN(target);
        if (bad) {
            return MotionError.BAD_VALUE;
        }
        boolean outside = !endless && (target < places.limits().softMin() || target > places.limits().softMax());
        return outside ? MotionError.PAST_SOFT_LIMIT : MotionError.NONE;
    }

    /** The target of an absolute move, on an endless axis as it is counted on. */
    double reach(double target, Direction direction, double deceleration, double jerkLimit) {
        double rest = endless ? axis.restPosition(deceleration, jerkLimit) : 0;
        return range.target(target, direction, setpoint.position, rest, setpoint.velocity < 0);
    }
}
