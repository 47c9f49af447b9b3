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

    /** The standard's functions, but for conversions such as INT_TO_LREAL, of which there is one for each pair of types. */
    public static List<String> functions() {
        return List.copyOf(StandardFunctions.names());
    }
}
