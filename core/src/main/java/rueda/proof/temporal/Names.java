package rueda.proof.temporal;

import java.util.List;
import java.util.Map;
import java.util.Optional;

/** What a sentence may name: the signals of a run. */
public interface Names {

    /**
     * A signal.
     *
     * @param number in the trace
     * @param unit   empty where it has none, or none is known
     * @param bit    it is on or off
     * @param values names of its values by their numbers, such as those of an enumeration; empty for a number
     */
    record Named(int number, String unit, boolean bit, Map<String, Long> values) {
    }

    /** @param name in any case */
    Optional<Named> find(String name);

    /** All of them, for proposals. */
    List<String> all();
}
