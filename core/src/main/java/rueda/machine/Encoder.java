package rueda.machine;

/**
 * An encoder on a shaft.
 *
 * @param kind           what it tells after power-up
 * @param lines          lines of an incremental encoder, 1 to 1 000 000
 * @param singleTurnBits bits within one turn of an absolute encoder, 4 to 32
 * @param multiTurnBits  bits of whole turns of an absolute encoder, 0 when it knows none, to 24
 * @param reversed       the drive counts backward, because the encoder does
 */
public record Encoder(Kind kind, long lines, int singleTurnBits, int multiTurnBits, boolean reversed) {

    /** INCREMENTAL knows nothing at power-up; ABSOLUTE knows its place within the turn, or within its turns. */
    public enum Kind {
        INCREMENTAL("incremental"),
        ABSOLUTE("absolute");

        private final String words;

        Kind(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    public static Encoder incremental(long lines) {
        return new Encoder(Kind.INCREMENTAL, lines, 0, 0, false);
    }

    public static Encoder absolute(int singleTurnBits, int multiTurnBits) {
        return new Encoder(Kind.ABSOLUTE, 0, singleTurnBits, multiTurnBits, false);
    }

    public Encoder turnedOver() {
        return new Encoder(kind, lines, singleTurnBits, multiTurnBits, !reversed);
    }

    /** 1, or −1 when the drive counts backward. */
    public int sign() {
        return reversed ? -1 : 1;
    }

    /** Turns after which an absolute encoder begins again; 0 for an incremental one, which knows nothing. */
    public long turnsKnown() {
        return kind == Kind.INCREMENTAL ? 0 : 1L << multiTurnBits;
    }

    /** Counts of one shaft turn: four edges a line, or 2^bits. */
    public long countsPerTurn() {
        return kind == Kind.INCREMENTAL ? 4 * lines : 1L << singleTurnBits;
    }
}
