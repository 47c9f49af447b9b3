package rueda.app.proof;

import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.Parameter;
import io.swagger.v3.oas.annotations.media.Content;
import io.swagger.v3.oas.annotations.media.Schema;
import io.swagger.v3.oas.annotations.responses.ApiResponse;
import java.nio.charset.StandardCharsets;
import java.util.List;
import org.springframework.http.HttpHeaders;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.context.request.async.DeferredResult;
import org.springframework.web.servlet.mvc.method.annotation.ResponseBodyEmitter;
import org.springframework.web.servlet.mvc.method.annotation.StreamingResponseBody;
import rueda.app.web.Downloads;

/** Runs of a machine's proofs and their recordings. */
@RestController
@RequestMapping("/api")
class RunController {

    private final RunStore store;

    /** Nobody listens meanwhile; it is answered at its end. */
    record Answered(DeferredResult<RunView> answer) implements ProofQueue.Asker {
        @Override
        public boolean waits(int before) {
            return true;
        }

        @Override
        public boolean runs(double time, double of) {
            return true;
        }

        @Override
        public void done(RunView run) {
            answer.setResult(run);
        }

        @Override
        public void failed(Throwable failure) {
            answer.setErrorResult(failure);
        }
    }

    RunController(RunStore store) {
        this.store = store;
    }

    @Operation(summary = "Runs a proof of the current revision on a bench, in its turn, and stores the outcome")
    @ApiResponse(responseCode = "200", content = @Content(mediaType = "application/json", schema = @Schema(implementation = RunView.class)))
    @PostMapping("/machines/{id}/runs")
    DeferredResult<RunView> run(@PathVariable long id, @Parameter(description = "name of the proof; may be left out where there is only one") @RequestParam(required = false) String proof) {
        DeferredResult<RunView> answer = new DeferredResult<>(0L);
        store.run(id, proof, new Answered(answer));
        return answer;
    }

    @Operation(summary = "The same, told as it goes: a line of JSON each, the run in the last. Closing the connection ends the proof; then nothing of it is stored")
    @ApiResponse(responseCode = "200", content = @Content(mediaType = "application/x-ndjson", schema = @Schema(implementation = ProofProgress.class)))
    @PostMapping(path = "/machines/{id}/runs/progress", produces = "application/x-ndjson")
    ResponseEntity<ResponseBodyEmitter> runWithProgress(@PathVariable long id, @RequestParam(required = false) String proof) {
        ProofLines lines = new ProofLines();
        store.run(id, proof, lines);
        return ResponseEntity.ok().contentType(MediaType.APPLICATION_NDJSON).body(lines.emitter());
    }

    @Operation(summary = "The newest run of each proof, in the order of the proofs; those that never ran are left out")
    @GetMapping("/machines/{id}/runs/latest")
    List<RunView> latest(@PathVariable long id) {
        return store.latest(id);
    }

    @Operation(summary = "The runs of a proof that are kept, the newest first")
    @GetMapping("/machines/{id}/runs")
    List<RunSummary> runs(@PathVariable long id, @RequestParam String proof) {
        return store.runs(id, proof);
    }

    @Operation(summary = "A run with its verdicts")
    @GetMapping("/runs/{id}")
    RunView run(@PathVariable long id) {
        return store.run(id);
    }

    @Operation(summary = "Recorded signals between two times")
    @GetMapping("/runs/{id}/trace")
    TraceView trace(@PathVariable long id, @RequestParam List<String> signals, @RequestParam(defaultValue = "0") double from,
                    @RequestParam(defaultValue = "1e9") double to, @RequestParam(defaultValue = "2000") int points) {
        return store.trace(id, signals, from, to, points);
    }

    @Operation(summary = "The recording of a run as CSV: time and signals in columns, a line with their names and units first")
    @ApiResponse(responseCode = "200", content = @Content(mediaType = "text/csv", schema = @Schema(type = "string")))
    @GetMapping(path = "/runs/{id}/recording.csv", produces = "text/csv")
    ResponseEntity<StreamingResponseBody> csv(@PathVariable long id, @Parameter(description = "signals of this axis only; all when it is left out") @RequestParam(required = false) String axis) {
        RecordingExport export = store.export(id, axis);
        return file(export.proof() + ".csv", new MediaType("text", "csv", StandardCharsets.UTF_8), export::csv);
    }

    @Operation(summary = "The same as JSON, by columns")
    @ApiResponse(responseCode = "200", content = @Content(mediaType = "application/json", schema = @Schema(type = "object")))
    @GetMapping(path = "/runs/{id}/recording.json", produces = "application/json")
    ResponseEntity<StreamingResponseBody> json(@PathVariable long id, @RequestParam(required = false) String axis) {
        RecordingExport export = store.export(id, axis);
        return file(export.proof() + ".json", MediaType.APPLICATION_JSON, export::json);
    }

    private static ResponseEntity<StreamingResponseBody> file(String name, MediaType type, StreamingResponseBody content) {
        return ResponseEntity.ok().header(HttpHeaders.CONTENT_DISPOSITION, Downloads.named(name)).contentType(type).body(content);
    }
}
