package rueda.plc;

import java.math.BigInteger;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import rueda.plc.code.Action;
import rueda.plc.code.Node;
import rueda.plc.syntax.ExpressionSyntax;
import rueda.plc.syntax.StatementSyntax;
import rueda.plc.syntax.StatementSyntax.Assignment;
import rueda.plc.syntax.StatementSyntax.BlockCall;
import rueda.plc.syntax.StatementSyntax.Case;
import rueda.plc.syntax.StatementSyntax.Continue;
import rueda.plc.syntax.StatementSyntax.Exit;
import rueda.plc.syntax.StatementSyntax.For;
import rueda.plc.syntax.StatementSyntax.If;
import rueda.plc.syntax.StatementSyntax.Label;
import rueda.plc.syntax.StatementSyntax.Repeat;
import rueda.plc.syntax.StatementSyntax.While;
import rueda.plc.type.DataType;
import rueda.plc.type.EnumType;
import rueda.plc.type.SubrangeType;
import rueda.plc.type.Type;

/** Checks the statements of a unit (IEC 61131-3, 7.3.3). */
final class Statements {

    private final ExpressionCompiler expressions;
    private final Faults faults;
    private int loopDepth;

    Statements(ExpressionCompiler expressions) {
        this.expressions = expressions;
        faults = expressions.faults();
    }

    List<Action> of(List<StatementSyntax> list) {
        List<Action> actions = new ArrayList<>();
        for (StatementSyntax statement : list) {
            Action action = of(statement);
            if (action != null) {
                actions.add(action);
            }
        }
        return actions;
    }

    private Action of(StatementSyntax place) {
        int line = place.place().line();
        if (place instanceof Assignment assignment) {
            return assignment(assignment, line);
        }
        if (place instanceof BlockCall call) {
            return expressions.calls().statement(call, line);
        }
        if (place instanceof If choice) {
            return choice(choice);
        }
        if (place instanceof Case choice) {
            return choice(choice, line);
        }
        if (place instanceof For loop) {
            return loop(loop, line);
        }
        if (place instanceof While loop) {
            Expression condition = expressions.compile(loop.condition(), Type.BOOL);
            List<Action> body = inLoop(loop.body());
            return condition.faulty() ? null : new Action.While(line, condition.node(), body);
        }
        if (place instanceof Repeat loop) {
            List<Action> body = inLoop(loop.body());
            Expression until = expressions.compile(loop.until(), Type.BOOL);
            return until.faulty() ? null : new Action.Repeat(line, body, loop.until().place().line(), until.node());
        }
        if (place instanceof Exit || place instanceof Continue) {
            String word = place instanceof Exit ? "EXIT" : "CONTINUE";
            if (loopDepth == 0) {
                faults.at(place.place(), word + " stands outside of any loop: it " + (place instanceof Exit ? "leaves" : "begins the next round of") + " FOR, WHILE or REPEAT.");
                return null;
            }
            return place instanceof Exit ? new Action.Exit(line) : new Action.Continue(line);
        }
        return new Action.Return(line);
    }

    private List<Action> inLoop(List<StatementSyntax> body) {
        loopDepth++;
        List<Action> actions = of(body);
        loopDepth--;
        return actions;
    }

    private Action assignment(Assignment place, int line) {
        Target target = expressions.names().find(place.target());
        if (target != null && expressions.calls().refused(place.target(), target)) {
            target = null;
        }
        Expression value = expressions.compile(place.value(), target == null ? null : target.type());
        return target == null || value.faulty() ? null : expressions.calls().store(place.target(), target, value, line);
    }

    private Action choice(If place) {
        List<Action.Branch> branches = new ArrayList<>();
        boolean faulty = false;
        for (StatementSyntax.Branch branch : place.branches()) {
            Expression condition = expressions.compile(branch.condition(), Type.BOOL);
            List<Action> body = of(branch.body());
            faulty |= condition.faulty();
            branches.add(new Action.Branch(branch.condition().place().line(), condition.node(), body));
        }
        List<Action> otherwise = place.otherwise() == null ? List.of() : of(place.otherwise());
        return faulty ? null : new Action.If(branches, otherwise);
    }

    private Action choice(Case place, int line) {
        Expression selector = expressions.compile(place.selector());
        boolean whole = !selector.faulty() && selector.type().isElementary() && (selector.kept().isInteger() || selector.kept().isBitString());
        if (!selector.faulty() && !whole) {
            faults.at(place.selector(), "CASE needs a whole number or a value of an enumeration, not " + selector.type().written() + ".");
            selector = Expression.FAULTY;
        }
        List<Action.Label> labels = new ArrayList<>();
        TreeMap<BigInteger, BigInteger> taken = new TreeMap<>();
        List<List<Action>> bodies = new ArrayList<>();
        for (StatementSyntax.Entry entry : place.entries()) {
            for (Label label : entry.labels()) {
                label(label, selector, bodies.size(), labels, taken);
            }
            bodies.add(of(entry.body()));
        }
        List<Action> otherwise = place.otherwise() == null ? List.of() : of(place.otherwise());
        if (selector.faulty()) {
            return null;
        }
        Node value = selector.kept() == Type.BOOL ? new Node.AsWhole(selector.node()) : selector.node();
        return new Action.Case(line, value, selector.kept().isUnsigned64(), labels, bodies, otherwise);
    }

    /** @param taken lowest to highest value of each label before */
    private void label(Label label, Expression selector, int body, List<Action.Label> labels, TreeMap<BigInteger, BigInteger> taken) {
        DataType type = selector.faulty() ? null : selector.type() instanceof SubrangeType range ? range.base() : selector.type();
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
            BigInteger twice = below.getKey().max(from);
            faults.at(label.place(), "This label is taken already: " + (type instanceof EnumType names ? names.text(twice.longValue()) : twice) + ".");
        } else {
            taken.put(from, to);
        }
        labels.add(new Action.Label(from.longValue(), to.longValue(), body));
    }

    private Action loop(For place, int line) {
        ExpressionSyntax name = place.variable();
        Target control = expressions.names().find(name);
        if (control != null && (!control.type().isElementary() || !control.type().elementary().isInteger() || control.type() instanceof EnumType || control.refusal() != null || control.part() != null)) {
            faults.at(name, "FOR needs a variable of a whole-number type that can be assigned.");
            control = null;
        }
        if (control != null) {
            expressions.names().written(name, control);
        }
        Type type = control == null ? null : control.type().elementary();
        Expression from = expressions.compile(place.from(), type);
        Expression to = expressions.compile(place.to(), type);
        Expression by = place.by() == null ? control == null ? Expression.FAULTY : Expression.constant(type, false, 1L) : expressions.compile(place.by(), type);
        List<Action> body = inLoop(place.body());
        if (control == null || from.faulty() || to.faulty() || by.faulty()) {
            return null;
        }
        if (by.isConstantWhole() && by.exact().signum() == 0) {
            faults.at(place.by(), "The step of FOR is 0: the loop would not end.");
            return null;
        }
        return new Action.For(line, control.address(), type.bits(), type.family() == Type.Family.SIGNED, from.node(), to.node(), by.node(), body);
    }
}
