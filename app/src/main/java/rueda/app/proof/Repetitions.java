package rueda.app.proof;

import java.util.List;
import java.util.Optional;
import org.springframework.data.jpa.repository.JpaRepository;

interface Repetitions extends JpaRepository<RepetitionEntity, Long> {
    Optional<RepetitionEntity> findFirstByMachineIdAndNameIgnoreCaseOrderByIdDesc(long machineId, String name);

    List<RepetitionEntity> findByStateIn(List<RepetitionEntity.State> states);
}
