package rueda.app.proof;

import jakarta.annotation.PreDestroy;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.time.Clock;
import java.util.List;
import java.util.Map;
import java.util.concurrent.CancellationException;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.Future;
import java.util.concurrent.FutureTask;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.RejectedExecutionException;
import java.util.concurrent.ThreadPoolExecutor;
import java.util.concurrent.TimeUnit;
import java.util.zip.GZIPInputStream;
import java.util.zip.GZIPOutputStream;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.boot.context.event.ApplicationReadyEvent;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Service;
import org.springframework.transaction.PlatformTransactionManager;
import org.springframework.transaction.support.TransactionTemplate;
import rueda.app.machine.MachineJson;
import rueda.app.machine.MachineState;
import rueda.app.machine.MachineStore;
import rueda.app.recording.RecordingStore;
import rueda.app.proof.RepetitionEntity.State;
import rueda.app.storage.StorageFault;
import rueda.app.web.Refusals.NotFound;
import rueda.app.web.Refusals.TooMuchAtOnce;
import rueda.app.work.Daemons;
import rueda.machine.Machine;
import rueda.machine.Proof;
import rueda.proof.repeat.ConditionMap;
import rueda.proof.repeat.Outcome;
import rueda.proof.repeat.Repetition;
import rueda.recording.Brought;
import rueda.quantity.InvalidEntry;

/**
 * Repeats proofs by their plans, one after the other, each on all processors, whether a page listens or not, and keeps what became of the runs. What had not
 * ended when Rueda was closed is told as that.
 */
@Service
public class RepetitionStore {

    private static final Logger LOG = LoggerFactory.getLogger(RepetitionStore.class);
    private static final int MOST_WAITING = 50;
    private static final int LONGEST_MESSAGE = 2000;

    private final MachineStore machines;
    private final RunStore runs;
    private final Repetitions repetitions;
    private final TransactionTemplate transaction;
    private final RecordingStore recordings;
    private final Clock clock;
    private final Map<Long, Job> jobs = new ConcurrentHashMap<>();
    private final LinkedBlockingQueue<Runnable> waiting = new LinkedBlockingQueue<>(MOST_WAITING);
    private final ThreadPoolExecutor runner = new ThreadPoolExecutor(1, 1, 0, TimeUnit.SECONDS, waiting, work -> Daemons.named("proof repeated", work));

    RepetitionStore(MachineStore machines, RunStore runs, RecordingStore recordings, Repetitions repetitions, PlatformTransactionManager transactions, Clock clock) {
        this.machines = machines;
        this.runs = runs;
        this.recordings = recordings;
        this.repetitions = repetitions;
        this.clock = clock;
        transaction = new TransactionTemplate(transactions);
    }

    /** One that waits or runs. */
    private static final class Job {
        private final int total;
        private volatile int done;
        private volatile long begun;
        private volatile boolean ended;
        /** the computing, on a thread of its own: only that is interrupted, never one that writes to the database */
        private final FutureTask<List<Outcome>> computing;
        private volatile Future<?> work;

        Job(Machine machine, Proof proof, Brought.Shelf shelf, int total) {
            this.total = total;
            computing = new FutureTask<>(() -> Repetition.run(machine, proof, Runtime.getRuntime().availableProcessors(), shelf, (done, of) -> told(done)));
        }

        private synchronized void told(int runs) {
            done = runs;
            notifyAll();
        }

        private synchronized void ended() {
            ended = true;
            notifyAll();
        }
    }

    /** Those that ran when Rueda was closed will not go on. */
    @EventListener(ApplicationReadyEvent.class)
    void afterStart() {
        transaction.executeWithoutResult(status -> repetitions.findByStateIn(List.of(State.WAITS, State.RUNS)).stream().filter(left -> !jobs.containsKey(left.id)).forEach(left -> {
            left.state = State.CANCELLED;
            left.message = "Rueda was closed before it had ended.";
            left.endedAt = clock.instant();
        }));
    }

    /**
     * Repeats a proof of the current revision by its plan, in its turn.
     *
     * @param name which; null where there is only one
     * @throws InvalidEntry when there is no such proof, or its plan has no runs
     */
    public RepetitionView start(long machineId, String name) {
        MachineState state = machines.get(machineId);
        Machine machine = state.document();
        Proof proof = RunStore.wanted(machine, name);
        RunStore.checkProgram(machine);
        int total = Repetition.size(machine, proof);
        Brought.Shelf shelf = recordings.held(machineId, proof);
        RepetitionEntity entity = transaction.execute(status -> repetitions.save(new RepetitionEntity(state.id(), state.revision(), proof.name(), clock.instant(), total, MachineJson.write(proof))));
        Job job = new Job(machine, proof, shelf, total);
        jobs.put(entity.id, job);
        try {
            job.work = runner.submit(() -> work(entity.id, job));
        } catch (RejectedExecutionException full) {
            jobs.remove(entity.id);
            end(entity.id, State.FAILED, "Too many wait already.", null, 0);
            throw new TooMuchAtOnce(MOST_WAITING + " repeated proofs");
        }
        return view(entity.id);
    }

    private void work(long id, Job job) {
        try {
            job.begun = System.nanoTime();
            transaction.executeWithoutResult(status -> repetitions.findById(id).ifPresent(entity -> entity.state = State.RUNS));
            Daemons.named("proof repeated, computing", job.computing).start();
            end(id, State.ENDED, null, packed(job.computing.get()), job.done);
        } catch (CancellationException cancelled) {
            end(id, State.CANCELLED, "It was cancelled after " + job.done + " of " + job.total + " runs.", null, job.done);
        } catch (ExecutionException failure) {
            end(id, State.FAILED, words(failure.getCause()), null, job.done);
        } catch (Exception | Error failure) {
            end(id, State.FAILED, words(failure), null, job.done);
        } finally {
            jobs.remove(id);
            job.ended();
        }
    }

    private static String words(Throwable failure) {
        if (failure instanceof InvalidEntry refused) {
            return refused.getMessage();
        }
        LOG.error("A repeated proof failed.", failure);
        return StorageFault.of(failure).map(StorageFault::sentence).orElse(failure instanceof OutOfMemoryError ? "This needs more memory than there is: plan fewer runs." : "Rueda made a mistake with this; the reason is in the server's output.");
    }

    private void end(long id, State state, String message, byte[] outcomes, int done) {
        transaction.executeWithoutResult(status -> repetitions.findById(id).ifPresent(entity -> {
            entity.state = state;
            entity.message = message == null ? null : message.substring(0, Math.min(LONGEST_MESSAGE, message.length()));
            entity.endedAt = clock.instant();
            entity.outcomes = outcomes;
            entity.done = done;
        }));
    }

    public void cancel(long id) {
        Job job = jobs.get(id);
        if (job == null) {
            repetitions.findById(id).orElseThrow(() -> new NotFound("repeated proof " + id));
            return;
        }
        job.computing.cancel(true);
        if (job.work != null && job.begun == 0 && job.work.cancel(false)) {
            /* it waits: it will never begin */
            jobs.remove(id);
            end(id, State.CANCELLED, "It was cancelled before it had begun.", null, 0);
            job.ended();
        }
    }

    /** Waits for news of one that waits or runs. @param known runs that are known to have ended  @param millis longest wait  @return whether there may be more */
    boolean await(long id, int known, long millis) throws InterruptedException {
        Job job = jobs.get(id);
        if (job == null) {
            return false;
        }
        synchronized (job) {
            if (!job.ended && job.done <= known) {
                job.wait(millis);
            }
        }
        return !job.ended;
    }

    RepetitionProgress progress(long id) {
        Job job = jobs.get(id);
        if (job == null) {
            RepetitionEntity entity = repetitions.findById(id).orElseThrow(() -> new NotFound("repeated proof " + id));
            return new RepetitionProgress(0, entity.done, entity.total, 0.0, true);
        }
        int done = job.done;
        double passed = (System.nanoTime() - job.begun) * 1e-9;
        return new RepetitionProgress(job.begun == 0 ? Math.max(1, runner.getActiveCount()) : 0, done, job.total, job.begun == 0 || done == 0 ? null : (Double) (passed / done * (job.total - done)), false);
    }

    /** The newest of every proof that the machine has; those that were never repeated are left out. */
    public List<RepetitionView> latest(long machineId) {
        return machines.get(machineId).document().proofs().stream().flatMap(proof -> repetitions.findFirstByMachineIdAndNameIgnoreCaseOrderByIdDesc(machineId, proof.name()).stream()).map(entity -> view(entity.id)).toList();
    }

    public RepetitionView view(long id) {
        RepetitionEntity entity = repetitions.findById(id).orElseThrow(() -> new NotFound("repeated proof " + id));
        Proof proof = MachineJson.read(entity.proof, Proof.class);
        Job job = jobs.get(id);
        ConditionMap map = entity.outcomes == null ? null : ConditionMap.of(machine(entity), proof, unpacked(entity.outcomes));
        return new RepetitionView(entity.id, entity.revision, entity.name, entity.startedAt, entity.endedAt, entity.state, job == null ? entity.done : job.done, entity.total, entity.message,
                Repetition.words(proof, map == null ? entity.total : map.runs()), map);
    }

    private Machine machine(RepetitionEntity entity) {
        return machines.document(entity.machineId, entity.revision);
    }

    /** Makes one of its runs again, with its recording, and keeps it. */
    void again(long id, int run, ProofQueue.Asker asker) {
        RepetitionEntity entity = repetitions.findById(id).orElseThrow(() -> new NotFound("repeated proof " + id));
        Outcome wanted = (entity.outcomes == null ? List.<Outcome>of() : unpacked(entity.outcomes)).stream().filter(outcome -> outcome.run() == run).findFirst().orElseThrow(() -> new NotFound("run " + run + " of repeated proof " + id));
        runs.again(entity.machineId, entity.revision, machine(entity), MachineJson.read(entity.proof, Proof.class), wanted.of(), asker);
    }

    private static byte[] packed(List<Outcome> outcomes) {
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        try (GZIPOutputStream gzip = new GZIPOutputStream(bytes)) {
            gzip.write(MachineJson.write(new Kept(outcomes)).getBytes(StandardCharsets.UTF_8));
        } catch (IOException impossible) {
            throw new UncheckedIOException(impossible);
        }
        return bytes.toByteArray();
    }

    private static List<Outcome> unpacked(byte[] outcomes) {
        try (GZIPInputStream gzip = new GZIPInputStream(new ByteArrayInputStream(outcomes))) {
            return MachineJson.read(new String(gzip.readAllBytes(), StandardCharsets.UTF_8), Kept.class).outcomes();
        } catch (IOException damaged) {
            throw new UncheckedIOException(damaged);
        }
    }

    /** As it is stored. */
    record Kept(List<Outcome> outcomes) {
    }

    @PreDestroy
    void close() {
        jobs.values().forEach(job -> job.computing.cancel(true));
        runner.shutdown();
    }
}
