package rueda.app.json;

import java.math.BigDecimal;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.stream.Collectors;
import com.fasterxml.jackson.annotation.JsonInclude;
import com.fasterxml.jackson.annotation.JsonSetter;
import com.fasterxml.jackson.annotation.Nulls;
import rueda.machine.Condition;
import rueda.machine.Expectation;
import rueda.machine.ScriptStep;
import rueda.machine.EntryFault;
import tools.jackson.core.JacksonException;
import tools.jackson.core.JsonParser;
import tools.jackson.core.JsonToken;
import tools.jackson.core.StreamReadConstraints;
import tools.jackson.core.StreamWriteFeature;
import tools.jackson.core.exc.StreamReadException;
import tools.jackson.core.json.JsonFactory;
import tools.jackson.databind.DatabindException;
import tools.jackson.databind.DeserializationContext;
import tools.jackson.databind.DeserializationFeature;
import tools.jackson.databind.SerializationContext;
import tools.jackson.databind.cfg.EnumFeature;
import tools.jackson.databind.deser.std.StdDeserializer;
import tools.jackson.databind.exc.InvalidFormatException;
import tools.jackson.databind.exc.InvalidNullException;
import tools.jackson.databind.exc.MismatchedInputException;
import tools.jackson.databind.exc.UnrecognizedPropertyException;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.module.SimpleModule;
import tools.jackson.databind.ser.std.StdSerializer;

/**
 * How JSON is read: what stands there must be what is meant. A fraction for a whole number, text for a number, a number for a choice, a value
 * beyond what its type holds, and entries that nothing knows are refused with their place; nothing is cut or guessed. What is no number is
 * never written.
 */
public final class StrictJson {

    /** Digits of a number, and its powers of ten either way: more mean nothing here, and cost time without bound. */
    private static final int MOST_DIGITS = 60;
    private static final int MOST_POWER = 320;
    private static final int DEEPEST = 60;

    private StrictJson() {
    }

    /** Sentences with slots: those that one does not use are not written. */
    private static final List<Class<?>> SLOTTED = List.of(Expectation.class, ScriptStep.class, Condition.class);

    /** Sets a mapper up to read strictly. */
    public static JsonMapper.Builder strict(JsonMapper.Builder builder) {
        SLOTTED.forEach(slotted -> builder.withConfigOverride(slotted, slots -> slots.setInclude(JsonInclude.Value.construct(JsonInclude.Include.NON_NULL, JsonInclude.Include.ALWAYS))));
        return builder.enable(StreamWriteFeature.USE_FAST_DOUBLE_WRITER).enable(DeserializationFeature.FAIL_ON_UNKNOWN_PROPERTIES).enable(DeserializationFeature.FAIL_ON_TRAILING_TOKENS)
                .withConfigOverride(List.class, lists -> lists.setNullHandling(JsonSetter.Value.forValueNulls(Nulls.FAIL, Nulls.FAIL)))
                .enable(DeserializationFeature.FAIL_ON_READING_DUP_TREE_KEY).enable(DeserializationFeature.USE_BIG_DECIMAL_FOR_FLOATS).enable(EnumFeature.FAIL_ON_NUMBERS_FOR_ENUMS).addModule(values());
    }

    /** A factory whose documents nest only so deep and whose numbers are only so long. */
    public static JsonFactory bounded() {
        return JsonFactory.builder().streamReadConstraints(StreamReadConstraints.builder().maxNestingDepth(DEEPEST).maxNumberLength(1000).maxStringLength(8_000_000).build()).build();
    }

    /** A value that is refused, with what is allowed there. */
    private static final class RefusedValue extends MismatchedInputException {
        final transient String value;
        final transient String allowed;

        RefusedValue(JsonParser parser, String value, String allowed) {
            super(parser, value + " is refused; allowed: " + allowed);
            this.value = value;
            this.allowed = allowed;
        }
    }

    private interface Reading<T> {
        /** The value, or null when the present token says none. */
        T of(JsonParser parser) throws ArithmeticException;
    }

    /** Reads one kind of value and refuses everything else; when a primitive is missing it says so. */
    private static final class Written<T> extends StdDeserializer<T> {
        private final transient Reading<T> reading;
        private final transient String allowed;
        private final boolean required;

        Written(Class<T> type, String allowed, Reading<T> reading) {
            super(type);
            this.reading = reading;
            this.allowed = allowed;
            required = type.isPrimitive();
        }

        @Override
        public T deserialize(JsonParser parser, DeserializationContext context) {
            T value;
            try {
                value = reading.of(parser);
            } catch (JacksonException | ArithmeticException outside) {
                value = null;
            }
            if (value == null) {
                throw new RefusedValue(parser, shown(parser), allowed);
            }
            return value;
        }

        @Override
        public Object getNullValue(DeserializationContext context) {
            if (required) {
                throw new RefusedValue(context.getParser(), "nothing", allowed);
            }
            return null;
        }

        @Override
        public Object getAbsentValue(DeserializationContext context) {
            if (required) {
                throw new RefusedValue(context.getParser(), "missing", allowed);
            }
            return null;
        }
    }

    private static String shown(JsonParser parser) {
        return switch (parser.currentToken()) {
            case START_OBJECT -> "an object";
            case START_ARRAY -> "a list";
            default -> {
                String text = parser.getString();
                yield text.length() > 40 ? text.substring(0, 40) + "…" : text;
            }
        };
    }

    private static boolean isNumber(JsonParser parser) {
        return parser.currentToken() == JsonToken.VALUE_NUMBER_INT || parser.currentToken() == JsonToken.VALUE_NUMBER_FLOAT;
    }

    private static BigDecimal decimal(JsonParser parser) {
        if (!isNumber(parser)) {
            return null;
        }
        BigDecimal value;
        try {
            value = new BigDecimal(parser.getString());
        } catch (NumberFormatException unbounded) {
            // An exponent of more than 32 bits.
            return null;
        }
        // The power of the first digit; held as a long, since a scale near the end of int must not wrap.
        long power = (long) value.precision() - value.scale();
        return value.precision() > MOST_DIGITS || Math.abs(power) > MOST_POWER || Math.abs((long) value.scale()) > MOST_POWER ? null : value;
    }

    private static Double real(JsonParser parser) {
        BigDecimal value = decimal(parser);
        return value == null || Double.isInfinite(value.doubleValue()) ? null : Double.valueOf(value.doubleValue());
    }

    private static Long whole(JsonParser parser, long lowest, long highest) {
        BigDecimal value = decimal(parser);
        if (value == null) {
            return null;
        }
        long number = value.longValueExact();
        return number >= lowest && number <= highest ? Long.valueOf(number) : null;
    }

    private static Integer whole(JsonParser parser) {
        Long value = whole(parser, Integer.MIN_VALUE, Integer.MAX_VALUE);
        return value == null ? null : Integer.valueOf(value.intValue());
    }

    private static Boolean truth(JsonParser parser) {
        return parser.currentToken() == JsonToken.VALUE_TRUE ? Boolean.TRUE : parser.currentToken() == JsonToken.VALUE_FALSE ? Boolean.FALSE : null;
    }

    private static String text(JsonParser parser) {
        return parser.currentToken() == JsonToken.VALUE_STRING ? parser.getString() : null;
    }

    private static SimpleModule values() {
        String whole = "a whole number, −2147483648 to 2147483647";
        String large = "a whole number within 64 bits";
        String real = "a number, up to 1.8E308 and " + MOST_DIGITS + " digits";
        SimpleModule module = new SimpleModule("strict values");
        module.addDeserializer(int.class, new Written<>(int.class, whole, StrictJson::whole));
        module.addDeserializer(Integer.class, new Written<>(Integer.class, whole, StrictJson::whole));
        module.addDeserializer(long.class, new Written<>(long.class, large, p -> whole(p, Long.MIN_VALUE, Long.MAX_VALUE)));
        module.addDeserializer(Long.class, new Written<>(Long.class, large, p -> whole(p, Long.MIN_VALUE, Long.MAX_VALUE)));
        module.addDeserializer(double.class, new Written<>(double.class, real, StrictJson::real));
        module.addDeserializer(Double.class, new Written<>(Double.class, real, StrictJson::real));
        module.addDeserializer(BigDecimal.class, new Written<>(BigDecimal.class, real, StrictJson::decimal));
        module.addDeserializer(boolean.class, new Written<>(boolean.class, "true or false", StrictJson::truth));
        module.addDeserializer(Boolean.class, new Written<>(Boolean.class, "true or false", StrictJson::truth));
        module.addDeserializer(String.class, new Written<>(String.class, "text in quotes", StrictJson::text));
        module.addSerializer(new Finite(double.class));
        module.addSerializer(new Finite(Double.class));
        return module;
    }

    /** What is no number is nothing, not the text "NaN". */
    private static final class Finite extends StdSerializer<Double> {
        @SuppressWarnings("unchecked")
        Finite(Class<?> type) {
            super((Class<Double>) type);
        }

        @Override
        public void serialize(Double value, tools.jackson.core.JsonGenerator out, SerializationContext context) {
            if (Double.isFinite(value)) {
                out.writeNumber(value.doubleValue());
            } else {
                out.writeNull();
            }
        }
    }

    /** What was wrong with a text, in words, with the place as a JSON pointer. */
    public static EntryFault fault(JacksonException refused) {
        if (!(refused instanceof DatabindException bound)) {
            String where = refused.getLocation() == null || refused.getLocation().getLineNr() < 1 ? ""
                    : "line " + refused.getLocation().getLineNr() + ", column " + refused.getLocation().getColumnNr();
            boolean syntax = refused instanceof StreamReadException;
            return new EntryFault("/", "JSON" + (where.isEmpty() ? "" : ", " + where), "not readable", syntax ? "JSON as in RFC 8259, at most " + DEEPEST + " levels deep" : "JSON", "correct it there");
        }
        List<JacksonException.Reference> path = bound.getPath();
        String field = "/" + path.stream().map(r -> r.getPropertyName() == null ? Integer.toString(r.getIndex()) : r.getPropertyName().replace("~", "~0").replace("/", "~1"))
                .collect(Collectors.joining("/"));
        String label = label(field);
        if (refused instanceof RefusedValue value) {
            return new EntryFault(field, label, value.value, value.allowed, value.value.equals("missing") ? "add it" : "correct it");
        }
        if (refused instanceof InvalidNullException) {
            return new EntryFault(field, label, "missing", "a list", "add it, empty if there is nothing");
        }
        if (refused instanceof UnrecognizedPropertyException unknown) {
            String known = unknown.getKnownPropertyIds() == null ? "" : unknown.getKnownPropertyIds().stream().map(String::valueOf).sorted().collect(Collectors.joining(", "));
            return new EntryFault(field, label, "not known here", known, "take it out or correct its name");
        }
        if (refused instanceof InvalidFormatException format && format.getTargetType() != null && format.getTargetType().isEnum()) {
            String choices = Arrays.stream(format.getTargetType().getEnumConstants()).map(c -> ((Enum<?>) c).name()).collect(Collectors.joining(", "));
            return new EntryFault(field, label, String.valueOf(format.getValue()), choices, "choose one");
        }
        if (refused instanceof MismatchedInputException mismatch && mismatch.getTargetType() != null) {
            Class<?> wanted = mismatch.getTargetType();
            String shape = wanted.isEnum() ? Arrays.stream(wanted.getEnumConstants()).map(c -> ((Enum<?>) c).name()).collect(Collectors.joining(", "))
                    : Iterable.class.isAssignableFrom(wanted) || wanted.isArray() ? "a list" : wanted.isRecord() || java.util.Map.class.isAssignableFrom(wanted) ? "an object" : "a value of the right kind";
            return new EntryFault(field, label, "of another kind", shape, "correct it");
        }
        return new EntryFault(field, label, "missing or not usable", "a complete value", "correct it");
    }

    /** What the last part of a pointer is called in words: "/axes/0/loadEncoder" is the "Load encoder". */
    static String label(String field) {
        String words = field.substring(field.lastIndexOf('/') + 1).replaceAll("(?<=[a-z0-9])(?=[A-Z])", " ").toLowerCase(Locale.ROOT);
        return words.isEmpty() ? "Body" : words.substring(0, 1).toUpperCase(Locale.ROOT) + words.substring(1);
    }
}
