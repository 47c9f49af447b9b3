package rueda.app.traces;

import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.media.Content;
import io.swagger.v3.oas.annotations.media.Schema;
import io.swagger.v3.oas.annotations.responses.ApiResponse;
import jakarta.annotation.PreDestroy;
import java.util.List;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.servlet.mvc.method.annotation.ResponseBodyEmitter;
import rueda.app.machine.MachineStore;
import rueda.app.proof.RunStore;
import rueda.app.recording.RecordingStore;
import rueda.app.work.JsonLines;
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

    /** Samples of the axis in memory. */
    private static final long MOST_SAMPLES = 8_000_000;

    private final MachineStore machines;
    private final RecordingStore recordings;
    private final JsonLines learning = new JsonLines("recordings to learn from");

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
        return learning.answer(teller -> {
            teller.tell(new LearningProgress(0, 0, 1, null, null));
            Learned learned = Learning.learn(machine, proof, q.axis(), held, q.unknowns(), Runtime.getRuntime().availableProcessors(), (runs, of, apart) -> teller.tell(new LearningProgress(runs, of, apart, null, null)));
            return new LearningProgress(learned.runs(), learned.runs(), 0, learned, null);
        }, why -> new LearningProgress(0, 0, 0, null, why));
    }

    @PreDestroy
    void close() {
        learning.close();
    }
}
