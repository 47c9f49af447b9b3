package rueda.drive;

import static rueda.drive.DriveObject.POSITION_WINDOW;

import rueda.machine.Terminal.Function;

/** Watches that the setpoint does not go on into a limit switch; out of it is free. No allocation; not thread-safe. */
final class LimitSwitchMonitor {

    private final ObjectDictionary dictionary;
    private final Setpoint setpoint;
    private final DriveUnits units;
    private final DigitalInputs inputs;
    /** setpoint at which a limit switch came, or the one farthest out of it since */
    private long enteredAt;

    LimitSwitchMonitor(ObjectDictionary dictionary, Setpoint setpoint, DriveUnits units, DigitalInputs inputs) {
        this.dictionary = dictionary;
        this.setpoint = setpoint;
        this.units = units;
        this.inputs = inputs;
    }

    /** The setpoint has been put where it is. */
    void enter() {
        enteredAt = setpoint.position;
    }

    /** One sub-step. @param homing a search is under way, which looks at the switches itself  @return the fault, or null */
    DriveFault watch(boolean homing) {
        boolean negative = inputs.active(Function.NEGATIVE_LIMIT);
        boolean positive = inputs.active(Function.POSITIVE_LIMIT);
        if (!negative && !positive || homing) {
            enteredAt = setpoint.position;
            return null;
        }
        boolean moving = negative && setpoint.speed < -units.roundingSpeed || positive && setpoint.speed > units.roundingSpeed;
        /* a load that settles by less than the position window has not been moved */
        long into = positive ? setpoint.position - enteredAt : enteredAt - setpoint.position;
        if (moving && into > dictionary.get(POSITION_WINDOW) * units.countsPerWireUnit) {
            return DriveFault.LIMIT_SWITCH;
        }
        if (into < 0) {
            enteredAt = setpoint.position;
        }
        return null;
    }
}
