package rueda.machine;

import io.soabase.recordbuilder.core.RecordBuilder;
import java.math.BigDecimal;
import java.util.List;

/**
 * One entry of a move list: a sentence with slots. Every slot has a value; those that its kind does not use mean nothing and are kept, so
 * that choosing another kind and coming back loses nothing.
 *
 * @param name         empty for none
 * @param kind         the sentence
 * @param position     GO_TO: where, units, exact as typed
 * @param distance     GO_BY: how far, units, exact as typed; TO_MARK: from the mark to the place where the axis stops, with the sign of the way
 * @param way          GO_TO on an endless axis: which way
 * @param speed        units/s; 0 for the axis' default. RUN: with the sign of the direction. CHANGE_SPEED: by how much, negative for slower
 * @param acceleration units/s²; 0 for the axis' default
 * @param deceleration units/s²; 0 for the axis' default
 * @param jerk         units/s³; 0 for the axis' default
 * @param cue          RUN, CHANGE_SPEED, TURN_ROUND: until it comes; AWAIT: what is waited for; TO_MARK: its probe
 * @param windowFrom   TO_MARK: way from the start of the entry from which a mark counts, units
 * @param windowTo     TO_MARK: way from the start of the entry up to which a mark counts, units, with the sign of the direction
 * @param output       OUTPUT: number of the list output, 1 to {@value #OUTPUTS}
 * @param on           OUTPUT: the level it gets
 * @param entry        REPEAT: where the stretch that is repeated begins; TO_MARK: what is run when no mark comes, {@value MoveList#AS_ASKED} to stand there
 * @param times        REPEAT: how often the stretch is run altogether, 1 to 1 000 000
 * @param end          how the entry ends
 * @param rest         time before what {@code end} says, s; WAIT: how long
 * @param next         GO_ON: the entry that follows
 * @param awaits       AWAIT_CUE: what the axis awaits
 */
@RecordBuilder
public record MoveEntry(String name, Kind kind, BigDecimal position, BigDecimal distance, Way way, double speed, double acceleration, double deceleration, double jerk,
                        Cue cue, double windowFrom, double windowTo, int output, boolean on, int entry, int times, End end, double rest, int next, Cue awaits) implements MoveEntryBuilder.With {

    /** Outputs that entries set and clear. */
    public static final int OUTPUTS = 4;

    /** What an entry does. */
    public enum Kind {
        GO_TO("go to"),
        GO_BY("go by"),
        RUN("run at"),
        CHANGE_SPEED("run on, faster by"),
        TURN_ROUND("turn round and run on"),
        TO_MARK("go on to a mark"),
        FIND_ZERO("find the zero"),
        OUTPUT("switch an output"),
        WAIT("wait for a time"),
        AWAIT("wait for a cue"),
        IN_POSITION("wait until in position"),
        REPEAT("repeat from");

        private final String words;

        Kind(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }

        /** The slots of the sentence that this kind uses, by their names in the document, in the order in which they are read. */
        public List<String> slots() {
            return switch (this) {
                case GO_TO -> List.of("position", "way", "speed", "acceleration", "deceleration", "jerk");
                case GO_BY -> List.of("distance", "speed", "acceleration", "deceleration", "jerk");
                case RUN, CHANGE_SPEED -> List.of("speed", "cue", "acceleration", "deceleration", "jerk");
                case TURN_ROUND -> List.of("cue", "acceleration", "deceleration", "jerk");
                case TO_MARK -> List.of("cue", "windowFrom", "windowTo", "distance", "entry", "speed", "acceleration", "deceleration", "jerk");
                case OUTPUT -> List.of("output", "on");
                case WAIT -> List.of("rest");
                case AWAIT -> List.of("cue");
                case REPEAT -> List.of("entry", "times");
                case FIND_ZERO, IN_POSITION -> List.of();
            };
        }

        /** It makes a setpoint that moves. */
        public boolean moves() {
            return switch (this) {
                case GO_TO, GO_BY, RUN, CHANGE_SPEED, TURN_ROUND, TO_MARK -> true;
                default -> false;
            };
        }

        /** It runs until a cue comes. */
        public boolean runs() {
            return this == RUN || this == CHANGE_SPEED || this == TURN_ROUND;
        }
    }

    /** Which way an endless axis goes to a position. */
    public enum Way {
        SHORTEST("by the shorter way"),
        FORWARD("forward"),
        BACK("back"),
        AS_IT_MOVES("as it moved last");

        private final String words;

        Way(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    /** What comes after an entry. */
    public enum End {
        REST("rest"),
        AWAIT_CUE("await a cue, then the next entry"),
        GO_ON("go on to"),
        PASS("pass on to the next entry");

        private final String words;

        End(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    private static MoveEntry plain(Kind kind) {
        return new MoveEntry("", kind, BigDecimal.ZERO, BigDecimal.ZERO, Way.SHORTEST, 0, 0, 0, 0, Cue.NEVER, 0, 0, 1, true, MoveList.AS_ASKED, 1, End.REST, 0, 0, Cue.NEVER);
    }

    /** Goes to a position at the axis' defaults and rests there. @param position units */
    public static MoveEntry goTo(String position) {
        return plain(Kind.GO_TO).withPosition(new BigDecimal(position));
    }

    /** Goes by a distance at the axis' defaults and rests there. @param distance units */
    public static MoveEntry goBy(String distance) {
        return plain(Kind.GO_BY).withDistance(new BigDecimal(distance));
    }

    /** Runs at a speed until a cue comes. @param speed units/s with its sign */
    public static MoveEntry run(double speed, Cue until) {
        return plain(Kind.RUN).withSpeed(speed).withCue(until);
    }

    /** Finds the zero as the stage Home says. */
    public static MoveEntry findZero() {
        return plain(Kind.FIND_ZERO);
    }

    /** Sets or clears an output and goes on at once. @param output 1 to {@value #OUTPUTS} */
    public static MoveEntry output(int output, boolean on, int next) {
        return plain(Kind.OUTPUT).withOutput(output).withOn(on).thenGoOn(next, 0);
    }

    /** Runs the stretch from an entry up to here so often altogether, then goes on. */
    public static MoveEntry repeat(int from, int times, int next) {
        return plain(Kind.REPEAT).withEntry(from).withTimes(times).thenGoOn(next, 0);
    }

    /** Goes on until a mark, and stops so far after it. @param to way within which the mark must come, units */
    public static MoveEntry toMark(Terminal.Function probe, double from, double to, String after) {
        return plain(Kind.TO_MARK).withCue(Cue.of(probe, Cue.Edge.RISING)).withWindowFrom(from).withWindowTo(to).withDistance(new BigDecimal(after));
    }

    /** An entry of another kind that has no more to say. */
    public static MoveEntry of(Kind kind) {
        return plain(kind);
    }

    /** Goes on to another entry after a rest. @param rest s */
    public MoveEntry thenGoOn(int entry, double rest) {
        return withEnd(End.GO_ON).withNext(entry).withRest(rest);
    }

    /** Passes on to the next entry without standing. */
    public MoveEntry thenPass() {
        return withEnd(End.PASS);
    }

    /** Awaits a cue and goes on to the next entry. */
    public MoveEntry thenAwait(Cue awaited) {
        return withEnd(End.AWAIT_CUE).withAwaits(awaited);
    }

    /** It switches an output and goes straight on to the entry behind it. @param number its own */
    boolean switchedOnTheWay(int number) {
        return kind == Kind.OUTPUT && (end == End.PASS || end == End.GO_ON && next == number + 1 && rest == 0);
    }

    /** Speed as the entry gives it, or the axis' default, units/s; without sign. */
    public double speedOr(Dynamics normal) {
        return speed == 0 ? normal.speed() : Math.abs(speed);
    }

    /** Acceleration as the entry gives it, or the axis' default, units/s². */
    public double accelerationOr(Dynamics normal) {
        return acceleration == 0 ? normal.acceleration() : acceleration;
    }

    /** Deceleration as the entry gives it, or the axis' default, units/s². */
    public double decelerationOr(Dynamics normal) {
        return deceleration == 0 ? normal.deceleration() : deceleration;
    }

    /** Jerk as the entry gives it, or the axis' default, units/s³; 0 for no limit. */
    public double jerkOr(Dynamics normal) {
        return jerk == 0 ? normal.jerk() : jerk;
    }
}
