package rueda.app.proof;

import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.media.Content;
import io.swagger.v3.oas.annotations.media.Schema;
import io.swagger.v3.oas.annotations.responses.ApiResponse;
import jakarta.annotation.PreDestroy;
import java.util.ArrayList;
import java.util.List;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.servlet.mvc.method.annotation.ResponseBodyEmitter;
import rueda.app.machine.MachineStore;
import rueda.app.recording.RecordingStore;
import rueda.app.work.JsonLines;
import rueda.machine.Machine;
import rueda.machine.Proof;
import rueda.proof.ProofSentences;
import rueda.proof.fastest.Fastest;
import rueda.proof.fastest.FastestSearch;
import rueda.proof.fastest.Freedom;
import rueda.quantity.InvalidEntry;
import rueda.recording.Brought;

/** How fast a machine may go and still hold everything; one search after the other, each takes all processors. */
@RestController
@RequestMapping("/api/machines/{id}")
class FastestController {

    private static final int MOST_POINTS = 2000;

    private final MachineStore machines;
    private final RecordingStore recordings;
    private final JsonLines searches = new JsonLines("searches");

    FastestController(MachineStore machines, RecordingStore recordings) {
        this.machines = machines;
        this.recordings = recordings;
    }

    /** What may be changed. @param key of a number of the machine  @param low least value  @param high most */
    record FreedomBounds(String key, double low, double high) {
    }

    /**
     * @param proof      its name: what has to hold
     * @param from       event with which the time that counts begins
     * @param to         event with which it ends
     * @param conditions it has to hold under each condition of the proof, too
     * @param freedoms   what may be changed
     * @param most       sets of values that are tried at most
     */
    record FastestQuestion(String proof, String from, String to, boolean conditions, List<FreedomBounds> freedoms, int most) {
    }

    /** A part of the document that changes. @param pointer JSON pointer  @param text of a program file; null for a number  @param number null for a text */
    record TakenOver(String pointer, String text, Double number) {
    }

    /**
     * How far it is.
     *
     * @param best    shortest time so far, s; null for none yet
     * @param fastest in the last line
     * @param changes with which it is taken over
     * @param refused why there is none
     */
    record FastestProgress(int points, int of, Double best, Fastest fastest, List<TakenOver> changes, String refused) {
    }

    @Operation(summary = "Numbers of the current revision that a search for the fastest may change: of its program, gains, entries of move lists")
    @GetMapping("/freedoms")
    List<Freedom> freedoms(@PathVariable long id) {
        return Freedom.of(machines.get(id).document());
    }

    @Operation(summary = "Searches for the values with which the time that counts is shortest while a proof holds everything; told as it goes, a line of JSON each. Closing the connection ends it")
    @ApiResponse(responseCode = "200", content = @Content(mediaType = "application/x-ndjson", schema = @Schema(implementation = FastestProgress.class)))
    @PostMapping(path = "/fastest", produces = "application/x-ndjson")
    ResponseEntity<ResponseBodyEmitter> fastest(@PathVariable long id, @RequestBody FastestQuestion q) {
        Machine machine = machines.get(id).document();
        Proof proof = RunStore.wanted(machine, q.proof());
        RunStore.checkProgram(machine);
        event(machine, "from", q.from());
        event(machine, "to", q.to());
        if (q.most() < 1 || q.most() > MOST_POINTS) {
            throw new InvalidEntry("most", Integer.toString(q.most()), "1 to " + MOST_POINTS, "say how many sets of values are tried");
        }
        List<Freedom> freedoms = freedoms(machine, q.freedoms());
        Brought.Shelf shelf = recordings.held(id, proof);
        return searches.answer(teller -> {
            teller.tell(new FastestProgress(0, q.most(), null, null, List.of(), null));
            Fastest fastest = FastestSearch.search(machine, proof, q.from(), q.to(), q.conditions(), freedoms, shelf, Runtime.getRuntime().availableProcessors(), q.most(),
                    (points, of, best) -> teller.tell(new FastestProgress(points, of, Double.isNaN(best) ? null : (Double) best, null, List.of(), null)));
            return new FastestProgress(fastest.points(), q.most(), fastest.after(), fastest, changes(machine, fastest), null);
        }, why -> new FastestProgress(0, 0, null, null, List.of(), why));
    }

    private static void event(Machine machine, String field, String event) {
        new ProofSentences(machine).faultOfEvent(event).ifPresent(fault -> {
            throw new InvalidEntry(field, event.isBlank() ? "nothing" : event, "an event, such as the name of a BOOL of the program: " + fault, "correct it");
        });
    }

    private static List<Freedom> freedoms(Machine machine, List<FreedomBounds> wanted) {
        List<Freedom> all = Freedom.of(machine);
        List<Freedom> chosen = new ArrayList<>();
        for (int i = 0; i < wanted.size(); i++) {
            FreedomBounds bounds = wanted.get(i);
            int number = i;
            Freedom found = all.stream().filter(freedom -> freedom.key().equals(bounds.key())).findFirst()
                    .orElseThrow(() -> new InvalidEntry("freedoms/" + number + "/key", bounds.key(), "a number of the saved machine", "choose it again: the machine has changed"));
            chosen.add(new Freedom(found.key(), found.words(), found.unit(), found.value(), bounds.low(), bounds.high()));
        }
        return chosen;
    }

    private static List<TakenOver> changes(Machine machine, Fastest fastest) {
        Machine changed = Freedom.changed(machine, fastest.values().stream().map(Fastest.FoundNumber::of).toList(), fastest.values().stream().mapToDouble(Fastest.FoundNumber::found).toArray());
        List<TakenOver> all = new ArrayList<>();
        for (int f = 0; f < machine.plc().files().size(); f++) {
            if (!machine.plc().files().get(f).equals(changed.plc().files().get(f))) {
                all.add(new TakenOver("/plc/files/" + f + "/source", changed.plc().files().get(f).source(), null));
            }
        }
        for (Fastest.FoundNumber found : fastest.values()) {
            if (!found.of().pointer().isEmpty() && found.found() != found.of().value()) {
                all.add(new TakenOver(found.of().pointer(), null, found.found()));
            }
        }
        return all;
    }

    @PreDestroy
    void close() {
        searches.close();
    }
}
