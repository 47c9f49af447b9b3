package rueda.machine;

/**
 * An encoder on a shaft.
 *
 * @param kind           what it tells after power-up
 * @param lines          lines of an incremental encoder, 1 to 1 000 000
 * @param singleTurnBits bits within one turn of an absolute encoder, 4 to 32
 * @param multiTurnBits  bits of whole turns of an absolute encoder, 0 when it knows none, to 24
 */
public record Encoder(Kind kind, long lines, int singleTurnBits, int multiTurnBits) {

    /** INCREMENTAL knows nothing at power-up; ABSOLUTE knows its place within the turn, or within its turns. */
    public enum Kind { INCREMENTAL, ABSOLUTE }

    public static Encoder incremental(long lines) {
        return new Encoder(Kind.INCREMENTAL, lines, 0, 0);
    }

    public static Encoder absolute(int singleTurnBits, int multiTurnBits) {
        return new Encoder(Kind.ABSOLUTE, 0, singleTurnBits, multiTurnBits);
    }

    /** Counts of one shaft turn: four edges a line, or 2^bits. */
    public long countsPerTurn() {
        return kind == Kind.INCREMENTAL ? 4 * lines : 1L << singleTurnBits;
    }
}
