package rueda.quantity;

/**
 * {@code Math.floorMod(value, modulo)}, made for the stepping loop: the quotient is a multiplication with the reciprocal,
 * put right by its exact remainder. Several times as fast as a 64-bit division. Immutable and thread-safe.
 */
public final class Modulo {

    /** Beyond this the quotient of a {@code double} may be wrong by more than one. */
    private static final long SAFE = 1L << 51;

    private final long modulo;
    private final double reciprocal;

    /** @param modulo 1 or more */
    public Modulo(long modulo) {
        if (modulo < 1) {
            throw new IllegalArgumentException("modulo " + modulo);
        }
        this.modulo = modulo;
        reciprocal = 1.0 / modulo;
    }

    /** The value brought to 0 to modulo − 1. */
    public long of(long value) {
        if (value > SAFE || value < -SAFE) {
            return Math.floorMod(value, modulo);
        }
        long remainder = value - (long) (value * reciprocal) * modulo;
        return remainder < 0 ? remainder + modulo : remainder >= modulo ? remainder - modulo : remainder;
    }
}
