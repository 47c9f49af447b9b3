package rueda.advice.program;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.function.Predicate;
import java.util.stream.Stream;
import rueda.machine.Axis;
import rueda.machine.Machine;
import rueda.plc.Environment;
import rueda.plc.NameIndex;
import rueda.plc.StructuredTextCompiler;
import rueda.plc.StructuredTextCompiler.Text;
import rueda.plc.run.FunctionBlock;
import rueda.plc.syntax.Branches;
import rueda.plc.syntax.Branches.Branch;
import rueda.plc.syntax.Branches.Located;
import rueda.plc.syntax.Complaints;
import rueda.plc.syntax.ExpressionSyntax;
import rueda.plc.syntax.Parser;
import rueda.plc.syntax.Place;
import rueda.plc.syntax.StatementSyntax;
import rueda.plc.syntax.UnitSyntax;

/** The texts of a program as the findings look at them: units, calls of function blocks, axes, conditions. */
final class ProgramModel {

    /** A unit with its statements in the order of the text. */
    record UnitText(String file, UnitSyntax syntax, List<Located> statements) {

        List<StatementSyntax.Assignment> assignments() {
            return statements.stream().map(Located::statement).filter(StatementSyntax.Assignment.class::isInstance).map(StatementSyntax.Assignment.class::cast).toList();
        }
    }

    /**
     * A call of a function block of the standard or of motion control.
     *
     * @param instance path of the instance, in capitals
     * @param kind     name of the kind of block
     * @param axis     the machine's axis that it gets, in capitals; null where it gets none or one that is not known
     */
    record BlockUse(UnitText unit, Located located, StatementSyntax.BlockCall call, String instance, String kind, String axis) {

        /** What an input gets, or null. */
        ExpressionSyntax input(String pin) {
            return call.arguments().stream().filter(StatementSyntax.Input.class::isInstance).map(StatementSyntax.Input.class::cast).filter(i -> pin.equalsIgnoreCase(i.pin())).map(StatementSyntax.Input::value).findFirst().orElse(null);
        }

        boolean takes(String pin) {
            return call.arguments().stream().anyMatch(a -> a instanceof StatementSyntax.Output output && output.pin().equalsIgnoreCase(pin) && output.target() != null);
        }

        /** The name of its axis as the machine writes it. */
        String axis(ProgramModel model) {
            return model.machine.axes().stream().map(Axis::name).filter(n -> n.equalsIgnoreCase(axis)).findFirst().orElse(axis);
        }

        Place place() {
            return call.place();
        }
    }

    final Machine machine;
    final NameIndex index;
    final List<UnitText> units = new ArrayList<>();
    final List<BlockUse> blocks = new ArrayList<>();
    private final Map<String, String[]> lines = new HashMap<>();
    private final Map<String, FunctionBlock.Kind> kinds = new HashMap<>();

    ProgramModel(Machine machine, Environment environment) {
        this.machine = machine;
        List<Text> texts = Text.of(machine.plc());
        index = StructuredTextCompiler.index(texts, environment);
        environment.blocks().forEach(kind -> kinds.put(kind.name().toUpperCase(Locale.ROOT), kind));
        for (Text text : texts) {
            lines.put(text.file(), text.source().split("\n", -1));
            for (UnitSyntax unit : Parser.parse(text.source(), Complaints.NONE).units()) {
                units.add(new UnitText(text.file(), unit, Branches.of(unit.body())));
            }
        }
        units.forEach(this::calls);
    }

    private void calls(UnitText unit) {
        for (Located located : unit.statements()) {
            if (located.statement() instanceof StatementSyntax.BlockCall call) {
                kind(unit.file(), call.block()).ifPresent(kind -> blocks.add(new BlockUse(unit, located, call, unit.syntax().name().toUpperCase(Locale.ROOT) + ":" + Expressions.path(call.block()), kind.name(), axis(unit.file(), call, kind))));
            }
        }
    }

    /** The kind of block that an instance is of; nothing for those written in Structured Text. */
    Optional<FunctionBlock.Kind> kind(String file, ExpressionSyntax instance) {
        return what(file, instance).map(named -> kinds.get(element(named.type()).toUpperCase(Locale.ROOT)));
    }

    private static String element(String type) {
        int of = type.lastIndexOf(" OF ");
        return of < 0 ? type : type.substring(of + 4);
    }

    /** What the last name of a path is. */
    Optional<NameIndex.Named> what(String file, ExpressionSyntax path) {
        if (path instanceof ExpressionSyntax.Name name) {
            int dot = name.path().lastIndexOf('.');
            Optional<NameIndex.Named> last = index.at(file, name.place().line(), name.place().column() + dot + 1);
            /* a tag has dots in its name, and begins where the path does */
            return last.isPresent() ? last : index.at(file, name.place().line(), name.place().column());
        }
        if (path instanceof ExpressionSyntax.Member member) {
            return index.at(file, member.namePlace().line(), member.namePlace().column());
        }
        return path instanceof ExpressionSyntax.Element element ? what(file, element.of()) : Optional.empty();
    }

    private String axis(String file, StatementSyntax.BlockCall call, FunctionBlock.Kind kind) {
        String pin = kind.pins().stream().filter(p -> p.required() && p.lent() == null).map(FunctionBlock.Pin::name).reduce((first, second) -> second).orElse("");
        return call.arguments().stream().filter(StatementSyntax.Input.class::isInstance).map(StatementSyntax.Input.class::cast)
                .filter(i -> i.pin() == null ? call.arguments().indexOf(i) == 0 : i.pin().equalsIgnoreCase(pin)).map(i -> what(file, i.value()))
                .flatMap(Optional::stream).filter(n -> n.kind() == NameIndex.Kind.AXIS).map(n -> n.name().toUpperCase(Locale.ROOT)).findFirst().orElse(null);
    }

    /** All conditions under which a statement runs: those of the branches around it, also that the branches before were not taken. */
    static List<ExpressionSyntax> conditions(List<Branch> within) {
        List<ExpressionSyntax> conditions = new ArrayList<>();
        for (Branch branch : within) {
            if (branch.of() instanceof StatementSyntax.If choice) {
                for (int i = 0; i <= Math.min(branch.number(), choice.branches().size() - 1); i++) {
                    conditions.add(choice.branches().get(i).condition());
                }
            } else if (branch.of() instanceof StatementSyntax.Case choice) {
                conditions.add(choice.selector());
            }
        }
        return conditions;
    }

    /** The text of a place. */
    String text(String file, Place place) {
        String line = lines.get(file)[place.line() - 1];
        return line.substring(Math.min(line.length(), place.column() - 1), Math.min(line.length(), place.column() - 1 + place.length()));
    }

    /** Spaces at the beginning of a line. */
    String indent(String file, int line) {
        String text = lines.get(file)[line - 1];
        return text.substring(0, text.length() - text.stripLeading().length());
    }

    /** Calls of blocks of these kinds. */
    Stream<BlockUse> of(Predicate<String> kind) {
        return blocks.stream().filter(b -> kind.test(b.kind()));
    }
}
