package rueda.proof.fastest;

import java.util.List;

/**
 * What a search has found.
 *
 * @param before  time that counts as the machine is, s; null where it never comes to its end
 * @param after   the same with the values found, s; null where nothing holds everything
 * @param held    the machine as it is holds everything
 * @param holds   with the values found it does
 * @param values  one for each number that was free
 * @param tightest the expectation with the least room, with the values found, and under what
 * @param points  sets of values that were tried
 * @param runs    of the bench
 */
public record Fastest(Double before, Double after, boolean held, boolean holds, List<FoundNumber> values, String tightest, int points, int runs) {

    /** @param of the number  @param found its value now */
    public record FoundNumber(Freedom of, double found) {
    }
}
