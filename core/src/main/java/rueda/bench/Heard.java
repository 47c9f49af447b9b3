package rueda.bench;

/**
 * How a request came to a guard, ns on the clock of the bench: the last time that each of these began.
 *
 * @param opened the first cycle of the guard that found its contacts open
 * @param sensed its sensor showed that
 * @param known  its filter had passed, and the guard knew
 */
public record Heard(long opened, long sensed, long known) {
}
