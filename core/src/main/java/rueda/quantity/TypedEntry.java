package rueda.quantity;

import java.util.LinkedHashMap;
import java.util.Map;
import javax.measure.IncommensurableException;
import javax.measure.MetricPrefix;
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
import tech.units.indriya.function.RationalNumber;
import tech.units.indriya.unit.BaseUnit;
import tech.units.indriya.unit.Units;

/**
 * What is typed into a field: a calculation, and a unit when it is not the field's own, such as {@code 2.5 in} or
 * {@code (40+2)/2}. Units are converted by the units library; angles are based on the turn.
 */
public final class TypedEntry {

    private static final Map<String, Unit<?>> UNITS = units();

    private TypedEntry() {
    }

    private static Map<String, Unit<?>> units() {
        Unit<?> turn = new BaseUnit<>("turn");
        Unit<?> gram = Units.GRAM;
        Unit<?> millilitre = MetricPrefix.CENTI(Units.METRE).pow(3);
        Map<String, Unit<?>> units = new LinkedHashMap<>();
        units.put("mm", MetricPrefix.MILLI(Units.METRE));
        units.put("cm", MetricPrefix.CENTI(Units.METRE));
        units.put("µm", MetricPrefix.MICRO(Units.METRE));
        units.put("um", MetricPrefix.MICRO(Units.METRE));
        units.put("m", Units.METRE);
        units.put("in", Units.METRE.multiply(RationalNumber.of(254, 10_000)));
        units.put("°", turn.divide(360));
        units.put("deg", turn.divide(360));
        units.put("rad", turn.divide(2 * Math.PI));
        units.put("turn", turn);
        units.put("turns", turn);
        units.put("rpm", turn.divide(Units.MINUTE));
        units.put("1/min", turn.divide(Units.MINUTE));
        units.put("g", gram);
        units.put("kg", Units.KILOGRAM);
        units.put("ml", millilitre);
        units.put("l", millilitre.multiply(1000));
        units.put("s", Units.SECOND);
        units.put("ms", MetricPrefix.MILLI(Units.SECOND));
        units.put("µs", MetricPrefix.MICRO(Units.SECOND));
        units.put("us", MetricPrefix.MICRO(Units.SECOND));
        units.put("min", Units.MINUTE);
        units.put("N", Units.NEWTON);
        units.put("kN", MetricPrefix.KILO(Units.NEWTON));
        units.put("Nm", Units.NEWTON.multiply(Units.METRE));
        units.put("%", AbstractUnit.ONE.divide(100));
        units.put("1/s", AbstractUnit.ONE.divide(Units.SECOND));
        return units;
    }

    /**
     * The value of an entry in the unit of its field.
     *
     * @param text what was typed
     * @param unit the field's unit, such as mm/s²; empty for none
     * @throws InvalidEntry when it cannot be read or its unit does not convert
     */
    public static double value(String text, String unit) {
        EntryContext entry = parsed(text);
        double value = calculated(entry.expression());
        if (!Double.isFinite(value)) {
            throw refused(text, "a number that is finite", "look for a division by zero");
        }
        return entry.unit() == null || entry.unit().getText().equals(unit) ? value : converted(value, text, entry.unit().getText(), unit);
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
        Unit<?> known = UNITS.get(text);
        if (known != null) {
            return known;
        }
        Unit<?> product = AbstractUnit.ONE;
        boolean below = false;
        for (String part : text.split("(?=[/·])")) {
            below |= part.startsWith("/");
            String name = part.replaceAll("^[/·]", "");
            int power = name.endsWith("²") ? 2 : name.endsWith("³") ? 3 : 1;
            Unit<?> factor = UNITS.get(power == 1 ? name : name.substring(0, name.length() - 1));
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
