package rueda.app.devices;

import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.Lob;
import jakarta.persistence.Table;
import java.time.Instant;

/** All values that a device held at one time. Never changed. */
@Entity
@Table(name = "device_image")
public class ImageEntity {
    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    Long id;
    long machineId;
    String axis;
    String name;
    Instant takenAt;
    @Lob
    @Column(columnDefinition = "character large object")
    String content;

    protected ImageEntity() {
    }

    ImageEntity(long machineId, String axis, String name, String content, Instant now) {
        this.machineId = machineId;
        this.axis = axis;
        this.name = name;
        this.content = content;
        this.takenAt = now;
    }
}
