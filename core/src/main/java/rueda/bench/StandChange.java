package rueda.bench;

/** How a device on the bench differs from what is planned. */
public enum StandChange {
    MISSING("is not connected"), OTHER_ADDRESS("has another address"), OTHER_SUBNET("is in another network"), OLDER_REVISION("has an older revision"), OTHER_DEVICE("is another product"),
    HOLDS_DATA("arrives with parameters in it");

    private final String words;

    StandChange(String words) {
        this.words = words;
    }

    public String words() {
        return words;
    }
}
