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

/** Machine, stage and axis stand in the address; all are the one page. The description of the interface is a file beside it. */
@Hidden
@RestController
class PageController {

    /** Stands in the page where the number of its styles belongs. */
    private static final String PLACE = "STYLE-NONCE";

    private final String page = text("static/index.html");
    private final String description = text("rueda/openapi.json");

    private static String text(String resource) {
        try (InputStream in = new ClassPathResource(resource).getInputStream()) {
            return new String(in.readAllBytes(), StandardCharsets.UTF_8);
        } catch (IOException missing) {
            throw new UncheckedIOException(missing);
        }
    }

    /** The description of the interface, OpenAPI 3.1; a test makes it from the controllers. */
    @GetMapping(path = "/api/openapi", produces = MediaType.APPLICATION_JSON_VALUE)
    String description() {
        return description;
    }

    @GetMapping({"/", "/index.html", "/machines/**"})
    ResponseEntity<String> page(@RequestAttribute(AnswerHeaders.NONCE) String nonce) {
        return ResponseEntity.ok().contentType(new MediaType(MediaType.TEXT_HTML, StandardCharsets.UTF_8)).cacheControl(CacheControl.noStore()).body(page.replace(PLACE, nonce));
    }
}
