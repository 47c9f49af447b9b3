package rueda.proof.temporal;

import java.util.List;

/**
 * A sentence as its author wrote it, read.
 *
 * @param formula what it says; null when it has faults
 * @param faults  what is wrong with it
 */
public record Sentence(Formula formula, List<Fault> faults) {

    /**
     * @param column  from 1
     * @param message what is wrong and what would be right
     */
    public record Fault(int column, String message) {
    }

    /** It says something. */
    public boolean sound() {
        return formula != null;
    }
}
