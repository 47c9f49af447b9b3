package rueda.machine;

/** What can be wrong at the machine: made on the bench, to see how it shows. */
public enum Mistake {
    /** The limit switches are wired to each other's terminals. */
    SWAPPED_LIMITS("limit switches swapped"),
    NEGATIVE_LIMIT_BROKEN("wire of the negative limit broken"),
    POSITIVE_LIMIT_BROKEN("wire of the positive limit broken"),
    CAM_BROKEN("wire of the reference cam broken"),
    /** The negative limit switch opens where it is taken to close, and the other way round. */
    NEGATIVE_LIMIT_OTHER_CONTACT("negative limit has the other kind of contact"),
    CAM_BOUNCES("contact of the reference cam bounces"),
    /** The encoder counts backward. */
    ENCODER_REVERSED("encoder counts backward"),
    /** The encoder on the load counts backward. */
    LOAD_ENCODER_REVERSED("encoder on the load counts backward"),
    /** A line of the encoder on the load is broken. */
    LOAD_ENCODER_BROKEN("a line of the encoder on the load broken"),
    /** A line of the encoder that is followed is broken, or was never connected. */
    MASTER_ENCODER_BROKEN("a line of the master encoder broken"),
    /** The index pulse of the encoder that is followed does not come. */
    MASTER_INDEX_BROKEN("index line of the master encoder broken"),
    /** Interference: one count of two thousand is not counted. */
    MASTER_COUNTS_LOST("master encoder loses counts"),
    /** The station runs by its own oscillator: its drive takes setpoints ever later or earlier in the bus cycle. */
    OWN_CLOCK("clock of the station not synchronised"),
    /** The PLC leaves the command bit of homing, bit 4 of the controlword, set. */
    HOMING_BIT_HELD("PLC leaves the homing bit set"),
    /** The PLC leaves the bit set that switches on, bit 0 of the controlword: a drive that wants its edge is never switched on. */
    SWITCH_ON_BIT_HELD("PLC leaves the switch-on bit set");

    private final String words;

    Mistake(String words) {
        this.words = words;
    }

    public String words() {
        return words;
    }
}
