package rueda.plc.code;

import java.util.List;
import java.util.stream.Stream;

/** A value to be worked out, with its kind settled. */
public sealed interface Node {

    /** How a value is held on the stack of the virtual machine. */
    enum Kind {
        /** {@code long}: whole numbers, bit strings, times, characters, places. */
        WHOLE("J"),
        /** {@code int} 0 or 1. */
        BOOL("I"),
        /** {@code double}: LREAL, and REAL rounded to single precision. */
        REAL("D"),
        /** {@code String}. */
        TEXT("Ljava/lang/String;");

        private final String descriptor;

        Kind(String descriptor) {
            this.descriptor = descriptor;
        }

        String descriptor() {
            return descriptor;
        }
    }

    Kind kind();

    /** The values that it is worked out from; what a call of a function stores and takes is not among them. */
    default List<Node> parts() {
        return List.of();
    }

    /** A function in Structured Text is called somewhere in it. */
    static boolean calls(Node node) {
        return node instanceof Call || node instanceof With || node.parts().stream().anyMatch(Node::calls);
    }

    record Whole(long value) implements Node {
        @Override
        public Kind kind() {
            return Kind.WHOLE;
        }
    }

    record Bool(boolean value) implements Node {
        @Override
        public Kind kind() {
            return Kind.BOOL;
        }
    }

    record Real(double value) implements Node {
        @Override
        public Kind kind() {
            return Kind.REAL;
        }
    }

    record Text(String value) implements Node {
        @Override
        public Kind kind() {
            return Kind.TEXT;
        }
    }

    record Load(Kind kind, Address address) implements Node {
        @Override
        public List<Node> parts() {
            return address.parts();
        }
    }

    /** The number of the cell at an address. */
    record Place(Address address) implements Node {
        @Override
        public List<Node> parts() {
            return address.parts();
        }

        @Override
        public Kind kind() {
            return Kind.WHOLE;
        }
    }

    /** Of whole numbers modulo 2⁶⁴, or of real numbers; division and remainder are calls. */
    enum Operator { ADD, SUBTRACT, MULTIPLY, DIVIDE, AND, OR, XOR }

    /** @param kind of both sides and of the result; AND, OR and XOR of WHOLE or BOOL, DIVIDE of REAL only */
    record Operation(Operator operator, Kind kind, Node left, Node right) implements Node {
        @Override
        public List<Node> parts() {
            return List.of(left, right);
        }
    }

    record Negation(Node value) implements Node {
        @Override
        public List<Node> parts() {
            return List.of(value);
        }

        @Override
        public Kind kind() {
            return value.kind();
        }
    }

    /** NOT of a BOOL, or of all 64 bits. */
    record Inversion(Node value) implements Node {
        @Override
        public List<Node> parts() {
            return List.of(value);
        }

        @Override
        public Kind kind() {
            return value.kind();
        }
    }

    /** Cut to the width of a type, two's complement. */
    record Wrapped(Node value, int bits, boolean signed) implements Node {
        @Override
        public List<Node> parts() {
            return List.of(value);
        }

        @Override
        public Kind kind() {
            return Kind.WHOLE;
        }
    }

    /** Rounded to single precision. */
    record Single(Node value) implements Node {
        @Override
        public List<Node> parts() {
            return List.of(value);
        }

        @Override
        public Kind kind() {
            return Kind.REAL;
        }
    }

    enum Relation { EQUAL, NOT_EQUAL, LESS, LESS_OR_EQUAL, GREATER, GREATER_OR_EQUAL }

    /** @param unsigned whole numbers of 64 bits without sign */
    record Comparison(Relation relation, Node left, Node right, boolean unsigned) implements Node {
        @Override
        public List<Node> parts() {
            return List.of(left, right);
        }

        @Override
        public Kind kind() {
            return Kind.BOOL;
        }
    }

    /** Both values are worked out only where a fault in either cannot show itself. */
    record Choice(Node condition, Node whenTrue, Node whenFalse) implements Node {
        @Override
        public List<Node> parts() {
            return List.of(condition, whenTrue, whenFalse);
        }

        @Override
        public Kind kind() {
            return whenTrue.kind();
        }
    }

    /** A BOOL as 0 or 1. */
    record AsWhole(Node value) implements Node {
        @Override
        public List<Node> parts() {
            return List.of(value);
        }

        @Override
        public Kind kind() {
            return Kind.WHOLE;
        }
    }

    /** A whole number as a real one. */
    record AsReal(Node value) implements Node {
        @Override
        public List<Node> parts() {
            return List.of(value);
        }

        @Override
        public Kind kind() {
            return Kind.REAL;
        }
    }

    /** A static method of a class in {@link rueda.plc.run}. @param frame it gets the frame before its arguments */
    record Invoke(Kind kind, Class<?> owner, String method, boolean frame, List<Node> arguments) implements Node {
        @Override
        public List<Node> parts() {
            return arguments;
        }
    }

    /** One of several values, all worked out; the selector counts from 0, and stops the task where it counts beyond. */
    record Pick(Node selector, List<Node> values) implements Node {
        @Override
        public List<Node> parts() {
            return Stream.concat(Stream.of(selector), values.stream()).toList();
        }

        @Override
        public Kind kind() {
            return values.get(0).kind();
        }
    }

    /** A value with what is done before and after it is worked out. */
    record With(List<Action> before, Node value, List<Action> after) implements Node {
        @Override
        public Kind kind() {
            return value.kind();
        }
    }

    /**
     * A function in Structured Text: its inputs are stored, it runs, its outputs are taken, its value is read.
     *
     * @param result  where its value lies, null where it has none
     * @param enabled false: it does not run, and its value is the one before; null for always
     */
    record Call(Kind kind, String unit, List<Action.Store> inputs, List<Action> outputs, Address result, Node enabled) implements Node {
    }
}
