package rueda.app.calc;

import io.swagger.v3.oas.annotations.Operation;
import java.util.Arrays;
import java.util.List;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import rueda.edit.AxisEdit;
import rueda.machine.Feed;
import rueda.machine.Machine;
import rueda.quantity.InvalidEntry;

/** Changes of the list of axes: the document comes, and goes back with everything that follows. Nothing is stored. */
@RestController
@RequestMapping("/api/calc/axes")
class AxisController {

    /** What can be done with an axis; see {@link AxisEdit}. */
    enum Edit { ADD, COPY, RENAME, MOVE, REMOVE }

    /**
     * @param axis name of the axis; not with ADD
     * @param name the new name, with ADD, COPY and RENAME
     * @param feed what moves the load of a new axis; left out: a screw
     * @param to   the index from now on, with MOVE
     */
    record AxisListQuestion(Machine machine, Edit edit, String axis, String name, Feed.Kind feed, Integer to) {
    }

    @Operation(summary = "Adds, copies, renames, moves or removes an axis, with everything that follows from it")
    @PostMapping
    AxisEdit.Outcome edit(@RequestBody AxisListQuestion q) {
        if (q.edit() == null || q.machine() == null) {
            throw new InvalidEntry("edit", "missing", "a machine and one of " + Arrays.toString(Edit.values()), "send both");
        }
        if (q.edit() == Edit.MOVE && q.to() == null) {
            throw new InvalidEntry("to", "missing", "an index", "send it");
        }
        AxisEdit edit = switch (q.edit()) {
            case ADD -> new AxisEdit.Add(q.name(), q.feed() == null ? Feed.Kind.SCREW : q.feed());
            case COPY -> new AxisEdit.Copy(q.axis(), q.name());
            case RENAME -> new AxisEdit.Rename(q.axis(), q.name());
            case MOVE -> new AxisEdit.Move(q.axis(), q.to());
            case REMOVE -> new AxisEdit.Remove(q.axis());
        };
        return edit.on(q.machine());
    }

    record DependentsQuestion(Machine machine, String axis) {
    }

    @Operation(summary = "What depends on an axis and goes or stays behind when it is removed, in words")
    @PostMapping("/dependents")
    List<String> dependents(@RequestBody DependentsQuestion q) {
        if (q.machine() == null) {
            throw new InvalidEntry("machine", "missing", "a machine", "send it");
        }
        return AxisEdit.dependents(q.machine(), q.axis());
    }
}
