package rueda.proof.temporal;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.function.Function;
import rueda.plc.Language;
import rueda.plc.syntax.Complaints;
import rueda.plc.syntax.ExpressionSyntax;
import rueda.plc.syntax.ExpressionSyntax.Binary;
import rueda.plc.syntax.ExpressionSyntax.Call;
import rueda.plc.syntax.ExpressionSyntax.Literal;
import rueda.plc.syntax.ExpressionSyntax.Unary;
import rueda.plc.syntax.Parser;
import rueda.plc.syntax.Place;
import rueda.plc.syntax.StatementSyntax;
import rueda.plc.syntax.Words;
import rueda.plc.syntax.WrittenExpression;
import rueda.plc.type.Type;
import rueda.proof.temporal.Formula.Comparison;

/**
 * Reads a sentence: an expression in Structured Text over the signals of a run, with functions for what happens over time.
 * <pre>
 *   ALWAYS(x)              at every instant             ALWAYS(x, T#2s)         for the next 2 s      ALWAYS(x, T#1s, T#2s)   from 1 s to 2 s on
 *   EVENTUALLY(x)          at some time                 EVENTUALLY(x, T#2s)     within 2 s            EVENTUALLY(x, T#1s, T#2s)
 *   HOLDS_UNTIL(x, y)      x until y, which comes   HOLDS_UNTIL(x, y, T#2s)   within 2 s          HOLDS_UNTIL(x, y, T#1s, T#2s)
 *   WHENEVER(x, y, T#2s)   each time x becomes true, y holds at some time within 2 s
 *   RISES(x), FALLS(x)     x has just become true, or false
 * </pre>
 * A sentence without any of these is one about the beginning of the run. Speaks of faults as the compiler does.
 */
public final class SentenceReader {

    private static final int LONGEST = 1000;
    private static final Set<String> FUNCTIONS = new TreeSet<>(List.of("ALWAYS", "EVENTUALLY", "HOLDS_UNTIL", "WHENEVER", "RISES", "FALLS", "ABS", "SQRT", "MIN", "MAX"));
    private static final Map<String, Comparison> COMPARISONS = Map.of("<", Comparison.LESS, "<=", Comparison.AT_MOST, ">", Comparison.GREATER, ">=", Comparison.AT_LEAST, "=", Comparison.EQUAL, "<>", Comparison.DIFFERENT);
    private static final Map<String, Term.Operation> OPERATIONS = Map.of("+", Term.Operation.PLUS, "-", Term.Operation.MINUS, "*", Term.Operation.TIMES, "/", Term.Operation.DIVIDED);

    /** What an expression is: a number with a unit, or something that holds or not. */
    private sealed interface Meaning {
    }

    /** @param unit empty for none that is known  @param seconds its value where it is a literal of TIME, else NaN  @param values names of its values */
    private record Number(Term term, String unit, double seconds, Map<String, Long> values) implements Meaning {
        Number(Term term, String unit) {
            this(term, unit, Double.NaN, Map.of());
        }
    }

    private record Truth(Formula formula) implements Meaning {
    }

    /** It has been told what is wrong. */
    private static final class Faulty extends RuntimeException {
        Faulty() {
            super(null, null, false, false);
        }
    }

    private final Names names;
    private final List<Sentence.Fault> faults = new ArrayList<>();

    private SentenceReader(Names names) {
        this.names = names;
    }

    /** Functions that a sentence may have, in their order. */
    public static List<String> functions() {
        return List.copyOf(FUNCTIONS);
    }

    public static Sentence read(String text, Names names) {
        SentenceReader reader = new SentenceReader(names);
        Formula formula = reader.reading(text, reader::truth);
        return new Sentence(formula, List.copyOf(reader.faults));
    }

    /** One about a single instant: none of the functions for what happens over time. */
    public static Sentence instant(String text, Names names) {
        SentenceReader reader = new SentenceReader(names);
        Formula formula = reader.reading(text, written -> {
            Formula read = reader.truth(written);
            if (!read.instant()) {
                throw reader.fault(written.place(), "This is about what happens over time; here stands what holds at one instant, such as Shuttle.position > 100.");
            }
            return read;
        });
        return new Sentence(formula, List.copyOf(reader.faults));
    }

    /** A number made of signals. */
    public static Value number(String text, Names names) {
        SentenceReader reader = new SentenceReader(names);
        Number number = reader.reading(text, reader::number);
        return number == null ? new Value(null, "", List.copyOf(reader.faults)) : new Value(number.term(), number.unit(), List.of());
    }

    /** @param meaning what is made of the expression; null comes back when there is a fault */
    private <T> T reading(String text, Function<ExpressionSyntax, T> meaning) {
        if (text.length() > LONGEST) {
            faults.add(new Sentence.Fault(1, "A sentence has at most " + LONGEST + " characters, this one has " + text.length() + "."));
            return null;
        }
        ExpressionSyntax written = Parser.expression(text, new Complaints() {
            @Override
            public void at(Place place, String message) {
                faults.add(new Sentence.Fault(place.column(), message));
            }

            @Override
            public boolean full() {
                return !faults.isEmpty();
            }
        });
        if (written == null || !faults.isEmpty()) {
            return null;
        }
        try {
            return meaning.apply(written);
        } catch (Faulty told) {
            return null;
        }
    }

    private Faulty fault(Place place, String message) {
        faults.add(new Sentence.Fault(place.column(), message));
        return new Faulty();
    }

    private Formula truth(ExpressionSyntax written) {
        if (meaning(written) instanceof Truth truth) {
            return truth.formula();
        }
        throw fault(written.place(), WrittenExpression.of(written) + " is a number: compare it with something, such as " + WrittenExpression.of(written) + " < 10.");
    }

    private Number number(ExpressionSyntax written) {
        if (meaning(written) instanceof Number number) {
            return number;
        }
        throw fault(written.place(), WrittenExpression.of(written) + " is true or false, not a number.");
    }

    private Meaning meaning(ExpressionSyntax written) {
        if (written instanceof Literal literal) {
            return literal(literal);
        } else if (written instanceof Unary unary) {
            return unary(unary);
        } else if (written instanceof Binary binary) {
            return binary(binary);
        } else if (written instanceof Call call) {
            return call(call);
        } else if (written instanceof ExpressionSyntax.Name || written instanceof ExpressionSyntax.Element || written instanceof ExpressionSyntax.Member) {
            return named(written);
        }
        throw fault(written.place(), "A sentence is made of signals, numbers, comparisons and AND, OR, NOT; " + WrittenExpression.of(written) + " is none of these.");
    }

    private Meaning literal(Literal literal) {
        try {
            Language.Value value = Language.value(literal.text());
            return value.type() == Type.BOOL ? new Truth(new Formula.Bit(new Term.Constant(value.number()), literal.text()))
                    : value.type().isDuration() ? new Number(new Term.Constant(value.number()), "s", value.number(), Map.of()) : new Number(new Term.Constant(value.number()), "");
        } catch (IllegalArgumentException none) {
            throw fault(literal.place(), none.getMessage());
        }
    }

    private Meaning named(ExpressionSyntax written) {
        String name = WrittenExpression.of(written).replace(" ", "");
        Optional<Names.Named> found = names.find(name);
        if (found.isEmpty()) {
            throw fault(written.place(), "No signal is called " + name + "." + Words.nearest(name, names.all()).map(nearest -> " Did you mean " + nearest + "?").orElse(""));
        }
        Term term = new Term.Signal(found.get().number());
        return found.get().bit() ? new Truth(new Formula.Bit(term, name)) : new Number(term, found.get().unit(), Double.NaN, found.get().values());
    }

    private Meaning unary(Unary unary) {
        if (unary.operator().equals("NOT")) {
            return new Truth(new Formula.Not(truth(unary.operand())));
        }
        Number of = number(unary.operand());
        return unary.operator().equals("-") ? new Number(new Term.Applied(Term.Function.MINUS, of.term()), of.unit(), -of.seconds(), Map.of()) : of;
    }

    private Meaning binary(Binary binary) {
        String operator = binary.operator();
        if (COMPARISONS.containsKey(operator)) {
            return compared(binary, COMPARISONS.get(operator));
        } else if (OPERATIONS.containsKey(operator)) {
            return calculated(binary, OPERATIONS.get(operator));
        }
        Formula left = truth(binary.left());
        Formula right = truth(binary.right());
        return switch (operator) {
            case "AND", "&" -> new Truth(new Formula.And(left, right));
            case "OR" -> new Truth(new Formula.Or(left, right));
            case "XOR" -> new Truth(different(left, right));
            default -> throw fault(binary.operatorPlace(), operator + " is not for sentences: + − * /, comparisons, AND, OR, XOR and NOT are.");
        };
    }

    private static Formula different(Formula left, Formula right) {
        return new Formula.Or(new Formula.And(left, new Formula.Not(right)), new Formula.And(new Formula.Not(left), right));
    }

    private Meaning calculated(Binary binary, Term.Operation operation) {
        Number left = number(binary.left());
        Number right = number(binary.right());
        Term term = new Term.Combined(operation, left.term(), right.term());
        if (operation == Term.Operation.PLUS || operation == Term.Operation.MINUS) {
            return new Number(term, common(binary.operatorPlace(), left, right, "added to"));
        }
        boolean times = left.unit().isEmpty() && operation == Term.Operation.TIMES;
        return new Number(term, right.unit().isEmpty() ? left.unit() : times ? right.unit() : "");
    }

    /** The unit of both; numbers without one go with any. */
    private String common(Place place, Number left, Number right, String what) {
        if (!left.unit().isEmpty() && !right.unit().isEmpty() && !left.unit().equals(right.unit())) {
            throw fault(place, left.unit() + " cannot be " + what + " " + right.unit() + ".");
        }
        return left.unit().isEmpty() ? right.unit() : left.unit();
    }

    private Meaning compared(Binary binary, Comparison comparison) {
        String written = WrittenExpression.of(binary);
        Meaning left = valued(binary.left(), binary.right());
        Meaning right = valued(binary.right(), binary.left());
        if (left instanceof Truth one && right instanceof Truth other && (comparison == Comparison.EQUAL || comparison == Comparison.DIFFERENT)) {
            Formula different = different(one.formula(), other.formula());
            return new Truth(comparison == Comparison.DIFFERENT ? different : new Formula.Not(different));
        }
        if (left instanceof Number one && right instanceof Number other) {
            String unit = common(binary.operatorPlace(), one, other, "compared with");
            return new Truth(new Formula.Compared(one.term(), comparison, other.term(), written, unit));
        }
        throw fault(binary.operatorPlace(), written + " compares a number with what is true or false.");
    }

    /** A name that is none of a signal may be one of the values of the other side: those of an enumeration. */
    private Meaning valued(ExpressionSyntax written, ExpressionSyntax other) {
        boolean unknown = written instanceof ExpressionSyntax.Name name && names.find(name.path()).isEmpty();
        if (unknown && meaning(other) instanceof Number number) {
            for (Map.Entry<String, Long> value : number.values().entrySet()) {
                if (value.getKey().equalsIgnoreCase(WrittenExpression.of(written))) {
                    return new Number(new Term.Constant(value.getValue()), "");
                }
            }
        }
        return meaning(written);
    }

    // ---- functions

    private Meaning call(Call call) {
        String function = call.function().toUpperCase(Locale.ROOT);
        List<ExpressionSyntax> given = new ArrayList<>();
        for (StatementSyntax.Argument argument : call.arguments()) {
            if (!(argument instanceof StatementSyntax.Input input) || input.pin() != null) {
                throw fault(call.place(), function + " takes its values in order, without names.");
            }
            given.add(input.value());
        }
        return switch (function) {
            case "ALWAYS" -> new Truth(new Formula.Globally(window(call, given, 1), truth(given.get(0))));
            case "EVENTUALLY" -> new Truth(new Formula.Eventually(window(call, given, 1), truth(given.get(0))));
            case "HOLDS_UNTIL" -> {
                Window window = window(call, given, 2);
                yield new Truth(new Formula.Until(truth(given.get(0)), window, truth(given.get(1))));
            }
            case "WHENEVER" -> {
                count(call, given, 3, 3, "what becomes true, what must hold then, and within what time");
                Formula then = new Formula.Eventually(new Window(0, seconds(given.get(2))), truth(given.get(1)));
                yield new Truth(new Formula.Globally(Window.ALWAYS, new Formula.Or(new Formula.Not(new Formula.Rises(truth(given.get(0)))), then)));
            }
            case "RISES", "FALLS" -> {
                count(call, given, 1, 1, "what becomes true or false");
                Formula of = truth(given.get(0));
                yield new Truth(new Formula.Rises(function.equals("RISES") ? of : new Formula.Not(of)));
            }
            case "ABS", "SQRT" -> {
                count(call, given, 1, 1, "a number");
                Number of = number(given.get(0));
                yield new Number(new Term.Applied(Term.Function.valueOf(function), of.term()), function.equals("ABS") ? of.unit() : "");
            }
            case "MIN", "MAX" -> extreme(call, given, Term.Operation.valueOf(function));
            default -> throw fault(call.functionPlace(), call.function() + " is not for sentences." + Words.nearest(function, FUNCTIONS).map(n -> " Did you mean " + n + "?").orElse("") + " There are: " + String.join(", ", FUNCTIONS) + ".");
        };
    }

    private Number extreme(Call call, List<ExpressionSyntax> given, Term.Operation operation) {
        count(call, given, 2, Integer.MAX_VALUE, "two numbers or more");
        Number result = number(given.get(0));
        for (ExpressionSyntax more : given.subList(1, given.size())) {
            Number next = number(more);
            result = new Number(new Term.Combined(operation, result.term(), next.term()), common(more.place(), result, next, "compared with"));
        }
        return result;
    }

    private void count(Call call, List<ExpressionSyntax> given, int least, int most, String what) {
        if (given.size() < least || given.size() > most) {
            throw fault(call.place(), call.function().toUpperCase(Locale.ROOT) + " takes " + what + ", not " + (given.isEmpty() ? "nothing" : given.size() == 1 ? "one value" : given.size() + " values") + ".");
        }
    }

    /** The times behind what it is about: none, up to when, or from when to when. */
    private Window window(Call call, List<ExpressionSyntax> given, int about) {
        count(call, given, about, about + 2, (about == 1 ? "what must hold" : "what holds until, and what comes then") + ", and up to two times");
        if (given.size() == about) {
            return Window.ALWAYS;
        }
        double first = seconds(given.get(about));
        if (given.size() == about + 1) {
            return new Window(0, first);
        }
        double second = seconds(given.get(about + 1));
        if (second < first) {
            throw fault(given.get(about + 1).place(), "The second time is not before the first one: write them the other way round.");
        }
        return new Window(first, second);
    }

    private double seconds(ExpressionSyntax written) {
        double seconds = number(written).seconds();
        if (!(seconds >= 0)) {
            throw fault(written.place(), WrittenExpression.of(written) + " is no time: write one such as T#500ms.");
        }
        return seconds;
    }
}
