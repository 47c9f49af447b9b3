package rueda.advice.program;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import rueda.plc.syntax.ExpressionSyntax;
import rueda.plc.syntax.StatementSyntax;

/** Names and values in written expressions. */
final class Expressions {

    private Expressions() {
    }

    /** Paths of all names in it, in capitals; elements without their indices, which are names of their own. */
    static List<String> paths(ExpressionSyntax expression) {
        List<String> paths = new ArrayList<>();
        names(expression).forEach(name -> paths.add(path(name)));
        return paths;
    }

    /** All names, elements and members in it that stand for a value. */
    static List<ExpressionSyntax> names(ExpressionSyntax expression) {
        List<ExpressionSyntax> names = new ArrayList<>();
        into(expression, names);
        return names;
    }

    private static void into(ExpressionSyntax e, List<ExpressionSyntax> names) {
        if (e instanceof ExpressionSyntax.Name) {
            names.add(e);
        } else if (e instanceof ExpressionSyntax.Element element) {
            names.add(e);
            element.indices().forEach(i -> into(i, names));
        } else if (e instanceof ExpressionSyntax.Member || e instanceof ExpressionSyntax.Referred) {
            names.add(e);
        } else if (e instanceof ExpressionSyntax.Part part) {
            into(part.of(), names);
        } else if (e instanceof ExpressionSyntax.Unary unary) {
            into(unary.operand(), names);
        } else if (e instanceof ExpressionSyntax.Binary binary) {
            into(binary.left(), names);
            into(binary.right(), names);
        } else if (e instanceof ExpressionSyntax.Call call) {
            for (StatementSyntax.Argument argument : call.arguments()) {
                if (argument instanceof StatementSyntax.Input input) {
                    into(input.value(), names);
                }
            }
        }
    }

    /** The path of a name, an element or a member, in capitals; empty for anything else. */
    static String path(ExpressionSyntax e) {
        if (e instanceof ExpressionSyntax.Name name) {
            return name.path().toUpperCase(Locale.ROOT);
        }
        if (e instanceof ExpressionSyntax.Element element) {
            return path(element.of()) + "[]";
        }
        if (e instanceof ExpressionSyntax.Member member) {
            return path(member.of()) + "." + member.name().toUpperCase(Locale.ROOT);
        }
        return e instanceof ExpressionSyntax.Referred referred ? path(referred.of()) + "^" : e instanceof ExpressionSyntax.Part part ? path(part.of()) : "";
    }

    static boolean isTrue(ExpressionSyntax e) {
        return e instanceof ExpressionSyntax.Literal literal && (literal.text().equalsIgnoreCase("TRUE") || literal.text().equalsIgnoreCase("BOOL#TRUE") || literal.text().equalsIgnoreCase("BOOL#1"));
    }

    static boolean isFalse(ExpressionSyntax e) {
        return e instanceof ExpressionSyntax.Literal literal && (literal.text().equalsIgnoreCase("FALSE") || literal.text().equalsIgnoreCase("BOOL#FALSE") || literal.text().equalsIgnoreCase("BOOL#0"));
    }

    /** A constant as it is told from others: a number without its type, or the last part of a name, in capitals; null for what is none. */
    static String constant(ExpressionSyntax e) {
        if (e instanceof ExpressionSyntax.Literal literal) {
            String text = literal.text().toUpperCase(Locale.ROOT).replace("_", "");
            int hash = text.lastIndexOf('#');
            String value = hash < 0 || text.startsWith("2#") || text.startsWith("8#") || text.startsWith("16#") ? text : text.substring(hash + 1);
            return value.isEmpty() ? null : value;
        }
        if (e instanceof ExpressionSyntax.Name name) {
            return name.path().toUpperCase(Locale.ROOT).substring(name.path().lastIndexOf('.') + 1);
        }
        return null;
    }
}
