package rueda.app.web;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import org.springframework.stereotype.Component;
import org.springframework.web.filter.OncePerRequestFilter;
import rueda.format.Text;

/** What is sent must say its size and be within bounds: a body that is too large is refused before it is read. */
@Component
class UploadLimit extends OncePerRequestFilter {

    private static final int MEGABYTE = 1 << 20;

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
        response.setStatus(422);
        response.setContentType("application/problem+json");
        response.getOutputStream().write(("{\"title\":\"File refused\",\"status\":422,\"detail\":\"" + value + " – allowed: " + allowed + "; take what is needed out of the file. Nothing of it was taken.\","
                + "\"faults\":[{\"field\":\"file\",\"label\":\"File\",\"value\":\"" + value + "\",\"allowed\":\"" + allowed + "\",\"mend\":\"take what is needed out of it\"}]}").getBytes(StandardCharsets.UTF_8));
    }
}
