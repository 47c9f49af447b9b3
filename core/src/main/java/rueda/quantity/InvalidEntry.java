package rueda.quantity;

/** An entry that is refused: which field, its value, what is allowed and what to do. */
public final class InvalidEntry extends IllegalArgumentException {
    private final String field;
    private final String value;
    private final String allowed;
    private final String mend;

    public InvalidEntry(String field, String value, String allowed, String mend) {
        super(field + " is " + value + "; allowed: " + allowed + "; " + mend);
        this.field = field;
        this.value = value;
        this.allowed = allowed;
        this.mend = mend;
    }

    /** The same, of an entry inside of a part of a document. @param pointer JSON pointer of the part */
    public InvalidEntry under(String pointer) {
        return new InvalidEntry(pointer + "/" + field, value, allowed, mend);
    }

    public String field() {
        return field;
    }

    public String value() {
        return value;
    }

    public String allowed() {
        return allowed;
    }

    public String mend() {
        return mend;
    }
}
