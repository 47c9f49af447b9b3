package rueda.drive;

import java.util.ArrayList;
import java.util.List;
import rueda.machine.Axis;
import rueda.machine.Cue;
import rueda.machine.Dynamics;
import rueda.machine.MoveEntry;
import rueda.machine.MoveList;
import rueda.quantity.Scale;

/**
 * A move list in the units of one drive: places and ways in wire units, speeds in counts/s, times in sub-steps; and its cues, each one once.
 * Made when the list is written; nothing in it changes while it runs but the state of its cues. Not thread-safe.
 */
final class ListTable {

    /** No cue. */
    private static final int NEVER = -1;

    final MoveList list;
    final int length;
    final long[] position;
    final long[] distance;
    final long[] windowFrom;
    final long[] windowTo;
    /** counts/s; of RUN and CHANGE_SPEED with its sign */
    final double[] speed;
    final double[] acceleration;
    final double[] deceleration;
    final double[] jerk;
    final long[] rest;
    final double[] exceptionSpeed;
    /** entries whose speed, or whose position or distance, came over the bus since the list was written */
    final boolean[] busSpeed;
    final boolean[] busWay;
    private final MoveEntry[] entries;
    private final List<CueWatch> watches = new ArrayList<>();
    private final int[] cue;
    private final int[] awaits;
    private final int[] starter;
    private final int[] starterBack;
    private final int[] exception;

    /** @param active functions that are asked for now */
    ListTable(Axis axis, DriveUnits units, long active) {
        list = axis.moves();
        entries = list.entries().toArray(MoveEntry[]::new);
        length = entries.length;
        busSpeed = new boolean[length];
        busWay = new boolean[length];
        position = new long[length];
        distance = new long[length];
        windowFrom = new long[length];
        windowTo = new long[length];
        speed = new double[length];
        acceleration = new double[length];
        deceleration = new double[length];
        jerk = new double[length];
        rest = new long[length];
        cue = new int[length];
        awaits = new int[length];
        Scale scale = axis.scale();
        Dynamics normal = axis.limits().normal();
        double countsPerUnit = 1 / units.unitsPerCount;
        for (int i = 0; i < length; i++) {
            MoveEntry e = entries[i];
            position[i] = scale.wireFromUnits(e.position());
            distance[i] = scale.wireFromUnits(e.distance());
            windowFrom[i] = scale.wireFromUnits(e.windowFrom());
            windowTo[i] = scale.wireFromUnits(e.windowTo());
            boolean signed = e.kind() == MoveEntry.Kind.RUN || e.kind() == MoveEntry.Kind.CHANGE_SPEED;
            speed[i] = countsPerUnit * (signed ? e.speed() : e.speedOr(normal));
            acceleration[i] = countsPerUnit * e.accelerationOr(normal);
            deceleration[i] = countsPerUnit * e.decelerationOr(normal);
            jerk[i] = countsPerUnit * e.jerkOr(normal);
            rest[i] = Math.round(e.rest() / units.subStep);
            cue[i] = watch(e.cue(), units.subStep, active);
            awaits[i] = watch(e.awaits(), units.subStep, active);
        }
        int starters = list.starters().size();
        starter = new int[starters];
        starterBack = new int[starters];
        for (int i = 0; i < starters; i++) {
            MoveList.Starter rule = list.starters().get(i);
            boolean level = rule.by() == MoveList.By.LEVEL;
            starter[i] = watch(level ? rule.cue().withEdge(Cue.Edge.RISING) : rule.cue(), units.subStep, active);
            starterBack[i] = level ? watch(rule.cue().withEdge(Cue.Edge.FALLING), units.subStep, active) : NEVER;
        }
        exception = list.exceptions().stream().mapToInt(e -> watch(e.cue(), units.subStep, active)).toArray();
        exceptionSpeed = list.exceptions().stream().mapToDouble(e -> e.speed() * countsPerUnit).toArray();
    }

    private int watch(Cue wanted, double subStep, long active) {
        if (!wanted.comes()) {
            return NEVER;
        }
        for (int i = 0; i < watches.size(); i++) {
            if (watches.get(i).cue().equals(wanted)) {
                return i;
            }
        }
        watches.add(new CueWatch(wanted, subStep, active));
        return watches.size() - 1;
    }

    MoveEntry entry(int number) {
        return entries[number];
    }

    /** One sub-step of all cues. @return they must be asked again in the next one, whatever the inputs do */
    boolean step(long active) {
        boolean again = false;
        for (int i = 0; i < watches.size(); i++) {
            again |= watches.get(i).step(active);
        }
        return again;
    }

    private boolean comes(int watch) {
        return watch != NEVER && watches.get(watch).comes();
    }

    /** The cue of an entry comes in this sub-step. */
    boolean cue(int entry) {
        return comes(cue[entry]);
    }

    /** What an entry awaits at its end comes in this sub-step. */
    boolean awaited(int entry) {
        return comes(awaits[entry]);
    }

    boolean starter(int number) {
        return comes(starter[number]);
    }

    /** The other edge of a starter by level. */
    boolean starterBack(int number) {
        return comes(starterBack[number]);
    }

    boolean exception(int number) {
        return comes(exception[number]);
    }
}
