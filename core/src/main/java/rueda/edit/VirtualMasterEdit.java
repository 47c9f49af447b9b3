package rueda.edit;

import java.util.ArrayList;
import java.util.List;
import rueda.machine.Axis;
import rueda.machine.Following;
import rueda.machine.Machine;
import rueda.machine.VirtualMaster;
import rueda.plc.ProgramTexts;
import rueda.quantity.InvalidEntry;

/** A change of the list of virtual masters, with everything that follows from it. */
public sealed interface VirtualMasterEdit {

    /** @return the document after the change  @throws InvalidEntry naming what is refused */
    Machine on(Machine machine);

    /** Another one at the end, under the first free name of Line1, Line2 … */
    record Add() implements VirtualMasterEdit {
        @Override
        public Machine on(Machine machine) {
            List<VirtualMaster> masters = new ArrayList<>(machine.plc().virtualMasters());
            int number = 1;
            while (machine.master("Line" + number).isPresent() || !ProgramTexts.uses(machine.plc(), "Line" + number).isEmpty()) {
                number++;
            }
            masters.add(VirtualMaster.named("Line" + number));
            return machine.withPlc(machine.plc().withVirtualMasters(masters));
        }
    }

    /** Its followers and the program follow. @param master its present name  @param name its name from now on */
    record Rename(String master, String name) implements VirtualMasterEdit {
        @Override
        public Machine on(Machine machine) {
            VirtualMaster old = found(machine, master);
            String to = AxisEdit.named(name);
            boolean taken = !to.equalsIgnoreCase(old.name()) && (machine.master(to).isPresent() || !ProgramTexts.uses(machine.plc(), to).isEmpty());
            if (taken) {
                throw new InvalidEntry("name", to, "a name that no axis, no virtual master and nothing in the program has", "choose another");
            }
            List<VirtualMaster> masters = machine.plc().virtualMasters().stream().map(m -> m == old ? m.withName(to) : m).toList();
            List<Axis> axes = machine.axes().stream().map(a -> old.name().equalsIgnoreCase(a.following().master()) ? a.withFollowing(a.following().withMaster(to)) : a).toList();
            return machine.withAxes(axes).withPlc(ProgramTexts.renamed(machine.plc().withVirtualMasters(masters), old.name(), to));
        }
    }

    /** Who follows it follows nothing. The program stays as it is. @param master its name */
    record Remove(String master) implements VirtualMasterEdit {
        @Override
        public Machine on(Machine machine) {
            VirtualMaster old = found(machine, master);
            List<Axis> axes = machine.axes().stream().map(a -> old.name().equalsIgnoreCase(a.following().master()) ? a.withFollowing(a.following().withSource(Following.Source.NONE).withMaster("")) : a).toList();
            return machine.withAxes(axes).withPlc(machine.plc().withVirtualMasters(machine.plc().virtualMasters().stream().filter(m -> m != old).toList()));
        }
    }

    private static VirtualMaster found(Machine machine, String name) {
        return machine.virtualMaster(String.valueOf(name)).orElseThrow(() -> new InvalidEntry("master", String.valueOf(name), "the name of a virtual master of this machine", "choose one of them"));
    }
}
