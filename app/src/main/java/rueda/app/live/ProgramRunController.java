package rueda.app.live;

import io.swagger.v3.oas.annotations.Operation;
import java.util.List;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import rueda.bench.ValueChanges;
import rueda.plc.run.Tracer;
import rueda.quantity.InvalidEntry;

/** Looks into the program that runs on the bench of a machine, holds it and changes its values; what it does comes over the live stream. */
@RestController
@RequestMapping("/api/machines/{id}/bench/program")
class ProgramRunController {

    private static final int MOST = 100;
    private static final int MOST_TRACED = 8;
    private static final int LONGEST = 1000;

    private final Benches benches;

    ProgramRunController(Benches benches) {
        this.benches = benches;
    }

    /** @param breakpoints all of them; they stay when the program is run anew */
    record Breakpoints(List<ProgramWatch.Breakpoint> breakpoints) {
    }

    @Operation(summary = "Lines in which the program is held, instead of those before")
    @PutMapping("/breakpoints")
    List<ProgramWatch.Breakpoint> breakpoints(@PathVariable long id, @RequestBody Breakpoints wanted) {
        most("breakpoints", wanted.breakpoints());
        wanted.breakpoints().forEach(b -> text("condition", b.condition()));
        return benches.of(id).breakpoints(wanted.breakpoints());
    }

    /** @param expressions all of them, in the order of the page */
    record Watches(List<String> expressions) {
    }

    @Operation(summary = "Expressions whose values the live stream tells, instead of those before")
    @PutMapping("/watches")
    List<String> watches(@PathVariable long id, @RequestBody Watches wanted) {
        most("expressions", wanted.expressions());
        wanted.expressions().forEach(e -> text("expressions", e));
        return benches.of(id).watches(wanted.expressions());
    }

    /** @param names of values, up to 8; a recording of them begins anew */
    record Traced(List<String> names) {
    }

    @Operation(summary = "Values that the live stream's samples carry, instead of those before")
    @PutMapping("/traced")
    List<String> traced(@PathVariable long id, @RequestBody Traced wanted) {
        if (wanted.names().size() > MOST_TRACED) {
            throw new InvalidEntry("names", wanted.names().size() + " of them", "up to " + MOST_TRACED, "take some out of the trace");
        }
        wanted.names().forEach(n -> text("names", n));
        return benches.of(id).traced(wanted.names());
    }

    /** @param changes the newest first; the first one ever is what the value was when the program began */
    record ValueHistory(String name, List<ValueChanges.ValueChange> changes) {
    }

    @Operation(summary = "When a value of the program changed last, the last 32 times, the newest first")
    @GetMapping("/history")
    ValueHistory history(@PathVariable long id, @RequestParam String name) {
        text("name", name);
        return benches.of(id).history(name).map(changes -> new ValueHistory(name, changes))
                .orElseThrow(() -> new InvalidEntry("name", name, "a number, bit or time of the program that runs", "run the program, and name one of its values"));
    }

    /** @param how how far */
    record StepOrder(Tracer.Step how) {
    }

    @Operation(summary = "Goes on by a step, also from the beginning of a cycle")
    @PostMapping("/step")
    LiveBench.State step(@PathVariable long id, @RequestBody StepOrder order, @RequestHeader(name = BenchController.KEY, required = false) String key) {
        return benches.of(id).step(key, order.how());
    }

    /** @param line from 1 */
    record LineOrder(String file, int line) {
    }

    @Operation(summary = "Runs until a line is reached")
    @PostMapping("/to-line")
    LiveBench.State toLine(@PathVariable long id, @RequestBody LineOrder order, @RequestHeader(name = BenchController.KEY, required = false) String key) {
        return benches.of(id).toLine(key, order.file(), order.line());
    }

    /** @param name of one of the values of the live stream  @param value an expression, such as 12.5, T#2s, TRUE or Other + 1 */
    record NewValue(String name, String value) {
    }

    @Operation(summary = "Writes a value once; the program may change it again")
    @PostMapping("/write")
    LiveBench.State write(@PathVariable long id, @RequestBody NewValue order, @RequestHeader(name = BenchController.KEY, required = false) String key) {
        text("value", order.value());
        return benches.of(id).write(key, order.name(), order.value(), false);
    }

    @Operation(summary = "Puts a value in place at the beginning and the end of every cycle of the program")
    @PostMapping("/force")
    LiveBench.State force(@PathVariable long id, @RequestBody NewValue order, @RequestHeader(name = BenchController.KEY, required = false) String key) {
        text("value", order.value());
        return benches.of(id).write(key, order.name(), order.value(), true);
    }

    /** @param name of a value that is forced; empty for all */
    record Release(String name) {
    }

    @Operation(summary = "A value is again what program and bus make it")
    @PostMapping("/release")
    LiveBench.State release(@PathVariable long id, @RequestBody Release order, @RequestHeader(name = BenchController.KEY, required = false) String key) {
        return benches.of(id).release(key, order.name());
    }

    private static void most(String field, List<?> list) {
        if (list.size() > MOST) {
            throw new InvalidEntry(field, list.size() + " of them", "up to " + MOST, "remove some");
        }
    }

    private static void text(String field, String text) {
        if (text.length() > LONGEST) {
            throw new InvalidEntry(field, text.length() + " characters", "up to " + LONGEST + " characters", "shorten it");
        }
    }
}
