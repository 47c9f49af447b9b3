package rueda.plc;

import java.util.List;
import java.util.Optional;

/** A program ready to run, or the reasons why not. Immutable; several tasks may run it only one after the other,
 * because function block instances belong to the program. */
public final class CompiledProgram {

    private final String name;
    private final List<Diagnostic> diagnostics;
    private final List<Variable> variables;
    private final int[] tagSlots;
    private final int memorySize;
    private final int lines;
    private final Code.Step initial;
    private final Code.Step body;

    CompiledProgram(String name, List<Diagnostic> diagnostics, List<Variable> variables, int[] tagSlots, int memorySize, int lines,
                    Code.Step initial, Code.Step body) {
        this.name = name;
        this.diagnostics = List.copyOf(diagnostics);
        this.variables = List.copyOf(variables);
        this.tagSlots = tagSlots;
        this.memorySize = memorySize;
        this.lines = lines;
        this.initial = initial;
        this.body = body;
    }

    public String name() {
        return name;
    }

    /** Faults; empty when it can run. */
    public List<Diagnostic> diagnostics() {
        return diagnostics;
    }

    /** Every value that can be read: variables, pins of function blocks, tags. */
    public List<Variable> variables() {
        return variables;
    }

    /** Slot of a tag, by its place in the environment. */
    public int tagSlot(int tag) {
        return tagSlots[tag];
    }

    public boolean runs() {
        return diagnostics.isEmpty();
    }

    /** A variable by its name, in any case. */
    public Optional<Variable> variable(String variableName) {
        return variables.stream().filter(v -> v.name().equalsIgnoreCase(variableName)).findFirst();
    }

    int memorySize() {
        return memorySize;
    }

    /** Lines of the text. */
    int lines() {
        return lines;
    }

    Code.Step initialStep() {
        return initial;
    }

    Code.Step bodyStep() {
        return body;
    }
}
