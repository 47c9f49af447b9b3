package rueda.proof.temporal;

/**
 * What decided how much room a sentence has.
 *
 * @param sample where
 * @param by     the comparison or bit that did, as written
 * @param unit   of the room; empty where it has none
 */
public record Decision(int sample, String by, String unit) {
}
