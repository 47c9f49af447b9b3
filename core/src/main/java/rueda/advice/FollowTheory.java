package rueda.advice;

import rueda.machine.Axis;
import rueda.machine.Following;
import rueda.profile.FollowerLock;

/**
 * Closed forms of a follower that is tied to a master at constant speed: how far it falls behind, how long it takes until it is locked.
 *
 * <p>With the speed v of its place, its acceleration a, the catch-up limit c (at most the speed that is left), the gain k and the window w:
 * <pre>
 *   up to speed:  t = v/a, lost way v²/(2a)
 *   made up:      up to v + c in c/a, gaining c²/(2a); then at c; from the way c²/(2a) + a/(2k²) on, down with a to a/k;
 *                 and the rest a/k² by e^(−kt) to w; to √(2a·(w − a/(2k²))) where the window is wider than that rest
 * </pre>
 * Where the way does not suffice to reach c, the top is that from which both ramps make it. Trapezoids as in {@link rueda.profile}.
 *
 * @param speed     of the place, units/s of the follower
 * @param comesUp   s until it has the speed
 * @param lost      units lost meanwhile
 * @param locked    s until it is locked; infinite when it never is
 * @param gap       units it stays behind at constant speed, because not all of the speed is fed forward
 */
public record FollowTheory(double speed, double comesUp, double lost, double locked, double gap) {

    /**
     * @param follower axis that follows
     * @param speed    of its place, units/s of the follower
     */
    public static FollowTheory of(Axis follower, double speed) {
        Following f = follower.following();
        double v = Math.abs(speed);
        double a = f.accelerationOr(follower.limits());
        double brake = Math.min(a, f.decelerationOr(follower.limits()));
        double most = f.speedOr(follower.limits());
        double gap = FollowerLock.gap((1 - f.feedForward() / 100) * v, f.gain(), brake);
        if (v > most) {
            return new FollowTheory(speed, Double.POSITIVE_INFINITY, Double.POSITIVE_INFINITY, Double.POSITIVE_INFINITY, Double.POSITIVE_INFINITY);
        }
        double up = v / a;
        double lost = v * v / (2 * a);
        double locked = switch (f.lock()) {
            case SPEED, LOOSE -> up;
            case POSITION -> lockedByPosition(lost, v, a, brake, Math.min(f.catchUp(), most - v), f.gain(), Math.max(f.phaseWindow(), 0.5 / follower.scale().wireUnitsPerUnit()), gap);
            case MEETING -> Double.NaN;
        };
        return new FollowTheory(speed, up, lost, locked, gap);
    }

    private static double lockedByPosition(double lost, double v, double a, double brake, double catchUp, double gain, double window, double gap) {
        double line = brake / (gain * gain);
        double toMakeUp = lost - gap;
        if (toMakeUp <= window) {
            return v / a;
        }
        if (catchUp <= 0) {
            return Double.POSITIVE_INFINITY;
        }
        /* only what is not fed forward is kept: the rest is made up by a trapezoid from the speed v on */
        double c = Math.min(catchUp, Math.sqrt((toMakeUp + (brake > 0 ? -line / 2 : 0)) * 2 * a * brake / (a + brake)));
        if (!(c > brake / gain)) {
            return v / a + Math.log(Math.max(1, toMakeUp / window)) / gain;
        }
        double rising = c * c / (2 * a);
        double braking = c * c / (2 * brake) + line / 2;
        double cruise = Math.max(0, toMakeUp - rising - braking) / c;
        /* a window wider than the straight line is reached while it still brakes */
        double end = window > line ? Math.min(c, Math.sqrt(2 * brake * (window - line / 2))) : brake / gain;
        return (v + c) / a + cruise + (c - end) / brake + Math.log(Math.max(1, line / window)) / gain;
    }

    /**
     * How far the load of a follower is behind that of its master at constant speed, when it is tied by position: what the lock leaves, the
     * delay of the master's value less what is foreseen of it, and the following error of its own loop. With setpoints the loop of the master
     * has one too, which the follower does not see: it counts the other way.
     * <pre>  gap + v·(delay − prediction) + e_follower(v) − ratio·e_master(v/ratio)  </pre>
     *
     * @param master      the axis that is followed, null for an encoder and for a virtual master
     * @param ratio       units of the follower for one of the master
     * @param masterSpeed units/s of the master
     * @param cycle       bus cycle, s
     * @return units of the follower, with the sign of its speed
     */
    public static double loadBehind(Axis follower, Axis master, double ratio, double masterSpeed, double cycle) {
        Following f = follower.following();
        double speed = ratio * masterSpeed;
        double late = FollowAdvice.delay(f.source(), cycle) - f.prediction() * 1e-3;
        double own = LinearModel.followingErrorAt(speed, follower.control());
        double masters = f.source() == Following.Source.SETPOINT && master != null ? ratio * LinearModel.followingErrorAt(masterSpeed, master.control()) : 0;
        return Math.copySign(of(follower, speed).gap(), speed) + speed * late + own - masters;
    }

    /** Time in which a way is made up at the catch-up limit, from the speed of the master and back to it, s; infinite without one. */
    public static double makesUp(Axis follower, double way) {
        Following f = follower.following();
        double a = Math.min(f.accelerationOr(follower.limits()), f.decelerationOr(follower.limits()));
        double c = f.catchUp();
        double size = Math.abs(way);
        return c <= 0 ? Double.POSITIVE_INFINITY : size >= c * c / a ? size / c + c / a : 2 * Math.sqrt(size / a);
    }
}
