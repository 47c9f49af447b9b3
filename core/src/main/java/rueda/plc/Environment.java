package rueda.plc;

import java.util.List;
import rueda.plc.run.FunctionBlock;
import rueda.plc.type.Type;

/**
 * What a program may name without declaring it.
 *
 * @param axes   names of the axes
 * @param tags   tags bound to process data; inputs and what motion control writes can only be read
 * @param blocks kinds of function block
 * @param constants named whole numbers of type INT, such as the values of an enumeration
 * @param types  declarations in Structured Text of the types that the blocks take, empty for none
 */
public record Environment(List<String> axes, List<Tag> tags, List<FunctionBlock.Kind> blocks, List<Constant> constants, String types) {

    /** No types of its own. */
    public Environment(List<String> axes, List<Tag> tags, List<FunctionBlock.Kind> blocks, List<Constant> constants) {
        this(axes, tags, blocks, constants, "");
    }

    /** @param name identifier  @param value of type INT */
    public record Constant(String name, int value) {
    }

    /**
     * A tag.
     *
     * @param name      dotted name
     * @param type      elementary type
     * @param writable  the program gives its value
     * @param output    it lies in the image of the outputs, false in that of the inputs, null where it is bound to no process data
     * @param bitOffset its place there, bits
     */
    public record Tag(String name, Type type, boolean writable, Boolean output, int bitOffset) {
        /** A tag without an address. */
        public Tag(String name, Type type, boolean writable) {
            this(name, type, writable, null, -1);
        }
    }

    /** The language alone. */
    public static final Environment PLAIN = new Environment(List.of(), List.of(), StandardBlocks.ALL, List.of());
}
