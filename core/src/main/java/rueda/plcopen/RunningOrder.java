package rueda.plcopen;

import rueda.profile.StoppingWay;

/**
 * The move or the speed that an axis was ordered last, kept so that it can be planned anew: at another override, or because another order
 * waits at its target. No allocation; not thread-safe.
 */
final class RunningOrder {

    private final ProfileGenerator profile;
    private final AxisSetpoint setpoint;
    private final ProgramPlaces places;
    private final boolean endless;

    /** user units; NaN where the motion has no target */
    double target = Double.NaN;
    /** where its distance counts from, user units */
    double origin;
    /** units/s; of a speed with its sign */
    double speed;
    private double acceleration;
    private double deceleration;
    private double jerk;
    /** it runs at a speed toward the soft limit of an axis with ends */
    boolean toSoftLimit;
    /** speed at the target, where another order begins, units/s with its sign; 0 to stand there */
    private double through;
    /** speed at which it goes on behind its target, units/s with its sign; NaN where it ends there */
    private double behind = Double.NaN;

    RunningOrder(ProfileGenerator profile, AxisSetpoint setpoint, ProgramPlaces places, boolean endless) {
        this.profile = profile;
        this.setpoint = setpoint;
        this.places = places;
        this.endless = endless;
    }

    /** Another one; the axis stands at its target. */
    void take(double to, double wantedSpeed, double a, double d, double j) {
        none();
        target = to;
        speed = wantedSpeed;
        acceleration = a;
        deceleration = d;
        jerk = j;
    }

    /** What runs from now on has no target, and cannot be planned anew. */
    void none() {
        target = Double.NaN;
        through = 0;
        behind = Double.NaN;
        toSoftLimit = false;
    }

    boolean aims() {
        return !Double.isNaN(target);
    }

    /** Behind its target it goes on. */
    boolean runsOn() {
        return !Double.isNaN(behind);
    }

    /** From now on it goes on behind its target, which it passes at that speed where both have the same direction. @param wanted units/s with its sign */
    void runOnAt(double wanted, double override) {
        behind = wanted;
        double way = Math.signum(target - setpoint.position);
        through = way * wanted > 0 ? way * Math.min(Math.abs(wanted), speed) : 0;
        planMove(override);
    }

    /** The target is behind: the speed is all that is left of the order. @param ends the axis has ends that it knows */
    void beyondTarget(boolean ends, double override) {
        double wanted = behind;
        take(wanted < 0 ? places.limits().softMin() : places.limits().softMax(), wanted, acceleration, deceleration, jerk);
        toSoftLimit = wanted != 0 && ends;
        planVelocity(override);
    }

    boolean passes() {
        return through != 0;
    }

    void renumbered(double by) {
        target += by;
        origin += by;
    }

    /** Another order waits: the target is passed as fast as its mode says and both allow, and the move planned anew where that changes it. */
    void passInto(WaitingOrder waiting, double override) {
        if (runsOn() || !waiting.mode.blends() && !passes()) {
            return;
        }
        double way = target - setpoint.position;
        double fromRest = StoppingWay.speedWithin(Math.abs(way), acceleration, jerk);
        double reachable = setpoint.acceleration == 0 ? Math.max(fromRest, Math.abs(setpoint.velocity)) : fromRest;
        through = waiting.passingSpeed(target, Math.signum(way), speed, reachable, endless, places);
        planMove(override);
    }

    /** Plans the move from where the axis is; at an override of 0 it comes to rest and the order stays. */
    void planMove(double override) {
        if (override == 0) {
            profile.run(0, deceleration, jerk);
            return;
        }
        double top = speed * override;
        if (passes() && profile.moveThrough(places.limits(), endless, places.halfWireUnit(), target, through * override, top, acceleration, deceleration, jerk)) {
            return;
        }
        through = 0;
        if (endless) {
            profile.move(target, top, acceleration, deceleration, jerk);
        } else {
            profile.moveInside(places.limits(), places.halfWireUnit(), target, top, acceleration, deceleration, jerk);
        }
    }

    /** Plans the speed from where the axis is. */
    void planVelocity(double override) {
        double wanted = speed * override;
        if (toSoftLimit && wanted != 0) {
            profile.moveInside(places.limits(), places.halfWireUnit(), target, Math.abs(wanted), acceleration, deceleration, jerk);
        } else {
            boolean slower = Math.abs(wanted) < Math.abs(setpoint.velocity);
            profile.run(wanted, slower ? deceleration : acceleration, jerk);
        }
    }
}
