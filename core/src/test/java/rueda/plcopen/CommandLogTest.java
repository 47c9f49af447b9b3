package rueda.plcopen;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;
import rueda.plc.run.CallPlace;

class CommandLogTest {

    /** A bench that runs for hours orders more than is kept: what is kept are the newest, in order, and nothing older is taken for them. */
    @Test
    void theOldestIsDroppedAndCounted() {
        CommandLog log = new CommandLog();
        for (int k = 0; k < 10_000; k++) {
            log.add(k, k % 5, new CallPlace("", 1), k % 2 == 0 ? CommandLog.Kind.MOVE : CommandLog.Kind.HALT, "b", k, 0, 0, 0, 0, 0.5, null);
            assertThat(log.entry(log.size() - 1).time()).isEqualTo(k);
            assertThat(log.size() + log.dropped()).isEqualTo(k + 1);
        }
        assertThat(log.dropped()).isPositive();
        for (int i = 0; i < log.size(); i++) {
            assertThat(log.entry(i).time()).isEqualTo(log.dropped() + i);
            assertThat(log.entry(i).target()).isEqualTo(log.dropped() + i);
        }
        assertThat(log.moves()).as("all that were ever ordered").isEqualTo(5000);
        assertThat(log.plannedTime()).isEqualTo(2500);
    }
}
