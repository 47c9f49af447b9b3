package rueda.plc.syntax;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import rueda.plc.syntax.ExpressionSyntax.Literal;
import rueda.plc.syntax.Token.Kind;

/**
 * Reads statements by recursive descent. A small slip (a missing semicolon, {@code =} for {@code :=}) is told and read as what was meant. After a
 * mistake that leaves open what was meant the rest of the statement is passed over in silence, so that one mistake gives one message.
 */
abstract class StatementParser extends ExpressionParser {

    /** Statements that stand inside one another. */
    static final int DEEPEST_STATEMENT = 100;

    static final Set<String> STARTS = Set.of("IF", "CASE", "FOR", "WHILE", "REPEAT", "EXIT", "CONTINUE", "RETURN");
    static final Set<String> UNIT_STARTS = Set.of("PROGRAM", "FUNCTION", "FUNCTION_BLOCK", "TYPE", "VAR_GLOBAL", "METHOD", "PROPERTY", "CLASS", "INTERFACE", "NAMESPACE", "CONFIGURATION");
    private static final Set<String> ENDS = Set.of("END_IF", "END_CASE", "END_FOR", "END_WHILE", "END_REPEAT", "UNTIL", "ELSIF", "ELSE", "END_PROGRAM", "END_FUNCTION", "END_FUNCTION_BLOCK");

    private int nesting;

    StatementParser(Lexer.Cut text, Complaints complaints) {
        super(text, complaints);
    }

    /** One statement; one that cannot be read is told and passed over. */
    void statementInto(List<StatementSyntax> list) {
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
    List<StatementSyntax> statements(String end) {
        List<StatementSyntax> list = new ArrayList<>();
        statementsInto(list, end);
        return list;
    }

    void statementsInto(List<StatementSyntax> list, String end) {
        while (!atEnd(end)) {
            statementInto(list);
        }
    }

    boolean atEnd(String end) {
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
    void passOver(int start) {
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

    StatementSyntax statement() {
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

    StatementSyntax assignmentOrCall() {
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

    StatementSyntax call(Token first, ExpressionSyntax block) {
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
    boolean closesLater() {
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

    StatementSyntax ifStatement() {
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
    ExpressionSyntax condition(String after, String word) {
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
    ExpressionSyntax expressionBefore(String word, String after) {
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

    StatementSyntax caseStatement() {
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
    boolean labelsBegin() {
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

    StatementSyntax.Entry entry() {
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

    StatementSyntax forStatement() {
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

    void word(String wanted, String after) {
        if (misspelt(wanted)) {
            take();
        } else {
            tell(gap(), wanted + " is missing after " + after + ".", TextMend.insert(gap(), " " + wanted));
            taken(";");
        }
    }

    StatementSyntax whileStatement() {
        Token opened = take();
        ExpressionSyntax condition = condition("WHILE", "DO");
        List<StatementSyntax> body = statements("END_WHILE");
        closed("WHILE", opened);
        return new StatementSyntax.While(opened.place(), condition, body);
    }

    StatementSyntax repeatStatement() {
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
    void closed(String what, Token opened) {
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
}
