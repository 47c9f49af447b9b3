package rueda.app.devices;

import java.util.List;
import org.springframework.data.jpa.repository.JpaRepository;

interface Images extends JpaRepository<ImageEntity, Long> {
    List<ImageEntity> findByMachineIdOrderByIdDesc(long machineId);
}
