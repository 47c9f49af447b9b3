package rueda.app.machine;

import java.time.Instant;
import rueda.machine.Machine;

/**
 * A machine as it stands.
 *
 * @param id       key
 * @param revision number of the revision
 * @param savedAt  when it was saved
 * @param canUndo  an earlier revision exists
 * @param canRedo  an undone revision exists
 * @param document the document
 */
public record MachineState(long id, long revision, Instant savedAt, boolean canUndo, boolean canRedo, Machine document) {
}
