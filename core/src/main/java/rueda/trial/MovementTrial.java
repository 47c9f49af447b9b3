package rueda.trial;

import static rueda.advice.Numbers.significant;

import java.util.List;
import java.util.Set;
import rueda.bench.Bench;
import rueda.drive.Drive;
import rueda.drive.DriveError;
import rueda.drive.DriveObject;
import rueda.machine.Axis;
import rueda.machine.Machine;
import rueda.machine.Mistake;

/**
 * The movement test that comes before identification: small, slow, both ways and with limited torque. It shows whether
 * the axis is free, which way it goes and whether the encoder counts the same way.
 */
public final class MovementTrial {

    /** Torque that the test may take at most, share of the rated torque. */
    private static final double TORQUE = 0.5;
    private static final double SLOW = 0.1;
    private static final double LONGEST = 20;

    private MovementTrial() {
    }

    /**
     * @param holds   the axis is free, and moves and counts the same way
     * @param message in words
     * @param moved   way of the load there, units
     * @param counted way of the position there, units
     * @param torque  highest torque, N·m
     */
    public record Moved(boolean holds, String message, double moved, double counted, double torque) {
    }

    /** @param mistakes what is wrong on the bench */
    public static Moved run(Machine machine, int axisNumber, Set<Mistake> mistakes) {
        Axis axis = machine.axes().get(axisNumber);
        List<String> missing = axis.load().missing(axis.train().feed().linear());
        if (!missing.isEmpty()) {
            return new Moved(false, "Enter the " + String.join(" and ", missing) + " of the load first, in the stage Scale.", 0, 0, 0);
        }
        Bench bench = AxisAlone.of(machine, axis, mistakes);
        Drive drive = bench.drive(0);
        bench.takeByHand();
        bench.run(0.05);
        double hold = Math.abs(axis.motorSide().gravity()) / axis.motor().ratedTorque();
        drive.dictionary().set(DriveObject.MAX_TORQUE, Math.round(1000 * Math.min(axis.torqueLimit() / axis.motor().ratedTorque(), hold + TORQUE)));
        bench.hand(0).enable(true);
        bench.run(0.5);
        bench.hand(0).override(SLOW);
        double way = axis.limits().normal().speed() * SLOW / 2;
        if (!axis.endless() && drive.plant().place() + way > axis.travel().positiveLimit()) {
            way = -way;
        }
        double place = drive.plant().place();
        double position = drive.position();
        double torque = 0;
        String stopped = null;
        double moved = 0;
        double counted = 0;
        for (int leg = 0; leg < 2 && stopped == null; leg++) {
            String refusal = bench.hand(0).step(leg == 0 ? way : -way, bench.now());
            if (refusal != null) {
                return new Moved(false, refusal, 0, 0, 0);
            }
            double until = bench.now() * 1e-9 + LONGEST;
            bench.cycle();
            while (!bench.hand(0).stands() && bench.now() * 1e-9 < until && drive.dictionary().get(DriveObject.ERROR_CODE) == 0) {
                bench.cycle();
                torque = Math.max(torque, Math.abs(drive.torque()));
            }
            if (leg == 0) {
                bench.run(0.05);
                moved = drive.plant().place() - place;
                counted = axis.endless() ? Math.IEEEremainder(drive.position() - position, axis.wireModulo() / (double) axis.scale().wireUnitsPerUnit()) : drive.position() - position;
            }
            int error = (int) drive.dictionary().get(DriveObject.ERROR_CODE);
            stopped = error != 0 ? DriveError.words(error) : bench.hand(0).stands() ? null : "it did not arrive";
        }
        return judged(axis, way, moved, counted, torque, stopped);
    }

    private static Moved judged(Axis axis, double way, double moved, double counted, double torque, String stopped) {
        String unit = axis.unit().symbol();
        String seen = "The load moved " + significant(moved, 3) + " " + unit + " and the position " + significant(counted, 3) + " " + unit;
        if (moved * counted < 0) {
            return new Moved(false, seen + ": the encoder counts backward. Turn its direction over in the stage Scale.", moved, counted, torque);
        }
        if (stopped != null) {
            boolean blocked = Math.abs(moved) < 0.5 * Math.abs(way);
            return new Moved(false, blocked ? seen + " of " + significant(way, 3) + " " + unit + ": the axis is blocked, or its brake closed (" + stopped + ")." : "The axis was stopped: " + stopped + ".", moved, counted, torque);
        }
        return new Moved(true, seen + ", there and back, with at most " + significant(torque, 3) + " N·m.", moved, counted, torque);
    }
}
