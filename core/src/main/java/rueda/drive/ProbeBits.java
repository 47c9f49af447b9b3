package rueda.drive;

/** Bits of the touch probe function, 60B8h, and of the touch probe status, 60B9h (IEC 61800-7-201): those of probe 1; probe 2 has its own eight above. */
public final class ProbeBits {

    /** Where the bits of the second probe begin. */
    public static final int SECOND = 8;

    /** 60B8h: the probe is on. */
    public static final int ON = 1;
    /** 60B8h: every edge is kept, not the first one only. */
    public static final int EVERY_EDGE = 1 << 1;
    /** 60B8h: what the probe listens to; 0 for its input. */
    public static final int SOURCE = 3 << 2;
    /** 60B8h: the rising edge is kept. */
    public static final int RISING = 1 << 4;
    /** 60B8h: the falling edge is kept. */
    public static final int FALLING = 1 << 5;
    /** 60B8h of a device that has just begun; the standard leaves it to the maker. */
    public static final int AT_START = (ON | EVERY_EDGE | RISING) << SECOND | ON | EVERY_EDGE | RISING;

    /** 60B9h: the probe is on. */
    public static final int IS_ON = 1;
    /** 60B9h: a position of the rising edge is held. */
    public static final int HOLDS_RISING = 1 << 1;
    /** 60B9h: a position of the falling edge is held. */
    public static final int HOLDS_FALLING = 1 << 2;

    private ProbeBits() {
    }
}
