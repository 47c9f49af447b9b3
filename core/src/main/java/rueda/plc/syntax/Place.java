package rueda.plc.syntax;

/**
 * A stretch of the text, within one line.
 *
 * @param line   from 1
 * @param column from 1
 * @param length characters, at least 1
 */
public record Place(int line, int column, int length) {
}
