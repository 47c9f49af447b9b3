package rueda.plant;

import rueda.machine.Axis;

/**
 * One motor with its load, as the drive meets it: torque in; encoder counts, index pulse and switches out.
 *
 * <p>The encoder is absolute within one turn and knows no turns at power-up, so the count after switching on is
 * the true count modulo one turn. No allocation in {@link #step}. Not thread-safe.
 */
public final class ServoPlant {

    private final Mechanics mechanics;
    private final long countsPerTurn;
    private final double countsPerRadian;
    private final double unitsPerRadian;
    private final double negativeLimitAngle;
    private final double positiveLimitAngle;
    private final double camFromAngle;
    private final double camToAngle;
    private long countsAtPowerUp;
    private long counts;

    public ServoPlant(Axis axis, double dt) {
        mechanics = new Mechanics(axis, dt);
        countsPerTurn = axis.encoder().countsPerTurn();
        countsPerRadian = countsPerTurn / (2 * Math.PI);
        unitsPerRadian = axis.scale().unitsPerMotorTurn().toDouble() / (2 * Math.PI);
        negativeLimitAngle = axis.travel().negativeLimit() / unitsPerRadian;
        positiveLimitAngle = axis.travel().positiveLimit() / unitsPerRadian;
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
        long trueCounts = (long) Math.floor(mechanics.angle() * countsPerRadian);
        countsAtPowerUp = Math.floorDiv(trueCounts, countsPerTurn) * countsPerTurn;
        counts = trueCounts - countsAtPowerUp;
    }

    /** @param torque demanded motor torque, N·m */
    public void step(double torque) {
        mechanics.step(torque);
        counts = (long) Math.floor(mechanics.angle() * countsPerRadian) - countsAtPowerUp;
    }

    /** Encoder counts since power-up, starting with the absolute count within the turn. */
    public long counts() {
        return counts;
    }

    public long countsPerTurn() {
        return countsPerTurn;
    }

    public boolean negativeLimitReached() {
        return mechanics.angle() <= negativeLimitAngle;
    }

    public boolean positiveLimitReached() {
        return mechanics.angle() >= positiveLimitAngle;
    }

    public boolean onReferenceCam() {
        return mechanics.angle() >= camFromAngle && mechanics.angle() < camToAngle;
    }

    /** Where the load stands, user units from the negative hard stop. */
    public double place() {
        return mechanics.angle() * unitsPerRadian;
    }

    /** User units/s. */
    public double speed() {
        return mechanics.speed() * unitsPerRadian;
    }

    public Mechanics mechanics() {
        return mechanics;
    }

    /** Place, in user units from the negative hard stop, at which a count is read. */
    public double placeOfCount(long count) {
        return (count + countsAtPowerUp) / countsPerRadian * unitsPerRadian;
    }
}
