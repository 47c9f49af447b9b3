package rueda.guard;

/** Which limit was broken first. */
public enum Breach {
    NONE("nothing"),
    FASTER_THAN_RAMP("faster than the flattest ramp allows"),
    SLOWER_THAN_RAMP("slows down more steeply than the ramp allows"),
    NOT_STANDING("moves faster than what counts as standing"),
    LEFT_WINDOW("left the window of standstill"),
    FASTER_THAN_LIMIT("faster than the safely limited speed"),
    WRONG_DIRECTION("moves in the direction that is not allowed");

    private final String words;

    Breach(String words) {
        this.words = words;
    }

    public String words() {
        return words;
    }
}
