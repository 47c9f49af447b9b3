package rueda.app.recording;

import java.util.Optional;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Modifying;
import org.springframework.data.jpa.repository.Query;

interface RecordedSegments extends JpaRepository<RecordedSegmentEntity, Long> {

    Optional<RecordedSegmentEntity> findByRecordingIdAndPlaceAndNumber(long recordingId, int place, int number);

    @Modifying
    @Query("delete from RecordedSegmentEntity s where s.recordingId = :recordingId")
    void forget(long recordingId);
}
