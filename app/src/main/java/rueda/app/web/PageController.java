package rueda.app.web;

import io.swagger.v3.oas.annotations.Hidden;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.GetMapping;

/** Every stage has an address of its own; all are the one page. */
@Hidden
@Controller
class PageController {
    @GetMapping({"/connect/**", "/map/**", "/scale/**", "/wire/**", "/tune/**", "/home/**", "/program/**", "/prove/**"})
    String page() {
        return "forward:/index.html";
    }
}
