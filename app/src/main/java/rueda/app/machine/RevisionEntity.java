package rueda.app.machine;

import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.Lob;
import jakarta.persistence.Table;
import java.time.Instant;

/** One state of a machine's document. Never changed and never deleted; undo and redo move along the parents. */
@Entity
@Table(name = "revision")
public class RevisionEntity {
    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    Long id;
    long machineId;
    long number;
    Long parent;
    Instant savedAt;
    @Lob
    @Column(columnDefinition = "character large object")
    String document;

    protected RevisionEntity() {
    }

    RevisionEntity(long machineId, long number, Long parent, String document) {
        this.machineId = machineId;
        this.number = number;
        this.parent = parent;
        this.document = document;
        this.savedAt = Instant.now();
    }
}
