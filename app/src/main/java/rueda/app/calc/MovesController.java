package rueda.app.calc;

import io.swagger.v3.oas.annotations.Operation;
import java.util.List;
import java.util.stream.IntStream;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import rueda.advice.ListPlan;
import rueda.advice.MoveAdvice;
import rueda.advice.MoveSentence;
import rueda.app.machine.Checked;
import rueda.edit.MoveListEdit;
import rueda.machine.Axis;
import rueda.machine.Machine;
import rueda.machine.MoveEntry;
import rueda.machine.MoveList;
import rueda.quantity.InvalidEntry;

/** The move list of an axis: how it will run, and changes of more than one place. Nothing is stored. */
@RestController
@RequestMapping("/api/calc/moves")
class MovesController {

    private final Drafts drafts;

    MovesController(Drafts drafts) {
        this.drafts = drafts;
    }

    /**
     * @param from entry with which it begins
     * @param at   where the axis stands then, units; left out for a place in the middle of the travel
     * @param drag what is being moved, to see how the list would run then; left out for the list as it is
     */
    record PlanQuestion(Machine machine, String base, int axis, int from, Double at, Drag drag) {
    }

    /** The end of an entry is moved. @param entry its number  @param by by how much, units  @param step how finely it is meant, units */
    record Drag(int entry, double by, double step) {
    }

    /**
     * @param sentences each entry in words; while one is dragged that one alone, because the others are as they were
     * @param movable   its end can be moved; empty while one is dragged
     * @param plan      null while the list is empty
     * @param ending    why and where the plan ends, in words; empty without one
     * @param dragged   the entry as it would be, null when none is moved
     */
    record MovesAnswer(List<String> sentences, List<Boolean> movable, ListPlan plan, String ending, MoveEntry dragged) {
    }

    @Operation(summary = "How a move list runs from an entry on: what moves when and where to, and how long a round takes")
    @PostMapping("/plan")
    MovesAnswer planMoves(@RequestBody PlanQuestion q) {
        Machine machine = drafts.asked(q.machine(), q.base());
        MoveEntry dragged = q.drag() == null ? null : dragged(machine, q.axis(), q.drag());
        Axis axis = Checked.axis(dragged == null ? machine : with(machine, q.axis(), q.drag().entry(), dragged), q.axis(), drafts.sound(q.base()));
        int entries = axis.moves().entries().size();
        if (entries == 0) {
            return new MovesAnswer(List.of(), List.of(), null, "", null);
        }
        if (q.from() < 0 || q.from() >= entries) {
            throw new InvalidEntry("from", Integer.toString(q.from()), "0 to " + (entries - 1), "choose an entry of the list");
        }
        double at = q.at() == null ? MoveAdvice.standsAt(axis) : q.at();
        if (!(Math.abs(at) <= 1e9)) {
            throw new InvalidEntry("at", Double.toString(at), "−1e9 to 1e9", "enter a position");
        }
        ListPlan plan = ListPlan.of(axis, q.from(), at, machine.bus().cycleMicros());
        String ending = "Entry " + plan.endsAt() + ": " + plan.end().words() + ".";
        return dragged != null ? new MovesAnswer(List.of(MoveSentence.of(axis, q.drag().entry())), List.of(), plan, ending, dragged)
                : new MovesAnswer(IntStream.range(0, entries).mapToObj(i -> MoveSentence.of(axis, i)).toList(), axis.moves().entries().stream().map(MoveListEdit::hasEnd).toList(), plan, ending, null);
    }

    /** Before the machine is checked, which is done once, with the entry in its place. */
    private static MoveEntry dragged(Machine machine, int axis, Drag drag) {
        boolean there = machine != null && axis >= 0 && axis < machine.axes().size();
        return MoveListEdit.withEndMoved(there ? machine.axes().get(axis) : Checked.axis(machine, axis), drag.entry(), drag.by(), drag.step());
    }

    private static Machine with(Machine machine, int axis, int entry, MoveEntry dragged) {
        Axis before = machine.axes().get(axis);
        return machine.withAxis(axis, before.withMoves(MoveListEdit.replaced(before.moves(), entry, dragged)));
    }

    /** What can be done with a move list; see {@link MoveListEdit}. */
    enum MovesEdit { ADD, COPY, REMOVE, MOVE, ADD_STARTER, ADD_EXCEPTION, ADD_ZONE }

    /**
     * @param entry number of the entry; with ADD the number that the new one gets
     * @param kind  what a new entry does, with ADD
     * @param to    its number from now on, with MOVE
     */
    record MovesEditQuestion(Machine machine, String base, int axis, MovesEdit edit, Integer entry, MoveEntry.Kind kind, Integer to) {
    }

    @Operation(summary = "The move list after a change: whatever names an entry goes on naming the same one")
    @PostMapping("/edit")
    MoveList editMoves(@RequestBody MovesEditQuestion q) {
        Axis axis = Checked.axis(drafts.asked(q.machine(), q.base()), q.axis());
        if (q.edit() == null) {
            throw new InvalidEntry("edit", "missing", "ADD, COPY, REMOVE, MOVE, ADD_STARTER, ADD_EXCEPTION or ADD_ZONE", "say what to do");
        }
        return switch (q.edit()) {
            case ADD -> {
                if (q.kind() == null) {
                    throw new InvalidEntry("kind", "missing", "what the entry does", "choose one");
                }
                yield MoveListEdit.added(axis.moves(), number("entry", q.entry()), q.kind());
            }
            case COPY -> MoveListEdit.copied(axis.moves(), number("entry", q.entry()));
            case REMOVE -> MoveListEdit.removed(axis.moves(), number("entry", q.entry()));
            case MOVE -> MoveListEdit.moved(axis.moves(), number("entry", q.entry()), number("to", q.to()));
            case ADD_STARTER -> MoveListEdit.withStarter(axis);
            case ADD_EXCEPTION -> MoveListEdit.withException(axis);
            case ADD_ZONE -> MoveListEdit.withZone(axis);
        };
    }

    private static int number(String field, Integer value) {
        if (value == null) {
            throw new InvalidEntry(field, "missing", "number of an entry", "send it");
        }
        return value;
    }
}
