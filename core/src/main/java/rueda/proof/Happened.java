package rueda.proof;

/**
 * Something of the script that has happened.
 *
 * @param time     s
 * @param sentence number of the sentence of the script, from 0
 * @param words    what happened
 */
public record Happened(double time, int sentence, String words) {
}
