package rueda.machine;

import io.soabase.recordbuilder.core.RecordBuilder;
import java.math.BigDecimal;
import rueda.quantity.Ratio;
import rueda.quantity.Scale;

/**
 * One positioning axis.
 *
 * @param name        an identifier of the PLC language
 * @param kind        with ends, or endless
 * @param modulo      endless axes: user units after which the position begins again, exact decimal; 0 for none
 * @param unit        the unit the user works in
 * @param motor       the motor
 * @param encoder     the encoder on the motor
 * @param loadEncoder a second encoder, on the last shaft
 * @param train       reducers and feed between motor and load
 * @param load        what is moved
 * @param brake       holding brake
 * @param travel      stops and switches
 * @param limits      what the axis may do, in user units
 * @param supervision what the drive watches
 * @param gearBits    width of numerator and denominator of the drive's electronic gear, 8 to 32 bits
 * @param duty        the work it is sized for
 * @param homing      how it finds its zero
 * @param control     gains of the position and velocity loops
 * @param station     what travels on the bus each cycle
 * @param wiring      what is wired to the station's terminals
 * @param moves       moves and small steps that live in its drive
 * @param following   how it follows a master
 * @param guard       the watch over its stops and its standstill
 * @param commandedBy who tells it what to do
 */
@RecordBuilder
public record Axis(String name, Kind kind, BigDecimal modulo, Unit unit, Motor motor, Encoder encoder, LoadEncoder loadEncoder, Train train, Load load, Brake brake,
                   Travel travel, Limits limits, Supervision supervision, int gearBits, Duty duty, Homing homing, Control control, Station station, Wiring wiring, MoveList moves, Following following, AxisGuard guard, Commander commandedBy) implements AxisBuilder.With {

    /** LINEAR and ROTARY have ends; ENDLESS turns on for ever. */
    public enum Kind {
        LINEAR("linear, with ends"),
        ROTARY("rotary, with ends"),
        ENDLESS("endless");

        private final String words;

        Kind(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    /** Who tells an axis what to do. */
    public enum Commander {
        /** Motion function blocks of the PLC program. */
        MOTION_BLOCKS("motion blocks of the program"),
        /** The program writes control word, mode and targets itself, by the tags of the process data. */
        PROGRAM("the program by its own words"),
        /** Nobody on the bus: the enable input switches it on, starters begin the entries of its move list. */
        DRIVE("the drive itself, by its move list");

        private final String words;

        Commander(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    /** Commanded by motion blocks, without moves in the drive. */
    public Axis(String name, Kind kind, BigDecimal modulo, Unit unit, Motor motor, Encoder encoder, LoadEncoder loadEncoder, Train train, Load load, Brake brake,
                Travel travel, Limits limits, Supervision supervision, int gearBits, Duty duty, Homing homing, Control control, Station station, Wiring wiring) {
        this(name, kind, modulo, unit, motor, encoder, loadEncoder, train, load, brake, travel, limits, supervision, gearBits, duty, homing, control, station, wiring, MoveList.EMPTY, Following.NONE, AxisGuard.NONE, Commander.MOTION_BLOCKS);
    }

    /** The exact scale of this axis. @throws rueda.quantity.InvalidEntry when the entries make none */
    public Scale scale() {
        return new Scale(encoder.countsPerTurn(), train.gear(), train.feed().perTurn(unit.user()), unit.decimals());
    }

    /**
     * Encoder counts per wire unit as the drive holds them: what 608Fh, 6091h and 6092h give, exact when its gear is wide enough, else the
     * nearest fraction above zero.
     */
    public Ratio electronicGear() {
        long most = (1L << gearBits) - 1;
        return scale().countsPerWireUnitHeld().within(most, most);
    }

    /** By how much the drive's gear is off, share of the exact one. */
    public double gearError() {
        Ratio held = electronicGear();
        Ratio exact = scale().countsPerWireUnit();
        return new BigDecimal(held.numerator()).multiply(new BigDecimal(exact.denominator()))
                .divide(new BigDecimal(held.denominator()).multiply(new BigDecimal(exact.numerator())), new java.math.MathContext(40)).subtract(BigDecimal.ONE).doubleValue();
    }

    public boolean endless() {
        return kind == Kind.ENDLESS;
    }

    /** Wire units after which an endless axis begins again: its modulo, or the range of a 32-bit position; 0 with ends. */
    public long wireModulo() {
        if (!endless()) {
            return 0;
        }
        return modulo.signum() == 0 ? 1L << 32 : modulo.movePointRight(unit.decimals()).longValue();
    }

    /** The axis at its motor shaft. */
    public MotorSide motorSide() {
        return MotorSide.of(this);
    }

    /** The encoder on the load is there, used and enabled at its terminal. */
    public boolean loadEncoderUsed() {
        return loadEncoder.fitted() && wiring.terminal(Terminal.Function.LOAD_ENCODER).isPresent();
    }

    /** The torque limit the drive starts with, N·m: the default one, within {@link #highestTorque}. */
    public double torqueLimit() {
        return Math.min(highestTorque(), limits.normal().torque() / 100 * motor.ratedTorque());
    }

    /** The most torque the motor is ever given, N·m: its peak, or less by the highest torque of the limits. */
    public double highestTorque() {
        return Math.min(motor.peakTorque(), limits.max().torque() / 100 * motor.ratedTorque());
    }

    /** Everything that makes the scale, and the kind of the axis, from another axis. */
    public Axis withScaleOf(Axis other) {
        return withKind(other.kind).withModulo(other.modulo).withUnit(other.unit).withEncoder(other.encoder).withTrain(other.train).withGearBits(other.gearBits);
    }
}
