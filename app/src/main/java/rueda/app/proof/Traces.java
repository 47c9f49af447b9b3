package rueda.app.proof;

import java.util.Optional;
import org.springframework.data.jpa.repository.JpaRepository;

interface Traces extends JpaRepository<TraceEntity, Long> {
    Optional<TraceEntity> findByRunIdAndSignalName(long runId, String signalName);
}
