package rueda.app.proof;

import java.time.Instant;
import java.util.List;
import rueda.proof.Happened;
import rueda.proof.ProofRun;
import rueda.proof.Verdict;

/**
 * A stored run.
 *
 * @param computedMillis how long the computation took, ms
 * @param circumstances  what was other than the document says; empty for nothing
 * @param happened       what the script did
 */
public record RunView(long id, long revision, Instant ranAt, String name, double duration, long computedMillis, boolean holds,
                      String stopped, String stoppedFile, int stoppedLine, ProofRun.Figures figures, String circumstances, List<Happened> happened, List<Verdict> verdicts) {

    /** As it is stored. */
    record Script(List<Happened> happened) {
    }
}
