package rueda.plc;

import java.util.List;
import java.util.Locale;
import rueda.plc.code.Address;
import rueda.plc.code.Node;
import rueda.plc.syntax.ExpressionSyntax;
import rueda.plc.syntax.Place;
import rueda.plc.syntax.UnitSyntax;
import rueda.plc.type.ArrayType;
import rueda.plc.type.BlockType;
import rueda.plc.type.DataType;
import rueda.plc.type.EnumType;
import rueda.plc.type.ReferenceType;
import rueda.plc.type.StructType;
import rueda.plc.type.Type;

/** Finds what a written name, element, member, part or address stands for, and says what may have been meant where there is none. */
final class Names {

    private final Project project;
    private final Scope scope;
    private final Faults faults;
    private final ExpressionCompiler expressions;
    private final Unit unit;

    /** @param unit in which they stand, or null */
    Names(Project project, Scope scope, Faults faults, ExpressionCompiler expressions, Unit unit) {
        this.unit = unit;
        this.project = project;
        this.scope = scope;
        this.faults = faults;
        this.expressions = expressions;
    }

    /** What it stands for, or null, which has been told. */
    Target find(ExpressionSyntax written) {
        Target target = sought(written);
        if (target != null && unit != null && target.address() != null && target.address().slot() >= 0 && target.type().isElementary() && target.type() != Type.AXIS_REF) {
            project.seen(unit, written.place().line(), target.address().slot());
        }
        return target;
    }

    /** A name stands there. @param owner unit or type that it belongs to, empty for what all units know */
    void used(Place place, String owner, String name, NameIndex.How how) {
        project.index.used(faults.file(), place, unit == null ? "" : unit.name(), owner, name, how);
    }

    /** What stands there is called. */
    void called(ExpressionSyntax place) {
        done(place, NameIndex.How.CALLED);
    }

    /** It is done to the names of a path, not to those of its indices. */
    private void done(ExpressionSyntax place, NameIndex.How how) {
        if (place instanceof ExpressionSyntax.Name name) {
            project.index.done(faults.file(), name.place(), how);
        } else if (place instanceof ExpressionSyntax.Member member) {
            project.index.done(faults.file(), member.namePlace(), how);
            done(member.of(), how);
        } else if (place instanceof ExpressionSyntax.Element element) {
            done(element.of(), how);
        } else if (place instanceof ExpressionSyntax.Part part) {
            done(part.of(), how);
        }
    }

    /** It is assigned, or lent to what may assign it. */
    void written(ExpressionSyntax place, Target target) {
        done(place, NameIndex.How.WRITTEN);
        if (unit != null && target.address() != null && target.address().slot() >= 0) {
            unit.writes.add(target.address().slot());
        }
    }

    private Target sought(ExpressionSyntax written) {
        if (written instanceof ExpressionSyntax.Name name) {
            Target target = named(name);
            if (target == null) {
                unknown(name);
            }
            return target;
        }
        if (written instanceof ExpressionSyntax.Element element) {
            return element(element);
        }
        if (written instanceof ExpressionSyntax.Member member) {
            Target of = find(member.of());
            return of == null ? null : member(of, member.name(), member.namePlace(), member.namePlace(), true);
        }
        if (written instanceof ExpressionSyntax.Part part) {
            return part(part);
        }
        if (written instanceof ExpressionSyntax.Referred referred) {
            return referred(referred);
        }
        if (written instanceof ExpressionSyntax.Address address) {
            return address(address);
        }
        faults.at(written, "A variable is needed here.");
        return null;
    }

    /** What a name stands for, or null; nothing is told but what is wrong with a member. */
    Target named(ExpressionSyntax.Name name) {
        String path = name.path();
        int dot = path.indexOf('.');
        String first = dot < 0 ? path : path.substring(0, dot);
        Symbol own = scope.own(first);
        if (own == null || dot < 0) {
            /* tags have dots in their names: the longest one that is known */
            for (int end = path.length(); end > 0; end = path.lastIndexOf('.', end - 1)) {
                Symbol symbol = scope.find(path.substring(0, end));
                if (symbol != null) {
                    used(name.place(), owner(symbol), path.substring(0, end), NameIndex.How.READ);
                    return members(Target.of(symbol), path, end, name.place());
                }
            }
            return null;
        }
        used(name.place(), owner(own), first, NameIndex.How.READ);
        return members(Target.of(own), path, dot, name.place());
    }

    /** The unit to which a name belongs, empty for what all units know. The value of a function has the name of the function. */
    private String owner(Symbol symbol) {
        Symbol global = project.global.own(symbol.name());
        boolean outside = unit == null || scope.own(symbol.name()) == null || global != null && global.address() != null && global.address().equals(symbol.address()) || symbol.name().equalsIgnoreCase(unit.name());
        return outside ? "" : unit.name();
    }

    /** Members behind a name, one after the other. */
    private Target members(Target of, String path, int from, Place place) {
        Target target = of;
        int at = from;
        while (target != null && at < path.length()) {
            int end = path.indexOf('.', at + 1);
            String member = path.substring(at + 1, end < 0 ? path.length() : end);
            Place memberPlace = place.length() == path.length() ? new Place(place.line(), place.column() + at + 1, member.length()) : null;
            target = member(target, member, memberPlace, place, false);
            at = end < 0 ? path.length() : end;
        }
        return target;
    }

    /** @param exact where the member's name stands, null where that is not known  @param tell say what is wrong; a name says it itself */
    private Target member(Target of, String member, Place exact, Place place, boolean tell) {
        DataType type = of.type();
        String name = of.name() + "." + member;
        if (type instanceof StructType structure && structure.member(member) != null) {
            StructType.Member found = structure.member(member);
            if (exact != null) {
                used(exact, structure.written(), found.name(), NameIndex.How.READ);
            }
            return of.inner(found.type(), of.address().plus(found.offset()), name);
        }
        if (type instanceof BlockType block && block.laidOut() && block.member(member) != null) {
            BlockType.Member found = block.member(member);
            if (exact != null && found.role() != BlockType.Role.INNER && found.role() != BlockType.Role.IN_OUT) {
                used(exact, block.written(), found.name(), NameIndex.How.READ);
            }
            switch (found.role()) {
                case INPUT, OUTPUT -> {
                    Target inner = of.inner(found.type(), of.address().plus(found.offset()), name);
                    return found.role() == BlockType.Role.OUTPUT ? inner.refused("it is an output of the block") : inner;
                }
                default -> {
                    if (tell) {
                        faults.at(place, noMember(of, member));
                    }
                    return null;
                }
            }
        }
        if (tell) {
            faults.at(place, noMember(of, member));
        }
        return null;
    }

    private String noMember(Target of, String member) {
        DataType type = of.type();
        if (type instanceof StructType structure) {
            List<String> members = structure.members().stream().map(StructType.Member::name).toList();
            return of.name() + " has no member " + member + ". It has: " + String.join(", ", members.subList(0, Math.min(12, members.size()))) + (members.size() > 12 ? ", …" : "") + "." + Scope.guess(member, members);
        }
        if (type instanceof BlockType block && block.laidOut()) {
            BlockType.Member inner = block.member(member);
            if (inner != null) {
                return member + " is " + (inner.role() == BlockType.Role.IN_OUT ? "a VAR_IN_OUT" : "an inner variable") + " of " + block.written() + " and is not seen from outside.";
            }
            List<String> pins = pins(block);
            return block.written() + " has no pin " + member + ". It has: " + String.join(", ", pins) + "." + Scope.guess(member, pins);
        }
        if (type instanceof ReferenceType) {
            return of.name() + " is a reference: write " + of.name() + "^." + member + ".";
        }
        if (type instanceof ArrayType) {
            return of.name() + " is an array: write an index before ." + member + ", such as " + of.name() + "[1]." + member + ".";
        }
        return of.name() + " is of type " + type.written() + " and has no members.";
    }

    static List<String> pins(BlockType block) {
        return block.members().stream().filter(m -> m.role() == BlockType.Role.INPUT || m.role() == BlockType.Role.OUTPUT).map(BlockType.Member::name).toList();
    }

    /** Tells, once for each name, that there is no such variable, and what may have been meant. */
    void unknown(ExpressionSyntax.Name place) {
        String name = place.path();
        if (scope.isFaulty(name)) {
            return;
        }
        scope.declareFaulty(name);
        int dot = name.lastIndexOf('.');
        Target owner = dot < 0 ? null : named(new ExpressionSyntax.Name(place.place(), name.substring(0, dot)));
        if (owner != null && owner.type() != Type.AXIS_REF) {
            faults.at(place, noMember(owner, name.substring(dot + 1)));
        } else if (project.types.isType(name)) {
            faults.at(place, name + " is a type; a value is needed here.");
        } else if (project.unit(name) != null) {
            faults.at(place, name + " is a " + (project.unit(name).syntax.kind() == UnitSyntax.Kind.PROGRAM ? "program" : "function: call it with its values in parentheses, also where it has none") + ".");
        } else {
            String guess = Scope.guess(name, scope.names());
            faults.at(place, "There is no variable " + name + "." + (guess.isEmpty() ? " Declare it between VAR and END_VAR." : guess));
        }
    }

    // ---- elements

    private Target element(ExpressionSyntax.Element written) {
        Target of = find(written.of());
        if (of == null) {
            written.indices().forEach(expressions::compile);
            return null;
        }
        if (!(of.type() instanceof ArrayType array)) {
            faults.at(written.of(), of.name() + " is of type " + of.type().written() + ", not an array" + (of.type().isElementary() && of.type().elementary().isText() ? "; MID takes a character out of a text." : "."));
            return null;
        }
        int dimensions = array.bounds().size();
        if (written.indices().size() > dimensions) {
            faults.at(written, of.name() + " has " + dimensions + (dimensions == 1 ? " dimension" : " dimensions") + ", and " + written.indices().size() + " indices are given.");
            return null;
        }
        if (written.indices().size() < dimensions && array.open()) {
            faults.at(written, of.name() + " needs " + dimensions + " indices.");
            return null;
        }
        Address address = of.address();
        for (int d = 0; d < written.indices().size(); d++) {
            address = indexed(written.indices().get(d), of, array, d, address);
            if (address == null) {
                return null;
            }
        }
        DataType type = written.indices().size() == dimensions ? array.element() : new ArrayType(array.bounds().subList(written.indices().size(), dimensions), array.element());
        return of.inner(type, address, of.name() + "[…]");
    }

    private Address indexed(ExpressionSyntax written, Target of, ArrayType array, int d, Address address) {
        Expression index = expressions.compile(written);
        if (index.faulty()) {
            return null;
        }
        Type kept = index.kept();
        if (kept == null || !kept.isInteger()) {
            faults.at(written, "An index is a whole number, not " + index.type().written() + ".");
            return null;
        }
        ArrayType.Bound bound = array.bounds().get(d);
        if (array.open()) {
            return address.plus(new Address.Step(index.node(), bound(of, 1 + 2 * d), bound(of, 2 + 2 * d), stride(of, array, d)));
        }
        if (index.isConstantWhole()) {
            boolean inside = index.exact().bitLength() < 64 && index.exact().longValue() >= bound.low() && index.exact().longValue() <= bound.high();
            if (!inside) {
                faults.at(written, "Index " + index.exact() + " lies outside of the array: " + bound.low() + " to " + bound.high() + ".");
                return null;
            }
            return address.plus((int) (index.exact().longValue() - bound.low()) * array.stride(d));
        }
        return address.plus(new Address.Step(index.node(), new Node.Whole(bound.low()), new Node.Whole(bound.high()), new Node.Whole(array.stride(d))));
    }

    /** A bound of an array of any length, which its VAR_IN_OUT keeps behind the place. */
    static Node bound(Target of, int cell) {
        Address kept = ((Address.Pointer) of.address().start()).cell();
        return new Node.Load(Node.Kind.WHOLE, kept.plus(cell));
    }

    private static Node stride(Target of, ArrayType array, int d) {
        Node stride = new Node.Whole(array.element().cells());
        for (int i = d + 1; i < array.bounds().size(); i++) {
            Node span = new Node.Operation(Node.Operator.SUBTRACT, Node.Kind.WHOLE, bound(of, 2 + 2 * i), bound(of, 1 + 2 * i));
            Node length = new Node.Operation(Node.Operator.ADD, Node.Kind.WHOLE, span, new Node.Whole(1));
            stride = new Node.Operation(Node.Operator.MULTIPLY, Node.Kind.WHOLE, stride, length);
        }
        return stride;
    }

    // ---- references, parts, addresses

    private Target referred(ExpressionSyntax.Referred written) {
        Target of = find(written.of());
        if (of == null) {
            return null;
        }
        if (!(of.type() instanceof ReferenceType reference)) {
            faults.at(written, of.name() + " is of type " + of.type().written() + ", not a reference.");
            return null;
        }
        return new Target(reference.target(), Address.pointer(of.address(), "The reference " + of.name() + " is NULL."), null, null, null, of.name() + "^");
    }

    /** x.3, x.%X3, x.%B1 (IEC 61131-3, partial access of bit strings). */
    private Target part(ExpressionSyntax.Part written) {
        Target of = find(written.of());
        if (of == null) {
            return null;
        }
        Type whole = of.type().elementary();
        if (whole == null || !whole.isBitString() || whole == Type.BOOL || of.part() != null) {
            String hint = whole != null && whole.isInteger() ? "; convert it to " + (whole.bits() == 8 ? "BYTE" : whole.bits() == 16 ? "WORD" : whole.bits() == 32 ? "DWORD" : "LWORD") + " first" : "";
            faults.at(written.partPlace(), "Bits are parts of BYTE, WORD, DWORD or LWORD; " + of.name() + " is of type " + of.type().written() + hint + ".");
            return null;
        }
        String text = written.part().toUpperCase(Locale.ROOT);
        Type type = text.startsWith("%B") ? Type.BYTE : text.startsWith("%W") ? Type.WORD : text.startsWith("%D") ? Type.DWORD : Type.BOOL;
        String digits = text.startsWith("%") ? text.substring(Math.min(text.length(), 2)) : text;
        boolean known = digits.matches("\\d{1,4}") && (!text.startsWith("%") || "XBWD".indexOf(text.charAt(1)) >= 0);
        int number = known ? Integer.parseInt(digits) : -1;
        int most = whole.bits() / type.bits() - 1;
        if (!known || number > most) {
            faults.at(written.partPlace(), of.name() + " of type " + whole + " has the parts 0 to " + most + (type == Type.BOOL ? "" : " of " + type) + ", not " + written.part() + ".");
            return null;
        }
        return new Target(type, of.address(), of.refusal(), null, new Target.Part(of.type(), number * type.bits(), type.bits()), of.name() + "." + written.part());
    }

    /** What lies at an address: the tag that is bound there, or a bit of one. */
    private Target address(ExpressionSyntax.Address written) {
        ProcessAddress at = ProcessAddress.of(written.text(), ProcessAddress.Counts.BYTES).orElse(null);
        int bits = ProcessAddress.bits(written.text());
        if (at == null) {
            faults.at(written, written.text() + " is no address of the process image; write %I or %Q, X, B, W, D or L, and a number, such as %QW4 or %IX2.3.");
            return null;
        }
        for (Environment.Tag tag : project.environment.tags()) {
            boolean around = tag.output() != null && tag.output() == at.output() && tag.bitOffset() <= at.bitOffset() && tag.bitOffset() + tag.type().bits() >= at.bitOffset() + bits;
            if (!around || tag.type().isReal() && tag.type().bits() != bits) {
                continue;
            }
            Symbol symbol = project.global.own(tag.name());
            Type type = switch (bits) {
                case 1 -> Type.BOOL;
                case 8 -> Type.BYTE;
                case 16 -> Type.WORD;
                case 32 -> Type.DWORD;
                default -> Type.LWORD;
            };
            if (tag.type() == type) {
                return Target.of(symbol);
            }
            return new Target(type, symbol.address(), symbol.refusal(), null, new Target.Part(tag.type(), at.bitOffset() - tag.bitOffset(), bits), written.text());
        }
        faults.at(written, "No tag is bound at " + written.text() + ". Bind one in Map, or use the name of a tag.");
        return null;
    }

    // ---- enumerations

    /** A value of an enumeration by its name, or null. @param wanted the enumeration that is needed here, or null */
    Expression enumerated(ExpressionSyntax.Name name, DataType wanted) {
        String path = name.path();
        int dot = path.indexOf('.');
        if (dot > 0) {
            if (!(project.types.declaredType(path.substring(0, dot)) instanceof EnumType type) || type.value(path.substring(dot + 1)) == null) {
                return null;
            }
            used(name.place(), "", type.written(), NameIndex.How.TYPE);
            return value(type, path.substring(dot + 1), new Place(name.place().line(), name.place().column() + dot + 1, 1));
        }
        if (wanted instanceof EnumType type && type.value(path) != null) {
            return value(type, path, name.place());
        }
        List<EnumType> types = project.enumerations(path);
        if (types.size() > 1 && types.stream().distinct().count() > 1) {
            faults.at(name, path + " is a value of several enumerations: write " + types.get(0).written() + "#" + path + " or " + types.get(1).written() + "#" + path + ".");
            return Expression.FAULTY;
        }
        return types.isEmpty() ? null : value(types.get(0), path, name.place());
    }

    private Expression value(EnumType type, String value, Place place) {
        EnumType.Value found = type.value(value);
        used(place, type.written(), found.name(), NameIndex.How.READ);
        return Expression.constant(type, false, found.number());
    }
}
