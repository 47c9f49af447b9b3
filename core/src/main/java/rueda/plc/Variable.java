package rueda.plc;

/**
 * A named value of a task.
 *
 * @param name as declared; pins of function blocks as {@code Block.Pin}
 * @param type elementary type
 * @param slot place in the task's memory
 */
public record Variable(String name, Type type, int slot) {

    /** The value in a memory, as a number: BOOL 0 or 1, TIME in seconds. */
    public double number(long[] memory) {
        long value = memory[slot];
        return type.isReal() ? Double.longBitsToDouble(value) : type == Type.TIME ? value * 1e-9 : value;
    }

    /** The value in a memory, as a user reads it. */
    public String text(long[] memory) {
        long value = memory[slot];
        return switch (type.family()) {
            case BIT -> type == Type.BOOL ? value != 0 ? "TRUE" : "FALSE"
                    : String.format("16#%0" + type.bits() / 4 + "X", value);
            case REAL -> Double.toString(Math.round(Double.longBitsToDouble(value) * 1e6) / 1e6);
            case TIME -> "T#" + value / 1_000_000 + "ms";
            case UNSIGNED -> Long.toUnsignedString(value);
            default -> Long.toString(value);
        };
    }
}
