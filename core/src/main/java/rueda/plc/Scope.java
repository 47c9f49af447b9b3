package rueda.plc;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;

/** The names of one program and their slots. */
final class Scope {

    /** A declared function block. @param base slot of its first pin */
    record Instance(String name, FunctionBlock.Kind kind, int base, FunctionBlock block) {
    }

    /** @param constant its value when it is known before the program runs, else null */
    private record Named(Variable variable, boolean writable, String refusal, Expression constant) {
    }

    private final Map<String, Named> variables = new HashMap<>();
    private final Map<String, Instance> instances = new HashMap<>();
    private final Set<String> faulty = new HashSet<>();
    private final List<Variable> inOrder = new ArrayList<>();
    private int size;

    Variable declare(String name, Type type, boolean writable, String refusal) {
        return declare(name, type, type.isText() ? Variable.DEFAULT_LENGTH : 0, writable, refusal);
    }

    /** @param length characters of a STRING or WSTRING, else 0 */
    Variable declare(String name, Type type, int length, boolean writable, String refusal) {
        Variable variable = new Variable(name, type, size++, length);
        variables.put(key(name), new Named(variable, writable, refusal, null));
        inOrder.add(variable);
        return variable;
    }

    /** A named whole number that is not among the values to be read. */
    Variable declareHidden(String name, Type type, long value, String refusal) {
        Variable variable = new Variable(name, type, size++, 0);
        variables.put(key(name), new Named(variable, false, refusal, Expression.constant(type, false, value)));
        return variable;
    }

    /** The value of a constant is known. */
    void fix(Variable variable, Expression value) {
        variables.computeIfPresent(key(variable.name()), (k, named) -> new Named(variable, named.writable(), named.refusal(), value));
    }

    /** A name whose declaration is wrong: told already, and known from here on. */
    void declareFaulty(String name) {
        faulty.add(key(name));
    }

    /** The declaration of this name, or an earlier use of it, has been told as wrong. */
    boolean isFaulty(String name) {
        String key = key(name);
        int dot = key.indexOf('.');
        return faulty.contains(key) || dot > 0 && faulty.contains(key.substring(0, dot));
    }

    /** The value of a constant, or null. */
    Expression constant(String name) {
        Named named = variables.get(key(name));
        return named == null ? null : named.constant();
    }

    /** All names, for guesses at a misspelt one. */
    List<String> names() {
        List<String> names = new ArrayList<>();
        variables.values().forEach(named -> names.add(named.variable().name()));
        instances.values().forEach(instance -> names.add(instance.name()));
        return names;
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
