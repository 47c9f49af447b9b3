package rueda.drive;

/** Why a search failed. The standard leaves the error codes to the maker (603Fh, FF00h to FFFFh): these are Rueda's. */
public enum HomingFailure {
    NONE(0, "no failure"),
    UNKNOWN_METHOD(0xFF10, "the drive does not have this homing method"),
    NEEDS_ENDS(0xFF16, "this homing method looks for an end of the travel, and an endless axis has none"),
    LIMIT_MET(0xFF11, "a limit switch was met where the search had nowhere else to go"),
    NO_CAM_BETWEEN_LIMITS(0xFF12, "both limit switches were reached and no reference cam between them"),
    TIME_OUT(0xFF13, "the search took longer than its time limit"),
    COMMAND_BIT_SET(0xFF14, "the command bit was set already: it must go false and true again"),
    TORQUE_LIMIT(0xFF15, "the torque stood at its limit and the axis did not follow: something is in the way, or the search is too fast");

    private final int code;
    private final String words;

    HomingFailure(int code, String words) {
        this.code = code;
        this.words = words;
    }

    public int code() {
        return code;
    }

    public String words() {
        return words;
    }
}
