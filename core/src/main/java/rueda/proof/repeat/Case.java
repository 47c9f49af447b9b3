package rueda.proof.repeat;

import java.util.Arrays;
import rueda.machine.ScriptStep;

/**
 * What one run has other than the document says. Immutable; the array is not to be changed.
 *
 * @param values    one for each condition of the proof, in its unit (of mistakes their place in the list); NaN where it is as the document says
 * @param happening what happens besides the script; null for nothing
 */
public record Case(double[] values, ScriptStep happening) {

    /** As the document says. @param conditions how many the proof has */
    static Case nominal(int conditions) {
        double[] values = new double[conditions];
        Arrays.fill(values, Double.NaN);
        return new Case(values, null);
    }

    Case with(int condition, double value) {
        double[] changed = values.clone();
        changed[condition] = value;
        return new Case(changed, happening);
    }

    /** Nothing is other. */
    public boolean unchanged() {
        return happening == null && Arrays.stream(values).allMatch(Double::isNaN);
    }

    @Override
    public boolean equals(Object other) {
        return other instanceof Case that && Arrays.equals(values, that.values) && java.util.Objects.equals(happening, that.happening);
    }

    @Override
    public int hashCode() {
        return Arrays.hashCode(values);
    }

    @Override
    public String toString() {
        return Arrays.toString(values) + (happening == null ? "" : " " + happening);
    }
}
