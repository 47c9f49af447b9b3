package rueda.plcopen;

/** When an order begins while another one runs, PLCopen Motion Control part 1, MC_BUFFER_MODE (numbers from memory). */
enum BufferMode {
    /** at once: the running order is aborted */
    ABORTING("mcAborting"),
    /** when the running order is done */
    BUFFERED("mcBuffered"),
    /** at the target of the running order, which is passed at the lower speed of both */
    BLENDING_LOW("mcBlendingLow"),
    /** … at the speed of the running order */
    BLENDING_PREVIOUS("mcBlendingPrevious"),
    /** … at the speed of the next order */
    BLENDING_NEXT("mcBlendingNext"),
    /** … at the higher speed of both */
    BLENDING_HIGH("mcBlendingHigh");

    private static final BufferMode[] ALL = values();

    private final String constant;

    BufferMode(String constant) {
        this.constant = constant;
    }

    /** Name of the constant in a program; its value is the place in this list, from 0. */
    String constant() {
        return constant;
    }

    /** The mode with this number, or null. */
    static BufferMode of(long number) {
        return number >= 0 && number < ALL.length ? ALL[(int) number] : null;
    }

    boolean blends() {
        return ordinal() >= BLENDING_LOW.ordinal();
    }

    /** Speed at the target between two orders. @param previous of the running one  @param next of the other */
    double between(double previous, double next) {
        return switch (this) {
            case ABORTING, BUFFERED -> 0;
            case BLENDING_LOW -> Math.min(previous, next);
            case BLENDING_PREVIOUS -> previous;
            case BLENDING_NEXT -> next;
            case BLENDING_HIGH -> Math.max(previous, next);
        };
    }
}
