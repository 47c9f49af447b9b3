package rueda.machine;

import rueda.quantity.Ratio;

/** @param motorTurns turns of the side toward the motor  @param outputTurns for this many turns of the other side; both whole and positive */
public record Reducer(long motorTurns, long outputTurns) {
    /** @throws rueda.quantity.InvalidEntry when the output turns are zero */
    public Ratio ratio() {
        return Ratio.of(motorTurns, outputTurns);
    }
}
