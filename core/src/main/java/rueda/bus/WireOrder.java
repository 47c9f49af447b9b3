package rueda.bus;

/** In which order the bytes of a value travel. */
public enum WireOrder {
    /** Least significant byte first: CoE, CANopen, CIP. */
    LITTLE_ENDIAN("least significant byte first"),
    /** Most significant byte first: PROFINET; Modbus with the high word first. */
    BIG_ENDIAN("most significant byte first"),
    /** Registers of 16 bits most significant byte first, of longer values the low register first: Modbus with the low word first. */
    LOW_WORD_FIRST("low word first, in each word the most significant byte first");

    private final String words;

    WireOrder(String words) {
        this.words = words;
    }

    public String words() {
        return words;
    }

    /**
     * What stands for a value when its bytes are read least significant byte first; the same again gives it back.
     *
     * @param bits a multiple of 8, 8 to 64
     */
    long swapped(long value, int bits) {
        return switch (this) {
            case LITTLE_ENDIAN -> value;
            case BIG_ENDIAN -> Long.reverseBytes(value) >>> 64 - bits;
            case LOW_WORD_FIRST -> bits % 16 == 0 ? (value & 0x00FF_00FF_00FF_00FFL) << 8 | value >>> 8 & 0x00FF_00FF_00FF_00FFL
                    : Long.reverseBytes(value) >>> 64 - bits;
        };
    }
}
