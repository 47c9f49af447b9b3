package rueda.app.storage;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatCode;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.SQLException;
import java.util.concurrent.atomic.AtomicLong;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class StorageTest {

    @TempDir
    Path folder;

    @Test
    void aWriteIsRefusedInWordsBeforeTheDiskIsFull() {
        AtomicLong free = new AtomicLong(Room.RESERVE);
        Room room = new Room(free::get);
        assertThatCode(room::check).doesNotThrowAnyException();
        free.decrementAndGet();
        assertThatThrownBy(room::check).isInstanceOf(StorageFault.NoRoom.class).hasMessageContaining("has no room", "Make room");
        free.set(Room.RESERVE + 1);
        assertThatCode(room::check).as("by itself when there is room again").doesNotThrowAnyException();
    }

    @Test
    void theMarkOnlyGrowsAndSurvives() throws IOException {
        WriteMark mark = new WriteMark(folder);
        assertThat(mark.read()).isEmpty();
        mark.note(7);
        mark.note(5);
        assertThat(mark.read()).hasValue(7);
        assertThat(new WriteMark(folder).read()).hasValue(7);
        assertThat(folder).isDirectoryNotContaining(p -> p.toString().endsWith(".new"));
        Files.writeString(folder.resolve(WriteMark.FILE), "x7");
        assertThat(new WriteMark(folder).read()).as("a file that is none tells nothing").isEmpty();
        mark.forget();
        assertThat(mark.read()).isEmpty();
    }

    /** What systems say when a disk is full: Linux, Windows, a quota, a limit of the process. */
    @Test
    void aFullDiskIsToldFromWhateverLiesAboveIt() {
        for (String said : new String[] {"No space left on device", "There is not enough space on the disk", "Disk quota exceeded", "File too large"}) {
            Throwable failure = new IllegalStateException("outer", new SQLException("General error", "HY000", 50000, new IOException(said)));
            assertThat(StorageFault.of(failure)).as(said).hasValueSatisfying(f -> assertThat(f.noRoom()).isTrue());
        }
        assertThat(StorageFault.of(new IllegalStateException(new SQLException("closed", "90098", 90098)))).hasValueSatisfying(f -> assertThat(f.noRoom()).isFalse());
        assertThat(StorageFault.of(new IllegalStateException("something else"))).isEmpty();
        SQLException full = new SQLException("General error", "HY000", 50000, new IOException("No space left on device"));
        assertThat(new StorageConfiguration.Discard().adjudicate(full)).isEqualTo(com.zaxxer.hikari.SQLExceptionOverride.Override.MUST_EVICT);
        assertThat(StorageFault.of(new IllegalStateException("Unable to rollback", new SQLException("Connection is closed")))).as("the reason of a connection thrown away").hasValueSatisfying(f -> assertThat(f.noRoom()).isTrue());
        assertThat(StorageFault.of(new IllegalStateException("Unable to rollback", new SQLException("Connection is closed")))).as("told once").isEmpty();
    }
}
