package rueda.plant;

import rueda.machine.Axis;
import rueda.machine.Encoder;

/**
 * One motor with its load, as the drive meets it: torque in; encoder counts, index pulse and switches out.
 *
 * <p>An incremental encoder starts at 0 wherever it stands; an absolute one knows its place within one turn, or within
 * as many turns as it has bits for. Switches stand at the load. No allocation in {@link #step}. Not thread-safe.
 */
public final class ServoPlant {

    private final Mechanics mechanics;
    private final Encoder encoder;
    private final long countsPerTurn;
    private final double countsPerRadian;
    private final double unitsPerRadian;
    private final boolean endless;
    private final double length;
    private final double negativeLimitAngle;
    private final double positiveLimitAngle;
    private final double camFromAngle;
    private final double camToAngle;
    private long countsAtPowerUp;
    private long counts;

    public ServoPlant(Axis axis, double dt) {
        mechanics = Mechanics.of(axis, dt);
        encoder = axis.encoder();
        countsPerTurn = encoder.countsPerTurn();
        countsPerRadian = countsPerTurn / (2 * Math.PI);
        unitsPerRadian = axis.motorSide().unitsPerRadian();
        endless = axis.endless();
        length = axis.travel().length();
        negativeLimitAngle = endless ? Double.NEGATIVE_INFINITY : axis.travel().negativeLimit() / unitsPerRadian;
        positiveLimitAngle = endless ? Double.POSITIVE_INFINITY : axis.travel().positiveLimit() / unitsPerRadian;
        camFromAngle = axis.travel().camFrom() / unitsPerRadian;
        camToAngle = axis.travel().camTo() / unitsPerRadian;
        switchOnAt(axis.travel().parkedAt());
    }

    /**
     * Switches the bench on with the axis standing somewhere.
     *
     * @param place user units from the negative hard stop
     */
    public void switchOnAt(double place) {
        mechanics.place(place / unitsPerRadian);
        mechanics.brake(true);
        long trueCounts = (long) Math.floor(mechanics.angle() * countsPerRadian);
        if (encoder.kind() == Encoder.Kind.INCREMENTAL) {
            countsAtPowerUp = trueCounts;
        } else {
            long range = countsPerTurn << encoder.multiTurnBits();
            countsAtPowerUp = Math.floorDiv(trueCounts, range) * range;
        }
        counts = trueCounts - countsAtPowerUp;
    }

    /** @param torque demanded motor torque, N·m */
    public void step(double torque) {
        mechanics.step(torque);
        counts = (long) Math.floor(mechanics.angle() * countsPerRadian) - countsAtPowerUp;
    }

    /** Encoder counts: since power-up, or from the place an absolute encoder knew then. */
    public long counts() {
        return counts;
    }

    public long countsPerTurn() {
        return countsPerTurn;
    }

    /** Count, within one turn, at which the index pulse comes. */
    public long indexCount() {
        return Math.floorMod(-countsAtPowerUp, countsPerTurn);
    }

    public boolean negativeLimitReached() {
        return mechanics.loadAngle() <= negativeLimitAngle;
    }

    public boolean positiveLimitReached() {
        return mechanics.loadAngle() >= positiveLimitAngle;
    }

    public boolean onReferenceCam() {
        if (endless) {
            double place = place();
            double within = place - Math.floor(place / length) * length;
            return within >= camFromAngle * unitsPerRadian && within < camToAngle * unitsPerRadian;
        }
        return mechanics.loadAngle() >= camFromAngle && mechanics.loadAngle() < camToAngle;
    }

    /** Where the load stands, user units from the negative hard stop. */
    public double place() {
        return mechanics.loadAngle() * unitsPerRadian;
    }

    /** Speed of the load, user units/s. */
    public double speed() {
        return mechanics.loadSpeed() * unitsPerRadian;
    }

    public Mechanics mechanics() {
        return mechanics;
    }

    /** Place, in user units from the negative hard stop, at which a count is read. */
    public double placeOfCount(long count) {
        return (count + countsAtPowerUp) / countsPerRadian * unitsPerRadian;
    }
}
