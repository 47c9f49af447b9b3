package rueda.drive;

import rueda.machine.Terminal.Function;

/** The controlword with what the terminals ask for: they can stop and reset, never start. No allocation; not thread-safe. */
final class TerminalOrders {

    private final DigitalInputs inputs;
    private boolean resetBefore;

    TerminalOrders(DigitalInputs inputs) {
        this.inputs = inputs;
    }

    /**
     * @param controlword 6040h
     * @param torqueOff   the guard of the axis has taken the torque
     * @param stop        it asks for a stop
     * @return what the power state machine is told
     */
    int with(int controlword, boolean torqueOff, boolean stop) {
        int word = controlword;
        if (torqueOff || inputs.active(Function.SAFE_TORQUE_OFF)) {
            word &= ~ControlWord.ENABLE_VOLTAGE;
        }
        if (stop || inputs.active(Function.QUICK_STOP)) {
            word &= ~ControlWord.QUICK_STOP;
        }
        if (inputs.wired(Function.ENABLE) && !inputs.high(Function.ENABLE)) {
            word &= ~ControlWord.ENABLE_OPERATION;
        }
        boolean reset = inputs.active(Function.FAULT_RESET);
        if (reset && !resetBefore) {
            word |= ControlWord.FAULT_RESET;
        }
        resetBefore = reset;
        return word;
    }
}
