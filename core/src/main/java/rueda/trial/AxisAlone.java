package rueda.trial;

import java.util.List;
import java.util.Map;
import java.util.Set;
import rueda.bench.Bench;
import rueda.bench.BenchCondition;
import rueda.machine.Axis;
import rueda.machine.Machine;
import rueda.machine.Mistake;

/** One axis of a machine on a bench of its own; on it, it has the number 0. */
final class AxisAlone {

    /** Cycles the recording keeps: trials look at the bench while it runs. */
    private static final int KEPT = 16;
    private static final String NO_PROGRAM = "PROGRAM Alone\nEND_PROGRAM\n";

    private AxisAlone() {
    }

    /** With a program that does nothing. @param axis as it is tried, not as it stands in the machine; motion blocks command it, whoever does there  @param mistakes what is wrong with its wiring */
    static Bench of(Machine machine, Axis axis, Set<Mistake> mistakes) {
        return of(machine, axis, NO_PROGRAM, mistakes);
    }

    static Bench of(Machine machine, Axis axis, String program, Set<Mistake> mistakes) {
        Machine alone = new Machine(machine.name(), machine.bus(), machine.plc(), List.of(axis.withCommandedBy(Axis.Commander.MOTION_BLOCKS)), machine.proofs());
        return new Bench(alone, program, KEPT, BenchCondition.throughout(Map.of(axis.name(), mistakes)));
    }
}
