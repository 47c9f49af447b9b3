package rueda.app.live;

import java.nio.ByteBuffer;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.Executor;
import org.springframework.web.socket.BinaryMessage;
import org.springframework.web.socket.TextMessage;
import org.springframework.web.socket.WebSocketMessage;
import org.springframework.web.socket.WebSocketSession;
import rueda.app.machine.MachineJson;

/** The pages that listen to the bench of one machine: its state as text, trace samples as binary blocks. Sending never waits for a page. Thread-safe. */
class LiveStream {

    private final Map<String, Client> clients = new ConcurrentHashMap<>();
    /** the axis that a page looks at, by the key of its connection */
    private final Map<String, String> looks = new ConcurrentHashMap<>();
    private final Executor senders;
    private volatile Runnable onOpen = () -> { };

    /** @param senders its threads wait for pages */
    LiveStream(Executor senders) {
        this.senders = senders;
    }

    /** @param action done whenever a page has joined */
    void onOpen(Runnable action) {
        onOpen = action;
    }

    void join(WebSocketSession session) {
        clients.put(session.getId(), new Client(session, senders));
        onOpen.run();
    }

    void leave(WebSocketSession session) {
        clients.remove(session.getId());
        looks.remove(session.getId());
    }

    /** A page looks at an axis. @return whether it listens */
    boolean look(WebSocketSession session, String axis) {
        if (!clients.containsKey(session.getId())) {
            return false;
        }
        looks.put(session.getId(), axis);
        looks.keySet().retainAll(clients.keySet());
        return true;
    }

    /** Names of the axes that pages look at; not all need to be there. */
    Set<String> looks() {
        return Set.copyOf(looks.values());
    }

    /** Lets every page go. */
    void end() {
        clients.values().forEach(Client::end);
        clients.clear();
        looks.clear();
    }

    /** Pages that listen. */
    int listeners() {
        return clients.size();
    }

    void send(Object state) {
        toAll(new TextMessage(MachineJson.write(state)));
    }

    void send(ByteBuffer block) {
        toAll(new BinaryMessage(block));
    }

    private void toAll(WebSocketMessage<?> message) {
        clients.values().removeIf(client -> !client.offer(message instanceof BinaryMessage binary ? new BinaryMessage(binary.getPayload().duplicate()) : message));
    }
}
