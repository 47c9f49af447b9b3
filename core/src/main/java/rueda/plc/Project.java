package rueda.plc;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import rueda.plc.code.Action;
import rueda.plc.code.Address;
import rueda.plc.run.Image;
import rueda.plc.syntax.ExpressionSyntax;
import rueda.plc.syntax.UnitSyntax;
import rueda.plc.type.ArrayType;
import rueda.plc.type.DataType;
import rueda.plc.type.EnumType;
import rueda.plc.type.TextType;
import rueda.plc.type.Type;

/** What all units of a compilation share: types, global names, memory, units by their names. */
final class Project {

    final Environment environment;
    final Scope global = new Scope(null);
    final Storage storage = new Storage();
    final NameIndex index;
    final TypeTable types;
    final Map<String, Unit> units = new LinkedHashMap<>();
    /** slots of the values that stand in the lines of programs, by their files */
    final Map<String, Map<Integer, Set<Integer>>> seen = new TreeMap<>();
    /** slots of variables that are CONSTANT */
    final Set<Integer> constants = new HashSet<>();
    /** first values of global variables that are no constants */
    final List<Action> initial = new ArrayList<>();
    private final Set<String> variables = new HashSet<>();
    private final List<String> variableNames = new ArrayList<>();
    /** values of enumerations by their names: several where the name stands in several */
    private final Map<String, List<EnumType>> enumerated = new HashMap<>();

    /** @param indexed every name is kept, with where it stands */
    Project(Environment environment, boolean indexed) {
        index = new NameIndex(indexed);
        this.environment = environment;
        types = new TypeTable(this);
    }

    Unit unit(String name) {
        return units.get(Scope.key(name));
    }

    void declare(EnumType type) {
        type.values().forEach(v -> enumerated.computeIfAbsent(Scope.key(v.name()), k -> new ArrayList<>()).add(type));
    }

    /** Enumerations that have a value of this name. */
    List<EnumType> enumerations(String value) {
        return enumerated.getOrDefault(Scope.key(value), List.of());
    }

    /** A value of a program stands in a line of its text. */
    void seen(Unit unit, int line, int slot) {
        if (unit.syntax.kind() == UnitSyntax.Kind.PROGRAM) {
            seen.computeIfAbsent(unit.file, file -> new TreeMap<>()).computeIfAbsent(line, at -> new LinkedHashSet<>()).add(slot);
        }
    }

    // ---- global names

    /** What the machine gives: axes, tags, constants. */
    void declareMachine() {
        for (Environment.Tag tag : environment.tags()) {
            TypeTable.Defined type = tag.type().isText() ? new TypeTable.Defined(new TextType(tag.type(), TextType.DEFAULT_LENGTH), Image.blank(1)) : new TypeTable.Defined(tag.type(), Image.blank(1));
            Address address = storage.place(tag.name(), type.type(), type.image(), true);
            index.given("", tag.name(), NameIndex.Kind.TAG, type.type().written());
            global.declare(new Symbol(tag.name(), type.type(), address, tag.writable() ? null : "motion control and the bus write it", null));
        }
        for (int i = 0; i < environment.axes().size(); i++) {
            index.given("", environment.axes().get(i), NameIndex.Kind.AXIS, Type.AXIS_REF.written());
            Address address = storage.place(environment.axes().get(i), Type.AXIS_REF, new Image(new long[] {i}, null), true);
            global.declare(new Symbol(environment.axes().get(i), Type.AXIS_REF, address, "it is an axis", null));
        }
        for (Environment.Constant constant : environment.constants()) {
            index.given("", constant.name(), NameIndex.Kind.CONSTANT, Type.INT.written());
            global.declare(new Symbol(constant.name(), Type.INT, null, "it is a constant", Expression.constant(Type.INT, false, constant.value())));
        }
    }

    /** Variables of VAR_GLOBAL. */
    void declareGlobals(List<UnitSyntax.Declaration> declarations, Faults faults) {
        ExpressionCompiler expressions = new ExpressionCompiler(this, global, faults, null);
        for (UnitSyntax.Declaration declaration : declarations) {
            TypeTable.Defined type = types.resolve(declaration.type(), expressions);
            for (ExpressionSyntax.Name name : declaration.names()) {
                if (type == null) {
                    global.declareFaulty(name.path());
                } else if (types.isReserved(name.path()) || unit(name.path()) != null) {
                    faults.at(name, name.path() + " is the name of a " + (types.isReserved(name.path()) ? "type" : "unit") + " and cannot be a variable. Choose another one, such as " + name.path() + "_1.");
                    global.declareFaulty(name.path());
                } else if (global.knows(name.path())) {
                    faults.at(name, name.path() + " is declared already.");
                } else {
                    index.declared(faults.file(), name.place(), "", "", name.path(), NameIndex.Kind.GLOBAL, type.type().written());
                    globalVariable(declaration, name, type, expressions);
                }
            }
        }
    }

    private void globalVariable(UnitSyntax.Declaration declaration, ExpressionSyntax.Name name, TypeTable.Defined type, ExpressionCompiler expressions) {
        if (type.type() instanceof ArrayType array && array.open()) {
            expressions.faults().at(declaration.type().place(), "ARRAY [*] is for VAR_IN_OUT only.");
            global.declareFaulty(name.path());
            return;
        }
        if (declaration.address() != null) {
            located(declaration, name, type.type(), expressions);
            return;
        }
        Address address = storage.place(name.path(), type.type(), type.image(), true);
        Image first = type.image();
        boolean known = true;
        if (declaration.initial() != null) {
            Initials.Values values = new Initials(expressions).of(declaration.initial(), type.type(), type.image(), address);
            first = values.image();
            known = values.actions().isEmpty();
            initial.addAll(values.actions());
            storage.change(address.slot(), first);
        }
        if (declaration.retained()) {
            storage.retain(address.slot());
        }
        if (declaration.constant()) {
            constants.add(address.slot());
        }
        Expression constant = declaration.constant() && known && type.type().isElementary() ? Declarations.constant(type.type(), first) : null;
        global.declare(new Symbol(name.path(), type.type(), address, declaration.constant() ? "it is CONSTANT" : null, constant));
        variables.add(Scope.key(name.path()));
        variableNames.add(name.path());
    }

    /** AT an address: another name of the tag that is bound there. */
    void located(UnitSyntax.Declaration declaration, ExpressionSyntax.Name name, DataType type, ExpressionCompiler expressions) {
        Scope scope = expressions.scope();
        if (expressions.address(declaration.address()).faulty()) {
            scope.declareFaulty(name.path());
            return;
        }
        Symbol tag = tagAt(declaration.address().text());
        if (tag == null || !type.isElementary() || !alike(tag.type().elementary(), type.elementary())) {
            expressions.faults().at(declaration.type().place(), declaration.address().text() + " holds " + (tag == null ? "a part of a tag" : tag.name() + " of type " + tag.type().written()) + "; it cannot be " + type.written() + ".");
            scope.declareFaulty(name.path());
            return;
        }
        if (declaration.initial() != null) {
            expressions.faults().at(declaration.initial(), "A variable at an address takes its value from the process image.");
        }
        scope.declare(new Symbol(name.path(), tag.type(), tag.address(), tag.refusal(), null));
    }

    /** The bits of one are the bits of the other. */
    private static boolean alike(Type tag, Type declared) {
        return tag.bits() == declared.bits() && tag.isReal() == declared.isReal() && tag.isText() == declared.isText();
    }

    /** What does not belong to a machine: a unit may have a variable of the same name. */
    boolean isGlobalVariable(String name) {
        return variables.contains(Scope.key(name));
    }

    List<String> globalVariables() {
        return variableNames;
    }

    /** The tag that is bound exactly there, or null. */
    Symbol tagAt(String address) {
        return ProcessAddress.of(address, ProcessAddress.Counts.BYTES).map(at -> environment.tags().stream()
                .filter(tag -> tag.output() != null && tag.output() == at.output() && tag.bitOffset() == at.bitOffset() && tag.type().bits() == ProcessAddress.bits(address))
                .findFirst().map(tag -> global.own(tag.name())).orElse(null)).orElse(null);
    }

    /** How a variable of a program is called from outside: by its name alone where there is one program. */
    String listedName(Unit unit, String name) {
        boolean several = units.values().stream().filter(u -> u.syntax.kind() == UnitSyntax.Kind.PROGRAM).count() > 1;
        return several ? unit.name() + "." + name : name;
    }

    /** A cell for a value between two steps of a statement; nobody else sees it. */
    Address hidden() {
        return storage.place("", Type.LINT, Image.blank(1), false);
    }
}
