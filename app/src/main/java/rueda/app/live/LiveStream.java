package rueda.app.live;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import org.springframework.stereotype.Component;
import org.springframework.web.socket.BinaryMessage;
import org.springframework.web.socket.CloseStatus;
import org.springframework.web.socket.TextMessage;
import org.springframework.web.socket.WebSocketSession;
import org.springframework.web.socket.handler.ConcurrentWebSocketSessionDecorator;
import org.springframework.web.socket.handler.TextWebSocketHandler;
import rueda.app.machine.MachineJson;

/** The one WebSocket: state of the bench as text, trace samples as binary blocks, to every page. */
@Component
class LiveStream extends TextWebSocketHandler {

    private static final int SEND_MILLIS = 2000;
    private static final int BUFFER_BYTES = 1 << 20;

    private final Set<WebSocketSession> sessions = ConcurrentHashMap.newKeySet();
    private volatile Runnable onOpen = () -> { };

    void onOpen(Runnable action) {
        onOpen = action;
    }

    @Override
    public void afterConnectionEstablished(WebSocketSession session) {
        sessions.add(new ConcurrentWebSocketSessionDecorator(session, SEND_MILLIS, BUFFER_BYTES));
        onOpen.run();
    }

    @Override
    public void afterConnectionClosed(WebSocketSession session, CloseStatus status) {
        sessions.removeIf(open -> open.getId().equals(session.getId()));
    }

    void send(Object state) {
        TextMessage message = new TextMessage(MachineJson.write(state));
        sessions.forEach(session -> {
            try {
                session.sendMessage(message);
            } catch (IOException | RuntimeException gone) {
                sessions.remove(session);
            }
        });
    }

    void send(ByteBuffer block) {
        sessions.forEach(session -> {
            try {
                session.sendMessage(new BinaryMessage(block.duplicate()));
            } catch (IOException | RuntimeException gone) {
                sessions.remove(session);
            }
        });
    }
}
