package rueda.advice.program;

import java.math.BigInteger;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.HashSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.function.Predicate;
import rueda.advice.program.ProgramModel.UnitText;
import rueda.plc.NameIndex;
import rueda.plc.syntax.Branches.Branch;
import rueda.plc.syntax.Branches.Located;
import rueda.plc.syntax.ExpressionSyntax;
import rueda.plc.syntax.StatementSyntax;
import rueda.plc.syntax.UnitSyntax;

/**
 * A CASE over a variable that its own branches change: a state machine. Only where every assignment of the variable is a constant is it known
 * which states follow one another ({@link #complete}).
 */
final class StateGraph {

    /** A change of state. @param from number of the branch, −1 where it may come from any  @param to value that is assigned  @param conditions under which it is */
    record Edge(int from, String to, List<ExpressionSyntax> conditions, StatementSyntax.Assignment assignment) {
    }

    final UnitText unit;
    final StatementSyntax.Case choice;
    final String variable;
    final String initial;
    final List<Edge> edges = new ArrayList<>();
    boolean complete = true;

    private StateGraph(UnitText unit, StatementSyntax.Case choice, String variable, String initial) {
        this.unit = unit;
        this.choice = choice;
        this.variable = variable;
        this.initial = initial;
    }

    /** The state machines of a unit. */
    static List<StateGraph> of(ProgramModel model, UnitText unit) {
        List<StateGraph> graphs = new ArrayList<>();
        for (Located located : unit.statements()) {
            if (located.statement() instanceof StatementSyntax.Case choice && choice.selector() instanceof ExpressionSyntax.Name name) {
                NameIndex.Named variable = model.what(unit.file(), name).orElse(null);
                if (variable != null && (variable.kind() == NameIndex.Kind.VARIABLE || variable.kind() == NameIndex.Kind.GLOBAL)) {
                    graphs.add(graph(model, unit, choice, name, variable));
                }
            }
        }
        return graphs;
    }

    private static StateGraph graph(ProgramModel model, UnitText unit, StatementSyntax.Case choice, ExpressionSyntax.Name name, NameIndex.Named variable) {
        StateGraph graph = new StateGraph(unit, choice, name.path().toUpperCase(Locale.ROOT), initial(model, unit, variable));
        long known = 0;
        for (Located located : unit.statements()) {
            if (located.statement() instanceof StatementSyntax.Assignment assignment && Expressions.path(assignment.target()).equals(graph.variable)) {
                known++;
                String to = value(model, unit.file(), assignment.value());
                if (to == null) {
                    graph.complete = false;
                } else {
                    graph.edge(located, assignment, to);
                }
            }
        }
        long written = variable.uses().stream().filter(u -> u.how() == NameIndex.How.WRITTEN).count();
        graph.complete &= written == known && graph.initial != null && variable.kind() == NameIndex.Kind.VARIABLE && !isInput(unit, variable) && choice.otherwise() == null;
        return graph;
    }

    private static boolean isInput(UnitText unit, NameIndex.Named variable) {
        return unit.syntax().declarations().stream().anyMatch(d -> d.section() != UnitSyntax.Section.VAR && d.section() != UnitSyntax.Section.VAR_OUTPUT && d.names().stream().anyMatch(n -> n.path().equalsIgnoreCase(variable.name())));
    }

    private void edge(Located located, StatementSyntax.Assignment assignment, String to) {
        int from = -1;
        List<Branch> inside = located.within();
        for (int i = 0; i < located.within().size(); i++) {
            if (located.within().get(i).of() == choice) {
                from = located.within().get(i).number();
                inside = located.within().subList(i + 1, located.within().size());
            }
        }
        edges.add(new Edge(from, to, ProgramModel.conditions(inside), assignment));
    }

    /** A constant, in numbers where it is one; null where it is not constant. */
    private static String value(ProgramModel model, String file, ExpressionSyntax e) {
        if (e instanceof ExpressionSyntax.Name) {
            NameIndex.Kind kind = model.what(file, e).map(NameIndex.Named::kind).orElse(null);
            return kind == NameIndex.Kind.VALUE || kind == NameIndex.Kind.CONSTANT ? Expressions.constant(e) : null;
        }
        return Expressions.constant(e);
    }

    private static String initial(ProgramModel model, UnitText unit, NameIndex.Named variable) {
        for (UnitSyntax.Declaration declaration : unit.syntax().declarations()) {
            if (declaration.names().stream().anyMatch(n -> n.path().equalsIgnoreCase(variable.name()))) {
                if (declaration.retained()) {
                    return null;
                }
                if (declaration.initial() != null) {
                    return value(model, unit.file(), declaration.initial());
                }
                return model.index.all(k -> k == NameIndex.Kind.VALUE).stream().filter(v -> v.owner().equalsIgnoreCase(variable.type())).map(v -> v.name().toUpperCase(Locale.ROOT)).findFirst().orElse("0");
            }
        }
        return null;
    }

    /** Number of the branch for a value, −1 when there is none. */
    int branch(String value) {
        for (int i = 0; i < choice.entries().size(); i++) {
            for (StatementSyntax.Label label : choice.entries().get(i).labels()) {
                if (holds(label, value)) {
                    return i;
                }
            }
        }
        return -1;
    }

    private static boolean holds(StatementSyntax.Label label, String value) {
        String low = Expressions.constant(label.low());
        if (label.high() == null) {
            return value.equals(low);
        }
        try {
            BigInteger number = new BigInteger(value);
            return number.compareTo(new BigInteger(String.valueOf(low))) >= 0 && number.compareTo(new BigInteger(String.valueOf(Expressions.constant(label.high())))) <= 0;
        } catch (NumberFormatException named) {
            return true;
        }
    }

    /** Branches that can be reached from one, it itself not counted. @param passes edges that are taken */
    Set<Integer> reached(int start, Predicate<Edge> passes) {
        Set<Integer> found = new LinkedHashSet<>();
        Set<Integer> seen = new HashSet<>();
        Deque<Integer> open = new ArrayDeque<>(List.of(start));
        while (!open.isEmpty()) {
            int at = open.pop();
            if (!seen.add(at)) {
                continue;
            }
            for (Edge edge : edges) {
                int to = branch(edge.to());
                if ((edge.from() == at || edge.from() < 0) && to >= 0 && passes.test(edge)) {
                    found.add(to);
                    open.push(to);
                }
            }
        }
        return found;
    }

    /** It can come back to the branch. */
    boolean again(int branch) {
        return reached(branch, edge -> true).contains(branch);
    }

    /** The branch of this CASE in which something stands, −1 outside. */
    int branchOf(Located located) {
        return located.within().stream().filter(b -> b.of() == choice).mapToInt(Branch::number).findFirst().orElse(-1);
    }
}
