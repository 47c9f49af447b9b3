package rueda.app.proof;

import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.Lob;
import jakarta.persistence.Table;
import java.time.Instant;

/** One run of a proof. */
@Entity
@Table(name = "proof_run")
public class RunEntity {
    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    Long id;
    long machineId;
    long revision;
    Instant ranAt;
    String name;
    double duration;
    long computedMillis;
    boolean holds;
    String stopped;
    /** text in which it stopped; null in runs of before programs had several */
    String stoppedFile;
    int stoppedLine;
    @Lob
    @Column(columnDefinition = "character large object")
    String figures;
    /** what was other than the document says; null for nothing */
    String circumstances;
    /** what the script did, JSON; null in runs of before there was one */
    @Lob
    @Column(columnDefinition = "character large object")
    String happened;

    protected RunEntity() {
    }

    RunEntity(long machineId, long revision, Instant now) {
        this.machineId = machineId;
        this.revision = revision;
        this.ranAt = now;
    }
}
