package rueda.plc;

import java.math.BigInteger;

/**
 * A checked expression: its type and its code. Untyped literals are flexible: they take the type of what they
 * meet (IEC 61131-3: typed literals fix a type, others do not).
 *
 * @param type      type of the value; null after an error that has been reported
 * @param flexible  an untyped literal
 * @param whole     code when the value is neither REAL nor text
 * @param real      code when it is REAL or LREAL
 * @param text      code when it is STRING or WSTRING
 * @param slot      slot when it is just a variable, else −1
 * @param constant  {@code BigInteger}, {@code Double} or {@code String} when it is constant, else null
 * @param condition code that asks a BOOL directly, or null when only {@code whole} does
 */
record Expression(Type type, boolean flexible, Code.Whole whole, Code.Real real, Code.Text text, int slot, Object constant, Code.Condition condition) {

    static final Expression FAULTY = new Expression(null, false, null, null, null, -1, null, null);

    static Expression whole(Type type, Code.Whole code) {
        return new Expression(type, false, code, null, null, -1, null, null);
    }

    static Expression condition(Code.Condition code) {
        return new Expression(Type.BOOL, false, frame -> code.holds(frame) ? 1 : 0, null, null, -1, null, code);
    }

    static Expression real(Type type, Code.Real code) {
        return new Expression(type, false, null, code, null, -1, null, null);
    }

    static Expression text(Type type, Code.Text code) {
        return new Expression(type, false, null, null, code, -1, null, null);
    }

    /** @param value the bits as they lie in memory: of ULINT and LWORD without sign */
    static Expression constant(Type type, boolean flexible, long value) {
        BigInteger exact = type.isUnsigned64() ? new BigInteger(Long.toUnsignedString(value)) : BigInteger.valueOf(value);
        return new Expression(type, flexible, frame -> value, null, null, -1, exact, null);
    }

    /** A whole number that has no type yet. @param value −2⁶³ to 2⁶⁴ − 1 */
    static Expression untyped(BigInteger value) {
        long bits = value.longValue();
        return new Expression(value.bitLength() > 63 ? Type.ULINT : Type.LINT, true, frame -> bits, null, null, -1, value, null);
    }

    static Expression constant(Type type, boolean flexible, double value) {
        return new Expression(type, flexible, null, frame -> value, null, -1, value, null);
    }

    static Expression constant(Type type, String value) {
        return new Expression(type, true, null, null, frame -> value, -1, value, null);
    }

    static Expression variable(Type type, int slot) {
        if (type.isText()) {
            return new Expression(type, false, null, null, frame -> frame.texts[slot], slot, null, null);
        }
        return type.isReal()
                ? new Expression(type, false, null, frame -> Double.longBitsToDouble(frame.memory[slot]), null, slot, null, null)
                : new Expression(type, false, frame -> frame.memory[slot], null, null, slot, null, null);
    }

    /** The same value, fixed to a type that holds it. */
    Expression as(Type to) {
        return new Expression(to, false, whole, real, text, slot, constant, condition);
    }

    boolean faulty() {
        return type == null;
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

    /** The code of a BOOL as a question. */
    Code.Condition asked() {
        if (condition != null) {
            return condition;
        }
        int place = slot;
        Code.Whole code = whole;
        return place >= 0 ? frame -> frame.memory[place] != 0 : frame -> code.value(frame) != 0;
    }
}
