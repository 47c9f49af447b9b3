package rueda.app.live;

import io.swagger.v3.oas.annotations.Operation;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.springframework.http.HttpHeaders;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import rueda.app.web.Downloads;
import rueda.machine.Mistake;
import rueda.plc.CompiledProgram;
import rueda.quantity.InvalidEntry;

/** Orders to the live bench; what it does comes over the live stream. While somebody moves axes by hand they need the key of the control lease in the header {@value #KEY}. */
@RestController
@RequestMapping("/api/machines/{id}/bench")
class BenchController {

    /** Header that carries the key of the control lease. */
    static final String KEY = "Rueda-Control";

    private final Benches benches;

    BenchController(Benches benches) {
        this.benches = benches;
    }

    /**
     * @param program  PROGRAM or HOMING
     * @param axis     axis to home
     * @param running  false: made, but held
     * @param retained true: the controller is switched off and on, and RETAIN values of the bench that is there stay; else it begins anew
     */
    record Start(LiveBench.Kind program, String axis, Boolean running, Boolean retained) {
    }

    @Operation(summary = "Makes the bench anew from the saved machine")
    @PostMapping
    LiveBench.State start(@PathVariable long id, @RequestBody Start start) {
        if (start.program() == null) {
            throw new InvalidEntry("program", "missing", "PROGRAM or HOMING", "say what to run");
        }
        return benches.of(id).start(start.program(), start.axis(), !Boolean.FALSE.equals(start.running()), Boolean.TRUE.equals(start.retained()));
    }

    @Operation(summary = "Lets the clock run")
    @PostMapping("/run")
    LiveBench.State run(@PathVariable long id, @RequestHeader(name = KEY, required = false) String key) {
        return benches.of(id).run(key);
    }

    @Operation(summary = "Holds the clock")
    @PostMapping("/hold")
    LiveBench.State hold(@PathVariable long id, @RequestHeader(name = KEY, required = false) String key) {
        return benches.of(id).hold(key);
    }

    @Operation(summary = "One cycle of the program's task, then holds")
    @PostMapping("/cycle")
    LiveBench.State cycle(@PathVariable long id, @RequestHeader(name = KEY, required = false) String key) {
        return benches.of(id).oneCycle(key);
    }

    @Operation(summary = "Quick stop of every axis")
    @PostMapping("/stop")
    LiveBench.State stop(@PathVariable long id) {
        return benches.of(id).stopAllAxes();
    }

    /** @param axis name of the axis  @param faults what is wrong with its wiring; empty for nothing */
    record BenchCondition(String axis, Set<Mistake> faults) {
    }

    @Operation(summary = "Makes mistakes of wiring on the bench; on one that runs they act from the next bus cycle")
    @PostMapping("/condition")
    Map<String, Set<Mistake>> condition(@PathVariable long id, @RequestBody BenchCondition wanted) {
        if (wanted.axis() == null || wanted.faults() == null) {
            throw new InvalidEntry("faults", "missing", "an axis and a list of faults", "send both");
        }
        return benches.of(id).condition(wanted.axis(), wanted.faults());
    }

    @Operation(summary = "The mistakes of wiring that are made on the bench, by axis")
    @GetMapping("/condition")
    Map<String, Set<Mistake>> condition(@PathVariable long id) {
        return benches.of(id).condition();
    }

    @Operation(summary = "Writes the parameters of the saved machine into the devices of the bench")
    @PostMapping("/devices/write")
    LiveBench.State write(@PathVariable long id, @RequestHeader(name = KEY, required = false) String key) {
        return benches.of(id).writeDevices(key);
    }

    @Operation(summary = "The device of an axis keeps its working memory when it is switched off")
    @PostMapping("/devices/{axis}/keep")
    LiveBench.State keep(@PathVariable long id, @PathVariable String axis, @RequestHeader(name = KEY, required = false) String key) {
        return benches.of(id).keep(key, axis);
    }

    @Operation(summary = "Switches the device of an axis off and on; what it had not kept is lost")
    @PostMapping("/devices/{axis}/restart")
    LiveBench.State restart(@PathVariable long id, @PathVariable String axis, @RequestHeader(name = KEY, required = false) String key) {
        return benches.of(id).restart(key, axis);
    }

    /** @param factor machine time per wall time, 0.1 to 20 */
    record Speed(double factor) {
    }

    @Operation(summary = "What travels to and from an axis now, decoded; the live stream tells it of the axis that a page looks at")
    @GetMapping("/axes/{axis}/process-data")
    LiveBench.ProcessData processData(@PathVariable long id, @PathVariable String axis) {
        return benches.of(id).processData(axis);
    }

    @Operation(summary = "Which values of the live stream stand in which lines of the program that runs")
    @GetMapping("/line-values")
    List<CompiledProgram.LineValues> lineValues(@PathVariable long id) {
        return benches.of(id).lineValues();
    }

    @Operation(summary = "Frames of the last bus cycles as pcapng, for any protocol analyser")
    @GetMapping(path = "/traffic", produces = "application/vnd.tcpdump.pcap")
    ResponseEntity<byte[]> traffic(@PathVariable long id) {
        return ResponseEntity.ok().header(HttpHeaders.CONTENT_DISPOSITION, Downloads.named("bus-traffic.pcapng")).body(benches.of(id).traffic());
    }

    @Operation(summary = "Speed of the clock")
    @PostMapping("/speed")
    LiveBench.State speed(@PathVariable long id, @RequestBody Speed speed, @RequestHeader(name = KEY, required = false) String key) {
        if (!(speed.factor() >= 0.1 && speed.factor() <= 20)) {
            throw new InvalidEntry("factor", Double.toString(speed.factor()), "0.1 to 20", "choose 1 for real time");
        }
        return benches.of(id).speed(key, speed.factor());
    }
}
