package rueda.app.proof;

import java.util.List;
import java.util.Optional;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Query;

interface Traces extends JpaRepository<TraceEntity, Long> {
    Optional<TraceEntity> findByRunIdAndSignalName(long runId, String signalName);

    /** Names of the signals of a run, in the order in which they were stored. */
    @Query("select t.signalName from TraceEntity t where t.runId = :runId order by t.id")
    List<String> findNames(long runId);

    Optional<TraceEntity> findFirstByRunIdAndSignalNameIgnoreCase(long runId, String signalName);

    /** A signal of a run without its samples. */
    record Named(long run, String name, String unit) {
    }

    /** The signals of some runs, in the order in which they were stored. */
    @Query("select new rueda.app.proof.Traces$Named(t.runId, t.signalName, t.unit) from TraceEntity t where t.runId in :runIds order by t.id")
    List<Named> findSignals(List<Long> runIds);
}
