package rueda.plc;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import rueda.plc.code.Action;
import rueda.plc.code.Address;
import rueda.plc.code.Node;
import rueda.plc.run.FunctionBlock;
import rueda.plc.syntax.ExpressionSyntax;
import rueda.plc.syntax.ExpressionSyntax.Call;
import rueda.plc.syntax.ExpressionSyntax.Name;
import rueda.plc.syntax.Place;
import rueda.plc.syntax.StatementSyntax.Argument;
import rueda.plc.syntax.StatementSyntax.BlockCall;
import rueda.plc.syntax.StatementSyntax.Input;
import rueda.plc.syntax.StatementSyntax.Output;
import rueda.plc.syntax.UnitSyntax;
import rueda.plc.type.ArrayType;
import rueda.plc.type.BlockType;
import rueda.plc.type.DataType;
import rueda.plc.type.ReferenceType;
import rueda.plc.type.Type;

/** Calls of functions and function blocks: what is given to their inputs, taken from their outputs, and lent as VAR_IN_OUT (IEC 61131-3, 6.6.1.4). */
final class Calls {

    private final Project project;
    private final Faults faults;
    private final ExpressionCompiler expressions;
    private final Unit caller;

    /** @param caller the unit in which they stand, or null */
    Calls(Project project, Faults faults, ExpressionCompiler expressions, Unit caller) {
        this.project = project;
        this.faults = faults;
        this.expressions = expressions;
        this.caller = caller;
    }

    private void uses(Unit unit, ExpressionSyntax place) {
        if (caller != null) {
            caller.calls.putIfAbsent(unit, place);
        }
    }

    // ---- what is taken

    /** A variable takes the value of an output; null where it cannot, which has been told. Nothing for an output that nobody takes. */
    Action taken(Output output, Expression value) {
        if (output.target() == null) {
            return new Action.Group(0, List.of());
        }
        Target target = expressions.names().find(output.target());
        if (target == null) {
            return null;
        }
        Expression given = value;
        if (output.negated()) {
            given = expressions.functions().not(output.target(), value);
        }
        return given.faulty() ? null : store(output.target(), target, given, 0);
    }

    /** It cannot be assigned, which has been told. */
    boolean refused(ExpressionSyntax place, Target target) {
        if (target.refusal() != null) {
            faults.at(place, target.name() + " cannot be assigned: " + target.refusal() + ".");
            return true;
        }
        if (target.type() instanceof BlockType) {
            faults.at(place, target.name() + " is a function block: it is called, not assigned.");
            return true;
        }
        return false;
    }

    /** Stores a value in a variable, an element or a part; null where it cannot be, which has been told. @param line 0 for a part of a statement */
    Action store(ExpressionSyntax place, Target target, Expression value, int line) {
        if (refused(place, target)) {
            return null;
        }
        expressions.names().written(place, target);
        Expression fitted = expressions.convert(place.place(), value, target.type());
        if (fitted.faulty()) {
            return null;
        }
        if (target.part() != null) {
            return new Action.Store(line, target.address(), withPart(target, fitted.node()));
        }
        if (target.type().isElementary() || target.type() instanceof ReferenceType) {
            return new Action.Store(line, target.address(), fitted.node());
        }
        return whole(target, fitted, line);
    }

    private static Node withPart(Target target, Node value) {
        Target.Part part = target.part();
        Node bits = target.type() == Type.BOOL ? new Node.AsWhole(value) : value;
        Node whole = new Node.Load(Node.Kind.WHOLE, target.address());
        Type kept = part.whole().elementary();
        return Conversions.wrapped(kept, Conversions.operation(Node.Kind.WHOLE, "withPart", whole, bits, new Node.Whole(part.bits()), new Node.Whole(part.at())));
    }

    /** A structure or an array: all of its cells. */
    private Action whole(Target target, Expression value, int line) {
        if (value.node() instanceof Node.Call call) {
            return new Action.Group(line, List.of(new Action.Evaluate(line, call), new Action.Copy(line, target.address(), value.address(), target.type().cells(), true)));
        }
        if (target.type() instanceof ArrayType array && array.open()) {
            faults.at(new Place(Math.max(1, line), 1, 1), "An array of any length is assigned element by element.");
            return null;
        }
        return new Action.Copy(line, target.address(), value.address(), target.type().cells(), true);
    }

    // ---- arguments

    /**
     * What a call gives and takes.
     *
     * @param enabled what is given to EN, or null
     * @param enables who takes ENO
     * @param names   parameters that are given, as keys of a scope
     */
    private record Given(List<Action.Store> inputs, List<Action> outputs, Expression enabled, List<Output> enables, Set<String> names) {
    }

    /**
     * Brings arguments to the parameters of a function or a function block.
     *
     * @param callee name of the function or of the kind of block
     * @return null where something is wrong, which has been told
     */
    private Given given(List<Argument> arguments, String callee, List<Unit.Parameter> parameters) {
        List<Unit.Parameter> inOrder = parameters.stream().filter(p -> p.role() != BlockType.Role.OUTPUT).toList();
        List<Action.Store> inputs = new ArrayList<>();
        List<Action> outputs = new ArrayList<>();
        List<Output> enables = new ArrayList<>();
        Set<String> names = new HashSet<>();
        Expression enabled = null;
        boolean faulty = false;
        boolean byName = arguments.stream().anyMatch(a -> a instanceof Output || a instanceof Input input && input.pin() != null);
        int position = 0;
        for (Argument argument : arguments) {
            if (argument instanceof Output output) {
                if (output.pin().equalsIgnoreCase("ENO") && named(parameters, "ENO") == null) {
                    enables.add(output);
                } else {
                    faulty |= !output(output, callee, parameters, outputs);
                }
                continue;
            }
            Input input = (Input) argument;
            if (input.pin() == null && byName) {
                faults.at(input.place(), "Inputs are given all by name or all by their order: write the name of this one and := before it.");
                return null;
            }
            if (input.pin() != null && input.pin().equalsIgnoreCase("EN") && named(parameters, "EN") == null) {
                enabled = expressions.compile(input.value(), Type.BOOL);
                faulty |= enabled.faulty();
                continue;
            }
            Unit.Parameter parameter = input.pin() != null ? named(parameters, input.pin()) : position < inOrder.size() ? inOrder.get(position++) : null;
            if (parameter == null || parameter.role() == BlockType.Role.OUTPUT) {
                List<String> known = inOrder.stream().map(Unit.Parameter::name).toList();
                faults.at(input.place(), callee + " has no such input." + has(known) + (input.pin() == null ? "" : Scope.guess(input.pin(), known)));
                faulty = true;
            } else if (!names.add(Scope.key(parameter.name()))) {
                faults.at(input.place(), parameter.name() + " is given twice in this call.");
                faulty = true;
            } else {
                if (input.pin() != null) {
                    expressions.names().used(input.place(), callee, parameter.name(), NameIndex.How.WRITTEN);
                }
                faulty |= !input(input, parameter, parameter.address(), inputs);
            }
        }
        return faulty ? null : new Given(inputs, outputs, enabled, enables, names);
    }

    private static Unit.Parameter named(List<Unit.Parameter> parameters, String name) {
        return parameters.stream().filter(p -> p.name().equalsIgnoreCase(name)).findFirst().orElse(null);
    }

    private static String has(List<String> names) {
        return names.isEmpty() ? " It has none." : " It has: " + String.join(", ", names) + ".";
    }

    private boolean output(Output output, String callee, List<Unit.Parameter> parameters, List<Action> outputs) {
        Unit.Parameter parameter = named(parameters, output.pin());
        if (parameter == null || parameter.role() != BlockType.Role.OUTPUT) {
            List<String> known = parameters.stream().filter(p -> p.role() == BlockType.Role.OUTPUT).map(Unit.Parameter::name).toList();
            faults.at(output.pinPlace(), callee + " has no such output." + has(known) + Scope.guess(output.pin(), known));
            return false;
        }
        expressions.names().used(output.pinPlace(), callee, parameter.name(), NameIndex.How.READ);
        Action taken = taken(output, Expression.variable(parameter.type(), parameter.address()));
        outputs.add(taken);
        return taken != null;
    }

    /** ENO is taken after the call; null where it cannot be, which has been told. */
    private List<Action> enabledOutputs(List<Output> enables, Node on) {
        List<Action> actions = new ArrayList<>();
        for (Output output : enables) {
            Action taken = taken(output, Expression.of(Type.BOOL, on));
            if (taken == null) {
                return null;
            }
            actions.add(taken);
        }
        return actions;
    }

    // ---- functions

    /** @param valued its value is needed */
    Expression function(Call place, Unit unit, boolean valued) {
        uses(unit, place);
        expressions.names().used(place.functionPlace(), "", unit.name(), NameIndex.How.CALLED);
        new Declarations(project, unit).read();
        if (!unit.done) {
            faults.at(place, unit.name() + " calls itself, which IEC 61131-3 does not allow.");
            return Expression.FAULTY;
        }
        if (valued && unit.syntax.result() == null) {
            faults.at(place, unit.name() + " gives no value: call it in a statement of its own.");
            return Expression.FAULTY;
        }
        List<Unit.Parameter> inOrder = unit.parameters.stream().filter(p -> p.role() != BlockType.Role.OUTPUT).toList();
        boolean byOrder = place.arguments().stream().allMatch(a -> a instanceof Input input && input.pin() == null);
        if (byOrder && place.arguments().size() != inOrder.size()) {
            place.arguments().forEach(a -> expressions.compile(((Input) a).value()));
            faults.at(place, unit.name() + " takes " + inOrder.size() + (inOrder.size() == 1 ? " value, not " : " values, not ") + place.arguments().size() + signature(inOrder) + ".");
            return Expression.FAULTY;
        }
        Given given = given(place.arguments(), unit.name(), unit.parameters);
        boolean complete = given != null;
        for (Unit.Parameter parameter : inOrder) {
            complete = complete && (given.names().contains(Scope.key(parameter.name())) || missing(place, unit, parameter, given.inputs()));
        }
        return complete ? called(unit, given) : Expression.FAULTY;
    }

    private Expression called(Unit unit, Given given) {
        DataType type = unit.result == null ? Type.BOOL : unit.result.type();
        Address at = unit.result == null ? null : unit.result.address();
        Type kept = type.elementary();
        Node.Kind kind = at == null || kept == null ? Node.Kind.WHOLE : Expression.kind(kept);
        DataType value = kept != null && kept.isText() ? kept : type;
        if (given.enabled() == null && given.enables().isEmpty()) {
            return new Expression(value, false, new Node.Call(kind, unit.className(), given.inputs(), given.outputs(), at, null), null, at);
        }
        Address hidden = project.hidden();
        Node on = new Node.Load(Node.Kind.BOOL, hidden);
        List<Action> before = List.of(new Action.Store(0, hidden, given.enabled() == null ? new Node.Bool(true) : given.enabled().node()));
        List<Action> after = enabledOutputs(given.enables(), on);
        return after == null ? Expression.FAULTY
                : new Expression(value, false, new Node.With(before, new Node.Call(kind, unit.className(), given.inputs(), given.outputs(), at, on), after), null, null);
    }

    private static String signature(List<Unit.Parameter> inputs) {
        return inputs.isEmpty() ? "" : ": " + String.join(", ", inputs.stream().map(p -> p.name() + " : " + p.type().written()).toList());
    }

    /** An input of a function that is not given has its first value; a VAR_IN_OUT must be given. */
    private boolean missing(Call place, Unit unit, Unit.Parameter parameter, List<Action.Store> inputs) {
        if (parameter.role() == BlockType.Role.IN_OUT) {
            faults.at(place, unit.name() + " needs " + parameter.name() + " in every call: it is a VAR_IN_OUT.");
            return false;
        }
        if (parameter.initial() != null) {
            inputs.add(new Action.Store(0, parameter.address(), parameter.initial().node()));
        }
        return true;
    }

    // ---- what is given

    /** @param at where it lies */
    private boolean input(Input input, Unit.Parameter parameter, Address at, List<Action.Store> inputs) {
        if (parameter.role() == BlockType.Role.IN_OUT) {
            return lend(input, parameter, at, inputs);
        }
        Expression value = expressions.compile(input.value(), parameter.type());
        if (value.faulty()) {
            return false;
        }
        if (value.node() == null || !parameter.type().isElementary() && !(parameter.type() instanceof ReferenceType)) {
            faults.at(input.place(), "Structures and arrays are given as VAR_IN_OUT: declare " + parameter.name() + " there.");
            return false;
        }
        inputs.add(new Action.Store(0, at, value.node()));
        return true;
    }

    /** A VAR_IN_OUT gets the place of a variable of its own type. */
    private boolean lend(Input input, Unit.Parameter parameter, Address at, List<Action.Store> inputs) {
        if (!(input.value() instanceof Name) && !(input.value() instanceof ExpressionSyntax.Element) && !(input.value() instanceof ExpressionSyntax.Member) && !(input.value() instanceof ExpressionSyntax.Referred)) {
            faults.at(input.value(), parameter.name() + " is a VAR_IN_OUT: it needs a variable, not a value.");
            return false;
        }
        Target target = expressions.names().find(input.value());
        if (target == null) {
            return false;
        }
        boolean axis = parameter.type() == Type.AXIS_REF && target.type() == Type.AXIS_REF;
        if (target.refusal() != null && !axis || target.part() != null || target.address() == null) {
            faults.at(input.value(), parameter.name() + " is a VAR_IN_OUT and may change " + target.name() + ", which cannot be: " + (target.refusal() == null ? "it has no place of its own" : target.refusal()) + ".");
            return false;
        }
        expressions.names().written(input.value(), target);
        if (parameter.type() instanceof ArrayType open && open.open()) {
            return lendArray(input, parameter, open, target, at, inputs);
        }
        if (!parameter.type().same(target.type())) {
            faults.at(input.value(), parameter.name() + " is a VAR_IN_OUT of type " + parameter.type().written() + " and takes no " + target.type().written() + ".");
            return false;
        }
        inputs.add(new Action.Store(0, at, new Node.Place(target.address())));
        return true;
    }

    private boolean lendArray(Input input, Unit.Parameter parameter, ArrayType open, Target target, Address at, List<Action.Store> inputs) {
        if (!(target.type() instanceof ArrayType given) || given.bounds().size() != open.bounds().size() || !given.element().same(open.element())) {
            faults.at(input.value(), parameter.name() + " is a VAR_IN_OUT of type " + open.written() + " and takes no " + target.type().written() + ".");
            return false;
        }
        inputs.add(new Action.Store(0, at, new Node.Place(target.address())));
        for (int d = 0; d < open.bounds().size(); d++) {
            Node low = given.open() ? Names.bound(target, 1 + 2 * d) : new Node.Whole(given.bounds().get(d).low());
            Node high = given.open() ? Names.bound(target, 2 + 2 * d) : new Node.Whole(given.bounds().get(d).high());
            inputs.add(new Action.Store(0, at.plus(1 + 2 * d), low));
            inputs.add(new Action.Store(0, at.plus(2 + 2 * d), high));
        }
        return true;
    }

    // ---- function blocks, and functions as statements

    /** A call as a statement of its own; null where it is faulty, which has been told. */
    Action statement(BlockCall place, int line) {
        if (place.block() instanceof Name name) {
            Unit unit = project.unit(name.path());
            boolean function = unit != null && unit.syntax.kind() == UnitSyntax.Kind.FUNCTION;
            if (function || expressions.names().named(name) == null && StandardFunctions.isStandard(name.path())) {
                Call call = new Call(place.place(), name.path(), name.place(), place.arguments(), 1);
                Expression value = function ? function(call, unit, false) : expressions.functions().call(call, null);
                return value.faulty() ? null : new Action.Evaluate(line, value.node());
            }
            if (expressions.names().named(name) == null) {
                unknownBlock(name);
                return null;
            }
        }
        Target instance = expressions.names().find(place.block());
        if (instance == null) {
            return null;
        }
        if (!(instance.type() instanceof BlockType block)) {
            faults.at(place.block(), instance.name() + " is no function block and cannot be called.");
            return null;
        }
        expressions.names().called(place.block());
        return block(place, line, instance, block);
    }

    private void unknownBlock(Name place) {
        String name = place.path();
        Scope scope = expressions.scope();
        if (scope.isFaulty(name)) {
            return;
        }
        scope.declareFaulty(name);
        BlockType kind = project.types.block(name);
        if (kind != null) {
            faults.at(place, name + " is a kind of function block: declare one of it, such as " + name + "_1 : " + kind.written() + "; and call that.");
            return;
        }
        Unit unit = project.unit(name);
        if (unit != null) {
            faults.at(place, name + " is a program: a task calls it.");
            return;
        }
        String guess = Scope.guess(name, scope.names());
        faults.at(place, "There is no function block " + name + "." + (guess.isEmpty() ? " Declare it, such as: " + name + " : TON;" : guess));
    }

    private Action block(BlockCall place, int line, Target instance, BlockType block) {
        FunctionBlock.Kind kind = project.storage.nativeKind(block);
        Unit unit = kind == null ? project.storage.unit(block) : null;
        if (kind == null && unit == null) {
            faults.at(place.block(), block.written() + " calls itself, which IEC 61131-3 does not allow.");
            return null;
        }
        if (unit != null) {
            uses(unit, place.block());
        }
        /* an index is worked out once: what is taken may change it */
        boolean moving = !instance.address().steps().isEmpty() || instance.address().start() instanceof Address.Pointer;
        Address kept = moving ? project.hidden() : null;
        Address at = moving ? Address.pointer(kept, "") : instance.address();
        Given given = given(place.arguments(), block.written(), parameters(block, unit, at));
        if (given == null || !complete(place, instance, block, unit, given.names())) {
            return null;
        }
        List<Action> run = new ArrayList<>(given.inputs());
        run.add(unit != null ? new Action.CallBlock(line, unit.className(), at) : new Action.CallNative(line, at, kind.pins().size()));
        run.addAll(given.outputs());
        List<Action> actions = given.enabled() == null && given.enables().isEmpty() ? run : enabled(line, run, given);
        if (actions == null) {
            return null;
        }
        return moving ? new Action.Keep(line, kept, instance.address(), actions) : new Action.Group(line, actions);
    }

    /** The pins of an instance, each where it lies. @param unit null for a block in Java */
    private static List<Unit.Parameter> parameters(BlockType block, Unit unit, Address at) {
        return block.members().stream().filter(m -> m.role() != BlockType.Role.INNER)
                .map(m -> new Unit.Parameter(m.name(), unit == null ? m.type() : unit.parameter(m.name()).type(), m.role(), at.plus(m.offset()), null)).toList();
    }

    /** EN decides whether the block runs; ENO tells it. */
    private List<Action> enabled(int line, List<Action> run, Given given) {
        Address hidden = project.hidden();
        Node on = new Node.Load(Node.Kind.BOOL, hidden);
        List<Action> enables = enabledOutputs(given.enables(), on);
        if (enables == null) {
            return null;
        }
        List<Action> actions = new ArrayList<>();
        actions.add(new Action.Store(0, hidden, given.enabled() == null ? new Node.Bool(true) : given.enabled().node()));
        actions.add(new Action.If(List.of(new Action.Branch(line, on, run)), List.of()));
        actions.addAll(enables);
        return actions;
    }

    /** Axes and what is lent must be given in every call. */
    private boolean complete(BlockCall place, Target instance, BlockType block, Unit unit, Set<String> given) {
        boolean complete = true;
        boolean axisGiven = block.members().stream().anyMatch(m -> m.required() && m.type() == Type.AXIS_REF && given.contains(Scope.key(m.name())));
        for (BlockType.Member member : block.members()) {
            if (!member.required() || given.contains(Scope.key(member.name()))) {
                continue;
            }
            if (unit != null) {
                faults.at(place.block(), instance.name() + " needs " + member.name() + " in every call: it is a VAR_IN_OUT.");
                complete = false;
            } else if (member.role() == BlockType.Role.IN_OUT) {
                faults.at(place.block(), instance.name() + " needs " + member.name() + " in every call: it is a VAR_IN_OUT of type " + member.type().written() + ".");
                complete = false;
            } else if (!axisGiven) {
                faults.at(place.block(), instance.name() + " needs its axis: write " + member.name() + " := " + (project.environment.axes().isEmpty() ? "…" : project.environment.axes().get(0)) + ".");
                return false;
            }
        }
        return complete;
    }
}
