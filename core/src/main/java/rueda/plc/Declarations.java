package rueda.plc;

import java.util.ArrayList;
import java.util.List;
import rueda.plc.code.Action;
import rueda.plc.code.Address;
import rueda.plc.code.Node;
import rueda.plc.run.Image;
import rueda.plc.syntax.ExpressionSyntax.Name;
import rueda.plc.syntax.UnitSyntax;
import rueda.plc.syntax.UnitSyntax.Declaration;
import rueda.plc.syntax.UnitSyntax.Section;
import rueda.plc.type.ArrayType;
import rueda.plc.type.BlockType;
import rueda.plc.type.DataType;
import rueda.plc.type.ReferenceType;
import rueda.plc.type.Type;

/**
 * Reads the declarations of a unit and gives its variables their places: those of a program and of a function lie in memory, those of a
 * function block are counted from the first cell of its instance.
 */
final class Declarations {

    private final Project project;
    private final Unit unit;
    private final ExpressionCompiler expressions;
    private final List<BlockType.Member> members = new ArrayList<>();
    private final List<Image> images = new ArrayList<>();
    private int cells;

    Declarations(Project project, Unit unit) {
        this.project = project;
        this.unit = unit;
        expressions = new ExpressionCompiler(project, unit.scope, unit.faults, unit);
    }

    /** Reads them once. */
    void read() {
        if (unit.begun) {
            return;
        }
        unit.begun = true;
        if (unit.syntax.kind() == UnitSyntax.Kind.FUNCTION) {
            result();
        }
        for (Declaration declaration : unit.syntax.declarations()) {
            if (project.storage.full()) {
                break;
            }
            declare(declaration);
        }
        if (unit.type != null) {
            Image whole = Image.blank(cells);
            int at = 0;
            for (Image image : images) {
                whole = whole.with(at, image);
                at += image.cells().length;
            }
            unit.type.layOut(members, cells);
            project.types.holds(unit.type, whole);
            project.storage.knows(unit.type, unit);
        }
        unit.done = true;
    }

    private void result() {
        if (unit.syntax.result() == null) {
            return;
        }
        TypeTable.Defined type = project.types.resolve(unit.syntax.result(), expressions);
        if (type == null) {
            unit.scope.declareFaulty(unit.name());
            return;
        }
        Address address = project.storage.place(unit.name(), type.type(), type.image(), false);
        unit.result = new Unit.Parameter(unit.name(), type.type(), BlockType.Role.OUTPUT, address, null);
        unit.scope.declare(new Symbol(unit.name(), type.type(), address, null, null));
        unit.prologue.add(anew(type.type(), address, type.image()));
    }

    /** A temporary variable takes its first value. */
    private Action anew(DataType type, Address address, Image first) {
        return type.isElementary() ? new Action.Store(0, address, constant(type, first).node()) : new Action.Reset(0, address, project.storage.image(first));
    }

    private static BlockType.Role role(Section section) {
        return switch (section) {
            case VAR_INPUT -> BlockType.Role.INPUT;
            case VAR_OUTPUT -> BlockType.Role.OUTPUT;
            case VAR_IN_OUT -> BlockType.Role.IN_OUT;
            default -> BlockType.Role.INNER;
        };
    }

    private void declare(Declaration declaration) {
        Faults faults = unit.faults;
        boolean program = unit.syntax.kind() == UnitSyntax.Kind.PROGRAM;
        if (program && declaration.section() == Section.VAR_IN_OUT) {
            faults.at(declaration.names().get(0), "A program is called by a task, which gives it no VAR_IN_OUT.");
        }
        if (declaration.section() == Section.VAR_GLOBAL) {
            faults.at(declaration.names().get(0), "VAR_GLOBAL stands outside of the units.");
        }
        TypeTable.Defined type = project.types.resolve(declaration.type(), expressions);
        if (type == null) {
            declaration.names().forEach(name -> unit.scope.declareFaulty(name.path()));
            return;
        }
        boolean open = type.type() instanceof ArrayType array && array.open();
        if (open && declaration.section() != Section.VAR_IN_OUT) {
            faults.at(declaration.type().place(), "ARRAY [*] is for VAR_IN_OUT only.");
            declaration.names().forEach(name -> unit.scope.declareFaulty(name.path()));
            return;
        }
        if (declaration.edge() != UnitSyntax.Edge.NONE && (type.type() != Type.BOOL || declaration.section() != Section.VAR_INPUT || unit.syntax.kind() == UnitSyntax.Kind.FUNCTION)) {
            faults.at(declaration.type().place(), "R_EDGE and F_EDGE are for inputs of type BOOL of a program or a function block.");
        }
        for (Name name : declaration.names()) {
            if (nameIsFree(name, declaration)) {
                if (declaration.section() != Section.VAR_EXTERNAL) {
                    project.index.declared(unit.file, name.place(), unit.name(), unit.name(), name.path(), NameIndex.Kind.VARIABLE, type.type().written());
                }
                variable(declaration, name, type);
            }
        }
    }

    private boolean nameIsFree(Name identifier, Declaration declaration) {
        String name = identifier.path();
        if (project.types.isReserved(name)) {
            unit.faults.at(identifier, name + " is the name of a type and cannot be a variable. Choose another one, such as " + name + "_1.");
            unit.scope.declareFaulty(name);
            return false;
        }
        Symbol around = project.global.own(name);
        boolean taken = unit.scope.knows(name) || around != null && declaration.section() != Section.VAR_EXTERNAL && !(around.address() == null || shadowed(around));
        if (taken) {
            unit.faults.at(identifier, name + " is declared already.");
        }
        return !taken;
    }

    /** A name of the machine (axis, tag, constant) must stay what it is; a global variable may be hidden by one of the unit. */
    private boolean shadowed(Symbol around) {
        return project.isGlobalVariable(around.name());
    }

    private void variable(Declaration declaration, Name name, TypeTable.Defined type) {
        switch (declaration.section()) {
            case VAR_EXTERNAL -> external(declaration, name, type.type());
            case VAR_IN_OUT -> inOut(name, type.type());
            default -> own(declaration, name, type);
        }
    }

    private void external(Declaration declaration, Name name, DataType type) {
        Symbol global = project.global.own(name.path());
        if (global == null || !project.isGlobalVariable(name.path())) {
            unit.faults.at(name, "There is no global variable " + name.path() + "." + Scope.guess(name.path(), project.globalVariables()));
            unit.scope.declareFaulty(name.path());
        } else if (!global.type().same(type)) {
            unit.faults.at(name, name.path() + " is declared as " + global.type().written() + " in VAR_GLOBAL, not as " + type.written() + ".");
        } else {
            expressions.names().used(name.place(), "", name.path(), NameIndex.How.READ);
            unit.scope.declare(declaration.constant() ? new Symbol(global.name(), type, global.address(), "it is CONSTANT", global.constant()) : global);
        }
        if (declaration.initial() != null) {
            unit.faults.at(declaration.initial(), "A first value stands in VAR_GLOBAL, not in VAR_EXTERNAL.");
        }
    }

    /** The cell that keeps the place of what is given; of an array of any length its bounds lie behind it. */
    private void inOut(Name name, DataType type) {
        DataType kept = type instanceof ArrayType array && array.open() ? type : new ReferenceType(type);
        long[] none = new long[kept.cells()];
        none[0] = -1;
        Address cell = place(name.path(), kept, new Image(none, null), BlockType.Role.IN_OUT, false);
        unit.parameters.add(new Unit.Parameter(name.path(), type, BlockType.Role.IN_OUT, cell, null));
        unit.scope.declare(new Symbol(name.path(), type, Address.pointer(cell, "The VAR_IN_OUT " + name.path() + " was not given."), null, null));
    }

    private void own(Declaration declaration, Name name, TypeTable.Defined type) {
        BlockType.Role role = role(declaration.section());
        boolean function = unit.syntax.kind() == UnitSyntax.Kind.FUNCTION;
        boolean temporary = declaration.section() == Section.VAR_TEMP || function && role != BlockType.Role.INPUT;
        if (declaration.address() != null && !declaration.constant()) {
            project.located(declaration, name, type.type(), expressions);
            return;
        }
        Address address = temporary ? project.storage.place(name.path(), type.type(), type.image(), false) : place(name.path(), type.type(), type.image(), role, true);
        Image first = type.image();
        List<Action> later = List.of();
        if (declaration.initial() != null) {
            Initials.Values values = new Initials(expressions).of(declaration.initial(), type.type(), type.image(), address);
            first = values.image();
            later = values.actions();
            changeImage(address, first);
        }
        if (temporary) {
            unit.prologue.add(anew(type.type(), address, first));
        }
        (temporary ? unit.prologue : unit.initial).addAll(later);
        Expression constant = declaration.constant() && type.type().isElementary() && later.isEmpty() ? constant(type.type(), first) : null;
        String refusal = declaration.constant() ? "it is CONSTANT" : declaration.section() == Section.VAR_INPUT ? "it is an input of this " + what() : null;
        if (declaration.retained()) {
            if (unit.type == null) {
                project.storage.retain(address.slot());
            } else {
                unit.retained.add(name.path());
            }
        }
        if (declaration.constant() && address.slot() >= 0) {
            project.constants.add(address.slot());
        }
        Address seen = declaration.edge() == UnitSyntax.Edge.NONE || type.type() != Type.BOOL ? address : edge(declaration, name, address);
        unit.scope.declare(new Symbol(name.path(), type.type(), seen, refusal, constant));
        if (role == BlockType.Role.INPUT || role == BlockType.Role.OUTPUT) {
            Expression usual = role == BlockType.Role.INPUT && type.type().isElementary() ? constant(type.type(), first) : null;
            unit.parameters.add(new Unit.Parameter(name.path(), type.type(), role, address, usual));
        }
    }

    private String what() {
        return unit.syntax.kind() == UnitSyntax.Kind.PROGRAM ? "program" : unit.syntax.kind() == UnitSyntax.Kind.FUNCTION ? "function" : "function block";
    }

    /** The value that a variable holds for good. */
    static Expression constant(DataType type, Image image) {
        Type elementary = type.elementary();
        if (elementary.isText()) {
            return new Expression(elementary, false, new Node.Text(image.texts()[0]), image.texts()[0], null);
        }
        return elementary.isReal() ? Expression.real(elementary, false, Double.longBitsToDouble(image.cells()[0])) : Expression.constant(type, false, image.cells()[0]);
    }

    /** The input as the body sees it: TRUE in the call in which it has risen or fallen (IEC 61131-3, 6.6.3.5; from memory). */
    private Address edge(Declaration declaration, Name name, Address input) {
        Address before = place(name.path() + " before", Type.BOOL, Image.blank(1), null, false);
        Address seen = place(name.path() + " edge", Type.BOOL, Image.blank(1), null, false);
        boolean rising = declaration.edge() == UnitSyntax.Edge.RISING;
        Node now = new Node.Load(Node.Kind.BOOL, input);
        Node active = rising ? now : new Node.Inversion(now);
        unit.prologue.add(new Action.Store(0, seen, new Node.Operation(Node.Operator.AND, Node.Kind.BOOL, active, new Node.Inversion(new Node.Load(Node.Kind.BOOL, before)))));
        unit.prologue.add(new Action.Store(0, before, active));
        return seen;
    }

    private Address place(String name, DataType type, Image image, BlockType.Role role, boolean listed) {
        if (unit.type == null) {
            boolean program = unit.syntax.kind() == UnitSyntax.Kind.PROGRAM;
            return project.storage.place(program ? project.listedName(unit, name) : name, type, image, listed && program);
        }
        Address address = Address.own(cells);
        if (role != null) {
            members.add(new BlockType.Member(name, type, role, cells, role == BlockType.Role.IN_OUT));
        }
        images.add(image);
        cells += image.cells().length;
        return address;
    }

    private void changeImage(Address address, Image image) {
        if (address.slot() >= 0) {
            project.storage.change(address.slot(), image);
        } else {
            images.set(images.size() - 1, image);
        }
    }
}
