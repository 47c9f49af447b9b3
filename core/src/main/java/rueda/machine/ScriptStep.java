package rueda.machine;

import io.soabase.recordbuilder.core.RecordBuilder;
import java.util.List;

/**
 * One sentence of a script: when, what happens, and for how long. Slots that it does not use are null.
 *
 * @param start   when it begins
 * @param time    s: the instant, the time after {@code when} became true, or the period; 0 or more
 * @param when    a sentence about one instant over the signals of the run, in Structured Text
 * @param does    what happens
 * @param target  a tag, a variable of the program, or an input of an axis such as {@code Shuttle.I8}
 * @param value   what it gets, an expression in Structured Text
 * @param axis    name of the axis
 * @param amount  number of what happens: N along the line or N·m at the last shaft, user units, kg or kg·m²
 * @param mistake what breaks
 * @param ending  for how long
 * @param lasts   s, greater than 0
 * @param until   a sentence about one instant
 * @param request name of a request to the guards
 */
@RecordBuilder
public record ScriptStep(Start start, Double time, String when, Does does, String target, String value, String axis, Double amount, Mistake mistake, Ending ending, Double lasts, String until, String request) implements ScriptStepBuilder.With {

    /** When a sentence begins. */
    public enum Start {
        AT("at", "{time}"),
        /** Once. */
        WHEN("when", "{when} becomes true, {time} later"),
        EACH("each time", "{when} becomes true, {time} later"),
        EVERY("every", "{time}");

        private final String words;
        private final String pattern;

        Start(String words, String pattern) {
            this.words = words;
            this.pattern = pattern;
        }

        public String words() {
            return words;
        }

        /** What follows its words, with slots in braces: {@link SentenceSlots}. */
        public String pattern() {
            return pattern;
        }
    }

    /** What happens. */
    public enum Does {
        SET("set", "{target} to {value}", true),
        /** Every quick-stop input opens, as the contacts of a button do. */
        STOP("press stop", "", true),
        PUSH("push the load of", "{axis} with {amount}", true),
        TURN("turn by hand", "{axis} by {amount}", false),
        LOAD("change the load of", "{axis} to {amount}", true),
        OFF("switch off the device of", "{axis}", true),
        POWER_LOSS("take the power from all devices", "", true),
        RESTART("restart the device of", "{axis}", false),
        BREAK("break something at", "{axis}: {mistake}", true),
        /** Both channels of the request open. */
        ASK("ask the guards by", "{request}", true),
        /** Only the first of its channels opens, as where a contact sticks or a wire is broken. */
        CHANNEL("open only the first channel of", "{request}", true),
        /** The button is pressed; the guards take its edge. */
        ACKNOWLEDGE("acknowledge the guards", "", true);

        private final String words;
        private final String pattern;
        private final boolean lasts;

        Does(String words, String pattern, boolean lasts) {
            this.words = words;
            this.pattern = pattern;
            this.lasts = lasts;
        }

        public String words() {
            return words;
        }

        public String pattern() {
            return pattern;
        }

        /** It goes on for a time, and has an {@link Ending}. */
        public boolean lasts() {
            return lasts;
        }

        /** How it can end; nothing of what does not last. */
        public List<Ending> endings() {
            return !lasts ? List.of() : this == SET ? List.of(Ending.values()) : List.of(Ending.FOR_GOOD, Ending.FOR, Ending.UNTIL);
        }

        /** Unit of its amount: along a line, or turning; {@code u} stands for the user unit. */
        public String unit(boolean linear) {
            return switch (this) {
                case PUSH -> linear ? "N" : "N·m";
                case LOAD -> linear ? "kg" : "kg·m²";
                case TURN -> "u";
                default -> "";
            };
        }
    }

    /** For how long it goes on. */
    public enum Ending {
        /** What is set may change at once. */
        ONCE("once", ""),
        FOR_GOOD("for good", ""),
        FOR("for", "{lasts}"),
        UNTIL("until", "{until} becomes true");

        private final String words;
        private final String pattern;

        Ending(String words, String pattern) {
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

    private static ScriptStep of(Does does) {
        return new ScriptStep(Start.AT, 0.0, null, does, null, null, null, null, null, Ending.FOR_GOOD, null, null, null);
    }

    /** At the begin, for good. @param value an expression in Structured Text */
    public static ScriptStep set(String target, String value) {
        return of(Does.SET).withTarget(target).withValue(value);
    }

    /** At the begin, for good. */
    public static ScriptStep stop() {
        return of(Does.STOP);
    }

    /** At the begin, for good. */
    public static ScriptStep powerLoss() {
        return of(Does.POWER_LOSS);
    }

    /** At the begin, for good. @param request name of it */
    public static ScriptStep ask(String request) {
        return of(Does.ASK).withRequest(request);
    }

    /** At the begin, for good. */
    public static ScriptStep acknowledge() {
        return of(Does.ACKNOWLEDGE);
    }

    /** At the begin, for good. @param amount see {@link Does#unit} */
    public static ScriptStep of(Does does, String axis, double amount) {
        return of(does).withAxis(axis).withAmount(amount);
    }

    /** At the begin, for good. */
    public static ScriptStep of(Does does, String axis) {
        return of(does).withAxis(axis);
    }

    /** At the begin, for good. */
    public static ScriptStep breaks(String axis, Mistake mistake) {
        return of(Does.BREAK).withAxis(axis).withMistake(mistake);
    }

    /** @param seconds s */
    public ScriptStep at(double seconds) {
        return withStart(Start.AT).withTime(seconds);
    }

    /** Once. @param seconds s after it has become true */
    public ScriptStep when(String condition, double seconds) {
        return withStart(Start.WHEN).withWhen(condition).withTime(seconds);
    }

    /** @param seconds s after it has become true */
    public ScriptStep eachTime(String condition, double seconds) {
        return withStart(Start.EACH).withWhen(condition).withTime(seconds);
    }

    /** @param seconds s */
    public ScriptStep lasting(double seconds) {
        return withEnding(Ending.FOR).withLasts(seconds);
    }

    public ScriptStep until(String condition) {
        return withEnding(Ending.UNTIL).withUntil(condition);
    }

    /** Slots that it uses, in the order in which they are read. */
    public List<String> slots() {
        return SentenceSlots.of(start.pattern() + does.pattern() + (does.lasts() ? ending.pattern() : ""));
    }
}
