package rueda.app.storage;

import com.zaxxer.hikari.HikariDataSource;
import com.zaxxer.hikari.SQLExceptionOverride;
import java.io.IOException;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.Clock;
import javax.sql.DataSource;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.boot.ApplicationRunner;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.jdbc.datasource.DataSourceUtils;
import org.springframework.transaction.TransactionExecution;
import org.springframework.transaction.TransactionExecutionListener;

/** The pool of connections, and what every writing transaction does besides its own: look for room, count itself, note the count. */
@Configuration
class StorageConfiguration {

    private static final Logger LOG = LoggerFactory.getLogger(StorageConfiguration.class);

    private final Path folder;

    StorageConfiguration(@Value("${rueda.data:./data}") Path folder) {
        this.folder = folder;
    }

    /** A full disk closes the database under its connections: such a connection is thrown away, and the next opens the database again. */
    public static final class Discard implements SQLExceptionOverride {
        @java.lang.Override
        public Override adjudicate(SQLException failure) {
            if (!StorageFault.isStore(failure)) {
                return Override.CONTINUE_EVICT;
            }
            StorageFault.remember(failure);
            return Override.MUST_EVICT;
        }
    }

    @Bean
    HikariDataSource dataSource(@Value("${spring.datasource.url}") String url) {
        /* every connection is tried before it is given out; within the process that costs microseconds */
        System.setProperty("com.zaxxer.hikari.aliveBypassWindowMs", "0");
        HikariDataSource pool = new HikariDataSource();
        pool.setJdbcUrl(url);
        /* no user: as the databases of earlier Ruedas have it */
        pool.setConnectionTestQuery("select 1");
        /* opening a database on a full disk may fail: it is told soon, and tried again by the next request */
        pool.setConnectionTimeout(5000);
        pool.setExceptionOverrideClassName(Discard.class.getName());
        return pool;
    }

    /** Where the time of what is kept comes from. */
    @Bean
    Clock clock() {
        return Clock.systemUTC();
    }

    @Bean
    Room room() {
        return new Room(folder);
    }

    /** The first copy is made when everything else has started: a database from which that succeeds is sound. */
    @Bean
    DatabaseCopy databaseCopy(DataSource database, Room room) {
        return new DatabaseCopy(folder, database, room);
    }

    @Bean
    ApplicationRunner copies(DatabaseCopy copy) {
        return arguments -> copy.begin();
    }

    @Bean
    WriteMark writeMark() {
        return new WriteMark(folder);
    }

    /** Spring attaches it to all transactions. */
    @Configuration
    static class Counting implements TransactionExecutionListener {

        private final DataSource database;
        private final Room room;
        private final WriteMark mark;
        private final ThreadLocal<Long> counted = new ThreadLocal<>();

        Counting(DataSource database, Room room, WriteMark mark) {
            this.database = database;
            this.room = room;
            this.mark = mark;
        }

        @Override
        public void beforeBegin(TransactionExecution transaction) {
            if (!transaction.isReadOnly()) {
                room.check();
            }
        }

        @Override
        public void beforeCommit(TransactionExecution transaction) {
            if (transaction.isReadOnly()) {
                return;
            }
            Connection connection = DataSourceUtils.getConnection(database);
            try (PreparedStatement count = connection.prepareStatement("update write_count set writes = writes + 1 where id = 1");
                 PreparedStatement read = connection.prepareStatement("select writes from write_count where id = 1")) {
                count.executeUpdate();
                try (ResultSet writes = read.executeQuery()) {
                    counted.set(writes.next() ? writes.getLong(1) : null);
                }
            } catch (SQLException failed) {
                throw new IllegalStateException("The write could not be counted.", failed);
            } finally {
                DataSourceUtils.releaseConnection(connection, database);
            }
        }

        @Override
        public void afterCommit(TransactionExecution transaction, Throwable failure) {
            Long count = counted.get();
            counted.remove();
            if (count == null || failure != null) {
                return;
            }
            try {
                mark.note(count);
            } catch (IOException unwritable) {
                /* the write itself is safe; without the note a cut-off database would be noticed later only */
                LOG.warn("The count of writes could not be noted in {}: {}", WriteMark.FILE, unwritable.getMessage());
            }
        }

        @Override
        public void afterRollback(TransactionExecution transaction, Throwable failure) {
            counted.remove();
        }
    }
}
