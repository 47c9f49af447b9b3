package rueda.app.live;

import org.springframework.context.annotation.Configuration;
import org.springframework.web.socket.config.annotation.EnableWebSocket;
import org.springframework.web.socket.config.annotation.WebSocketConfigurer;
import org.springframework.web.socket.config.annotation.WebSocketHandlerRegistry;

/** Where the live stream is reached; pages of other origins are turned away. */
@Configuration
@EnableWebSocket
class LiveConfiguration implements WebSocketConfigurer {

    private final LiveSockets sockets;

    LiveConfiguration(LiveSockets sockets) {
        this.sockets = sockets;
    }

    @Override
    public void registerWebSocketHandlers(WebSocketHandlerRegistry registry) {
        registry.addHandler(sockets, LiveSockets.PATH);
    }
}
