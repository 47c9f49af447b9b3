package rueda.plc.syntax;

import java.util.List;

/**
 * A program as written.
 *
 * @param name  after PROGRAM
 * @param lines lines of the text
 */
public record ProgramSyntax(String name, List<Declaration> declarations, List<StatementSyntax> body, int lines) {

    /**
     * Variables of one type.
     *
     * @param constant of a block VAR CONSTANT
     * @param length   of STRING[n], or null
     * @param initial  or null
     */
    public record Declaration(List<ExpressionSyntax.Name> names, String type, Place typePlace, ExpressionSyntax length, ExpressionSyntax initial, boolean constant) {
    }
}
