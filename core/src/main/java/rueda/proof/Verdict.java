package rueda.proof;

import io.soabase.recordbuilder.core.RecordBuilder;
import rueda.advice.Finding;

/**
 * What became of one expectation.
 *
 * @param sentence what must be true, in words
 * @param holds    it was
 * @param limit    what was allowed, in {@code unit}; null for a sentence without one
 * @param measured what was measured, in {@code unit}; null when it never came to it
 * @param unit     unit of both
 * @param room     share of the limit left, negative when exceeded; null when nothing was measured
 * @param margin   the same in {@code unit}; null when nothing was measured, or only bits decide
 * @param time     worst place in the recording, s
 * @param from     failing or worst stretch, s
 * @param to       its end, s
 * @param signal   signal to look at
 * @param cause    why it failed, in words; null when it holds
 * @param order    the order of the program in force at that place, or null
 * @param mend     a change of the program that would mend it, or null
 * @param change   a change of the document that would mend it, or null
 */
@RecordBuilder
public record Verdict(String sentence, boolean holds, Double limit, Double measured, String unit, Double room, Double margin, double time,
                      double from, double to, String signal, String cause, Order order, Replacement mend, Finding.Mend change) implements VerdictBuilder.With {

    /** Nothing measured yet. */
    static Verdict of(String sentence, boolean holds) {
        return new Verdict(sentence, holds, null, null, "", null, null, 0, 0, 0, "", null, null, null, null);
    }

    /** It does not hold, because what it speaks of did not come about. @param end of the run, s */
    static Verdict nothingShown(String sentence, double end, String cause) {
        return of(sentence, false).withTime(end).withFrom(end).withTo(end).withCause(cause);
    }

    /** Between two bounds: the limit is the nearer one, the share is of what lies between them and the middle. */
    Verdict bounded(double value, double low, double high, String inUnit) {
        double left = Math.min(value - low, high - value);
        return withLimit(value - low < high - value ? low : high).withMeasured(value).withUnit(inUnit).withRoom(high > low ? (Double) (left / ((high - low) / 2)) : null).withMargin(left);
    }

    Verdict at(double place, double begin, double until, String shown) {
        return withTime(place).withFrom(begin).withTo(until).withSignal(shown);
    }

    /** With the order in force and, where it does not hold, why. @param axis number of the axis it speaks of, −1 for none */
    Verdict because(Causes causes, int axis, String seen) {
        Verdict ordered = axis < 0 ? this : withOrder(causes.orderAt(axis, time));
        return holds ? ordered : ordered.withCause(causes.around(axis, time, seen));
    }

    /** @param file name of the program's text  @param line line of it  @param block instance  @param words what it ordered */
    public record Order(String file, int line, String block, String words) {
        public Order {
            /* runs that were kept before programs had several files */
            file = file == null ? "" : file;
        }
    }

    /**
     * A replacement in the program.
     *
     * @param file    name of the program's text
     * @param line    line that holds the value, from 1
     * @param find    text to replace
     * @param replace text to put there
     * @param words   what this would do
     */
    public record Replacement(String file, int line, String find, String replace, String words) {
        public Replacement {
            file = file == null ? "" : file;
        }
    }
}
