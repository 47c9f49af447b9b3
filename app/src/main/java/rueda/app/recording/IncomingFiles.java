package rueda.app.recording;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import com.github.benmanes.caffeine.cache.Expiry;
import com.github.benmanes.caffeine.cache.Scheduler;
import jakarta.annotation.PreDestroy;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.time.Duration;
import java.util.Optional;
import java.util.UUID;
import java.util.concurrent.atomic.AtomicInteger;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;
import rueda.app.web.Refusals.NotFound;
import rueda.app.web.Refusals.TooMuchAtOnce;
import rueda.quantity.InvalidEntry;

/**
 * Files that arrive part by part, each on the disk among the temporary files until it is read or nobody has touched it for an hour. Thread-safe: parts of one file come
 * one after the other.
 */
@Component
class IncomingFiles {

    private static final Logger LOG = LoggerFactory.getLogger(IncomingFiles.class);
    /** Bytes of a file. */
    static final long MOST_BYTES = 4L << 30;
    private static final int MOST_AT_ONCE = 16;
    private static final Duration KEPT = Duration.ofHours(1);
    private static final int LONGEST_NAME = 200;

    private final AtomicInteger open = new AtomicInteger();
    private final Cache<String, Incoming> files = Caffeine.newBuilder().expireAfter(Expiry.accessing((String key, Incoming file) -> KEPT)).scheduler(Scheduler.systemScheduler())
            .removalListener((String key, Incoming file, com.github.benmanes.caffeine.cache.RemovalCause cause) -> removed(file)).build();

    /** A file on its way. */
    static final class Incoming {
        final long machineId;
        final String name;
        final long size;
        final Path path;
        private long received;

        Incoming(long machineId, String name, long size, Path path) {
            this.machineId = machineId;
            this.name = name;
            this.size = size;
            this.path = path;
        }

        synchronized long received() {
            return received;
        }

        /** @throws InvalidEntry when bytes are missing before it, or it is longer than was said */
        synchronized long append(long at, byte[] part) {
            if (at != received) {
                throw new InvalidEntry("at", Long.toString(at), received + ": so many bytes have arrived", "send the part that begins there");
            }
            if (received + part.length > size) {
                throw new InvalidEntry("part", part.length + " bytes", "up to " + (size - received) + ", the rest of the file", "begin again with the right size");
            }
            try (FileChannel out = FileChannel.open(path, StandardOpenOption.WRITE)) {
                ByteBuffer bytes = ByteBuffer.wrap(part);
                while (bytes.hasRemaining()) {
                    out.write(bytes, at + bytes.position());
                }
            } catch (IOException failed) {
                throw new UncheckedIOException("The file could not be laid on the disk: " + failed.getMessage(), failed);
            }
            received += part.length;
            return received;
        }

        /** @throws InvalidEntry when not all of it is there */
        void whole() {
            if (received() != size) {
                throw new InvalidEntry("file", received() + " of " + size + " bytes", "all of it", "send the rest first");
            }
        }
    }

    /** @return its key  @throws InvalidEntry for a size that cannot be  @throws TooMuchAtOnce when too many arrive */
    String begin(long machineId, String name, long size) {
        if (size < 1 || size > MOST_BYTES) {
            throw new InvalidEntry("size", size < 1 ? "an empty file" : size / (1 << 20) + " MB", "1 byte to " + MOST_BYTES / (1 << 30) + " GB", "choose a recording, or cut it in parts");
        }
        String called = name == null ? "" : name.replaceAll("[\\p{Cntrl}]", "").strip();
        if (called.isEmpty() || called.length() > LONGEST_NAME) {
            throw new InvalidEntry("name", called.isEmpty() ? "empty" : called.length() + " characters", "1 to " + LONGEST_NAME + " characters", "rename the file");
        }
        if (open.incrementAndGet() > MOST_AT_ONCE) {
            open.decrementAndGet();
            throw new TooMuchAtOnce(MOST_AT_ONCE + " files");
        }
        try {
            String key = UUID.randomUUID().toString();
            files.put(key, new Incoming(machineId, called, size, Files.createTempFile("rueda-incoming-", ".csv")));
            return key;
        } catch (IOException failed) {
            open.decrementAndGet();
            throw new UncheckedIOException("The file could not be laid on the disk: " + failed.getMessage(), failed);
        }
    }

    /** @throws NotFound when it has been read, given up, or was not touched for too long */
    Incoming get(String key) {
        return Optional.ofNullable(files.getIfPresent(key)).orElseThrow(() -> new NotFound("file on its way with this key; choose it again"));
    }

    void drop(String key) {
        files.invalidate(key);
    }

    private void removed(Incoming file) {
        open.decrementAndGet();
        try {
            Files.deleteIfExists(file.path);
        } catch (IOException later) {
            LOG.warn("A temporary file could not be deleted: {}", later.getMessage());
        }
    }

    @PreDestroy
    void close() {
        files.asMap().values().forEach(file -> {
            try {
                Files.deleteIfExists(file.path);
            } catch (IOException gone) {
                LOG.debug("A temporary file stays.", gone);
            }
        });
    }
}
