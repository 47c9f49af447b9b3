package rueda.plant;

/** What can be wrong with the wiring: made on the bench, to see how it shows. */
public enum WiringFault {
    SWAPPED_LIMITS("limit switches swapped"),
    NEGATIVE_LIMIT_BROKEN("wire of the negative limit broken"),
    POSITIVE_LIMIT_BROKEN("wire of the positive limit broken"),
    CAM_BROKEN("wire of the reference cam broken"),
    NEGATIVE_LIMIT_OTHER_CONTACT("negative limit has the other kind of contact"),
    CAM_BOUNCES("contact of the reference cam bounces"),
    ENCODER_REVERSED("encoder counts backward");

    private final String words;

    WiringFault(String words) {
        this.words = words;
    }

    public String words() {
        return words;
    }
}
