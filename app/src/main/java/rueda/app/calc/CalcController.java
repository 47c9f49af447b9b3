package rueda.app.calc;

import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.media.ArraySchema;
import io.swagger.v3.oas.annotations.media.Content;
import io.swagger.v3.oas.annotations.media.Schema;
import io.swagger.v3.oas.annotations.responses.ApiResponse;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.servlet.mvc.method.annotation.ResponseBodyEmitter;
import org.springframework.web.servlet.mvc.method.annotation.StreamingResponseBody;
import rueda.advice.Advice;
import rueda.advice.DocumentAdvice;
import rueda.advice.Finding.Change;
import rueda.advice.Figure;
import rueda.advice.MachineOverview;
import rueda.advice.ScaleAdvice;
import rueda.advice.ValuePath;
import rueda.advice.program.ProgramFinding;
import rueda.app.machine.Checked;
import rueda.app.devices.DeviceLibrary;
import rueda.app.machine.MachineJson;
import rueda.app.work.Calculations;
import rueda.trial.HandTurn;
import rueda.trial.HomeAdvice;
import rueda.trial.HomingTrial;
import rueda.trial.Identification;
import rueda.trial.MoveTrial;
import rueda.trial.MovementTrial;
import rueda.trial.Proposal;
import rueda.trial.WiringTrial;
import rueda.drive.HomingMethod;
import rueda.drive.HomingSentence;
import rueda.machine.Axis;
import rueda.machine.EntryFault;
import rueda.machine.Machine;
import rueda.machine.Mistake;
import rueda.plc.Diagnostic;
import rueda.plc.syntax.Outline;
import rueda.profile.MotionLimits;
import rueda.profile.MotionProfile;
import rueda.quantity.InvalidEntry;
import rueda.quantity.TypedEntry;

/** Calculators without state: POST a question, get the consequences. */
@RestController
@RequestMapping("/api/calc")
class CalcController {

    private static final ProgramAnswer NOTHING = new ProgramAnswer(List.of(), List.of(), List.of(), List.of());

    private final DeviceLibrary library;
    private final Calculations calculations;
    private final Drafts drafts;
    private final HomingSearches searches;

    CalcController(DeviceLibrary library, Calculations calculations, Drafts drafts, HomingSearches searches) {
        this.searches = searches;
        this.library = library;
        this.drafts = drafts;
        this.calculations = calculations;
    }

    /** A motion in any coherent units; maxJerk 0 or absent: trapezoid. */
    record ProfileQuestion(double distance, Double startVelocity, Double endVelocity, double maxVelocity, double maxAcceleration,
                           Double maxDeceleration, Double maxJerk) {
    }

    record ProfileAnswer(double duration, double peakVelocity, List<MotionProfile.Segment> segments) {
    }

    @Operation(summary = "Plans the fastest motion within the limits")
    @PostMapping("/profile")
    ProfileAnswer profile(@RequestBody ProfileQuestion q) {
        requireFinite("distance", q.distance());
        double start = q.startVelocity() == null ? 0 : requireFinite("startVelocity", q.startVelocity());
        double end = q.endVelocity() == null ? 0 : requireFinite("endVelocity", q.endVelocity());
        MotionLimits limits = new MotionLimits(q.maxVelocity(), q.maxAcceleration(),
                q.maxDeceleration() == null ? q.maxAcceleration() : q.maxDeceleration(), q.maxJerk() == null ? 0 : q.maxJerk());
        if (Math.abs(end) > limits.maxVelocity()) {
            throw new InvalidEntry("endVelocity", Double.toString(end), "−maxVelocity to maxVelocity", "lower it");
        }
        MotionProfile profile = new MotionProfile();
        profile.plan(0, start, q.distance(), end, limits);
        List<MotionProfile.Segment> segments = new ArrayList<>();
        for (int i = 0; i < profile.segmentCount(); i++) {
            segments.add(profile.segment(i));
        }
        return new ProfileAnswer(profile.duration(), profile.peakVelocity(), segments);
    }

    private static double requireFinite(String field, double value) {
        if (!Double.isFinite(value)) {
            throw new InvalidEntry(field, Double.toString(value), "a number", "enter a number");
        }
        return value;
    }

    /** @param machine the document, saved or not; left out where its key is given  @param base key of a document that an answer has named  @param axis number of the axis */
    record AxisQuestion(Machine machine, String base, int axis) {
    }

    private AxisQuestion known(AxisQuestion q) {
        return new AxisQuestion(drafts.asked(q.machine(), q.base()), q.base(), q.axis());
    }

    @Operation(summary = "Counts per unit, position factors, limits and findings of an axis")
    @PostMapping("/scale")
    Advice scale(@RequestBody AxisQuestion asked) {
        AxisQuestion q = known(asked);
        return ScaleAdvice.of(Checked.axis(q.machine(), q.axis(), drafts.sound(q.base())), q.machine().bus(), "/axes/" + q.axis());
    }

    /**
     * @param advice     figures and findings
     * @param here       search from the parked place
     * @param worst      the slowest search
     * @param sentences  the methods this axis can have, in words
     * @param edge       edge of the switch that counts, units from the negative hard stop, or null
     * @param indexEvery way between index pulses, units; 0 when the method uses none
     */
    record HomingAnswer(Advice advice, HomingTrial.Result here, HomingTrial.Result worst, List<HomingSentence> sentences, Double edge, double indexEvery) {
        static HomingAnswer of(Machine machine, int number) {
            Axis axis = machine.axes().get(number);
            HomingTrial.Result here = HomingTrial.run(machine, number, axis.travel().parkedAt());
            HomingTrial.Result worst = HomingTrial.worst(machine, number, here);
            return new HomingAnswer(HomeAdvice.of(axis, here, worst, "/axes/" + number), here, worst,
                    HomingSentence.of(axis), Double.isNaN(HomeAdvice.edge(axis)) ? null : HomeAdvice.edge(axis),
                    HomingMethod.of(axis.homing().method()).usesIndex() ? axis.scale().unitsPerMotorTurn().toDouble() : 0);
        }
    }

    @Operation(summary = "Carries homing out on a bench of its own and says what it gives")
    @ApiResponse(responseCode = "200", content = @Content(mediaType = "application/json", schema = @Schema(implementation = HomingAnswer.class)))
    @PostMapping("/homing")
    ResponseEntity<ResponseBodyEmitter> homing(@RequestBody AxisQuestion asked) {
        AxisQuestion q = known(asked);
        Checked.axis(q.machine(), q.axis(), drafts.sound(q.base()));
        return calculations.answer(() -> searches.of(q.machine(), q.axis()));
    }

    /**
     * @param result   what was found
     * @param proposed what follows for gains and limits where it differs from what is there, to be reviewed
     */
    record IdentificationAnswer(Identification.Identified result, List<Proposal> proposed) {
    }

    @Operation(summary = "Moves an axis on a bench of its own and finds inertia, friction and weight; proposes gains")
    @ApiResponse(responseCode = "200", content = @Content(mediaType = "application/json", schema = @Schema(implementation = IdentificationAnswer.class)))
    @PostMapping("/identification")
    ResponseEntity<ResponseBodyEmitter> identification(@RequestBody TrialQuestion q) {
        Axis axis = Checked.axis(q.machine(), q.axis());
        return calculations.answer(() -> identified(axis, q.axis(), Identification.run(q.machine(), q.axis(), q.faults())));
    }

    private static IdentificationAnswer identified(Axis axis, int number, Identification.Identified found) {
        return new IdentificationAnswer(found, found.proposals(axis, "/axes/" + number));
    }

    /** One line of the answer. @param move number of the move that begins  @param of how many there are  @param answer in the last line */
    record IdentificationProgress(int move, int of, IdentificationAnswer answer) {
    }

    @Operation(summary = "The same, told move by move: a line of JSON each, the answer in the last. Closing the connection stops the axis and ends it")
    @ApiResponse(responseCode = "200", content = @Content(mediaType = "application/x-ndjson", schema = @Schema(implementation = IdentificationProgress.class)))
    @PostMapping(path = "/identification/progress", produces = "application/x-ndjson")
    StreamingResponseBody identificationProgress(@RequestBody TrialQuestion q) {
        Axis axis = Checked.axis(q.machine(), q.axis());
        return out -> {
            Identification.Identified found = Identification.run(q.machine(), q.axis(), q.faults(), (move, of) -> told(out, new IdentificationProgress(move, of, null)));
            told(out, new IdentificationProgress(0, 0, identified(axis, q.axis(), found)));
        };
    }

    /** @return false when nobody listens any more */
    private static boolean told(OutputStream out, IdentificationProgress progress) {
        try {
            out.write((MachineJson.write(progress) + "\n").getBytes(StandardCharsets.UTF_8));
            out.flush();
            return true;
        } catch (IOException gone) {
            return false;
        }
    }

    /** @param agrees made and expected agree to a count, and to a count and a wire unit */
    record TurnAnswer(HandTurn.Turned turned, boolean agrees) {
    }

    @Operation(summary = "Turns the motor shaft once by hand, on a bench of its own with the drive off")
    @ApiResponse(responseCode = "200", content = @Content(mediaType = "application/json", schema = @Schema(implementation = TurnAnswer.class)))
    @PostMapping("/turn")
    ResponseEntity<ResponseBodyEmitter> turn(@RequestBody TrialQuestion q) {
        Axis axis = Checked.axis(q.machine(), q.axis());
        return calculations.answer(() -> turned(q, axis));
    }

    private static TurnAnswer turned(TrialQuestion q, Axis axis) {
        HandTurn.Turned turned = HandTurn.run(q.machine(), q.axis(), q.faults());
        return new TurnAnswer(turned, turned.agrees(axis.scale().unitsPerCount().toDouble() + 1.0 / axis.scale().wireUnitsPerUnit()));
    }

    @Operation(summary = "A small slow movement both ways with limited torque: is the axis free, does it count the way it moves?")
    @ApiResponse(responseCode = "200", content = @Content(mediaType = "application/json", schema = @Schema(implementation = MovementTrial.Moved.class)))
    @PostMapping("/movement")
    ResponseEntity<ResponseBodyEmitter> movement(@RequestBody TrialQuestion q) {
        Checked.axis(q.machine(), q.axis());
        return calculations.answer(() -> MovementTrial.run(q.machine(), q.axis(), q.faults()));
    }

    /** See {@link MoveTrial.Result}; settled is null when the load does not settle, inPosition when the drive does not report it. */
    record StepAnswer(List<Double> time, List<Double> commanded, List<Double> actual, List<Double> followingError, List<Double> torque, List<Double> predictedError,
                      List<Double> allowedError, double peakTorque, Double settled, Double inPosition, boolean cutShort) {
    }

    @Operation(summary = "A short move of an axis on a bench of its own, as it is commanded and as it is made")
    @ApiResponse(responseCode = "200", content = @Content(mediaType = "application/json", schema = @Schema(implementation = StepAnswer.class)))
    @PostMapping("/response")
    ResponseEntity<ResponseBodyEmitter> response(@RequestBody AxisQuestion asked) {
        AxisQuestion q = known(asked);
        Checked.axis(q.machine(), q.axis(), drafts.sound(q.base()));
        return calculations.answer(() -> answer(MoveTrial.run(q.machine(), q.axis())));
    }

    @Operation(summary = "A small step of the setpoint on a bench of its own, without feed-forward, as it is made and as theory says")
    @ApiResponse(responseCode = "200", content = @Content(mediaType = "application/json", schema = @Schema(implementation = StepAnswer.class)))
    @PostMapping("/step")
    ResponseEntity<ResponseBodyEmitter> step(@RequestBody AxisQuestion asked) {
        AxisQuestion q = known(asked);
        Checked.axis(q.machine(), q.axis(), drafts.sound(q.base()));
        return calculations.answer(() -> answer(MoveTrial.step(q.machine(), q.axis())));
    }

    private static StepAnswer answer(MoveTrial.Result r) {
        return new StepAnswer(r.time(), r.commanded(), r.actual(), r.followingError(), r.torque(), r.predictedError(), r.allowedError(), r.peakTorque(),
                Double.isNaN(r.settled()) ? null : r.settled(), Double.isNaN(r.inPosition()) ? null : r.inPosition(), r.cutShort());
    }

    /** An axis tried out on a bench of its own. @param faults what is wrong with the wiring there; none when left out */
    record TrialQuestion(Machine machine, int axis, Set<Mistake> faults) {
        TrialQuestion {
            faults = faults == null ? Set.of() : faults;
        }
    }

    @Operation(summary = "Trips every switch of an axis by hand and jogs it slowly, on a bench of its own")
    @ApiResponse(responseCode = "200", content = @Content(mediaType = "application/json", array = @ArraySchema(schema = @Schema(implementation = WiringTrial.Check.class))))
    @PostMapping("/wiring")
    ResponseEntity<ResponseBodyEmitter> wiring(@RequestBody TrialQuestion q) {
        Checked.axis(q.machine(), q.axis());
        return calculations.answer(() -> WiringTrial.run(q.machine(), q.axis(), q.faults(), "/axes/" + q.axis()));
    }

    enum BusDirection { OUTPUTS, INPUTS }

    /**
     * @param entry number of the entry in its direction
     * @param value in user units, percent, or as it travels
     * @param raw   bits as they stand on the wire; then the value is not asked for
     */
    record ValueQuestion(Machine machine, int axis, BusDirection direction, int entry, Double value, Long raw) {
    }

    @Operation(summary = "Follows one value of an entry from the program to the load, or back")
    @PostMapping("/value")
    List<Figure> value(@RequestBody ValueQuestion q) {
        Axis axis = Checked.axis(q.machine(), q.axis());
        boolean output = q.direction() != BusDirection.INPUTS;
        int entries = (output ? axis.station().outputs() : axis.station().inputs()).size();
        if (q.entry() < 0 || q.entry() >= entries) {
            throw new InvalidEntry("entry", Integer.toString(q.entry()), entries == 0 ? "there are none" : "0 to " + (entries - 1), "choose an entry of this direction");
        }
        if (q.raw() != null) {
            return ValuePath.live(q.machine(), axis, output, q.entry(), q.raw());
        }
        double value = requireFinite("value", q.value() == null ? Double.NaN : q.value());
        return output ? ValuePath.down(q.machine(), axis, q.entry(), value) : ValuePath.up(q.machine(), axis, q.entry(), value);
    }

    /** @param text what was typed: a number, a calculation, a number with a unit  @param unit unit of the field */
    record EntryQuestion(String text, String unit) {
    }

    record EntryAnswer(double value) {
    }

    @Operation(summary = "Reads what was typed into a field: 2.5 in, 3*120, (40+2)/2")
    @PostMapping("/entry")
    EntryAnswer entry(@RequestBody EntryQuestion q) {
        return new EntryAnswer(TypedEntry.value(q.text() == null ? "" : q.text(), q.unit() == null ? "" : q.unit()));
    }

    /** @param items what a file declares, also while it cannot be compiled */
    record FileOutline(String file, List<Outline.Item> items) {
    }

    /** @param events names of BOOL values  @param findings nothing while there are diagnostics */
    record ProgramAnswer(List<Diagnostic> diagnostics, List<ProgramFinding> findings, List<String> events, List<FileOutline> outline) {
    }

    @Operation(summary = "Checks the program of a document")
    @PostMapping("/program")
    ProgramAnswer program(@RequestBody Machine machine) {
        return Drafts.compiled(Checked.machine(machine));
    }

    /**
     * Everything the page shows beside a document: refused entries, or the advice of each axis and stage.
     *
     * @param base key of this document, for a question about what is changed in it
     */
    record MachineAnswer(String base, List<EntryFault> faults, List<DocumentAdvice.StageAdvice> stages, ProgramAnswer program) {
    }

    @Operation(summary = "What a document gives at every stage; homing has a call of its own")
    @PostMapping("/machine")
    MachineAnswer machine(@RequestBody Machine machine) {
        Drafts.Draft draft = drafts.begin(machine, library.descriptions());
        return new MachineAnswer(draft.key(), draft.faults(), draft.faults().isEmpty() ? draft.advice().all() : List.of(), draft.faults().isEmpty() ? draft.program() : NOTHING);
    }

    /** @param base key of a document that an answer has named  @param changes of it, RFC 6902: add, replace, remove */
    record ChangeQuestion(String base, List<Change> changes) {
    }

    /**
     * What is different after changes.
     *
     * @param base    key of the changed document
     * @param faults  refused entries; with them nothing else is said
     * @param stages  advice that is not what it was after the last document without refused entries
     * @param axes    how many axes there are; with another number all advice is told
     * @param program null when it is as it was
     */
    record ChangeAnswer(String base, List<EntryFault> faults, List<DocumentAdvice.StageAdvice> stages, int axes, ProgramAnswer program) {
    }

    @Operation(summary = "What changes of a document give: only what is different. 404 when the document is not kept any more: then ask with all of it")
    @PostMapping("/machine/changes")
    ChangeAnswer changes(@RequestBody ChangeQuestion q) {
        Drafts.Draft before = drafts.of(q.base());
        Drafts.Draft after = drafts.after(before, q.changes(), library.descriptions());
        if (!after.faults().isEmpty()) {
            return new ChangeAnswer(after.key(), after.faults(), List.of(), after.machine().axes().size(), null);
        }
        return new ChangeAnswer(after.key(), List.of(), after.advice().changedSince(before.advice()), after.machine().axes().size(), after.program().equals(before.program()) ? null : after.program());
    }

    @Operation(summary = "A machine at a glance: its axes, and what is not entered yet")
    @PostMapping("/overview")
    MachineOverview overview(@RequestBody Machine machine) {
        return MachineOverview.of(Checked.machine(machine));
    }
}
