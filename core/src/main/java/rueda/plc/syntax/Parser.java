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
import rueda.plc.syntax.ProgramSyntax.Declaration;
import rueda.plc.syntax.Token.Kind;

/**
 * Reads one program by recursive descent; expressions by their precedence.
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

    private static final Set<String> STARTS = Set.of("IF", "CASE", "FOR", "WHILE", "REPEAT", "EXIT", "RETURN");
    private static final Set<String> ENDS = Set.of("END_IF", "END_CASE", "END_FOR", "END_WHILE", "END_REPEAT", "UNTIL", "ELSIF", "ELSE", "END_PROGRAM");
    private static final List<List<String>> PRECEDENCE = List.of(List.of("OR"), List.of("XOR"), List.of("AND", "&"), List.of("=", "<>"),
            List.of("<", ">", "<=", ">="), List.of("+", "-"), List.of("*", "/", "MOD"), List.of("**"));

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
    public static ProgramSyntax parse(String text, Complaints complaints) {
        Parser parser = new Parser(Lexer.cut(text, complaints), complaints);
        try {
            return parser.program();
        } catch (Lost told) {
            return new ProgramSyntax("", List.of(), List.of(), 0);
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
        if (silent) {
            return;
        }
        complaints.at(place, message);
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

    // ---- program and declarations

    private ProgramSyntax program() {
        if (here().kind() == Kind.END) {
            throw lost(here().place(), "The program is empty. Write PROGRAM and a name, variables between VAR and END_VAR, statements, END_PROGRAM.");
        }
        if (!misspelt("PROGRAM")) {
            if (Words.isForLater(here().text())) {
                throw lost(here().place(), "Not supported yet: " + here().upper() + ". A text holds one PROGRAM.");
            }
            throw lost(here().place(), "A program begins with PROGRAM and its name, not with " + shown(here()) + ".");
        }
        take();
        String name = "";
        if (here().kind() == Kind.WORD && !here().is("VAR") && !here().isKeyword()) {
            name = take().text();
            String fault = Words.faultOfName(name);
            if (fault != null) {
                tell(before().place(), fault);
            }
        } else {
            tell(gap(), "The program needs a name: PROGRAM Main.");
            if (here().kind() == Kind.LITERAL || here().isKeyword() && !here().is("VAR") && !STARTS.contains(here().upper())) {
                take();
            }
        }
        taken(";");
        List<Declaration> declarations = new ArrayList<>();
        while (here().kind() == Kind.WORD && (here().is("VAR") || here().upper().startsWith("VAR_"))) {
            if (!here().is("VAR")) {
                throw lost(here().place(), "Not supported yet: " + here().upper() + ". Declare variables between VAR and END_VAR.");
            }
            variables(declarations);
        }
        List<StatementSyntax> body = statements("END_PROGRAM");
        if (endOf("PROGRAM")) {
            taken(";");
        } else if (here().kind() == Kind.END) {
            tell(gap(), "END_PROGRAM is missing at the end of the program.");
        } else {
            taken("END_PROGRAM");
            taken(";");
            if (here().kind() != Kind.END) {
                tell(here().place(), Words.isForLater(here().text()) || here().is("PROGRAM") ? "Not supported yet: " + here().upper() + " behind the program. A text holds one PROGRAM."
                        : "Nothing may stand behind END_PROGRAM.");
            }
        }
        return new ProgramSyntax(name, declarations, body, tokens.get(tokens.size() - 1).place().line());
    }

    /** VAR … END_VAR. */
    private void variables(List<Declaration> declarations) {
        Token opened = take();
        boolean constant = taken("CONSTANT");
        while (here().kind() == Kind.WORD && Words.isForLater(here().text()) && ahead(1).isName() && !here().is("AT")) {
            tell(here().place(), "Not supported yet: " + here().upper() + ".");
            take();
        }
        while (true) {
            if (endOf("VAR") || taken("END_VAR")) {
                taken(";");
                return;
            }
            boolean statement = here().isName() && ahead(1).is(":=") && !(ahead(2).kind() == Kind.WORD && ahead(3).is(";"))
                    || here().isName() && ahead(1).is("(");
            if (here().kind() == Kind.END || here().isKeyword() && !Words.isForLater(here().text()) && !ahead(1).is(":") && !ahead(1).is(",") || statement) {
                tell(opened.place(), "The VAR that begins here is not closed: END_VAR is missing" + (here().kind() == Kind.END ? "." : " before " + shown(here()) + " in line " + here().place().line() + "."));
                return;
            }
            if (misspelt("END_VAR")) {
                continue;
            }
            try {
                declaration(declarations, constant);
            } catch (Lost told) {
                if (complaints.full()) {
                    throw told;
                }
                parentheses = 0;
                while (here().kind() != Kind.END && !here().is("END_VAR") && !here().is("END_PROGRAM") && !here().is(";") && !endsWithSpace("VAR")) {
                    take();
                }
                taken(";");
            }
        }
    }

    private void declaration(List<Declaration> declarations, boolean constant) {
        List<Name> names = new ArrayList<>();
        do {
            Token name = here();
            if (name.kind() != Kind.WORD) {
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
            throw lost(here().place(), "Not supported yet: AT with an address. Bind the tag in Map and use its name.");
        }
        if (here().is(":=") && ahead(1).kind() == Kind.WORD) {
            tell(take().place(), "Write : between a name and its type; := gives a value.");
        } else if (!taken(":")) {
            if (here().kind() == Kind.WORD) {
                tell(gap(), "A : is missing between " + names.get(names.size() - 1).path() + " and its type.");
            } else {
                throw lost(gap(), "A : and a type are missing after " + names.get(names.size() - 1).path() + ", such as " + names.get(names.size() - 1).path() + " : INT;");
            }
        }
        Token type = here();
        if (type.kind() == Kind.WORD && Words.isForLater(type.text())) {
            while (type.is("STRUCT") && here().kind() != Kind.END && !here().is("END_STRUCT") && !here().is("END_VAR")) {
                take();
            }
            throw lost(type.place(), "Not supported yet: " + type.upper() + ".");
        }
        if (type.is("(")) {
            throw lost(type.place(), "Not supported yet: enumerations.");
        }
        if (type.kind() != Kind.WORD || type.isKeyword()) {
            throw lost(type.kind() == Kind.END || type.is(";") ? gap() : type.place(), "A type is missing after the :, such as INT or TON.");
        }
        take();
        ExpressionSyntax length = null;
        if (here().is("[") || here().is("(") && type.upper().endsWith("STRING")) {
            String close = take().is("[") ? "]" : ")";
            length = expression();
            if (!taken(close)) {
                tell(gap(), "A " + close + " is missing after the length.");
            }
        } else if (here().is("(")) {
            throw lost(here().place(), "Not supported yet: subranges and values in parentheses behind a type.");
        }
        ExpressionSyntax initial = null;
        if (here().is("=")) {
            tell(here().place(), "Write := before an initial value; = compares.");
            take();
            initial = expression();
        } else if (taken(":=")) {
            if (here().is("[") || here().is("(") && ahead(1).isName() && ahead(2).is(":=")) {
                throw lost(here().place(), "Not supported yet: initial values of arrays and structures.");
            }
            initial = expression();
        }
        decimalComma();
        if (!taken(";")) {
            missingSemicolon("declaration");
        }
        declarations.add(new Declaration(names, type.text(), type.place(), length, initial, constant));
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
        while (!atEnd(end)) {
            statementInto(list);
        }
        return list;
    }

    private boolean atEnd(String end) {
        if (here().kind() == Kind.END || here().kind() == Kind.WORD && ENDS.contains(here().upper())) {
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
            if (here().kind() == Kind.WORD && (ENDS.contains(here().upper()) || STARTS.contains(here().upper()))) {
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
        if (first.kind() != Kind.WORD) {
            if (isAddress(first)) {
                throw lost(first.place(), addresses(first));
            }
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
        Name target = path();
        if (here().is("(")) {
            return call(first, target);
        }
        if (here().is("=")) {
            tell(here().place(), "Write := to assign; = compares.");
            take();
        } else if (here().is(":")) {
            throw lost(here().place(), ahead(1).is("=") ? "Write := without a space." : "Variables are declared between VAR and END_VAR; a : has no place here. To assign, write :=.");
        } else if (here().is("[") || here().is("^")) {
            throw lost(here().place(), "Not supported yet: " + (here().is("[") ? "arrays." : "references."));
        } else if (here().is("=>")) {
            throw lost(here().place(), "=> takes an output in the call of a block. To assign, write :=.");
        } else if (!taken(":=")) {
            throw lost(from(first), "This is no statement: to assign, write " + target.path() + " := …; to call a block, " + target.path() + "(…);");
        }
        ExpressionSyntax value = expression();
        if (here().is(":=")) {
            throw lost(here().place(), "Only one variable is assigned in a statement.");
        }
        decimalComma();
        semicolon();
        return new StatementSyntax.Assignment(from(first), target, value);
    }

    private Name path() {
        Token first = take();
        StringBuilder path = new StringBuilder(first.text());
        while (here().is(".")) {
            Token dot = take();
            Token part = here();
            if (part.kind() == Kind.WORD) {
                path.append('.').append(take().text());
            } else if (part.kind() == Kind.LITERAL) {
                throw lost(part.place(), "Not supported yet: access to single bits, such as " + path + "." + part.text() + ".");
            } else {
                throw lost(dot.place(), "A name is missing after the dot.");
            }
        }
        return new Name(from(first), path.toString());
    }

    private StatementSyntax call(Token first, Name block) {
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
                    tell(gap(), "A , is missing between two inputs.");
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
        if (first.kind() == Kind.WORD && ahead(1).is("=>")) {
            take();
            take();
            if (here().kind() != Kind.WORD || here().isKeyword()) {
                throw lost(gap(), "A variable that takes the output " + first.text() + " is missing after =>.");
            }
            Name target = path();
            return new StatementSyntax.Output(from(first), first.text(), first.place(), target);
        }
        if (first.is("NOT") && ahead(1).kind() == Kind.WORD && ahead(2).is("=>")) {
            throw lost(first.place(), "Not supported yet: NOT before an output.");
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
            tell(here().place(), "Write = to compare; := assigns.");
            take();
            expressionBefore(word, after);
        }
        if (!misspelt(word)) {
            tell(gap(), word + " is missing after the condition of " + after + ".");
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
            tell(gap(), "OF is missing after the value of CASE.");
        }
        List<StatementSyntax.Entry> entries = new ArrayList<>();
        List<StatementSyntax> otherwise = null;
        while (true) {
            if (taken("ELSE")) {
                taken(":");
                otherwise = statements("END_CASE");
            } else if (labelsBegin()) {
                entries.add(entry());
            } else if (here().kind() == Kind.END || here().kind() == Kind.WORD && (ENDS.contains(here().upper()) || here().is("END")) || misspelt("END_CASE")) {
                break;
            } else {
                int start = at;
                tell(here().place(), "A label is expected here, such as 1: or 2..5:, not " + shown(here()) + ".");
                passOver(start);
            }
        }
        if (entries.isEmpty() && otherwise == null) {
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
        if (ahead(i).kind() == Kind.LITERAL || ahead(i).is("(")) {
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
            tell(gap(), "A : is missing after the label.");
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
        Name variable = path();
        if (here().is("=")) {
            tell(take().place(), "Write := to give the variable its first value; = compares.");
        } else if (!taken(":=")) {
            throw lost(gap(), "A := with the first value is missing: FOR " + variable.path() + " := 1 TO 10 DO.");
        }
        ExpressionSyntax first = expressionBefore("TO", "FOR " + variable.path() + " :=");
        if (misspelt("TO")) {
            take();
        } else {
            throw lost(gap(), "TO with the last value is missing: FOR " + variable.path() + " := 1 TO 10 DO.");
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
            tell(gap(), wanted + " is missing after " + after + ".");
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
        tell(opened.place(), "The " + what + " that begins here is not closed: END_" + what + " is missing" + found);
    }

    private static boolean isAddress(Token token) {
        return token.kind() == Kind.LITERAL && token.text().startsWith("%");
    }

    private static String addresses(Token token) {
        return "Not supported yet: addresses such as " + token.text() + ". Use the name of the tag that is bound there in Map.";
    }

    /** END IF in two words: told, and taken. */
    private boolean endOf(String what) {
        if (!endsWithSpace(what)) {
            return false;
        }
        Token end = take();
        take();
        tell(from(end), "Write END_" + what + " in one word.");
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
        tell(gap(), "A ; is missing at the end of this " + what + ".");
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
            throw lost(first.place(), addresses(first));
        }
        if (first.kind() == Kind.LITERAL || first.is("TRUE") || first.is("FALSE")) {
            return new Literal(take().place(), first.text());
        }
        if (first.isName()) {
            Name name = path();
            if (here().is("(")) {
                return function(first, name);
            }
            if (here().is("[") || here().is("^")) {
                throw lost(here().place(), "Not supported yet: " + (here().is("[") ? "arrays." : "references."));
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
        List<ExpressionSyntax> values = new ArrayList<>();
        while (!taken(")")) {
            if (here().kind() == Kind.WORD && (ahead(1).is(":=") || ahead(1).is("=>"))) {
                throw lost(here().place(), "Not supported yet: inputs of a function by name. Write the values in their order.");
            }
            values.add(expression());
            if (!here().is(")") && !taken(",")) {
                throw lost(here().kind() == Kind.LITERAL || here().isName() && !ahead(1).is(":=") ? here().place() : first.place(),
                        here().kind() == Kind.LITERAL || here().isName() && !ahead(1).is(":=") ? "An operator or a , is missing before " + shown(here()) + "."
                                : "The ( of " + name.path() + " is not closed: ) is missing.");
            }
        }
        parentheses--;
        return bounded(first, new Call(from(first), name.path(), name.place(), values));
    }
}
