package rueda.app.recording;

import java.time.Instant;
import java.util.List;

/**
 * A recording that was brought in.
 *
 * @param begins  time of its first sample, s
 * @param ends    time of its last sample, s
 * @param remarks what was left out of its file
 */
public record RecordingView(long id, String name, String fileName, Instant broughtAt, long samples, double begins, double ends, List<RecordedColumn> signals, List<String> remarks) {

    /** @param ofMachine a signal of the machine has this name: it can be laid over a run's */
    public record RecordedColumn(String name, String unit, boolean ofMachine) {
    }
}
