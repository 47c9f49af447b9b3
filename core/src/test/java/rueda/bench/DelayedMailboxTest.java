package rueda.bench;

import static org.assertj.core.api.Assertions.assertThat;

import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.IntRange;
import net.jqwik.api.constraints.Size;
import java.util.List;
import org.junit.jupiter.api.Test;
import rueda.drive.DriveObject;
import rueda.drive.ObjectDictionary;

class DelayedMailboxTest {

    private static final long CYCLE = 1_000_000;
    private static final int CYCLES_PER_ANSWER = 4;

    private final ObjectDictionary device = new ObjectDictionary();
    private final DelayedMailbox mailbox = new DelayedMailbox(device, CYCLE);

    private void cycles(int count) {
        for (int i = 0; i < count; i++) {
            mailbox.cycle();
        }
    }

    @Test
    void aWriteActsWhenItIsAnswered() {
        mailbox.write(DriveObject.HOME_OFFSET, -1200);
        cycles(CYCLES_PER_ANSWER - 1);
        assertThat(device.get(DriveObject.HOME_OFFSET)).isZero();
        assertThat(mailbox.written()).isFalse();
        cycles(1);
        assertThat(device.get(DriveObject.HOME_OFFSET)).isEqualTo(-1200);
        assertThat(mailbox.written()).isTrue();
    }

    @Test
    void aReadingKnowsWhatWasThereWhenItWasAnswered() {
        device.set(DriveObject.INPUT_FUNCTIONS, 5);
        assertThat(mailbox.read(DriveObject.INPUT_FUNCTIONS)).as("not answered yet").isZero();
        cycles(CYCLES_PER_ANSWER);
        device.set(DriveObject.INPUT_FUNCTIONS, 6);
        assertThat(mailbox.read(DriveObject.INPUT_FUNCTIONS)).isEqualTo(5);
        cycles(CYCLES_PER_ANSWER);
        assertThat(mailbox.read(DriveObject.INPUT_FUNCTIONS)).isEqualTo(6);
    }

    /** Torque is written in every cycle, and the jog inputs are still read. */
    @Test
    void writingInEveryCycleStarvesNoReading() {
        device.set(DriveObject.INPUT_FUNCTIONS, 3);
        for (int i = 1; i <= 3 * CYCLES_PER_ANSWER; i++) {
            mailbox.write(DriveObject.TARGET_TORQUE, i);
            mailbox.read(DriveObject.INPUT_FUNCTIONS);
            mailbox.cycle();
        }
        assertThat(mailbox.read(DriveObject.INPUT_FUNCTIONS)).isEqualTo(3);
        assertThat(device.get(DriveObject.TARGET_TORQUE)).as("the value that was asked for last when its turn came").isEqualTo(3 * CYCLES_PER_ANSWER);
    }

    /** A slow bus: a whole cycle is the shortest there is. */
    @Test
    void aCycleLongerThanTheAnswerIsOneCycle() {
        DelayedMailbox slow = new DelayedMailbox(device, 8_000_000);
        slow.write(DriveObject.MAX_MOTOR_SPEED, 300);
        slow.cycle();
        assertThat(device.get(DriveObject.MAX_MOTOR_SPEED)).isEqualTo(300);
    }

    @Property(tries = 200)
    void whateverIsAskedTheLastValueOfEachObjectArrives(@ForAll @Size(max = 60) List<@IntRange(min = 0, max = 8) Integer> asked) {
        DriveObject[] objects = {DriveObject.HOME_OFFSET, DriveObject.MAX_MOTOR_SPEED, DriveObject.TORQUE_SOURCE};
        ObjectDictionary device = new ObjectDictionary();
        DelayedMailbox mailbox = new DelayedMailbox(device, CYCLE);
        long[] last = new long[objects.length];
        int value = 0;
        for (int order : asked) {
            if (order < objects.length) {
                last[order] = ++value;
                mailbox.write(objects[order], value);
            } else if (order < 2 * objects.length) {
                mailbox.read(objects[order - objects.length]);
            } else {
                mailbox.cycle();
            }
        }
        for (int i = 0; i < 2 * objects.length * CYCLES_PER_ANSWER; i++) {
            mailbox.cycle();
        }
        assertThat(mailbox.written()).isTrue();
        for (int i = 0; i < objects.length; i++) {
            assertThat(device.get(objects[i])).isEqualTo(last[i]);
        }
    }
}
