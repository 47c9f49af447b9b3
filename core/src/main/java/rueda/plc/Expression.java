package rueda.plc;

import java.math.BigInteger;
import rueda.plc.code.Address;
import rueda.plc.code.Node;
import rueda.plc.type.DataType;
import rueda.plc.type.ReferenceType;
import rueda.plc.type.Type;

/**
 * A checked expression: its type and how it is worked out. Untyped literals are flexible: they take the type of what they
 * meet (IEC 61131-3: typed literals fix a type, others do not).
 *
 * @param type     type of the value; null after an error that has been reported
 * @param flexible an untyped literal
 * @param node     how it is worked out; null where it is made of several values, which have a place only
 * @param constant {@code BigInteger}, {@code Double} or {@code String} when it is constant, else null
 * @param address  where it lies when it is just a variable, else null
 */
record Expression(DataType type, boolean flexible, Node node, Object constant, Address address) {

    static final Expression FAULTY = new Expression(null, false, null, null, null);

    /** How the values of an elementary type are held. */
    static Node.Kind kind(Type type) {
        return type == Type.BOOL ? Node.Kind.BOOL : type.isReal() ? Node.Kind.REAL : type.isText() ? Node.Kind.TEXT : Node.Kind.WHOLE;
    }

    static Expression of(DataType type, Node node) {
        return new Expression(type, false, node, null, null);
    }

    /** @param value the bits as they lie in memory: of ULINT and LWORD without sign */
    static Expression constant(DataType type, boolean flexible, long value) {
        Type elementary = type.elementary();
        BigInteger exact = elementary != null && elementary.isUnsigned64() ? new BigInteger(Long.toUnsignedString(value)) : BigInteger.valueOf(value);
        return new Expression(type, flexible, elementary == Type.BOOL ? new Node.Bool(value != 0) : new Node.Whole(value), exact, null);
    }

    /** A whole number that has no type yet. @param value −2⁶³ to 2⁶⁴ − 1 */
    static Expression untyped(BigInteger value) {
        return new Expression(value.bitLength() > 63 ? Type.ULINT : Type.LINT, true, new Node.Whole(value.longValue()), value, null);
    }

    static Expression real(Type type, boolean flexible, double value) {
        return new Expression(type, flexible, new Node.Real(value), value, null);
    }

    static Expression constant(Type type, String value) {
        return new Expression(type, true, new Node.Text(value), value, null);
    }

    /** What lies at a place. */
    static Expression variable(DataType type, Address address) {
        Type elementary = type.elementary();
        Node node = elementary != null ? new Node.Load(kind(elementary), address) : type instanceof ReferenceType ? new Node.Load(Node.Kind.WHOLE, address) : null;
        DataType value = elementary != null && elementary.isText() ? elementary : type;
        return new Expression(value, false, node, null, address);
    }

    /** The same value, fixed to a type that holds it. */
    Expression as(DataType to) {
        return new Expression(to, false, node, constant, address);
    }

    boolean faulty() {
        return type == null;
    }

    /** The elementary type that the value is kept as, null where it is made of several. */
    Type kept() {
        return type.elementary();
    }

    boolean isConstantWhole() {
        return constant instanceof BigInteger;
    }

    /** The constant as a whole number. */
    BigInteger exact() {
        return (BigInteger) constant;
    }

    /** The constant as a number. */
    Number number() {
        return (Number) constant;
    }
}
