package rueda.plc.syntax;

import java.util.ArrayList;
import java.util.List;
import rueda.plc.syntax.Token.Kind;
import rueda.plc.syntax.UnitSyntax.Declaration;

/** Reads a text by recursive descent: units, types and global variables. What is in them is read by the classes that it builds on. */
public final class Parser extends DeclarationParser {

    private Parser(Lexer.Cut text, Complaints complaints) {
        super(text, complaints);
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

    /** An expression that is all of a text; null when something is wrong, which has been told. */
    public static ExpressionSyntax expression(String text, Complaints complaints) {
        Parser parser = new Parser(Lexer.cut(text, complaints), complaints);
        try {
            if (parser.here().kind() == Kind.END) {
                throw parser.lost(parser.here().place(), "An expression is missing.");
            }
            ExpressionSyntax expression = parser.expression();
            if (parser.here().kind() != Kind.END) {
                throw parser.lost(parser.here().place(), "Nothing may stand behind the expression, and " + shown(parser.here()) + " does.");
            }
            return expression;
        } catch (Lost told) {
            return null;
        }
    }

    private FileSyntax file() {
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
}
