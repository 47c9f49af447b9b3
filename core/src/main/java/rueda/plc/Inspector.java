package rueda.plc;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.IntPredicate;
import java.util.function.Supplier;
import rueda.plc.code.Action;
import rueda.plc.code.Address;
import rueda.plc.code.Generator;
import rueda.plc.code.Node;
import rueda.plc.code.UnitCode;
import rueda.plc.run.CompiledUnit;
import rueda.plc.run.Frame;
import rueda.plc.run.ProgramFault;
import rueda.plc.syntax.ExpressionSyntax;
import rueda.plc.syntax.Parser;
import rueda.plc.syntax.Place;
import rueda.plc.type.DataType;

/**
 * Works out expressions on the memory of a controller, and writes and forces its values. What is written here is compiled like the programs
 * and runs on the same memory. For the time between two cycles, or while a program is held. Not thread-safe.
 */
public final class Inspector {

    /** Its name cannot be one of a program. */
    private static final String UNIT = "$inspected";
    private static final String MAY_BE_RUNNING = "A function written in Structured Text cannot be called from here: it may be running.";

    /** A value that is put in place at the beginning and at the end of every cycle. @param value as a user reads it */
    public record Forced(String name, String value) {
    }

    /**
     * An expression ready to be worked out.
     *
     * @param fault why it cannot be, else null
     */
    public record Watched(String fault, DataType type, CompiledUnit code) {
    }

    private record Force(Forced told, CompiledUnit code) {
    }

    /** What stores a value, or why there is none. */
    private record Made(CompiledUnit code, String refusal) {
        static Made refused(String why) {
            return new Made(null, why);
        }
    }

    private final CompiledProgram program;
    private final Frame frame;
    private final Generator.Loaded code;
    private final Map<String, Force> forces = new LinkedHashMap<>();

    Inspector(CompiledProgram program, Frame frame, Generator.Loaded code) {
        this.program = program;
        this.frame = frame;
        this.code = code;
    }

    // ---- expressions

    /**
     * @param unit name of the unit whose names it may use, beside those of all; its instance is told when it is worked out
     */
    public Watched watch(String expression, String unit) {
        Variable listed = program.variable(expression.strip()).orElse(null);
        if (listed != null && program.project().unit(unit) == null) {
            return watched(listed.declared(), Expression.variable(listed.declared(), Address.memory(listed.slot())).node());
        }
        Faults faults = new Faults("", expression);
        ExpressionSyntax written = Parser.expression(expression, faults);
        if (!faults.none()) {
            return new Watched(told(faults), null, null);
        }
        Unit around = program.project().unit(unit);
        ExpressionCompiler expressions = new ExpressionCompiler(program.project(), (around == null ? program.project().global : around.scope).fresh(), faults, null);
        Expression value = kept(() -> expressions.compile(written), faults);
        if (!faults.none() || value.faulty()) {
            return listed != null ? watched(listed.declared(), Expression.variable(listed.declared(), Address.memory(listed.slot())).node()) : new Watched(told(faults), null, null);
        }
        if (value.node() == null || !value.type().isElementary()) {
            return new Watched(expression.strip() + " is " + value.type().written() + ": name one of its values.", null, null);
        }
        if (Node.calls(value.node())) {
            return new Watched(MAY_BE_RUNNING, null, null);
        }
        return watched(value.type(), value.node());
    }

    /** Cells that an expression needs for itself are those of the one before. */
    private Expression kept(Supplier<Expression> compiling, Faults faults) {
        int before = program.project().storage.size();
        Expression value = compiling.get();
        if (program.project().storage.size() >= program.resultSlot()) {
            faults.at(new Place(1, 1, 1), "This is too long to be worked out here. Split it.");
        }
        program.project().storage.rewind(before);
        return value;
    }

    private Watched watched(DataType type, Node node) {
        return new Watched(null, type, compiled(new Action.Store(0, Address.memory(program.resultSlot()), node)));
    }

    /** Whether it holds, for a breakpoint; one that cannot be worked out holds too. @param condition of type BOOL */
    public IntPredicate holds(Watched condition) {
        return base -> {
            int budget = frame.budget;
            try {
                condition.code().run(base);
                return frame.memory[program.resultSlot()] != 0;
            } catch (ProgramFault fails) {
                return true;
            } finally {
                frame.budget = budget;
            }
        };
    }

    /** What it is now, as a user reads it. @param base first cell of the instance of its unit, 0 for a program */
    public String text(Watched watched, int base) {
        if (watched.fault() != null) {
            return watched.fault();
        }
        String fault = run(watched.code(), base);
        return fault != null ? fault : shown(new Variable("", watched.type(), program.resultSlot()), frame);
    }

    /** A value as a user reads it. */
    static String shown(Variable variable, Frame frame) {
        return variable.type().isText() ? "'" + frame.texts[variable.slot()] + "'" : variable.text(frame.memory);
    }

    private CompiledUnit compiled(Action action) {
        return code.more(new UnitCode(UNIT, "", List.of(), List.of(action), List.of()));
    }

    private static String told(Faults faults) {
        return faults.sorted().isEmpty() ? "This cannot be worked out." : faults.sorted().get(0).message();
    }

    // ---- values

    /** A value, once. @param name of one of the program's variables  @param value an expression  @return why it cannot be, or null */
    public String write(String name, String value) {
        Made made = made(name, value);
        return made.refusal() != null ? made.refusal() : run(made.code(), 0);
    }

    /** A value from now on, until it is released. @return why it cannot be, or null */
    public String force(String name, String value) {
        Made made = made(name, value);
        String fault = made.refusal() != null ? made.refusal() : run(made.code(), 0);
        if (fault == null) {
            Variable variable = program.variable(name).orElseThrow();
            forces.put(Scope.key(name), new Force(new Forced(variable.name(), shown(variable, frame)), made.code()));
        }
        return fault;
    }

    /** The value is again what the program and the bus make it. */
    public void release(String name) {
        forces.remove(Scope.key(name));
    }

    public void releaseAll() {
        forces.clear();
    }

    /** In the order in which they were forced. */
    public List<Forced> forced() {
        return forces.values().stream().map(Force::told).toList();
    }

    /** Puts what is forced in place. */
    void force() {
        if (!forces.isEmpty()) {
            forces.values().forEach(force -> run(force.code(), 0));
        }
    }

    /** It costs the program nothing of its budget. @return why it stopped, or null */
    private String run(CompiledUnit unit, int base) {
        int budget = frame.budget;
        try {
            frame.budget = Integer.MAX_VALUE;
            unit.run(base);
            return null;
        } catch (ProgramFault fails) {
            return fails.getMessage();
        } finally {
            frame.budget = budget;
        }
    }

    private Made made(String name, String value) {
        Variable variable = program.variable(name).orElse(null);
        String refusal = variable == null ? "There is no value " + name + "." : program.refusal(variable);
        if (refusal != null) {
            return Made.refused(refusal);
        }
        Faults faults = new Faults("", value);
        ExpressionSyntax written = Parser.expression(value, faults);
        for (Scope scope : faults.none() ? program.scopes() : List.<Scope>of()) {
            faults = new Faults("", value);
            Faults these = faults;
            Expression given = kept(() -> new ExpressionCompiler(program.project(), scope.fresh(), these, null).compile(written, variable.declared()), these);
            if (these.none() && !given.faulty()) {
                return Node.calls(given.node()) ? Made.refused(MAY_BE_RUNNING) : new Made(compiled(new Action.Store(0, Address.memory(variable.slot()), given.node())), null);
            }
        }
        return Made.refused(told(faults));
    }
}
