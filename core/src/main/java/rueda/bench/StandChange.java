package rueda.bench;

/** How a device on the bench differs from what is planned. */
public enum StandChange {
    MISSING("not connected"), OTHER_ADDRESS("other address"), OTHER_SUBNET("other network"), OLDER_REVISION("older revision"), OTHER_DEVICE("other product"),
    HOLDS_DATA("holds data");

    private final String words;

    StandChange(String words) {
        this.words = words;
    }

    public String words() {
        return words;
    }
}
