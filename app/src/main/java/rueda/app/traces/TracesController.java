package rueda.app.traces;

import io.swagger.v3.oas.annotations.Operation;
import java.util.List;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import rueda.machine.Expectation;
import rueda.proof.Comparison;

/** Signals of any runs and recordings, as they are drawn and measured. */
@RestController
@RequestMapping("/api")
class TracesController {

    private final TraceStore traces;

    TracesController(TraceStore traces) {
        this.traces = traces;
    }

    /**
     * One signal of a run or of a recording.
     *
     * @param run       its key; null for a recording's
     * @param recording its key; null for a run's
     * @param signal    its name
     * @param shift     s that are added to its times
     * @param less      what is taken away from it, so that the difference is drawn; null for nothing
     */
    record TraceLine(Long run, Long recording, String signal, double shift, TraceLine less) {
    }

    /**
     * @param lines  what is drawn
     * @param from   s
     * @param to     s
     * @param points about how many of each line
     */
    record TracesQuestion(List<TraceLine> lines, double from, double to, int points) {
    }

    /**
     * A line as it is drawn.
     *
     * @param time   s
     * @param values null where nothing was recorded
     * @param whole  every sample is there; else of every interval the lowest and the highest, each at its own time
     */
    record DrawnLine(String unit, List<Double> time, List<Double> values, boolean whole) {
    }

    /**
     * What a stretch of a line measures.
     *
     * @param mean      over time
     * @param rms       root of the mean square over time
     * @param slope     of the straight line of least squares, per s
     * @param frequency of ringing around that line, Hz: by its mean crossings; null where it does not ring
     * @param first     value at the begin of the stretch
     * @param last      value at its end
     */
    record Measured(String unit, double mean, double rms, double low, double lowAt, double high, double highAt, double slope, Double frequency, double first, double last, long samples) {
    }

    /** A run or a recording whose signals can be drawn. @param kind RUN or RECORDING  @param note when, under what conditions */
    record TraceSource(String kind, long id, String name, String note, double begins, double ends, List<SourceSignal> signals) {
    }

    record SourceSignal(String name, String unit) {
    }

    /** What happened in a run. @param to s, equal to {@code from} for a moment */
    record Band(String kind, String words, double from, double to) {
    }

    /**
     * @param run       its key
     * @param recording its key
     * @param alignment how the recording is laid over the run
     * @param event     where it first comes in both, for EVENT; null for others
     * @param signal    a number made of signals that both have, for BEST_FIT; null for others
     * @param at        an event of the run: each time it comes the signals are compared there; null for none
     */
    record OverlayQuestion(long run, long recording, Expectation.Alignment alignment, String event, String signal, String at) {
    }

    @Operation(summary = "Lays a recording over a run and says how far they are apart, signal by signal: run less recording")
    @PostMapping("/traces/comparison")
    Comparison comparison(@RequestBody OverlayQuestion q) {
        return traces.comparison(q);
    }

    @Operation(summary = "Signals as they are drawn between two times: extremes at their true times, or all samples where few are there")
    @PostMapping("/traces")
    List<DrawnLine> traces(@RequestBody TracesQuestion q) {
        return traces.drawn(q);
    }

    @Operation(summary = "What signals measure between two times; null for one that has nothing there")
    @PostMapping("/traces/measures")
    List<Measured> measures(@RequestBody TracesQuestion q) {
        return traces.measured(q);
    }

    @Operation(summary = "The recordings of a machine and the runs of its proofs whose signals can be drawn, the newest first")
    @GetMapping("/machines/{id}/traces")
    List<TraceSource> sources(@PathVariable long id) {
        return traces.sources(id);
    }

    @Operation(summary = "What happened in a run: its script, and a band for each time that a value of the program stood, such as a step")
    @GetMapping("/runs/{id}/bands")
    List<Band> bands(@PathVariable long id, @RequestParam(required = false) String signal) {
        return traces.bands(id, signal);
    }
}
