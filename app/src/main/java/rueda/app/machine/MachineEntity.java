package rueda.app.machine;

import jakarta.persistence.Entity;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.time.Instant;

/** A machine and the revision it stands at. */
@Entity
@Table(name = "machine")
public class MachineEntity {
    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    Long id;
    String name;
    long currentRevision;
    /** null while it is kept among the others */
    Instant deletedAt;

    protected MachineEntity() {
    }

    MachineEntity(String name) {
        this.name = name;
    }
}
