package rueda.plc.syntax;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Set;
import rueda.plc.syntax.ExpressionSyntax.Literal;
import rueda.plc.syntax.ExpressionSyntax.Name;
import rueda.plc.syntax.Token.Kind;
import rueda.plc.syntax.UnitSyntax.Declaration;
import rueda.plc.syntax.UnitSyntax.Section;

/** Reads declarations of variables and types, with their first values. */
abstract class DeclarationParser extends StatementParser {

    static final Set<String> UNIT_ENDS = Set.of("END_PROGRAM", "END_FUNCTION", "END_FUNCTION_BLOCK");
    /** What may stand behind VAR and changes nothing here. */
    private static final Set<String> MODIFIERS = Set.of("PUBLIC", "PRIVATE", "PROTECTED", "INTERNAL");

    DeclarationParser(Lexer.Cut text, Complaints complaints) {
        super(text, complaints);
    }

    /** TYPE … END_TYPE. */
    void types(List<FileSyntax.TypeDeclaration> types) {
        Token opened = take();
        while (!taken("END_TYPE")) {
            if (endOf("TYPE")) {
                return;
            }
            if (here().kind() == Kind.END || UNIT_STARTS.contains(here().upper())) {
                tell(opened.place(), "The TYPE that begins here is not closed: END_TYPE is missing" + (here().kind() == Kind.END ? "." : " before " + shown(here()) + " in line " + here().place().line() + "."));
                return;
            }
            if (taken(";")) {
                continue;
            }
            try {
                typeDeclaration(types);
            } catch (Lost told) {
                if (complaints.full()) {
                    throw told;
                }
                parentheses = 0;
                while (here().kind() != Kind.END && !here().is("END_TYPE") && !here().is(";") && !UNIT_STARTS.contains(here().upper())) {
                    take();
                }
            }
        }
    }

    void typeDeclaration(List<FileSyntax.TypeDeclaration> types) {
        Token name = here();
        if (name.kind() != Kind.WORD) {
            throw lost(name.place(), "The name of a type is expected here, not " + shown(name) + ".");
        }
        take();
        String fault = Words.faultOfName(name.text());
        if (fault != null) {
            tell(name.place(), fault);
        }
        if (!taken(":")) {
            throw lost(gap(), "A : is missing between " + name.text() + " and what it is, such as " + name.text() + " : STRUCT … END_STRUCT;");
        }
        TypeSyntax type = type();
        ExpressionSyntax initial = initial();
        /* many write no ; behind END_STRUCT (common practice, no source) */
        if (!taken(";") && !(type instanceof TypeSyntax.Struct)) {
            missingSemicolon("declaration");
        }
        types.add(new FileSyntax.TypeDeclaration(name.place(), name.text(), type, initial));
    }

    /** VAR …, VAR_INPUT … END_VAR. */
    void section(List<Declaration> declarations) {
        Token opened = take();
        Section kind = null;
        for (Section section : Section.values()) {
            kind = opened.is(section.name()) ? section : kind;
        }
        if (kind == null) {
            String meant = Words.nearest(opened.text(), Arrays.stream(Section.values()).map(Enum::name).toList()).map(w -> " Did you mean " + w + "?").orElse("");
            throw lost(opened.place(), (Words.isForLater(opened.text()) ? "Not supported yet: " : "There is no section ") + opened.upper() + "." + meant);
        }
        boolean constant = false;
        boolean retained = false;
        while (here().is("CONSTANT") || here().is("RETAIN") || here().is("NON_RETAIN") || here().is("PERSISTENT") && ahead(1).kind() == Kind.WORD
                || MODIFIERS.contains(here().upper()) && ahead(1).kind() == Kind.WORD && !ahead(1).is("AT")) {
            Token qualifier = take();
            constant |= qualifier.is("CONSTANT");
            retained |= qualifier.is("RETAIN") || qualifier.is("PERSISTENT");
        }
        while (true) {
            if (endOf("VAR") || taken("END_VAR")) {
                taken(";");
                return;
            }
            boolean statement = here().isName() && ahead(1).is(":=") && !(ahead(2).kind() == Kind.WORD && ahead(3).is(";"))
                    || here().isName() && ahead(1).is("(");
            if (here().kind() == Kind.END || here().isKeyword() && !ahead(1).is(":") && !ahead(1).is(",") || statement) {
                tell(opened.place(), "The " + opened.upper() + " that begins here is not closed: END_VAR is missing" + (here().kind() == Kind.END ? "." : " before " + shown(here()) + " in line " + here().place().line() + "."));
                return;
            }
            if (misspelt("END_VAR")) {
                continue;
            }
            try {
                declaration(declarations, kind, constant, retained);
            } catch (Lost told) {
                if (complaints.full()) {
                    throw told;
                }
                parentheses = 0;
                while (here().kind() != Kind.END && !here().is("END_VAR") && !UNIT_ENDS.contains(here().upper()) && !here().is(";") && !endsWithSpace("VAR")) {
                    take();
                }
                taken(";");
            }
        }
    }

    void declaration(List<Declaration> declarations, Section section, boolean constant, boolean retained) {
        List<Name> names = new ArrayList<>();
        ExpressionSyntax.Address address = null;
        do {
            Token name = here();
            if (name.is("AT") || name.kind() != Kind.WORD) {
                if (name.is("AT") && ahead(1).kind() == Kind.LITERAL) {
                    throw lost(name.place(), "A variable at an address has a name of its own here: Ready AT " + ahead(1).text() + " : BOOL;");
                }
                throw lost(name.place(), "The name of a variable is expected here, not " + shown(name) + ".");
            }
            take();
            if (name.isKeyword() && Words.isForLater(name.text()) && !here().is(":") && !here().is(",")) {
                throw lost(name.place(), "Not supported yet: " + name.upper() + ".");
            }
            String fault = Words.faultOfName(name.text());
            if (fault != null) {
                tell(name.place(), fault);
            }
            names.add(new Name(name.place(), name.text()));
        } while (taken(","));
        if (here().is("AT")) {
            Token at = take();
            if (!isAddress(here())) {
                throw lost(gap(), "An address is missing after AT, such as %QW4 or %IX2.3.");
            }
            Token where = take();
            address = new ExpressionSyntax.Address(where.place(), where.text());
            if (names.size() > 1) {
                tell(at.place(), "One address takes one variable: declare each in a line of its own.");
            }
        }
        if (here().is(":=") && ahead(1).kind() == Kind.WORD) {
            Place assigns = take().place();
            tell(assigns, "Write : between a name and its type; := gives a value.", TextMend.replace(assigns, ":"));
        } else if (!taken(":")) {
            if (here().kind() == Kind.WORD) {
                tell(gap(), "A : is missing between " + names.get(names.size() - 1).path() + " and its type.", TextMend.insert(gap(), " :"));
            } else {
                throw lost(gap(), "A : and a type are missing after " + names.get(names.size() - 1).path() + ", such as " + names.get(names.size() - 1).path() + " : INT;");
            }
        }
        TypeSyntax type = type();
        UnitSyntax.Edge edge = taken("R_EDGE") ? UnitSyntax.Edge.RISING : taken("F_EDGE") ? UnitSyntax.Edge.FALLING : UnitSyntax.Edge.NONE;
        ExpressionSyntax initial = initial();
        if (!taken(";")) {
            missingSemicolon("declaration");
        }
        declarations.add(new Declaration(names, section, constant, retained, address, type, edge, initial));
    }

    /** := and a value, or nothing. */
    ExpressionSyntax initial() {
        ExpressionSyntax initial = null;
        if (here().is("=")) {
            tell(here().place(), "Write := before an initial value; = compares.", TextMend.replace(here().place(), ":="));
            take();
            initial = initialValue();
        } else if (taken(":=")) {
            initial = initialValue();
        }
        decimalComma();
        return initial;
    }

    ExpressionSyntax initialValue() {
        Token first = here();
        if (first.is("[")) {
            return listed();
        }
        if (first.is("(") && ahead(1).kind() == Kind.WORD && ahead(2).is(":=")) {
            return composed();
        }
        return expression();
    }

    /** [1, 2, 3(0), (a := 1)]. */
    ExpressionSyntax listed() {
        Token first = take();
        deeper(first);
        List<ExpressionSyntax.Item> items = new ArrayList<>();
        while (!taken("]")) {
            boolean times = (here().kind() == Kind.LITERAL || here().isName()) && ahead(1).is("(");
            if (times) {
                ExpressionSyntax count = here().kind() == Kind.LITERAL ? new Literal(take().place(), before().text()) : new Name(take().place(), before().text());
                take();
                List<ExpressionSyntax> values = new ArrayList<>();
                while (!taken(")")) {
                    values.add(initialValue());
                    if (!here().is(")") && !taken(",")) {
                        throw lost(gap(), "A , or ) is missing in the values of the array.");
                    }
                }
                items.add(new ExpressionSyntax.Item(count, values));
            } else {
                items.add(new ExpressionSyntax.Item(null, List.of(initialValue())));
            }
            if (!here().is("]") && !taken(",")) {
                throw lost(here().kind() == Kind.END || here().is(";") ? first.place() : gap(), here().kind() == Kind.END || here().is(";") ? "This [ is not closed: ] is missing." : "A , or ] is missing in the values of the array.");
            }
        }
        parentheses--;
        return new ExpressionSyntax.Listed(from(first), items);
    }

    /** (a := 1, b := 2). */
    ExpressionSyntax composed() {
        Token first = take();
        deeper(first);
        List<StatementSyntax.Input> members = new ArrayList<>();
        while (!taken(")")) {
            Token name = here();
            if (name.kind() != Kind.WORD || !ahead(1).is(":=")) {
                throw lost(name.place(), "A member and := are expected here, such as Position := 5.0.");
            }
            take();
            take();
            members.add(new StatementSyntax.Input(name.place(), name.text(), initialValue()));
            if (!here().is(")") && !taken(",")) {
                throw lost(here().kind() == Kind.END || here().is(";") ? first.place() : gap(), here().kind() == Kind.END || here().is(";") ? "This ( is not closed: ) is missing." : "A , or ) is missing between two members.");
            }
        }
        parentheses--;
        return new ExpressionSyntax.Composed(from(first), members);
    }

    TypeSyntax type() {
        Token first = here();
        if (first.is("ARRAY")) {
            return array();
        }
        if (first.is("STRUCT")) {
            return struct();
        }
        if (taken("REF_TO")) {
            deeper(first);
            TypeSyntax target = type();
            parentheses--;
            return new TypeSyntax.ReferenceTo(from(first), target);
        }
        if (first.is("(")) {
            return enumeration(null);
        }
        if (first.kind() == Kind.WORD && Words.isForLater(first.text())) {
            throw lost(first.place(), "Not supported yet: " + first.upper() + ".");
        }
        if (first.kind() != Kind.WORD || first.isKeyword()) {
            throw lost(first.kind() == Kind.END || first.is(";") ? gap() : first.place(), "A type is missing after the :, such as INT or TON.");
        }
        take();
        if (here().is(".") && ahead(1).kind() == Kind.WORD) {
            throw lost(first.place(), "Not supported yet: namespaces, such as " + first.text() + "." + ahead(1).text() + ".");
        }
        ExpressionSyntax length = null;
        if (here().is("[") || here().is("(") && first.upper().endsWith("STRING")) {
            String close = take().is("[") ? "]" : ")";
            length = expression();
            if (!taken(close)) {
                tell(gap(), "A " + close + " is missing after the length.");
            }
            return new TypeSyntax.Named(first.place(), first.text(), length);
        }
        TypeSyntax.Named named = new TypeSyntax.Named(first.place(), first.text(), null);
        if (!here().is("(")) {
            return named;
        }
        /* INT (1..10) is a subrange, INT (Red := 1, Green) an enumeration with a base */
        int depth = 0;
        for (int i = 1; ahead(i).kind() != Kind.END && !ahead(i).is(";") && depth >= 0; i++) {
            depth += ahead(i).is("(") ? 1 : ahead(i).is(")") ? -1 : 0;
            if (ahead(i).is("..")) {
                take();
                ExpressionSyntax low = expression();
                if (!taken("..")) {
                    throw lost(gap(), "A .. is missing between the lowest and the highest value.");
                }
                ExpressionSyntax high = expression();
                if (!taken(")")) {
                    tell(gap(), "A ) is missing after the highest value.");
                }
                return new TypeSyntax.Subrange(from(first), named, low, high);
            }
        }
        return enumeration(named);
    }

    TypeSyntax array() {
        Token first = take();
        deeper(first);
        if (!taken("[")) {
            throw lost(gap(), "A [ with the bounds is missing after ARRAY: ARRAY [1..5] OF INT.");
        }
        List<TypeSyntax.Range> ranges = new ArrayList<>();
        do {
            Token begin = here();
            if (taken("*")) {
                ranges.add(new TypeSyntax.Range(begin.place(), null, null));
                continue;
            }
            ExpressionSyntax low = expression();
            if (!taken("..")) {
                throw lost(gap(), "A .. is missing between the bounds: ARRAY [1..5] OF INT.");
            }
            ExpressionSyntax high = expression();
            ranges.add(new TypeSyntax.Range(from(begin), low, high));
        } while (taken(","));
        if (!taken("]")) {
            throw lost(gap(), "A ] is missing after the bounds: ARRAY [1..5] OF INT.");
        }
        if (misspelt("OF")) {
            take();
        } else {
            throw lost(gap(), "OF and a type are missing after the bounds: ARRAY [1..5] OF INT.");
        }
        TypeSyntax element = type();
        parentheses--;
        return new TypeSyntax.ArrayOf(from(first), ranges, element);
    }

    TypeSyntax struct() {
        Token first = take();
        deeper(first);
        if (here().is("OVERLAP")) {
            tell(take().place(), "Not supported yet: OVERLAP.");
        }
        List<Declaration> members = new ArrayList<>();
        while (!taken("END_STRUCT")) {
            if (endOf("STRUCT")) {
                break;
            }
            if (taken(";")) {
                continue;
            }
            if (here().kind() == Kind.END || here().is("END_TYPE") || here().is("END_VAR") || UNIT_STARTS.contains(here().upper())) {
                tell(first.place(), "The STRUCT that begins here is not closed: END_STRUCT is missing" + (here().kind() == Kind.END ? "." : " before " + shown(here()) + " in line " + here().place().line() + "."));
                break;
            }
            declaration(members, Section.VAR, false, false);
        }
        parentheses--;
        return new TypeSyntax.Struct(from(first), members);
    }

    TypeSyntax enumeration(TypeSyntax.Named base) {
        Token first = take();
        List<TypeSyntax.Value> values = new ArrayList<>();
        while (!taken(")")) {
            Token name = here();
            if (name.kind() != Kind.WORD) {
                throw lost(name.place(), "The name of a value is expected here, not " + shown(name) + ".");
            }
            take();
            String fault = Words.faultOfName(name.text());
            if (fault != null) {
                tell(name.place(), fault);
            }
            ExpressionSyntax value = taken(":=") ? expression() : null;
            values.add(new TypeSyntax.Value(name.place(), name.text(), value));
            if (!here().is(")") && !taken(",")) {
                throw lost(here().kind() == Kind.END || here().is(";") ? first.place() : gap(), here().kind() == Kind.END || here().is(";") ? "This ( is not closed: ) is missing." : "A , is missing between two values.");
            }
        }
        if (values.isEmpty()) {
            tell(from(first), "An enumeration has at least one value, such as (Idle, Running).");
        }
        TypeSyntax.Named kind = base;
        /* many write the base behind the values (common practice, no source) */
        if (kind == null && here().kind() == Kind.WORD && !here().isKeyword()) {
            kind = new TypeSyntax.Named(here().place(), take().text(), null);
        }
        return new TypeSyntax.Enumeration(from(first), kind, values);
    }
}
