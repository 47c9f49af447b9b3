package rueda.app.calc;

import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.media.Content;
import io.swagger.v3.oas.annotations.media.Schema;
import io.swagger.v3.oas.annotations.responses.ApiResponse;
import java.util.List;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.servlet.mvc.method.annotation.ResponseBodyEmitter;
import rueda.advice.GuardPlan;
import rueda.app.machine.Checked;
import rueda.app.work.Calculations;
import rueda.bench.Bench;
import rueda.edit.SafetyRequestEdit;
import rueda.machine.Axis;
import rueda.machine.AxisGuard;
import rueda.machine.Machine;
import rueda.machine.Proof;
import rueda.machine.SafetyFunction;
import rueda.machine.SafetyRequest;
import rueda.plc.StructuredTextCompiler;
import rueda.plc.StructuredTextCompiler.Text;
import rueda.proof.StoppingSearch;
import rueda.quantity.InvalidEntry;

/** Guards of axes: what their stops come to, and how far an axis goes on at the worst moment. Nothing is stored. */
@RestController
@RequestMapping("/api/calc/guard")
class GuardController {

    private final Drafts drafts;
    private final Calculations calculations;

    GuardController(Drafts drafts, Calculations calculations) {
        this.drafts = drafts;
        this.calculations = calculations;
    }

    /** @param axis index of the axis  @param function that stops  @param request name of who asks */
    record GuardQuestion(Machine machine, String base, int axis, SafetyFunction function, String request) {
    }

    /** @param proof name of the proof whose program runs, left out for the first one */
    record StoppingQuestion(Machine machine, String base, int axis, SafetyFunction function, String request, String proof) {
    }

    /** What is done with the list of requests. */
    enum RequestChange { ADD, RENAME, REMOVE }

    /** @param request name of the one that it is about, left out for ADD  @param name its name from now on, for RENAME */
    record RequestQuestion(Machine machine, String base, RequestChange change, String request, String name) {
    }

    @Operation(summary = "The document with a request more, less, or under another name, and all that follows from it")
    @PostMapping("/requests")
    Machine requests(@RequestBody RequestQuestion q) {
        Machine machine = Checked.given(drafts.asked(q.machine(), q.base()));
        if (q.change() == null) {
            throw new InvalidEntry("change", "missing", "ADD, RENAME or REMOVE", "say what is to be done");
        }
        if (q.change() != RequestChange.ADD && q.request() == null || q.change() == RequestChange.RENAME && q.name() == null) {
            throw new InvalidEntry(q.request() == null ? "request" : "name", "missing", "the name of a request", "send it");
        }
        return switch (q.change()) {
            case ADD -> new SafetyRequestEdit.Add().on(machine);
            case RENAME -> new SafetyRequestEdit.Rename(q.request(), q.name()).on(machine);
            case REMOVE -> new SafetyRequestEdit.Remove(q.request()).on(machine);
        };
    }

    @Operation(summary = "A guard that suits an axis, fitted, with nothing that asks it yet")
    @PostMapping("/usual")
    AxisGuard usual(@RequestBody CalcController.AxisQuestion q) {
        return AxisGuard.suiting(Checked.axis(drafts.asked(q.machine(), q.base()), q.axis(), drafts.sound(q.base()))).withFitted(true);
    }

    @Operation(summary = "When who knows of a stop, how fast the axis then is, and what its guard allows")
    @PostMapping("/plan")
    GuardPlan plan(@RequestBody GuardQuestion q) {
        Machine machine = drafts.asked(q.machine(), q.base());
        Axis axis = guarded(machine, q.axis(), q.base(), q.function());
        return GuardPlan.of(machine, axis, q.function(), machine.safetyRequests().get(number(machine, q.request())));
    }

    @Operation(summary = "Stops an axis at the worst moment of a program, on a bench of its own with the heaviest load")
    @ApiResponse(responseCode = "200", content = @Content(mediaType = "application/json", schema = @Schema(implementation = StoppingSearch.Stopped.class)))
    @PostMapping("/stop")
    ResponseEntity<ResponseBodyEmitter> stop(@RequestBody StoppingQuestion q) {
        Machine machine = drafts.asked(q.machine(), q.base());
        Axis axis = guarded(machine, q.axis(), q.base(), q.function());
        int request = number(machine, q.request());
        if (!axis.guard().fitted()) {
            throw new InvalidEntry("axis", axis.name(), "an axis that has a guard", "fit one first");
        }
        boolean asks = axis.guard().asks().stream().anyMatch(a -> a.request().equals(q.request()) && a.function() == q.function());
        if (!asks) {
            throw new InvalidEntry("request", q.request(), "one that asks " + axis.name() + " for " + q.function().words(), "let it ask for that first");
        }
        Proof proof = proof(machine, q.proof());
        if (!StructuredTextCompiler.compile(Text.of(machine.plc()), Bench.environment(machine)).runs()) {
            throw new InvalidEntry("machine", "a program that does not compile", "one that runs", "mend it in the stage Program first");
        }
        return calculations.answer(() -> StoppingSearch.run(machine, proof, q.axis(), request, q.function()));
    }

    private Axis guarded(Machine machine, int number, String base, SafetyFunction function) {
        Axis axis = Checked.axis(machine, number, drafts.sound(base));
        if (function == null || !function.endsMotion()) {
            throw new InvalidEntry("function", function == null ? "missing" : function.words(), "safe torque off, safe stop 1 or safe stop 2", "choose one");
        }
        return axis;
    }

    private static int number(Machine machine, String request) {
        List<SafetyRequest> requests = machine.safetyRequests();
        for (int i = 0; i < requests.size(); i++) {
            if (requests.get(i).name().equals(request)) {
                return i;
            }
        }
        throw new InvalidEntry("request", request == null ? "missing" : request, "the name of a request of this machine", "choose one of them");
    }

    private static Proof proof(Machine machine, String name) {
        if (machine.proofs().isEmpty()) {
            throw new InvalidEntry("proof", "none", "a proof, whose program and script run", "add a proof in the stage Prove first");
        }
        return name == null ? machine.proofs().get(0) : machine.proof(name).orElseThrow(() -> new InvalidEntry("proof", name, "the name of a proof of this machine", "choose one of them"));
    }
}
