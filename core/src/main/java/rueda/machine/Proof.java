package rueda.machine;

import io.soabase.recordbuilder.core.RecordBuilder;
import java.util.List;

/**
 * What must be true while the program runs on the bench.
 *
 * @param name         name shown to the user, no other proof of the machine has it
 * @param group        proofs of one group stand together; empty for none
 * @param duration     how long the program runs, s, 0.1 to 7200: two hours
 * @param expectations the sentences, in order
 */
@RecordBuilder
public record Proof(String name, String group, double duration, List<Expectation> expectations) implements ProofBuilder.With {

    public Proof {
        expectations = expectations == null ? List.of() : List.copyOf(expectations);
    }

    /** In no group. */
    public Proof(String name, double duration, List<Expectation> expectations) {
        this(name, "", duration, expectations);
    }

    /** The kinds of sentence. */
    public enum Kind {
        ARRIVES("arrives somewhere in time"),
        BOUND("keeps a bound"),
        NO_ERROR("no error"),
        SENTENCE("a sentence of your own");

        private final String words;

        Kind(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    /** What a bound watches. */
    public enum Quantity {
        SPEED("speed"),
        TORQUE("torque"),
        FOLLOWING_ERROR("following error"),
        PHASE("phase, once locked,");

        private final String words;

        Quantity(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    /**
     * One expectation: a sentence with slots. Slots a kind does not use are null.
     *
     * <ul>
     * <li>ARRIVES: {@code axis} arrives at {@code position} ± {@code tolerance} within {@code within} s after
     * {@code after} first turns true, and stays there for {@code stays} s.
     * <li>BOUND: {@code quantity} of {@code axis} never goes above {@code limit}.
     * <li>NO_ERROR: neither the drive of {@code axis} nor a function block of the program reports an error.
     * <li>SENTENCE: what {@code text} says over time holds.
     * </ul>
     *
     * @param kind      the sentence
     * @param axis      name of the axis
     * @param after     name of a BOOL of the program whose rising edge starts the clock
     * @param position  user units
     * @param tolerance user units, greater than 0
     * @param within    s, greater than 0
     * @param stays     s, 0 or more
     * @param quantity  what is bounded
     * @param limit     units/s for speed, N·m for torque, units for following error and phase; greater than 0
     * @param text      an expression in Structured Text over the signals of the run, with functions for what happens over time
     */
    public record Expectation(Kind kind, String axis, String after, Double position, Double tolerance, Double within,
                              Double stays, Quantity quantity, Double limit, String text) {

        /** Longest text, characters. */
        public static final int LONGEST_TEXT = 1000;

        public static Expectation arrives(String axis, double position, double tolerance, double within, String after,
                                          double stays) {
            return new Expectation(Kind.ARRIVES, axis, after, position, tolerance, within, stays, null, null, null);
        }

        public static Expectation bound(String axis, Quantity quantity, double limit) {
            return new Expectation(Kind.BOUND, axis, null, null, null, null, null, quantity, limit, null);
        }

        public static Expectation noError(String axis) {
            return new Expectation(Kind.NO_ERROR, axis, null, null, null, null, null, null, null, null);
        }

        public static Expectation sentence(String text) {
            return new Expectation(Kind.SENTENCE, null, null, null, null, null, null, null, null, text);
        }
    }
}
