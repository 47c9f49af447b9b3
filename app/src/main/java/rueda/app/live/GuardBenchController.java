package rueda.app.live;

import io.swagger.v3.oas.annotations.Operation;
import java.util.List;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import rueda.quantity.InvalidEntry;

/** Requests to the guards on the bench, by hand. */
@RestController
@RequestMapping("/api/machines/{id}/bench/guards")
class GuardBenchController {

    private final Benches benches;

    GuardBenchController(Benches benches) {
        this.benches = benches;
    }

    /** @param request its name  @param firstOpen channel 1 opens, else it closes  @param secondOpen channel 2 */
    record ContactsQuestion(String request, boolean firstOpen, boolean secondOpen) {
    }

    @Operation(summary = "Opens or closes the contacts of a request on the bench; whoever wants to stop needs no key")
    @PostMapping("/request")
    LiveBench.State ask(@PathVariable long id, @RequestBody ContactsQuestion wanted) {
        if (wanted.request() == null) {
            throw new InvalidEntry("request", "missing", "the name of a request", "send it");
        }
        return benches.of(id).ask(wanted.request(), wanted.firstOpen(), wanted.secondOpen());
    }

    @Operation(summary = "Presses the button that acknowledges the guards, and lets it go after a tenth of a second of the bench's time")
    @PostMapping("/acknowledge")
    LiveBench.State acknowledge(@PathVariable long id, @RequestHeader(name = BenchController.KEY, required = false) String key) {
        return benches.of(id).acknowledge(key);
    }

    @Operation(summary = "What the guards did, newest first: the last hundred changes")
    @GetMapping("/log")
    List<GuardsNow.Told> log(@PathVariable long id) {
        return benches.of(id).guardLog();
    }
}
