package rueda.plc;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import org.antlr.v4.runtime.ParserRuleContext;
import rueda.plc.Code.Condition;
import rueda.plc.Code.Real;
import rueda.plc.Code.Text;
import rueda.plc.Code.Whole;
import rueda.plc.grammar.StructuredTextParser.BinaryContext;
import rueda.plc.grammar.StructuredTextParser.ExpressionContext;
import rueda.plc.grammar.StructuredTextParser.FunctionCallContext;
import rueda.plc.grammar.StructuredTextParser.LiteralValueContext;
import rueda.plc.grammar.StructuredTextParser.ParenthesisContext;
import rueda.plc.grammar.StructuredTextParser.UnaryContext;
import rueda.plc.grammar.StructuredTextParser.VariableValueContext;

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
    Expression compile(ExpressionContext place, Type wanted) {
        return convert(place, compile(place), wanted);
    }

    Expression compile(ExpressionContext place) {
        if (place instanceof ParenthesisContext inner) {
            return inner.expression() == null ? Expression.FAULTY : compile(inner.expression());
        }
        if (place instanceof LiteralValueContext literal) {
            return literal(literal);
        }
        if (place instanceof VariableValueContext variable) {
            return variable(variable);
        }
        if (place instanceof UnaryContext unary) {
            return unary(unary);
        }
        if (place instanceof BinaryContext binary) {
            return binary(binary);
        }
        if (place instanceof FunctionCallContext call) {
            return function(call);
        }
        return Expression.FAULTY;
    }

    /** Implicit conversion to a type: widening only; a literal takes the type when its value fits. */
    Expression convert(ParserRuleContext place, Expression from, Type to) {
        if (from.faulty() || to == null || from.type() == to) {
            return from;
        }
        if (from.flexible() && from.type().isText()) {
            return convertText(place, from, to);
        }
        if (from.flexible() && to.isReal()) {
            return Expression.constant(to, false, from.number().doubleValue());
        }
        if (from.flexible() && from.isConstantWhole() && (to.isInteger() || to.isBitString())) {
            try {
                Literals.requireFits(from.number().longValue(), to);
            } catch (IllegalArgumentException refused) {
                faults.at(place, refused.getMessage());
                return Expression.FAULTY;
            }
            return Expression.constant(to, false, from.number().longValue());
        }
        if (!from.type().widensTo(to)) {
            faults.at(place, "This is " + article(from) + ", but " + to + " is needed here" + hint(from.type(), to));
            return Expression.FAULTY;
        }
        return cast(from, to);
    }

    /** A literal in quotes takes the type it meets: STRING, WSTRING, or CHAR and WCHAR when it is one character. */
    private Expression convertText(ParserRuleContext place, Expression from, Type to) {
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

    private static String hint(Type from, Type to) {
        boolean convertible = from != Type.AXIS_REF && to != Type.AXIS_REF;
        return convertible ? "; convert it with " + from + "_TO_" + to + "." : ".";
    }

    /** Conversion without question: to REAL rounds to single precision, to a whole number rounds to even and wraps. */
    static Expression cast(Expression from, Type to) {
        if (to.isText()) {
            return Expression.text(to, textOf(from));
        }
        if (from.type().isReal()) {
            Real code = from.real();
            if (to == Type.REAL) {
                return Expression.real(to, frame -> (float) code.value(frame));
            }
            if (to.isReal()) {
                return Expression.real(to, code);
            }
            if (to == Type.BOOL) {
                return Expression.whole(to, frame -> code.value(frame) != 0 ? 1 : 0);
            }
            if (to.isDuration()) {
                return Expression.whole(to, frame -> Math.round(code.value(frame) * 1e6));
            }
            return Expression.whole(to, frame -> to.wrap((long) Math.rint(code.value(frame))));
        }
        int slot = from.slot();
        if (slot >= 0 && to == Type.LREAL && !from.type().isDuration()) {
            return Expression.real(to, frame -> frame.memory[slot]);
        }
        Whole code = from.whole();
        if (from.type().isPointInTime() && to.isPointInTime()) {
            return Expression.whole(to, switch (to.family()) {
                case DATE -> frame -> Math.floorDiv(code.value(frame), Variable.NANOS_PER_DAY) * Variable.NANOS_PER_DAY;
                case TIME_OF_DAY -> frame -> Math.floorMod(code.value(frame), Variable.NANOS_PER_DAY);
                default -> code;
            });
        }
        long perUnit = from.type().isDuration() && !to.isDuration() ? 1_000_000 : 1;
        if (to.isReal()) {
            return Expression.real(to, to == Type.REAL ? frame -> (float) code.value(frame) / perUnit : frame -> (double) code.value(frame) / perUnit);
        }
        if (to.isDuration()) {
            return Expression.whole(to, from.type().isDuration() ? code : frame -> code.value(frame) * 1_000_000);
        }
        if (to == Type.BOOL) {
            return Expression.whole(to, frame -> code.value(frame) != 0 ? 1 : 0);
        }
        return Expression.whole(to, frame -> to.wrap(code.value(frame) / perUnit));
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

    private Expression literal(LiteralValueContext place) {
        try {
            return Literals.read(place.getText());
        } catch (IllegalArgumentException refused) {
            faults.at(place, refused.getMessage());
            return Expression.FAULTY;
        }
    }

    private Expression variable(VariableValueContext place) {
        String name = place.getText();
        Variable variable = scope.variable(name);
        if (variable == null) {
            faults.at(place, scope.instance(name) != null
                    ? name + " is a function block; name one of its outputs, such as " + name + "." + firstOutput(name) + "."
                    : "There is no variable " + name + ". Declare it between VAR and END_VAR.");
            return Expression.FAULTY;
        }
        return Expression.variable(variable.type(), variable.slot());
    }

    private String firstOutput(String instance) {
        return scope.instance(instance).kind().pins().stream().filter(FunctionBlock.Pin::output).findFirst().orElseThrow().name();
    }

    private Expression unary(UnaryContext place) {
        Expression operand = compile(place.expression());
        String operator = place.op.getText().toUpperCase(Locale.ROOT);
        if (operand.faulty()) {
            return operand;
        }
        Type type = operand.type();
        if (operator.equals("NOT")) {
            if (!type.isBitString()) {
                faults.at(place, "NOT needs BOOL or a bit string, not " + type + ".");
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
        if (operand.constant() != null) {
            return type.isReal() ? Expression.constant(type, operand.flexible(), -operand.number().doubleValue())
                    : Expression.constant(type, operand.flexible(), -operand.number().longValue());
        }
        if (type.isReal()) {
            Real code = operand.real();
            return Expression.real(type, frame -> -code.value(frame));
        }
        Whole code = operand.whole();
        return Expression.whole(type, frame -> type.wrap(-code.value(frame)));
    }

    private Expression binary(BinaryContext place) {
        Expression left = compile(place.expression(0));
        Expression right = place.expression(1) == null ? Expression.FAULTY : compile(place.expression(1));
        if (left.faulty() || right.faulty()) {
            return Expression.FAULTY;
        }
        String operator = place.op.getText().toUpperCase(Locale.ROOT);
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
    private Type common(BinaryContext place, Expression left, Expression right) {
        if (left.flexible() && right.flexible()) {
            if (left.type().isText()) {
                return left.type();
            }
            return left.type().isReal() || right.type().isReal() ? Type.LREAL : Type.LINT;
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
        faults.at(place, left.type() + " and " + right.type() + " have no common type here" + hint(left.type(), right.type()));
        return null;
    }

    private Expression arithmetic(BinaryContext place, String operator, Expression left, Expression right) {
        Type type = common(place, left, right);
        if (type == null) {
            return Expression.FAULTY;
        }
        if (!type.isNumber()) {
            faults.at(place, operator + " needs numbers, not " + type + ".");
            return Expression.FAULTY;
        }
        boolean flexible = left.flexible() && right.flexible();
        Expression a = convert(place.expression(0), left, type);
        Expression b = convert(place.expression(1), right, type);
        if (a.faulty() || b.faulty()) {
            return Expression.FAULTY;
        }
        int line = place.op.getLine();
        Expression result;
        if (type.isReal()) {
            if (operator.equals("MOD")) {
                faults.at(place, "MOD needs whole numbers, not " + type + ".");
                return Expression.FAULTY;
            }
            result = Expression.real(type, single(type, realOperation(operator, a, b)));
        } else {
            result = Expression.whole(type, wholeOperation(operator, type, a, b, line));
        }
        return flexible ? folded(place, result) : result;
    }

    private static Real single(Type type, Real code) {
        return type == Type.REAL ? frame -> (float) code.value(frame) : code;
    }

    private Expression folded(ParserRuleContext place, Expression constant) {
        try {
            Frame none = new Frame(0, 0);
            if (constant.type().isText()) {
                return Expression.constant(constant.type(), constant.text().value(none));
            }
            return constant.type().isReal() ? Expression.constant(Type.LREAL, true, constant.real().value(none))
                    : Expression.constant(Type.LINT, true, constant.whole().value(none));
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
                return type.wrap(type == Type.ULINT ? Long.divideUnsigned(a.value(frame), divisor) : a.value(frame) / divisor);
            };
            default -> frame -> {
                long divisor = b.value(frame);
                return divisor == 0 ? 0 : type == Type.ULINT ? Long.remainderUnsigned(a.value(frame), divisor) : a.value(frame) % divisor;
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

    private Expression timeArithmetic(BinaryContext place, String operator, Expression left, Expression right) {
        boolean sum = operator.equals("+") || operator.equals("-");
        Type type = sum ? sumOfTimes(operator.equals("+"), left.type(), right.type()) : null;
        if (type != null) {
            return Expression.whole(type, wholeOperation(operator, type, left, right, place.op.getLine()));
        }
        boolean scaled = left.type().isDuration() && right.type().isNumber() && (operator.equals("*") || operator.equals("/"));
        if (!scaled) {
            faults.at(place, left.type() + " " + operator + " " + right.type() + " is not defined. TIME can be added to TIME, to a time of day or to a date and time; "
                    + "two dates or times can be subtracted; TIME can be multiplied or divided by a number.");
            return Expression.FAULTY;
        }
        Type duration = left.type();
        Whole time = left.whole();
        int line = place.op.getLine();
        if (right.type().isReal()) {
            Real factor = right.real();
            return Expression.whole(duration, operator.equals("*") ? frame -> Math.round(time.value(frame) * factor.value(frame))
                    : frame -> Math.round(time.value(frame) / nonZero(factor.value(frame), line)));
        }
        Whole factor = right.whole();
        return Expression.whole(duration, operator.equals("*") ? frame -> time.value(frame) * factor.value(frame)
                : frame -> time.value(frame) / (long) nonZero(factor.value(frame), line));
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

    private Expression power(BinaryContext place, Expression left, Expression right) {
        if (!left.type().isNumber() || !right.type().isNumber()) {
            faults.at(place, "** needs numbers.");
            return Expression.FAULTY;
        }
        Real base = cast(left, Type.LREAL).real();
        Real exponent = cast(right, Type.LREAL).real();
        Type type = left.type() == Type.REAL ? Type.REAL : Type.LREAL;
        return Expression.real(type, single(type, frame -> Math.pow(base.value(frame), exponent.value(frame))));
    }

    private Expression logical(BinaryContext place, String operator, Expression left, Expression right) {
        Type type = common(place, left, right);
        if (type == null) {
            return Expression.FAULTY;
        }
        if (!type.isBitString()) {
            faults.at(place, operator + " needs BOOL or bit strings, not " + type + ".");
            return Expression.FAULTY;
        }
        Expression left1 = convert(place.expression(0), left, type);
        Expression right1 = convert(place.expression(1), right, type);
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

    private Expression comparison(BinaryContext place, String operator, Expression left, Expression right) {
        Type type = common(place, left, right);
        if (type == null) {
            return Expression.FAULTY;
        }
        Expression left1 = convert(place.expression(0), left, type);
        Expression right1 = convert(place.expression(1), right, type);
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
        if (right1.isConstantWhole() && type != Type.ULINT && type != Type.LWORD) {
            return Expression.condition(left1.slot() >= 0 ? compare(operator, left1.slot(), right1.number().longValue())
                    : compare(operator, left1.whole(), right1.number().longValue()));
        }
        long flip = type == Type.ULINT || type == Type.LWORD ? Long.MIN_VALUE : 0;
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

    private Expression function(FunctionCallContext place) {
        String name = place.IDENTIFIER().getText().toUpperCase(Locale.ROOT);
        List<Expression> arguments = new ArrayList<>();
        for (ExpressionContext argument : place.expression()) {
            Expression compiled = compile(argument);
            if (compiled.faulty()) {
                return compiled;
            }
            arguments.add(compiled);
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
                faults.at(place, scope.instance(name) != null ? name + " is a function block: call it in a statement of its own."
                        : "There is no function " + name + ". Known: ABS, SQRT, SIN, COS, LN, EXP, MIN, MAX, LIMIT, SEL, LEN, LEFT, RIGHT, MID, CONCAT, FIND, INSERT, DELETE, REPLACE and conversions such as INT_TO_LREAL.");
                yield Expression.FAULTY;
            }
        };
        boolean literal = !arguments.isEmpty() && arguments.stream().allMatch(a -> a.constant() != null);
        return literal && !result.faulty() && arguments.stream().anyMatch(Expression::flexible) ? folded(place, result) : result;
    }

    private boolean wrongCount(FunctionCallContext place, String name, List<Expression> arguments, int count) {
        if (arguments.size() != count) {
            faults.at(place, name + " takes " + count + (count == 1 ? " value, not " : " values, not ") + arguments.size() + ".");
            return true;
        }
        return false;
    }

    private Expression conversion(FunctionCallContext place, String name, int at, List<Expression> arguments) {
        if (wrongCount(place, name, arguments, 1)) {
            return Expression.FAULTY;
        }
        Type from = Type.named(name.substring(0, at));
        Type to = Type.named(name.substring(at + 4));
        if (from == Type.AXIS_REF || to == Type.AXIS_REF || !convertible(from, to)) {
            faults.at(place, from + " cannot be converted to " + to + ".");
            return Expression.FAULTY;
        }
        Expression value = convert(place.expression(0), arguments.get(0), from);
        return value.faulty() ? value : from == to ? value : cast(value, to);
    }

    /** Texts are made from every value but read back from none; points in time convert among themselves. */
    private static boolean convertible(Type from, Type to) {
        if (to.isText()) {
            return true;
        }
        return !from.isText() && from.isPointInTime() == to.isPointInTime()
                && (!from.isPointInTime() || from.family() == to.family() || from.family() == Type.Family.DATE_AND_TIME);
    }

    /** Functions of character strings, IEC 61131-3; positions count from 1. A position outside the text stops the task. */
    private Expression textFunction(FunctionCallContext place, String name, List<Expression> arguments) {
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
            Expression value = convert(place.expression(i), arguments.get(i), i < texts ? type : Type.LINT);
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
        int line = place.getStart().getLine();
        return switch (name) {
            case "LEN" -> Expression.whole(Type.INT, frame -> a.value(frame).length());
            case "FIND" -> Expression.whole(Type.INT, frame -> a.value(frame).indexOf(b.value(frame)) + 1);
            case "CONCAT" -> Expression.text(type, frame -> a.value(frame) + b.value(frame));
            case "LEFT" -> Expression.text(type, frame -> part(line, a.value(frame), 0, first.value(frame)));
            case "RIGHT" -> Expression.text(type, frame -> {
                String whole = a.value(frame);
                long count = Math.min(first.value(frame), whole.length());
                return part(line, whole, whole.length() - count, count);
            });
            case "MID" -> Expression.text(type, frame -> part(line, a.value(frame), second.value(frame) - 1, first.value(frame)));
            case "INSERT" -> Expression.text(type, frame -> replaced(line, a.value(frame), b.value(frame), 0, first.value(frame) + 1));
            case "DELETE" -> Expression.text(type, frame -> replaced(line, a.value(frame), "", first.value(frame), second.value(frame)));
            default -> Expression.text(type, frame -> replaced(line, a.value(frame), b.value(frame), first.value(frame), second.value(frame)));
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
    private static String replaced(int line, String whole, String by, long count, long position) {
        return part(line, whole, 0, position - 1) + by + part(line, whole, position - 1 + count, whole.length());
    }

    private Expression absolute(FunctionCallContext place, List<Expression> arguments) {
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

    private Expression realFunction(FunctionCallContext place, String name, List<Expression> arguments) {
        if (wrongCount(place, name, arguments, 1)) {
            return Expression.FAULTY;
        }
        if (!arguments.get(0).type().isNumber()) {
            faults.at(place, name + " needs a number.");
            return Expression.FAULTY;
        }
        Type type = arguments.get(0).type() == Type.REAL ? Type.REAL : Type.LREAL;
        Real code = cast(arguments.get(0), Type.LREAL).real();
        return Expression.real(type, single(type, switch (name) {
            case "SQRT" -> frame -> Math.sqrt(code.value(frame));
            case "SIN" -> frame -> Math.sin(code.value(frame));
            case "COS" -> frame -> Math.cos(code.value(frame));
            case "LN" -> frame -> Math.log(code.value(frame));
            default -> frame -> Math.exp(code.value(frame));
        }));
    }

    private Type commonOf(FunctionCallContext place, List<Expression> values) {
        Type type = null;
        for (Expression value : values) {
            if (!value.flexible() && (type == null || type.widensTo(value.type()))) {
                type = value.type();
            }
        }
        if (type == null) {
            type = values.stream().anyMatch(v -> v.type().isReal()) ? Type.LREAL : Type.LINT;
        }
        if (!type.isNumber() && !type.isDuration() && !type.isPointInTime() && type != Type.BOOL) {
            faults.at(place, "This function does not take " + type + ".");
            return null;
        }
        return type;
    }

    private List<Expression> converted(FunctionCallContext place, List<Expression> values, int first, Type type) {
        List<Expression> result = new ArrayList<>();
        for (int i = first; i < values.size(); i++) {
            Expression value = convert(place.expression(i), values.get(i), type);
            if (value.faulty()) {
                return null;
            }
            result.add(value);
        }
        return result;
    }

    private Expression select(FunctionCallContext place, String name, List<Expression> arguments, int count) {
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
        return Expression.whole(type, switch (name) {
            case "MIN" -> frame -> Math.min(a.value(frame), b.value(frame));
            case "MAX" -> frame -> Math.max(a.value(frame), b.value(frame));
            default -> frame -> Math.min(Math.max(a.value(frame), b.value(frame)), c.value(frame));
        });
    }

    private Expression choose(FunctionCallContext place, List<Expression> arguments) {
        if (wrongCount(place, "SEL", arguments, 3)) {
            return Expression.FAULTY;
        }
        Expression choice = convert(place.expression(0), arguments.get(0), Type.BOOL);
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
