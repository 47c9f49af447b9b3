package rueda.plc;

import java.util.List;

/**
 * What a program may name without declaring it.
 *
 * @param axes   names of the axes
 * @param tags   tags bound to process data; read in the program, written by the bus
 * @param blocks kinds of function block
 * @param constants named whole numbers of type INT, such as the values of an enumeration
 */
public record Environment(List<String> axes, List<Tag> tags, List<FunctionBlock.Kind> blocks, List<Constant> constants) {

    /** @param name identifier  @param value of type INT */
    public record Constant(String name, int value) {
    }

    /** @param name dotted name  @param type elementary type */
    public record Tag(String name, Type type) {
    }

    /** The language alone. */
    public static final Environment PLAIN = new Environment(List.of(), List.of(), StandardBlocks.ALL, List.of());
}
