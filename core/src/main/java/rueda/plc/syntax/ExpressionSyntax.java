package rueda.plc.syntax;

import java.util.List;

/** An expression as written. {@link #height()} is the number of operations that stand inside one another; the parser bounds it. */
public sealed interface ExpressionSyntax {

    Place place();

    int height();

    /** A literal of any kind. @param text as written */
    record Literal(Place place, String text) implements ExpressionSyntax {
        @Override
        public int height() {
            return 1;
        }
    }

    /** A variable, a tag or a pin. @param path names joined by dots */
    record Name(Place place, String path) implements ExpressionSyntax {
        @Override
        public int height() {
            return 1;
        }
    }

    /** −, + or NOT. @param operator in capitals */
    record Unary(Place place, String operator, ExpressionSyntax operand, int height) implements ExpressionSyntax {
        Unary(Place place, String operator, ExpressionSyntax operand) {
            this(place, operator, operand, operand.height() + 1);
        }
    }

    /** @param operator in capitals  @param operatorPlace where the operator stands */
    record Binary(Place place, String operator, Place operatorPlace, ExpressionSyntax left, ExpressionSyntax right, int height) implements ExpressionSyntax {
        Binary(Place place, String operator, Place operatorPlace, ExpressionSyntax left, ExpressionSyntax right) {
            this(place, operator, operatorPlace, left, right, Math.max(left.height(), right.height()) + 1);
        }
    }

    /** A function with its values in order. */
    record Call(Place place, String function, Place functionPlace, List<ExpressionSyntax> values, int height) implements ExpressionSyntax {
        Call(Place place, String function, Place functionPlace, List<ExpressionSyntax> values) {
            this(place, function, functionPlace, values, values.stream().mapToInt(ExpressionSyntax::height).max().orElse(0) + 1);
        }
    }
}
