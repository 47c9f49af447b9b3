package rueda.app.web;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.security.SecureRandom;
import java.util.Base64;
import org.springframework.core.Ordered;
import org.springframework.core.annotation.Order;
import org.springframework.stereotype.Component;
import org.springframework.web.filter.OncePerRequestFilter;

/**
 * What every answer says to the browser: nothing but Rueda's own scripts, styles, fonts and data is loaded, no other page may frame or embed
 * it, and types are as they are told. The page writes one style sheet of its own, its theme; that carries a number made for the answer.
 */
@Component
@Order(Ordered.HIGHEST_PRECEDENCE)
class AnswerHeaders extends OncePerRequestFilter {

    /** Attribute of the request: the number that styles of the page carry. */
    static final String NONCE = "rueda.nonce";

    private final SecureRandom random = new SecureRandom();

    @Override
    protected void doFilterInternal(HttpServletRequest request, HttpServletResponse response, FilterChain chain) throws ServletException, IOException {
        byte[] number = new byte[16];
        random.nextBytes(number);
        String nonce = Base64.getEncoder().withoutPadding().encodeToString(number);
        request.setAttribute(NONCE, nonce);
        response.setHeader("Content-Security-Policy", "default-src 'none'; script-src 'self'; style-src 'self' 'nonce-" + nonce + "'; font-src 'self'; img-src 'self' data:; connect-src 'self'; "
                + "manifest-src 'self'; base-uri 'none'; form-action 'none'; frame-ancestors 'none'");
        response.setHeader("X-Content-Type-Options", "nosniff");
        response.setHeader("X-Frame-Options", "DENY");
        response.setHeader("Referrer-Policy", "no-referrer");
        response.setHeader("Cross-Origin-Opener-Policy", "same-origin");
        response.setHeader("Cross-Origin-Resource-Policy", "same-origin");
        chain.doFilter(request, response);
    }
}
