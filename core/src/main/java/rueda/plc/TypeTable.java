package rueda.plc;

import java.math.BigInteger;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.HashSet;
import java.util.IdentityHashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import rueda.plc.code.Address;
import rueda.plc.run.FunctionBlock;
import rueda.plc.run.Image;
import rueda.plc.syntax.ExpressionSyntax;
import rueda.plc.syntax.FileSyntax;
import rueda.plc.syntax.Parser;
import rueda.plc.syntax.TypeSyntax;
import rueda.plc.syntax.UnitSyntax;
import rueda.plc.type.ArrayType;
import rueda.plc.type.BlockType;
import rueda.plc.type.DataType;
import rueda.plc.type.EnumType;
import rueda.plc.type.ReferenceType;
import rueda.plc.type.StructType;
import rueda.plc.type.SubrangeType;
import rueda.plc.type.TextType;
import rueda.plc.type.Type;

/** The types that a compilation knows, and what a variable of each holds at first (IEC 61131-3, 6.4). */
final class TypeTable {

    /** Elements of one array. */
    private static final long MOST_ELEMENTS = Storage.MOST_CELLS;

    /** A type, and the first values of a variable of it. */
    record Defined(DataType type, Image image) {
    }

    /** A declared type that is read when it is needed first. */
    private record Pending(FileSyntax.TypeDeclaration declaration, Faults faults) {
    }

    private final Project project;
    private final Map<String, Pending> declared = new LinkedHashMap<>();
    private final Map<String, Defined> known = new HashMap<>();
    private final Set<String> reading = new HashSet<>();
    private final Set<String> faulty = new HashSet<>();
    private final Map<BlockType, Image> blocks = new IdentityHashMap<>();
    private final Map<String, FunctionBlock.Kind> kinds = new HashMap<>();
    /** names of the types that the machine gives */
    private final Set<String> given = new HashSet<>();

    TypeTable(Project project) {
        this.project = project;
        for (FunctionBlock.Kind kind : project.environment.blocks()) {
            kinds.put(Scope.key(kind.name()), kind);
        }
        declareGiven(project.environment.types());
    }

    private void declareGiven(String types) {
        Faults faults = new Faults(NameIndex.NO_FILE, types);
        for (FileSyntax.TypeDeclaration declaration : Parser.parse(types, faults).types()) {
            String key = Scope.key(declaration.name());
            given.add(key);
            declared.put(key, new Pending(declaration, faults));
            project.index.given("", declaration.name(), NameIndex.Kind.TYPE, "");
        }
        if (!faults.none()) {
            throw new IllegalArgumentException("Types of the environment: " + faults.sorted());
        }
    }

    /** Takes a declaration; it is read when it is needed. */
    void declare(FileSyntax.TypeDeclaration declaration, Faults faults) {
        String key = Scope.key(declaration.name());
        if (Type.named(declaration.name()) != null || kinds.containsKey(key) || declared.containsKey(key)) {
            faults.at(declaration.place(), declaration.name() + (given.contains(key) ? " is given with the motion blocks: use it as it is, without declaring it." : " is the name of a type already."));
            return;
        }
        declared.put(key, new Pending(declaration, faults));
        project.index.declared(faults.file(), declaration.place(), "", "", declaration.name(), NameIndex.Kind.TYPE, "");
    }

    /** Reads what nobody needed. */
    void readAll() {
        List.copyOf(declared.keySet()).forEach(this::named);
    }

    /** The name stands for a type. */
    boolean isType(String name) {
        return Type.named(name) != null || isDeclared(name) || kinds.containsKey(Scope.key(name)) || project.unit(name) != null && project.unit(name).type != null;
    }

    /** The name stands for a type of the standard or of motion control, which no variable may hide. */
    boolean isReserved(String name) {
        return Type.named(name) != null || kinds.containsKey(Scope.key(name));
    }

    private boolean isDeclared(String name) {
        return declared.containsKey(Scope.key(name));
    }

    /** A type that a declaration gave this name, or null. */
    DataType declaredType(String name) {
        Defined defined = isDeclared(name) ? named(Scope.key(name)) : null;
        return defined == null ? null : defined.type();
    }

    /** A kind of function block by its name, or null: written in Structured Text or in Java. */
    BlockType block(String name) {
        Unit unit = project.unit(name);
        if (unit != null && unit.type != null) {
            return unit.type;
        }
        return kinds.containsKey(Scope.key(name)) ? (BlockType) kind(kinds.get(Scope.key(name))).type() : null;
    }

    private Defined kind(FunctionBlock.Kind kind) {
        String key = Scope.key(kind.name());
        Defined before = known.get(key);
        if (before != null) {
            return before;
        }
        BlockType type = new BlockType(kind.name());
        project.index.given("", kind.name(), NameIndex.Kind.TYPE, "");
        kind.pins().forEach(pin -> project.index.given(kind.name(), pin.name(), NameIndex.Kind.MEMBER, pin.typeName()));
        List<BlockType.Member> members = new ArrayList<>();
        long[] cells = new long[kind.pins().size() + 1];
        for (int i = 0; i < kind.pins().size(); i++) {
            FunctionBlock.Pin pin = kind.pins().get(i);
            members.add(new BlockType.Member(pin.name(), pin.lent() == null ? pin.type() : named(Scope.key(pin.lent())).type(), role(pin), i, pin.required()));
            cells[i] = pin.initial();
        }
        type.layOut(members, cells.length);
        project.storage.knows(type, kind);
        Defined defined = new Defined(type, new Image(cells, null));
        blocks.put(type, defined.image());
        known.put(key, defined);
        return defined;
    }

    private static BlockType.Role role(FunctionBlock.Pin pin) {
        return pin.output() ? BlockType.Role.OUTPUT : pin.lent() != null ? BlockType.Role.IN_OUT : BlockType.Role.INPUT;
    }

    /** First values of an instance of a block in Structured Text; its declarations are known then. */
    void holds(BlockType type, Image image) {
        blocks.put(type, image);
    }

    /** Reads a declared type, or gives what was read before; null where it is faulty, which has been told. */
    private Defined named(String key) {
        Defined before = known.get(key);
        if (before != null || faulty.contains(key)) {
            return before;
        }
        Pending pending = declared.get(key);
        if (!reading.add(key)) {
            pending.faults().at(pending.declaration().place(), pending.declaration().name() + " is made of itself.");
            faulty.add(key);
            return null;
        }
        ExpressionCompiler expressions = new ExpressionCompiler(project, project.global, pending.faults(), null);
        Defined read = resolve(pending.declaration().type(), expressions, pending.declaration().name());
        if (read != null && pending.declaration().initial() != null) {
            Initials.Values values = new Initials(expressions).of(pending.declaration().initial(), read.type(), read.image(), Address.memory(0));
            read = new Defined(read.type(), values.image());
            if (!values.actions().isEmpty()) {
                pending.faults().at(pending.declaration().initial(), "The first value of a type is known before the program runs: constants only.");
            }
        }
        reading.remove(key);
        if (read == null || faulty.contains(key)) {
            faulty.add(key);
            return null;
        }
        known.put(key, read);
        return read;
    }

    // ---- types as written

    /** The type that is written; null where it is faulty, which has been told. */
    Defined resolve(TypeSyntax written, ExpressionCompiler expressions) {
        return resolve(written, expressions, "");
    }

    private Defined resolve(TypeSyntax written, ExpressionCompiler expressions, String name) {
        if (written instanceof TypeSyntax.Named named) {
            return named(named, expressions);
        }
        if (written instanceof TypeSyntax.Subrange subrange) {
            return subrange(subrange, expressions, name);
        }
        if (written instanceof TypeSyntax.ArrayOf array) {
            return array(array, expressions);
        }
        if (written instanceof TypeSyntax.Struct struct) {
            return struct(struct, expressions, name);
        }
        if (written instanceof TypeSyntax.Enumeration enumeration) {
            return enumeration(enumeration, expressions, name);
        }
        TypeSyntax.ReferenceTo reference = (TypeSyntax.ReferenceTo) written;
        Defined target = resolve(reference.target(), expressions);
        return target == null ? null : new Defined(new ReferenceType(target.type()), new Image(new long[] {-1}, null));
    }

    private Defined named(TypeSyntax.Named written, ExpressionCompiler expressions) {
        Faults faults = expressions.faults();
        String key = Scope.key(written.name());
        Type elementary = Type.named(written.name());
        if (written.length() != null && (elementary == null || !elementary.isText())) {
            faults.at(written.place(), "Only STRING and WSTRING take a length.");
            return null;
        }
        if (elementary != null) {
            /* a variable for an axis holds none until it is given one */
            Image first = elementary == Type.AXIS_REF ? new Image(new long[] {-1}, null) : Image.blank(1);
            return elementary.isText() ? text(elementary, written, expressions) : new Defined(elementary, first);
        }
        boolean known = isDeclared(written.name()) || kinds.containsKey(key) || project.unit(written.name()) != null;
        if (known) {
            expressions.names().used(written.place(), "", written.name(), NameIndex.How.TYPE);
        }
        if (isDeclared(written.name())) {
            return named(key);
        }
        if (kinds.containsKey(key)) {
            return kind(kinds.get(key));
        }
        Unit unit = project.unit(written.name());
        if (unit != null && unit.type != null) {
            new Declarations(project, unit).read();
            if (!unit.type.laidOut()) {
                faults.at(written.place(), unit.name() + " would hold itself.");
                return null;
            }
            return new Defined(unit.type, blocks.get(unit.type));
        }
        faults.at(written.place(), unknown(written.name(), unit));
        return null;
    }

    private String unknown(String name, Unit unit) {
        String upper = name.toUpperCase(Locale.ROOT);
        if (unit != null) {
            return name + " is a " + (unit.syntax.kind() == UnitSyntax.Kind.FUNCTION ? "function" : "program") + ", not a type.";
        }
        if (upper.equals("SEMA")) {
            return "Not supported yet: the function block " + upper + ".";
        }
        return "There is no type " + name + "." + Scope.guess(name, names());
    }

    /** All types by their names, for guesses. */
    List<String> names() {
        List<String> names = new ArrayList<>();
        for (Type type : Type.values()) {
            names.add(type.name());
        }
        declared.values().forEach(p -> names.add(p.declaration().name()));
        kinds.values().forEach(k -> names.add(k.name()));
        project.units.values().stream().filter(u -> u.type != null).forEach(u -> names.add(u.name()));
        return names;
    }

    /** STRING[n]: 1 to 32 767 characters. */
    private Defined text(Type type, TypeSyntax.Named written, ExpressionCompiler expressions) {
        Image empty = new Image(new long[1], new String[] {""});
        if (written.length() == null) {
            return new Defined(new TextType(type, TextType.DEFAULT_LENGTH), empty);
        }
        Expression value = expressions.compile(written.length());
        if (value.faulty()) {
            return null;
        }
        boolean fits = value.isConstantWhole() && value.exact().signum() > 0 && value.exact().bitLength() < 32 && value.exact().intValue() <= TextType.MOST_CHARACTERS;
        if (!fits) {
            expressions.faults().at(written.length(), value.isConstantWhole() ? "A length is 1 to " + TextType.MOST_CHARACTERS + ", not " + value.exact() + "."
                    : "A length is a constant whole number, 1 to " + TextType.MOST_CHARACTERS + ".");
            return null;
        }
        return new Defined(new TextType(type, value.exact().intValue()), empty);
    }

    /** A constant whole number, or null. @param what of it is said when it is none */
    private static BigInteger whole(ExpressionSyntax written, ExpressionCompiler expressions, String what) {
        Expression value = expressions.compile(written);
        if (value.faulty()) {
            return null;
        }
        if (!value.isConstantWhole() || value.kept() == Type.BOOL) {
            expressions.faults().at(written, what + " is a constant whole number.");
            return null;
        }
        return value.exact();
    }

    private Defined subrange(TypeSyntax.Subrange written, ExpressionCompiler expressions, String name) {
        Defined base = named(written.base(), expressions);
        BigInteger low = whole(written.low(), expressions, "The lowest value of a subrange");
        BigInteger high = whole(written.high(), expressions, "The highest value of a subrange");
        if (base == null || low == null || high == null) {
            return null;
        }
        Faults faults = expressions.faults();
        if (!base.type().isElementary() || !base.type().elementary().isInteger()) {
            faults.at(written.base().place(), "A subrange is a part of a whole-number type, not of " + base.type().written() + ".");
            return null;
        }
        Type type = base.type().elementary();
        if (low.compareTo(high) > 0) {
            faults.at(written.place(), "The subrange is empty: " + low + " is greater than " + high + ".");
            return null;
        }
        if (low.compareTo(type.lowest()) < 0 || high.compareTo(type.highest()) > 0) {
            faults.at(written.place(), low + " to " + high + " does not fit into " + type + " (" + type.lowest() + " to " + type.highest() + ").");
            return null;
        }
        long first = low.signum() > 0 || high.signum() < 0 ? low.longValue() : 0;
        return new Defined(new SubrangeType(name, type, low, high), new Image(new long[] {first}, null));
    }

    private Defined array(TypeSyntax.ArrayOf written, ExpressionCompiler expressions) {
        Faults faults = expressions.faults();
        List<ArrayType.Bound> bounds = new ArrayList<>();
        long elements = 1;
        boolean open = written.ranges().get(0).open();
        for (TypeSyntax.Range range : written.ranges()) {
            if (range.open() != open) {
                faults.at(range.place(), "All dimensions have bounds, or none has.");
                return null;
            }
            if (open) {
                bounds.add(ArrayType.Bound.OPEN);
                continue;
            }
            BigInteger low = whole(range.low(), expressions, "A bound of an array");
            BigInteger high = whole(range.high(), expressions, "A bound of an array");
            if (low == null || high == null) {
                return null;
            }
            if (low.compareTo(high) > 0) {
                faults.at(range.place(), "The bounds are the wrong way round: " + low + " is greater than " + high + ".");
                return null;
            }
            BigInteger all = high.subtract(low).add(BigInteger.ONE).multiply(BigInteger.valueOf(elements));
            if (low.bitLength() > 62 || high.bitLength() > 62 || all.compareTo(BigInteger.valueOf(MOST_ELEMENTS)) > 0) {
                faults.at(written.place(), "An array has at most " + MOST_ELEMENTS + " elements, this one would have " + all + ".");
                return null;
            }
            elements = all.longValue();
            bounds.add(new ArrayType.Bound(low.longValue(), high.longValue()));
        }
        Defined element = resolve(written.element(), expressions);
        if (element == null) {
            return null;
        }
        ArrayType type = new ArrayType(bounds, element.type());
        if (open) {
            return new Defined(type, Image.blank(type.cells()));
        }
        if (elements * element.type().cells() > Storage.MOST_CELLS) {
            faults.at(written.place(), "An array has at most " + Storage.MOST_CELLS + " values, this one would have " + elements * element.type().cells() + ".");
            return null;
        }
        return new Defined(type, element.image().times((int) elements));
    }

    private Defined struct(TypeSyntax.Struct written, ExpressionCompiler expressions, String name) {
        Faults faults = expressions.faults();
        List<StructType.Member> members = new ArrayList<>();
        Set<String> names = new HashSet<>();
        Image image = Image.blank(0);
        boolean complete = true;
        for (UnitSyntax.Declaration declaration : written.members()) {
            Defined type = resolve(declaration.type(), expressions);
            if (type == null) {
                complete = false;
                continue;
            }
            if (type.type() instanceof ArrayType array && array.open()) {
                faults.at(declaration.type().place(), "ARRAY [*] is for VAR_IN_OUT only.");
                complete = false;
                continue;
            }
            Image first = type.image();
            if (declaration.initial() != null) {
                Initials.Values values = new Initials(expressions).of(declaration.initial(), type.type(), first, Address.memory(0));
                first = values.image();
                if (!values.actions().isEmpty()) {
                    faults.at(declaration.initial(), "The first value of a member is known before the program runs: constants only.");
                }
            }
            for (ExpressionSyntax.Name member : declaration.names()) {
                if (!names.add(Scope.key(member.path()))) {
                    faults.at(member, member.path() + " is a member already.");
                    continue;
                }
                int at = image.cells().length;
                if (at + first.cells().length > Storage.MOST_CELLS) {
                    faults.at(member, "A structure has at most " + Storage.MOST_CELLS + " values.");
                    return null;
                }
                members.add(new StructType.Member(member.path(), type.type(), at));
                if (!name.isEmpty()) {
                    project.index.declared(faults.file(), member.place(), "", name, member.path(), NameIndex.Kind.MEMBER, type.type().written());
                }
                image = new Image(Arrays.copyOf(image.cells(), at + first.cells().length), grown(image, at + first.cells().length)).with(at, first);
            }
        }
        if (members.isEmpty() && complete) {
            faults.at(written.place(), "A structure has at least one member.");
            return null;
        }
        return complete ? new Defined(new StructType(name, members), image) : null;
    }

    private static String[] grown(Image image, int length) {
        if (image.texts() == null) {
            return null;
        }
        String[] texts = Arrays.copyOf(image.texts(), length);
        Arrays.fill(texts, image.texts().length, length, "");
        return texts;
    }

    private Defined enumeration(TypeSyntax.Enumeration written, ExpressionCompiler expressions, String name) {
        Faults faults = expressions.faults();
        Defined base = written.base() == null ? new Defined(Type.INT, Image.blank(1)) : named(written.base(), expressions);
        if (base == null) {
            return null;
        }
        Type type = base.type().elementary();
        if (type == null || !type.isInteger() && !type.isBitString() || type == Type.BOOL) {
            faults.at(written.base().place(), "The base of an enumeration is a whole-number type, not " + base.type().written() + ".");
            return null;
        }
        List<EnumType.Value> values = new ArrayList<>();
        Set<String> names = new HashSet<>();
        BigInteger next = BigInteger.ZERO;
        boolean numbered = written.base() != null;
        for (TypeSyntax.Value value : written.values()) {
            if (value.value() != null) {
                numbered = true;
                BigInteger number = number(value.value(), expressions, values);
                if (number == null) {
                    return null;
                }
                next = number;
            }
            if (next.compareTo(type.lowest()) < 0 || next.compareTo(type.highest()) > 0) {
                faults.at(value.place(), next + " does not fit into " + type + " (" + type.lowest() + " to " + type.highest() + ").");
                return null;
            }
            if (!names.add(Scope.key(value.name()))) {
                faults.at(value.place(), value.name() + " is a value of it already.");
                continue;
            }
            values.add(new EnumType.Value(value.name(), next.longValue()));
            if (!name.isEmpty()) {
                project.index.declared(faults.file(), value.place(), "", name, value.name(), NameIndex.Kind.VALUE, name);
            }
            next = next.add(BigInteger.ONE);
        }
        if (values.isEmpty()) {
            return null;
        }
        EnumType made = new EnumType(name, type, numbered, values);
        project.declare(made);
        return new Defined(made, new Image(new long[] {values.get(0).number()}, null));
    }

    /** A number that is written behind a value; values before it may be named. */
    private static BigInteger number(ExpressionSyntax written, ExpressionCompiler expressions, List<EnumType.Value> before) {
        if (written instanceof ExpressionSyntax.Name name) {
            for (EnumType.Value value : before) {
                if (value.name().equalsIgnoreCase(name.path())) {
                    return BigInteger.valueOf(value.number());
                }
            }
        }
        return whole(written, expressions, "The number of a value");
    }
}
