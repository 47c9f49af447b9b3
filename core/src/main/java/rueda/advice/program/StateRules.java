package rueda.advice.program;

import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.function.Consumer;
import rueda.advice.Finding.Severity;
import rueda.advice.program.ProgramFinding.Kind;
import rueda.advice.program.ProgramModel.UnitText;
import rueda.plc.syntax.Branches;
import rueda.plc.syntax.Place;
import rueda.plc.syntax.StatementSyntax;

/** States of a CASE that cannot be reached, or not be left. */
final class StateRules {

    private final ProgramModel model;
    private final Consumer<ProgramFinding> found;

    StateRules(ProgramModel model, Consumer<ProgramFinding> found) {
        this.model = model;
        this.found = found;
    }

    void check() {
        for (UnitText unit : model.units) {
            StateGraph.of(model, unit).stream().filter(g -> g.complete && !g.edges.isEmpty()).forEach(this::check);
        }
    }

    private void check(StateGraph graph) {
        int start = graph.branch(graph.initial);
        Set<Integer> reached = new HashSet<>(graph.reached(start, edge -> true));
        reached.add(start);
        List<StatementSyntax.Entry> entries = graph.choice.entries();
        for (int i = 0; i < entries.size(); i++) {
            int branch = i;
            Place place = entries.get(i).labels().get(0).place();
            String label = model.text(graph.unit.file(), place);
            if (!reached.contains(i)) {
                found.accept(new ProgramFinding(Kind.STATE_NOT_REACHED, graph.unit.file(), place.line(), place.column(), Severity.WARNING, "State " + label + " is never reached",
                        "From the first state, " + graph.initial + ", no assignment leads here. Set " + model.text(graph.unit.file(), graph.choice.selector().place()) + " to it where it should begin, or take it out.", null));
            } else if (graph.edges.stream().noneMatch(e -> e.from() < 0 || e.from() == branch && graph.branch(e.to()) != branch) && Branches.of(entries.get(i).body()).stream().anyMatch(l -> l.statement() instanceof StatementSyntax.BlockCall)) {
                found.accept(new ProgramFinding(Kind.STATE_NOT_LEFT, graph.unit.file(), place.line(), place.column(), Severity.WARNING, "State " + label + " is never left",
                        "It orders something, and nothing in it sets the next state: the sequence ends here. Set the next state when it is done.", null));
            }
        }
    }
}
