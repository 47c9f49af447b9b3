package rueda.app;

import java.io.IOException;
import java.net.BindException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.ServerSocket;
import java.nio.file.AccessDeniedException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.Locale;
import java.util.Optional;
import java.util.OptionalLong;
import org.springframework.core.io.Resource;
import org.springframework.core.io.support.PathMatchingResourcePatternResolver;
import rueda.app.storage.DatabaseCopy;
import rueda.app.storage.WriteMark;

/** Whether a server can start here. Each reason that it cannot is one sentence with what to do, and has an exit code of its own. */
final class DataFolder {

    /** Exit codes of {@code serve}. */
    static final int FOLDER_UNUSABLE = 3;
    static final int FOLDER_IN_USE = 4;
    static final int DATABASE_DAMAGED = 5;
    static final int DATABASE_NEWER = 6;
    static final int PORT_IN_USE = 7;
    static final int OTHER = 8;
    static final int DATABASE_CUT_OFF = 9;

    /** H2: the database is open in another process. */
    private static final int ALREADY_OPEN = 90020;
    private static final int LOCKED = 50200;
    private static final int WRONG_USER = 28000;
    /** H2: table not found, so no migration has run yet. */
    private static final int NO_TABLE = 42102;
    private static final int NO_TABLE_IN_EMPTY_DATABASE = 42104;

    /** Why it cannot start. */
    static final class CannotStart extends Exception {
        final int code;

        CannotStart(int code, String message) {
            super(message);
            this.code = code;
        }
    }

    private DataFolder() {
    }

    /** @throws CannotStart with a sentence; nothing has been changed then */
    static void check(Path folder, int port) throws CannotStart {
        writable(folder);
        port(port);
        database(folder);
    }

    private static void writable(Path folder) throws CannotStart {
        String what = "The data folder " + folder;
        try {
            if (Files.exists(folder) && !Files.isDirectory(folder)) {
                throw new CannotStart(FOLDER_UNUSABLE, what + " is a file. Name a folder with --data.");
            }
            Files.createDirectories(folder);
            Path probe = folder.resolve(".rueda-write-test-" + ProcessHandle.current().pid());
            // Some bytes: on a full disk an empty file can still be made.
            Files.write(probe, new byte[8192], StandardOpenOption.CREATE, StandardOpenOption.TRUNCATE_EXISTING);
            Files.delete(probe);
        } catch (AccessDeniedException denied) {
            throw new CannotStart(FOLDER_UNUSABLE, what + " cannot be written. Give this user the right to, or name another folder with --data.");
        } catch (IOException | SecurityException failed) {
            boolean full = String.valueOf(failed.getMessage()).toLowerCase(Locale.ROOT).contains("space");
            throw new CannotStart(FOLDER_UNUSABLE, full ? what + " is on a disk without room. Make room and start again; nothing is lost."
                    : what + " cannot be written: " + failed.getClass().getSimpleName().replaceAll("([a-z])([A-Z])", "$1 $2").toLowerCase(Locale.ROOT) + ". Name another folder with --data.");
        }
    }

    private static void port(int port) throws CannotStart {
        if (port < 0 || port > 65_535) {
            throw new CannotStart(PORT_IN_USE, "Port " + port + " is none; ports are 1 to 65535, and 0 picks a free one.");
        }
        try (ServerSocket probe = new ServerSocket()) {
            // As the server itself will: an address that a server left a moment ago is free.
            probe.setReuseAddress(true);
            probe.bind(new InetSocketAddress(InetAddress.getByName("127.0.0.1"), port));
        } catch (BindException taken) {
            throw new CannotStart(PORT_IN_USE, "Port " + port + " cannot be used: another program has it, perhaps a Rueda that runs already. End that, or choose another port with --port.");
        } catch (IOException failed) {
            throw new CannotStart(PORT_IN_USE, "Port " + port + " cannot be opened on 127.0.0.1. Choose another one with --port.");
        }
    }

    private static void database(Path folder) throws CannotStart {
        Path file = folder.resolve("rueda.mv.db");
        OptionalLong acknowledged = new WriteMark(folder).read();
        if (!Files.exists(file)) {
            if (acknowledged.isPresent()) {
                throw new CannotStart(DATABASE_CUT_OFF, "The database " + file + " is missing, although " + acknowledged.getAsLong() + " writes were stored there. " + wayBack(folder) + " Nothing was changed.");
            }
            return;
        }
        String what = "The database " + file;
        /* opened for reading only: whatever is found, the file stays as it is */
        try (Connection connection = DriverManager.getConnection("jdbc:h2:file:" + folder.resolve("rueda") + ";IFEXISTS=TRUE;ACCESS_MODE_DATA=r;TRACE_LEVEL_FILE=0;TRACE_LEVEL_SYSTEM_OUT=0");
             Statement statement = connection.createStatement()) {
            version(statement, what);
            long counted = counted(statement);
            if (acknowledged.isPresent() && counted < acknowledged.getAsLong()) {
                throw new CannotStart(DATABASE_CUT_OFF, what + " is cut off or an older one: it holds " + counted + " of the " + acknowledged.getAsLong() + " writes that were stored. " + wayBack(folder) + " Nothing was changed.");
            }
        } catch (SQLException failed) {
            switch (failed.getErrorCode()) {
                case ALREADY_OPEN, LOCKED -> throw new CannotStart(FOLDER_IN_USE, what + " is open in another Rueda. End that, or name another folder with --data.");
                case WRONG_USER -> throw new CannotStart(DATABASE_DAMAGED, what + " is not one of Rueda's: it asks for another user. Name another folder with --data.");
                default -> throw new CannotStart(DATABASE_DAMAGED, what + " is damaged and cannot be opened (H2 " + failed.getErrorCode() + "). " + wayBack(folder) + " Nothing was changed.");
            }
        } catch (NumberFormatException | IOException unknown) {
            throw new CannotStart(DATABASE_DAMAGED, what + " has tables that this Rueda does not know. Name another folder with --data.");
        }
    }

    private static void version(Statement statement, String what) throws SQLException, IOException, CannotStart {
        int newest = newest();
        try (ResultSet versions = statement.executeQuery("select \"version\" from \"flyway_schema_history\" where \"version\" is not null")) {
            while (versions.next()) {
                String version = versions.getString(1);
                if (Integer.parseInt(version.split("\\.")[0]) > newest) {
                    throw new CannotStart(DATABASE_NEWER, what + " was made by a newer Rueda (version " + version + " of its tables; this one knows " + newest + "). Start that Rueda, or name another folder with --data. Nothing was changed.");
                }
            }
        } catch (SQLException failed) {
            if (!noTable(failed)) {
                throw failed;
            }
        }
    }

    /** Writes the database has counted, 0 when it is new or from before they were counted. */
    private static long counted(Statement statement) throws SQLException {
        try (ResultSet writes = statement.executeQuery("select writes from write_count where id = 1")) {
            return writes.next() ? writes.getLong(1) : 0;
        } catch (SQLException failed) {
            if (noTable(failed)) {
                return 0;
            }
            throw failed;
        }
    }

    private static boolean noTable(SQLException failed) {
        return failed.getErrorCode() == NO_TABLE || failed.getErrorCode() == NO_TABLE_IN_EMPTY_DATABASE;
    }

    private static String wayBack(Path folder) {
        return DatabaseCopy.madeAt(folder).map(at -> "The last sound copy is of " + at + ": start once with --restore-copy to go back to it (what is there now is kept aside), or put a copy of your own there")
                .orElse("Put a copy of it back") + (Files.exists(folder.resolve(WriteMark.FILE)) ? " and delete " + folder.resolve(WriteMark.FILE) : "") + ", or name another folder with --data.";
    }

    /** Goes back to the last sound copy. @return what was done, in a sentence */
    static String restoreCopy(Path folder) throws CannotStart {
        Optional<String> at = DatabaseCopy.madeAt(folder);
        if (at.isEmpty()) {
            throw new CannotStart(FOLDER_UNUSABLE, "There is no copy " + folder.resolve(DatabaseCopy.FILE) + " to go back to. Start without --restore-copy, or name another folder with --data.");
        }
        try {
            return "The database is the copy of " + at.get() + " now" + DatabaseCopy.restore(folder).map(aside -> "; what was there is kept in " + aside).orElse("") + ".";
        } catch (IOException failed) {
            throw new CannotStart(DATABASE_DAMAGED, "The copy " + folder.resolve(DatabaseCopy.FILE) + " cannot be put in place: " + failed.getMessage() + ". Nothing was changed.");
        }
    }

    /** Version of the newest migration in this program. */
    private static int newest() throws IOException {
        int newest = 0;
        for (Resource migration : new PathMatchingResourcePatternResolver().getResources("classpath:db/migration/V*.sql")) {
            String name = migration.getFilename();
            newest = Math.max(newest, Integer.parseInt(name.substring(1, name.indexOf("__"))));
        }
        return newest;
    }
}
