package rueda.app.devices;

import org.springframework.data.jpa.repository.JpaRepository;

interface DescriptionFiles extends JpaRepository<DescriptionEntity, Long> {
}
