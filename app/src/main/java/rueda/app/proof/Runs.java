package rueda.app.proof;

import java.util.Optional;
import org.springframework.data.jpa.repository.JpaRepository;

interface Runs extends JpaRepository<RunEntity, Long> {
    Optional<RunEntity> findFirstByMachineIdOrderByIdDesc(long machineId);

    Optional<RunEntity> findFirstByMachineIdAndNameIgnoreCaseOrderByIdDesc(long machineId, String name);
}
