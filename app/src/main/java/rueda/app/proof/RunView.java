package rueda.app.proof;

import java.time.Instant;
import java.util.List;
import rueda.proof.ProofRun;
import rueda.proof.Verdict;

/** A stored run. @param computedMillis how long the computation took, ms */
public record RunView(long id, long revision, Instant ranAt, String name, double duration, long computedMillis, boolean holds,
                      String stopped, String stoppedFile, int stoppedLine, ProofRun.Figures figures, List<Verdict> verdicts) {
}
