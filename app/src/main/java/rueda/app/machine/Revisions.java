package rueda.app.machine;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.springframework.data.domain.Limit;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Query;

interface Revisions extends JpaRepository<RevisionEntity, Long> {
    Optional<RevisionEntity> findByMachineIdAndNumber(long machineId, long number);

    @Query("select max(r.number) from RevisionEntity r where r.machineId = :machineId")
    long lastNumber(long machineId);

    /** @param parent null for the first  @param name null when nobody gave one  @param origin null when it is a change of its parent */
    record Row(long number, Instant savedAt, String name, String origin, Long parent) {
    }

    /** The latest ones before a number, without their documents. */
    @Query("""
            select new rueda.app.machine.Revisions$Row(r.number, r.savedAt, r.name, r.origin, r.parent)
            from RevisionEntity r where r.machineId = :machineId and r.number < :before order by r.number desc""")
    List<Row> rows(long machineId, long before, Limit limit);

    boolean existsByMachineIdAndParent(long machineId, long parent);

    /** The latest child: where redo goes. */
    Optional<RevisionEntity> findFirstByMachineIdAndParentOrderByNumberDesc(long machineId, long parent);
}
