package rueda.machine;

import io.soabase.recordbuilder.core.RecordBuilder;
import java.util.List;

/**
 * A changed circumstance under which a proof is repeated: values, or a range.
 *
 * @param of       what is other than the document says
 * @param axis     name of the axis; null for what is of none
 * @param sentence number of the sentence of the script whose moment is varied, from 0; null for others
 * @param values   in the unit of the circumstance, when no range is given
 * @param mistakes what is wrong, one after the other, of {@link Circumstance#MISTAKE}; empty for others
 * @param from     begin of a range; null for values
 * @param to       its end, {@code from} or more
 * @param steps    values of the range, both ends with them, where a plan needs some; 2 or more
 */
@RecordBuilder
public record Condition(Circumstance of, String axis, Integer sentence, List<Double> values, List<Mistake> mistakes, Double from, Double to, Integer steps) implements ConditionBuilder.With {

    public Condition {
        values = values == null ? List.of() : List.copyOf(values);
        mistakes = mistakes == null ? List.of() : List.copyOf(mistakes);
    }

    public static Condition values(Circumstance of, String axis, Double... values) {
        return new Condition(of, axis, null, List.of(values), List.of(), null, null, null);
    }

    public static Condition range(Circumstance of, String axis, double from, double to, int steps) {
        return new Condition(of, axis, null, List.of(), List.of(), from, to, steps);
    }

    public static Condition mistakes(String axis, Mistake... mistakes) {
        return new Condition(Circumstance.MISTAKE, axis, null, List.of(), List.of(mistakes), null, null, null);
    }

    /** Of a sentence of the script. */
    public static Condition moments(int sentence, double from, double to, int steps) {
        return new Condition(Circumstance.MOMENT, null, sentence, List.of(), List.of(), from, to, steps);
    }

    public boolean hasRange() {
        return from != null && to != null;
    }

    /** How many values it has where a plan needs some: those given, or those of the range. */
    public int size() {
        return of == Circumstance.MISTAKE ? mistakes.size() : hasRange() ? steps : values.size();
    }

    /** @param index 0 to {@link #size()} − 1  @return in the unit of the circumstance; of mistakes the place in the list */
    public double value(int index) {
        return of == Circumstance.MISTAKE ? index : hasRange() ? from + (to - from) * index / Math.max(1, steps - 1) : values.get(index);
    }
}
