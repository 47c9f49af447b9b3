package rueda.plc.syntax;

import java.util.ArrayList;
import java.util.List;
import rueda.plc.syntax.UnitSyntax.Declaration;

/** What a text declares: units and types with their members, also of a text that cannot be compiled yet. Costs a reading of the text. */
public final class Outline {

    private Outline() {
    }

    /**
     * A unit, a type, or the global variables of a text.
     *
     * @param kind    PROGRAM, FUNCTION, FUNCTION_BLOCK, TYPE or VAR_GLOBAL
     * @param name    empty for VAR_GLOBAL
     * @param line    from 1
     * @param type    of a function's value or of a type that is another one, else empty
     * @param members variables, or members of a structure, or values of an enumeration
     */
    public record Item(String kind, String name, int line, String type, List<Member> members) {
    }

    /** @param section where it is declared: VAR_INPUT and so on  @param type as written  @param line from 1 */
    public record Member(String section, String name, String type, int line) {
    }

    /** What is declared, in the order of the text. */
    public static List<Item> of(String text) {
        FileSyntax file = Parser.parse(text, Complaints.NONE);
        List<Item> items = new ArrayList<>();
        if (!file.globals().isEmpty()) {
            items.add(new Item("VAR_GLOBAL", "", file.globals().get(0).names().get(0).place().line(), "", members(file.globals())));
        }
        for (FileSyntax.TypeDeclaration type : file.types()) {
            items.add(new Item("TYPE", type.name(), type.place().line(), type.type() instanceof TypeSyntax.Struct || type.type() instanceof TypeSyntax.Enumeration ? "" : written(type.type()), members(type.type())));
        }
        for (UnitSyntax unit : file.units()) {
            items.add(new Item(unit.kind().name(), unit.name(), unit.place().line(), unit.result() == null ? "" : written(unit.result()), members(unit.declarations())));
        }
        return items;
    }

    private static List<Member> members(List<Declaration> declarations) {
        List<Member> members = new ArrayList<>();
        for (Declaration declaration : declarations) {
            String type = written(declaration.type());
            declaration.names().forEach(name -> members.add(new Member(declaration.section().name(), name.path(), type, name.place().line())));
        }
        return members;
    }

    private static List<Member> members(TypeSyntax type) {
        if (type instanceof TypeSyntax.Struct struct) {
            return members(struct.members());
        }
        return type instanceof TypeSyntax.Enumeration enumeration ? enumeration.values().stream().map(v -> new Member("VALUE", v.name(), "", v.place().line())).toList() : List.of();
    }

    /** A type shortened to what tells it from others: bounds and lengths that are expressions are left out. */
    public static String written(TypeSyntax type) {
        if (type instanceof TypeSyntax.Named named) {
            return named.name();
        }
        if (type instanceof TypeSyntax.ArrayOf array) {
            return "ARRAY [" + String.join(", ", array.ranges().stream().map(r -> r.open() ? "*" : bound(r.low()) + ".." + bound(r.high())).toList()) + "] OF " + written(array.element());
        }
        if (type instanceof TypeSyntax.ReferenceTo reference) {
            return "REF_TO " + written(reference.target());
        }
        if (type instanceof TypeSyntax.Subrange subrange) {
            return subrange.base().name() + " (" + bound(subrange.low()) + ".." + bound(subrange.high()) + ")";
        }
        return type instanceof TypeSyntax.Struct ? "STRUCT" : "enumeration";
    }

    private static String bound(ExpressionSyntax bound) {
        if (bound instanceof ExpressionSyntax.Literal literal) {
            return literal.text();
        }
        if (bound instanceof ExpressionSyntax.Unary unary && unary.operand() instanceof ExpressionSyntax.Literal literal) {
            return unary.operator() + literal.text();
        }
        return bound instanceof ExpressionSyntax.Name name ? name.path() : "…";
    }
}
