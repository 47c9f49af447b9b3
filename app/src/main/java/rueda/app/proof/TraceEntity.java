package rueda.app.proof;

import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.Lob;
import jakarta.persistence.Table;

/** One recorded signal of a run: doubles, most significant byte first, compressed with gzip. */
@Entity
@Table(name = "trace")
public class TraceEntity {
    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    Long id;
    long runId;
    @Column(name = "signal")
    String signalName;
    String unit;
    long cycleNanos;
    int samples;
    @Lob
    @Column(columnDefinition = "binary large object")
    byte[] content;

    protected TraceEntity() {
    }

    TraceEntity(long runId, String signalName, String unit, long cycleNanos, int samples, byte[] content) {
        this.runId = runId;
        this.signalName = signalName;
        this.unit = unit;
        this.cycleNanos = cycleNanos;
        this.samples = samples;
        this.content = content;
    }
}
