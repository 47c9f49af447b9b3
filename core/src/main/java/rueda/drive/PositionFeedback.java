package rueda.drive;

import rueda.machine.Axis;
import rueda.machine.LoadEncoder;
import rueda.plant.ServoPlant;
import rueda.quantity.CountScaler;
import rueda.quantity.Ratio;

/**
 * Where the axis is, in counts of the motor encoder: read there, or, when the position loop is closed over the load,
 * from the encoder on the load brought to the motor by the gear:
 * <pre>  motor counts = load counts × gear × (motor counts per turn ÷ load counts per turn)  </pre>
 * At power-up both agree. Exact; no allocation; not thread-safe.
 */
final class PositionFeedback {

    private final ServoPlant plant;
    private final int sign;
    private final int loadSign;
    private final boolean fitted;
    private final boolean motorKnows;
    private final boolean loadKnows;
    private final boolean overLoad;
    private final CountScaler motorPerLoad;
    private final long indexCount;
    private final long countsPerTurn;
    private final long alignment;

    /** Takes both encoders as they are now: the drive has been switched on. */
    PositionFeedback(Axis axis, ServoPlant plant) {
        this.plant = plant;
        sign = axis.encoder().sign();
        loadSign = axis.loadEncoder().encoder().sign();
        fitted = axis.loadEncoderUsed();
        motorKnows = axis.encoder().turnsKnown() > 0;
        loadKnows = fitted && axis.loadEncoder().encoder().turnsKnown() > 0;
        overLoad = fitted && axis.loadEncoder().use() == LoadEncoder.Use.POSITION_LOOP;
        countsPerTurn = plant.countsPerTurn();
        motorPerLoad = new CountScaler(Ratio.of(axis.encoder().countsPerTurn()).times(axis.train().gear()).dividedBy(Ratio.of(axis.loadEncoder().encoder().countsPerTurn())));
        indexCount = Math.floorMod(sign * plant.indexCount(), countsPerTurn);
        alignment = overLoad ? motorCounts() - loadAtMotor() : 0;
    }

    /** Counts of the encoder the position loop is closed over, brought to the motor. */
    long counts() {
        return overLoad ? loadAtMotor() + alignment : sign * plant.counts();
    }

    /** Counts of the motor encoder, from which the speed is taken. */
    long motorCounts() {
        return sign * plant.counts();
    }

    /** What the encoder on the load reads, as motor counts. */
    long loadAtMotor() {
        return motorPerLoad.scale(loadSign * plant.loadCounts());
    }

    /** Reading of the encoder on the load, its own counts; 0 without one. */
    long loadCounts() {
        return fitted ? loadSign * plant.loadCounts() : 0;
    }

    /** The encoder on the motor tells a place at power-up, not 0. */
    boolean motorKnows() {
        return motorKnows;
    }

    /** The encoder on the load is read and tells a place at power-up. */
    boolean loadKnows() {
        return loadKnows;
    }

    boolean broken() {
        return fitted && plant.loadEncoderBroken();
    }

    /** Count of the motor encoder, within a turn, at which the index pulse comes. */
    long indexCount() {
        return indexCount;
    }

    long countsPerTurn() {
        return countsPerTurn;
    }

    /** The motor encoder's count as the plant has it. */
    long plantCounts(long motorCounts) {
        return sign * motorCounts;
    }
}
