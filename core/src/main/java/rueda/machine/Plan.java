package rueda.machine;

/**
 * How a proof is repeated under its conditions.
 *
 * @param kind  which combinations of values run
 * @param runs  how many at most, 1 to 100 000
 * @param seed  random draws, and the search, are the same with the same seed
 * @param every of the plan that stops at any moment: s from one moment to the next, 0.001 or more
 */
public record Plan(Kind kind, int runs, long seed, double every) {

    /** One at a time. */
    public static final Plan USUAL = new Plan(Kind.ONE_AT_A_TIME, 1000, 1, 0.1);

    /** Most runs of a plan: what became of them takes some hundred bytes each. */
    public static final int MOST_RUNS = 100_000;

    /** Which runs there are. */
    public enum Kind {
        ONE_AT_A_TIME("one condition at a time"),
        ALL_COMBINATIONS("all combinations"),
        RANDOM("random draws"),
        WORST("a search for the worst"),
        STOP("stop, power loss and requests to the guards at any moment");

        private final String words;

        Kind(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }
}
