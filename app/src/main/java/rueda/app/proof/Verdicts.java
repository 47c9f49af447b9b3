package rueda.app.proof;

import java.util.List;
import org.springframework.data.jpa.repository.JpaRepository;

interface Verdicts extends JpaRepository<VerdictEntity, Long> {
    List<VerdictEntity> findByRunIdOrderByPlace(long runId);

    int countByRunIdAndHoldsFalse(long runId);
}
