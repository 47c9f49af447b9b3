package rueda.trial;

import java.util.Set;
import rueda.bench.Bench;
import rueda.drive.DriveObject;
import rueda.machine.Axis;
import rueda.machine.Machine;
import rueda.machine.Mistake;

/** One turn of the motor shaft by hand with the drive off: the first check of encoder, gear and unit. */
public final class HandTurn {

    private static final int STEPS = 200;

    private HandTurn() {
    }

    /**
     * @param counted  encoder counts made
     * @param expected counts that one turn should make
     * @param moved    change of the position the drive shows, user units
     * @param should   change it should show, user units
     */
    public record Turned(long counted, long expected, double moved, double should) {
        /** Within one count, and within one count and one wire unit. */
        public boolean agrees(double tolerance) {
            return Math.abs(counted - expected) <= 1 && Math.abs(moved - should) <= tolerance;
        }
    }

    /** @param faults what is wrong with the wiring on the bench */
    public static Turned run(Machine machine, int axisNumber, Set<Mistake> faults) {
        Axis axis = machine.axes().get(axisNumber);
        Bench bench = AxisAlone.of(machine, axis, faults);
        bench.run(0.05);
        long before = bench.drive(0).plant().counts();
        long shownBefore = bench.drive(0).dictionary().get(DriveObject.POSITION_ACTUAL);
        for (int k = 0; k < STEPS; k++) {
            bench.drive(0).plant().turnByHand(2 * Math.PI / STEPS);
            bench.cycle();
        }
        long counted = bench.drive(0).plant().counts() - before;
        long shown = bench.drive(0).dictionary().get(DriveObject.POSITION_ACTUAL) - shownBefore;
        if (axis.endless()) {
            long range = axis.wireModulo();
            shown = Math.floorMod(shown + range / 2, range) - range / 2;
        }
        return new Turned(counted, axis.encoder().countsPerTurn(), axis.scale().unitsFromWire(shown), axis.scale().unitsPerMotorTurn().toDouble());
    }
}
