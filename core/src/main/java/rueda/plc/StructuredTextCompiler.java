package rueda.plc;

import java.util.ArrayList;
import java.util.List;
import org.antlr.v4.runtime.CharStreams;
import org.antlr.v4.runtime.CommonTokenStream;
import org.antlr.v4.runtime.Token;
import org.antlr.v4.runtime.tree.TerminalNode;
import rueda.plc.Code.Condition;
import rueda.plc.Code.Real;
import rueda.plc.Code.Step;
import rueda.plc.Code.Whole;
import rueda.plc.grammar.StructuredTextLexer;
import rueda.plc.grammar.StructuredTextParser;
import rueda.plc.grammar.StructuredTextParser.*;

/**
 * Checks a program in Structured Text and turns it into code that a {@link Task} runs.
 *
 * <p>Every fault is reported with line and column; a text with faults has no code. FOR evaluates its bounds and
 * its step once, before the first round, and tests before each round (IEC 61131-3, iteration statements).
 */
public final class StructuredTextCompiler {

    private static final int MOST_CHARACTERS = 65_535;

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
        StructuredTextLexer lexer = new StructuredTextLexer(CharStreams.fromString(source));
        lexer.removeErrorListeners();
        lexer.addErrorListener(faults);
        StructuredTextParser parser = new StructuredTextParser(new CommonTokenStream(lexer));
        parser.removeErrorListeners();
        parser.addErrorListener(faults);
        ProgramContext program = parser.program();
        if (!faults.sorted().isEmpty()) {
            return new CompiledProgram("", faults.sorted(), List.of(), new int[0], 0, 0, null, null);
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
            int slot = scope.declareHidden(constant.name(), Type.INT, "it is a constant").slot();
            initial.add(frame -> {
                frame.memory[slot] = constant.value();
                return Code.GO_ON;
            });
        }
        program.varBlock().forEach(block -> declare(block, initial));
        Step body = statements(program.statementList());
        return new CompiledProgram(program.IDENTIFIER().getText(), faults.sorted(), scope.variables(), tagSlots, scope.size(), program.getStop().getLine(),
                Code.sequence(initial.toArray(Step[]::new)), body);
    }

    private void declare(VarBlockContext block, List<Step> initial) {
        for (VariableContext variable : block.variable()) {
            List<TerminalNode> identifiers = variable.IDENTIFIER();
            Token typeName = variable.typeName().IDENTIFIER().getSymbol();
            Type type = Type.named(typeName.getText());
            FunctionBlock.Kind kind = kind(typeName.getText());
            if ((type == null || type == Type.AXIS_REF) && kind == null) {
                faults.at(typeName, "There is no type " + typeName.getText() + ".");
                continue;
            }
            int length = length(variable.typeName(), type);
            for (TerminalNode identifier : identifiers) {
                String name = identifier.getText();
                if (scope.knows(name)) {
                    faults.at(identifier.getSymbol(), name + " is declared already.");
                } else if (kind != null) {
                    if (variable.expression() != null) {
                        faults.at(variable.expression(), "A function block takes its values where it is called.");
                    }
                    scope.declare(name, kind);
                    initial.add(initialPins(scope.instance(name)));
                } else {
                    boolean constant = block.CONSTANT() != null;
                    Expression value = variable.expression() == null ? null : expressions.compile(variable.expression(), type);
                    Variable declared = scope.declare(name, type, length, !constant, "it is CONSTANT");
                    if (value != null && !value.faulty()) {
                        initial.add(store(declared, value));
                    }
                }
            }
        }
    }

    /** Characters of STRING[n]; refused for other types and beyond 65 535. */
    private int length(TypeNameContext place, Type type) {
        boolean text = type != null && type.isText();
        if (place.INTEGER() == null) {
            return text ? Variable.DEFAULT_LENGTH : 0;
        }
        if (!text) {
            faults.at(place, "Only STRING and WSTRING take a length.");
            return 0;
        }
        long length = Literals.read(place.INTEGER().getText()).number().longValue();
        if (length < 1 || length > MOST_CHARACTERS) {
            faults.at(place.INTEGER().getSymbol(), "A length is 1 to " + MOST_CHARACTERS + ", not " + length + ".");
        }
        return (int) Math.min(length, MOST_CHARACTERS);
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

    private Step statements(StatementListContext list) {
        List<Step> steps = new ArrayList<>();
        for (StatementContext statement : list.statement()) {
            Step step = statement(statement);
            if (step != null) {
                steps.add(step);
            }
        }
        return Code.sequence(steps.toArray(Step[]::new));
    }

    /** Code of a statement, or null when it does nothing or is faulty. */
    private Step statement(StatementContext place) {
        int line = place.getStart().getLine();
        if (place instanceof AssignmentContext assignment) {
            return assignment(assignment, line);
        }
        if (place instanceof BlockCallContext call) {
            return blockCall(call, line);
        }
        if (place instanceof IfStatementContext choice) {
            return ifStatement(choice, line);
        }
        if (place instanceof CaseStatementContext choice) {
            return caseStatement(choice, line);
        }
        if (place instanceof ForStatementContext loop) {
            return forStatement(loop, line);
        }
        if (place instanceof WhileStatementContext loop) {
            return whileStatement(loop, line);
        }
        if (place instanceof RepeatStatementContext loop) {
            return repeatStatement(loop, line);
        }
        if (place instanceof ExitStatementContext) {
            if (loopDepth == 0) {
                faults.at(place, "EXIT stands outside of any loop.");
            }
            return frame -> {
                frame.enter(line);
                return Code.EXIT_LOOP;
            };
        }
        if (place instanceof ReturnStatementContext) {
            return frame -> {
                frame.enter(line);
                return Code.RETURN;
            };
        }
        return null;
    }

    private Variable target(PathContext path) {
        Variable variable = scope.variable(path.getText());
        if (variable == null) {
            faults.at(path, "There is no variable " + path.getText() + ". Declare it between VAR and END_VAR.");
            return null;
        }
        String refusal = scope.refusal(path.getText());
        if (refusal != null) {
            faults.at(path, path.getText() + " cannot be assigned: " + refusal + ".");
            return null;
        }
        return variable;
    }

    private Step assignment(AssignmentContext place, int line) {
        Variable target = target(place.path());
        Expression value = expressions.compile(place.expression(), target == null ? null : target.type());
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

    private Step blockCall(BlockCallContext place, int line) {
        Scope.Instance instance = scope.instance(place.path().getText());
        if (instance == null) {
            faults.at(place.path(), "There is no function block " + place.path().getText() + ". Declare it, such as: "
                    + place.path().getText() + " : TON;");
            return null;
        }
        BlockInputs before = new BlockInputs();
        List<Step> after = new ArrayList<>();
        int position = 0;
        boolean axisGiven = false;
        for (ArgumentContext argument : place.argument()) {
            if (argument instanceof InputArgumentContext input) {
                int pin = input.IDENTIFIER() == null ? position++ : instance.kind().pin(input.IDENTIFIER().getText());
                axisGiven |= input(input, instance, pin, before);
            } else if (argument instanceof OutputArgumentContext output) {
                output(output, instance, after);
            }
        }
        boolean needsAxis = instance.kind().pins().stream().anyMatch(FunctionBlock.Pin::required);
        if (needsAxis && !axisGiven) {
            faults.at(place.path(), instance.name() + " needs its axis: write Axis := " + (environment.axes().isEmpty() ? "…" : environment.axes().get(0)) + ".");
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

    /** @return whether this was the axis */
    private boolean input(InputArgumentContext place, Scope.Instance instance, int pin, BlockInputs before) {
        List<FunctionBlock.Pin> pins = instance.kind().pins();
        if (pin < 0 || pin >= pins.size() || pins.get(pin).output()) {
            faults.at(place, instance.kind().name() + " has no such input. It has: " + names(pins, false) + ".");
            return false;
        }
        Expression value = expressions.compile(place.expression(), pins.get(pin).type());
        if (!value.faulty()) {
            before.add(instance.base() + pin, value);
        }
        return pins.get(pin).required();
    }

    private void output(OutputArgumentContext place, Scope.Instance instance, List<Step> after) {
        int pin = instance.kind().pin(place.IDENTIFIER().getText());
        if (pin < 0 || !instance.kind().pins().get(pin).output()) {
            faults.at(place.IDENTIFIER().getSymbol(), instance.kind().name() + " has no such output. It has: " + names(instance.kind().pins(), true) + ".");
            return;
        }
        Variable target = target(place.path());
        if (target == null) {
            return;
        }
        Expression value = expressions.convert(place.path(), Expression.variable(instance.kind().pins().get(pin).type(), instance.base() + pin), target.type());
        if (!value.faulty()) {
            after.add(store(target, value));
        }
    }

    private static String names(List<FunctionBlock.Pin> pins, boolean outputs) {
        return String.join(", ", pins.stream().filter(p -> p.output() == outputs).map(FunctionBlock.Pin::name).toList());
    }

    private Step ifStatement(IfStatementContext place, int line) {
        List<ExpressionContext> conditions = new ArrayList<>();
        List<StatementListContext> bodies = new ArrayList<>();
        conditions.add(place.expression());
        bodies.add(place.statementList(0));
        for (ElsifContext elsif : place.elsif()) {
            conditions.add(elsif.expression());
            bodies.add(elsif.statementList());
        }
        Step chain = place.otherwise == null ? null : statements(place.otherwise);
        for (int i = conditions.size() - 1; i >= 0; i--) {
            Expression condition = expressions.compile(conditions.get(i), Type.BOOL);
            Step body = statements(bodies.get(i));
            Step otherwise = chain;
            if (!condition.faulty()) {
                Condition asked = condition.asked();
                int conditionLine = conditions.get(i).getStart().getLine();
                chain = frame -> {
                    frame.enter(conditionLine);
                    if (asked.holds(frame)) {
                        return body.run(frame);
                    }
                    return otherwise == null ? Code.GO_ON : otherwise.run(frame);
                };
            }
        }
        return chain;
    }

    private record Choice(long low, long high, int body) {
    }

    private Step caseStatement(CaseStatementContext place, int line) {
        Expression selector = expressions.compile(place.expression());
        if (!selector.faulty() && !selector.type().isInteger() && !selector.type().isBitString()) {
            faults.at(place.expression(), "CASE needs a whole number, not " + selector.type() + ".");
            selector = Expression.FAULTY;
        }
        List<Choice> choices = new ArrayList<>();
        List<Step> bodies = new ArrayList<>();
        for (CaseEntryContext entry : place.caseEntry()) {
            for (CaseLabelContext label : entry.caseLabel()) {
                choice(label, selector.type(), bodies.size(), choices);
            }
            bodies.add(statements(entry.statementList()));
        }
        Step otherwise = place.otherwise == null ? null : statements(place.otherwise);
        if (selector.faulty()) {
            return null;
        }
        Whole value = selector.whole();
        Choice[] table = choices.toArray(Choice[]::new);
        Step[] steps = bodies.toArray(Step[]::new);
        return frame -> {
            frame.enter(line);
            long selected = value.value(frame);
            for (Choice choice : table) {
                if (selected >= choice.low && selected <= choice.high) {
                    return steps[choice.body].run(frame);
                }
            }
            return otherwise == null ? Code.GO_ON : otherwise.run(frame);
        };
    }

    private void choice(CaseLabelContext label, Type type, int body, List<Choice> choices) {
        Expression low = expressions.compile(label.low, type);
        Expression high = label.high == null ? low : expressions.compile(label.high, type);
        if (low.faulty() || high.faulty()) {
            return;
        }
        if (!low.isConstantWhole() || !high.isConstantWhole()) {
            faults.at(label, "A CASE label is a constant whole number or a range such as 1..5.");
            return;
        }
        long from = low.number().longValue();
        long to = high.number().longValue();
        if (from > to) {
            faults.at(label, "The range is empty: " + from + " is greater than " + to + ".");
        }
        for (Choice other : choices) {
            if (from <= other.high && to >= other.low) {
                faults.at(label, "This label is taken already: " + Math.max(from, other.low) + ".");
                break;
            }
        }
        choices.add(new Choice(from, to, body));
    }

    private Step forStatement(ForStatementContext place, int line) {
        String name = place.IDENTIFIER().getText();
        Variable control = scope.variable(name);
        if (control == null || !control.type().isInteger() || scope.refusal(name) != null) {
            faults.at(place.IDENTIFIER().getSymbol(), "FOR needs a variable of a whole-number type that can be assigned.");
        }
        Type type = control == null ? null : control.type();
        Expression from = expressions.compile(place.from, type);
        Expression to = expressions.compile(place.to, type);
        Expression by = place.by == null ? Expression.constant(type, false, 1L) : expressions.compile(place.by, type);
        loopDepth++;
        Step body = statements(place.statementList());
        loopDepth--;
        if (control == null || from.faulty() || to.faulty() || by.faulty()) {
            return null;
        }
        int slot = control.slot();
        Whole first = from.whole();
        Whole last = to.whole();
        Whole step = by.whole();
        long highest = type.highest();
        long lowest = type.lowest();
        return frame -> {
            frame.enter(line);
            long end = last.value(frame);
            long increment = step.value(frame);
            if (increment == 0) {
                throw new ProgramFault(line, "The step of FOR is 0: the loop would not end.");
            }
            long[] memory = frame.memory;
            memory[slot] = first.value(frame);
            while (increment > 0 ? memory[slot] <= end : memory[slot] >= end) {
                int signal = body.run(frame);
                if (signal != Code.GO_ON) {
                    return signal == Code.EXIT_LOOP ? Code.GO_ON : signal;
                }
                frame.enter(line);
                long next = memory[slot] + increment;
                if (next > highest || next < lowest) {
                    break;
                }
                memory[slot] = next;
            }
            return Code.GO_ON;
        };
    }

    private Step whileStatement(WhileStatementContext place, int line) {
        Expression condition = expressions.compile(place.expression(), Type.BOOL);
        loopDepth++;
        Step body = statements(place.statementList());
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

    private Step repeatStatement(RepeatStatementContext place, int line) {
        loopDepth++;
        Step body = statements(place.statementList());
        loopDepth--;
        Expression condition = expressions.compile(place.expression(), Type.BOOL);
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
