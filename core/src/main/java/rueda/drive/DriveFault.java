package rueda.drive;

/** Why a drive takes its torque away by itself: what a monitor answers with. */
public enum DriveFault {
    /** CiA 301/402: following error. */
    FOLLOWING(0x8611, "the following error left its window for too long"),
    /** CiA 301/402: reference limit, used when a limit switch is met in motion. */
    LIMIT_SWITCH(0x8612, "a limit switch was met in motion"),
    /** CiA 402: incremental sensor 2, used for a broken line of the encoder on the load (number from memory). */
    LOAD_ENCODER(0x7306, "a line of the encoder on the load is broken"),
    /** Ours, beside that: a broken line of the encoder that is followed. */
    MASTER_ENCODER(0x7381, "a line of the master encoder is broken"),
    /** Ours: its index pulse does not come. */
    MASTER_INDEX(0x7382, "the index pulse of the master encoder does not come"),
    /** Ours: more counts than allowed are missing at the index pulse. */
    MASTER_COUNTS(0x7383, "counts of the master encoder are lost"),
    /** Ours: the master is faster than the follower may be. */
    MASTER_TOO_FAST(0x8481, "the master is faster than the follower may be"),
    /** Ours: a follower that was locked is farther from its place than allowed. */
    PHASE(0x8681, "the phase of the follower left its limit"),
    /** CiA 301/402: parameter error, used for a parameter set that was written in part. */
    PARAMETERS(0x6320, "its parameters were written in part: finish or undo the writing");

    private final int code;
    private final String words;

    DriveFault(int code, String words) {
        this.code = code;
        this.words = words;
    }

    /** 603Fh. */
    public int code() {
        return code;
    }

    public String words() {
        return words;
    }
}
