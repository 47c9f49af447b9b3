package rueda.plc;

import java.util.List;
import rueda.plc.code.Node;
import rueda.plc.run.Operations;
import rueda.plc.run.Texts;
import rueda.plc.run.Times;
import rueda.plc.type.Type;

/**
 * Conversion of a value without question: to REAL rounds to single precision, to a whole number rounds half to even and wraps.
 *
 * <p>IEC 61131-3, 6.6.2.5.5, tables of data type conversions (from memory): a bit string becomes BOOL by its rightmost bit, DWORD and REAL,
 * LWORD and LREAL become each other bit for bit. A number becomes TRUE when it is not 0 (left to the maker).
 */
final class Conversions {

    private Conversions() {
    }

    static Node invoke(Node.Kind kind, Class<?> owner, String method, Node... arguments) {
        return new Node.Invoke(kind, owner, method, false, List.of(arguments));
    }

    static Node operation(Node.Kind kind, String method, Node... arguments) {
        return invoke(kind, Operations.class, method, arguments);
    }

    /** Cut to what the type holds. */
    static Node wrapped(Type type, Node value) {
        return type.bits() == 64 ? value : new Node.Wrapped(value, type.bits(), type.family() == Type.Family.SIGNED);
    }

    /** A result of REAL is rounded to single precision. */
    static Node single(Type type, Node value) {
        return type == Type.REAL ? new Node.Single(value) : value;
    }

    static Node cast(Node value, Type from, Type to) {
        if (from == to) {
            return value;
        }
        if (to.isText()) {
            return text(value, from);
        }
        if (from.isText()) {
            return read(value, to);
        }
        if (from == Type.BOOL) {
            return bool(value, to);
        }
        if (from.isReal()) {
            return real(value, to);
        }
        if (from.isPointInTime() && to.isPointInTime()) {
            return switch (to.family()) {
                case DATE -> invoke(Node.Kind.WHOLE, Times.class, "day", value);
                case TIME_OF_DAY -> invoke(Node.Kind.WHOLE, Times.class, "timeOfDay", value);
                default -> value;
            };
        }
        if (to.isReal()) {
            return toReal(value, from, to);
        }
        if (to.isDuration()) {
            return from.isDuration() ? value : new Node.Operation(Node.Operator.MULTIPLY, Node.Kind.WHOLE, value, new Node.Whole(1_000_000));
        }
        if (to == Type.BOOL) {
            return from.isBitString() ? operation(Node.Kind.BOOL, "isOne", value) : new Node.Comparison(Node.Relation.NOT_EQUAL, value, new Node.Whole(0), false);
        }
        return wrapped(to, from.isDuration() ? operation(Node.Kind.WHOLE, "divide", value, new Node.Whole(1_000_000)) : value);
    }

    private static Node bool(Node value, Type to) {
        Node whole = new Node.AsWhole(value);
        return to.isReal() ? new Node.AsReal(whole) : to.isDuration() ? cast(whole, Type.LINT, to) : whole;
    }

    private static Node real(Node value, Type to) {
        if (to == Type.REAL) {
            return new Node.Single(value);
        }
        if (to.isReal()) {
            return value;
        }
        if (to == Type.DWORD) {
            return operation(Node.Kind.WHOLE, "bitsOfSingle", value);
        }
        if (to == Type.LWORD) {
            return operation(Node.Kind.WHOLE, "bitsOfReal", value);
        }
        if (to == Type.BOOL) {
            return new Node.Comparison(Node.Relation.NOT_EQUAL, value, new Node.Real(0), false);
        }
        if (to.isDuration()) {
            return operation(Node.Kind.WHOLE, "rounded", new Node.Operation(Node.Operator.MULTIPLY, Node.Kind.REAL, value, new Node.Real(1e6)));
        }
        return wrapped(to, operation(Node.Kind.WHOLE, "rounded", value));
    }

    private static Node toReal(Node value, Type from, Type to) {
        if (from.isBitString()) {
            return operation(Node.Kind.REAL, to == Type.REAL ? "singleOfBits" : "realOfBits", value);
        }
        if (from.isUnsigned64()) {
            return operation(Node.Kind.REAL, to == Type.REAL ? "singleUnsigned" : "unsigned", value);
        }
        if (from.isDuration()) {
            return single(to, new Node.Operation(Node.Operator.DIVIDE, Node.Kind.REAL, new Node.AsReal(value), new Node.Real(1e6)));
        }
        return to == Type.REAL && from.bits() > 32 ? operation(Node.Kind.REAL, "single", value) : single(to, new Node.AsReal(value));
    }

    private static Node text(Node value, Type from) {
        if (from.isText()) {
            return value;
        }
        if (from.family() == Type.Family.CHARACTER) {
            return invoke(Node.Kind.TEXT, Texts.class, "ofCharacter", value);
        }
        return invoke(Node.Kind.TEXT, Texts.class, "of", from == Type.BOOL ? new Node.AsWhole(value) : value, new Node.Text(from.name()));
    }

    private static Node read(Node value, Type to) {
        if (to == Type.BOOL) {
            return invoke(Node.Kind.BOOL, Texts.class, "bool", value);
        }
        if (to.isReal()) {
            return single(to, invoke(Node.Kind.REAL, Texts.class, "real", value, new Node.Text(to.name())));
        }
        if (to.family() == Type.Family.CHARACTER) {
            return invoke(Node.Kind.WHOLE, Texts.class, "firstCharacter", value);
        }
        return invoke(Node.Kind.WHOLE, Texts.class, "whole", value, new Node.Text(to.name()));
    }

    /** There is a conversion between two types: points in time convert among themselves, texts are read as numbers and bit strings. */
    static boolean exists(Type from, Type to) {
        if (from == Type.AXIS_REF || to == Type.AXIS_REF) {
            return false;
        }
        if (to.isText()) {
            return true;
        }
        if (from.isText()) {
            return to.isNumber() || to.isBitString() || to.family() == Type.Family.CHARACTER;
        }
        boolean bits = from.isBitString() && from != Type.BOOL && to.isReal() || to.isBitString() && to != Type.BOOL && from.isReal();
        if (bits) {
            return from.bits() == to.bits() && from.bits() >= 32;
        }
        return from.isPointInTime() == to.isPointInTime() && (!from.isPointInTime() || from.family() == to.family() || from.family() == Type.Family.DATE_AND_TIME);
    }
}
