package rueda.app.machine;

import io.swagger.v3.oas.annotations.Operation;
import java.nio.charset.StandardCharsets;
import java.util.List;
import org.springframework.core.io.ClassPathResource;
import org.springframework.core.io.Resource;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import rueda.app.web.Downloads;
import rueda.app.web.Refusals.MissingRevision;
import rueda.format.Text;
import rueda.format.UnreadableFile;
import rueda.edit.DocumentChange;
import rueda.machine.DemoMachine;
import rueda.machine.Machine;
import rueda.machine.NewMachine;
import rueda.quantity.InvalidEntry;

/** Machines and their revisions. Changing calls carry the revision they are based on in If-Match. */
@RestController
@RequestMapping("/api/machines")
class MachineController {

    private final MachineStore store;

    MachineController(MachineStore store) {
        this.store = store;
    }

    @Operation(summary = "All machines, also deleted ones and those that cannot be opened")
    @GetMapping
    List<MachineStore.Listed> all() {
        return store.all();
    }

    /** What a new machine begins with. */
    enum Beginning { EMPTY, DEMO, DEMO_BY_WORDS, DEMO_BY_ENCODER }

    /** @param name left out: a name that says what it is */
    record NewMachineQuestion(Beginning beginning, String name) {
    }

    @Operation(summary = "A new machine: without axes, or the demo cell, its Shuttle commanded by motion blocks or by plain words, or its Brush alone behind an encoder on a belt")
    @PostMapping
    ResponseEntity<MachineState> create(@RequestBody NewMachineQuestion wanted) {
        if (wanted.beginning() == null) {
            throw new InvalidEntry("beginning", "missing", "EMPTY, DEMO, DEMO_BY_WORDS or DEMO_BY_ENCODER", "say what it begins with");
        }
        Machine begun = switch (wanted.beginning()) {
            case DEMO -> DemoMachine.create();
            case DEMO_BY_WORDS -> DemoMachine.byWords();
            case DEMO_BY_ENCODER -> DemoMachine.byEncoder();
            case EMPTY -> NewMachine.named("New machine");
        };
        MachineState made = store.create(wanted.name() == null ? begun : begun.withName(wanted.name().strip()), wanted.beginning() == Beginning.EMPTY ? "an empty machine" : "the demo");
        if (wanted.beginning() == Beginning.DEMO) {
            store.demoMade(made.id());
        }
        return tagged(made);
    }

    @Operation(summary = "A new machine from a machine file")
    @PostMapping(path = "/file", consumes = "application/octet-stream")
    ResponseEntity<MachineState> createFromFile(@RequestBody(required = false) byte[] file) {
        return tagged(store.create(read(file), "a machine file"));
    }

    record CopyQuestion(String name) {
    }

    @Operation(summary = "A new machine as a copy of the saved document of another")
    @PostMapping("/{id}/copy")
    ResponseEntity<MachineState> copy(@PathVariable long id, @RequestBody CopyQuestion wanted) {
        MachineState of = store.get(id);
        String name = wanted.name() == null ? "Copy of " + of.document().name() : wanted.name().strip();
        return tagged(store.create(of.document().withName(name.length() > 80 && wanted.name() == null ? name.substring(0, 80) : name), "a copy of “" + of.document().name() + "”, revision " + of.revision()));
    }

    record RenameQuestion(String name) {
    }

    @Operation(summary = "Gives a machine another name")
    @PostMapping("/{id}/name")
    ResponseEntity<MachineState> rename(@PathVariable long id, @RequestHeader(name = "If-Match", required = false) String revision, @RequestBody RenameQuestion wanted) {
        return tagged(store.rename(id, number(revision), wanted.name()));
    }

    @Operation(summary = "Deletes a machine; it can be brought back")
    @DeleteMapping("/{id}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void delete(@PathVariable long id) {
        store.delete(id);
    }

    @Operation(summary = "Brings a deleted machine back as it was")
    @PostMapping("/{id}/restore")
    ResponseEntity<MachineState> bringBack(@PathVariable long id) {
        return tagged(store.bringBack(id));
    }

    @Operation(summary = "50 revisions of a machine, the newest first, also those that cannot be opened")
    @GetMapping("/{id}/revisions")
    List<MachineStore.ListedRevision> revisions(@PathVariable long id, @RequestParam(required = false) Long before) {
        return store.revisions(id, before == null ? Long.MAX_VALUE : before);
    }

    @Operation(summary = "What is different in a revision against another, in words")
    @GetMapping("/{id}/revisions/{number}/comparison")
    List<DocumentChange> comparison(@PathVariable long id, @PathVariable long number, @RequestParam long with) {
        return store.comparison(id, with, number);
    }

    @Operation(summary = "Gives a revision a name; an empty one takes it away")
    @PutMapping("/{id}/revisions/{number}/name")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void nameRevision(@PathVariable long id, @PathVariable long number, @RequestBody RenameQuestion wanted) {
        store.nameRevision(id, number, wanted.name());
    }

    @Operation(summary = "Goes to a revision")
    @PostMapping("/{id}/revisions/{number}/open")
    ResponseEntity<MachineState> open(@PathVariable long id, @PathVariable long number, @RequestHeader(name = "If-Match", required = false) String revision) {
        return tagged(store.open(id, number(revision), number));
    }

    @Operation(summary = "The text of a revision as it is stored")
    @GetMapping(path = "/{id}/revisions/{number}/text", produces = "application/octet-stream")
    ResponseEntity<byte[]> text(@PathVariable long id, @PathVariable long number) {
        return ResponseEntity.ok().header(HttpHeaders.CONTENT_DISPOSITION, Downloads.named("machine-" + id + "-revision-" + number + ".json")).body(store.text(id, number).getBytes(StandardCharsets.UTF_8));
    }

    @Operation(summary = "A machine with its document; the ETag is its revision")
    @GetMapping("/{id}")
    ResponseEntity<MachineState> get(@PathVariable long id) {
        return tagged(store.get(id));
    }

    @Operation(summary = "Saves the document as a new revision")
    @PutMapping("/{id}")
    ResponseEntity<MachineState> save(@PathVariable long id, @RequestHeader(name = "If-Match", required = false) String revision,
                                      @RequestBody Machine document) {
        return tagged(store.save(id, number(revision), document));
    }

    @Operation(summary = "Goes back to the revision before")
    @PostMapping("/{id}/undo")
    ResponseEntity<MachineState> undo(@PathVariable long id, @RequestHeader(name = "If-Match", required = false) String revision) {
        return tagged(store.undo(id, number(revision)));
    }

    @Operation(summary = "Goes forward to the revision undone last")
    @PostMapping("/{id}/redo")
    ResponseEntity<MachineState> redo(@PathVariable long id, @RequestHeader(name = "If-Match", required = false) String revision) {
        return tagged(store.redo(id, number(revision)));
    }

    @Operation(summary = "The machine file: the saved document as JSON, described by the schema")
    @GetMapping(path = "/{id}/file", produces = MediaType.APPLICATION_JSON_VALUE)
    ResponseEntity<byte[]> file(@PathVariable long id) {
        Machine document = store.get(id).document();
        return ResponseEntity.ok().header(HttpHeaders.CONTENT_DISPOSITION, Downloads.named(document.name() + ".json")).body(MachineJson.pretty(document).getBytes(StandardCharsets.UTF_8));
    }

    @Operation(summary = "JSON Schema of the machine file")
    @GetMapping(path = "/schema", produces = "application/schema+json")
    ResponseEntity<Resource> schema() {
        return ResponseEntity.ok().header(HttpHeaders.CONTENT_DISPOSITION, Downloads.named("machine.schema.json")).body(new ClassPathResource("rueda/machine.schema.json"));
    }

    @Operation(summary = "Reads a machine file; nothing is stored")
    @PostMapping(path = "/read", consumes = "application/octet-stream")
    Machine read(@RequestBody(required = false) byte[] file) {
        Machine machine;
        try {
            machine = MachineJson.readFile(Text.decoded(file == null ? new byte[0] : file));
        } catch (IllegalArgumentException broken) {
            throw new UnreadableFile("File", broken.getMessage(), "a machine file by the schema", "choose a machine file");
        }
        return Checked.machine(machine);
    }

    private static ResponseEntity<MachineState> tagged(MachineState state) {
        return ResponseEntity.ok().eTag("\"" + state.revision() + "\"").body(state);
    }

    private static long number(String etag) {
        if (etag == null || !etag.matches("\"?\\d{1,18}\"?")) {
            throw new MissingRevision(etag);
        }
        return Long.parseLong(etag.replace("\"", ""));
    }
}
