package rueda.plc;

/**
 * A fault of a program text.
 *
 * @param line    from 1
 * @param column  from 1
 * @param length  characters to underline, at least 1
 * @param message what is wrong and what would be right
 */
public record Diagnostic(int line, int column, int length, String message) {
    @Override
    public String toString() {
        return "line " + line + ", column " + column + ": " + message;
    }
}
