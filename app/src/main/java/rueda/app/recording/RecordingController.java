package rueda.app.recording;

import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.Parameter;
import io.swagger.v3.oas.annotations.media.Content;
import io.swagger.v3.oas.annotations.media.Schema;
import io.swagger.v3.oas.annotations.responses.ApiResponse;
import jakarta.annotation.PreDestroy;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.util.List;
import org.springframework.http.HttpStatus;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.servlet.mvc.method.annotation.ResponseBodyEmitter;
import rueda.app.machine.MachineStore;
import rueda.app.work.JsonLines;
import rueda.bench.MachineSignals;
import rueda.format.recording.Assignments;
import rueda.format.recording.LayoutGuess;
import rueda.format.recording.RecordingLayout;
import rueda.format.recording.RecordingLayout.ColumnUse;
import rueda.machine.Machine;

/** Recordings that are brought in: a file arrives in parts, is looked at, and is read. */
@RestController
@RequestMapping("/api")
class RecordingController {

    /** No faster than an eye follows, ns. */
    private static final long LEAST_APART = 100_000_000;

    private final RecordingStore store;
    private final IncomingFiles files;
    private final MachineStore machines;
    private final JsonLines readings = new JsonLines("recordings");

    RecordingController(RecordingStore store, IncomingFiles files, MachineStore machines) {
        this.store = store;
        this.files = files;
        this.machines = machines;
    }

    /** @param key by which its parts are sent and it is read  @param partBytes largest part */
    record IncomingFile(String key, int partBytes) {
    }

    /** @param received bytes that have arrived */
    record IncomingState(long received) {
    }

    /**
     * What a file looks like.
     *
     * @param layout     how it is read
     * @param remembered as a file with the same headings was read before
     * @param headings   of all columns
     * @param units      of all columns, empty for none
     * @param rows       its first rows
     * @param begin      its first lines as they are
     */
    record IncomingPreview(RecordingLayout layout, boolean remembered, List<String> headings, List<String> units, List<List<String>> rows, List<String> begin) {
    }

    /** @param name of the recording */
    record RecordingOrder(String name, RecordingLayout layout) {
    }

    /** @param as the signal that the column becomes */
    record AssignmentQuestion(ColumnUse column, String as) {
    }

    /** How far it is: in the last line the recording, or why there is none. @param bytes read  @param of all */
    record BringingProgress(long bytes, long of, RecordingView recording, String failed) {
    }

    record RecordingName(String name) {
    }

    private static final int PART = 8 << 20;
    private static final int LINES_SHOWN = 10;
    private static final int LONGEST_LINE_SHOWN = 400;

    @Operation(summary = "The recordings of a machine, the newest first")
    @GetMapping("/machines/{id}/recordings")
    List<RecordingView> all(@PathVariable long id) {
        return store.all(id);
    }

    @Operation(summary = "Begins to bring a file in: its parts follow, each up to the size that is answered")
    @PostMapping("/machines/{id}/recordings/files")
    IncomingFile begin(@PathVariable long id, @RequestParam String name, @Parameter(description = "bytes") @RequestParam long size) {
        machines.get(id);
        return new IncomingFile(files.begin(id, name, size), PART);
    }

    @Operation(summary = "The next part of a file")
    @PutMapping(path = "/recordings/files/{key}", consumes = "application/octet-stream")
    IncomingState part(@PathVariable String key, @Parameter(description = "bytes before it") @RequestParam long at, @RequestBody(required = false) byte[] part) {
        return new IncomingState(files.get(key).append(at, part == null ? new byte[0] : part));
    }

    @Operation(summary = "Gives a file up that has not been read")
    @DeleteMapping("/recordings/files/{key}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void drop(@PathVariable String key) {
        files.drop(key);
    }

    @Operation(summary = "What a file looks like, and how it would be read: as one with the same headings was before, or as it is guessed")
    @GetMapping("/recordings/files/{key}/preview")
    IncomingPreview preview(@PathVariable String key) {
        IncomingFiles.Incoming file = files.get(key);
        byte[] head = head(file);
        Machine machine = machines.get(file.machineId).document();
        RecordingLayout guessed = Assignments.suggested(LayoutGuess.guess(head), machine, MachineSignals.of(machine));
        String headings = headings(LayoutGuess.preview(head, guessed));
        return store.remembered(file.machineId, headings).map(layout -> shown(head, layout, true)).orElseGet(() -> shown(head, guessed, false));
    }

    @Operation(summary = "What a file looks like when it is read another way. Columns that are not there any more are left out")
    @PostMapping("/recordings/files/{key}/preview")
    IncomingPreview preview(@PathVariable String key, @RequestBody RecordingLayout layout) {
        return shown(head(files.get(key)), layout, false);
    }

    @Operation(summary = "A column as a signal of the machine: its unit, and the factor to it where it can be told")
    @PostMapping("/machines/{id}/recordings/assignment")
    ColumnUse assignment(@PathVariable long id, @RequestBody AssignmentQuestion q) {
        Machine machine = machines.get(id).document();
        return MachineSignals.of(machine).stream().filter(signal -> signal.name().equalsIgnoreCase(q.as())).findFirst().map(signal -> Assignments.as(q.column(), signal, machine))
                .orElseGet(() -> new ColumnUse(q.column().column(), q.as(), q.column().unit(), q.column().scale(), q.column().offset()));
    }

    private static IncomingPreview shown(byte[] head, RecordingLayout layout, boolean remembered) {
        LayoutGuess.Preview preview = LayoutGuess.preview(head, layout);
        int width = preview.headings().size();
        RecordingLayout there = layout.withColumns(layout.columns().stream().filter(use -> use.column() < width).toList());
        List<String> begin = LayoutGuess.begin(head, layout.encoding(), LINES_SHOWN).stream().map(line -> line.length() > LONGEST_LINE_SHOWN ? line.substring(0, LONGEST_LINE_SHOWN) + "…" : line).toList();
        return new IncomingPreview(there, remembered, preview.headings(), preview.units(), preview.rows(), begin);
    }

    private static String headings(LayoutGuess.Preview preview) {
        String all = String.join("\t", preview.headings()) + "\n" + String.join("\t", preview.units());
        return all.length() <= 4000 ? all : all.substring(0, 3980) + "#" + all.hashCode();
    }

    private static byte[] head(IncomingFiles.Incoming file) {
        try (InputStream in = Files.newInputStream(file.path)) {
            return in.readNBytes(LayoutGuess.HEAD);
        } catch (IOException failed) {
            throw new UncheckedIOException(failed);
        }
    }

    @Operation(summary = "Reads a file and keeps it as a recording, told as it goes: a line of JSON each, the recording in the last. Closing the connection ends it; then nothing of it is kept")
    @ApiResponse(responseCode = "200", content = @Content(mediaType = "application/x-ndjson", schema = @Schema(implementation = BringingProgress.class)))
    @PostMapping(path = "/recordings/files/{key}/recording", produces = "application/x-ndjson")
    ResponseEntity<ResponseBodyEmitter> bring(@PathVariable String key, @RequestBody RecordingOrder order) {
        IncomingFiles.Incoming file = files.get(key);
        file.whole();
        String headings = headings(LayoutGuess.preview(head(file), order.layout()));
        return readings.answer(teller -> {
            long[] told = {System.nanoTime() - LEAST_APART};
            RecordingView brought = store.bring(file.machineId, order.name(), file, headings, order.layout(), bytes -> {
                if (System.nanoTime() - told[0] < LEAST_APART) {
                    return true;
                }
                told[0] = System.nanoTime();
                return teller.line(new BringingProgress(bytes, file.size, null, null));
            });
            files.drop(key);
            return new BringingProgress(file.size, file.size, brought, null);
        }, why -> new BringingProgress(0, file.size, null, why));
    }

    @Operation(summary = "Renames a recording")
    @PutMapping("/recordings/{id}/name")
    RecordingView rename(@PathVariable long id, @RequestBody RecordingName name) {
        return store.rename(id, name.name());
    }

    @Operation(summary = "Forgets a recording")
    @DeleteMapping("/recordings/{id}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void forget(@PathVariable long id) {
        store.forget(id);
    }

    @PreDestroy
    void close() {
        readings.close();
    }
}
