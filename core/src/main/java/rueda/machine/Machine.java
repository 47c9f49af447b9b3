package rueda.machine;

import io.soabase.recordbuilder.core.RecordBuilder;
import java.util.List;
import java.util.Optional;

/**
 * One machine: the axes on a bus, the PLC that commands them and the proofs of its motion.
 *
 * @param name           name shown to the user, not empty
 * @param bus            the fieldbus
 * @param plc            the controller and its program
 * @param axes           the axes in the order of the rail, up to 128; a machine begins without any
 * @param proofs         what must be true when the program runs, up to 64 of different names
 * @param safetyRequests who can ask the guards of the axes
 */
@RecordBuilder
public record Machine(String name, Bus bus, Plc plc, List<Axis> axes, List<Proof> proofs, List<SafetyRequest> safetyRequests) implements MachineBuilder.With {

    public Machine {
        axes = axes == null ? List.of() : List.copyOf(axes);
        proofs = proofs == null ? List.of() : List.copyOf(proofs);
        safetyRequests = safetyRequests == null ? List.of() : List.copyOf(safetyRequests);
    }

    /** Nobody asks its guards. */
    public Machine(String name, Bus bus, Plc plc, List<Axis> axes, List<Proof> proofs) {
        this(name, bus, plc, axes, proofs, List.of());
    }

    /** What a proof is repeated with that stops at any moment: a person presses stop, the power goes, and each request that an axis answers asks its guards. */
    public List<ScriptStep> stopsAtAnyMoment() {
        List<ScriptStep> all = new java.util.ArrayList<>(List.of(ScriptStep.stop(), ScriptStep.powerLoss()));
        safetyRequests.stream().filter(request -> axes.stream().anyMatch(axis -> axis.guard().fitted() && axis.guard().asks().stream().anyMatch(ask -> ask.request().equals(request.name()))))
                .forEach(request -> all.add(ScriptStep.ask(request.name())));
        return List.copyOf(all);
    }

    /** The proof of this name. */
    public Optional<Proof> proof(String proofName) {
        return proofs.stream().filter(proof -> proof.name().equalsIgnoreCase(proofName)).findFirst();
    }

    public Optional<Axis> axis(String axisName) {
        return axes.stream().filter(axis -> axis.name().equalsIgnoreCase(axisName)).findFirst();
    }

    /** The virtual master of this name. */
    public Optional<VirtualMaster> virtualMaster(String masterName) {
        return plc.virtualMasters().stream().filter(master -> master.name().equalsIgnoreCase(masterName)).findFirst();
    }

    /** What an axis can follow by this name: another axis, or a virtual master as the PLC has it. */
    public Optional<Axis> master(String masterName) {
        return axis(masterName).or(() -> virtualMaster(masterName).map(VirtualMaster::asAxis));
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
