package rueda.app.machine;

import java.util.List;
import java.util.Optional;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Query;

interface Revisions extends JpaRepository<RevisionEntity, Long> {
    Optional<RevisionEntity> findByMachineIdAndNumber(long machineId, long number);

    @Query("select max(r.number) from RevisionEntity r where r.machineId = :machineId")
    long lastNumber(long machineId);

    /** The latest ones before a number. */
    List<RevisionEntity> findTop50ByMachineIdAndNumberLessThanOrderByNumberDesc(long machineId, long before);

    /** The latest child: where redo goes. */
    Optional<RevisionEntity> findFirstByMachineIdAndParentOrderByNumberDesc(long machineId, long parent);
}
