package rueda.guard;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;

/** Two channels of which either asks (common practice, no source). */
class TwoChannelInputTest {

    private static TwoChannelInput closed(int filter, int discrepancy) {
        TwoChannelInput input = new TwoChannelInput(0, filter, discrepancy);
        for (int k = 0; k <= filter + 1; k++) {
            input.cycle(true, true);
        }
        assertThat(input.cycle(true, true)).isFalse();
        return input;
    }

    @Test
    void itAsksUntilBothHaveBeenSeenClosed() {
        assertThat(new TwoChannelInput(0, 2, 10).cycle(true, true)).as("nothing has stood yet").isTrue();
        closed(2, 10);
    }

    @Test
    void eitherChannelAsks() {
        TwoChannelInput input = closed(0, 10);
        assertThat(input.cycle(false, true)).isTrue();
        assertThat(input.cycle(true, true)).isFalse();
        assertThat(input.cycle(true, false)).isTrue();
        assertThat(input.fault()).isFalse();
    }

    @Test
    void aPulseShorterThanTheFilterDoesNot() {
        TwoChannelInput input = closed(3, 10);
        for (int k = 0; k < 3; k++) {
            assertThat(input.cycle(false, false)).as("cycle %d", k).isFalse();
        }
        assertThat(input.cycle(true, true)).isFalse();
        for (int k = 0; k < 3; k++) {
            assertThat(input.cycle(false, false)).as("cycle %d", k).isFalse();
        }
        assertThat(input.cycle(false, false)).as("has stood longer than the filter").isTrue();
    }

    /** A hand through a light curtain for two cycles, whose sensor takes five: it is told five cycles later, for two cycles. */
    @Test
    void aSensorTellsLaterAndTellsAllOfIt() {
        for (int sensor : new int[] {0, 1, 5, 64, 65, 200}) {
            TwoChannelInput input = new TwoChannelInput(sensor, 1, 10);
            input.begin(true, true);
            for (int k = 0; k < 3; k++) {
                assertThat(input.cycle(true, true)).isFalse();
            }
            for (int k = 0; k < sensor + 20; k++) {
                boolean open = k < 2;
                boolean asks = input.cycle(!open, !open);
                assertThat(input.sensed()).as("sensor of %d cycles, cycle %d", sensor, k).isEqualTo(k >= sensor && k < sensor + 2);
                assertThat(asks).as("filter of one cycle behind it, cycle %d", k).isEqualTo(k >= sensor + 1 && k < sensor + 3);
            }
        }
    }

    @Test
    void channelsThatDifferTooLongAreAFaultUntilBothHaveOpened() {
        TwoChannelInput input = closed(0, 2);
        input.cycle(false, true);
        input.cycle(false, true);
        assertThat(input.fault()).as("as long as they may").isFalse();
        input.cycle(false, true);
        assertThat(input.fault()).isTrue();
        assertThat(input.cycle(true, true)).as("closing again is not enough").isTrue();
        assertThat(input.cycle(false, false)).isTrue();
        assertThat(input.fault()).isTrue();
        assertThat(input.cycle(true, true)).isFalse();
        assertThat(input.fault()).isFalse();
    }
}
