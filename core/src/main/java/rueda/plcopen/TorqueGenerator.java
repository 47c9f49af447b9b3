package rueda.plcopen;

import rueda.drive.DriveObject;

/**
 * Torque instead of a position, up a ramp. The position setpoint follows the axis, so that what comes next takes over without a jump.
 * Where torque comes from and how fast the axis may turn goes to the drive by mailbox; until that is there the axis stays with what it did.
 * No allocation; not thread-safe.
 */
final class TorqueGenerator implements SetpointGenerator {

    private final AxisSetpoint setpoint;
    private final Mailbox mailbox;
    private final double cycleSeconds;
    private final EndlessRange range;
    private final double ratedTorque;
    private double wanted;
    private double ramp;
    private double torque;
    private double actual;
    private double actualBefore;

    /** @param cycleSeconds bus cycle, s  @param ratedTorque N·m */
    TorqueGenerator(AxisSetpoint setpoint, Mailbox mailbox, double cycleSeconds, EndlessRange range, double ratedTorque) {
        this.setpoint = setpoint;
        this.mailbox = mailbox;
        this.cycleSeconds = cycleSeconds;
        this.range = range;
        this.ratedTorque = ratedTorque;
    }

    /** Another generator made the setpoint until now: torque begins at zero. */
    void enter() {
        torque = 0;
    }

    /** @param newtonMetres at the motor; NaN takes it from the analogue input  @param newtonMetresPerSecond 0 for at once  @param turnsPerMinute highest speed of the motor */
    void order(double newtonMetres, double newtonMetresPerSecond, double turnsPerMinute) {
        boolean analogue = Double.isNaN(newtonMetres);
        wanted = analogue ? 0 : newtonMetres;
        ramp = newtonMetresPerSecond;
        mailbox.write(DriveObject.TORQUE_SOURCE, analogue ? 1 : 0);
        mailbox.write(DriveObject.MAX_MOTOR_SPEED, Math.round(turnsPerMinute));
    }

    /** Takes the position that came over the bus. @param position user units */
    void observe(double position) {
        actualBefore = actual;
        actual = position;
    }

    @Override
    public void step() {
        double step = ramp * cycleSeconds;
        torque = ramp == 0 ? wanted : torque + Math.max(-step, Math.min(step, wanted - torque));
        setpoint.velocity = range.shortest(actual - actualBefore) / cycleSeconds;
        setpoint.acceleration = 0;
        setpoint.position = actual;
    }

    /** Torque has reached what was asked for. */
    boolean reached() {
        return torque == wanted;
    }

    /** Thousandths of the rated torque. */
    long targetTorque() {
        return Math.round(torque / ratedTorque * 1000);
    }

    @Override
    public boolean ended() {
        return false;
    }

    @Override
    public void lookAhead(double ahead, double[] into) {
        into[0] = setpoint.position;
        into[1] = setpoint.velocity;
        into[2] = setpoint.acceleration;
    }
}
