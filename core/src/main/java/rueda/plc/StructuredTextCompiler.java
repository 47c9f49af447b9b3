package rueda.plc;

import java.math.BigInteger;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import rueda.plc.Code.Condition;
import rueda.plc.Code.Real;
import rueda.plc.Code.Step;
import rueda.plc.Code.Whole;
import rueda.plc.syntax.ExpressionSyntax;
import rueda.plc.syntax.ExpressionSyntax.Name;
import rueda.plc.syntax.Parser;
import rueda.plc.syntax.Place;
import rueda.plc.syntax.ProgramSyntax;
import rueda.plc.syntax.ProgramSyntax.Declaration;
import rueda.plc.syntax.StatementSyntax;
import rueda.plc.syntax.StatementSyntax.Assignment;
import rueda.plc.syntax.StatementSyntax.BlockCall;
import rueda.plc.syntax.StatementSyntax.Case;
import rueda.plc.syntax.StatementSyntax.Exit;
import rueda.plc.syntax.StatementSyntax.For;
import rueda.plc.syntax.StatementSyntax.If;
import rueda.plc.syntax.StatementSyntax.Input;
import rueda.plc.syntax.StatementSyntax.Label;
import rueda.plc.syntax.StatementSyntax.Output;
import rueda.plc.syntax.StatementSyntax.Repeat;
import rueda.plc.syntax.StatementSyntax.While;

/**
 * Checks a program in Structured Text and turns it into code that a {@link Task} runs.
 *
 * <p>Every fault is reported with line and column; a text with faults has no code. FOR evaluates its bounds and
 * its step once, before the first round, and tests before each round (IEC 61131-3, iteration statements). A text of any size or depth
 * is compiled in time that grows with its length, or refused with a sentence: see {@link Parser} for how deep it may go.
 */
public final class StructuredTextCompiler {

    private static final int LONGEST_TEXT = 4_000_000;
    /** Values of one program: variables, pins of blocks, tags. */
    private static final int MOST_VALUES = 20_000;

    private final Environment environment;
    private final Faults faults = new Faults();
    private final Scope scope = new Scope();
    private final ExpressionCompiler expressions = new ExpressionCompiler(scope, faults);
    private int loopDepth;

    private StructuredTextCompiler(Environment environment) {
        this.environment = environment;
    }

    public static CompiledProgram compile(String source, Environment environment) {
        return new StructuredTextCompiler(environment).compile(source);
    }

    private CompiledProgram compile(String source) {
        if (source.length() > LONGEST_TEXT) {
            faults.at(new Place(1, 1, 1), "A program has at most " + LONGEST_TEXT / 1_000_000 + " million characters, this one has " + source.length() + ".");
            return refused();
        }
        ProgramSyntax program = Parser.parse(source, faults);
        if (!faults.none()) {
            return refused();
        }
        int[] tagSlots = new int[environment.tags().size()];
        List<Step> initial = new ArrayList<>();
        for (int i = 0; i < tagSlots.length; i++) {
            Environment.Tag tag = environment.tags().get(i);
            tagSlots[i] = scope.declare(tag.name(), tag.type(), tag.writable(), "motion control and the bus write it").slot();
        }
        for (int i = 0; i < environment.axes().size(); i++) {
            int slot = scope.declare(environment.axes().get(i), Type.AXIS_REF, false, "it is an axis").slot();
            long number = i;
            initial.add(frame -> {
                frame.memory[slot] = number;
                return Code.GO_ON;
            });
        }
        for (Environment.Constant constant : environment.constants()) {
            scope.declareHidden(constant.name(), Type.INT, constant.value(), "it is a constant");
        }
        for (Declaration declaration : program.declarations()) {
            declare(declaration, initial);
            if (scope.size() > MOST_VALUES) {
                faults.at(declaration.names().get(0), "A program has at most " + MOST_VALUES + " values: variables, pins of blocks and tags.");
                return refused();
            }
        }
        Step body = statements(program.body());
        return new CompiledProgram(program.name(), faults.sorted(), scope.variables(), tagSlots, scope.size(), program.lines(),
                Code.sequence(initial.toArray(Step[]::new)), body);
    }

    private CompiledProgram refused() {
        return new CompiledProgram("", faults.sorted(), List.of(), new int[0], 0, 0, null, null);
    }

    private void declare(Declaration declaration, List<Step> initial) {
        Type type = Type.named(declaration.type());
        FunctionBlock.Kind kind = kind(declaration.type());
        if ((type == null || type == Type.AXIS_REF) && kind == null) {
            faults.at(declaration.typePlace(), noType(declaration.type()));
            declaration.names().forEach(name -> scope.declareFaulty(name.path()));
            return;
        }
        int length = length(declaration, type);
        for (Name identifier : declaration.names()) {
            String name = identifier.path();
            if (Type.named(name) != null || kind(name) != null) {
                faults.at(identifier, name + " is the name of a type and cannot be a variable. Choose another one, such as " + name + "_1.");
                scope.declareFaulty(name);
            } else if (scope.knows(name)) {
                faults.at(identifier, name + " is declared already.");
            } else if (kind != null) {
                if (declaration.initial() != null) {
                    faults.at(declaration.initial(), "A function block takes its values where it is called.");
                }
                scope.declare(name, kind);
                initial.add(initialPins(scope.instance(name)));
            } else {
                variable(declaration, name, type, length, initial);
            }
        }
    }

    private void variable(Declaration declaration, String name, Type type, int length, List<Step> initial) {
        Expression value = declaration.initial() == null ? null : expressions.compile(declaration.initial(), type);
        Variable declared = scope.declare(name, type, length, !declaration.constant(), "it is CONSTANT");
        if (value == null) {
            if (declaration.constant() && !type.isText()) {
                scope.fix(declared, type.isReal() ? Expression.constant(type, false, 0.0) : Expression.constant(type, false, 0L));
            }
            return;
        }
        if (value.faulty()) {
            return;
        }
        if (declaration.constant() && value.constant() != null && !type.isText()) {
            scope.fix(declared, value);
        }
        int line = declaration.initial().place().line();
        Step store = store(declared, value);
        initial.add(frame -> {
            frame.line = line;
            return store.run(frame);
        });
    }

    /** Types of the standard's function blocks that are not here yet. */
    private static final Set<String> LATER = Set.of("CTU", "CTD", "CTUD", "SR", "RS", "RTC", "SEMA");

    private String noType(String name) {
        String upper = name.toUpperCase(Locale.ROOT);
        if (upper.equals("AXIS_REF")) {
            return "Not supported yet: variables of type AXIS_REF. Name the axis itself where a block is called.";
        }
        if (LATER.contains(upper) || upper.startsWith("CTU_") || upper.startsWith("CTD_") || upper.startsWith("CTUD_")) {
            return "Not supported yet: the function block " + upper + ".";
        }
        List<String> known = new ArrayList<>();
        for (Type type : Type.values()) {
            known.add(type.name());
        }
        environment.blocks().forEach(k -> known.add(k.name()));
        return "There is no type " + name + "." + ExpressionCompiler.guess(name, known);
    }

    /** Characters of STRING[n]; refused for other types and beyond 32 767. */
    private int length(Declaration place, Type type) {
        boolean text = type != null && type.isText();
        if (place.length() == null) {
            return text ? Variable.DEFAULT_LENGTH : 0;
        }
        if (!text) {
            faults.at(place.typePlace(), "Only STRING and WSTRING take a length.");
            return 0;
        }
        Expression value = expressions.compile(place.length());
        if (value.faulty()) {
            return Variable.DEFAULT_LENGTH;
        }
        boolean fits = value.isConstantWhole() && value.exact().signum() > 0 && value.exact().bitLength() < 32 && value.exact().intValue() <= Variable.MOST_CHARACTERS;
        if (!fits) {
            faults.at(place.length(), value.isConstantWhole() ? "A length is 1 to " + Variable.MOST_CHARACTERS + ", not " + value.exact() + "." : "A length is a constant whole number, 1 to " + Variable.MOST_CHARACTERS + ".");
            return Variable.DEFAULT_LENGTH;
        }
        return value.exact().intValue();
    }

    private static Step initialPins(Scope.Instance instance) {
        List<FunctionBlock.Pin> pins = instance.kind().pins();
        return frame -> {
            for (int i = 0; i < pins.size(); i++) {
                frame.memory[instance.base() + i] = pins.get(i).initial();
            }
            return Code.GO_ON;
        };
    }

    private FunctionBlock.Kind kind(String name) {
        return environment.blocks().stream().filter(k -> k.name().equalsIgnoreCase(name)).findFirst().orElse(null);
    }

    /** Stores a value; a text is cut to what the variable holds (IEC 61131-3, character strings). */
    private static Step store(Variable target, Expression value) {
        if (!target.type().isText()) {
            return store(target.slot(), value);
        }
        int slot = target.slot();
        int length = target.length();
        Code.Text code = value.text();
        return frame -> {
            String text = code.value(frame);
            frame.texts[slot] = text.length() > length ? text.substring(0, length) : text;
            return Code.GO_ON;
        };
    }

    static Step store(int slot, Expression value) {
        if (value.type().isReal()) {
            Real code = value.real();
            return frame -> {
                frame.memory[slot] = Double.doubleToRawLongBits(code.value(frame));
                return Code.GO_ON;
            };
        }
        Whole code = value.whole();
        return frame -> {
            frame.memory[slot] = code.value(frame);
            return Code.GO_ON;
        };
    }

    private Step statements(List<StatementSyntax> list) {
        List<Step> steps = new ArrayList<>();
        for (StatementSyntax statement : list) {
            Step step = statement(statement);
            if (step != null) {
                steps.add(step);
            }
        }
        return Code.sequence(steps.toArray(Step[]::new));
    }

    private Step statement(StatementSyntax place) {
        int line = place.place().line();
        if (place instanceof Assignment assignment) {
            return assignment(assignment, line);
        }
        if (place instanceof BlockCall call) {
            return blockCall(call, line);
        }
        if (place instanceof If choice) {
            return ifStatement(choice);
        }
        if (place instanceof Case choice) {
            return caseStatement(choice, line);
        }
        if (place instanceof For loop) {
            return forStatement(loop, line);
        }
        if (place instanceof While loop) {
            return whileStatement(loop, line);
        }
        if (place instanceof Repeat loop) {
            return repeatStatement(loop, line);
        }
        if (place instanceof Exit && loopDepth == 0) {
            faults.at(place.place(), "EXIT stands outside of any loop.");
        }
        int signal = place instanceof Exit ? Code.EXIT_LOOP : Code.RETURN;
        return frame -> {
            frame.enter(line);
            return signal;
        };
    }

    private Variable target(Name path) {
        Variable variable = scope.variable(path.path());
        if (variable == null) {
            expressions.unknown(path);
            return null;
        }
        String refusal = scope.refusal(path.path());
        if (refusal != null) {
            faults.at(path, path.path() + " cannot be assigned: " + refusal + ".");
            return null;
        }
        return variable;
    }

    private Step assignment(Assignment place, int line) {
        Variable target = target(place.target());
        Expression value = expressions.compile(place.value(), target == null ? null : target.type());
        if (target == null || value.faulty()) {
            return null;
        }
        int slot = target.slot();
        if (value.type().isText()) {
            Step store = store(target, value);
            return frame -> {
                frame.enter(line);
                return store.run(frame);
            };
        }
        if (value.type().isReal()) {
            Real code = value.real();
            return frame -> {
                frame.enter(line);
                frame.memory[slot] = Double.doubleToRawLongBits(code.value(frame));
                return Code.GO_ON;
            };
        }
        Whole code = value.whole();
        return frame -> {
            frame.enter(line);
            frame.memory[slot] = code.value(frame);
            return Code.GO_ON;
        };
    }

    private Step blockCall(BlockCall place, int line) {
        String name = place.block().path();
        Scope.Instance instance = scope.instance(name);
        if (instance == null) {
            if (!scope.isFaulty(name)) {
                scope.declareFaulty(name);
                faults.at(place.block(), noBlock(name));
            }
            return null;
        }
        BlockInputs before = new BlockInputs();
        List<Step> after = new ArrayList<>();
        Set<Integer> given = new HashSet<>();
        boolean byName = place.arguments().stream().anyMatch(a -> a instanceof Output || a instanceof Input input && input.pin() != null);
        int position = 0;
        for (StatementSyntax.Argument argument : place.arguments()) {
            if (argument instanceof Output output) {
                output(output, instance, after);
                continue;
            }
            Input input = (Input) argument;
            if (input.pin() == null && byName) {
                faults.at(input.place(), "Inputs are given all by name or all by their order: write the name of this one and := before it.");
                break;
            }
            int pin = input.pin() == null ? inputInOrder(instance.kind().pins(), position++) : instance.kind().pin(input.pin());
            if (pin >= 0 && !given.add(pin)) {
                faults.at(input.place(), instance.kind().pins().get(pin).name() + " is given twice in this call.");
                continue;
            }
            input(input, instance, pin, before);
        }
        boolean axisGiven = given.stream().anyMatch(pin -> instance.kind().pins().get(pin).required());
        boolean needsAxis = instance.kind().pins().stream().anyMatch(FunctionBlock.Pin::required);
        if (needsAxis && !axisGiven) {
            faults.at(place.block(), instance.name() + " needs its axis: write Axis := " + (environment.axes().isEmpty() ? "…" : environment.axes().get(0)) + ".");
        }
        Step inputs = before.step();
        Step outputs = Code.sequence(after.toArray(Step[]::new));
        FunctionBlock block = instance.block();
        int base = instance.base();
        return frame -> {
            frame.enter(line);
            inputs.run(frame);
            block.call(frame, base);
            outputs.run(frame);
            return Code.GO_ON;
        };
    }

    private String noBlock(String name) {
        if (kind(name) != null) {
            return name + " is a kind of function block: declare one of it, such as " + name + "_1 : " + kind(name).name() + "; and call that.";
        }
        if (scope.variable(name) != null) {
            return name + " is no function block and cannot be called.";
        }
        String guess = ExpressionCompiler.guess(name, scope.names());
        return "There is no function block " + name + "." + (guess.isEmpty() ? " Declare it, such as: " + name + " : TON;" : guess);
    }

    /** The pin of an input by its order, or −1 when there are not so many. */
    private static int inputInOrder(List<FunctionBlock.Pin> pins, int position) {
        int count = 0;
        for (int i = 0; i < pins.size(); i++) {
            if (!pins.get(i).output() && count++ == position) {
                return i;
            }
        }
        return -1;
    }

    private void input(Input place, Scope.Instance instance, int pin, BlockInputs before) {
        List<FunctionBlock.Pin> pins = instance.kind().pins();
        if (pin < 0 || pins.get(pin).output()) {
            List<String> known = pins.stream().filter(p -> !p.output()).map(FunctionBlock.Pin::name).toList();
            String guess = place.pin() == null ? "" : ExpressionCompiler.guess(place.pin(), known);
            faults.at(place.place(), instance.kind().name() + " has no such input. It has: " + names(pins, false) + "." + guess);
            return;
        }
        Expression value = expressions.compile(place.value(), pins.get(pin).type());
        if (!value.faulty()) {
            before.add(instance.base() + pin, value);
        }
    }

    private void output(Output place, Scope.Instance instance, List<Step> after) {
        int pin = instance.kind().pin(place.pin());
        if (pin < 0 || !instance.kind().pins().get(pin).output()) {
            List<String> known = instance.kind().pins().stream().filter(FunctionBlock.Pin::output).map(FunctionBlock.Pin::name).toList();
            faults.at(place.pinPlace(), instance.kind().name() + " has no such output. It has: " + names(instance.kind().pins(), true) + "." + ExpressionCompiler.guess(place.pin(), known));
            return;
        }
        Variable target = target(place.target());
        if (target == null) {
            return;
        }
        Expression value = expressions.convert(place.target().place(), Expression.variable(instance.kind().pins().get(pin).type(), instance.base() + pin), target.type());
        if (!value.faulty()) {
            after.add(store(target, value));
        }
    }

    private static String names(List<FunctionBlock.Pin> pins, boolean outputs) {
        return String.join(", ", pins.stream().filter(p -> p.output() == outputs).map(FunctionBlock.Pin::name).toList());
    }

    private Step ifStatement(If place) {
        int count = place.branches().size();
        Condition[] conditions = new Condition[count];
        Step[] bodies = new Step[count];
        int[] lines = new int[count];
        boolean faulty = false;
        for (int i = 0; i < count; i++) {
            StatementSyntax.Branch branch = place.branches().get(i);
            Expression condition = expressions.compile(branch.condition(), Type.BOOL);
            bodies[i] = statements(branch.body());
            lines[i] = branch.condition().place().line();
            faulty |= condition.faulty();
            conditions[i] = condition.faulty() ? null : condition.asked();
        }
        Step otherwise = place.otherwise() == null ? frame -> Code.GO_ON : statements(place.otherwise());
        if (faulty) {
            return null;
        }
        if (count == 1) {
            Condition condition = conditions[0];
            Step body = bodies[0];
            int line = lines[0];
            return frame -> {
                frame.enter(line);
                return condition.holds(frame) ? body.run(frame) : otherwise.run(frame);
            };
        }
        return frame -> {
            for (int i = 0; i < conditions.length; i++) {
                frame.enter(lines[i]);
                if (conditions[i].holds(frame)) {
                    return bodies[i].run(frame);
                }
            }
            return otherwise.run(frame);
        };
    }

    private record Choice(long low, long high, int body) {
    }

    private Step caseStatement(Case place, int line) {
        Expression selector = expressions.compile(place.selector());
        if (!selector.faulty() && !selector.type().isInteger() && !selector.type().isBitString()) {
            faults.at(place.selector(), "CASE needs a whole number, not " + selector.type() + ".");
            selector = Expression.FAULTY;
        }
        List<Choice> choices = new ArrayList<>();
        TreeMap<BigInteger, BigInteger> taken = new TreeMap<>();
        List<Step> bodies = new ArrayList<>();
        for (StatementSyntax.Entry entry : place.entries()) {
            for (Label label : entry.labels()) {
                choice(label, selector.type(), bodies.size(), choices, taken);
            }
            bodies.add(statements(entry.body()));
        }
        Step otherwise = place.otherwise() == null ? frame -> Code.GO_ON : statements(place.otherwise());
        if (selector.faulty()) {
            return null;
        }
        Whole value = selector.whole();
        long flip = selector.type().isUnsigned64() ? Long.MIN_VALUE : 0;
        Choice[] table = choices.toArray(Choice[]::new);
        Step[] steps = bodies.toArray(Step[]::new);
        return frame -> {
            frame.enter(line);
            long selected = value.value(frame) ^ flip;
            for (Choice choice : table) {
                if (selected >= (choice.low ^ flip) && selected <= (choice.high ^ flip)) {
                    return steps[choice.body].run(frame);
                }
            }
            return otherwise.run(frame);
        };
    }

    /** @param taken lowest to highest value of each label before */
    private void choice(Label label, Type type, int body, List<Choice> choices, TreeMap<BigInteger, BigInteger> taken) {
        Expression low = expressions.compile(label.low(), type);
        Expression high = label.high() == null ? low : expressions.compile(label.high(), type);
        if (low.faulty() || high.faulty()) {
            return;
        }
        if (!low.isConstantWhole() || !high.isConstantWhole()) {
            faults.at(label.place(), "A CASE label is a constant whole number, a named constant or a range such as 1..5.");
            return;
        }
        BigInteger from = low.exact();
        BigInteger to = high.exact();
        if (from.compareTo(to) > 0) {
            faults.at(label.place(), "The range is empty: " + from + " is greater than " + to + ".");
            return;
        }
        Map.Entry<BigInteger, BigInteger> below = taken.floorEntry(to);
        if (below != null && below.getValue().compareTo(from) >= 0) {
            faults.at(label.place(), "This label is taken already: " + below.getKey().max(from) + ".");
        } else {
            taken.put(from, to);
        }
        choices.add(new Choice(from.longValue(), to.longValue(), body));
    }

    private Step forStatement(For place, int line) {
        Name name = place.variable();
        Variable control = scope.variable(name.path());
        if (control == null) {
            expressions.unknown(name);
        } else if (!control.type().isInteger() || scope.refusal(name.path()) != null) {
            faults.at(name, "FOR needs a variable of a whole-number type that can be assigned.");
            control = null;
        }
        Type type = control == null ? null : control.type();
        Expression from = expressions.compile(place.from(), type);
        Expression to = expressions.compile(place.to(), type);
        Expression by = place.by() == null ? control == null ? Expression.FAULTY : Expression.constant(type, false, 1L) : expressions.compile(place.by(), type);
        loopDepth++;
        Step body = statements(place.body());
        loopDepth--;
        if (control == null || from.faulty() || to.faulty() || by.faulty()) {
            return null;
        }
        int slot = control.slot();
        Whole first = from.whole();
        Whole last = to.whole();
        Whole step = by.whole();
        // Compared without sign where the type has none and fills 64 bits; a sum that the type does not hold has wrapped.
        long flip = type.isUnsigned64() ? Long.MIN_VALUE : 0;
        boolean unsigned = type.family() == Type.Family.UNSIGNED;
        return frame -> {
            frame.enter(line);
            long end = last.value(frame) ^ flip;
            long increment = step.value(frame);
            if (increment == 0) {
                throw new ProgramFault(line, "The step of FOR is 0: the loop would not end.");
            }
            boolean upward = unsigned || increment > 0;
            long[] memory = frame.memory;
            memory[slot] = first.value(frame);
            while (upward ? (memory[slot] ^ flip) <= end : (memory[slot] ^ flip) >= end) {
                int signal = body.run(frame);
                if (signal != Code.GO_ON) {
                    return signal == Code.EXIT_LOOP ? Code.GO_ON : signal;
                }
                frame.enter(line);
                long before = memory[slot] ^ flip;
                long next = type.wrap(memory[slot] + increment);
                if (upward ? (next ^ flip) <= before : (next ^ flip) >= before) {
                    break;
                }
                memory[slot] = next;
            }
            return Code.GO_ON;
        };
    }

    private Step whileStatement(While place, int line) {
        Expression condition = expressions.compile(place.condition(), Type.BOOL);
        loopDepth++;
        Step body = statements(place.body());
        loopDepth--;
        if (condition.faulty()) {
            return null;
        }
        Condition asked = condition.asked();
        return frame -> {
            frame.enter(line);
            while (asked.holds(frame)) {
                int signal = body.run(frame);
                if (signal != Code.GO_ON) {
                    return signal == Code.EXIT_LOOP ? Code.GO_ON : signal;
                }
                frame.enter(line);
            }
            return Code.GO_ON;
        };
    }

    private Step repeatStatement(Repeat place, int line) {
        loopDepth++;
        Step body = statements(place.body());
        loopDepth--;
        Expression condition = expressions.compile(place.until(), Type.BOOL);
        if (condition.faulty()) {
            return null;
        }
        Condition until = condition.asked();
        return frame -> {
            do {
                frame.enter(line);
                int signal = body.run(frame);
                if (signal != Code.GO_ON) {
                    return signal == Code.EXIT_LOOP ? Code.GO_ON : signal;
                }
            } while (!until.holds(frame));
            return Code.GO_ON;
        };
    }
}
