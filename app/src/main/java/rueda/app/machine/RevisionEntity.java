package rueda.app.machine;

import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.Lob;
import jakarta.persistence.Table;
import java.time.Instant;

/** One state of a machine's document. But for its name never changed, and never deleted; undo and redo move along the parents. */
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
    /** given by a person, or null */
    String name;
    /** what it came from when it is no change of its parent, or null */
    String origin;
    @Lob
    @Column(columnDefinition = "character large object")
    String document;

    protected RevisionEntity() {
    }

    RevisionEntity(long machineId, long number, Long parent, String document, Instant savedAt) {
        this.machineId = machineId;
        this.number = number;
        this.parent = parent;
        this.document = document;
        this.savedAt = savedAt;
    }
}
