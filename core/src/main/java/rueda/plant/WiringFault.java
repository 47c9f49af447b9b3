package rueda.plant;

/** What can be wrong with the wiring: made on the bench, to see how it shows. */
public enum WiringFault {
    /** The limit switches are wired to each other's terminals. */
    SWAPPED_LIMITS,
    NEGATIVE_LIMIT_BROKEN,
    POSITIVE_LIMIT_BROKEN,
    CAM_BROKEN,
    /** The negative limit switch opens where it is taken to close, and the other way round. */
    NEGATIVE_LIMIT_OTHER_CONTACT,
    CAM_BOUNCES,
    /** The encoder counts backward. */
    ENCODER_REVERSED
}
