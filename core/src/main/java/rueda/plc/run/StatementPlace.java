package rueda.plc.run;

/**
 * A line with a statement, where a running program can be held.
 *
 * @param unit name of the unit
 * @param file name of the text, empty where it has none
 * @param line from 1
 */
public record StatementPlace(String unit, String file, int line) {
}
