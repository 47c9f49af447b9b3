package rueda.bench;

import java.util.List;
import rueda.machine.Machine;

/** The signals that a recording of a machine's run has. */
public final class MachineSignals {

    private MachineSignals() {
    }

    /** Those of the axes alone where its program has faults. */
    public static List<Signal> of(Machine machine) {
        try {
            return new Bench(machine, 1).recording().signals();
        } catch (IllegalArgumentException faults) {
            return machine.axes().stream().flatMap(axis -> AxisSignal.all(axis).stream()).toList();
        }
    }
}
