package rueda.plc.syntax;

import java.util.List;

/**
 * A text as written: types, global variables, and units.
 *
 * @param lines of the text
 */
public record FileSyntax(List<TypeDeclaration> types, List<UnitSyntax.Declaration> globals, List<UnitSyntax> units, int lines) {

    /** One type between TYPE and END_TYPE. @param place where its name stands  @param initial or null */
    public record TypeDeclaration(Place place, String name, TypeSyntax type, ExpressionSyntax initial) {
    }
}
