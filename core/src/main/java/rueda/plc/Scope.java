package rueda.plc;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;

/** The names of one program and their slots. */
final class Scope {

    /** A declared function block. @param base slot of its first pin */
    record Instance(String name, FunctionBlock.Kind kind, int base, FunctionBlock block) {
    }

    private record Named(Variable variable, boolean writable, String refusal) {
    }

    private final Map<String, Named> variables = new HashMap<>();
    private final Map<String, Instance> instances = new HashMap<>();
    private final List<Variable> inOrder = new ArrayList<>();
    private int size;

    Variable declare(String name, Type type, boolean writable, String refusal) {
        return declare(name, type, type.isText() ? Variable.DEFAULT_LENGTH : 0, writable, refusal);
    }

    /** @param length characters of a STRING or WSTRING, else 0 */
    Variable declare(String name, Type type, int length, boolean writable, String refusal) {
        Variable variable = new Variable(name, type, size++, length);
        variables.put(key(name), new Named(variable, writable, refusal));
        inOrder.add(variable);
        return variable;
    }

    /** A name that programs may use but that is not among the values to be read. */
    Variable declareHidden(String name, Type type, String refusal) {
        Variable variable = new Variable(name, type, size++, 0);
        variables.put(key(name), new Named(variable, false, refusal));
        return variable;
    }

    void declare(String name, FunctionBlock.Kind kind) {
        Instance instance = new Instance(name, kind, size, kind.maker().make(name));
        instances.put(key(name), instance);
        for (FunctionBlock.Pin pin : kind.pins()) {
            declare(name + "." + pin.name(), pin.type(), !pin.output(), "it is an output of the block");
        }
    }

    boolean knows(String name) {
        return variables.containsKey(key(name)) || instances.containsKey(key(name));
    }

    Variable variable(String name) {
        Named named = variables.get(key(name));
        return named == null ? null : named.variable();
    }

    /** Why a variable cannot be assigned, or null when it can. */
    String refusal(String name) {
        Named named = variables.get(key(name));
        return named.writable() ? null : named.refusal();
    }

    Instance instance(String name) {
        return instances.get(key(name));
    }

    /** A slot for a hidden value. */
    int reserve() {
        return size++;
    }

    int size() {
        return size;
    }

    List<Variable> variables() {
        return inOrder;
    }

    private static String key(String name) {
        return name.toUpperCase(Locale.ROOT);
    }
}
