package rueda.proof.learn;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.OptionalDouble;
import java.util.concurrent.Callable;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.stream.IntStream;
import org.hipparchus.exception.MathIllegalStateException;
import org.hipparchus.linear.Array2DRowRealMatrix;
import org.hipparchus.linear.ArrayRealVector;
import org.hipparchus.linear.MatrixUtils;
import org.hipparchus.linear.RealMatrix;
import org.hipparchus.linear.RealVector;
import org.hipparchus.linear.SingularValueDecomposition;
import org.hipparchus.optim.nonlinear.vector.leastsquares.LeastSquaresBuilder;
import org.hipparchus.optim.nonlinear.vector.leastsquares.LeastSquaresOptimizer.Optimum;
import org.hipparchus.optim.nonlinear.vector.leastsquares.LeastSquaresProblem;
import org.hipparchus.optim.nonlinear.vector.leastsquares.LevenbergMarquardtOptimizer;
import org.hipparchus.optim.nonlinear.vector.leastsquares.MultivariateJacobianFunction;
import org.hipparchus.util.Pair;
import rueda.bench.AxisSignal;
import rueda.bench.CalculationCancelled;
import rueda.bench.ReadyProgram;
import rueda.bench.Recorded;
import rueda.bench.Stand;
import rueda.machine.Axis;
import rueda.machine.Load;
import rueda.machine.Machine;
import rueda.machine.Proof;
import rueda.proof.Prover;
import rueda.proof.RecordedRun;
import rueda.proof.SignalLay;
import rueda.quantity.InvalidEntry;
import rueda.recording.Brought;
import rueda.recording.Curve;

/** Learns values of an axis from a recording. It costs some tens of runs of the proof, on several threads. Not thread-safe. */
public final class Learning {

    /** Signals that tell of an axis, as far as the recording has them; a position tells nothing besides, and jumps when it is referenced. */
    private static final List<AxisSignal> TOLD_BY = List.of(AxisSignal.TORQUE, AxisSignal.SPEED, AxisSignal.FOLLOWING_ERROR);
    /** By what the recording is laid over the run, the first that it has: what is commanded is the same whatever the load. */
    private static final List<AxisSignal> LAID_BY = List.of(AxisSignal.COMMANDED_SPEED, AxisSignal.COMMANDED_POSITION, AxisSignal.SPEED, AxisSignal.POSITION, AxisSignal.TORQUE);
    private static final int MOST_SAMPLES = 6000;
    private static final int LEAST_SAMPLES = 50;
    /** Step of the difference quotients to each side, by the scale of the value: it must show above the ripple that the grid of an encoder makes, which no run repeats. */
    private static final double STEP = 0.1;
    /** The same where ringing matters, round by round: a great step throws it out of phase, a small one drowns in the ripple. */
    private static final double[] STEPS_RINGING = {0.1, 0.06, 0.04};
    private static final double DELAY_STEP = 0.2;
    /** Over so much time residuals are averaged, s: of the ripple of a torque little is left, of ringing up to some 30 Hz most. */
    private static final double SMOOTHED = 0.016;
    /** The same where ringing matters. */
    private static final double SMOOTHED_LESS = 0.006;
    /** Stiffnesses that are tried first, by the document's: ringing of another frequency lies nowhere near. */
    private static final double[] STIFFNESSES = {0.3, 0.4, 0.5, 0.6, 0.7, 0.8, 0.9, 1, 1.15, 1.35, 1.6, 2, 2.6};
    private static final int ROUNDS = 3;
    /** Relative change of the cost, and of a value, that is none. */
    private static final double ENOUGH = 1e-3;
    /** Share of it, or of its scale, that a value is never told more surely: two runs of the bench agree no better, as they divide the time between the same tasks otherwise (our choice). */
    private static final double LEAST_DOUBT = 0.02;
    private static final int MOST_EVALUATIONS = 10;
    /** Neighbouring residuals up to which alikeness is looked at. */
    private static final int MOST_LAGS = 400;
    /** Standard deviations of the doubt that is told. */
    private static final double TIMES = 3;
    /** Share of its scale up to which a doubt is small. */
    private static final double SMALL = 0.35;

    /** Told after each round of runs; may throw, to end it. */
    @FunctionalInterface
    public interface Progress {
        /** @param runs that have been made  @param of about how many there will be  @param apart weighted difference that is left, as a share of that at the begin */
        void ran(int runs, int of, double apart);
    }

    private final Machine machine;
    private final Proof proof;
    private final int axis;
    private final Progress progress;
    private final ExecutorService workers;
    private final ThreadLocal<ReadyProgram> ready;
    private final Recorded wanted;
    private final List<Told> told = new ArrayList<>();
    private final List<Unknown> unknowns;
    private final double[] scales;
    /** number of the delay among the unknowns */
    private final int delay;
    private double step = STEP;
    private final Moves moves;
    private int runs;
    private int expected;
    private double first = Double.NaN;
    /** least sum of squares with the present deviations, and where */
    private double least = Double.POSITIVE_INFINITY;
    private double[] best;
    /** number of an unknown that is not changed now, −1 for none */
    private int held = -1;

    /** A signal of the recording. @param nanos times in the recording, ns  @param values NaN never */
    private static final class Told {
        private final String name;
        private final String unit;
        private final long[] nanos;
        private final double[] values;
        private final int together;
        private double deviation = 1;

        Told(String name, String unit, long[] nanos, double[] values, double smoothed) {
            this.name = name;
            this.unit = unit;
            this.nanos = nanos;
            this.values = values;
            double interval = (nanos[nanos.length - 1] - nanos[0]) * 1e-9 / (nanos.length - 1);
            together = (int) Math.max(1, Math.min(nanos.length / (double) LEAST_SAMPLES, Math.round(smoothed / Math.max(1e-9, interval))));
        }

        int averages() {
            return nanos.length / together;
        }

        /** Of the samples that stand together. */
        double mean(double[] raw, int number) {
            double sum = 0;
            for (int k = number * together; k < (number + 1) * together; k++) {
                sum += raw[k];
            }
            return sum / together;
        }
    }

    private Learning(Machine machine, Proof proof, int axis, Brought recording, List<Unknown> unknowns, int threads, Progress progress) {
        this.machine = machine;
        this.proof = proof;
        this.axis = axis;
        this.progress = progress;
        this.unknowns = unknowns;
        delay = unknowns.indexOf(Unknown.DELAY);
        scales = unknowns.stream().mapToDouble(unknown -> unknown.scale(machine.axes().get(axis))).toArray();
        wanted = Prover.named(proof.withExpectations(List.of()), machine.axes().get(axis));
        ready = ThreadLocal.withInitial(() -> ReadyProgram.of(machine));
        RecordedRun nominal = run(start());
        moves = moves(nominal, recording);
        collect(nominal, recording);
        workers = Executors.newFixedThreadPool(threads, work -> {
            Thread thread = new Thread(work, "learning");
            thread.setDaemon(true);
            return thread;
        });
    }

    /**
     * @param recording in memory
     * @param wanted    what is learned; the delay always is
     * @param threads   1 or more
     * @throws InvalidEntry                     naming what is missing: signals of the axis, or a place where it lies over the run
     * @throws CalculationCancelled             when this thread is interrupted
     */
    public static Learned learn(Machine machine, Proof proof, int axis, Brought recording, List<Unknown> wanted, int threads, Progress progress) {
        Axis of = machine.axes().get(axis);
        List<String> remarks = new ArrayList<>();
        List<Unknown> unknowns = new ArrayList<>();
        for (Unknown unknown : Unknown.values()) {
            String missing = unknown.missingIn(of);
            if (unknown == Unknown.DELAY || wanted.contains(unknown) && missing == null) {
                unknowns.add(unknown);
            } else if (wanted.contains(unknown)) {
                remarks.add(unknown.words(of) + " is not learned: " + missing + ".");
            }
        }
        Learning learning = new Learning(machine, proof, axis, recording, unknowns, threads, progress);
        try {
            return learning.learn(remarks);
        } finally {
            learning.workers.shutdownNow();
        }
    }

    // ---- the recording

    private Moves moves(RecordedRun nominal, Brought recording) {
        String name = machine.axes().get(axis).name();
        for (AxisSignal signal : LAID_BY) {
            if (recording.column(signal.of(name)).isPresent() && nominal.signal(signal.of(name)) >= 0) {
                OptionalDouble shift = SignalLay.shift(nominal, recording, signal.of(name));
                if (shift.isPresent()) {
                    return Moves.of(recording.column(signal.of(name)).orElseThrow(), signal == AxisSignal.COMMANDED_POSITION || signal == AxisSignal.POSITION, shift.getAsDouble(), nominal);
                }
            }
        }
        throw new InvalidEntry("recording", recording.name() + " lies nowhere over a run of " + proof.name(), "a recording in which " + name + " moves as in the proof, with its speed, position or torque among its signals",
                "choose the proof that does what was recorded, or another recording");
    }

    private void collect(RecordedRun nominal, Brought recording) {
        String name = machine.axes().get(axis).name();
        for (AxisSignal signal : TOLD_BY) {
            Brought.Column column = recording.column(signal.of(name)).orElse(null);
            int same = nominal.signal(signal.of(name));
            if (column == null || same < 0) {
                continue;
            }
            if (!column.unit().equals(nominal.signals().get(same).unit())) {
                throw new InvalidEntry("recording", column.name() + " in " + column.unit(), "in " + nominal.signals().get(same).unit(), "bring it in again with the scale to this unit");
            }
            long from = Math.round((nominal.time(0) - moves.shift()) * 1e9);
            long to = Math.round((nominal.end() - moves.shift()) * 1e9);
            Curve all = Curve.around(column.signal(), from, to, Integer.MAX_VALUE - 8);
            int[] inside = IntStream.range(0, all.nanos().length).filter(i -> all.nanos()[i] >= from && all.nanos()[i] <= to && !Double.isNaN(all.values()[i]) && moves.movesAt(all.nanos()[i])).toArray();
            int every = Math.max(1, inside.length / MOST_SAMPLES);
            int[] taken = IntStream.range(0, inside.length / every).map(i -> inside[i * every]).toArray();
            if (taken.length >= LEAST_SAMPLES) {
                told.add(new Told(column.name(), column.unit(), Arrays.stream(taken).mapToLong(i -> all.nanos()[i]).toArray(), Arrays.stream(taken).mapToDouble(i -> all.values()[i]).toArray(), unknowns.contains(Unknown.STIFFNESS) ? SMOOTHED_LESS : SMOOTHED));
            }
        }
        if (told.stream().noneMatch(t -> t.name.equalsIgnoreCase(AxisSignal.TORQUE.of(name)))) {
            throw new InvalidEntry("recording", recording.name() + " without the torque of " + name, "a recording that has it, at least " + LEAST_SAMPLES + " samples: load and friction show in nothing else", "assign its column when you bring the file in");
        }
    }

    // ---- the bench

    /** The document's values, by their scales. */
    private double[] start() {
        return IntStream.range(0, unknowns.size()).mapToDouble(i -> unknowns.get(i).of(machine.axes().get(axis)) / scales[i]).toArray();
    }

    private RecordedRun run(double[] point) {
        Axis of = machine.axes().get(axis);
        Load load = of.load();
        for (int i = 0; i < unknowns.size(); i++) {
            load = unknowns.get(i).in(of, load, point[i] * scales[i]);
        }
        Stand sound = Stand.of(machine);
        List<Axis> axes = new ArrayList<>(sound.axes());
        axes.set(axis, of.withLoad(load));
        return Prover.recorded(machine, ready.get(), proof, new Stand(axes, sound.disturbed(), sound.seed()), wanted, Brought.Shelf.EMPTY);
    }

    /** Run less recording with several delays, each by the deviation of its signal; 0 where the run has nothing. */
    private double[][] residuals(double[] point, double... delays) {
        RecordedRun run = run(point);
        double[] shifts = moves.laid(run);
        List<Track> tracks = told.stream().map(t -> Track.of(run, t.name)).toList();
        double[][] all = new double[delays.length][];
        for (int d = 0; d < delays.length; d++) {
            all[d] = new double[size()];
            int at = 0;
            for (int s = 0; s < told.size(); s++) {
                Told t = told.get(s);
                double[] raw = new double[t.nanos.length];
                for (int k = 0; k < raw.length; k++) {
                    raw[k] = tracks.get(s).at(t.nanos[k] * 1e-9 + shifts[moves.moveAt(t.nanos[k])] - delays[d] * scales[delay]) - t.values[k];
                }
                for (int k = 0; k < t.averages(); k++) {
                    double mean = t.mean(raw, k);
                    all[d][at++] = !Double.isNaN(mean) ? mean / t.deviation : 0;
                }
            }
        }
        return all;
    }

    private int size() {
        return told.stream().mapToInt(Told::averages).sum();
    }

    // ---- the fit

    private double[][][] all(double[] at, List<Callable<double[][]>> work) {
        List<Future<double[][]>> futures = work.stream().map(workers::submit).toList();
        double[][][] found = new double[work.size()][][];
        try {
            for (int i = 0; i < found.length; i++) {
                found[i] = futures.get(i).get();
            }
        } catch (InterruptedException cancelled) {
            futures.forEach(future -> future.cancel(true));
            Thread.currentThread().interrupt();
            throw new CalculationCancelled();
        } catch (ExecutionException failed) {
            if (failed.getCause() instanceof RuntimeException refused) {
                throw refused;
            } else if (failed.getCause() instanceof Error error) {
                throw error;
            }
            throw new IllegalStateException(failed.getCause());
        }
        runs += work.size();
        double sum = Arrays.stream(found[0][0]).map(r -> r * r).sum();
        if (sum < least) {
            least = sum;
            best = at.clone();
        }
        first = Double.isNaN(first) ? sum : first;
        expected = Math.max(expected, runs + work.size() * 2);
        progress.ran(runs, expected, first > 0 ? Math.sqrt(sum / first) : 0);
        return found;
    }

    /** The residuals at a point, and what each unknown changes in them, by central differences. The delay needs no run of its own. */
    private Pair<RealVector, RealMatrix> linear(RealVector at) {
        double[] here = at.toArray();
        List<Callable<double[][]>> work = new ArrayList<>(List.of(() -> residuals(here, here[delay], here[delay] - DELAY_STEP, here[delay] + DELAY_STEP)));
        List<double[]> sides = new ArrayList<>();
        for (int i = 0; i < unknowns.size(); i++) {
            if (i != delay && i != held) {
                double low = Math.max(here[i] - step, unknowns.get(i).least() / scales[i]);
                double high = Math.min(here[i] + step, unknowns.get(i).most() / scales[i]);
                sides.add(new double[] {i, low, high});
                for (double side : new double[] {low, high}) {
                    double[] moved = here.clone();
                    moved[i] = side;
                    work.add(() -> residuals(moved, moved[delay]));
                }
            }
        }
        double[][][] found = all(here, work);
        RealMatrix jacobian = new Array2DRowRealMatrix(size(), unknowns.size());
        for (int k = 0; k < size(); k++) {
            jacobian.setEntry(k, delay, (found[0][2][k] - found[0][1][k]) / (2 * DELAY_STEP));
            for (int s = 0; s < sides.size(); s++) {
                jacobian.setEntry(k, (int) sides.get(s)[0], (found[2 * s + 2][0][k] - found[2 * s + 1][0][k]) / (sides.get(s)[2] - sides.get(s)[1]));
            }
        }
        return new Pair<>(new ArrayRealVector(found[0][0], false), jacobian);
    }

    private Learned learn(List<String> remarks) {
        expected = ROUNDS * 2 * unknowns.size() * 3;
        double[] at = start();
        double[] before = weigh(residuals(at, 0)[0]);
        if (unknowns.contains(Unknown.STIFFNESS)) {
            /* the rest first, as well as it goes, so that the ringing is what is left */
            held = unknowns.indexOf(Unknown.STIFFNESS);
            at = fitted(at).getPoint().toArray();
            held = -1;
            at = stiffness(at);
            weigh(raw(residuals(at, at[delay])[0]));
        }
        Optimum optimum = null;
        for (int round = 0; round < ROUNDS; round++) {
            step = unknowns.contains(Unknown.STIFFNESS) ? STEPS_RINGING[round] : STEP;
            first = Double.NaN;
            least = Double.POSITIVE_INFINITY;
            optimum = fitted(at);
            at = optimum.getPoint().toArray();
            if (round < ROUNDS - 1) {
                weigh(raw(residuals(at, at[delay])[0]));
            }
        }
        double[] after = deviations(raw(optimum.getResiduals().toArray()));
        List<Learned.SignalFit> fits = IntStream.range(0, told.size()).mapToObj(s -> new Learned.SignalFit(told.get(s).name, told.get(s).unit, before[s], after[s], told.get(s).values.length)).toList();
        return new Learned(machine.axes().get(axis).name(), values(optimum, remarks), fits, moves.shift() - at[delay] * scales[delay], runs, remarks);
    }

    /** The point with the stiffness, of those that are tried, with which the least is left. */
    private double[] stiffness(double[] at) {
        int number = unknowns.indexOf(Unknown.STIFFNESS);
        List<double[]> points = Arrays.stream(STIFFNESSES).mapToObj(share -> {
            double[] point = at.clone();
            point[number] = share * machine.axes().get(axis).load().stiffness() / scales[number];
            return point;
        }).toList();
        double[][][] found = all(points.get(0), points.stream().map(point -> (Callable<double[][]>) () -> residuals(point, point[delay])).toList());
        double[] sums = Arrays.stream(found).mapToDouble(one -> Arrays.stream(one[0]).map(r -> r * r).sum()).toArray();
        return points.get(IntStream.range(0, sums.length).boxed().min(Comparator.comparingDouble(i -> sums[i])).orElseThrow());
    }

    private Optimum fitted(double[] from) {
        LeastSquaresProblem problem = new LeastSquaresBuilder().start(from).model((MultivariateJacobianFunction) this::linear).target(new double[size()]).parameterValidator(this::within)
                .maxEvaluations(MOST_EVALUATIONS).maxIterations(MOST_EVALUATIONS).checker((iteration, one, other) -> one != null && other != null && Math.abs(one.getCost() - other.getCost()) <= ENOUGH * one.getCost()).build();
        try {
            return new LevenbergMarquardtOptimizer().withCostRelativeTolerance(ENOUGH).withParameterRelativeTolerance(ENOUGH).optimize(problem);
        } catch (MathIllegalStateException noFurther) {
            /* tolerances finer than what a run can tell: the best of all is as good as it gets */
            return Optimum.of(problem.evaluate(new ArrayRealVector(best)), 1, 1);
        }
    }

    private RealVector within(RealVector wanted) {
        RealVector kept = wanted.copy();
        for (int i = 0; i < unknowns.size(); i++) {
            kept.setEntry(i, Math.max(unknowns.get(i).least() / scales[i], Math.min(unknowns.get(i).most() / scales[i], wanted.getEntry(i))));
        }
        return kept;
    }

    /** Residuals in the units of their signals. */
    private double[] raw(double[] residuals) {
        double[] raw = residuals.clone();
        int at = 0;
        for (Told t : told) {
            for (int k = 0; k < t.averages(); k++) {
                raw[at++] *= t.deviation;
            }
        }
        return raw;
    }

    /** Takes the deviation of each signal from its residuals. @return the deviations */
    private double[] weigh(double[] raw) {
        double[] deviations = deviations(raw);
        for (int s = 0; s < told.size(); s++) {
            /* never finer than what is written of it */
            told.get(s).deviation = Math.max(deviations[s], 1e-6 * Math.max(1e-9, Arrays.stream(told.get(s).values).map(Math::abs).max().orElse(1)));
        }
        return deviations;
    }

    private double[] deviations(double[] raw) {
        double[] deviations = new double[told.size()];
        int at = 0;
        for (int s = 0; s < told.size(); s++) {
            Told t = told.get(s);
            double sum = 0;
            for (int k = 0; k < t.averages(); k++, at++) {
                sum += raw[at] * raw[at];
            }
            deviations[s] = Math.sqrt(sum / t.averages());
        }
        return deviations;
    }

    // ---- how sure it is

    private List<Learned.LearnedValue> values(Optimum optimum, List<String> remarks) {
        Axis of = machine.axes().get(axis);
        RealMatrix jacobian = optimum.getJacobian();
        double[] columns = IntStream.range(0, unknowns.size()).mapToDouble(i -> jacobian.getColumnVector(i).getNorm()).toArray();
        double strongest = Arrays.stream(columns).max().orElse(0);
        int[] shown = IntStream.range(0, columns.length).filter(i -> columns[i] > 1e-6 * strongest).toArray();
        RealMatrix covariance = covariance(jacobian, shown, optimum.getResiduals().toArray());
        List<Learned.LearnedValue> values = new ArrayList<>();
        for (int i = 0; i < unknowns.size(); i++) {
            Unknown unknown = unknowns.get(i);
            int number = i;
            int place = IntStream.range(0, shown.length).filter(s -> shown[s] == number).findFirst().orElse(-1);
            if (place < 0) {
                remarks.add("The recording says nothing about the " + unknown.words(of) + ".");
                continue;
            }
            double found = optimum.getPoint().getEntry(i) * scales[i];
            double spread = TIMES * Math.sqrt(Math.max(0, covariance.getEntry(place, place))) * scales[i];
            double doubt = unknown == Unknown.DELAY ? spread : Math.hypot(spread, LEAST_DOUBT * Math.max(scales[i], Math.abs(found)));
            boolean sure = doubt <= SMALL * Math.max(Math.abs(found), scales[i]);
            if (!sure && unknown != Unknown.DELAY) {
                remarks.add(String.format(Locale.ROOT, "The %s cannot be told well: moves with other speeds and accelerations would show it.", unknown.words(of)));
            }
            values.add(new Learned.LearnedValue(unknown, unknown.words(of), unknown.unit(of), unknown.of(of), found, doubt, sure, unknown.pointer(of)));
        }
        return values;
    }

    /**
     * (JᵀJ)⁻¹ times the variance of the residuals, in between enlarged for their alikeness: Σ over the signals of Jᵀ_s J_s (1 + 2 Σ ρ_lag), as of a stationary series (Bartlett 1946).
     */
    private RealMatrix covariance(RealMatrix jacobian, int[] shown, double[] residuals) {
        RealMatrix j = jacobian.getSubMatrix(IntStream.range(0, residuals.length).toArray(), shown);
        RealMatrix information = j.transposeMultiply(j);
        RealMatrix inverse = new SingularValueDecomposition(information).getSolver().getInverse();
        RealMatrix middle = MatrixUtils.createRealMatrix(shown.length, shown.length);
        int at = 0;
        for (Told t : told) {
            RealMatrix own = j.getSubMatrix(at, at + t.averages() - 1, 0, shown.length - 1);
            double[] r = Arrays.copyOfRange(residuals, at, at + t.averages());
            double variance = Arrays.stream(r).map(x -> x * x).sum() / Math.max(1, t.averages() - shown.length);
            middle = middle.add(own.transposeMultiply(own).scalarMultiply(variance * alike(r)));
            at += t.averages();
        }
        return inverse.multiply(middle).multiply(inverse);
    }

    /** 1 + 2 Σ ρ over the lags until neighbours are not alike any more. */
    private static double alike(double[] r) {
        double all = Arrays.stream(r).map(x -> x * x).sum();
        double sum = 1;
        for (int lag = 1; lag < Math.min(MOST_LAGS, r.length / 4) && all > 0; lag++) {
            double product = 0;
            for (int k = lag; k < r.length; k++) {
                product += r[k] * r[k - lag];
            }
            double correlation = product / all;
            if (correlation < 0.05) {
                break;
            }
            sum += 2 * correlation;
        }
        return sum;
    }
}
