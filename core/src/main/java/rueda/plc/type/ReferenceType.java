package rueda.plc.type;

/** REF_TO a type: the place of a variable of it, or NULL. @param target type of what it refers to */
public record ReferenceType(DataType target) implements DataType {

    @Override
    public int cells() {
        return 1;
    }

    @Override
    public Type elementary() {
        return null;
    }

    @Override
    public String written() {
        return "REF_TO " + target.written();
    }
}
