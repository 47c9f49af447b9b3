package rueda.bench;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.hipparchus.stat.regression.OLSMultipleLinearRegression;
import rueda.drive.Drive;
import rueda.drive.DriveError;
import rueda.drive.DriveObject;
import rueda.machine.Axis;
import rueda.machine.Dynamics;
import rueda.machine.Machine;
import rueda.plant.Mistake;
import rueda.plcopen.HandControl;

/**
 * Finds out by moving what an axis has to move: total inertia, friction, weight. The axis goes there and back at several
 * speeds inside its free travel; torque, speed and acceleration, as drive and encoder measure them, are fitted to
 * <pre>  M = J·α + M_c·sgn(ω) + b·ω + M_g </pre>
 * by least squares over stretches of 16 ms in which the axis moves.
 */
public final class Identification {

    private static final double STRETCH = 0.016;
    private static final double[] SPEEDS = {0.25, 0.5, 1.0};
    private static final double SHARE_OF_ROOM = 0.6;
    private static final double LONGEST_MOVE = 30;
    /** Bus cycles to each side from which a speed is taken. */
    private static final int AROUND = 4;

    /** Told before every move; may end the whole. */
    @FunctionalInterface
    public interface Progress {
        /** @param move number of the move that begins, from 1  @param of how many there are  @return false to stop the axis and end */
        boolean begins(int move, int of);
    }

    private Identification() {
    }

    /**
     * @param done     false when the axis could not be moved; the message says why
     * @param message  in words
     * @param inertia  kg·m² at the motor shaft
     * @param coulomb  N·m
     * @param viscous  N·m·s/rad
     * @param gravity  N·m
     * @param speed    highest speed reached, units/s
     * @param acceleration highest acceleration reached, units/s²
     * @param way      how far the axis went, units
     * @param duration s of machine time
     */
    public record Identified(boolean done, String message, double inertia, double coulomb, double viscous, double gravity,
                         double speed, double acceleration, double way, double duration) {
        /** What follows for gains and limits, to be reviewed; empty when it was not done. @param pointer JSON pointer of the axis */
        public List<Proposal> proposals(Axis axis, String pointer) {
            return done ? Proposal.of(axis, this, pointer) : List.of();
        }

        static Identified failed(String message) {
            return new Identified(false, message, 0, 0, 0, 0, 0, 0, 0, 0);
        }
    }

    /** @param faults what is wrong with the wiring on the bench */
    public static Identified run(Machine machine, int axisNumber, Set<Mistake> faults) {
        return run(machine, axisNumber, faults, (move, of) -> true);
    }

    /** @param progress is told before every move */
    public static Identified run(Machine machine, int axisNumber, Set<Mistake> faults, Progress progress) {
        Axis axis = machine.axes().get(axisNumber);
        List<String> missing = axis.load().missing(axis.train().feed().linear());
        if (!missing.isEmpty()) {
            return Identified.failed("Enter the " + String.join(" and ", missing) + " of the load first, in the stage Scale.");
        }
        Machine alone = new Machine(machine.name(), machine.bus(), machine.plc(), List.of(axis), machine.proof());
        Bench bench = new Bench(alone, "PROGRAM Identification\nEND_PROGRAM\n", 16, Map.of(axis.name(), faults));
        bench.takeByHand();
        bench.run(0.05);
        bench.hand(0).enable(true);
        bench.run(0.5);
        return new Run(axis, bench, progress).carryOut();
    }

    private static final class Run {
        private final Axis axis;
        private final Bench bench;
        private final Progress progress;
        private final Drive drive;
        private final HandControl hand;
        private final double cycle;
        private final int stretch;
        private final double unitsPerRadian;
        private final List<double[]> motions = new ArrayList<>();
        private final List<Double> torques = new ArrayList<>();
        private double fastest;
        private double steepest;

        Run(Axis axis, Bench bench, Progress progress) {
            this.progress = progress;
            this.axis = axis;
            this.bench = bench;
            drive = bench.drive(0);
            hand = bench.hand(0);
            cycle = bench.recording().cycleNanos() * 1e-9;
            stretch = Math.max(2, (int) Math.round(STRETCH / cycle));
            unitsPerRadian = axis.motorSide().unitsPerRadian();
        }

        Identified carryOut() {
            double way = way();
            if (way == 0) {
                return Identified.failed("There is no room to move: the axis stands between two active limits.");
            }
            double begun = bench.now() * 1e-9;
            int move = 0;
            for (double share : SPEEDS) {
                hand.override(share);
                for (int direction = 1; direction >= -1; direction -= 2) {
                    if (!progress.begins(++move, 2 * SPEEDS.length)) {
                        hand.enable(false);
                        bench.run(0.3);
                        return Identified.failed("Cancelled: the axis stands and is disabled.");
                    }
                    String refusal = hand.step(direction * way, bench.now());
                    if (refusal != null) {
                        return Identified.failed(refusal);
                    }
                    String stopped = moveAndMeasure();
                    if (stopped != null) {
                        return Identified.failed(stopped);
                    }
                }
            }
            return fitted(Math.abs(way), bench.now() * 1e-9 - begun);
        }

        /** The longer side of the free travel, and enough of it to reach the default speed; with its sign. */
        private double way() {
            Dynamics d = axis.limits().normal();
            double wanted = 1.5 * d.speed() + d.speed() * d.speed() / d.acceleration();
            if (axis.endless()) {
                return wanted;
            }
            double place = drive.plant().place();
            double above = axis.travel().positiveLimit() - place;
            double below = place - axis.travel().negativeLimit();
            double room = SHARE_OF_ROOM * Math.max(above, below);
            return Math.min(wanted, room) * (above >= below ? 1 : -1);
        }

        /** @return why the move ended early, or null */
        private String moveAndMeasure() {
            List<double[]> samples = new ArrayList<>();
            long until = bench.now() + (long) (LONGEST_MOVE * 1e9);
            bench.cycle();
            while (!hand.stands() && bench.now() < until) {
                bench.cycle();
                samples.add(new double[] {drive.plant().counts() * 2 * Math.PI / drive.plant().countsPerTurn(), drive.meanTorque()});
            }
            keep(samples);
            int error = (int) drive.dictionary().get(DriveObject.ERROR_CODE);
            bench.run(0.3);
            return error == 0 ? null : "The axis was stopped: " + DriveError.words(error) + ".";
        }

        /** Over each stretch the impulse of the torque is the change of J·ω and what friction and weight took meanwhile. */
        private void keep(List<double[]> samples) {
            double slowest = 0.02 * axis.limits().normal().speed() / unitsPerRadian;
            double time = stretch * cycle;
            for (int k = AROUND; k + stretch + AROUND < samples.size(); k += stretch) {
                double from = speed(samples, k);
                double to = speed(samples, k + stretch);
                if (from * to <= 0 || Math.min(Math.abs(from), Math.abs(to)) < slowest) {
                    continue;
                }
                double torque = 0;
                for (int i = k + 1; i <= k + stretch; i++) {
                    torque += samples.get(i)[1] / stretch;
                }
                double mean = (samples.get(k + stretch)[0] - samples.get(k)[0]) / time;
                double acceleration = (to - from) / time;
                fastest = Math.max(fastest, Math.abs(mean) * unitsPerRadian);
                steepest = Math.max(steepest, Math.abs(acceleration) * unitsPerRadian);
                motions.add(new double[] {acceleration, Math.signum(mean), mean});
                torques.add(torque);
            }
        }

        /** Speed at a sample, from the angles around it, rad/s. */
        private double speed(List<double[]> samples, int k) {
            return (samples.get(k + AROUND)[0] - samples.get(k - AROUND)[0]) / (2 * AROUND * cycle);
        }

        private Identified fitted(double way, double duration) {
            if (motions.size() < 20) {
                return Identified.failed("The axis moved too little to measure anything.");
            }
            OLSMultipleLinearRegression regression = new OLSMultipleLinearRegression();
            regression.newSampleData(torques.stream().mapToDouble(Double::doubleValue).toArray(), motions.toArray(double[][]::new));
            double[] found = regression.estimateRegressionParameters();
            return new Identified(true, "Identified.", found[1], found[2], found[3], found[0], fastest, steepest, way, duration);
        }
    }
}
