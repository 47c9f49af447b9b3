package rueda.drive;

import static rueda.drive.PowerState.FAULT;
import static rueda.drive.PowerState.FAULT_REACTION_ACTIVE;
import static rueda.drive.PowerState.OPERATION_ENABLED;
import static rueda.drive.PowerState.QUICK_STOP_ACTIVE;
import static rueda.drive.PowerState.READY_TO_SWITCH_ON;
import static rueda.drive.PowerState.SWITCHED_ON;
import static rueda.drive.PowerState.SWITCH_ON_DISABLED;

/**
 * The power drive system state machine of IEC 61800-7-201 (CiA 402-2), transitions 0 to 16. One transition a
 * call at the most, so every state on the way is seen. No allocation; not thread-safe.
 */
public final class PowerStateMachine {


    private PowerState state = PowerState.NOT_READY_TO_SWITCH_ON;
    private boolean resetBefore = true;

    public PowerState state() {
        return state;
    }

    /** Transition 13: a fault, from any state. */
    public void fault() {
        if (state != FAULT && state != FAULT_REACTION_ACTIVE) {
            state = FAULT_REACTION_ACTIVE;
        }
    }

    /**
     * Follows the controlword.
     *
     * @param controlword   6040h
     * @param standsStill   the axis has come to rest: ends fault reaction (14) and quick stop (12)
     * @param faultPresent  the cause of the fault is still there, so that it cannot be reset
     * @param stayInQuickStop quick stop option codes 5 to 8: stay until told otherwise
     */
    public void update(int controlword, boolean standsStill, boolean faultPresent, boolean stayInQuickStop) {
        boolean voltage = (controlword & ControlWord.ENABLE_VOLTAGE) != 0;
        boolean noQuickStop = (controlword & ControlWord.QUICK_STOP) != 0;
        boolean on = (controlword & ControlWord.SWITCH_ON) != 0;
        boolean operation = (controlword & ControlWord.ENABLE_OPERATION) != 0;
        boolean reset = (controlword & ControlWord.FAULT_RESET) != 0;
        boolean resetEdge = reset && !resetBefore;
        resetBefore = reset;
        boolean shutdown = voltage && noQuickStop && !on;
        boolean switchOn = voltage && noQuickStop && on;
        state = switch (state) {
            case NOT_READY_TO_SWITCH_ON -> SWITCH_ON_DISABLED;                                      // 1
            case SWITCH_ON_DISABLED -> shutdown ? READY_TO_SWITCH_ON : state;                       // 2
            case READY_TO_SWITCH_ON -> !voltage || !noQuickStop ? SWITCH_ON_DISABLED                // 7
                    : switchOn ? SWITCHED_ON : state;                                               // 3
            case SWITCHED_ON -> !voltage || !noQuickStop ? SWITCH_ON_DISABLED                       // 10
                    : shutdown ? READY_TO_SWITCH_ON                                                 // 6
                    : operation ? OPERATION_ENABLED : state;                                        // 4
            case OPERATION_ENABLED -> !voltage ? SWITCH_ON_DISABLED                                 // 9
                    : !noQuickStop ? QUICK_STOP_ACTIVE                                              // 11
                    : shutdown ? READY_TO_SWITCH_ON                                                 // 8
                    : !operation ? SWITCHED_ON : state;                                             // 5
            case QUICK_STOP_ACTIVE -> !voltage ? SWITCH_ON_DISABLED                                 // 12
                    : stayInQuickStop ? (switchOn && operation ? OPERATION_ENABLED : state)         // 16
                    : standsStill ? SWITCH_ON_DISABLED : state;                                     // 12
            case FAULT_REACTION_ACTIVE -> standsStill ? FAULT : state;                              // 14
            case FAULT -> resetEdge && !faultPresent ? SWITCH_ON_DISABLED : state;                  // 15
        };
    }
}
