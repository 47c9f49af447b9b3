package rueda.trial;

import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.stream.IntStream;
import org.hipparchus.exception.MathIllegalArgumentException;
import org.hipparchus.stat.regression.OLSMultipleLinearRegression;
import rueda.bench.Bench;
import rueda.drive.Drive;
import rueda.drive.DriveError;
import rueda.drive.DriveObject;
import rueda.machine.Axis;
import rueda.machine.Dynamics;
import rueda.machine.Machine;
import rueda.machine.Mistake;
import rueda.plcopen.HandControl;

/**
 * Finds out by moving what an axis has to move: total inertia, friction, weight. The axis goes there and back at several
 * speeds inside its free travel; torque, speed and acceleration, as drive and encoder measure them, are fitted to
 * <pre>  M = J·α + M_c·sgn(ω) + b·ω + M_g </pre>
 * by least squares over stretches of 16 ms in which the axis moves.
 *
 * <p>The fit judges itself. Each value carries a doubt: twice its standard error, by how much it differs between the two halves of the data,
 * and for the inertia the share of the acceleration that is only the grid of the encoder. Such noise in what torque is fitted to pulls a slope
 * toward zero (errors in variables; Fuller: Measurement Error Models), and no standard error shows it. An inertia in doubt by more than
 * {@link #MOST_DOUBT} is told, but nothing is proposed from it.
 */
public final class Identification {

    private static final double STRETCH = 0.016;
    private static final double[] SPEEDS = {0.25, 0.5, 1.0};
    private static final double SHARE_OF_ROOM = 0.6;
    private static final double LONGEST_MOVE = 30;
    /** Bus cycles to each side from which a speed is taken. */
    private static final int AROUND = 4;
    /** Doubt about the inertia, share of it, up to which gains are proposed (our choice). */
    public static final double MOST_DOUBT = 0.15;

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
     * @param trusted  the values are sure enough to propose from
     * @param message  in words; when it is not trusted, what to change
     * @param inertia  kg·m² at the motor shaft
     * @param coulomb  N·m
     * @param viscous  N·m·s/rad
     * @param gravity  N·m
     * @param inertiaDoubt half the width of the range in which the inertia lies, kg·m²
     * @param coulombDoubt the same of the Coulomb friction, N·m
     * @param viscousDoubt the same of the viscous friction, N·m·s/rad
     * @param gravityDoubt the same of the weight, N·m
     * @param speed    highest speed reached, units/s
     * @param acceleration highest acceleration reached, units/s²
     * @param way      how far the axis went, units
     * @param duration s of machine time
     */
    public record Identified(boolean done, boolean trusted, String message, double inertia, double coulomb, double viscous, double gravity,
                         double inertiaDoubt, double coulombDoubt, double viscousDoubt, double gravityDoubt, double speed, double acceleration, double way, double duration) {
        /** What follows for gains and limits, to be reviewed; empty when it was not done. @param pointer JSON pointer of the axis */
        public List<Proposal> proposals(Axis axis, String pointer) {
            return trusted ? Proposal.of(axis, this, pointer) : List.of();
        }

        static Identified failed(String message) {
            return new Identified(false, false, message, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0);
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
        Bench bench = AxisAlone.of(machine, axis, faults);
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
                return Identified.failed("The axis moved too little to measure anything: give it more room, or a longer way at a higher default speed.");
            }
            double[] found = new double[4];
            double[] doubt = new double[4];
            try {
                OLSMultipleLinearRegression all = regression(0, 1);
                found = all.estimateRegressionParameters();
                double[] errors = all.estimateRegressionParametersStandardErrors();
                double[] even = regression(0, 2).estimateRegressionParameters();
                double[] odd = regression(1, 2).estimateRegressionParameters();
                for (int i = 0; i < doubt.length; i++) {
                    doubt[i] = Math.max(2 * errors[i], Math.abs(even[i] - odd[i]));
                }
            } catch (MathIllegalArgumentException singular) {
                return Identified.failed("The moves were too much alike to tell inertia from friction: raise the default speed and acceleration.");
            }
            double grid = gridShare();
            doubt[1] = Math.max(doubt[1], grid < 1 ? Math.abs(found[1]) * grid / (1 - grid) : Double.MAX_VALUE);
            boolean trusted = found[1] > 0 && doubt[1] <= MOST_DOUBT * found[1];
            return new Identified(true, trusted, trusted ? "Identified." : advice(grid), found[1], found[2], found[3], found[0], doubt[1], doubt[2], doubt[3], doubt[0], fastest, steepest, way, duration);
        }

        /** The fit over every so-manieth stretch. */
        private OLSMultipleLinearRegression regression(int first, int every) {
            List<Integer> taken = IntStream.range(0, motions.size()).filter(i -> i % every == first).boxed().toList();
            OLSMultipleLinearRegression regression = new OLSMultipleLinearRegression();
            regression.newSampleData(taken.stream().mapToDouble(torques::get).toArray(), taken.stream().map(motions::get).toArray(double[][]::new));
            return regression;
        }

        /**
         * Share of the variance of the accelerations that is the grid of the encoder. An angle is off by up to half a count, variance q²/12; a speed
         * is the difference of two over 2·{@link #AROUND} cycles, an acceleration that of two speeds over a stretch.
         */
        private double gridShare() {
            double quantum = 2 * Math.PI / drive.plant().countsPerTurn();
            double speedVariance = 2 * quantum * quantum / 12 / Math.pow(2 * AROUND * cycle, 2);
            double gridVariance = 2 * speedVariance / Math.pow(stretch * cycle, 2);
            double mean = motions.stream().mapToDouble(m -> m[0]).average().orElse(0);
            double variance = motions.stream().mapToDouble(m -> (m[0] - mean) * (m[0] - mean)).average().orElse(0);
            return variance > 0 ? Math.min(1, gridVariance / variance) : 1;
        }

        private String advice(double grid) {
            return grid > MOST_DOUBT / 2
                    ? "Not sure enough: at these speeds the steps of the encoder, " + drive.plant().countsPerTurn() + " a turn, are as large as the accelerations. Raise the default speed and acceleration in Scale, or take a finer encoder; nothing is proposed."
                    : "Not sure enough: the moves gain too little speed to tell inertia from friction. Raise the default acceleration in Scale, or give the axis a longer way; nothing is proposed.";
        }
    }
}
