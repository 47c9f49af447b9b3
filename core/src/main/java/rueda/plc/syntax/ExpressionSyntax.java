package rueda.plc.syntax;

import java.util.List;
import rueda.plc.syntax.StatementSyntax.Argument;
import rueda.plc.syntax.StatementSyntax.Input;

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

    /** A variable, a tag, a pin or a member. @param path names joined by dots */
    record Name(Place place, String path) implements ExpressionSyntax {
        @Override
        public int height() {
            return 1;
        }
    }

    /** An address such as %QW4. @param text as written */
    record Address(Place place, String text) implements ExpressionSyntax {
        @Override
        public int height() {
            return 1;
        }
    }

    /** One element of an array: a value for each dimension. */
    record Element(Place place, ExpressionSyntax of, List<ExpressionSyntax> indices, int height) implements ExpressionSyntax {
        Element(Place place, ExpressionSyntax of, List<ExpressionSyntax> indices) {
            this(place, of, indices, Math.max(of.height(), indices.stream().mapToInt(ExpressionSyntax::height).max().orElse(0)) + 1);
        }
    }

    /** A member of what an element or a reference gives. @param namePlace where the member's name stands */
    record Member(Place place, ExpressionSyntax of, String name, Place namePlace, int height) implements ExpressionSyntax {
        Member(Place place, ExpressionSyntax of, String name, Place namePlace) {
            this(place, of, name, namePlace, of.height() + 1);
        }
    }

    /** A part of a bit string: x.3, x.%X3, x.%B1. @param part as written behind the dot */
    record Part(Place place, ExpressionSyntax of, String part, Place partPlace, int height) implements ExpressionSyntax {
        Part(Place place, ExpressionSyntax of, String part, Place partPlace) {
            this(place, of, part, partPlace, of.height() + 1);
        }
    }

    /** What a reference refers to: r^. */
    record Referred(Place place, ExpressionSyntax of, int height) implements ExpressionSyntax {
        Referred(Place place, ExpressionSyntax of) {
            this(place, of, of.height() + 1);
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

    /** A function with its arguments, by their order or by name. */
    record Call(Place place, String function, Place functionPlace, List<Argument> arguments, int height) implements ExpressionSyntax {
        Call(Place place, String function, Place functionPlace, List<Argument> arguments) {
            this(place, function, functionPlace, arguments, arguments.stream().mapToInt(a -> a instanceof Input input ? input.value().height() : 1).max().orElse(0) + 1);
        }
    }

    /** Values of an array as an initial value: [1, 2, 3(0)]. */
    record Listed(Place place, List<Item> items, int height) implements ExpressionSyntax {
        Listed(Place place, List<Item> items) {
            this(place, items, items.stream().mapToInt(i -> i.values().stream().mapToInt(ExpressionSyntax::height).max().orElse(0)).max().orElse(0) + 1);
        }
    }

    /** @param count how many times, or null for once  @param values empty for values that the type gives */
    record Item(ExpressionSyntax count, List<ExpressionSyntax> values) {
    }

    /** Values of a structure or of a function block as an initial value: (Position := 5.0, Name := 'a'). */
    record Composed(Place place, List<Input> members, int height) implements ExpressionSyntax {
        Composed(Place place, List<Input> members) {
            this(place, members, members.stream().mapToInt(m -> m.value().height()).max().orElse(0) + 1);
        }
    }
}
