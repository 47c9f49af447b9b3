package rueda.bench;

import rueda.drive.ControlWord;
import rueda.drive.DriveObject;
import rueda.drive.OperationMode;
import rueda.drive.PowerState;
import rueda.drive.StatusWord;
import rueda.machine.Axis;
import rueda.machine.VirtualMaster;
import rueda.plcopen.CommandLog;
import rueda.plcopen.Mailbox;
import rueda.plcopen.MotionAxis;
import rueda.quantity.Modulo;

/**
 * A virtual master of the PLC: its side of an axis, and in place of a drive something that is always where it is told to be and knows that.
 * Power follows the controlword within a bus cycle, and homing takes the place it is given. Warm use allocates nothing. Not thread-safe.
 */
public final class VirtualLine {

    private final VirtualMaster master;
    private final MotionAxis motion;
    private final Modulo modulo;
    private PowerState power = PowerState.SWITCH_ON_DISABLED;
    private long position;
    private int mode = OperationMode.CYCLIC_SYNCHRONOUS_POSITION;
    private boolean homed;
    /** 607Ch as it was written last */
    private long homeOffset;

    VirtualLine(int number, VirtualMaster master, CommandLog log, long cycleNanos) {
        this.master = master;
        Axis axis = master.asAxis();
        motion = new MotionAxis(number, axis, new NoDrive(), log, cycleNanos);
        modulo = new Modulo(axis.wireModulo());
    }

    MotionAxis motion() {
        return motion;
    }

    /** The PLC takes what there is of it. */
    void readInputs() {
        int word = power.pattern() | StatusWord.VOLTAGE_ENABLED | StatusWord.REMOTE | StatusWord.REFERENCED;
        word |= mode == OperationMode.HOMING ? (homed ? StatusWord.MODE_12 | StatusWord.TARGET_REACHED : 0) : StatusWord.MODE_12 | StatusWord.TARGET_REACHED;
        motion.read(word, position, mode);
    }

    /** One bus cycle. @param now ns  @param halted everything is stopped */
    void cycle(long now, boolean halted) {
        motion.update(now);
        int controlword = halted ? 0 : motion.controlword();
        power = switch (controlword & ControlWord.OPERATION_ENABLED) {
            case ControlWord.OPERATION_ENABLED -> power == PowerState.SWITCHED_ON || power == PowerState.OPERATION_ENABLED ? PowerState.OPERATION_ENABLED : PowerState.SWITCHED_ON;
            case ControlWord.SWITCHED_ON -> PowerState.SWITCHED_ON;
            case ControlWord.SHUTDOWN -> PowerState.READY_TO_SWITCH_ON;
            default -> PowerState.SWITCH_ON_DISABLED;
        };
        boolean starts = motion.mode() == OperationMode.HOMING && mode == OperationMode.HOMING && (controlword & ControlWord.HOMING_START) != 0;
        homed = motion.mode() == OperationMode.HOMING && (homed || starts);
        mode = motion.mode();
        position = starts ? modulo.of(-homeOffset) : homed ? position : motion.targetWire();
    }

    /* ---- by hand ---- */

    /** Takes orders, or none. */
    public void enable(boolean on) {
        motion.enableByHand(on);
    }

    /** Runs on at a speed, or comes to rest with 0. @param speed units/s with its sign  @return why not, or null */
    public String run(double speed, long now) {
        return motion.runByHand(speed, master.acceleration(), master.jerk(), now);
    }

    /* ---- what can be read ---- */

    public VirtualMaster master() {
        return master;
    }

    public PowerState power() {
        return power;
    }

    /** Where it is commanded to be, units. */
    public double position() {
        return motion.shownPosition();
    }

    /** How far it has gone since the bench was switched on, units. */
    public double way() {
        return motion.gone();
    }

    /** Units/s. */
    public double speed() {
        return motion.commandedSpeed();
    }

    /** What it does, in words. */
    public String words() {
        return motion.state().words();
    }

    /** There is nothing to ask a drive. */
    private final class NoDrive implements Mailbox {
        @Override
        public void write(DriveObject object, long value) {
            homeOffset = object == DriveObject.HOME_OFFSET ? value : homeOffset;
        }

        @Override
        public long read(DriveObject object) {
            return object == DriveObject.VELOCITY_ACTUAL ? motion.wireVelocity() : 0;
        }

        @Override
        public boolean answered(DriveObject object) {
            return true;
        }

        @Override
        public boolean written() {
            return true;
        }
    }
}
