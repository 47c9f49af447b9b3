package rueda.plc;

import java.math.BigInteger;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import rueda.plc.Code.Condition;
import rueda.plc.Code.Real;
import rueda.plc.Code.Text;
import rueda.plc.Code.Whole;
import rueda.plc.syntax.ExpressionSyntax;
import rueda.plc.syntax.ExpressionSyntax.Binary;
import rueda.plc.syntax.ExpressionSyntax.Call;
import rueda.plc.syntax.ExpressionSyntax.Literal;
import rueda.plc.syntax.ExpressionSyntax.Name;
import rueda.plc.syntax.ExpressionSyntax.Unary;
import rueda.plc.syntax.Place;
import rueda.plc.syntax.Words;

/**
 * Checks expressions and turns them into code, by the operator table of IEC 61131-3. Whole numbers wrap at the
 * width of their type; division of whole numbers cuts toward zero; {@code x MOD 0} is 0, as the standard defines it.
 */
final class ExpressionCompiler {

    private final Scope scope;
    private final Faults faults;

    ExpressionCompiler(Scope scope, Faults faults) {
        this.scope = scope;
        this.faults = faults;
    }

    /** Compiles and brings to a type, reporting when it does not fit. */
    Expression compile(ExpressionSyntax place, Type wanted) {
        return convert(place.place(), compile(place), wanted);
    }

    Expression compile(ExpressionSyntax place) {
        if (place instanceof Literal literal) {
            return literal(literal);
        }
        if (place instanceof Name variable) {
            return variable(variable);
        }
        if (place instanceof Unary unary) {
            return unary(unary);
        }
        if (place instanceof Binary binary) {
            return binary(binary);
        }
        return function((Call) place);
    }

    /** Implicit conversion to a type: widening only; a literal takes the type when its value fits. */
    Expression convert(Place place, Expression from, Type to) {
        if (from.faulty() || to == null || from.type() == to) {
            return from.flexible() && !from.faulty() && to != null && !to.isText() ? from.as(to) : from;
        }
        if (from.flexible() && from.type().isText()) {
            return convertText(place, from, to);
        }
        try {
            if (from.flexible() && to.isReal()) {
                return Expression.constant(to, false, Literals.fitted(from.constant().toString(), from.number().doubleValue(), to));
            }
            if (from.flexible() && from.isConstantWhole() && (to.isInteger() || to.isBitString())) {
                Literals.requireFits(from.exact(), to);
                return Expression.constant(to, false, from.exact().longValue());
            }
        } catch (IllegalArgumentException refused) {
            faults.at(place, refused.getMessage());
            return Expression.FAULTY;
        }
        if (!from.type().widensTo(to)) {
            faults.at(place, "This is " + article(from) + ", but " + to + " is needed here" + hint(from, to));
            return Expression.FAULTY;
        }
        return cast(from, to);
    }

    /** A literal in quotes takes the type it meets: STRING, WSTRING, or CHAR and WCHAR when it is one character. */
    private Expression convertText(Place place, Expression from, Type to) {
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

    private static String article(Expression value) {
        return value.flexible() ? value.type().isReal() ? "a real number" : "a whole number" : value.type().toString();
    }

    /** How to convert; nothing where no conversion does it. */
    private static String hint(Expression from, Type to) {
        Type type = from.type();
        if (from.flexible() && type.isReal() && (to.isInteger() || to.isBitString())) {
            return ": write it without a fraction.";
        }
        boolean convertible = type != Type.AXIS_REF && to != Type.AXIS_REF && convertible(type, to);
        return convertible ? "; convert it with " + type + "_TO_" + to + "." : ".";
    }

    /**
     * Conversion without question: to REAL rounds to single precision, to a whole number rounds half to even and wraps.
     *
     * <p>IEC 61131-3, 6.6.2.5.5, tables of data type conversions (from memory): a bit string becomes BOOL by its rightmost bit, DWORD and REAL,
     * LWORD and LREAL become each other bit for bit. A number becomes TRUE when it is not 0 (left to the maker).
     */
    static Expression cast(Expression from, Type to) {
        if (to.isText()) {
            return Expression.text(to, textOf(from));
        }
        Type type = from.type();
        if (type.isReal()) {
            Real code = from.real();
            if (to == Type.REAL) {
                return Expression.real(to, frame -> (float) code.value(frame));
            }
            if (to.isReal()) {
                return Expression.real(to, code);
            }
            if (to == Type.DWORD) {
                return Expression.whole(to, frame -> Float.floatToRawIntBits((float) code.value(frame)) & 0xFFFF_FFFFL);
            }
            if (to == Type.LWORD) {
                return Expression.whole(to, frame -> Double.doubleToRawLongBits(code.value(frame)));
            }
            if (to == Type.BOOL) {
                return Expression.whole(to, frame -> code.value(frame) != 0 ? 1 : 0);
            }
            if (to.isDuration()) {
                return Expression.whole(to, frame -> Code.rounded(code.value(frame) * 1e6));
            }
            return Expression.whole(to, frame -> to.wrap(Code.rounded(code.value(frame))));
        }
        int slot = from.slot();
        if (slot >= 0 && to == Type.LREAL && type.isInteger() && !type.isUnsigned64()) {
            return Expression.real(to, frame -> frame.memory[slot]);
        }
        Whole code = from.whole();
        if (type.isPointInTime() && to.isPointInTime()) {
            return Expression.whole(to, switch (to.family()) {
                case DATE -> frame -> Math.floorDiv(code.value(frame), Variable.NANOS_PER_DAY) * Variable.NANOS_PER_DAY;
                case TIME_OF_DAY -> frame -> Math.floorMod(code.value(frame), Variable.NANOS_PER_DAY);
                default -> code;
            });
        }
        if (to.isReal()) {
            return Expression.real(to, realOf(type, to, code));
        }
        if (to.isDuration()) {
            return Expression.whole(to, type.isDuration() ? code : frame -> code.value(frame) * 1_000_000);
        }
        if (to == Type.BOOL) {
            return Expression.whole(to, type.isBitString() ? frame -> code.value(frame) & 1 : frame -> code.value(frame) != 0 ? 1 : 0);
        }
        long perUnit = type.isDuration() ? 1_000_000 : 1;
        return Expression.whole(to, perUnit == 1 ? frame -> to.wrap(code.value(frame)) : frame -> to.wrap(code.value(frame) / perUnit));
    }

    private static Real realOf(Type from, Type to, Whole code) {
        if (from.isBitString() && from != Type.BOOL) {
            return to == Type.REAL ? frame -> Float.intBitsToFloat((int) code.value(frame)) : frame -> Double.longBitsToDouble(code.value(frame));
        }
        double perUnit = from.isDuration() ? 1e6 : 1;
        if (from.isUnsigned64()) {
            return to == Type.REAL ? frame -> unsignedFloat(code.value(frame)) : frame -> Code.unsigned(code.value(frame));
        }
        // A long becomes a float in one rounding; by way of double it would be rounded twice.
        return to == Type.LREAL ? frame -> code.value(frame) / perUnit
                : perUnit == 1 ? frame -> (float) code.value(frame) : frame -> (float) (code.value(frame) / perUnit);
    }

    private static float unsignedFloat(long bits) {
        return bits >= 0 ? bits : 2.0f * (bits >>> 1 | bits & 1);
    }

    private static Text textOf(Expression from) {
        Type type = from.type();
        if (type.isText()) {
            return from.text();
        }
        if (type.isReal()) {
            Real code = from.real();
            return frame -> Variable.text(type, Double.doubleToRawLongBits(code.value(frame)));
        }
        Whole code = from.whole();
        return type.family() == Type.Family.CHARACTER ? frame -> String.valueOf((char) code.value(frame))
                : frame -> Variable.text(type, code.value(frame));
    }

    private Expression literal(Literal place) {
        try {
            return Literals.read(place.text());
        } catch (IllegalArgumentException refused) {
            faults.at(place, refused.getMessage());
            return Expression.FAULTY;
        }
    }

    private Expression variable(Name place) {
        String name = place.path();
        Variable variable = scope.variable(name);
        if (variable == null) {
            unknown(place);
            return Expression.FAULTY;
        }
        Expression constant = scope.constant(name);
        return constant != null ? constant : Expression.variable(variable.type(), variable.slot());
    }

    /** Tells, once for each name, that there is no such variable, and what may have been meant. */
    void unknown(Name place) {
        String name = place.path();
        if (scope.isFaulty(name)) {
            return;
        }
        scope.declareFaulty(name);
        Scope.Instance instance = scope.instance(name);
        int dot = name.lastIndexOf('.');
        Scope.Instance owner = dot < 0 ? null : scope.instance(name.substring(0, dot));
        if (instance != null) {
            faults.at(place, name + " is a function block; name one of its outputs, such as " + name + "." + firstOutput(instance) + ".");
        } else if (owner != null) {
            faults.at(place, owner.kind().name() + " has no pin " + name.substring(dot + 1) + ". It has: "
                    + String.join(", ", owner.kind().pins().stream().map(FunctionBlock.Pin::name).toList()) + "." + guess(name, scope.names()));
        } else if (Type.named(name) != null) {
            faults.at(place, name + " is a type; a value is needed here.");
        } else {
            String guess = guess(name, scope.names());
            faults.at(place, "There is no variable " + name + "." + (guess.isEmpty() ? " Declare it between VAR and END_VAR." : guess));
        }
    }

    /** " Did you mean …?", or nothing. */
    static String guess(String name, java.util.Collection<String> known) {
        return Words.nearest(name, known).map(nearest -> " Did you mean " + nearest + "?").orElse("");
    }

    private static String firstOutput(Scope.Instance instance) {
        return instance.kind().pins().stream().filter(FunctionBlock.Pin::output).findFirst().orElseThrow().name();
    }

    private Expression unary(Unary place) {
        Expression operand = compile(place.operand());
        String operator = place.operator();
        if (operand.faulty()) {
            return operand;
        }
        Type type = operand.type();
        if (operator.equals("NOT")) {
            if (!type.isBitString()) {
                faults.at(place, "NOT needs BOOL or a bit string, not " + article(operand) + ".");
                return Expression.FAULTY;
            }
            if (type == Type.BOOL) {
                Condition asked = operand.asked();
                int slot = operand.slot();
                return Expression.condition(slot >= 0 ? frame -> frame.memory[slot] == 0 : frame -> !asked.holds(frame));
            }
            Whole code = operand.whole();
            return Expression.whole(type, frame -> type.wrap(~code.value(frame)));
        }
        if (!type.isNumber() && !type.isDuration()) {
            faults.at(place, "A sign needs a number, not " + type + ".");
            return Expression.FAULTY;
        }
        if (operator.equals("+")) {
            return operand;
        }
        if (operand.flexible() && operand.isConstantWhole()) {
            return untyped(place, operand.exact().negate());
        }
        if (operand.constant() != null) {
            return type.isReal() ? Expression.constant(type, operand.flexible(), -operand.number().doubleValue())
                    : Expression.constant(type, false, type.wrap(-operand.number().longValue()));
        }
        if (type.isReal()) {
            Real code = operand.real();
            return Expression.real(type, frame -> -code.value(frame));
        }
        Whole code = operand.whole();
        return Expression.whole(type, frame -> type.wrap(-code.value(frame)));
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
        Expression right = compile(place.right());
        if (left.faulty() || right.faulty()) {
            return Expression.FAULTY;
        }
        String operator = place.operator();
        if (left.flexible() && right.flexible() && left.isConstantWhole() && right.isConstantWhole()) {
            Expression folded = wholeConstants(place, operator, left.exact(), right.exact());
            if (folded != null) {
                return folded;
            }
        }
        Expression result = operation(place, operator, left, right);
        boolean constant = left.constant() != null && right.constant() != null && !result.faulty();
        return constant ? folded(place, result, left.flexible() && right.flexible()) : result;
    }

    /** Arithmetic of two whole numbers without type is exact; null for the other operators. */
    private Expression wholeConstants(Binary place, String operator, BigInteger a, BigInteger b) {
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

    private Expression operation(Binary place, String operator, Expression left, Expression right) {
        return switch (operator) {
            case "AND", "&", "OR", "XOR" -> logical(place, operator, left, right);
            case "**" -> power(place, left, right);
            case "=", "<>", "<", ">", "<=", ">=" -> comparison(place, operator, left, right);
            default -> timed(left) || timed(right) ? timeArithmetic(place, operator, left, right)
                    : arithmetic(place, operator, left, right);
        };
    }

    private static boolean timed(Expression value) {
        return value.type().isDuration() || value.type().isPointInTime();
    }

    /** The type both sides widen to, or null. */
    private Type common(Binary place, Expression left, Expression right) {
        if (left.flexible() && right.flexible()) {
            if (left.type().isText()) {
                return left.type();
            }
            return left.type().isReal() || right.type().isReal() ? Type.LREAL : left.type() == Type.ULINT || right.type() == Type.ULINT ? Type.ULINT : Type.LINT;
        }
        if (left.flexible()) {
            return left.type().isReal() && right.type().isInteger() ? Type.LREAL : right.type();
        }
        if (right.flexible()) {
            return right.type().isReal() && left.type().isInteger() ? Type.LREAL : left.type();
        }
        if (left.type().widensTo(right.type())) {
            return right.type();
        }
        if (right.type().widensTo(left.type())) {
            return left.type();
        }
        faults.at(place, left.type() + " and " + right.type() + " have no common type here" + hint(left, right.type()));
        return null;
    }

    private Expression arithmetic(Binary place, String operator, Expression left, Expression right) {
        Type type = common(place, left, right);
        if (type == null) {
            return Expression.FAULTY;
        }
        if (!type.isNumber()) {
            faults.at(place, operator + " needs numbers, not " + type + ".");
            return Expression.FAULTY;
        }
        Expression a = convert(place.left().place(), left, type);
        Expression b = convert(place.right().place(), right, type);
        if (a.faulty() || b.faulty()) {
            return Expression.FAULTY;
        }
        int line = place.operatorPlace().line();
        if (type.isReal()) {
            if (operator.equals("MOD")) {
                faults.at(place, "MOD needs whole numbers, not " + type + ".");
                return Expression.FAULTY;
            }
            return Expression.real(type, single(type, realOperation(operator, a, b)));
        }
        return Expression.whole(type, wholeOperation(operator, type, a, b, line));
    }

    private static Real single(Type type, Real code) {
        return type == Type.REAL ? frame -> (float) code.value(frame) : code;
    }

    /** The value of an expression of constants. @param flexible it keeps taking the type of what it meets */
    private Expression folded(ExpressionSyntax place, Expression constant, boolean flexible) {
        try {
            Frame none = new Frame(0, 0);
            none.budget = Integer.MAX_VALUE;
            Type type = constant.type();
            if (type.isText()) {
                return Expression.constant(type, constant.text().value(none));
            }
            if (type.isReal()) {
                double value = constant.real().value(none);
                if (flexible && !Double.isFinite(value)) {
                    faults.at(place, "The result does not fit into LREAL.");
                    return Expression.FAULTY;
                }
                return Expression.constant(type, flexible, value);
            }
            long value = constant.whole().value(none);
            return flexible && type.isInteger() ? Expression.untyped(type.isUnsigned64() ? new BigInteger(Long.toUnsignedString(value)) : BigInteger.valueOf(value))
                    : Expression.constant(type, false, value);
        } catch (ProgramFault fault) {
            faults.at(place, fault.getMessage());
            return Expression.FAULTY;
        }
    }

    private static Real realOperation(String operator, Expression left, Expression right) {
        Real a = left.real();
        Real b = right.real();
        if (right.constant() != null && left.slot() >= 0) {
            return withConstant(operator, left.slot(), right.number().doubleValue());
        }
        if (right.constant() != null) {
            return withConstant(operator, a, right.number().doubleValue());
        }
        return switch (operator) {
            case "+" -> frame -> a.value(frame) + b.value(frame);
            case "-" -> frame -> a.value(frame) - b.value(frame);
            case "*" -> frame -> a.value(frame) * b.value(frame);
            default -> frame -> a.value(frame) / b.value(frame);
        };
    }

    private static Real withConstant(String operator, int slot, double constant) {
        return switch (operator) {
            case "+" -> frame -> Double.longBitsToDouble(frame.memory[slot]) + constant;
            case "-" -> frame -> Double.longBitsToDouble(frame.memory[slot]) - constant;
            case "*" -> frame -> Double.longBitsToDouble(frame.memory[slot]) * constant;
            default -> frame -> Double.longBitsToDouble(frame.memory[slot]) / constant;
        };
    }

    private static Real withConstant(String operator, Real a, double constant) {
        return switch (operator) {
            case "+" -> frame -> a.value(frame) + constant;
            case "-" -> frame -> a.value(frame) - constant;
            case "*" -> frame -> a.value(frame) * constant;
            default -> frame -> a.value(frame) / constant;
        };
    }

    private static Whole wholeOperation(String operator, Type type, Expression left, Expression right, int line) {
        Whole a = left.whole();
        Whole b = right.whole();
        if (right.isConstantWhole() && left.slot() >= 0) {
            Whole fused = withConstant(operator, type, left.slot(), right.number().longValue());
            if (fused != null) {
                return fused;
            }
        }
        int unused = 64 - type.bits();
        boolean signed = type.family() == Type.Family.SIGNED;
        if (signed && left.slot() >= 0 && (operator.equals("+") || operator.equals("-"))) {
            int slot = left.slot();
            return operator.equals("+") ? frame -> frame.memory[slot] + b.value(frame) << unused >> unused
                    : frame -> frame.memory[slot] - b.value(frame) << unused >> unused;
        }
        return switch (operator) {
            case "+" -> signed ? frame -> a.value(frame) + b.value(frame) << unused >> unused
                    : frame -> type.wrap(a.value(frame) + b.value(frame));
            case "-" -> signed ? frame -> a.value(frame) - b.value(frame) << unused >> unused
                    : frame -> type.wrap(a.value(frame) - b.value(frame));
            case "*" -> signed ? frame -> a.value(frame) * b.value(frame) << unused >> unused
                    : frame -> type.wrap(a.value(frame) * b.value(frame));
            case "/" -> frame -> {
                long divisor = b.value(frame);
                if (divisor == 0) {
                    throw new ProgramFault(line, "Division by zero.");
                }
                return type.wrap(type.isUnsigned64() ? Long.divideUnsigned(a.value(frame), divisor) : a.value(frame) / divisor);
            };
            default -> frame -> {
                long divisor = b.value(frame);
                return divisor == 0 ? 0 : type.isUnsigned64() ? Long.remainderUnsigned(a.value(frame), divisor) : a.value(frame) % divisor;
            };
        };
    }

    /** Variable and constant, the commonest pair, in one step. */
    private static Whole withConstant(String operator, Type type, int slot, long constant) {
        int unused = 64 - type.bits();
        if (type.family() != Type.Family.SIGNED) {
            return null;
        }
        return switch (operator) {
            case "+" -> frame -> frame.memory[slot] + constant << unused >> unused;
            case "-" -> frame -> frame.memory[slot] - constant << unused >> unused;
            case "*" -> frame -> frame.memory[slot] * constant << unused >> unused;
            case "MOD" -> constant == 0 ? frame -> 0 : frame -> frame.memory[slot] % constant;
            default -> null;
        };
    }

    private Expression timeArithmetic(Binary place, String operator, Expression left, Expression right) {
        boolean sum = operator.equals("+") || operator.equals("-");
        Type type = sum ? sumOfTimes(operator.equals("+"), left.type(), right.type()) : null;
        if (type != null) {
            return Expression.whole(type, timeSum(operator.equals("+"), type, left.whole(), right.whole(), place.operatorPlace().line()));
        }
        boolean scaled = left.type().isDuration() && right.type().isNumber() && (operator.equals("*") || operator.equals("/"));
        if (!scaled) {
            faults.at(place, left.type() + " " + operator + " " + right.type() + " is not defined. TIME can be added to TIME, to a time of day or to a date and time; "
                    + "two dates or times can be subtracted; TIME can be multiplied or divided by a number.");
            return Expression.FAULTY;
        }
        Type duration = left.type();
        Whole time = left.whole();
        int line = place.operatorPlace().line();
        if (right.type().isReal()) {
            Real factor = right.real();
            return Expression.whole(duration, operator.equals("*") ? frame -> Math.round(time.value(frame) * factor.value(frame))
                    : frame -> Math.round(time.value(frame) / nonZero(factor.value(frame), line)));
        }
        Whole factor = right.whole();
        return Expression.whole(duration, operator.equals("*") ? frame -> time.value(frame) * factor.value(frame) : frame -> {
            long divisor = factor.value(frame);
            if (divisor == 0) {
                throw new ProgramFault(line, "Division by zero.");
            }
            return time.value(frame) / divisor;
        });
    }

    /** A time of day goes on at midnight; a date and time outside of what can be held stops the task; durations wrap as whole numbers do. */
    private static Whole timeSum(boolean plus, Type type, Whole a, Whole b, int line) {
        if (type.family() == Type.Family.TIME_OF_DAY) {
            return frame -> Math.floorMod(a.value(frame) + (plus ? 1 : -1) * (b.value(frame) % Variable.NANOS_PER_DAY), Variable.NANOS_PER_DAY);
        }
        if (type.isPointInTime()) {
            return frame -> {
                long from = a.value(frame);
                long by = plus ? b.value(frame) : -b.value(frame);
                long sum = from + by;
                if (((from ^ sum) & (by ^ sum)) < 0) {
                    throw new ProgramFault(line, "The date leaves what can be held: " + Variable.FIRST_DAY + " to " + Variable.LAST_DAY + ".");
                }
                return sum;
            };
        }
        return plus ? frame -> a.value(frame) + b.value(frame) : frame -> a.value(frame) - b.value(frame);
    }

    /** Type of a sum or difference of times (IEC 61131-3, operations on time data types), or null when there is none. */
    private static Type sumOfTimes(boolean plus, Type left, Type right) {
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

    private static double nonZero(double divisor, int line) {
        if (divisor == 0) {
            throw new ProgramFault(line, "Division by zero.");
        }
        return divisor;
    }

    private Expression power(Binary place, Expression left, Expression right) {
        if (!left.type().isNumber() || !right.type().isNumber()) {
            faults.at(place, "** needs numbers.");
            return Expression.FAULTY;
        }
        Type type = left.type() == Type.REAL || left.flexible() && right.type() == Type.REAL ? Type.REAL : Type.LREAL;
        Real base = cast(left.flexible() ? convert(place.left().place(), left, Type.LREAL) : left, Type.LREAL).real();
        Real exponent = cast(right.flexible() ? convert(place.right().place(), right, Type.LREAL) : right, Type.LREAL).real();
        return Expression.real(type, single(type, frame -> Math.pow(base.value(frame), exponent.value(frame))));
    }

    private Expression logical(Binary place, String operator, Expression left, Expression right) {
        Type type = common(place, left, right);
        if (type == null) {
            return Expression.FAULTY;
        }
        if (!type.isBitString()) {
            faults.at(place, operator + " needs BOOL or bit strings, not " + type + ".");
            return Expression.FAULTY;
        }
        Expression left1 = convert(place.left().place(), left, type);
        Expression right1 = convert(place.right().place(), right, type);
        if (left1.faulty() || right1.faulty()) {
            return Expression.FAULTY;
        }
        if (type == Type.BOOL) {
            return Expression.condition(logical(operator, left1.asked(), right1.asked()));
        }
        Whole a = left1.whole();
        Whole b = right1.whole();
        return Expression.whole(type, switch (operator) {
            case "OR" -> frame -> a.value(frame) | b.value(frame);
            case "XOR" -> frame -> a.value(frame) ^ b.value(frame);
            default -> frame -> a.value(frame) & b.value(frame);
        });
    }

    private Expression comparison(Binary place, String operator, Expression left, Expression right) {
        Type type = common(place, left, right);
        if (type == null) {
            return Expression.FAULTY;
        }
        Expression left1 = convert(place.left().place(), left, type);
        Expression right1 = convert(place.right().place(), right, type);
        if (left1.faulty() || right1.faulty()) {
            return Expression.FAULTY;
        }
        if (type.isText()) {
            return Expression.condition(compareTexts(operator, left1.text(), right1.text()));
        }
        if (type == Type.AXIS_REF || type == Type.BOOL && !operator.equals("=") && !operator.equals("<>")) {
            faults.at(place, operator + " cannot compare " + type + ".");
            return Expression.FAULTY;
        }
        if (type.isReal()) {
            Real a = left1.real();
            Real b = right1.real();
            return Expression.condition(switch (operator) {
                case "=" -> frame -> a.value(frame) == b.value(frame);
                case "<>" -> frame -> a.value(frame) != b.value(frame);
                case "<" -> frame -> a.value(frame) < b.value(frame);
                case ">" -> frame -> a.value(frame) > b.value(frame);
                case "<=" -> frame -> a.value(frame) <= b.value(frame);
                default -> frame -> a.value(frame) >= b.value(frame);
            });
        }
        if (right1.isConstantWhole() && !type.isUnsigned64()) {
            return Expression.condition(left1.slot() >= 0 ? compare(operator, left1.slot(), right1.number().longValue())
                    : compare(operator, left1.whole(), right1.number().longValue()));
        }
        long flip = type.isUnsigned64() ? Long.MIN_VALUE : 0;
        Whole a = left1.whole();
        Whole b = right1.whole();
        return Expression.condition(switch (operator) {
            case "=" -> frame -> a.value(frame) == b.value(frame);
            case "<>" -> frame -> a.value(frame) != b.value(frame);
            case "<" -> frame -> (a.value(frame) ^ flip) < (b.value(frame) ^ flip);
            case ">" -> frame -> (a.value(frame) ^ flip) > (b.value(frame) ^ flip);
            case "<=" -> frame -> (a.value(frame) ^ flip) <= (b.value(frame) ^ flip);
            default -> frame -> (a.value(frame) ^ flip) >= (b.value(frame) ^ flip);
        });
    }

    private static Condition compare(String operator, Whole a, long constant) {
        return switch (operator) {
            case "=" -> frame -> a.value(frame) == constant;
            case "<>" -> frame -> a.value(frame) != constant;
            case "<" -> frame -> a.value(frame) < constant;
            case ">" -> frame -> a.value(frame) > constant;
            case "<=" -> frame -> a.value(frame) <= constant;
            default -> frame -> a.value(frame) >= constant;
        };
    }

    private static Condition compare(String operator, int slot, long constant) {
        return switch (operator) {
            case "=" -> frame -> frame.memory[slot] == constant;
            case "<>" -> frame -> frame.memory[slot] != constant;
            case "<" -> frame -> frame.memory[slot] < constant;
            case ">" -> frame -> frame.memory[slot] > constant;
            case "<=" -> frame -> frame.memory[slot] <= constant;
            default -> frame -> frame.memory[slot] >= constant;
        };
    }

    private static Condition compareTexts(String operator, Text a, Text b) {
        return switch (operator) {
            case "=" -> frame -> a.value(frame).equals(b.value(frame));
            case "<>" -> frame -> !a.value(frame).equals(b.value(frame));
            case "<" -> frame -> a.value(frame).compareTo(b.value(frame)) < 0;
            case ">" -> frame -> a.value(frame).compareTo(b.value(frame)) > 0;
            case "<=" -> frame -> a.value(frame).compareTo(b.value(frame)) <= 0;
            default -> frame -> a.value(frame).compareTo(b.value(frame)) >= 0;
        };
    }

    /** Both sides are always asked, so that a fault in either shows itself. */
    private static Condition logical(String operator, Condition a, Condition b) {
        return switch (operator) {
            case "OR" -> frame -> a.holds(frame) | b.holds(frame);
            case "XOR" -> frame -> a.holds(frame) ^ b.holds(frame);
            default -> frame -> a.holds(frame) & b.holds(frame);
        };
    }

    private static final List<String> FUNCTIONS = List.of("ABS", "SQRT", "SIN", "COS", "LN", "EXP", "MIN", "MAX", "LIMIT", "SEL", "LEN", "LEFT", "RIGHT", "MID",
            "CONCAT", "FIND", "INSERT", "DELETE", "REPLACE");
    /** Functions of the standard's tables that are not here yet. */
    private static final Set<String> LATER = Set.of("TAN", "ASIN", "ACOS", "ATAN", "ATAN2", "LOG", "EXPT", "TRUNC", "ROUND", "SHL", "SHR", "ROL", "ROR", "MUX", "MOVE",
            "ADD", "SUB", "MUL", "DIV", "MOD", "GT", "GE", "EQ", "LE", "LT", "NE", "AND", "OR", "XOR", "NOT", "ADD_TIME", "SUB_TIME", "MUL_TIME", "DIV_TIME", "ADD_TOD_TIME",
            "ADD_DT_TIME", "SUB_DATE_DATE", "SUB_TOD_TIME", "SUB_TOD_TOD", "SUB_DT_TIME", "SUB_DT_DT", "CONCAT_DATE_TOD", "CONCAT_DATE", "CONCAT_TOD", "CONCAT_DT",
            "SPLIT_DATE", "SPLIT_TOD", "SPLIT_DT", "DAY_OF_WEEK", "TO_BIG_ENDIAN", "TO_LITTLE_ENDIAN", "IS_VALID", "IS_VALID_BCD", "REF", "TRUNC_INT", "TRUNC_DINT");

    private Expression function(Call place) {
        String name = place.function().toUpperCase(Locale.ROOT);
        List<Expression> arguments = new ArrayList<>();
        boolean faulty = false;
        for (ExpressionSyntax argument : place.values()) {
            Expression compiled = compile(argument);
            faulty |= compiled.faulty();
            arguments.add(compiled);
        }
        if (faulty) {
            return Expression.FAULTY;
        }
        int conversion = name.indexOf("_TO_");
        if (conversion > 0 && Type.named(name.substring(0, conversion)) != null && Type.named(name.substring(conversion + 4)) != null) {
            return conversion(place, name, conversion, arguments);
        }
        Expression result = switch (name) {
            case "ABS" -> absolute(place, arguments);
            case "SQRT", "SIN", "COS", "LN", "EXP" -> realFunction(place, name, arguments);
            case "MIN", "MAX" -> select(place, name, arguments, 2);
            case "LIMIT" -> select(place, name, arguments, 3);
            case "SEL" -> choose(place, arguments);
            case "LEN", "LEFT", "RIGHT", "MID", "CONCAT", "FIND", "INSERT", "DELETE", "REPLACE" -> textFunction(place, name, arguments);
            default -> {
                faults.at(place.functionPlace(), noFunction(place.function()));
                yield Expression.FAULTY;
            }
        };
        boolean constant = !arguments.isEmpty() && arguments.stream().allMatch(a -> a.constant() != null) && !result.faulty();
        return constant ? folded(place, result, arguments.stream().filter(a -> a.type() != Type.BOOL).allMatch(Expression::flexible)) : result;
    }

    private String noFunction(String name) {
        if (scope.instance(name) != null) {
            return name + " is a function block: call it in a statement of its own.";
        }
        if (scope.variable(name) != null) {
            return name + " is a variable, not a function.";
        }
        if (LATER.contains(name.toUpperCase(Locale.ROOT)) || name.toUpperCase(Locale.ROOT).startsWith("TO_") && Type.named(name.substring(3)) != null) {
            return "Not supported yet: the function " + name.toUpperCase(Locale.ROOT) + ". Known: " + String.join(", ", FUNCTIONS) + " and conversions such as INT_TO_LREAL.";
        }
        String guess = guess(name, FUNCTIONS);
        return "There is no function " + name + "." + (guess.isEmpty() ? " Known: " + String.join(", ", FUNCTIONS) + " and conversions such as INT_TO_LREAL." : guess);
    }

    private boolean wrongCount(Call place, String name, List<Expression> arguments, int count) {
        if (arguments.size() != count) {
            faults.at(place, name + " takes " + count + (count == 1 ? " value, not " : " values, not ") + arguments.size() + ".");
            return true;
        }
        return false;
    }

    private Expression conversion(Call place, String name, int at, List<Expression> arguments) {
        if (wrongCount(place, name, arguments, 1)) {
            return Expression.FAULTY;
        }
        Type from = Type.named(name.substring(0, at));
        Type to = Type.named(name.substring(at + 4));
        if (from == Type.AXIS_REF || to == Type.AXIS_REF || !convertible(from, to)) {
            boolean bits = from.isBitString() && to.isReal() || to.isBitString() && from.isReal();
            faults.at(place, from + " cannot be converted to " + to + (bits ? "; only DWORD and REAL, LWORD and LREAL are, bit for bit. Go by way of a whole number, such as UINT." : "."));
            return Expression.FAULTY;
        }
        Expression value = convert(place.values().get(0).place(), arguments.get(0), from);
        return value.faulty() ? value : from == to ? value : cast(value, to);
    }

    /** Texts are made from every value but read back from none; points in time convert among themselves. */
    private static boolean convertible(Type from, Type to) {
        if (to.isText()) {
            return true;
        }
        boolean bits = from.isBitString() && from != Type.BOOL && to.isReal() || to.isBitString() && to != Type.BOOL && from.isReal();
        if (bits) {
            return from.bits() == to.bits() && from.bits() >= 32;
        }
        return !from.isText() && from.isPointInTime() == to.isPointInTime()
                && (!from.isPointInTime() || from.family() == to.family() || from.family() == Type.Family.DATE_AND_TIME);
    }

    /** Functions of character strings, IEC 61131-3; positions count from 1. A position outside the text stops the task. */
    private Expression textFunction(Call place, String name, List<Expression> arguments) {
        int texts = switch (name) {
            case "CONCAT", "FIND", "INSERT", "REPLACE" -> 2;
            default -> 1;
        };
        int numbers = switch (name) {
            case "LEFT", "RIGHT", "INSERT" -> 1;
            case "MID", "DELETE", "REPLACE" -> 2;
            default -> 0;
        };
        if (wrongCount(place, name, arguments, texts + numbers)) {
            return Expression.FAULTY;
        }
        Type type = arguments.get(0).type() == Type.WSTRING ? Type.WSTRING : Type.STRING;
        List<Text> text = new ArrayList<>();
        List<Whole> number = new ArrayList<>();
        for (int i = 0; i < arguments.size(); i++) {
            Expression value = convert(place.values().get(i).place(), arguments.get(i), i < texts ? type : Type.LINT);
            if (value.faulty()) {
                return value;
            }
            if (i < texts) {
                text.add(value.text());
            } else {
                number.add(value.whole());
            }
        }
        Text a = text.get(0);
        Text b = texts > 1 ? text.get(1) : null;
        Whole first = numbers > 0 ? number.get(0) : null;
        Whole second = numbers > 1 ? number.get(1) : null;
        int line = place.place().line();
        return switch (name) {
            case "LEN" -> Expression.whole(Type.INT, frame -> a.value(frame).length());
            case "FIND" -> Expression.whole(Type.INT, frame -> {
                frame.spend(line, a.value(frame).length());
                return a.value(frame).indexOf(b.value(frame)) + 1;
            });
            case "CONCAT" -> Expression.text(type, frame -> joined(frame, line, a.value(frame), b.value(frame)));
            case "LEFT" -> Expression.text(type, frame -> part(line, a.value(frame), 0, first.value(frame)));
            case "RIGHT" -> Expression.text(type, frame -> {
                String whole = a.value(frame);
                long count = Math.min(first.value(frame), whole.length());
                return part(line, whole, whole.length() - count, count);
            });
            case "MID" -> Expression.text(type, frame -> part(line, a.value(frame), second.value(frame) - 1, first.value(frame)));
            case "INSERT" -> Expression.text(type, frame -> replaced(frame, line, a.value(frame), b.value(frame), 0, first.value(frame) + 1));
            case "DELETE" -> Expression.text(type, frame -> replaced(frame, line, a.value(frame), "", first.value(frame), second.value(frame)));
            default -> Expression.text(type, frame -> replaced(frame, line, a.value(frame), b.value(frame), first.value(frame), second.value(frame)));
        };
    }

    private static String part(int line, String whole, long from, long count) {
        if (from < 0 || count < 0) {
            throw new ProgramFault(line, "A position or length of a text is negative.");
        }
        int start = (int) Math.min(from, whole.length());
        return whole.substring(start, (int) Math.min(whole.length(), start + Math.min(count, whole.length())));
    }

    /** @param position from 1 */
    private static String replaced(Frame frame, int line, String whole, String by, long count, long position) {
        return joined(frame, line, joined(frame, line, part(line, whole, 0, position - 1), by), part(line, whole, position - 1 + count, whole.length()));
    }

    /** Two texts in one. It may be as long as the longest variable of a text; the work counts. */
    private static String joined(Frame frame, int line, String a, String b) {
        if (a.length() + b.length() > Variable.MOST_CHARACTERS) {
            throw new ProgramFault(line, "The text would be longer than " + Variable.MOST_CHARACTERS + " characters.");
        }
        frame.spend(line, a.length() + b.length());
        return a + b;
    }

    private Expression absolute(Call place, List<Expression> arguments) {
        if (wrongCount(place, "ABS", arguments, 1)) {
            return Expression.FAULTY;
        }
        Expression value = arguments.get(0);
        Type type = value.type();
        if (!type.isNumber()) {
            faults.at(place, "ABS needs a number, not " + type + ".");
            return Expression.FAULTY;
        }
        if (type.isReal()) {
            Real code = value.real();
            return Expression.real(type, frame -> Math.abs(code.value(frame)));
        }
        Whole code = value.whole();
        return Expression.whole(type, frame -> type.wrap(Math.abs(code.value(frame))));
    }

    private Expression realFunction(Call place, String name, List<Expression> arguments) {
        if (wrongCount(place, name, arguments, 1)) {
            return Expression.FAULTY;
        }
        if (!arguments.get(0).type().isNumber()) {
            faults.at(place, name + " needs a number.");
            return Expression.FAULTY;
        }
        Type type = arguments.get(0).type() == Type.REAL ? Type.REAL : Type.LREAL;
        Expression value = arguments.get(0);
        Real code = cast(value.flexible() ? convert(place.values().get(0).place(), value, Type.LREAL) : value, Type.LREAL).real();
        return Expression.real(type, single(type, switch (name) {
            case "SQRT" -> frame -> Math.sqrt(code.value(frame));
            case "SIN" -> frame -> Math.sin(code.value(frame));
            case "COS" -> frame -> Math.cos(code.value(frame));
            case "LN" -> frame -> Math.log(code.value(frame));
            default -> frame -> Math.exp(code.value(frame));
        }));
    }

    private Type commonOf(Call place, List<Expression> values) {
        Type type = null;
        for (Expression value : values) {
            if (!value.flexible() && (type == null || type.widensTo(value.type()))) {
                type = value.type();
            }
        }
        if (type == null) {
            type = values.stream().anyMatch(v -> v.type().isReal()) ? Type.LREAL : values.stream().anyMatch(v -> v.type() == Type.ULINT) ? Type.ULINT : Type.LINT;
        }
        if (!type.isNumber() && !type.isDuration() && !type.isPointInTime() && type != Type.BOOL) {
            faults.at(place, "This function does not take " + type + ".");
            return null;
        }
        return type;
    }

    private List<Expression> converted(Call place, List<Expression> values, int first, Type type) {
        List<Expression> result = new ArrayList<>();
        for (int i = first; i < values.size(); i++) {
            Expression value = convert(place.values().get(i).place(), values.get(i), type);
            if (value.faulty()) {
                return null;
            }
            result.add(value);
        }
        return result;
    }

    private Expression select(Call place, String name, List<Expression> arguments, int count) {
        if (wrongCount(place, name, arguments, count)) {
            return Expression.FAULTY;
        }
        Type type = commonOf(place, arguments);
        List<Expression> values = type == null ? null : converted(place, arguments, 0, type);
        if (values == null) {
            return Expression.FAULTY;
        }
        if (type.isReal()) {
            Real a = values.get(0).real();
            Real b = values.get(1).real();
            Real c = count == 3 ? values.get(2).real() : null;
            return Expression.real(type, switch (name) {
                case "MIN" -> frame -> Math.min(a.value(frame), b.value(frame));
                case "MAX" -> frame -> Math.max(a.value(frame), b.value(frame));
                default -> frame -> Math.min(Math.max(a.value(frame), b.value(frame)), c.value(frame));
            });
        }
        Whole a = values.get(0).whole();
        Whole b = values.get(1).whole();
        Whole c = count == 3 ? values.get(2).whole() : null;
        long flip = type.isUnsigned64() ? Long.MIN_VALUE : 0;
        return Expression.whole(type, switch (name) {
            case "MIN" -> frame -> Math.min(a.value(frame) ^ flip, b.value(frame) ^ flip) ^ flip;
            case "MAX" -> frame -> Math.max(a.value(frame) ^ flip, b.value(frame) ^ flip) ^ flip;
            default -> frame -> Math.min(Math.max(a.value(frame) ^ flip, b.value(frame) ^ flip), c.value(frame) ^ flip) ^ flip;
        });
    }

    private Expression choose(Call place, List<Expression> arguments) {
        if (wrongCount(place, "SEL", arguments, 3)) {
            return Expression.FAULTY;
        }
        Expression choice = convert(place.values().get(0).place(), arguments.get(0), Type.BOOL);
        Type type = commonOf(place, arguments.subList(1, 3));
        List<Expression> values = type == null ? null : converted(place, arguments, 1, type);
        if (choice.faulty() || values == null) {
            return Expression.FAULTY;
        }
        Whole which = choice.whole();
        if (type.isReal()) {
            Real a = values.get(0).real();
            Real b = values.get(1).real();
            return Expression.real(type, frame -> which.value(frame) == 0 ? a.value(frame) : b.value(frame));
        }
        Whole a = values.get(0).whole();
        Whole b = values.get(1).whole();
        return Expression.whole(type, frame -> which.value(frame) == 0 ? a.value(frame) : b.value(frame));
    }
}
