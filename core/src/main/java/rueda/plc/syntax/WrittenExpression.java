package rueda.plc.syntax;

import java.util.List;
import rueda.plc.syntax.StatementSyntax.Argument;
import rueda.plc.syntax.StatementSyntax.Input;
import rueda.plc.syntax.StatementSyntax.Output;

/** An expression as text again: with the same meaning, not with the same spaces. */
public final class WrittenExpression {

    private WrittenExpression() {
    }

    public static String of(ExpressionSyntax e) {
        if (e instanceof ExpressionSyntax.Literal literal) {
            return literal.text();
        }
        if (e instanceof ExpressionSyntax.Name name) {
            return name.path();
        }
        if (e instanceof ExpressionSyntax.Address address) {
            return address.text();
        }
        if (e instanceof ExpressionSyntax.Element element) {
            return of(element.of()) + "[" + all(element.indices()) + "]";
        }
        if (e instanceof ExpressionSyntax.Member member) {
            return of(member.of()) + "." + member.name();
        }
        if (e instanceof ExpressionSyntax.Part part) {
            return of(part.of()) + "." + part.part();
        }
        if (e instanceof ExpressionSyntax.Referred referred) {
            return of(referred.of()) + "^";
        }
        if (e instanceof ExpressionSyntax.Unary unary) {
            return unary.operator() + (unary.operator().equals("NOT") ? " " : "") + inner(unary.operand());
        }
        if (e instanceof ExpressionSyntax.Binary binary) {
            return inner(binary.left()) + " " + binary.operator() + " " + inner(binary.right());
        }
        if (e instanceof ExpressionSyntax.Call call) {
            return call.function() + "(" + String.join(", ", call.arguments().stream().map(WrittenExpression::argument).toList()) + ")";
        }
        if (e instanceof ExpressionSyntax.Listed listed) {
            return "[" + String.join(", ", listed.items().stream().map(i -> i.count() == null ? all(i.values()) : of(i.count()) + "(" + all(i.values()) + ")").toList()) + "]";
        }
        return "(" + String.join(", ", ((ExpressionSyntax.Composed) e).members().stream().map(WrittenExpression::argument).toList()) + ")";
    }

    private static String all(List<ExpressionSyntax> expressions) {
        return String.join(", ", expressions.stream().map(WrittenExpression::of).toList());
    }

    private static String inner(ExpressionSyntax e) {
        return e instanceof ExpressionSyntax.Binary ? "(" + of(e) + ")" : of(e);
    }

    private static String argument(Argument argument) {
        if (argument instanceof Output output) {
            return (output.negated() ? "NOT " : "") + output.pin() + " => " + (output.target() == null ? "" : of(output.target()));
        }
        Input input = (Input) argument;
        return (input.pin() == null ? "" : input.pin() + " := ") + of(input.value());
    }
}
