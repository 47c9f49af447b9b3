package rueda.advice;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import rueda.machine.Axis;
import rueda.machine.Dynamics;
import rueda.machine.MotorSide;
import rueda.machine.MoveEntry;
import rueda.machine.MoveEntry.End;
import rueda.machine.MoveEntry.Kind;
import rueda.machine.MoveEntry.Way;
import rueda.machine.MoveList;
import rueda.profile.MotionProfile;
import rueda.profile.StoppingWay;
import rueda.quantity.Scale;

/**
 * A move list as it will run, from one entry on: what moves when and where to, without a bench. Motions are the profiles that the drive
 * plans, from the same limits; cues come at once, so that the time between is the time that the list itself takes. A motion is at its end
 * when the axis has been in the position window for its dwell, which is looked at once a bus cycle.
 *
 * <p>A stretch that is repeated more than eight times is computed three times; the rounds that follow take as long as the last of them.
 *
 * @param from      entry with which it begins
 * @param stretches in the order of time
 * @param jumps     where it goes back
 * @param duration  until the list rests, awaits for ever or is back where it began, s
 * @param roundTime time of one round when it comes back to the entry with which it began, s; 0 when it does not
 * @param distance  way of a round, or of the whole list when it does not come back, units
 * @param waits     cues come in it, whose time is not counted
 * @param load      torque of it
 * @param end       why it ends
 * @param endsAt    entry where it ends
 */
public record ListPlan(int from, List<PlanStretch> stretches, List<PlanJump> jumps, double duration, double roundTime, double distance, boolean waits, PlanTorque load, Ending end, int endsAt) {

    /** Stretches that are drawn at most. */
    private static final int MOST = 1500;
    /** Points of a motion; fewer where many are drawn beside each other. */
    private static final int POINTS = 24;
    private static final int FEWEST_POINTS = 8;
    /** Points of all motions, about. */
    private static final int POINTS_OF_ALL = 1500;
    /** Points that can be told apart across the whole drawing. */
    private static final int POINTS_ACROSS = 700;
    private static final int SAMPLES = 48;
    private static final int DRAWN_ROUNDS = 3;
    private static final int DRAWN_WHOLE = 8;
    private static final int MOST_AT_ONCE = 300;
    /** A run until a cue is drawn for so long at speed, s. */
    private static final double SHOWN_RUN = 0.5;

    /** What a stretch is. */
    public enum What { MOVE, RUN, REST, DOOR, ZERO, SWITCH, REPEAT }

    /** Why a plan ends. */
    public enum Ending {
        RESTS("it rests"),
        ROUND("it is back at its first entry"),
        RUNS_ON("it runs on until another entry is started"),
        OUTSIDE("an entry would end outside the soft limits"),
        NO_REFERENCE("an entry goes to a position before the zero is known"),
        NOTHING_TIMED("entries follow one another without taking any time"),
        LONG("it goes on beyond what is drawn");

        private final String words;

        Ending(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    /**
     * A part of the plan.
     *
     * @param entry    its number
     * @param turn     how often the entry has been begun up to here, 1 for the first time
     * @param what     what it is
     * @param from     s since the start
     * @param to       s since the start
     * @param places   units, counted on beyond the modulo; at equal times from the begin to the end
     * @param peak     highest speed reached, units/s
     * @param wanted   speed asked for, units/s
     * @param cut      the way is too short for the speed, or the next entry makes it slower
     * @param torque   highest share of the torque that the motor has at that speed
     * @param rounds   REPEAT: how many rounds lie in it
     */
    public record PlanStretch(int entry, int turn, What what, double from, double to, double[] places, double peak, double wanted, boolean cut, double torque, int rounds) {
    }

    /** The list goes back. @param at when, s since the start  @param to when the entry began to which it goes, s */
    public record PlanJump(double at, double to) {
    }

    /**
     * @param peak        highest torque, N·m
     * @param available   N·m that the motor has at that speed
     * @param rms         over moves and rests, without the time until cues, N·m
     * @param entryAtPeak number of the entry with the highest share
     */
    public record PlanTorque(double peak, double available, double rms, int entryAtPeak) {
    }

    /** Time from the end of a setpoint until the entry counts as done, s: the dwell in the position window, looked at once a bus cycle. */
    public static double settling(Axis axis, int cycleMicros) {
        double cycle = cycleMicros * 1e-6;
        return Math.ceil(axis.supervision().positionDwell() * 1e-3 / cycle - 1e-9) * cycle + cycle;
    }

    /** @param from number of an entry  @param at where the axis stands as it begins, units  @param cycleMicros bus cycle */
    public static ListPlan of(Axis axis, int from, double at, int cycleMicros) {
        return new Run(axis, from, at, cycleMicros, true).plan();
    }

    /** The same without places and torque: how it ends and how long it takes. */
    static ListPlan sketch(Axis axis, int from, double at, int cycleMicros) {
        return new Run(axis, from, at, cycleMicros, false).plan();
    }

    /** One run of the list on paper. */
    private static final class Run {
        private final boolean drawn;
        private final Axis axis;
        private final MoveList list;
        private final Scale scale;
        private final Dynamics normal;
        private final MotorSide side;
        private final int first;
        private final double settling;
        private final long range;
        private final double perUnit;
        /** user units per motor turn, worked out once: it is asked for at every sample */
        private final double unitsPerTurn;
        private final int pointsOfEach;
        private final List<PlanStretch> stretches = new ArrayList<>();
        private final List<PlanJump> jumps = new ArrayList<>();
        /** when each entry began last, s; NaN before it did */
        private final double[] began;
        private final int[] turns;
        private final MotionProfile profile = new MotionProfile();
        private final double[] sample = new double[3];
        private double time;
        /** wire units beyond the modulo */
        private long place;
        private double speed;
        private double running;
        private int direction = 1;
        private double distance;
        private double squares;
        private double peak;
        private double available = 1;
        private double worst = -1;
        private int entryAtPeak = -1;
        private boolean waits;
        private boolean known;
        private final int[] rounds;
        private final double[] roundBegan;
        private final double[] roundDistance;
        private final double[] roundSquares;
        private final long[] roundPlace;

        Run(Axis axis, int from, double at, int cycleMicros, boolean drawn) {
            this.drawn = drawn;
            this.axis = axis;
            list = axis.moves();
            scale = axis.scale();
            normal = axis.limits().normal();
            side = axis.motorSide();
            first = from;
            settling = settling(axis, cycleMicros);
            range = axis.wireModulo();
            perUnit = scale.wireUnitsPerUnit();
            unitsPerTurn = scale.unitsPerMotorTurn().toDouble();
            pointsOfEach = Math.max(FEWEST_POINTS, Math.min(POINTS, POINTS_OF_ALL / Math.max(1, list.entries().size())));
            place = scale.wireFromUnits(at);
            rounds = new int[list.entries().size()];
            roundBegan = new double[rounds.length];
            began = new double[rounds.length];
            turns = new int[rounds.length];
            Arrays.fill(began, Double.NaN);
            roundDistance = new double[rounds.length];
            roundSquares = new double[rounds.length];
            roundPlace = new long[rounds.length];
            /* what is asked is how the list runs once it may: a list without FIND_ZERO is run on an axis that knows its place */
            known = list.entries().stream().noneMatch(e -> e.kind() == Kind.FIND_ZERO) || axis.homing().atPowerUp() != rueda.machine.Homing.AtPowerUp.NOTHING;
        }

        ListPlan plan() {
            int now = first;
            int atOnce = 0;
            double before = 0;
            while (true) {
                if (now >= list.entries().size()) {
                    return done(Ending.RESTS, list.entries().size() - 1, 0);
                }
                if (time > 0 && !Double.isNaN(began[now]) && began[now] < time) {
                    jumps.add(new PlanJump(time, began[now]));
                }
                if (!stretches.isEmpty() && now == first && Arrays.stream(rounds).allMatch(r -> r == 0)) {
                    return time > 0 ? done(Ending.ROUND, now, time) : done(Ending.NOTHING_TIMED, now, 0);
                }
                if (stretches.size() >= MOST) {
                    return done(Ending.LONG, now, 0);
                }
                atOnce = time > before ? 0 : atOnce + 1;
                before = time;
                if (atOnce > MOST_AT_ONCE) {
                    return done(Ending.NOTHING_TIMED, now, 0);
                }
                MoveEntry e = list.entries().get(now);
                turns[now]++;
                began[now] = e.kind() == Kind.REPEAT ? Double.NaN : time;
                if (e.kind() == Kind.REPEAT) {
                    if (again(now, e)) {
                        now = e.entry();
                        continue;
                    }
                } else {
                    Ending refused = act(now, e);
                    if (refused != null) {
                        return done(refused, now, 0);
                    }
                }
                if (e.end() == End.REST) {
                    rest(now, e);
                    return done(Ending.RESTS, now, 0);
                }
                if (e.end() != End.PASS) {
                    rest(now, e);
                }
                if (e.end() == End.AWAIT_CUE) {
                    door(now);
                }
                now = e.end() == End.GO_ON ? e.next() : now + 1;
            }
        }

        /** A stretch that is a sliver of the whole is drawn with fewer places: half as many, and again, at equal times still. */
        private PlanStretch thinned(PlanStretch s) {
            double worth = time > 0 ? (s.to() - s.from()) / time * POINTS_ACROSS : POINTS;
            int parts = s.places().length - 1;
            while (parts > 2 && parts % 2 == 0 && parts / 2 >= worth) {
                parts /= 2;
            }
            if (parts == s.places().length - 1) {
                return s;
            }
            double[] fewer = new double[parts + 1];
            int step = (s.places().length - 1) / parts;
            for (int i = 0; i <= parts; i++) {
                fewer[i] = s.places()[i * step];
            }
            return new PlanStretch(s.entry(), s.turn(), s.what(), s.from(), s.to(), fewer, s.peak(), s.wanted(), s.cut(), s.torque(), s.rounds());
        }

        private ListPlan done(Ending end, int at, double round) {
            double rms = time > 0 ? Math.sqrt(squares / time) : 0;
            return new ListPlan(first, stretches.stream().map(this::thinned).toList(), List.copyOf(jumps), time, round, distance, waits, new PlanTorque(peak, available, rms, entryAtPeak), end, at);
        }

        /** The end of a repeated stretch. @return it is run again */
        private boolean again(int number, MoveEntry e) {
            rounds[number]++;
            int left = e.times() - rounds[number];
            if (left <= 0) {
                rounds[number] = 0;
                return false;
            }
            if (e.times() > DRAWN_WHOLE && rounds[number] >= DRAWN_ROUNDS) {
                double took = time - roundBegan[number];
                long moved = place - roundPlace[number];
                double begun = time;
                double placed = units(place);
                distance += left * (distance - roundDistance[number]);
                squares += left * (squares - roundSquares[number]);
                time += left * took;
                place += left * moved;
                stretches.add(new PlanStretch(number, turns[number], What.REPEAT, begun, time, new double[] {placed, units(place)}, 0, 0, false, 0, left));
                rounds[number] = 0;
                return false;
            }
            roundBegan[number] = time;
            roundDistance[number] = distance;
            roundSquares[number] = squares;
            roundPlace[number] = place;
            return true;
        }

        /** What an entry does. @return why it cannot, or null */
        private Ending act(int number, MoveEntry e) {
            switch (e.kind()) {
                case OUTPUT -> level(number, What.SWITCH, 0);
                case WAIT -> level(number, What.REST, e.rest());
                case AWAIT -> door(number);
                case IN_POSITION -> {
                    if (speed == 0) {
                        level(number, What.REST, 0);
                    }
                }
                case FIND_ZERO -> {
                    level(number, What.ZERO, 0);
                    place = scale.wireFromUnits(axis.homing().zeroOffset());
                    known = true;
                    waits = true;
                }
                default -> {
                    return move(number, e);
                }
            }
            return null;
        }

        private Ending move(int number, MoveEntry e) {
            if (e.kind().runs()) {
                return run(number, e);
            }
            if (e.kind() == Kind.GO_TO && !known) {
                return Ending.NO_REFERENCE;
            }
            long target = switch (e.kind()) {
                case GO_TO -> axis.endless() ? place + way(e, scale.wireFromUnits(e.position())) : scale.wireFromUnits(e.position());
                case GO_BY -> place + scale.wireFromUnits(e.distance());
                default -> place + scale.wireFromUnits(e.windowTo());
            };
            long farthest = e.kind() == Kind.TO_MARK ? target + scale.wireFromUnits(e.distance()) : target;
            if (outside(target) || outside(farthest)) {
                return Ending.OUTSIDE;
            }
            double wanted = e.speedOr(normal);
            double passing = e.end() == End.PASS ? passing(number, e, target) : 0;
            follow(number, e, e.kind() == Kind.TO_MARK ? What.RUN : What.MOVE, target, passing, wanted);
            direction = target == place ? direction : target < place ? -1 : 1;
            place = target;
            speed = passing;
            if (e.kind() == Kind.TO_MARK) {
                waits = true;
            }
            settle(number, e);
            return null;
        }

        private void settle(int number, MoveEntry e) {
            if (e.end() != End.PASS && speed == 0) {
                level(number, What.REST, settling);
            }
        }

        private boolean outside(long wire) {
            if (axis.endless() || !known) {
                return false;
            }
            return wire < Math.min(scale.wireFromUnits(axis.limits().softMin()), place) || wire > Math.max(scale.wireFromUnits(axis.limits().softMax()), place);
        }

        private long way(MoveEntry e, long wanted) {
            long forward = Math.floorMod(wanted - place, range);
            Way way = e.way() == Way.AS_IT_MOVES ? direction < 0 ? Way.BACK : Way.FORWARD : e.way();
            return switch (way) {
                case SHORTEST -> forward > range / 2 ? forward - range : forward;
                case FORWARD -> forward;
                default -> forward == 0 ? 0 : forward - range;
            };
        }

        /** The speed with which the axis passes on: see the drive's own rule, which this is. */
        private double passing(int number, MoveEntry e, long target) {
            int next = list.passedInto(number);
            if (next < 0) {
                return 0;
            }
            MoveEntry after = list.entries().get(next);
            int sign = Long.signum(target - place);
            long wayAfter = switch (after.kind()) {
                case GO_BY -> scale.wireFromUnits(after.distance());
                case TO_MARK -> scale.wireFromUnits(after.windowTo()) + scale.wireFromUnits(after.distance());
                case GO_TO -> axis.endless() || !known ? 0 : scale.wireFromUnits(after.position()) - target;
                case RUN -> (long) Math.signum(after.speed()) * Long.MAX_VALUE / 8;
                case CHANGE_SPEED -> sign * Long.MAX_VALUE / 8;
                default -> 0;
            };
            if (sign == 0 || Long.signum(wayAfter) != sign || !after.kind().runs() && outside(target + wayAfter)) {
                return 0;
            }
            double limit = after.kind() == Kind.CHANGE_SPEED ? e.speedOr(normal) : after.speedOr(normal);
            double reachable = StoppingWay.speedWithin(Math.abs(target - place) / perUnit, e.accelerationOr(normal), e.jerkOr(normal));
            double stoppable = StoppingWay.speedWithin(Math.abs(wayAfter) / perUnit, after.decelerationOr(normal), after.jerkOr(normal));
            return sign * Math.min(Math.min(e.speedOr(normal), limit), Math.min(reachable, stoppable));
        }

        /** A run is drawn for a while at its speed; then its cue comes, if there is one. */
        private Ending run(int number, MoveEntry e) {
            double wanted = switch (e.kind()) {
                case RUN -> e.speed();
                case CHANGE_SPEED -> (speed == 0 ? direction : Math.signum(speed)) * Math.max(0, Math.min(axis.limits().max().speed(), Math.abs(speed) + e.speed()));
                default -> speed == 0 ? -direction * e.speedOr(normal) : -speed;
            };
            direction = wanted < 0 ? -1 : 1;
            running = wanted;
            boolean slower = Math.abs(wanted) < Math.abs(speed);
            profile.planVelocity(units(place), speed, 0, wanted, slower ? e.decelerationOr(normal) : e.accelerationOr(normal), e.jerkOr(normal));
            record(number, What.RUN, profile.duration() + SHOWN_RUN, Math.abs(wanted), false);
            place = scale.wireFromUnits(profile.position(profile.duration() + SHOWN_RUN));
            speed = wanted;
            waits = true;
            if (!e.cue().comes()) {
                return Ending.RUNS_ON;
            }
            if (e.end() != End.PASS) {
                profile.planVelocity(units(place), speed, 0, 0, e.decelerationOr(normal), e.jerkOr(normal));
                record(number, What.RUN, profile.duration(), Math.abs(running), false);
                place = scale.wireFromUnits(profile.position(profile.duration()));
                speed = 0;
                settle(number, e);
            }
            return null;
        }

        private void follow(int number, MoveEntry e, What what, long target, double passing, double wanted) {
            profile.plan(units(place), speed, 0, units(target), passing, wanted, e.accelerationOr(normal), e.decelerationOr(normal), e.jerkOr(normal));
            boolean cut = Math.abs(profile.peakVelocity()) < wanted * (1 - 1e-9) && target != place;
            record(number, what, profile.duration(), wanted, cut);
        }

        /** Draws the planned profile for a time, and adds up its torque. */
        private void record(int number, What what, double duration, double wanted, boolean cut) {
            int points = duration > 0 && drawn ? pointsOfEach : 0;
            double[] places = new double[points + 1];
            for (int i = 0; i <= points; i++) {
                double t = points == 0 ? 0 : duration * i / points;
                boolean between = i > 0 && i < points;
                /* between the ends to a wire unit: more digits only cost time on their way */
                places[i] = between ? Math.rint(profile.position(t) * perUnit) / perUnit : profile.position(t);
            }
            double share = 0;
            double fastest = 0;
            double dt = duration / SAMPLES;
            for (int k = 0; k < SAMPLES && points > 0; k++) {
                profile.sample((k + 0.5) * dt, sample);
                double torque = Math.abs(side.torque(sample[1], sample[2]));
                double there = Math.min(axis.torqueLimit(), axis.motor().peakTorqueAt(sample[1] * 60.0 / unitsPerTurn));
                squares += torque * torque * dt;
                fastest = Math.max(fastest, Math.abs(sample[1]));
                double now = there > 0 ? torque / there : Double.POSITIVE_INFINITY;
                share = Math.max(share, now);
                if (now > worst) {
                    worst = now;
                    peak = torque;
                    available = there;
                    entryAtPeak = number;
                }
            }
            fastest = Math.max(fastest, Math.min(wanted, Math.abs(profile.peakVelocity())));
            distance += Math.abs(places[points] - places[0]);
            stretches.add(new PlanStretch(number, turns[number], what, time, time + duration, places, fastest, wanted, cut, share, 0));
            time += duration;
        }

        private void rest(int number, MoveEntry e) {
            if (e.rest() > 0 && e.kind() != Kind.WAIT) {
                level(number, What.REST, e.rest());
            }
        }

        private void door(int number) {
            level(number, What.DOOR, 0);
            waits = true;
        }

        /** The axis stands; its motor holds the weight unless a brake does. A run that goes on meanwhile is drawn by its next entry. */
        private void level(int number, What what, double duration) {
            if (speed != 0 && what != What.SWITCH) {
                slowDown(number);
            }
            double held = axis.brake().fitted() ? 0 : Math.max(0, Math.abs(side.gravity()) - side.coulomb());
            squares += duration * held * held;
            double here = units(place);
            stretches.add(new PlanStretch(number, turns[number], what, time, time + duration, new double[] {here, here}, 0, 0, false, 0, 0));
            time += duration;
        }

        /** What does not move begins while the axis still does: it comes to rest meanwhile. */
        private void slowDown(int number) {
            MoveEntry e = list.entries().get(number);
            profile.planVelocity(units(place), speed, 0, 0, e.decelerationOr(normal), e.jerkOr(normal));
            speed = 0;
            record(number, What.RUN, profile.duration(), 0, false);
            place = scale.wireFromUnits(profile.position(profile.duration()));
        }

        private double units(long wire) {
            return wire / perUnit;
        }
    }
}
