package rueda.app.proof;

import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.EnumType;
import jakarta.persistence.Enumerated;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.Lob;
import jakarta.persistence.Table;
import java.time.Instant;

/** A proof repeated by its plan. */
@Entity
@Table(name = "repetition")
public class RepetitionEntity {

    /** How far it has come. */
    public enum State { WAITS, RUNS, ENDED, CANCELLED, FAILED }

    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    Long id;
    long machineId;
    long revision;
    String name;
    Instant startedAt;
    Instant endedAt;
    @Enumerated(EnumType.STRING)
    State state;
    int done;
    int total;
    String message;
    /** as it was when it began, JSON */
    @Lob
    @Column(columnDefinition = "character large object")
    String proof;
    /** JSON, compressed with gzip; null until there are some */
    @Lob
    @Column(columnDefinition = "binary large object")
    byte[] outcomes;

    protected RepetitionEntity() {
    }

    RepetitionEntity(long machineId, long revision, String name, Instant now, int total, String proof) {
        this.machineId = machineId;
        this.revision = revision;
        this.name = name;
        startedAt = now;
        state = State.WAITS;
        this.total = total;
        this.proof = proof;
    }
}
