package rueda.bench;

/**
 * One column of the recording.
 *
 * @param name such as {@code Shuttle.speed} or a variable of the program
 * @param unit of the values, empty for none
 */
public record Signal(String name, String unit) {
}
