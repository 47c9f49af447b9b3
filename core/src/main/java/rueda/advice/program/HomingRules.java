package rueda.advice.program;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.function.Consumer;
import rueda.advice.Finding.Severity;
import rueda.advice.program.ProgramFinding.Kind;
import rueda.advice.program.ProgramModel.BlockUse;
import rueda.advice.program.ProgramModel.UnitText;
import rueda.machine.Axis;
import rueda.machine.Homing;
import rueda.plc.syntax.Branches.Located;
import rueda.plc.syntax.ExpressionSyntax;
import rueda.plc.syntax.StatementSyntax;

/** Absolute moves of axes that do not know where they are. */
final class HomingRules {

    /** What is said of an axis in their outputs may be that it is referenced. */
    private static final Set<String> TELL_OF_REFERENCE = Set.of("MC_READSTATUS", "MC_READBOOLPARAMETER", "MC_READAXISINFO", "MC_SETPOSITION");

    private static final Set<String> TO_PLACES = Set.of("MC_MoveAbsolute", "MC_MoveContinuousAbsolute", "MC_PositionProfile");

    private final ProgramModel model;
    private final Consumer<ProgramFinding> found;

    HomingRules(ProgramModel model, Consumer<ProgramFinding> found) {
        this.model = model;
        this.found = found;
    }

    void check() {
        boolean unknownAxis = model.of(k -> k.equals("MC_Home") || k.equals("MC_SetPosition")).anyMatch(b -> b.axis() == null);
        for (Axis axis : model.machine.axes()) {
            boolean knows = axis.homing().atPowerUp() != Homing.AtPowerUp.NOTHING || axis.homing().onFirstEnable();
            if (!knows && !unknownAxis && axis.commandedBy() == Axis.Commander.MOTION_BLOCKS) {
                check(axis, axis.name().toUpperCase(Locale.ROOT));
            }
        }
    }

    private void check(Axis axis, String key) {
        List<BlockUse> moves = model.of(TO_PLACES::contains).filter(b -> key.equals(b.axis()) && !never(b)).toList();
        List<BlockUse> homes = model.of(k -> k.equals("MC_Home") || k.equals("MC_SetPosition")).filter(b -> key.equals(b.axis())).toList();
        if (moves.isEmpty()) {
            return;
        }
        BlockUse first = moves.get(0);
        if (homes.isEmpty()) {
            found.accept(new ProgramFinding(Kind.HOMING_MISSING, first.unit().file(), first.place().line(), first.place().column(), Severity.WARNING, axis.name() + " is never referenced",
                    "It has no encoder that knows its position after power-up, and this program moves it to positions. Call MC_Home for " + axis.name() + " first.", null));
            return;
        }
        Set<String> guards = guards(key);
        moves.stream().filter(move -> unguarded(move, guards)).findFirst().ifPresent(move -> found.accept(new ProgramFinding(Kind.MOVE_BEFORE_HOMING, move.unit().file(), move.place().line(), move.place().column(), Severity.WARNING,
                axis.name() + " can be moved before it is referenced", "Nothing on the way to this call waits for " + name(homes.get(0)) + ".Done: the move would be refused, or go to a wrong place. Start it only after that.", null)));
    }

    private static String name(BlockUse home) {
        ExpressionSyntax block = home.call().block();
        return block instanceof ExpressionSyntax.Name name ? name.path() : "MC_Home";
    }

    private static boolean never(BlockUse move) {
        return move.input("Execute") == null || Expressions.isFalse(move.input("Execute"));
    }

    /**
     * Names that may say that the axis is referenced: outputs of its homing, and whatever is assigned from those or under a condition with
     * them, from one to the next.
     */
    private Set<String> guards(String axis) {
        Set<String> heads = new HashSet<>();
        model.of(k -> k.equals("MC_Home") || TELL_OF_REFERENCE.contains(k.toUpperCase(Locale.ROOT))).filter(b -> axis.equals(b.axis()) || b.axis() == null).forEach(b -> heads.add(b.instance().substring(b.instance().indexOf(':') + 1)));
        boolean more = true;
        while (more) {
            more = false;
            for (UnitText unit : model.units) {
                for (Located located : unit.statements()) {
                    boolean guarded = ProgramModel.conditions(located.within()).stream().anyMatch(c -> mentions(c, heads));
                    if (located.statement() instanceof StatementSyntax.Assignment assignment && (guarded || mentions(assignment.value(), heads))) {
                        more |= heads.add(Expressions.path(assignment.target()));
                    } else if (located.statement() instanceof StatementSyntax.BlockCall call) {
                        more |= called(call, guarded, heads);
                    }
                }
            }
        }
        return heads;
    }

    /** What a call takes its start from goes into its outputs, and into what takes them. */
    private static boolean called(StatementSyntax.BlockCall call, boolean guarded, Set<String> heads) {
        boolean given = guarded || call.arguments().stream().anyMatch(a -> a instanceof StatementSyntax.Input input && mentions(input.value(), heads)) || heads.contains(Expressions.path(call.block()));
        boolean more = false;
        if (given) {
            more = heads.add(Expressions.path(call.block()));
            for (StatementSyntax.Argument argument : call.arguments()) {
                if (argument instanceof StatementSyntax.Output output && output.target() != null) {
                    more |= heads.add(Expressions.path(output.target()));
                }
            }
        }
        return more;
    }

    private static boolean mentions(ExpressionSyntax expression, Set<String> heads) {
        return Expressions.paths(expression).stream().anyMatch(path -> begins(path, heads));
    }

    /** The path or what it is a member of. */
    private static boolean begins(String path, Set<String> heads) {
        for (int end = path.length(); end > 0; end = path.lastIndexOf('.', end - 1)) {
            if (heads.contains(path.substring(0, end))) {
                return true;
            }
        }
        return false;
    }

    private boolean unguarded(BlockUse move, Set<String> guards) {
        if (mentions(move.input("Execute"), guards)) {
            return false;
        }
        List<StateGraph> graphs = StateGraph.of(model, move.unit()).stream().filter(g -> g.branchOf(move.located()) >= 0).toList();
        List<ExpressionSyntax> conditions = new ArrayList<>(ProgramModel.conditions(move.located().within()));
        for (StateGraph graph : graphs) {
            conditions.removeIf(c -> c == graph.choice.selector());
        }
        if (conditions.stream().anyMatch(c -> mentions(c, guards))) {
            return false;
        }
        for (StateGraph graph : graphs) {
            if (!graph.complete) {
                return false;
            }
            int start = graph.branch(graph.initial);
            int at = graph.branchOf(move.located());
            Set<Integer> reached = graph.reached(start, edge -> edge.conditions().stream().noneMatch(c -> mentions(c, guards)));
            if (at != start && !reached.contains(at)) {
                return false;
            }
        }
        return true;
    }
}
