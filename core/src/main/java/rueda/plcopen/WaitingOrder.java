package rueda.plcopen;

import java.util.function.LongConsumer;
import rueda.machine.Dynamics;
import rueda.plc.run.CallPlace;
import rueda.profile.StoppingWay;

/**
 * The order that begins when the running one is done, or where its target is passed. One per axis, filled again and again. No allocation; not
 * thread-safe.
 */
final class WaitingOrder {

    /** s: as long as an order at a speed is thought to go on */
    private static final double FAR = 1e6;

    /** What waits: a move to a place, by a distance, at a speed, or something else, which begins when the running order is done and never blends. */
    enum Kind { TO, BY, AT_SPEED, OTHER }

    Kind kind;
    /** null while nothing waits */
    MotionCommand command;
    BufferMode mode;
    /** position or distance, user units */
    double wanted;
    Direction direction;
    double speed;
    double acceleration;
    double deceleration;
    double jerk;
    String block;
    CallPlace call;
    /** how {@link Kind#OTHER} begins, told the time, ns */
    LongConsumer beginning;

    boolean stands() {
        return command != null;
    }

    void fill(Kind what, MotionCommand by, BufferMode when, double value, Direction way, double wantedSpeed, double a, double d, double j, String instance, CallPlace from) {
        kind = what;
        command = by;
        mode = when;
        wanted = value;
        direction = way;
        speed = wantedSpeed;
        acceleration = a;
        deceleration = d;
        jerk = j;
        block = instance;
        call = from;
        by.begin(MotionCommand.Status.WAITING);
    }

    void fillOther(MotionCommand by, BufferMode when, LongConsumer begin, String instance, CallPlace from) {
        fill(Kind.OTHER, by, when, 0, Direction.SHORTEST, 0, 0, 0, 0, instance, from);
        beginning = begin;
    }

    /** It is not carried out. */
    void drop(MotionCommand.Status how, MotionError reason) {
        if (stands()) {
            command.status = how;
            command.error = reason;
            command = null;
        }
    }

    /**
     * The speed with which the target of the running move is passed: what the mode says, as far as the running one can reach it and this one
     * can be stopped in its way; 0 when this one goes the other way, or would end outside the soft limits.
     *
     * @param target    of the running move, user units
     * @param sign      of its way
     * @param previous  its speed, units/s
     * @param reachable the highest speed that it can have there, units/s
     * @return units/s with its sign
     */
    double passingSpeed(double target, double sign, double previous, double reachable, boolean endless, ProgramPlaces places) {
        if (kind == Kind.OTHER) {
            return 0;
        }
        Dynamics normal = places.limits().normal();
        double next = speed == 0 && kind != Kind.AT_SPEED ? normal.speed() : speed;
        double turned = direction == Direction.NEGATIVE ? -next : next;
        double way = switch (kind) {
            case BY -> wanted;
            case TO -> endless ? places.range().target(wanted, direction, target, target, sign < 0) - target : wanted - target;
            case AT_SPEED, OTHER -> endless ? turned * FAR : (turned < 0 ? places.limits().softMin() : places.limits().softMax()) - target;
        };
        if (sign == 0 || Math.signum(way) != sign || kind == Kind.AT_SPEED && Math.signum(turned) != sign) {
            return 0;
        }
        double end = target + way;
        if (!endless && (end < places.limits().softMin() - places.halfWireUnit() || end > places.limits().softMax() + places.halfWireUnit())) {
            return 0;
        }
        double braking = deceleration != 0 ? deceleration : acceleration != 0 ? acceleration : normal.deceleration();
        double stoppable = StoppingWay.speedWithin(Math.abs(way), braking, jerk == 0 ? normal.jerk() : jerk);
        double wantedThere = Math.min(mode.between(Math.abs(previous), Math.abs(next)), places.limits().max().speed());
        return sign * Math.min(wantedThere, Math.min(stoppable, reachable));
    }
}
