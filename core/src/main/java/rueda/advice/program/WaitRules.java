package rueda.advice.program;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Consumer;
import java.util.stream.Collectors;
import rueda.advice.Finding.Severity;
import rueda.advice.program.ProgramFinding.Kind;
import rueda.advice.program.ProgramModel.BlockUse;
import rueda.advice.program.ProgramModel.UnitText;
import rueda.machine.Station;
import rueda.plc.NameIndex;
import rueda.plc.syntax.Branches;
import rueda.plc.syntax.Branches.Located;
import rueda.plc.syntax.ExpressionSyntax;
import rueda.plc.syntax.Place;
import rueda.plc.syntax.StatementSyntax;

/** Timers that run once only, and loops that wait for what cannot come within a cycle. */
final class WaitRules {

    private static final Set<String> TIMERS = Set.of("TON", "TON_TIME", "TON_LTIME");

    private final ProgramModel model;
    private final Consumer<ProgramFinding> found;

    WaitRules(ProgramModel model, Consumer<ProgramFinding> found) {
        this.model = model;
        this.found = found;
    }

    void check() {
        Map<String, List<BlockUse>> timers = model.of(k -> TIMERS.contains(k.toUpperCase(Locale.ROOT))).collect(Collectors.groupingBy(BlockUse::instance, LinkedHashMap::new, Collectors.toList()));
        timers.values().forEach(this::neverReset);
        for (UnitText unit : model.units) {
            unit.statements().forEach(located -> blocking(unit, located));
        }
    }

    private void neverReset(List<BlockUse> calls) {
        boolean always = calls.stream().allMatch(c -> c.input("IN") != null && Expressions.isTrue(c.input("IN")));
        String path = calls.get(0).instance().substring(calls.get(0).instance().indexOf(':') + 1);
        boolean assigned = calls.get(0).unit().assignments().stream().anyMatch(a -> Expressions.path(a.target()).equals(path + ".IN"));
        if (!always || assigned || !calls.stream().allMatch(c -> OrderRules.comesAgain(model, c))) {
            return;
        }
        BlockUse first = calls.get(0);
        String name = model.text(first.unit().file(), first.call().block().place());
        found.accept(new ProgramFinding(Kind.TIMER_NEVER_RESET, first.unit().file(), first.place().line(), first.place().column(), Severity.WARNING, name + " is never reset",
                "IN stays TRUE from one time to the next: the second time Q is TRUE at once, and nothing waits. Call it with IN := FALSE when its time is over.", OrderRules.insertAfter(first, ".Q", name + "(IN := FALSE);")));
    }

    // ---- loops

    private void blocking(UnitText unit, Located located) {
        ExpressionSyntax condition = located.statement() instanceof StatementSyntax.While loop ? loop.condition() : located.statement() instanceof StatementSyntax.Repeat loop ? loop.until() : null;
        if (condition == null) {
            return;
        }
        List<ExpressionSyntax> names = Expressions.names(condition);
        Optional<ExpressionSyntax> waited = names.stream().filter(n -> standsStill(unit, n)).findFirst();
        if (waited.isEmpty() || leaves(located) || names.stream().anyMatch(n -> changes(unit, located, n))) {
            return;
        }
        Place place = located.statement().place();
        String what = model.text(unit.file(), waited.get().place());
        found.accept(new ProgramFinding(Kind.BLOCKING_WAIT, unit.file(), place.line(), place.column(), Severity.FAULT, "This loop waits for " + what + ", which does not change within a cycle",
                "Function blocks and inputs move on from one cycle to the next. The loop uses up the budget of the cycle, and the task is stopped. Ask with IF in every cycle instead, in a state of its own.", null));
    }

    /** An output of a timer or of a motion block, or a tag that comes from a drive. */
    private boolean standsStill(UnitText unit, ExpressionSyntax name) {
        NameIndex.Named what = model.what(unit.file(), name).orElse(null);
        if (what == null) {
            return false;
        }
        boolean pin = what.kind() == NameIndex.Kind.MEMBER && (what.owner().toUpperCase(Locale.ROOT).startsWith("MC_") || TIMERS.contains(what.owner().toUpperCase(Locale.ROOT)));
        return pin || what.kind() == NameIndex.Kind.TAG && model.machine.axes().stream().flatMap(a -> a.station().inputs().stream()).map(Station.Entry::tag).anyMatch(t -> t.equalsIgnoreCase(what.name()));
    }

    private static boolean leaves(Located loop) {
        return inside(loop).stream().anyMatch(s -> s instanceof StatementSyntax.Exit || s instanceof StatementSyntax.Return);
    }

    /** Something in the loop gives the name another value, or may. */
    private boolean changes(UnitText unit, Located loop, ExpressionSyntax name) {
        if (standsStill(unit, name)) {
            return false;
        }
        String path = Expressions.path(name);
        for (StatementSyntax statement : inside(loop)) {
            List<String> written = new ArrayList<>();
            if (statement instanceof StatementSyntax.Assignment assignment) {
                written.add(Expressions.path(assignment.target()));
            } else if (statement instanceof StatementSyntax.For counter) {
                written.add(Expressions.path(counter.variable()));
            } else if (statement instanceof StatementSyntax.BlockCall call) {
                written.add(Expressions.path(call.block()));
                call.arguments().stream().filter(StatementSyntax.Output.class::isInstance).map(a -> ((StatementSyntax.Output) a).target()).filter(t -> t != null).forEach(t -> written.add(Expressions.path(t)));
                call.arguments().stream().filter(StatementSyntax.Input.class::isInstance).forEach(a -> written.add(Expressions.path(((StatementSyntax.Input) a).value())));
            }
            if (written.stream().anyMatch(w -> !w.isEmpty() && (path.equals(w) || path.startsWith(w + ".") || w.startsWith(path + ".")))) {
                return true;
            }
        }
        return false;
    }

    private static List<StatementSyntax> inside(Located loop) {
        return Branches.inner(loop.statement()).stream().flatMap(body -> Branches.of(body).stream()).map(Located::statement).toList();
    }
}
