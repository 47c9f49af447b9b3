package rueda.plc;

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
 * @param constant  {@code Long}, {@code Double} or {@code String} when it is constant, else null
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

    static Expression constant(Type type, boolean flexible, long value) {
        return new Expression(type, flexible, frame -> value, null, null, -1, value, null);
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

    boolean faulty() {
        return type == null;
    }

    boolean isConstantWhole() {
        return constant instanceof Long;
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
