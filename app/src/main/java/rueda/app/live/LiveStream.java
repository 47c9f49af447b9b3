package rueda.app.live;

import jakarta.annotation.PreDestroy;
import java.nio.ByteBuffer;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import org.springframework.stereotype.Component;
import org.springframework.web.socket.BinaryMessage;
import org.springframework.web.socket.CloseStatus;
import org.springframework.web.socket.TextMessage;
import org.springframework.web.socket.WebSocketMessage;
import org.springframework.web.socket.WebSocketSession;
import org.springframework.web.socket.adapter.standard.StandardWebSocketSession;
import org.springframework.web.socket.handler.TextWebSocketHandler;
import rueda.app.machine.MachineJson;

/** The one WebSocket: state of the bench as text, trace samples as binary blocks, to every page. Sending never waits for a page. */
@Component
class LiveStream extends TextWebSocketHandler {

    /** A page that takes nothing for so long is dropped, ms. */
    private static final long SEND_MILLIS = 2000;

    private final Map<String, Client> clients = new ConcurrentHashMap<>();
    private final ExecutorService senders = Executors.newCachedThreadPool(work -> {
        Thread thread = new Thread(work, "live");
        thread.setDaemon(true);
        return thread;
    });
    private volatile Runnable onOpen = () -> { };

    void onOpen(Runnable action) {
        onOpen = action;
    }

    @Override
    public void afterConnectionEstablished(WebSocketSession session) {
        if (session instanceof StandardWebSocketSession standard) {
            standard.getNativeSession().getUserProperties().put("org.apache.tomcat.websocket.BLOCKING_SEND_TIMEOUT", SEND_MILLIS);
        }
        clients.put(session.getId(), new Client(session, senders));
        onOpen.run();
    }

    @Override
    public void afterConnectionClosed(WebSocketSession session, CloseStatus status) {
        clients.remove(session.getId());
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

    @PreDestroy
    void close() {
        senders.shutdownNow();
    }
}
