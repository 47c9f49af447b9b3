package rueda.plc;

import rueda.plc.syntax.TextMend;

/**
 * A fault of a program text.
 *
 * @param file    name of the text, empty where it has none
 * @param line    from 1
 * @param column  from 1
 * @param length  characters to underline, at least 1
 * @param message what is wrong and what would be right
 * @param mend    a change that would mend it, or null where it has to be thought about
 */
public record Diagnostic(String file, int line, int column, int length, String message, TextMend mend) {
    @Override
    public String toString() {
        return (file.isEmpty() ? "" : file + ", ") + "line " + line + ", column " + column + ": " + message;
    }
}
