package rueda.app.recording;

import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.Lob;
import jakarta.persistence.Table;

/** A column of a recording that was brought in. */
@Entity
@Table(name = "recorded_signal")
public class RecordedSignalEntity {
    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    Long id;
    long recordingId;
    int place;
    String name;
    String unit;
    /** {@link rueda.recording.Overview} as bytes, deflated */
    @Lob
    @Column(columnDefinition = "binary large object")
    byte[] overview;

    protected RecordedSignalEntity() {
    }

    RecordedSignalEntity(long recordingId, int place, String name, String unit, byte[] overview) {
        this.recordingId = recordingId;
        this.place = place;
        this.name = name;
        this.unit = unit;
        this.overview = overview;
    }
}
