package rueda.drive;

import rueda.machine.Axis;
import rueda.machine.Brake;

/**
 * When the holding brake opens and closes. It opens while the motor already holds the load: until it is open, the drive
 * stays switched on. Without power it closes, and the motor holds the load until it has. No allocation; not thread-safe.
 */
final class HoldingBrake {

    private final boolean fitted;
    private final double subStep;
    private int releaseSubSteps;
    private int closeSubSteps;
    /** sub-steps until it has opened or closed */
    private int wait;
    private boolean open;
    /** sub-steps since somebody else than the drive closes it */
    private int withheld;

    /** @param subStep s */
    HoldingBrake(Axis axis, double subStep) {
        fitted = axis.brake().fitted();
        this.subStep = subStep;
        take(axis.brake());
    }

    /** Takes other times. */
    void take(Brake brake) {
        releaseSubSteps = (int) Math.round(brake.releaseMillis() * 1e-3 / subStep);
        closeSubSteps = (int) Math.round(brake.closeMillis() * 1e-3 / subStep);
    }

    /** The controlword with operation held back until the brake is open; asking for it begins to open it. */
    int await(int controlword, PowerState state) {
        if (!fitted || (controlword & ControlWord.OPERATION_ENABLED) != ControlWord.OPERATION_ENABLED || state != PowerState.SWITCHED_ON) {
            return controlword;
        }
        if (!open) {
            open = true;
            wait = releaseSubSteps;
        }
        return wait > 0 ? controlword & ~ControlWord.ENABLE_OPERATION : controlword;
    }

    /** Begins to close when torque is not wanted any more. */
    void follow(PowerState state, int controlword) {
        boolean wanted = state.powered() || state == PowerState.SWITCHED_ON && (controlword & ControlWord.OPERATION_ENABLED) == ControlWord.OPERATION_ENABLED;
        if (open && !wanted) {
            open = false;
            wait = closeSubSteps;
        }
    }

    /** One sub-step. @param mayOpen nobody else closes it  @return whether it has come to where it is going */
    boolean step(boolean mayOpen) {
        if (wait > 0) {
            wait--;
        }
        withheld = mayOpen ? 0 : Math.min(closeSubSteps, withheld) + 1;
        return wait == 0 || closedByOthers();
    }

    /** Somebody else has closed it: what the drive wants does not count. */
    boolean closedByOthers() {
        return withheld > closeSubSteps;
    }

    boolean fitted() {
        return fitted;
    }

    /** The motor must hold the load: the brake is open or on its way. */
    boolean needsTorque() {
        return fitted && (open || wait > 0);
    }

    /** Open, or on its way to be. */
    boolean open() {
        return open;
    }
}
