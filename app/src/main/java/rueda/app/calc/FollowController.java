package rueda.app.calc;

import java.util.stream.Stream;
import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.media.Content;
import io.swagger.v3.oas.annotations.media.Schema;
import io.swagger.v3.oas.annotations.responses.ApiResponse;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.servlet.mvc.method.annotation.ResponseBodyEmitter;
import rueda.app.work.Calculations;
import rueda.app.machine.Checked;
import rueda.edit.FollowEdit;
import rueda.edit.VirtualMasterEdit;
import rueda.machine.Axis;
import rueda.machine.Following;
import rueda.machine.Following.Source;
import rueda.machine.Machine;
import rueda.machine.VirtualMaster;
import rueda.quantity.InvalidEntry;
import rueda.trial.FollowTrial;

/** An axis that follows a master: tried out on a bench of its own. Nothing is stored. */
@RestController
@RequestMapping("/api/calc/follow")
class FollowController {

    /** units/s: the shaft under an encoder has no limits of its own */
    private static final double FASTEST_SHAFT = 1e6;

    private final Drafts drafts;
    private final Calculations calculations;

    FollowController(Drafts drafts, Calculations calculations) {
        this.drafts = drafts;
        this.calculations = calculations;
    }

    /**
     * @param masterSpeed units/s of the master, its sign the direction; left out for its default speed
     * @param running     the follower is tied when the master is at speed, else while it stands
     */
    record FollowQuestion(Machine machine, String base, int axis, Double masterSpeed, boolean running) {
    }

    /** @param source what the master is  @param master name of the master, left out for the first other axis */
    record MasterQuestion(Machine machine, String base, int axis, Source source, String master) {
    }

    @Operation(summary = "What an axis follows from now on, with what was never entered filled in")
    @PostMapping("/edit")
    Following edit(@RequestBody MasterQuestion q) {
        Machine machine = drafts.asked(q.machine(), q.base());
        Axis axis = Checked.axis(machine, q.axis(), drafts.sound(q.base()));
        if (q.source() == null) {
            throw new InvalidEntry("source", "missing", "NONE, SETPOINT or ACTUAL", "say what is followed");
        }
        String first = Stream.concat(machine.axes().stream().map(Axis::name).filter(name -> !name.equals(axis.name())), machine.plc().virtualMasters().stream().map(VirtualMaster::name)).findFirst().orElse("");
        return FollowEdit.of(machine, q.axis(), q.source(), q.master() == null || q.master().isEmpty() ? first : q.master());
    }

    /** What is done with the list of virtual masters. */
    enum MasterChange { ADD, RENAME, REMOVE }

    /** @param master name of the one that it is about, left out for ADD  @param name its name from now on, for RENAME */
    record VirtualMasterQuestion(Machine machine, String base, MasterChange change, String master, String name) {
    }

    @Operation(summary = "The document with a virtual master more, less, or under another name, and all that follows from it")
    @PostMapping("/masters")
    Machine masters(@RequestBody VirtualMasterQuestion q) {
        Machine machine = Checked.given(drafts.asked(q.machine(), q.base()));
        if (q.change() == null) {
            throw new InvalidEntry("change", "missing", "ADD, RENAME or REMOVE", "say what is to be done");
        }
        if (q.change() != MasterChange.ADD && q.master() == null || q.change() == MasterChange.RENAME && q.name() == null) {
            throw new InvalidEntry(q.master() == null ? "master" : "name", "missing", "the name of a virtual master", "send it");
        }
        return switch (q.change()) {
            case ADD -> new VirtualMasterEdit.Add().on(machine);
            case RENAME -> new VirtualMasterEdit.Rename(q.master(), q.name()).on(machine);
            case REMOVE -> new VirtualMasterEdit.Remove(q.master()).on(machine);
        };
    }

    @Operation(summary = "Ties an axis to its running master on a bench of their own, trims it and lets it go")
    @ApiResponse(responseCode = "200", content = @Content(mediaType = "application/json", schema = @Schema(implementation = FollowTrial.Followed.class)))
    @PostMapping("/trial")
    ResponseEntity<ResponseBodyEmitter> trial(@RequestBody FollowQuestion q) {
        Machine machine = drafts.asked(q.machine(), q.base());
        Axis axis = Checked.axis(machine, q.axis(), drafts.sound(q.base()));
        if (!axis.following().follows()) {
            throw new InvalidEntry("axis", axis.name(), "an axis that follows another one", "choose its master first");
        }
        boolean encoder = axis.following().source() == Source.ENCODER;
        Axis master = encoder ? null : machine.master(axis.following().master()).orElseThrow();
        double most = encoder ? FASTEST_SHAFT : master.limits().max().speed();
        double usual = encoder ? axis.following().encoder().speed() : master.limits().normal().speed();
        double speed = q.masterSpeed() == null ? usual : q.masterSpeed();
        if (!(Math.abs(speed) <= most) || speed == 0) {
            String unit = (encoder ? axis.following().encoder().unit() : master.unit().symbol()) + "/s";
            throw new InvalidEntry("masterSpeed", speed + " " + unit, "−" + most + " to " + most + " " + unit + ", not 0", "enter a speed of the master");
        }
        return calculations.answer(() -> FollowTrial.run(machine, q.axis(), speed, q.running()));
    }
}
