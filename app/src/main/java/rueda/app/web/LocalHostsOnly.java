package rueda.app.web;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.util.Set;
import org.springframework.stereotype.Component;
import org.springframework.web.filter.OncePerRequestFilter;

/** Rueda answers on the loopback address only; a foreign Host header means a page elsewhere tries to use it. */
@Component
class LocalHostsOnly extends OncePerRequestFilter {

    private static final Set<String> NAMES = Set.of("127.0.0.1", "localhost", "[::1]");

    @Override
    protected void doFilterInternal(HttpServletRequest request, HttpServletResponse response, FilterChain chain) throws ServletException, IOException {
        if (NAMES.contains(request.getServerName())) {
            chain.doFilter(request, response);
        } else {
            response.sendError(HttpServletResponse.SC_FORBIDDEN, "Only 127.0.0.1 and localhost are served.");
        }
    }
}
