package rueda.plc;

import java.util.List;
import java.util.stream.Stream;
import rueda.plc.syntax.Words;
import rueda.plc.type.Type;

/** The words of Structured Text, for editors. Sorted. */
public final class Language {

    private Language() {
    }

    /** Words that name nothing, in capitals. */
    public static List<String> keywords() {
        return Words.keywords().stream().sorted().toList();
    }

    /** Elementary types, with the long names of some. */
    public static List<String> types() {
        return Stream.concat(Stream.of(Type.values()).map(Type::name), Stream.of("TIME_OF_DAY", "DATE_AND_TIME", "LTIME_OF_DAY", "LDATE_AND_TIME")).sorted().toList();
    }

    /**
     * What a literal says.
     *
     * @param number of TRUE 1, of a time in seconds
     */
    public record Value(Type type, double number) {
    }

    /** @param literal of a number, a time or a bit  @throws IllegalArgumentException with a sentence for the user when it is none */
    public static Value value(String literal) {
        Expression read = Literals.read(literal);
        Type type = read.kept();
        if (!type.isNumber() && type != Type.BOOL && !type.isDuration()) {
            throw new IllegalArgumentException(literal + " is no number, time or bit.");
        }
        double number = read.number().doubleValue();
        return new Value(type, type.isDuration() ? number * 1e-9 : number);
    }

    /** The standard's functions, but for conversions such as INT_TO_LREAL, of which there is one for each pair of types. */
    public static List<String> functions() {
        return List.copyOf(StandardFunctions.names());
    }
}
