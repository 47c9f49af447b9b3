package rueda.app.devices;

import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.Lob;
import jakarta.persistence.Table;
import java.time.Instant;

/** A device description as it was brought in, byte for byte. */
@Entity
@Table(name = "device_description")
public class DescriptionEntity {
    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    Long id;
    String fileName;
    Instant broughtAt;
    @Lob
    @Column(columnDefinition = "binary large object")
    byte[] content;

    protected DescriptionEntity() {
    }

    DescriptionEntity(String fileName, byte[] content, Instant now) {
        this.fileName = fileName;
        this.content = content;
        this.broughtAt = now;
    }
}
