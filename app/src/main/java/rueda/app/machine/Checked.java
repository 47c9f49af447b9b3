package rueda.app.machine;

import java.util.List;
import rueda.app.web.Refusals.RefusedEntries;
import rueda.machine.Axis;
import rueda.machine.EntryFault;
import rueda.machine.Machine;
import rueda.machine.MachineRules;
import rueda.quantity.InvalidEntry;

/** What a question is about, once it is known that nothing in it is refused. */
public final class Checked {

    private Checked() {
    }

    /** @throws InvalidEntry when there is none  @throws RefusedEntries when entries of it are refused */
    public static Machine machine(Machine machine) {
        return machine(machine, null);
    }

    /** A document that may have refused entries. @throws InvalidEntry when there is none */
    public static Machine given(Machine machine) {
        if (machine == null) {
            throw new InvalidEntry("machine", "missing", "a machine document", "send one");
        }
        return machine;
    }

    /** The same where parts of it are those of another one. @param sound a document in which nothing is refused, null for none */
    private static Machine machine(Machine machine, Machine sound) {
        List<EntryFault> faults = MachineRules.check(given(machine), sound);
        if (!faults.isEmpty()) {
            throw new RefusedEntries(faults);
        }
        return machine;
    }

    /** An axis of such a machine. @param index from 0  @throws InvalidEntry when there is no axis of this index */
    public static Axis axis(Machine machine, int index) {
        return axis(machine, index, null);
    }

    /** The same where parts of it are those of another one. @param sound a document in which nothing is refused, null for none */
    public static Axis axis(Machine machine, int index, Machine sound) {
        int axes = machine(machine, sound).axes().size();
        if (index < 0 || index >= axes) {
            throw axes == 0 ? new InvalidEntry("axis", Integer.toString(index), "nothing: the machine has no axis", "add an axis first")
                    : new InvalidEntry("axis", Integer.toString(index), "0 to " + (axes - 1), "choose an axis of the document");
        }
        return machine.axes().get(index);
    }
}
