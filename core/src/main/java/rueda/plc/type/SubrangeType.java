package rueda.plc.type;

import java.math.BigInteger;

/**
 * A whole-number type of which only some values may be held: INT (1..10).
 *
 * @param name   of its declaration, or empty
 * @param base   what the values are
 * @param lowest first value that it holds
 * @param highest last value
 */
public record SubrangeType(String name, Type base, BigInteger lowest, BigInteger highest) implements DataType {

    @Override
    public int cells() {
        return 1;
    }

    @Override
    public Type elementary() {
        return base;
    }

    @Override
    public String written() {
        return name.isEmpty() ? base + " (" + lowest + ".." + highest + ")" : name;
    }
}
