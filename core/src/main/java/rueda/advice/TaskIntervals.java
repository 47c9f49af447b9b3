package rueda.advice;

import java.util.ArrayList;
import java.util.List;
import rueda.machine.Plc;

/** What becomes of the intervals of tasks where the bus cycle changes: whole bus cycles. */
final class TaskIntervals {

    private TaskIntervals() {
    }

    /** @param cycle the new bus cycle, µs  @return changes of the document, none for those that fit */
    static List<Finding.Change> fitting(Plc plc, int cycle) {
        List<Plc.Task> after = plc.withCycle(cycle).tasks();
        List<Finding.Change> changes = new ArrayList<>();
        for (int i = 0; i < after.size(); i++) {
            if (after.get(i).intervalMicros() != plc.tasks().get(i).intervalMicros()) {
                changes.add(new Finding.Change("replace", "/plc/tasks/" + i + "/intervalMicros", after.get(i).intervalMicros()));
            }
        }
        return changes;
    }
}
