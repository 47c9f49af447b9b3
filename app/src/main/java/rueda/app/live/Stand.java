package rueda.app.live;

import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import rueda.app.web.Refusals.NotFound;
import rueda.bench.NetworkScan;
import rueda.bench.NetworkScan.Found;
import rueda.bench.StandChange;
import rueda.machine.Axis;
import rueda.machine.Control;
import rueda.machine.Machine;

/** The devices on the bench of a machine as they really are, where that is not what is planned. Guarded by its own lock. */
class Stand {

    /** devices that are not as planned; empty for one that is missing */
    private final Map<String, Optional<Found>> other = new HashMap<>();
    private final Set<String> holdData = new HashSet<>();
    private final Map<String, Set<StandChange>> changes = new HashMap<>();

    synchronized Map<String, Set<StandChange>> changes() {
        return Map.copyOf(changes);
    }

    /** Makes the device of an axis differ from the plan; with no change it is the planned one again. */
    synchronized void change(Machine machine, String axisName, Set<StandChange> wanted) {
        Axis axis = machine.axis(axisName).orElseThrow(() -> new NotFound("axis " + axisName));
        forget(axis.name());
        if (!wanted.isEmpty()) {
            changes.put(axis.name(), Set.copyOf(wanted));
            Optional<Found> found = NetworkScan.changed(machine, axis, wanted);
            if (!found.equals(Optional.of(planned(axis)))) {
                other.put(axis.name(), found);
            }
        }
        if (wanted.contains(StandChange.HOLDS_DATA)) {
            holdData.add(axis.name());
        }
    }

    /** The device gets the planned address. */
    synchronized void readdress(Machine machine, String axisName) {
        Axis axis = machine.axis(axisName).orElseThrow(() -> new NotFound("axis " + axisName));
        other.computeIfPresent(axis.name(), (name, found) -> found.map(f -> new Found(name, f.identity(), axis.station().address())));
        tidy(machine, axis);
    }

    /** The planned device is put in its place. */
    synchronized void exchange(String axisName) {
        forget(axisName);
    }

    /** What it held has been kept. */
    synchronized void kept(String axisName) {
        holdData.remove(axisName);
    }

    private void forget(String axisName) {
        other.remove(axisName);
        holdData.remove(axisName);
        changes.remove(axisName);
    }

    private void tidy(Machine machine, Axis axis) {
        Optional<Found> planned = Optional.of(planned(axis));
        if (other.getOrDefault(axis.name(), planned).equals(planned)) {
            other.remove(axis.name());
            if (!holdData.contains(axis.name())) {
                changes.remove(axis.name());
            }
        }
    }

    private static Found planned(Axis axis) {
        return new Found(axis.name(), axis.station().identity(), axis.station().address());
    }

    synchronized NetworkScan.ScanResult scan(Machine machine, int from, int to) {
        machine.axes().forEach(axis -> tidy(machine, axis));
        return NetworkScan.of(machine, NetworkScan.stand(machine, other), holdData, from, to);
    }

    /** Axes whose station the PLC does not bring into operation. */
    synchronized List<String> unreachable(Machine machine) {
        List<Found> stand = NetworkScan.stand(machine, other);
        return machine.axes().stream().filter(a -> !NetworkScan.reachable(machine, a, stand)).map(Axis::name).toList();
    }

    synchronized Set<String> holdData() {
        return Set.copyOf(holdData);
    }

    /** Parameters that a device arrives with: slower than the project's, with softer gains. */
    static Axis parametersOfItsOwn(Axis project) {
        Control control = project.control();
        return project.withControl(new Control(control.positionGain() / 2, control.velocityGain() / 2, control.integralTime() * 2, control.feedForward(), control.torqueForward()))
                .withLimits(project.limits().withMax(project.limits().max().withAcceleration(project.limits().max().acceleration() / 2)));
    }
}
