package rueda.proof.repeat;

import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.Callable;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.ExecutorCompletionService;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.function.IntFunction;
import java.util.stream.IntStream;
import rueda.bench.CalculationCancelled;
import rueda.bench.ReadyProgram;
import rueda.machine.Condition;
import rueda.machine.Machine;
import rueda.machine.Plan;
import rueda.machine.Proof;
import rueda.proof.ProofRun;
import rueda.proof.Prover;
import rueda.quantity.InvalidEntry;
import rueda.recording.Brought;

/**
 * All runs of a proof's plan, on several threads. Of each run its outcome is kept, not its recording; {@link #again} makes it anew, exactly.
 *
 * <p>Memory: one bench with its recording for each thread, and some tens of bytes for each run and expectation. Thread-safe.
 */
public final class Repetition {

    /** Told after each run, on any thread, one after the other. It may throw, to end them all. */
    @FunctionalInterface
    public interface Progress {
        /** @param done runs that have ended  @param of all of them */
        void ran(int done, int of);
    }

    private final Machine machine;
    private final Proof proof;
    private final int threads;
    private final Brought.Shelf shelf;
    private final Progress progress;
    private final Outcome[] outcomes;
    private final AtomicInteger done = new AtomicInteger();
    /** the program, compiled once for each thread */
    private final ThreadLocal<ReadyProgram> ready;

    private Repetition(Machine machine, Proof proof, int threads, Brought.Shelf shelf, Progress progress) {
        this.machine = machine;
        this.proof = proof;
        this.threads = threads;
        this.shelf = shelf;
        this.progress = progress;
        outcomes = new Outcome[size(machine, proof)];
        ready = ThreadLocal.withInitial(() -> ReadyProgram.of(machine));
    }

    /** How many runs the plan of a proof has. */
    public static int size(Machine machine, Proof proof) {
        return proof.plan().kind() == Plan.Kind.WORST ? proof.conditions().isEmpty() ? 1 : proof.plan().runs() : Cases.of(machine, proof).size();
    }

    /** As the document says, then each value of each condition alone, whatever the plan. */
    public static List<Case> alone(Proof proof) {
        Cases cases = Cases.of(proof.withPlan(Plan.USUAL));
        return IntStream.range(0, cases.size()).mapToObj(cases::at).toList();
    }

    /** What a plan does, in words; where there are more combinations than may run, how many there are. @param runs that there were, or will be at most */
    public static String words(Proof proof, int runs) {
        String words = proof.plan().kind().words() + ", " + runs + (runs == 1 ? " run" : " runs");
        double all = proof.conditions().stream().mapToDouble(condition -> Math.max(1, condition.size())).reduce(1, (a, b) -> a * b);
        return proof.plan().kind() == Plan.Kind.ALL_COMBINATIONS && all > runs ? words + ", the first of " + String.format(java.util.Locale.ROOT, all < 1e9 ? "%.0f" : "%.1e", all) : words;
    }

    /**
     * @param threads 1 or more
     * @param shelf   recordings that the runs are held against, read by all threads
     * @return one for each run that there was, in order
     * @throws CalculationCancelled     when this thread is interrupted
     * @throws IllegalArgumentException when the program has faults, a sentence of the script cannot be read, or what is varied is nothing that its axis has
     */
    public static List<Outcome> run(Machine machine, Proof proof, int threads, Brought.Shelf shelf, Progress progress) {
        for (int i = 0; i < proof.conditions().size(); i++) {
            Condition condition = proof.conditions().get(i);
            String missing = machine.axis(String.valueOf(condition.axis())).map(condition.of()::missingIn).orElse(null);
            if (missing != null) {
                throw new InvalidEntry("conditions/" + i + "/axis", condition.axis(), "an axis that has what is varied", missing);
            }
        }
        Repetition repetition = new Repetition(machine, proof, threads, shelf, progress);
        ExecutorService workers = Executors.newFixedThreadPool(threads, work -> {
            Thread thread = new Thread(work, "repeated proof");
            thread.setDaemon(true);
            return thread;
        });
        try {
            repetition.run(workers);
        } catch (InterruptedException cancelled) {
            Thread.currentThread().interrupt();
            throw new CalculationCancelled();
        } finally {
            workers.shutdownNow();
        }
        List<Outcome> all = new ArrayList<>();
        for (Outcome outcome : repetition.outcomes) {
            if (outcome != null) {
                all.add(outcome);
            }
        }
        return all;
    }

    /** One of the runs anew, with its recording. */
    public static ProofRun again(Machine machine, Proof proof, Case one, Brought.Shelf shelf, Prover.Progress progress) {
        Prepared prepared = Prepared.of(machine, proof, one);
        return Prover.run(prepared.machine(), prepared.proof(), prepared.stand(), shelf, progress);
    }

    private void run(ExecutorService workers) throws InterruptedException {
        Plan plan = proof.plan();
        if (plan.kind() == Plan.Kind.WORST) {
            new WorstSearch(proof.conditions(), outcomes.length, plan.seed(), Outcome::score).run(new Searched(workers));
            return;
        }
        Cases cases = Cases.of(machine, proof);
        spread(workers, cases.size(), run -> made(run, cases.at(run)));
    }

    /** Each thread takes the next run when it has ended one: nothing but those is in memory. */
    private void spread(ExecutorService workers, int count, IntFunction<Outcome> run) throws InterruptedException {
        AtomicInteger next = new AtomicInteger();
        Callable<Void> taking = () -> {
            for (int i = next.getAndIncrement(); i < count; i = next.getAndIncrement()) {
                run.apply(i);
            }
            return null;
        };
        together(workers, IntStream.range(0, Math.min(threads, count)).mapToObj(i -> taking).toList());
    }

    /** Ends with the first failure. */
    private static void together(ExecutorService workers, List<Callable<Void>> work) throws InterruptedException {
        ExecutorCompletionService<Void> completion = new ExecutorCompletionService<>(workers);
        List<Future<Void>> all = work.stream().map(completion::submit).toList();
        try {
            for (int i = 0; i < all.size(); i++) {
                completion.take().get();
            }
        } catch (ExecutionException failed) {
            if (failed.getCause() instanceof RuntimeException refused) {
                throw refused;
            } else if (failed.getCause() instanceof Error error) {
                throw error;
            }
            throw new IllegalStateException(failed.getCause());
        } finally {
            all.forEach(future -> future.cancel(true));
        }
    }

    private Outcome made(int number, Case one) {
        Prepared prepared = Prepared.of(machine, proof, one);
        Outcome outcome = Outcome.of(number, one, Prover.judge(prepared.machine(), ready.get(), prepared.proof(), prepared.stand(), shelf));
        outcomes[number] = outcome;
        synchronized (progress) {
            progress.ran(done.incrementAndGet(), outcomes.length);
        }
        return outcome;
    }

    /** Runs cases for a search. */
    private final class Searched implements WorstSearch.Runner {
        private final ExecutorService workers;

        Searched(ExecutorService workers) {
            this.workers = workers;
        }

        @Override
        public List<Outcome> all(int first, List<Case> cases) throws InterruptedException {
            spread(workers, cases.size(), i -> made(first + i, cases.get(i)));
            return IntStream.range(first, first + cases.size()).mapToObj(i -> outcomes[i]).toList();
        }

        @Override
        public void each(List<Callable<Void>> work) throws InterruptedException {
            together(workers, work);
        }

        @Override
        public Outcome one(int number, Case one) {
            return made(number, one);
        }
    }
}
