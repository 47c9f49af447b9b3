package rueda.machine;

import io.soabase.recordbuilder.core.RecordBuilder;
import java.util.List;
import java.util.Optional;

/**
 * One machine: the axes on a bus, the PLC that commands them and the proofs of its motion.
 *
 * @param name   name shown to the user, not empty
 * @param bus    the fieldbus
 * @param plc    the controller and its program
 * @param axes   the axes in the order of the rail, up to 128; a machine begins without any
 * @param proof  what must be true when the program runs
 */
@RecordBuilder
public record Machine(String name, Bus bus, Plc plc, List<Axis> axes, Proof proof) implements MachineBuilder.With {

    public Machine {
        axes = axes == null ? List.of() : List.copyOf(axes);
    }

    public Optional<Axis> axis(String axisName) {
        return axes.stream().filter(axis -> axis.name().equalsIgnoreCase(axisName)).findFirst();
    }

    public Machine withProgram(String source) {
        return withPlc(plc.withProgram(source));
    }

    public Machine withAxis(int index, Axis axis) {
        List<Axis> changed = new java.util.ArrayList<>(axes);
        changed.set(index, axis);
        return withAxes(changed);
    }
}
