package rueda.drive;

import rueda.machine.FollowWatch;

/** Bits of object 2050h:01, how the drive follows its encoder. */
public final class FollowStatus {

    /** It is tied to its master. */
    public static final int TIED = 1;
    /** Tied, and within the phase window. */
    public static final int LOCKED = 1 << 1;
    /** It makes up lost way. */
    public static final int CATCHING_UP = 1 << 2;
    /** It was to follow and does not. */
    public static final int REFUSED = 1 << 3;
    /** Its phase is being moved. */
    public static final int TRIMMING = 1 << 4;
    /** The ratio that was to be taken is none, or 64 bits do not hold it: the one before holds. */
    public static final int RATIO_REFUSED = 1 << 5;
    /** From here on a bit for each {@link FollowWatch.Event} that has come since it was tied. */
    public static final int FIRST_EVENT = 8;

    private FollowStatus() {
    }
}
