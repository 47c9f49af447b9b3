package rueda.bench;

import java.util.Map;

/**
 * One column of the recording.
 *
 * @param name   such as {@code Shuttle.speed} or a variable of the program
 * @param unit   of the values, empty for none
 * @param bit    it is on or off
 * @param values names of its values by their numbers, those of an enumeration; empty for a number
 */
public record Signal(String name, String unit, boolean bit, Map<String, Long> values) {

    /** A number. */
    public Signal(String name, String unit) {
        this(name, unit, false, Map.of());
    }
}
