package rueda.machine;

import io.soabase.recordbuilder.core.RecordBuilder;
import java.math.BigDecimal;
import rueda.quantity.Ratio;

/**
 * An encoder at the second input of a drive that is followed: on a belt, say, that something else drives.
 *
 * @param signal        how it tells its counts
 * @param countsPerTurn counts of one turn of its shaft as the drive has them, 1 to 2³²; four edges a line for quadrature
 * @param reversed      the drive counts backward
 * @param unit          unit of its way
 * @param turns         turns of its shaft, 1 to 1 000 000
 * @param way           way of those turns, exact decimal above 0
 * @param speed         as it runs usually, and on the bench, units/s, its sign the direction
 * @param acceleration  with which it comes to that, units/s²
 * @param index         it has an index pulse a turn, on a line of its own; {@link Signal#QUADRATURE} alone can
 */
@RecordBuilder
public record MasterEncoder(Signal signal, long countsPerTurn, boolean reversed, String unit, long turns, BigDecimal way, double speed, double acceleration, boolean index) implements MasterEncoderBuilder.With {

    public static final MasterEncoder USUAL = new MasterEncoder(Signal.QUADRATURE, 4096, false, "mm", 1, new BigDecimal("100"), 100, 200, false);

    /** How it tells its counts. */
    public enum Signal {
        /** Two lines a quarter of a period apart; what is counted while a line is broken is lost. */
        QUADRATURE("quadrature"),
        /** One line counts, the other says the direction; likewise. */
        STEP_DIRECTION("step and direction"),
        /** Its place is read, and is right again when its line is whole. */
        ABSOLUTE("absolute");

        private final String words;

        Signal(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    /** Counts that are lost can be seen at its index pulse. */
    public boolean indexed() {
        return index && signal == Signal.QUADRATURE;
    }

    /** Units of one count, exact. */
    public Ratio unitsPerCount() {
        return unitsPerTurn().dividedBy(Ratio.of(countsPerTurn));
    }

    /** Units of one turn of its shaft, exact. */
    public Ratio unitsPerTurn() {
        return Ratio.of(way).dividedBy(Ratio.of(turns));
    }
}
