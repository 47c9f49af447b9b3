package rueda.plant;

import rueda.machine.MasterEncoder;
import rueda.machine.Mistake;

/**
 * The shaft under an encoder that a drive follows: something else turns it, on the bench as its document says or as a person wants. Counts are
 * whole, the fraction of one is carried. No allocation in {@link #step}; not thread-safe.
 */
public final class MasterShaft {

    private static final long LOST_OF = 2000;

    private final double dt;
    private final Mistakes mistakes;
    private final double countsPerUnit;
    private final boolean lasting;
    private final int sign;
    private final double rate;
    private double wanted;
    private double speed;
    /** counts in one step */
    private double perStep;
    private long counts;
    private double fraction;
    private boolean broken;
    /** whole turns of counts between which it stands, and the reading at the last index pulse */
    private final long countsPerTurn;
    private final boolean indexed;
    private long turnFrom;
    private long indexAt;
    private int indexPulses;
    private long losable;
    /** counts that were not read while the line was broken */
    private long missed;
    private long readBefore;

    /** @param dt s between two steps */
    public MasterShaft(MasterEncoder encoder, double dt, Mistakes mistakes) {
        this.dt = dt;
        this.mistakes = mistakes;
        countsPerUnit = 1 / encoder.unitsPerCount().toDouble();
        lasting = encoder.signal() == MasterEncoder.Signal.ABSOLUTE;
        sign = encoder.reversed() ? -1 : 1;
        rate = encoder.acceleration() * countsPerUnit * dt;
        countsPerTurn = encoder.countsPerTurn();
        indexed = encoder.indexed();
        run(encoder.speed());
    }

    /** From now on it comes to this speed. @param unitsPerSecond with its sign */
    public void run(double unitsPerSecond) {
        wanted = unitsPerSecond * countsPerUnit;
    }

    /** One step. */
    public void step() {
        if (speed != wanted) {
            speed = Math.max(speed - rate, Math.min(speed + rate, wanted));
            perStep = speed * dt;
        }
        fraction += perStep;
        if (fraction >= 1 || fraction < 0) {
            long whole = (long) Math.floor(fraction);
            fraction -= whole;
            counts += whole;
            lose(whole);
            pulse();
        }
        boolean now = mistakes.has(Mistake.MASTER_ENCODER_BROKEN);
        if (broken && !now && !lasting) {
            missed = counts - readBefore;
        }
        broken = now;
        if (!broken) {
            readBefore = counts - missed;
        }
    }

    /** Interference takes one count of {@link #LOST_OF}. */
    private void lose(long way) {
        if (lasting || !mistakes.has(Mistake.MASTER_COUNTS_LOST)) {
            return;
        }
        losable += way;
        missed += losable / LOST_OF;
        losable %= LOST_OF;
    }

    /** The index pulse comes where a turn ends, whichever way it turns. */
    private void pulse() {
        if (!indexed || counts >= turnFrom && counts < turnFrom + countsPerTurn) {
            return;
        }
        long turn = Math.floorDiv(counts, countsPerTurn) * countsPerTurn;
        long edge = turn > turnFrom ? turn : turn + countsPerTurn;
        turnFrom = turn;
        if (!mistakes.has(Mistake.MASTER_INDEX_BROKEN)) {
            indexAt = sign * (edge - missed);
            indexPulses++;
        }
    }

    /** Index pulses that came so far. */
    public int indexPulses() {
        return indexPulses;
    }

    /** What the drive read at the last of them. */
    public long indexAt() {
        return indexAt;
    }

    /** What the drive reads: stands still while a line is broken. */
    public long read() {
        return sign * readBefore;
    }

    /** A line of the encoder is broken, which its signals show. */
    public boolean broken() {
        return broken;
    }

    /** True way since the bench was switched on, units. */
    public double way() {
        return (counts + fraction) / countsPerUnit;
    }

    /** Units/s. */
    public double speed() {
        return speed / countsPerUnit;
    }
}
