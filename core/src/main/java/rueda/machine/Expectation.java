package rueda.machine;

import io.soabase.recordbuilder.core.RecordBuilder;
import java.util.ArrayList;
import java.util.List;

/**
 * One expectation of a proof: a sentence with slots. Slots that its kind does not use are null.
 *
 * <p>An <i>event</i> is a sentence about one instant that becomes true, such as the name of a BOOL of the program or {@code Shuttle.position > 1800};
 * at the begin of the run it counts when it is true there already.
 *
 * @param kind      the sentence
 * @param axis      name of the axis
 * @param after     event
 * @param position  user units
 * @param tolerance user units, greater than 0
 * @param within    s, greater than 0
 * @param stays     s, 0 or more
 * @param quantity  what is bounded
 * @param limit     units/s for speed, N·m for torque, units for following error and phase, % of rated or peak torque, ms of a task, the unit of what differs; greater than 0
 * @param text      an expression in Structured Text over the signals of the run, with functions for what happens over time
 * @param signal    a number made of the signals of the run, in Structured Text
 * @param low       in the unit of what it bounds; of a zone user units; of a count a whole number
 * @param high      the same, {@code low} or more
 * @param span      while what it has to be so
 * @param when      a sentence about one instant
 * @param then      event
 * @param atLeast   s, 0 or more
 * @param other     name of the other axis
 * @param otherLow  its user units
 * @param otherHigh its user units, {@code otherLow} or more
 * @param distance  from a zone, user units, 0 or more
 * @param end       how the axis stands at the end
 * @param recording name of a recording that was brought in
 * @param alignment how the recording is laid over the run
 */
@RecordBuilder
public record Expectation(Kind kind, String axis, String after, Double position, Double tolerance, Double within, Double stays, Quantity quantity, Double limit, String text, String signal, Double low,
                          Double high, Span span, String when, String then, Double atLeast, String other, Double otherLow, Double otherHigh, Double distance, End end, String recording, Alignment alignment) implements ExpectationBuilder.With {

    /** Longest text, characters. */
    public static final int LONGEST_TEXT = 1000;

    /** The kinds of sentence. */
    public enum Kind {
        ARRIVES("arrives somewhere in time", "{axis} arrives at {position} ± {tolerance} within {within} after {after} and stays {stays}"),
        BOUND("keeps a bound", "{axis} keeps its {quantity} at or below {limit} {span}"),
        BETWEEN("a value stays between two others", "{signal} stays between {low} and {high} {span}"),
        NEVER_BOTH("two axes never both in their zones", "Never both: {axis} between {low} and {high}, and {other} between {otherLow} and {otherHigh}; {distance} apart"),
        ORDER("one event before another", "{after} comes before {then}"),
        TIME("time from one event to another", "From {after} to {then} it takes {atLeast} to {within}"),
        COUNT("how often an event comes", "{then} comes {low} to {high} times"),
        VALUE_AT("a value at an event", "{signal} is between {low} and {high} each time {after} comes"),
        ENDS("how an axis ends", "{axis} is {end} at the end"),
        RMS_TORQUE("effective torque below rated", "Effective torque of {axis} at or below {limit} of its rated torque"),
        PEAK_TORQUE("peak torque below the motor's", "Torque of {axis} at or below {limit} of its motor's peak torque"),
        TASK_TIME("time that a task takes", "No task takes longer than {limit}"),
        NO_ERROR("no error", "{axis} and its function blocks report no error"),
        DIFFERS("as a recording within a tolerance", "{signal} differs from the recording {recording} by at most {limit}, {alignment}"),
        SENTENCE("a sentence of your own", "{text}");

        private final String words;
        private final String pattern;

        Kind(String words, String pattern) {
            this.words = words;
            this.pattern = pattern;
        }

        public String words() {
            return words;
        }

        /** The sentence, its slots in braces by the names of the entries: {@link SentenceSlots}. */
        public String pattern() {
            return pattern;
        }

        public List<String> slots() {
            return SentenceSlots.of(pattern);
        }

        /** Unit of a number in a slot, empty where it has none or it is that of a signal; {@code u} stands for the user unit of the axis, {@code v} for that of the other one. */
        public String unit(String slot) {
            return switch (slot) {
                case "within", "stays", "atLeast" -> "s";
                case "position", "tolerance", "distance" -> "u";
                case "low", "high" -> this == NEVER_BOTH ? "u" : "";
                case "otherLow", "otherHigh" -> "v";
                case "limit" -> switch (this) {
                    case RMS_TORQUE, PEAK_TORQUE -> "%";
                    case TASK_TIME -> "ms";
                    default -> "";
                };
                default -> "";
            };
        }
    }

    /** What a bound watches. */
    public enum Quantity {
        SPEED("speed", "u/s"),
        TORQUE("torque", "N·m"),
        FOLLOWING_ERROR("following error", "u"),
        PHASE("phase, once locked,", "u");

        private final String words;
        private final String unit;

        Quantity(String words, String unit) {
            this.words = words;
            this.unit = unit;
        }

        public String words() {
            return words;
        }

        /** {@code u} stands for the user unit of the axis. */
        public String unit() {
            return unit;
        }
    }

    /** While what something has to be so. */
    public enum Span {
        ALWAYS("all the time", ""),
        AFTER("for", "{within} after {after}"),
        WHILE("while", "{when}");

        private final String words;
        private final String pattern;

        Span(String words, String pattern) {
            this.words = words;
            this.pattern = pattern;
        }

        public String words() {
            return words;
        }

        public String pattern() {
            return pattern;
        }
    }

    /** How a recording is laid over a run. */
    public enum Alignment {
        AS_RECORDED("at its own times", ""),
        EVENT("laid where it first comes to", "{after}"),
        BEST_FIT("laid where it fits best", "");

        private final String words;
        private final String pattern;

        Alignment(String words, String pattern) {
            this.words = words;
            this.pattern = pattern;
        }

        public String words() {
            return words;
        }

        public String pattern() {
            return pattern;
        }
    }

    /** How an axis stands at the end of a run. */
    public enum End {
        AT_REST("at rest"),
        REFERENCED("referenced"),
        IN_POSITION("in position"),
        /** As the PLC sees it: it could be given an order. */
        READY("ready for an order"),
        OFF("without torque"),
        STOPPED_BY_AN_ERROR("stopped by an error");

        private final String words;

        End(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    private static Expectation of(Kind kind) {
        return new Expectation(kind, null, null, null, null, null, null, null, null, null, null, null, null, null, null, null, null, null, null, null, null, null, null, null);
    }

    public static Expectation arrives(String axis, double position, double tolerance, double within, String after, double stays) {
        return of(Kind.ARRIVES).withAxis(axis).withAfter(after).withPosition(position).withTolerance(tolerance).withWithin(within).withStays(stays);
    }

    /** All the time. */
    public static Expectation bound(String axis, Quantity quantity, double limit) {
        return of(Kind.BOUND).withAxis(axis).withQuantity(quantity).withLimit(limit).withSpan(Span.ALWAYS);
    }

    /** All the time. */
    public static Expectation between(String signal, double low, double high) {
        return of(Kind.BETWEEN).withSignal(signal).withLow(low).withHigh(high).withSpan(Span.ALWAYS);
    }

    public static Expectation neverBoth(String axis, double low, double high, String other, double otherLow, double otherHigh, double distance) {
        return of(Kind.NEVER_BOTH).withAxis(axis).withLow(low).withHigh(high).withOther(other).withOtherLow(otherLow).withOtherHigh(otherHigh).withDistance(distance);
    }

    public static Expectation order(String first, String then) {
        return of(Kind.ORDER).withAfter(first).withThen(then);
    }

    /** @param atLeast s  @param within s */
    public static Expectation time(String after, String then, double atLeast, double within) {
        return of(Kind.TIME).withAfter(after).withThen(then).withAtLeast(atLeast).withWithin(within);
    }

    public static Expectation count(String event, int low, int high) {
        return of(Kind.COUNT).withThen(event).withLow((double) low).withHigh((double) high);
    }

    public static Expectation valueAt(String signal, double low, double high, String event) {
        return of(Kind.VALUE_AT).withSignal(signal).withLow(low).withHigh(high).withAfter(event);
    }

    public static Expectation ends(String axis, End end) {
        return of(Kind.ENDS).withAxis(axis).withEnd(end);
    }

    /** @param percent of the rated torque */
    public static Expectation rmsTorque(String axis, double percent) {
        return of(Kind.RMS_TORQUE).withAxis(axis).withLimit(percent);
    }

    /** @param percent of the motor's peak torque */
    public static Expectation peakTorque(String axis, double percent) {
        return of(Kind.PEAK_TORQUE).withAxis(axis).withLimit(percent);
    }

    /** @param millis ms of the controller's time */
    public static Expectation taskTime(double millis) {
        return of(Kind.TASK_TIME).withLimit(millis);
    }

    public static Expectation noError(String axis) {
        return of(Kind.NO_ERROR).withAxis(axis);
    }

    public static Expectation sentence(String text) {
        return of(Kind.SENTENCE).withText(text);
    }

    /** @param limit in the unit of the signal */
    public static Expectation differs(String signal, String recording, double limit, Alignment alignment) {
        return of(Kind.DIFFERS).withSignal(signal).withRecording(recording).withLimit(limit).withAlignment(alignment);
    }

    /** Names of the slots of its sentence, with those that a chosen slot brings. */
    public List<String> slots() {
        List<String> slots = new ArrayList<>(kind.slots());
        if (slots.contains("span") && span != null) {
            slots.addAll(SentenceSlots.of(span.pattern()));
        }
        if (slots.contains("alignment") && alignment != null) {
            slots.addAll(SentenceSlots.of(alignment.pattern()));
        }
        return slots;
    }

    /** The same for a time after an event. @param seconds s */
    public Expectation after(double seconds, String event) {
        return withSpan(Span.AFTER).withWithin(seconds).withAfter(event);
    }

    /** The same while something holds. */
    public Expectation whenever(String condition) {
        return withSpan(Span.WHILE).withWhen(condition);
    }
}
