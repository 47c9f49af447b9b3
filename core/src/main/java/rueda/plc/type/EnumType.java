package rueda.plc.type;

import java.util.List;

/**
 * An enumeration: values with names (IEC 61131-3, 6.4.4.2 and 6.4.4.3).
 *
 * @param name   of its declaration, or empty
 * @param base   what its values are kept as; INT where none is written
 * @param named  a base or values are written: it counts as numbers of its base
 * @param values in their order
 */
public record EnumType(String name, Type base, boolean named, List<Value> values) implements DataType {

    /** @param number kept for it */
    public record Value(String name, long number) {
    }

    public EnumType {
        values = List.copyOf(values);
    }

    /** The value with this name, in any case, or null. */
    public Value value(String valueName) {
        return values.stream().filter(v -> v.name().equalsIgnoreCase(valueName)).findFirst().orElse(null);
    }

    /** The name of a number, or the number where it has none. */
    public String text(long number) {
        return values.stream().filter(v -> v.number() == number).map(Value::name).findFirst().orElse(Long.toString(number));
    }

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
        return name.isEmpty() ? "(" + String.join(", ", values.stream().limit(3).map(Value::name).toList()) + (values.size() > 3 ? ", …)" : ")") : name;
    }
}
