package rueda.plc.type;

/**
 * STRING[n] or WSTRING[n].
 *
 * @param elementary STRING or WSTRING
 * @param length     characters that it holds at most, 1 to {@link #MOST_CHARACTERS}
 */
public record TextType(Type elementary, int length) implements DataType {

    /** Length of a STRING declared without one (IEC 61131-3 leaves it to the maker). */
    public static final int DEFAULT_LENGTH = 80;

    /** The longest STRING: LEN gives its length as INT. */
    public static final int MOST_CHARACTERS = 32_767;

    @Override
    public int cells() {
        return 1;
    }

    @Override
    public String written() {
        return elementary + "[" + length + "]";
    }
}
