package rueda.app.storage;

import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.sql.Connection;
import java.sql.Statement;
import java.time.Duration;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.Locale;
import java.util.Optional;
import java.util.concurrent.Executors;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.TimeUnit;
import java.util.zip.ZipEntry;
import java.util.zip.ZipInputStream;
import javax.sql.DataSource;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/** The last sound copy of the database: one, made by the database itself after a start that succeeded and then daily. Thread-safe. */
public final class DatabaseCopy implements AutoCloseable {

    /** Name of the copy in the data folder. */
    public static final String FILE = "rueda-copy.zip";
    static final String DATABASE = "rueda.mv.db";

    private static final Logger LOG = LoggerFactory.getLogger(DatabaseCopy.class);
    private static final Duration AFTER_START = Duration.ofSeconds(10);
    private static final Duration BETWEEN = Duration.ofDays(1);

    private final Path folder;
    private final DataSource database;
    private final Room room;
    private final ScheduledExecutorService clock = Executors.newSingleThreadScheduledExecutor(work -> {
        Thread thread = new Thread(work, "database copy");
        thread.setDaemon(true);
        return thread;
    });

    DatabaseCopy(Path folder, DataSource database, Room room) {
        this.folder = folder;
        this.database = database;
        this.room = room;
    }

    void begin() {
        clock.scheduleWithFixedDelay(this::attempt, AFTER_START.toSeconds(), BETWEEN.toSeconds(), TimeUnit.SECONDS);
    }

    private void attempt() {
        try {
            make();
        } catch (Exception | Error failed) {
            LOG.warn("No copy of the database could be made: {} The one before stays.", StorageFault.of(failed).map(StorageFault::sentence).orElse(String.valueOf(failed.getMessage())));
        }
    }

    /** Makes the copy; the one before is exchanged when the new one is complete. */
    synchronized void make() throws Exception {
        room.check();
        Path next = folder.resolve(FILE + ".new");
        try (Connection connection = database.getConnection(); Statement statement = connection.createStatement()) {
            statement.execute("backup to '" + next.toString().replace("'", "''") + "'");
            Files.move(next, folder.resolve(FILE), StandardCopyOption.ATOMIC_MOVE, StandardCopyOption.REPLACE_EXISTING);
        } finally {
            Files.deleteIfExists(next);
        }
    }

    /** When the copy in a folder was made, empty when there is none. */
    public static Optional<String> madeAt(Path folder) {
        try {
            Path copy = folder.resolve(FILE);
            return Files.isRegularFile(copy) ? Optional.of(DateTimeFormatter.ofPattern("d MMMM yyyy, HH:mm", Locale.ENGLISH).format(LocalDateTime.ofInstant(Files.getLastModifiedTime(copy).toInstant(), ZoneId.systemDefault())))
                    : Optional.empty();
        } catch (IOException unknown) {
            return Optional.empty();
        }
    }

    /**
     * Puts the copy in the place of the database; what is there is kept under another name.
     *
     * @return where that is, empty when there was none
     * @throws IOException when there is no copy, or it cannot be read; nothing has been changed then
     */
    public static Optional<Path> restore(Path folder) throws IOException {
        Path unpacked = folder.resolve(DATABASE + ".from-copy");
        boolean found = false;
        try (ZipInputStream zip = new ZipInputStream(Files.newInputStream(folder.resolve(FILE)))) {
            for (ZipEntry entry = zip.getNextEntry(); entry != null && !found; entry = zip.getNextEntry()) {
                if (entry.getName().equals(DATABASE)) {
                    Files.copy((InputStream) zip, unpacked, StandardCopyOption.REPLACE_EXISTING);
                    found = true;
                }
            }
        }
        if (!found) {
            throw new IOException("the copy holds no database");
        }
        Path present = folder.resolve(DATABASE);
        Optional<Path> aside = Optional.empty();
        if (Files.exists(present)) {
            Path kept = folder.resolve(DATABASE + ".set-aside-" + DateTimeFormatter.ofPattern("yyyyMMdd-HHmmss").format(LocalDateTime.now()));
            Files.move(present, kept);
            aside = Optional.of(kept);
        }
        Files.move(unpacked, present, StandardCopyOption.ATOMIC_MOVE);
        new WriteMark(folder).forget();
        return aside;
    }

    @Override
    public void close() {
        clock.shutdownNow();
    }
}
