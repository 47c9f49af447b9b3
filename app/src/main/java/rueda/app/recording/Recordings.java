package rueda.app.recording;

import java.util.List;
import java.util.Optional;
import org.springframework.data.jpa.repository.JpaRepository;

interface Recordings extends JpaRepository<RecordingEntity, Long> {

    List<RecordingEntity> findByMachineIdAndCompleteTrueOrderByIdDesc(long machineId);

    Optional<RecordingEntity> findFirstByMachineIdAndHeadingsAndCompleteTrueOrderByIdDesc(long machineId, String headings);

    Optional<RecordingEntity> findFirstByMachineIdAndNameIgnoreCaseAndCompleteTrue(long machineId, String name);

    List<RecordingEntity> findByCompleteFalse();

    long countByMachineIdAndCompleteTrue(long machineId);
}
