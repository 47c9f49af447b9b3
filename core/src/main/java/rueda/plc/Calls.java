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
import rueda.plc.type.ArrayType;
import rueda.plc.type.BlockType;
import rueda.plc.type.DataType;
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

    /** Stores a value in a variable, an element or a part; null where it cannot be, which has been told. @param line 0 for a part of a statement */
    Action store(ExpressionSyntax place, Target target, Expression value, int line) {
        if (target.refusal() != null) {
            faults.at(place, target.name() + " cannot be assigned: " + target.refusal() + ".");
            return null;
        }
        if (target.type() instanceof BlockType) {
            faults.at(place, target.name() + " is a function block: it is called, not assigned.");
            return null;
        }
        Expression fitted = expressions.convert(place.place(), value, target.type());
        if (fitted.faulty()) {
            return null;
        }
        if (target.part() != null) {
            return new Action.Store(line, target.address(), withPart(target, fitted.node()));
        }
        if (target.type().isElementary() || target.type() instanceof rueda.plc.type.ReferenceType) {
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

    // ---- functions

    /** @param valued its value is needed */
    Expression function(Call place, Unit unit, boolean valued) {
        uses(unit, place);
        new Declarations(project, unit).read();
        if (!unit.done) {
            faults.at(place, unit.name() + " calls itself, which IEC 61131-3 does not allow.");
            return Expression.FAULTY;
        }
        if (valued && unit.syntax.result() == null) {
            faults.at(place, unit.name() + " gives no value: call it in a statement of its own.");
            return Expression.FAULTY;
        }
        List<Action.Store> inputs = new ArrayList<>();
        List<Action> outputs = new ArrayList<>();
        List<Output> enabledOutputs = new ArrayList<>();
        Expression enabled = null;
        Set<String> given = new HashSet<>();
        boolean faulty = false;
        boolean byName = place.arguments().stream().anyMatch(a -> a instanceof Output || a instanceof Input input && input.pin() != null);
        List<Unit.Parameter> inOrder = unit.parameters.stream().filter(p -> p.role() != BlockType.Role.OUTPUT).toList();
        int position = 0;
        if (!byName && place.arguments().size() != inOrder.size()) {
            place.arguments().forEach(a -> expressions.compile(((Input) a).value()));
            faults.at(place, unit.name() + " takes " + inOrder.size() + (inOrder.size() == 1 ? " value, not " : " values, not ") + place.arguments().size() + signature(inOrder) + ".");
            return Expression.FAULTY;
        }
        for (Argument argument : place.arguments()) {
            if (argument instanceof Output output) {
                if (output.pin().equalsIgnoreCase("ENO") && unit.parameter("ENO") == null) {
                    enabledOutputs.add(output);
                    continue;
                }
                Unit.Parameter parameter = unit.parameter(output.pin());
                if (parameter == null || parameter.role() != BlockType.Role.OUTPUT) {
                    faults.at(output.pinPlace(), unit.name() + " has no such output." + has(unit, BlockType.Role.OUTPUT) + guess(output.pin(), unit));
                    faulty = true;
                    continue;
                }
                Action taken = taken(output, Expression.variable(parameter.type(), parameter.address()));
                faulty |= taken == null;
                outputs.add(taken);
                continue;
            }
            Input input = (Input) argument;
            if (input.pin() == null && byName) {
                faults.at(input.place(), "Inputs are given all by name or all by their order: write the name of this one and := before it.");
                return Expression.FAULTY;
            }
            if (input.pin() != null && input.pin().equalsIgnoreCase("EN") && unit.parameter("EN") == null) {
                enabled = expressions.compile(input.value(), Type.BOOL);
                faulty |= enabled.faulty();
                continue;
            }
            Unit.Parameter parameter = input.pin() == null ? inOrder.get(position++) : unit.parameter(input.pin());
            if (parameter == null || parameter.role() == BlockType.Role.OUTPUT) {
                faults.at(input.place(), unit.name() + " has no such input." + has(unit, BlockType.Role.INPUT) + guess(input.pin(), unit));
                faulty = true;
                continue;
            }
            if (!given.add(Scope.key(parameter.name()))) {
                faults.at(input.place(), parameter.name() + " is given twice in this call.");
                faulty = true;
                continue;
            }
            faulty |= !input(input, parameter, parameter.address(), inputs);
        }
        for (Unit.Parameter parameter : inOrder) {
            if (!given.contains(Scope.key(parameter.name()))) {
                faulty |= !missing(place, unit, parameter, inputs);
            }
        }
        if (faulty) {
            return Expression.FAULTY;
        }
        return called(unit, inputs, outputs, enabled, enabledOutputs);
    }

    private Expression called(Unit unit, List<Action.Store> inputs, List<Action> outputs, Expression enabled, List<Output> enabledOutputs) {
        DataType type = unit.result == null ? Type.BOOL : unit.result.type();
        Address at = unit.result == null ? null : unit.result.address();
        Type kept = type.elementary();
        Node.Kind kind = at == null || kept == null ? Node.Kind.WHOLE : Expression.kind(kept);
        DataType value = kept != null && kept.isText() ? kept : type;
        if (enabled == null && enabledOutputs.isEmpty()) {
            return new Expression(value, false, new Node.Call(kind, unit.className(), inputs, outputs, at, null), null, at);
        }
        Address hidden = project.hidden();
        Node on = new Node.Load(Node.Kind.BOOL, hidden);
        List<Action> before = List.of(new Action.Store(0, hidden, enabled == null ? new Node.Bool(true) : enabled.node()));
        List<Action> after = new ArrayList<>();
        for (Output output : enabledOutputs) {
            Action taken = taken(output, Expression.of(Type.BOOL, on));
            if (taken == null) {
                return Expression.FAULTY;
            }
            after.add(taken);
        }
        return new Expression(value, false, new Node.With(before, new Node.Call(kind, unit.className(), inputs, outputs, at, on), after), null, null);
    }

    private static String signature(List<Unit.Parameter> inputs) {
        return inputs.isEmpty() ? "" : ": " + String.join(", ", inputs.stream().map(p -> p.name() + " : " + p.type().written()).toList());
    }

    private static String has(Unit unit, BlockType.Role role) {
        List<String> names = unit.parameters.stream().filter(p -> p.role() == role || role == BlockType.Role.INPUT && p.role() == BlockType.Role.IN_OUT).map(Unit.Parameter::name).toList();
        return names.isEmpty() ? " It has none." : " It has: " + String.join(", ", names) + ".";
    }

    private static String guess(String name, Unit unit) {
        return Scope.guess(name, unit.parameters.stream().map(Unit.Parameter::name).toList());
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
        if (value.node() == null || !parameter.type().isElementary() && !(parameter.type() instanceof rueda.plc.type.ReferenceType)) {
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
            boolean function = unit != null && unit.syntax.kind() == rueda.plc.syntax.UnitSyntax.Kind.FUNCTION;
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
        List<Action.Store> inputs = new ArrayList<>();
        List<Action> outputs = new ArrayList<>();
        List<Output> enabledOutputs = new ArrayList<>();
        Expression enabled = null;
        Set<String> given = new HashSet<>();
        boolean faulty = false;
        boolean byName = place.arguments().stream().anyMatch(a -> a instanceof Output || a instanceof Input input && input.pin() != null);
        List<BlockType.Member> inOrder = block.members().stream().filter(m -> m.role() == BlockType.Role.INPUT || m.role() == BlockType.Role.IN_OUT).toList();
        int position = 0;
        for (Argument argument : place.arguments()) {
            if (argument instanceof Output output) {
                if (output.pin().equalsIgnoreCase("ENO") && block.member("ENO") == null) {
                    enabledOutputs.add(output);
                } else {
                    faulty |= !output(output, block, at, outputs);
                }
                continue;
            }
            Input input = (Input) argument;
            if (input.pin() == null && byName) {
                faults.at(input.place(), "Inputs are given all by name or all by their order: write the name of this one and := before it.");
                return null;
            }
            if (input.pin() != null && input.pin().equalsIgnoreCase("EN") && block.member("EN") == null) {
                enabled = expressions.compile(input.value(), Type.BOOL);
                faulty |= enabled.faulty();
                continue;
            }
            BlockType.Member member = input.pin() != null ? block.member(input.pin()) : position < inOrder.size() ? inOrder.get(position++) : null;
            if (member == null || member.role() != BlockType.Role.INPUT && member.role() != BlockType.Role.IN_OUT) {
                List<String> known = inOrder.stream().map(BlockType.Member::name).toList();
                faults.at(input.place(), block.written() + " has no such input. It has: " + String.join(", ", known) + "." + (input.pin() == null ? "" : Scope.guess(input.pin(), known)));
                faulty = true;
                continue;
            }
            if (!given.add(Scope.key(member.name()))) {
                faults.at(input.place(), member.name() + " is given twice in this call.");
                faulty = true;
                continue;
            }
            Unit.Parameter parameter = unit == null ? new Unit.Parameter(member.name(), member.type(), member.role(), null, null) : unit.parameter(member.name());
            faulty |= !input(input, parameter, at.plus(member.offset()), inputs);
        }
        faulty |= !complete(place, instance, block, unit, given);
        if (faulty) {
            return null;
        }
        List<Action> run = new ArrayList<>(inputs);
        run.add(unit != null ? new Action.CallBlock(line, unit.className(), at) : new Action.CallNative(line, at, kind.pins().size()));
        run.addAll(outputs);
        List<Action> actions = enabled == null && enabledOutputs.isEmpty() ? run : enabled(line, run, enabled, enabledOutputs);
        if (actions == null) {
            return null;
        }
        return moving ? new Action.Keep(line, kept, instance.address(), actions) : new Action.Group(line, actions);
    }

    /** EN decides whether the block runs; ENO tells it. */
    private List<Action> enabled(int line, List<Action> run, Expression enabled, List<Output> enabledOutputs) {
        List<Action> actions = new ArrayList<>();
        Address hidden = project.hidden();
        Node on = new Node.Load(Node.Kind.BOOL, hidden);
        actions.add(new Action.Store(0, hidden, enabled == null ? new Node.Bool(true) : enabled.node()));
        actions.add(new Action.If(List.of(new Action.Branch(line, on, run)), List.of()));
        for (Output output : enabledOutputs) {
            Action taken = taken(output, Expression.of(Type.BOOL, on));
            if (taken == null) {
                return null;
            }
            actions.add(taken);
        }
        return actions;
    }

    private boolean output(Output output, BlockType block, Address at, List<Action> outputs) {
        BlockType.Member member = block.member(output.pin());
        if (member == null || member.role() != BlockType.Role.OUTPUT) {
            List<String> known = block.members().stream().filter(m -> m.role() == BlockType.Role.OUTPUT).map(BlockType.Member::name).toList();
            faults.at(output.pinPlace(), block.written() + " has no such output. It has: " + String.join(", ", known) + "." + Scope.guess(output.pin(), known));
            return false;
        }
        Action taken = taken(output, Expression.variable(member.type(), at.plus(member.offset())));
        outputs.add(taken);
        return taken != null;
    }

    /** Axes and what is lent must be given in every call. */
    private boolean complete(BlockCall place, Target instance, BlockType block, Unit unit, Set<String> given) {
        boolean complete = true;
        boolean axisGiven = block.members().stream().anyMatch(m -> m.required() && given.contains(Scope.key(m.name())));
        for (BlockType.Member member : block.members()) {
            if (!member.required() || given.contains(Scope.key(member.name()))) {
                continue;
            }
            if (unit != null) {
                faults.at(place.block(), instance.name() + " needs " + member.name() + " in every call: it is a VAR_IN_OUT.");
                complete = false;
            } else if (!axisGiven) {
                faults.at(place.block(), instance.name() + " needs its axis: write " + member.name() + " := " + (project.environment.axes().isEmpty() ? "…" : project.environment.axes().get(0)) + ".");
                return false;
            }
        }
        return complete;
    }
}
