package rueda.plc.syntax;

import java.util.List;

/** A statement as written. */
public sealed interface StatementSyntax {

    Place place();

    record Assignment(Place place, ExpressionSyntax target, ExpressionSyntax value) implements StatementSyntax {
    }

    /** A function block or a function is called. */
    record BlockCall(Place place, ExpressionSyntax block, List<Argument> arguments) implements StatementSyntax {
    }

    /** What is given to or taken from a block. */
    sealed interface Argument {
        Place place();
    }

    /** @param pin null when the value is given by its order */
    record Input(Place place, String pin, ExpressionSyntax value) implements Argument {
    }

    /** @param negated NOT stands before the pin  @param target null where nothing takes it */
    record Output(Place place, String pin, Place pinPlace, boolean negated, ExpressionSyntax target) implements Argument {
    }

    /** @param branches IF and every ELSIF  @param otherwise null without ELSE */
    record If(Place place, List<Branch> branches, List<StatementSyntax> otherwise) implements StatementSyntax {
    }

    record Branch(ExpressionSyntax condition, List<StatementSyntax> body) {
    }

    record Case(Place place, ExpressionSyntax selector, List<Entry> entries, List<StatementSyntax> otherwise) implements StatementSyntax {
    }

    record Entry(List<Label> labels, List<StatementSyntax> body) {
    }

    /** @param high null for a single value */
    record Label(Place place, ExpressionSyntax low, ExpressionSyntax high) {
    }

    /** @param by null for steps of 1 */
    record For(Place place, ExpressionSyntax variable, ExpressionSyntax from, ExpressionSyntax to, ExpressionSyntax by, List<StatementSyntax> body)
            implements StatementSyntax {
    }

    record While(Place place, ExpressionSyntax condition, List<StatementSyntax> body) implements StatementSyntax {
    }

    record Repeat(Place place, List<StatementSyntax> body, ExpressionSyntax until) implements StatementSyntax {
    }

    record Exit(Place place) implements StatementSyntax {
    }

    record Continue(Place place) implements StatementSyntax {
    }

    record Return(Place place) implements StatementSyntax {
    }
}
