package rueda.proof.repeat;

import java.util.Arrays;
import java.util.List;
import rueda.proof.Prover;
import rueda.proof.Verdict;

/**
 * What became of one run, in short: its recording is not kept. Immutable; the arrays are not to be changed.
 *
 * @param run     its number
 * @param of      what was other
 * @param stopped why the program stopped, or null
 * @param holds   for each expectation
 * @param margins room in its unit, NaN where none was measured
 * @param shares  room as a share of what is allowed, NaN where there is none
 * @param units   of the margins
 */
public record Outcome(int run, Case of, String stopped, boolean[] holds, double[] margins, double[] shares, List<String> units) {

    static Outcome of(int run, Case one, Prover.Judgement proven) {
        List<Verdict> verdicts = proven.verdicts();
        boolean[] holds = new boolean[verdicts.size()];
        double[] margins = new double[verdicts.size()];
        double[] shares = new double[verdicts.size()];
        for (int i = 0; i < verdicts.size(); i++) {
            Verdict verdict = verdicts.get(i);
            holds[i] = verdict.holds();
            margins[i] = verdict.margin() == null ? Double.NaN : verdict.margin();
            shares[i] = verdict.room() == null ? Double.NaN : verdict.room();
        }
        return new Outcome(run, one, proven.stopped(), holds, margins, shares, verdicts.stream().map(verdict -> verdict.unit().intern()).toList());
    }

    public boolean all() {
        for (boolean one : holds) {
            if (!one) {
                return false;
            }
        }
        return stopped == null;
    }

    /**
     * How good an expectation is off, the same way round for all: its share, else its margin brought between −1 and 1; what does not hold and has no number is
     * worse than what has one.
     */
    public double score(int expectation) {
        if (!Double.isNaN(shares[expectation])) {
            return shares[expectation];
        }
        double margin = margins[expectation];
        return Double.isNaN(margin) ? holds[expectation] ? Double.POSITIVE_INFINITY : NOT_EVEN_MEASURED : margin / (1 + Math.abs(margin));
    }

    /** The least score of all expectations; without a number where none has one and all hold. */
    public double score() {
        double least = stopped == null ? Double.POSITIVE_INFINITY : NOT_EVEN_MEASURED;
        for (int i = 0; i < holds.length; i++) {
            least = Math.min(least, score(i));
        }
        return least;
    }

    private static final double NOT_EVEN_MEASURED = -1000;

    @Override
    public boolean equals(Object other) {
        return other instanceof Outcome that && run == that.run && of.equals(that.of) && java.util.Objects.equals(stopped, that.stopped) && Arrays.equals(holds, that.holds) && Arrays.equals(margins, that.margins)
                && Arrays.equals(shares, that.shares);
    }

    @Override
    public int hashCode() {
        return 31 * run + Arrays.hashCode(margins);
    }

    @Override
    public String toString() {
        return run + " " + of + " " + Arrays.toString(margins);
    }
}
