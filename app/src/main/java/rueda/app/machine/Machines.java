package rueda.app.machine;

import jakarta.persistence.LockModeType;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Lock;
import org.springframework.data.jpa.repository.Query;

interface Machines extends JpaRepository<MachineEntity, Long> {
    /** Locks the row, so that of two saves at once the later one sees the first. */
    @Lock(LockModeType.PESSIMISTIC_WRITE)
    @Query("select m from MachineEntity m where m.id = :id and m.deletedAt is null")
    Optional<MachineEntity> lock(long id);

    /** @param savedAt of the revision it stands at, null when that is not there */
    record Row(long id, String name, long revision, Instant savedAt, Instant deletedAt) {
    }

    /** All of them, deleted ones too, without their documents. */
    @Query("""
            select new rueda.app.machine.Machines$Row(m.id, m.name, m.currentRevision, r.savedAt, m.deletedAt)
            from MachineEntity m left join RevisionEntity r on r.machineId = m.id and r.number = m.currentRevision order by m.id""")
    List<Row> rows();

    /** One that has not been deleted. */
    Optional<MachineEntity> findByIdAndDeletedAtIsNull(long id);

    long countByDeletedAtIsNull();
}
