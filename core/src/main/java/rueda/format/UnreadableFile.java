package rueda.format;

/** A file cannot be read: where, what stands there, what is allowed, what to do. Nothing of it has been taken. */
public final class UnreadableFile extends RuntimeException {

    private final String place;
    private final String value;
    private final String allowed;
    private final String mend;

    /**
     * @param place   such as "line 12, Index"
     * @param value   what stands there, shortened to 80 characters
     * @param allowed what is allowed
     * @param mend    what to do
     */
    public UnreadableFile(String place, String value, String allowed, String mend) {
        super(place + ": " + shortened(value) + " – allowed: " + allowed);
        this.place = place;
        this.value = shortened(value);
        this.allowed = allowed;
        this.mend = mend;
    }

    private static String shortened(String value) {
        String text = value == null ? "nothing" : value.strip();
        return text.length() > 80 ? text.substring(0, 79) + "…" : text;
    }

    public String place() {
        return place;
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
