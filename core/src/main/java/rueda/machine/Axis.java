package rueda.machine;

import java.math.BigDecimal;
import rueda.quantity.Ratio;
import rueda.quantity.Scale;

/**
 * One positioning axis.
 *
 * @param name     an identifier of the PLC language
 * @param unit     the unit the user works in
 * @param motor    the motor
 * @param encoder  the motor's encoder
 * @param reducer  the reducer between motor and feed
 * @param feed     what one output turn moves
 * @param load     what is moved
 * @param travel   stops and switches, in mechanical coordinates
 * @param limits   what the axis may do, in user units
 * @param homing   how it finds its zero
 * @param control  gains of the position and velocity loops
 * @param station  what travels on the bus each cycle
 */
public record Axis(String name, Unit unit, Motor motor, Encoder encoder, Reducer reducer, Feed feed, Load load,
                   Travel travel, Limits limits, Homing homing, Control control, Station station) {

    /** @param symbol name of the unit, such as mm  @param decimals decimals on the wire, 0 to 6  @param metres metres of one unit, exact */
    public record Unit(String symbol, int decimals, BigDecimal metres) {
    }

    /**
     * @param inertia     rotor inertia, kg·m²
     * @param ratedTorque continuous torque, N·m
     * @param peakTorque  peak torque, N·m
     * @param maxSpeed    highest speed, 1/min
     */
    public record Motor(double inertia, double ratedTorque, double peakTorque, double maxSpeed) {
    }

    /** @param countsPerTurn counts per motor turn; the encoder is absolute within one turn */
    public record Encoder(long countsPerTurn) {
    }

    /** @param motorTurns turns of the motor  @param outputTurns for this many turns of the output, both whole and positive */
    public record Reducer(long motorTurns, long outputTurns) {
        /** @throws rueda.quantity.InvalidEntry when the output turns are zero */
        public Ratio ratio() {
            return Ratio.of(motorTurns, outputTurns);
        }
    }

    /**
     * Rack and pinion.
     *
     * @param teeth   teeth of the pinion
     * @param pitch   travel of one tooth, user units, exact decimal
     */
    public record Feed(int teeth, BigDecimal pitch) {
        public BigDecimal perTurn() {
            return pitch.multiply(BigDecimal.valueOf(teeth));
        }
    }

    /**
     * @param mass     moved mass, kg
     * @param coulomb  Coulomb friction at the load, N
     * @param viscous  viscous friction at the load, N·s/m
     */
    public record Load(double mass, double coulomb, double viscous) {
    }

    /**
     * Where the hardware stands, measured in user units from the negative hard stop.
     *
     * @param length        way between the hard stops
     * @param negativeLimit the negative limit switch is active from the stop up to here
     * @param positiveLimit the positive limit switch is active from here to the other stop
     * @param camFrom       reference cam, lower edge
     * @param camTo         reference cam, upper edge
     * @param parkedAt      where the axis stands when the bench is switched on
     */
    public record Travel(double length, double negativeLimit, double positiveLimit, double camFrom, double camTo,
                         double parkedAt) {
    }

    /**
     * @param softMin            lowest target, user units
     * @param softMax            highest target, user units
     * @param maxSpeed           units/s
     * @param maxAcceleration    units/s²
     * @param maxJerk            units/s³, 0 for no limit
     * @param quickStop          deceleration of quick stop and fault reaction, units/s²
     * @param followingError     allowed following error, units
     * @param followingErrorTime how long it may be exceeded, ms
     */
    public record Limits(double softMin, double softMax, double maxSpeed, double maxAcceleration, double maxJerk,
                         double quickStop, double followingError, int followingErrorTime) {
    }

    /**
     * @param method       homing method of IEC 61800-7-201: 11, 17 or 37
     * @param searchSpeed  6099h:01, units/s
     * @param creepSpeed   6099h:02, units/s
     * @param acceleration 609Ah, units/s²
     * @param zeroOffset   607Ch, the position the axis has at its zero, units
     */
    public record Homing(int method, double searchSpeed, double creepSpeed, double acceleration, double zeroOffset) {
    }

    /**
     * @param positionGain  Kv, 1/s
     * @param velocityGain  Kp, N·m·s/rad at the motor
     * @param integralTime  Ti of the velocity loop, ms
     * @param feedForward   share of the commanded speed fed forward, 0 to 1
     * @param torqueForward share of the commanded acceleration torque fed forward, 0 to 1
     */
    public record Control(double positionGain, double velocityGain, double integralTime, double feedForward,
                          double torqueForward) {
    }

    /** The exact scale of this axis. @throws rueda.quantity.InvalidEntry when the entries make none */
    public Scale scale() {
        return new Scale(encoder.countsPerTurn(), reducer.ratio(), feed.perTurn(), unit.decimals());
    }

    /** Metres per motor radian: the lever through which the motor moves the load. */
    public double metresPerRadian() {
        return scale().unitsPerMotorTurn().toDouble() * unit.metres().doubleValue() / (2 * Math.PI);
    }

    /** Total inertia at the motor shaft, kg·m²: rotor plus the mass through the lever squared. */
    public double totalInertia() {
        double lever = metresPerRadian();
        return motor.inertia() + load.mass() * lever * lever;
    }

    public Axis withHoming(Homing changed) {
        return new Axis(name, unit, motor, encoder, reducer, feed, load, travel, limits, changed, control, station);
    }

    public Axis withControl(Control changed) {
        return new Axis(name, unit, motor, encoder, reducer, feed, load, travel, limits, homing, changed, station);
    }

    public Axis withTravel(Travel changed) {
        return new Axis(name, unit, motor, encoder, reducer, feed, load, changed, limits, homing, control, station);
    }

    public Axis withStation(Station changed) {
        return new Axis(name, unit, motor, encoder, reducer, feed, load, travel, limits, homing, control, changed);
    }

    public Axis withName(String changed) {
        return new Axis(changed, unit, motor, encoder, reducer, feed, load, travel, limits, homing, control, station);
    }
}
