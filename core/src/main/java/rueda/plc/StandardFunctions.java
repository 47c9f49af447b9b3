package rueda.plc;

import static java.util.Map.entry;

import java.math.BigInteger;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.stream.Stream;
import rueda.plc.code.Action;
import rueda.plc.code.Address;
import rueda.plc.code.Constants;
import rueda.plc.code.Node;
import rueda.plc.run.Texts;
import rueda.plc.run.Times;
import rueda.plc.syntax.ExpressionSyntax;
import rueda.plc.syntax.ExpressionSyntax.Call;
import rueda.plc.syntax.Place;
import rueda.plc.syntax.StatementSyntax.Argument;
import rueda.plc.syntax.StatementSyntax.Input;
import rueda.plc.syntax.StatementSyntax.Output;
import rueda.plc.syntax.UnitSyntax;
import rueda.plc.type.ArrayType;
import rueda.plc.type.DataType;
import rueda.plc.type.EnumType;
import rueda.plc.type.ReferenceType;
import rueda.plc.type.Type;

/**
 * The standard functions of IEC 61131-3, 6.6.2.5 (tables of functions of one numeric variable, arithmetic, bit shift, bitwise, selection,
 * comparison, character string, time, conversion, validation and endianess; from memory): which values they take, and what they give.
 */
final class StandardFunctions {

    /** Values of one call; more would be a mistake, and too deep to be worked on. */
    private static final int MOST_VALUES = 200;

    /** Names of the inputs; one that ends in … counts on: IN1, IN2 and so forth. */
    private static final Map<String, List<String>> INPUTS = new TreeMap<>(Map.ofEntries(
            entry("ABS", List.of("IN")), entry("SQRT", List.of("IN")), entry("LN", List.of("IN")), entry("LOG", List.of("IN")), entry("EXP", List.of("IN")),
            entry("SIN", List.of("IN")), entry("COS", List.of("IN")), entry("TAN", List.of("IN")), entry("ASIN", List.of("IN")), entry("ACOS", List.of("IN")), entry("ATAN", List.of("IN")),
            entry("ATAN2", List.of("Y", "X")), entry("ADD", List.of("IN…")), entry("MUL", List.of("IN…")), entry("SUB", List.of("IN1", "IN2")), entry("DIV", List.of("IN1", "IN2")),
            entry("MOD", List.of("IN1", "IN2")), entry("EXPT", List.of("IN1", "IN2")), entry("MOVE", List.of("IN")), entry("SHL", List.of("IN", "N")), entry("SHR", List.of("IN", "N")),
            entry("ROL", List.of("IN", "N")), entry("ROR", List.of("IN", "N")), entry("AND", List.of("IN…")), entry("OR", List.of("IN…")), entry("XOR", List.of("IN…")), entry("NOT", List.of("IN")),
            entry("SEL", List.of("G", "IN0", "IN1")), entry("MAX", List.of("IN…")), entry("MIN", List.of("IN…")), entry("LIMIT", List.of("MN", "IN", "MX")), entry("MUX", List.of("K", "IN…")),
            entry("GT", List.of("IN…")), entry("GE", List.of("IN…")), entry("EQ", List.of("IN…")), entry("LE", List.of("IN…")), entry("LT", List.of("IN…")), entry("NE", List.of("IN1", "IN2")),
            entry("LEN", List.of("IN")), entry("LEFT", List.of("IN", "L")), entry("RIGHT", List.of("IN", "L")), entry("MID", List.of("IN", "L", "P")), entry("CONCAT", List.of("IN…")),
            entry("INSERT", List.of("IN1", "IN2", "P")), entry("DELETE", List.of("IN", "L", "P")), entry("REPLACE", List.of("IN1", "IN2", "L", "P")), entry("FIND", List.of("IN1", "IN2")),
            entry("CONCAT_DATE_TOD", List.of("DATE", "TOD")), entry("CONCAT_DATE_LTOD", List.of("DATE", "LTOD")), entry("CONCAT_DATE", List.of("YEAR", "MONTH", "DAY")),
            entry("CONCAT_TOD", List.of("HOUR", "MINUTE", "SECOND", "MILLISECOND")), entry("CONCAT_LTOD", List.of("HOUR", "MINUTE", "SECOND", "MILLISECOND")),
            entry("CONCAT_DT", List.of("YEAR", "MONTH", "DAY", "HOUR", "MINUTE", "SECOND", "MILLISECOND")), entry("CONCAT_LDT", List.of("YEAR", "MONTH", "DAY", "HOUR", "MINUTE", "SECOND", "MILLISECOND")),
            entry("SPLIT_DATE", List.of("IN")), entry("SPLIT_TOD", List.of("IN")), entry("SPLIT_LTOD", List.of("IN")), entry("SPLIT_DT", List.of("IN")), entry("SPLIT_LDT", List.of("IN")),
            entry("DAY_OF_WEEK", List.of("IN")), entry("IS_VALID", List.of("IN")), entry("IS_VALID_BCD", List.of("IN")), entry("TO_BIG_ENDIAN", List.of("IN")), entry("TO_LITTLE_ENDIAN", List.of("IN")),
            entry("FROM_BIG_ENDIAN", List.of("IN")), entry("FROM_LITTLE_ENDIAN", List.of("IN")), entry("TRUNC", List.of("IN")), entry("ROUND", List.of("IN")), entry("REF", List.of("IN")),
            entry("LOWER_BOUND", List.of("ARR", "DIM")), entry("UPPER_BOUND", List.of("ARR", "DIM"))));

    /** Sums and differences of times by name: the types that each takes. */
    private static final Map<String, List<Type>> TIMED = times();

    private static final List<String> DATE_PARTS = List.of("YEAR", "MONTH", "DAY");
    private static final List<String> TIME_PARTS = List.of("HOUR", "MINUTE", "SECOND", "MILLISECOND");

    private static Map<String, List<Type>> times() {
        Map<String, List<Type>> timed = new TreeMap<>();
        for (String l : List.of("", "L")) {
            Type time = Type.named(l + "TIME");
            Type tod = Type.named(l + "TOD");
            Type dt = Type.named(l + "DT");
            timed.put("ADD_" + time, List.of(time, time));
            timed.put("SUB_" + time, List.of(time, time));
            timed.put("ADD_" + tod + "_" + time, List.of(tod, time));
            timed.put("SUB_" + tod + "_" + time, List.of(tod, time));
            timed.put("ADD_" + dt + "_" + time, List.of(dt, time));
            timed.put("SUB_" + dt + "_" + time, List.of(dt, time));
            timed.put("SUB_" + tod + "_" + tod, List.of(tod, tod));
            timed.put("SUB_" + dt + "_" + dt, List.of(dt, dt));
            timed.put("SUB_" + l + "DATE_" + l + "DATE", List.of(Type.named(l + "DATE"), Type.named(l + "DATE")));
            timed.put("MUL_" + time, Collections.singletonList(time));
            timed.put("DIV_" + time, Collections.singletonList(time));
        }
        return timed;
    }

    /** A value that was given, and where. */
    private record Given(Expression value, Place place) {
    }

    private final Project project;
    private final Faults faults;
    private final ExpressionCompiler expressions;

    StandardFunctions(Project project, Faults faults, ExpressionCompiler expressions) {
        this.project = project;
        this.faults = faults;
        this.expressions = expressions;
    }

    /** The name is that of a standard function. */
    static boolean isStandard(String name) {
        String upper = name.toUpperCase(Locale.ROOT);
        return INPUTS.containsKey(upper) || TIMED.containsKey(upper) || conversion(upper) != null;
    }

    /** All names but those of conversions. */
    static Set<String> names() {
        Set<String> names = new TreeSet<>(INPUTS.keySet());
        names.addAll(TIMED.keySet());
        return names;
    }

    // ---- conversions by name

    /** @param from null for any  @param how TO, TRUNC, ROUND, BCD_TO or TO_BCD */
    private record Conversion(Type from, Type to, String how) {
    }

    private static Conversion conversion(String name) {
        for (String how : List.of("_BCD_TO_", "_TO_BCD_", "_TRUNC_", "_ROUND_", "_TO_")) {
            int at = name.indexOf(how);
            if (at > 0) {
                Type from = Type.named(name.substring(0, at));
                Type to = Type.named(name.substring(at + how.length()));
                return from == null || to == null ? null : new Conversion(from, to, how.substring(1, how.length() - 1));
            }
        }
        for (String how : List.of("BCD_TO_", "TO_BCD_", "TRUNC_", "ROUND_", "TO_")) {
            if (name.startsWith(how) && Type.named(name.substring(how.length())) != null) {
                return new Conversion(null, Type.named(name.substring(how.length())), how.substring(0, how.length() - 1));
            }
        }
        return null;
    }

    // ---- calls

    /** @param wanted what the value is for, or null */
    Expression call(Call place, DataType wanted) {
        String name = place.function().toUpperCase(Locale.ROOT);
        Conversion conversion = conversion(name);
        List<String> inputs = conversion != null ? List.of("IN") : TIMED.containsKey(name) ? List.of("IN1", "IN2") : INPUTS.get(name);
        if (inputs == null) {
            place.arguments().stream().filter(Input.class::isInstance).forEach(a -> expressions.compile(((Input) a).value()));
            faults.at(place.functionPlace(), unknown(place.function()));
            return Expression.FAULTY;
        }
        Expression[] enabled = new Expression[1];
        List<Output> outputs = new ArrayList<>();
        if (name.equals("LOWER_BOUND") || name.equals("UPPER_BOUND") || name.equals("REF")) {
            return name.equals("REF") ? reference(place) : bound(place, name);
        }
        List<Given> given = given(place, name, inputs, enabled, outputs);
        if (given == null) {
            return Expression.FAULTY;
        }
        Expression result = conversion != null ? convert(place, name, conversion, given.get(0)) : TIMED.containsKey(name) ? timed(place, name, given) : made(place, name, given, wanted);
        if (result.faulty()) {
            return result;
        }
        return name.startsWith("SPLIT_") ? split(place, name, result, outputs, enabled[0]) : enabled(place, result, outputs, enabled[0], wanted);
    }

    private String unknown(String name) {
        if (project.unit(name) != null) {
            return name + " is no function: it cannot be called in an expression.";
        }
        Set<String> known = new TreeSet<>(names());
        project.units.values().stream().filter(u -> u.syntax.kind() == UnitSyntax.Kind.FUNCTION).forEach(u -> known.add(u.name()));
        String guess = Scope.guess(name, known);
        return "There is no function " + name + "." + (guess.isEmpty() ? " Declare it with FUNCTION, or use one of the standard's, such as LIMIT, SEL or INT_TO_LREAL." : guess);
    }

    /** What is given, in the order of the inputs; null where something is wrong, which has been told. @param enabled takes the value of EN */
    private List<Given> given(Call place, String name, List<String> inputs, Expression[] enabled, List<Output> outputs) {
        if (place.arguments().size() > MOST_VALUES) {
            faults.at(place, name + " takes at most " + MOST_VALUES + " values, not " + place.arguments().size() + ".");
            return null;
        }
        boolean open = inputs.get(inputs.size() - 1).endsWith("…");
        int first = inputs.size() - 1;
        String prefix = open ? inputs.get(first).substring(0, inputs.get(first).length() - 1) : "";
        int from = name.equals("MUX") ? 0 : 1;
        TreeMap<Integer, Given> given = new TreeMap<>();
        boolean faulty = false;
        boolean byName = place.arguments().stream().anyMatch(a -> a instanceof Input input && input.pin() != null);
        int position = 0;
        for (Argument argument : place.arguments()) {
            if (argument instanceof Output output) {
                outputs.add(output);
                continue;
            }
            Input input = (Input) argument;
            if (byName && input.pin() == null) {
                faults.at(input.place(), "Inputs are given all by name or all by their order: write the name of this one and := before it.");
                return null;
            }
            Expression value = expressions.compile(input.value());
            faulty |= value.faulty();
            if (input.pin() == null) {
                given.put(position++, new Given(value, input.value().place()));
                continue;
            }
            String pin = input.pin().toUpperCase(Locale.ROOT);
            if (pin.equals("EN")) {
                enabled[0] = expressions.convert(input.value().place(), value, Type.BOOL);
                faulty |= enabled[0].faulty();
                continue;
            }
            int index = inputs.indexOf(pin);
            if (index < 0 && open && pin.startsWith(prefix) && pin.substring(prefix.length()).matches("\\d{1,3}")) {
                index = first + Integer.parseInt(pin.substring(prefix.length())) - from;
            }
            if (index < 0) {
                faults.at(input.place(), name + " has no input " + input.pin() + ". It has: " + String.join(", ", shown(inputs, from)) + ".");
                return null;
            }
            if (given.put(index, new Given(value, input.value().place())) != null) {
                faults.at(input.place(), input.pin() + " is given twice in this call.");
                return null;
            }
        }
        int least = open ? name.equals("MUX") ? 2 : name.matches("AND|OR|XOR|ADD|MUL|MAX|MIN|CONCAT|GT|GE|EQ|LE|LT") ? 2 : 1 : inputs.size();
        boolean gaps = !given.isEmpty() && given.lastKey() != given.size() - 1;
        if (given.size() < least || !open && given.size() > inputs.size() || gaps) {
            faults.at(place, name + " takes " + (open ? least + " values or more" : count(least)) + ", not " + given.size() + ".");
            return null;
        }
        return faulty ? null : List.copyOf(given.values());
    }

    private static String count(int values) {
        return values + (values == 1 ? " value" : " values");
    }

    private static List<String> shown(List<String> inputs, int from) {
        return inputs.stream().map(i -> i.endsWith("…") ? i.substring(0, i.length() - 1) + from + ", " + i.substring(0, i.length() - 1) + (from + 1) + ", …" : i).toList();
    }

    /** EN and ENO: without EN the function is not worked out, and gives 0 or an empty text. */
    private Expression enabled(Call place, Expression worked, List<Output> outputs, Expression enabled, DataType wanted) {
        for (Output output : outputs) {
            if (!output.pin().equalsIgnoreCase("ENO")) {
                faults.at(output.pinPlace(), place.function() + " has no output " + output.pin() + " but ENO and its value.");
                return Expression.FAULTY;
            }
        }
        if (enabled == null && outputs.isEmpty()) {
            return worked;
        }
        /* it is no constant any more: it has a type of its own from here on */
        Expression result = worked.flexible() && !worked.kept().isText() ? expressions.convert(place.place(), worked, settled(List.of(new Given(worked, place.place())), wanted)) : worked;
        if (result.faulty()) {
            return result;
        }
        Address kept = project.hidden();
        Node on = new Node.Load(Node.Kind.BOOL, kept);
        List<Action> before = List.of(new Action.Store(0, kept, enabled == null ? new Node.Bool(true) : enabled.node()));
        Node zero = switch (result.node().kind()) {
            case WHOLE -> new Node.Whole(0);
            case BOOL -> new Node.Bool(false);
            case REAL -> new Node.Real(0);
            case TEXT -> new Node.Text("");
        };
        List<Action> after = new ArrayList<>();
        for (Output output : outputs) {
            Action taken = expressions.calls().taken(output, Expression.of(Type.BOOL, on));
            if (taken == null) {
                return Expression.FAULTY;
            }
            after.add(taken);
        }
        return Expression.of(result.type(), new Node.With(before, new Node.Choice(on, result.node(), zero), after));
    }

    // ---- which function

    private Expression made(Call place, String name, List<Given> given, DataType wanted) {
        for (Given value : given) {
            if (!value.value().type().isElementary()) {
                faults.at(value.place(), name + " takes single values, not " + value.value().type().written() + ".");
                return Expression.FAULTY;
            }
        }
        return switch (name) {
            case "ABS" -> absolute(place, given.get(0).value());
            case "SQRT", "LN", "LOG", "EXP", "SIN", "COS", "TAN", "ASIN", "ACOS", "ATAN", "ATAN2" -> real(place, name, given);
            case "EXPT" -> expressions.power(place, given.get(0).value(), given.get(1).value());
            case "ADD", "MUL", "SUB", "DIV", "MOD", "AND", "OR", "XOR" -> operator(place, name, given);
            case "NOT" -> not(place, given.get(0).value());
            case "MOVE" -> given.get(0).value();
            case "SHL", "SHR", "ROL", "ROR" -> shift(place, name, given);
            case "MIN", "MAX", "LIMIT" -> select(place, name, given);
            case "SEL" -> choose(place, given, wanted);
            case "MUX" -> pick(place, given, wanted);
            case "GT", "GE", "EQ", "LE", "LT", "NE" -> compare(place, name, given);
            case "LEN", "LEFT", "RIGHT", "MID", "CONCAT", "FIND", "INSERT", "DELETE", "REPLACE" -> text(place, name, given);
            case "TRUNC", "ROUND" -> whole(place, name, given.get(0), Type.DINT);
            case "DAY_OF_WEEK" -> dayOfWeek(place, given.get(0));
            case "IS_VALID" -> valid(place, given.get(0));
            case "IS_VALID_BCD" -> bits(place, name, given.get(0)) ? expressions.made(place.place(), Type.BOOL, false, Conversions.operation(Node.Kind.BOOL, "validBcd", given.get(0).value().node())) : Expression.FAULTY;
            case "TO_BIG_ENDIAN", "FROM_BIG_ENDIAN", "TO_LITTLE_ENDIAN", "FROM_LITTLE_ENDIAN" -> endian(place, name, given.get(0));
            default -> name.startsWith("SPLIT_") ? splitted(name, given.get(0)) : joinedTimes(place, name, given);
        };
    }

    private Expression absolute(Call place, Expression value) {
        Type type = value.kept();
        if (!type.isNumber() || value.type() instanceof EnumType) {
            faults.at(place, "ABS needs a number, not " + value.type().written() + ".");
            return Expression.FAULTY;
        }
        Node result = Conversions.operation(type.isReal() ? Node.Kind.REAL : Node.Kind.WHOLE, "absolute", value.node());
        boolean signed = type.family() == Type.Family.SIGNED;
        return expressions.made(place.place(), type, value.flexible(), type.isReal() ? result : signed ? Conversions.wrapped(type, result) : value.node());
    }

    private Expression real(Call place, String name, List<Given> given) {
        for (Given value : given) {
            if (!value.value().kept().isNumber()) {
                faults.at(place, name + " needs " + (given.size() == 1 ? "a number." : "numbers."));
                return Expression.FAULTY;
            }
        }
        Type type = given.stream().anyMatch(g -> g.value().kept() == Type.REAL) && given.stream().noneMatch(g -> g.value().kept() == Type.LREAL && !g.value().flexible()) ? Type.REAL : Type.LREAL;
        String method = switch (name) {
            case "SQRT" -> "squareRoot";
            case "LN" -> "logarithm";
            case "LOG" -> "decimalLogarithm";
            case "EXP" -> "exponential";
            case "SIN" -> "sine";
            case "COS" -> "cosine";
            case "TAN" -> "tangent";
            case "ASIN" -> "arcSine";
            case "ACOS" -> "arcCosine";
            default -> "arcTangent";
        };
        Node[] values = given.stream().map(g -> expressions.real(g.value())).toArray(Node[]::new);
        boolean flexible = given.stream().allMatch(g -> g.value().flexible());
        return expressions.made(place.place(), type, flexible, Conversions.single(type, Conversions.operation(Node.Kind.REAL, method, values)));
    }

    /** An operator by its name, for two values or more. */
    private Expression operator(Call place, String name, List<Given> given) {
        String operator = switch (name) {
            case "ADD" -> "+";
            case "SUB" -> "-";
            case "MUL" -> "*";
            case "DIV" -> "/";
            default -> name;
        };
        Expression result = given.get(0).value();
        Place first = given.get(0).place();
        for (Given next : given.subList(1, given.size())) {
            if (result.faulty()) {
                return result;
            }
            result = expressions.combine(place, first, next.place(), operator, result, next.value());
        }
        return result;
    }

    Expression not(ExpressionSyntax place, Expression value) {
        Type type = value.kept();
        if (type == null || !type.isBitString() || value.type() instanceof EnumType) {
            faults.at(place, "NOT needs BOOL or a bit string, not " + ExpressionCompiler.article(value) + ".");
            return Expression.FAULTY;
        }
        Node inverted = new Node.Inversion(value.node());
        return expressions.made(place.place(), type, false, type == Type.BOOL ? inverted : Conversions.wrapped(type, inverted));
    }

    private Expression shift(Call place, String name, List<Given> given) {
        Expression value = given.get(0).value();
        Expression by = given.get(1).value();
        Type type = value.kept();
        if (value.flexible() && value.isConstantWhole()) {
            faults.at(given.get(0).place(), name + " needs to know how many bits there are: write the type, such as WORD#16#00FF.");
            return Expression.FAULTY;
        }
        if (!type.isBitString()) {
            faults.at(given.get(0).place(), name + " needs a bit string, not " + value.type().written() + (type.isInteger() ? "; convert it with " + type + "_TO_" + bitString(type) + "." : "."));
            return Expression.FAULTY;
        }
        if (!by.kept().isInteger()) {
            faults.at(given.get(1).place(), name + " shifts by a whole number of places, not by " + ExpressionCompiler.article(by) + ".");
            return Expression.FAULTY;
        }
        String method = switch (name) {
            case "SHL" -> "shiftLeft";
            case "SHR" -> "shiftRight";
            case "ROL" -> "rotateLeft";
            default -> "rotateRight";
        };
        Node bits = type == Type.BOOL ? Constants.folded(new Node.AsWhole(value.node())) : value.node();
        Node shifted = Conversions.operation(Node.Kind.WHOLE, method, bits, by.node(), new Node.Whole(type.bits()));
        return expressions.made(place.place(), type, false, type == Type.BOOL ? Conversions.operation(Node.Kind.BOOL, "isOne", shifted) : shifted);
    }

    static Type bitString(Type type) {
        return switch (type.bits()) {
            case 8 -> Type.BYTE;
            case 16 -> Type.WORD;
            case 32 -> Type.DWORD;
            default -> Type.LWORD;
        };
    }

    // ---- selection and comparison

    /** The type that all of them widen to, or null. */
    private DataType common(Call place, List<Given> values) {
        DataType type = null;
        for (Given given : values) {
            Expression value = given.value();
            if (value.flexible()) {
                continue;
            }
            if (value.type() instanceof EnumType) {
                type = type == null || type.equals(value.type()) ? value.type() : null;
            } else if (type == null || type instanceof Type before && before.widensTo(value.kept())) {
                type = value.kept();
            }
        }
        if (type == null) {
            boolean texts = values.stream().anyMatch(v -> v.value().kept().isText());
            type = texts ? values.get(0).value().kept() : values.stream().anyMatch(v -> v.value().kept().isReal()) ? Type.LREAL
                    : values.stream().anyMatch(v -> v.value().kept() == Type.ULINT) ? Type.ULINT : Type.LINT;
        }
        if (type == Type.AXIS_REF) {
            faults.at(place, "This function does not take " + type.written() + ".");
            return null;
        }
        return type;
    }

    /** Literals among which something else chooses: the type that is wanted, or the smallest that holds them all. */
    private static Type settled(List<Given> literals, DataType wanted) {
        boolean real = literals.stream().anyMatch(v -> v.value().kept().isReal());
        Type asked = wanted == null ? null : wanted.elementary();
        if (asked != null && (asked.isReal() || !real && (asked.isInteger() || asked.isBitString() && asked != Type.BOOL))) {
            return asked;
        }
        if (real) {
            return Type.LREAL;
        }
        for (Type type : List.of(Type.INT, Type.DINT, Type.LINT)) {
            if (literals.stream().allMatch(v -> v.value().exact().compareTo(type.lowest()) >= 0 && v.value().exact().compareTo(type.highest()) <= 0)) {
                return type;
            }
        }
        return Type.ULINT;
    }

    /** All of them as one type, or null. */
    private List<Node> converted(List<Given> values, DataType type) {
        List<Node> result = new ArrayList<>();
        for (Given given : values) {
            Expression value = expressions.convert(given.place(), given.value(), type);
            if (value.faulty()) {
                return null;
            }
            result.add(value.node());
        }
        return result;
    }

    private static boolean flexible(List<Given> values) {
        return values.stream().allMatch(v -> v.value().flexible() && !v.value().kept().isText());
    }

    private Expression select(Call place, String name, List<Given> given) {
        DataType common = common(place, given);
        List<Node> values = common == null ? null : converted(given, common);
        if (values == null) {
            return Expression.FAULTY;
        }
        Type type = common.elementary();
        if (common instanceof EnumType) {
            faults.at(place, name + " does not take " + common.written() + ".");
            return Expression.FAULTY;
        }
        Node result;
        if (name.equals("LIMIT")) {
            result = extreme(type, false, extreme(type, true, values.get(0), values.get(1)), values.get(2));
        } else {
            result = values.get(0);
            for (Node next : values.subList(1, values.size())) {
                result = extreme(type, name.equals("MAX"), result, next);
            }
        }
        return expressions.made(place.place(), type, flexible(given), result);
    }

    private static Node extreme(Type type, boolean greater, Node a, Node b) {
        String method = greater ? "greater" : "smaller";
        Node.Kind kind = Expression.kind(type);
        Node result = switch (kind) {
            case REAL -> Conversions.operation(kind, method, a, b);
            case WHOLE -> Conversions.operation(kind, ExpressionCompiler.unsigned(type, method), a, b);
            case BOOL -> new Node.Operation(greater ? Node.Operator.OR : Node.Operator.AND, kind, a, b);
            case TEXT -> Conversions.invoke(kind, Texts.class, method, a, b);
        };
        return Constants.folded(result);
    }

    private Expression choose(Call place, List<Given> given, DataType wanted) {
        Expression which = expressions.convert(given.get(0).place(), given.get(0).value(), Type.BOOL);
        List<Given> values = given.subList(1, 3);
        DataType type = flexible(values) && which.constant() == null ? settled(values, wanted) : common(place, values);
        List<Node> nodes = type == null ? null : converted(values, type);
        if (which.faulty() || nodes == null) {
            return Expression.FAULTY;
        }
        return expressions.made(place.place(), type, flexible(values) && which.constant() != null, new Node.Choice(which.node(), nodes.get(1), nodes.get(0)));
    }

    private Expression pick(Call place, List<Given> given, DataType wanted) {
        Expression which = given.get(0).value();
        if (!which.kept().isInteger()) {
            faults.at(given.get(0).place(), "MUX selects by a whole number, not by " + ExpressionCompiler.article(which) + ".");
            return Expression.FAULTY;
        }
        List<Given> values = given.subList(1, given.size());
        DataType type = flexible(values) && which.constant() == null ? settled(values, wanted) : common(place, values);
        List<Node> nodes = type == null ? null : converted(values, type);
        return nodes == null ? Expression.FAULTY : expressions.made(place.place(), type, flexible(values) && which.constant() != null, new Node.Pick(which.node(), nodes));
    }

    /** Each value against the next: GT(a, b, c) is a > b AND b > c. */
    private Expression compare(Call place, String name, List<Given> given) {
        String operator = switch (name) {
            case "GT" -> ">";
            case "GE" -> ">=";
            case "LE" -> "<=";
            case "LT" -> "<";
            case "EQ" -> "=";
            default -> "<>";
        };
        Expression result = null;
        for (int i = 0; i + 1 < given.size(); i++) {
            Expression pair = expressions.combine(place, given.get(i).place(), given.get(i + 1).place(), operator, given.get(i).value(), given.get(i + 1).value());
            result = result == null || pair.faulty() ? pair : expressions.combine(place, place.place(), place.place(), "AND", result, pair);
            if (result.faulty()) {
                return result;
            }
        }
        return result;
    }

    // ---- texts

    private Expression text(Call place, String name, List<Given> given) {
        int texts = switch (name) {
            case "CONCAT" -> given.size();
            case "FIND", "INSERT", "REPLACE" -> 2;
            default -> 1;
        };
        Type type = given.subList(0, texts).stream().anyMatch(g -> g.value().kept() == Type.WSTRING) ? Type.WSTRING : Type.STRING;
        Node[] values = new Node[given.size()];
        for (int i = 0; i < values.length; i++) {
            Expression value = expressions.convert(given.get(i).place(), given.get(i).value(), i < texts ? type : Type.LINT);
            if (value.faulty()) {
                return value;
            }
            values[i] = value.node();
        }
        Node result = switch (name) {
            case "LEN" -> Conversions.invoke(Node.Kind.WHOLE, Texts.class, "length", values);
            case "FIND" -> new Node.Invoke(Node.Kind.WHOLE, Texts.class, "find", true, List.of(values));
            case "LEFT" -> Conversions.invoke(Node.Kind.TEXT, Texts.class, "left", values);
            case "RIGHT" -> Conversions.invoke(Node.Kind.TEXT, Texts.class, "right", values);
            case "MID" -> Conversions.invoke(Node.Kind.TEXT, Texts.class, "middle", values);
            case "CONCAT" -> Arrays.stream(values).reduce((a, b) -> Constants.folded(new Node.Invoke(Node.Kind.TEXT, Texts.class, "joined", true, List.of(a, b)))).orElseThrow();
            default -> new Node.Invoke(Node.Kind.TEXT, Texts.class, name.equals("INSERT") ? "inserted" : name.equals("DELETE") ? "deleted" : "replaced", true, List.of(values));
        };
        return expressions.made(place.place(), result.kind() == Node.Kind.TEXT ? type : Type.INT, false, result);
    }

    // ---- conversions

    private Expression convert(Call place, String name, Conversion conversion, Given given) {
        Expression value = given.value();
        if (!value.type().isElementary()) {
            faults.at(given.place(), name + " takes a single value, not " + value.type().written() + ".");
            return Expression.FAULTY;
        }
        Type to = conversion.to();
        if (conversion.from() != null) {
            if (conversion.how().equals("TO") && !Conversions.exists(conversion.from(), to)) {
                return noConversion(place, conversion.from(), to);
            }
            value = expressions.convert(given.place(), value, conversion.from());
            if (value.faulty()) {
                return value;
            }
        }
        Type from = value.kept();
        return switch (conversion.how()) {
            case "TRUNC", "ROUND" -> whole(place, conversion.how(), new Given(value, given.place()), to);
            case "BCD_TO" -> fromBcd(place, name, new Given(value, given.place()), to);
            case "TO_BCD" -> toBcd(place, name, new Given(value, given.place()), to);
            default -> {
                if (!Conversions.exists(from, to)) {
                    yield noConversion(place, from, to);
                }
                if (value.flexible() && value.isConstantWhole() && to.isReal()) {
                    yield Expression.real(to, false, to == Type.REAL ? (float) value.exact().doubleValue() : value.exact().doubleValue());
                }
                yield from == to ? value.as(to) : expressions.made(place.place(), to, false, Conversions.cast(value.node(), from, to));
            }
        };
    }

    private Expression noConversion(Call place, Type from, Type to) {
        boolean bits = from.isBitString() && to.isReal() || to.isBitString() && from.isReal();
        faults.at(place, from + " cannot be converted to " + to + (bits ? "; only DWORD and REAL, LWORD and LREAL are, bit for bit. Go by way of a whole number, such as UINT." : "."));
        return Expression.FAULTY;
    }

    /** A real number without its fraction: cut toward zero, or rounded half to even. */
    private Expression whole(Call place, String how, Given given, Type to) {
        if (!given.value().kept().isReal() && !(given.value().flexible() && given.value().isConstantWhole()) || !to.isInteger()) {
            faults.at(given.place(), how + " makes a whole number of a REAL or LREAL, not " + to + " of " + ExpressionCompiler.article(given.value()) + ".");
            return Expression.FAULTY;
        }
        Node cut = Conversions.operation(Node.Kind.WHOLE, how.equals("TRUNC") ? "truncated" : "rounded", expressions.real(given.value()));
        return expressions.made(place.place(), to, false, Conversions.wrapped(to, cut));
    }

    private boolean bits(Call place, String name, Given given) {
        Type type = given.value().kept();
        if (given.value().flexible() || !type.isBitString() || type == Type.BOOL) {
            faults.at(given.place(), name + " takes BYTE, WORD, DWORD or LWORD, not " + ExpressionCompiler.article(given.value()) + ".");
            return false;
        }
        return true;
    }

    private Expression fromBcd(Call place, String name, Given given, Type to) {
        if (!bits(place, name, given)) {
            return Expression.FAULTY;
        }
        if (to.family() != Type.Family.UNSIGNED && !to.isInteger()) {
            faults.at(place, name + " gives a whole number, not " + to + ".");
            return Expression.FAULTY;
        }
        return expressions.made(place.place(), to, false, Conversions.wrapped(to, Conversions.operation(Node.Kind.WHOLE, "fromBcd", given.value().node())));
    }

    private Expression toBcd(Call place, String name, Given given, Type to) {
        if (!given.value().kept().isInteger() || !to.isBitString() || to == Type.BOOL) {
            faults.at(given.place(), name + " makes BYTE, WORD, DWORD or LWORD of a whole number, not " + to + " of " + ExpressionCompiler.article(given.value()) + ".");
            return Expression.FAULTY;
        }
        return expressions.made(place.place(), to, false, Conversions.operation(Node.Kind.WHOLE, "toBcd", given.value().node(), new Node.Whole(to.bits())));
    }

    private Expression valid(Call place, Given given) {
        if (!given.value().kept().isReal()) {
            faults.at(given.place(), "IS_VALID takes REAL or LREAL, not " + ExpressionCompiler.article(given.value()) + ".");
            return Expression.FAULTY;
        }
        return expressions.made(place.place(), Type.BOOL, false, Conversions.operation(Node.Kind.BOOL, "finite", given.value().node()));
    }

    /** This PLC keeps the lowest byte first, as the process data of its buses do. */
    private Expression endian(Call place, String name, Given given) {
        Type type = given.value().kept();
        if (given.value().flexible() || type.isReal() || type.isText() || type == Type.BOOL || type == Type.AXIS_REF) {
            faults.at(given.place(), name + " takes a whole number or a bit string with its type, not " + ExpressionCompiler.article(given.value()) + ".");
            return Expression.FAULTY;
        }
        if (name.endsWith("LITTLE_ENDIAN") || type.bits() == 8) {
            return given.value();
        }
        Node reversed = Conversions.operation(Node.Kind.WHOLE, "reversed", given.value().node(), new Node.Whole(type.bits()));
        return expressions.made(place.place(), type, false, Conversions.wrapped(type, reversed));
    }

    // ---- times

    private Expression timed(Call place, String name, List<Given> given) {
        List<Type> types = TIMED.get(name);
        List<Expression> values = new ArrayList<>();
        for (int i = 0; i < types.size(); i++) {
            if (!given.get(i).value().type().isElementary()) {
                faults.at(given.get(i).place(), name + " takes single values, not " + given.get(i).value().type().written() + ".");
                return Expression.FAULTY;
            }
            Expression value = expressions.convert(given.get(i).place(), given.get(i).value(), types.get(i));
            if (value.faulty()) {
                return value;
            }
            values.add(value);
        }
        if (name.startsWith("MUL_") || name.startsWith("DIV_")) {
            Expression by = given.get(1).value();
            if (!by.type().isElementary() || !by.kept().isNumber()) {
                faults.at(given.get(1).place(), name + " takes a number, not " + by.type().written() + ".");
                return Expression.FAULTY;
            }
            return expressions.made(place.place(), types.get(0), false, ExpressionCompiler.scaled(name.startsWith("MUL_"), values.get(0).node(), by));
        }
        boolean plus = name.startsWith("ADD_");
        Type type = ExpressionCompiler.sumOfTimes(plus, types.get(0), types.get(1));
        return expressions.made(place.place(), type, false, ExpressionCompiler.timeSum(plus, type, types.get(0), values.get(0).node(), values.get(1).node()));
    }

    private Expression dayOfWeek(Call place, Given given) {
        Type family = given.value().kept();
        if (family.family() != Type.Family.DATE) {
            faults.at(given.place(), "DAY_OF_WEEK takes a DATE, not " + ExpressionCompiler.article(given.value()) + ".");
            return Expression.FAULTY;
        }
        return expressions.made(place.place(), Type.INT, false, Conversions.invoke(Node.Kind.WHOLE, Times.class, "dayOfWeek", given.value().node()));
    }

    /** A date, a time of day or both from their parts. */
    private Expression joinedTimes(Call place, String name, List<Given> given) {
        String l = name.contains("_LTOD") || name.contains("_LDT") ? "L" : "";
        if (name.startsWith("CONCAT_DATE_")) {
            Expression date = expressions.convert(given.get(0).place(), given.get(0).value(), Type.DATE);
            Expression time = expressions.convert(given.get(1).place(), given.get(1).value(), Type.named(l + "TOD"));
            return date.faulty() || time.faulty() ? Expression.FAULTY
                    : expressions.made(place.place(), Type.named(l + "DT"), false, new Node.Operation(Node.Operator.ADD, Node.Kind.WHOLE, date.node(), time.node()));
        }
        List<Node> parts = converted(given, Type.LINT);
        if (parts == null) {
            return Expression.FAULTY;
        }
        boolean dated = parts.size() != 4;
        Node date = dated ? Constants.folded(Conversions.invoke(Node.Kind.WHOLE, Times.class, "date", parts.subList(0, 3).toArray(Node[]::new))) : null;
        Node time = parts.size() == 3 ? null : Constants.folded(Conversions.invoke(Node.Kind.WHOLE, Times.class, "timeOfDay", parts.subList(parts.size() - 4, parts.size()).toArray(Node[]::new)));
        Type type = date == null ? Type.named(l + "TOD") : time == null ? Type.DATE : Type.named(l + "DT");
        return expressions.made(place.place(), type, false, date == null ? time : time == null ? date : new Node.Operation(Node.Operator.ADD, Node.Kind.WHOLE, date, time));
    }

    private Expression splitted(String name, Given given) {
        return expressions.convert(given.place(), given.value(), Type.named(name.substring("SPLIT_".length())));
    }

    /** SPLIT_DT(IN := now, YEAR => y, …): each part goes to the variable that takes it. */
    private Expression split(Call place, String name, Expression value, List<Output> outputs, Expression enabled) {
        List<String> parts = name.endsWith("DATE") ? DATE_PARTS : name.endsWith("TOD") ? TIME_PARTS : Stream.concat(DATE_PARTS.stream(), TIME_PARTS.stream()).toList();
        Address kept = project.hidden();
        List<Action> before = List.of(new Action.Store(0, kept, value.node()));
        List<Action> after = new ArrayList<>();
        Set<String> given = new HashSet<>();
        for (Output output : outputs) {
            String part = output.pin().toUpperCase(Locale.ROOT);
            if (!parts.contains(part)) {
                faults.at(output.pinPlace(), name + " has no output " + output.pin() + ". It has: " + String.join(", ", parts) + "." + Scope.guess(output.pin(), parts));
                return Expression.FAULTY;
            }
            if (!given.add(part)) {
                faults.at(output.pinPlace(), output.pin() + " is taken twice in this call.");
                return Expression.FAULTY;
            }
            String method = part.equals("DAY") ? "dayOfMonth" : part.toLowerCase(Locale.ROOT);
            Action taken = expressions.calls().taken(output, Expression.of(Type.INT, Conversions.invoke(Node.Kind.WHOLE, Times.class, method, new Node.Load(Node.Kind.WHOLE, kept))));
            if (taken == null) {
                return Expression.FAULTY;
            }
            after.add(taken);
        }
        if (enabled != null) {
            faults.at(place, "Not supported yet: EN of " + name + ".");
            return Expression.FAULTY;
        }
        return Expression.of(Type.BOOL, new Node.With(before, new Node.Bool(true), after));
    }

    // ---- places

    /** REF(x): where a variable lies. */
    private Expression reference(Call place) {
        if (place.arguments().size() != 1 || !(place.arguments().get(0) instanceof Input input)) {
            faults.at(place, "REF takes one variable.");
            return Expression.FAULTY;
        }
        Target target = expressions.names().find(input.value());
        if (target == null) {
            return Expression.FAULTY;
        }
        if (target.part() != null || target.constant() != null) {
            faults.at(input.value(), target.name() + " has no place of its own that could be referred to.");
            return Expression.FAULTY;
        }
        if (target.refusal() != null) {
            faults.at(input.value(), "A reference could change " + target.name() + ", which cannot be: " + target.refusal() + ".");
            return Expression.FAULTY;
        }
        expressions.names().written(input.value(), target);
        return Expression.of(new ReferenceType(target.type()), new Node.Place(target.address()));
    }

    /** LOWER_BOUND(a, 1): a bound of an array, also of one of any length. */
    private Expression bound(Call place, String name) {
        List<Input> inputs = place.arguments().stream().filter(Input.class::isInstance).map(Input.class::cast).toList();
        if (inputs.size() != 2 || place.arguments().size() != 2) {
            faults.at(place, name + " takes an array and the number of a dimension, from 1.");
            return Expression.FAULTY;
        }
        Input array = inputs.stream().filter(i -> "ARR".equalsIgnoreCase(i.pin())).findFirst().orElse(inputs.get(0));
        Input dimension = inputs.stream().filter(i -> "DIM".equalsIgnoreCase(i.pin())).findFirst().orElse(inputs.get(1));
        Target target = expressions.names().find(array.value());
        Expression number = expressions.compile(dimension.value());
        if (target == null || number.faulty()) {
            return Expression.FAULTY;
        }
        if (!(target.type() instanceof ArrayType type)) {
            faults.at(array.value(), name + " takes an array, not " + target.type().written() + ".");
            return Expression.FAULTY;
        }
        int dimensions = type.bounds().size();
        if (!number.isConstantWhole() || number.exact().signum() <= 0 || number.exact().bitLength() > 30 || number.exact().intValue() > dimensions) {
            faults.at(dimension.value(), "The number of a dimension is a constant, 1 to " + dimensions + ".");
            return Expression.FAULTY;
        }
        int d = number.exact().intValue() - 1;
        boolean upper = name.startsWith("UPPER");
        if (type.open()) {
            return Expression.of(Type.DINT, Names.bound(target, 1 + 2 * d + (upper ? 1 : 0)));
        }
        ArrayType.Bound bound = type.bounds().get(d);
        return Expression.untyped(BigInteger.valueOf(upper ? bound.high() : bound.low()));
    }
}
