package rueda.drive;

import rueda.machine.Terminal.Function;

/**
 * The controlword of a drive that nobody commands over the bus: its enable input switches it on. At power-up its level counts; after a
 * fault it must go off and on again, so that no axis comes back to life because a fault was acknowledged. No allocation; not thread-safe.
 */
final class LocalOrders {

    private final DigitalInputs inputs;
    private boolean wanted;
    private boolean enableBefore;

    LocalOrders(DigitalInputs inputs) {
        this.inputs = inputs;
        wanted = enable();
        enableBefore = wanted;
    }

    private boolean enable() {
        return inputs.wired(Function.ENABLE) && inputs.high(Function.ENABLE);
    }

    /** Once a bus cycle. @return what a controlword would say */
    int controlword(PowerState state) {
        boolean now = enable();
        if (state == PowerState.FAULT || state == PowerState.FAULT_REACTION_ACTIVE || !now) {
            wanted = false;
        } else if (!enableBefore) {
            wanted = true;
        }
        enableBefore = now;
        if (!wanted) {
            return ControlWord.SHUTDOWN;
        }
        return switch (state) {
            case READY_TO_SWITCH_ON -> ControlWord.SWITCHED_ON;
            case SWITCHED_ON, OPERATION_ENABLED -> ControlWord.OPERATION_ENABLED;
            default -> ControlWord.SHUTDOWN;
        };
    }
}
