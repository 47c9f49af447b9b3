package rueda.drive;

import static org.assertj.core.api.Assertions.assertThat;
import static rueda.drive.PowerState.*;

import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** The transitions and commands of IEC 61800-7-201 (CiA 402-2), tables "state transitions" and "command coding". */
class PowerStateMachineTest {

    private static final int SHUTDOWN = 0x06;
    private static final int SWITCH_ON = 0x07;
    private static final int ENABLE = 0x0F;
    private static final int QUICK_STOP = 0x02;
    private static final int DISABLE_VOLTAGE = 0x00;
    private static final int RESET = 0x80;

    private final PowerStateMachine machine = new PowerStateMachine();

    private PowerState after(int... controlwords) {
        for (int word : controlwords) {
            machine.update(word, false, false, false);
        }
        return machine.state();
    }

    @Test
    void switchesOnStepByStep() {
        assertThat(machine.state()).isEqualTo(NOT_READY_TO_SWITCH_ON);
        assertThat(after(0)).as("1").isEqualTo(SWITCH_ON_DISABLED);
        assertThat(after(SHUTDOWN)).as("2").isEqualTo(READY_TO_SWITCH_ON);
        assertThat(after(SWITCH_ON)).as("3").isEqualTo(SWITCHED_ON);
        assertThat(after(ENABLE)).as("4").isEqualTo(OPERATION_ENABLED);
        assertThat(after(SWITCH_ON)).as("5").isEqualTo(SWITCHED_ON);
        assertThat(after(SHUTDOWN)).as("6").isEqualTo(READY_TO_SWITCH_ON);
        assertThat(after(DISABLE_VOLTAGE)).as("7").isEqualTo(SWITCH_ON_DISABLED);
    }

    @Test
    void readyLeavesOnQuickStop() {
        assertThat(after(0, SHUTDOWN, QUICK_STOP)).as("7 by quick stop").isEqualTo(SWITCH_ON_DISABLED);
    }

    @Test
    void enabledLeavesDirectly() {
        assertThat(after(0, SHUTDOWN, SWITCH_ON, ENABLE, SHUTDOWN)).as("8").isEqualTo(READY_TO_SWITCH_ON);
        assertThat(after(SWITCH_ON, ENABLE, DISABLE_VOLTAGE)).as("9").isEqualTo(SWITCH_ON_DISABLED);
        assertThat(after(SHUTDOWN, SWITCH_ON, DISABLE_VOLTAGE)).as("10").isEqualTo(SWITCH_ON_DISABLED);
        assertThat(after(SHUTDOWN, SWITCH_ON, QUICK_STOP)).as("10 by quick stop").isEqualTo(SWITCH_ON_DISABLED);
    }

    @Test
    void quickStop() {
        assertThat(after(0, SHUTDOWN, SWITCH_ON, ENABLE, QUICK_STOP)).as("11").isEqualTo(QUICK_STOP_ACTIVE);
        assertThat(after(QUICK_STOP)).as("still moving").isEqualTo(QUICK_STOP_ACTIVE);
        machine.update(QUICK_STOP, true, false, false);
        assertThat(machine.state()).as("12").isEqualTo(SWITCH_ON_DISABLED);
    }

    @Test
    void quickStopThatStays() {
        after(0, SHUTDOWN, SWITCH_ON, ENABLE, QUICK_STOP);
        machine.update(QUICK_STOP, true, false, true);
        assertThat(machine.state()).isEqualTo(QUICK_STOP_ACTIVE);
        machine.update(ENABLE, true, false, true);
        assertThat(machine.state()).as("16").isEqualTo(OPERATION_ENABLED);
    }

    @Test
    void faultAndReset() {
        after(0, SHUTDOWN, SWITCH_ON, ENABLE);
        machine.fault();
        assertThat(machine.state()).as("13").isEqualTo(FAULT_REACTION_ACTIVE);
        assertThat(after(ENABLE)).as("still moving").isEqualTo(FAULT_REACTION_ACTIVE);
        machine.update(ENABLE, true, false, false);
        assertThat(machine.state()).as("14").isEqualTo(FAULT);
        machine.update(RESET, true, true, false);
        assertThat(machine.state()).as("the cause is still there").isEqualTo(FAULT);
        assertThat(after(RESET)).as("no edge").isEqualTo(FAULT);
        assertThat(after(0, RESET)).as("15").isEqualTo(SWITCH_ON_DISABLED);
    }

    @Test
    void faultIsPossibleInEveryState() {
        for (List<Integer> way : List.of(List.<Integer>of(), List.of(0), List.of(0, 6), List.of(0, 6, 7), List.of(0, 6, 7, 15), List.of(0, 6, 7, 15, 2))) {
            PowerStateMachine fresh = new PowerStateMachine();
            way.forEach(word -> fresh.update(word, false, false, false));
            fresh.fault();
            assertThat(fresh.state()).isEqualTo(FAULT_REACTION_ACTIVE);
        }
    }

    /** Statusword coding of the standard: x0xx 0000, x1xx 0000, x01x 0001, x01x 0011, x01x 0111, x00x 0111, x0xx 1111, x0xx 1000. */
    @ParameterizedTest
    @CsvSource({"0x00, NOT_READY_TO_SWITCH_ON", "0x40, SWITCH_ON_DISABLED", "0x21, READY_TO_SWITCH_ON", "0x23, SWITCHED_ON",
            "0x27, OPERATION_ENABLED", "0x07, QUICK_STOP_ACTIVE", "0x0F, FAULT_REACTION_ACTIVE", "0x08, FAULT", "0x0637, OPERATION_ENABLED", "0x0250, SWITCH_ON_DISABLED"})
    void readsTheStatusword(String word, PowerState state) {
        assertThat(PowerState.of(Integer.decode(word))).isEqualTo(state);
    }
}
