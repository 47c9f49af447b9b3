package rueda.app.storage;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Locale;
import java.util.function.LongSupplier;

/** Room on the disk of the data folder. A write is refused before it fills the disk, because a database that cannot write closes itself. */
public final class Room {

    /** Bytes that stay free: what a write, a copy of the index and the note of the count need at most. */
    static final long RESERVE = 3L << 20;

    private final LongSupplier free;

    Room(Path folder) {
        this(() -> {
            try {
                return Files.getFileStore(folder).getUsableSpace();
            } catch (IOException unknown) {
                return Long.MAX_VALUE;
            }
        });
    }

    /** @param free bytes that can be used now */
    Room(LongSupplier free) {
        this.free = free;
    }

    /** @throws StorageFault.NoRoom with a sentence */
    void check() {
        long bytes = free.getAsLong();
        if (bytes < RESERVE) {
            throw new StorageFault.NoRoom(String.format(Locale.ROOT, "The disk of the data folder has no room: %.1f MB are free, %d MB are needed. Nothing of this was stored; what was stored before is there. Make room and save again.",
                    bytes / (double) (1 << 20), RESERVE >> 20));
        }
    }
}
