package rueda.plc;

import rueda.plc.run.Operations;
import rueda.plc.run.Texts;
import rueda.plc.type.DataType;
import rueda.plc.type.EnumType;
import rueda.plc.type.TextType;
import rueda.plc.type.Type;

/**
 * A named value of a task.
 *
 * @param name     as declared; pins of function blocks as {@code Block.Pin}, elements as {@code Array[1]}
 * @param declared its type: an elementary one, or one that is kept as such
 * @param slot     place in the task's memory
 */
public record Variable(String name, DataType declared, int slot) {

    /** The elementary type that it is kept as. */
    public Type type() {
        return declared.elementary();
    }

    /** Characters that a STRING or WSTRING holds at most, else 0. */
    public int length() {
        return declared instanceof TextType text ? text.length() : 0;
    }

    /** The value in a memory, as a number: BOOL 0 or 1, TIME in seconds. */
    public double number(long[] memory) {
        return number(memory[slot]);
    }

    /** The value that its slot holds. */
    public double number(long value) {
        return type().isReal() ? Double.longBitsToDouble(value) : type().isDuration() ? value * 1e-9 : type().isUnsigned64() ? Operations.unsigned(value) : value;
    }

    /** The value in a memory, as a user reads it; texts are asked of the task. An input of a block may be not given, {@link rueda.plc.run.FunctionBlock.Pin#optional}. */
    public String text(long[] memory) {
        return text(memory[slot]);
    }

    /** The same of what its slot holds. */
    public String text(long value) {
        if (declared instanceof EnumType names) {
            return names.text(value);
        }
        boolean notGiven = type().isReal() && name.indexOf('.') >= 0 && Double.isNaN(Double.longBitsToDouble(value));
        return notGiven ? "not given" : Texts.of(type(), value);
    }
}
