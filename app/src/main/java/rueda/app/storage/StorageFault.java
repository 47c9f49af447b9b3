package rueda.app.storage;

import java.sql.SQLException;
import java.util.Locale;
import java.util.Optional;

/**
 * What is wrong with the disk or the database, told by an exception from below.
 *
 * @param noRoom   there is no room; otherwise the database was closed by such a fault and opens again by itself
 * @param sentence for people
 */
public record StorageFault(boolean noRoom, String sentence) {

    /** H2: general error of the store, database closed, error of the file. */
    private static final int STORE = 50000;
    private static final int CLOSED = 90098;
    private static final int FILE = 90028;

    /** Thrown before a write is begun. */
    public static final class NoRoom extends RuntimeException {
        public NoRoom(String sentence) {
            super(sentence);
        }
    }

    private static final String ROOM = "The disk of the data folder has no room. Nothing of this was stored; what was stored before is there. Make room and save again.";

    /** @return empty when the failure is of another kind */
    public static Optional<StorageFault> of(Throwable failure) {
        boolean store = false;
        for (Throwable cause = failure; cause != null; cause = cause.getCause() == cause ? null : cause.getCause()) {
            String message = String.valueOf(cause.getMessage()).toLowerCase(Locale.ROOT);
            if (cause instanceof NoRoom) {
                return Optional.of(new StorageFault(true, cause.getMessage()));
            }
            if (message.contains("no space left") || message.contains("not enough space") || message.contains("file too large") || message.contains("disk quota")) {
                return Optional.of(new StorageFault(true, ROOM));
            }
            store |= cause instanceof SQLException sql && isStore(sql);
            /* its connection was thrown away in the middle: what it said last is the reason */
            if (cause instanceof SQLException && message.contains("connection is closed") && failure != LAST.get()) {
                Optional<StorageFault> reason = LAST.get() == null ? Optional.empty() : of(LAST.get());
                LAST.remove();
                if (reason.isPresent()) {
                    return reason;
                }
            }
        }
        return store ? Optional.of(new StorageFault(false, "The database could not be reached: the disk failed or was full. Nothing of this was stored; it is opened again by itself. Try again.")) : Optional.empty();
    }

    /** What a connection of this thread said last that made it useless. */
    private static final ThreadLocal<SQLException> LAST = new ThreadLocal<>();

    /** Remembers why a connection of this thread is thrown away. */
    static void remember(SQLException failure) {
        LAST.set(failure);
    }

    /** A connection that says this is of no use any more. */
    static boolean isStore(SQLException failure) {
        return failure.getErrorCode() == STORE || failure.getErrorCode() == CLOSED || failure.getErrorCode() == FILE;
    }
}
