package rueda.drive;

/** Why an entry of the move list is not carried out. The axis stands with torque, and the list does not run. */
public enum ListError {
    NONE(0, "none"),
    NO_SUCH_ENTRY(1, "the list has no such entry"),
    NOT_REFERENCED(2, "the axis does not know where it is: an entry that goes to a position needs the zero first"),
    OUTSIDE_SOFT_LIMITS(3, "the entry would end outside the soft limits"),
    SOFT_LIMIT_MET(4, "the soft limit was reached before the cue came"),
    NO_MARK(5, "no mark came within its window"),
    NO_ZERO(6, "the zero was not found"),
    ENTRY_GONE(7, "the running entry was taken out of the list, or made another");

    private final int code;
    private final String words;

    ListError(int code, String words) {
        this.code = code;
        this.words = words;
    }

    /** 2040h:06. */
    public int code() {
        return code;
    }

    public String words() {
        return words;
    }
}
