package rueda.advice.program;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.function.Consumer;
import java.util.stream.Collectors;
import rueda.advice.Finding.Severity;
import rueda.advice.program.ProgramFinding.Kind;
import rueda.advice.program.ProgramModel.BlockUse;
import rueda.advice.program.ProgramModel.UnitText;
import rueda.plc.syntax.Branches.Located;
import rueda.plc.syntax.ExpressionSyntax;
import rueda.plc.syntax.Place;
import rueda.plc.syntax.StatementSyntax;
import rueda.plc.syntax.TextMend;

/** Orders to motion blocks that are not watched, not taken back, or given twice. */
final class OrderRules {

    /** Each of them takes the axis from what was ordered before (PLCopen Motion Control part 1, 2.2 and 2.4; from memory). */
    private static final Set<String> TAKE_THE_AXIS = Set.of("MC_HOME", "MC_STOP", "MC_HALT", "MC_MOVEABSOLUTE", "MC_MOVERELATIVE", "MC_MOVEADDITIVE", "MC_MOVEVELOCITY", "MC_MOVECONTINUOUSABSOLUTE",
            "MC_MOVECONTINUOUSRELATIVE", "MC_POSITIONPROFILE", "MC_VELOCITYPROFILE", "MC_ACCELERATIONPROFILE", "MC_TORQUECONTROL", "MC_GEARIN", "MC_GEARINPOS", "MC_COMBINEAXES", "MC_CAMIN");
    private static final int MOST_NAMED = 4;

    private final ProgramModel model;
    private final Consumer<ProgramFinding> found;

    OrderRules(ProgramModel model, Consumer<ProgramFinding> found) {
        this.model = model;
        this.found = found;
    }

    void check() {
        Map<String, List<BlockUse>> byInstance = model.of(k -> k.startsWith("MC_")).collect(Collectors.groupingBy(BlockUse::instance, LinkedHashMap::new, Collectors.toList()));
        model.units.forEach(unit -> errorsUnseen(unit, byInstance));
        byInstance.values().forEach(this::neverTakenBack);
        twoOrders(byInstance.values().stream().flatMap(List::stream).toList());
    }

    private static String path(BlockUse use) {
        return use.instance().substring(use.instance().indexOf(':') + 1);
    }

    private String written(BlockUse use) {
        return model.text(use.unit().file(), use.call().block().place());
    }

    // ---- errors

    private void errorsUnseen(UnitText unit, Map<String, List<BlockUse>> byInstance) {
        Set<String> watched = model.of(k -> k.equals("MC_ReadAxisError")).map(u -> String.valueOf(u.axis())).collect(Collectors.toSet());
        List<BlockUse> unseen = byInstance.values().stream().filter(calls -> calls.get(0).unit() == unit && ordersMotion(calls.get(0)) && !watched.contains(String.valueOf(calls.get(0).axis())) && !errorSeen(unit, calls)).map(calls -> calls.get(0)).toList();
        if (unseen.isEmpty()) {
            return;
        }
        BlockUse first = unseen.get(0);
        String names = unseen.stream().limit(MOST_NAMED).map(this::written).collect(Collectors.joining(", ")) + (unseen.size() > MOST_NAMED ? " and " + (unseen.size() - MOST_NAMED) + " more" : "");
        found.accept(new ProgramFinding(Kind.ERROR_UNSEEN, unit.file(), first.place().line(), first.place().column(), Severity.WARNING, "Nobody looks at the errors of " + names,
                "When one of them fails, the program waits for its Done for good. Look at Error or ErrorID, or call MC_ReadAxisError for the axis.", null));
    }

    private boolean ordersMotion(BlockUse use) {
        return TAKE_THE_AXIS.contains(use.kind().toUpperCase(Locale.ROOT));
    }

    private boolean errorSeen(UnitText unit, List<BlockUse> calls) {
        if (calls.stream().anyMatch(c -> c.takes("Error") || c.takes("ErrorID"))) {
            return true;
        }
        Set<String> outputs = Set.of(path(calls.get(0)) + ".ERROR", path(calls.get(0)) + ".ERRORID");
        return unit.statements().stream().anyMatch(l -> values(l.statement()).stream().anyMatch(e -> Expressions.paths(e).stream().anyMatch(outputs::contains)));
    }

    /** Expressions that a statement itself works out. */
    static List<ExpressionSyntax> values(StatementSyntax statement) {
        if (statement instanceof StatementSyntax.Assignment assignment) {
            return List.of(assignment.value(), assignment.target());
        }
        if (statement instanceof StatementSyntax.BlockCall call) {
            return call.arguments().stream().filter(StatementSyntax.Input.class::isInstance).map(a -> ((StatementSyntax.Input) a).value()).toList();
        }
        if (statement instanceof StatementSyntax.If choice) {
            return choice.branches().stream().map(StatementSyntax.Branch::condition).toList();
        }
        if (statement instanceof StatementSyntax.Case choice) {
            return List.of(choice.selector());
        }
        if (statement instanceof StatementSyntax.While loop) {
            return List.of(loop.condition());
        }
        return statement instanceof StatementSyntax.Repeat loop ? List.of(loop.until()) : statement instanceof StatementSyntax.For loop ? List.of(loop.from(), loop.to()) : List.of();
    }

    // ---- Execute

    private void neverTakenBack(List<BlockUse> calls) {
        List<BlockUse> given = calls.stream().filter(c -> c.input("Execute") != null).toList();
        boolean always = !given.isEmpty() && given.stream().allMatch(c -> Expressions.isTrue(c.input("Execute"))) && !assigned(calls.get(0));
        if (!always || !given.stream().allMatch(this::comesAgain)) {
            return;
        }
        BlockUse first = given.get(0);
        String call = written(first) + "(" + (first.axis() == null ? "" : axisArgument(first) + ", ") + "Execute := FALSE);";
        found.accept(new ProgramFinding(Kind.NEVER_TAKEN_BACK, first.unit().file(), first.place().line(), first.place().column(), Severity.WARNING, "Execute of " + written(first) + " is never taken back",
                "It starts at a rising edge. The second time the program comes here Execute is still TRUE, nothing moves, and Done is TRUE at once. Call it with Execute := FALSE when it is done.", insertAfter(first, ".DONE", call)));
    }

    private String axisArgument(BlockUse use) {
        return use.call().arguments().stream().filter(StatementSyntax.Input.class::isInstance).map(StatementSyntax.Input.class::cast).filter(i -> model.what(use.unit().file(), i.value()).filter(n -> n.name().equalsIgnoreCase(use.axis())).isPresent())
                .map(i -> (i.pin() == null ? "" : i.pin() + " := ") + use.axis(model)).findFirst().orElse("Axis := " + use.axis(model));
    }

    /** Its pin is assigned beside its calls. */
    private boolean assigned(BlockUse use) {
        return use.unit().assignments().stream().anyMatch(a -> Expressions.path(a.target()).equals(path(use) + ".EXECUTE"));
    }

    /** It stands where the program comes by not always, and again. */
    private boolean comesAgain(BlockUse use) {
        return comesAgain(model, use);
    }

    static boolean comesAgain(ProgramModel model, BlockUse use) {
        List<StateGraph> graphs = StateGraph.of(model, use.unit()).stream().filter(g -> g.branchOf(use.located()) >= 0).toList();
        if (graphs.isEmpty()) {
            return use.located().within().stream().anyMatch(b -> b.of() instanceof StatementSyntax.If);
        }
        return graphs.stream().allMatch(g -> g.complete && g.again(g.branchOf(use.located())));
    }

    /** As the first statement of the branch that waits for an output of the block. */
    static TextMend insertAfter(BlockUse use, String output, String statement) {
        String waited = use.instance().substring(use.instance().indexOf(':') + 1) + output;
        for (Located located : use.unit().statements()) {
            if (located.statement() instanceof StatementSyntax.If choice) {
                for (StatementSyntax.Branch branch : choice.branches()) {
                    if (Expressions.paths(branch.condition()).contains(waited) && !branch.body().isEmpty()) {
                        Place place = branch.body().get(0).place();
                        return new TextMend("Insert " + statement, place.line(), place.column(), 0, statement + " ");
                    }
                }
            }
        }
        return null;
    }

    // ---- two orders

    private void twoOrders(List<BlockUse> all) {
        List<BlockUse> orders = all.stream().filter(o -> ordersMotion(o) && o.axis() != null && o.input("Execute") != null && Expressions.isTrue(o.input("Execute")) && o.input("BufferMode") == null).toList();
        for (int i = 0; i < orders.size(); i++) {
            for (int j = i + 1; j < orders.size(); j++) {
                BlockUse one = orders.get(i);
                BlockUse other = orders.get(j);
                boolean same = one.unit() == other.unit() && one.axis().equals(other.axis()) && !one.instance().equals(other.instance()) && one.located().within().equals(other.located().within()) && !one.located().within().isEmpty();
                if (same) {
                    found.accept(new ProgramFinding(Kind.TWO_ORDERS, other.unit().file(), other.place().line(), other.place().column(), Severity.WARNING, written(one) + " and " + written(other) + " fight over " + other.axis(model),
                            "Both start in the same step: the second aborts the first at once, which never gets Done. Give each a step of its own, or a BufferMode to the second.", null));
                }
            }
        }
    }
}
