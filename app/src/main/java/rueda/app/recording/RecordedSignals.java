package rueda.app.recording;

import java.util.List;
import java.util.Optional;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Modifying;
import org.springframework.data.jpa.repository.Query;

interface RecordedSignals extends JpaRepository<RecordedSignalEntity, Long> {

    /** A column without its overview. */
    record Named(int place, String name, String unit) {
    }

    @Query("select new rueda.app.recording.RecordedSignals$Named(s.place, s.name, s.unit) from RecordedSignalEntity s where s.recordingId = :recordingId order by s.place")
    List<Named> names(long recordingId);

    Optional<RecordedSignalEntity> findByRecordingIdAndPlace(long recordingId, int place);

    @Modifying
    @Query("delete from RecordedSignalEntity s where s.recordingId = :recordingId")
    void forget(long recordingId);
}
