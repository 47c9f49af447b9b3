package rueda.machine;

/**
 * A second encoder, on the last shaft of the train.
 *
 * @param use     what it is for
 * @param encoder the encoder itself
 */
public record LoadEncoder(Use use, Encoder encoder) {

    /** No second encoder. */
    public static final LoadEncoder NONE = new LoadEncoder(Use.NONE, Encoder.absolute(14, 0));

    /** REFERENCE: it tells the position at power-up only; POSITION_LOOP: the position loop is closed over it. */
    public enum Use {
        NONE("not fitted"),
        REFERENCE("reference only"),
        POSITION_LOOP("position loop");

        private final String words;

        Use(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    public boolean fitted() {
        return use != Use.NONE;
    }
}
