package rueda.plc.syntax;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import rueda.plc.syntax.ExpressionSyntax.Binary;
import rueda.plc.syntax.ExpressionSyntax.Call;
import rueda.plc.syntax.ExpressionSyntax.Literal;
import rueda.plc.syntax.ExpressionSyntax.Name;
import rueda.plc.syntax.ExpressionSyntax.Unary;
import rueda.plc.syntax.Token.Kind;
import rueda.plc.syntax.UnitSyntax.Declaration;
import rueda.plc.syntax.UnitSyntax.Section;

/**
 * Reads a text by recursive descent; expressions by their precedence.
 *
 * <p>A small slip (a missing semicolon, {@code =} for {@code :=}) is told and read as what was meant. After a mistake that leaves open what
 * was meant the rest of the statement is passed over in silence, so that one mistake gives one message.
 */
public final class Parser {

    /** Statements that stand inside one another. */
    public static final int DEEPEST_STATEMENT = 100;
    /** Operations, calls and parentheses that stand inside one another. */
    public static final int DEEPEST_EXPRESSION = 500;
    private static final int DEEPEST_PARENTHESIS = 100;

    private static final Set<String> STARTS = Set.of("IF", "CASE", "FOR", "WHILE", "REPEAT", "EXIT", "CONTINUE", "RETURN");
    private static final Set<String> ENDS = Set.of("END_IF", "END_CASE", "END_FOR", "END_WHILE", "END_REPEAT", "UNTIL", "ELSIF", "ELSE", "END_PROGRAM", "END_FUNCTION", "END_FUNCTION_BLOCK");
    private static final Set<String> UNIT_STARTS = Set.of("PROGRAM", "FUNCTION", "FUNCTION_BLOCK", "TYPE", "VAR_GLOBAL", "METHOD", "PROPERTY", "CLASS", "INTERFACE", "NAMESPACE", "CONFIGURATION");
    private static final Set<String> UNIT_ENDS = Set.of("END_PROGRAM", "END_FUNCTION", "END_FUNCTION_BLOCK");
    /** What may stand behind VAR and changes nothing here. */
    private static final Set<String> MODIFIERS = Set.of("PUBLIC", "PRIVATE", "PROTECTED", "INTERNAL");
    private static final List<List<String>> PRECEDENCE = List.of(List.of("OR"), List.of("XOR"), List.of("AND", "&"), List.of("=", "<>"),
            List.of("<", ">", "<=", ">="), List.of("+", "-"), List.of("*", "/", "MOD"), List.of("**"));

    /** Operators that are functions too (IEC 61131-3, 6.6.2.5): AND(a, b, c). */
    private static final Set<String> OPERATOR_FUNCTIONS = Set.of("AND", "OR", "XOR", "MOD");

    /** A mistake that has been told; the statement cannot be read on. */
    private static final class Lost extends RuntimeException {
        Lost() {
            super(null, null, false, false);
        }
    }

    private final List<Token> tokens;
    private final Complaints complaints;
    private int at;
    private int nesting;
    private int parentheses;
    /** The rest is not read, and nothing more is said of it. */
    private boolean silent;

    private Parser(Lexer.Cut text, Complaints complaints) {
        tokens = text.tokens();
        silent = text.cut();
        this.complaints = complaints;
    }

    /** The tree of a text; of use only when nothing was complained about. */
    public static FileSyntax parse(String text, Complaints complaints) {
        Parser parser = new Parser(Lexer.cut(text, complaints), complaints);
        try {
            return parser.file();
        } catch (Lost told) {
            return new FileSyntax(List.of(), List.of(), List.of(), 0);
        }
    }

    /** One expression, such as a user watches; null when it cannot be read, which has been told. */
    public static ExpressionSyntax expression(String text, Complaints complaints) {
        Parser parser = new Parser(Lexer.cut(text, complaints), complaints);
        try {
            ExpressionSyntax expression = parser.expression();
            if (parser.here().kind() != Kind.END) {
                parser.tell(parser.here().place(), shown(parser.here()) + " is not expected here.");
            }
            return expression;
        } catch (Lost told) {
            return null;
        }
    }

    private Token here() {
        return tokens.get(at);
    }

    private Token ahead(int count) {
        return tokens.get(Math.min(at + count, tokens.size() - 1));
    }

    private Token before() {
        return tokens.get(Math.max(0, at - 1));
    }

    private Token take() {
        Token token = here();
        if (token.kind() != Kind.END) {
            at++;
        }
        return token;
    }

    private boolean taken(String wanted) {
        if (here().is(wanted)) {
            at++;
            return true;
        }
        return false;
    }

    private void tell(Place place, String message) {
        tell(place, message, null);
    }

    private void tell(Place place, String message, TextMend mend) {
        if (silent) {
            return;
        }
        complaints.at(place, message, mend);
        if (complaints.full()) {
            throw new Lost();
        }
    }

    private Lost lost(Place place, String message) {
        if (!silent) {
            complaints.at(place, message);
        }
        return new Lost();
    }

    /** Where something is missing: right behind the last token. */
    private Place gap() {
        Token last = before();
        return new Place(last.place().line(), last.place().column() + last.place().length(), 1);
    }

    private Place from(Token first) {
        Token last = before();
        int length = last.place().line() == first.place().line() ? last.to() - first.from() : first.to() - first.from();
        return new Place(first.place().line(), first.place().column(), Math.max(1, length));
    }

    private Place from(Place first) {
        Token last = before();
        int end = last.place().column() + last.place().length();
        return last.place().line() == first.line() ? new Place(first.line(), first.column(), Math.max(1, end - first.column())) : first;
    }

    private static String shown(Token token) {
        return token.kind() == Kind.END ? "the end of the text" : token.text().length() > 40 ? token.text().substring(0, 40) + "…" : token.text();
    }

    // ---- units, types and declarations

    private FileSyntax file() {
        if (here().kind() == Kind.END) {
            throw lost(here().place(), "The program is empty. Write PROGRAM and a name, variables between VAR and END_VAR, statements, END_PROGRAM.");
        }
        List<FileSyntax.TypeDeclaration> types = new ArrayList<>();
        List<Declaration> globals = new ArrayList<>();
        List<UnitSyntax> units = new ArrayList<>();
        while (here().kind() != Kind.END) {
            if (taken(";")) {
                continue;
            }
            UnitSyntax.Kind kind = unitKind();
            if (kind != null) {
                units.add(unit(kind));
            } else if (here().is("TYPE")) {
                types(types);
            } else if (here().is("VAR_GLOBAL")) {
                section(globals);
            } else {
                throw lost(here().place(), strange(units.isEmpty() ? null : units.get(units.size() - 1)));
            }
        }
        return new FileSyntax(types, globals, units, tokens.get(tokens.size() - 1).place().line());
    }

    private UnitSyntax.Kind unitKind() {
        for (UnitSyntax.Kind kind : UnitSyntax.Kind.values()) {
            if (here().is(kind.name())) {
                return kind;
            }
        }
        return here().isName() && ahead(1).isName() && misspelt("PROGRAM") ? UnitSyntax.Kind.PROGRAM : null;
    }

    private String strange(UnitSyntax before) {
        if (here().kind() == Kind.WORD && Words.isForLater(here().text())) {
            return "Not supported yet: " + here().upper() + ". A text holds PROGRAM, FUNCTION, FUNCTION_BLOCK, TYPE and VAR_GLOBAL.";
        }
        if (before != null) {
            return "Nothing may stand behind " + before.kind().end() + " but another unit, TYPE or VAR_GLOBAL.";
        }
        return "A text begins with PROGRAM and its name, or with FUNCTION, FUNCTION_BLOCK, TYPE or VAR_GLOBAL, not with " + shown(here()) + ".";
    }

    private UnitSyntax unit(UnitSyntax.Kind kind) {
        Token opened = take();
        String what = kind == UnitSyntax.Kind.PROGRAM ? "program" : kind == UnitSyntax.Kind.FUNCTION ? "function" : "function block";
        while (here().is("ABSTRACT") || here().is("FINAL")) {
            tell(here().place(), "Not supported yet: " + take().upper() + ".");
        }
        String name = "";
        Place place = opened.place();
        if (here().kind() == Kind.WORD && !here().upper().startsWith("VAR") && !here().isKeyword()) {
            place = here().place();
            name = take().text();
            String fault = Words.faultOfName(name);
            if (fault != null) {
                tell(place, fault);
            }
        } else {
            tell(gap(), "The " + what + " needs a name: " + kind + (kind == UnitSyntax.Kind.FUNCTION ? " Mean : LREAL." : " Main."));
            if (here().kind() == Kind.LITERAL || here().isKeyword() && !here().upper().startsWith("VAR") && !STARTS.contains(here().upper())) {
                take();
            }
        }
        while (here().is("EXTENDS") || here().is("IMPLEMENTS")) {
            tell(here().place(), "Not supported yet: " + take().upper() + ".");
            while (here().isName() || here().is(",")) {
                take();
            }
        }
        TypeSyntax result = null;
        if (here().is(":")) {
            Token colon = take();
            if (kind == UnitSyntax.Kind.FUNCTION) {
                result = type();
            } else {
                tell(colon.place(), "A " + what + " has no type: only a FUNCTION gives a value.");
                type();
            }
        }
        taken(";");
        List<Declaration> declarations = new ArrayList<>();
        while (here().kind() == Kind.WORD && (here().is("VAR") || here().upper().startsWith("VAR_"))) {
            section(declarations);
        }
        List<StatementSyntax> body = new ArrayList<>();
        statementsInto(body, kind.end());
        while (here().is("METHOD") || here().is("PROPERTY")) {
            tell(here().place(), "Not supported yet: " + here().upper() + ".");
            String end = "END_" + take().upper();
            while (here().kind() != Kind.END && !here().is(end)) {
                take();
            }
            taken(end);
            taken(";");
            statementsInto(body, kind.end());
        }
        closedUnit(kind, what, opened, name);
        return new UnitSyntax(kind, name, place, result, declarations, body);
    }

    private void closedUnit(UnitSyntax.Kind kind, String what, Token opened, String name) {
        if (endOf(kind.name())) {
            return;
        }
        if (taken(kind.end())) {
            return;
        }
        if (here().kind() == Kind.END || UNIT_STARTS.contains(here().upper())) {
            tell(gap(), kind.end() + " is missing at the end of the " + what + ".", new TextMend("Insert " + kind.end(), gap().line(), gap().column(), 0, "\n" + kind.end() + "\n"));
            return;
        }
        String found = shown(here());
        if (here().upper().startsWith("END_") && UNIT_ENDS.contains(here().upper())) {
            tell(here().place(), "The " + what + " " + name + " ends with " + kind.end() + ", not with " + found + ".");
            take();
            return;
        }
        throw lost(here().place(), found + " closes nothing: " + kind.end() + " is expected.");
    }

    /** TYPE … END_TYPE. */
    private void types(List<FileSyntax.TypeDeclaration> types) {
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

    private void typeDeclaration(List<FileSyntax.TypeDeclaration> types) {
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
    private void section(List<Declaration> declarations) {
        Token opened = take();
        Section kind = null;
        for (Section section : Section.values()) {
            kind = opened.is(section.name()) ? section : kind;
        }
        if (kind == null) {
            String meant = Words.nearest(opened.text(), java.util.Arrays.stream(Section.values()).map(Enum::name).toList()).map(w -> " Did you mean " + w + "?").orElse("");
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

    private void declaration(List<Declaration> declarations, Section section, boolean constant, boolean retained) {
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
    private ExpressionSyntax initial() {
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

    private ExpressionSyntax initialValue() {
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
    private ExpressionSyntax listed() {
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
    private ExpressionSyntax composed() {
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

    private TypeSyntax type() {
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

    private TypeSyntax array() {
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

    private TypeSyntax struct() {
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

    private TypeSyntax enumeration(TypeSyntax.Named base) {
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

    // ---- statements

    /** One statement; one that cannot be read is told and passed over. */
    private void statementInto(List<StatementSyntax> list) {
        int start = at;
        try {
            StatementSyntax statement = statement();
            if (statement != null) {
                list.add(statement);
            }
        } catch (Lost told) {
            if (complaints.full()) {
                throw told;
            }
            passOver(start);
        }
    }

    /** Statements up to a word that ends them. @param end the word that should end them, for END IF in two words */
    private List<StatementSyntax> statements(String end) {
        List<StatementSyntax> list = new ArrayList<>();
        statementsInto(list, end);
        return list;
    }

    private void statementsInto(List<StatementSyntax> list, String end) {
        while (!atEnd(end)) {
            statementInto(list);
        }
    }

    private boolean atEnd(String end) {
        if (here().kind() == Kind.END || here().kind() == Kind.WORD && (ENDS.contains(here().upper()) || UNIT_STARTS.contains(here().upper()))) {
            return true;
        }
        if (here().is("END") && ahead(1).kind() == Kind.WORD && ENDS.contains("END_" + ahead(1).upper())) {
            return true;
        }
        // A misspelt END_…: a word alone, near the one that is waited for.
        return here().isName() && !ahead(1).is(":=") && !ahead(1).is("(") && !ahead(1).is(".") && !ahead(1).is("=") && !ahead(1).is("[")
                && Words.nearest(here().text(), ENDS).filter(w -> w.equals(end) || end.equals("END_IF") && w.startsWith("ELS")).isPresent();
    }

    /** To the end of the statement that could not be read. */
    private void passOver(int start) {
        parentheses = 0;
        if (at == start) {
            take();
        }
        while (here().kind() != Kind.END) {
            if (taken(";")) {
                return;
            }
            if (here().kind() == Kind.WORD && (ENDS.contains(here().upper()) || STARTS.contains(here().upper()) || UNIT_STARTS.contains(here().upper()))) {
                return;
            }
            // A statement that begins a line, after one without semicolon.
            if (here().isName() && here().place().line() > before().place().line() && (ahead(1).is(":=") || ahead(1).is("("))) {
                return;
            }
            take();
        }
    }

    private StatementSyntax statement() {
        Token first = here();
        if (taken(";")) {
            return null;
        }
        if (first.kind() != Kind.WORD && !isAddress(first)) {
            String said = first.is(")") ? "This ) closes nothing." : first.is("]") ? "This ] closes nothing."
                    : "A statement begins with a name or a word such as IF, not with " + shown(first) + ".";
            throw lost(first.place(), said);
        }
        if (++nesting > DEEPEST_STATEMENT) {
            nesting--;
            complaints.at(first.place(), "Statements stand at most " + DEEPEST_STATEMENT + " deep inside one another.");
            // What is deeper is not read: its ends could not be told apart from those outside.
            at = tokens.size() - 1;
            silent = true;
            throw new Lost();
        }
        try {
            return switch (first.upper()) {
                case "IF" -> ifStatement();
                case "CASE" -> caseStatement();
                case "FOR" -> forStatement();
                case "WHILE" -> whileStatement();
                case "REPEAT" -> repeatStatement();
                case "EXIT" -> {
                    take();
                    semicolon();
                    yield new StatementSyntax.Exit(first.place());
                }
                case "CONTINUE" -> {
                    take();
                    semicolon();
                    yield new StatementSyntax.Continue(first.place());
                }
                case "RETURN" -> {
                    take();
                    semicolon();
                    yield new StatementSyntax.Return(first.place());
                }
                default -> assignmentOrCall();
            };
        } finally {
            nesting--;
        }
    }

    private StatementSyntax assignmentOrCall() {
        Token first = here();
        if (first.isKeyword()) {
            if (Words.isForLater(first.text())) {
                throw lost(first.place(), "Not supported yet: " + first.upper() + ".");
            }
            throw lost(first.place(), first.is("VAR") ? "Variables are declared before the first statement."
                    : first.upper() + " cannot begin a statement.");
        }
        boolean alone = !ahead(1).is(":=") && !ahead(1).is("(") && !ahead(1).is(".") && !ahead(1).is("=") && !ahead(1).is("[") && !ahead(1).is("^");
        if (alone) {
            Optional<String> meant = Words.nearestKeyword(first.text());
            if (meant.isPresent() && (STARTS.contains(meant.get()) || ENDS.contains(meant.get()))) {
                tell(first.place(), first.text() + " is no word of the language. Did you mean " + meant.get() + "?");
                tokens.set(at, new Token(Kind.WORD, meant.get(), first.place(), first.from(), first.to()));
                return ENDS.contains(meant.get()) ? null : statement();
            }
        }
        int begin = at;
        ExpressionSyntax target = designator();
        if (here().is("(")) {
            return call(first, target);
        }
        if (here().is("=")) {
            tell(here().place(), "Write := to assign; = compares.", TextMend.replace(here().place(), ":="));
            take();
        } else if (here().is(":")) {
            throw lost(here().place(), ahead(1).is("=") ? "Write := without a space." : "Variables are declared between VAR and END_VAR; a : has no place here. To assign, write :=.");
        } else if (here().is("=>")) {
            throw lost(here().place(), "=> takes an output in the call of a block. To assign, write :=.");
        } else if (!taken(":=")) {
            throw lost(from(first), "This is no statement: to assign, write " + written(begin) + " := …; to call a block, " + written(begin) + "(…);");
        }
        ExpressionSyntax value = expression();
        if (here().is(":=")) {
            throw lost(here().place(), "Only one variable is assigned in a statement.");
        }
        decimalComma();
        semicolon();
        return new StatementSyntax.Assignment(from(first), target, value);
    }

    /** What was written since the token at an index, shortened. */
    private String written(int first) {
        StringBuilder text = new StringBuilder();
        for (int i = first; i < at && text.length() < 40; i++) {
            text.append(tokens.get(i).text());
        }
        return text.toString();
    }

    /** A variable, a member of it, an element, a bit, or what it refers to. */
    private ExpressionSyntax designator() {
        Token first = take();
        if (isAddress(first)) {
            return new ExpressionSyntax.Address(first.place(), first.text());
        }
        StringBuilder path = new StringBuilder(first.text());
        ExpressionSyntax of = null;
        int depth = 0;
        while (true) {
            if (here().is(".")) {
                Token dot = take();
                Token part = here();
                if (part.kind() == Kind.WORD && of == null) {
                    path.append('.').append(take().text());
                    continue;
                }
                ExpressionSyntax whole = of == null ? new Name(from(first), path.toString()) : of;
                if (part.kind() == Kind.WORD) {
                    take();
                    of = new ExpressionSyntax.Member(from(first), whole, part.text(), part.place());
                } else if (part.kind() == Kind.LITERAL) {
                    take();
                    of = new ExpressionSyntax.Part(from(first), whole, part.text(), part.place());
                } else {
                    throw lost(dot.place(), "A name is missing after the dot.");
                }
            } else if (here().is("[")) {
                ExpressionSyntax whole = of == null ? new Name(from(first), path.toString()) : of;
                of = new ExpressionSyntax.Element(from(first), whole, indices());
            } else if (here().is("^")) {
                take();
                of = new ExpressionSyntax.Referred(from(first), of == null ? new Name(from(first), path.toString()) : of);
            } else {
                return of == null ? new Name(from(first), path.toString()) : of;
            }
            if (++depth > DEEPEST_PARENTHESIS) {
                throw lost(first.place(), "Elements and members stand at most " + DEEPEST_PARENTHESIS + " deep inside one another.");
            }
        }
    }

    private List<ExpressionSyntax> indices() {
        Token open = take();
        deeper(open);
        List<ExpressionSyntax> indices = new ArrayList<>();
        do {
            indices.add(expression());
        } while (taken(","));
        parentheses--;
        if (!taken("]")) {
            if (here().kind() == Kind.LITERAL || here().isName() && !ahead(1).is(":=")) {
                throw lost(here().place(), "An operator is missing before " + shown(here()) + ".");
            }
            throw lost(open.place(), "This [ is not closed: ] is missing.");
        }
        return indices;
    }

    private StatementSyntax call(Token first, ExpressionSyntax block) {
        Token open = take();
        List<StatementSyntax.Argument> arguments = new ArrayList<>();
        while (!taken(")")) {
            if (here().kind() == Kind.END || here().is(";")) {
                throw lost(here().is(";") ? gap() : open.place(), "The ( of this call is not closed: ) is missing.");
            }
            arguments.add(argument());
            if (!here().is(")") && !taken(",")) {
                if (here().isName() && (ahead(1).is(":=") || ahead(1).is("=>"))) {
                    if (here().place().line() > before().place().line() && !closesLater()) {
                        throw lost(gap(), "The ( of this call is not closed: ) is missing.");
                    }
                    tell(gap(), "A , is missing between two inputs.", TextMend.insert(gap(), ","));
                } else if (here().is(";") || here().kind() == Kind.END || here().isKeyword()) {
                    throw lost(gap(), "The ( of this call is not closed: ) is missing.");
                } else {
                    throw lost(here().place(), "A , or ) is expected here, not " + shown(here()) + ".");
                }
            }
        }
        semicolon();
        return new StatementSyntax.BlockCall(from(first), block, arguments);
    }

    /** A ) comes before the next ; on the way. */
    private boolean closesLater() {
        for (int i = at; i < tokens.size(); i++) {
            if (tokens.get(i).is(")")) {
                return true;
            }
            if (tokens.get(i).is(";") || tokens.get(i).is("(")) {
                return false;
            }
        }
        return false;
    }

    private StatementSyntax.Argument argument() {
        Token first = here();
        boolean negated = first.is("NOT") && ahead(1).kind() == Kind.WORD && ahead(2).is("=>");
        if (negated || first.kind() == Kind.WORD && ahead(1).is("=>")) {
            if (negated) {
                take();
            }
            Token pin = take();
            take();
            if (here().is(",") || here().is(")")) {
                return new StatementSyntax.Output(from(first), pin.text(), pin.place(), negated, null);
            }
            if (!isAddress(here()) && (here().kind() != Kind.WORD || here().isKeyword())) {
                throw lost(gap(), "A variable that takes the output " + pin.text() + " is missing after =>.");
            }
            ExpressionSyntax target = designator();
            return new StatementSyntax.Output(from(first), pin.text(), pin.place(), negated, target);
        }
        if (first.kind() == Kind.WORD && ahead(1).is(":=")) {
            take();
            take();
            ExpressionSyntax value = expression();
            return new StatementSyntax.Input(from(first), first.text(), value);
        }
        ExpressionSyntax value = expression();
        return new StatementSyntax.Input(from(first), null, value);
    }

    private StatementSyntax ifStatement() {
        Token opened = take();
        List<StatementSyntax.Branch> branches = new ArrayList<>();
        ExpressionSyntax condition = condition("IF", "THEN");
        branches.add(new StatementSyntax.Branch(condition, statements("END_IF")));
        List<StatementSyntax> otherwise = null;
        Token elseIf = null;
        while (true) {
            if (!here().is("END") && misspelt("ELSIF")) {
                Token elsif = take();
                if (otherwise != null) {
                    tell(elsif.place(), "ELSIF stands before ELSE.");
                }
                condition = condition("ELSIF", "THEN");
                branches.add(new StatementSyntax.Branch(condition, statements("END_IF")));
            } else if (otherwise == null && misspelt("ELSE")) {
                Token word = take();
                if (here().is("IF") && here().place().line() == word.place().line()) {
                    elseIf = word;
                }
                otherwise = statements("END_IF");
            } else {
                break;
            }
        }
        if (elseIf != null && !here().is("END_IF") && !endsWithSpace("IF")) {
            tell(elseIf.place(), "ELSE IF opens an IF of its own, which needs an END_IF of its own. Write ELSIF.");
        } else {
            closed("IF", opened);
        }
        return new StatementSyntax.If(opened.place(), branches, otherwise);
    }

    /** A condition and the word behind it. */
    private ExpressionSyntax condition(String after, String word) {
        ExpressionSyntax condition = expressionBefore(word, after);
        if (here().is(":=")) {
            tell(here().place(), "Write = to compare; := assigns.", TextMend.replace(here().place(), "="));
            take();
            expressionBefore(word, after);
        }
        if (!misspelt(word)) {
            tell(gap(), word + " is missing after the condition of " + after + ".", TextMend.insert(gap(), " " + word));
            taken(";");
        } else {
            take();
        }
        return condition;
    }

    /** An expression after a word such as IF; where it cannot be read, the reading goes on behind the word that follows it. */
    private ExpressionSyntax expressionBefore(String word, String after) {
        if (here().is(word)) {
            tell(gap(), "A " + (word.equals("OF") || word.equals("TO") ? "value" : "condition") + " is missing after " + after + ".");
            return new Literal(gap(), "FALSE");
        }
        Token first = here();
        try {
            ExpressionSyntax expression = expression();
            decimalComma();
            return expression;
        } catch (Lost told) {
            if (complaints.full()) {
                throw told;
            }
            parentheses = 0;
            while (here().kind() != Kind.END && !here().is(word) && !here().is(";") && !(here().kind() == Kind.WORD && ENDS.contains(here().upper()))
                    && here().place().line() == first.place().line()) {
                take();
            }
            if (!here().is(word)) {
                throw told;
            }
            return new Literal(first.place(), "FALSE");
        }
    }

    private StatementSyntax caseStatement() {
        Token opened = take();
        ExpressionSyntax selector = expressionBefore("OF", "CASE");
        if (misspelt("OF")) {
            take();
        } else {
            tell(gap(), "OF is missing after the value of CASE.", TextMend.insert(gap(), " OF"));
        }
        List<StatementSyntax.Entry> entries = new ArrayList<>();
        List<StatementSyntax> otherwise = null;
        boolean unlabelled = false;
        while (true) {
            if (taken("ELSE")) {
                taken(":");
                otherwise = statements("END_CASE");
            } else if (labelsBegin()) {
                entries.add(entry());
            } else if (here().kind() == Kind.END || here().kind() == Kind.WORD && (ENDS.contains(here().upper()) || here().is("END")) || misspelt("END_CASE")) {
                break;
            } else {
                /* statements without a label are one mistake, however many there are */
                tell(here().place(), "A label is expected here, such as 1: or 2..5:, not " + shown(here()) + ".");
                int start = at;
                while (!atEnd("END_CASE") && !labelsBegin()) {
                    statementInto(new ArrayList<>());
                }
                if (at == start) {
                    take();
                }
                unlabelled = true;
            }
        }
        if (entries.isEmpty() && otherwise == null && !unlabelled) {
            tell(opened.place(), "CASE needs at least one label, such as 1: with statements behind it.");
        }
        closed("CASE", opened);
        return new StatementSyntax.Case(opened.place(), selector, entries, otherwise);
    }

    /** A label: a value, more of them, and a colon that is not part of :=. */
    private boolean labelsBegin() {
        int i = 0;
        if (ahead(i).is("-") || ahead(i).is("+")) {
            i++;
        }
        if (ahead(i).kind() == Kind.LITERAL && !isAddress(ahead(i)) || ahead(i).is("(")) {
            return true;
        }
        if (!ahead(i).isName()) {
            return false;
        }
        while (ahead(i + 1).is(".") && ahead(i + 2).kind() == Kind.WORD) {
            i += 2;
        }
        return ahead(i + 1).is(":") || ahead(i + 1).is(",") || ahead(i + 1).is("..");
    }

    private StatementSyntax.Entry entry() {
        List<StatementSyntax.Label> labels = new ArrayList<>();
        do {
            Token first = here();
            ExpressionSyntax low = expression();
            ExpressionSyntax high = taken("..") ? expression() : null;
            labels.add(new StatementSyntax.Label(from(first), low, high));
        } while (taken(","));
        if (!taken(":")) {
            tell(gap(), "A : is missing after the label.", TextMend.insert(gap(), ":"));
            taken(":=");
            taken(";");
        }
        List<StatementSyntax> body = new ArrayList<>();
        while (!atEnd("END_CASE") && !labelsBegin()) {
            statementInto(body);
        }
        return new StatementSyntax.Entry(labels, body);
    }

    private StatementSyntax forStatement() {
        Token opened = take();
        Token control = here();
        if (control.kind() != Kind.WORD || control.isKeyword()) {
            throw lost(control.place(), "FOR needs a variable that counts: FOR i := 1 TO 10 DO.");
        }
        int begin = at;
        ExpressionSyntax variable = designator();
        String name = written(begin);
        if (here().is("=")) {
            Place equals = take().place();
            tell(equals, "Write := to give the variable its first value; = compares.", TextMend.replace(equals, ":="));
        } else if (!taken(":=")) {
            throw lost(gap(), "A := with the first value is missing: FOR " + name + " := 1 TO 10 DO.");
        }
        ExpressionSyntax first = expressionBefore("TO", "FOR " + name + " :=");
        if (misspelt("TO")) {
            take();
        } else {
            throw lost(gap(), "TO with the last value is missing: FOR " + name + " := 1 TO 10 DO.");
        }
        ExpressionSyntax last = expression();
        ExpressionSyntax by = null;
        if (misspelt("BY")) {
            take();
            by = expression();
        }
        word("DO", "the last value of FOR");
        List<StatementSyntax> body = statements("END_FOR");
        closed("FOR", opened);
        return new StatementSyntax.For(opened.place(), variable, first, last, by, body);
    }

    private void word(String wanted, String after) {
        if (misspelt(wanted)) {
            take();
        } else {
            tell(gap(), wanted + " is missing after " + after + ".", TextMend.insert(gap(), " " + wanted));
            taken(";");
        }
    }

    private StatementSyntax whileStatement() {
        Token opened = take();
        ExpressionSyntax condition = condition("WHILE", "DO");
        List<StatementSyntax> body = statements("END_WHILE");
        closed("WHILE", opened);
        return new StatementSyntax.While(opened.place(), condition, body);
    }

    private StatementSyntax repeatStatement() {
        Token opened = take();
        List<StatementSyntax> body = statements("UNTIL");
        if (!misspelt("UNTIL")) {
            tell(opened.place(), "The REPEAT that begins here has no UNTIL with its condition.");
            taken("END_REPEAT");
            taken(";");
            return new StatementSyntax.Repeat(opened.place(), body, new Literal(opened.place(), "TRUE"));
        }
        take();
        ExpressionSyntax until = expressionBefore("END_REPEAT", "UNTIL");
        taken(";");
        closed("REPEAT", opened);
        return new StatementSyntax.Repeat(opened.place(), body, until);
    }

    /** END_… of a statement, or what is said where it is missing. */
    private void closed(String what, Token opened) {
        if (endOf(what) || misspelt("END_" + what)) {
            if (here().is("END_" + what)) {
                take();
            }
            taken(";");
            return;
        }
        String found = here().kind() == Kind.END ? "." : " before " + shown(here()) + " in line " + here().place().line() + ".";
        String line = " ".repeat(Math.max(0, opened.place().column() - 1)) + "END_" + what + ";\n";
        boolean ownLine = here().place().line() > before().place().line();
        TextMend mend = ownLine ? new TextMend("Insert END_" + what, here().place().line(), 1, 0, line) : TextMend.insert(gap(), " END_" + what + ";");
        tell(opened.place(), "The " + what + " that begins here is not closed: END_" + what + " is missing" + found, mend);
    }

    private static boolean isAddress(Token token) {
        return token.kind() == Kind.LITERAL && token.text().startsWith("%");
    }

    /** END IF in two words: told, and taken. */
    private boolean endOf(String what) {
        if (!endsWithSpace(what)) {
            return false;
        }
        Token end = take();
        take();
        tell(from(end), "Write END_" + what + " in one word.", TextMend.replace(from(end), "END_" + what));
        return true;
    }

    private boolean endsWithSpace(String what) {
        return here().is("END") && ahead(1).is(what);
    }

    /** The word is here, or one that is nearly it; that is told, and read as it. */
    private boolean misspelt(String wanted) {
        Token token = here();
        if (token.is(wanted)) {
            return true;
        }
        boolean nameUsed = ahead(1).is(":=") || ahead(1).is("(") || ahead(1).is(".") || ahead(1).is(":") || ahead(1).is("=");
        if (!token.isName() || nameUsed || wanted.length() < 3 && !token.text().equalsIgnoreCase(new StringBuilder(wanted).reverse().toString())) {
            return false;
        }
        if (Words.nearest(token.text(), List.of(wanted)).isEmpty()) {
            return false;
        }
        tell(token.place(), token.text() + " is no word of the language. Did you mean " + wanted + "?");
        tokens.set(at, new Token(Kind.WORD, wanted, token.place(), token.from(), token.to()));
        return true;
    }

    private void semicolon() {
        if (!taken(";")) {
            missingSemicolon("statement");
        }
    }

    private void missingSemicolon(String what) {
        Token next = here();
        Token last = before();
        boolean openText = last.kind() == Kind.LITERAL && (last.text().indexOf('\'') >= 0 || last.text().indexOf('"') >= 0) && !last.text().matches("(?s).*['\"]");
        if (openText) {
            // Told already: the rest of the line belongs to a text that is not closed.
            return;
        }
        if (next.is(")") || next.is("]")) {
            throw lost(next.place(), "This " + next.text() + " closes nothing.");
        }
        boolean starts = next.kind() == Kind.END || next.kind() == Kind.WORD || next.place().line() > before().place().line();
        if (!starts) {
            throw lost(next.place(), shown(next) + " is not expected here: an operator or a ; is missing before it.");
        }
        boolean sameLine = next.isName() && next.place().line() == before().place().line() && !ahead(1).is(":=") && !ahead(1).is("(") && !ahead(1).is(":") && !ahead(1).is(".");
        if (sameLine || next.kind() == Kind.WORD && (next.is("TRUE") || next.is("FALSE") || next.is("NOT"))) {
            throw lost(next.place(), "An operator is missing before " + shown(next) + ".");
        }
        tell(gap(), "A ; is missing at the end of this " + what + ".", TextMend.insert(gap(), ";"));
    }

    /** 2,5 where no list can stand. */
    private void decimalComma() {
        Token comma = here();
        Token digits = ahead(1);
        boolean number = before().kind() == Kind.LITERAL && digits.kind() == Kind.LITERAL && before().to() == comma.from() && comma.to() == digits.from();
        if (comma.is(",") && number) {
            Place place = new Place(before().place().line(), before().place().column(), digits.to() - before().from());
            tell(place, "Write a decimal point: " + before().text() + "." + digits.text() + ".");
            take();
            take();
        }
    }

    // ---- expressions

    private ExpressionSyntax expression() {
        return binary(0);
    }

    /** Operators of one precedence, from the left: all levels in one loop, so that a long sum costs no stack. */
    private ExpressionSyntax binary(int level) {
        if (level == PRECEDENCE.size()) {
            return unary();
        }
        Token first = here();
        ExpressionSyntax left = binary(level + 1);
        while (true) {
            Token operator = here();
            if ((operator.kind() != Kind.SYMBOL && operator.kind() != Kind.WORD) || !PRECEDENCE.get(level).contains(operator.upper())) {
                return left;
            }
            take();
            ExpressionSyntax right = binary(level + 1);
            left = bounded(first, new Binary(from(first), operator.upper(), operator.place(), left, right));
        }
    }

    private ExpressionSyntax bounded(Token first, ExpressionSyntax expression) {
        if (expression.height() > DEEPEST_EXPRESSION) {
            throw lost(first.place(), "An expression has at most " + DEEPEST_EXPRESSION + " operations one after or inside the other. Split it into several statements.");
        }
        return expression;
    }

    private void deeper(Token place) {
        if (++parentheses > DEEPEST_PARENTHESIS) {
            parentheses = 0;
            throw lost(place.place(), "Parentheses, calls and signs stand at most " + DEEPEST_PARENTHESIS + " deep inside one another. Split the expression.");
        }
    }

    private ExpressionSyntax unary() {
        Token operator = here();
        if (!operator.is("-") && !operator.is("+") && !operator.is("NOT")) {
            return primary();
        }
        take();
        deeper(operator);
        ExpressionSyntax operand = unary();
        parentheses--;
        return bounded(operator, new Unary(from(operator), operator.upper(), operand));
    }

    private ExpressionSyntax primary() {
        Token first = here();
        if (taken("(")) {
            deeper(first);
            ExpressionSyntax inner = expression();
            decimalComma();
            parentheses--;
            if (!taken(")")) {
                if (here().kind() == Kind.LITERAL || here().isName() && !ahead(1).is(":=")) {
                    throw lost(here().place(), "An operator is missing before " + shown(here()) + ".");
                }
                throw lost(first.place(), "This ( is not closed: ) is missing.");
            }
            return inner;
        }
        if (isAddress(first)) {
            return designator();
        }
        if (first.kind() == Kind.LITERAL || first.is("TRUE") || first.is("FALSE") || first.is("NULL")) {
            return new Literal(take().place(), first.text());
        }
        if (OPERATOR_FUNCTIONS.contains(first.upper()) && ahead(1).is("(")) {
            take();
            return function(first, new Name(first.place(), first.upper()));
        }
        if (first.isName()) {
            ExpressionSyntax name = designator();
            if (here().is("(")) {
                if (name instanceof Name function) {
                    return function(first, function);
                }
                throw lost(here().place(), "A function is called by its name alone.");
            }
            return name;
        }
        throw lost(first.kind() == Kind.END || first.is(";") || first.is(")") || first.isKeyword() || first.place().line() > before().place().line() ? gap() : first.place(), missingValue(first));
    }

    private String missingValue(Token first) {
        if (first.kind() == Kind.WORD && Words.isForLater(first.text())) {
            return "Not supported yet: " + first.upper() + ".";
        }
        if (first.is(".") && ahead(1).kind() == Kind.LITERAL) {
            return "Write a digit before the decimal point: 0." + ahead(1).text() + ".";
        }
        if (first.is("=") && before().is("<") || first.is("=") && before().is(">") || first.is(">") && before().is("<")) {
            return "Write " + before().text() + first.text() + " without a space.";
        }
        if (first.is(">") && before().is("=") || first.is("<") && before().is("=")) {
            return "Write " + first.text() + "= instead of =" + first.text() + ".";
        }
        if (before().is(":=")) {
            return "A value is missing after :=.";
        }
        boolean operator = PRECEDENCE.stream().anyMatch(level -> level.contains(before().upper())) || before().is("NOT");
        String found = first.kind() == Kind.SYMBOL && !first.is(";") && !first.is(")") ? ", not " + first.text() : "";
        return operator ? "A value is missing after " + before().upper() + found + "." : "A value is expected here" + found + ".";
    }

    private ExpressionSyntax function(Token first, Name name) {
        take();
        deeper(first);
        List<StatementSyntax.Argument> arguments = new ArrayList<>();
        while (!taken(")")) {
            arguments.add(argument());
            if (!here().is(")") && !taken(",")) {
                boolean another = here().kind() == Kind.LITERAL || here().isName() && !ahead(1).is(":=");
                throw lost(another ? here().place() : first.place(), another ? "An operator or a , is missing before " + shown(here()) + "." : "The ( of " + name.path() + " is not closed: ) is missing.");
            }
        }
        parentheses--;
        return bounded(first, new Call(from(first), name.path(), name.place(), arguments));
    }
}
