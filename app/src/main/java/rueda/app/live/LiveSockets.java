package rueda.app.live;

import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.springframework.stereotype.Component;
import org.springframework.web.socket.CloseStatus;
import org.springframework.web.socket.TextMessage;
import org.springframework.web.socket.WebSocketSession;
import org.springframework.web.socket.adapter.standard.StandardWebSocketSession;
import org.springframework.web.socket.handler.TextWebSocketHandler;
import rueda.app.web.Refusals.NotFound;

/** The WebSockets of the pages, each listening to the bench of the machine that its address names. */
@Component
class LiveSockets extends TextWebSocketHandler {

    static final String PATH = "/api/machines/*/live";
    private static final Pattern MACHINE = Pattern.compile("/api/machines/(\\d{1,18})/live");
    /** A page that takes nothing for so long is dropped, ms. */
    private static final long SEND_MILLIS = 2000;
    /** Bytes of the longest name that an axis can have. */
    private static final int LONGEST_NAME = 80;
    private static final String SESSION = "bench session";

    private final Benches benches;

    LiveSockets(Benches benches) {
        this.benches = benches;
    }

    @Override
    public void afterConnectionEstablished(WebSocketSession session) throws Exception {
        if (session instanceof StandardWebSocketSession standard) {
            standard.getNativeSession().getUserProperties().put("org.apache.tomcat.websocket.BLOCKING_SEND_TIMEOUT", SEND_MILLIS);
        }
        Matcher named = MACHINE.matcher(session.getUri() == null ? "" : session.getUri().getPath());
        try {
            if (!named.matches()) {
                throw new NotFound("machine of this address");
            }
            BenchSession bench = benches.of(Long.parseLong(named.group(1)));
            session.getAttributes().put(SESSION, bench);
            bench.stream().join(session);
        } catch (NotFound unknown) {
            session.close(CloseStatus.POLICY_VIOLATION.withReason(unknown.getMessage()));
        }
    }

    /** A page says which axis it looks at: what travels to and from it is told from now on. */
    @Override
    protected void handleTextMessage(WebSocketSession session, TextMessage message) {
        if (session.getAttributes().get(SESSION) instanceof BenchSession bench && message.getPayloadLength() <= LONGEST_NAME) {
            bench.look(session, message.getPayload());
        }
    }

    @Override
    public void afterConnectionClosed(WebSocketSession session, CloseStatus status) {
        if (session.getAttributes().get(SESSION) instanceof BenchSession bench) {
            bench.stream().leave(session);
        }
    }
}
