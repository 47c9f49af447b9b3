package rueda.plc.syntax;

import java.util.ArrayList;
import java.util.List;

/**
 * The statements of a unit in the order of the text, each with the branches in which it stands: of two statements in different branches of
 * one IF or CASE only one can run in a pass.
 */
public final class Branches {

    /** One branch of a statement that chooses. @param of the statement  @param number of the branch, from 0 */
    public record Branch(StatementSyntax of, int number) {
    }

    /** @param within the branches around it, from the outside in */
    public record Located(StatementSyntax statement, List<Branch> within) {

        /** One pass cannot run both. */
        public boolean excludes(Located other) {
            for (int i = 0; i < Math.min(within.size(), other.within.size()); i++) {
                if (within.get(i).of() != other.within.get(i).of()) {
                    return false;
                }
                if (within.get(i).number() != other.within.get(i).number()) {
                    return true;
                }
            }
            return false;
        }
    }

    private Branches() {
    }

    /** All statements, those inside of others behind them. */
    public static List<Located> of(List<StatementSyntax> body) {
        List<Located> all = new ArrayList<>();
        into(body, List.of(), all);
        return all;
    }

    private static void into(List<StatementSyntax> body, List<Branch> within, List<Located> all) {
        for (StatementSyntax statement : body) {
            all.add(new Located(statement, within));
            List<List<StatementSyntax>> inner = inner(statement);
            for (int i = 0; i < inner.size(); i++) {
                boolean chooses = statement instanceof StatementSyntax.If || statement instanceof StatementSyntax.Case;
                List<Branch> deeper = within;
                if (chooses) {
                    deeper = new ArrayList<>(within);
                    deeper.add(new Branch(statement, i));
                }
                into(inner.get(i), deeper, all);
            }
        }
    }

    /** Lists of statements inside of one, in the order of its branches; ELSE is the last. */
    public static List<List<StatementSyntax>> inner(StatementSyntax statement) {
        List<List<StatementSyntax>> inner = new ArrayList<>();
        if (statement instanceof StatementSyntax.If choice) {
            choice.branches().forEach(b -> inner.add(b.body()));
            inner.add(choice.otherwise() == null ? List.of() : choice.otherwise());
        } else if (statement instanceof StatementSyntax.Case choice) {
            choice.entries().forEach(e -> inner.add(e.body()));
            inner.add(choice.otherwise() == null ? List.of() : choice.otherwise());
        } else if (statement instanceof StatementSyntax.For loop) {
            inner.add(loop.body());
        } else if (statement instanceof StatementSyntax.While loop) {
            inner.add(loop.body());
        } else if (statement instanceof StatementSyntax.Repeat loop) {
            inner.add(loop.body());
        }
        return inner;
    }
}
