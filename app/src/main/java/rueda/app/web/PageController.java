package rueda.app.web;

import io.swagger.v3.oas.annotations.Hidden;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import org.springframework.core.io.ClassPathResource;
import org.springframework.http.CacheControl;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestAttribute;
import org.springframework.web.bind.annotation.RestController;

/** Every stage has an address of its own; all are the one page. */
@Hidden
@RestController
class PageController {

    /** Stands in the page where the number of its styles belongs. */
    private static final String PLACE = "STYLE-NONCE";

    private final String page;

    PageController() {
        try (InputStream in = new ClassPathResource("static/index.html").getInputStream()) {
            page = new String(in.readAllBytes(), StandardCharsets.UTF_8);
        } catch (IOException missing) {
            throw new UncheckedIOException(missing);
        }
    }

    @GetMapping({"/", "/index.html", "/connect/**", "/map/**", "/scale/**", "/wire/**", "/tune/**", "/home/**", "/program/**", "/prove/**"})
    ResponseEntity<String> page(@RequestAttribute(AnswerHeaders.NONCE) String nonce) {
        return ResponseEntity.ok().contentType(new MediaType(MediaType.TEXT_HTML, StandardCharsets.UTF_8)).cacheControl(CacheControl.noStore()).body(page.replace(PLACE, nonce));
    }
}
