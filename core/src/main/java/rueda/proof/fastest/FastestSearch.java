package rueda.proof.fastest;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.Callable;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.stream.IntStream;
import rueda.bench.Bench;
import rueda.bench.CalculationCancelled;
import rueda.bench.ReadyProgram;
import rueda.machine.Expectation;
import rueda.machine.Machine;
import rueda.machine.MachineRules;
import rueda.machine.Proof;
import rueda.plc.StructuredTextCompiler;
import rueda.proof.Prover;
import rueda.proof.Verdict;
import rueda.proof.repeat.Case;
import rueda.proof.repeat.Prepared;
import rueda.proof.repeat.Repetition;
import rueda.quantity.InvalidEntry;
import rueda.recording.Brought;

/** The search. Not thread-safe; it works on threads of its own. */
public final class FastestSearch {

    private static final double FIRST_STEP = 0.25;
    /** Of the range of each number: finer than that no drawing of a machine is. */
    private static final double LAST_STEP = 0.01;
    /** What is lacked where it never came to it. */
    private static final double NOTHING = 1000;

    /** Told after each round of points; may throw, to end it. */
    @FunctionalInterface
    public interface Progress {
        /** @param points sets of values that were tried  @param of at most  @param best the shortest time that holds everything so far, s; NaN for none */
        void tried(int points, int of, double best);
    }

    private final Machine machine;
    private final Proof proof;
    private final List<Case> cases;
    private final List<Freedom> freedoms;
    private final Brought.Shelf shelf;
    private final Progress progress;
    private final ExecutorService workers;
    private final ThreadLocal<Compiled> compiled = new ThreadLocal<>();
    private final Map<String, Tried> known = new HashMap<>();
    private final int most;
    private int runs;

    /** The program of the machine that ran last on a thread. */
    private record Compiled(Machine of, ReadyProgram ready) {
    }

    /** @param lacks room that is missing at the worst, as a share; 0 where everything holds  @param time that counts, s  @param tightest in words */
    private record Tried(double[] point, double lacks, double time, String tightest) {
        boolean better(Tried than) {
            return lacks != than.lacks ? lacks < than.lacks : lacks == 0 && time < than.time - 1e-9;
        }
    }

    private FastestSearch(Machine machine, Proof proof, List<Case> cases, List<Freedom> freedoms, Brought.Shelf shelf, int threads, int most, Progress progress) {
        this.machine = machine;
        this.proof = proof;
        this.cases = cases;
        this.freedoms = freedoms;
        this.shelf = shelf;
        this.most = most;
        this.progress = progress;
        workers = Executors.newFixedThreadPool(threads, work -> {
            Thread thread = new Thread(work, "fastest");
            thread.setDaemon(true);
            return thread;
        });
    }

    /**
     * @param from       event with which the time that counts begins; each time it comes, the longest counts
     * @param to         event with which it ends
     * @param conditions under all conditions of the proof, each value alone; else as the document says
     * @param freedoms   with the bounds within which each may be changed
     * @param most       points that are tried at most, 1 to 2000
     * @throws InvalidEntry         when nothing is free, a bound is none, or an event cannot be read
     * @throws CalculationCancelled when this thread is interrupted
     */
    public static Fastest search(Machine machine, Proof proof, String from, String to, boolean conditions, List<Freedom> freedoms, Brought.Shelf shelf, int threads, int most, Progress progress) {
        if (freedoms.isEmpty()) {
            throw new InvalidEntry("freedoms", "none", "at least one number that may be changed", "choose some");
        }
        for (Freedom freedom : freedoms) {
            if (!(freedom.low() > 0 && freedom.low() < freedom.high() && Double.isFinite(freedom.high()))) {
                throw new InvalidEntry("freedoms", freedom.words() + " from " + freedom.low() + " to " + freedom.high(), "a range above 0, its end above its begin", "enter other bounds");
            }
        }
        List<Expectation> all = new ArrayList<>(proof.expectations());
        all.add(Expectation.time(from, to, 0, proof.duration()));
        Proof timed = proof.withExpectations(all);
        List<Case> cases = Repetition.alone(conditions ? timed : timed.withConditions(List.of()));
        FastestSearch search = new FastestSearch(machine, conditions ? timed : timed.withConditions(List.of()), cases, freedoms, shelf, threads, most, progress);
        try {
            return search.search();
        } finally {
            search.workers.shutdownNow();
        }
    }

    private Fastest search() {
        double[] begin = freedoms.stream().mapToDouble(f -> scaled(f, f.value())).toArray();
        Tried first = all(List.of(begin)).get(0);
        Tried best = first;
        double[] clamped = Arrays.stream(begin).map(x -> Math.max(0, Math.min(1, x))).toArray();
        if (!Arrays.equals(clamped, begin)) {
            best = all(List.of(clamped)).get(0);
        }
        double step = FIRST_STEP;
        while (step >= LAST_STEP && known.size() < most) {
            Tried from = best;
            List<double[]> around = new ArrayList<>();
            for (int i = 0; i < begin.length; i++) {
                around.add(moved(from.point(), i, step));
                around.add(moved(from.point(), i, -step));
            }
            /* all of them together: what holds a machine back is often no single one */
            around.add(together(from.point(), step));
            around.add(together(from.point(), -step));
            for (Tried one : all(around.stream().limit(Math.max(1, most - known.size())).toList())) {
                best = one.better(best) ? one : best;
            }
            progress.tried(known.size(), most, best.lacks() == 0 ? best.time() : Double.NaN);
            step = best == from ? step / 2 : step;
        }
        Tried found = best.better(first) || best.lacks() == 0 ? best : first;
        List<Fastest.FoundNumber> values = IntStream.range(0, freedoms.size()).mapToObj(i -> new Fastest.FoundNumber(freedoms.get(i), found == first ? freedoms.get(i).value() : value(i, found.point()[i]))).toList();
        return new Fastest(finite(first.time()), found.lacks() == 0 ? finite(found.time()) : null, first.lacks() == 0, found.lacks() == 0, values, found.tightest(), known.size(), runs);
    }

    private static Double finite(double time) {
        return Double.isFinite(time) ? (Double) time : null;
    }

    private static double scaled(Freedom f, double value) {
        return (value - f.low()) / (f.high() - f.low());
    }

    private double value(int i, double share) {
        Freedom f = freedoms.get(i);
        return f.rounded(f.low() + share * (f.high() - f.low()));
    }

    private static double[] moved(double[] point, int i, double by) {
        double[] moved = point.clone();
        moved[i] = Math.max(0, Math.min(1, moved[i] + by));
        return moved;
    }

    private static double[] together(double[] point, double by) {
        return Arrays.stream(point).map(x -> Math.max(0, Math.min(1, x + by))).toArray();
    }

    // ---- runs

    private String key(double[] point) {
        return Arrays.toString(IntStream.range(0, point.length).mapToDouble(i -> value(i, point[i])).toArray());
    }

    /** Each point under each case, as they are asked; the first case alone first, and the rest only of those that hold it. */
    private List<Tried> all(List<double[]> points) {
        Map<String, double[]> missing = new LinkedHashMap<>();
        points.stream().filter(point -> !known.containsKey(key(point))).forEach(point -> missing.putIfAbsent(key(point), point));
        List<double[]> unknown = List.copyOf(missing.values());
        List<Tried> nominal = made(unknown, List.of(cases.get(0)));
        List<double[]> promising = new ArrayList<>();
        for (int i = 0; i < unknown.size(); i++) {
            known.put(key(unknown.get(i)), nominal.get(i));
            if (nominal.get(i).lacks() < NOTHING && cases.size() > 1) {
                promising.add(unknown.get(i));
            }
        }
        List<Tried> rest = made(promising, cases.subList(1, cases.size()));
        for (int i = 0; i < promising.size(); i++) {
            Tried one = known.get(key(promising.get(i)));
            known.put(key(promising.get(i)), worse(one, rest.get(i)));
        }
        return points.stream().map(point -> known.get(key(point))).toList();
    }

    private static Tried worse(Tried a, Tried b) {
        Tried tighter = b.lacks() > a.lacks() ? b : a;
        return new Tried(a.point(), Math.max(a.lacks(), b.lacks()), Math.max(a.time(), b.time()), tighter.tightest());
    }

    private List<Tried> made(List<double[]> points, List<Case> under) {
        if (points.isEmpty() || under.isEmpty()) {
            return List.of();
        }
        List<Future<Tried>> futures = new ArrayList<>();
        for (double[] point : points) {
            Machine changed = Freedom.changed(machine, freedoms, IntStream.range(0, point.length).mapToDouble(i -> inBounds(point[i]) ? value(i, point[i]) : freedoms.get(i).value()).toArray());
            for (Case one : under) {
                futures.add(workers.submit((Callable<Tried>) () -> ran(point, changed, one)));
            }
        }
        List<Tried> all = new ArrayList<>();
        try {
            for (int p = 0; p < points.size(); p++) {
                Tried worst = futures.get(p * under.size()).get();
                for (int c = 1; c < under.size(); c++) {
                    worst = worse(worst, futures.get(p * under.size() + c).get());
                }
                all.add(worst);
            }
        } catch (InterruptedException cancelled) {
            futures.forEach(future -> future.cancel(true));
            Thread.currentThread().interrupt();
            throw new CalculationCancelled();
        } catch (ExecutionException failed) {
            futures.forEach(future -> future.cancel(true));
            if (failed.getCause() instanceof RuntimeException refused) {
                throw refused;
            } else if (failed.getCause() instanceof Error error) {
                throw error;
            }
            throw new IllegalStateException(failed.getCause());
        }
        runs += points.size() * under.size();
        return all;
    }

    private static boolean inBounds(double share) {
        return share >= 0 && share <= 1;
    }

    private Tried ran(double[] point, Machine changed, Case one) {
        if (!MachineRules.check(changed).isEmpty() || !StructuredTextCompiler.compile(StructuredTextCompiler.Text.of(changed.plc()), Bench.environment(changed)).runs()) {
            return new Tried(point, 2 * NOTHING, Double.POSITIVE_INFINITY, "these values are refused");
        }
        Prepared prepared = Prepared.of(changed, proof, one);
        Compiled last = compiled.get();
        if (last == null || last.of() != changed) {
            last = new Compiled(changed, ReadyProgram.of(changed));
            compiled.set(last);
        }
        Prover.Judgement judged = Prover.judge(prepared.machine(), last.ready(), prepared.proof(), prepared.stand(), shelf);
        List<Verdict> verdicts = judged.verdicts();
        Verdict timed = verdicts.get(verdicts.size() - 1);
        double time = timed.measured() == null ? Double.POSITIVE_INFINITY : timed.measured();
        double lacks = judged.stopped() == null ? timed.measured() == null ? NOTHING : 0 : NOTHING;
        String tightest = judged.stopped() != null ? "the program stopped: " + judged.stopped() : timed.measured() == null ? String.valueOf(timed.cause()).replaceFirst("\\.$", "") : "";
        double least = Double.POSITIVE_INFINITY;
        for (Verdict verdict : verdicts.subList(0, verdicts.size() - 1)) {
            double room = verdict.room() != null ? verdict.room() : verdict.holds() ? Double.POSITIVE_INFINITY : -1;
            if (!verdict.holds()) {
                lacks = Math.max(lacks, Math.max(1e-9, -room));
            }
            if (room < least && lacks < NOTHING) {
                least = room;
                tightest = verdict.sentence() + (one.unchanged() ? "" : ", with " + Prepared.words(changed, proof, one));
            }
        }
        return new Tried(point, lacks, time, tightest);
    }
}
