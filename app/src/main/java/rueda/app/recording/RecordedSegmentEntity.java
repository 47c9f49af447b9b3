package rueda.app.recording;

import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.Lob;
import jakarta.persistence.Table;

/** {@value #ROWS} samples of a column, or their times, the last maybe fewer. */
@Entity
@Table(name = "recorded_segment")
public class RecordedSegmentEntity {

    static final int ROWS = 1 << 16;
    /** Place of the times. */
    static final int TIMES = -1;

    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    Long id;
    long recordingId;
    int place;
    int number;
    /** {@link Segments} */
    @Lob
    @Column(columnDefinition = "binary large object")
    byte[] content;

    protected RecordedSegmentEntity() {
    }

    RecordedSegmentEntity(long recordingId, int place, int number, byte[] content) {
        this.recordingId = recordingId;
        this.place = place;
        this.number = number;
        this.content = content;
    }
}
