package rueda.app.proof;

import java.util.List;
import java.util.Optional;
import org.springframework.data.domain.Limit;
import org.springframework.data.jpa.repository.JpaRepository;

interface Runs extends JpaRepository<RunEntity, Long> {
    Optional<RunEntity> findFirstByMachineIdAndCircumstancesIsNullOrderByIdDesc(long machineId);

    Optional<RunEntity> findFirstByMachineIdAndNameIgnoreCaseAndCircumstancesIsNullOrderByIdDesc(long machineId, String name);

    List<RunEntity> findByMachineIdAndNameIgnoreCaseOrderByIdDesc(long machineId, String name, Limit most);

    List<RunEntity> findByMachineIdOrderByIdDesc(long machineId, Limit most);
}
