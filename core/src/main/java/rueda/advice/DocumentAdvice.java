package rueda.advice;

import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import rueda.bus.BusFamily;
import rueda.bus.CycleTimes;
import rueda.bus.description.DeviceDescription;
import rueda.machine.Axis;
import rueda.machine.Machine;

/**
 * What a document gives at every stage, for every axis. The next document computes only what its changes can have changed: Scale, Tune,
 * Wire and Move look at one axis and the bus, Move also at the program that may command it, Follow also at the master; Connect and Map look at all stations. So a figure changed on one axis of 64 costs as much as on a
 * machine of one. Immutable, thread-safe.
 */
public final class DocumentAdvice {

    private static final int STAGES = 8;

    /** @param stage in lower case  @param axis index of the axis */
    public record StageAdvice(String stage, int axis, Advice advice) {
    }

    private final Machine machine;
    private final List<DeviceDescription> library;
    /** {@value #STAGES} for each axis, in the order of the axes */
    private final List<StageAdvice> all;

    private DocumentAdvice(Machine machine, List<DeviceDescription> library, List<StageAdvice> all) {
        this.machine = machine;
        this.library = library;
        this.all = all;
    }

    /** @param machine one that can be stored  @param library descriptions that are known */
    public static DocumentAdvice of(Machine machine, List<DeviceDescription> library) {
        return next(null, machine, library);
    }

    /** The advice of a changed document. */
    public DocumentAdvice after(Machine changed, List<DeviceDescription> known) {
        return next(this, changed, known);
    }

    private static DocumentAdvice next(DocumentAdvice before, Machine machine, List<DeviceDescription> library) {
        boolean sameBus = before != null && before.machine.bus().equals(machine.bus());
        boolean sameStations = sameBus && before.library.equals(library) && stations(before.machine).equals(stations(machine)) && before.machine.plc().tags().equals(machine.plc().tags())
                && before.machine.plc().tasks().equals(machine.plc().tasks());
        CycleTimes times = null;
        List<StageAdvice> all = new ArrayList<>(STAGES * machine.axes().size());
        for (int i = 0; i < machine.axes().size(); i++) {
            Axis axis = machine.axes().get(i);
            String pointer = "/axes/" + i;
            boolean same = sameBus && i < before.machine.axes().size() && before.machine.axes().get(i).equals(axis);
            boolean sameMaster = same && (!axis.following().follows() || before.machine.master(axis.following().master()).equals(machine.master(axis.following().master())));
            boolean sameOrders = same && sameMaster && (axis.commandedBy() == Axis.Commander.MOTION_BLOCKS || before.machine.plc().files().equals(machine.plc().files()));
            if (sameOrders && sameStations) {
                all.addAll(before.all.subList(STAGES * i, STAGES * (i + 1) - 1));
                all.add(new StageAdvice("guard", i, GuardAdvice.of(machine, i)));
                continue;
            }
            times = times == null ? BusFamily.of(machine.bus()).times(machine) : times;
            all.add(new StageAdvice("connect", i, ConnectAdvice.of(machine, i, library)));
            all.add(new StageAdvice("map", i, MapAdvice.of(machine, axis, pointer, times)));
            if (same) {
                all.addAll(before.all.subList(STAGES * i + 2, STAGES * (i + 1) - 3));
            } else {
                all.add(new StageAdvice("scale", i, ScaleAdvice.of(axis, machine.bus(), pointer)));
                all.add(new StageAdvice("tune", i, TuneAdvice.of(axis, pointer)));
                all.add(new StageAdvice("wire", i, WireAdvice.of(axis, pointer)));
            }
            if (sameOrders) {
                all.addAll(before.all.subList(STAGES * (i + 1) - 3, STAGES * (i + 1) - 1));
            } else {
                all.add(new StageAdvice("move", i, MoveAdvice.of(machine, axis, pointer)));
                all.add(new StageAdvice("follow", i, FollowAdvice.of(machine, axis, pointer)));
            }
            /* hangs on requests, tasks and masters, and costs next to nothing */
            all.add(new StageAdvice("guard", i, GuardAdvice.of(machine, i)));
        }
        return new DocumentAdvice(machine, library, List.copyOf(all));
    }

    /** What Connect and Map look at beside the bus. */
    private static List<Object> stations(Machine machine) {
        List<Object> all = new ArrayList<>();
        machine.axes().forEach(a -> {
            all.add(a.name());
            all.add(a.station());
        });
        return all;
    }

    public List<StageAdvice> all() {
        return all;
    }

    /** What is not as it was; all of it when the axes are others. @param before null for nothing */
    public List<StageAdvice> changedSince(DocumentAdvice before) {
        if (before == null || before.all.size() != all.size()) {
            return all;
        }
        List<StageAdvice> changed = new ArrayList<>();
        for (int i = 0; i < all.size(); i++) {
            if (all.get(i) != before.all.get(i) && !Objects.equals(all.get(i), before.all.get(i))) {
                changed.add(all.get(i));
            }
        }
        return List.copyOf(changed);
    }
}
