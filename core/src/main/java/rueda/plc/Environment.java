package rueda.plc;

import java.util.List;

/**
 * What a program may name without declaring it.
 *
 * @param axes   names of the axes
 * @param tags   tags bound to process data; read in the program, written by the bus
 * @param blocks kinds of function block
 */
public record Environment(List<String> axes, List<Tag> tags, List<FunctionBlock.Kind> blocks) {

    /** @param name dotted name  @param type elementary type */
    public record Tag(String name, Type type) {
    }

    /** The language alone. */
    public static final Environment PLAIN = new Environment(List.of(), List.of(), StandardBlocks.ALL);
}
