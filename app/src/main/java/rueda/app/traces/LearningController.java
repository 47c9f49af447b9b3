package rueda.app.traces;

import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.media.Content;
import io.swagger.v3.oas.annotations.media.Schema;
import io.swagger.v3.oas.annotations.responses.ApiResponse;
import jakarta.annotation.PreDestroy;
import java.io.IOException;
import java.util.List;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.RejectedExecutionException;
import java.util.concurrent.ThreadPoolExecutor;
import java.util.concurrent.TimeUnit;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.servlet.mvc.method.annotation.ResponseBodyEmitter;
import rueda.app.machine.MachineJson;
import rueda.app.machine.MachineStore;
import rueda.app.proof.RunStore;
import rueda.app.recording.RecordingStore;
import rueda.app.web.Refusals.TooMuchAtOnce;
import rueda.app.work.Daemons;
import rueda.bench.CalculationCancelled;
import rueda.machine.Machine;
import rueda.machine.Proof;
import rueda.proof.learn.Learned;
import rueda.proof.learn.Learning;
import rueda.proof.learn.Unknown;
import rueda.quantity.InvalidEntry;
import rueda.recording.Brought;

/** The bench learns from recordings, one after the other: each takes all processors. */
@RestController
@RequestMapping("/api")
class LearningController {

    private static final Logger LOG = LoggerFactory.getLogger(LearningController.class);
    private static final int MOST_WAITING = 16;
    /** Samples of the axis in memory. */
    private static final long MOST_SAMPLES = 8_000_000;

    private final MachineStore machines;
    private final RecordingStore recordings;
    private final ThreadPoolExecutor worker = new ThreadPoolExecutor(1, 1, 0, TimeUnit.SECONDS, new LinkedBlockingQueue<>(MOST_WAITING), work -> Daemons.named("learning asked", work));

    LearningController(MachineStore machines, RecordingStore recordings) {
        this.machines = machines;
        this.recordings = recordings;
    }

    /**
     * @param recording its key
     * @param proof     name of the proof that does what was recorded
     * @param axis      number of the axis, from 0
     * @param unknowns  what is learned; how late the signals come always is
     */
    record LearningQuestion(long recording, String proof, int axis, List<Unknown> unknowns) {
    }

    /**
     * How far it is.
     *
     * @param runs    that have been made
     * @param of      about how many there will be
     * @param apart   what is left of the difference, as a share
     * @param learned in the last line
     * @param refused why there is none
     */
    record LearningProgress(int runs, int of, double apart, Learned learned, String refused) {
    }

    @Operation(summary = "Runs a proof of the current revision with other loads, frictions and stiffnesses until it lies over a recording; told as it goes, a line of JSON each. Closing the connection ends it")
    @ApiResponse(responseCode = "200", content = @Content(mediaType = "application/x-ndjson", schema = @Schema(implementation = LearningProgress.class)))
    @PostMapping(path = "/machines/{id}/learning", produces = "application/x-ndjson")
    ResponseEntity<ResponseBodyEmitter> learn(@PathVariable long id, @RequestBody LearningQuestion q) {
        Machine machine = machines.get(id).document();
        Proof proof = RunStore.wanted(machine, q.proof());
        RunStore.checkProgram(machine);
        if (q.axis() < 0 || q.axis() >= machine.axes().size()) {
            throw new InvalidEntry("axis", Integer.toString(q.axis()), "0 to " + (machine.axes().size() - 1), "ask about an axis of the machine");
        }
        if (recordings.machineOf(q.recording()) != id) {
            throw new InvalidEntry("recording", Long.toString(q.recording()), "a recording of this machine", "choose one of them");
        }
        String own = machine.axes().get(q.axis()).name() + ".";
        Brought held;
        try {
            held = recordings.brought(q.recording()).inMemory(column -> column.regionMatches(true, 0, own, 0, own.length()), MOST_SAMPLES);
        } catch (IllegalArgumentException tooLong) {
            throw new InvalidEntry("recording", tooLong.getMessage(), "up to " + MOST_SAMPLES + " samples of an axis", "bring in the part that matters");
        }
        ResponseBodyEmitter emitter = new ResponseBodyEmitter(0L);
        try {
            worker.execute(() -> tell(emitter, machine, proof, held, q));
        } catch (RejectedExecutionException full) {
            throw new TooMuchAtOnce(MOST_WAITING + " recordings to learn from");
        }
        return ResponseEntity.ok().contentType(MediaType.APPLICATION_NDJSON).body(emitter);
    }

    private void tell(ResponseBodyEmitter emitter, Machine machine, Proof proof, Brought recording, LearningQuestion q) {
        try {
            if (!line(emitter, new LearningProgress(0, 0, 1, null, null))) {
                return;
            }
            Learned learned = Learning.learn(machine, proof, q.axis(), recording, q.unknowns(), Runtime.getRuntime().availableProcessors(), (runs, of, apart) -> {
                if (!line(emitter, new LearningProgress(runs, of, apart, null, null))) {
                    throw new CalculationCancelled();
                }
            });
            line(emitter, new LearningProgress(learned.runs(), learned.runs(), 0, learned, null));
        } catch (CalculationCancelled unwanted) {
            LOG.debug("Nobody wanted to know any more.");
        } catch (InvalidEntry refused) {
            line(emitter, new LearningProgress(0, 0, 0, null, refused.getMessage()));
        } catch (RuntimeException | Error failure) {
            LOG.error("Nothing could be learned.", failure);
            line(emitter, new LearningProgress(0, 0, 0, null, failure instanceof OutOfMemoryError ? "This needs more memory than there is: shorten the proof." : "Rueda made a mistake with this recording; the reason is in the server's output."));
        }
        emitter.complete();
    }

    private static boolean line(ResponseBodyEmitter emitter, LearningProgress progress) {
        try {
            emitter.send(MachineJson.write(progress) + "\n", MediaType.TEXT_PLAIN);
            return true;
        } catch (IOException | RuntimeException gone) {
            return false;
        }
    }

    @PreDestroy
    void close() {
        worker.shutdown();
    }
}
