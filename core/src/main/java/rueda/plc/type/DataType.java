package rueda.plc.type;

/** What a variable can hold: an elementary type, or one made of others (IEC 61131-3, 6.4.4). Immutable. */
public sealed interface DataType permits Type, TextType, ArrayType, StructType, EnumType, SubrangeType, ReferenceType, BlockType {

    /** Cells of 64 bits that a variable of it takes. */
    int cells();

    /** The elementary type that its values are kept as; null where it is made of several. */
    Type elementary();

    /** Its name or how it is written. */
    String written();

    /** It is kept in one cell: it can be given, compared and shown as one value. */
    default boolean isElementary() {
        return elementary() != null;
    }

    /** The same type as another one, for what must fit exactly. */
    default boolean same(DataType other) {
        return equals(other);
    }
}
