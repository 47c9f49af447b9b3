package rueda.plcopen;

import rueda.profile.TimedCurve;

/**
 * Leads the setpoint along a table over time; when it is through, the axis goes on at the speed that it has then. Time counts in bus cycles, so
 * that nothing adds up. No allocation in a step; not thread-safe.
 */
final class CurveGenerator implements SetpointGenerator {

    private final AxisSetpoint setpoint;
    private final double cycleSeconds;
    private final double[] sample = new double[3];
    private TimedCurve curve;
    private double topSpeed;
    private long cycles;
    /** by how much its places have been moved since it began, user units */
    private double moved;

    /** @param cycleSeconds bus cycle, s */
    CurveGenerator(AxisSetpoint setpoint, double cycleSeconds) {
        this.setpoint = setpoint;
        this.cycleSeconds = cycleSeconds;
    }

    /** Begins where the setpoint is, which must be where the curve begins. @param top its highest speed, units/s */
    void begin(TimedCurve wanted, double top) {
        curve = wanted;
        topSpeed = top;
        cycles = 0;
        moved = 0;
    }

    @Override
    public void step() {
        cycles++;
        curve.sample(cycles * cycleSeconds, sample);
        setpoint.position = sample[0] + moved;
        setpoint.velocity = sample[1];
        setpoint.acceleration = sample[2];
    }

    @Override
    public boolean ended() {
        return cycles * cycleSeconds >= curve.duration();
    }

    @Override
    public void lookAhead(double ahead, double[] into) {
        curve.sample(cycles * cycleSeconds + ahead, into);
        into[0] += moved;
    }

    /** units/s */
    double topSpeed() {
        return topSpeed;
    }

    /** Every place has another number, or is another one. @param by user units */
    void shift(double by) {
        moved += by;
    }
}
