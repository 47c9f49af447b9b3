package rueda.plc;

import java.math.BigInteger;
import java.util.List;
import rueda.plc.code.Constants;
import rueda.plc.code.Node;
import rueda.plc.run.Operations;
import rueda.plc.run.ProgramFault;
import rueda.plc.run.Texts;
import rueda.plc.run.Times;
import rueda.plc.syntax.ExpressionSyntax;
import rueda.plc.syntax.ExpressionSyntax.Binary;
import rueda.plc.syntax.ExpressionSyntax.Call;
import rueda.plc.syntax.ExpressionSyntax.Literal;
import rueda.plc.syntax.ExpressionSyntax.Name;
import rueda.plc.syntax.ExpressionSyntax.Unary;
import rueda.plc.syntax.Place;
import rueda.plc.syntax.UnitSyntax;
import rueda.plc.type.BlockType;
import rueda.plc.type.DataType;
import rueda.plc.type.EnumType;
import rueda.plc.type.ReferenceType;
import rueda.plc.type.SubrangeType;
import rueda.plc.type.TextType;
import rueda.plc.type.Type;

/**
 * Checks expressions and settles their types, by the operator table of IEC 61131-3. Whole numbers wrap at the
 * width of their type; division of whole numbers cuts toward zero; {@code x MOD 0} is 0, as the standard defines it.
 */
final class ExpressionCompiler {

    private final Project project;
    private final Scope scope;
    private final Faults faults;
    private final Names names;
    private final StandardFunctions functions;
    private final Calls calls;

    /** @param unit where the expression stands, null outside of all units */
    ExpressionCompiler(Project project, Scope scope, Faults faults, Unit unit) {
        this.project = project;
        this.scope = scope;
        this.faults = faults;
        names = new Names(project, scope, faults, this, unit);
        functions = new StandardFunctions(project, faults, this);
        calls = new Calls(project, faults, this, unit);
    }

    Faults faults() {
        return faults;
    }

    Scope scope() {
        return scope;
    }

    Names names() {
        return names;
    }

    Calls calls() {
        return calls;
    }

    StandardFunctions functions() {
        return functions;
    }

    /** Compiles and brings to a type, reporting when it does not fit. @param wanted null for any */
    Expression compile(ExpressionSyntax place, DataType wanted) {
        if (wanted instanceof EnumType && place instanceof Name name && names.named(name) == null) {
            Expression value = names.enumerated(name, wanted);
            if (value != null) {
                return value.faulty() ? value : convert(place.place(), value, wanted);
            }
        }
        return convert(place.place(), compileFor(place, wanted), wanted);
    }

    Expression compile(ExpressionSyntax place) {
        return compileFor(place, null);
    }

    /** @param wanted what the value is for: literals that only choose among themselves take it; null for any */
    private Expression compileFor(ExpressionSyntax place, DataType wanted) {
        if (place instanceof Literal literal) {
            return literal(literal);
        }
        if (place instanceof Unary unary) {
            return unary(unary);
        }
        if (place instanceof Binary binary) {
            return binary(binary);
        }
        if (place instanceof Call call) {
            return call(call, wanted);
        }
        if (place instanceof ExpressionSyntax.Listed || place instanceof ExpressionSyntax.Composed) {
            faults.at(place, "Values in [ ] or by name stand in declarations only.");
            return Expression.FAULTY;
        }
        return variable(place);
    }

    // ---- types

    /** Implicit conversion to a type: widening only; a literal takes the type when its value fits. */
    Expression convert(Place place, Expression from, DataType to) {
        if (from.faulty() || to == null) {
            return from;
        }
        if (to instanceof SubrangeType range) {
            return intoRange(place, convert(place, from, range.base()), range);
        }
        if (to instanceof TextType text) {
            return cut(convert(place, from, text.elementary()), text);
        }
        if (to instanceof ReferenceType reference) {
            boolean fits = from.type() instanceof ReferenceType given && (given.target() == null || given.target().same(reference.target()));
            return fits ? from.as(to) : refused(place, from, to);
        }
        if (!to.isElementary()) {
            return from.type().same(to) ? from : refused(place, from, to);
        }
        if (to instanceof EnumType) {
            return from.type().equals(to) ? from : refused(place, from, to);
        }
        if (!from.type().isElementary()) {
            return refused(place, from, to);
        }
        Type wanted = (Type) to;
        Type kept = from.kept();
        if (kept == wanted) {
            return from.flexible() && !wanted.isText() || from.type() != wanted ? from.as(wanted) : from;
        }
        return from.flexible() ? literal(place, from, wanted) : widened(place, from, kept, wanted);
    }

    private Expression widened(Place place, Expression from, Type kept, Type wanted) {
        if (!kept.widensTo(wanted)) {
            return refused(place, from, wanted);
        }
        return made(place, wanted, false, Conversions.cast(from.node(), kept, wanted));
    }

    /** A literal takes the type that it meets. */
    private Expression literal(Place place, Expression from, Type wanted) {
        if (from.kept().isText()) {
            return text(place, from, wanted);
        }
        try {
            if (wanted.isReal()) {
                return Expression.real(wanted, false, Literals.fitted(from.constant().toString(), from.number().doubleValue(), wanted));
            }
            if (from.isConstantWhole() && (wanted.isInteger() || wanted.isBitString())) {
                Literals.requireFits(from.exact(), wanted);
                return Expression.constant(wanted, false, from.exact().longValue());
            }
        } catch (IllegalArgumentException refused) {
            faults.at(place, refused.getMessage());
            return Expression.FAULTY;
        }
        return widened(place, from, from.kept(), wanted);
    }

    /** A literal in quotes takes the type it meets: STRING, WSTRING, or CHAR and WCHAR when it is one character. */
    private Expression text(Place place, Expression from, Type to) {
        String value = (String) from.constant();
        if (to.isText()) {
            return Expression.constant(to, value);
        }
        if (to.family() == Type.Family.CHARACTER && value.length() == 1) {
            return Expression.constant(to, false, (long) value.charAt(0));
        }
        faults.at(place, "This is a text" + (to.family() == Type.Family.CHARACTER ? " of " + value.length() + " characters" : "") + ", but " + to + " is needed here.");
        return Expression.FAULTY;
    }

    private Expression intoRange(Place place, Expression value, SubrangeType range) {
        if (value.faulty()) {
            return value;
        }
        if (value.isConstantWhole()) {
            if (value.exact().compareTo(range.lowest()) < 0 || value.exact().compareTo(range.highest()) > 0) {
                faults.at(place, value.exact() + " lies outside of " + range.written() + ": " + range.lowest() + " to " + range.highest() + ".");
                return Expression.FAULTY;
            }
            return value.as(range);
        }
        if (value.type().equals(range)) {
            return value;
        }
        Node checked = Conversions.operation(Node.Kind.WHOLE, "inRange", value.node(), new Node.Whole(range.lowest().longValue()), new Node.Whole(range.highest().longValue()), new Node.Text(range.written()));
        return Expression.of(range, checked);
    }

    /** A text is cut to what the variable holds (IEC 61131-3, character strings). */
    private Expression cut(Expression value, TextType to) {
        if (value.faulty()) {
            return value;
        }
        if (value.constant() instanceof String text) {
            return text.length() <= to.length() ? value.as(to) : new Expression(to, false, new Node.Text(text.substring(0, to.length())), text.substring(0, to.length()), null);
        }
        return Expression.of(to, Conversions.invoke(Node.Kind.TEXT, Texts.class, "cut", value.node(), new Node.Whole(to.length())));
    }

    private Expression refused(Place place, Expression from, DataType to) {
        if (to instanceof EnumType names) {
            List<String> values = names.values().stream().map(EnumType.Value::name).toList();
            String known = String.join(", ", values.subList(0, Math.min(8, values.size()))) + (values.size() > 8 ? ", …" : "");
            faults.at(place, "This is " + article(from) + ", but a value of " + to.written() + " is needed here: " + known + ".");
        } else {
            faults.at(place, "This is " + article(from) + ", but " + to.written() + " is needed here" + hint(from, to));
        }
        return Expression.FAULTY;
    }

    static String article(Expression value) {
        if (value.type() instanceof ReferenceType reference && reference.target() == null) {
            return "NULL";
        }
        return value.flexible() && !value.kept().isText() ? value.kept().isReal() ? "a real number" : "a whole number" : value.type().written();
    }

    /** How to convert; nothing where no conversion does it. */
    private static String hint(Expression from, DataType to) {
        if (from.type() instanceof ReferenceType && !(to instanceof ReferenceType)) {
            return ": write ^ behind a reference to read what it refers to.";
        }
        if (!from.type().isElementary() || !(to instanceof Type wanted) || from.type() instanceof EnumType && !wanted.isInteger()) {
            return ".";
        }
        Type type = from.kept();
        if (from.flexible() && type.isReal() && (wanted.isInteger() || wanted.isBitString())) {
            return ": write it without a fraction.";
        }
        return Conversions.exists(type, wanted) ? "; convert it with " + type + "_TO_" + wanted + "." : ".";
    }

    /** A value, worked out here where all of it is known. @param flexible it keeps taking the type of what it meets */
    Expression made(Place place, DataType type, boolean flexible, Node node) {
        Node folded;
        try {
            folded = Constants.folded(node);
        } catch (ProgramFault fault) {
            faults.at(place, fault.getMessage());
            return Expression.FAULTY;
        }
        if (folded instanceof Node.Text text) {
            return Expression.constant(type.elementary(), text.value());
        }
        if (folded instanceof Node.Real real) {
            if (flexible && !Double.isFinite(real.value())) {
                faults.at(place, "The result does not fit into LREAL.");
                return Expression.FAULTY;
            }
            return Expression.real(type.elementary(), flexible, real.value());
        }
        if (folded instanceof Node.Bool bool) {
            return Expression.constant(type, false, bool.value() ? 1L : 0L);
        }
        if (folded instanceof Node.Whole whole) {
            Type kept = type.elementary();
            boolean number = flexible && kept.isInteger();
            return number ? Expression.untyped(kept.isUnsigned64() ? new BigInteger(Long.toUnsignedString(whole.value())) : BigInteger.valueOf(whole.value())) : Expression.constant(type, false, whole.value());
        }
        return Expression.of(type, folded);
    }

    // ---- names and literals

    private Expression literal(Literal place) {
        String text = place.text();
        if (text.equalsIgnoreCase("NULL")) {
            return Expression.of(new ReferenceType(null), new Node.Whole(-1));
        }
        int hash = text.indexOf('#');
        DataType declared = hash > 0 && Type.named(text.substring(0, hash)) == null ? project.types.declaredType(text.substring(0, hash)) : null;
        if (declared instanceof EnumType names) {
            return enumerated(place, names, text.substring(hash + 1));
        }
        try {
            if (declared != null && declared.isElementary()) {
                /* the literal of a type that has a name of its own */
                return convert(place.place(), Literals.read(declared.elementary() + text.substring(hash)), declared);
            }
            return Literals.read(text);
        } catch (IllegalArgumentException refused) {
            faults.at(place, refused.getMessage());
            return Expression.FAULTY;
        }
    }

    private Expression enumerated(Literal place, EnumType names, String value) {
        EnumType.Value found = names.value(value);
        if (found == null) {
            faults.at(place, names.written() + " has no value " + value + "." + Scope.guess(value, names.values().stream().map(EnumType.Value::name).toList()));
            return Expression.FAULTY;
        }
        int column = place.place().column() + place.text().indexOf('#') + 1;
        this.names.used(place.place(), "", names.written(), NameIndex.How.TYPE);
        this.names.used(new Place(place.place().line(), column, 1), names.written(), found.name(), NameIndex.How.READ);
        return Expression.constant(names, false, found.number());
    }

    private Expression variable(ExpressionSyntax place) {
        if (place instanceof Name name && names.named(name) == null) {
            Expression value = names.enumerated(name, null);
            if (value != null) {
                return value;
            }
        }
        Target target = names.find(place);
        return target == null ? Expression.FAULTY : read(place, target);
    }

    /** The value of what a name stands for. */
    Expression read(ExpressionSyntax place, Target target) {
        if (target.constant() != null) {
            return target.constant();
        }
        if (target.part() != null) {
            return made(place.place(), target.type(), false, part(target));
        }
        if (target.type() instanceof BlockType block) {
            List<String> outputs = block.laidOut() ? block.members().stream().filter(m -> m.role() == BlockType.Role.OUTPUT).map(BlockType.Member::name).toList() : List.of();
            faults.at(place, target.name() + " is a function block" + (outputs.isEmpty() ? "." : "; name one of its outputs, such as " + target.name() + "." + outputs.get(0) + "."));
            return Expression.FAULTY;
        }
        return Expression.variable(target.type(), target.address());
    }

    private static Node part(Target target) {
        Node whole = new Node.Load(Node.Kind.WHOLE, target.address());
        Target.Part part = target.part();
        Node shifted = part.at() == 0 ? whole : Conversions.operation(Node.Kind.WHOLE, "shiftRight", whole, new Node.Whole(part.at()), new Node.Whole(64));
        if (part.bits() == 1) {
            return Conversions.operation(Node.Kind.BOOL, "isOne", shifted);
        }
        return part.bits() == 64 ? shifted : new Node.Wrapped(shifted, part.bits(), false);
    }

    /** What lies at an address, to be checked only. */
    Expression address(ExpressionSyntax.Address place) {
        Target target = names.find(place);
        return target == null ? Expression.FAULTY : read(place, target);
    }

    // ---- operators

    private Expression unary(Unary place) {
        Expression operand = compile(place.operand());
        if (operand.faulty()) {
            return operand;
        }
        if (place.operator().equals("NOT")) {
            return functions.not(place, operand);
        }
        Type type = operand.kept();
        boolean number = type != null && !(operand.type() instanceof EnumType) && (type.isNumber() || type.isDuration());
        if (!number) {
            faults.at(place, "A sign needs a number, not " + operand.type().written() + ".");
            return Expression.FAULTY;
        }
        if (place.operator().equals("+")) {
            return operand;
        }
        if (operand.flexible() && operand.isConstantWhole()) {
            return untyped(place, operand.exact().negate());
        }
        Node negated = new Node.Negation(operand.node());
        return made(place.place(), type, operand.flexible(), type.isReal() ? negated : Conversions.wrapped(type, negated));
    }

    /** A whole number without type, when 64 bits hold it. */
    private Expression untyped(ExpressionSyntax place, BigInteger value) {
        if (value.bitLength() > (value.signum() < 0 ? 63 : 64)) {
            faults.at(place, value.bitLength() > 1000 ? "This number does not fit into 64 bits." : value + " does not fit into 64 bits.");
            return Expression.FAULTY;
        }
        return Expression.untyped(value);
    }

    private Expression binary(Binary place) {
        Expression left = compile(place.left());
        Expression right = left.type() instanceof EnumType names ? beside(place.right(), names) : compile(place.right());
        if (left.faulty() || right.faulty()) {
            return Expression.FAULTY;
        }
        return combine(place, place.left().place(), place.right().place(), place.operator(), left, right);
    }

    /** The other side of a comparison with a value of an enumeration: a name may be another of its values. */
    private Expression beside(ExpressionSyntax place, EnumType names) {
        if (place instanceof Name name && this.names.named(name) == null) {
            Expression value = this.names.enumerated(name, names);
            if (value != null) {
                return value;
            }
        }
        return compile(place);
    }

    /** An operator between two values. @param place of both */
    Expression combine(ExpressionSyntax place, Place leftPlace, Place rightPlace, String operator, Expression left, Expression right) {
        if (left.flexible() && right.flexible() && left.isConstantWhole() && right.isConstantWhole()) {
            Expression folded = wholeConstants(place, operator, left.exact(), right.exact());
            if (folded != null) {
                return folded;
            }
        }
        if (left.type() instanceof ReferenceType || right.type() instanceof ReferenceType) {
            return references(place, operator, left, right);
        }
        if (!left.type().isElementary() || !right.type().isElementary()) {
            faults.at(place, operator + " is for single values, not for " + (left.type().isElementary() ? right : left).type().written() + ".");
            return Expression.FAULTY;
        }
        return switch (operator) {
            case "AND", "&", "OR", "XOR" -> logical(place, leftPlace, rightPlace, operator, left, right);
            case "**" -> power(place, left, right);
            case "=", "<>", "<", ">", "<=", ">=" -> comparison(place, leftPlace, rightPlace, operator, left, right);
            default -> timed(left) || timed(right) ? timeArithmetic(place, operator, left, right) : arithmetic(place, leftPlace, rightPlace, operator, left, right);
        };
    }

    /** Arithmetic of two whole numbers without type is exact; null for the other operators. */
    private Expression wholeConstants(ExpressionSyntax place, String operator, BigInteger a, BigInteger b) {
        return switch (operator) {
            case "+" -> untyped(place, a.add(b));
            case "-" -> untyped(place, a.subtract(b));
            case "*" -> untyped(place, a.multiply(b));
            case "/" -> {
                if (b.signum() == 0) {
                    faults.at(place, "Division by zero.");
                    yield Expression.FAULTY;
                }
                yield untyped(place, a.divide(b));
            }
            case "MOD" -> untyped(place, b.signum() == 0 ? BigInteger.ZERO : a.remainder(b));
            default -> null;
        };
    }

    private static boolean timed(Expression value) {
        return value.kept().isDuration() || value.kept().isPointInTime();
    }

    private Expression references(ExpressionSyntax place, String operator, Expression left, Expression right) {
        boolean both = left.type() instanceof ReferenceType a && right.type() instanceof ReferenceType b && (a.target() == null || b.target() == null || a.target().same(b.target()));
        if (!both || !operator.equals("=") && !operator.equals("<>")) {
            faults.at(place, "References are compared with = and <>, with NULL and with references to the same type.");
            return Expression.FAULTY;
        }
        return Expression.of(Type.BOOL, new Node.Comparison(operator.equals("=") ? Node.Relation.EQUAL : Node.Relation.NOT_EQUAL, left.node(), right.node(), false));
    }

    /** The type both sides widen to, or null. */
    private DataType common(ExpressionSyntax place, Expression left, Expression right) {
        if (left.type() instanceof EnumType && left.type().equals(right.type())) {
            return left.type();
        }
        if (left.type() instanceof EnumType || right.type() instanceof EnumType) {
            EnumType names = (EnumType) (left.type() instanceof EnumType ? left : right).type();
            Expression other = left.type() instanceof EnumType ? right : left;
            if (names.named() && !(other.type() instanceof EnumType) && other.kept().isInteger()) {
                return other.flexible() ? names.base() : names.base().widensTo(other.kept()) ? other.kept() : other.kept().widensTo(names.base()) ? names.base() : null;
            }
            faults.at(place, left.type().written() + " and " + right.type().written() + " have no common type here.");
            return null;
        }
        Type a = left.kept();
        Type b = right.kept();
        if (left.flexible() && right.flexible()) {
            if (a.isText()) {
                return a;
            }
            return a.isReal() || b.isReal() ? Type.LREAL : a == Type.ULINT || b == Type.ULINT ? Type.ULINT : Type.LINT;
        }
        if (left.flexible()) {
            return a.isReal() && b.isInteger() ? Type.LREAL : b;
        }
        if (right.flexible()) {
            return b.isReal() && a.isInteger() ? Type.LREAL : a;
        }
        if (a.widensTo(b)) {
            return b;
        }
        if (b.widensTo(a)) {
            return a;
        }
        faults.at(place, a + " and " + b + " have no common type here" + hint(left, b));
        return null;
    }

    private Expression arithmetic(ExpressionSyntax place, Place leftPlace, Place rightPlace, String operator, Expression left, Expression right) {
        DataType common = common(place, left, right);
        if (common == null) {
            return Expression.FAULTY;
        }
        if (common instanceof EnumType || !((Type) common).isNumber()) {
            faults.at(place, operator + " needs numbers, not " + common.written() + ".");
            return Expression.FAULTY;
        }
        Type type = (Type) common;
        Expression a = convert(leftPlace, left, type);
        Expression b = convert(rightPlace, right, type);
        if (a.faulty() || b.faulty()) {
            return Expression.FAULTY;
        }
        if (type.isReal() && operator.equals("MOD")) {
            faults.at(place, "MOD needs whole numbers, not " + type + ".");
            return Expression.FAULTY;
        }
        return made(place.place(), type, left.flexible() && right.flexible(), arithmetic(operator, type, a.node(), b.node()));
    }

    static Node arithmetic(String operator, Type type, Node a, Node b) {
        Node.Operator kind = switch (operator) {
            case "+" -> Node.Operator.ADD;
            case "-" -> Node.Operator.SUBTRACT;
            case "*" -> Node.Operator.MULTIPLY;
            default -> Node.Operator.DIVIDE;
        };
        if (type.isReal()) {
            return Conversions.single(type, new Node.Operation(kind, Node.Kind.REAL, a, b));
        }
        boolean remainder = operator.equals("MOD");
        if (kind != Node.Operator.DIVIDE) {
            return Conversions.wrapped(type, new Node.Operation(kind, Node.Kind.WHOLE, a, b));
        }
        String method = (remainder ? "remainder" : "divide") + (type.isUnsigned64() ? "Unsigned" : "");
        Node result = Conversions.operation(Node.Kind.WHOLE, method, a, b);
        return remainder ? result : Conversions.wrapped(type, result);
    }

    private Expression timeArithmetic(ExpressionSyntax place, String operator, Expression left, Expression right) {
        Type a = left.kept();
        Type b = right.kept();
        boolean plus = operator.equals("+");
        Type type = plus || operator.equals("-") ? sumOfTimes(plus, a, b) : null;
        if (type != null) {
            return made(place.place(), type, false, timeSum(plus, type, a, left.node(), right.node()));
        }
        boolean scaled = a.isDuration() && b.isNumber() && (operator.equals("*") || operator.equals("/"));
        if (!scaled) {
            faults.at(place, left.type().written() + " " + operator + " " + right.type().written() + " is not defined. TIME can be added to TIME, to a time of day or to a date and time; "
                    + "two dates or times can be subtracted; TIME can be multiplied or divided by a number.");
            return Expression.FAULTY;
        }
        return made(place.place(), a, false, scaled(operator.equals("*"), left.node(), right));
    }

    /** A duration times or divided by a number. */
    static Node scaled(boolean times, Node duration, Expression by) {
        if (by.kept().isReal()) {
            return Conversions.invoke(Node.Kind.WHOLE, Times.class, times ? "multiplied" : "divided", duration, by.node());
        }
        return times ? new Node.Operation(Node.Operator.MULTIPLY, Node.Kind.WHOLE, duration, by.node()) : Conversions.operation(Node.Kind.WHOLE, "divide", duration, by.node());
    }

    /** A time of day goes on at midnight; a date and time outside of what can be held stops the task; durations wrap as whole numbers do. */
    static Node timeSum(boolean plus, Type type, Type left, Node a, Node b) {
        if (type.family() == Type.Family.TIME_OF_DAY) {
            return Conversions.invoke(Node.Kind.WHOLE, Times.class, plus ? "laterOnTheDay" : "earlierOnTheDay", a, b);
        }
        if (type.isPointInTime()) {
            return Conversions.invoke(Node.Kind.WHOLE, Times.class, plus ? "later" : "earlier", a, b);
        }
        return new Node.Operation(plus ? Node.Operator.ADD : Node.Operator.SUBTRACT, Node.Kind.WHOLE, a, b);
    }

    /** Type of a sum or difference of times (IEC 61131-3, operations on time data types), or null when there is none. */
    static Type sumOfTimes(boolean plus, Type left, Type right) {
        if (left.isDuration() && right.isDuration()) {
            return left.widensTo(right) ? right : left;
        }
        boolean movable = left.family() == Type.Family.TIME_OF_DAY || left.family() == Type.Family.DATE_AND_TIME;
        if (movable && right.isDuration()) {
            return left;
        }
        boolean difference = !plus && left.isPointInTime() && left.family() == right.family();
        return difference ? left.name().startsWith("L") || right.name().startsWith("L") ? Type.LTIME : Type.TIME : null;
    }

    Expression power(ExpressionSyntax place, Expression left, Expression right) {
        if (!left.kept().isNumber() || !right.kept().isNumber()) {
            faults.at(place, "** needs numbers.");
            return Expression.FAULTY;
        }
        Type type = left.kept() == Type.REAL || left.flexible() && right.kept() == Type.REAL ? Type.REAL : Type.LREAL;
        Node result = Conversions.operation(Node.Kind.REAL, "power", real(left), real(right));
        return made(place.place(), type, left.flexible() && right.flexible(), Conversions.single(type, result));
    }

    /** A number as LREAL. */
    Node real(Expression value) {
        return value.kept() == Type.LREAL ? value.node() : Constants.folded(Conversions.cast(value.node(), value.kept() == Type.REAL ? Type.LREAL : value.kept(), Type.LREAL));
    }

    private Expression logical(ExpressionSyntax place, Place leftPlace, Place rightPlace, String operator, Expression left, Expression right) {
        DataType common = common(place, left, right);
        if (common == null) {
            return Expression.FAULTY;
        }
        if (common instanceof EnumType || !((Type) common).isBitString()) {
            faults.at(place, operator + " needs BOOL or bit strings, not " + common.written() + ".");
            return Expression.FAULTY;
        }
        Expression a = convert(leftPlace, left, common);
        Expression b = convert(rightPlace, right, common);
        if (a.faulty() || b.faulty()) {
            return Expression.FAULTY;
        }
        Node.Operator kind = switch (operator) {
            case "OR" -> Node.Operator.OR;
            case "XOR" -> Node.Operator.XOR;
            default -> Node.Operator.AND;
        };
        return made(place.place(), common, false, new Node.Operation(kind, common == Type.BOOL ? Node.Kind.BOOL : Node.Kind.WHOLE, a.node(), b.node()));
    }

    static Node.Relation relation(String operator) {
        return switch (operator) {
            case "=" -> Node.Relation.EQUAL;
            case "<>" -> Node.Relation.NOT_EQUAL;
            case "<" -> Node.Relation.LESS;
            case "<=" -> Node.Relation.LESS_OR_EQUAL;
            case ">" -> Node.Relation.GREATER;
            default -> Node.Relation.GREATER_OR_EQUAL;
        };
    }

    private Expression comparison(ExpressionSyntax place, Place leftPlace, Place rightPlace, String operator, Expression left, Expression right) {
        DataType common = common(place, left, right);
        if (common == null) {
            return Expression.FAULTY;
        }
        Expression a = convert(leftPlace, left, common);
        Expression b = convert(rightPlace, right, common);
        if (a.faulty() || b.faulty()) {
            return Expression.FAULTY;
        }
        Type type = common.elementary();
        boolean order = !operator.equals("=") && !operator.equals("<>");
        if (type == Type.AXIS_REF || order && (type == Type.BOOL || common instanceof EnumType names && !names.named())) {
            faults.at(place, operator + " cannot compare " + common.written() + ".");
            return Expression.FAULTY;
        }
        return made(place.place(), Type.BOOL, false, new Node.Comparison(relation(operator), a.node(), b.node(), type.isUnsigned64()));
    }

    // ---- functions

    private Expression call(Call place, DataType wanted) {
        Unit unit = project.unit(place.function());
        if (unit != null && unit.syntax.kind() == UnitSyntax.Kind.FUNCTION) {
            return calls.function(place, unit, true);
        }
        Target target = names.named(new Name(place.functionPlace(), place.function()));
        /* a variable may have the name of a function, such as Left or Min */
        boolean hidden = target != null && !(target.type() instanceof BlockType) && StandardFunctions.isStandard(place.function());
        if (target != null && !hidden) {
            faults.at(place.functionPlace(), target.type() instanceof BlockType ? place.function() + " is a function block: call it in a statement of its own." : place.function() + " is a variable, not a function.");
            return Expression.FAULTY;
        }
        return functions.call(place, wanted);
    }

    /** Which of the operations of {@link Operations} works on whole numbers without sign. */
    static String unsigned(Type type, String method) {
        return type.isUnsigned64() ? method + "Unsigned" : method;
    }
}
