package rueda.plc.code;

import java.lang.reflect.InvocationTargetException;
import java.lang.reflect.Method;
import java.util.Arrays;
import rueda.plc.run.CallPlace;
import rueda.plc.run.Frame;
import rueda.plc.run.FunctionBlock;
import rueda.plc.run.Image;
import rueda.plc.run.Operations;
import rueda.plc.run.ProgramFault;

/** Works out values that are known before the program runs, by the same operations that it would use. */
public final class Constants {

    private Constants() {
    }

    private static boolean isConstant(Node node) {
        return node instanceof Node.Whole || node instanceof Node.Bool || node instanceof Node.Real || node instanceof Node.Text;
    }

    /**
     * A constant node of the same value; the node itself where something of it is not known yet. Only the outermost operation is worked out:
     * what it works on has been before.
     *
     * @throws ProgramFault when the program would be stopped by it
     */
    public static Node folded(Node node) {
        if (node instanceof Node.Operation o && isConstant(o.left()) && isConstant(o.right())) {
            return operation(o);
        }
        if (node instanceof Node.Negation n && isConstant(n.value())) {
            return n.value() instanceof Node.Real real ? new Node.Real(-real.value()) : new Node.Whole(-whole(n.value()));
        }
        if (node instanceof Node.Inversion i && isConstant(i.value())) {
            return i.value() instanceof Node.Bool bool ? new Node.Bool(!bool.value()) : new Node.Whole(~whole(i.value()));
        }
        if (node instanceof Node.Wrapped w) {
            Node value = folded(w.value());
            return isConstant(value) ? new Node.Whole(wrapped(whole(value), w.bits(), w.signed())) : node;
        }
        if (node instanceof Node.Single s) {
            Node value = folded(s.value());
            return value instanceof Node.Real real ? new Node.Real((float) real.value()) : node;
        }
        if (node instanceof Node.AsWhole a) {
            return folded(a.value()) instanceof Node.Bool bool ? new Node.Whole(bool.value() ? 1 : 0) : node;
        }
        if (node instanceof Node.AsReal a) {
            return folded(a.value()) instanceof Node.Whole whole ? new Node.Real(whole.value()) : node;
        }
        if (node instanceof Node.Comparison c && isConstant(c.left()) && isConstant(c.right())) {
            return new Node.Bool(holds(c));
        }
        if (node instanceof Node.Choice c && c.condition() instanceof Node.Bool bool && isConstant(c.whenTrue()) && isConstant(c.whenFalse())) {
            return bool.value() ? c.whenTrue() : c.whenFalse();
        }
        if (node instanceof Node.Pick p && p.selector() instanceof Node.Whole which && p.values().stream().allMatch(Constants::isConstant)) {
            return p.values().get(Operations.selected(which.value(), p.values().size()));
        }
        if (node instanceof Node.Invoke invoke) {
            Node[] arguments = invoke.arguments().stream().map(Constants::folded).toArray(Node[]::new);
            return Arrays.stream(arguments).allMatch(Constants::isConstant) ? invoked(invoke, arguments) : node;
        }
        return node;
    }

    static long wrapped(long value, int bits, boolean signed) {
        int unused = 64 - bits;
        return signed ? value << unused >> unused : value << unused >>> unused;
    }

    private static long whole(Node constant) {
        return constant instanceof Node.Bool bool ? bool.value() ? 1 : 0 : ((Node.Whole) constant).value();
    }

    private static Node operation(Node.Operation o) {
        if (o.kind() == Node.Kind.REAL) {
            double a = ((Node.Real) o.left()).value();
            double b = ((Node.Real) o.right()).value();
            return new Node.Real(switch (o.operator()) {
                case ADD -> a + b;
                case SUBTRACT -> a - b;
                case MULTIPLY -> a * b;
                default -> a / b;
            });
        }
        long a = whole(o.left());
        long b = whole(o.right());
        long result = switch (o.operator()) {
            case ADD -> a + b;
            case SUBTRACT -> a - b;
            case MULTIPLY -> a * b;
            case AND -> a & b;
            case OR -> a | b;
            default -> a ^ b;
        };
        return o.kind() == Node.Kind.BOOL ? new Node.Bool(result != 0) : new Node.Whole(result);
    }

    private static boolean holds(Node.Comparison c) {
        if (c.left() instanceof Node.Real left) {
            double a = left.value();
            double b = ((Node.Real) c.right()).value();
            return switch (c.relation()) {
                case EQUAL -> a == b;
                case NOT_EQUAL -> a != b;
                case LESS -> a < b;
                case LESS_OR_EQUAL -> a <= b;
                case GREATER -> a > b;
                case GREATER_OR_EQUAL -> a >= b;
            };
        }
        int order = c.left() instanceof Node.Text text ? text.value().compareTo(((Node.Text) c.right()).value())
                : c.unsigned() ? Long.compareUnsigned(whole(c.left()), whole(c.right())) : Long.compare(whole(c.left()), whole(c.right()));
        return switch (c.relation()) {
            case EQUAL -> order == 0;
            case NOT_EQUAL -> order != 0;
            case LESS -> order < 0;
            case LESS_OR_EQUAL -> order <= 0;
            case GREATER -> order > 0;
            case GREATER_OR_EQUAL -> order >= 0;
        };
    }

    private static Node invoked(Node.Invoke invoke, Node[] arguments) {
        int shift = invoke.frame() ? 1 : 0;
        Object[] values = new Object[arguments.length + shift];
        Class<?>[] types = new Class<?>[values.length];
        if (invoke.frame()) {
            Frame frame = new Frame(0, new FunctionBlock[0], new Image[0], new CallPlace[0], null);
            frame.budget = Integer.MAX_VALUE;
            values[0] = frame;
            types[0] = Frame.class;
        }
        for (int i = 0; i < arguments.length; i++) {
            Node argument = arguments[i];
            values[i + shift] = argument instanceof Node.Whole w ? (Object) w.value() : argument instanceof Node.Bool b ? (Object) b.value() : argument instanceof Node.Real r ? (Object) r.value() : ((Node.Text) argument).value();
            types[i + shift] = argument instanceof Node.Whole ? long.class : argument instanceof Node.Bool ? boolean.class : argument instanceof Node.Real ? double.class : String.class;
        }
        try {
            Method method = invoke.owner().getMethod(invoke.method(), types);
            Object result = method.invoke(null, values);
            return result instanceof Long whole ? new Node.Whole(whole) : result instanceof Boolean bool ? new Node.Bool(bool) : result instanceof Double real ? new Node.Real(real) : new Node.Text((String) result);
        } catch (InvocationTargetException stopped) {
            if (stopped.getCause() instanceof ProgramFault fault) {
                throw fault;
            }
            throw new IllegalStateException(stopped.getCause());
        } catch (ReflectiveOperationException missing) {
            throw new IllegalStateException(missing);
        }
    }
}
