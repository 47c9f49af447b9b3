package rueda.plc;

import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;

/**
 * A named value of a task.
 *
 * @param name as declared; pins of function blocks as {@code Block.Pin}
 * @param type elementary type
 * @param slot   place in the task's memory
 * @param length characters that a STRING or WSTRING holds at most, else 0
 */
public record Variable(String name, Type type, int slot, int length) {

    /** Length of a STRING declared without one (IEC 61131-3 leaves it to the maker). */
    public static final int DEFAULT_LENGTH = 80;

    /** The longest STRING: LEN gives its length as INT. */
    static final int MOST_CHARACTERS = 32_767;

    /** The value in a memory, as a number: BOOL 0 or 1, TIME in seconds. */
    public double number(long[] memory) {
        return number(memory[slot]);
    }

    /** The value that its slot holds. */
    public double number(long value) {
        return type.isReal() ? Double.longBitsToDouble(value) : type.isDuration() ? value * 1e-9 : type.isUnsigned64() ? Code.unsigned(value) : value;
    }

    /** The value in a memory, as a user reads it; texts are asked of the task. An input of a block may be not given, {@link FunctionBlock.Pin#optional}. */
    public String text(long[] memory) {
        boolean notGiven = type.isReal() && name.indexOf('.') >= 0 && Double.isNaN(Double.longBitsToDouble(memory[slot]));
        return notGiven ? "not given" : text(type, memory[slot]);
    }

    static String text(Type type, long value) {
        return switch (type.family()) {
            case BIT -> type == Type.BOOL ? value != 0 ? "TRUE" : "FALSE"
                    : String.format("16#%0" + type.bits() / 4 + "X", value);
            case REAL -> type == Type.REAL ? Float.toString((float) Double.longBitsToDouble(value)) : Double.toString(Double.longBitsToDouble(value));
            case TIME -> "T#" + (value % 1_000_000 == 0 ? value / 1_000_000 + "ms" : value + "ns");
            case DATE -> "D#" + moment(value).toLocalDate();
            case TIME_OF_DAY -> "TOD#" + LocalTime.ofNanoOfDay(Math.floorMod(value, NANOS_PER_DAY)).format(DateTimeFormatter.ISO_LOCAL_TIME);
            case DATE_AND_TIME -> "DT#" + moment(value).toLocalDate() + "-" + moment(value).toLocalTime().format(DateTimeFormatter.ISO_LOCAL_TIME);
            case CHARACTER -> "'" + (char) value + "'";
            case UNSIGNED -> Long.toUnsignedString(value);
            default -> Long.toString(value);
        };
    }

    static final long NANOS_PER_DAY = 86_400_000_000_000L;

    /** The days that a DATE or a date and time can hold: nanoseconds from 1970 in 64 bits. */
    static final LocalDate FIRST_DAY = LocalDate.of(1677, 9, 22);
    static final LocalDate LAST_DAY = LocalDate.of(2262, 4, 10);

    private static LocalDateTime moment(long nanos) {
        return LocalDateTime.ofEpochSecond(Math.floorDiv(nanos, 1_000_000_000L), (int) Math.floorMod(nanos, 1_000_000_000L), ZoneOffset.UTC);
    }
}
