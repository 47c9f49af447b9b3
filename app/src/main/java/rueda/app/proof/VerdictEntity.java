package rueda.app.proof;

import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.Lob;
import jakarta.persistence.Table;

/** One verdict of a run; its content as JSON. */
@Entity
@Table(name = "verdict")
public class VerdictEntity {
    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    Long id;
    long runId;
    int place;
    boolean holds;
    @Lob
    @Column(columnDefinition = "character large object")
    String content;

    protected VerdictEntity() {
    }

    VerdictEntity(long runId, int place, boolean holds, String content) {
        this.runId = runId;
        this.place = place;
        this.holds = holds;
        this.content = content;
    }
}
