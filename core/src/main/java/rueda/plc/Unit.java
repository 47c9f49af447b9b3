package rueda.plc;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import rueda.plc.code.Action;
import rueda.plc.code.Address;
import rueda.plc.syntax.ExpressionSyntax;
import rueda.plc.syntax.UnitSyntax;
import rueda.plc.type.BlockType;
import rueda.plc.type.DataType;

/** A program organisation unit while it is compiled. */
final class Unit {

    /**
     * What a call may give or take.
     *
     * @param address  where it lies: of a function in memory, of a function block counted from its first cell
     * @param initial  what an input of a function has when it is not given
     */
    record Parameter(String name, DataType type, BlockType.Role role, Address address, Expression initial) {
    }

    final UnitSyntax syntax;
    final String file;
    final Faults faults;
    final Scope scope;
    /** of a function block, else null */
    final BlockType type;
    final List<Parameter> parameters = new ArrayList<>();
    /** what it does before its body: temporary variables begin anew, edges are found */
    final List<Action> prologue = new ArrayList<>();
    /** first values that are no constants */
    final List<Action> initial = new ArrayList<>();
    /** other units that it calls, and where first */
    final Map<Unit, ExpressionSyntax> calls = new LinkedHashMap<>();
    /** names of variables of a function block that keep their values over a restart */
    final Set<String> retained = new TreeSet<>();
    /** slots of tags that it writes itself */
    final Set<Integer> writes = new TreeSet<>();
    /** value of a function, null where it has none */
    Parameter result;
    /** its declarations are being read, or have been */
    boolean begun;
    boolean done;

    Unit(UnitSyntax syntax, String file, Faults faults, Scope global) {
        this.syntax = syntax;
        this.file = file;
        this.faults = faults;
        scope = new Scope(global);
        type = syntax.kind() == UnitSyntax.Kind.FUNCTION_BLOCK ? new BlockType(syntax.name()) : null;
    }

    String name() {
        return syntax.name();
    }

    /** Name of its class. */
    String className() {
        return Scope.key(name());
    }

    Parameter parameter(String name) {
        return parameters.stream().filter(p -> p.name().equalsIgnoreCase(name)).findFirst().orElse(null);
    }

    /** Cells that keep the places of its VAR_IN_OUT. */
    List<Address> lent() {
        return parameters.stream().filter(p -> p.role() == BlockType.Role.IN_OUT).map(Parameter::address).toList();
    }
}
