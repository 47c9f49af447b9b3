package rueda.app.machine;

import static org.assertj.core.api.Assertions.assertThat;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.times;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.when;

import java.time.Instant;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import rueda.machine.DemoMachine;

/** Looking at a list again reads no document again; what cannot be read is tried again. */
class KnownRevisionsTest {

    private static final String DEMO = MachineJson.write(DemoMachine.create());

    private final Revisions stored = mock(Revisions.class);
    private final KnownRevisions known = new KnownRevisions(stored);

    private void stored(long number, Long parent, String document) {
        when(stored.findByMachineIdAndNumber(1, number)).thenReturn(Optional.of(new RevisionEntity(1, number, parent, document, Instant.EPOCH)));
    }

    @Test
    void lookingAgainReadsNothing() {
        stored(1, null, DEMO);
        stored(2, 1L, DEMO.replaceFirst("\"name\":\"[^\"]*\"", "\"name\":\"another cell\""));
        for (int look = 0; look < 3; look++) {
            assertThat(known.read(1, 1)).isEqualTo(new KnownRevisions.Read(5, ""));
            assertThat(known.changed(1, 1, null).first()).isEmpty();
            assertThat(known.read(1, 2).unreadable()).isEmpty();
            assertThat(known.changed(1, 2, 1L).first()).singleElement().extracting(change -> change.to()).isEqualTo("another cell");
            assertThat(known.changed(1, 2, 1L).more()).isZero();
        }
        verify(stored, times(2)).findByMachineIdAndNumber(1, 1);
        verify(stored, times(2)).findByMachineIdAndNumber(1, 2);
    }

    @Test
    void whatCannotBeReadIsToldAndTriedAgain() {
        when(stored.findByMachineIdAndNumber(1, 7)).thenReturn(Optional.empty());
        stored(8, 7L, "{");
        assertThat(known.read(1, 7).unreadable()).isEqualTo("the revision is not there");
        assertThat(known.read(1, 8).unreadable()).isNotEmpty();
        assertThat(known.changed(1, 8, 7L).first()).isEmpty();
        stored(7, null, DEMO);
        stored(8, 7L, DEMO.replaceFirst("\"name\":\"[^\"]*\"", "\"name\":\"another cell\""));
        assertThat(known.read(1, 7)).isEqualTo(new KnownRevisions.Read(5, ""));
        assertThat(known.changed(1, 8, 7L).first()).hasSize(1);
    }
}
