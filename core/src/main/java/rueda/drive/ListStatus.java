package rueda.drive;

/** Bits of object 2040h:03, what the move list does. */
public final class ListStatus {

    /** An entry moves, rests, awaits or is held. */
    public static final int RUNNING = 1;
    /** What the entry says has been done. */
    public static final int ENTRY_FINISHED = 1 << 1;
    /** The setpoint stands, and the axis is in position. */
    public static final int STANDS = 1 << 2;
    /** It goes on when a cue comes. */
    public static final int AWAITS = 1 << 3;
    /** The entry was not carried out; 2040h:06 says why. */
    public static final int ERROR = 1 << 4;

    private ListStatus() {
    }
}
