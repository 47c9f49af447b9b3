package rueda.app.web;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import org.springframework.core.Ordered;
import org.springframework.core.annotation.Order;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;
import org.springframework.web.filter.OncePerRequestFilter;
import rueda.format.Text;
import rueda.machine.EntryFault;

/** What is sent must say its size and be within bounds: a body that is too large is refused, and nothing of it kept. */
@Component
@Order(Ordered.HIGHEST_PRECEDENCE + 20)
class UploadLimit extends OncePerRequestFilter {

    private static final int MEGABYTE = 1 << 20;

    /** A request with a body comes here by a dispatch, once it has arrived. */
    @Override
    protected boolean shouldNotFilterAsyncDispatch() {
        return false;
    }

    @Override
    protected void doFilterInternal(HttpServletRequest request, HttpServletResponse response, FilterChain chain) throws ServletException, IOException {
        long length = request.getContentLengthLong();
        boolean unknown = length < 0 && request.getHeader("Transfer-Encoding") != null;
        if (length <= Text.MOST_BYTES && !unknown) {
            chain.doFilter(request, response);
            return;
        }
        String value = unknown ? "unknown size" : length / MEGABYTE + " MB";
        String allowed = "up to " + Text.MOST_BYTES / MEGABYTE + " MB, with its length told";
        Problems.write(response, HttpStatus.UNPROCESSABLE_CONTENT, "File refused", value + " – allowed: " + allowed + "; take what is needed out of the file. Nothing of it was taken.",
                new EntryFault("file", "File", value, allowed, "take what is needed out of it"));
    }
}
