package rueda.advice.program;

import java.math.BigDecimal;
import java.math.MathContext;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.function.Consumer;
import java.util.stream.Stream;
import rueda.advice.Finding.Severity;
import rueda.advice.program.ProgramFinding.Kind;
import rueda.advice.program.ProgramModel.BlockUse;
import rueda.advice.program.ProgramModel.UnitText;
import rueda.machine.Axis;
import rueda.machine.Station;
import rueda.plc.NameIndex;
import rueda.plc.syntax.Branches.Located;
import rueda.plc.syntax.ExpressionSyntax;
import rueda.plc.syntax.ExpressionSyntax.Binary;
import rueda.plc.syntax.Place;
import rueda.plc.syntax.StatementSyntax;
import rueda.plc.syntax.TextMend;

/** Positions that are compared for equality, and values of one unit that go where another one is meant. */
final class ValueRules {

    /** Outputs of blocks that are measured: they are hardly ever a round number. */
    private static final Set<String> MEASURED = Set.of("MC_READACTUALPOSITION.POSITION", "MC_READACTUALVELOCITY.VELOCITY", "MC_READACTUALTORQUE.TORQUE");
    /** Inputs of blocks that are positions or ways, in the unit of the axis. */
    private static final Set<String> POSITIONS = Set.of("POSITION", "DISTANCE");

    private final ProgramModel model;
    private final Consumer<ProgramFinding> found;

    ValueRules(ProgramModel model, Consumer<ProgramFinding> found) {
        this.model = model;
        this.found = found;
    }

    void check() {
        for (UnitText unit : model.units) {
            for (Located located : unit.statements()) {
                for (ExpressionSyntax value : OrderRules.values(located.statement())) {
                    operations(value).forEach(b -> compared(unit, b));
                }
                if (located.statement() instanceof StatementSyntax.Assignment assignment) {
                    mixed(unit, assignment.value(), unitOf(unit, assignment.target()), unitOf(unit, assignment.value()), model.text(unit.file(), assignment.target().place()));
                }
            }
        }
        for (BlockUse use : model.of(k -> k.startsWith("MC_")).filter(u -> u.axis() != null).toList()) {
            for (StatementSyntax.Argument argument : use.call().arguments()) {
                if (argument instanceof StatementSyntax.Input input && input.pin() != null && POSITIONS.contains(input.pin().toUpperCase(Locale.ROOT))) {
                    String symbol = model.machine.axes().stream().filter(a -> a.name().equalsIgnoreCase(use.axis())).map(a -> a.unit().symbol()).findFirst().orElse(null);
                    mixed(use.unit(), input.value(), symbol, unitOf(use.unit(), input.value()), input.pin() + " of " + use.axis(model));
                }
            }
        }
    }

    private static List<Binary> operations(ExpressionSyntax e) {
        List<Binary> all = new ArrayList<>();
        if (e instanceof Binary binary) {
            all.add(binary);
            all.addAll(operations(binary.left()));
            all.addAll(operations(binary.right()));
        } else if (e instanceof ExpressionSyntax.Unary unary) {
            all.addAll(operations(unary.operand()));
        } else if (e instanceof ExpressionSyntax.Call call) {
            call.arguments().stream().filter(StatementSyntax.Input.class::isInstance).forEach(a -> all.addAll(operations(((StatementSyntax.Input) a).value())));
        }
        return all;
    }

    // ---- equality

    private void compared(UnitText unit, Binary comparison) {
        boolean equality = comparison.operator().equals("=") || comparison.operator().equals("<>");
        ExpressionSyntax measured = measured(unit, comparison.left()) ? comparison.left() : measured(unit, comparison.right()) ? comparison.right() : null;
        if (!equality || measured == null) {
            mixedComparison(unit, comparison);
            return;
        }
        String name = model.text(unit.file(), measured.place());
        found.accept(new ProgramFinding(Kind.COMPARED_FOR_EQUALITY, unit.file(), comparison.place().line(), comparison.place().column(), Severity.WARNING, name + " is compared for equality",
                "A measured value is hardly ever exactly that number: the condition may never hold. Ask whether it lies within a tolerance.", tolerant(unit, comparison, measured)));
    }

    /** A measured position or speed of type REAL: an output of a reading block, or a tag that comes from a drive. */
    private boolean measured(UnitText unit, ExpressionSyntax e) {
        NameIndex.Named what = e instanceof ExpressionSyntax.Name || e instanceof ExpressionSyntax.Member ? model.what(unit.file(), e).orElse(null) : null;
        if (what == null) {
            return false;
        }
        boolean real = what.type().equals("LREAL") || what.type().equals("REAL");
        return real && (MEASURED.contains((what.owner() + "." + what.name()).toUpperCase(Locale.ROOT)) || what.kind() == NameIndex.Kind.TAG && model.machine.axes().stream().anyMatch(a -> a.station().inputs().stream().anyMatch(t -> t.tag().equalsIgnoreCase(what.name()))));
    }

    /** The same with a tolerance: the position window of the axis, where it is known. */
    private TextMend tolerant(UnitText unit, Binary comparison, ExpressionSyntax measured) {
        String left = model.text(unit.file(), comparison.left().place());
        String right = model.text(unit.file(), comparison.right().place());
        String whole = model.text(unit.file(), comparison.place());
        boolean inOneLine = comparison.left().place().line() == comparison.right().place().line() && whole.startsWith(left) && whole.endsWith(right) && !left.isBlank() && !right.isBlank();
        if (!inOneLine) {
            return null;
        }
        String head = Expressions.path(measured).contains(".") ? Expressions.path(measured).substring(0, Expressions.path(measured).lastIndexOf('.')) : "";
        double window = Stream.concat(model.blocks.stream().filter(b -> b.unit() == unit && b.instance().endsWith(":" + head) && b.axis() != null).map(BlockUse::axis), Stream.of(head))
                .flatMap(axis -> model.machine.axes().stream().filter(a -> a.name().equalsIgnoreCase(axis))).mapToDouble(a -> a.supervision().positionWindow()).findFirst().orElse(0.1);
        String number = new BigDecimal(window).round(new MathContext(6)).stripTrailingZeros().toPlainString();
        String text = "ABS(" + left + " - " + (comparison.right() instanceof Binary ? "(" + right + ")" : right) + ") " + (comparison.operator().equals("=") ? "<= " : "> ") + (number.contains(".") ? number : number + ".0");
        return new TextMend("Write " + text, comparison.place().line(), comparison.place().column(), comparison.place().length(), text);
    }

    // ---- units

    private void mixedComparison(UnitText unit, Binary operation) {
        if (Set.of("=", "<>", "<", ">", "<=", ">=", "+", "-").contains(operation.operator())) {
            mixed(unit, operation.right(), unitOf(unit, operation.left()), unitOf(unit, operation.right()), model.text(unit.file(), operation.left().place()));
        }
    }

    private void mixed(UnitText unit, ExpressionSyntax at, String wanted, String given, String where) {
        if (wanted == null || given == null || wanted.equals(given)) {
            return;
        }
        Place place = at.place();
        found.accept(new ProgramFinding(Kind.UNITS_MIXED, unit.file(), place.line(), place.column(), Severity.WARNING, model.text(unit.file(), place) + " is in " + named(given) + ", " + where + " in " + named(wanted),
                "The number is taken as it is. Give the tag the other unit in Map, or convert the value here.", null));
    }

    private static String named(String unit) {
        return unit.isEmpty() ? "steps of the drive" : unit;
    }

    /** The unit of a position: of a tag, or of an output of a block; null for anything else. */
    private String unitOf(UnitText unit, ExpressionSyntax e) {
        NameIndex.Named what = e instanceof ExpressionSyntax.Name || e instanceof ExpressionSyntax.Member ? model.what(unit.file(), e).orElse(null) : null;
        if (what == null) {
            return null;
        }
        if (what.kind() == NameIndex.Kind.TAG) {
            return model.machine.axes().stream().flatMap(a -> Stream.concat(a.station().outputs().stream(), a.station().inputs().stream()).filter(t -> t.tag().equalsIgnoreCase(what.name()) && isPosition(t)).map(t -> symbol(a, t))).findFirst().orElse(null);
        }
        if (!(what.owner() + "." + what.name()).equalsIgnoreCase("MC_ReadActualPosition.Position")) {
            return null;
        }
        String path = Expressions.path(e);
        String instance = unit.syntax().name().toUpperCase(Locale.ROOT) + ":" + path.substring(0, Math.max(0, path.lastIndexOf('.')));
        return model.blocks.stream().filter(b -> b.instance().equals(instance) && b.axis() != null).map(BlockUse::axis).flatMap(axis -> model.machine.axes().stream().filter(a -> a.name().equalsIgnoreCase(axis))).map(a -> a.unit().symbol()).findFirst().orElse(null);
    }

    /** Actual and target position (IEC 61800-7-201, objects 6064h and 607Ah). */
    private static boolean isPosition(Station.Entry entry) {
        return entry.object() == 0x6064 || entry.object() == 0x607A;
    }

    /** A tag without a unit holds what travels, in the steps of the drive: the smallest decimal of the unit. */
    private static String symbol(Axis axis, Station.Entry entry) {
        return entry.unit().isEmpty() && axis.unit().decimals() > 0 ? "" : entry.unit().isEmpty() ? axis.unit().symbol() : entry.unit();
    }
}
