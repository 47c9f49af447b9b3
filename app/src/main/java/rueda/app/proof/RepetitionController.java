package rueda.app.proof;

import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.media.Content;
import io.swagger.v3.oas.annotations.media.Schema;
import io.swagger.v3.oas.annotations.responses.ApiResponse;
import java.io.IOException;
import java.util.List;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import jakarta.annotation.PreDestroy;
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
import rueda.app.machine.MachineJson;
import rueda.app.work.Daemons;

/** Proofs repeated by their plans. */
@RestController
@RequestMapping("/api")
class RepetitionController {

    private static final long BEAT_MILLIS = 1000;
    private static final long LEAST_APART_MILLIS = 150;

    private final RepetitionStore store;
    private final ExecutorService tellers = Executors.newCachedThreadPool(work -> Daemons.named("repetition told", work));

    RepetitionController(RepetitionStore store) {
        this.store = store;
    }

    @Operation(summary = "Repeats a proof of the current revision by its plan, in its turn, whether somebody listens or not")
    @PostMapping("/machines/{id}/repetitions")
    RepetitionView start(@PathVariable long id, @RequestParam(required = false) String proof) {
        return store.start(id, proof);
    }

    @Operation(summary = "The newest repetition of each proof, in the order of the proofs; those that were never repeated are left out")
    @GetMapping("/machines/{id}/repetitions/latest")
    List<RepetitionView> latest(@PathVariable long id) {
        return store.latest(id);
    }

    @Operation(summary = "How far it has come, and what it says once it has ended")
    @GetMapping("/repetitions/{id}")
    RepetitionView view(@PathVariable long id) {
        return store.view(id);
    }

    @Operation(summary = "Tells how far it is, a line of JSON each, until it has ended; it may be asked for any time and by anybody")
    @ApiResponse(responseCode = "200", content = @Content(mediaType = "application/x-ndjson", schema = @Schema(implementation = RepetitionProgress.class)))
    @GetMapping(path = "/repetitions/{id}/progress", produces = "application/x-ndjson")
    ResponseEntity<ResponseBodyEmitter> progress(@PathVariable long id) {
        RepetitionProgress first = store.progress(id);
        ResponseBodyEmitter emitter = new ResponseBodyEmitter(0L);
        tellers.execute(() -> tell(id, first, emitter));
        return ResponseEntity.ok().contentType(MediaType.APPLICATION_NDJSON).body(emitter);
    }

    private void tell(long id, RepetitionProgress first, ResponseBodyEmitter emitter) {
        try {
            RepetitionProgress now = first;
            emitter.send(MachineJson.write(now) + "\n", MediaType.TEXT_PLAIN);
            while (!now.ended()) {
                store.await(id, now.done(), BEAT_MILLIS);
                now = store.progress(id);
                emitter.send(MachineJson.write(now) + "\n", MediaType.TEXT_PLAIN);
                Thread.sleep(now.ended() ? 0 : LEAST_APART_MILLIS);
            }
            emitter.complete();
        } catch (IOException | IllegalStateException gone) {
            // Nobody listens any more; it goes on without.
            emitter.complete();
        } catch (InterruptedException closing) {
            Thread.currentThread().interrupt();
        } catch (RuntimeException failed) {
            emitter.completeWithError(failed);
        }
    }

    @Operation(summary = "Ends it; what had run is not kept")
    @PostMapping("/repetitions/{id}/cancel")
    void cancel(@PathVariable long id) {
        store.cancel(id);
    }

    @Operation(summary = "Makes one of its runs again, exactly, and stores it with its recording")
    @ApiResponse(responseCode = "200", content = @Content(mediaType = "application/json", schema = @Schema(implementation = RunView.class)))
    @PostMapping("/repetitions/{id}/runs/{run}")
    DeferredResult<RunView> again(@PathVariable long id, @PathVariable int run) {
        DeferredResult<RunView> answer = new DeferredResult<>(0L);
        store.again(id, run, new RunController.Answered(answer));
        return answer;
    }

    @PreDestroy
    void close() {
        tellers.shutdownNow();
    }
}
