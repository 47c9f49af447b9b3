package rueda.app.calc;

import io.swagger.v3.oas.annotations.Operation;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import rueda.app.calc.CalcController.AxisQuestion;
import rueda.app.machine.Checked;
import rueda.drive.StationLayout;
import rueda.edit.ProcessDataEdit;
import rueda.machine.Axis;
import rueda.machine.Machine;
import rueda.machine.Station;

/** The process data of a station as they lie on the bus, and changes of many entries at once. */
@RestController
@RequestMapping("/api/calc/layout")
class LayoutController {

    private final Drafts drafts;

    LayoutController(Drafts drafts) {
        this.drafts = drafts;
    }

    private Machine checked(Machine carried, String base, int axis) {
        Machine machine = drafts.asked(carried, base);
        Checked.axis(machine, axis);
        return machine;
    }

    /** @param unbound entries that the drive knows and that have no tag */
    record LayoutAnswer(StationLayout layout, int unbound) {
    }

    @Operation(summary = "Where each entry lies, what it is called and what it means")
    @PostMapping
    LayoutAnswer layout(@RequestBody AxisQuestion q) {
        Machine machine = checked(q.machine(), q.base(), q.axis());
        return new LayoutAnswer(StationLayout.of(machine.bus(), machine.axes().get(q.axis())), ProcessDataEdit.unbound(machine, q.axis()));
    }

    @Operation(summary = "The station with a tag for every entry that has none, named after the axis and the entry")
    @PostMapping("/tags")
    Station tags(@RequestBody AxisQuestion q) {
        return ProcessDataEdit.withTags(checked(q.machine(), q.base(), q.axis()), q.axis());
    }

    /** @param number of a standard telegram */
    record TelegramQuestion(Machine machine, String base, int axis, int number) {
    }

    @Operation(summary = "The station with another standard telegram; tags of signals that both have stay")
    @PostMapping("/telegram")
    Station telegram(@RequestBody TelegramQuestion q) {
        Axis axis = checked(q.machine(), q.base(), q.axis()).axes().get(q.axis());
        return ProcessDataEdit.withTelegram(axis.station(), q.number());
    }
}
