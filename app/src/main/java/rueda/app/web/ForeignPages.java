package rueda.app.web;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.net.URI;
import java.util.Locale;
import java.util.Set;
import org.springframework.core.Ordered;
import org.springframework.core.annotation.Order;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;
import org.springframework.web.filter.OncePerRequestFilter;

/**
 * Rueda answers on the loopback address only, and only its own page and programs that are no browser may change anything. A foreign Host
 * means a name that somebody points here; a foreign Origin or Sec-Fetch-Site (Fetch Metadata, W3C) means that a page of somebody else asks,
 * be it one on this computer. A body says what it is: the kinds that a form can send without asking are none that Rueda takes.
 */
@Component
@Order(Ordered.HIGHEST_PRECEDENCE + 10)
class ForeignPages extends OncePerRequestFilter {

    private static final Set<String> NAMES = Set.of("127.0.0.1", "localhost", "[::1]");
    private static final Set<String> READING = Set.of("GET", "HEAD", "OPTIONS");
    private static final Set<String> BODIES = Set.of("application/json", "application/octet-stream");

    /** A request with a body comes here by a dispatch, once it has arrived. */
    @Override
    protected boolean shouldNotFilterAsyncDispatch() {
        return false;
    }

    @Override
    protected void doFilterInternal(HttpServletRequest request, HttpServletResponse response, FilterChain chain) throws ServletException, IOException {
        if (!NAMES.contains(request.getServerName().toLowerCase(Locale.ROOT))) {
            Problems.write(response, HttpStatus.FORBIDDEN, "Not served here", "Only 127.0.0.1 and localhost are served. Open the address that Rueda printed when it started.");
            return;
        }
        if (!READING.contains(request.getMethod())) {
            if (foreign(request)) {
                Problems.write(response, HttpStatus.FORBIDDEN, "Another page asks", "Only Rueda's own page may change anything here; this came from " + origin(request) + ".");
                return;
            }
            String type = request.getContentType();
            boolean body = request.getContentLengthLong() > 0 || request.getHeader("Transfer-Encoding") != null;
            boolean known = type != null && BODIES.contains(type.split(";")[0].strip().toLowerCase(Locale.ROOT));
            if (body && !known || type != null && !known) {
                Problems.write(response, HttpStatus.UNSUPPORTED_MEDIA_TYPE, "Content type", "Content-Type is " + (type == null ? "missing" : printable(type)) + "; send application/json, or application/octet-stream for a file.");
                return;
            }
        }
        chain.doFilter(request, response);
    }

    private static boolean foreign(HttpServletRequest request) {
        String site = request.getHeader("Sec-Fetch-Site");
        if (site != null && !site.equals("same-origin") && !site.equals("none")) {
            return true;
        }
        String origin = request.getHeader("Origin");
        if (origin == null) {
            return false;
        }
        try {
            URI from = URI.create(origin);
            String host = request.getHeader("Host");
            return !"http".equals(from.getScheme()) || host == null || !host.equalsIgnoreCase(from.getRawAuthority());
        } catch (IllegalArgumentException none) {
            return true;
        }
    }

    private static String origin(HttpServletRequest request) {
        String origin = request.getHeader("Origin");
        return origin == null || origin.equals("null") ? "elsewhere" : printable(origin);
    }

    private static String printable(String text) {
        String plain = text.replaceAll("[^\\x20-\\x7E]", "?");
        return plain.length() > 80 ? plain.substring(0, 80) + "…" : plain;
    }
}
