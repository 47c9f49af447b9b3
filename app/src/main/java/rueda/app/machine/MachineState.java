package rueda.app.machine;

import java.time.Instant;
import java.util.List;
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
 * @param unknown  places of entries in the stored document that this Rueda does not know, up to 20; the next revision will not have them
 */
public record MachineState(long id, long revision, Instant savedAt, boolean canUndo, boolean canRedo, Machine document, List<String> unknown) {
}
