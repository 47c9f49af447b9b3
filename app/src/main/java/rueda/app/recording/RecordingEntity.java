package rueda.app.recording;

import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.Lob;
import jakarta.persistence.Table;
import java.time.Instant;

/** A recording that was brought in. */
@Entity
@Table(name = "recording")
public class RecordingEntity {
    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    Long id;
    long machineId;
    String name;
    String fileName;
    Instant broughtAt;
    long samples;
    /** time of the first sample, ns */
    long begins;
    /** time of the last sample, ns */
    long ends;
    /** of its file, by which one of the same recorder is known again */
    String headings;
    /** how it was read, JSON */
    @Lob
    @Column(columnDefinition = "character large object")
    String layout;
    /** what was left out, line by line */
    String remarks;
    /** all of it is there */
    boolean complete;

    protected RecordingEntity() {
    }

    RecordingEntity(long machineId, String name, String fileName, Instant now, String headings, String layout) {
        this.machineId = machineId;
        this.name = name;
        this.fileName = fileName;
        this.broughtAt = now;
        this.headings = headings;
        this.layout = layout;
        remarks = "";
    }
}
