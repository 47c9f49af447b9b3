package rueda.quantity;

import java.util.OptionalDouble;
import javax.measure.IncommensurableException;
import javax.measure.Unit;
import org.antlr.v4.runtime.BailErrorStrategy;
import org.antlr.v4.runtime.BaseErrorListener;
import org.antlr.v4.runtime.CharStreams;
import org.antlr.v4.runtime.CommonTokenStream;
import org.antlr.v4.runtime.RecognitionException;
import org.antlr.v4.runtime.Recognizer;
import org.antlr.v4.runtime.misc.ParseCancellationException;
import rueda.quantity.grammar.EntryTextLexer;
import rueda.quantity.grammar.EntryTextParser;
import rueda.quantity.grammar.EntryTextParser.CalculationContext;
import rueda.quantity.grammar.EntryTextParser.EntryContext;
import rueda.quantity.grammar.EntryTextParser.ExpressionContext;
import rueda.quantity.grammar.EntryTextParser.NumberContext;
import rueda.quantity.grammar.EntryTextParser.ParenthesisContext;
import rueda.quantity.grammar.EntryTextParser.SignContext;
import tech.units.indriya.AbstractUnit;

/**
 * What is typed into a field: a calculation, and a unit when it is not the field's own, such as {@code 2.5 in} or
 * {@code (40+2)/2}. Units are converted by the units library.
 */
public final class TypedEntry {

    /** Longer calculations belong elsewhere; at this length even nothing but parentheses fits any stack. */
    private static final int LONGEST = 200;

    private TypedEntry() {
    }

    /**
     * The value of an entry in the unit of its field.
     *
     * @param text what was typed
     * @param unit the field's unit, such as mm/s²; empty for none
     * @throws InvalidEntry when it cannot be read or its unit does not convert
     */
    public static double value(String text, String unit) {
        if (text.length() > LONGEST) {
            throw refused(text.substring(0, 40) + "…", "up to " + LONGEST + " characters", "shorten it");
        }
        EntryContext entry = parsed(text);
        double value = calculated(entry.expression());
        if (!Double.isFinite(value)) {
            throw refused(text, "a number that is finite", "look for a division by zero");
        }
        return entry.unit() == null || entry.unit().getText().equals(unit) ? value : converted(value, text, entry.unit().getText(), unit);
    }

    /**
     * How many of one unit are in one of another, such as 1000 of m/s in mm/s.
     *
     * @return empty when one of them is unknown here, or they measure different things
     */
    public static OptionalDouble factor(String from, String to) {
        if (from.equals(to)) {
            return OptionalDouble.of(1);
        }
        Unit<?> given = unit(from);
        Unit<?> wanted = unit(to);
        if (given == null || wanted == null || from.isEmpty() || to.isEmpty() || !given.isCompatible(wanted)) {
            return OptionalDouble.empty();
        }
        try {
            return OptionalDouble.of(given.getConverterToAny(wanted).convert(1));
        } catch (IncommensurableException different) {
            return OptionalDouble.empty();
        }
    }

    private static EntryContext parsed(String text) {
        EntryTextLexer lexer = new EntryTextLexer(CharStreams.fromString(text.replace('\u2212', '-')));
        lexer.removeErrorListeners();
        lexer.addErrorListener(new BaseErrorListener() {
            @Override
            public void syntaxError(Recognizer<?, ?> recognizer, Object symbol, int line, int column, String message, RecognitionException cause) {
                throw new ParseCancellationException(message);
            }
        });
        EntryTextParser parser = new EntryTextParser(new CommonTokenStream(lexer));
        parser.removeErrorListeners();
        parser.setErrorHandler(new BailErrorStrategy());
        try {
            return parser.entry();
        } catch (ParseCancellationException unreadable) {
            throw refused(text, "a number, a calculation such as 3*120, or a number with a unit such as 2.5 in", "correct it");
        }
    }

    private static double calculated(ExpressionContext place) {
        if (place instanceof NumberContext number) {
            return Double.parseDouble(number.getText().replace(',', '.'));
        }
        if (place instanceof ParenthesisContext inner) {
            return calculated(inner.expression());
        }
        if (place instanceof SignContext sign) {
            return sign.op.getText().equals("-") ? -calculated(sign.expression()) : calculated(sign.expression());
        }
        CalculationContext calculation = (CalculationContext) place;
        double left = calculated(calculation.expression(0));
        double right = calculated(calculation.expression(1));
        return switch (calculation.op.getText()) {
            case "+" -> left + right;
            case "-" -> left - right;
            case "*" -> left * right;
            case "/" -> left / right;
            default -> Math.pow(left, right);
        };
    }

    private static double converted(double value, String text, String from, String to) {
        Unit<?> given = unit(from);
        Unit<?> wanted = unit(to);
        if (given == null || wanted == null) {
            throw refused(text, to.isEmpty() ? "a number without a unit" : "a number in " + to, given == null ? from + " is no unit known here" : "leave the unit out");
        }
        try {
            return given.getConverterToAny(wanted).convert(value);
        } catch (IncommensurableException different) {
            throw refused(text, "a unit that converts to " + to, from + " measures something else");
        }
    }

    /** The unit of a text such as mm/s² or kg·cm², or null. */
    private static Unit<?> unit(String text) {
        Unit<?> known = UnitTable.named(text);
        if (known != null) {
            return known;
        }
        Unit<?> product = AbstractUnit.ONE;
        boolean below = false;
        for (String part : text.split("(?=[/·])")) {
            below |= part.startsWith("/");
            String name = part.replaceAll("^[/·]", "");
            int power = name.endsWith("²") ? 2 : name.endsWith("³") ? 3 : 1;
            Unit<?> factor = UnitTable.named(power == 1 ? name : name.substring(0, name.length() - 1));
            if (factor == null) {
                return null;
            }
            product = below ? product.divide(factor.pow(power)) : product.multiply(factor.pow(power));
        }
        return product;
    }

    private static InvalidEntry refused(String text, String allowed, String mend) {
        return new InvalidEntry("entry", text, allowed, mend);
    }
}
