package rueda.proof.temporal;

import java.util.List;

/**
 * A number made of signals, read.
 *
 * @param term   what it is; null when it has faults
 * @param unit   empty for none that is known
 * @param faults what is wrong with it
 */
public record Value(Term term, String unit, List<Sentence.Fault> faults) {

    public boolean sound() {
        return term != null;
    }
}
