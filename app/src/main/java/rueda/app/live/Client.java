package rueda.app.live;

import java.io.IOException;
import java.util.ArrayDeque;
import java.util.Queue;
import java.util.concurrent.Executor;
import java.util.concurrent.RejectedExecutionException;
import org.springframework.web.socket.CloseStatus;
import org.springframework.web.socket.WebSocketMessage;
import org.springframework.web.socket.WebSocketSession;

/**
 * One page that listens. What is for it waits in a queue of bounded size and is sent by a thread of the executor, one message after the
 * other; who offers a message never waits. A page that does not take what it is sent is dropped. Thread-safe.
 */
final class Client {

    /** About four seconds of states and samples. */
    private static final int MOST_MESSAGES = 240;
    private static final int MOST_BYTES = 8 << 20;

    private final WebSocketSession session;
    private final Executor senders;
    private final Queue<WebSocketMessage<?>> waiting = new ArrayDeque<>();
    private int waitingBytes;
    private boolean sending;
    private boolean dropped;

    Client(WebSocketSession session, Executor senders) {
        this.session = session;
        this.senders = senders;
    }

    String id() {
        return session.getId();
    }

    /** @return false when the page has been dropped */
    boolean offer(WebSocketMessage<?> message) {
        synchronized (waiting) {
            if (dropped) {
                return false;
            }
            waiting.add(message);
            waitingBytes += message.getPayloadLength();
            if (waiting.size() > MOST_MESSAGES || waitingBytes > MOST_BYTES) {
                drop();
                return false;
            }
            if (!sending) {
                sending = start(this::send);
            }
            return sending;
        }
    }

    private boolean start(Runnable work) {
        try {
            senders.execute(work);
            return true;
        } catch (RejectedExecutionException closing) {
            return false;
        }
    }

    private void send() {
        while (true) {
            WebSocketMessage<?> next;
            synchronized (waiting) {
                next = dropped ? null : waiting.poll();
                if (next == null) {
                    sending = false;
                    return;
                }
                waitingBytes -= next.getPayloadLength();
            }
            try {
                session.sendMessage(next);
            } catch (IOException | RuntimeException gone) {
                synchronized (waiting) {
                    drop();
                }
            }
        }
    }

    /** Sends nothing more and closes. */
    void end() {
        synchronized (waiting) {
            drop();
        }
    }

    private void drop() {
        dropped = true;
        waiting.clear();
        waitingBytes = 0;
        // Closing waits for the page too, so it is no work for whoever noticed.
        start(() -> {
            try {
                session.close(CloseStatus.SESSION_NOT_RELIABLE);
            } catch (IOException | RuntimeException gone) {
                // It is gone already.
            }
        });
    }
}
