package rueda.guard;

import rueda.machine.SafetyFunction;
import rueda.machine.StopRules;
import rueda.machine.StopRules.Restart;
import rueda.machine.StopRules.Watch;

/**
 * The watch over one axis, once in every cycle of the guard.
 *
 * <p>A stop goes from its request through a delay and a ramp to standstill. Safe stop 1 then closes the brake and takes the torque; safe stop 2
 * keeps the torque and watches the place. Torque off wins over safe stop 1, that over safe stop 2; of two safe stops 2 the one that was asked first
 * leads, and once it stands the other's window counts where only that is still asked. A stop that has begun is carried through, also where its request goes.
 * A stop that wins over another leaves the watch of that one in force until its own ramp begins, so that no delay opens a gap.
 *
 * <p><b>Limits.</b> With v₀ the speed at which the ramp begins, t the time since, a the flattest and b the steepest deceleration:
 * max(v₀ − b·t, 0) ≤ |v| ≤ max(v₀ − a·t, speed of standstill). What is gone beyond a limit is added up, ∫(|v| − limit) dt, and begins again where
 * the limit is kept; it counts where it is more than the filter distance.
 *
 * <p><b>How sure.</b> Speed is counts per cycle, so it is the mean since the last cycle and known to one count; that one count is always allowed.
 * Torque is off in the cycle in which the sum is beyond the filter distance: where the limit is broken for good, within two cycles after
 * that (one in which only a part of the cycle was beyond, one in which all was).
 *
 * <p>No allocation; not thread-safe.
 */
public final class AxisWatch {

    /** Counts a cycle that the speed is not known to; a little more, so that a limit which is kept exactly is kept. */
    private static final double ONE_COUNT = 1 + 1e-9;

    /** What is watched, whatever leads. */
    private enum Watched { NOTHING, RAMP, PLACE }

    private final GuardRules rules;
    /** in counts per cycle and counts, of the stop whose watch is in force */
    private final Limits limits = new Limits();
    private final double speedLimit;
    private final double speedFilter;
    private final int speedDelay;

    private long counts;
    private long countsBefore;
    private boolean begun;
    private boolean acknowledgedBefore;

    private SafetyFunction leading;
    private GuardPhase phase = GuardPhase.FREE;
    /** cycles since the phase began */
    private int inPhase;

    private Watched watched = Watched.NOTHING;
    private double speedAtRamp;
    private int inRamp;
    private long anchor;
    private double above;
    private double below;
    private int limitedFor;
    /** bits of functions that limit speed or direction now */
    private int limiting;
    private double aboveLimit;
    private double wrongWay;

    private Breach breach = Breach.NONE;
    private double breachSpeed;
    private double breachLimit;
    private long breachCounts;

    public AxisWatch(GuardRules rules) {
        this.rules = rules;
        speedLimit = rules.countsPerCycle(rules.speed().limit());
        speedFilter = rules.counts(rules.speed().filterDistance());
        speedDelay = rules.cycles(rules.speed().delay());
    }

    /** Rules of a stop as the watch needs them. */
    private final class Limits {
        private StopRules of;
        private double steepest;
        private double flattest;
        private double standstill;
        private double filter;
        private double window;

        private void take(SafetyFunction which) {
            StopRules stop = rules.of(which);
            of = stop;
            steepest = rules.countsPerCycleSquared(stop.steepest());
            flattest = rules.countsPerCycleSquared(stop.flattest());
            standstill = rules.countsPerCycle(stop.standstillSpeed());
            filter = rules.counts(stop.filterDistance());
            /* safe stop 1 only waits for its torque to go */
            window = which == SafetyFunction.SAFE_STOP_1 ? Double.POSITIVE_INFINITY : rules.counts(stop.window());
        }
    }

    /**
     * One cycle.
     *
     * @param encoder     counts of the guard's own encoder channel
     * @param asked       bits of the {@link SafetyFunction}s that are asked for
     * @param acknowledge level of the input; its edge counts
     */
    public void cycle(long encoder, int asked, boolean acknowledge) {
        countsBefore = begun ? counts : encoder;
        counts = encoder;
        begun = true;
        boolean acknowledged = acknowledge && !acknowledgedBefore;
        acknowledgedBefore = acknowledge;
        release(asked, acknowledged);
        lead(asked);
        advance();
        limiting = 0;
        if (phase.torque()) {
            watch();
            watchSpeed(asked);
        }
    }

    /** Motion is allowed again, or the window of another stop counts. */
    private void release(int asked, boolean acknowledged) {
        if (SafetyFunction.stopIn(asked)) {
            if (phase == GuardPhase.STANDING && !leading.in(asked)) {
                SafetyFunction next = SafetyFunction.winner(asked);
                if (next.rank() == leading.rank()) {
                    leading = next;
                    limits.take(next);
                }
            }
            return;
        }
        boolean over = phase == GuardPhase.STANDING || phase == GuardPhase.OFF;
        if (phase == GuardPhase.TRIPPED && acknowledged || over && (acknowledged || restart() == Restart.AUTOMATIC)) {
            leading = null;
            breach = Breach.NONE;
            watched = Watched.NOTHING;
            enter(GuardPhase.FREE);
        }
    }

    /** Torque off has no rules of its own: it is over as safe stop 1 is. */
    private Restart restart() {
        return (leading == SafetyFunction.SAFE_TORQUE_OFF ? rules.stop1() : rules.of(leading)).restart();
    }

    private void lead(int asked) {
        SafetyFunction wanted = SafetyFunction.winner(asked);
        if (wanted == null || phase == GuardPhase.TRIPPED || leading != null && wanted.rank() <= leading.rank()) {
            return;
        }
        boolean off = phase == GuardPhase.OFF;
        leading = wanted;
        if (off) {
            return;
        }
        enter(GuardPhase.DELAY);
        if (wanted == SafetyFunction.SAFE_TORQUE_OFF) {
            off(GuardPhase.OFF);
        }
    }

    /** The phases that pass by themselves. */
    private void advance() {
        if (phase == GuardPhase.DELAY && inPhase >= rules.cycles(rules.of(leading).delay())) {
            limits.take(leading);
            above = 0;
            below = 0;
            if (leading == SafetyFunction.SAFE_OPERATING_STOP) {
                stand();
                enter(GuardPhase.STANDING);
            } else {
                watched = Watched.RAMP;
                speedAtRamp = Math.abs(counts - countsBefore);
                inRamp = 0;
                enter(GuardPhase.RAMP);
            }
        }
        if (watched == Watched.RAMP && ramped()) {
            stand();
        }
        if (phase == GuardPhase.RAMP && watched == Watched.PLACE) {
            enter(leading == SafetyFunction.SAFE_STOP_1 ? GuardPhase.CLOSING : GuardPhase.STANDING);
        }
        if (phase == GuardPhase.CLOSING && inPhase >= rules.cycles(rules.stop1().torqueDelay())) {
            off(GuardPhase.OFF);
        }
        /* where it waits for something else than time, time does not count: a guard that rests does not change */
        inPhase += phase == GuardPhase.DELAY || phase == GuardPhase.RAMP || phase == GuardPhase.CLOSING ? 1 : 0;
    }

    /** It stands, or its time is over. */
    private boolean ramped() {
        return limits.of.watch() == Watch.TIME ? inRamp >= rules.cycles(limits.of.time()) : Math.abs(counts - countsBefore) <= limits.standstill;
    }

    private void stand() {
        watched = Watched.PLACE;
        anchor = counts;
        above = 0;
        below = 0;
    }

    private void enter(GuardPhase next) {
        phase = next;
        inPhase = 0;
    }

    private void off(GuardPhase how) {
        enter(how);
        watched = Watched.NOTHING;
    }

    private void watch() {
        double speed = Math.abs(counts - countsBefore);
        if (watched == Watched.RAMP) {
            if (limits.of.watch() == Watch.RAMP) {
                double highest = Math.max(speedAtRamp - limits.flattest * inRamp, limits.standstill);
                double lowest = limits.steepest == 0 ? 0 : Math.max(speedAtRamp - limits.steepest * inRamp, 0);
                above = beyond(above, speed - highest);
                below = beyond(below, lowest - speed);
                if (above > limits.filter) {
                    trip(Breach.FASTER_THAN_RAMP, speed, highest);
                } else if (below > limits.filter) {
                    trip(Breach.SLOWER_THAN_RAMP, speed, lowest);
                }
            }
            inRamp++;
        } else if (watched == Watched.PLACE) {
            above = beyond(above, speed - limits.standstill);
            if (Math.abs(counts - anchor) > limits.window) {
                trip(Breach.LEFT_WINDOW, speed, limits.window);
            } else if (above > limits.filter) {
                trip(Breach.NOT_STANDING, speed, limits.standstill);
            }
        }
    }

    /** What has been gone beyond a limit; one count is what the speed is not known to. */
    private static double beyond(double before, double by) {
        return by > ONE_COUNT ? before + by : 0;
    }

    private void watchSpeed(int asked) {
        long moved = counts - countsBefore;
        limitedFor = SafetyFunction.SAFELY_LIMITED_SPEED.in(asked) ? Math.min(speedDelay, limitedFor) + 1 : 0;
        aboveLimit = limitedFor > speedDelay ? beyond(aboveLimit, Math.abs(moved) - speedLimit) : 0;
        limiting = limitedFor > speedDelay ? SafetyFunction.SAFELY_LIMITED_SPEED.bit() : 0;
        limiting |= asked & (SafetyFunction.SAFE_DIRECTION_POSITIVE.bit() | SafetyFunction.SAFE_DIRECTION_NEGATIVE.bit());
        boolean positive = SafetyFunction.SAFE_DIRECTION_POSITIVE.in(asked);
        boolean negative = SafetyFunction.SAFE_DIRECTION_NEGATIVE.in(asked);
        long along = rules.unitsPerCount() < 0 ? -moved : moved;
        long wrong = Math.max(positive ? -along : 0, negative ? along : 0);
        wrongWay = positive || negative ? Math.max(0, wrongWay + (wrong > 0 ? wrong : -Math.abs(along))) : 0;
        if (!phase.torque()) {
            return;
        }
        if (aboveLimit > speedFilter) {
            trip(Breach.FASTER_THAN_LIMIT, Math.abs(moved), speedLimit);
        } else if (wrongWay > speedFilter + 1) {
            trip(Breach.WRONG_DIRECTION, Math.abs(moved), 0);
        }
    }

    /** @param speed counts per cycle  @param limit counts per cycle, or counts for a place */
    private void trip(Breach what, double speed, double limit) {
        breach = what;
        breachCounts = counts;
        double perUnit = Math.abs(rules.unitsPerCount());
        double perSecond = perUnit / (rules.cycleNanos() * 1e-9);
        breachSpeed = speed * perSecond;
        breachLimit = limit * (what == Breach.LEFT_WINDOW ? perUnit : perSecond);
        off(GuardPhase.TRIPPED);
    }

    public GuardPhase phase() {
        return phase;
    }

    /** The stop that leads, or null. */
    public SafetyFunction leading() {
        return leading;
    }

    /**
     * The functions in force, a bit for each: the stop that leads, safe operating stop where it is standing that is watched, safe torque off once the torque is gone, and those that limit speed or
     * direction from the end of their delay.
     */
    public int inForce() {
        int force = leading == null ? 0 : leading.bit();
        force |= phase == GuardPhase.STANDING ? SafetyFunction.SAFE_OPERATING_STOP.bit() : 0;
        force |= phase.torque() ? 0 : SafetyFunction.SAFE_TORQUE_OFF.bit();
        return force | limiting;
    }

    /** The drive may have torque. */
    public boolean torque() {
        return phase.torque();
    }

    /** The brake may be open (safe brake control): it closes at the latest when the torque goes. */
    public boolean brakeMayOpen() {
        return phase.torque() && !(phase == GuardPhase.CLOSING && inPhase > rules.cycles(rules.stop1().brakeDelay()));
    }

    /** The control is asked to bring the axis to rest, and to keep it there. */
    public boolean asksToStop() {
        return phase != GuardPhase.FREE;
    }

    /** Which limit was broken first since the last acknowledge. */
    public Breach breach() {
        return breach;
    }

    /** How fast the axis was then, units/s. */
    public double breachSpeed() {
        return breachSpeed;
    }

    /** The limit that was broken: units/s, or units for the window. */
    public double breachLimit() {
        return breachLimit;
    }

    /** Where the axis was then, counts. */
    public long breachCounts() {
        return breachCounts;
    }
}
