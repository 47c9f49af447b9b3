package rueda.plc.syntax;

import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import rueda.plc.syntax.ExpressionSyntax.Binary;
import rueda.plc.syntax.ExpressionSyntax.Call;
import rueda.plc.syntax.ExpressionSyntax.Literal;
import rueda.plc.syntax.ExpressionSyntax.Name;
import rueda.plc.syntax.ExpressionSyntax.Unary;
import rueda.plc.syntax.Token.Kind;

/** Reads expressions by their precedence, and what they name. */
abstract class ExpressionParser extends TokenReader {

    /** Operations, calls and parentheses that stand inside one another. */
    static final int DEEPEST_EXPRESSION = 500;
    private static final int DEEPEST_PARENTHESIS = 100;

    private static final List<List<String>> PRECEDENCE = List.of(List.of("OR"), List.of("XOR"), List.of("AND", "&"), List.of("=", "<>"),
            List.of("<", ">", "<=", ">="), List.of("+", "-"), List.of("*", "/", "MOD"), List.of("**"));

    /** Operators that are functions too (IEC 61131-3, 6.6.2.5): AND(a, b, c). */
    private static final Set<String> OPERATOR_FUNCTIONS = Set.of("AND", "OR", "XOR", "MOD");

    int parentheses;

    ExpressionParser(Lexer.Cut text, Complaints complaints) {
        super(text, complaints);
    }

    ExpressionSyntax expression() {
        return binary(0);
    }

    /** Operators of one precedence, from the left: all levels in one loop, so that a long sum costs no stack. */
    ExpressionSyntax binary(int level) {
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

    ExpressionSyntax bounded(Token first, ExpressionSyntax expression) {
        if (expression.height() > DEEPEST_EXPRESSION) {
            throw lost(first.place(), "An expression has at most " + DEEPEST_EXPRESSION + " operations one after or inside the other. Split it into several statements.");
        }
        return expression;
    }

    void deeper(Token place) {
        if (++parentheses > DEEPEST_PARENTHESIS) {
            parentheses = 0;
            throw lost(place.place(), "Parentheses, calls and signs stand at most " + DEEPEST_PARENTHESIS + " deep inside one another. Split the expression.");
        }
    }

    ExpressionSyntax unary() {
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

    ExpressionSyntax primary() {
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

    String missingValue(Token first) {
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

    ExpressionSyntax function(Token first, Name name) {
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

    /** A variable, a member of it, an element, a bit, or what it refers to. */
    ExpressionSyntax designator() {
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

    List<ExpressionSyntax> indices() {
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

    StatementSyntax.Argument argument() {
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
}
