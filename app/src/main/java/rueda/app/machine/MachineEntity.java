package rueda.app.machine;

import jakarta.persistence.Entity;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.Table;

/** A machine and the revision it stands at. */
@Entity
@Table(name = "machine")
public class MachineEntity {
    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    Long id;
    String name;
    long currentRevision;

    protected MachineEntity() {
    }

    MachineEntity(String name) {
        this.name = name;
    }
}
