package rueda.machine;

import io.soabase.recordbuilder.core.RecordBuilder;
import java.util.List;

/**
 * What must be true while the program runs on the bench, and what happens meanwhile.
 *
 * @param name         name shown to the user, no other proof of the machine has it
 * @param group        proofs of one group stand together; empty for none
 * @param purpose      why it is made, in words; may be empty
 * @param on           it runs when all proofs, or those of its group, are run
 * @param duration     how long the program runs, s, 0.1 to 7200: two hours
 * @param script       what the operator and the world do
 * @param expectations the sentences, in order
 * @param conditions   what is varied when the proof is repeated
 * @param plan         how it is repeated
 */
@RecordBuilder
public record Proof(String name, String group, String purpose, boolean on, double duration, List<ScriptStep> script, List<Expectation> expectations, List<Condition> conditions, Plan plan) implements ProofBuilder.With {

    public Proof {
        script = script == null ? List.of() : List.copyOf(script);
        expectations = expectations == null ? List.of() : List.copyOf(expectations);
        conditions = conditions == null ? List.of() : List.copyOf(conditions);
    }

    /** Nothing happens but the program, and nothing is varied. */
    public Proof(String name, String group, double duration, List<Expectation> expectations) {
        this(name, group, "", true, duration, List.of(), expectations, List.of(), Plan.USUAL);
    }

    /** In no group. */
    public Proof(String name, double duration, List<Expectation> expectations) {
        this(name, "", duration, expectations);
    }
}
