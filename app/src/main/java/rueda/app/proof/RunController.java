package rueda.app.proof;

import io.swagger.v3.oas.annotations.Operation;
import java.util.List;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** Runs of a machine's proof and their recordings. */
@RestController
@RequestMapping("/api")
class RunController {

    private final RunStore store;

    RunController(RunStore store) {
        this.store = store;
    }

    @Operation(summary = "Runs the proof of the current revision on a bench and stores the outcome")
    @PostMapping("/machines/{id}/runs")
    RunView run(@PathVariable long id) {
        return store.run(id);
    }

    @Operation(summary = "The newest run, or nothing")
    @GetMapping("/machines/{id}/runs/latest")
    ResponseEntity<RunView> latest(@PathVariable long id) {
        return store.latest(id).map(ResponseEntity::ok).orElse(ResponseEntity.noContent().build());
    }

    @Operation(summary = "Recorded signals between two times")
    @GetMapping("/runs/{id}/trace")
    TraceView trace(@PathVariable long id, @RequestParam List<String> signals, @RequestParam(defaultValue = "0") double from,
                    @RequestParam(defaultValue = "1e9") double to, @RequestParam(defaultValue = "2000") int points) {
        return store.trace(id, signals, from, to, points);
    }
}
