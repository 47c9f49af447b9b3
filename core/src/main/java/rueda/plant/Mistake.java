package rueda.plant;

/** What can be wrong at the machine: made on the bench, to see how it shows. */
public enum Mistake {
    /** The limit switches are wired to each other's terminals. */
    SWAPPED_LIMITS,
    NEGATIVE_LIMIT_BROKEN,
    POSITIVE_LIMIT_BROKEN,
    CAM_BROKEN,
    /** The negative limit switch opens where it is taken to close, and the other way round. */
    NEGATIVE_LIMIT_OTHER_CONTACT,
    CAM_BOUNCES,
    /** The encoder counts backward. */
    ENCODER_REVERSED,
    /** The encoder on the load counts backward. */
    LOAD_ENCODER_REVERSED,
    /** A line of the encoder on the load is broken. */
    LOAD_ENCODER_BROKEN,
    /** The PLC leaves the command bit of homing, bit 4 of the controlword, set. */
    HOMING_BIT_HELD
}
