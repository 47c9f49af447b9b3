package rueda.app.machine;

import jakarta.persistence.LockModeType;
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

    List<MachineEntity> findAllByOrderById();

    /** One that has not been deleted. */
    Optional<MachineEntity> findByIdAndDeletedAtIsNull(long id);

    long countByDeletedAtIsNull();
}
